"""One row for every kind there is: its words for people, what it asks for, what it takes, and how a new one begins.

The rooms of the work, the quick line, the checks, the kit, the handbook and the screens read these rows. A row stands
beside the type of its kind; the function that works the kind stands in its room, by the same name. Shapes, builds and
solids have theirs in `forms.py`.
"""

from collections.abc import Sequence
from typing import Any

from pydantic import BaseModel

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
    PipedRegion,
    PlainFilling,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    Syrup,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
)
from amber_spread.core.design.forms import BUILDS, SHAPES, SOLIDS
from amber_spread.core.design.rows import Ask, DesignPart, Kind, Pick, ask, pick, row
from amber_spread.core.design.stands import PillarsStand, RiserStand, StackedStand
from amber_spread.core.stock.media import Ability
from amber_spread.core.stock.supports import SORTS

COATS: tuple[Ability, ...] = ("coat",)
"""What a medium must be able to do as a crumb coat or a border."""
FINAL_COATS: tuple[Ability, ...] = ("coat", "pour")
FILLINGS: tuple[Ability, ...] = ("fill",)
SHEETS: tuple[Ability, ...] = ("roll",)
CHOCOLATES: tuple[Ability, ...] = ("set",)
FIELD_NEEDS: dict[str, tuple[Ability, ...]] = {
    "dam_medium": ("dam",), "board_medium": ("set", "coat"), "glue_medium": COATS, "bead_medium": COATS,
    "openings": FILLINGS,
}  # fmt: skip
"""What a medium that a field of its own names must be able to do, any one of these."""
SPREAD = ("medium", "colour", "top_mm")
"""What a new final coat keeps of the one before."""
ROLLED = ("medium", "colour")

_FILLED = ask("thickness_mm", "Filling, spread at", "filling_thickness_mm", figure="layers.filling.thickness")
FILLED = dict(
    (
        row(PlainFilling, "Spread plain", _FILLED, leading="thickness_mm", keeps=("thickness_mm",), needs=FILLINGS,
              technique="filling"),
        row(
            SoftFilling, "Soft, in a dam", _FILLED,
            ask("dam_width_mm", "Dam, wide", "dam_width_mm", figure="layers.filling.dam_width"),
            ask("seal_mm", "Seal, spread at", "seal_thickness_mm", figure="layers.filling.seal_thickness"),
            leading="thickness_mm", keeps=("thickness_mm",), needs=FILLINGS, technique="filling",
        ),
    )
)  # fmt: skip

_SIDE = ask("side_mm", "Side, spread at", "coat_thickness_mm", figure="coats.final.side")
_TOP = ask("top_mm", "Top, spread at", "coat_thickness_mm", figure="coats.final.top")
_DISC = ask(
    "disc_diameter_mm", "Disc or card, across", "disc_diameter_mm", one_tier=True, figure="coats.final.diameter"
)
_EDGES = pick("edges", "Edges", ("sharp", "sharp"), ("rounded", "rounded"))
_PLATED = (*SPREAD, "disc_diameter_mm")
_BOTH = {"top_field": "top_mm", "side_field": "side_mm"}
_ON_TOP = {"top_field": "top_mm"}
"""Fields of a final coat that say how thick it lies; a plate sets the side."""
FINALS = dict(
    (
        row(
            FreehandFinal, "Hot scraper", _SIDE, _TOP, _EDGES, does="drawn freehand",
            leading="side_mm", keeps=SPREAD, needs=FINAL_COATS, technique="freehand", scraper=True, **_BOTH,
        ),
        row(
            DiscFinal, "Disc", _DISC, _TOP, does="scraped against a disc", leading="disc_diameter_mm", keeps=_PLATED,
            needs=FINAL_COATS, technique="disc", plate="disc", plates=1, papers=1, scraper=True, **_ON_TOP,
        ),
        row(
            TwinFinal, "Twin disc", _DISC, _TOP, does="filled out between two discs", leading="disc_diameter_mm",
            keeps=_PLATED, needs=FINAL_COATS, technique="twin", plate="disc", plates=2, papers=2, scraper=True,
            **_ON_TOP,
        ),
        # One card lies under the cake and another, lined, takes it when it is turned over (common practice).
        row(
            InvertedFinal, "Inverted", _DISC, _TOP, does="filled out to a card, upside down", said=("upside down",),
            leading="disc_diameter_mm", keeps=_PLATED, needs=FINAL_COATS, technique="inverted", plate="card", plates=2,
            papers=1, scraper=True, **_ON_TOP,
        ),
        row(
            TowelFinal, "Crust & towel", _SIDE, _TOP, _EDGES, does="crusted and smoothed with a towel",
            said=("crust and towel", "towelled"),
            leading="side_mm", keeps=("colour", "top_mm"), needs=FINAL_COATS, technique="towel", scraper=True,
            smoother=True, **_BOTH,
        ),
        row(
            DeckledFinal, "Deckled rim", _SIDE, _TOP,
            ask("rim_mm", "Lip above the top", "rim_mm", figure="coats.rim_height"),
            does="left standing as a rough lip",
            said=("deckle",), leading="side_mm", keeps=SPREAD, needs=FINAL_COATS,
            technique="deckled", scraper=True, **_BOTH,
        ),
        row(
            SemiNakedFinal, "Semi-naked", ask("stays", "Of the crumb coat stays", "share", percent=True),
            does="scraped back to the cake",
            said=("seminaked", "half naked"), technique="semi_naked", scraper=True, crumb="semi_naked_mm",
        ),
        row(
            TexturedFinal, "Piped over", ask("relief_mm", "Relief, on average", "coat_thickness_mm"),
            does="piped or stroked all over",
            said=("piped all over", "piped"), leading="relief_mm", keeps=ROLLED, needs=FINAL_COATS,
            technique="textured", top_field="relief_mm", side_field="relief_mm",
        ),
        row(NoFinal, "None", said=("naked",)),
    )
)  # fmt: skip

_SHEET = ask("thickness_mm", "Rolled at", "fondant_thickness_mm", figure="cover.over.side")
_HEM = ask("overlap_mm", "Trim allowance, all round", "overlap_mm", figure="cover.overlap")
_RISING = ("straight", "tapered", "bevelled", "domed", "ball", "turned")
_CARVED = ("carved", "joined", "modelled")
_DRAPED = (*_RISING, *_CARVED)
_SHEETED: dict[str, Any] = {"leading": "thickness_mm", "keeps": ROLLED, "needs": SHEETS}
COVERS = dict(
    (
        row(
            DrapeCover, "Drape", _SHEET, _HEM,
            ask("rolled_mm", "Sheet already rolled, across", "strip_mm", "none", one_tier=True),
            pick("sheet", "Sheet", (None, "what takes least"), ("circle", "a circle"), ("square", "a square"),
                 ("rectangle", "a rectangle")),
            does="draped in one sheet",
            said=("draped",), called="one sheet", technique="drape", smoother=True, suits=_DRAPED, **_SHEETED,
        ),
        row(
            PanelCover, "Panel", _SHEET, ask("overlap_mm", "Ends overlap", "overlap_mm", figure="cover.overlap"),
            ask("trim_mm", "To trim, in height", "overlap_mm"),
            ask("strip_mm", "Strip already cut, long", "strip_mm", "none", one_tier=True),
            pick("top", "The top", ("none", "left bare"), ("over", "over the panel"), ("inside", "inside the panel")),
            does="wrapped in a panel",
            said=("panelled", "paneled", "panels"), called="a straight panel", technique="pieces", smoother=True,
            suits=("straight", "tapered", "side"), cut_out=True, begins={"top": "over"}, **_SHEETED,
        ),
        row(
            BoxCover, "Box", _SHEET, pick("corners", "Corners", ("butt", "butted"), ("mitre", "mitred")),
            does="boxed in flat pieces", called="a box of flat pieces", technique="pieces", smoother=True,
            suits=("straight", "tapered"), cut_out=True, **_SHEETED,
        ),
        row(
            HalvesCover, "Halves", _SHEET, _HEM, ask("band_mm", "Band over the seam, wide", "band_mm"),
            does="covered in two halves", called="two halves", technique="pieces", smoother=True,
            suits=(*_DRAPED, "side"), **_SHEETED,
        ),
        row(
            GoresCover, "Gores", _SHEET, ask("count", "Gores", "gores"),
            does="covered in gores", called="gores", technique="pieces", suits=_RISING, cut_out=True, **_SHEETED,
        ),
        row(
            PatchesCover, "Patches", _SHEET, ask("stretch", "Gives by no more than", "stretch", percent=True),
            ask("strip_mm", "Strips over the seams, wide", "band_mm", "none"),
            ask("turn_deg", "Sides turned about the upright", "turn_deg"),
            pick("parts", "Cut into", (None, "as few as lie flat"), (2, "a front and a back"),
                 (4, "a top and four sides"), (6, "a top and six sides"), (8, "a top and eight sides"),
                 (0, "your own seams alone")),
            does="covered in patches", called="patches", technique="pieces", smoother=True, suits=_CARVED, cut_out=True,
            **_SHEETED,
        ),
        row(
            PrintedCover, "Printed", ask("sheet_width_mm", "Sheet, wide", "sheet_side_mm"),
            ask("sheet_height_mm", "Sheet, high", "sheet_side_mm"),
            ask("overlap_mm", "Sheets overlap", "overlap_mm", figure="cover.overlap"),
            pick("top", "The top", ("none", "left bare"), ("tabs", "folded in on tabs"),
                 ("circle", "a circle of its own")),
            pick("directional", "The pattern", (False, "runs any way"), (True, "has an up and a down")),
            does="wrapped in printed sheets", called="a printed sheet", suits=("straight",),
        ),
        row(
            CollarCover, "Collar",
            ask("thickness_mm", "Chocolate, spread at", "fondant_thickness_mm", figure="cover.over.side"),
            ask("above_mm", "Stands above the tier", "overlap_mm"), _HEM,
            ask("spread", "Of the paper is covered", "spread", percent=True),
            does="in a chocolate collar", called="a collar", technique="collar", suits=("straight", "bevelled"),
            leading="thickness_mm", needs=CHOCOLATES,
        ),
        row(NoCover, "None"),
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
        row(StackedStand, "On the tier below", *_SUPPORTED, does="stacked flush", keeps=_HELD),
        row(PillarsStand, "On pillars", _APART, *_SUPPORTED, does="on pillars", leading="gap_mm", keeps=_HELD[1:]),
        row(RiserStand, "On a riser", _APART, *_SUPPORTED, does="on a riser", leading="gap_mm", keeps=_HELD),
    )
)  # fmt: skip

PARTS: tuple[DesignPart, ...] = (
    DesignPart((), "", dict((
        row(
            Tier, "Tier",
            ask("tin_diameter_mm", "Tin, across", "tin_diameter_mm", one_tier=True, figure="layers.cake_diameter"),
        ),
    ))),
    DesignPart(("shape",), "", SHAPES),
    DesignPart(("build",), "", BUILDS),
    DesignPart(("build", "solids"), "", SOLIDS, many=True),
    DesignPart(("build", "openings", "solid"), "", SOLIDS),
    DesignPart(("layers",), "layers", dict((
        row(
            Layers, "Layers", ask("count", "Layers", "layer_count", figure="layers.count"),
            ask("height_mm", "Each cut at", "layer_height_mm", "the common cut", figure="layers.cut_height"),
            ask("target_height_mm", "Finished height wanted", "target_height_mm", "any"),
            ask("board_after", "Hidden board above layer", "board_after", "none"),
            ask("dome_mm", "Dome left on the top layer", "dome_left_mm", "none"), leading="height_mm",
        ),
    ))),
    DesignPart(("layers", "bake"), "baked", dict((
        row(MeasuredBake, "Measured", ask("torte", "Each torted into", "torte"), keeps=("torte",)),
        row(TinBake, "To bake", ask("depth_mm", "Tins, deep", "tin_depth_mm"),
              ask("torte", "Each torted into", "torte"), leading="depth_mm", keeps=("torte",)),
    ))),
    DesignPart(("layers", "cavity"), "cavity", dict((
        row(
            Cavity, "Hidden cavity", ask("diameter_mm", "Hidden cavity, across", "cavity_mm"),
            ask("first", "Begins in layer", "layer_count", "the second"),
            ask("last", "Ends in layer", "layer_count", "the last but one"), leading="diameter_mm",
        ),
    ))),
    DesignPart(("layers", "syrup"), "syrup", dict((
        row(Syrup, "Syrup", ask("soak_mm", "Soaks in, each layer", "syrup_soak_mm"), leading="soak_mm",
              needs=("soak",), technique="syrup"),
    ))),
    DesignPart(("filling",), "fill", FILLED),
    DesignPart(("crumb",), "crumb", dict((
        row(CrumbCoat, "Crumb coat",
              ask("thickness_mm", "Crumb coat, spread at", "coat_thickness_mm", figure="coats.crumb.side"),
              leading="thickness_mm", needs=COATS, technique="crumb"),
    ))),
    DesignPart(("final",), "coat", FINALS),
    DesignPart(("cover",), "cover", COVERS),
    DesignPart(("borders",), "border", dict((
        row(
            Border, "Border", ask("bead_mm", "Bead, wide", "bead_mm"),
            pick("at", "Border", ("foot", "along the foot"), ("top", "along the top edge")),
            pick("bead", "Bead", ("shell", "shells"), ("rope", "a rope"), ("round", "a full round"),
                 ("half", "half a round")),
            leading="bead_mm", needs=COATS, technique="border",
        ),
    )), many=True),
    DesignPart(("regions",), "region", dict((
        row(
            PipedRegion, "Piped region", ask("low", "From so far up", "share", percent=True),
            ask("high", "To so far up", "share", percent=True),
            ask("round_deg", "Goes round by", "round_deg"),
            ask("turn_deg", "Its middle, turned from the front to the right", "turn_deg"),
            ask("relief_mm", "Relief, on average", "coat_thickness_mm"),
            leading="relief_mm", needs=COATS, technique="textured",
        ),
    )), many=True),
    DesignPart(("on_top",), "ontop", dict((
        row(
            OnTop, "Laid on the top", ask("across_mm", "Across", "on_top_mm"),
            ask("thickness_mm", "Rolled at", "fondant_thickness_mm"), ask("count", "How many", "pieces"),
            leading="across_mm", needs=SHEETS, technique="pieces",
        ),
    )), many=True),
    DesignPart(("measured",), "measured", dict((row(Measured, "Measured"),))),
    DesignPart(("stand",), "stand", STANDS, left=True),
)  # fmt: skip
"""Every part of a tier that has kinds or asks for numbers, in the order the quick line writes them."""
_COVERS = {kind.kind: kind for kind in COVERS.values()}
_ROWS: dict[type[BaseModel], Kind] = {model: kind for part in PARTS for model, kind in part.kinds.items()}
_NEEDS = {model: kind.needs for model, kind in _ROWS.items() if kind.needs}


def kind_of(part: BaseModel) -> Kind:
    """The row of a part of a design. Raises KeyError where its type has none."""
    return _ROWS[type(part)]


def needs_at(tier: Tier, path: Sequence[str | int]) -> tuple[Ability, ...]:
    """What the medium that a field of a tier names must be able to do, any one of these; nothing where all serve."""
    for step in path:
        if step in FIELD_NEEDS:
            return FIELD_NEEDS[str(step)]
    part: Any = tier
    for step in path[:-1]:
        part = part[step] if isinstance(step, int) else getattr(part, step)
        if type(part) in _NEEDS:
            return _NEEDS[type(part)]
    return ()


def suits(cover: str, build: BaseModel) -> bool:
    """Whether a kind of cover suits a build; one that its row does not name is not suited."""
    return kind_of(build).kind in _COVERS[cover].suits
