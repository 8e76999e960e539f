"""How a tier stands on the one below it, and how the whole is stacked, held and driven.

A field left out (null) takes this kitchen's usual from the Practice.
"""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, Key, Usual, at
from amber_spread.core.stock.supports import SupportSort

School = Literal["inches", "band", "load"]
Places = Literal["edge", "ring", "free"]
Shift = Annotated[float, limits.SHIFT.field()]
Gap = Annotated[float, limits.TIER_GAP.field()]


class _OnSupports(Frozen):
    """What every way of standing decides: the supports in the tier below, their number and places, glue and gap.

    Without a number, the `school` says how many; without a school, the one that asks for more of width and load.
    Places `free` are `points_mm`, measured from the middle of the tier that stands on them: x to the right, y to the
    back. `off_x_mm` and `off_y_mm` move the tier off the middle of the one below.

    One that is `flush` has no gap, the supports of one that goes `through` reach up to the next tier, and one with a
    `plate` stands on a card of its own.
    """

    flush: ClassVar[bool] = False
    through: ClassVar[bool] = False
    plate: ClassVar[bool] = False
    sort: SupportSort = "wide_straw"
    count: Annotated[int, limits.SUPPORTS.field()] | None = None
    school: School | None = None
    fewer: bool = False
    places: Places = "edge"
    inset_mm: Annotated[Annotated[float, limits.BOARD_MARGIN.field()] | None, Usual("support_inset_mm")] = None
    apart_mm: Annotated[Annotated[float, limits.BOARD_MARGIN.field()] | None, Usual("support_apart_mm")] = None
    points_mm: Annotated[tuple[tuple[Shift, Shift], ...], Field(max_length=int(limits.SUPPORTS.high))] = ()
    off_x_mm: Shift = 0.0
    off_y_mm: Shift = 0.0
    glue_medium: Key | None = None
    bead_medium: Key | None = None
    bead_mm: Annotated[Annotated[float, limits.JOINT_BEAD.field()] | None, Usual("joint_bead_mm")] = None

    @model_validator(mode="after")
    def free_places_are_given(self) -> Self:
        """Places set one by one are three or more, and none is set twice."""
        if self.places == "free" and len(self.points_mm) < 3:
            raise at(("points_mm",), "should be three places or more; a tier on fewer tips")
        for index, point in enumerate(self.points_mm):
            if point in self.points_mm[:index]:
                raise at(("points_mm", index), "is the same place as another support's")
        return self


class StackedStand(_OnSupports):
    """Flush: supports cut to the finished height of the tier below, its board on them and on the coat."""

    flush = True
    kind: Literal["stacked"] = "stacked"


class PillarsStand(_OnSupports):
    """Apart: pillars that go down through the tier below to its board, and stand so far out of it."""

    through = True
    kind: Literal["pillars"] = "pillars"
    sort: SupportSort = "plastic_tube"
    gap_mm: Annotated[Gap | None, Usual("tier_gap_mm")] = None


class RiserStand(_OnSupports):
    """Apart: a narrower riser, hidden by flowers or left bare, on a card that stands on supports."""

    plate = True
    kind: Literal["riser"] = "riser"
    gap_mm: Annotated[Gap | None, Usual("tier_gap_mm")] = None


Stand = Annotated[StackedStand | PillarsStand | RiserStand, Field(discriminator="kind")]


class Stacking(Frozen):
    """How the cake is put together and taken to the table.

    `travels` null is not asked yet, and planned as if it were driven. `stacked` says where the tiers are put on each
    other, `coated` whether each has its final coat before that. `dowel` null takes a centre dowel in every cake of two
    tiers or more that is driven stacked; its length null is as long as it has to be.
    """

    travels: bool | None = None
    drive_min: Annotated[float, limits.MINUTES.field()] | None = None
    stacked: Literal["kitchen", "there"] = "kitchen"
    coated: Literal["before", "after"] = "before"
    dowel: bool | None = None
    dowel_mm: Annotated[Annotated[float, limits.DOWEL.field()] | None, Usual("dowel_mm")] = None
    dowel_length_mm: Annotated[float, limits.ROD.field()] | None = None

    @property
    def driven(self) -> bool:
        """Whether it has to bear a drive with its tiers on each other."""
        return self.travels is not False and self.stacked == "kitchen"
