"""What is cut out of a carved tier, looked at level at any height: its hidden room, and its openings after it."""

from collections.abc import Hashable, Iterator, Sequence
from functools import cached_property

from manifold3d import Manifold
from shapely import Point as Point2
from shapely import Polygon

from amber_spread.core.design.builds import Build, Carvable, Opening
from amber_spread.core.geometry.bodies.body import MM3_PER_ML, Body
from amber_spread.core.geometry.bodies.meshed import region_of
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.flat.outline import round_area
from amber_spread.core.geometry.flat.traced import Region, areas_of
from amber_spread.core.kernel.figures import Figure, carry_over
from amber_spread.core.tier.layers.hidden import CavityPlan, hidden_in
from amber_spread.core.tier.layers.rules import without_cavity
from amber_spread.core.tier.layers.slabs import Slab

ROOM = "room"
"""The key of the hidden room; an opening has the key it has in the plan, `opening_` and its id."""
ROUND_PIECES = 96
"""The room is drawn round in so many straight pieces."""


class Emptied:
    """What a tier carved to a body is emptied of: a room through some of its levels, and every opening, where a later
    one takes nothing that the room or an earlier one took; no board is cut.
    """

    def __init__(self, build: Build, bare: Sculpted, slabs: Sequence[Slab], room: CavityPlan | None) -> None:
        self._bare = bare
        self.asked = build.openings if isinstance(build, Carvable) else ()
        self.slabs = tuple(slabs)
        self.hidden = hidden_in(slabs, room)

    @property
    def key(self) -> Hashable:
        """What of a design it depends on beside the body."""
        return tuple(one.solid for one in self.asked), self.slabs, tuple(self.hidden.items())

    @property
    def nothing(self) -> bool:
        """Whether nothing is cut out."""
        return not self.asked and not self.hidden

    @cached_property
    def solids(self) -> list[Manifold]:
        """What every opening is cut to, without what an earlier one took. Raises ValueError where one cannot be made;
        its message says which.
        """
        found, gone = list[Manifold](), Manifold()
        for solid in placed(self.asked):
            found.append(solid - gone)
            gone = gone + solid
        return found

    def by_openings(self, slab: Slab, up_mm: float, whole: Region) -> list[Region]:
        """What each opening takes at a height within a level, out of all that the body is there."""
        if slab.kind == "board":
            return [Polygon() for _ in self.solids]
        left = whole
        if slab in self.hidden:
            left = areas_of(whole.difference(self._room(slab)))
        return [areas_of(left.intersection(region_of(solid.slice(up_mm)))) for solid in self.solids]

    def at(self, slab: Slab, up_mm: float) -> dict[str, Region]:
        """All that is cut out at a height within a level, by its name; what takes nothing there is left out."""
        if self.nothing:
            return {}
        least = 1e-6 * self._bare.height_mm
        up_mm = min(slab.high - least, max(slab.low + least, up_mm))
        whole = self._bare.core.region(up_mm)
        found = {ROOM: areas_of(whole.intersection(self._room(slab)))} if slab in self.hidden else {}
        for opening, region in zip(self.asked, self.by_openings(slab, up_mm, whole), strict=True):
            found[f"opening_{opening.id}"] = region
        return {name: region for name, region in found.items() if not region.is_empty}

    def over(self, up_mm: float) -> dict[str, Region]:
        """Likewise at a height above the foot, whichever level that is; between two levels of the lower one."""
        within = [slab for slab in self.slabs if slab.low <= up_mm <= slab.high]
        return self.at(within[0], up_mm) if within else {}

    @cached_property
    def room(self) -> Manifold:
        """The hidden room as a solid; nothing where there is none."""
        levels = (
            Manifold.cylinder(slab.high - slab.low, half_mm, half_mm, ROUND_PIECES).translate([0.0, 0.0, slab.low])
            for slab, half_mm in self.hidden.items()
            if half_mm > 0
        )
        return sum(levels, Manifold())

    def layer(self, number: int) -> Slab:
        """The level that a layer takes up."""
        return next(slab for slab in self.slabs if slab.kind == "layer" and slab.number == number)

    def above(self, number: int) -> Slab | None:
        """The level that lies on a layer: a filling or a hidden board; None on the last."""
        at = self.slabs.index(self.layer(number)) + 1
        return self.slabs[at] if at < len(self.slabs) else None

    def left(self, slab: Slab) -> Figure:
        """The volume of a level, less what the hidden room takes out of it."""
        whole_ml = self._bare.volume_between(slab.low, slab.high)
        if slab not in self.hidden:
            return carry_over("between its faces", whole_ml, "ml")
        out_ml = round_area(2 * self.hidden[slab]) * (slab.high - slab.low) / MM3_PER_ML
        return without_cavity.figure(whole_ml, min(whole_ml, out_ml))

    def _room(self, slab: Slab) -> Region:
        return Point2(0.0, 0.0).buffer(self.hidden[slab], quad_segs=ROUND_PIECES // 4)


def emptied_of(build: Build, bare: Body, slabs: Sequence[Slab], room: CavityPlan | None) -> Emptied | None:
    """What a tier is emptied of; None of one that is not carved to a body."""
    return Emptied(build, bare, slabs, room) if isinstance(bare, Sculpted) else None


def placed(openings: Sequence[Opening]) -> Iterator[Manifold]:
    """Each opening where it lies, whole. Raises ValueError where one cannot be made; its message says which."""
    for number, one in enumerate(openings, 1):
        try:
            yield one.solid.placed()
        except ValueError as error:
            raise ValueError(f"opening {number}: {error}") from error
