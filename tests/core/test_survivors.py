"""What small faults put into the core once went unseen by every test: each held by an assertion of its own."""

import math

import pytest

from amber_spread.core.bowls.reserve import normals
from amber_spread.core.design.builds import ProfilePoint, SideBuild, TaperedBuild, TurnedBuild
from amber_spread.core.design.design import BowlOrder, Cavity, Design, Layers
from amber_spread.core.design.finishes import (
    CollarCover,
    CrumbCoat,
    DiscFinal,
    DrapeCover,
    FreehandFinal,
    HalvesCover,
    InvertedFinal,
    Measured,
    NoFinal,
    PanelCover,
    PrintedCover,
    SoftFilling,
    Stripe,
    TwinFinal,
)
from amber_spread.core.design.forms import BUILDS, SHAPES
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import OvalShape, PetalShape, PolygonShape, RectangleShape, RoundShape, SquareShape
from amber_spread.core.document.document import plan_document
from amber_spread.core.geometry.bodies import profile
from amber_spread.core.geometry.bodies.body import Sideways
from amber_spread.core.geometry.flat.outline import Cornered
from amber_spread.core.geometry.flat.pieces import area_of
from amber_spread.core.geometry.flat.traced import free
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import interned
from amber_spread.core.kernel.figures import decided
from amber_spread.core.line import read_line, write_line
from amber_spread.core.plan import plan
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.shop.costs import Prices
from amber_spread.core.stock.goods import good_key
from amber_spread.core.stock.ingredients import ingredient_shelf
from amber_spread.core.stock.kit import Kit, Mat, Measure, Need, ShapedBoard, kit_of
from amber_spread.core.stock.pantry import Pack, Pantry
from amber_spread.core.stock.recipes import Recipe, RecipeLine, items_within, scale
from amber_spread.core.tier.layers.hidden import hollowed
from amber_spread.core.tier.layers.layers import length_of
from tests.designs import COLOURS, MEDIA, document, planned, tier, worked

BARE = {"crumb": CrumbCoat(thickness_mm=0), "final": NoFinal()}


def test_there_are_two_halves_to_anything():
    for build in ({}, {"build": SideBuild(cut_mm=10)}):
        assert planned(tier(cover=HalvesCover(), **build)).tiers[0].cover.pieces["half"].count.value == 2


def test_a_panel_with_a_bare_top_adds_nothing_to_the_height():
    bare, over = (planned(tier(cover=PanelCover(top=top))).tiers[0] for top in ("none", "over"))
    assert bare.cover.over.top.value == 0
    assert over.stack.height.value - bare.stack.height.value == pytest.approx(3)
    assert "top" not in bare.cover.pieces


ROOMY = Kit(mat=Mat(width_mm=1200, length_mm=1200))


def test_a_sector_opens_wider_for_its_lap():
    angle = {
        lap: planned(tier(250, build=TaperedBuild(narrow_mm=200), cover=PanelCover(overlap_mm=lap), **BARE), kit=ROOMY)
        .tiers[0]
        .cover.pieces["panel"]
        for lap in (0, 30)
    }
    turn = {lap: math.radians(piece.sizes["angle"].value) for lap, piece in angle.items()}
    outer = angle[30].sizes["outer"].value
    assert (turn[30] - turn[0]) * outer == pytest.approx(30, rel=0.02)


def test_an_order_of_ones_own_is_worked_in_and_costs_what_it_costs():
    tiers = tuple(tier(tin, cover=DrapeCover(colour="ivory")) for tin in (300, 150))
    wanted = ("tier_2_cover", "tier_1_cover")
    order = BowlOrder(bowl="fondant~ivory", steps=wanted)
    whole = plan(Design(tiers=tiers, colours=COLOURS, orders=(order,)), Practice(), MEDIA).bowls["fondant~ivory"]
    least = plan(Design(tiers=tiers, colours=COLOURS), Practice(), MEDIA).bowls["fondant~ivory"]
    assert tuple(whole.steps) == wanted
    assert tuple(least.steps) == wanted[::-1]
    assert whole.order_cost.value == pytest.approx(whole.need.value - least.need.value)
    assert whole.order_cost.value > 0


def test_every_stripe_has_its_own_share_and_colour():
    stripes = tuple(Stripe(colour=colour, share=share) for colour, share in (("ivory", 1), ("blush", 2), ("pale", 5)))
    cover = planned(tier(cover=PanelCover(stripes=stripes, overlap_mm=0))).tiers[0].cover
    weights = [cover.stripes[f"stripe_{number}"].value for number in (1, 2, 3)]
    assert [weight / weights[0] for weight in weights] == pytest.approx([1, 2, 5])
    assert [(band.stripe, band.colour) for band in cover.pieces["panel"].bands] == [
        (1, "ivory"),
        (2, "blush"),
        (3, "pale"),
    ]


def test_a_seal_lies_once_below_each_filling_of_a_carved_tier():
    soft = SoftFilling(dam_width_mm=10, seal_mm=2, thickness_mm=6)
    layers = planned(tier(200, build=TaperedBuild(narrow_mm=195), filling=soft)).tiers[0].layers
    inside = [math.pi * (98 - 0.5 * up / 102 - 10) ** 2 for up in (33, 69)]
    assert layers.filling.seal_volume.value == pytest.approx(2 * sum(inside) / 1000, rel=0.01)


def test_the_rim_of_a_whole_drum_is_its_girth():
    assert Sideways(80, 100, 80).rim_mm == pytest.approx(2 * math.pi * 80)
    assert Sideways(80, 100, 0).rim_mm == pytest.approx(math.pi * 80)


def test_goods_cost_by_the_piece_and_batter_by_the_recipe():
    flour = Recipe(
        key="plain_cake",
        name="Plain cake",
        makes="plain_cake",
        cake=True,
        batter_g_per_ml=1.0,
        lines=(RecipeLine(item="plain_flour", amount=1000),),
    )
    packs = (Pack(item="plain_flour", size=1000, price=2), Pack(item="board_203", size=5, unit="each", price=10))
    one = document(tier(300, layers=Layers(cake="plain_cake")), tier(203.2, layers=Layers(cake="plain_cake")))
    whole = plan_document(one)
    (cost,) = (
        share.cost
        for share in shop([Asked("a", one, bill_of(one, whole))], Pantry(recipes=(flour,), packs=packs)).orders.values()
    )
    assert cost.tiers["tier_2"].steps["board"].value == pytest.approx(2)
    for number in (1, 2):
        batter_g = whole.batter.tiers[f"tier_{number}"].value * 1.0
        assert cost.tiers[f"tier_{number}"].steps["cake"].value == pytest.approx(round(batter_g / 1000 * 2, 2))


def test_an_oblong_cake_is_built_up_each_way_to_its_own_widest():
    measured = Measured(heights_mm=(100, 100, 100, 100), top_mm=(190, 300), foot_mm=(200, 290))
    build_up = planned(tier(204, shape=RectangleShape(length_mm=304), measured=measured)).tiers[0].coats.build_up
    assert build_up.volume.value == pytest.approx(
        (200 * 300 - (200 * 290 + 190 * 300 + 4 * 195 * 295) / 6) * 100 / 1000
    )
    assert build_up.sides["left"].top.value == pytest.approx(5)
    assert build_up.sides["back"].foot.value == pytest.approx(5)
    assert build_up.sides["back"].top.value == build_up.sides["left"].foot.value == 0


def test_a_rim_is_rounded_only_where_the_rounding_fits():
    drum = profile.straight(50, 20)
    assert len(profile.rounded_rim(drum, 6)) == 3
    for radius in (0, 20.5, 25, 60):
        assert profile.rounded_rim(drum, radius) == drum
    assert profile.rounded_rim(profile.straight(5, 20), 6) == profile.straight(5, 20)


def test_a_hidden_board_is_an_inch_smaller_and_never_less_than_half_the_cake():
    wide = planned(tier(204, layers=Layers(count=4, height_mm=25, board_after=2))).tiers[0].layers.board
    assert wide.diameter.value == pytest.approx(200 - 25.4)
    small = planned(tier(50, layers=Layers(count=4, height_mm=25, board_after=2))).tiers[0].layers.board
    assert small.diameter.value == pytest.approx(46 / 2)


def test_a_line_given_by_volume_says_so_as_many_times_as_the_recipe_is_made():
    milk = Recipe(
        key="mine",
        name="Mine",
        makes="syrup",
        lines=(RecipeLine(item="whole_milk", amount=100, unit="ml"), RecipeLine(item="sugar", amount=100)),
    )
    scaled = scale(milk, decided(609.39, "g"), Pantry().items())
    line = scaled.lines["line_1"]
    assert line.volume.value == pytest.approx(100 * scaled.factor.value)
    assert line.weight.value == pytest.approx(line.volume.value * 1.0313, rel=1e-3)
    assert scaled.lines["line_2"].volume is None


def test_a_thin_coat_is_said_by_its_thinner_face():
    for side, top in ((2, 6), (6, 2)):
        codes = {check.code for check in planned(tier(final=FreehandFinal(side_mm=side, top_mm=top))).checks}
        assert "coats.thin" in codes


def test_a_leaning_panel_in_two_strips_is_two_pieces_in_upright_stripes_and_one_twice_in_level_ones():
    stripes = (Stripe(colour="ivory", share=2), Stripe(colour="blush"))
    for run, keys, count in (("upright", ["panel_1", "panel_2"], 1), ("round", ["panel"], 2)):
        leaning = tier(254, build=TaperedBuild(narrow_mm=216), cover=PanelCover(stripes=stripes, run=run))
        pieces = planned(leaning).tiers[0].cover.pieces
        panels = {key: piece for key, piece in pieces.items() if piece.stuff == "sheet"}
        assert list(panels) == keys
        assert {piece.count.value for piece in panels.values()} == {count}


def test_an_overhang_is_told_in_the_widths_it_is_of():
    (check,) = (one for one in planned(tier(200), tier(250)).checks if one.code == "stack.overhang")
    assert check.values["above"].value == pytest.approx(250 - 4 + 16)
    assert check.values["below"].value == pytest.approx(200 - 4 + 16)
    assert check.values["over"].value == pytest.approx(25)


@pytest.mark.parametrize("petals", [6, 8, 10, 12])
def test_petal_tins_come_with_so_many_petals(petals):
    outline = PetalShape(petals=petals).outline(200)
    side = 200 / (1 / math.tan(math.pi / petals) + 1)
    polygon = petals * side**2 / (4 * math.tan(math.pi / petals))
    assert outline.area_mm2 == pytest.approx(polygon + petals * math.pi * side**2 / 8, rel=1e-3)


def test_a_collars_length_goes_round_the_middle_of_its_own_thickness():
    thick = planned(tier(203.2, cover=CollarCover(thickness_mm=8, overlap_mm=20))).tiers[0]
    piece = next(one for one in thick.cover.pieces.values() if one.name == "Chocolate")
    bare = planned(tier(203.2)).tiers[0].stack.diameter.value
    assert piece.sizes["long"].value == pytest.approx(math.pi * (bare + 8) + 20, rel=1e-6)


@pytest.mark.parametrize(
    ("shape", "said"),
    [(RoundShape(), False), (SquareShape(), True), (OvalShape(length_mm=240), True), (PolygonShape(), True)],
)
def test_a_disc_for_a_tier_that_is_not_round_must_have_its_shape(shape, said):
    found = planned(tier(203.2, shape=shape, final=DiscFinal(disc_diameter_mm=215)))
    assert any(check.code == "coats.plate_shape" for check in found.checks) == said


@pytest.mark.parametrize(
    ("shape", "long"), [(RoundShape(), None), (SquareShape(), None), (OvalShape(length_mm=240), 236)]
)
def test_a_length_is_told_only_where_it_is_not_the_width(shape, long):
    found = length_of(shape.outline(203.2).offset(-2))
    assert (None if found is None else found.value) == (None if long is None else pytest.approx(long, abs=0.3))


def test_corners_are_stretched_by_the_lesser_of_the_two_ways():
    stretched = Cornered(200, 100, 20).stretched(1.5, 0.8)
    assert (stretched.width_mm, stretched.length_mm, stretched.corner_mm) == pytest.approx((300, 80, 16))


def test_orders_of_one_name_are_numbered_from_the_second_on():
    cake = document(tier(), title="Skep")
    asked = [Asked(str(number), cake, bill_of(cake, plan_document(cake))) for number in range(3)]
    pools = shop(asked, Pantry()).pools.values()
    assert {name for pool in pools for name in pool.apart.given} == {"Skep", "Skep (2)", "Skep (3)"}


def test_a_room_that_begins_in_the_lowest_layer_takes_nothing_below_it():
    slabs = planned_slabs(layers=Layers(count=4, cavity=Cavity(diameter_mm=60, first=1, last=2)))
    assert [slab.kind for slab in hollowed(slabs, 1, 2)] == ["layer", "filling", "layer", "filling"]
    assert [slab.kind for slab in hollowed(slabs, 2, 3)] == ["filling", "layer", "filling", "layer", "filling"]
    boarded = planned_slabs(layers=Layers(count=5, board_after=2))
    assert [slab.kind for slab in hollowed(boarded, 3, 4)] == ["layer", "filling", "layer", "filling"]


def planned_slabs(**more):
    return worked(tier(203.2, **more)).slabs


@pytest.mark.parametrize(("width", "height"), [(200, 150), (120, 400), (90, 90)])
def test_parts_of_a_printed_top_lap_over_each_other_and_lie_on_their_sheet(width, height):
    cover = PrintedCover(sheet_width_mm=width, sheet_height_mm=height, overlap_mm=5, top="circle")
    count = planned(tier(254, cover=cover)).tiers[0].cover.top_parts.value
    across = planned(tier(254)).tiers[0].stack.diameter.value
    # Parted into so many rows and columns, each part with its lap lies on a sheet, one way or the other.
    grids = [(rows, int(count) // rows) for rows in range(1, int(count) + 1) if int(count) % rows == 0]
    parts = [sorted(across / side + (5 if side > 1 else 0) for side in grid) for grid in grids]
    assert count > 1
    assert any(short <= min(width, height) and long <= max(width, height) for short, long in parts)


def test_a_leaning_panel_is_rolled_high_enough_for_its_lap_and_its_trim():
    for shape in (RoundShape(), SquareShape()):
        plain, more = (
            planned(tier(203.2, shape=shape, build=TaperedBuild(narrow_mm=150), cover=PanelCover(trim_mm=trim)))
            .tiers[0]
            .cover
            for trim in (0, 20)
        )
        high, higher = (max(min(piece.size) for piece in one.pieces.values()) for one in (plain, more))
        assert higher > high


def test_the_card_a_tier_was_turned_over_on_is_not_asked_for_twice():
    bottom, top = (
        tier(tin, final=InvertedFinal(disc_diameter_mm=tin + 12), cover=DrapeCover()) for tin in (254, 152.4)
    )
    plan_ = planned(bottom, top)
    cards = {need.tier: need.count for need in plan_.kit.values() if need.tool == "card"}
    assert cards == {1: 2, 2: 1}
    twin = planned(*(tier(tin, final=TwinFinal(disc_diameter_mm=tin + 12)) for tin in (254, 152.4)))
    assert [need.count for need in twin.kit.values() if need.tool == "disc"] == [2, 2]


def test_a_board_of_just_the_size_that_serves_is_had():
    square = Need("board", 1, Measure(200), 190, shape="square", length=Measure(200))
    for side, status in ((193.6, "have"), (193.0, "next best")):
        kit = Kit(boards_mm=(), shaped_boards=(ShapedBoard(shape="square", across_mm=side),))
        assert kit_of([square], interned(kit))["need_1"].status == status


@pytest.mark.parametrize(("sides", "kept"), [(6, True), (8, True), (10, True), (12, True), (13, False), (7, False)])
def test_a_polygon_has_as_many_sides_as_tins_have(sides, kept):
    if kept:
        assert PolygonShape(sides=sides).sides == sides
    else:
        with pytest.raises(ValueError, match="6, 8, 10 or 12"):
            PolygonShape(sides=sides)


def test_a_small_outline_keeps_every_corner_it_was_drawn_with():
    drawn = free(200.0, ((0, 0), (100, 0.015), (200, 0), (200, 100), (0, 100)))
    assert len(drawn.polygon.exterior.coords) == 6


def test_a_count_of_layers_that_reaches_is_looked_for_up_to_the_most_there_are():
    most = int(limits.LAYER_COUNT.high)
    practice = Practice(cut_least_mm=19.5, filling_mm=5)
    target = 20 * most + 5 * (most - 1)
    wanted = Layers(count=most - 2, height_mm=20, target_height_mm=target)
    one = tier(layers=wanted, final=NoFinal(), crumb=CrumbCoat(thickness_mm=0))
    other = planned(one, practice=practice).tiers[0].layers.target.other_count
    assert other.count.value == most
    assert other.cut_height.value == pytest.approx(20)


def test_what_a_pack_costs_is_its_price_times_how_many():
    pack = Pack(item="sugar", size=500, unit="g", price=2.5)
    whole = shop(
        [Asked("one", document(tier()), bill_of(document(tier()), plan_document(document(tier()))))],
        Pantry(packs=(pack,)),
    )
    want = whole.wants["sugar"]
    (count,) = {bought.count.value for bought in want.packs.values()}
    assert count > 1
    assert sum(one.value for one in want.cost.given.values()) == pytest.approx(2.5 * count)


def test_no_walk_of_a_bowl_stands_at_the_edge_of_what_is_sampled():
    sample = normals()
    assert abs(sample).max() < 5
    assert abs(sample.mean()) < 0.01
    assert sample.std() == pytest.approx(1, abs=0.01)


def test_a_profile_is_smoothed_through_every_corner_in_even_steps():
    corners = ((0.0, 100.0), (30.0, 80.0), (50.0, 90.0), (100.0, 60.0))
    drawn = profile.smoothed(corners, 4)
    assert len(drawn) == 4 * 3 + 1
    assert all(any((up, out) == pytest.approx(corner) for up, out in drawn) for corner in corners)
    ups = [up for up, _ in drawn]
    assert ups == sorted(ups)
    assert ups[4:9] == pytest.approx([30, 35, 40, 45, 50])


def test_a_bevel_begins_straight_above_the_foot():
    wall, rim, top = profile.bevelled(100, 80, 15, 20)
    assert (wall.x0, wall.z0, wall.x1, wall.z1) == (0, 0, 0, 60)
    assert (rim.x0, rim.z0) == (wall.x1, wall.z1)
    assert (top.x0, top.z0) == (rim.x1, rim.z1) == (-15, 80)


@pytest.mark.parametrize("run", ["round", "upright"])
def test_stripes_of_a_box_run_the_way_that_is_asked(run):
    stripes = (Stripe(colour="blush"), Stripe(colour="ivory"))
    cover = PanelCover(run=run, stripes=stripes)
    one = tier(shape=SquareShape(), build=TaperedBuild(narrow_mm=150), cover=cover)
    pieces = planned(one).tiers[0].cover.pieces
    assert ("left" in pieces) == (run == "upright")
    assert pieces["front"].count.value == (1 if run == "upright" else 2)


def test_a_sheet_with_a_direction_is_never_laid_across():
    printed = {"sheet_width_mm": 210, "sheet_height_mm": 297}
    plain, directed = (
        planned(tier(203.2, cover=PrintedCover(directional=directional, **printed))).tiers[0].cover
        for directional in (False, True)
    )
    assert not any(one.turned for one in directed.laid if one.piece == "strip")
    assert plain.printed.sheets.value <= directed.printed.sheets.value


def test_the_top_of_a_printed_cover_is_said_in_parts_only_where_it_is_in_parts():
    for tin, parts in ((150, None), (400, 4)):
        cover = PrintedCover(sheet_width_mm=210, sheet_height_mm=297, top="circle")
        found = planned(tier(tin, cover=cover)).tiers[0].cover.top_parts
        assert (found is None) if parts is None else found.value >= 2


def test_points_of_a_turned_profile_are_read_to_the_last():
    points = ((0, 1), (0.5, 0.8), (1, 0.9))
    turned = TurnedBuild(points=tuple(ProfilePoint(up=up, out=out) for up, out in points))
    line = write_line(Design(tiers=(tier(build=turned),)), MEDIA)
    read = read_line(line, MEDIA, Practice())
    assert [(point.up, point.out) for point in read.design.tiers[0].build.points] == list(points)
    cut = read_line(line.replace(" / 1:0.9", " / 1:"), MEDIA, Practice())
    assert cut.unread


def test_what_may_not_follow_a_colour_is_marked_where_it_begins():
    line = write_line(Design(tiers=(tier(),), colours=COLOURS[:1]), MEDIA)
    (found,) = read_line(f"{line} striped pink", MEDIA, Practice()).unread
    assert (found.start, found.end) == (len(line) + 1, len(line) + 13)


@pytest.mark.parametrize(("foot", "top"), [(220, 160), (300, 80), (203, 190)])
def test_strips_of_a_cone_share_its_whole_turn_between_them(foot, top):
    cover = PanelCover(stripes=(Stripe(colour="blush"), Stripe(colour="ivory")), run="upright")
    one = tier(foot, build=TaperedBuild(narrow_mm=top), cover=cover)
    pieces = planned(one, practice=Practice()).tiers[0].cover.pieces
    for piece in pieces.values():
        if piece.bands:
            covered = sum(area_of(band.corners) for band in piece.bands)
            assert covered == pytest.approx(area_of(piece.corners), rel=0.02)
    shares = {1: 0.0, 2: 0.0}
    for piece in pieces.values():
        for band in piece.bands:
            shares[band.stripe] += piece.count.value * area_of(band.corners)
    assert shares[1] == pytest.approx(shares[2], rel=0.1)


def test_a_turned_wall_of_points_in_a_line_is_the_cone_through_them():
    points = tuple(ProfilePoint(up=up, out=1 - 0.3 * up) for up in (0, 0.25, 0.4, 1))
    coat = {"final": FreehandFinal(side_mm=9, top_mm=9), "cover": DrapeCover()}
    turned = planned(tier(build=TurnedBuild(points=points, smooth=False), **coat)).tiers[0]
    cone = planned(tier(build=TurnedBuild(points=(points[0], points[-1]), smooth=False), **coat)).tiers[0]
    for of in (lambda one: one.coats.stays, lambda one: one.cover.rolled_weight, lambda one: one.layers.cake_volume):
        assert of(turned).value == pytest.approx(of(cone).value, rel=1e-6)


def test_a_top_with_a_direction_that_lies_on_a_sheet_only_when_turned_is_laid_in_parts():
    one = tier(200, shape=RectangleShape(length_mm=250), crumb=CrumbCoat(thickness_mm=0), final=NoFinal())
    sheet = {"sheet_width_mm": 255, "sheet_height_mm": 205, "top": "circle"}
    free_, directed = (
        planned(one.model_copy(update={"cover": PrintedCover(directional=directional, **sheet)})).tiers[0].cover
        for directional in (False, True)
    )
    assert free_.top_parts is None
    assert directed.top_parts.value > 1


def test_a_pack_that_costs_nothing_costs_nothing():
    packs = (Pack(item="sugar", size=500, price=0), Pack(item="sugar", size=1000, price=2))
    cost = cost_of_order(packs)
    free_ = cost_of_order(packs[1:])
    assert cost.materials.value < free_.materials.value


def cost_of_order(packs):
    one = document(tier())
    return shop([Asked("one", one, bill_of(one, plan_document(one)))], Pantry(packs=packs)).orders["one"].cost


def test_batter_of_a_cake_whose_recipe_is_not_known_is_made_in_quarters():
    one = tier(layers=Layers(cake="grandmothers_secret", count=2))
    batter = planned(one).batter
    batches = batter.mixes["grandmothers_secret"].batches
    assert batches.value * 4 == pytest.approx(round(batches.value * 4))
    assert batches.value > 0


@pytest.mark.parametrize("packs", [((1, 1.0), (10, 5.0)), ((10, 5.0), (1, 1.0))])
def test_a_piece_costs_what_it_does_in_the_pack_where_it_is_cheapest(packs):
    key = good_key("board", 203.2)
    offers = [Pack(item=key, size=size, unit="each", price=price) for size, price in packs]
    assert Prices({key: offers}, {}, {}).of(key)[0].value == pytest.approx(0.5)


def test_a_kilo_costs_what_it_does_in_the_pack_where_it_is_cheapest():
    packs = (Pack(item="butter", size=100, price=1.5), Pack(item="butter", size=1000, price=9))
    for order in (packs, packs[::-1]):
        items = items_within(ingredient_shelf(()), MEDIA)
        assert Prices({"butter": order}, {}, items).of("butter")[0].value == pytest.approx(9)


@pytest.mark.parametrize(("across", "breaks"), [(98.1, True), (97.1, False)])
def test_a_room_half_a_millimetre_too_wide_breaks_out_and_one_as_much_too_narrow_does_not(across, breaks):
    hollow = tier(101.6, layers=Layers(count=4, cavity=Cavity(diameter_mm=across)))
    assert ("layers.room_breaks_out" in {check.code for check in planned(hollow).checks}) == breaks


def test_a_colour_of_a_blend_without_a_number_is_one_part():
    found = read_line('8in | colour "honey" #E3A63A | colour "pale" #F5E8E2 of "honey" / plain 3', MEDIA, Practice())
    assert found.unread == []
    assert [part.parts for part in found.design.colours[1].parts] == [1, 3]


def test_a_silhouette_stands_in_the_middle_of_its_box():
    for kind in (*SHAPES.values(), *BUILDS.values()):
        corners = [tuple(map(float, one.split())) for one in kind.icon[1:-1].split("L")]
        for along in zip(*corners, strict=True):
            assert (min(along) + max(along)) / 2 == pytest.approx(12, abs=0.11)


def test_an_outline_drawn_far_off_is_as_thin_as_it_is():
    with pytest.raises(ValueError, match="next to nothing"):
        free(200, ((0, 1000), (200, 1000), (200, 1001), (0, 1001)))


def test_a_drum_that_stands_on_its_own_rim_has_no_slice_cut_off():
    drum = Sideways(50, 40, 60)
    assert (drum.sliced_mm2, drum.foot_width_mm) == (0, 0)
    assert drum.face_area_mm2 == pytest.approx(math.pi * 2500)
