"""Closed lines of corners of which some are smooth: the line runs through those in a curve."""

import math
from collections.abc import Collection

from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.views import Corners
from amber_spread.core.kernel.caching import cached

FINE = 4000
"""A curve is drawn in straight pieces no farther from it than this share of the line's longer side."""
MOST_PIECES = 24


def curved(corners: Corners, smooth: Collection[int]) -> Corners:
    """A closed line of corners, run in a curve through those whose numbers from 0 are `smooth`, straight else.

    Between two corners it is a cubic, at a smooth one along the circle through that corner and its neighbours, at
    another along the straight way; so it is a circle wherever all lie on one. Its handles are as long as make an arc
    of a circle: 2 chord / (3 (1 + cos f)), f being the angle to the chord. In straight pieces, each within 1/4000 of
    the line's longer side of it (0.75 L / n**2, L the larger second difference of its handles). The same stands in the
    client, and both are held to tests/curves.json. Source: geometry (an arc's handles are 4/3 tan(angle / 4) of its
    radius; from memory).

    >>> curved(((0.0, 0.0), (10.0, 0.0), (0.0, 10.0)), ())
    ((0.0, 0.0), (10.0, 0.0), (0.0, 10.0))
    """
    return _curved(corners, frozenset(smooth)) if smooth else corners


@cached(256)
def _curved(corners: Corners, smooth: frozenset[int]) -> Corners:
    count = len(corners)
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    near = max(max(xs) - min(xs), max(ys) - min(ys), 1e-9) / FINE
    found: list[Point] = []
    for at, corner in enumerate(corners):
        after = (at + 1) % count
        found.append(corner)
        if at not in smooth and after not in smooth:
            continue
        ends = corner, *_handles(corners, at, smooth), corners[after]
        pieces = _pieces(ends, near)
        found.extend(_at(ends, step / pieces) for step in range(1, pieces))
    return tuple(found)


def _handles(corners: Corners, at: int, smooth: Collection[int]) -> tuple[Point, Point]:
    """The handles of the curve from a corner to the next."""
    count = len(corners)
    after = (at + 1) % count
    (x0, y0), (x1, y1) = corners[at], corners[after]
    leaves = _runs(corners, at) if at in smooth else (0.0, 0.0)
    comes = _runs(corners, after) if after in smooth else (0.0, 0.0)
    chord = x1 - x0, y1 - y0
    out, back = _long(leaves, chord), _long(comes, chord)
    return (x0 + out[0], y0 + out[1]), (x1 - back[0], y1 - back[1])


def _runs(corners: Corners, at: int) -> Point:
    """Which way the circle through a corner and its neighbours runs there, of length 1; nothing where they are one."""
    (xa, ya), (x, y), (xb, yb) = corners[at - 1], corners[at], corners[(at + 1) % len(corners)]
    before, after = (x - xa) ** 2 + (y - ya) ** 2, (xb - x) ** 2 + (yb - y) ** 2
    if not before or not after:
        return 0.0, 0.0
    across, along = (x - xa) / before + (xb - x) / after, (y - ya) / before + (yb - y) / after
    long = math.hypot(across, along)
    return (across / long, along / long) if long else (0.0, 0.0)


def _long(way: Point, chord: Point) -> Point:
    """A handle along a way, as long as makes an arc of a circle over the chord; without a way a third of the chord."""
    apart = math.hypot(*chord)
    if not apart or way == (0.0, 0.0):
        return chord[0] / 3, chord[1] / 3
    turned = (way[0] * chord[0] + way[1] * chord[1]) / apart
    long = 2 * apart / (3 * (1 + max(0.0, turned)))
    return way[0] * long, way[1] * long


def _pieces(ends: tuple[Point, ...], near: float) -> int:
    first, second = (
        math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1])
        for a, b, c in zip(ends, ends[1:], ends[2:], strict=False)
    )
    return max(1, min(MOST_PIECES, math.ceil(math.sqrt(0.75 * max(first, second) / near))))


def _at(ends: tuple[Point, ...], share: float) -> Point:
    """A place of a cubic by its ends and its handles."""
    left = 1 - share
    by = left**3, 3 * left**2 * share, 3 * left * share**2, share**3
    return sum(b * x for b, (x, _) in zip(by, ends, strict=True)), sum(
        b * y for b, (_, y) in zip(by, ends, strict=True)
    )
