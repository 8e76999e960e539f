"""Boards to hold against a carved cake: its views from the side and from the front, with the lines scored on it."""

import math
from collections.abc import Iterator
from typing import NamedTuple

from shapely import LineString, Polygon
from shapely.affinity import translate

from amber_spread.core.design.builds import Carvable
from amber_spread.core.geometry.bodies.sculpted import Sculpted
from amber_spread.core.geometry.bodies.sliced import DRAWN_MM
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.geometry.flat.pieces import Corner, Mark, Piece, drawn_along, edge_of, paper_of
from amber_spread.core.kernel.figures import carry_over

AXIS_MM = 24.0
"""So far up a board its axis is drawn."""
LEAST_LINE_MM = 6.0
"""A scored line that would be shorter is left out."""


class Board(NamedTuple):
    """A view as it is cut out: its edge, what is drawn within it, and how wide and high it is."""

    edge: list[Corner]
    marks: list[Mark]
    size: tuple[float, float]


class Boards(NamedTuple):
    """Both views as they are cut out and what is drawn on each, and the lines scored on the side. It holds no figures,
    so it is kept with the body.
    """

    side: Board
    front: Board
    scored: list[list[Point]]


def boards_of(body: Sculpted, build: Carvable) -> Boards:
    """The views of a body as boards, worked out once for lines scored so."""
    key = "boards", build.scored_mm, build.scored_run
    side, front = body.core.side, body.core.front
    return body.get_or_compute(
        key, lambda: Boards(_drawn_on(side, build), _drawn_on(front, build), list(scored_on(side, build)))
    )


def _drawn_on(view: Polygon, build: Carvable) -> Board:
    left, _, right, high = view.bounds
    board = translate(view.simplify(DRAWN_MM), -left, 0)
    marks = drawn_along("axis", [(-left, 0.0), (-left, min(high, AXIS_MM))])
    for at, line in enumerate(scored_on(view, build)):
        marks += drawn_along("" if at else "scored", [(x - left, up) for x, up in line])
    return Board(edge_of(board), marks, (right - left, high))


def board_of(name: str, drawn: Board) -> Piece:
    """A view as a board."""
    edge, marks, (wide, high) = drawn
    sizes = {"wide": carry_over("across", wide, "mm"), "high": carry_over("high", high, "mm")}
    return paper_of(f"View from the {name}", edge, marks, **sizes)


def scored_on(view: Polygon, build: Carvable) -> Iterator[list[Point]]:
    """The lines scored on a view: level from its foot up, or upright from its middle out; its edge is none."""
    apart = build.scored_mm
    if apart is None:
        return
    left, low, right, high = view.bounds
    if build.scored_run == "level":
        ups = (low + apart * step for step in range(1, math.ceil((high - low) / apart)))
        rows = [[(left - 1, up), (right + 1, up)] for up in ups]
    else:
        most = math.ceil(max(-left, right) / apart)
        rows = [[(apart * step, low - 1), (apart * step, high + 1)] for step in range(-most, most + 1)]
    within = view.buffer(-DRAWN_MM)
    for row in rows:
        found = within.intersection(LineString(row))
        for line in getattr(found, "geoms", [found]):
            if line.length > LEAST_LINE_MM:
                yield [(float(x), float(up)) for x, up in line.coords]
