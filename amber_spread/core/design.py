"""The Design: what the decorator decided. Tiers are listed from the bottom up.

A field left out (null) takes this kitchen's usual from the Practice.
"""

from collections.abc import Iterator
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from amber_spread.core import limits
from amber_spread.core.base import Frozen, Hex, Key, Name, at, slug
from amber_spread.core.outline import Cornered, Outline, Oval, Regular, Round, heart, petal

Thickness = Annotated[float, limits.COAT_THICKNESS.field()]
Length = Annotated[float, limits.TIN_LENGTH.field()]
Corner = Annotated[float, limits.CORNER_RADIUS.field()]
FillingThickness = Annotated[float, limits.FILLING_THICKNESS.field()]


class Layers(Frozen):
    """The baked layers of a tier: how many, how high each is cut, and the finished height wanted, if any."""

    count: Annotated[int, limits.LAYER_COUNT.field()] = 3
    height_mm: Annotated[float, limits.LAYER_HEIGHT.field()] = 30.0
    target_height_mm: Annotated[float, limits.TARGET_HEIGHT.field()] | None = None


class PlainFilling(Frozen):
    """One medium spread from edge to edge between the layers."""

    kind: Literal["plain"] = "plain"
    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    thickness_mm: FillingThickness | None = None


class SoftFilling(Frozen):
    """A filling that runs, held by a thin seal on the sponge and a dam at the rim as high as the filling."""

    kind: Literal["soft"] = "soft"
    medium: Key = "lemon_curd"
    colour: Name | None = None
    thickness_mm: FillingThickness | None = None
    dam_medium: Key = "american_buttercream"
    dam_colour: Name | None = None
    dam_width_mm: Annotated[float, limits.DAM_WIDTH.field()] | None = None
    seal_mm: Annotated[float, limits.SEAL_THICKNESS.field()] | None = None


class CrumbCoat(Frozen):
    """The thin first coat, side and top alike, that holds the crumbs."""

    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    thickness_mm: Thickness | None = None


class NoFinal(Frozen):
    """Nothing over the crumb coat."""

    kind: Literal["none"] = "none"


class FreehandFinal(Frozen):
    """A final coat drawn to a thickness by eye."""

    kind: Literal["freehand"] = "freehand"
    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    side_mm: Thickness | None = None
    top_mm: Thickness | None = None


class DiscFinal(Frozen):
    """A final coat scraped against a disc that sets the outside; the side thickness follows from it."""

    kind: Literal["disc"] = "disc"
    medium: Key = "meringue_buttercream"
    colour: Name | None = None
    disc_diameter_mm: Annotated[float, limits.DISC_DIAMETER.field()]
    top_mm: Thickness | None = None


class NoCover(Frozen):
    """Nothing over the final coat."""

    kind: Literal["none"] = "none"


class DrapeCover(Frozen):
    """One sheet rolled out, laid over the tier and trimmed at the board."""

    kind: Literal["drape"] = "drape"
    medium: Key = "fondant"
    colour: Name | None = None
    thickness_mm: Annotated[float, limits.FONDANT_THICKNESS.field()] | None = None
    overlap_mm: Annotated[float, limits.OVERLAP.field()] | None = None


Filling = Annotated[PlainFilling | SoftFilling, Field(discriminator="kind")]
FinalCoat = Annotated[NoFinal | FreehandFinal | DiscFinal, Field(discriminator="kind")]
Cover = Annotated[NoCover | DrapeCover, Field(discriminator="kind")]


class RoundShape(Frozen):
    """A round tin."""

    kind: Literal["round"] = "round"

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return Round(across_mm / 2)


class SquareShape(Frozen):
    """A square tin, its corners sharp or of a radius."""

    kind: Literal["square"] = "square"
    corner_mm: Corner = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Cornered(across_mm, across_mm, self.corner_mm)


class RectangleShape(Frozen):
    """A rectangular or sheet tin: `length_mm` is at right angles to the width across."""

    kind: Literal["rectangle"] = "rectangle"
    length_mm: Length
    corner_mm: Corner = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Cornered(across_mm, self.length_mm, self.corner_mm)


class PolygonShape(Frozen):
    """A hexagonal tin and its like, measured across the flats."""

    kind: Literal["polygon"] = "polygon"
    sides: Literal[6, 8, 10, 12] = 6
    corner_mm: Corner = 0.0

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across. Raises ValueError when the corners do not fit."""
        return Regular(across_mm, self.sides, self.corner_mm)


class OvalShape(Frozen):
    """An oval tin, an ellipse."""

    kind: Literal["oval"] = "oval"
    length_mm: Length

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return Oval(across_mm, self.length_mm)


class HeartShape(Frozen):
    """A heart tin."""

    kind: Literal["heart"] = "heart"

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return heart(across_mm)


class PetalShape(Frozen):
    """A petal tin: a ring of half circles."""

    kind: Literal["petal"] = "petal"
    petals: Literal[6, 8, 10, 12] = 8

    def outline(self, across_mm: float) -> Outline:
        """The tin from above, mm across."""
        return petal(across_mm, self.petals)


Shape = Annotated[
    RoundShape | SquareShape | RectangleShape | PolygonShape | OvalShape | HeartShape | PetalShape,
    Field(discriminator="kind"),
]


class Tier(Frozen):
    """One straight tier. `tin_diameter_mm` is the tin's width across, whatever its shape."""

    name: Name | None = None
    shape: Shape = RoundShape()
    tin_diameter_mm: Annotated[float, limits.TIN_DIAMETER.field()]
    layers: Layers = Layers()
    filling: Filling = PlainFilling()
    crumb: CrumbCoat = CrumbCoat()
    final: FinalCoat = FreehandFinal()
    cover: Cover = NoCover()

    @model_validator(mode="after")
    def shape_can_be_made(self) -> Self:
        """The tin's outline exists, and still does once the thickest skin is trimmed off it."""
        try:
            self.shape.outline(self.tin_diameter_mm).offset(-limits.TRIMMED_SKIN.high)
        except ValueError as error:
            raise at(("shape",), f"cannot be made: {error}") from error
        return self


class BaseBoard(Frozen):
    """The board the whole cake stands on; without a diameter it is just wide enough."""

    diameter_mm: Annotated[float, limits.BOARD_DIAMETER.field()] | None = None
    thickness_mm: Annotated[float, limits.BOARD_THICKNESS.field()] | None = None


class Colour(Frozen):
    """A colour to be mixed, by the name the kitchen calls it, and how to show it on screen."""

    name: Name
    hex: Hex


class Design(Frozen):
    """A whole cake, bottom tier first."""

    tiers: Annotated[tuple[Tier, ...], Field(min_length=int(limits.TIERS.low), max_length=int(limits.TIERS.high))]
    base_board: BaseBoard = BaseBoard()
    colours: Annotated[tuple[Colour, ...], Field(max_length=int(limits.COLOURS.high))] = ()

    @model_validator(mode="after")
    def colours_are_named(self) -> Self:
        """Every colour a step asks for is in `colours`, and no two names there could be taken for one."""
        names = [colour.name for colour in self.colours]
        slugs = [slug(name) for name in names]
        for index, name in enumerate(names):
            if slugs[index] in slugs[:index]:
                raise at(("colours", index, "name"), f"is the second colour called “{name}”; give it another name")
        for path, _, wanted in self.taken():
            if wanted is not None and wanted not in names:
                field = "dam_colour" if path[-1] == "dam_medium" else "colour"
                raise at((*path[:-1], field), f"asks for “{wanted}”, which is not among this design's colours")
        return self

    def taken(self) -> Iterator[tuple[tuple[str | int, ...], str, str | None]]:
        """Every medium the design takes: the path of the field that names it, its key, its colour."""
        for index, tier in enumerate(self.tiers):
            at_tier = ("tiers", index)
            yield (*at_tier, "filling", "medium"), tier.filling.medium, tier.filling.colour
            if isinstance(tier.filling, SoftFilling):
                yield (*at_tier, "filling", "dam_medium"), tier.filling.dam_medium, tier.filling.dam_colour
            yield (*at_tier, "crumb", "medium"), tier.crumb.medium, tier.crumb.colour
            if not isinstance(tier.final, NoFinal):
                yield (*at_tier, "final", "medium"), tier.final.medium, tier.final.colour
            if not isinstance(tier.cover, NoCover):
                yield (*at_tier, "cover", "medium"), tier.cover.medium, tier.cover.colour

    def colour_hex(self, name: str | None) -> str | None:
        """How the named colour is shown, or None where no colour is named."""
        return next((colour.hex for colour in self.colours if colour.name == name), None)
