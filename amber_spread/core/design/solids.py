"""What a body is built of: simple solids, each joined to those before it or cut out of them, and where each lies.

A solid stands on height 0 about its own axis; it is leant over to the right, turned about the upright, and moved.
Lengths are in mm, turns in degrees.
"""

from typing import Annotated, Literal

from manifold3d import Manifold
from pydantic import Field

from amber_spread.core.design.corners import Corners
from amber_spread.core.geometry.bodies import profile, solids
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen

Size = Annotated[float, limits.SOLID_SIZE.field()]
Edge = Annotated[float, limits.CORNER_RADIUS.field()]
Place = Annotated[float, limits.SOLID_PLACE.field()]
Turn = Annotated[float, limits.TURN.field()]


class _Solid(Frozen):
    """Whether it is joined or cut out, and where it lies."""

    does: Literal["join", "cut"] = "join"
    x_mm: Place = 0.0
    y_mm: Place = 0.0
    z_mm: Place = 0.0
    lean_deg: Turn = 0.0
    turn_deg: Turn = 0.0

    def itself(self) -> Manifold:
        """The solid on its foot. Raises ValueError where it cannot be made."""
        raise NotImplementedError

    def placed(self) -> Manifold:
        """The solid where it lies: leant over about the middle of its foot, turned and moved. Raises ValueError where
        it cannot be made.
        """
        return self.itself().rotate([0.0, self.lean_deg, self.turn_deg]).translate([self.x_mm, self.y_mm, self.z_mm])


class BoxSolid(_Solid):
    """A box, its edges sharp or of a radius."""

    kind: Literal["box"] = "box"
    wide_mm: Size = 120.0
    deep_mm: Size = 120.0
    high_mm: Size = 80.0
    edge_mm: Edge = 0.0

    def itself(self) -> Manifold:
        """The box. Raises ValueError where its edges do not fit."""
        return solids.block(self.wide_mm, self.deep_mm, self.high_mm, self.edge_mm)


class ConeSolid(_Solid):
    """A cylinder, a cone or what lies between: so wide at its foot and at its top, its edges sharp or of a radius."""

    kind: Literal["cone"] = "cone"
    across_mm: Size = 120.0
    top_mm: Annotated[float, limits.SOLID_TOP.field()] = 70.0
    high_mm: Size = 80.0
    edge_mm: Edge = 0.0

    def itself(self) -> Manifold:
        """The cone. Raises ValueError where its edges do not fit."""
        return solids.frustum(self.across_mm, self.top_mm, self.high_mm, self.edge_mm)


class BallSolid(_Solid):
    """A ball."""

    kind: Literal["ball"] = "ball"
    across_mm: Size = 120.0

    def itself(self) -> Manifold:
        """The ball."""
        return solids.ball(self.across_mm)


class WedgeSolid(_Solid):
    """A wedge that rises from nothing at its left to its height at its right."""

    kind: Literal["wedge"] = "wedge"
    wide_mm: Size = 120.0
    deep_mm: Size = 120.0
    high_mm: Size = 80.0

    def itself(self) -> Manifold:
        """The wedge."""
        return solids.wedge(self.wide_mm, self.deep_mm, self.high_mm)


class RingSolid(_Solid):
    """A ring lying flat, its section round."""

    kind: Literal["ring"] = "ring"
    across_mm: Size = 160.0
    thick_mm: Size = 50.0

    def itself(self) -> Manifold:
        """The ring. Raises ValueError where it is thicker than half its width."""
        return solids.ring(self.across_mm, self.thick_mm)


class SpunSolid(_Solid):
    """A curve through three widths turned about the upright: its foot, its middle and its top."""

    kind: Literal["spun"] = "spun"
    across_mm: Size = 120.0
    middle_mm: Size = 150.0
    top_mm: Size = 80.0
    high_mm: Size = 120.0

    def itself(self) -> Manifold:
        """The body within the curve."""
        half = max(self.across_mm, self.middle_mm, self.top_mm) / 2
        shares = [(0.0, self.across_mm / 2 / half), (0.5, self.middle_mm / 2 / half), (1.0, self.top_mm / 2 / half)]
        line = profile.turned(half, self.high_mm, profile.smoothed(tuple(shares)))
        wall: list[Point] = [(0.0, 0.0), (half + line[0].x0, 0.0)]
        for piece in line:
            wall += [(half + out, up) for out, up in piece.drawn()[1:]]
        return solids.revolved([*wall, (0.0, self.high_mm)])


class RaisedSolid(_Solid):
    """An outline of one's own, drawn as corners in mm, raised straight up."""

    kind: Literal["raised"] = "raised"
    points_mm: Corners
    high_mm: Size = 40.0

    def itself(self) -> Manifold:
        """The outline raised about its middle. Raises ValueError where it crosses itself or encloses nothing."""
        left, right = min(x for x, _ in self.points_mm), max(x for x, _ in self.points_mm)
        front, back = min(y for _, y in self.points_mm), max(y for _, y in self.points_mm)
        about = (left + right) / 2, (front + back) / 2
        return solids.raised([(x - about[0], y - about[1]) for x, y in self.points_mm], self.high_mm)


Solid = Annotated[
    BoxSolid | ConeSolid | BallSolid | WedgeSolid | RingSolid | SpunSolid | RaisedSolid, Field(discriminator="kind")
]
Solids = Annotated[tuple[Solid, ...], Field(min_length=1, max_length=int(limits.SOLIDS.high))]


def built_of(parts: tuple[Solid, ...]) -> Manifold:
    """All of them, each joined to those before it or cut out of them. Raises ValueError where one cannot be made; its
    message says which.
    """
    whole = Manifold()
    for number, part in enumerate(parts, 1):
        try:
            placed = part.placed()
        except ValueError as error:
            raise ValueError(f"solid {number}: {error}") from error
        whole = whole + placed if part.does == "join" else whole - placed
    return whole
