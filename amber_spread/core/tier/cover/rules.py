"""The rules a cover is worked out by: how large a sheet, strip, sector, box side, half, gore or collar is."""

import math

from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.kernel.figures import COMMON_PRACTICE, rule


@rule(
    "cover.drape.round",
    unit="mm",
    formula="width + 2 * height + 2 * overlap",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The width over the coat at its widest, the height over the coat down both sides, and what hangs beyond the "
    "hem all round.",
)
def roll_diameter(width_mm: float, height_mm: float, overlap_mm: float) -> float:
    """Diameter of the circle to roll for a drape, mm: width + 2 x height + 2 x overlap.

    Source: common practice. A bare cake 4 in wide and 3 in high takes a 10 in circle.

    >>> roll_diameter(101.6, 76.2, 0)
    254.0
    """
    return width_mm + 2 * height_mm + 2 * overlap_mm


@rule(
    "cover.drape.side",
    unit="mm",
    formula="side + 2 * height + 2 * overlap",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The tier that way over the coat, the height over the coat at both ends, and what hangs beyond the hem.",
)
def roll_side(side_mm: float, height_mm: float, overlap_mm: float) -> float:
    """Side of the rectangle to roll for a drape, mm: side + 2 x height + 2 x overlap. Source: common practice.

    >>> roll_side(216, 110, 25)
    486
    """
    return side_mm + 2 * height_mm + 2 * overlap_mm


@rule(
    "cover.drape.gather",
    unit="ratio",
    formula="(girth + 2 * pi * height) / girth",
    words="How many times as long as the foot of the tier the sheet's hem is that has to gather to it.",
)
def gather(girth_mm: float, height_mm: float) -> float:
    """Hem to foot ratio of a drape: (P + 2 pi h) / P; for a round tier (r + h) / r.

    Source: geometry: an outline that bulges everywhere, grown by h, is 2 pi h longer (Steiner's formula).

    >>> round(gather(864, 110), 2)
    1.8
    """
    return (girth_mm + 2 * math.pi * height_mm) / girth_mm


@rule(
    "cover.drape.rolled_weight",
    unit="g",
    formula="area * thickness / 1000 * density",
    rounding="up",
    words="A sheet of that area and thickness, times how heavy the fondant is.",
)
def rolled_weight(area_mm2: float, thickness_mm: float, density_g_per_ml: float) -> float:
    """Weight of the rolled sheet, g: area x thickness x density. Source: geometry (prism).

    >>> round(rolled_weight(173716, 3, 1.35), 2)
    703.55
    """
    return area_mm2 * thickness_mm / MM3_PER_ML * density_g_per_ml


@rule(
    "cover.drape.trimmed_weight",
    unit="g",
    formula="rolled - stays",
    words="What was rolled, less what stays on the tier.",
)
def trimmed_weight(rolled_g: float, stays_g: float) -> float:
    """Weight trimmed off, g: rolled - stays; negative when the sheet would be stretched thinner. Source: geometry.

    >>> round(trimmed_weight(142, 85.9), 2)
    56.1
    """
    return rolled_g - stays_g


@rule(
    "cover.drape.reach",
    unit="mm",
    formula="2 * reach + 2 * overlap",
    rounding="up",
    words="From the middle of the top, the longest way over the surface down to the hem, to both sides, and what hangs "
    "beyond it. Down a corner of a slanted wall the way is longer than down its faces.",
)
def roll_to_reach(reach_mm: float, overlap_mm: float) -> float:
    """Size to roll for a drape over any body, mm: 2 x the longest way down + 2 x overlap. Source: geometry.

    >>> roll_to_reach(194.5, 25)
    439.0
    """
    return 2 * reach_mm + 2 * overlap_mm


@rule(
    "cover.drape.short",
    unit="mm",
    formula="(needed - rolled) / 2",
    rounding="up",
    words="What the sheet in hand is narrower than the one needed to reach the hem, shared by both sides.",
)
def sheet_short(needed_mm: float, rolled_mm: float) -> float:
    """What a sheet already rolled falls short of the hem on each side, mm. Source: geometry.

    >>> sheet_short(430, 410)
    10.0
    """
    return (needed_mm - rolled_mm) / 2


@rule(
    "cover.drape.gather_profile",
    unit="ratio",
    formula="(top + 2 * pi * slant) / foot",
    words="How many times as long as the foot of the tier the sheet's hem is that has to gather to it.",
)
def gather_over_profile(top_mm: float, slant_mm: float, foot_mm: float) -> float:
    """Hem to foot ratio of a drape over any profile: (girth of the flat top + 2 pi x way down) / girth at the foot.

    Source: geometry (Steiner's formula, as for `gather`).

    >>> round(gather_over_profile(0, 339.3, 135), 2)
    15.79
    """
    return (top_mm + 2 * math.pi * slant_mm) / foot_mm


@rule(
    "cover.drape.gather_along",
    unit="ratio",
    formula="hem / foot",
    words="How many times as long as what it comes to lie along the sheet's hem is.",
)
def gather_along(hem_mm: float, foot_mm: float) -> float:
    """Hem to foot ratio of a sheet laid over a carved body the shortest way: its hem / what that comes to lie along.

    Source: geometry; over a half ball pi / 2.

    >>> round(gather_along(987, 628.3), 2)
    1.57
    """
    return hem_mm / foot_mm


@rule(
    "cover.panel.count",
    unit="each",
    formula="ceil(girth / (strip - overlap))",
    rounding="up",
    words="As many strips as it takes to go round, each as long as the mat or the sheet allows and lapping the next.",
)
def strip_count(girth_mm: float, strip_mm: float, overlap_mm: float) -> float:
    """Strips to go round: girth / (strip - overlap), up to a whole number; 1 where one reaches. Source: geometry.

    >>> strip_count(666, 254, 2.5)
    3
    """
    return math.ceil(girth_mm / (strip_mm - overlap_mm))


@rule(
    "cover.panel.length",
    unit="mm",
    formula="girth / strips + overlap",
    rounding="up",
    words="The length round the tier at the middle of the sheet's thickness, shared among the strips, and the lap.",
)
def strip_length(girth_mm: float, strips_count: float, overlap_mm: float) -> float:
    """Length of a wrap strip, mm: girth at mid thickness / strips + overlap. Source: geometry (the middle of a bent
    sheet keeps its length).

    >>> strip_length(688, 1, 20)
    708.0
    """
    return girth_mm / strips_count + overlap_mm


@rule(
    "cover.panel.height",
    unit="mm",
    formula="height + laps + trim",
    source=COMMON_PRACTICE,
    rounding="up",
    words="The wall, the edge of the top where the strip laps it, and an allowance trimmed level once it is firm.",
)
def strip_height(height_mm: float, laps_mm: float, trim_mm: float) -> float:
    """Height of a wrap strip, mm: wall + top's thickness where lapped + trimming allowance (common practice).

    >>> strip_height(110, 0, 0)
    110
    """
    return height_mm + laps_mm + trim_mm


@rule(
    "cover.panel.stretch",
    unit="ratio",
    formula="girth / strip - 1",
    words="How much the strip in hand must stretch to meet round the tier.",
)
def stretch(girth_mm: float, strip_mm: float) -> float:
    """Stretch a strip needs, as a share: girth / strip - 1; below 0 it laps. Source: definition.

    >>> round(stretch(640, 630), 4)
    0.0159
    """
    return girth_mm / strip_mm - 1


@rule(
    "cover.sector.outer",
    unit="mm",
    formula="slant * wide / (wide - narrow) + trim",
    rounding="up",
    words="A tapered wall unrolls to a ring sector: the radius to its wide edge, and the trimming allowance where that "
    "edge is the top.",
)
def sector_outer(slant_mm: float, wide_mm: float, narrow_mm: float, trim_mm: float) -> float:
    """Outer radius of the unrolled frustum, mm: slant x wide / (wide - narrow), widths or radii alike, + allowance.

    Source: geometry (development of a cone frustum).

    >>> round(sector_outer(128.9, 263.4, 227.1, 0), 2)
    935.32
    """
    return slant_mm * wide_mm / (wide_mm - narrow_mm) + trim_mm


@rule(
    "cover.sector.inner",
    unit="mm",
    formula="max(0, slant * narrow / (wide - narrow) - trim)",
    rounding="down",
    words="The radius to the narrow edge of the ring sector, less the trimming allowance where that edge is the top.",
)
def sector_inner(slant_mm: float, wide_mm: float, narrow_mm: float, trim_mm: float) -> float:
    """Inner radius of the unrolled frustum, mm: slant x narrow / (wide - narrow) - allowance, never below 0.

    Source: geometry (development of a cone frustum).

    >>> round(sector_inner(113.3, 223.5, 169.6, 0), 2)
    356.51
    """
    return max(0.0, slant_mm * narrow_mm / (wide_mm - narrow_mm) - trim_mm)


@rule(
    "cover.sector.angle",
    unit="deg",
    formula="180 * (wide - narrow) / slant / strips + 180 / pi * overlap / outer",
    rounding="up",
    words="The angle the ring sector opens, shared among the strips, and the lap at its wide edge.",
)
def sector_angle(
    wide_mm: float, narrow_mm: float, slant_mm: float, strips_count: float, overlap_mm: float, outer_mm: float
) -> float:
    """Angle of the unrolled frustum, degrees: 180 (wide - narrow) / slant, widths across, + lap. Source: geometry.

    >>> round(sector_angle(263.4, 227.1, 128.9, 2, 20, 933.3), 2)
    26.57
    """
    return 180 * (wide_mm - narrow_mm) / slant_mm / strips_count + 180 / math.pi * overlap_mm / outer_mm


@rule(
    "cover.circle",
    unit="mm",
    formula="width + 2 * lap",
    rounding="up",
    words="The top, and the thickness of the panel on both sides where the circle lies over its edge.",
)
def circle_size(width_mm: float, lap_mm: float) -> float:
    """Width of the top piece, mm: top + 2 x panel thickness where it laps over, + 0 where it lies inside.

    >>> circle_size(216, 3)
    222
    """
    return width_mm + 2 * lap_mm


@rule(
    "cover.box.side",
    unit="mm",
    formula="side + laps * thickness",
    rounding="up",
    words="The side of the coated tier, and the thickness of the neighbours it laps.",
)
def box_side(side_mm: float, laps: float, thickness_mm: float) -> float:
    """Width of a box's side piece, mm: side + laps x thickness; mitred 2 tan(half the turn of the corner), butted 0
    or 2. Source: geometry.

    >>> box_side(216, 0, 3)
    216
    """
    return side_mm + laps * thickness_mm


@rule(
    "cover.halves.long",
    unit="mm",
    formula="over + 2 * overlap",
    rounding="up",
    words="The way over the half from side to side, and what hangs beyond on both sides.",
)
def half_long(over_mm: float, overlap_mm: float) -> float:
    """Length of the sheet for one half, mm: the way over it, half the girth of what has one + 2 x overlap.

    Source: geometry.

    >>> half_long(340, 25)
    390
    """
    return over_mm + 2 * overlap_mm


@rule(
    "cover.halves.high",
    unit="mm",
    formula="slant + half + 2 * overlap",
    rounding="up",
    words="The way up the wall, half the flat top, and what hangs beyond.",
)
def half_high(slant_mm: float, half_mm: float, overlap_mm: float) -> float:
    """Height of the sheet for one half, mm: way up + half the top + 2 x overlap. Source: geometry.

    >>> half_high(110, 108, 25)
    268
    """
    return slant_mm + half_mm + 2 * overlap_mm


@rule(
    "cover.halves.face",
    unit="mm",
    formula="across + thick + 2 * overlap",
    rounding="up",
    words="One face, half the rim on both sides, and what hangs beyond.",
)
def half_face(across_mm: float, thick_mm: float, overlap_mm: float) -> float:
    """Circle for one face of a drum on its side, mm: diameter + thickness + 2 x overlap. Source: geometry.

    >>> half_face(216, 118, 25)
    384
    """
    return across_mm + thick_mm + 2 * overlap_mm


@rule(
    "cover.halves.band",
    unit="mm",
    formula="up + across + down",
    rounding="up",
    words="Along the seam: up one side, across the top and down the other.",
)
def band_length(up_mm: float, across_mm: float, down_mm: float) -> float:
    """Length of the band that hides a seam, mm. Source: geometry.

    >>> band_length(110, 216, 110)
    436
    """
    return up_mm + across_mm + down_mm


@rule(
    "cover.gores.wide",
    unit="mm",
    formula="girth / gores",
    rounding="up",
    words="The girth at its widest, shared among the gores.",
)
def gore_width(girth_mm: float, gores_count: int) -> float:
    """Greatest width of one gore, mm: girth at mid thickness / gores. Source: geometry.

    >>> gore_width(688, 8)
    86.0
    """
    return girth_mm / gores_count


@rule(
    "cover.printed.sheets",
    unit="each",
    formula="laid",
    rounding="up",
    words="As few sheets as the strips and the top lie on, side by side and one below the other.",
)
def printed_sheets(laid_count: float) -> float:
    """Sheets to buy: as many as the packed strips and top pieces lie on. Source: geometry (packing of rectangles).

    >>> printed_sheets(2)
    2
    """
    return laid_count


@rule(
    "cover.printed.too_tall",
    unit="mm",
    formula="strip - sheet",
    words="What the tier is taller than the sheet reaches.",
)
def printed_short(strip_mm: float, sheet_mm: float) -> float:
    """What a sheet lacks in height, mm. Source: definition.

    >>> round(printed_short(215, 203.2), 2)
    11.8
    """
    return strip_mm - sheet_mm


@rule(
    "cover.collar.volume",
    unit="ml",
    formula="long * high * thickness * spread / 1000",
    words="All of the paper that is spread, the lap and what stands above the tier among it, at its thickness.",
)
def collar_volume(long_mm: float, high_mm: float, thickness_mm: float, spread: float) -> float:
    """Chocolate on a collar's paper, ml: length x height x thickness x share spread / 1000. Source: geometry.

    >>> collar_volume(897, 125, 2, 1)
    224.25
    """
    return long_mm * high_mm * thickness_mm * spread / MM3_PER_ML


@rule(
    "cover.piece_stays",
    unit="g",
    formula="area * thickness / 1000 * density",
    words="A piece of that area and thickness, times how heavy it is.",
)
def piece_weight(area_mm2: float, thickness_mm: float, density_g_per_ml: float) -> float:
    """Weight of a flat piece, g: area x thickness x density. Source: geometry (prism).

    >>> piece_weight(31416, 3, 1.25)
    117.81
    """
    return area_mm2 * thickness_mm / MM3_PER_ML * density_g_per_ml


@rule(
    "cover.collar.height",
    unit="mm",
    formula="height + above",
    source=COMMON_PRACTICE,
    rounding="up",
    words="Paper cut taller than the tier.",
)
def collar_height(height_mm: float, above_mm: float) -> float:
    """Height of a collar's paper, mm: tier + what stands above it (taller than the tier: common practice).

    >>> collar_height(110, 15)
    125
    """
    return height_mm + above_mm


@rule(
    "cover.stripe",
    unit="g",
    formula="rolled * share / shares",
    rounding="up",
    words="The stripe's share of the wall, by weight of what is rolled for it.",
)
def stripe_weight(rolled_g: float, share: float, shares: float) -> float:
    """Weight of one colour of a striped panel, g: rolled x share / all shares. Source: definition.

    >>> stripe_weight(643, 64, 100)
    411.52
    """
    return rolled_g * share / shares
