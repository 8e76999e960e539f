"""What goes between, onto and over the layers: fillings, coats, covers, borders and what lies on top.

A field left out (null) takes this kitchen's usual from the Practice. Every kind names the medium it takes, and
the colour that medium is mixed to.
"""

from collections.abc import Iterator
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from amber_spread.core.design.builds import Build
from amber_spread.core.design.part_ids import Identified
from amber_spread.core.design.shapes import Shape
from amber_spread.core.design.taken import Taken, TakesMore
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, Name, Usual, at

Thickness = Annotated[float, limits.COAT_THICKNESS.field()]
FillingThickness = Annotated[float, limits.FILLING_THICKNESS.field()]
SheetThickness = Annotated[float, limits.FONDANT_THICKNESS.field()]
Overlap = Annotated[float, limits.OVERLAP.field()]
Plate = Annotated[float, limits.DISC_DIAMETER.field()]
Edges = Literal["sharp", "rounded"]


class PlainFilling(Frozen):
    """One medium spread from edge to edge between the layers."""

    kind: Literal["plain"] = "plain"
    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    thickness_mm: Annotated[FillingThickness | None, Usual("filling_mm")] = None


class SoftFilling(TakesMore):
    """A filling that runs, held by a thin seal on the sponge and a dam at the rim as high as the filling."""

    kind: Literal["soft"] = "soft"
    medium: Key = "lemon_curd"
    colour: Name | None = None
    thickness_mm: Annotated[FillingThickness | None, Usual("filling_mm")] = None
    dam_medium: Key = "american_buttercream"
    dam_colour: Name | None = None
    dam_width_mm: Annotated[Annotated[float, limits.DAM_WIDTH.field()] | None, Usual("dam_mm")] = None
    seal_mm: Annotated[Annotated[float, limits.SEAL_THICKNESS.field()] | None, Usual("seal_mm")] = None

    def also_takes(self) -> Iterator[Taken]:
        """Its dam."""
        yield ("dam_medium",), self.dam_medium, self.dam_colour


class Syrup(Frozen):
    """Syrup brushed onto the upper face of each layer, as a depth of liquid soaked in."""

    medium: Key = "syrup"
    colour: Name | None = None
    soak_mm: Annotated[Annotated[float, limits.SYRUP_SOAK.field()] | None, Usual("syrup_soak_mm")] = None


class CrumbCoat(Frozen):
    """The thin first coat, side and top alike, that holds the crumbs."""

    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    thickness_mm: Annotated[Thickness | None, Usual("crumb_coat_mm")] = None


LEAST_REGION = 0.02
"""A piped region is at least so much of the tier high."""


class _Coat(Frozen):
    medium: Key = "meringue_buttercream"
    colour: Name | None = None


class NoFinal(Frozen):
    """Nothing over the crumb coat."""

    kind: Literal["none"] = "none"


class FreehandFinal(_Coat):
    """A final coat drawn to a thickness by eye, finished with a hot scraper."""

    kind: Literal["freehand"] = "freehand"
    side_mm: Annotated[Thickness | None, Usual("coat_side_mm")] = None
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None
    edges: Edges = "sharp"


class DiscFinal(_Coat):
    """A final coat scraped against a disc on top that sets the outside; the side thickness follows from it."""

    kind: Literal["disc"] = "disc"
    disc_diameter_mm: Plate
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None


class TwinFinal(_Coat):
    """Filled out between a disc below and a disc above; both faces are coated, `top_mm` each."""

    kind: Literal["twin"] = "twin"
    disc_diameter_mm: Plate
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None


class InvertedFinal(_Coat):
    """Turned over onto a lined board and filled out to the card, which is the base then: the card sets the side."""

    kind: Literal["inverted"] = "inverted"
    disc_diameter_mm: Plate
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None


class TowelFinal(_Coat):
    """A crusting coat smoothed through a paper towel once its skin has formed."""

    kind: Literal["towel"] = "towel"
    medium: Key = "american_buttercream"
    side_mm: Annotated[Thickness | None, Usual("coat_side_mm")] = None
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None
    edges: Edges = "sharp"


class DeckledFinal(_Coat):
    """A freehand coat whose rim is left standing `rim_mm` proud of the top as a rough lip."""

    kind: Literal["deckled"] = "deckled"
    side_mm: Annotated[Thickness | None, Usual("coat_side_mm")] = None
    top_mm: Annotated[Thickness | None, Usual("coat_top_mm")] = None
    rim_mm: Annotated[Annotated[float, limits.RIM.field()] | None, Usual("rim_mm")] = None


class SemiNakedFinal(Frozen):
    """The crumb coat scraped back until only a share of it stays."""

    kind: Literal["semi_naked"] = "semi_naked"
    stays: Annotated[Annotated[float, limits.SHARE.field()] | None, Usual("semi_naked_share")] = None


class TexturedFinal(_Coat):
    """Rows of piping or strokes of a knife all over the crumb coat, of a mean relief."""

    kind: Literal["textured"] = "textured"
    relief_mm: Annotated[Thickness | None, Usual("relief_mm")] = None


class _Sheet(Frozen):
    medium: Key = "fondant"
    colour: Name | None = None
    thickness_mm: Annotated[SheetThickness | None, Usual("fondant_mm")] = None


class NoCover(Frozen):
    """Nothing over the final coat."""

    kind: Literal["none"] = "none"


class DrapeCover(_Sheet):
    """One sheet rolled out, laid over the tier and trimmed at the board; of the shape that takes least where none is
    named. `rolled_mm` is how wide a sheet already rolled is its narrower way, to see whether it will reach.
    """

    kind: Literal["drape"] = "drape"
    overlap_mm: Annotated[Overlap | None, Usual("overlap_mm")] = None
    sheet: Literal["circle", "rectangle", "square"] | None = None
    rolled_mm: Annotated[float, limits.STRIP_LENGTH.field()] | None = None


class Stripe(Frozen):
    """One colour of a striped panel, and its share of the way the stripes run across."""

    colour: Name | None = None
    share: Annotated[float, limits.STRIPE_SHARE.field()] = 1.0


class PanelCover(_Sheet, TakesMore):
    """A strip round the wall, its ends overlapped and cut through both; the top bare, or a circle over or inside it.

    Stripes stand `upright`, by shares of the girth, or lie `round` the tier, by shares of its height from the foot up,
    their edges straight or irregular. `strip_mm` is the length of a strip already cut, to see whether it will stretch
    to go round.
    """

    kind: Literal["panel"] = "panel"
    top: Literal["none", "over", "inside"] = "none"
    overlap_mm: Annotated[Overlap | None, Usual("panel_overlap_mm")] = None
    trim_mm: Annotated[Overlap | None, Usual("panel_trim_mm")] = None
    stripes: Annotated[tuple[Stripe, ...], Field(max_length=int(limits.STRIPES.high))] = ()
    run: Literal["upright", "round"] = "upright"
    stripe_edges: Literal["straight", "irregular"] = "straight"
    strip_mm: Annotated[float, limits.STRIP_LENGTH.field()] | None = None

    def also_takes(self) -> Iterator[Taken]:
        """Its stripes."""
        for index, one in enumerate(self.stripes):
            yield ("stripes", index, "medium"), self.medium, one.colour


class BoxCover(_Sheet):
    """A flat piece to each side and one for the top, the corners butted or mitred."""

    kind: Literal["box"] = "box"
    corners: Literal["butt", "mitre"] = "butt"


class HalvesCover(_Sheet):
    """One side covered and trimmed, then the other; a band hides the seam."""

    kind: Literal["halves"] = "halves"
    overlap_mm: Annotated[Overlap | None, Usual("overlap_mm")] = None
    band_mm: Annotated[Annotated[float, limits.BAND_WIDTH.field()] | None, Usual("band_mm")] = None


class GoresCover(_Sheet):
    """Slices pointed like those of an orange, set side by side."""

    kind: Literal["gores"] = "gores"
    count: Annotated[int, limits.GORES.field()] = 8


class PatchColour(Frozen):
    """What one patch is cut from: without a colour that of the cover, without a medium the cover's; of a medium of its
    own and no colour, plain.
    """

    medium: Key | None = None
    colour: Name | None = None


class SeamSide(Frozen):
    """One side of a seam that stands before another in the list, by its number from 1: beyond it, which is above a
    level one and behind an upright one that is not turned, or before it.
    """

    seam: Annotated[int, limits.OWN_SEAM.field()] = 1
    side: Literal["beyond", "before"] = "beyond"


class PatchSeam(Frozen):
    """A seam where one is wanted: level at a share of the height, or upright, turned so far from left to right about
    the axis, at a share of the way across the tier; all the way, or only `within` what a seam before it parts off.
    """

    run: Literal["level", "upright"] = "upright"
    at: Annotated[float, limits.SHARE.field()] = 0.5
    turn_deg: Annotated[float, limits.TURN.field()] = 0.0
    within: SeamSide | None = None


class PatchesCover(_Sheet, TakesMore):
    """Pieces of a carved tier that each lie nearly flat: a front and a back, or a top and so many sides; as few as
    stretch or gather by no more than `stretch` where no number is named. Their sides are turned by `turn_deg` about the
    axis. Every seam of `own_seams` cuts through all of them, or through those on one side of a seam before it; with 0
    parts there are no others. Strips `strip_mm` wide hide the seams. `patch_colours` tell what the first patch is cut
    from, the second and so on.
    """

    kind: Literal["patches"] = "patches"
    parts: Literal[0, 2, 4, 6, 8] | None = None
    stretch: Annotated[float, limits.STRETCH.field()] = 0.12
    strip_mm: Annotated[float, limits.BAND_WIDTH.field()] | None = None
    turn_deg: Annotated[float, limits.TURN.field()] = 0.0
    own_seams: Annotated[tuple[PatchSeam, ...], Field(max_length=int(limits.OWN_SEAMS.high))] = ()
    patch_colours: Annotated[tuple[PatchColour, ...], Field(max_length=int(limits.PATCHES.high))] = ()

    @model_validator(mode="after")
    def seams_end_at_those_before_them(self) -> Self:
        """A seam runs within what one before it parts off, so that none ends where nothing is."""
        for before, seam in enumerate(self.own_seams):
            if seam.within is not None and seam.within.seam > before:
                told = "one of those before it" if before else "none: it is the first"
                raise at(("own_seams", before, "within", "seam"), f"should be {told}")
        return self

    def cut_from(self, number: int) -> tuple[str, str | None]:
        """The medium and the colour that a patch, counted from 1, is cut from."""
        own = self.patch_colours[number - 1] if number <= len(self.patch_colours) else PatchColour()
        if own.medium is None:
            return self.medium, self.colour if own.colour is None else own.colour
        return own.medium, own.colour

    def also_takes(self) -> Iterator[Taken]:
        """Its patches."""
        for index in range(len(self.patch_colours)):
            yield ("patch_colours", index, "medium"), *self.cut_from(index + 1)


class PrintedCover(Frozen):
    """Ready-made printed sheets wrapped round; the top by snipped tabs, by a circle of its own, or left.

    A pattern with an up and a down is `directional`: its sheets are not turned.
    """

    kind: Literal["printed"] = "printed"
    sheet_width_mm: Annotated[float, limits.SHEET_SIDE.field()] = 254.0
    sheet_height_mm: Annotated[float, limits.SHEET_SIDE.field()] = 203.2
    overlap_mm: Annotated[Overlap | None, Usual("printed_overlap_mm")] = None
    top: Literal["none", "tabs", "circle"] = "none"
    directional: bool = False


class CollarCover(_Sheet):
    """Melted chocolate spread on a paper strip, set upright round the tier; taller than it and longer than its
    girth. A drizzled, open one covers a share of the paper: `spread`.
    """

    kind: Literal["collar"] = "collar"
    medium: Key = "dark_chocolate"
    thickness_mm: Annotated[SheetThickness | None, Usual("collar_mm")] = None
    above_mm: Annotated[Overlap | None, Usual("collar_above_mm")] = None
    overlap_mm: Annotated[Overlap | None, Usual("overlap_mm")] = None
    spread: Annotated[float, limits.SPREAD.field()] = 1.0


class OnTop(Identified, _Sheet):
    """A flat piece of any shape cut from a sheet and laid on the top, so many times over."""

    shape: Shape
    count: Annotated[int, limits.PIECES.field()] = 1
    across_mm: Annotated[float, limits.ON_TOP_WIDTH.field()]


class PipedRegion(Identified):
    """Piping or strokes over the outside of a finished tier between two shares of its height, of a mean relief: a foot
    of grass, a fringe, a cap. One that goes all the way up lies on the top too. It goes round by `round_deg` about the
    axis, its middle turned by `turn_deg` from the front, to the right where that is more than 0.
    """

    low: Annotated[float, limits.SHARE.field()] = 0.0
    high: Annotated[float, limits.SHARE.field()] = 0.3
    round_deg: Annotated[float, limits.REGION_ROUND.field()] = limits.REGION_ROUND.high
    turn_deg: Annotated[float, limits.TURN.field()] = 0.0
    relief_mm: Annotated[Thickness | None, Usual("relief_mm")] = None
    medium: Key = "meringue_buttercream"
    colour: Name | None = None

    @model_validator(mode="after")
    def ends_above_where_it_begins(self) -> Self:
        """It has some height."""
        if self.high < self.low + LEAST_REGION:
            raise at(("high",), f"should be {100 * LEAST_REGION:g} % or more above where it begins")
        return self


class Border(Identified):
    """A piped border along the foot or the top edge, as wide as `bead_mm`: a bead, half of one, shells or a rope."""

    at: Literal["foot", "top"] = "foot"
    bead: Literal["shell", "rope", "round", "half"] = "shell"
    bead_mm: Annotated[Annotated[float, limits.BEAD.field()] | None, Usual("bead_mm")] = None
    medium: Key = "meringue_buttercream"
    colour: Name | None = None


Filling = Annotated[PlainFilling | SoftFilling, Field(discriminator="kind")]
FinalCoat = Annotated[
    NoFinal
    | FreehandFinal
    | DiscFinal
    | TwinFinal
    | InvertedFinal
    | TowelFinal
    | DeckledFinal
    | SemiNakedFinal
    | TexturedFinal,
    Field(discriminator="kind"),
]
Cover = Annotated[
    NoCover | DrapeCover | PanelCover | BoxCover | HalvesCover | GoresCover | PatchesCover | PrintedCover | CollarCover,
    Field(discriminator="kind"),
]
NoCoat = NoFinal | SemiNakedFinal
"""The final coats that are none of their own: what stays on the cake is the crumb coat."""
PlateFinal = DiscFinal | TwinFinal | InvertedFinal
"""The final coats whose outside is given by a disc or a card."""


def covers_top(cover: Cover, build: Build) -> bool:
    """Whether the cover lies on the top too, and adds to the height: a strip does only on a flat top.

    A box is laid as a panel where its flat sides do not fit, so on a domed top or a ball it leaves the top bare.
    """
    if isinstance(cover, PanelCover):
        return cover.top != "none" and build.flat_top
    if isinstance(cover, BoxCover):
        return build.flat_top
    return not isinstance(cover, NoCover | PrintedCover | CollarCover)


class Measured(Frozen):
    """The filled cake as it was measured: heights at four points round it, widths at top and foot in two directions.

    The heights go round as back, right, front, left; the widths are (left to right, front to back).
    """

    heights_mm: tuple[
        Annotated[float, limits.TARGET_HEIGHT.field()],
        Annotated[float, limits.TARGET_HEIGHT.field()],
        Annotated[float, limits.TARGET_HEIGHT.field()],
        Annotated[float, limits.TARGET_HEIGHT.field()],
    ]
    top_mm: tuple[Annotated[float, limits.TIN_LENGTH.field()], Annotated[float, limits.TIN_LENGTH.field()]]
    foot_mm: tuple[Annotated[float, limits.TIN_LENGTH.field()], Annotated[float, limits.TIN_LENGTH.field()]]

    @model_validator(mode="after")
    def one_cake(self) -> Self:
        """The measures are of one cake: no height is more than half as much again as another, nor a width."""
        for field in ("heights_mm", "top_mm", "foot_mm"):
            measures = getattr(self, field)
            if max(measures) > 3 * min(measures):
                raise at((field,), "should be measures of one cake; one of these is more than three times another")
        return self
