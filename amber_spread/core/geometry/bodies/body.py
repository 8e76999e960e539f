"""A body: an outline carried up along a profile. Its volume, wall, top, girth and section, and the envelope after a
coat.

`Straight` has closed forms; `Carried` integrates along any profile. Both answer the same questions, and the
tests hold each against the other. Lengths are in mm, areas in mm², volumes in ml.
"""

import math
from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import Any, Protocol

from amber_spread.core.geometry.bodies.profile import Arc, Line, Node, Profile, Stretch, moved, rounded_rim, straight
from amber_spread.core.geometry.flat.outline import Outline, Point, Round
from amber_spread.core.geometry.flat.sector import Sector
from amber_spread.core.geometry.flat.traced import Traced

MM3_PER_ML = 1000.0
SLICES = 24
"""What lies in a sector is measured in so many level slices."""
GROWN_STEP_MM = 4.0
"""A traced outline is grown by steps of this along a slanted wall."""
FLAT_MM = 0.01
"""A wall that leans less than this in all is upright."""


class Solid(Protocol):
    """What every solid can say of itself, however it was made. Heights are measured from the foot of the bare tier."""

    @property
    def outline(self) -> Outline:
        """The outline at its widest, as it is seen from above."""

    @property
    def foot_mm(self) -> float:
        """The height of its own foot; below 0 where the foot is coated too."""

    @property
    def height_mm(self) -> float:
        """From its own foot to its top."""

    @property
    def width_mm(self) -> float:
        """The width across at its widest, in the plane of the half-section."""

    @property
    def length_mm(self) -> float:
        """The length across, at right angles to the half-section."""

    @property
    def top_area_mm2(self) -> float:
        """The area of the flat top; 0 where there is none."""

    @property
    def wall_area_mm2(self) -> float:
        """The area of all that is not flat top or foot."""

    @property
    def volume_ml(self) -> float:
        """The volume."""

    def volume_between(self, low_mm: float, high_mm: float) -> float:
        """The volume between two heights, ml."""

    def section(self, up_mm: float) -> Outline:
        """The outline at a height. Raises ValueError where nothing is left."""


class Body(Solid, Protocol):
    """A solid with a profile: one outline carried up along one line, which it can be measured along and cut through."""

    @property
    def girth_mm(self) -> float:
        """The length once round the wall at its widest."""

    @property
    def slant_mm(self) -> float:
        """The length up the wall and in over any slanted or domed top, as far as a flat top."""

    @property
    def flat_top(self) -> Outline | None:
        """The outline of the flat top, None where there is none."""

    @property
    def bends_mm(self) -> Sequence[float]:
        """Heights between which its wall goes straight up or in, or nearly so."""

    @property
    def middle(self) -> Point:
        """Where the middle of it is, seen from above."""

    def half_profile(self, low_mm: float | None = None, high_mm: float | None = None) -> list[Point]:
        """The right half cut through, from the foot up, as points (from the axis, up), between two heights."""

    def left_profile(self) -> list[Point]:
        """The left half cut through, as if it were the right."""

    def ring_share(self, inner: Any, low_mm: float, high_mm: float, sector: Sector) -> float:
        """How much of what lies between it and the same body without a coat, and between two heights, lies in a sector;
        as much as that is of a turn where nothing does.
        """

    def envelope(self, side_mm: float, top_mm: float, under_mm: float = 0.0, rounded: bool = False) -> "Body":
        """The body after a coat of `side_mm` on the wall, `top_mm` on the top and `under_mm` below the foot.

        Edges stay sharp (mitred) unless `rounded`. Source: definition. Raises ValueError when nothing would be left.
        """


class Outlined:
    """What a body tells by its outline, its flat top and its half profile alone."""

    __slots__ = ()

    @property
    def outline(self) -> Outline:
        raise NotImplementedError

    @property
    def flat_top(self) -> Outline | None:
        raise NotImplementedError

    def half_profile(self, low_mm: float | None = None, high_mm: float | None = None) -> list[Point]:
        raise NotImplementedError

    @property
    def width_mm(self) -> float:
        return 2 * self.outline.half_width_mm

    @property
    def length_mm(self) -> float:
        return 2 * self.outline.half_length_mm

    @property
    def girth_mm(self) -> float:
        return self.outline.perimeter_mm

    @property
    def top_area_mm2(self) -> float:
        return self.flat_top.area_mm2 if self.flat_top else 0.0

    @property
    def bends_mm(self) -> Sequence[float]:
        return ()

    @property
    def middle(self) -> Point:
        """That of its outline; of all but traced ones it lies on the axis. Source: geometry."""
        if not isinstance(self.outline, Traced):
            return 0.0, 0.0
        spot = self.outline.polygon.centroid
        return float(spot.x), float(spot.y)

    def left_profile(self) -> list[Point]:
        return self.half_profile()

    def volume_between(self, low_mm: float, high_mm: float) -> float:
        raise NotImplementedError

    def section(self, up_mm: float) -> Outline:
        raise NotImplementedError

    def ring_share(self, inner: Body, low_mm: float, high_mm: float, sector: Sector) -> float:
        """The sector's share of each of many level slices, by how much they hold."""
        top_mm = inner.foot_mm + inner.height_mm
        # None of them is partly beside the inner body and partly above it.
        ends = sorted({low_mm, high_mm, min(high_mm, top_mm)})
        ups = [low + (high - low) * step / SLICES for low, high in pairwise(ends) for step in range(SLICES)] + [high_mm]
        held = within = 0.0
        for low, high in pairwise(ups):
            beside, middle = high <= top_mm, (low + high) / 2
            ring = self.volume_between(low, high) - (inner.volume_between(low, high) if beside else 0.0)
            held += ring
            within += ring * sector.share(self.section(middle), inner.section(middle) if beside else None)
        return within / held if held > 0 else sector.of_a_turn


@dataclass(frozen=True, slots=True)
class Straight(Outlined):
    """An outline raised straight up: a drum, a box."""

    outline: Outline = field()
    height_mm: float = field()

    @property
    def foot_mm(self) -> float:
        return 0.0

    @property
    def slant_mm(self) -> float:
        return self.height_mm

    @property
    def flat_top(self) -> Outline:
        return self.outline

    @property
    def wall_area_mm2(self) -> float:
        """Girth x height."""
        return self.girth_mm * self.height_mm

    @property
    def volume_ml(self) -> float:
        """Area of the outline x height."""
        return self.outline.area_mm2 * self.height_mm / MM3_PER_ML

    def volume_between(self, low_mm: float, high_mm: float) -> float:
        return self.outline.area_mm2 * (high_mm - low_mm) / MM3_PER_ML

    def section(self, up_mm: float) -> Outline:
        return self.outline

    def half_profile(self, low_mm: float | None = None, high_mm: float | None = None) -> list[Point]:
        low, high = 0.0 if low_mm is None else low_mm, self.height_mm if high_mm is None else high_mm
        half = self.outline.half_width_mm
        return [(half, low), (half, high), (0.0, high)]

    def envelope(self, side_mm: float, top_mm: float, under_mm: float = 0.0, rounded: bool = False) -> Body:
        """The outline grown by the side thickness and the height by the top thickness; an uncoated foot stays."""
        if rounded or under_mm:
            return self.carried().envelope(side_mm, top_mm, under_mm, rounded)
        return Straight(self.outline.offset(side_mm), self.height_mm + top_mm)

    def carried(self) -> "Carried":
        """The same body along a straight profile."""
        return Carried(self.outline, straight(self.outline.half_width_mm, self.height_mm))


@dataclass(frozen=True)
class Carried(Outlined):
    """An outline carried up along a profile: at every height its section is `base` grown or shrunk evenly.

    The volume is the integral of area x dz along the profile, the wall the integral of girth x ds, both by
    Gauss-Legendre quadrature: exact for straight pieces, better than 1e-8 for arcs.
    """

    base: Outline
    profile: Profile
    rounded: bool = False

    @cached_property
    def _by_growth(self) -> tuple[Callable[[float], float], Callable[[float], float]]:
        """The area and the girth of the outline by how far it is grown.

        A traced outline is grown by whole steps and not at every node, so that the bodies of a tier, and the next edit,
        ask for the same ones. Since the area of an outline changes by its girth as it grows (dA = P d, Steiner), a
        cubic through area and girth at both ends of each step, and its slope for the girth, follow it past corners
        and petals that vanish: within 0.1 per cent of the area.
        """
        if isinstance(self.base, Round):
            radius, pi = self.base.radius_mm, math.pi
            return (lambda out: pi * max(0.0, radius + out) ** 2), (lambda out: 2 * pi * max(0.0, radius + out))
        if not isinstance(self.base, Traced):
            return (lambda out: self._grown(out).area_mm2), (lambda out: self._grown(out).perimeter_mm)
        outs = [out for piece in self._walls for out in (piece.x0, piece.x1)]
        low, high = min(outs), max(outs)
        if high - low < FLAT_MM:
            only = self._grown((low + high) / 2)
            return (lambda _: only.area_mm2), (lambda _: only.perimeter_mm)
        first, last = math.floor(low / GROWN_STEP_MM) + 1, math.ceil(high / GROWN_STEP_MM)
        at = [low, *(step * GROWN_STEP_MM for step in range(first, last)), high]
        grown = [self._grown(out) for out in at]
        return _through(at, [one.area_mm2 for one in grown], [one.perimeter_mm for one in grown])

    def _grown(self, out_mm: float) -> Outline:
        return self.base.offset(out_mm, self.rounded and out_mm > 0)

    @cached_property
    def _widest(self) -> float:
        outs = [out for piece in self.profile for out in (piece.x0, piece.x1)]
        arcs = [
            piece.x + piece.radius for piece in self.profile if isinstance(piece, Arc) and piece.start < 0 < piece.end
        ]
        return max(outs + arcs)

    @cached_property
    def outline(self) -> Outline:
        return self._grown(self._widest)

    @property
    def foot_mm(self) -> float:
        return self.profile[0].z0

    @property
    def height_mm(self) -> float:
        return self.profile[-1].z1 - self.profile[0].z0

    @cached_property
    def _walls(self) -> Profile:
        """The profile without its flat top and its coated foot, which lie level."""
        return tuple(piece for piece in self.profile if isinstance(piece, Arc) or not piece.level)

    @property
    def bends_mm(self) -> Sequence[float]:
        return [piece.z1 for piece in self.profile]

    @property
    def slant_mm(self) -> float:
        return sum(length for piece in self._walls for _, length, _ in piece.along())

    @cached_property
    def flat_top(self) -> Outline | None:
        last = self.profile[-1]
        if not (isinstance(last, Line) and last.level):
            return None
        try:
            return self._grown(last.x0)
        except ValueError:
            return None

    @cached_property
    def wall_area_mm2(self) -> float:
        girth = self._by_growth[1]
        return sum([girth(out) * length for piece in self._walls for out, length, _ in self._along(piece)])

    @cached_property
    def volume_ml(self) -> float:
        return self._volume(self._walls)

    def _volume(self, pieces: Profile) -> float:
        area = self._by_growth[0]
        return sum([area(out) * rise for piece in pieces for out, _, rise in self._along(piece)]) / MM3_PER_ML

    def _along(self, piece: Stretch) -> Sequence[Node]:
        """Nodes to integrate over; a slanted wall of a traced outline in as many steps as the outline is grown at."""
        if not isinstance(self.base, Traced) or isinstance(piece, Arc) or abs(piece.x1 - piece.x0) < FLAT_MM:
            return piece.along()
        steps = math.ceil(abs(piece.x1 - piece.x0) / GROWN_STEP_MM)
        rise = (piece.z1 - piece.z0) / steps
        cuts = [piece.z0 + rise * step for step in range(steps + 1)]
        return [node for low, high in zip(cuts, cuts[1:], strict=False) for node in piece.between(low, high).along()]

    def _cut(self, low_mm: float, high_mm: float) -> Profile:
        return tuple(
            piece.between(max(low_mm, piece.z0), min(high_mm, piece.z1))
            for piece in self._walls
            if piece.z1 > low_mm and piece.z0 < high_mm
        )

    def volume_between(self, low_mm: float, high_mm: float) -> float:
        return self._volume(self._cut(low_mm, high_mm))

    def section(self, up_mm: float) -> Outline:
        for piece in self._walls:
            if piece.z0 <= up_mm <= piece.z1:
                return self._grown(piece.out_at(up_mm))
        raise ValueError("the body does not reach that height")

    def half_profile(self, low_mm: float | None = None, high_mm: float | None = None) -> list[Point]:
        if low_mm is None or high_mm is None:
            return self._whole_half
        return self._drawn(self._cut(low_mm, high_mm))

    @cached_property
    def _whole_half(self) -> list[Point]:
        return self._drawn(self.profile)

    def _drawn(self, pieces: Profile) -> list[Point]:
        half = self.base.half_width_mm
        points: list[Point] = []
        for piece in pieces:
            drawn = [(max(0.0, half + out), up) for out, up in piece.drawn()]
            points.extend(drawn[1:] if points and math.dist(points[-1], drawn[0]) < 1e-6 else drawn)
        if points and points[-1][0] > 1e-9:
            points.append((0.0, points[-1][1]))
        return points

    def envelope(self, side_mm: float, top_mm: float, under_mm: float = 0.0, rounded: bool = False) -> Body:
        """Every face moved outward by its thickness until it meets the next; an uncoated foot stays on its plane."""
        profile, half = self.profile, self.base.half_width_mm
        first = profile[0]
        standing = half + first.x0 > 1e-9
        if under_mm and standing and first.face != "under":
            profile = Line(-half, first.z0, first.x0, first.z0, "under"), *profile
        whole = not standing or profile[0].face == "under"
        thickness = {"wall": side_mm, "top": top_mm, "under": under_mm}
        grown = moved(profile, thickness.__getitem__, foot_coated=whole)
        if rounded:
            grown = rounded_rim(grown, min(side_mm, top_mm))
        return Carried(self.base, grown, self.rounded or rounded)


def _through(
    at: list[float], values: list[float], slopes: list[float]
) -> tuple[Callable[[float], float], Callable[[float], float]]:
    """The curve through values and slopes at knots, and its slope (published: cubic Hermite interpolation, as in
    de Boor, A Practical Guide to Splines, chapter IV; from memory)."""
    last = len(at) - 2

    def place(out: float) -> tuple[float, float, float, float, float, float]:
        index = min(last, max(0, bisect_right(at, out) - 1))
        step = at[index + 1] - at[index]
        low, high = values[index], values[index + 1]
        return low, high, slopes[index] * step, slopes[index + 1] * step, (out - at[index]) / step, step

    def value(out: float) -> float:
        low, high, m0, m1, t, _ = place(out)
        return low + t * (m0 + t * (3 * (high - low) - 2 * m0 - m1 + t * (2 * (low - high) + m0 + m1)))

    def slope(out: float) -> float:
        low, high, m0, m1, t, step = place(out)
        return (m0 + t * (2 * (3 * (high - low) - 2 * m0 - m1) + 3 * t * (2 * (low - high) + m0 + m1))) / step

    return value, slope


@dataclass(frozen=True, slots=True)
class Sideways:
    """A drum on its side, seen from its face: a circle with a flat foot, so thick from front to back.

    `centre_mm` is the height of the drum's middle above the flat. Nothing below the flat is left.
    """

    radius_mm: float
    thick_mm: float
    centre_mm: float

    @property
    def foot_mm(self) -> float:
        """The lowest point: the flat, or the drum's own rim where it does not reach down so far."""
        return max(0.0, self.centre_mm - self.radius_mm)

    @property
    def height_mm(self) -> float:
        """From the foot to the top of the rim."""
        return self.centre_mm + self.radius_mm - self.foot_mm

    @property
    def foot_width_mm(self) -> float:
        """The width of the flat: 2 sqrt(r² - centre²) (geometry: the chord)."""
        return 2 * math.sqrt(max(0.0, self.radius_mm**2 - self.centre_mm**2))

    @property
    def sliced_mm2(self) -> float:
        """The area of the face below the flat: r² acos(c/r) - c sqrt(r² - c²) (geometry: circular segment)."""
        ratio = min(1.0, self.centre_mm / self.radius_mm)
        return self.radius_mm**2 * math.acos(ratio) - self.centre_mm * self.foot_width_mm / 2

    @property
    def face_area_mm2(self) -> float:
        """The area of one face: the circle without the slice."""
        return math.pi * self.radius_mm**2 - self.sliced_mm2

    @property
    def volume_ml(self) -> float:
        """One face x the thickness."""
        return self.face_area_mm2 * self.thick_mm / MM3_PER_ML

    @property
    def rim_mm(self) -> float:
        """The length of the rim, from one end of the flat over the top to the other: 2 r (pi - acos(c/r))."""
        return 2 * self.radius_mm * (math.pi - math.acos(min(1.0, self.centre_mm / self.radius_mm)))

    def half_profile(self) -> list[Point]:
        """The right half of the face, from the flat up."""
        start = -math.asin(min(1.0, self.centre_mm / self.radius_mm))
        rim = Arc(0.0, self.centre_mm, self.radius_mm, start, math.pi / 2).drawn()
        return [(0.0, rim[0][1]), *((max(0.0, x), z) for x, z in rim)]

    def left_profile(self) -> list[Point]:
        """The left half, which is as the right."""
        return self.half_profile()


@dataclass(frozen=True, slots=True)
class Envelopes:
    """The nested bodies of one tier: trimmed and filled, crumb-coated, coated, covered."""

    bare: Body
    crumbed: Body
    coated: Body
    covered: Body
