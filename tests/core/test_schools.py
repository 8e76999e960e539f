"""Every school of the final coat, every cover's pieces and weights, borders, and the cake that came out leaning."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_spread.core.design.builds import BallBuild, SideBuild, TaperedBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.finishes import (
    Border,
    BoxCover,
    CollarCover,
    DeckledFinal,
    DiscFinal,
    DrapeCover,
    FreehandFinal,
    GoresCover,
    HalvesCover,
    InvertedFinal,
    Measured,
    OnTop,
    PanelCover,
    PrintedCover,
    SemiNakedFinal,
    Stripe,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
)
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.practice import Techniques
from amber_spread.core.design.shapes import HeartShape
from tests.designs import KITCHEN, planned, tier

ONE_OF_EACH = [
    FreehandFinal(), DiscFinal(disc_diameter_mm=212), TwinFinal(disc_diameter_mm=212),
    InvertedFinal(disc_diameter_mm=212), TowelFinal(), DeckledFinal(), SemiNakedFinal(), TexturedFinal(),
]  # fmt: skip


def codes(*tiers):
    return {check.code for check in planned(*tiers).checks}


def coats_of(final, **parts):
    return planned(tier(final=final, **parts)).tiers[0].coats


@pytest.mark.parametrize("final", ONE_OF_EACH, ids=lambda final: final.kind)
def test_every_school_has_its_technique_its_envelope_and_its_tools(final):
    school = kind_of(final)
    technique = getattr(Techniques(), school.technique)
    whole = planned(tier(final=final))
    coats = whole.tiers[0].coats
    step = "crumb" if final.kind == "semi_naked" else "final"
    (use,) = [use for bowl in whole.bowls.values() for key, use in bowl.steps.items() if key == f"tier_1_{step}"]
    assert use.variation.value == technique.variation
    goes_on = coats.goes_on.value if coats.goes_on else use.stays.value
    more = technique.float * goes_on
    if coats.by_hand is not None:
        # A whole batch, as by hand, and a share of one more.
        more = max(use.stays.value, coats.by_hand.value) * (1 + technique.float) - use.stays.value
    assert use.in_hand.value == pytest.approx(more)
    assert (coats.scraper is not None) == school.scraper
    assert (coats.parchment is not None) == (school.plate is not None)


def test_twin_discs_coat_both_faces_and_one_disc_only_the_top():
    one, both = coats_of(DiscFinal(disc_diameter_mm=212)), coats_of(TwinFinal(disc_diameter_mm=212))
    assert one.final.under is None
    assert both.final.under.value == 6
    assert both.final.height.value == pytest.approx(one.final.height.value + 2 + 6)
    face = math.pi * 106**2 * 6 / 1000
    assert both.final.volume.value > one.final.volume.value + 0.9 * face


def test_a_deckled_rim_is_a_ring_above_the_top_and_a_cover_leaves_no_room_for_it():
    coats = coats_of(DeckledFinal(rim_mm=15))
    ring = math.pi * (107.6**2 - 101.6**2) * 15 / 1000
    assert coats.rim_weight.value == pytest.approx(ring * 0.75)
    assert coats.stays.value == pytest.approx(coats.final.weight.value + coats.rim_weight.value)
    assert coats_of(DeckledFinal(), cover=DrapeCover()).rim_height is None
    assert "coats.no_lip" in codes(tier(final=DeckledFinal(), cover=DrapeCover()))


@pytest.mark.parametrize("share", [0.1, 0.5, 0.9, 1.0])
def test_a_semi_naked_coat_goes_on_whole_and_what_is_scraped_off_is_lost(share):
    whole = planned(tier(final=SemiNakedFinal(stays=share)))
    coats, use = whole.tiers[0].coats, whole.bowls["meringue_buttercream"].steps["tier_1_crumb"]
    assert coats.crumb.side.value == pytest.approx(3 * share)
    assert coats.final is None
    coat = math.pi * (102.6**2 * 105 - 99.6**2 * 102) / 1000 * 0.75
    assert coats.goes_on.value == pytest.approx(coat)
    assert use.stays.value + use.lost.value == pytest.approx(coat * 1.1)
    assert use.lost.value - 0.1 * coat == pytest.approx(coat - use.stays.value)


def test_a_textured_coat_is_area_times_mean_relief():
    coats = coats_of(TexturedFinal(relief_mm=10))
    area = 2 * math.pi * 101.6 * 104 + math.pi * 101.6**2
    assert coats.final.volume.value == pytest.approx(area * 10 / 1000, rel=1e-6)


def test_a_towel_wants_a_coat_that_crusts():
    assert "coats.no_crust" in codes(tier(final=TowelFinal(medium="meringue_buttercream")))
    assert "coats.no_crust" not in codes(tier(final=TowelFinal(medium="american_buttercream")))


def test_a_thin_coat_and_a_single_mix_are_said():
    assert "coats.thin" in codes(tier(final=FreehandFinal(side_mm=2)))
    assert "coats.one_mix" in codes(tier(final=TexturedFinal()))
    assert "coats.plate_shape" in codes(tier(shape=HeartShape(), final=DiscFinal(disc_diameter_mm=215)))


def test_a_leaning_wall_is_thicker_along_a_level_line():
    coats = coats_of(FreehandFinal(side_mm=6), build=TaperedBuild(narrow_mm=120))
    lean = math.atan2(99.6 - 60, 102)
    assert coats.final.across_slope.value == pytest.approx(6 / math.cos(lean))


def test_a_straight_cake_takes_no_building_up():
    straight = Measured(heights_mm=(102,) * 4, top_mm=(199.2, 199.2), foot_mm=(199.2, 199.2))
    build_up = coats_of(FreehandFinal(), measured=straight).build_up
    assert build_up.volume.value == pytest.approx(0, abs=1e-6)
    assert all(side.top.value == side.foot.value == side.rise.value == 0 for side in build_up.sides.values())


def test_a_leaning_cake_takes_the_room_between_it_and_the_straight_wall():
    """A frustum of 200 and 190 mm, 100 mm high, lacks pi 100 (100² - (100² + 100 95 + 95²) / 3) of its drum."""
    leaning = Measured(heights_mm=(100, 100, 100, 100), top_mm=(190, 190), foot_mm=(200, 200))
    build_up = coats_of(FreehandFinal(), measured=leaning).build_up
    lacking = math.pi * 100 * (100**2 - (100**2 + 100 * 95 + 95**2) / 3) / 1000
    assert build_up.volume.value == pytest.approx(lacking)
    assert build_up.sides["left"].top.value == 5
    low = Measured(heights_mm=(104, 100, 90, 100), top_mm=(200, 200), foot_mm=(200, 200))
    sides = coats_of(FreehandFinal(), measured=low).build_up.sides
    assert [side.rise.value for side in sides.values()] == [0, 4, 14, 4]
    assert "coats.trim_rather" in codes(tier(measured=low))


COVERS = [
    DrapeCover(), PanelCover(top="over"), PanelCover(), BoxCover(), HalvesCover(), GoresCover(), CollarCover(),
]  # fmt: skip


@pytest.mark.parametrize("cover", COVERS, ids=lambda cover: cover.kind)
def test_what_is_rolled_is_what_stays_and_what_is_trimmed(cover):
    found = planned(tier(cover=cover)).tiers[0].cover
    assert found.rolled_weight.value == pytest.approx(found.stays.value + found.trimmed_weight.value)
    assert found.rolled_weight.value > 0


def test_covers_that_do_not_lie_flat_on_a_shape_say_so_and_what_is_planned_instead():
    for cover in (PanelCover(), BoxCover(), PrintedCover(), CollarCover()):
        assert "cover.suits_not" in codes(tier(build=BallBuild(foot_mm=60), cover=cover))
    assert "cover.suits_not" not in codes(tier(build=BallBuild(foot_mm=60), cover=GoresCover()))
    assert "cover.suits_not" in codes(tier(shape=HeartShape(), cover=GoresCover()))


@given(st.lists(st.floats(0.1, 5), min_size=1, max_size=5))
def test_stripes_share_the_panel_by_weight(shares):
    stripes = tuple(Stripe(colour="ivory" if index % 2 else "blush", share=share) for index, share in enumerate(shares))
    whole = planned(tier(cover=PanelCover(stripes=stripes, overlap_mm=0)))
    cover = whole.tiers[0].cover
    weights = [figure.value for figure in cover.stripes.values()]
    assert sum(weights) == pytest.approx(cover.rolled_weight.value)
    assert weights == pytest.approx([cover.rolled_weight.value * share / sum(shares) for share in shares])
    used = [
        use.stays.value for bowl in whole.bowls.values() for key, use in bowl.steps.items() if key.endswith("cover")
    ]
    assert sum(used) == pytest.approx(cover.over.weight.value)


def test_a_strip_cut_for_the_wrong_tier_is_caught():
    girth = math.pi * (203.2 - 4 + 4 + 12 + 3)
    assert "cover.strip_short" in codes(tier(cover=PanelCover(strip_mm=round(girth * 0.9, 1))))
    assert "cover.strip_short" not in codes(tier(cover=PanelCover(strip_mm=round(girth * 0.98, 1))))
    assert "cover.no_trim" in codes(tier(cover=PanelCover(trim_mm=0)))


def test_a_collar_is_taller_and_longer_than_its_tier_and_goes_on_from_the_top_down():
    whole = planned(tier(254, cover=CollarCover()), tier(203.2, cover=CollarCover()))
    paper, one = whole.tiers[0].cover.pieces["paper"], whole.tiers[0]
    assert paper.sizes["high"].value == pytest.approx(one.coats.final.height.value + 15)
    assert paper.sizes["long"].value > math.pi * one.coats.final.diameter.value
    (tasks,) = whole.covering.values()
    assert [task.on.rpartition(".")[2] for task in tasks] == ["tier_2_cover", "tier_1_cover"]
    assert "caution.hot_chocolate" in {check.code for check in whole.checks}


def test_the_largest_sheet_is_covered_first_and_its_trimmings_serve_the_next():
    whole = planned(*(tier(tin, cover=DrapeCover(colour="blush")) for tin in (152.4, 254)))
    (tasks,) = whole.covering.values()
    assert [task.on.rpartition(".")[2] for task in tasks] == ["tier_2_cover", "tier_1_cover"]
    bowl = whole.bowls["fondant~blush"]
    assert bowl.need.value < sum(one.cover.rolled_weight.value for one in whole.tiers)


def test_a_border_is_its_length_times_the_section_of_its_bead():
    one = planned(tier(borders=(Border(bead="half", bead_mm=10), Border(at="top", bead="round", bead_mm=10)))).tiers[0]
    half, full = one.borders["border_1"], one.borders["border_2"]
    # The middle of half a round lies 4 r / 3 pi from its flat (Pappus: a bead is as long as its middle's way).
    wall = one.stack.diameter.value - 2 * half.out.value
    assert half.length.value == pytest.approx(math.pi * (wall + 2 * 4 * 5 / (3 * math.pi)))
    assert half.volume.value == pytest.approx(half.length.value * math.pi / 8 * 100 / 1000)
    assert full.length.value == pytest.approx(math.pi * (wall - 10))
    assert full.volume.value == pytest.approx(full.length.value * math.pi / 4 * 100 / 1000)


def test_a_piece_on_top_stays_by_its_outline_and_is_trimmed_out_of_its_box():
    heart = OnTop(shape=HeartShape(), across_mm=100, thickness_mm=3)
    one = planned(tier(on_top=(heart,))).tiers[0].on_top["piece_1"]
    # Of a heart as wide as long its area is 0.7536 of the square about it (closed form, `heart`).
    assert one.stays_weight.value == pytest.approx(0.7536 * 100**2 * 3 / 1000 * 1.35, rel=2e-3)
    assert one.rolled_weight.value == pytest.approx(one.stays_weight.value + one.trimmed_weight.value)


def test_a_drum_that_would_fall_is_said_to():
    thin = tier(
        152.4, build=SideBuild(cut_mm=15), layers=Layers(count=1, height_mm=20), final=TwinFinal(disc_diameter_mm=160)
    )
    assert "side.tips_forward" in codes(thin)
    narrow = tier(152.4, build=SideBuild(cut_mm=1), final=TwinFinal(disc_diameter_mm=160))
    assert "side.tips_sideways" in codes(narrow)


def test_the_weight_of_a_standing_drum_is_without_its_slice():
    drum = tier(152.4, build=SideBuild(cut_mm=20), final=TwinFinal(disc_diameter_mm=160))
    one = planned(drum).tiers[0]
    assert one.stack.height.value == pytest.approx(one.foot.height_left.value)
    assert one.foot.slice_weight.value > 0
    whole = planned(drum, practice=KITCHEN.model_copy(update={"foot_cut_mm": 1.0})).tiers[0]
    assert one.stack.weight.value == pytest.approx(whole.stack.weight.value)  # the design's own cut counts
