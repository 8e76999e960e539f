"""The Kit: the tins, discs, boards, scrapers, mats and sheets a kitchen owns, and what a plan needs of them.

A need is met by something owned (`have`), by the nearest that will do with what that changes (`next best`), or by
nothing (`get`).
"""

import math
from collections.abc import Iterable, Sequence
from functools import cached_property
from typing import Annotated, Literal, NamedTuple, Self, get_args

from pydantic import Field, model_validator

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, FrozenDict, Interned, Name, PlanPart, at
from amber_spread.core.kernel.caching import cached
from amber_spread.core.kernel.figures import Figure, Rounding, Unit, carry_over
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.supports import STARTING_SUPPORTS, Support

TinShape = Literal["round", "square", "rectangle", "polygon", "oval", "heart", "petal", "ball"]
TIN_WORDS: dict[TinShape, str] = {shape: shape for shape in get_args(TinShape)} | {"ball": "half-ball"}
"""What a tin of each shape is called."""
Status = Literal["have", "next best", "get"]
Tool = Literal["tin", "disc", "card", "board", "base board", "scraper", "smoother", "mat", "pin", "printed sheet"]
FIT_MM = 1.6
"""A tool this near the size wanted is that size: 1/16 in, the finest mark that is read (common practice)."""


BOARD_LESS_MM, BOARD_FIT_MM = 6.4, 9.6
"""A board so much smaller than the cake still serves: the coat hangs over it by 1/8 in. And one of the tin's size
serves the cake that came out of it, which is narrower by up to 3/8 in (common practice).
"""


class Tin(Frozen):
    """A baking tin: its shape from above, its width across (and its length where that differs), and its depth.

    A rectangle or an oval without a length serves for none, since nothing says how long it is.
    """

    shape: TinShape = "round"
    across_mm: Annotated[float, limits.TIN_DIAMETER.field()]
    length_mm: Annotated[float, limits.TIN_LENGTH.field()] | None = None
    depth_mm: Annotated[float, limits.TIN_DEPTH.field()] = 50.8


class ShapedBoard(Frozen):
    """A board that is not round: its width across, and its length where that differs."""

    shape: Literal["square", "rectangle", "oval"] = "square"
    across_mm: Annotated[float, limits.BOARD_DIAMETER.field()]
    length_mm: Annotated[float, limits.BOARD_DIAMETER.field()] | None = None

    @model_validator(mode="after")
    def oblong_has_its_length(self) -> Self:
        """A rectangle or an oval has a length of its own."""
        if self.shape != "square" and self.length_mm is None:
            raise at(("length_mm",), f"is needed for {'an oval' if self.shape == 'oval' else 'a rectangle'}")
        return self


class Mat(Frozen):
    """The surface fondant is rolled on."""

    width_mm: Annotated[float, limits.MAT_SIDE.field()] = 762.0
    length_mm: Annotated[float, limits.MAT_SIDE.field()] = 609.6


class PrintedSheet(Frozen):
    """A ready-made sheet to print on or already printed."""

    name: Name = "Icing sheet"
    width_mm: Annotated[float, limits.SHEET_SIDE.field()] = 254.0
    height_mm: Annotated[float, limits.SHEET_SIDE.field()] = 203.2


_MOST = int(limits.OWNED.high)
DiscSize = Annotated[float, limits.DISC_DIAMETER.field()]
Board = Annotated[float, limits.BOARD_DIAMETER.field()]
Tall = Annotated[float, limits.SCRAPER.field()]


def _inches(*sizes: float) -> tuple[float, ...]:
    return tuple(round(size * 25.4, 2) for size in sizes)


class Owned(NamedTuple):
    """Something owned that may serve: its shape, its size, its length and depth where they matter."""

    shape: str
    size: float
    length: float | None = None
    deep: float | None = None


class Kit(Frozen):
    """What the kitchen owns. The starting set is a small kitchen's: round tins in pairs, discs a little over each.

    `boards_mm` are its round boards; `shaped_boards` the square, rectangular and oval ones.
    """

    tins: Annotated[tuple[Tin, ...], Field(max_length=_MOST)] = tuple(
        Tin(across_mm=across) for across in _inches(4, 6, 8, 10, 12)
    ) + (Tin(shape="square", across_mm=203.2), Tin(shape="ball", across_mm=152.4, depth_mm=76.2))
    discs_mm: Annotated[tuple[DiscSize, ...], Field(max_length=_MOST)] = _inches(4.25, 6.25, 8.25, 10.25)
    boards_mm: Annotated[tuple[Board, ...], Field(max_length=_MOST)] = _inches(4, 5, 6, 7, 8, 10, 12, 13, 14, 16)
    shaped_boards: Annotated[tuple[ShapedBoard, ...], Field(max_length=_MOST)] = ()
    scrapers_mm: Annotated[tuple[Tall, ...], Field(max_length=_MOST)] = _inches(4, 6, 10)
    smoothers: Annotated[int, limits.OWNED.field()] = 2
    mat: Mat = Mat()
    pin_mm: Annotated[float, limits.PIN.field()] = 508.0
    sheets: Annotated[tuple[PrintedSheet, ...], Field(max_length=_MOST)] = (PrintedSheet(),)
    supports: Annotated[tuple[Support, ...], Field(max_length=8)] = STARTING_SUPPORTS

    @model_validator(mode="after")
    def each_once(self) -> Self:
        """Nothing is listed twice."""
        for field in ("tins", "discs_mm", "boards_mm", "shaped_boards", "scrapers_mm", "sheets"):
            owned = getattr(self, field)
            for index, one in enumerate(owned):
                if one in owned[:index]:
                    raise at((field, index), "is listed twice")
        sorts = [one.sort for one in self.supports]
        for index, sort in enumerate(sorts):
            if sort in sorts[:index]:
                raise at(("supports", index), "is the second line for that sort; keep the one you use")
        return self

    @cached_property
    def owned(self) -> dict[Tool, list[Owned]]:
        """What of it may serve for each tool."""
        rounds = [Owned("round", size) for size in self.boards_mm]
        discs = [Owned("round", size) for size in self.discs_mm]
        boards = rounds + [Owned(one.shape, one.across_mm, one.length_mm) for one in self.shaped_boards]
        return {
            "tin": [Owned(tin.shape, tin.across_mm, tin.length_mm, tin.depth_mm) for tin in self.tins],
            "disc": discs,
            "card": rounds + discs,
            "board": boards,
            "base board": boards,
            "scraper": [Owned("round", size) for size in self.scrapers_mm],
            "smoother": [Owned("round", float(self.smoothers))] if self.smoothers else [],
            "mat": [Owned("round", max(self.mat.width_mm, self.mat.length_mm))],
            "pin": [Owned("round", self.pin_mm)],
            "printed sheet": [Owned("round", sheet.width_mm, sheet.height_mm) for sheet in self.sheets],
        }


STARTING = Kit()
"""The starting set."""


class Measure(NamedTuple):
    """How much of something is asked for, and which way it is rounded: as the plan's own figure, so that it is read
    the same here.
    """

    value: float
    unit: Unit = "mm"
    rounding: Rounding = "nearest"


def measure(figure: Figure) -> Measure:
    """What a figure of the plan says, by itself."""
    return Measure(figure.value, figure.unit, figure.rounding)


class Need(NamedTuple):
    """A tool a step asks for: which, for which tier (from 1; None the whole cake), its size (of smoothers: how many).

    `least` is how much smaller still does the work; `wider` whether a larger one does it as well; `deep` how deep a
    tin must be at least.
    """

    tool: Tool
    tier: int | None
    size: Measure
    least: float
    wider: bool = False
    shape: str = "round"
    length: Measure | None = None
    many: int = 1
    deep: Measure | None = None


class KitNeed(PlanPart):
    """A need held against the kit; `owned` is what would serve, and `changes` what that alters.

    What `leaves` goes out with the cake and is bought again; the sizes of it in the kit are those this kitchen uses.
    """

    tool: Tool
    tier: int | None
    shape: str
    size: Figure
    length: Figure | None
    deep: Figure | None
    count: int
    status: Status
    leaves: bool
    owned: Figure | None
    owned_length: Figure | None
    owned_shape: str | None
    changes: str


LEAVES: tuple[Tool, ...] = ("board", "base board", "printed sheet")
"""What goes out with the cake, so that no kitchen owns it for long."""
CHANGES: dict[Tool, tuple[str, str]] = {
    "tin": ("The tier comes out narrower.", "The tier comes out wider; trim it, or change the design to it."),
    "disc": ("The coat comes out thinner.", "The coat comes out thicker and takes more."),
    "card": ("The coat comes out thinner.", "The coat comes out thicker and takes more."),
    "board": (
        "The cake stands over its board: cut the coat back.",
        "Trim it to the cake once the crumb coat is firm; or build on it, a dab between, and slide the cold tier off.",
    ),
    "base board": ("There is less board to be seen round the cake.", "There is more board to be seen round the cake."),
    "scraper": ("It does not reach the top: work in two passes.", ""),
    "smoother": ("Smooth one face at a time, with a flat hand against it.", ""),
    "mat": ("Roll on the bare worktop, or in pieces.", ""),
    "pin": ("Roll from the middle in turns.", ""),
    "printed sheet": ("It takes more sheets.", "It takes fewer sheets."),
}
"""What the nearest smaller and the nearest larger tool change."""
CUT_DOWN = "Draw round the cake's own outline on it and cut it down."
OTHER_SHAPE = "It is of another shape: more board shows at some sides than at others."
DEEPER = "The tin is too shallow for this cut: bake more, thinner layers, or line it higher than its rim."


def kit_of(needs: Iterable[Need], kit: Interned[Kit]) -> dict[str, KitNeed]:
    """Every need held against the kit, in the order given and numbered from 1; the same need of the same tier is
    listed once. What was met before, of a kit that is the same, is met again without looking.
    """
    return FrozenDict({f"need_{number}": _met(number, need, kit) for number, need in enumerate(_each_once(needs), 1)})


def _each_once(needs: Iterable[Need]) -> Iterable[Need]:
    found: dict[tuple[Tool, int | None, str, float, float], Need] = {}
    for need in needs:
        key = (need.tool, need.tier, need.shape, need.size.value, need.length.value if need.length else 0.0)
        found.setdefault(key, need)
    return found.values()


@cached(4096)
def _met(number: int, need: Need, kit: Interned[Kit]) -> KitNeed:
    served = _match(need, kit.value.owned[need.tool])
    best = served.owned
    found = KitNeed(
        tool=need.tool,
        tier=need.tier,
        shape=need.shape,
        size=carry_over("size the plan asks for", *need.size),
        length=_again("length the plan asks for", need.length),
        deep=_again("depth it takes to bake this high", need.deep),
        count=need.many,
        status=served.status,
        leaves=need.tool in LEAVES,
        owned=None if best is None else carry_over("size owned", best.size, need.size.unit),
        owned_length=None if best is None or best.length is None else carry_over("length owned", best.length, "mm"),
        owned_shape=None if best is None else best.shape,
        changes=served.changes,
    )
    return named(found, f"kit.need_{number}")


def _again(name: str, measure: Measure | None) -> Figure | None:
    return None if measure is None else carry_over(name, *measure)


class Served(NamedTuple):
    """How a need is met: by what, and what that changes."""

    status: Status
    owned: Owned | None
    changes: str


def _match(need: Need, owned: Sequence[Owned]) -> Served:
    if need.tool in ("board", "base board"):
        return _match_board(need, owned)
    fit = {"smoother": 0.0}.get(need.tool, FIT_MM)
    like = [one for one in owned if one.shape == need.shape and _length_fits(one, need)]
    if need.deep is not None:
        shallow = need.deep.value - fit
        deep = [one for one in like if one.deep is not None and one.deep >= shallow]
        if not deep and like:
            near = _nearest(need, like, fit)
            return near if near.owned is None else Served("next best", near.owned, DEEPER)
        like = deep
    return _nearest(need, like, fit)


def _nearest(need: Need, owned: Sequence[Owned], fit: float) -> Served:
    size = need.size.value
    enough = [one for one in owned if one.size >= size - fit]
    if enough:
        least = min(enough, key=lambda one: one.size)
        if need.wider or least.size <= size + fit:
            return Served("have", least, "")
    near = [one for one in owned if need.least - 1e-6 <= one.size and (need.wider or one.size <= 1.35 * size)]
    if not near:
        return Served("get", None, "")
    best = min(near, key=lambda one: (abs(one.size - size), -one.size))
    smaller, larger = CHANGES[need.tool]
    return Served("next best", best, smaller if best.size < size else larger)


def _match_board(need: Need, owned: Sequence[Owned]) -> Served:
    """A board of the shape wanted; else one that holds it, to be cut down or to show more; else one a little small."""
    less, fit = (BOARD_LESS_MM, BOARD_FIT_MM) if need.tool == "board" else (FIT_MM, FIT_MM)
    across, along = need.size.value, need.length.value if need.length else need.size.value
    like = [one for one in owned if one.shape == need.shape]
    holding = [one for one in owned if _holds(one, need.shape, across - less, along - less)]
    own = [one for one in holding if one in like]
    if own:
        least = min(own, key=_board_area)
        if need.wider or (least.size <= across + fit and (least.length or least.size) <= along + fit):
            return Served("have", least, "")
    room = (1.7 if need.shape == "outline" else 1.5) * max(across, along)
    near = [one for one in holding if need.wider or max(one.size, one.length or 0.0) <= room]
    if near:
        best = min(near, key=_board_area)
        if need.tool == "base board":
            return Served("next best", best, OTHER_SHAPE)
        larger = CHANGES["board"][1] if best.shape == need.shape else CUT_DOWN
        return Served("next best", best, larger)
    shrink = need.least / across
    small = [one for one in like if _holds(one, need.shape, across * shrink - 1e-6, along * shrink - 1e-6)]
    if not small:
        return Served("get", None, "")
    return Served("next best", max(small, key=_board_area), CHANGES[need.tool][0])


def _board_area(one: Owned) -> float:
    return one.size * (one.length or one.size)


def _holds(one: Owned, shape: str, across_mm: float, along_mm: float) -> bool:
    """Whether a board of that shape and size lies within one owned, either way round. Source: geometry.

    What is cut to an outline is taken as the box round it.
    """
    wide, long = sorted((one.size, one.length or one.size))
    short, tall = sorted((across_mm, along_mm))
    if one.shape == "round":
        return wide >= (math.hypot(short, tall) if shape in ("square", "rectangle", "outline") else tall) - 1e-9
    if one.shape == "oval" and shape in ("square", "rectangle", "outline"):
        return (short / wide) ** 2 + (tall / long) ** 2 <= 1 + 1e-9
    return short <= wide + 1e-9 and tall <= long + 1e-9


def _length_fits(one: Owned, need: Need) -> bool:
    if need.tool == "printed sheet":
        return one.length is not None and need.length is not None and abs(one.length - need.length.value) <= FIT_MM
    if need.length is None:
        return one.length is None or abs(one.length - one.size) <= FIT_MM
    return one.length is not None and abs(one.length - need.length.value) <= FIT_MM
