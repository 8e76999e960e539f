"""Carved tiers: what must hold of their slices, and that what took long is kept and handed on."""

import base64
import gc
import itertools
import math
import pickle
from concurrent.futures import ThreadPoolExecutor

import numpy
import pytest
import rectpack
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from shapely import MultiPolygon, Point, Polygon, box

from amber_spread.core.cake import seen_round
from amber_spread.core.cake.bakes import _batter_ml, _choose, _HalfBall, _Slice, _Tray, _Work
from amber_spread.core.cake.nested import Bed, Lying, laid_on
from amber_spread.core.design.builds import CarvedBuild, JoinedBuild, Opening, SectionAt
from amber_spread.core.design.design import Cavity, Design, Layers
from amber_spread.core.design.effort import bodies_of, carving_of
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, PatchesCover, SoftFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import OvalShape, RectangleShape, RoundShape, SquareShape
from amber_spread.core.design.solids import BallSolid, RaisedSolid
from amber_spread.core.document import carved_bodies
from amber_spread.core.geometry import bare
from amber_spread.core.geometry.distance import DistanceField, distances
from amber_spread.core.geometry.places import Within, edge_distance, inside_edge, keeps_in
from amber_spread.core.geometry.sculpted import sculpted
from amber_spread.core.geometry.sliced import Slice
from amber_spread.core.plan import forget, plan
from amber_spread.core.stock.kit import Kit, Tin
from amber_spread.core.stock.media import shelf
from amber_spread.core.tier import in_the_round
from amber_spread.papers.templates import templates_of
from tests.designs import document, planned, tier, worked

ROUND = RoundShape()
LOAF_AREA = 200 * 60 + (200 + 140) / 2 * 40
LOAF = ((0, 0), (200, 0), (200, 60), (170, 100), (30, 100), (0, 60))
MUSHROOM = ((84, 0), (116, 0), (114, 70), (200, 80), (150, 140), (50, 140), (0, 80), (86, 70))


def carved(points=LOAF, tin_mm=204, shape=ROUND, **parts):
    own = {name: parts.pop(name) for name in ("rounded", "flat_foot", "front_mm", "sections") if name in parts}
    return tier(tin_mm, shape=shape, build=CarvedBuild(points_mm=points, **own), **parts)


def codes(plan):
    return {check.code for check in plan.checks}


def test_a_view_that_is_the_whole_tin_carves_nothing_off():
    """A box-like body under a rectangle is the straight tier itself: every amount of its bare cake is the same."""
    box = ((0, 0), (200, 0), (200, 90), (0, 90))
    straight = tier(
        204, shape=SquareShape(), layers=Layers(count=3, height_mm=28), final=FreehandFinal(side_mm=6, top_mm=6)
    )
    plain = planned(straight).tiers[0]
    build = CarvedBuild(points_mm=box, rounded=0.0)
    whole, baking = baked(straight.model_copy(update={"build": build}), Tin(shape="square", across_mm=204))
    own = whole.tiers[0]
    assert own.layers.cake_volume.value + own.layers.filling.volume.value == pytest.approx(
        200 * 200 * own.layers.height.value / 1000, rel=2e-3
    )
    # Nothing comes off but the skin, at half a gram a millilitre.
    skin = (204**2 - 200**2) * 3 * own.layers.cut_height.value / 1000
    assert baking.offcut.value == pytest.approx(skin / 2, rel=0.02)
    # Five parts of crumbs to one of coat, by weight.
    assert baking.paste.value == pytest.approx(1.2 * baking.offcut.value)
    assert baking.paste_coat.value == pytest.approx(0.2 * baking.offcut.value)
    assert own.layers.height.value == pytest.approx(200 * 0.45, rel=1e-6)
    # Its coat is rounded over its edges, so it takes no more than one with sharp edges that high.
    sharp = plain.coats.final.volume.value * own.layers.height.value / plain.layers.height.value
    assert own.coats.final.volume.value < 1.1 * sharp


def test_a_waist_carries_what_lies_above_it():
    """Two blocks 200 wide on each other, joined by a neck 40 wide: all three 200 deep, so 8,000 mm² carry the upper."""
    waist = ((0, 0), (200, 0), (200, 60), (120, 60), (120, 80), (200, 80), (200, 140), (0, 140), (0, 80), (80, 80),
             (80, 60), (0, 60))  # fmt: skip
    plan = planned(carved(waist, shape=SquareShape(), rounded=0.0, flat_foot=False, layers=Layers(count=4)))
    (own,) = plan.tiers
    up = own.layers.height.value / 140
    found = own.carving.neck
    assert 60 * up - 4 <= found.up.value <= 65 * up
    assert found.area.value == pytest.approx(40 * 200 * (own.layers.cake_diameter.value / 200) ** 2, rel=0.03)
    share = (60 * 200 + 20 * 40) / (2 * 60 * 200 + 20 * 40)
    assert found.above.value == pytest.approx(share * own.stack.weight.value, rel=0.12)
    assert found.pressed.value == pytest.approx(found.above.value / found.area.value * 100)
    assert "carve.neck" in codes(plan)
    assert "carve.neck" not in codes(planned(carved()))
    # A board hidden above the neck bears the upper block.
    held = planned(carved(waist, shape=SquareShape(), rounded=0.0, flat_foot=False,
                          layers=Layers(count=4, board_after=2)))  # fmt: skip
    assert held.tiers[0].carving.neck.pressed.value < found.pressed.value


@pytest.mark.parametrize("shape", [RoundShape(), OvalShape(length_mm=150), RectangleShape(length_mm=260)])
@pytest.mark.parametrize("points", [LOAF, MUSHROOM])
def test_slices_fill_the_cake_and_lie_within_their_templates(shape, points):
    one = carved(points, shape=shape, layers=Layers(count=4), filling=SoftFilling())
    plan = planned(one).tiers[0]
    slices = list(plan.carving.slices.values())
    assert len(slices) == 4
    assert sum(each.volume.value for each in slices) == pytest.approx(plan.layers.cake_volume.value, rel=1e-6)
    for each in slices:
        templates = [Polygon([corner[:2] for corner in piece.corners]) for piece in each.pieces.values()]
        assert all(template.is_valid for template in templates)
        size = sum(template.area for template in templates)
        faces = [sum(Polygon(ring).area for ring in face) for face in (each.bottom, each.top)]
        assert size >= max(*faces, each.area.value) * 0.995
        assert each.volume.value * 1000 <= size * (each.high.value - each.low.value) * 1.005
        assert each.girth.value > 0 and each.hangs.value >= 0
    highs = [each.high.value for each in slices]
    assert highs == sorted(highs) and highs[-1] == pytest.approx(plan.layers.height.value)


def test_what_hangs_over_and_what_stands_on_little_is_said():
    assert "carve.hangs" not in codes(planned(carved(LOAF)))
    over = planned(carved(MUSHROOM, layers=Layers(count=4)))
    assert {"carve.hangs", "carve.foot"} <= codes(over)
    hanging = max(over.tiers[0].carving.slices.values(), key=lambda one: one.hangs.value)
    # The cap reaches out by 86 of the drawing's 200 mm beyond the stem, a layer at most by all of that.
    assert 20 < hanging.hangs.value <= 86.5


def test_rounding_takes_cake_off_and_never_adds_any():
    plans = [planned(carved(rounded=share)) for share in (0.0, 0.5, 1.0)]
    whole, half, full = (one.tiers[0].layers for one in plans)
    assert whole.cake_volume.value > half.cake_volume.value > full.cake_volume.value
    off = [one.carved["tier_1"].offcut.value for one in plans]
    assert off == sorted(off) and off[0] < off[2]
    below = planned(carved(rounded=1.0, flat_foot=False)).tiers[0].layers
    # Half an ellipse on its flat and a whole one half as high are of one area.
    both = [layers.cake_volume.value + layers.filling.volume.value for layers in (below, full)]
    assert both[0] == pytest.approx(both[1], rel=2e-3)


@settings(max_examples=6)
@given(st.floats(120, 400), st.floats(0, 1), st.booleans())
def test_a_larger_cake_of_the_same_view_is_larger_in_everything(tin, rounded, flat):
    small, large = (planned(carved(tin_mm=size, rounded=rounded, flat_foot=flat)).tiers[0] for size in (tin, tin * 1.2))
    assert large.layers.height.value > small.layers.height.value
    assert large.layers.cake_volume.value == pytest.approx(small.layers.cake_volume.value * 1.2**3, rel=0.12)
    assert large.coats.final.weight.value > small.coats.final.weight.value
    assert large.carving.surface.value > small.carving.surface.value


def test_what_took_long_is_kept_handed_on_and_not_done_again():
    order = document(carved(cover=DrapeCover()), title="Loaf")
    forget()
    (body,) = carved_bodies(order)
    distances(body)
    assert carved_bodies(order) == [body]
    sent = pickle.loads(pickle.dumps(body))
    assert sent.key == body.key and sent is not body
    assert distances(sent).away.tobytes() == distances(body).away.tobytes()
    bare.take_over([sent])
    (found,) = carved_bodies(order)
    assert found is sent and "distances" in found.kept
    # Another colour is the same body, another view is not.
    other = document(carved(cover=DrapeCover(colour="blush")), title="Loaf")
    assert carved_bodies(other) == [sent]
    moved = document(carved(((0, 0), (200, 0), (200, 61), *LOAF[3:])), title="Loaf")
    assert carved_bodies(moved)[0].key != sent.key


@pytest.mark.parametrize(
    ("points", "words"),
    [
        (((0, 0), (200, 100), (200, 0), (0, 100)), "crosses or touches itself"),
        (((0, 0), (200, 0), (200, 2)), "encloses next to nothing"),
        (((0, 0), (0, 100), (0.5, 100)), "encloses next to nothing"),
    ],
)
def test_a_view_that_is_none_is_refused_at_its_field(points, words):
    with pytest.raises(ValueError, match=words) as caught:
        planned(carved(points))
    assert caught.value.path == (0, "build")


def test_too_thick_a_coat_is_refused_with_what_would_be_taken():
    with pytest.raises(ValueError, match="28 mm, the most on a carved body"):
        planned(carved(final=FreehandFinal(side_mm=35, top_mm=35)))


def test_templates_hold_every_layer_and_the_view_with_a_common_axis():
    order = document(carved(layers=Layers(count=3)), title="Loaf")
    one = planned(*order.design.tiers)
    found = templates_of(order, one)
    names = [template.name for template in found]
    assert names[:5] == ["View from the side", "View from the front", "Layer 1", "Layer 2", "Layer 3"]
    for template in found[2:5]:
        assert {"axis", "front"} <= {mark.name for mark in template.marks}
        wide, long = template.size
        assert wide <= 200.01 and long <= 200.01


def test_the_middle_of_a_lopsided_body_lies_where_its_cake_is():
    wedge = worked(carved(((0, 0), (200, 0), (200, 120)), shape=RectangleShape(length_mm=150), rounded=0.0))
    # A wedge's middle lies two thirds of the way to its high end.
    assert wedge.centre.x == pytest.approx(200 * (2 / 3 - 0.5), rel=0.12)
    assert abs(wedge.centre.y) < 1


STONE = ((0, 0), (190, 0), (200, 25), (185, 62), (140, 92), (80, 100), (30, 80), (4, 40))


def baked(one, *tins):
    """The plan of a carved tier, and its baking out of these tins."""
    found = plan(Design(tiers=(one,)), Practice(), shelf(), Kit(tins=tins))
    return found, found.carved["tier_1"]


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


def test_in_the_round_each_layer_lies_in_its_tin_and_what_a_cover_gives_is_told():
    """The tin's rim holds all of the layer, and 95 parts in 100 of the cover give no more than its figure says."""
    tins = Tin(across_mm=304.8), Tin(shape="square", across_mm=254), Tin(shape="ball", across_mm=300, depth_mm=150)
    one = carved(STONE, 250, layers=Layers(count=3), cover=PatchesCover())
    whole, baking = baked(one, *tins)
    done = worked(one)
    view = seen_round(done, False, tins)
    assert sorted(tin.layer for tin in view.tins) == [1, 2, 3]
    slices = {each.number: each for each in whole.tiers[0].carving.slices.values()}
    for tin in view.tins:
        layer = slices[tin.layer]
        rim = Polygon([(x, y) for x, y, _ in tin.lines[0]])
        assert rim.buffer(1.0).contains(Polygon(layer.whole[0]))
        ups = {z for line in tin.lines for _, _, z in line}
        assert min(ups) <= layer.low.value + 1e-6 and max(ups) >= layer.high.value - 1e-6
    (painted,) = view.stretch
    triangles = len(base64.b64decode(painted.triangles)) // 6
    strains = base64.b64decode(painted.strains)
    assert len(strains) == triangles > 100
    gives = whole.tiers[0].cover.strain.value
    assert painted.most == 0.12
    corners = numpy.frombuffer(base64.b64decode(painted.corners), "<i2").reshape(-1, 3) * painted.step_mm
    mesh = trimesh.Trimesh(
        corners, numpy.frombuffer(base64.b64decode(painted.triangles), "<u2").reshape(-1, 3), process=False
    )
    more = mesh.area_faces[numpy.frombuffer(strains, "i1") / 127 * painted.most > gives + 0.001].sum()
    assert more <= 0.06 * mesh.area
    assert in_the_round(worked(carved(STONE, 250)), True).stretch == []


@given(st.lists(st.tuples(st.floats(-80, 80), st.floats(-80, 80), st.floats(15, 90)), min_size=5, max_size=5),
       st.floats(10, 90))  # fmt: skip
def test_the_half_ball_round_a_slice_holds_all_of_it_and_is_no_larger_than_about_any_other_middle(discs, high):
    faces = tuple(Point(x, y).buffer(radius) for x, y, radius in discs)
    radius = Slice(1, 0.0, high, faces, Polygon()).half_ball / 2
    places = [(x, y, high * at / 4) for at, face in enumerate(faces) for x, y in face.exterior.coords]

    def reach(middle, lifted):
        return max(math.dist((*middle, 0.0), (x, y, lifted(z))) for x, y, z in places)

    grid = [(20 * across, 20 * along) for across in range(-5, 6) for along in range(-5, 6)]
    other = min(reach(middle, way) for middle in grid for way in (lambda z: z, lambda z: high - z))
    assert radius <= other * (1 + 1e-9) or radius == pytest.approx(other, rel=0.01)
    widest = max(shapely.minimum_bounding_radius(face) for face in faces)
    assert radius >= widest - 1e-6


@settings(max_examples=25)
@given(
    st.lists(st.floats(20, 150), min_size=1, max_size=4),
    st.lists(
        st.tuples(st.floats(45, 160), st.integers(1, 3), st.sampled_from(["round", "square", "ball"])),
        min_size=1,
        max_size=3,
    ),
)
def test_no_other_choice_of_tins_takes_less_batter(radii, kinds):
    """Against every way to give layers to tins."""
    slices = tuple(_Slice(radius, Lying(1.6 * radius, 1.8 * radius), 1.1 * radius) for radius in radii)
    trays = [
        _HalfBall(shape, 2 * half, None, 1, True) if shape == "ball" else _Tray(shape, 2 * half, None, each, True)
        for half, each, shape in kinds
    ]
    trays.append(_Tray("round", 330.0, None, 1, False))
    work = _Work(slices, 30.0, 5.0, 0.48, 2.0)

    def cost(chosen):
        return _batter_ml(work, chosen) + sum(1e6 * len(taken) for one, taken in chosen.items() if not one.owned)

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

    least = math.inf
    for groups in partitions(list(range(len(slices)))):
        for places in itertools.product(range(len(trays)), repeat=len(groups)):
            if all(lies(trays[place], group) for place, group in zip(places, groups, strict=True)):
                chosen = {}
                for place, group in zip(places, groups, strict=True):
                    chosen.setdefault(trays[place], []).append(group)
                least = min(least, cost(chosen))
    found = _choose(work, tuple(trays))
    assert sorted(at for taken in found.values() for group in taken for at in group) == list(range(len(slices)))
    assert cost(found) <= least * (1 + 1e-6) + 0.02
    for one, taken in found.items():
        for group in taken:
            if len(group) == 1:
                assert one is trays[-1] or one.holds(slices[group[0]], 2.0)
            else:
                lying = tuple(slices[at].lying for at in group)
                held_apart(laid_on(lying, 5.0, one.bed(2.0)), lying, one.bed(2.0))


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


@given(st.lists(st.tuples(st.integers(10, 90), st.integers(10, 90)), min_size=2, max_size=4), st.integers(60, 160),
       st.integers(60, 160))  # fmt: skip
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
ROOF = tier(210, layers=Layers(count=4), build=JoinedBuild(
    solids=(RaisedSolid(points_mm=((0, 0), (210, 0), (0, 150)), high_mm=110),)
))  # fmt: skip


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


def test_a_dome_left_on_the_top_layer_takes_its_part_of_the_height_and_is_followed():
    """Layers, fillings and dome make up the height; what a paraboloid over the tin leaves of a drum is built up."""
    drum = ((0, 0), (200, 0), (200, 120), (0, 120))
    level, domed = (
        planned(carved(drum, 204, rounded=0.0, layers=Layers(count=3, dome_mm=dome))).tiers[0] for dome in (None, 16)
    )
    assert level.carving.dome is None
    layers = domed.layers
    whole = 3 * layers.cut_height.value + layers.filling.count.value * layers.filling.thickness.value + 16
    assert whole == pytest.approx(layers.height.value)
    assert layers.cut_height.value == pytest.approx(level.layers.cut_height.value - 16 / 3)
    *_, top = domed.carving.slices.values()
    assert top.high.value - top.low.value == pytest.approx(layers.cut_height.value + 16)
    # The drum is as wide as the tin but for its skin, 2 mm: from where the dome is narrower all round it is short.
    begins = 1 - (100 / 102) ** 2
    short = math.pi * 16 * (100**2 * (1 - begins) - 102**2 * (1 - begins) ** 2 / 2) / 1000
    assert domed.carving.dome.missing.value == pytest.approx(short, rel=0.03)
    assert any("stays on" in said.text for said in domed.carving.steps)
    # A body that lies within it is short of nothing.
    cone = ((0, 0), (200, 0), (100, 120))
    within = planned(carved(cone, 204, rounded=1.0, layers=Layers(count=3, dome_mm=16)))
    assert within.tiers[0].carving.dome.missing.value < 0.1
    assert "carve.dome_missing" not in codes(within) and "carve.dome_high" in codes(within)
    # What is not carved is levelled.
    plain = [planned(tier(layers=Layers(dome_mm=dome))).tiers[0].layers.height.value for dome in (None, 16)]
    assert plain[0] == plain[1]


def test_two_small_layers_are_cut_from_one_round_tin():
    """A bar of 130 x 50, twice, and 5 mm between: a rectangle of 130 x 105, whose corners lie 167 apart."""
    bar = carved(((0, 0), (130, 0), (130, 58), (0, 58)), 134, shape=RectangleShape(length_mm=54), rounded=0.0,
                 layers=Layers(count=2))  # fmt: skip
    for across, beside in ((160, 0), (180, 1)):
        _, baking = baked(bar, Tin(shape="round", across_mm=across))
        (tin,) = baking.tins.values()
        assert len(tin.beside) == beside
    (cut,) = tin.beside.values()
    assert cut.round and cut.wide.value == cut.high.value
    disc = Point(cut.wide.value / 2, cut.wide.value / 2).buffer(cut.wide.value / 2 + 0.1, 256)
    lie = [shapely.unary_union([Polygon(ring) for ring in rings]) for rings in cut.edges]
    assert all(disc.covers(edge) for edge in lie) and lie[0].distance(lie[1]) > 4.9


def test_a_view_from_the_front_gives_every_section_its_form_and_is_held_against_the_others():
    """A box from the side, under a triangle from the front, is a roof: half the box."""
    box_side, roof = ((0, 0), (200, 0), (200, 100), (0, 100)), ((0, 0), (80, 0), (40, 80))
    shape = RectangleShape(length_mm=104)
    whole, half = (planned(carved(box_side, shape=shape, rounded=0.0, front_mm=front)) for front in (None, roof))
    volumes = [
        one.tiers[0].layers.cake_volume.value + one.tiers[0].layers.filling.volume.value for one in (whole, half)
    ]
    assert volumes[1] == pytest.approx(volumes[0] / 2, rel=2e-3)
    assert half.tiers[0].carving.front_agrees.value == pytest.approx(100)
    assert "carve.views_differ" not in codes(half)
    longer = planned(carved(box_side, shape=RectangleShape(length_mm=150), front_mm=roof))
    assert "carve.views_differ" in codes(longer)
    with pytest.raises(ValueError, match="from the front crosses"):
        planned(carved(front_mm=((0, 0), (50, 50), (50, 0), (0, 50))))
    with pytest.raises(ValueError, match="hollow in its side or its top"):
        planned(carved(front_mm=((0, 0), (90, 0), (90, 60), (45, 20), (0, 60))))


def test_sections_along_a_tier_stand_apart_and_beyond_them_it_is_as_they_are():
    first, last = SectionAt(at=0.0, rounded=0.0), SectionAt(at=1.0, rounded=0.8)
    volumes = [
        planned(carved(LOAF, sections=sections)).tiers[0].carving.volume.value
        for sections in ((first,), (first, last), (last, first), (last,))
    ]
    assert volumes[0] > volumes[1] == volumes[2] > volumes[3]
    # One section alone is what all of it is rounded to.
    assert volumes[0] == pytest.approx(planned(carved(LOAF, rounded=0.0)).tiers[0].carving.volume.value)
    with pytest.raises(ValidationError, match="a place of its own") as found:
        CarvedBuild(points_mm=LOAF, sections=(SectionAt(at=0.5), SectionAt(at=0.2), SectionAt(at=0.505)))
    assert found.value.errors()[0]["ctx"]["path"] == ["sections", 2, "at"]


def test_a_roof_is_coated_over_both_its_slopes():
    """Against its own surface: two slopes, two gables, and the edges between them."""
    side, roof = ((0, 0), (200, 0), (200, 100), (0, 100)), ((0, 0), (80, 0), (40, 80))
    one = planned(carved(side, shape=RectangleShape(length_mm=104), front_mm=roof)).tiers[0].carving
    slopes = 2 * 200 * math.hypot(50, 100) + 2 * 100 * 100 / 2
    assert one.surface.value == pytest.approx(slopes, rel=0.02)
    # A step all along both sides: its ledges are coated like its walls.
    stepped = ((0, 0), (80, 0), (80, 40), (60, 40), (60, 80), (20, 80), (20, 40), (0, 40))
    one = planned(carved(side, shape=RectangleShape(length_mm=104), front_mm=stepped)).tiers[0].carving
    walls = 200 * (4 * 50 + 2 * 25 + 50) + 2 * (100 * 50 + 50 * 50)
    assert one.surface.value == pytest.approx(walls, rel=0.02)


def test_bodies_are_looked_at_and_sent_by_many_threads_at_once():
    order = document(carved(LOAF, 211), title="Loaf")
    planned(*order.design.tiers)

    def look(number):
        for step in range(20):
            (body,) = carved_bodies(document(carved(LOAF, 211 + (number + step) % 3), title="Loaf"))
            assert pickle.loads(pickle.dumps(body)).key == body.key
            if step % 5 == 0:
                bare.take_over([body])
        return True

    with ThreadPoolExecutor(8) as pool:
        assert all(pool.map(look, range(8)))


def test_no_more_bodies_and_coats_are_kept_than_so_many():
    (body,) = carved_bodies(document(carved(LOAF, 190), title="Loaf"))
    for step in range(bare.MOST_OF_A_NAME + 5):
        sculpted(body, step * 0.5, step * 0.5)
    assert len(body.kept["envelopes"]) == bare.MOST_OF_A_NAME
    assert sculpted(body, 8.0, 8.0) is sculpted(body, 8.0, 8.0)
    for step in range(bare.MOST_KEPT + 3):
        carved_bodies(document(carved(LOAF, 100 + step), title="Loaf"))
    assert len(bare._BODIES) == bare.MOST_KEPT


def test_a_cake_on_two_feet_tips_about_the_outer_edges_of_both_and_is_held_within_both():
    arch = ((0, 0), (60, 0), (60, 60), (140, 60), (140, 0), (200, 0), (200, 100), (0, 100))
    one = worked(carved(arch, shape=RectangleShape(length_mm=124), rounded=0.0))
    foot = one.bodies.bare.section(5.0)
    assert foot.area_mm2 == pytest.approx(2 * 60 * 120, rel=1e-3)
    assert edge_distance(foot, (0.0, 0.0)) == pytest.approx(60, abs=0.1)
    assert edge_distance(foot, (90.0, 0.0)) == pytest.approx(10, abs=0.1)
    assert keeps_in(Within("foot", foot), 5.0, [(-70.0, 0.0), (70.0, 0.0)])
    assert not keeps_in(Within("foot", foot), 5.0, [(0.0, 0.0)])
    assert inside_edge(foot, [(-70.0, 0.0), (70.0, 10.0)]) == pytest.approx(30, abs=0.1)


def lines_of(piece, name):
    """The lines of one name on a template; those that follow belong to it until another name comes."""
    found, at = [], ""
    for mark in piece.marks:
        at = mark.name or at
        if at == name:
            found.append(((mark.x0, mark.y0), (mark.x1, mark.y1)))
    return found


@pytest.mark.parametrize(("run", "axis"), [("level", 1), ("upright", 0)])
def test_scored_lines_lie_as_far_apart_as_is_asked_on_both_boards_and_keep_within_them(run, axis):
    plain = carved(LOAF, 204, shape=SquareShape())
    scored = plain.model_copy(update={"build": plain.build.model_copy(update={"scored_mm": 15.0, "scored_run": run})})
    carving = planned(scored).tiers[0].carving
    for board in (carving.view, carving.front):
        lines = lines_of(board, "scored")
        assert len(lines) >= 4
        at = sorted({round(line[0][axis], 6) for line in lines})
        assert all(line[0][axis] == pytest.approx(line[1][axis]) for line in lines)
        assert numpy.diff(at) == pytest.approx(numpy.full(len(at) - 1, 15.0))
        edge = Polygon([(x, y) for x, y, _ in board.corners]).buffer(0.01)
        assert all(edge.covers(shapely.LineString(line)) for line in lines)
    assert len(carving.scored) == len(lines_of(carving.view, "scored"))
    assert any("Score the lines" in step.text for step in carving.steps)
    bare_one = planned(plain).tiers[0].carving
    assert bare_one.scored == [] and not any("Score" in step.text for step in bare_one.steps)
    # Lines are no other body: nothing is carved anew for them.
    assert bodies_of(Design(tiers=(plain,)), Practice()) == bodies_of(Design(tiers=(scored,)), Practice())
    # Nor does what is cut out of it.
    opening = Opening(solid=BallSolid())
    opened = plain.model_copy(update={"build": plain.build.model_copy(update={"openings": (opening,)})})
    assert bodies_of(Design(tiers=(plain,)), Practice()) == bodies_of(Design(tiers=(opened,)), Practice())
    assert carving_of(Design(tiers=(plain,)), Practice()) != carving_of(Design(tiers=(opened,)), Practice())


def test_the_board_of_the_front_is_as_long_as_the_cake_and_as_high():
    """Of a turned body the views from the side and from the front are the same; of a box its own two faces."""
    turned = planned(carved(LOAF, 204, rounded=0.0)).tiers[0].carving
    areas = [Polygon([(x, y) for x, y, _ in board.corners]).area for board in (turned.view, turned.front)]
    assert turned.front.size[1] == pytest.approx(turned.view.size[1], abs=0.1)
    assert areas[0] == pytest.approx(LOAF_AREA * (200 / 200) ** 2, rel=0.01)
    box_of = planned(carved(((0, 0), (200, 0), (200, 80), (0, 80)), 204, shape=RectangleShape(length_mm=124),
                            rounded=0.0)).tiers[0].carving  # fmt: skip
    wide, high = box_of.front.size
    assert wide == pytest.approx(120, abs=0.5) and high == pytest.approx(box_of.view.size[1], abs=0.05)


def test_layers_that_are_alike_are_cut_two_at_a_time_and_a_room_inside_is_minded():
    box_like = carved(((0, 0), (200, 0), (200, 120), (0, 120)), 204, rounded=0.0, layers=Layers(count=4))
    steps = planned(box_like).tiers[0].carving.steps
    pairs = [step.text for step in steps if "are alike" in step.text]
    assert [text[:15] for text in pairs] == ["Layers 1 and 2 ", "Layers 3 and 4 "]
    assert any(step.caution and "knife" in step.text for step in steps)
    mushroom = planned(carved(MUSHROOM, 250, layers=Layers(count=5))).tiers[0].carving.steps
    assert not any("are alike" in step.text and "Layers 2 and 3" in step.text for step in mushroom)
    roomy = carved(((0, 0), (200, 0), (200, 120), (0, 120)), 204, rounded=0.0,
                   layers=Layers(count=4, cavity=Cavity(diameter_mm=80)))  # fmt: skip
    done = planned(roomy).tiers[0]
    (minded,) = [step for step in done.carving.steps if "room inside" in step.text]
    assert minded.values["wall"].value == pytest.approx(done.layers.cavity.wall.value)


def test_what_is_worked_out_of_a_body_goes_with_it_however_many_plans_hold_it(monkeypatch):
    def fields():
        gc.collect()
        return [one for one in gc.get_objects() if isinstance(one, DistanceField)]

    forget()
    bare.forget_bodies()
    before = fields()
    monkeypatch.setattr(bare._BODIES, "most", 2)
    first, *_ = (planned(carved(STONE, wide, layers=Layers(count=2))) for wide in (150, 160, 170, 180))
    assert len(fields()) - len(before) <= 2
    assert planned(carved(STONE, 150, layers=Layers(count=2))) == first
