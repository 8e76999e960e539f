"""The Design: what the decorator decided. Tiers are listed from the bottom up.

A field left out (null) takes this kitchen's usual from the Practice.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from amber_spread.core.design.builds import Build, StraightBuild
from amber_spread.core.design.finishes import (
    Border,
    Cover,
    CrumbCoat,
    Filling,
    FinalCoat,
    FreehandFinal,
    Measured,
    NoCover,
    OnTop,
    PipedRegion,
    PlainFilling,
    Syrup,
)
from amber_spread.core.design.part_ids import Identified, with_ids
from amber_spread.core.design.shapes import RoundShape, Shape
from amber_spread.core.design.stands import StackedStand, Stacking, Stand
from amber_spread.core.design.taken import Taken, TakesMore
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Hex, Key, Name, Usual, at, printable, slug

StepKey = Annotated[str, StringConstraints(pattern=r"^tier_[a-z0-9]{1,12}_[a-z_]{1,20}$")]
"""A step of a bowl, as the plan names it, with the id of its tier: `tier_1_cover`."""
LayerHeight = Annotated[float, limits.LAYER_HEIGHT.field()]


class MeasuredBake(Frozen):
    """The baked layers as they came out: the low edge of each, and into how many slices each is torted."""

    kind: Literal["measured"] = "measured"
    edges_mm: Annotated[tuple[LayerHeight, ...], Field(min_length=1, max_length=int(limits.LAYER_COUNT.high))]
    torte: Annotated[int, limits.TORTE.field()] = 1


class TinBake(Frozen):
    """Layers still to be baked, in tins of a depth, each to be torted into so many slices."""

    kind: Literal["tin"] = "tin"
    depth_mm: Annotated[float, limits.TIN_DEPTH.field()] = 50.8
    torte: Annotated[int, limits.TORTE.field()] = 1


class Cavity(Frozen):
    """A hidden cavity cut into the middle for sweets: a cylinder through the layers from `first` to `last`.

    Left out, it stands on the bottom layer and ends below the top one; from the first layer on, it goes down to the
    board. `filled_with` is the key of what is bought to fill it, `fill_g_per_ml` what a ml of that weighs, heaped.
    """

    diameter_mm: Annotated[float, limits.CAVITY.field()]
    first: Annotated[int, limits.LAYER_COUNT.field()] | None = None
    last: Annotated[int, limits.LAYER_COUNT.field()] | None = None
    filled_with: Key | None = None
    fill_g_per_ml: Annotated[Annotated[float, limits.DENSITY.field()] | None, Usual("sweets_g_per_ml")] = None

    def layers(self, count: int) -> tuple[int, int]:
        """The first and the last layer it goes through, of so many."""
        first = (2 if count > 2 else 1) if self.first is None else self.first
        return first, count - 1 if self.last is None else self.last


class Layers(Frozen):
    """The layers of a tier: how many are stacked, how high each is cut, what they are cut from, and what reaches what.

    `cake` is the key of the recipe they are baked by.
    `height_mm` null takes the common cut that `bake` allows. `board_after` puts a hidden board on supports above
    that layer, so that two stacks are iced as one; a little `board_medium` keeps what stands on it from sliding.
    `dome_mm` is how much of the baked dome is left on the top layer of a tier that is carved; any other is levelled.
    """

    cake: Key = "vanilla_sponge"
    count: Annotated[int, limits.LAYER_COUNT.field()] = 3
    height_mm: LayerHeight | None = 30.0
    target_height_mm: Annotated[float, limits.TARGET_HEIGHT.field()] | None = None
    bake: Annotated[MeasuredBake | TinBake, Field(discriminator="kind")] | None = None
    board_after: Annotated[int, limits.BOARD_AFTER.field()] | None = None
    board_medium: Key = "dark_chocolate"
    cavity: Cavity | None = None
    syrup: Syrup | None = None
    dome_mm: Annotated[float, limits.DOME_LEFT.field()] | None = None

    @model_validator(mode="after")
    def board_lies_between_layers(self) -> Self:
        """A hidden board has a layer below and above it; a cut height comes from somewhere; a cavity has a lid."""
        if self.board_after is not None and self.board_after >= self.count:
            raise at(("board_after",), f"should be below the {self.count} layers' last, {self.count - 1} or less")
        if self.height_mm is None and self.bake is None:
            raise at(("height_mm",), "is needed where the baked layers are not described")
        if self.cavity is not None:
            first, last = self.cavity.layers(self.count)
            if last >= self.count or self.count < 2:
                raise at(
                    ("cavity",), f"needs a layer above it for a lid: let it end in layer {self.count - 1} or lower"
                )
            if first > last:
                raise at(("cavity",), "begins above the layer it ends in")
            if self.board_after is not None and first <= self.board_after <= last:
                raise at(("cavity",), "cannot go through the hidden board, or end right below it")
        return self


class Tier(Identified):
    """One tier. `tin_diameter_mm` is the tin's width across, whatever its shape; `build` carries the shape up.

    `stand` says how it stands on the tier below; of the lowest it says nothing.
    """

    name: Name | None = None
    shape: Shape = RoundShape()
    build: Build = StraightBuild()
    tin_diameter_mm: Annotated[float, limits.TIN_DIAMETER.field()]
    layers: Layers = Layers()
    filling: Filling = PlainFilling()
    crumb: CrumbCoat = CrumbCoat()
    measured: Measured | None = None
    final: FinalCoat = FreehandFinal()
    cover: Cover = NoCover()
    on_top: Annotated[tuple[OnTop, ...], Field(max_length=int(limits.ON_TOPS.high)), AfterValidator(with_ids)] = ()
    borders: Annotated[tuple[Border, ...], Field(max_length=int(limits.BORDERS.high)), AfterValidator(with_ids)] = ()
    regions: Annotated[
        tuple[PipedRegion, ...], Field(max_length=int(limits.REGIONS.high)), AfterValidator(with_ids)
    ] = ()
    stand: Stand = StackedStand()

    @model_validator(mode="after")
    def turned_builds_are_round(self) -> Self:
        """What is turned about the axis comes out of a round tin; what has an outline of its own takes no other."""
        if self.build.round_only and not isinstance(self.shape, RoundShape):
            if self.build.own_outline:
                raise at(("build",), "has an outline of its own, so its shape must be left round")
            raise at(("build",), "is turned about the axis, so the tin must be round")
        return self

    @model_validator(mode="after")
    def regions_are_piped_on_what_stands_upright(self) -> Self:
        """A drum on its side has no height of its own to pipe along."""
        if self.regions and self.build.on_side:
            raise at(("regions",), "are piped on a tier that stands upright; this one lies on its side")
        return self

    def taken(self) -> Iterator[Taken]:
        """Every medium the tier takes: the path of the field that names it, its key, its colour."""
        parts: list[tuple[tuple[str | int, ...], object]] = [
            (("layers", "syrup"), self.layers.syrup), (("filling",), self.filling), (("crumb",), self.crumb),
            (("final",), self.final), (("cover",), self.cover),
            *((("on_top", index), top) for index, top in enumerate(self.on_top)),
            *((("borders", index), border) for index, border in enumerate(self.borders)),
            *((("regions", index), region) for index, region in enumerate(self.regions)),
            (("build",), self.build),
        ]  # fmt: skip
        for path, part in parts:
            medium = getattr(part, "medium", None)
            if medium is not None:
                yield (*path, "medium"), medium, getattr(part, "colour", None)
            if isinstance(part, TakesMore):
                yield from (((*path, *field), key, colour) for field, key, colour in part.also_takes())
        if self.layers.board_after is not None:
            yield ("layers", "board_medium"), self.layers.board_medium, None
        for field in ("glue_medium", "bead_medium"):
            own = getattr(self.stand, field)
            if own is not None:
                yield ("stand", field), own, None


class BaseBoard(Frozen):
    """The board the whole cake stands on; without a size it is just large enough, without a shape of the cake's own.

    `diameter_mm` is its width across, whatever its shape.
    """

    shape: Literal["round", "square", "rectangle", "oval", "outline"] | None = None
    diameter_mm: Annotated[float, limits.BOARD_DIAMETER.field()] | None = None
    length_mm: Annotated[float, limits.BOARD_DIAMETER.field()] | None = None
    thickness_mm: Annotated[Annotated[float, limits.BOARD_THICKNESS.field()] | None, Usual("base_board_mm")] = None


class ColourPart(Frozen):
    """So many parts of another colour, or of the uncoloured medium where no colour is named."""

    colour: Name | None = None
    parts: Annotated[float, limits.PARTS.field()] = 1.0


class Colour(Identified):
    """A colour to be mixed, by the name the kitchen calls it, and how to show it on screen.

    Made of `parts` it is blended from other colours: a lighter shade, or a marble kneaded only until it is streaked.
    """

    name: Name
    hex: Hex
    parts: Annotated[tuple[ColourPart, ...], Field(max_length=int(limits.COLOUR_PARTS.high))] = ()
    marbled: bool = False


class BowlOrder(Frozen):
    """What was decided of one bowl, by its key: the order it is worked in, and what of it is there already.

    Without steps the order that needs least is taken. A step that is not there is left out, one that is not named comes
    after, and each tier keeps the order of the work.
    """

    bowl: Annotated[str, StringConstraints(min_length=1, max_length=160), AfterValidator(printable)]
    steps: Annotated[tuple[StepKey, ...], Field(max_length=300)] = ()
    have_g: Annotated[float, limits.IN_HAND.field()] | None = None


class Design(Frozen):
    """A whole cake, bottom tier first."""

    tiers: Annotated[
        tuple[Tier, ...],
        Field(min_length=int(limits.TIERS.low), max_length=int(limits.TIERS.high)),
        AfterValidator(with_ids),
    ]
    base_board: BaseBoard = BaseBoard()
    stacking: Stacking = Stacking()
    orders: Annotated[tuple[BowlOrder, ...], Field(max_length=int(limits.BOWL_ORDERS.high))] = ()
    colours: Annotated[tuple[Colour, ...], Field(max_length=int(limits.COLOURS.high)), AfterValidator(with_ids)] = ()

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

    @model_validator(mode="after")
    def colours_can_be_blended(self) -> Self:
        """Every part of a colour is a colour of this design, two or more make one, and none is made of itself."""
        made_of = {colour.name: [part.colour for part in colour.parts] for colour in self.colours}
        for index, colour in enumerate(self.colours):
            if len(colour.parts) == 1:
                raise at(("colours", index, "parts"), "should be two or more, or none")
            for number, part in enumerate(colour.parts):
                where = ("colours", index, "parts", number, "colour")
                if part.colour is not None and part.colour not in made_of:
                    raise at(where, f"names “{part.colour}”, which is not among this design's colours")
                if part.colour in [one.colour for one in colour.parts[:number]]:
                    raise at(where, "is named twice; add its parts up")
                if part.colour is not None and colour.name in _blended_of(part.colour, made_of):
                    raise at(where, f"would make “{colour.name}” of itself")
        return self

    def taken(self) -> Iterator[Taken]:
        """Every medium the design takes: the path of the field that names it, its key, its colour."""
        for index, tier in enumerate(self.tiers):
            for path, key, colour in tier.taken():
                yield ("tiers", index, *path), key, colour

    def colour_hex(self, name: str | None) -> str | None:
        """How the named colour is shown, or None where no colour is named."""
        return next((colour.hex for colour in self.colours if colour.name == name), None)


def _blended_of(name: str, made_of: Mapping[str, Sequence[str | None]]) -> set[str]:
    """A colour and everything it is blended of, however far down."""
    found: set[str] = set()
    left = [name]
    while left:
        one = left.pop()
        if one not in found:
            found.add(one)
            left.extend(part for part in made_of.get(one, ()) if part is not None)
    return found
