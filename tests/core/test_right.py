"""Places where two choices meet and a figure was once wrong: each with the cake it was wrong for."""

import math

import pytest

from amber_spread.core.cake.batter import batches_of
from amber_spread.core.design.builds import DomedBuild, ProfilePoint, SideBuild, TaperedBuild, TurnedBuild
from amber_spread.core.design.design import BaseBoard, Cavity, Colour, ColourPart, Design, Layers, TinBake
from amber_spread.core.design.finishes import (
    Border,
    BoxCover,
    CollarCover,
    CrumbCoat,
    DeckledFinal,
    DrapeCover,
    FreehandFinal,
    GoresCover,
    HalvesCover,
    InvertedFinal,
    Measured,
    NoFinal,
    OnTop,
    PanelCover,
    PlainFilling,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    Stripe,
    Syrup,
    TexturedFinal,
    TwinFinal,
)
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import (
    FreeShape,
    HeartShape,
    OvalShape,
    PetalShape,
    PolygonShape,
    RectangleShape,
    SquareShape,
)
from amber_spread.core.document.document import read_document
from amber_spread.core.geometry.flat import pieces as flat
from amber_spread.core.kernel.base import interned
from amber_spread.core.kernel.figures import rule
from amber_spread.core.plan import plan
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.shop.costs import Prices, cost_of
from amber_spread.core.stock.contents import contents_of, usual_contents
from amber_spread.core.stock.kit import Kit, Measure, Need, ShapedBoard, Tin, kit_of
from amber_spread.core.stock.pantry import Pantry
from amber_spread.core.stock.recipes import Recipe, RecipeLine
from amber_spread.core.tier.layers.layers import LayersPlan
from tests.designs import COLOURS, MEDIA, document, planned, tier

BARE = {"crumb": CrumbCoat(thickness_mm=0), "final": NoFinal()}
NO_SKIN = Practice(trimmed_skin_mm=0)
INCH = 25.4


def one(*tiers, **more):
    return planned(*(tiers or (tier(**more),))).tiers[0]


def codes(whole):
    return {check.code for check in whole.checks}


# Measured cakes


MEASURED = Measured(heights_mm=(130, 128, 126, 130), top_mm=(210, 206), foot_mm=(208, 210))


def test_a_measured_cake_is_coated_and_covered_as_it_was_measured():
    whole = planned(tier(measured=MEASURED, cover=DrapeCover()))
    coats, cover = whole.tiers[0].coats, whole.tiers[0].cover
    assert (coats.final.diameter.value, coats.final.height.value) == pytest.approx((226, 138))
    assert cover.roll_diameter.value == pytest.approx(226 + 2 * 138 + 50)
    assert (coats.build_up.planned_width.value, coats.build_up.planned_height.value) == pytest.approx((199.2, 102))
    assert "coats.not_as_planned" in codes(whole)
    grown = whole.tiers[0].layers.cake_weight.value - one().layers.cake_weight.value
    assert grown == pytest.approx(
        0.5 * (math.pi / 4 * 208.5**2 * 128.5 - math.pi / 4 * 199.2**2 * 102) / 1000, rel=0.01
    )


def test_a_cake_that_came_out_smaller_takes_less_and_an_even_one_no_building_up():
    small = Measured(heights_mm=(95,) * 4, top_mm=(190, 190), foot_mm=(190, 190))
    whole = one(tier(measured=small, cover=DrapeCover()))
    assert whole.coats.final.diameter.value == pytest.approx(206)
    assert whole.coats.build_up.volume.value == pytest.approx(0)
    assert whole.stack.height.value == pytest.approx(95 + 8 + 3)


def test_a_measured_taper_goes_from_the_one_measured_end_to_the_other():
    leaning = Measured(heights_mm=(100,) * 4, top_mm=(160, 160), foot_mm=(206, 206))
    whole = one(tier(build=TaperedBuild(narrow_mm=150), measured=leaning))
    frustum = math.pi * 100 * (103**2 + 103 * 80 + 80**2) / 3000
    assert whole.coats.build_up.volume.value == pytest.approx(0, abs=1e-6)
    assert whole.coats.build_up.sides["left"].top.value == pytest.approx(0)
    assert whole.layers.cake_volume.value + whole.layers.filling.volume.value == pytest.approx(frustum, rel=1e-3)


# Coats


def test_a_semi_naked_6_by_4_has_about_250_g_in_hand():
    """Common practice: about 250 g of buttercream in hand for a semi-naked 6 in tier 4 in high."""
    use = planned(tier(6 * INCH, final=SemiNakedFinal())).bowls["meringue_buttercream"].steps["tier_1_crumb"]
    assert use.kept_g + use.in_hand.value == pytest.approx(250, rel=0.1)


def test_both_faces_of_a_textured_drum_are_counted():
    drum = {"build": SideBuild(), "final": TexturedFinal(relief_mm=10), "crumb": CrumbCoat(thickness_mm=0)}
    coat = one(tier(204, **drum)).coats.final
    area = 2 * math.pi * 100 * 102 + 2 * math.pi * 100**2
    assert coat.volume.value == pytest.approx(area * 10 / 1000)


def test_an_8_in_tier_in_meringue_buttercream_is_mixed_as_people_mix():
    """Common practice: 1.2 to 1.6 kg for an 8 in tier of four 1 in layers, filled and coated."""
    whole = planned(tier(8 * INCH, layers=Layers(count=4, height_mm=INCH)))
    assert 1200 <= whole.bowls["meringue_buttercream"].mix.value <= 1600


# Covers


def test_the_top_of_a_striped_panel_is_one_colour_and_every_colour_is_told():
    stripes = (Stripe(colour="ivory"), Stripe(colour="blush"))
    whole = planned(tier(cover=PanelCover(top="over", stripes=stripes)))
    cover = whole.tiers[0].cover
    ivory, blush = cover.colours.values()
    assert (ivory.colour, blush.colour) == ("ivory", "blush")
    top_g = flat.area_of(cover.pieces["top"].corners) * 3 / 1000 * 1.35
    assert ivory.stays.value - blush.stays.value == pytest.approx(top_g, rel=0.1)  # and the lap, of the first colour
    assert ivory.stays.value + blush.stays.value == pytest.approx(cover.stays.value)
    uses = {key: whole.bowls[key].steps["tier_1_cover"].stays.value for key in ("fondant~ivory", "fondant~blush")}
    assert uses == pytest.approx({"fondant~ivory": ivory.stays.value, "fondant~blush": blush.stays.value})
    assert [task.on for tasks in whole.covering.values() for task in tasks] == [
        f"bowls.{key}.steps.tier_1_cover" for key in uses
    ]


def test_stripes_run_on_round_the_cake_from_strip_to_strip():
    stripes = (Stripe(colour="ivory", share=3), Stripe(colour="blush", share=1))
    pieces = one(tier(300, cover=PanelCover(stripes=stripes))).cover.pieces
    first, second = pieces["panel_1"], pieces["panel_2"]
    assert [band.colour for band in first.bands][:1] == ["ivory"]
    assert [band.colour for band in second.bands] == ["ivory", "blush", "ivory"]
    girth = 2 * (first.sizes["long"].value - 20)
    widths = [max(x for x, _, _ in band.corners) - min(x for x, _, _ in band.corners) for band in second.bands]
    assert widths == pytest.approx([girth / 4, girth / 4, 20])


def test_stripes_round_the_tier_share_its_height_straight_or_irregular():
    for edges in ("straight", "irregular"):
        stripes = (Stripe(colour="ivory", share=1), Stripe(colour="blush", share=2))
        cover = one(tier(cover=PanelCover(stripes=stripes, run="round", stripe_edges=edges, trim_mm=12))).cover
        wall, trim = cover.height_over_coat.value, 12
        weights = [weight.value for weight in cover.stripes.values()]
        assert weights[0] / weights[1] == pytest.approx((wall / 3) / (wall * 2 / 3 + trim), rel=0.01)
        joins = cover.pieces["panel"].bands[1].join
        assert max(y for _, y in joins) - min(y for _, y in joins) == pytest.approx(
            0 if edges == "straight" else 12, abs=1
        )


def test_all_of_a_collars_paper_stays_and_stands_above_the_tier():
    whole = planned(tier(152.4, cover=CollarCover(above_mm=120)))
    done = whole.tiers[0]
    paper = done.cover.pieces["paper"].sizes
    spread = paper["long"].value * paper["high"].value * 2 / 1000 * 1.3
    assert done.cover.stays.value == pytest.approx(spread)
    assert done.stack.height.value == pytest.approx(done.coats.final.height.value + 120)
    assert whole.stack.height.value == pytest.approx(done.stack.top.value + 120)
    assert max(z for _, z in whole.section.tiers[0].outline) == pytest.approx(whole.stack.height.value)
    assert not {"pin", "mat"} & {need.tool for need in whole.kit.values()}
    open_one = one(tier(152.4, cover=CollarCover(above_mm=120, spread=0.4)))
    assert open_one.cover.stays.value == pytest.approx(0.4 * spread)


def test_a_sheet_reaches_down_the_corner_of_a_slanted_square():
    """250 to 50 mm over 50: sqrt(2) 25 over the top and sqrt(2 100² + 50²) down the corner, 13 mm more than the face."""
    steep = tier(
        254, shape=SquareShape(), build=TaperedBuild(narrow_mm=50), layers=Layers(count=1, height_mm=50), **BARE
    )
    cover = planned(steep.model_copy(update={"cover": DrapeCover(sheet="circle")})).tiers[0].cover
    way = math.sqrt(2) * 25 + math.sqrt(2 * 100**2 + 50**2)
    assert cover.roll_diameter.value == pytest.approx(2 * way + 50, abs=0.02)
    least = one(steep.model_copy(update={"cover": DrapeCover()})).cover
    assert least.roll_area.value < cover.roll_area.value
    small = planned(steep.model_copy(update={"cover": DrapeCover(sheet="circle", rolled_mm=360)}))
    assert "cover.sheet_short" in codes(small)
    assert small.tiers[0].cover.short.value == pytest.approx(way - 180, abs=0.01)
    large = planned(steep.model_copy(update={"cover": DrapeCover(sheet="circle", rolled_mm=372)}))
    assert "cover.sheet_short" not in codes(large)


def test_the_seam_of_halves_runs_the_long_way_and_its_band_stays():
    cover = one(tier(204, shape=RectangleShape(length_mm=334), cover=HalvesCover(), **BARE)).cover
    assert cover.pieces["band"].sizes["long"].value == pytest.approx(330 + 2 * 102)
    band_g = (330 + 2 * 102) * 20 * 3 / 1000 * 1.35
    assert cover.stays.value - cover.over.weight.value == pytest.approx(band_g)


@pytest.mark.parametrize(
    "shape", [OvalShape(length_mm=300), HeartShape(), PetalShape(petals=8), SquareShape(), PolygonShape()]
)
@pytest.mark.parametrize("narrow", ["top", "foot"])
def test_a_leaning_wall_of_any_outline_is_laid_out_flat(shape, narrow):
    """The strips hold the wall, the lap and the trim: its area by the girths, and both edges as long as they are."""
    done = one(
        tier(
            244,
            shape=shape,
            build=TaperedBuild(narrow_mm=216, narrow=narrow),
            cover=PanelCover(overlap_mm=0, trim_mm=0, thickness_mm=1),
            **BARE,
        )
    )
    assert done.cover.suits
    panels = [piece for key, piece in done.cover.pieces.items() if piece.stuff == "sheet" and key != "top"]
    area = sum(flat.area_of(piece.corners) * piece.count.value for piece in panels)
    outline = shape.outline(244).offset(-2)
    girths = [outline.offset(-12 * (step + 0.5) / 200 + 0.5).perimeter_mm for step in range(200)]
    assert area == pytest.approx(sum(girths) / 200 * math.hypot(102, 12), rel=0.006)


def test_a_wall_that_no_strip_lies_smooth_on_is_said():
    steep = planned(tier(200, shape=PetalShape(petals=12), build=TaperedBuild(narrow_mm=100), cover=PanelCover()))
    assert not steep.tiers[0].cover.suits
    assert "cover.suits_not" in codes(steep)


def test_what_is_trimmed_stands_at_the_edge_where_one_trims():
    for narrow in ("top", "foot"):
        sizes = {
            trim: one(tier(250, build=TaperedBuild(narrow_mm=200, narrow=narrow), cover=PanelCover(trim_mm=trim)))
            .cover.pieces["panel"]
            .sizes
            for trim in (0, 15)
        }
        moved = "inner" if narrow == "top" else "outer"
        kept = "outer" if narrow == "top" else "inner"
        assert abs(sizes[15][moved].value - sizes[0][moved].value) == pytest.approx(15)
        assert sizes[15][kept].value == pytest.approx(sizes[0][kept].value)


def test_a_tapered_box_laps_by_the_thickness_along_a_level_line():
    square = {
        "shape": SquareShape(),
        "build": TaperedBuild(narrow_mm=140),
        "cover": BoxCover(corners="mitre", thickness_mm=4),
    }
    piece = one(tier(204, **square, **BARE)).cover.pieces["front"]
    level = 4 / math.cos(math.atan2(30, 102))
    assert piece.sizes["wide"].value == pytest.approx(200 + 2 * level)


def test_box_pieces_are_cut_out_of_a_larger_sheet():
    cover = one(tier(204, shape=SquareShape(), cover=BoxCover())).cover
    assert cover.trimmed_weight.value > 100


def test_gores_and_their_top_weigh_no_less_rolled_than_stays():
    for count in (4, 8, 24):
        cover = one(tier(cover=GoresCover(count=count))).cover
        net = sum(flat.area_of(piece.corners) * piece.count.value for piece in cover.pieces.values()) * 3 / 1000 * 1.35
        assert net == pytest.approx(cover.over.weight.value, rel=2e-3)


def test_a_domed_tier_under_a_panel_ends_at_its_target():
    layers = Layers(count=3, height_mm=30, target_height_mm=110)
    done = one(tier(build=DomedBuild(rise_mm=40), layers=layers, cover=PanelCover(top="over")))
    assert done.stack.height.value + done.layers.target.missing.value == pytest.approx(110)


def test_a_printed_top_larger_than_its_sheet_is_laid_in_parts_and_strips_are_tried_turned():
    whole = planned(tier(12 * INCH, cover=PrintedCover(sheet_width_mm=210, sheet_height_mm=297, top="circle")))
    printed = whole.tiers[0].cover
    assert "cover.top_in_parts" in codes(whole)
    part = printed.pieces["top"]
    assert part.count.value == printed.top_parts.value >= 2
    assert all(side <= limit for side, limit in zip(sorted(part.size), (210, 297), strict=True))
    laid = {place.mat for place in printed.laid}
    assert len(laid) == printed.printed.sheets.value
    low = {"layers": Layers(count=2, height_mm=30), **BARE}
    any_way = one(tier(7 * INCH, cover=PrintedCover(sheet_width_mm=210, sheet_height_mm=297), **low)).cover.printed
    upright = one(tier(7 * INCH, cover=PrintedCover(sheet_width_mm=210, sheet_height_mm=297, directional=True), **low))
    assert any_way.sheets.value <= upright.cover.printed.sheets.value
    tall = {"layers": Layers(count=8, height_mm=25)}
    wide = one(tier(5 * INCH, cover=PrintedCover(sheet_width_mm=297, sheet_height_mm=210, directional=True), **tall))
    turned = one(tier(5 * INCH, cover=PrintedCover(sheet_width_mm=297, sheet_height_mm=210), **tall))
    assert wide.cover.printed.too_tall is not None
    assert turned.cover.printed.too_tall is None


def test_the_trimmings_of_a_marbled_sheet_serve_no_other_and_its_logs_are_weighed():
    marble = Colour(name="stone", hex="#CCBBAA", marbled=True, parts=(ColourPart(parts=3), ColourPart(colour="ivory")))
    tiers = tuple(tier(tin, cover=DrapeCover(colour="stone")) for tin in (254, 203.2))
    whole = plan(Design(tiers=tiers, colours=(*COLOURS, marble)), Practice(), MEDIA)
    bowl = whole.bowls["fondant~stone"]
    assert bowl.need.value == pytest.approx(sum(one.cover.rolled_weight.value for one in whole.tiers))
    blend = whole.bases["fondant"].blends["stone"]
    assert sum(sheet.whole.value for sheet in blend.sheets.values()) == pytest.approx(bowl.mix.value)
    for sheet in blend.sheets.values():
        assert sheet.parts["~plain"].value == pytest.approx(0.75 * sheet.whole.value)
        assert sheet.parts["ivory"].value == pytest.approx(0.25 * sheet.whole.value)


def test_an_everyday_tier_is_draped_without_a_word_and_a_tall_one_is_not():
    assert not {"cover.ease", "cover.pleats"} & codes(planned(tier(6 * INCH, cover=DrapeCover())))
    assert "cover.ease" in codes(planned(tier(4 * INCH, cover=DrapeCover())))
    tall = tier(6 * INCH, layers=Layers(count=6), cover=DrapeCover())
    assert "cover.pleats" in codes(planned(tall))


# Layers


def test_a_room_is_cut_out_of_seal_and_dam_and_held_against_the_carved_wall():
    soft = SoftFilling(dam_width_mm=40)
    whole, hollow = (
        one(tier(filling=soft, layers=Layers(count=4, height_mm=24, cavity=cavity))).layers
        for cavity in (None, Cavity(diameter_mm=150))
    )
    area = math.pi * 75**2
    inside = math.pi * (99.6 - 40) ** 2
    assert hollow.filling.volume.value == pytest.approx(0, abs=1e-9)
    assert hollow.filling.seal_volume.value == pytest.approx(0, abs=1e-9)
    dams = whole.filling.dam_volume.value - hollow.filling.dam_volume.value
    assert dams == pytest.approx(3 * (area - inside) * 6 / 1000)
    waist = TurnedBuild(
        smooth=False, points=tuple(ProfilePoint(up=up, out=out) for up, out in ((0, 1), (0.5, 0.35), (1, 1)))
    )
    carved = planned(tier(build=waist, layers=Layers(count=4, height_mm=24, cavity=Cavity(diameter_mm=76))))
    assert "layers.room_breaks_out" in codes(carved)
    assert carved.tiers[0].layers.cavity.wall.value < 0
    assert carved.tiers[0].layers.cavity.volume.value < math.pi * 38**2 * 66 / 1000


def test_a_room_goes_through_the_layers_that_are_named_down_to_the_board():
    room = Cavity(diameter_mm=60, first=1, last=2, filled_with="sweets")
    done = planned(tier(layers=Layers(count=4, height_mm=24, cavity=room)))
    cavity = done.tiers[0].layers.cavity
    assert cavity.height.value == pytest.approx(2 * 24 + 2 * 6)
    assert cavity.fill_weight.value == pytest.approx(cavity.volume.value * 0.6)
    plain = planned(tier(layers=Layers(count=4, height_mm=24, cavity=room.model_copy(update={"filled_with": None}))))
    assert done.stack.weight.value - plain.stack.weight.value == pytest.approx(cavity.fill_weight.value)
    asked = document(tier(layers=Layers(count=4, height_mm=24, cavity=room)))
    wants = shop([Asked("a", asked, bill_of(asked, done))], Pantry()).wants
    assert wants["sweets"].needed.value == pytest.approx(cavity.fill_weight.value)


def test_syrup_goes_on_each_layer_as_it_is_carved():
    carved = one(tier(200, build=TaperedBuild(narrow_mm=100), layers=Layers(syrup=Syrup(soak_mm=1)))).layers
    faces = [math.pi * (98 - 48 * up / 102) ** 2 for up in (30, 66, 102)]
    assert carved.syrup.volume.value == pytest.approx(sum(faces) / 1000, rel=1e-3)


def test_dam_and_seal_weigh_on_a_drum_on_its_side():
    drum = {"build": SideBuild(cut_mm=10), "final": TwinFinal(disc_diameter_mm=216)}
    filling = SoftFilling(medium="caramel", dam_width_mm=20)
    done = one(tier(filling=filling, **drum))
    parts = done.layers
    held = sum(
        part.value
        for part in (parts.cake_weight, parts.filling.weight, parts.filling.dam_weight, parts.filling.seal_weight)
    )
    whole_g = held + done.coats.crumb_stays.value + done.coats.stays.value
    volume = math.pi / 4 * 216**2 * done.coats.final.height.value / 1000
    radius, chord = 108, math.sqrt(10 * 206)
    segment = radius**2 * math.acos((radius - 10) / radius) - (radius - 10) * chord
    share = segment * done.coats.final.height.value / 1000 / volume
    assert done.foot.slice_weight.value == pytest.approx(share * whole_g)


def test_no_number_of_layers_is_offered_that_the_board_inside_forbids():
    five = Layers(count=5, height_mm=30, board_after=4, target_height_mm=90)
    other = one(tier(layers=five)).layers.target.other_count
    assert other is None or other.count.value > 4


def test_each_slice_is_used_once_and_the_last_is_turned_over():
    for count, torte in ((4, 2), (3, 3), (5, 2), (6, 3), (2, 2)):
        layers: LayersPlan = one(tier(layers=Layers(count=count, height_mm=14, bake=TinBake(torte=torte)))).layers
        places = [(place.baked, place.slice) for place in layers.order]
        assert len(set(places)) == count
        assert places[0] == (1, 1)
        if count > torte:
            assert layers.order[-1].slice == 1


def test_batter_goes_by_what_is_cut_and_a_deep_cut_takes_a_deeper_tin():
    """Common practice, charts from memory: 710 to 830 ml for an 8 in tin 2 in deep."""
    full = tier(8 * INCH, layers=Layers(count=1, height_mm=45.8))
    assert 710 <= planned(full).batter.whole.value <= 830
    low, high = (
        planned(tier(layers=Layers(count=3, height_mm=cut))).batter.whole.value for cut in (1.25 * INCH, 1.5 * INCH)
    )
    assert high / low == pytest.approx((1.5 * INCH + 5) / (1.25 * INCH + 5))
    deep = planned(tier(layers=Layers(count=1, height_mm=3 * INCH, bake=TinBake(depth_mm=3 * INCH))))
    assert "layers.tin_too_shallow" in codes(deep)
    assert deep.tiers[0].layers.tin_depth.value == pytest.approx(3 * INCH + 5)
    thin = one(tier(layers=Layers(count=4, height_mm=12))).layers
    assert (thin.slices_each.value, thin.tins.value) == (3, 2)


def test_a_batch_is_what_the_recipe_fills_and_is_made_with_whole_eggs():
    mixes = planned(tier()).batter.mixes
    recipe = usual_contents().cakes["vanilla_sponge"]
    assert mixes["vanilla_sponge"].batch.value == pytest.approx(recipe.batch_ml)
    assert min(cake.batch_ml for cake in usual_contents().cakes.values()) >= 2013 - 1
    assert max(cake.batch_ml for cake in usual_contents().cakes.values()) <= 2318 + 1
    assert (mixes["vanilla_sponge"].batches.value * 10) % 1 == 0
    assert batches_of(1400, 2000, 1 / 4) == 0.75


# Boards and what stands on what


def test_boards_have_the_shape_of_the_cake():
    oblong = planned(tier(9 * INCH, shape=RectangleShape(length_mm=13 * INCH)))
    assert oblong.stack.base_shape == "rectangle"
    assert oblong.stack.base_length.value - oblong.stack.base_diameter.value == pytest.approx(4 * INCH)
    (board,) = [need for need in oblong.kit.values() if need.tool == "base board"]
    assert board.status != "have"
    owned = Kit(shaped_boards=(ShapedBoard(shape="rectangle", across_mm=300, length_mm=400),))
    (board,) = [
        need
        for need in plan(
            Design(tiers=(tier(9 * INCH, shape=RectangleShape(length_mm=13 * INCH)),)), Practice(), MEDIA, owned
        ).kit.values()
        if need.tool == "base board"
    ]
    assert (board.status, board.owned_shape, board.owned.value) == ("have", "rectangle", 300)
    two = planned(tier(300), tier(205, shape=SquareShape()))
    assert (two.tiers[1].stack.board_shape, two.tiers[1].stack.board_diameter.value) == ("square", pytest.approx(201))
    heart = planned(tier(300), tier(200, shape=HeartShape()))
    assert heart.tiers[1].stack.board_shape == "outline"
    (cut,) = [need for need in heart.kit.values() if need.tool == "board"]
    assert cut.status == "next best" and "cut it down" in cut.changes


def test_an_inverted_upper_tier_stands_on_its_card():
    whole = planned(tier(300), tier(203.2, final=InvertedFinal(disc_diameter_mm=216)))
    boards = [need.size.value for need in whole.kit.values() if need.tool == "board" and need.tier == 2]
    assert boards == pytest.approx([216])
    cards = [need.count for need in whole.kit.values() if need.tool == "card" and need.tier == 2]
    assert cards == [1]
    assert whole.tiers[1].coats.papers.value == 1
    assert one(tier(final=TwinFinal(disc_diameter_mm=216))).coats.papers.value == 2


def test_a_hidden_board_stands_on_supports_that_are_bought():
    single, double = (planned(tier(layers=Layers(count=6, height_mm=25, board_after=board))) for board in (None, 3))
    under = double.stack.joints["inside_1"]
    assert under.count.value == 5
    assert under.length.value == pytest.approx(3 * 25 + 2 * 6)
    asked = document(tier(layers=Layers(count=6, height_mm=25, board_after=3)))
    wanted = {
        key: want.needed.value
        for key, want in shop([Asked("a", asked, bill_of(asked, double))], Pantry()).wants.items()
    }
    assert wanted["wide_straw_240"] == math.ceil(5 / (240 // 87))
    assert single.tiers[0].layers.board is None


def test_corners_that_hang_over_a_round_tier_are_said():
    over = planned(tier(8 * INCH), tier(6 * INCH, shape=SquareShape()))
    assert "stack.corners_over" in codes(over)
    assert "stack.corners_over" not in codes(planned(tier(9.5 * INCH), tier(6 * INCH, shape=SquareShape())))


def test_a_base_board_of_another_shape_holds_the_corners():
    square = tier(250, shape=SquareShape())
    whole = plan(Design(tiers=(square,), base_board=BaseBoard(shape="round")), Practice(), MEDIA)
    assert whole.stack.base_diameter.value == pytest.approx((250 - 2 * 4 + 2 * (1 + 6)) * math.sqrt(2) + 50.8)


def test_a_lip_a_border_and_a_piece_on_top_are_in_the_height_and_a_foot_border_on_the_board():
    lip = planned(tier(final=DeckledFinal(rim_mm=14)))
    assert lip.tiers[0].stack.height.value == pytest.approx(110 + 14)
    assert lip.stack.height.value == pytest.approx(lip.tiers[0].stack.top.value + 14)
    bordered = planned(tier(borders=(Border(bead_mm=10, bead="round"),)))
    plain = planned(tier())
    assert bordered.stack.base_diameter.value - plain.stack.base_diameter.value == pytest.approx(20)
    pieces = (
        OnTop(shape=HeartShape(), across_mm=80, count=3),
        OnTop(shape=SquareShape(), across_mm=40, thickness_mm=8),
    )
    whole = planned(tier(on_top=pieces))
    assert whole.tiers[0].stack.height.value == pytest.approx(110 + 8)
    assert {part.place for part in whole.section.added} == {"tiers.1.on_top.piece_1", "tiers.1.on_top.piece_2"}
    assert whole.tiers[0].on_top["piece_1"].piece.count.value == 3


def test_an_oblong_tin_without_a_length_serves_for_none_and_one_with_it_does():
    need = Need("tin", 1, Measure(200), 150, shape="oval", length=Measure(280))
    for tin, status in (
        (Tin(shape="oval", across_mm=200), "get"),
        (Tin(shape="oval", across_mm=200, length_mm=280), "have"),
    ):
        (found,) = kit_of([need], interned(Kit(tins=(tin,)))).values()
        assert found.status == status


def test_a_free_outline_names_the_sheet_tin_it_is_cut_from():
    outline = FreeShape(points_mm=((0, 0), (200, 0), (200, 120), (90, 180), (0, 120)))
    whole = planned(tier(200, shape=outline))
    (tin,) = [need for need in whole.kit.values() if need.tool == "tin"]
    assert (tin.shape, tin.size.value, tin.length.value) == ("rectangle", 200, pytest.approx(180))


# Said everywhere the same


def test_the_kit_asks_for_the_plans_own_sizes_rounded_the_same_way():
    whole = planned(tier(300, cover=DrapeCover()), tier(203.2, cover=DrapeCover()))
    needs = {(need.tool, need.tier): need.size for need in whole.kit.values()}
    for need, figure in (
        (needs["base board", None], whole.stack.base_diameter),
        (needs["board", 2], whole.tiers[1].stack.board_diameter),
        (needs["mat", 1], whole.tiers[0].cover.roll_diameter),
        (needs["scraper", 1], whole.tiers[0].coats.scraper),
    ):
        assert (need.value, need.rounding) == (pytest.approx(figure.value), figure.rounding)
    bowl = whole.bowls["fondant"]
    assert {bowl.need.rounding, bowl.mix.rounding, *(one.rounding for one in bowl.at_risk.values())} == {"up"}


def test_allergens_are_those_of_the_recipes_in_use_on_the_plan_and_on_the_list():
    almond = tier(layers=Layers(cake="almond_cake"))
    whole = planned(almond)
    assert {one.allergen for one in whole.allergens} == {"egg", "milk", "nuts", "wheat"}
    text = next(check.text for check in whole.checks if check.code == "caution.allergens")
    assert "nuts (almond cake)" in text
    listed = shop([Asked("a", document(almond), bill_of(document(almond), whole))], Pantry()).allergens
    assert {one.allergen for one in listed} == {one.allergen for one in whole.allergens}
    own = Recipe(
        key="meringue_nut",
        name="Nut meringue",
        makes="meringue_buttercream",
        lines=(RecipeLine(item="butter", amount=100), RecipeLine(item="ground_almonds", amount=50)),
    )
    pantry = Pantry(recipes=(own,), chosen={"meringue_buttercream": "meringue_nut"})
    again = plan(Design(tiers=(tier(),)), Practice(), MEDIA, contents=contents_of(pantry))
    assert "nuts" in {one.allergen for one in again.allergens}


def test_what_has_no_price_is_named_and_costs_nothing_unsaid():
    asked = document(tier())
    pantry = Pantry()
    cost = cost_of(asked, bill_of(asked, planned(tier())), Prices({}, pantry.in_use(), pantry.items()), pantry.terms)
    assert cost.materials.value == 0
    assert len(cost.unpriced) >= 5


def test_files_of_earlier_days_are_read():
    text = """{"format": "amber-spread/1", "title": "Old", "design": {"colours": [], "tiers": [{"tin_diameter_mm": 200,
      "on_top": {"shape": {"kind": "heart"}, "across_mm": 80}}, {"tin_diameter_mm": 150, "on_top": null}]},
      "practice": {"batter_fill": 0.6, "semi_naked_share": 0.4, "run_out_risk": 0.1, "filling_mm": 7,
      "techniques": {"crumb": {"lost": 0.25, "float": 0.25, "variation": 0.25},
                     "disc": {"lost": 0.2, "float": 1.0, "variation": 0.15}}}}"""
    read = read_document(text)
    assert len(read.design.tiers[0].on_top) == 1
    assert read.design.tiers[1].on_top == ()
    practice = read.practice
    assert (practice.batter_fill, practice.semi_naked_share, practice.filling_mm) == (0.48, 0.25, 7)
    assert practice.techniques.crumb == Practice().techniques.crumb
    assert practice.techniques.disc.lost == 0.2
    assert Practice(batter_fill=0.6).batter_fill == 0.6


# Nobody changes what is handed out


def test_a_plan_cannot_be_changed_by_whoever_holds_it():
    first = planned(tier(cover=PanelCover(), borders=(Border(),)))
    height, cover = first.tiers[0].layers.height, first.tiers[0].cover
    with pytest.raises(TypeError, match="cannot be changed"):
        height.value = 999
    with pytest.raises(TypeError, match="cannot be changed"):
        height.given["layers"] = 1
    with pytest.raises(TypeError, match="cannot be changed"):
        cover.pieces.clear()
    with pytest.raises(TypeError, match="cannot be changed"):
        cover.laid.append(None)
    with pytest.raises(TypeError, match="cannot be changed"):
        first.tiers[0].borders["border_1"] = None
    assert planned(tier(cover=PanelCover(), borders=(Border(),))).model_dump() == first.model_dump()


def test_a_piece_of_a_plan_refuses_a_field_it_does_not_know():
    with pytest.raises(TypeError, match="has no colour_of_the_sky"):
        one().stack.replace(colour_of_the_sky=1)


def test_a_parameter_whose_unit_cannot_be_read_is_refused():
    with pytest.raises(ValueError, match="what unit"):

        @rule("test.no_unit", unit="mm", formula="wide", words="No unit.")
        def no_unit(wide_furlongs: float) -> float:
            return wide_furlongs


def test_plain_fillings_and_coats_of_one_medium_share_one_bowl():
    whole = planned(tier(filling=PlainFilling(), final=FreehandFinal()))
    assert list(whole.bowls) == ["meringue_buttercream"]
