"""Every kind there is, read from the types themselves: one example of each for the grid, any at all for hypothesis.

A new kind is among them the day it is added. Where one asks for a number that has no usual value, its field is given
an everyday size here.
"""

from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from hypothesis import strategies as st
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from amber_spread.core.design.builds import Build, Opening, Picture, ProfilePoint, SectionAt
from amber_spread.core.design.finishes import (
    Border,
    Cover,
    Filling,
    FinalCoat,
    OnTop,
    PatchColour,
    PatchSeam,
    PipedRegion,
    SeamSide,
)
from amber_spread.core.design.shapes import HeartShape, Shape
from amber_spread.core.design.solids import BallSolid, BoxSolid, ConeSolid, RaisedSolid, RingSolid, Solid
from amber_spread.core.design.stands import Stand
from amber_spread.core.geometry.bodies.packed import packed
from amber_spread.core.geometry.bodies.pebble import pebble

PATH = ((0, 0), (200, 0), (200, 120), (90, 180), (60, 90), (0, 120))
HULL = ((30, 0), (90, 0), (120, 60), (60, 70), (0, 60))
SPOTS = ((0.0, -30.0), (26.0, 15.0), (-26.0, 15.0))
SOLIDS = (
    ConeSolid(across_mm=200, top_mm=160, high_mm=70, edge_mm=8), BallSolid(across_mm=110, x_mm=20, z_mm=30),
    BoxSolid(does="cut", wide_mm=60, deep_mm=50, high_mm=40, y_mm=-80), RaisedSolid(points_mm=HULL, z_mm=50, lean_deg=20),
)  # fmt: skip
PICTURE = Picture(jpeg="/9j/4AAQ", wide_mm=210.0, left_mm=-5.0)
PEBBLES = [packed(*pebble()), packed(*pebble(90))]
EVERYDAY = {
    "solids": SOLIDS, "mesh": PEBBLES[0],
    "length_mm": 260.0, "points_mm": PATH, "narrow_mm": 150.0, "in_mm": 18.0, "down_mm": 22.0, "rise_mm": 40.0,
    "disc_diameter_mm": 216.0, "shape": HeartShape(), "across_mm": 80.0,
    "points": (ProfilePoint(up=0, out=1), ProfilePoint(up=0.5, out=0.7), ProfilePoint(up=1, out=0.85)),
}  # fmt: skip
NARROWER = {
    "narrow_mm": (60, 140), "in_mm": (1, 25), "down_mm": (1, 30), "rise_mm": (1, 40), "foot_mm": (0, 45),
    "cut_mm": (1, 20), "off_x_mm": (-40, 40), "off_y_mm": (-40, 40), "corner_mm": (0, 25), "across_mm": (10, 90), "diameter_mm": (10, 120), "share": (0.05, 9),
}  # fmt: skip
"""Where a type takes more than an everyday tier can be made of, what hypothesis tries instead."""
MEDIA = {"fondant": ["fondant", "modelling_chocolate"], "dark_chocolate": ["dark_chocolate", "white_chocolate"],
         "lemon_curd": ["lemon_curd", "raspberry_jam"], "syrup": ["syrup"]}  # fmt: skip
SPREADS = ["american_buttercream", "meringue_buttercream", "dark_ganache", "cream_cheese_frosting"]
COLOUR_NAMES = [None, "ivory", "blush", "pale"]


def kinds_of(union: Any) -> tuple[type[BaseModel], ...]:
    """The kinds of a union, with or without its discriminator."""
    inner = get_args(union)[0] if get_origin(union) is Annotated else union
    return get_args(inner)


SHAPES, BUILDS, FILLINGS, FINALS, COVERS, STANDS = map(kinds_of, (Shape, Build, Filling, FinalCoat, Cover, Stand))
SOLID_KINDS = kinds_of(Solid)


def example(kind: type[BaseModel], **more: Any) -> Any:
    """One of a kind, everything that has a usual value left to it."""
    needed = {name: EVERYDAY[name] for name, field in kind.model_fields.items() if field.is_required()}
    return kind(**needed | more)


def variants(kind: type[BaseModel]) -> list[Any]:
    """One of a kind for each choice of words it offers: every top, corner, run of its stripes."""
    found = [example(kind)]
    for name, field in kind.model_fields.items():
        choices = _words(field.annotation)
        # Which way lines are scored changes nothing where none are.
        if name not in ("kind", "scored_run") and len(choices) > 1:
            found.extend(example(kind, **{name: one}) for one in choices if one != field.default)
    return found


def _words(annotation: Any) -> list[Any]:
    if get_origin(annotation) is Literal:
        return list(get_args(annotation))
    if get_origin(annotation) in (Union, UnionType):
        return [word for one in get_args(annotation) for word in _words(one)]
    return []


def any_of(union: Any) -> st.SearchStrategy[Any]:
    """Any kind of a union, with anything its fields take."""
    return st.one_of([any_one(kind) for kind in kinds_of(union)])


def any_one(kind: type[BaseModel]) -> st.SearchStrategy[Any]:
    """Any of a kind."""
    return st.builds(kind, **{name: _field(kind, name, field) for name, field in kind.model_fields.items()})


def _field(kind: type[BaseModel], name: str, field: FieldInfo) -> st.SearchStrategy[Any]:
    if name == "kind":
        return st.just(field.default)
    if name == "id":
        return st.just("")
    if name == "points_mm":
        return st.just(PATH if field.is_required() else SPOTS)
    if name in _OWN:
        return _OWN[name]
    if name.endswith("picture"):
        return st.sampled_from([None, PICTURE])
    if name.endswith("colour"):
        return st.sampled_from(COLOUR_NAMES)
    if name.endswith("medium"):
        return st.sampled_from(MEDIA.get(field.default, SPREADS))
    return _value(name, field.annotation, field.metadata)


def _value(name: str, annotation: Any, metadata: list[Any]) -> st.SearchStrategy[Any]:
    origin = get_origin(annotation)
    if origin is Annotated:
        inner, *extra = get_args(annotation)
        found = [part for one in extra for part in (one.metadata if isinstance(one, FieldInfo) else [one])]
        return _value(name, inner, [*metadata, *found])
    if origin in (Union, UnionType):
        return st.one_of([_value(name, one, metadata) for one in get_args(annotation)])
    if origin is Literal:
        return st.sampled_from(get_args(annotation))
    if origin is tuple:
        inner = get_args(annotation)
        if inner[-1] is Ellipsis:
            return st.lists(_value(name, inner[0], []), max_size=4).map(tuple)
        return st.tuples(*(_value(name, one, []) for one in inner))
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return any_one(annotation)
    if annotation is NoneType:
        return st.none()
    if annotation is bool:
        return st.booleans()
    low, high = _bounds(metadata)
    low, high = NARROWER.get(name, (low, high))
    if annotation is int:
        return st.integers(int(low), min(int(high), 40))
    assert annotation is float, f"{name} is {annotation}: say here how one is made up"
    return st.floats(low, high, allow_nan=False)


def _bounds(metadata: list[Any]) -> tuple[float, float]:
    low = next(part.ge for part in metadata if getattr(part, "ge", None) is not None)
    return low, next(part.le for part in metadata if getattr(part, "le", None) is not None)


_TURNED = st.lists(st.floats(0.3, 1), min_size=2, max_size=5).map(
    lambda outs: tuple(ProfilePoint(up=index / (len(outs) - 1), out=out) for index, out in enumerate(outs))
)
# Solids that cannot fall apart: all that is joined meets the box in the middle, and what is cut out is low.
_MET, _SMALL = st.floats(30, 70), st.floats(8, 25)
_ABOUT = {name: st.floats(-30, 30) for name in ("x_mm", "y_mm", "lean_deg", "turn_deg")} | {"z_mm": st.floats(0, 30)}
_JOINED = [
    st.builds(BallSolid, across_mm=_MET, **_ABOUT),
    st.builds(ConeSolid, across_mm=_MET, top_mm=st.floats(0, 60), high_mm=_MET, **_ABOUT),
    st.builds(RingSolid, across_mm=st.floats(60, 90), thick_mm=_SMALL, **_ABOUT),
    st.builds(RaisedSolid, points_mm=st.just(HULL), high_mm=_MET, **_ABOUT),
]
# A tunnel through the foot, from front to back or from side to side.
_CUT = st.builds(
    BoxSolid,
    does=st.just("cut"),
    wide_mm=_SMALL,
    deep_mm=st.just(600.0),
    high_mm=_SMALL,
    z_mm=st.just(-1.0),
    x_mm=st.floats(-30, 30),
    turn_deg=st.sampled_from([0.0, 90.0]),
)
_BOX = st.builds(BoxSolid, wide_mm=st.floats(90, 200), deep_mm=st.floats(90, 200), edge_mm=st.floats(0, 30))
_BUILT = st.tuples(_BOX, st.lists(st.one_of(*_JOINED, _CUT), max_size=3)).map(lambda both: (both[0], *both[1]))
_OFF = st.floats(-90, 90)
_BITES = st.one_of(
    st.builds(BallSolid, across_mm=st.floats(20, 150), x_mm=_OFF, y_mm=_OFF, z_mm=st.floats(-60, 120)),
    st.builds(BoxSolid, wide_mm=_SMALL, deep_mm=_SMALL, high_mm=_SMALL, x_mm=_OFF, y_mm=_OFF, z_mm=st.floats(-60, 120),
              lean_deg=st.floats(-90, 90)),
)  # fmt: skip
_OPENINGS = st.lists(
    st.builds(Opening, solid=_BITES, medium=st.sampled_from([None, *SPREADS]), colour=st.sampled_from(COLOUR_NAMES)),
    max_size=2,
).map(tuple)
# Not two at one place along the tier.
_SECTIONS = st.lists(
    st.builds(SectionAt, at=st.integers(0, 50).map(lambda at: at / 50), rounded=st.floats(0, 1),
              points_mm=st.sampled_from([None, HULL])),
    max_size=3, unique_by=lambda one: one.at,
).map(tuple)  # fmt: skip
_PATCHES = st.builds(
    PatchColour, medium=st.sampled_from([None, "modelling_chocolate"]), colour=st.sampled_from(COLOUR_NAMES)
)


@st.composite
def _seams(draw: st.DrawFn) -> tuple[PatchSeam, ...]:
    """Seams of which each runs all the way, or within what one before it parts off."""
    whole = st.builds(
        PatchSeam, run=st.sampled_from(["level", "upright"]), at=st.floats(0, 1), turn_deg=st.floats(-180, 180)
    )
    seams = draw(st.lists(whole, max_size=4))
    sides = [
        draw(st.none() | st.builds(SeamSide, seam=st.integers(1, before), side=st.sampled_from(["beyond", "before"])))
        if before
        else None
        for before in range(len(seams))
    ]
    return tuple(seam.model_copy(update={"within": side}) for seam, side in zip(seams, sides, strict=True))


_SMOOTH = st.lists(st.integers(0, 5), max_size=6, unique=True).map(tuple)
_OWN: dict[str, st.SearchStrategy[Any]] = {
    "points": _TURNED, "front_mm": st.sampled_from([None, HULL]), "shape": st.builds(HeartShape),
    "patch_colours": st.lists(_PATCHES, max_size=4).map(tuple), "sections": _SECTIONS, "solids": _BUILT,
    "smooth_corners": _SMOOTH, "front_smooth_corners": st.just(()),
    "openings": _OPENINGS, "own_seams": _seams(), "mesh": st.sampled_from(PEBBLES),
}  # fmt: skip
"""What hypothesis tries for a field that is more than a number or a word."""
borders = st.lists(any_one(Border), max_size=2).map(tuple)
_BANDS = st.tuples(st.floats(0, 0.9), st.floats(0.03, 1)).map(lambda both: (both[0], min(1.0, both[0] + both[1])))
_PIPED = st.builds(
    lambda band, **more: PipedRegion(low=band[0], high=band[1], **more), _BANDS, relief_mm=st.one_of(st.none(), st.floats(1, 12)),
    round_deg=st.just(360.0) | st.floats(5, 360), turn_deg=st.floats(-180, 180),
    medium=st.sampled_from(SPREADS), colour=st.sampled_from(COLOUR_NAMES),
)  # fmt: skip
regions = st.lists(_PIPED, max_size=2).map(tuple)
stands = any_of(Stand)
on_tops = st.lists(any_one(OnTop), max_size=2).map(tuple)
