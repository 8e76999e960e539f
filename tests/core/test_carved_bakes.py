"""What a carved tier is baked in: no tin too small, no other choice better, and what no tin reaches built of paste."""

import itertools
import math

import pytest
import rectpack
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import MultiPolygon, Point, Polygon, box

from amber_spread.core.cake.nested import Bed, Lying, laid_on
from amber_spread.core.cake.oven import Oven, oven_loads
from amber_spread.core.cake.trays import HalfBall, Needed, Tray, Work, batter_ml, choose
from amber_spread.core.design.builds import JoinedBuild
from amber_spread.core.design.design import Layers
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import RectangleShape
from amber_spread.core.design.solids import ConeSolid, RaisedSolid
from amber_spread.core.kernel.caching import forget
from amber_spread.core.stock.kit import Kit, Tin
from tests.designs import LOAF, STONE, baked, carved, planned, tier


def test_each_layer_is_baked_in_a_tin_that_holds_it_and_least_is_carved_off():
    tins = (Tin(across_mm=304.8), Tin(across_mm=254), Tin(shape="square", across_mm=203.2), Tin(across_mm=101.6))
    one, baking = baked(carved(STONE, 260, layers=Layers(count=5)), *tins)
    slices = one.tiers[0].carving.slices
    taken = [number for each in baking.tins.values() for number in each.layers]
    assert sorted(taken) == [1, 2, 3, 4, 5]
    for each in baking.tins.values():
        wide = each.across.value - 2 * 2.0 + 1.0
        for number in each.layers:
            whole = MultiPolygon([Polygon(ring) for ring in slices[f"layer_{number}"].whole])
            middle = whole.convex_hull.minimum_rotated_rectangle.centroid
            if each.shape == "round":
                held = any(Point(x, y).buffer(wide / 2, 64).covers(whole) for x, y in _near(middle, 12))
            else:
                held = box(-wide / 2, -wide / 2, wide / 2, wide / 2).area >= whole.convex_hull.area
            assert held, (number, each.shape, each.across.value)
    assert len(baking.tins) > 1
    assert (
        one.batter.tiers["tier_1"].value
        == baking.batter.value
        == pytest.approx(sum(each.batter.value for each in baking.tins.values()))
    )
    piled = (
        sum(
            (math.pi / 4 if each.shape == "round" else 1) * each.across.value**2 * len(each.layers)
            for each in baking.tins.values()
        )
        * one.tiers[0].layers.cut_height.value
        / 1000
    )
    assert baking.offcut.value == pytest.approx((piled - one.tiers[0].layers.cake_volume.value) * 0.5, rel=1e-6)
    asked = {(need.shape, need.size.value): need.status for need in one.kit.values() if need.tool == "tin"}
    assert asked == {(each.shape, each.across.value): "have" for each in baking.tins.values()}


def _near(middle, reach):
    """Places on a grid about a middle."""
    steps = [reach * step / 6 for step in range(-6, 7)]
    return [(middle.x + x, middle.y + y) for x in steps for y in steps]


def test_what_no_tin_holds_is_to_be_got_and_one_tin_more_is_named_where_it_saves():
    one, baking = baked(carved(STONE, 260), Tin(across_mm=150))
    (only, *_) = baking.tins.values()
    assert not only.owned and only.across.value == 260
    assert [need.status for need in one.kit.values() if need.tool == "tin"][0] == "get"
    # Out of a tin that is far too large, a smaller one saves batter; with that one owned, it is not named again.
    _, wasteful = baked(carved(STONE, 200, layers=Layers(count=4)), Tin(across_mm=300))
    more = wasteful.one_more
    assert more is not None and more.saves.value >= 100
    assert more.batter.value + more.saves.value == pytest.approx(wasteful.batter.value)
    _, better = baked(
        carved(STONE, 200, layers=Layers(count=4)),
        Tin(across_mm=300),
        Tin(shape=more.shape, across_mm=more.across.value),
    )
    assert better.batter.value == pytest.approx(more.batter.value)


def test_a_dome_is_baked_in_a_half_ball_and_nearly_nothing_is_carved_off():
    """Half a ball of 150, its skin trimmed off, out of a half-ball tin of 154: against the volume of half a ball."""
    dome = [(75 + 75 * math.cos(turn), 75 * math.sin(turn)) for turn in (math.pi * at / 90 for at in range(91))]
    one = carved(dome, 154, layers=Layers(count=1, height_mm=75), rounded=1.0)
    tins = Tin(across_mm=254, depth_mm=100), Tin(shape="ball", across_mm=154, depth_mm=77)
    _, without = baked(one, tins[0])
    whole, baking = baked(one, *tins)
    (used,) = baking.tins.values()
    assert (used.shape, used.across.value, used.bakes.value) == ("ball", 154, 1)
    half_ml = math.pi / 12 * 154**3 / 1000
    assert used.batter.value == pytest.approx(0.48 * half_ml, rel=1e-3)
    assert baking.offcut.value == pytest.approx((half_ml - math.pi / 12 * 150**3 / 1000) * 0.5, rel=0.05)
    assert [need.status for need in whole.kit.values() if need.tool == "tin"] == ["have"]
    # Where there is none, it is named as the tin that would save most.
    assert without.one_more.shape == "ball" and without.one_more.across.value == pytest.approx(203.2)
    # A shallow tin is no half of a ball, and one a little smaller does not hold it.
    for other in (Tin(shape="ball", across_mm=154, depth_mm=60), Tin(shape="ball", across_mm=150, depth_mm=75)):
        assert [used.shape for used in baked(one, tins[0], other)[1].tins.values()] == ["round"]


@settings(max_examples=25)
@given(
    st.lists(st.floats(20, 150), min_size=1, max_size=4),
    st.lists(
        st.tuples(st.floats(45, 160), st.integers(1, 3), st.sampled_from(["round", "square", "ball"])),
        min_size=1,
        max_size=3,
    ),
    st.none() | st.integers(1, 4),
)
def test_no_other_choice_of_tins_takes_less_batter_in_no_more_bakes_than_are_wanted(radii, kinds, most):
    """Against every way to give layers to tins; where no way has so few bakes, against those that have fewest."""
    slices = tuple(Needed(radius, Lying(1.6 * radius, 1.8 * radius), 1.1 * radius) for radius in radii)
    trays = [
        HalfBall(shape, 2 * half, None, 1, True) if shape == "ball" else Tray(shape, 2 * half, None, each, True)
        for half, each, shape in kinds
    ]
    trays.append(Tray("round", 330.0, None, 1, False))
    work = Work(slices, 30.0, 5.0, 0.48, 2.0, most=most)

    def bakes(chosen):
        return sum(one.bakes(len(taken)) for one, taken in chosen.items())

    def cost(chosen):
        return batter_ml(work, chosen) + sum(1e6 * len(taken) for one, taken in chosen.items() if not one.owned)

    def lies(tray, group):
        """Whether the library that packs rectangles finds room for slices on a sheet; alone, whether the tin holds it."""
        if len(group) == 1:
            return tray is trays[-1] or tray.holds(slices[group[0]], 2.0)
        if tray.shape != "square":
            return False
        packer = rectpack.newPacker(rotation=True)
        side = tray.across - 4 + 0.5
        packer.add_bin(round((side + 5) * 10), round((side + 5) * 10))
        for at in group:
            lying = slices[at].lying
            packer.add_rect(round((lying.short + 5) * 10) + 1, round((lying.long + 5) * 10) + 1)
        packer.pack()
        return len(packer[0]) == len(group) if len(packer) else False

    every = list(every_way(slices, trays, lies))
    found = choose(work, tuple(trays), lambda *_: 0.0)
    assert most is None or bakes(found) <= max(most, min(map(bakes, every)))
    # What lies side by side in round tins is not among these ways; it may come to fewer bakes than any of them.
    allowed = len(slices) if most is None else max(most, bakes(found))
    least = min((cost(chosen) for chosen in every if bakes(chosen) <= allowed), default=math.inf)
    assert sorted(at for taken in found.values() for group in taken for at in group) == list(range(len(slices)))
    assert cost(found) <= least * (1 + 1e-6) + 0.02
    for one, taken in found.items():
        for group in taken:
            if len(group) == 1:
                assert one is trays[-1] or one.holds(slices[group[0]], 2.0)
            else:
                lying = tuple(slices[at].lying for at in group)
                held_apart(laid_on(lying, 5.0, one.bed(2.0)), lying, one.bed(2.0))


def every_way(slices, trays, lies):
    """Every way to cut all slices out of tins, each group of them where it lies."""
    for groups in partitions(list(range(len(slices)))):
        for places in itertools.product(range(len(trays)), repeat=len(groups)):
            if all(lies(trays[place], group) for place, group in zip(places, groups, strict=True)):
                chosen = {}
                for place, group in zip(places, groups, strict=True):
                    chosen.setdefault(trays[place], []).append(group)
                yield chosen


def partitions(ones):
    """Every way to part a list into groups."""
    if not ones:
        yield []
        return
    for size in range(len(ones)):
        for others in itertools.combinations(ones[1:], size):
            rest = [one for one in ones[1:] if one not in others]
            for more in partitions(rest):
                yield [(ones[0], *others), *more]


def held_apart(room, ones, bed):
    """Rectangles lie on their bed, each of its own size, and as far apart as the knife asks."""
    sheet = Point(bed.wide / 2, bed.high / 2).buffer(bed.wide / 2, 256) if bed.round else box(0, 0, bed.wide, bed.high)
    lie = []
    for spot in room.spots:
        short, long, _ = ones[spot.which]
        wide, high = (short, long) if spot.quarters == 0 else (long, short)
        lie.append(box(spot.x, spot.y, spot.x + wide, spot.y + high))
    assert sorted(spot.which for spot in room.spots) == list(range(len(ones)))
    assert sheet.buffer(0.01).covers(shapely.unary_union(lie))
    for one, other in itertools.combinations(lie, 2):
        assert one.distance(other) >= 5.0 - 1e-6
    assert sum(one.area for one in lie) <= sheet.area + 1e-3


@given(
    st.lists(st.tuples(st.integers(10, 90), st.integers(10, 90)), min_size=2, max_size=4),
    st.integers(60, 160),
    st.integers(60, 160),
)
def test_what_a_library_lays_on_a_sheet_is_laid_on_it_here_too(sides, wide, high):
    sides = [tuple(sorted(one)) for one in sides]
    lying = tuple(Lying(float(short), float(long)) for short, long in sides)
    round_bed = Bed(float(wide), float(wide), True)
    if (disc := laid_on(lying, 5.0, round_bed)) is not None:
        held_apart(disc, lying, round_bed)
    bed = Bed(float(wide), float(high))
    room = laid_on(lying, 5.0, bed)
    packer = rectpack.newPacker(rotation=True, pack_algo=rectpack.MaxRectsBssf)
    packer.add_bin(wide + 5, high + 5)
    for short, long in sides:
        packer.add_rect(short + 5, long + 5)
    packer.pack()
    if len(packer) and len(packer[0]) == len(sides):
        assert room is not None
    if room is not None:
        held_apart(room, lying, bed)


LONG = carved(LOAF, 200, shape=RectangleShape(length_mm=90), layers=Layers(count=4))
ROOF = tier(
    210,
    layers=Layers(count=4),
    build=JoinedBuild(solids=(RaisedSolid(points_mm=((0, 0), (210, 0), (0, 150)), high_mm=110),)),
)


@pytest.mark.parametrize(
    ("one", "sides"),
    [(LONG, (225, 330)), (ROOF, (175, 240))],
    ids=["by the rectangles round them", "by their outlines"],
)
def test_narrow_layers_are_cut_from_one_sheet_side_by_side(one, sides):
    """A long loaf of four like layers out of a large sheet, which holds two of them; and three-cornered layers out of one
    that holds no more than one rectangle round them.
    """
    whole, baking = baked(one, Tin(shape="rectangle", across_mm=sides[0], length_mm=sides[1]))
    (tin,) = baking.tins.values()
    assert tin.layers == [1, 2, 3, 4]
    slices = list(whole.tiers[0].carving.slices.values())
    assert tin.beside and sum(len(one.layers) for one in tin.beside.values()) >= 2
    for one in tin.beside.values():
        sheet = box(0, 0, one.wide.value, one.high.value)
        lie = [shapely.unary_union([Polygon(ring) for ring in rings]) for rings in one.edges]
        assert all(sheet.buffer(0.1).covers(edge) for edge in lie)
        assert all(a.distance(b) > 4.9 for a, b in itertools.combinations(lie, 2))
        for number, edge in zip(one.layers, lie, strict=True):
            assert edge.area == pytest.approx(Polygon(slices[number - 1].whole[0]).area, rel=1e-3)
    used = 4 - sum(len(one.layers) - 1 for one in tin.beside.values())
    assert tin.bakes.value == math.ceil(used / tin.each.value)


def test_two_small_layers_are_cut_from_one_round_tin():
    """A bar of 130 x 50, twice, and 5 mm between: a rectangle of 130 x 105, whose corners lie 167 apart."""
    bar = carved(
        ((0, 0), (130, 0), (130, 58), (0, 58)),
        134,
        shape=RectangleShape(length_mm=54),
        rounded=0.0,
        layers=Layers(count=2),
    )
    for across, beside in ((160, 0), (180, 1)):
        _, baking = baked(bar, Tin(shape="round", across_mm=across))
        (tin,) = baking.tins.values()
        assert len(tin.beside) == beside
    (cut,) = tin.beside.values()
    assert cut.round and cut.wide.value == cut.high.value
    disc = Point(cut.wide.value / 2, cut.wide.value / 2).buffer(cut.wide.value / 2 + 0.1, 256)
    lie = [shapely.unary_union([Polygon(ring) for ring in rings]) for rings in cut.edges]
    assert all(disc.covers(edge) for edge in lie) and lie[0].distance(lie[1]) > 4.9


def test_more_bakes_than_are_allowed_are_said_and_as_few_as_can_be_are_taken():
    tins = [Tin(across_mm=across) for across in (203.2, 177.8)]
    one = carved(STONE, 200, layers=Layers(count=4))
    _, free = baked(one, *tins)
    build = one.build.model_copy(update={"most_bakes": 2})
    whole, bound = baked(one.model_copy(update={"build": build}), *tins)
    assert free.bakes.value > bound.bakes.value == 2 and free.batter.value < bound.batter.value
    assert "carve.bakes" not in [check.code for check in whole.checks]
    build = one.build.model_copy(update={"most_bakes": 1})
    whole, least = baked(one.model_copy(update={"build": build}), *tins)
    assert least.bakes.value == 2
    assert ["2 bakes" in check.text for check in whole.checks if check.code == "carve.bakes"] == [True]


def test_what_lies_beyond_a_tin_is_built_of_paste_to_the_volume_that_geometry_gives():
    """A drum of 200 out of a tin of 190, its skin of 2 trimmed off and half a millimetre forgiven: a ring of 200 less
    186.5, as high as its layers."""
    drum = JoinedBuild(solids=(ConeSolid(across_mm=200, top_mm=200, high_mm=90),), paste_mm=10)
    one = tier(200, build=drum, layers=Layers(count=3))
    whole, baking = baked(one, Tin(across_mm=190))
    cut_mm = whole.tiers[0].layers.cut_height.value
    ring_ml = math.pi / 4 * (200**2 - 186.5**2) * cut_mm / 1000
    assert [one.beyond.value for one in baking.built.values()] == pytest.approx([ring_ml] * 3, rel=0.03)
    assert baking.built_paste.value == pytest.approx(3 * ring_ml * 1.1, rel=0.03)
    # One part of coat to five of crumbs is a sixth of the paste.
    assert baking.built_coat.value == pytest.approx(baking.built_paste.value / 6)
    # What is built of paste is not cake: baked, less what stays of it, is carved off.
    piled_ml = 3 * math.pi / 4 * 190**2 * cut_mm / 1000
    left_ml = whole.tiers[0].layers.cake_volume.value - sum(one.beyond.value for one in baking.built.values())
    assert baking.offcut.value == pytest.approx((piled_ml - left_ml) * 0.5, rel=1e-6)
    assert baking.offcut_volume.value == pytest.approx(piled_ml - left_ml, rel=1e-6)
    assert "carve.paste_short" in [check.code for check in whole.checks]
    # Allowed less than that, it is not built of paste: a tin is to be got.
    _, other = baked(one.model_copy(update={"build": drum.model_copy(update={"paste_mm": 6})}), Tin(across_mm=190))
    assert not other.built and other.built_paste is None and [each.owned for each in other.tins.values()] == [False]


def test_the_oven_is_filled_as_often_as_a_shelf_and_the_tins_make_it():
    """Worked by hand: two tins of 150 lie side by side on a shelf 450 x 370 with an inch of air, one of 250 alone."""
    home, small, large = Oven(450, 370, 2, 2), (150.0, 150.0), (250.0, 250.0)
    assert oven_loads(((small, 4),), home) == 2
    assert oven_loads(((small, 4),), home._replace(of_each=4)) == 1
    assert oven_loads(((large, 3),), home) == 2
    assert oven_loads(((large, 2), (small, 2)), home._replace(shelves=3)) == 1
    # A round and a square tin of a size are two tins.
    assert oven_loads(((small, 2), (small, 2)), home) == 1
    assert oven_loads((((400.0, 400.0), 1),), home) is None
    one = carved(STONE, 260, layers=Layers(count=5))
    usual = {"oven_wide_mm": 300, "oven_deep_mm": 300, "oven_shelves": 1, "tins_of_each": 1}
    tight = planned(one, practice=Practice(**usual), kit=Kit(tins=(Tin(across_mm=240),)))
    assert tight.carved["tier_1"].loads is None
    assert "carve.oven" in [check.code for check in tight.checks]
    roomy = planned(one, practice=Practice(**usual | {"oven_wide_mm": 360, "oven_deep_mm": 360}))
    assert roomy.carved["tier_1"].loads.value == roomy.carved["tier_1"].bakes.value > 1
    assert "carve.oven" not in [check.code for check in roomy.checks]


sizes = st.tuples(st.integers(60, 350), st.integers(60, 320)).map(lambda one: tuple(map(float, one)))


@given(st.lists(st.tuples(sizes, st.integers(1, 5)), min_size=1, max_size=4), st.integers(1, 4), st.integers(1, 3))
def test_oven_loads_are_no_fewer_than_the_room_and_the_tins_allow(bakes, shelves, of_each):
    oven = Oven(450, 370, shelves, of_each)
    loads = oven_loads(tuple(bakes), oven)
    assert loads is not None
    area = sum(count * (across + 25) * (along + 25) for (across, along), count in bakes)
    least = max(math.ceil(count / of_each) for _, count in bakes)
    assert max(least, area / (425 * 345 * shelves)) <= loads + 1e-9
    assert loads <= sum(count for _, count in bakes)
    # Each load holds the largest that is left, so one more shelf or tin never asks for more where all are alike.
    if len(bakes) == 1:
        assert oven_loads(tuple(bakes), oven._replace(shelves=shelves + 1)) <= loads
        assert oven_loads(tuple(bakes), oven._replace(of_each=of_each + 1)) <= loads


@settings(max_examples=3)
@given(st.lists(st.integers(60, 250), min_size=12, max_size=12), st.randoms(use_true_random=False), st.booleans())
def test_seventy_five_tins_are_chosen_among_by_no_solver_with_a_clock_and_in_whatever_order(radii, order, bounded):
    """The same batter whichever tin is named first; and what is chosen depends on no machine's speed."""
    slices = tuple(Needed(half / 2, Lying(half * 0.8, half * 0.9), half) for half in radii)
    tins = [Tray("round" if at % 2 else "square", 80.0 + 3 * at, None, 1 + at % 3, True) for at in range(75)]
    work = Work(slices, 20.0, 5.0, 0.48, 2.0, most=6 if bounded else None)
    own = Tray("round", 330.0, None, 1, False)
    forget()
    first = choose(work, (*tins, own), lambda *_: 0.0)
    order.shuffle(tins)
    second = choose(work, (*tins, own), lambda *_: 0.0)
    assert batter_ml(work, first) == pytest.approx(batter_ml(work, second), abs=0.1)
    for chosen in (first, second):
        assert sorted(at for taken in chosen.values() for group in taken for at in group) == list(range(12))
