"""The templates of a cake: every piece to cut by at its true size, described once for every writer."""

import math
from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from typing import Any, NamedTuple

from amber_spread.core.document import Document
from amber_spread.core.geometry.flat.pieces import (
    Corner,
    Mark,
    Piece,
    circle,
    drawn_along,
    paper_of,
    rectangle,
    size_of,
)
from amber_spread.core.plan import Plan, TierPlan

RING = 20
"""A support is drawn as a ring of so many short lines."""
GAUGE_WIDE_MM = 62.0
TICK_MM = 8.0
LABEL_MM = 3.6
"""Labels stand no closer than this, one above the other."""
WORDS_WIDE_MM = 20.0
"""So much room the words of a piece take that run up it."""
LINES_APART = 1.4
"""From line to line, in heights of a letter."""
SMALL_MM = 3.2
"""How high letters are written where there is something else to read."""


class Line(NamedTuple):
    """One line of a template's words: where the middle of its foot lies on the piece, mm, how high its letters are."""

    text: str
    x: float
    y: float
    high: float


class Template(NamedTuple):
    """One piece at 1:1: its edge, the lines drawn on it, and what is written on it. `up` says which way it stands."""

    key: str
    tier: str
    name: str
    copies: int
    corners: list[Corner]
    marks: list[Mark]
    order: str
    due: str
    words_up: float = 0.5
    """How far up the piece its words stand, as a share of its height."""
    words_across: float = 0.5
    """How far across, likewise."""
    words_turned: bool = False
    """They run up the piece, where lines across it have words of their own."""
    words_high: float | None = None
    """How high their letters are, mm; as the piece is wide where this is left out."""

    @property
    def size(self) -> tuple[float, float]:
        """Its width and height, mm."""
        return size_of(self.corners)

    @property
    def words(self) -> list[str]:
        """What is written on the piece, a line each."""
        return [f"{self.tier}: {self.name}, cut {self.copies}", self.order, self.due, "This side up"]

    @property
    def lines(self) -> list[Line]:
        """The same as they lie about their place: one below the other, or beside it where they run up the piece."""
        wide, high = self.size
        x, y = wide * self.words_across, high * self.words_up
        letters = self.words_high or max(2.5, min(6.0, wide / 26))
        found = []
        for index, text in enumerate(self.words):
            down = LINES_APART * letters * (index - 1.5)
            found.append(Line(text, x + down, y, letters) if self.words_turned else Line(text, x, y - down, letters))
        return found

    @property
    def arrow(self) -> tuple[float, float] | None:
        """Where the arrow stands that points up; words that run up the piece need none."""
        first = self.lines[0]
        return None if self.words_turned else (first.x, first.y + LINES_APART * first.high * 1.1)


def templates_of(document: Document, plan: Plan, tier: int | None = None) -> list[Template]:
    """Every template of a cake, bottom tier first; of tier `tier` alone where that is given (from 1)."""
    due = _due(document.due)
    found = []
    for number, (asked, one) in enumerate(zip(document.design.tiers, plan.tiers, strict=True), 1):
        if tier not in (None, number):
            continue
        gauge = "Height gauge, before it is turned" if asked.build.on_side else "Height gauge"
        for key, piece in _pieces(one, gauge):
            found.append(
                Template(
                    key=f"tier_{number}_{key}",
                    tier=one.name,
                    name=piece.name,
                    copies=int(piece.count.value),
                    corners=piece.corners,
                    marks=[*piece.marks, *_joins(piece)],
                    order=document.title,
                    due=due,
                    **(beside(GAUGE_WIDE_MM) if key == "gauge" else {}),
                )
            )
        found.extend(
            Template(
                key=key,
                tier=one.name,
                name=name,
                copies=1,
                words_up=_clear_of(marks, size_of(edge)),
                words_high=SMALL_MM,
                corners=edge,
                marks=marks,
                order=document.title,
                due=due,
            )
            for key, name, edge, marks in _placements(plan, number)
        )
    return found


def _placements(plan: Plan, number: int) -> Iterator[tuple[str, str, list[Corner], list[Mark]]]:
    """For each board of a tier the template to prick the places of its supports by: the board's edge, a ring and a
    cross at each support, the centre dowel, and which way is the front.
    """
    for joint in plan.stack.joints.values():
        if joint.tier != number or not joint.supports:
            continue
        left, front = (min(point[axis] for point in joint.board) for axis in (0, 1))
        stands = plan.tiers[number - 1].stack
        if not joint.inside and stands.board_shape == "round" and stands.board_diameter is not None:
            edge = circle(stands.board_diameter.value)
        else:
            edge = [(x - left, y - front, 0.0) for x, y in joint.board]
        marks = [Mark(name="Front", x0=-left, y0=0, x1=-left, y1=min(18.0, -front / 3))]
        spots = [(f"{at}", one.x, one.y, joint.across.value / 2) for at, one in enumerate(joint.supports.values(), 1)]
        spots += [("dowel" if hole.what == "dowel" else "room", hole.x, hole.y, hole.radius) for hole in joint.keep_out]
        for name, x, y, radius in spots:
            marks.extend(_ringed(name, x - left, y - front, radius))
        where = "inside" if joint.inside else "under it"
        yield f"tier_{number}_supports_{'inside' if joint.inside else 'below'}", f"Supports {where}", edge, marks


def beside(wide_mm: float) -> dict[str, Any]:
    """How words stand that run up the right side of a piece of that width."""
    return {"words_across": 1 - WORDS_WIDE_MM / 2 / wide_mm, "words_turned": True, "words_high": SMALL_MM}


def ticks(lengths: Iterable[tuple[float, str]], left: float = 0.0) -> Iterator[Mark]:
    """A short line at each length up a piece; its label beside it and below the line, or as far below as the label of
    the line above lets it.
    """
    free = math.inf
    for up, label in sorted(lengths, reverse=True):
        at = min(up - LABEL_MM, free)
        yield Mark(name="", x0=left, y0=up, x1=left + TICK_MM, y1=up)
        middle = at + LABEL_MM / 2
        yield Mark(name="", x0=left + TICK_MM, y0=up, x1=left + TICK_MM + 4, y1=middle)
        yield Mark(name=label, x0=left + TICK_MM + 4, y0=at, x1=left + TICK_MM + 4, y1=at)
        free = at - LABEL_MM


def _clear_of(marks: Sequence[Mark], size: tuple[float, float]) -> float:
    """How far up a piece, as a share, its words stand farthest from everything marked on it."""
    wide, high = size
    half = min(wide * 0.35, 34.0), 4 * LINES_APART * SMALL_MM / 2

    def clearance(share: float) -> float:
        return min(max(abs(mark.x0 - wide / 2) - half[0], abs(mark.y0 - high * share) - half[1]) for mark in marks)

    return max((step / 100 for step in range(20, 81, 2)), key=clearance) if marks else 0.7


def _ringed(name: str, x: float, y: float, radius: float) -> Iterator[Mark]:
    """A ring of short lines, and a cross in its middle."""
    turns = [2 * math.pi * step / RING for step in range(RING + 1)]
    yield from drawn_along("", ((x + radius * math.cos(turn), y + radius * math.sin(turn)) for turn in turns))
    arm = max(3.0, radius / 2)
    yield Mark(name=name, x0=x - arm, y0=y, x1=x + arm, y1=y)
    yield Mark(name="", x0=x, y0=y - arm, x1=x, y1=y + arm)


def _due(due: datetime | None) -> str:
    return "No day set" if due is None else f"Due {due:%Y-%m-%d %H:%M}"


def _pieces(tier: TierPlan, gauge: str) -> Iterator[tuple[str, Piece]]:
    if tier.cover is not None:
        yield from ((key, piece) for key, piece in tier.cover.pieces.items() if not key.startswith("carrier_"))
    if tier.carving is not None:
        yield "view", tier.carving.view
        yield "view_front", tier.carving.front
        for layer in tier.carving.slices.values():
            yield from layer.pieces.items()
        for opening in tier.carving.openings.values():
            yield from opening.pieces.items()
    for key, top in tier.on_top.items():
        yield f"on_top_{key}", top.piece
    across, papers = tier.coats.parchment, tier.coats.papers
    if across is not None and papers is not None:
        yield "parchment", paper_of("Parchment", circle(across.value), [], diameter=across).replace(count=papers)
    marks = list(ticks((mark.up.value, mark.name) for mark in tier.gauge.values()))
    high = max(mark.up.value for mark in tier.gauge.values())
    yield "gauge", paper_of(gauge, rectangle(GAUGE_WIDE_MM, high), marks)


def _joins(piece: Piece) -> Iterator[Mark]:
    """The lines where one colour of a striped piece meets the next."""
    for band in piece.bands:
        yield from drawn_along(f"{band.colour or 'plain'} from here", band.join)
