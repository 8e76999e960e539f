"""Carved tiers: what must hold of their slices, and that what took long is kept and handed on."""

import base64
import gc
import math
import pickle
from concurrent.futures import ThreadPoolExecutor

import numpy
import pytest
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from shapely import Point, Polygon

from amber_spread.core.cake import seen_round
from amber_spread.core.design.builds import CarvedBuild, Opening, SectionAt
from amber_spread.core.design.design import Cavity, Design, Layers
from amber_spread.core.design.effort import bodies_of, carving_of
from amber_spread.core.design.finishes import DrapeCover, FreehandFinal, PatchesCover, PlainFilling, SoftFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import OvalShape, RectangleShape, RoundShape, SquareShape
from amber_spread.core.design.solids import BallSolid
from amber_spread.core.document import carved_bodies
from amber_spread.core.geometry.bodies import bare
from amber_spread.core.geometry.bodies.distance import DistanceField, distances
from amber_spread.core.geometry.bodies.sculpted import sculpted
from amber_spread.core.geometry.bodies.sliced import Slice
from amber_spread.core.geometry.flat.places import Within, edge_distance, inside_edge, keeps_in
from amber_spread.core.kernel.caching import forget
from amber_spread.core.stock.kit import Tin
from amber_spread.core.tier import in_the_round
from amber_spread.papers.templates import templates_of
from tests.designs import LOAF, STONE, alike, baked, carved, document, planned, tier, worked

LOAF_AREA = 200 * 60 + (200 + 140) / 2 * 40
MUSHROOM = ((84, 0), (116, 0), (114, 70), (200, 80), (150, 140), (50, 140), (0, 80), (86, 70))


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
    held = planned(
        carved(waist, shape=SquareShape(), rounded=0.0, flat_foot=False, layers=Layers(count=4, board_after=2))
    )
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


@given(
    st.lists(st.tuples(st.floats(-80, 80), st.floats(-80, 80), st.floats(15, 90)), min_size=5, max_size=5),
    st.floats(10, 90),
)
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
    assert any("stays on" in said.text for said in domed.carving.tasks)
    # A body that lies within it is short of nothing.
    cone = ((0, 0), (200, 0), (100, 120))
    within = planned(carved(cone, 204, rounded=1.0, layers=Layers(count=3, dome_mm=16)))
    assert within.tiers[0].carving.dome.missing.value < 0.1
    assert "carve.dome_missing" not in codes(within) and "carve.dome_high" in codes(within)
    # What is not carved is levelled.
    plain = [planned(tier(layers=Layers(dome_mm=dome))).tiers[0].layers.height.value for dome in (None, 16)]
    assert plain[0] == plain[1]


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
    assert any("Score the lines" in step.text for step in carving.tasks)
    bare_one = planned(plain).tiers[0].carving
    assert bare_one.scored == [] and not any("Score" in step.text for step in bare_one.tasks)
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
    box_of = (
        planned(carved(((0, 0), (200, 0), (200, 80), (0, 80)), 204, shape=RectangleShape(length_mm=124), rounded=0.0))
        .tiers[0]
        .carving
    )
    wide, high = box_of.front.size
    assert wide == pytest.approx(120, abs=0.5) and high == pytest.approx(box_of.view.size[1], abs=0.05)


def test_layers_that_are_alike_are_cut_two_at_a_time_and_a_room_inside_is_minded():
    box_like = carved(((0, 0), (200, 0), (200, 120), (0, 120)), 204, rounded=0.0, layers=Layers(count=4))
    steps = planned(box_like).tiers[0].carving.tasks
    pairs = [step.text for step in steps if "are alike" in step.text]
    assert [text[:15] for text in pairs] == ["Layers 1 and 2 ", "Layers 3 and 4 "]
    assert any(step.caution and "knife" in step.text for step in steps)
    mushroom = planned(carved(MUSHROOM, 250, layers=Layers(count=5))).tiers[0].carving.tasks
    assert not any("are alike" in step.text and "Layers 2 and 3" in step.text for step in mushroom)
    roomy = carved(
        ((0, 0), (200, 0), (200, 120), (0, 120)),
        204,
        rounded=0.0,
        layers=Layers(count=4, cavity=Cavity(diameter_mm=80)),
    )
    done = planned(roomy).tiers[0]
    (minded,) = [step for step in done.carving.tasks if "room inside" in step.text]
    assert minded.values["wall"].value == pytest.approx(done.layers.cavity.wall.value)


def test_what_is_worked_out_of_a_body_goes_with_it_however_many_plans_hold_it(monkeypatch):
    def fields():
        gc.collect()
        return [one for one in gc.get_objects() if isinstance(one, DistanceField)]

    forget()
    before = fields()
    monkeypatch.setattr(bare._BODIES, "most", 2)
    first, *_ = (planned(carved(STONE, wide, layers=Layers(count=2))) for wide in (150, 160, 170, 180))
    assert len(fields()) - len(before) <= 2
    assert alike(planned(carved(STONE, 150, layers=Layers(count=2))), first)


@pytest.mark.parametrize("filling", [PlainFilling(), SoftFilling()])
@pytest.mark.parametrize("cavity", [None, Cavity(diameter_mm=60)])
def test_the_cake_and_the_filling_of_every_layer_come_to_those_of_the_tier(filling, cavity):
    one = planned(carved(STONE, 240, layers=Layers(count=5, cavity=cavity), filling=filling)).tiers[0]
    slices = one.carving.slices.values()
    assert sum(each.volume.value for each in slices) == pytest.approx(one.layers.cake_volume.value)
    parts = one.layers.filling.volume, one.layers.filling.dam_volume, one.layers.filling.seal_volume
    between = sum(part.value for part in parts if part is not None)
    assert sum(each.filled.value for each in slices if each.filled) == pytest.approx(between, rel=0.02)


def test_a_hidden_room_is_on_the_template_of_every_layer_it_goes_through_and_in_the_round():
    room = Cavity(diameter_mm=60)
    one = carved(STONE, 240, layers=Layers(count=5, cavity=room))
    carving = planned(one).tiers[0].carving
    through = {number for number, each in enumerate(carving.slices.values(), 1) if "room" in each.cut_out}
    first, last = room.layers(5)
    assert through == set(range(first, last + 1))
    for each in carving.slices.values():
        names = {mark.name for piece in each.pieces.values() for mark in piece.marks}
        assert ("hidden room" in names) == (each.number in through)
        for ring in each.cut_out.values():
            assert Polygon(ring.whole[0]).area == pytest.approx(math.pi / 4 * 60**2, rel=0.01)
    # No cake is drawn where the room is.
    for part in in_the_round(worked(one), False).parts:
        if part.matter == "cake" and part.number in through:
            corners = numpy.frombuffer(base64.b64decode(part.corners), "<i2").reshape(-1, 3) * part.step_mm
            assert numpy.hypot(corners[:, 0], corners[:, 1]).min() > 29
