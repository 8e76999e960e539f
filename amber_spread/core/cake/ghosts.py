"""The tins of a carved tier about its layers, to be seen in the round: where each would lie."""

import math
from collections.abc import Iterator

from amber_spread.core.cake.bakes import Baked, CarvedBake
from amber_spread.core.geometry.outline import Point
from amber_spread.core.geometry.sculpted import Sculpted
from amber_spread.core.geometry.sliced import Slice
from amber_spread.core.tier import RoundTin, Worked, slices_of

Line = list[list[float]]
CORNERS = 48
"""A circle is drawn in so many straight lines."""
POSTS = 4
"""So many upright lines show the side of a tin."""


def tins_about(done: Worked, baked: CarvedBake) -> list[RoundTin]:
    """Where the tin of each layer lies about it: about the least circle, rectangle or half ball that holds it. A layer
    is as high in it as it is cut.
    """
    bare = done.bodies.bare
    assert isinstance(bare, Sculpted)
    slices = {one.number: one for one in slices_of(bare, done.slabs)}
    return [
        RoundTin(layer=number, lines=list(_lines(tin, slices[number])))
        for tin in baked.tins.values()
        for number in tin.layers
    ]


def _lines(tin: Baked, one: Slice) -> Iterator[Line]:
    across = tin.across.value
    if tin.shape == "ball":
        yield from _half_ball(one, across / 2)
        return
    edge = (
        _circle(one.middle, across / 2)
        if tin.shape == "round"
        else _box(one, across, tin.length.value if tin.length else across)
    )
    for up in (one.low, one.high):
        yield [[x, y, up] for x, y in (*edge, edge[0])]
    for x, y in edge[:: max(1, len(edge) // POSTS)]:
        yield [[x, y, one.low], [x, y, one.high]]


def _circle(middle: Point, radius: float) -> list[Point]:
    turns = (2 * math.pi * step / CORNERS for step in range(CORNERS))
    return [(middle[0] + radius * math.cos(turn), middle[1] + radius * math.sin(turn)) for turn in turns]


def _box(one: Slice, across: float, length: float) -> list[Point]:
    """A rectangle about the least one round a slice, its short side along the short one."""
    corners = one.box
    middle = (corners[0][0] + corners[2][0]) / 2, (corners[0][1] + corners[2][1]) / 2
    short, long = sorted((across, length))
    ways = [_towards(corners[0], corners[1]), _towards(corners[1], corners[2])]
    return [
        (
            middle[0] + (right * short * ways[0][0] + back * long * ways[1][0]) / 2,
            middle[1] + (right * short * ways[0][1] + back * long * ways[1][1]) / 2,
        )
        for right, back in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    ]


def _towards(one: Point, other: Point) -> Point:
    size = math.dist(one, other) or 1.0
    return (other[0] - one[0]) / size, (other[1] - one[1]) / size


def _half_ball(one: Slice, radius: float) -> Iterator[Line]:
    """Its flat face below or above, whichever way the slice lies in the lesser one."""
    (below, low), (above, high) = one.half_balls
    (x, y), foot, way = (low, one.low, 1.0) if below <= above else (high, one.high, -1.0)
    edge = _circle((x, y), radius)
    yield [[x, y, foot] for x, y in (*edge, edge[0])]
    arc = [math.pi * step / (CORNERS // 2) for step in range(CORNERS // 2 + 1)]
    yield [[x + radius * math.cos(turn), y, foot + way * radius * math.sin(turn)] for turn in arc]
    yield [[x, y + radius * math.cos(turn), foot + way * radius * math.sin(turn)] for turn in arc]
