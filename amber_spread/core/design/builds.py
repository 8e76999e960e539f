"""What a tier is from the side: the build that carries its shape up, or the body it is carved to."""

import math
from collections.abc import Iterator
from hashlib import sha256
from itertools import pairwise
from typing import Annotated, ClassVar, Literal, Self

from pydantic import AfterValidator, Field, model_validator

from amber_spread.core.design.corners import Coordinate, Corners, Smooth, Smoothed
from amber_spread.core.design.part_ids import Identified, with_ids
from amber_spread.core.design.solids import Solid, Solids, built_of
from amber_spread.core.design.taken import Taken, TakesMore
from amber_spread.core.geometry.bodies import profile
from amber_spread.core.geometry.bodies.bare import made_once
from amber_spread.core.geometry.bodies.body import Body, Carried, Straight
from amber_spread.core.geometry.bodies.lofted import lofted
from amber_spread.core.geometry.bodies.meshed import Meshed, meshed, sized
from amber_spread.core.geometry.bodies.packed import MOST_TEXT, unpacked
from amber_spread.core.geometry.bodies.profile import Profile
from amber_spread.core.geometry.bodies.sculpted import Sculpted, sculpted
from amber_spread.core.geometry.bodies.sections import Section
from amber_spread.core.geometry.bodies.triangles import solid_of
from amber_spread.core.geometry.flat.curved import curved
from amber_spread.core.geometry.flat.outline import Outline, Round
from amber_spread.core.geometry.flat.views import side_view
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, Name, Usual, at
from amber_spread.core.kernel.caching import cached

ProfileShare = Annotated[float, limits.PROFILE_SHARE.field()]
LEAST_APART = 0.0099
"""Sections along a tier are so much of its width apart."""
MOST_PICTURE = 200_000
"""A picture to trace over is kept in no more letters."""
FINE_MM = 0.02
"""Solids are joined so finely: triangles that move less are left out."""
Packed = Annotated[str, Field(max_length=MOST_TEXT, pattern=r"^[A-Za-z0-9+/]+=*$")]
"""A body of triangles as text."""


class _Build(Frozen):
    """What can be asked of a build, whichever it is: whether it is the tin's outline straight up and nothing carved;
    whether its wall stands upright, or leans evenly; whether it ends in a flat top; whether it is turned about the axis
    and so comes out of a round tin alone; whether it has a height of its own, whatever its layers come to; whether it
    is baked in half-ball tins; whether it lies on its side, coated on both faces; whether it is carved; whether it has
    an outline of its own from above, as wide as the tin is said to be, whatever tins it is baked in.
    """

    straight: ClassVar[bool] = False
    upright: ClassVar[bool] = False
    leaning: ClassVar[bool] = False
    flat_top: ClassVar[bool] = True
    round_only: ClassVar[bool] = False
    own_height: ClassVar[bool] = False
    half_balls: ClassVar[bool] = False
    on_side: ClassVar[bool] = False
    carved: ClassVar[bool] = False
    own_outline: ClassVar[bool] = False

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height, where it has one. Raises ValueError where it cannot."""
        raise NotImplementedError

    def own_height_mm(self, outline: Outline) -> float:
        """How high a build with a height of its own is on an outline."""
        return Carried(outline, self.profile(outline.half_width_mm, 0.0)).height_mm

    def body(self, outline: Outline, height_mm: float) -> Body:
        """The bare body that high on an outline. Raises ValueError where it cannot be made."""
        if self.upright:
            return Straight(outline, height_mm)
        found = Carried(outline, self.profile(outline.half_width_mm, height_mm))
        if not isinstance(outline, Round):
            found.section(0.0)
            found.section(height_mm * 0.999)
        return found


class StraightBuild(_Build):
    """Straight up."""

    straight = True
    upright = True

    kind: Literal["straight"] = "straight"

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height."""
        return profile.straight(half_mm, height_mm)


class TaperedBuild(_Build):
    """Leaning evenly from the tin's full width at one end to `narrow_mm` at the other."""

    leaning = True

    kind: Literal["tapered"] = "tapered"
    narrow_mm: Annotated[float, limits.NARROW_WIDTH.field()]
    narrow: Literal["top", "foot"] = "top"

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height. Raises ValueError when the taper crosses itself."""
        inward = half_mm - self.narrow_mm / 2
        if inward < 0:
            raise ValueError("the narrow end is wider than the trimmed cake")
        foot, top = (0.0, inward) if self.narrow == "top" else (inward, 0.0)
        return profile.tapered(half_mm, height_mm, foot, top)


class BevelledBuild(_Build):
    """Straight up, the rim cut off at a slant: so far in from the side, so far down from the top."""

    kind: Literal["bevelled"] = "bevelled"
    in_mm: Annotated[float, limits.BEVEL.field()]
    down_mm: Annotated[float, limits.BEVEL.field()]

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height. Raises ValueError when the bevel is the larger."""
        return profile.bevelled(half_mm, height_mm, self.in_mm, self.down_mm)


class DomedBuild(_Build):
    """A round tier whose top is carved to a cap that rises `rise_mm` in the middle."""

    flat_top = False
    round_only = True

    kind: Literal["domed"] = "domed"
    rise_mm: Annotated[float, limits.RISE.field()]

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height. Raises ValueError when the cap does not fit."""
        return profile.domed(half_mm, height_mm, self.rise_mm)


class BallBuild(_Build):
    """A ball of two half-ball tins, or the half of one, standing on a flat of that width (0 leaves it whole)."""

    flat_top = False
    round_only = True
    own_height = True
    half_balls = True

    kind: Literal["ball"] = "ball"
    halves: Literal[1, 2] = 2
    foot_mm: Annotated[float, limits.BALL_FOOT.field()] = 0.0

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The ball's own line; its height follows from its width. Raises ValueError when the flat does not fit."""
        return profile.ball(half_mm, self.halves, self.foot_mm)


class ProfilePoint(Frozen):
    """A corner of a turned profile, as shares of the tier's height and of its half width."""

    up: Annotated[float, limits.SHARE.field()]
    out: ProfileShare


class TurnedBuild(_Build):
    """A round tier carved to a curve through points, as if turned on a wheel; straight between them unless smooth."""

    round_only = True

    kind: Literal["turned"] = "turned"
    smooth: bool = True
    points: Annotated[
        tuple[ProfilePoint, ...],
        Field(min_length=int(limits.PROFILE_POINTS.low), max_length=int(limits.PROFILE_POINTS.high)),
    ]

    @model_validator(mode="after")
    def points_climb(self) -> Self:
        """The points run from the foot (0) to the top (1), each higher than the one before."""
        ups = [point.up for point in self.points]
        for index, up in enumerate(ups):
            if index and up <= ups[index - 1]:
                raise at(("points", index, "up"), "should be higher than the point below it")
        if ups[0] != 0 or ups[-1] != 1:
            raise at(("points",), "should begin at 0, the foot, and end at 1, the top")
        return self

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The wall of a tier of that half width and height."""
        corners = tuple((point.up, point.out) for point in self.points)
        return profile.turned(half_mm, height_mm, profile.smoothed(corners) if self.smooth else corners)


class SideBuild(_Build):
    """A round drum iced all over and stood on its side, on a flat foot made by a cut so deep off its rim."""

    upright = True
    round_only = True
    on_side = True

    kind: Literal["side"] = "side"
    cut_mm: Annotated[Annotated[float, limits.FOOT_CUT.field()] | None, Usual("foot_cut_mm")] = None

    def profile(self, half_mm: float, height_mm: float) -> Profile:
        """The drum before it is tipped over: `height_mm` is its thickness."""
        return profile.straight(half_mm, height_mm)


class Picture(Frozen):
    """A photograph that lies under a view, as JPEG in base 64: so wide, its lower left corner at that place of it.

    It is drawn over, and has no say in the body.
    """

    jpeg: Annotated[str, Field(max_length=MOST_PICTURE, pattern=r"^[A-Za-z0-9+/]+=*$")]
    wide_mm: Annotated[float, limits.PICTURE_WIDTH.field()]
    left_mm: Coordinate = 0.0
    low_mm: Coordinate = 0.0


class SectionAt(Smoothed):
    """A section at a share of the way along a carved tier from its left end, of a roundness or drawn as corners."""

    at: Annotated[float, limits.SHARE.field()]
    rounded: Annotated[float, limits.SHARE.field()] = 0.5
    points_mm: Corners | None = None
    smooth_corners: Smooth = ()

    @property
    def line_mm(self) -> Corners | None:
        """Its edge, where it is drawn, in a curve through the corners that are smooth."""
        return None if self.points_mm is None else curved(self.points_mm, self.smooth_corners)


class Opening(Identified):
    """A bite or a hole cut out of a carved tier once it is stacked, and filled up flush: the solid it is cut to, where
    that lies about the axis and above the foot at the tier's own size, and what fills it. Without a medium it is left
    empty: a room hidden in the cake.
    """

    solid: Solid
    medium: Key | None = "american_buttercream"
    colour: Name | None = None


class Carvable(_Build, TakesMore):
    """A build that is carved. Its outside may be scored, lines so far apart, level from its foot up or upright from its
    middle; and `openings` may be cut out of it and filled with something else. It may be wanted in no more bakes than
    `most_bakes`, and modelling paste may be built so far out from what the tins bake.
    """

    openings: Annotated[tuple[Opening, ...], Field(max_length=int(limits.OPENINGS.high)), AfterValidator(with_ids)] = ()
    scored_mm: Annotated[float, limits.SCORED.field()] | None = None
    scored_run: Literal["level", "upright"] = "level"
    most_bakes: Annotated[int, limits.MOST_BAKES.field()] | None = None
    paste_mm: Annotated[float, limits.PASTE_OUT.field()] | None = None

    def also_takes(self) -> Iterator[Taken]:
        """What fills its openings."""
        for index, one in enumerate(self.openings):
            if one.medium is not None:
                yield ("openings", index, "medium"), one.medium, one.colour


class CarvedBuild(Carvable, Smoothed):
    """Carved out of stacked layers to a view from the side, drawn as corners in mm and scaled to the tin's width.

    From above it is the tin's outline. Its sections across are box-like (`rounded` 0) to elliptical (1), rounded above
    only where it has a flat foot; or each has the form of a view from the front, drawn as corners too. Where `sections`
    are given along it, they go from one to the next instead.
    """

    flat_top = False
    own_height = True
    carved = True
    curves = (*Smoothed.curves, ("front_smooth_corners", "front_mm"))
    drawn: ClassVar[tuple[str, ...]] = (
        "openings", "points_mm", "smooth_corners", "front_mm", "front_smooth_corners", "sections",
        "picture", "front_picture", "above_picture",
    )  # fmt: skip

    kind: Literal["carved"] = "carved"
    rounded: Annotated[float, limits.SHARE.field()] = 0.5
    flat_foot: bool = True
    points_mm: Corners
    smooth_corners: Smooth = ()
    front_mm: Corners | None = None
    front_smooth_corners: Smooth = ()
    sections: Annotated[tuple[SectionAt, ...], Field(max_length=int(limits.SECTIONS.high))] = ()
    picture: Picture | None = None
    front_picture: Picture | None = None
    above_picture: Picture | None = None

    @property
    def side_line_mm(self) -> Corners:
        """The view from the side, in a curve through the corners that are smooth."""
        return curved(self.points_mm, self.smooth_corners)

    @property
    def front_line_mm(self) -> Corners | None:
        """The view from the front likewise, where there is one."""
        return None if self.front_mm is None else curved(self.front_mm, self.front_smooth_corners)

    @model_validator(mode="after")
    def _sections_apart(self) -> Self:
        placed = sorted(range(len(self.sections)), key=lambda index: self.sections[index].at)
        for left, right in pairwise(placed):
            if self.sections[right].at - self.sections[left].at < LEAST_APART:
                raise at(("sections", right, "at"), "should be a place of its own, 1 per cent from the next or more")
        return self

    def own_height_mm(self, outline: Outline) -> float:
        """As high as the view is at that width. Raises ValueError where the view cannot be carved."""
        return float(side_view(self.side_line_mm, 2 * outline.half_width_mm).bounds[3])

    def body(self, outline: Outline, height_mm: float) -> Sculpted:
        """The body within the views, drawn out to that height. Raises ValueError where it cannot be made."""
        sections = tuple(Section(one.rounded, self.flat_foot, one.line_mm, one.at) for one in self.sections) or (
            Section(self.rounded, self.flat_foot, self.front_line_mm),
        )
        return sculpted(lofted(outline, self.side_line_mm, sections, height_mm))


class Bodied(Carvable):
    """Carved to a body of its own, which is scaled to the width that is asked for."""

    flat_top = False
    round_only = True
    own_height = True
    own_outline = True
    carved = True

    def own(self) -> Meshed:
        """The body at its own size. Raises ValueError where it cannot be made."""
        raise NotImplementedError

    @property
    def made_key(self) -> str:
        """What is made of it is known by: a digest of how it is given."""
        return _digest(self)

    def width_for(
        self, height_mm: float | None = None, length_mm: float | None = None, volume_ml: float | None = None
    ) -> float:
        """How wide the body is once it is so high, so long or of such a volume; else as wide as it is by itself, mm.

        width x wanted / own, or width x cube root of (wanted / own volume). Source: geometry. Raises ValueError where
        the body cannot be made.
        """
        own = self.own()
        wide, long = 2 * own.outline.half_width_mm, 2 * own.outline.half_length_mm
        if volume_ml is not None:
            return wide * math.cbrt(volume_ml / own.volume_ml)
        if height_mm is not None:
            return wide * height_mm / own.height_mm
        return wide if length_mm is None else wide * length_mm / long

    def own_height_mm(self, outline: Outline) -> float:
        """As high as the body is at that width. Raises ValueError where it cannot be made."""
        own = self.own()
        return own.height_mm * outline.half_width_mm / own.outline.half_width_mm

    def body(self, outline: Outline, height_mm: float) -> Sculpted:
        """The body as wide as the outline, drawn out to that height. Raises ValueError where it cannot be made."""
        return sculpted(sized(self.own(), 2 * outline.half_width_mm, height_mm))


class JoinedBuild(Bodied):
    """Carved to simple solids, joined to one another and cut out of each other; scaled to the width asked for."""

    drawn: ClassVar[tuple[str, ...]] = ("openings", "solids")

    kind: Literal["joined"] = "joined"
    solids: Solids

    def own(self) -> Meshed:
        """All the solids together, at the sizes they were given."""
        return self._made[0]

    @property
    def lowest_mm(self) -> tuple[float, float, float]:
        """Where the middle of the foot of all of them is, by the places they were given."""
        return self._made[1]

    @property
    def _made(self) -> tuple[Meshed, tuple[float, float, float]]:
        return made_once(self.made_key, lambda: _joined(self.solids))


class ModelledBuild(Bodied):
    """Carved to a body out of a 3D file, kept as triangles no farther than `error_mm` from it."""

    drawn: ClassVar[tuple[str, ...]] = ("openings", "mesh", "error_mm")

    kind: Literal["modelled"] = "modelled"
    turn_deg: Annotated[float, limits.TURN.field()] = 0.0
    mesh: Packed
    error_mm: Annotated[float, limits.MESH_ERROR.field()] = 0.0

    def own(self) -> Meshed:
        """The body turned about the upright."""
        return made_once(self.made_key, lambda: _modelled(self.mesh, self.turn_deg))


@cached(256)
def _digest(build: Bodied) -> str:
    return sha256(build.model_dump_json(exclude={"error_mm", *Carvable.model_fields}).encode()).hexdigest()


def _joined(solids: Solids) -> tuple[Meshed, tuple[float, float, float]]:
    whole = built_of(solids).simplify(FINE_MM)
    left, front, low, right, back, _ = whole.bounding_box()
    return meshed(whole), ((left + right) / 2, (front + back) / 2, low)


def _modelled(mesh: str, turn_deg: float) -> Meshed:
    return meshed(solid_of(*unpacked(mesh)).rotate([0.0, 0.0, turn_deg]))


Build = Annotated[
    StraightBuild
    | TaperedBuild
    | BevelledBuild
    | DomedBuild
    | BallBuild
    | TurnedBuild
    | SideBuild
    | CarvedBuild
    | JoinedBuild
    | ModelledBuild,
    Field(discriminator="kind"),
]
