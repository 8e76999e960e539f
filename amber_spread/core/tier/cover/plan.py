"""What a cover comes to: the plan of one of any kind, and what a way of covering is given and gives back."""

from collections.abc import Callable, Mapping
from typing import NamedTuple

from amber_spread.core.design.builds import Build
from amber_spread.core.design.kinds import kind_of
from amber_spread.core.design.settled import SettledTier
from amber_spread.core.geometry.bodies.body import Body
from amber_spread.core.geometry.flat.outline import Outline, Round
from amber_spread.core.geometry.flat.pieces import Laid, Piece, Stuff, corners_of, fits, piece_of, rectangle
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.stock.kit import Mat
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier.coats.coats import CoatPlan
from amber_spread.core.tier.cover.rules import circle_size


class PrintedPlan(PlanPart):
    """Ready-made sheets: how many strips go round, how many sheets they take, and where the seams fall (degrees)."""

    strips: Figure
    sheets: Figure
    strip_height: Figure
    upright: bool
    too_tall: Figure | None
    seams: list[float]


class ColourShare(PlanPart):
    """What of a cover is of one medium and colour: what is rolled of it, what stays, and what is trimmed off."""

    medium: str
    colour: str | None
    hex: str
    rolled: Figure
    stays: Figure
    trimmed: Figure


class CoverPlan(PlanPart):
    """A cover of any kind. `over` is what lies on the tier; `pieces` are what is rolled, cut or printed for it.

    `suits` is False where the tier's shape does not allow the kind asked for; what is planned then is the nearest
    kind that does. `stays` is all that stays on the tier, a band over a seam among it; `short` what a sheet already
    rolled lacks; of patches, `strain` is how much the one that gives most is stretched or gathered, and `seams` how
    long those between them are; of sheets over a carved tier, `torn` is the share of its surface where they would be
    drawn out by more than fondant gives; `top_parts` in how many parts a printed top has to be laid, `above` what
    stands above the tier.
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
    strain: Figure | None = None
    seams: Figure | None = None
    torn: Figure | None = None
    rolled_weight: Figure | None
    trimmed_weight: Figure | None
    over: CoatPlan | None
    stays: Figure | None = None
    short: Figure | None = None
    above: Figure | None = None
    top_parts: Figure | None = None
    stripes: dict[str, Figure] = {}
    colours: dict[str, ColourShare] = {}
    printed: PrintedPlan | None = None
    pieces: dict[str, Piece]
    laid: list[Laid]
    on_mat: bool


class Job(NamedTuple):
    """What every way of covering is given: the tier, its coated body, the sheet's thickness and medium, all media
    within reach and how each looks in a colour, and what of the mat its pieces may lie on.
    """

    tier: SettledTier
    coated: Body
    thickness: Figure
    medium: Medium
    media: Mapping[str, Medium]
    looks: Callable[[str, str | None], str]
    mat: Mat

    @property
    def build(self) -> Build:
        """How the tier is built."""
        return self.tier.asked.build

    def hex_of(self, colour: str | None, medium: str | None = None) -> str:
        """How a colour looks in the cover's medium, or in another."""
        return self.looks(medium or self.medium.key, colour)

    def density_of(self, piece: Piece) -> float:
        """How heavy what a piece is cut from is, g/ml."""
        return self.media[piece.medium or self.medium.key].density_g_per_ml


class Way(NamedTuple):
    """What a way of covering gives back: its pieces, the sheet's faces in mm, and figures of its own. `over` are the
    pieces that lie over others, and so come on top of what is over the tier.
    """

    pieces: dict[str, Piece]
    top_covered: bool
    own: dict[str, object]
    suits: bool = True
    over: tuple[str, ...] = ()


def roll_margin(tier: SettledTier) -> float:
    """The margin a sheet is rolled beyond the piece cut from it, mm; 0 if the cover is not cut out."""
    return tier.usual.roll_margin_mm if kind_of(tier.asked.cover).cut_out else 0.0


def within_margin(mat: Mat, margin_mm: float) -> Mat:
    """What of a mat pieces may lie on that are cut out of a sheet rolled larger by a margin all round."""
    if not margin_mm:
        return mat
    wide, long = (max(1.0, side - 2 * margin_mm) for side in (mat.width_mm, mat.length_mm))
    return Mat.model_construct(width_mm=wide, length_mm=long)


def on_mat(piece: Piece, mat: Mat) -> bool:
    """Whether a piece lies on the mat, either way round."""
    return fits(*piece.size, (mat.width_mm, mat.length_mm))


def band_over(name: str, long: Figure, wide: Figure, job: Job, colour: str | None) -> Piece:
    """What hides a seam: a band as long as it is."""
    return piece_of(name, rectangle(long.value, wide.value), job.hex_of(colour), 1, colour, long=long, wide=wide)


def carrier_of(panel: Piece, stuff: Stuff) -> Piece:
    """The sheet a piece is carried on, cut to its outline: a copy to each."""
    name = {"acetate": "Acetate to carry it", "paper": "Paper to carry it"}.get(stuff, "Carrier")
    return Piece(
        name=name,
        count=carry_over("copies", panel.count.value, "each"),
        sizes={},
        paint="film",
        corners=panel.corners,
        stuff=stuff,
    )


def top_of(flat: Outline, lap_mm: float, hex: str, count: float = 1, colour: str | None = None) -> Piece:
    """The piece on the flat top, lapping its edge by so much all round."""
    outline = flat.offset(lap_mm) if lap_mm else flat
    across = circle_size.figure(2 * flat.half_width_mm, lap_mm)
    along = circle_size.figure(2 * flat.half_length_mm, lap_mm)
    sizes = {"diameter": across} if isinstance(flat, Round) else {"width": across, "length": along}
    return piece_of("Top", corners_of(outline), hex, count, colour, **sizes)
