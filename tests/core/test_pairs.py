"""All pairs: every kind met with every other, held to what is true of any cake, whatever the code says.

What stays is no more than what is rolled or mixed; every sheet reaches the hem and every piece covers its face;
weights, heights and colours add up; outlines nest; what is said to suit fits. The sections of a body are the only thing
asked of it here: areas, volumes and ways down are worked out from them anew.
"""

import math
from functools import lru_cache
from itertools import pairwise

import numpy
import pytest
from shapely import LineString, Polygon, box, get_coordinates, get_parts, make_valid
from shapely.ops import unary_union

from amber_spread.core.design.builds import Opening
from amber_spread.core.design.design import Cavity, Design, Layers, Tier
from amber_spread.core.design.finishes import (
    CollarCover,
    Measured,
    NoCover,
    PatchColour,
    PatchesCover,
    PatchSeam,
    PipedRegion,
    PrintedCover,
    SeamSide,
    Stripe,
    Syrup,
)
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import RoundShape
from amber_spread.core.design.solids import BallSolid, BoxSolid
from amber_spread.core.geometry.flat import pieces as flat
from amber_spread.core.plan import plan
from amber_spread.core.stock.kit import Kit, Tin
from tests import kinds
from tests.designs import COLOURS, MEDIA, worked

PRACTICE = Practice()
SHAPES = [one for kind in kinds.SHAPES for one in [kinds.example(kind)]]
BUILDS = [one for kind in kinds.BUILDS for one in kinds.variants(kind)]
FILLINGS = [kinds.example(kind) for kind in kinds.FILLINGS]
FINALS = [one for kind in kinds.FINALS for one in kinds.variants(kind)]
STRIPES = (Stripe(colour="ivory", share=2), Stripe(colour="blush"))
COVERS = [one for kind in kinds.COVERS for one in kinds.variants(kind)]
COVERS += [one.model_copy(update={"stripes": STRIPES}) for one in COVERS if one.kind == "panel"]
PLAIN = [kinds.example(kind) for kind in kinds.BUILDS]
WHOLE = [
    kinds.example(kind, **({"top": "over"} if "top" in kind.model_fields and kind.__name__ == "PanelCover" else {}))
    for kind in kinds.COVERS
]
BITES = (
    Opening(solid=BallSolid(across_mm=70, x_mm=60, z_mm=20), medium="meringue_buttercream", colour="blush"),
    Opening(solid=BoxSolid(wide_mm=40, deep_mm=300, high_mm=30, x_mm=40, z_mm=40), medium="dark_ganache"),
    Opening(solid=BallSolid(across_mm=30, z_mm=12), medium=None),
)
OPENED = [kinds.example(kind, openings=BITES, most_bakes=2, paste_mm=25) for kind in kinds.BUILDS if kind.carved]
SEAMED = PatchesCover(
    parts=0,
    own_seams=(PatchSeam(), PatchSeam(turn_deg=90.0, at=0.4, within=SeamSide())),
    strip_mm=10.0,
    colour="pale",
    patch_colours=(PatchColour(medium="modelling_chocolate"), PatchColour(colour="blush")),
)
REGIONS = [
    {"regions": (PipedRegion(high=0.3, colour="blush"), PipedRegion(low=0.6, high=1.0, relief_mm=8))},
    {
        "regions": (
            PipedRegion(high=0.5, colour="blush", round_deg=130, turn_deg=60),
            PipedRegion(low=0.4, high=1.0, relief_mm=8, round_deg=200, turn_deg=-150),
        )
    },
]
TINS = Kit(tins=(Tin(across_mm=200), Tin(shape="square", across_mm=180), Tin(across_mm=150)))
INSIDES = [
    {"layers": Layers(count=4, height_mm=24, cavity=Cavity(diameter_mm=60))},
    {"layers": Layers(count=4, height_mm=24, cavity=Cavity(diameter_mm=70, first=1, last=2, filled_with="sweets"))},
    {"layers": Layers(count=4, height_mm=24, syrup=Syrup())},
    {"layers": Layers(count=4, height_mm=24, board_after=2)},
]
MEASURED = [
    {"measured": Measured(heights_mm=(118, 112, 110, 115), top_mm=(150, 148), foot_mm=(205, 203))},
    {"measured": Measured(heights_mm=(92, 90, 90, 91), top_mm=(140, 141), foot_mm=(190, 196))},
]


def tiers():
    """Every pair of a shape, a build, a filling, a final coat, a cover and what lies inside, as a tier."""

    def of(**parts):
        return Tier(tin_diameter_mm=204, **parts)

    def may(shape, build):
        return isinstance(shape, RoundShape) or not build.round_only

    pairs = [(shape, build) for shape in SHAPES for build in BUILDS if may(shape, build)]
    yield from (of(shape=shape, build=build) for shape, build in pairs)
    yield from (of(build=build, cover=cover) for build in BUILDS for cover in COVERS)
    slanted = [(shape, build) for shape, build in pairs if build.kind in ("tapered", "bevelled") and build in PLAIN]
    yield from (of(shape=shape, build=build, cover=cover) for shape, build in slanted for cover in WHOLE)
    yield from (of(shape=shape, cover=cover) for shape in SHAPES for cover in COVERS)
    yield from (of(final=final, cover=cover) for final in FINALS for cover in COVERS)
    yield from (of(shape=shape, final=final) for shape in SHAPES for final in FINALS)
    yield from (of(build=build, final=final) for build in BUILDS for final in FINALS)
    yield from (of(build=build, filling=filling) for build in BUILDS for filling in FILLINGS)
    yield from (of(shape=shape, filling=filling) for shape in SHAPES for filling in FILLINGS)
    yield from (of(final=final, filling=filling) for final in FINALS for filling in FILLINGS)
    yield from (of(build=build, filling=filling, cover=SEAMED) for build in OPENED for filling in FILLINGS)
    for inside in INSIDES:
        yield from (of(build=build, **inside) for build in [*BUILDS, *OPENED])
        yield from (of(shape=shape, filling=filling, **inside) for shape in SHAPES for filling in FILLINGS)
    for piped in REGIONS:
        yield from (of(build=build, **piped) for build in BUILDS if not build.on_side)
        yield from (of(shape=shape, cover=cover, **piped) for shape in SHAPES for cover in WHOLE[:2])
    for measured in MEASURED:
        yield from (of(build=build, **measured) for build in BUILDS)
        yield from (of(cover=cover, **measured) for cover in COVERS)
        yield from (of(final=final, **measured) for final in FINALS)


def name_of(tier):
    inside = "".join(
        f" {word}" for word, there in (
            ("room", tier.layers.cavity), ("syrup", tier.layers.syrup), ("board", tier.layers.board_after),
            ("measured", tier.measured), ("piped", tier.regions)) if there
    )  # fmt: skip
    more = " ".join(str(value) for name, value in tier.cover if name in ("top", "corners", "run") and value)
    striped = " striped" if getattr(tier.cover, "stripes", ()) else ""
    kinds = (tier.shape, tier.build, tier.filling, tier.final, tier.cover)
    return " ".join(one.kind for one in kinds) + f" {more}{striped}{inside}"


_TURNS = numpy.linspace(0, 2 * math.pi, 241)[:-1]
CIRCLE = numpy.column_stack([numpy.cos(_TURNS), numpy.sin(_TURNS)])
GRID = list(dict.fromkeys(tiers()))


@lru_cache(maxsize=1)
def done(tier):
    """The tier's plan on its own, its rooms, and what stands in the cake as a whole."""
    kit = TINS if getattr(tier.build, "paste_mm", None) else None
    whole = plan(Design(tiers=(tier,), colours=COLOURS), PRACTICE, MEDIA, kit)
    return whole, whole.tiers[0], worked(tier, PRACTICE)


def test_the_grid_holds_every_kind_and_is_large():
    assert len(GRID) > 600
    for field, all_kinds in (("shape", kinds.SHAPES), ("build", kinds.BUILDS), ("filling", kinds.FILLINGS),
                             ("final", kinds.FINALS), ("cover", kinds.COVERS)):  # fmt: skip
        assert {type(getattr(tier, field)) for tier in GRID} == set(all_kinds)


HELD = []


def holds(check):
    """Hold every tier of the grid to something."""
    HELD.append(check)
    return check


def test_every_tier_of_the_grid_holds_to_all_of_it():
    """In one test, so that the grid is planned once: what is not so is told with the tier."""
    wrong = []
    for tier in GRID:
        for check in HELD:
            try:
                check(tier, *done(tier))
            except AssertionError as error:
                said = str(error).splitlines()[0] if str(error) else "not so"
                wrong.append(f"{check.__name__}, {name_of(tier)}: {said}")
    assert len(HELD) > 10
    assert not wrong, f"{len(wrong)} of {len(GRID)}:\n" + "\n".join(wrong[:25])


@holds
def what_stays_is_no_more_than_what_is_rolled_or_mixed(tier, whole, one, rooms):
    for bowl in whole.bowls.values():
        kept = sum(use.stays.value + use.lost.value for use in bowl.steps.values())
        assert bowl.stays.value + bowl.lost.value == pytest.approx(kept)
        assert bowl.mix.value >= bowl.need.value - 1e-6 >= kept - 1e-3
        assert bowl.risk.value <= PRACTICE.run_out_risk + 1e-9
    cover = one.cover
    if cover is not None and cover.rolled_weight is not None:
        assert cover.rolled_weight.value >= cover.stays.value - 1e-6
        for share in cover.colours.values():
            assert share.rolled.value >= share.stays.value - 1e-6
        for total, name in ((cover.rolled_weight, "rolled"), (cover.stays, "stays"), (cover.trimmed_weight, "trimmed")):
            shares = sum(getattr(share, name).value for share in cover.colours.values())
            assert shares == pytest.approx(total.value, rel=1e-6)


@holds
def weights_add_up_to_what_the_rooms_hold(tier, whole, one, rooms):
    stays = sum(bowl.stays.value for bowl in whole.bowls.values())
    sliced = one.foot.slice_weight.value if one.foot else 0.0
    hidden = one.layers.cavity.fill_weight.value if one.layers.cavity and one.layers.cavity.fill_weight else 0.0
    cut_out = sum(of.cake.value + of.filling.value for of in (one.carving.openings if one.carving else {}).values())
    boards = whole.stack.weight.given["boards"].value
    own = stays + one.layers.cake_weight.value + hidden - sliced - cut_out + boards
    assert whole.stack.weight.value == pytest.approx(own)


@holds
def what_is_piped_over_a_region_is_its_wall_times_its_relief_or_more(tier, whole, one, rooms):
    """The wall by its slices from outside: girth times the way straight up is the least it can be, edges go round."""
    outside = sections_of(rooms.bodies.covered) if tier.regions else []
    foot = rooms.bodies.covered.foot_mm
    for asked, region in zip(tier.regions, one.regions.values(), strict=True):
        low, high = foot + region.low.value, foot + region.high.value
        ups = numpy.linspace(low, high, 60)
        side = wedge(asked.round_deg, asked.turn_deg)
        lengths = [section.boundary.intersection(side).length for _, section in outside]
        girths = numpy.interp(ups, [up for up, _ in outside], lengths)
        least_ml = numpy.trapezoid(girths, ups) * region.relief.value / 1000
        assert region.volume.value >= 0.97 * least_ml
        assert region.on_top == (asked.high == 1)
        (used,) = [use for use in rooms.uses if use.step == "region" and use.colour == asked.colour]
        assert used.stays.value == pytest.approx(region.weight.value)


@holds
def what_comes_out_of_an_opening_was_in_the_cake(tier, whole, one, rooms):
    openings = (one.carving.openings if one.carving else {}).values()
    filling = one.layers.filling
    fillings = [part.value for part in (filling.weight, filling.dam_weight, filling.seal_weight) if part]
    assert sum(of.cake.value for of in openings) <= one.layers.cake_weight.value + 1e-6
    assert sum(of.filling.value for of in openings) <= sum(fillings) + 1e-6
    for of in openings:
        if of.medium is None:
            assert of.weight is None
            continue
        density = MEDIA[of.medium].density_g_per_ml
        assert of.weight.value == pytest.approx(of.volume.value * density)
        used = [
            use for use in rooms.uses if use.step == "refill" and (use.medium, use.colour) == (of.medium, of.colour)
        ]
        assert len(used) == (of.weight.value > 0)


@holds
def what_is_cut_out_of_a_layer_lies_within_it_and_apart(tier, whole, one, rooms):
    for layer in (one.carving.slices if one.carving else {}).values():
        own = unary_union([make_valid(Polygon(ring)) for ring in layer.whole]).buffer(0.5)
        for face in ("bottom", "top"):
            cut = [
                make_valid(Polygon(ring))
                for out in layer.cut_out.values()
                for ring in getattr(out, face)
                if len(ring) > 2
            ]
            assert sum(area.area for area in cut) <= own.area + 1
            assert all(area.difference(own).area < 1 for area in cut)
            assert sum(area.area for area in cut) <= 1.001 * unary_union(cut).area + 2
    if one.carving and not tier.measured:
        told = sum(layer.volume.value for layer in one.carving.slices.values())
        assert told == pytest.approx(one.layers.cake_volume.value, rel=1e-6)


@holds
def every_layer_has_a_tin_and_what_that_leaves_out_is_built_of_less_than_the_layer(tier, whole, one, rooms):
    for baked in whole.carved.values():
        assert sorted(number for tin in baked.tins.values() for number in tin.layers) == [
            layer.number for layer in one.carving.slices.values()
        ]
        bakes = sum(tin.bakes.value for tin in baked.tins.values())
        assert bakes == baked.bakes.value
        over = tier.build.most_bakes is not None and bakes > tier.build.most_bakes
        assert over == ("carve.bakes" in [check.code for check in whole.checks])
        for name, built in baked.built.items():
            layer = one.carving.slices[name]
            tin = next(tin for tin in baked.tins.values() if layer.number in tin.layers)
            left = unary_union([make_valid(Polygon(ring)) for ring in layer.whole])
            assert tier.build.paste_mm and tin.owned
            # No more than all of it, looked at from above, that is beyond the tin's own edge and its skin.
            beyond = left.difference(Polygon(tin.edges[name]).buffer(-PRACTICE.narrower_mm)).area
            deep_mm = layer.high.value - layer.low.value
            assert 0 <= built.beyond.value <= 1.02 * beyond * deep_mm / 1000 + 0.1


@lru_cache(maxsize=2000)
def sections_of(body, steps=160):
    """The outlines of a body at many heights, each as a polygon with its height; its top is nearly there."""
    top = body.foot_mm + body.height_mm
    ups = numpy.linspace(body.foot_mm, top, steps + 1)
    ups[0], ups[-1] = body.foot_mm + 1e-6 * body.height_mm, top - 1e-6 * body.height_mm
    found = []
    for up in ups:
        outline = body.section(up)
        points = outline.traced(240) if hasattr(outline, "traced") else outline.points
        if hasattr(outline, "radius_mm"):
            points = outline.radius_mm * CIRCLE
        # A slice through a carved cake may be of several parts.
        parted = getattr(outline, "may_part", False)
        found.append((float(up), outline.polygon if parted else Polygon(numpy.asarray(points))))
    return found


def wedge(round_deg, turn_deg):
    """So many degrees about the axis, their middle turned from the front to the right; farther than any cake reaches."""
    if round_deg == 360:
        return box(-1e4, -1e4, 1e4, 1e4)
    turns = numpy.radians(turn_deg - 90 + round_deg * numpy.linspace(-0.5, 0.5, 60))
    return Polygon([(0.0, 0.0), *zip(1e4 * numpy.cos(turns), 1e4 * numpy.sin(turns), strict=True)])


TOWARD = numpy.linspace(0, math.pi / 2, 19)
"""The directions in which ways down a body are followed."""


def farthest_along(section, ways=TOWARD):
    """How far from the axis the edge of a slice is met last in each direction: edges crossed by rays, two lines each."""
    ends = get_coordinates(section.boundary)
    # The step from one ring to the next is no edge, and only makes the farthest no nearer where there is one ring.
    rings = numpy.cumsum([len(get_coordinates(ring)) for ring in get_parts(section.boundary)])[:-1]
    x, y = (numpy.delete(numpy.stack([axis[:-1], axis[1:]]), rings - 1, axis=1) for axis in ends.T)
    cos, sin = numpy.cos(ways)[:, None], numpy.sin(ways)[:, None]
    beside = [y[end] * cos - x[end] * sin for end in (0, 1)]
    along = [x[end] * cos + y[end] * sin for end in (0, 1)]
    across = beside[0] * beside[1] <= 0
    gap = numpy.where(beside[0] == beside[1], 1.0, beside[0] - beside[1])
    met = along[0] + (along[1] - along[0]) * numpy.clip(beside[0] / gap, 0, 1)
    return numpy.where(across & (met > 0), met, 0.0).max(axis=1, initial=0.0)


@lru_cache(maxsize=2000)
def ways_down(body, steps=60):
    """How far from the axis a body reaches at many heights, a row each, and the heights; a column a direction."""
    slices = sections_of(body, steps)
    return numpy.array([farthest_along(section) for _, section in slices]), numpy.array([up for up, _ in slices])


@holds
def fillings_layers_and_room_fill_the_bare_cake(tier, whole, one, rooms):
    """Volumes by slices: what is cake, filling, seal, dam, board and room is all there is."""
    if tier.measured is not None or rooms.tipped is not None:
        return
    slices = sections_of(rooms.bodies.bare)
    by_slices = sum((low.area + high.area) / 2 * (z1 - z0) for (z0, low), (z1, high) in pairwise(slices)) / 1000
    layers, filling = one.layers, one.layers.filling
    parts = [layers.cake_volume, filling.volume, filling.dam_volume, filling.seal_volume]
    found = sum(part.value for part in parts if part is not None)
    if layers.cavity is not None:
        found += layers.cavity.volume.value
    if layers.board is not None:
        found += slices[80][1].area * layers.board.thickness.value / 1000
    # A room wider than the dam's inside and a slanted wall leave the dam's corners out.
    assert found == pytest.approx(by_slices, rel=0.012 if tier.build.kind not in ("straight", "tapered") else 0.006)


def lies_within(piece, overlap):
    """What of a sheet comes to lie on the tier, grown by the trim, is all on the sheet."""
    lines = [mark for mark in piece.marks if mark.name != "set down"]
    hem = Polygon([(mark.x0, mark.y0) for mark in lines[:-1]])
    sheet = Polygon(flat.flattened(piece.corners, 0.02))
    assert hem.buffer(0).area > 0.2 * sheet.area
    assert sheet.buffer(1.0).covers(hem.buffer(overlap))


@holds
def a_sheet_reaches_the_hem_whichever_way_it_hangs(tier, whole, one, rooms):
    """From the axis over the top and down in the upright plane of each direction: a polyline over the slices.

    On a carved tier the way may be shorter beside that plane: the sheet reaches as far as straight to any place of its
    hem, and what comes to lie on the tier has the trim all round it.
    """
    cover = one.cover
    if cover is None:
        return
    if tier.build.carved and cover.kind in ("drape", "halves") and cover.suits:
        for key in ("sheet", "half_1", "half_2"):
            if key in cover.pieces:
                lies_within(cover.pieces[key], cover.overlap.value)
        return
    if "sheet" not in cover.pieces:
        return
    radii, heights = ways_down(rooms.bodies.coated)
    ways = radii[-1] + numpy.hypot(numpy.diff(radii, axis=0), numpy.diff(heights)[:, None]).sum(axis=0)
    wide, long = cover.pieces["sheet"].size
    sheet = Polygon(flat.flattened(cover.pieces["sheet"].corners, 0.02)).exterior
    overlap = cover.overlap.value
    assert wide > 0 and long > 0
    inside = Polygon(sheet).buffer(0.6)
    for turn, way in zip(TOWARD, ways, strict=True):
        x, y = wide / 2 + way * math.cos(turn), long / 2 + way * math.sin(turn)
        assert inside.covers(LineString([(wide / 2, long / 2), (x, y)])), (
            f"{way:.1f} mm toward {math.degrees(turn):.0f}"
        )
        assert way + 0.3 * overlap < 4000


@holds
def the_pieces_of_a_cover_that_suits_are_as_large_as_what_they_cover(tier, whole, one, rooms):
    """Areas: the wall as the girth of each slice times the way up between slices, the top as the last slice.

    A carved wall leans this way and that, and its girth times its height is the least it can be.
    """
    cover = one.cover
    if cover is None or not cover.suits or rooms.tipped is not None:
        return
    slices = sections_of(rooms.bodies.coated)
    upright = 0.0 if tier.build.carved else 1.0
    leans = [
        math.hypot(z1 - z0, upright * (high.bounds[2] - high.bounds[0] - low.bounds[2] + low.bounds[0]) / 2)
        for (z0, low), (z1, high) in pairwise(slices)
    ]
    wall = sum(
        (low.length + high.length) / 2 * lean
        for ((_, low), (_, high)), lean in zip(pairwise(slices), leans, strict=True)
    )
    top = slices[-1][1].area if rooms.bodies.coated.flat_top else 0.0
    bare_top = isinstance(tier.cover, CollarCover | PrintedCover) and getattr(tier.cover, "top", "none") != "circle"
    if bare_top or getattr(tier.cover, "top", "") == "none":
        top = 0.0
    sheets = [piece for key, piece in cover.pieces.items() if piece.stuff == "sheet" and key != "band"]
    pieces = sum(flat.area_of(piece.corners) * piece.count.value for piece in sheets)
    if isinstance(tier.cover, PrintedCover) and cover.printed.too_tall is not None:
        assert "cover.printed_short" in {check.code for check in whole.checks}
        return
    # A patch that is drawn out as it is laid covers by so much more than it is large.
    drawn_out = cover.strain.value if cover.strain is not None and cover.strain.value > tier.cover.stretch else 0.0
    assert pieces >= (wall + top) * (0.997 - drawn_out)


@holds
def pieces_are_valid_and_their_stripes_fill_them(tier, whole, one, rooms):
    if one.cover is None:
        return
    for piece in one.cover.pieces.values():
        edge = Polygon(flat.flattened(piece.corners, 0.02))
        assert edge.is_valid
        if piece.bands:
            bands = [make_valid(Polygon([corner[:2] for corner in band.corners])) for band in piece.bands]
            assert sum(band.area for band in bands) == pytest.approx(edge.area, rel=0.01)
            assert unary_union(bands).symmetric_difference(edge).area < 0.015 * edge.area


@holds
def heights_add_up_and_supports_are_as_long_as_what_they_stand_in(tier, whole, one, rooms):
    coats = [one.coats.crumb, one.coats.final, one.cover.over if one.cover else None]
    if rooms.tipped is None:
        own = max(coat.height.value for coat in coats if coat is not None)
        assert one.stack.top.value - one.stack.bottom.value == pytest.approx(own)
        assert max(mark.up.value for mark in one.gauge.values()) == pytest.approx(own, abs=1e-6) or (
            tier.build.kind in ("domed", "ball", "turned", "tapered", "bevelled") or tier.final.kind == "semi_naked"
        )
    outside = whole.section.tiers[0].outline
    highest = max(z for _, z in outside)
    # What is piped at the front is cut through on neither side, and seen.
    seen = [ring for over in whole.section.tiers[0].piped for ring in (*over.left, *over.right)]
    proud = [max(z for _, z in line) for line in (*(part.outline for part in whole.section.added), *seen)]
    assert whole.stack.height.value == pytest.approx(max([highest, *proud]), abs=1e-6) or not (
        rooms.bodies.coated.flat_top
    )
    if one.layers.board is not None:
        under = whole.stack.joints["inside_1"]
        assert under.count.value >= 3
        assert under.length.value == pytest.approx(one.layers.board.height.value)


@holds
def what_is_drawn_nests_and_fills_its_outside(tier, whole, one, rooms):
    if one.coats.final and one.coats.final.side.value <= 0:
        return
    parts = [
        part
        for part in whole.section.parts
        if part.kind != "region" and (part.place.startswith("tiers.1.") or part.place == "")
    ]
    polygons = [make_valid(Polygon(part.outline)) for part in parts]
    joined = unary_union([polygon.buffer(1e-6) for polygon in polygons])
    outside = make_valid(Polygon(whole.section.tiers[0].outline))
    room = one.layers.cavity
    hollow = 0.0
    if room is not None and rooms.tipped is None:  # a drum on its side is cut between two layers
        half = max(0.0, min(room.diameter.value / 2, room.diameter.value / 2 + room.wall.value))
        hollow = half * room.height.value
    openings = (one.carving.openings if one.carving else {}).values()
    hollow += sum(make_valid(Polygon(ring)).area for of in openings if of.medium is None for ring in of.cut)
    assert sum(polygon.area for polygon in polygons) == pytest.approx(joined.area, rel=2e-3, abs=0.5)
    assert joined.area + hollow == pytest.approx(outside.area, rel=3e-3, abs=0.5)
    assert joined.difference(outside.buffer(0.05)).area < 1.0
    # What is piped over it lies outside, but for a lip or a collar that stands in it.
    stands = one.coats.rim_height is not None or (one.cover is not None and one.cover.above is not None)
    for part in [] if stands else piped(whole):
        region = make_valid(Polygon(part.outline))
        assert region.intersection(outside.buffer(-0.1)).area < 0.01 * region.area + 0.5


def piped(whole):
    """The regions piped over a cake as the section shows them."""
    return [part for part in whole.section.parts if part.kind == "region"]


@holds
def the_cake_stands_within_its_board(tier, whole, one, rooms):
    """The base board is at least 2 in wider than the cake all round (common practice), corners and borders among it."""
    length = whole.stack.base_length.value if whole.stack.base_length else whole.stack.base_diameter.value
    wide = whole.stack.base_diameter.value
    turns = numpy.linspace(0, 2 * math.pi, 721)
    curved = Polygon(numpy.column_stack([wide / 2 * numpy.cos(turns), length / 2 * numpy.sin(turns)]))
    edge = curved if whole.stack.base_shape in ("round", "oval") else box(-wide / 2, -length / 2, wide / 2, length / 2)
    assert whole.stack.base_shape != "round" or wide == length
    above = Polygon(whole.section.tiers[0].seen_from_above)
    assert edge.buffer(0.3).covers(above)
    assert edge.exterior.distance(above) >= 25.4 * 0.7
    assert "stack.board_small" not in {check.code for check in whole.checks}


@holds
def a_room_that_breaks_out_is_said_and_no_other(tier, whole, one, rooms):
    room = one.layers.cavity
    if room is None:
        return
    bare, codes = rooms.bodies.bare, {check.code for check in whole.checks}
    hollow = [slab for slab in rooms.slabs if slab.kind == "layer" and room.first <= slab.number <= room.last]
    ups = numpy.linspace(hollow[0].low + 1e-3, hollow[-1].high - 1e-3, 40)
    nearest = min(Polygon(bare.section(up).points).exterior.distance(LineString([(0, 0), (1e-9, 0)])) for up in ups)
    breaks = nearest < room.diameter.value / 2 - 0.5
    assert ("layers.room_breaks_out" in codes) >= breaks
    assert room.wall.value <= nearest - room.diameter.value / 2 + 0.5


@holds
def every_kind_keeps_its_word_about_what_it_suits(tier, whole, one, rooms):
    """A cover that does not suit is said; none is said of one that does."""
    said = "cover.suits_not" in {check.code for check in whole.checks}
    assert said == (one.cover is not None and not one.cover.suits)
    if isinstance(tier.cover, NoCover):
        assert one.cover is None
