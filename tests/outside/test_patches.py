"""Patches against what is not ours: surfaces that lie flat by themselves, closed forms, and trimesh."""

import math

import numpy
import pytest
import trimesh
from pydantic import ValidationError
from shapely import Polygon

from amber_spread.core.design.finishes import PatchColour, PatchesCover, PatchSeam
from amber_spread.core.geometry.bodies import solids
from amber_spread.core.geometry.bodies.meshed import meshed
from amber_spread.core.geometry.bodies.open_surface import Surface
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.surface import open_surface_of
from amber_spread.core.geometry.flat.pieces import area_of
from amber_spread.core.geometry.sheets.parted import Level, Upright, Within
from amber_spread.core.geometry.sheets.patches import cut_up
from amber_spread.core.geometry.sheets.unrolled import unrolled
from tests.core.test_pairs import PLAIN
from tests.designs import MEDIA, planned, tier, worked

PI = math.pi


def sheet(wide, high, bent, steps=24):
    """A rectangle of triangles, bent by where each of its places goes."""
    x, y = (
        axis.ravel() for axis in numpy.meshgrid(numpy.linspace(0, wide, steps + 1), numpy.linspace(0, high, steps + 1))
    )
    at = numpy.arange((steps + 1) ** 2).reshape(steps + 1, steps + 1)
    a, b, c, d = (part.ravel() for part in (at[:-1, :-1], at[:-1, 1:], at[1:, 1:], at[1:, :-1]))
    triangles = numpy.vstack([numpy.column_stack([a, b, c]), numpy.column_stack([a, c, d])])
    return numpy.column_stack(bent(x, y)), triangles


def lengths(places, triangles):
    edges = numpy.vstack([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    return numpy.linalg.norm(places[edges[:, 0]] - places[edges[:, 1]], axis=1)


@pytest.mark.parametrize(
    "bent",
    [
        lambda x, y: (x, y, 0 * x),
        # Rolled up to a cylinder of radius 40, and round a cone of half-angle 30 degrees: both lie flat without a strain.
        lambda x, y: (40 * numpy.sin(x / 40), y, 40 - 40 * numpy.cos(x / 40)),
        lambda x, y: (
            (60 + y) / 2 * numpy.sin(x / 90),
            (60 + y) / 2 * numpy.cos(x / 90),
            (60 + y) * math.cos(PI / 6),
        ),
    ],
    ids=["flat", "rolled", "coned"],
)
def test_what_can_lie_flat_lies_flat(bent):
    corners, triangles = sheet(150, 90, bent)
    flat = unrolled(corners, triangles)
    assert flat.most < 0.004
    assert lengths(flat.places, triangles) == pytest.approx(lengths(corners, triangles), rel=0.01)
    assert flat.areas.sum() == pytest.approx(trimesh.Trimesh(corners, triangles, process=False).area, rel=1e-9)


def test_a_cap_of_a_ball_gives_as_much_as_it_must():
    """A cap laid flat: its rim is 2 pi R sin(a) long, its way up R a. By Gauss no way of laying it flat is without
    strain; and the least that could do is half of what both differ by (geometry)."""
    turn = 0.7
    cap = trimesh.creation.icosphere(subdivisions=5, radius=100)
    kept = cap.triangles_center[:, 2] > 100 * math.cos(turn)
    used, triangles = numpy.unique(cap.faces[kept], return_inverse=True)
    flat = unrolled(cap.vertices[used], triangles.reshape(-1, 3))
    differ = turn / math.sin(turn) - 1
    assert differ / 4 < flat.most < differ
    area = Polygon(
        flat.places[
            trimesh.Trimesh(cap.vertices[used], triangles.reshape(-1, 3), process=False).outline().entities[0].points
        ]
    ).area
    assert area == pytest.approx(2 * PI * 1e4 * (1 - math.cos(turn)), rel=0.02)


def cut(solid, thick=6, most=0.12, parts=None, turn_deg=0.0, own=()):
    return cut_up(open_surface_of(Sculpted(meshed(solid)).envelope(thick, thick)), most, parts, turn_deg, own)


def inner_lengths(found):
    return sorted(seam.length for seam in found.seams if seam.other is not None)


@pytest.mark.parametrize(("turn", "across"), [(0.0, 200), (90.0, 120)])
def test_a_seam_of_ones_own_runs_where_it_was_put(turn, across):
    """Up one side of a box with its edges rounded by the coat, over the top and down the other (Steiner)."""
    found = cut(solids.block(200, 120, 90), parts=0, most=0.5, own=[Upright(0.5, turn)])
    assert len(found.patches) == 2
    assert found.patches[0].area == pytest.approx(found.patches[1].area, rel=0.02)
    assert inner_lengths(found) == pytest.approx([2 * 90 + across + PI * 6], rel=0.01)
    # The same as a front and a back that are turned so.
    assert inner_lengths(cut(solids.block(200, 120, 90), parts=2, most=0.5, turn_deg=turn)) == pytest.approx(
        inner_lengths(found), rel=0.01
    )


def test_a_level_seam_and_an_upright_one_part_a_drum_in_four():
    found = cut(solids.frustum(200, 200, 110), parts=0, most=0.5, own=[Level(0.25), Upright(0.3, 30.0)])
    assert len(found.patches) == 4
    # The arcs on both sides of a chord that lies 0.2 of the width off the middle of the coated drum (geometry).
    arc = 2 * math.acos(2 * 0.2) * 106
    for length in (arc, 2 * PI * 106 - arc):
        assert any(own == pytest.approx(length, rel=0.02) for own in inner_lengths(found))


def test_a_seam_that_ends_at_another_parts_only_what_lies_on_its_side():
    """Half way round the back of a drum, and up that half from there: no seam runs over the front (geometry)."""
    ends = [Upright(0.5, 0.0), Level(0.4, Within(0, True)), Upright(0.5, 90.0, Within(1, False))]
    found = cut(solids.frustum(200, 200, 110), parts=0, most=0.5, own=ends)
    front, *back = sorted(found.patches, key=lambda patch: -patch.area)
    assert len(back) == 3
    assert sum(patch.area for patch in back) == pytest.approx(front.area, rel=0.02)
    # Half of the girth, from the foot up to there, and over the top from foot to foot.
    coat, high = 6, 110 + 6
    over = 2 * (high - coat) + 200 + PI * coat
    assert sum(inner_lengths(found)) == pytest.approx(PI * 106 + 0.4 * high + over, rel=0.02)
    assert max(seam.line[:, 1].min() for seam in found.seams if seam.other is not None) > -1
    # On the other side of the same seam it is the other half that is parted.
    mirrored = cut(solids.frustum(200, 200, 110), parts=0, most=0.5, own=[ends[0], Level(0.4, Within(0, False))])
    assert min(seam.line[:, 1].min() for seam in mirrored.seams if seam.other is not None) < -100


def test_a_seam_can_only_end_at_one_before_it():
    first = {"within": {"seam": 1, "side": "beyond"}}
    PatchesCover.model_validate({"own_seams": [{}, first]})
    with pytest.raises(ValidationError, match="should be none: it is the first"):
        PatchesCover.model_validate({"own_seams": [first]})
    with pytest.raises(ValidationError, match="should be one of those before it"):
        PatchesCover.model_validate({"own_seams": [{}, {"within": {"seam": 2}}]})


def test_a_seam_all_round_alone_leaves_a_piece_that_cannot_lie_flat_and_a_seam_through_it_can():
    drum = solids.frustum(200, 200, 110)
    assert math.isinf(cut(drum, parts=0, own=[Level(0.5)]).strain)
    assert cut(drum, parts=0, own=[Level(0.95), Upright(0.5, 0.0)]).strain < 0.2
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    asked = PatchesCover(parts=0, own_seams=(PatchSeam(run="level", at=0.5),))
    whole = planned(tier(240, build=box, cover=asked))
    assert not whole.tiers[0].cover.suits
    assert "cover.seams_missing" in [check.code for check in whole.checks]


def test_a_box_is_its_five_faces_and_a_cone_two_halves():
    box = cut(solids.block(200, 120, 90))
    areas = sorted(patch.area for patch in box.patches)
    # Five faces, to the middle of the rounded edges of the coat.
    assert len(areas) == 5
    assert areas[0] == pytest.approx(areas[1], rel=0.03) and areas[2] == pytest.approx(areas[3], rel=0.03)
    assert areas[4] > 200 * 120
    inner = [seam for seam in box.seams if seam.other is not None]
    assert len(inner) == 8
    assert sum(seam.length for seam in inner) == pytest.approx(2 * (200 + 120) + 4 * 90, rel=0.08)
    assert len(cut(solids.frustum(200, 0, 160)).patches) == 2


def test_a_number_of_sides_is_kept_to():
    for parts in (2, 4, 6, 8):
        found = cut(solids.frustum(200, 200, 110), parts=parts, most=0.3)
        assert len(found.patches) == (2 if parts == 2 else parts + 1)


@pytest.mark.parametrize("build", [one for one in PLAIN if one.carved], ids=lambda one: one.kind)
@pytest.mark.parametrize("parts", [None, 4])
def test_patches_cover_all_of_a_tier_and_meet_along_their_seams(build, parts):
    cover = PatchesCover(parts=parts)
    rooms = worked(tier(240, build=build, cover=cover))
    coated, plan = rooms.bodies.coated, rooms.cover
    middle = coated.envelope(rooms.tier.settled(cover, "thickness_mm").value / 2, 1.5)
    surface = open_surface_of(middle)
    true = trimesh.Trimesh(surface.corners, surface.triangles, process=False)
    found = cut_up(surface, cover.stretch, parts)
    assert sum(patch.area for patch in found.patches) == pytest.approx(true.area, rel=2e-3)
    for patch in found.patches:
        flat = Polygon(patch.edge)
        assert flat.is_valid
        assert flat.area == pytest.approx(patch.area, rel=2 * patch.strain + 0.02)
        # Every seam is as long on the piece as it is on the cake, within what the piece gives.
        for number, line in patch.seams.items():
            own = numpy.linalg.norm(numpy.diff(line, axis=0), axis=1).sum()
            assert own == pytest.approx(found.seams[number].length, rel=2 * patch.strain + 0.1, abs=2)
    inner = [number for number, seam in enumerate(found.seams) if seam.other is not None]
    assert all(sum(number in patch.seams for patch in found.patches) == 2 for number in inner)
    pieces = [piece for piece in plan.pieces.values() if piece.stuff == "sheet"]
    assert sum(area_of(piece.corners) for piece in pieces) == pytest.approx(true.area, rel=0.05)
    names = [mark.name for piece in pieces for mark in piece.marks if mark.name]
    assert all(names.count(name) == 2 for name in names)


def test_no_two_pieces_lie_on_each_other():
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    plan = planned(tier(240, build=box, cover=PatchesCover())).tiers[0].cover
    placed = []
    for one in plan.laid:
        ring = numpy.array([corner[:2] for corner in plan.pieces[one.piece].corners])
        high = plan.pieces[one.piece].size[1]
        if one.turned:
            ring = numpy.column_stack([high - ring[:, 1], ring[:, 0]])
        placed.append((one.mat, Polygon(ring + [one.x, one.y])))
    for index, (mat, polygon) in enumerate(placed):
        assert all(polygon.intersection(other).area < 1 for there, other in placed[:index] if there == mat)


def test_strips_hide_every_seam_and_are_rolled_weighed_and_counted_with_the_rest():
    """As long as the seams that are drawn, each as heavy as its length, width and thickness make it."""
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    bare, hidden = (
        planned(tier(240, build=box, cover=PatchesCover(thickness_mm=3.0, strip_mm=wide))).tiers[0].cover
        for wide in (None, 12.0)
    )
    strips = [piece for key, piece in hidden.pieces.items() if key.startswith("strip_")]
    assert not any(key.startswith("strip_") for key in bare.pieces)
    assert sum(strip.sizes["long"].value for strip in strips) == pytest.approx(hidden.seams.value)
    assert {(strip.sizes["wide"].value, strip.sizes["wide"].rounding) for strip in strips} == {(12.0, "up")}
    density = MEDIA[PatchesCover().medium].density_g_per_ml
    more = hidden.seams.value * 12.0 * 3.0 / 1000 * density
    assert hidden.stays.value - bare.stays.value == pytest.approx(more)
    assert sum(share.stays.value for share in hidden.colours.values()) == pytest.approx(hidden.stays.value)
    assert hidden.rolled_weight.value - bare.rolled_weight.value > more


def test_a_patch_of_its_own_colour_is_rolled_out_of_its_own_bowl_and_nothing_is_lost_between_them():
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    colours = (PatchColour(colour="blush"), PatchColour(), PatchColour(colour="ivory"))
    plain, mixed = (
        planned(tier(240, build=box, cover=PatchesCover(colour="pale", parts=4, strip_mm=10.0, patch_colours=own)))
        .tiers[0]
        .cover
        for own in ((), colours)
    )
    assert [mixed.pieces[f"patch_{number}"].colour for number in (1, 2, 3)] == ["blush", "pale", "ivory"]
    by_colour = {share.colour: share for share in mixed.colours.values()}
    assert set(by_colour) == {"blush", "pale", "ivory"}
    for what in ("stays", "rolled", "trimmed"):
        whole = sum(getattr(share, what).value for share in plain.colours.values())
        assert sum(getattr(share, what).value for share in by_colour.values()) == pytest.approx(whole)
    # As heavy as its area is of all that is cut, the strips among it.
    areas = {key: Polygon([corner[:2] for corner in piece.corners]).area for key, piece in mixed.pieces.items()}
    share = areas["patch_1"] / sum(areas.values())
    assert by_colour["blush"].stays.value == pytest.approx(share * mixed.stays.value, rel=1e-3)


def test_a_patch_of_another_medium_weighs_what_that_weighs():
    """What stays is the cover's volume shared out by area, each part times its own density."""
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    own = (PatchColour(medium="modelling_chocolate"), PatchColour(medium="fondant", colour=None))
    plain, mixed = (
        planned(tier(240, build=box, cover=PatchesCover(colour="pale", parts=4, patch_colours=patches)))
        for patches in ((), own)
    )
    before, after = plain.tiers[0].cover, mixed.tiers[0].cover
    shares = {(share.medium, share.colour): share for share in after.colours.values()}
    assert set(shares) == {("modelling_chocolate", None), ("fondant", None), ("fondant", "pale")}
    areas = {key: Polygon([corner[:2] for corner in piece.corners]).area for key, piece in after.pieces.items()}
    volume = before.over.volume.value * areas["patch_1"] / sum(areas.values())
    chocolate = shares["modelling_chocolate", None]
    assert chocolate.stays.value == pytest.approx(volume * MEDIA["modelling_chocolate"].density_g_per_ml, rel=1e-3)
    assert after.stays.value == pytest.approx(sum(share.stays.value for share in shares.values()))
    assert after.rolled_weight.value == pytest.approx(sum(share.rolled.value for share in shares.values()))
    assert after.over.volume.value == pytest.approx(before.over.volume.value)
    # Each out of a bowl of its own.
    assert {"modelling_chocolate", "fondant", "fondant~pale"} <= set(mixed.bowls)
    assert mixed.bowls["modelling_chocolate"].stays.value == pytest.approx(chocolate.stays.value)
    assert mixed.bowls["fondant~pale"].stays.value < plain.bowls["fondant~pale"].stays.value


def test_patches_that_are_all_of_one_colour_of_their_own_leave_the_covers_bowl_empty():
    box = PLAIN[[one.kind for one in PLAIN].index("joined")]
    asked = PatchesCover(colour="pale", parts=2, patch_colours=2 * (PatchColour(colour="blush"),))
    whole = planned(tier(240, build=box, cover=asked))
    assert [share.colour for share in whole.tiers[0].cover.colours.values()] == ["blush"]
    assert "fondant~blush" in whole.bowls and "fondant~pale" not in whole.bowls


def test_a_surface_in_two_is_two_patches():
    left, triangles = sheet(60, 60, lambda x, y: (x, y, 0 * x), 6)
    both = Surface(numpy.vstack([left, left + [100, 0, 0]]), numpy.vstack([triangles, triangles + len(left)]))
    assert len(cut_up(both, 0.1, 4).patches) == 2
