"""One row for every kind there is: its words for people, what it asks for, what it takes, and how a new one begins.

The rooms of the work, the quick line, the checks, the kit, the handbook and the screens read these rows. A row stands
beside the type of its kind; the function that works the kind stands in its room, by the same name.
"""

from collections.abc import Mapping
from functools import cache
from typing import Any, Literal, NamedTuple

from pydantic import BaseModel, JsonValue
from pydantic_core import to_jsonable_python

from amber_spread.core.design.design import Cavity, Layers, MeasuredBake, Tier, TinBake
from amber_spread.core.design.finishes import (
    Border,
    BoxCover,
    CollarCover,
    CrumbCoat,
    DeckledFinal,
    DiscFinal,
    DrapeCover,
    FreehandFinal,
    GoresCover,
    HalvesCover,
    InvertedFinal,
    Measured,
    NoCover,
    NoFinal,
    OnTop,
    PanelCover,
    PatchesCover,
    PlainFilling,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    Syrup,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
)
from amber_spread.core.design.shapes import (
    BallBuild,
    BevelledBuild,
    CarvedBuild,
    DomedBuild,
    FreeShape,
    HeartShape,
    JoinedBuild,
    ModelledBuild,
    OvalShape,
    PetalShape,
    PolygonShape,
    RectangleShape,
    RoundShape,
    SideBuild,
    SquareShape,
    StraightBuild,
    TaperedBuild,
    TurnedBuild,
)
from amber_spread.core.design.silhouettes import ACROSS_MM, from_above, from_the_side, of_solid
from amber_spread.core.design.solids import (
    BallSolid,
    BoxSolid,
    ConeSolid,
    RaisedSolid,
    RingSolid,
    SpunSolid,
    WedgeSolid,
)
from amber_spread.core.design.stands import PillarsStand, RiserStand, StackedStand
from amber_spread.core.geometry.packed import packed
from amber_spread.core.geometry.pebble import pebble
from amber_spread.core.kernel.base import Frozen, Usual
from amber_spread.core.stock.supports import SORTS


class Ask(Frozen):
    """A number that a part of a design asks for: its field, what it is called, the limit it keeps to.

    `usual` is the value of the practice that is taken where it is left open, `left` what stands in the field then where
    there is none; `percent` one that is shown in hundredths.
    """

    field: str
    words: str
    limit: str
    usual: str | None = None
    left: str | None = None
    percent: bool = False


class Choice(Frozen):
    """One of a few ways, as it stands in the file and as people say it."""

    value: str | int | bool | None
    words: str


class Pick(Frozen):
    """A choice that a part of a design asks for."""

    field: str
    words: str
    choices: tuple[Choice, ...]


class Kind(Frozen):
    """One kind of a part of a design.

    In words: what it is called on a button, what is done (“drawn freehand”), what it is called in a sentence, and what
    else the quick line reads for it; `leading` is the field a bare length there sets. A new one begins as `begins`, its
    sizes shares of the tin (`of_tin`), with what the one before it had of `keeps`.

    In the work: the kinds of medium it takes, its technique in the practice, the disc or card it is scraped against and
    how many of those and of papers; whether a scraper and smoothers go over it; the builds it suits; whether it is cut
    out of a larger sheet. `crumb` is the usual of the crumb coat below it, where that is another. What is `round_only`
    comes out of a round tin alone, and what has its `own_outline` takes no shape but its own. `icon` is
    its silhouette, a path in a box of 24 by 24.
    """

    kind: str
    words: str
    does: str = ""
    called: str = ""
    said: tuple[str, ...] = ()
    leading: str | None = None
    asks: tuple[Ask, ...] = ()
    picks: tuple[Pick, ...] = ()
    begins: dict[str, JsonValue] = {}
    of_tin: dict[str, float] = {}
    keeps: tuple[str, ...] = ()
    media: tuple[str, ...] = ()
    technique: str = ""
    plate: Literal["disc", "card"] | None = None
    plates: int = 0
    papers: int = 0
    scraper: bool = False
    smoother: bool = False
    suits: tuple[str, ...] = ()
    cut_out: bool = False
    crumb: str | None = None
    round_only: bool = False
    own_outline: bool = False
    icon: str = ""


class DesignPart(NamedTuple):
    """A part of a tier: where it stands in it, the word the quick line opens it with, its kinds, and whether a tier may
    have several. One that is `left` says nothing where it is as it would be left.
    """

    path: tuple[str, ...]
    word: str
    kinds: dict[type[BaseModel], Kind]
    many: bool = False
    left: bool = False


COATS = ("buttercream", "ganache", "frosting")
"""The kinds of medium that serve as a coat below and around."""
FINAL_COATS = (*COATS, "glaze")
FILLINGS = (*COATS, "filling")
SHEETS = ("fondant",)
CHOCOLATES = ("chocolate",)
SPREAD = ("medium", "colour", "top_mm")
"""What a new final coat keeps of the one before."""
ROLLED = ("medium", "colour")


@cache
def usuals_of(model: type[BaseModel]) -> Mapping[str, str]:
    """Every field of a part of a design that may be left open, and the field of the practice that is taken then."""
    return {
        name: one.name for name, field in model.model_fields.items() for one in field.metadata if isinstance(one, Usual)
    }


def ask(field: str, words: str, limit: str, left: str | None = None, percent: bool = False) -> Ask:
    """A number that a kind asks for."""
    return Ask(field=field, words=words, limit=limit, left=left, percent=percent)


def pick(field: str, words: str, *choices: tuple[str | int | bool | None, str]) -> Pick:
    """A choice that a kind asks for."""
    return Pick(field=field, words=words, choices=tuple(Choice(value=value, words=said) for value, said in choices))


def _kind(model: type[BaseModel], words: str, *asked: Ask | Pick, **more: Any) -> tuple[type[BaseModel], Kind]:
    """A row, with what the type itself says: its name, the usual of each field, what it is where nothing is said."""
    usual = usuals_of(model)
    own = {name: each.get_default() for name, each in model.model_fields.items() if not each.is_required()}
    kept = {name: one for name, one in own.items() if one is not None and not isinstance(one, BaseModel)}
    begins = {name: to_jsonable_python(one) for name, one in kept.items()}
    begins |= more.pop("begins", {})
    return model, Kind(
        kind=own.get("kind", ""),
        words=words,
        asks=tuple(one.model_copy(update={"usual": usual.get(one.field)}) for one in asked if isinstance(one, Ask)),
        picks=tuple(one for one in asked if isinstance(one, Pick)),
        begins=begins,
        icon=_icon(model, begins | {name: share * ACROSS_MM for name, share in more.get("of_tin", {}).items()}),
        round_only=getattr(model, "round_only", False),
        own_outline=getattr(model, "own_outline", False),
        **more,
    )


def _icon(model: Any, begins: dict[str, Any]) -> str:
    """The silhouette of a shape or a build as it begins; nothing of any other part."""
    if hasattr(model, "outline"):
        return from_above(model(**begins).outline(ACROSS_MM))
    if hasattr(model, "itself"):
        return of_solid(model(**begins).itself())
    return from_the_side(model(**begins)) if hasattr(model, "profile") else ""


_CORNER = ask("corner_mm", "Corners, radius", "corner_mm")
_LENGTH = ask("length_mm", "Tin, long", "length_mm")
_COUNTS = ((6, "6"), (8, "8"), (10, "10"), (12, "12"))
_SIZES = ("corner_mm", "length_mm", "points_mm")
_HOUSE = [[0, 0], [200, 0], [200, 120], [100, 190], [0, 120]]
"""The outline a free shape begins with, until a drawing is read."""
SHAPES = dict(
    (
        _kind(RoundShape, "round"),
        _kind(SquareShape, "square", _CORNER, keeps=_SIZES),
        _kind(
            RectangleShape, "rectangle", _LENGTH, _CORNER, said=("sheet",), of_tin={"length_mm": 1.3}, keeps=_SIZES
        ),
        _kind(PolygonShape, "polygon", _CORNER, pick("sides", "Sides", *_COUNTS), said=("hexagon", "hexagonal"),
              keeps=_SIZES),
        _kind(OvalShape, "oval", _LENGTH, of_tin={"length_mm": 1.3}, keeps=_SIZES),
        _kind(HeartShape, "heart"),
        _kind(PetalShape, "petal", pick("petals", "Petals", *_COUNTS)),
        _kind(FreeShape, "an outline of your own", begins={"points_mm": _HOUSE}, keeps=_SIZES),
    )
)  # fmt: skip

_STONE = [[0, 0], [190, 0], [200, 25], [185, 62], [140, 92], [80, 100], [30, 80], [4, 40]]
"""The view from the side a carved cake begins with, until one is drawn: a river stone."""
_SKEP = [
    solid.model_dump(mode="json") for solid in (
        ConeSolid(across_mm=160, top_mm=160, high_mm=70, edge_mm=12), BallSolid(across_mm=150, z_mm=8),
        BoxSolid(does="cut", wide_mm=50, deep_mm=40, high_mm=30, y_mm=-75),
    )
]  # fmt: skip
"""The solids a joined cake begins with: a drum under a half ball, with a doorway."""
_PEBBLE = packed(*pebble())
"""The body a cake out of a 3D file begins with, until one is read."""
BUILDS = dict(
    (
        _kind(StraightBuild, "straight"),
        _kind(
            TaperedBuild, "tapered", ask("narrow_mm", "Narrow end, across", "narrow_mm"),
            pick("narrow", "Narrow", ("top", "at the top"), ("foot", "at the foot")),
            leading="narrow_mm", of_tin={"narrow_mm": 0.8}, keeps=("narrow",),
        ),
        _kind(
            BevelledBuild, "bevelled rim", ask("in_mm", "Bevel, in from the side", "bevel_mm"),
            ask("down_mm", "Bevel, down from the top", "bevel_mm"),
            leading="in_mm", of_tin={"in_mm": 0.1, "down_mm": 0.1},
        ),
        _kind(
            DomedBuild, "domed top", ask("rise_mm", "Dome rises", "rise_mm"),
            leading="rise_mm", of_tin={"rise_mm": 0.2},
        ),
        _kind(
            BallBuild, "ball", ask("foot_mm", "Flat foot, across", "ball_foot_mm"),
            pick("halves", "Made of", (2, "two halves"), (1, "one half")),
            leading="foot_mm", of_tin={"foot_mm": 0.4}, keeps=("halves",),
        ),
        _kind(
            TurnedBuild, "turned", pick("smooth", "Through its points", (True, "a curve"), (False, "straight lines")),
            begins={"points": [{"up": 0, "out": 1}, {"up": 0.5, "out": 0.75}, {"up": 1, "out": 0.9}]},
            keeps=("points", "smooth"),
        ),
        _kind(
            SideBuild, "on its side", ask("cut_mm", "Cut off the rim", "foot_cut_mm"),
            said=("drum",), leading="cut_mm",
        ),
        _kind(
            CarvedBuild, "carved to a view", ask("rounded", "Rounded across", "share", percent=True),
            pick("flat_foot", "Rounded", (True, "above"), (False, "above and below")),
            begins={"points_mm": _STONE}, keeps=("points_mm", "front_mm", "rounded", "flat_foot"),
        ),
        _kind(JoinedBuild, "solids joined and cut", begins={"solids": _SKEP}, keeps=("solids",)),
        _kind(
            ModelledBuild, "out of a 3D file", ask("turn_deg", "Turned about the upright", "turn_deg"),
            begins={"mesh": _PEBBLE}, keeps=("mesh", "error_mm", "turn_deg"),
        ),
    )
)  # fmt: skip

_DOES = pick("does", "This solid", ("join", "is joined to the others"), ("cut", "is cut out of the others"))
_WIDE, _DEEP = ask("wide_mm", "Wide", "solid_mm"), ask("deep_mm", "From front to back", "solid_mm")
_HIGH, _ACROSS = ask("high_mm", "High", "solid_mm"), ask("across_mm", "Across", "solid_mm")
_EDGE = ask("edge_mm", "Edges, radius", "corner_mm")
_PLACED = (
    ask("x_mm", "Moved to the right", "place_mm"),
    ask("y_mm", "Moved to the back", "place_mm"),
    ask("z_mm", "Lifted", "place_mm"),
    ask("lean_deg", "Leant to the right", "turn_deg"),
    ask("turn_deg", "Turned about the upright", "turn_deg"),
)
_LAID = ("does", "x_mm", "y_mm", "z_mm", "lean_deg", "turn_deg")
_BLOCKED = (*_LAID, "wide_mm", "deep_mm", "high_mm", "across_mm", "edge_mm")
SOLIDS = dict(
    (
        _kind(BoxSolid, "box", _DOES, _WIDE, _DEEP, _HIGH, _EDGE, *_PLACED, keeps=_BLOCKED),
        _kind(
            ConeSolid, "cylinder or cone", _DOES, _ACROSS, ask("top_mm", "Across its top", "solid_top_mm"), _HIGH,
            _EDGE, *_PLACED, keeps=_BLOCKED,
        ),
        _kind(BallSolid, "ball", _DOES, _ACROSS, *_PLACED, keeps=_BLOCKED),
        _kind(WedgeSolid, "wedge", _DOES, _WIDE, _DEEP, _HIGH, *_PLACED, keeps=_BLOCKED),
        _kind(RingSolid, "ring", _DOES, _ACROSS, ask("thick_mm", "Thick", "solid_mm"), *_PLACED, keeps=_LAID),
        _kind(
            SpunSolid, "turned", _DOES, ask("across_mm", "Across its foot", "solid_mm"),
            ask("middle_mm", "Across its middle", "solid_mm"), ask("top_mm", "Across its top", "solid_mm"), _HIGH,
            *_PLACED, keeps=_LAID,
        ),
        _kind(
            RaisedSolid, "outline raised", _DOES, _HIGH, *_PLACED, begins={"points_mm": _HOUSE},
            keeps=(*_LAID, "high_mm", "points_mm"),
        ),
    )
)  # fmt: skip

_FILLED = ask("thickness_mm", "Filling, thick", "filling_thickness_mm")
FILLED = dict(
    (
        _kind(PlainFilling, "Spread plain", _FILLED, leading="thickness_mm", keeps=("thickness_mm",), media=FILLINGS,
              technique="filling"),
        _kind(
            SoftFilling, "Soft, in a dam", _FILLED, ask("dam_width_mm", "Dam, wide", "dam_width_mm"),
            ask("seal_mm", "Seal, thick", "seal_thickness_mm"),
            leading="thickness_mm", keeps=("thickness_mm",), media=FILLINGS, technique="filling",
        ),
    )
)  # fmt: skip

_SIDE = ask("side_mm", "Side, thick", "coat_thickness_mm")
_TOP = ask("top_mm", "Top, thick", "coat_thickness_mm")
_DISC = ask("disc_diameter_mm", "Disc or card, across", "disc_diameter_mm")
_EDGES = pick("edges", "Edges", ("sharp", "sharp"), ("rounded", "rounded"))
_PLATED = (*SPREAD, "disc_diameter_mm")
FINALS = dict(
    (
        _kind(
            FreehandFinal, "Hot scraper", _SIDE, _TOP, _EDGES, does="drawn freehand",
            leading="side_mm", keeps=SPREAD, media=FINAL_COATS, technique="freehand", scraper=True,
        ),
        _kind(
            DiscFinal, "Disc", _DISC, _TOP, does="scraped against a disc", leading="disc_diameter_mm", keeps=_PLATED,
            media=FINAL_COATS, technique="disc", plate="disc", plates=1, papers=1, scraper=True,
        ),
        _kind(
            TwinFinal, "Twin disc", _DISC, _TOP, does="filled out between two discs", leading="disc_diameter_mm",
            keeps=_PLATED, media=FINAL_COATS, technique="twin", plate="disc", plates=2, papers=2, scraper=True,
        ),
        # One card lies under the cake and another, lined, takes it when it is turned over (common practice).
        _kind(
            InvertedFinal, "Inverted", _DISC, _TOP, does="filled out to a card, upside down",
            leading="disc_diameter_mm", keeps=_PLATED, media=FINAL_COATS, technique="inverted", plate="card", plates=2,
            papers=1, scraper=True,
        ),
        _kind(
            TowelFinal, "Crust & towel", _SIDE, _TOP, _EDGES, does="crusted and smoothed with a towel",
            leading="side_mm", keeps=("colour", "top_mm"), media=FINAL_COATS, technique="towel", scraper=True,
            smoother=True,
        ),
        _kind(
            DeckledFinal, "Deckled rim", _SIDE, _TOP, ask("rim_mm", "Lip above the top", "rim_mm"),
            does="left standing as a rough lip", leading="side_mm", keeps=SPREAD, media=FINAL_COATS,
            technique="deckled", scraper=True,
        ),
        _kind(
            SemiNakedFinal, "Semi-naked", ask("stays", "Of the crumb coat stays", "share", percent=True),
            does="scraped back to the cake", technique="semi_naked", scraper=True, crumb="semi_naked_mm",
        ),
        _kind(
            TexturedFinal, "Piped over", ask("relief_mm", "Relief, on average", "coat_thickness_mm"),
            does="piped or stroked all over", leading="relief_mm", keeps=ROLLED, media=FINAL_COATS,
            technique="textured",
        ),
        _kind(NoFinal, "None", said=("naked",)),
    )
)  # fmt: skip

_SHEET = ask("thickness_mm", "Rolled, thick", "fondant_thickness_mm")
_HEM = ask("overlap_mm", "Beyond the hem, all round", "overlap_mm")
_RISING = ("straight", "tapered", "bevelled", "domed", "ball", "turned")
_CARVED = ("carved", "joined", "modelled")
_DRAPED = (*_RISING, *_CARVED)
_SHEETED: dict[str, Any] = {"leading": "thickness_mm", "keeps": ROLLED, "media": SHEETS}
COVERS = dict(
    (
        _kind(
            DrapeCover, "Drape", _SHEET, _HEM, ask("rolled_mm", "Sheet already rolled, across", "strip_mm", "none"),
            pick("sheet", "Sheet", (None, "what takes least"), ("circle", "a circle"), ("square", "a square"),
                 ("rectangle", "a rectangle")),
            does="draped in one sheet", called="one sheet", technique="drape", smoother=True, suits=_DRAPED, **_SHEETED,
        ),
        _kind(
            PanelCover, "Panel", _SHEET, ask("overlap_mm", "Ends overlap", "overlap_mm"),
            ask("trim_mm", "To trim, in height", "overlap_mm"),
            ask("strip_mm", "Strip already cut, long", "strip_mm", "none"),
            pick("top", "The top", ("none", "left bare"), ("over", "over the panel"), ("inside", "inside the panel")),
            does="wrapped in a panel", called="a straight panel", technique="pieces", smoother=True,
            suits=("straight", "tapered", "side"), cut_out=True, begins={"top": "over"}, **_SHEETED,
        ),
        _kind(
            BoxCover, "Box", _SHEET, pick("corners", "Corners", ("butt", "butted"), ("mitre", "mitred")),
            does="boxed in flat pieces", called="a box of flat pieces", technique="pieces", smoother=True,
            suits=("straight", "tapered"), cut_out=True, **_SHEETED,
        ),
        _kind(
            HalvesCover, "Halves", _SHEET, _HEM, ask("band_mm", "Band over the seam, wide", "band_mm"),
            does="covered in two halves", called="two halves", technique="pieces", smoother=True,
            suits=(*_RISING, "side"), **_SHEETED,
        ),
        _kind(
            GoresCover, "Gores", _SHEET, ask("count", "Gores", "gores"),
            does="covered in gores", called="gores", technique="pieces", suits=_RISING, cut_out=True, **_SHEETED,
        ),
        _kind(
            PatchesCover, "Patches", _SHEET, ask("stretch", "Gives by no more than", "stretch", percent=True),
            pick("parts", "Cut into", (None, "as few as lie flat"), (2, "a front and a back"),
                 (4, "a top and four sides"), (6, "a top and six sides"), (8, "a top and eight sides")),
            does="covered in patches", called="patches", technique="pieces", smoother=True, suits=_CARVED, cut_out=True,
            **_SHEETED,
        ),
        _kind(
            PrintedCover, "Printed", ask("sheet_width_mm", "Sheet, wide", "sheet_side_mm"),
            ask("sheet_height_mm", "Sheet, high", "sheet_side_mm"), ask("overlap_mm", "Sheets overlap", "overlap_mm"),
            pick("top", "The top", ("none", "left bare"), ("tabs", "folded in on tabs"),
                 ("circle", "a circle of its own")),
            pick("directional", "The pattern", (False, "runs any way"), (True, "has an up and a down")),
            does="wrapped in printed sheets", called="a printed sheet", suits=("straight",),
        ),
        _kind(
            CollarCover, "Collar", ask("thickness_mm", "Chocolate, thick", "fondant_thickness_mm"),
            ask("above_mm", "Stands above the tier", "overlap_mm"), _HEM,
            ask("spread", "Of the paper is covered", "spread", percent=True),
            does="in a chocolate collar", called="a collar", technique="collar", suits=("straight", "bevelled"),
            leading="thickness_mm", media=CHOCOLATES,
        ),
        _kind(NoCover, "None"),
    )
)  # fmt: skip

_APART = ask("gap_mm", "Stands above the tier below by", "tier_gap_mm")
_SUPPORTED: tuple[Ask | Pick, ...] = (
    pick("sort", "Supports", *((sort, words.many) for sort, words in SORTS.items())),
    ask("count", "How many", "supports", "by the rule taken"),
    pick(
        "school",
        "Counted",
        (None, "whichever asks most"),
        ("inches", "one fewer than its inches"),
        ("band", "three, or four to six"),
        ("load", "by the load"),
    ),
    pick("fewer", "One fewer, since it is not driven", (False, "no"), (True, "yes")),
    pick("places", "Places", ("edge", "along its edge"), ("ring", "in a ring"), ("free", "set one by one")),
    ask("inset_mm", "Inside its edge", "board_margin_mm"),
    ask("apart_mm", "Apart", "board_margin_mm"),
    ask("off_x_mm", "Off the middle, to the right", "shift_mm"),
    ask("off_y_mm", "Off the middle, to the back", "shift_mm"),
    ask("bead_mm", "Bead along the joint", "joint_bead_mm"),
)
_HELD = (
    "sort",
    "count",
    "school",
    "fewer",
    "places",
    "inset_mm",
    "apart_mm",
    "points_mm",
    "off_x_mm",
    "off_y_mm",
    "glue_medium",
    "bead_medium",
    "bead_mm",
)
STANDS = dict(
    (
        _kind(StackedStand, "On the tier below", *_SUPPORTED, does="stacked flush", keeps=_HELD),
        _kind(PillarsStand, "On pillars", _APART, *_SUPPORTED, does="on pillars", leading="gap_mm", keeps=_HELD[1:]),
        _kind(RiserStand, "On a riser", _APART, *_SUPPORTED, does="on a riser", leading="gap_mm", keeps=_HELD),
    )
)  # fmt: skip

PARTS: tuple[DesignPart, ...] = (
    DesignPart((), "", dict((_kind(Tier, "Tier", ask("tin_diameter_mm", "Tin, across", "tin_diameter_mm")),))),
    DesignPart(("shape",), "", SHAPES),
    DesignPart(("build",), "", BUILDS),
    DesignPart(("build", "solids"), "", SOLIDS, many=True),
    DesignPart(("layers",), "layers", dict((
        _kind(
            Layers, "Layers", ask("count", "Layers", "layer_count"),
            ask("height_mm", "Each cut at", "layer_height_mm", "the common cut"),
            ask("target_height_mm", "Finished height wanted", "target_height_mm", "any"),
            ask("board_after", "Hidden board above layer", "board_after", "none"), leading="height_mm",
        ),
    ))),
    DesignPart(("layers", "bake"), "baked", dict((
        _kind(MeasuredBake, "Measured", ask("torte", "Each torted into", "torte"), keeps=("torte",)),
        _kind(TinBake, "To bake", ask("depth_mm", "Tins, deep", "tin_depth_mm"),
              ask("torte", "Each torted into", "torte"), leading="depth_mm", keeps=("torte",)),
    ))),
    DesignPart(("layers", "cavity"), "cavity", dict((
        _kind(
            Cavity, "Hidden room", ask("diameter_mm", "Hidden room, across", "cavity_mm"),
            ask("first", "Begins in layer", "layer_count", "the second"),
            ask("last", "Ends in layer", "layer_count", "the last but one"), leading="diameter_mm",
        ),
    ))),
    DesignPart(("layers", "syrup"), "syrup", dict((
        _kind(Syrup, "Syrup", ask("soak_mm", "Soaks in, each layer", "syrup_soak_mm"), leading="soak_mm",
              media=("syrup",), technique="syrup"),
    ))),
    DesignPart(("filling",), "fill", FILLED),
    DesignPart(("crumb",), "crumb", dict((
        _kind(CrumbCoat, "Crumb coat", ask("thickness_mm", "Crumb coat, thick", "coat_thickness_mm"),
              leading="thickness_mm", media=COATS, technique="crumb"),
    ))),
    DesignPart(("final",), "coat", FINALS),
    DesignPart(("cover",), "cover", COVERS),
    DesignPart(("borders",), "border", dict((
        _kind(
            Border, "Border", ask("bead_mm", "Bead, wide", "bead_mm"),
            pick("at", "Border", ("foot", "along the foot"), ("top", "along the top edge")),
            pick("bead", "Bead", ("half", "half a round"), ("round", "a full round")),
            leading="bead_mm", media=COATS, technique="border",
        ),
    )), many=True),
    DesignPart(("on_top",), "ontop", dict((
        _kind(
            OnTop, "Laid on the top", ask("across_mm", "Across", "on_top_mm"),
            ask("thickness_mm", "Rolled, thick", "fondant_thickness_mm"), ask("count", "How many", "pieces"),
            leading="across_mm", media=SHEETS, technique="pieces",
        ),
    )), many=True),
    DesignPart(("measured",), "measured", dict((_kind(Measured, "Measured"),))),
    DesignPart(("stand",), "stand", STANDS, left=True),
)  # fmt: skip
"""Every part of a tier that has kinds or asks for numbers, in the order the quick line writes them."""
_COVERS = {kind.kind: kind for kind in COVERS.values()}
_ROWS: dict[type[BaseModel], Kind] = {model: kind for part in PARTS for model, kind in part.kinds.items()}


def kind_of(part: BaseModel) -> Kind:
    """The row of a part of a design. Raises KeyError where its type has none."""
    return _ROWS[type(part)]


def suits(cover: str, build: BaseModel) -> bool:
    """Whether a kind of cover suits a build; one that its row does not name is not suited."""
    return kind_of(build).kind in _COVERS[cover].suits
