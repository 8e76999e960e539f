"""The plate: one page with the cake in half-section to scale, the figures of every tier, its tiers from above, a scale
bar and what it is made of. One description of the page, in millimetres from its top left, that PDF and SVG each draw.
"""

import math
from collections.abc import Iterator, Sequence

from reportlab.lib.units import mm

from amber_spread.core.document import Document
from amber_spread.core.kernel.check import RoundedQuantity
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.units import MM_PER_INCH, LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.core.tier import Silhouette
from amber_spread.papers.page import INK, SERIF, SIZE, Page, Point, Shape, Words, shortened
from amber_spread.papers.palette import hex_of
from amber_spread.papers.printed import due_words, measured
from amber_spread.papers.sheets import SIZES, Paper

MARGIN = 14.0
SOFT = "#7A6657"
SMALL, LARGE = 3.3, 7.4
"""Heights of letters, mm."""
SIDE = 54.0
"""The room for what is written right of the cake, mm."""
RULER = 20.0
PLANS = 34.0
ROW = 5.4
COLUMNS = 3
TURNS = (50, 60, 68, 75, 81)
"""Where a round wall is engraved, in degrees from its middle."""
TIGHT = 9
"""With more tiers than these, each is told in one row."""


def plate_of(document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit, paper: Paper) -> Page:
    """The plate of an order, in one person's units."""
    wide, high = (side / mm for side in SIZES[paper])
    drawing = _Drawing(document, plan, length, weight, (wide, high))
    return Page(document.title, (wide, high), list(drawing.shapes()), list(drawing.words()))


class _Drawing:
    """Where everything lies on one page."""

    def __init__(self, document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit, size: Point) -> None:
        self.document, self.plan, self.length, self.weight, self.size = document, plan, length, weight, size
        stack = plan.stack
        self.keys = list(self._keys())
        self.foot = size[1] - MARGIN - ROW * math.ceil(len(self.keys) / COLUMNS) - 8
        self.table = self.foot - PLANS - 22
        room_wide, room_high = size[0] - 2 * MARGIN - RULER - SIDE, self.table - MARGIN - 26
        self.scale = min(room_wide / stack.base_diameter.value, room_high / stack.height.value)
        self.axis = MARGIN + RULER + room_wide / 2
        self.column = self.axis + stack.base_diameter.value / 2 * self.scale + 8

    def say(self, figure: Figure | RoundedQuantity) -> str:
        """A measure in this person's units."""
        return measured(figure, self.length, self.weight)

    def at(self, x: float, z: float) -> Point:
        """A place of the cake on the page."""
        return self.axis + x * self.scale, self.table - z * self.scale

    def _half(self, points: Sequence[Point], off: float, side: int) -> list[Point]:
        return [self.at(off + side * x, z) for x, z in points]

    def shapes(self) -> Iterator[Shape]:
        """Lines and areas."""
        stack, section = self.plan.stack, self.plan.section
        board = stack.base_diameter.value / 2
        yield Shape([self.at(-board - 12 / self.scale, 0), self.at(board + 6 / self.scale, 0)], width=0.4, closed=False)
        base = stack.base_thickness.value
        foil = [(0.0, 0.0), (board, 0.0), (board, base), (0.0, base)]
        yield Shape(self._half(foil, 0, -1), "#E6E2D6", 0.4)
        for tier in section.tiers:
            left = tier.left or tier.outline
            yield Shape(self._half(left, tier.off[0], -1), hex_of(tier.paint), 0.45)
            for piped in tier.piped:
                for ring in piped.left:
                    yield Shape(self._half(ring, tier.off[0], -1), piped.hex, 0.25)
            for line in _upright(tier, left):
                yield Shape(self._half(line, tier.off[0], -1), width=0.1, closed=False, stroke=SOFT)
        for part in section.parts:
            yield Shape(self._half(part.outline, part.off[0], 1), hex_of(part.paint), 0.2)
        for part in section.added:
            for side in (-1, 1):
                yield Shape(self._half(part.outline, part.off[0], side), hex_of(part.paint), 0.25)
        for tier in section.tiers:
            yield Shape(self._half(tier.outline, tier.off[0], 1), None, 0.6, closed=False)
        yield Shape([self.at(0, 0), self.at(0, stack.height.value + 5 / self.scale)], width=0.2, closed=False)
        yield from self._ruler()
        for (top, _), tier in zip(self._told(), section.tiers, strict=True):
            wall = max(x for x, _ in tier.outline)
            middle = sum(z for _, z in tier.outline) / len(tier.outline)
            bend = self.column - 5
            yield Shape(
                [self.at(tier.off[0] + wall, middle), (bend, top), (self.column - 1.5, top)],
                width=0.15,
                closed=False,
                stroke=SOFT,
            )
        for outline, hex, _, _ in self._plans():
            yield Shape(outline, hex, 0.35)
        bar, _ = self._bar()
        x, y = MARGIN + RULER, self.table + 9
        step = bar / 4 * self.scale
        for number in range(4):
            near, far = x + number * step, x + (number + 1) * step
            fill = INK if number % 2 == 0 else "#FFFFFF"
            yield Shape([(near, y), (far, y), (far, y + 1.6), (near, y + 1.6)], fill, 0.2)
        for (hex, _), (near, foot) in zip(self.keys, self._key_places(), strict=True):
            yield Shape([(near, foot - 3.2), (near + 5, foot - 3.2), (near + 5, foot), (near, foot)], hex, 0.2)

    def words(self) -> Iterator[Words]:
        """All that is written."""
        yield Words(MARGIN, MARGIN + 6, self.document.title, LARGE, font=SERIF)
        yield Words(MARGIN, MARGIN + 12.5, due_words(self.document), SIZE, colour=SOFT)
        stack = self.plan.stack
        yield Words(*self._over(), f"{self.say(stack.height)} high", SIZE, "start", SERIF)
        yield Words(
            self.axis, self.table + 6, f"base board {self.say(stack.base_diameter)}", SMALL, "middle", colour=SOFT
        )
        for top, rows in self._told():
            yield Words(self.column, top + 1.2, rows[0], SIZE, font=SERIF)
            for index, row in enumerate(rows[1:], 1):
                yield Words(self.column, top + 1.2 + 4.4 * index, row, SMALL)
        for up in self._heights():
            x, y = self.at(0, up)
            yield Words(MARGIN + RULER - 5, y + 1.1, self.say(RoundedQuantity(up, "mm")), SMALL, "end", colour=SOFT)
        bar, words = self._bar()
        yield Words(MARGIN + RULER + bar * self.scale + 2, self.table + 10.6, f"{words}, to scale", SMALL, colour=SOFT)
        for _, _, (x, y), name in self._plans():
            yield Words(x, y, name, SMALL, "middle")
        for (_, name), (x, y) in zip(self.keys, self._key_places(), strict=True):
            yield Words(x + 7, y - 0.4, shortened(name, SMALL, (self.size[0] - 2 * MARGIN) / COLUMNS - 9), SMALL)

    def _over(self) -> Point:
        x, y = self.at(0, self.plan.stack.height.value)
        return x + 2, y - 2.5

    def _told(self) -> list[tuple[float, list[str]]]:
        """What is written of each tier and at which height, bottom first, none over another."""
        tight = len(self.plan.tiers) > TIGHT
        told, wanted = [], []
        for tier, seen in zip(self.plan.tiers, self.plan.section.tiers, strict=True):
            over = (tier.cover.over if tier.cover else None) or tier.coats.final or tier.coats.crumb
            across = self.say(over.diameter)
            high = self.say(RoundedQuantity(max(z for _, z in seen.outline) - min(z for _, z in seen.outline), "mm"))
            rows = [tier.name, f"{across} across, {high} high"]
            if not tight:
                rows.append(f"layers cut at {self.say(tier.layers.cut_height)}")
            told.append([f"{rows[0]}, {rows[1]}"] if tight else rows)
            wanted.append(self.at(0, sum(z for _, z in seen.outline) / len(seen.outline))[1])
        gap = min(15.0 if not tight else 5.6, (self.table - MARGIN - 20) / max(1, len(told)))
        tops = list[float]()
        for at in wanted:
            tops.append(min(at, tops[-1] - gap) if tops else min(at, self.table - (9 if not tight else 0)))
        least = MARGIN + 18
        for index in range(len(tops) - 1, -1, -1):
            tops[index] = max(tops[index], least + (len(tops) - 1 - index) * gap)
        return [(top, [shortened(row, SIZE, SIDE - 8) for row in rows]) for top, rows in zip(tops, told, strict=True)]

    def _heights(self) -> list[float]:
        """The heights the ruler tells: of the board and of every tier's top, as far as there is room."""
        tops = [max(z for _, z in tier.outline) for tier in self.plan.section.tiers]
        found = list[float]()
        for up in sorted((*tops, self.plan.stack.base_thickness.value), reverse=True):
            if not found or (found[-1] - up) * self.scale > 4.5:
                found.append(up)
        return found

    def _ruler(self) -> Iterator[Shape]:
        x, top = MARGIN + RULER - 3, self.plan.stack.height.value
        yield Shape([(x, self.at(0, 0)[1]), (x, self.at(0, top)[1])], width=0.3, closed=False)
        for up in self._heights():
            y = self.at(0, up)[1]
            yield Shape([(x - 1.5, y), (x + 1.5, y)], width=0.3, closed=False)

    def _plans(self) -> Iterator[tuple[list[Point], str, Point, str]]:
        """The tiers from above in a row, to one scale: outline, colour, where the name stands, the name."""
        tiers = list(zip(self.plan.section.tiers, self.plan.tiers, strict=True))
        sizes = [_reach(tier) for tier, _ in tiers]
        gap = 6.0
        room = self.size[0] - 2 * MARGIN - gap * (len(tiers) - 1)
        scale = min(room / sum(wide for wide, _ in sizes), (PLANS - 8) / max(high for _, high in sizes))
        x = MARGIN + max(0.0, room - sum(wide for wide, _ in sizes) * scale) / 2
        middle = self.foot - 10 - max(high for _, high in sizes) * scale / 2
        for (tier, plan), (wide, _) in zip(tiers, sizes, strict=True):
            centre = x + wide * scale / 2
            xs, ys = zip(*tier.seen_from_above, strict=True)
            mid = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
            points = [
                (centre + (px - mid[0]) * scale, middle - (py - mid[1]) * scale) for px, py in tier.seen_from_above
            ]
            yield points, hex_of(tier.paint), (centre, self.foot - 4), shortened(plan.name, SMALL, wide * scale + gap)
            x += wide * scale + gap

    def _bar(self) -> tuple[float, str]:
        """A round length that is seen well at this scale, mm, and what it is called."""
        unit = MM_PER_INCH if self.length == "in" else 10.0
        rounds = (1, 2, 4, 8, 12, 24) if self.length == "in" else (2, 4, 8, 20, 40, 80)
        most = 46 / self.scale
        count = max((one for one in rounds if one * unit <= most), default=rounds[0])
        return count * unit, f"{count} in" if self.length == "in" else f"{count} cm"

    def _keys(self) -> Iterator[tuple[str, str]]:
        """What it is made of: a colour and its name, the cake first."""
        cakes = {tier.layers.cake.replace("_", " ") for tier in self.document.design.tiers}
        sponge = next((hex_of(part.paint) for part in self.plan.section.parts if part.kind == "sponge"), "#FFFFFF")
        yield sponge, ", ".join(sorted(cakes)).capitalize()
        for bowl in self.plan.bowls.values():
            yield bowl.hex, bowl.name

    def _key_places(self) -> list[Point]:
        step = (self.size[0] - 2 * MARGIN) / COLUMNS
        return [
            (MARGIN + index % COLUMNS * step, self.foot + 6 + index // COLUMNS * ROW) for index in range(len(self.keys))
        ]


def _upright(tier: Silhouette, left: Sequence[Point]) -> Iterator[list[Point]]:
    """The lines up a wall: at the edges between flat faces, or closer together toward the edge of something round."""
    half = max(x for x, _ in left)
    shares = [math.sin(math.radians(turn)) for turn in TURNS] if tier.curved else [edge / half for edge in tier.edges]
    wall = [(x, z) for x, z in left if x > 1e-6]
    for share in shares:
        yield [(x * share, z) for x, z in wall]


def _reach(tier: Silhouette) -> Point:
    xs, ys = zip(*tier.seen_from_above, strict=True)
    return max(xs) - min(xs), max(ys) - min(ys)
