"""The cards of a stack as a PDF: what to cut, the order of stacking, the card for the drive, the chart for serving."""

from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import Any

from reportlab.platypus import KeepTogether, PageBreak

from amber_spread.core.document import Document
from amber_spread.core.kernel.check import RoundedQuantity, Said
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.task import Task
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.papers.printed import HEADING, SOFT_TEXT, TEXT, Box, Sheet, bound, table, worded
from amber_spread.papers.sheets import Paper

CAUTION = "Caution: "


def write_cards(
    document: Document, plan: Plan, length: LengthUnit = "in", weight: WeightUnit = "g", paper: Paper = "a4"
) -> bytes:
    """Cutting list and stacking card, travel card, serving chart: a page each or more."""
    cards = _Cards(document, plan, length, weight)
    story = [*cards.stacking(), PageBreak(), *cards.travel(), PageBreak(), *cards.serving()]
    return bound(story, f"{document.title}: stacking", paper)


class _Cards(Sheet):
    """The cards of one order."""

    def __init__(self, document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit) -> None:
        super().__init__(document, plan, length, weight)
        self.stack = plan.stack
        self.stacking_asked = document.design.stacking

    def said(self, one: Said) -> str:
        """A sentence with its measures put in, marked where it guards somebody."""
        return CAUTION + super().said(one) if one.caution else super().said(one)

    def rows(self, *rows: tuple[str, str]) -> Any:
        """Words and their measures, a line each."""
        return table([[worded(name, TEXT), worded(value, TEXT)] for name, value in rows], (72, 106))

    def stacking(self) -> Iterator[Any]:
        """What is cut, and every step in order."""
        yield from self.head("stacking card")
        boards = [need for need in self.plan.kit.values() if need.tool in ("board", "base board")]
        if boards:
            yield worded("Boards", HEADING)
            yield self.rows(*((self._board(need), self._status(need)) for need in boards))
        for cut in self.stack.cutting.values():
            yield worded(f"Cut from {cut.rods.value:.0f} {cut.many} of {self.say(cut.stock)}", HEADING)
            yield table(
                [
                    [
                        Box(),
                        worded(f"{one.times} ×", TEXT),
                        worded(" + ".join(self.say(length) for length in one.lengths.values()), TEXT),
                        worded(f"{self.say(one.rest)} left of each", SOFT_TEXT),
                    ]
                    for one in cut.cuts.values()
                ],
                (8, 16, 100, 54),
            )
        if self.stack.dowel is not None:
            yield worded(
                f"Centre dowel: {self.say(self.stack.dowel.across)} thick, cut to {self.say(self.stack.dowel.length)}",
                TEXT,
            )
        for number, tier in enumerate(self.plan.tiers, 1):
            if tier.carving is not None:
                yield from self._tasks(tier.carving.tasks, f"Tier {number}: ")
                yield self._hands_on("carving it", tier.carving.hands_on)
        yield from self._tasks(self.stack.tasks)
        yield self._hands_on("stacking and packing", self.stack.hands_on)

    def _hands_on(self, work: str, minutes: Figure) -> Any:
        return worded(f"Hands-on time for {work}: about {self.say(minutes)}, without the waiting.", SOFT_TEXT)

    def _tasks(self, tasks: Sequence[Task], before: str = "") -> Iterator[Any]:
        """Tasks to be ticked, under the headings of their parts."""
        for part, those in groupby(tasks, key=lambda one: one.part):
            lines = [[Box(), worded(self.said(one), TEXT)] for one in those if part]
            heading = f"{before}{part.lower()}" if before else part
            yield KeepTogether([worded(heading, HEADING), table(lines[:1], (8, 170))])
            if lines[1:]:
                yield table(lines[1:], (8, 170))

    def _board(self, need: Any) -> str:
        size = self.say(need.size) + (f" × {self.say(need.length)}" if need.length else "")
        which = "Base board" if need.tier is None else f"Tier {need.tier}"
        shape = "cut to the outline" if need.shape == "outline" else need.shape
        return f"{which}: {shape}, {size}"

    def _status(self, need: Any) -> str:
        if need.status == "have":
            return "leaves with the cake" if need.leaves else "have"
        if need.status == "get" or need.owned is None:
            return "get one"
        return f"next best {self.say(need.owned)}. {need.changes}"

    def travel(self) -> Iterator[Any]:
        """What whoever drives and carries it has to know."""
        yield from self.head("travel card")
        stack, people = self.stack, self.stack.people.value
        wide = self.say(stack.base_diameter) + (f" × {self.say(stack.base_length)}" if stack.base_length else "")
        drive = self.stacking_asked.drive_min
        yield self.rows(
            ("Weighs, board and all", self.say(stack.weight)),
            ("To lift it", "one person" if people <= 1 else f"{people:.0f} people, from below the board"),
            ("Height in the box", self.say(stack.height)),
            ("Base board", wide),
            ("Driven for", f"{drive:.0f} min" if drive else "not set"),
            ("Tips at", f"{self.say(stack.tips)}; keep it level"),
            ("Stacked", "where it stays" if self.stacking_asked.stacked == "there" else "before the drive"),
        )
        for one in (one for one in stack.tasks if one.part == "Drive"):
            yield worded(self.said(one), TEXT)
        yield worded("Not to be eaten, and to be taken out", HEADING)
        yield self._left_in()

    def _left_in(self) -> Any:
        found = self.stack.left_in
        if not found:
            return worded("Nothing: only the base board below it.", TEXT)
        lines = [(name.replace("_", " ").capitalize(), f"{count.value:.0f}") for name, count in found.items()]
        return self.rows(*lines)

    def serving(self) -> Iterator[Any]:
        """Portions of every tier, and the order of taking it down."""
        yield from self.head("serving chart")
        tiers = list(reversed(list(enumerate(self.plan.tiers, 1))))
        cuts = [[tier.stack.portions, *tier.stack.larger_portions.values()] for _, tier in tiers]
        sides = [[RoundedQuantity(one.given[side].value, "mm") for side in ("wide", "deep")] for one in cuts[0]]
        sizes = [" × ".join(map(self.say, pair)) for pair in sides]
        rows = [["", *sizes]]
        rows += [
            [f"Tier {number}, {tier.name}", *(f"{one.value:.0f}" for one in own)]
            for (number, tier), own in zip(tiers, cuts, strict=True)
        ]
        rows += [["In all", *(f"{sum(one.value for one in column):.0f}" for column in zip(*cuts, strict=True))]]
        yield worded("Portions, by how large they are cut", HEADING)
        yield table([[worded(cell, TEXT) for cell in row] for row in rows], (62, 38, 38, 38))
        if self.stack.serving:
            yield worded("Order of taking down", HEADING)
        for number, one in enumerate(self.stack.serving, 1):
            yield worded(f"{number}. {self.said(one)}", TEXT)
        yield worded("Count out", HEADING)
        yield self._left_in()
