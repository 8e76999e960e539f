"""Pooling: one mix for what several orders of a week take of one medium in one colour, and what that saves.

Amounts that run over in one order are met by what runs under in another, so one reserve for all is less than one each.
"""

from collections.abc import Sequence

from amber_spread.core.bowls import Care, fill_bowl
from amber_spread.core.document import Document
from amber_spread.core.kernel.base import PlanPart
from amber_spread.core.kernel.figures import DEFINITION, Figure, rule, total
from amber_spread.core.shop.bill import Bill, Mixed

ROOM = 100
"""Tiers of one order keep their numbers, raised by so much for each order before it."""


class Pool(PlanPart):
    """One bowl for several orders: mixed for each apart, mixed together, and what together saves."""

    name: str
    hex: str
    apart: Figure
    together: Figure
    saved: Figure


@rule(
    "pool.saved",
    unit="g",
    formula="apart - together",
    source=DEFINITION,
    rounding="down",
    words="What is mixed for each order apart, less what one mix for all of them takes.",
)
def saved(apart_g: float, together_g: float) -> float:
    """What pooling saves, g: mixed apart - mixed together. Source: definition.

    >>> saved(655, 620)
    35
    """
    return apart_g - together_g


def pool_bowls(orders: Sequence[tuple[str, Document, Bill]]) -> dict[str, Pool]:
    """Every bowl, by its key, that two or more orders have in the same colour, where one mix takes less than several.

    The lowest risk of running short among the orders counts. Source: the bowl walk over the steps of all of them.
    """
    alike: dict[tuple[str, str], list[tuple[str, Document, Mixed]]] = {}
    for title, document, bill in orders:
        for key, bowl in bill.bowls.items():
            alike.setdefault((key, bowl.hex), []).append((title, document, bowl))
    found: dict[str, Pool] = {}
    for (key, hex), bowls in alike.items():
        if len(bowls) < 2:
            continue
        uses = [use for index, (_, _, bowl) in enumerate(bowls) for use in bowl.uses(index * ROOM)]
        practices = [document.practice for _, document, _ in bowls]
        name = bowls[0][2].name
        care = Care(min(one.run_out_risk for one in practices), max(one.weigh_step_g for one in practices))
        together = fill_bowl(uses, name, hex, care).mix
        apart = total({title: bowl.mix_g for title, _, bowl in bowls}, "g")
        if together.value < apart.value and key not in found:
            less = saved.figure(apart.value, together.value)
            found[key] = Pool(name=name, hex=hex, apart=apart, together=together, saved=less)
    return found
