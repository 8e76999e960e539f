"""plan(design, practice, media, kit): the only way in. It settles the design and calls the rooms in the order of the
work.
"""

from collections.abc import Mapping

from amber_spread.core.bowls import Base, Bowl, mix
from amber_spread.core.cake import (
    BatterPlan,
    CarvedBake,
    Section,
    StackPlan,
    TierStack,
    plan_stack,
    stand,
)
from amber_spread.core.design.design import Design
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.settled import settle
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.task import Task
from amber_spread.core.stock.contents import Allergy, Contents, usual_contents
from amber_spread.core.stock.kit import STARTING, Kit, KitNeed
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import TierRooms, work_tiers


class TierPlan(TierRooms):
    """Everything about one tier: what its rooms planned, what it is called, and how it stands."""

    name: str
    stack: TierStack


class Plan(PlanPart):
    """Everything about a cake: tiers from the bottom up, what to mix, the drawing, and what to know."""

    tiers: list[TierPlan]
    stack: StackPlan
    carved: dict[str, CarvedBake]
    batter: BatterPlan
    allergens: list[Allergy]
    bowls: dict[str, Bowl]
    bases: dict[str, Base]
    leftovers: dict[str, list[str]]
    covering: dict[str, list[Task]]
    kit: dict[str, KitNeed]
    section: Section
    checks: list[Check]


def plan(
    design: Design,
    practice: Practice,
    media: Mapping[str, Medium],
    kit: Kit | None = None,
    contents: Contents | None = None,
) -> Plan:
    """Every height, size and amount of a design.

    `media` holds every medium within reach by key (see `media.shelf`); `kit` is what the kitchen owns, the starting
    set where it is left out; `contents` is what its recipes come to, the program's own where left out. All lengths
    are in mm, volumes in ml, weights in g. Raises UnknownMedium when the design takes a medium that is not in `media`,
    and Unmade when a tier cannot be made.
    """
    kit, contents = kit or STARTING, contents or usual_contents()
    cake = settle(design, practice)
    worked = work_tiers(cake, media, kit.mat)
    stacked = plan_stack(cake, worked, media, kit)
    mixed = mix(cake, [use for one in stacked.stood for use in one.uses], media)
    standing = stand(cake, stacked, media, kit, contents)
    return Plan(
        tiers=[
            TierPlan.from_fields_of(done, name=tier_name(design, index), stack=stands)
            for index, (done, stands) in enumerate(zip(worked, standing.tiers, strict=True))
        ],
        stack=standing.stack,
        carved=standing.carved,
        batter=standing.batter,
        allergens=standing.allergens,
        bowls=mixed.bowls,
        bases=mixed.bases,
        leftovers=mixed.leftovers,
        covering=mixed.covering,
        kit=standing.kit,
        section=standing.section,
        checks=[*standing.checks, *mixed.checks],
    )


def tier_name(design: Design, index: int) -> str:
    """What a tier is called: its own name, or its place in the cake."""
    own, last = design.tiers[index].name, len(design.tiers) - 1
    if own is not None:
        return own
    if last == 0:
        return "Cake"
    if index in (0, last):
        return "Bottom" if index == 0 else "Top"
    return "Middle" if last == 2 else f"Tier {index + 1}"
