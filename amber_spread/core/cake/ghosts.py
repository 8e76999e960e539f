"""A carved tier in the round with the tins of its layers about it, where each would lie."""

from collections.abc import Iterator, Sequence

from shapely import LinearRing, Point, get_coordinates

from amber_spread.core.cake.bakes import Baked, plan_carved_bake
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sliced import Slice
from amber_spread.core.stock.kit import Tin
from amber_spread.core.tier import PlannedTier, RoundTin, RoundView, in_the_round, slices_of

Line = list[list[float]]
QUARTER = 12
"""A quarter of a circle is drawn in so many straight lines."""
POSTS = 4
"""So many upright lines show the side of a tin."""


def seen_round(done: PlannedTier, cut_open: bool, tins: Sequence[Tin]) -> RoundView | None:
    """A tier in the round, its front right cut away where it is `cut_open`, with the tins it is baked in out of those
    that are owned; None of one that is not carved.
    """
    bare, baked = done.bodies.bare, plan_carved_bake(done, tins)
    if baked is None or not isinstance(bare, Sculpted):
        return in_the_round(done, cut_open)
    slices = {one.number: one for one in slices_of(bare, done.slabs)}
    about = [
        RoundTin(layer=number, lines=list(_lines(tin, slices[number])))
        for tin in baked.tins.values()
        for number in tin.layers
    ]
    return in_the_round(done, cut_open, about)


def _lines(tin: Baked, one: Slice) -> Iterator[Line]:
    """A tin about the least circle, rectangle or half ball that holds a layer, as high as the layer is."""
    if tin.shape == "ball":
        yield from _half_ball(one, tin.across.value / 2)
        return
    around = tin.edges[f"layer_{one.number}"]
    edge = [*around, around[0]]
    for up in (one.low, one.high):
        yield [[x, y, up] for x, y in edge]
    for x, y in edge[: -1 : max(1, len(edge) // POSTS)]:
        yield [[x, y, one.low], [x, y, one.high]]


def _half_ball(one: Slice, radius: float) -> Iterator[Line]:
    """Its flat face below or above, whichever way the layer lies in the lesser one."""
    (below, low), (above, high) = one.half_balls
    (x, y), foot, way = (low, one.low, 1.0) if below <= above else (high, one.high, -1.0)
    around = _closed(Point(0, 0).buffer(radius, quad_segs=QUARTER).exterior)
    yield [[x + right, y + back, foot] for right, back in around]
    over = [(right, way * up) for right, up in around if up >= -1e-9]
    yield [[x + right, y, foot + up] for right, up in sorted(over)]
    yield [[x, y + back, foot + up] for back, up in sorted(over)]


def _closed(ring: LinearRing) -> Line:
    found: Line = get_coordinates(ring).tolist()
    return found
