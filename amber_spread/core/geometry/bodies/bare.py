"""A body with no formula before anything goes on it: what its slices, coats and tins ask of it, however it was made.

It stands at height 0 with its middle from left to right, and from front to back, at 0. x runs to the right, y to the
back, z up from the foot. Lengths are in mm, areas in mm², volumes in ml. What takes long to work out is kept with it,
and it with all of that by what it is made of, so that another process can be told and an edit of a colour works
nothing out again.
"""

from abc import ABC, abstractmethod
from collections.abc import Callable, Hashable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, TypeVar, cast

import numpy
from numpy.typing import NDArray
from shapely import Polygon

from amber_spread.core.geometry.bodies.body import MM3_PER_ML
from amber_spread.core.geometry.flat.outline import Outline
from amber_spread.core.geometry.flat.places import polygon_of
from amber_spread.core.geometry.flat.traced import Region, Traced, largest_of
from amber_spread.core.geometry.rows import Numbers
from amber_spread.core.kernel.caching import forgettable
from amber_spread.core.kernel.latest import Latest
from amber_spread.core.kernel.progress import begun

T = TypeVar("T")
Places = tuple[Numbers, Numbers]
"""Places and the directions at them, a row each."""
LEVELS = 240
"""So many heights at which its area is measured, between those where it changes at once."""
MOST_KEPT, MOST_OF_A_NAME = 32, 12
"""So many bodies are kept, and of each so many coats and cuts, those worked out last."""
NARROWER = 0.8
"""A place of less than this of the area below it is narrower than that."""
LEAST_AREA_MM2 = 1.0
"""A tip is taken as no less than this."""
LEAST_FLAT = 0.005
"""A flat of less than this share of the outline is no flat top."""


@dataclass(frozen=True, eq=False)
class BareBody(ABC):
    """The body itself. `outline` is all of it from above."""

    outline: Outline
    kept: dict[str, Latest[Hashable, Any]] = field(default_factory=dict, kw_only=True)
    """What was worked out of it and takes long, by name."""

    @property
    @abstractmethod
    def key(self) -> str:
        """What it is known by in every process: a digest of what it is made of."""

    @property
    @abstractmethod
    def height_mm(self) -> float:
        """From the foot to its highest place."""

    @property
    @abstractmethod
    def side(self) -> Polygon:
        """All of it from the side, as (x, z)."""

    @property
    @abstractmethod
    def front(self) -> Polygon:
        """All of it from the front, as (y, z)."""

    @property
    @abstractmethod
    def plane(self) -> Region:
        """What is cut through from left to right through the middle, as (x, z)."""

    @property
    @abstractmethod
    def steps_mm(self) -> Numbers:
        """The heights at which it changes at once, the foot and the top among them, in order."""

    @abstractmethod
    def region(self, up_mm: float) -> Region:
        """What of the body is at a height, as it would be sliced there; empty where there is nothing."""

    @abstractmethod
    def holds(self, x: Numbers, y: Numbers, z: Numbers) -> NDArray[numpy.bool_]:
        """Whether each place of the lattice x by y by z is in the body."""

    @abstractmethod
    def skin(self, apart_mm: float) -> Places:
        """Places all over the surface no farther apart than that, and the direction straight out or in at each."""

    @property
    @abstractmethod
    def surface_mm2(self) -> float:
        """The area of all its surface but the flat it stands on, mm²."""

    def cached(self, name: str, key: Hashable, work_out: Callable[[], T]) -> T:
        """What was worked out of it under a name and a key, or what is now; those worked out last are kept.

        It is kept with the body that is known as this one, so that however many plans still hold a body, all that was
        worked out of it goes when it is no longer among those worked with last.
        """

        def begin() -> T:
            begun(name)
            return work_out()

        known = _BODIES.get_or_compute(self.key, lambda: self)
        found: T = known.kept.setdefault(name, Latest(MOST_OF_A_NAME)).get_or_compute(key, begin)
        return found

    @property
    def known(self) -> set[tuple[str, Hashable]]:
        """All that is kept of it."""
        return {(name, key) for name, each in self.kept.items() for key in each}

    @cached_property
    def edge(self) -> Polygon:
        """The outline from above, as fine as it is worked with."""
        return largest_of(polygon_of(self.outline))

    def area(self, up_mm: float) -> float:
        """The area of what is at a height, mm²."""
        return float(self.region(up_mm).area)

    @property
    def _climbed(self) -> tuple[Numbers, Numbers]:
        return self.cached("climbed", None, self._climb)

    def _climb(self) -> tuple[Numbers, Numbers]:
        """Heights from foot to top and the volume below each, ml: the middle area of each step, times the step."""
        at_once = self.steps_mm
        steps = [
            numpy.linspace(low, high, max(2, round(LEVELS * (high - low) / self.height_mm)) + 1)
            for low, high in zip(at_once, at_once[1:], strict=False)
        ]
        at = numpy.unique(numpy.concatenate(steps))
        areas = numpy.array([self.area(float(up)) for up in (at[1:] + at[:-1]) / 2])
        return at, numpy.concatenate([[0.0], numpy.cumsum(areas * numpy.diff(at))]) / MM3_PER_ML

    @property
    def volume_ml(self) -> float:
        """All of it."""
        return float(self._climbed[1][-1])

    def volume_below(self, up_mm: float) -> float:
        """The volume below a height, ml."""
        return float(numpy.interp(up_mm, *self._climbed))

    def neck(self, carried_mm: float | None = None) -> tuple[float, float, float] | None:
        """Where it presses hardest on itself of all places that are narrower than one below: the height, mm, the area
        there, mm², and the share of all of it that lies on that; None where it grows narrower nowhere. What lies above
        `carried_mm` is borne by a board there.
        """
        at, below = self._climbed
        middles = (at[1:] + at[:-1]) / 2
        areas = numpy.maximum(numpy.diff(below) / numpy.diff(at) * MM3_PER_ML, LEAST_AREA_MM2)
        tops = numpy.full(len(middles), below[-1])
        if carried_mm is not None:
            tops[middles < carried_mm] = self.volume_below(carried_mm)
        above = tops - numpy.interp(middles, at, below)
        narrower = areas < NARROWER * numpy.maximum.accumulate(areas)
        if not narrower.any():
            return None
        worst = int(numpy.argmax(numpy.where(narrower, above / areas, 0.0)))
        return float(middles[worst]), float(areas[worst]), float(above[worst] / below[-1])

    @cached_property
    def flat_top(self) -> Traced | None:
        """What is level at the very top; None where that is next to nothing."""
        found = self.region(self.height_mm * (1 - 1e-7))
        return Traced(found, may_part=True) if found.area > LEAST_FLAT * self.outline.area_mm2 else None


_BODIES: Latest[str, BareBody] = forgettable(Latest(MOST_KEPT, left_out=lambda body: body.kept.clear()))
_MADE: Latest[str, Any] = forgettable(Latest(MOST_KEPT))
"""What bodies of triangles are made of, by a digest of how it was given."""
Body = TypeVar("Body", bound=BareBody)


def known_as(body: Body) -> Body:
    """The body made of the same that was worked with before, with all that was worked out of it; else this one."""
    found = _BODIES.get_or_compute(body.key, lambda: replace(body, kept={}))
    assert isinstance(found, type(body))
    return found


def made_once(key: str, make: Callable[[], T]) -> T:
    """What is made of what is given, known by a digest of that; what was made before where it is known."""
    return cast(T, _MADE.get_or_compute(key, make))


def made_of(keys: Iterable[str]) -> dict[str, Any]:
    """What was made, by its keys, of what is still known."""
    return {key: _MADE[key] for key in keys if key in _MADE}


def take_over(bodies: Iterable[BareBody], made: Mapping[str, Any] | None = None) -> None:
    """Keep bodies that were worked out in another process, with all that was worked out of them and what they were made
    of.
    """
    for body in bodies:
        _BODIES.put(body.key, body)
    for key, one in (made or {}).items():
        _MADE.put(key, one)
