"""The wall of a tapered tier of any outline laid out flat, facet by facet, as one strip.

A wall that leans in evenly is made of plane facets above the outline's edges, hinged where they meet, and of a part
of a cone above each corner that turns inward: all of it unrolls without stretch. Lengths are in mm.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

from amber_spread.core.geometry.flat.outline import Point


class Facet(NamedTuple):
    """One plane of the wall: as long as `wide` at its wide end, cut in by `start` and `end` at its narrow one, and so
    high up the slope; after it the wall turns on round its last wide corner by `fan` radians.
    """

    wide: float
    start: float
    end: float
    high: float
    fan: float


CREASE = math.radians(17)
"""An outline that turns inward by more at one corner has a crease there; a curve turns by less at each."""


class NotFlat(ValueError):
    """A wall that cannot be laid out as one strip: an edge is gone before the narrow end is reached, or a crease moves
    out as the outline grows, and opens into a cone on the way in.
    """


def facets_of(wide: Sequence[Point], inward_mm: float, rise_mm: float, grown: bool = False) -> list[Facet]:
    """The facets of a wall above an outline's wide end, anticlockwise, that leans in so far over so much height.

    At a corner that turns by t the narrow edge is shorter by inward x tan(t / 2); where the outline turns inward the
    edge keeps its length, and a cone of that angle stands between. A crease of an outline that was `grown` to its wide
    end has no such cone all the way: the wall there does not unroll. Raises NotFlat. Source: geometry.
    """
    count, high = len(wide), math.hypot(inward_mm, rise_mm)
    ways = [math.atan2(wide[(i + 1) % count][1] - y, wide[(i + 1) % count][0] - x) for i, (x, y) in enumerate(wide)]
    turns = [math.remainder(way - ways[index - 1], 2 * math.pi) for index, way in enumerate(ways)]
    found = []
    for index, (x, y) in enumerate(wide):
        after = wide[(index + 1) % count]
        length = math.dist((x, y), after)
        here, there = turns[index], turns[(index + 1) % count]
        start, end = (inward_mm * math.tan(max(0.0, turn) / 2) for turn in (here, there))
        if start + end > length + 1e-6:
            raise NotFlat("an edge of the wall is gone before its narrow end")
        fan = max(0.0, -there) * inward_mm / high
        if grown and there < -CREASE:
            raise NotFlat("a crease of the wall opens on the way to its narrow end")
        found.append(Facet(length, start, end, high, fan))
    return found


def unrolled(facets: Sequence[Facet]) -> tuple[list[Point], list[Point]]:
    """Facets laid out side by side in the plane: their wide ends and their narrow ends, as two runs of points."""
    wide: list[Point] = [(0.0, 0.0)]
    way = 0.0  # the direction of the wide edge
    first = facets[0]
    narrow: list[Point] = [(first.start, first.high)]
    slope = math.atan2(first.high, first.start)
    for index, facet in enumerate(facets):
        if index:
            way = slope - math.atan2(facet.high, facet.start)
        cos, sin = math.cos(way), math.sin(way)
        x, y = wide[-1]
        corner = (x + facet.wide * cos, y + facet.wide * sin)
        along = facet.wide - facet.end
        wide.append(corner)
        narrow.append((x + along * cos - facet.high * sin, y + along * sin + facet.high * cos))
        slope = math.atan2(narrow[-1][1] - corner[1], narrow[-1][0] - corner[0])
        if facet.fan > 0:
            reach, steps = math.dist(narrow[-1], corner), max(2, math.ceil(facet.fan / math.radians(5)))
            for step in range(1, steps + 1):
                turned = slope - facet.fan * step / steps
                narrow.append((corner[0] + reach * math.cos(turned), corner[1] + reach * math.sin(turned)))
            slope -= facet.fan
    return wide, narrow


def split(facets: Sequence[Facet], strips: int, overlap_mm: float) -> list[list[Facet]]:
    """The facets once round, shared among so many strips, each carried on into the next by the overlap."""
    whole = sum(facet.wide for facet in facets)
    found: list[list[Facet]] = []
    start, walked = 0, 0.0
    for strip in range(strips):
        goal = whole * (strip + 1) / strips
        index, own = start, list[Facet]()
        while index < len(facets) and (walked < goal - 1e-6):
            own.append(facets[index])
            walked += facets[index].wide
            index += 1
        lap, more = 0.0, index
        while lap < overlap_mm - 1e-6:
            facet = facets[more % len(facets)]
            own.append(facet)
            lap += facet.wide
            more += 1
        found.append(own)
        start = index
    return [own for own in found if own]


def finer(facets: Sequence[Facet], longest_mm: float) -> list[Facet]:
    """The same wall with every facet in parts no longer than that, each between two lines up the slope."""
    found: list[Facet] = []
    for facet in facets:
        parts = max(1, math.ceil(facet.wide / longest_mm))
        wide, narrow = facet.wide / parts, (facet.wide - facet.start - facet.end) / parts
        for part in range(parts):
            start = facet.start + part * (narrow - wide)
            last = part == parts - 1
            found.append(Facet(wide, start, wide - narrow - start, facet.high, facet.fan if last else 0.0))
    return found


def anticlockwise(points: Sequence[Point]) -> list[Point]:
    """The outline's corners anticlockwise, each once, without those that lie on another."""
    kept = [point for index, point in enumerate(points) if math.dist(point, points[index - 1]) > 1e-6]
    area = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in zip(kept, [*kept[1:], kept[0]], strict=True))
    return kept if area > 0 else kept[::-1]
