"""One row for every shape, build and simple solid: what a tier is, as it stands on a button."""

from amber_spread.core.design.builds import (
    BallBuild,
    BevelledBuild,
    CarvedBuild,
    DomedBuild,
    JoinedBuild,
    ModelledBuild,
    SideBuild,
    StraightBuild,
    TaperedBuild,
    TurnedBuild,
)
from amber_spread.core.design.rows import Ask, Pick, ask, pick, row
from amber_spread.core.design.shapes import (
    FreeShape,
    HeartShape,
    OvalShape,
    PetalShape,
    PolygonShape,
    RectangleShape,
    RoundShape,
    SquareShape,
)
from amber_spread.core.design.solids import (
    BallSolid,
    BoxSolid,
    ConeSolid,
    RaisedSolid,
    RingSolid,
    SpunSolid,
    WedgeSolid,
)
from amber_spread.core.geometry.bodies.packed import packed
from amber_spread.core.geometry.bodies.pebble import pebble

_CORNER = ask("corner_mm", "Corners, radius", "corner_mm")
_LENGTH = ask("length_mm", "Tin, long", "length_mm")
_COUNTS = ((6, "6"), (8, "8"), (10, "10"), (12, "12"))
_SIZES = ("corner_mm", "length_mm", "points_mm", "smooth_corners")
_HOUSE = [[0, 0], [200, 0], [200, 120], [100, 190], [0, 120]]
"""The outline a free shape begins with, until a drawing is read."""
_CARVED_MS = 1200.0
"""A carved body: the distances about it (measured, and doubled)."""
SHAPES = dict(
    (
        row(RoundShape, "round", said=("circle",)),
        row(SquareShape, "square", _CORNER, keeps=_SIZES),
        row(
            RectangleShape, "rectangle", _LENGTH, _CORNER, said=("sheet", "rectangular", "traybake"),
            of_tin={"length_mm": 1.3}, keeps=_SIZES
        ),
        row(
            PolygonShape, "polygon", _CORNER, pick("sides", "Sides", *_COUNTS), said=("hexagon", "hexagonal", "hex"),
            keeps=_SIZES,
        ),
        row(OvalShape, "oval", _LENGTH, of_tin={"length_mm": 1.3}, keeps=_SIZES),
        # A traced tin: up a wall that is not straight its outline is grown anew at every height.
        row(HeartShape, "heart", effort_ms=14.0),
        row(PetalShape, "petal", pick("petals", "Petals", *_COUNTS), effort_ms=45.0),
        row(FreeShape, "an outline of your own", begins={"points_mm": _HOUSE}, keeps=_SIZES),
    )
)  # fmt: skip

_STONE = [[0, 0], [190, 0], [200, 25], [185, 62], [140, 92], [80, 100], [30, 80], [4, 40]]
"""The view from the side a carved cake begins with, until one is drawn: a river stone."""
_SKEP = [
    solid.model_dump(mode="json")
    for solid in (
        ConeSolid(across_mm=160, top_mm=160, high_mm=70, edge_mm=12),
        BallSolid(across_mm=150, z_mm=8),
        BoxSolid(does="cut", wide_mm=50, deep_mm=40, high_mm=30, y_mm=-75),
    )
]
"""The solids a joined cake begins with: a drum under a half ball, with a doorway."""
_PEBBLE = packed(*pebble())
"""The body a cake out of a 3D file begins with, until one is read."""
_LINED = ("openings", "scored_mm", "scored_run", "most_bakes", "paste_mm")
_LINES: tuple[Ask | Pick, ...] = (
    ask("scored_mm", "Scored lines, apart", "scored_mm", "none"),
    pick("scored_run", "They run", ("level", "level"), ("upright", "upright")),
    ask("most_bakes", "Bakes, at most", "most_bakes", "as many as it takes"),
    ask("paste_mm", "Paste beyond a tin, up to", "paste_out_mm", "nothing"),
)
BUILDS = dict(
    (
        row(StraightBuild, "straight"),
        row(
            TaperedBuild, "tapered", ask("narrow_mm", "Narrow end, across", "narrow_mm"),
            pick("narrow", "Narrow", ("top", "at the top"), ("foot", "at the foot")),
            said=("tapering",), leading="narrow_mm", of_tin={"narrow_mm": 0.8}, keeps=("narrow",),
        ),
        row(
            BevelledBuild, "bevelled rim", ask("in_mm", "Bevel, in from the side", "bevel_mm"),
            ask("down_mm", "Bevel, down from the top", "bevel_mm"),
            leading="in_mm", of_tin={"in_mm": 0.1, "down_mm": 0.1},
        ),
        row(
            DomedBuild, "domed top", ask("rise_mm", "Dome rises", "rise_mm"),
            said=("dome",), leading="rise_mm", of_tin={"rise_mm": 0.2},
        ),
        row(
            BallBuild, "ball", ask("foot_mm", "Flat foot, across", "ball_foot_mm"),
            pick("halves", "Made of", (2, "two halves"), (1, "one half")),
            said=("sphere",), leading="foot_mm", of_tin={"foot_mm": 0.4}, keeps=("halves",),
        ),
        row(
            TurnedBuild, "turned", pick("smooth", "Through its points", (True, "a curve"), (False, "straight lines")),
            begins={"points": [{"up": 0, "out": 1}, {"up": 0.5, "out": 0.75}, {"up": 1, "out": 0.9}]},
            keeps=("points", "smooth"),
        ),
        row(
            SideBuild, "on its side", ask("cut_mm", "Cut off the rim", "foot_cut_mm"),
            said=("drum", "on side"), leading="cut_mm",
        ),
        row(
            CarvedBuild, "carved to a view", ask("rounded", "Rounded across", "share", percent=True),
            pick("flat_foot", "Rounded", (True, "above"), (False, "above and below")), *_LINES,
            begins={"points_mm": _STONE}, effort_ms=_CARVED_MS,
            keeps=(
                "points_mm", "smooth_corners", "front_mm", "front_smooth_corners", "sections", "rounded", "flat_foot",
                *_LINED,
            ),
        ),
        row(
            JoinedBuild, "solids joined and cut", *_LINES, begins={"solids": _SKEP}, keeps=("solids", *_LINED),
            effort_ms=_CARVED_MS,
        ),
        row(
            ModelledBuild, "out of a 3D file", ask("turn_deg", "Turned about the upright", "turn_deg"), *_LINES,
            begins={"mesh": _PEBBLE}, keeps=("mesh", "error_mm", "turn_deg", *_LINED), effort_ms=_CARVED_MS,
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
        row(BoxSolid, "box", _DOES, _WIDE, _DEEP, _HIGH, _EDGE, *_PLACED, keeps=_BLOCKED),
        row(
            ConeSolid, "cylinder or cone", _DOES, _ACROSS, ask("top_mm", "Across its top", "solid_top_mm"), _HIGH,
            _EDGE, *_PLACED, keeps=_BLOCKED,
        ),
        row(BallSolid, "ball", _DOES, _ACROSS, *_PLACED, keeps=_BLOCKED),
        row(WedgeSolid, "wedge", _DOES, _WIDE, _DEEP, _HIGH, *_PLACED, keeps=_BLOCKED),
        row(RingSolid, "ring", _DOES, _ACROSS, ask("thick_mm", "Thick", "solid_mm"), *_PLACED, keeps=_LAID),
        row(
            SpunSolid, "turned", _DOES, ask("across_mm", "Across its foot", "solid_mm"),
            ask("middle_mm", "Across its middle", "solid_mm"), ask("top_mm", "Across its top", "solid_mm"), _HIGH,
            *_PLACED, keeps=_LAID,
        ),
        row(
            RaisedSolid, "outline raised", _DOES, _HIGH, *_PLACED, begins={"points_mm": _HOUSE},
            keeps=(*_LAID, "high_mm", "points_mm"),
        ),
    )
)  # fmt: skip
