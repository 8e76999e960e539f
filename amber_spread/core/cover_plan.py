"""What a cover comes to: the plan of one of any kind, and what a way of covering is given and gives back."""

from collections.abc import Callable
from typing import NamedTuple

from amber_spread.core.base import Made
from amber_spread.core.body import Body
from amber_spread.core.coats import CoatPlan
from amber_spread.core.cover_rules import (
    circle_size,
)  # fmt: skip
from amber_spread.core.design import Tier
from amber_spread.core.figures import Figure, same
from amber_spread.core.flat import (
    Corner,
    Laid,
    Piece,
    corners_of,
    fits,
)  # fmt: skip
from amber_spread.core.kit import Mat
from amber_spread.core.media import Medium
from amber_spread.core.outline import Outline, Round
from amber_spread.core.practice import Practice


class PrintedPlan(Made):
    """Ready-made sheets: how many strips go round, how many sheets they take, and where the seams fall (degrees)."""

    strips: Figure
    sheets: Figure
    strip_height: Figure
    upright: bool
    too_tall: Figure | None
    seams: list[float]


class CoverPlan(Made):
    """A cover of any kind. `over` is what lies on the tier; `pieces` are what is rolled, cut or printed for it.

    `suits` is False where the tier's shape does not allow the kind asked for; what is planned then is the nearest
    kind that does.
    """

    kind: str
    suits: bool
    width_over_coat: Figure
    height_over_coat: Figure
    overlap: Figure | None
    roll_diameter: Figure | None = None
    roll_width: Figure | None = None
    roll_length: Figure | None = None
    roll_area: Figure | None
    gather: Figure | None = None
    stretch: Figure | None = None
    rolled_weight: Figure | None
    trimmed_weight: Figure | None
    over: CoatPlan | None
    stripes: dict[str, Figure] = {}
    printed: PrintedPlan | None = None
    pieces: dict[str, Piece]
    laid: list[Laid]
    on_mat: bool


class Asked(NamedTuple):
    """What every way of covering is given: the tier, its coated body, the sheet's thickness, and what it lies on."""

    tier: Tier
    practice: Practice
    coated: Body
    thickness: Figure
    medium: Medium
    hex_of: Callable[[str | None], str]
    mat: Mat


class Way(NamedTuple):
    """What a way of covering gives back: its pieces, the sheet's faces in mm, and figures of its own."""

    pieces: dict[str, Piece]
    top_covered: bool
    own: dict[str, object]
    suits: bool = True


def on_mat(piece: Piece, mat: Mat) -> bool:
    """Whether a piece lies on the mat, either way round."""
    return fits(*piece.size, (mat.width_mm, mat.length_mm))


def piece_of(name: str, corners: list[Corner], hex: str, count: float = 1, **sizes: Figure) -> Piece:
    """A flat piece, so many times over, with its measures by name."""
    return Piece(name=name, count=same("copies", count, "each"), sizes=sizes, hex=hex, corners=corners)


def top_of(flat: Outline, lap_mm: float, hex: str, count: float = 1) -> Piece:
    """The piece on the flat top, lapping its edge by so much all round."""
    outline = flat.offset(lap_mm) if lap_mm else flat
    across = circle_size.figure(2 * flat.half_width_mm, lap_mm)
    along = circle_size.figure(2 * flat.half_length_mm, lap_mm)
    sizes = {"diameter": across} if isinstance(flat, Round) else {"width": across, "length": along}
    return piece_of("Top", corners_of(outline), hex, count, **sizes)
