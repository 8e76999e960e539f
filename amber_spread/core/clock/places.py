"""Hands and places: who works in this kitchen and when, and what it has room for."""

from datetime import date
from typing import Annotated, Literal, Self, get_args

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from amber_spread.core.kernel import limits
from amber_spread.core.kernel.base import Frozen, at, printable

Resource = Literal["oven", "mixer", "turntable", "bench"]
"""What work needs besides hands. Each oven, mixer, turntable and bench place serves one piece of work at a time."""
RESOURCES: tuple[Resource, ...] = get_args(Resource)
SHORTEST_DAY_MIN = 60.0


class WorkingDay(Frozen):
    """When work begins and ends on a day, in minutes after midnight."""

    begins_min: Annotated[float, limits.TIME_OF_DAY.field()] = 480.0
    ends_min: Annotated[float, limits.TIME_OF_DAY.field()] = 1080.0

    @model_validator(mode="after")
    def it_is_long_enough(self) -> Self:
        """There is an hour at least between its beginning and its end."""
        if self.ends_min < self.begins_min + SHORTEST_DAY_MIN:
            raise at(("ends_min",), "should be at least an hour after work begins, on the same day")
        return self


class Hands(Frozen):
    """One pair of hands: what it is called, when it works on each day of the `week`, Monday first (None: it does not),
    and the days it has `off` besides.
    """

    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), AfterValidator(printable)] = ""
    week: Annotated[tuple[WorkingDay | None, ...], Field(min_length=7, max_length=7)] = (WorkingDay(),) * 7
    off: Annotated[tuple[date, ...], Field(max_length=int(limits.DAYS_OFF.high))] = ()

    @model_validator(mode="after")
    def some_day_is_worked(self) -> Self:
        """There is a day in the week on which it works."""
        if not any(self.week):
            raise at(("week",), "should have hours on one day at least")
        return self


class ColdShelf(Frozen):
    """The room on a shelf of the fridge, or in a drawer of the freezer."""

    width_mm: Annotated[float, limits.COLD_SHELF.field()] = 500.0
    depth_mm: Annotated[float, limits.COLD_SHELF.field()] = 450.0
    height_mm: Annotated[float, limits.COLD_SHELF.field()] = 200.0


class Places(Frozen):
    """The hands and places of a kitchen. Shelves and drawers are listed from the top down. A cake too high for one
    shelf takes several, with the shelves above it removed.
    """

    hands: Annotated[tuple[Hands, ...], Field(min_length=1, max_length=int(limits.HANDS.high))] = (Hands(),)
    ovens: Annotated[int, limits.RESOURCES.field()] = 1
    mixers: Annotated[int, limits.RESOURCES.field()] = 1
    turntables: Annotated[int, limits.RESOURCES.field()] = 2
    benches: Annotated[int, limits.RESOURCES.field()] = 2
    fridge: Annotated[tuple[ColdShelf, ...], Field(max_length=int(limits.RESOURCES.high))] = (ColdShelf(),) * 3
    freezer: Annotated[tuple[ColdShelf, ...], Field(max_length=int(limits.RESOURCES.high))] = (ColdShelf(),) * 2

    def count(self, resource: Resource) -> int:
        """How many of a resource it has."""
        have = {"oven": self.ovens, "mixer": self.mixers, "turntable": self.turntables, "bench": self.benches}
        return have[resource]

    def shelves(self, where: Literal["fridge", "freezer"]) -> tuple[ColdShelf, ...]:
        """The shelves of the fridge, or the drawers of the freezer."""
        return self.fridge if where == "fridge" else self.freezer
