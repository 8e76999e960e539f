"""Defaults held against what hands do. Common practice unless a check says otherwise; from memory where marked so."""

import math

import pytest

from amber_spread.core.design.design import Cavity, Design, Layers, TinBake
from amber_spread.core.design.finishes import (
    Border,
    DiscFinal,
    FreehandFinal,
    InvertedFinal,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    TwinFinal,
)
from amber_spread.core.design.habits import HABITS
from amber_spread.core.design.practice import SIXTEENTHS, Practice
from amber_spread.core.design.shapes import FreeShape, HeartShape, SquareShape
from amber_spread.core.design.stands import StackedStand, Stacking
from amber_spread.core.plan import plan
from amber_spread.core.stock.kit import Kit
from tests.designs import MEDIA, tier
from tests.designs import planned as planned_by


def planned(*tiers, practice=None, kit=None):
    """As it comes to a kitchen that has changed nothing."""
    return planned_by(*tiers, practice=practice or Practice(), kit=kit)


INCH = 25.4


def one(**parts):
    return planned(tier(8 * INCH, **parts))


def codes(whole):
    return {check.code for check in whole.checks}


def final_use(whole):
    return whole.bowls["meringue_buttercream"].steps["tier_1_final"]


def test_a_crumb_coat_is_very_thin():
    assert one().tiers[0].coats.crumb.side.value == pytest.approx(1, abs=0.6)
    assert plan(Design(tiers=(tier(203.2),)), Practice.in_inches(), MEDIA).tiers[0].coats.crumb.side.value == INCH / 16


@pytest.mark.parametrize("final", [DiscFinal, TwinFinal, InvertedFinal])
@pytest.mark.parametrize("wide", [6 * INCH, 6.25 * INCH, 6.5 * INCH])
def test_a_disc_finish_takes_one_and_a_half_to_two_batches_and_much_comes_back(final, wide):
    """A batch is what the same tier takes by hand."""
    whole = planned(tier(6 * INCH, final=final(disc_diameter_mm=wide)))
    hand = final_use(planned(tier(6 * INCH, final=FreehandFinal())))
    use = final_use(whole)
    faces = 1.35 if final is TwinFinal else 1.0  # both faces are coated
    batch = max(use.stays.value, hand.stays.value)
    assert 1.5 * batch <= use.stays.value + use.in_hand.value <= 2.0 * faces * batch
    assert use.in_hand.value > 0.4 * batch


@pytest.mark.parametrize("inches", [4, 6, 8, 10, 12])
def test_a_card_of_the_tins_own_size_is_routine_and_stands_3_to_5_mm_proud(inches):
    for usual in (Practice(), Practice.in_inches()):
        whole = plan(
            Design(tiers=(tier(inches * INCH, final=InvertedFinal(disc_diameter_mm=inches * INCH)),)), usual, MEDIA
        )
        tier_plan = whole.tiers[0]
        proud = (inches * INCH - tier_plan.layers.cake_diameter.value) / 2
        assert 3 <= proud <= 5 and tier_plan.coats.final.side.value >= usual.coat_least_mm - 0.01
        assert not codes(whole) & {"coats.disc_small", "coats.disc_thin"}


def test_shrinkage_and_skin_are_two_values_and_an_earlier_usual_keeps_its_sizes():
    diameter = one().tiers[0].layers.cake_diameter
    assert diameter.value == pytest.approx(203.2 - 2 * (2 + 2))
    assert {name: number.value for name, number in diameter.given.items()} == {"tin": 203.2, "shrinkage": 2, "skin": 2}
    earlier = {name: value for name, value in Practice().model_dump().items() if name != "shrinkage_mm"}
    assert Practice.model_validate(earlier).narrower_mm == 2
    assert {"shrinkage_mm", "trimmed_skin_mm"} <= {habit.name for habit in HABITS}


@pytest.mark.parametrize("tiers", [(6,), (8, 6), (10, 8, 6), (14, 12, 10, 8)])
def test_cakes_are_baked_by_part_recipes_with_no_more_than_one_spare(tiers):
    for mix in planned(*(tier(size * INCH) for size in tiers)).batter.mixes.values():
        assert mix.spare.value in (0, 1)
        assert mix.batches.value - mix.step.value < mix.batter.value / mix.batch.value <= mix.batches.value + 1e-9
        assert mix.rest.value == pytest.approx(mix.batches.value * mix.batch.value - mix.batter.value)
        assert mix.rest.value < mix.step.value * mix.batch.value + 1e-6


def test_of_a_semi_naked_coat_most_scrapings_go_back():
    """A full coat goes on; what stays, what is lost and what comes back add up to all that was in hand."""
    use = one(final=SemiNakedFinal()).bowls["meringue_buttercream"].steps["tier_1_crumb"]
    in_hand = use.kept_g + use.in_hand.value
    assert use.lost.value < 0.25 * in_hand and use.in_hand.value > 0.5 * in_hand
    goes_on = one(final=SemiNakedFinal()).tiers[0].coats.goes_on.value
    assert in_hand == pytest.approx(goes_on * 1.7, rel=1e-6)


@pytest.mark.parametrize(("inches", "strips"), [(4, (2, 3)), (6, (2, 3)), (8, (3, 4)), (10, (4, 5))])
def test_a_printed_wrap_weighs_seams_against_sheets(inches, strips):
    """10 x 8 in sheets: nobody cuts six short strips to save one sheet."""
    printed = (
        planned(tier(inches * INCH, cover=PrintedCover(sheet_width_mm=254, sheet_height_mm=203.2)))
        .tiers[0]
        .cover.printed
    )
    assert printed.strips.value in strips and printed.sheets.value <= printed.strips.value


def test_portions_are_those_of_wedding_charts():
    """Charts of 1 x 2 in pieces of 4 in tiers, by the tin, from memory; a few per cent either way between charts."""
    chart = {4: 8, 6: 12, 8: 24, 10: 38, 12: 56, 14: 78}
    for inches, served in chart.items():
        assert planned(tier(inches * INCH)).tiers[0].stack.portions.value == pytest.approx(served, rel=0.085)
    squares = {6: 18, 8: 32, 10: 50, 12: 72}
    for inches, served in squares.items():
        found = planned(tier(inches * INCH, shape=SquareShape())).tiers[0].stack.portions.value
        assert found == pytest.approx(served, rel=0.06)
    assert planned(tier(8 * INCH, shape=HeartShape())).tiers[0].stack.portions.value == pytest.approx(24, abs=1.5)
    words = planned(tier(203.2)).tiers[0].stack.portions
    assert words.rule == "stack.portions"


def test_a_tall_tier_serves_by_the_slices_cut_from_it():
    low, tall = (planned(tier(7 * INCH, layers=Layers(count=count, height_mm=31))).tiers[0] for count in (3, 5))
    assert tall.layers.height.value == pytest.approx(179)
    assert 1.6 <= tall.stack.portions.value / low.stack.portions.value <= 2


@pytest.mark.parametrize("usual", [Practice(), Practice.in_inches()])
def test_a_dam_is_10_to_12_mm_wide_unless_it_is_said(usual):
    whole = plan(Design(tiers=(tier(203.2, filling=SoftFilling()),)), usual, MEDIA)
    assert 10 <= whole.tiers[0].layers.filling.dam_width.value <= 12
    own = plan(Design(tiers=(tier(203.2, filling=SoftFilling(dam_width_mm=6)),)), usual, MEDIA)
    assert own.tiers[0].layers.filling.dam_width.value == 6


def test_a_border_of_shells_takes_what_a_bag_does_and_a_rope_more():
    grams = {
        bead: one(borders=(Border(bead=bead),)).tiers[0].borders["border_1"].weight.value
        for bead in ("half", "round", "shell", "rope")
    }
    assert grams["half"] < grams["round"] < grams["shell"] < grams["rope"]
    assert (
        40 <= grams["shell"] <= 90
        and one(borders=(Border(),)).tiers[0].borders["border_1"].weight.value == grams["shell"]
    )


def test_an_everyday_stack_takes_the_least_dowel_and_a_tall_one_a_thicker():
    low = planned(tier(8 * INCH), tier(6 * INCH), tier(4 * INCH)).stack.dowel
    assert low.least_across.value == 0 and low.across.value == Practice().dowel_mm == pytest.approx(INCH / 4, abs=0.1)
    tall = planned(*(tier(6 * INCH, layers=Layers(count=5, height_mm=40)),) * 4).stack.dowel
    assert tall.least_across.value <= tall.across.value < tall.least_across.value + INCH / 16
    assert tall.across.value / INCH * 16 == pytest.approx(round(tall.across.value / INCH * 16))
    asked = plan(Design(tiers=(tier(8 * INCH), tier(6 * INCH)), stacking=Stacking(dowel_mm=12.7)), Practice(), MEDIA)
    assert asked.stack.dowel.across.value == 12.7


def test_skewers_are_counted_in_and_out_and_said_at_serving():
    whole = planned(tier(8 * INCH), tier(6 * INCH))
    caution = next(check for check in whole.checks if check.code == "caution.food_wood")
    assert "kewers" in caution.text and "count them in, count them out" in caution.text
    assert any("skewer" in said.text and said.caution for said in whole.stack.serving)


def test_boards_leave_with_the_cake_and_tins_stay():
    kit = planned(tier(8 * INCH), tier(6 * INCH), kit=Kit()).kit.values()
    assert {need.tool for need in kit if need.leaves} == {"board", "base board"}
    assert all(not need.leaves for need in kit if need.tool in ("tin", "scraper", "disc"))


def test_an_inch_kitchen_starts_from_marks_of_an_inch_ruler():
    found, metric = Practice.in_inches(), Practice()
    for name, value in found.model_dump().items():
        if name.endswith("_mm") and name not in ("glue_mm", "syrup_soak_mm"):
            marks = value / INCH * 16
            assert marks == pytest.approx(round(marks), abs=1e-6), name
            assert value == pytest.approx(getattr(metric, name), rel=0.62), name
    assert set(SIXTEENTHS) <= set(Practice.model_fields)


# What follows from sizes


def test_a_ball_tells_its_half_ball_tins():
    ball = (
        planned(tier(152.4, build={"kind": "ball", "foot_mm": 50}, layers=Layers(count=4, height_mm=30)))
        .tiers[0]
        .layers
    )
    assert (ball.tins.value, ball.slices_each.value, ball.tin_depth.value) == (2, 2, pytest.approx(76.2))
    assert ball.offcut is None


def test_layers_that_do_not_fill_their_tins_alike_are_said():
    uneven = one(layers=Layers(count=3, height_mm=22, bake=TinBake(torte=2)))
    check = next(check for check in uneven.checks if check.code == "layers.uneven_tins")
    assert (check.values["least"].value, check.values["most"].value) == (22, 44)
    for layers in (Layers(count=4, height_mm=22, bake=TinBake(torte=2)), Layers(count=3)):
        assert "layers.uneven_tins" not in codes(one(layers=layers))


def test_the_strip_of_a_drum_runs_round_the_sheets_middle_and_laps_both_discs():
    """Closed form: an arc of a circle as wide as the coat and one thickness, to the flat of the foot on both sides."""
    from amber_spread.core.design.builds import SideBuild
    from amber_spread.core.design.finishes import PanelCover

    for top, laps in (("inside", 2), ("over", 0)):
        whole = planned(tier(203.2, build=SideBuild(cut_mm=15), cover=PanelCover(top=top, thickness_mm=4, trim_mm=0)))
        coats, strip = whole.tiers[0].coats.final, whole.tiers[0].cover.pieces["panel"].sizes
        radius, centre = coats.diameter.value / 2, coats.diameter.value / 2 - 15
        arc = 2 * (radius + 2) * (math.pi - math.acos(centre / (radius + 2)))
        assert strip["long"].value - 20 == pytest.approx(arc, rel=1e-6)
        assert strip["high"].value == pytest.approx(coats.height.value + laps * 4)


@pytest.mark.parametrize("corners", [((0, 0), (200, 0), (100, 170)), ((0, 0), (240, 30), (20, 120))])
def test_a_coat_is_never_narrower_than_the_cake_below_it(corners):
    sharp = one(shape=FreeShape(points_mm=corners)).tiers[0]
    cake, crumb, final = sharp.layers.cake_diameter, sharp.coats.crumb.diameter, sharp.coats.final.diameter
    assert cake.value < crumb.value < final.value < 400
    # A point of a triangle moves out by more than the coat: at least by its thickness on both sides.
    assert crumb.value - cake.value >= 2 * sharp.coats.crumb.side.value - 0.01


def test_what_is_cut_out_lies_on_the_mat_with_the_margin_it_is_rolled_with():
    from amber_spread.core.design.finishes import PanelCover
    from amber_spread.core.stock.kit import Mat

    panel = planned(tier(203.2, cover=PanelCover(trim_mm=0)), kit=Kit(mat=Mat(width_mm=2000, length_mm=600)))
    long, high = panel.tiers[0].cover.pieces["panel"].size
    margin = 2 * Practice().roll_margin_mm
    just = planned(
        tier(203.2, cover=PanelCover(trim_mm=0)), kit=Kit(mat=Mat(width_mm=long + margin + 1, length_mm=600))
    )
    short = planned(
        tier(203.2, cover=PanelCover(trim_mm=0)), kit=Kit(mat=Mat(width_mm=long + margin - 1, length_mm=600))
    )
    assert just.tiers[0].cover.pieces["panel"].count.value == 1
    assert short.tiers[0].cover.pieces["panel"].count.value == 2
    mat = next(need for need in just.kit.values() if need.tool == "mat")
    assert mat.size.value == pytest.approx(max(long, high) + margin)


def test_a_printed_strip_is_no_higher_than_the_sheet_it_is_cut_from():
    tall = planned(
        tier(
            203.2,
            layers=Layers(count=5, height_mm=40),
            cover=PrintedCover(sheet_width_mm=254, sheet_height_mm=203.2, directional=True),
        )
    )
    printed, strip = tall.tiers[0].cover.printed, tall.tiers[0].cover.pieces["strip"]
    assert printed.too_tall is not None and strip.sizes["high"].value == pytest.approx(203.2) == strip.size[1]
    assert printed.strip_height.value == pytest.approx(203.2)


@pytest.mark.parametrize("shape", [{"kind": "petal", "petals": 6}, {"kind": "petal", "petals": 12}, {"kind": "heart"}])
def test_a_panel_round_a_tapered_tier_with_creases_does_not_suit_and_is_long_enough(shape):
    whole = planned(tier(254, shape=shape, build={"kind": "tapered", "narrow_mm": 220}, cover={"kind": "panel"})).tiers[
        0
    ]
    pieces = [
        piece for piece in whole.cover.pieces.values() if piece.stuff == "sheet" and piece.name.startswith("Panel")
    ]
    assert not whole.cover.suits
    long = sum(piece.size[0] * piece.count.value for piece in pieces)
    from tests.designs import worked

    body = worked(tier(254, shape=shape, build={"kind": "tapered", "narrow_mm": 220})).bodies.coated
    girths = [body.section(body.height_mm * share).perimeter_mm for share in (0.001, 0.25, 0.5, 0.75, 0.999)]
    assert long >= max(girths)


def test_a_cavity_leaves_out_no_allergen():
    almonds = one(layers=Layers(cavity=Cavity(diameter_mm=60, filled_with="ground_almonds")))
    nuts = next(one for one in almonds.allergens if one.allergen == "nuts")
    assert any("almonds" in name.lower() and "hidden" in name for name in nuts.found_in)
    said = next(check for check in almonds.checks if check.code == "caution.allergens")
    assert "nuts" in said.text
    curd = one(layers=Layers(cavity=Cavity(diameter_mm=60, filled_with="lemon_curd")))
    assert any("Lemon curd" in allergy.found_in for allergy in curd.allergens if allergy.allergen == "egg")
    assert not any(allergy.allergen == "nuts" for allergy in one().allergens)


def test_supports_can_still_be_asked_for_by_hand():
    assert planned(tier(203.2), tier(152.4, stand=StackedStand(count=7))).stack.joints["tier_2"].count.value == 7
