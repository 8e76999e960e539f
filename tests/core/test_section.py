"""The half-section: its parts fit together without gap or overlap, and stand where the figures say."""

import math

import pytest
from shapely import Polygon, make_valid

from amber_spread.core.design.builds import JoinedBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, NoFinal, SoftFilling
from amber_spread.core.design.shapes import PolygonShape
from amber_spread.core.design.solids import BallSolid, BoxSolid
from tests.designs import planned, tier


def parts_of(whole, number, *kinds):
    place = f"tiers.{number}."
    return [part for part in whole.section.parts if part.place.startswith(place) and (not kinds or part.kind in kinds)]


def solid(whole, number):
    """The parts of the tier itself; the board it stands on lies below its foot, what is piped over it outside."""
    return [part for part in parts_of(whole, number) if part.place != f"tiers.{number}.stack" and part.kind != "region"]


@pytest.mark.parametrize("lean_deg", [5, 6, 20])
def test_a_coat_under_a_foot_that_hangs_by_a_hair_is_a_part_of_its_own(lean_deg):
    """A ball that leans reaches some hundredths of a millimetre below the box it stands in."""
    solids = (BoxSolid(wide_mm=90, deep_mm=90, high_mm=80), BallSolid(lean_deg=lean_deg, across_mm=30))
    whole = planned(tier(150, build=JoinedBuild(solids=solids), layers=Layers(count=1), final=NoFinal()))
    sponge, crumb = (
        sum(make_valid(Polygon(part.outline)).area for part in parts_of(whole, 1, kind)) for kind in ("sponge", "crumb")
    )
    hangs_mm = (1 - math.cos(math.radians(lean_deg))) * 15 * 150 / 90
    assert sponge == pytest.approx(75 * 80 / 90 * 150, rel=2e-3)
    assert crumb == pytest.approx(2 * (80 / 90 * 150 + 75) + 75 * hangs_mm, rel=0.03)


def test_parts_stand_where_the_figures_say():
    whole = planned(tier(254, filling=SoftFilling(dam_width_mm=10)), tier(203.2, cover=DrapeCover()))
    for number, one in enumerate(whole.tiers, 1):
        sponges = parts_of(whole, number, "sponge")
        assert len(sponges) == one.layers.count.value
        assert min(z for _, z in sponges[0].outline) == one.stack.bottom.value
        assert max(z for _, z in sponges[-1].outline) == pytest.approx(one.stack.bottom.value + one.layers.height.value)
        assert max(x for x, _ in sponges[0].outline) == pytest.approx(one.layers.cake_diameter.value / 2)
    (dam, _) = parts_of(whole, 1, "dam")
    assert max(x for x, _ in dam.outline) - min(x for x, _ in dam.outline) == pytest.approx(10)
    assert [part.place for part in whole.section.parts if part.kind == "board"] == ["stack", "tiers.2.stack"]


def test_only_what_is_there_is_drawn():
    bare = planned(tier(final=NoFinal(), layers=Layers(count=1)))
    assert {part.kind for part in parts_of(bare, 1)} == {"sponge", "crumb"}
    thin = planned(tier(final=FreehandFinal(side_mm=0, top_mm=0)))
    assert "final" not in {part.kind for part in parts_of(thin, 1)}


def test_the_outside_is_of_the_colour_that_is_seen_and_flat_walls_show_their_edges():
    whole = planned(tier(cover=DrapeCover(colour="blush")), tier(150, shape=PolygonShape(sides=8)))
    lower, upper = whole.section.tiers
    assert (lower.paint, lower.curved, lower.edges) == ("#EBD3CC", True, [])
    assert not upper.curved
    assert len(upper.edges) == 1
    assert max(x for x, _ in upper.seen_from_above) == pytest.approx(whole.tiers[1].stack.diameter.value / 2, abs=0.01)
