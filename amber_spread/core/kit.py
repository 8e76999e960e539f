"""The Kit: the tins, discs, boards, scrapers, mats and sheets a kitchen owns, and what a plan needs of them.

A need is met by something owned (`have`), by the nearest that will do with what that changes (`next best`), or by
nothing (`get`).
"""

from collections.abc import Iterable, Sequence
from typing import Annotated, Literal, NamedTuple, Self

from pydantic import Field, model_validator

from amber_spread.core import limits
from amber_spread.core.base import Frozen, Made, Name, at
from amber_spread.core.figures import Figure, Unit, same

Tool = Literal["tin", "disc", "card", "board", "base board", "scraper", "smoother", "mat", "pin", "printed sheet"]
FIT_MM = 1.6
"""A tool this near the size wanted is that size: 1/16 in, the finest mark that is read (common practice)."""


BOARD_FIT_MM = 6.4
"""A board of the tin's size serves the cake trimmed out of it: the coat hides 1/4 in (common practice)."""


class Tin(Frozen):
    """A baking tin: its shape from above, its width across (and its length where that differs), and its depth."""

    shape: Literal["round", "square", "rectangle", "polygon", "oval", "heart", "petal", "ball"] = "round"
    across_mm: Annotated[float, limits.TIN_DIAMETER.field()]
    length_mm: Annotated[float, limits.TIN_LENGTH.field()] | None = None
    depth_mm: Annotated[float, limits.TIN_DEPTH.field()] = 50.8


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
Plate = Annotated[float, limits.DISC_DIAMETER.field()]
Board = Annotated[float, limits.BOARD_DIAMETER.field()]
Tall = Annotated[float, limits.SCRAPER.field()]


def _inches(*sizes: float) -> tuple[float, ...]:
    return tuple(round(size * 25.4, 2) for size in sizes)


class Kit(Frozen):
    """What the kitchen owns. The starting set is a small kitchen's: round tins in pairs, discs a little over each."""

    tins: Annotated[tuple[Tin, ...], Field(max_length=_MOST)] = tuple(
        Tin(across_mm=across) for across in _inches(4, 6, 8, 10, 12)
    ) + (Tin(shape="square", across_mm=203.2), Tin(shape="ball", across_mm=152.4, depth_mm=76.2))
    discs_mm: Annotated[tuple[Plate, ...], Field(max_length=_MOST)] = _inches(4.25, 6.25, 8.25, 10.25)
    boards_mm: Annotated[tuple[Board, ...], Field(max_length=_MOST)] = _inches(4, 5, 6, 7, 8, 10, 12, 13, 14, 16)
    scrapers_mm: Annotated[tuple[Tall, ...], Field(max_length=_MOST)] = _inches(4, 6, 10)
    smoothers: Annotated[int, limits.OWNED.field()] = 2
    mat: Mat = Mat()
    pin_mm: Annotated[float, limits.PIN.field()] = 508.0
    sheets: Annotated[tuple[PrintedSheet, ...], Field(max_length=_MOST)] = (PrintedSheet(),)

    @model_validator(mode="after")
    def each_once(self) -> Self:
        """Nothing is listed twice."""
        for field in ("tins", "discs_mm", "boards_mm", "scrapers_mm", "sheets"):
            owned = getattr(self, field)
            for index, one in enumerate(owned):
                if one in owned[:index]:
                    raise at((field, index), "is listed twice")
        return self


STARTING = Kit()
"""The starting set."""


class Need(NamedTuple):
    """A tool a step asks for: which, for which tier (from 1; None the whole cake), of what size in mm (of smoothers:
    how many).

    `least_mm` is the smallest that still does the work, `wider` whether a larger one does it as well.
    """

    tool: Tool
    tier: int | None
    size_mm: float
    least_mm: float
    wider: bool = False
    shape: str = "round"
    length_mm: float | None = None


class KitNeed(Made):
    """A need held against the kit; `owned` is what would serve, and `changes` what that alters."""

    tool: Tool
    tier: int | None
    shape: str
    size: Figure
    length: Figure | None
    status: Literal["have", "next best", "get"]
    owned: Figure | None
    changes: str


def _owned_sizes(need: Need, kit: Kit) -> list[float]:
    match need.tool:
        case "tin":
            return [tin.across_mm for tin in kit.tins if tin.shape == need.shape and _length_fits(tin, need)]
        case "disc":
            return list(kit.discs_mm)
        case "card":
            return [*kit.boards_mm, *kit.discs_mm]
        case "board" | "base board":
            return list(kit.boards_mm)
        case "scraper":
            return list(kit.scrapers_mm)
        case "smoother":
            return [float(kit.smoothers)] if kit.smoothers else []
        case "mat":
            return [max(kit.mat.width_mm, kit.mat.length_mm)]
        case "pin":
            return [kit.pin_mm]
        case "printed sheet":
            return [sheet.width_mm for sheet in kit.sheets if abs(sheet.height_mm - (need.length_mm or 0)) <= FIT_MM]


def _length_fits(tin: Tin, need: Need) -> bool:
    return need.length_mm is None or (tin.length_mm is not None and abs(tin.length_mm - need.length_mm) <= FIT_MM)


CHANGES: dict[Tool, tuple[str, str]] = {
    "tin": ("The tier comes out narrower.", "The tier comes out wider; trim it, or change the design to it."),
    "disc": ("The coat comes out thinner.", "The coat comes out thicker and takes more."),
    "card": ("The coat comes out thinner.", "The coat comes out thicker and takes more."),
    "board": ("The cake stands over its board: cut the coat back.", "The board shows: cut it down to size."),
    "base board": ("There is less board to be seen round the cake.", "There is more board to be seen round the cake."),
    "scraper": ("It does not reach the top: work in two passes.", ""),
    "smoother": ("Smooth one face at a time, with a flat hand against it.", ""),
    "mat": ("Roll on the bare worktop, or in pieces.", ""),
    "pin": ("Roll from the middle in turns.", ""),
    "printed sheet": ("It takes more sheets.", "It takes fewer sheets."),
}
"""What the nearest smaller and the nearest larger tool change."""


def match_needs(needs: Iterable[Need], kit: Kit) -> list[KitNeed]:
    """Hold every need against the kit, in the order given; the same need of the same tier is listed once."""
    found: list[KitNeed] = []
    for need in dict.fromkeys(needs):
        status, owned, changes = _match(need, _owned_sizes(need, kit))
        unit: Unit = "each" if need.tool == "smoother" else "mm"
        found.append(
            KitNeed(
                tool=need.tool,
                tier=need.tier,
                shape=need.shape,
                size=same("size the plan asks for", need.size_mm, unit),
                length=None if need.length_mm is None else same("length the plan asks for", need.length_mm, "mm"),
                status=status,
                owned=None if owned is None else same("size owned", owned, unit),
                changes=changes,
            )
        )
    return found


def _match(need: Need, owned: Sequence[float]) -> tuple[Literal["have", "next best", "get"], float | None, str]:
    fit_mm = {"board": BOARD_FIT_MM, "smoother": 0.0}.get(need.tool, FIT_MM)
    enough = [size for size in owned if size >= need.size_mm - fit_mm]
    if enough and (need.wider or min(enough) <= need.size_mm + fit_mm):
        return "have", min(enough), ""
    near = [size for size in owned if need.least_mm - 1e-6 <= size and (need.wider or size <= 1.35 * need.size_mm)]
    if not near:
        return "get", None, ""
    best = min(near, key=lambda size: (abs(size - need.size_mm), -size))
    smaller, larger = CHANGES[need.tool]
    return "next best", best, smaller if best < need.size_mm else larger
