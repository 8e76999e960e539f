"""The bench sheet as a PDF: all of a cake that must be weighed, cut and rolled, with a box to tick at each."""

from collections.abc import Iterator
from typing import Any

from reportlab.platypus import KeepTogether

from amber_spread.core.document import Document
from amber_spread.core.kernel.check import RoundedQuantity
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan, TierPlan
from amber_spread.papers.printed import HEADING, TEXT, Box, Sheet, bound, table, worded
from amber_spread.papers.sheets import Paper

WIDTHS = (8, 62, 108)


def write_bench_sheet(
    document: Document, plan: Plan, length: LengthUnit = "in", weight: WeightUnit = "g", paper: Paper = "a4"
) -> bytes:
    """What is weighed, cut and rolled, in the order of the work."""
    return bound(list(_Sheet(document, plan, length, weight).story()), f"{document.title}: bench sheet", paper)


class _Sheet(Sheet):
    """The bench sheet."""

    def story(self) -> Iterator[Any]:
        """All of it."""
        yield from self.head("bench sheet")
        for heading, rows in (
            ("Weigh", self.weigh()),
            ("Cut", self.cut()),
            ("Roll", self.roll()),
            ("Cover, in this order", self.cover()),
        ):
            found = list(rows)
            if found:
                yield KeepTogether([worded(heading, HEADING), self._table(found[:3])])
                if found[3:]:
                    yield self._table(found[3:])

    def _table(self, rows: list[tuple[str, str]]) -> Any:
        return table([[Box(), worded(name, TEXT), worded(words, TEXT)] for name, words in rows], WIDTHS)

    def weigh(self) -> Iterator[tuple[str, str]]:
        """Every bowl: what to mix, in how many batches, and what of it each step takes."""
        for bowl in self.plan.bowls.values():
            batches = (
                ""
                if bowl.batches is None or bowl.batch is None or bowl.batches.value <= 1
                else (f" in {bowl.batches.value:.0f} batches of {self.say(bowl.batch)}")
            )
            yield bowl.name, f"{self.say(bowl.mix)}{batches}"

    def cut(self) -> Iterator[tuple[str, str]]:
        """Layers of every tier, then what is sawn."""
        for number, (asked, tier) in enumerate(zip(self.document.design.tiers, self.plan.tiers, strict=True), 1):
            long = f" × {self.say(tier.layers.cake_length)}" if tier.layers.cake_length else ""
            cake = asked.layers.cake.replace("_", " ")
            size = f"{self.say(tier.layers.cut_height)} high, trimmed to {self.say(tier.layers.cake_diameter)}{long}"
            yield f"Tier {number}, {tier.name}", f"{asked.layers.count} layers of {cake}, each {size}"
        for cut in self.plan.stack.cutting.values():
            for one in cut.cuts.values():
                lengths = " + ".join(self.say(length) for length in one.lengths.values())
                yield cut.many.capitalize(), f"{one.times} × {lengths}, from one of {self.say(cut.stock)}"
        if self.plan.stack.dowel is not None:
            dowel = self.plan.stack.dowel
            yield "Centre dowel", f"{self.say(dowel.length)}, {self.say(dowel.across)} thick"

    def roll(self) -> Iterator[tuple[str, str]]:
        """Every sheet and piece that is rolled, with how thick and how much."""
        for number, tier in enumerate(self.plan.tiers, 1):
            yield from self._rolled(number, tier)

    def _rolled(self, number: int, tier: TierPlan) -> Iterator[tuple[str, str]]:
        cover = tier.cover
        for piece in (cover.pieces if cover else {}).values():
            wide, high = piece.size
            sizes = dict(piece.sizes)
            if "diameter" in sizes:
                said = f"a circle {self.say(sizes['diameter'])} across"
            else:
                said = f"{self._mm(wide)} × {self._mm(high)}"
            many = f"{piece.count.value:.0f} × " if piece.count.value > 1 else ""
            over = sizes.get("thickness") or (cover.over.side if cover and cover.over else None)
            thick = f", {self.say(over)} thick" if over is not None else ""
            yield f"Tier {number}, {piece.name.lower()}", f"{many}{said}{thick}"
        for on_top in tier.on_top.values():
            wide, high = on_top.piece.size
            yield f"Tier {number}, {on_top.piece.name.lower()}", f"{self._mm(wide)} × {self._mm(high)}, laid on the top"

    def cover(self) -> Iterator[tuple[str, str]]:
        """In what order tiers are covered out of one bowl, where it covers several."""
        for tasks in self.plan.covering.values():
            for task in tasks if len(tasks) > 1 else []:
                tier, words = self.said(task).split(": ", 1)
                yield tier, words

    def _mm(self, value: float) -> str:
        return self.say(RoundedQuantity(value, "mm", "up"))
