"""The parts of a tier as the quick line has them: each clause's opening word, its kinds, and their leading lengths."""

from typing import NamedTuple

from pydantic import BaseModel

from amber_spread.core.design.design import Cavity, Layers, MeasuredBake, TinBake
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
    PlainFilling,
    PrintedCover,
    SemiNakedFinal,
    SoftFilling,
    Syrup,
    TexturedFinal,
    TowelFinal,
    TwinFinal,
)  # fmt: skip
from amber_spread.core.design.shapes import (
    BallBuild,
    BevelledBuild,
    DomedBuild,
    FreeShape,
    HeartShape,
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
)  # fmt: skip


class Part(NamedTuple):
    """One part of a tier in the line: its opening word, where it goes, its kinds, each with its leading length."""

    word: str
    path: tuple[str, ...]
    kinds: dict[type[BaseModel], str | None]
    many: bool = False


SHAPES = (RoundShape, SquareShape, RectangleShape, PolygonShape, OvalShape, HeartShape, PetalShape, FreeShape)
BUILDS: dict[type[BaseModel], str | None] = {
    StraightBuild: None, TaperedBuild: "narrow_mm", BevelledBuild: "in_mm", DomedBuild: "rise_mm",
    BallBuild: "foot_mm", TurnedBuild: None, SideBuild: "cut_mm",
}  # fmt: skip
PARTS: tuple[Part, ...] = (
    Part("layers", ("layers",), {Layers: "height_mm"}),
    Part("baked", ("layers", "bake"), {MeasuredBake: None, TinBake: "depth_mm"}),
    Part("cavity", ("layers", "cavity"), {Cavity: "diameter_mm"}),
    Part("syrup", ("layers", "syrup"), {Syrup: "soak_mm"}),
    Part("fill", ("filling",), {PlainFilling: "thickness_mm", SoftFilling: "thickness_mm"}),
    Part("crumb", ("crumb",), {CrumbCoat: "thickness_mm"}),
    Part(
        "coat", ("final",),
        {FreehandFinal: "side_mm", NoFinal: None, DiscFinal: "disc_diameter_mm", TwinFinal: "disc_diameter_mm",
         InvertedFinal: "disc_diameter_mm", TowelFinal: "side_mm", DeckledFinal: "side_mm", SemiNakedFinal: None,
         TexturedFinal: "relief_mm"},
    ),
    Part(
        "cover", ("cover",),
        {DrapeCover: "thickness_mm", NoCover: None, PanelCover: "thickness_mm", BoxCover: "thickness_mm",
         HalvesCover: "thickness_mm", GoresCover: "thickness_mm", PrintedCover: None, CollarCover: "thickness_mm"},
    ),
    Part("border", ("borders",), {Border: "bead_mm"}, many=True),
    Part("ontop", ("on_top",), {OnTop: "across_mm"}, many=True),
    Part("measured", ("measured",), {Measured: None}),
)  # fmt: skip
NESTED = {"bake", "cavity", "syrup"}
"""Fields of the layers that are clauses of their own."""


SYNONYMS = {"hexagon": "polygon", "hexagonal": "polygon", "drum": "side", "sheet": "rectangle", "naked": "none"}
