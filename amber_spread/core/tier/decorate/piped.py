"""What is piped over a part of a finished tier, as it is drawn: cut through, and seen from the front."""

import math
from collections.abc import Iterable, Iterator, Mapping
from typing import NamedTuple

from shapely import Polygon, box, make_valid, unary_union

from amber_spread.core.design.finishes import PipedRegion
from amber_spread.core.geometry.bodies.body import Body
from amber_spread.core.geometry.bodies.sculpted import mirrored, rings_right
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.places import polygon_of
from amber_spread.core.geometry.flat.sector import Sector, farthest_across
from amber_spread.core.geometry.flat.traced import Region, areas_of
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.tier.decorate.regions import RegionPlan, region_over, sector_of

RIGHT_DEG = 90.0
"""The half-section is cut open to the right of the front."""
SEEN_AT, EDGE_MM = 12, 0.01
"""Where what is piped on a side ends is followed at so many heights, the outermost of them so far within it."""


class PipedOver(PlanPart):
    """A piped region as it is seen from the front: its colour, and what it covers of the left half, as if that were the
    right, and of the right half, part by part.
    """

    hex: str
    left: list[list[Point]]
    right: list[list[Point]]


class Piped(NamedTuple):
    """A piped region as it is drawn: its key and colour, what of it is cut through on the right, and what it covers
    of both halves where they are seen from the front.
    """

    key: str
    hex: str
    cut: Region
    right: Region
    left: Region

    @property
    def over(self) -> PipedOver:
        """As it is seen from outside."""
        return PipedOver(hex=self.hex, left=rings_right(self.left), right=rings_right(self.right))


def piped_over(asked: Iterable[PipedRegion], planned: Mapping[str, RegionPlan], inner: Body) -> Iterator[Piped]:
    """What is piped over a finished tier, between its heights and on its side; of one that goes all the way up the top
    too.
    """
    for one, (key, region) in zip(asked, planned.items(), strict=True):
        sector = sector_of(one)
        outer = region_over(inner, region.relief.value)
        top = outer.foot_mm + outer.height_mm
        low, high = inner.foot_mm + region.low.value, top if region.on_top else inner.foot_mm + region.high.value
        between = box(0.0, low, outer.width_mm, high)
        right, left = (
            areas_of(_half_of(line).intersection(between)) for line in (outer.half_profile(), outer.left_profile())
        )
        cut_through = areas_of(
            right.difference(_half_of(inner.half_profile())) if sector.faces(RIGHT_DEG) else Polygon()
        )
        if not sector.whole:
            seen = areas_of(_seen_of(sector, outer, low, high).union(_ridge(sector, outer, inner, high)))
            right, left = areas_of(right.intersection(seen)), areas_of(left.intersection(mirrored(seen)))
        yield Piped(key, region.hex, cut_through, right, left)


def _ridge(sector: Sector, outer: Body, inner: Body, high_mm: float) -> Region:
    """What of a sector stands above the top of what is within, as wide as it is: that is seen over the front."""
    top_mm = inner.foot_mm + inner.height_mm
    if high_mm <= top_mm + EDGE_MM:
        return Polygon()
    across = polygon_of(outer.section((top_mm + high_mm) / 2)).intersection(sector.area(2 * outer.outline.reach_mm))
    left, _, right, _ = across.bounds
    return areas_of(box(left, top_mm, right, high_mm) if across.area else Polygon())


def _seen_of(sector: Sector, body: Body, low_mm: float, high_mm: float) -> Region:
    """What of a sector is seen from the front between two heights, as (to the right, up): between where the rays that
    bound it leave the body, and beyond its sides where the rays do.
    """
    ups = [low_mm + (high_mm - low_mm) * step / SEEN_AT for step in range(SEEN_AT + 1)]
    sections = [body.section(min(max(up, low_mm + EDGE_MM), high_mm - EDGE_MM)) for up in ups]
    beyond = 2 * body.outline.reach_mm

    def edge(turn_deg: float) -> list[Point]:
        if abs(turn_deg) >= RIGHT_DEG:
            return [(math.copysign(beyond, turn_deg), up) for up in ups]
        return [(farthest_across(one, turn_deg), up) for one, up in zip(sections, ups, strict=True)]

    parts = [make_valid(Polygon([*edge(left), *edge(right)[::-1]])) for left, right in sector.seen_between()]
    return areas_of(unary_union(parts))


def _half_of(line: list[Point]) -> Region:
    """What lies between the axis and half a profile."""
    return areas_of(make_valid(Polygon([(0.0, line[0][1]), *line])))
