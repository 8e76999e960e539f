"""Ready-made printed sheets round a tier: how many, which way up, where their seams fall."""

import math

from amber_spread.core.body import Body
from amber_spread.core.cover_plan import CoverPlan, PrintedPlan, piece_of, top_of
from amber_spread.core.cover_rules import (
    printed_sheets,
    printed_short,
    strip_count,
    strip_height,
    strip_length,
)  # fmt: skip
from amber_spread.core.design import Tier
from amber_spread.core.figures import chosen, same
from amber_spread.core.finishes import (
    PrintedCover,
)  # fmt: skip
from amber_spread.core.flat import (
    Mark,
    lay_out,
    rectangle,
)  # fmt: skip
from amber_spread.core.practice import Practice
from amber_spread.core.shapes import BallBuild, BevelledBuild, DomedBuild, SideBuild, TaperedBuild, TurnedBuild


def plan_printed(cover: PrintedCover, practice: Practice, coated: Body, tier: Tier) -> CoverPlan:
    """How many ready-made sheets go round, which way up, where their seams fall, and whether they are tall enough."""
    overlap = chosen(cover.overlap_mm, practice.printed_overlap_mm, "mm")
    tab_mm = practice.tab_mm if cover.top == "tabs" else 0.0
    wall_mm = coated.slant_mm if coated.flat_top else coated.height_mm
    high = strip_height.figure(wall_mm, tab_mm, 0.0)
    girth_mm = coated.girth_mm
    sides = (cover.sheet_width_mm, cover.sheet_height_mm)
    ways = []
    for upright, (long_mm, tall_mm) in ((False, sides), (True, sides[::-1])):
        each = max(1, int((tall_mm + 1e-6) // high.value))
        strips = strip_count(girth_mm, max(long_mm, overlap.value + 10), overlap.value)
        ways.append((tall_mm < high.value, math.ceil(strips / each), strips, upright, long_mm, tall_mm, each))
    if all(way[0] for way in ways):
        ways.sort(key=lambda way: -way[5])
        short, _, strips, upright, long_mm, tall_mm, each = ways[0]
    else:
        short, _, strips, upright, long_mm, tall_mm, each = min(ways)
    tops = 1 if cover.top == "circle" and coated.flat_top is not None else 0
    strips_figure = strip_count.figure(girth_mm, max(long_mm, overlap.value + 10), overlap.value)
    long = strip_length.figure(girth_mm, strips, overlap.value)
    white = "#FBF7EE"
    strip = piece_of("Strip", rectangle(long.value, min(high.value, tall_mm)), white, strips, long=long, high=high)
    if tab_mm:
        fold = Mark(name="snip the tabs to here", x0=0, y0=wall_mm, x1=long.value, y1=wall_mm)
        strip = strip.but(marks=[fold])
    pieces = {"strip": strip}
    if tops and coated.flat_top is not None:
        pieces["top"] = top_of(coated.flat_top, 0.0, white)
    printed = PrintedPlan(
        strips=strips_figure,
        sheets=printed_sheets.figure(strips, each, tops),
        strip_height=high,
        upright=upright,
        too_tall=printed_short.figure(high.value, tall_mm) if short else None,
        seams=[round(360 * index / strips, 1) for index in range(int(strips))],
    )
    suits = not isinstance(tier.build, BallBuild | DomedBuild | TurnedBuild | TaperedBuild | BevelledBuild | SideBuild)
    return CoverPlan(
        kind=cover.kind,
        suits=suits,
        width_over_coat=same("width over the coat", coated.width_mm, "mm"),
        height_over_coat=same("height over the coat", coated.height_mm, "mm"),
        overlap=overlap,
        roll_area=None,
        rolled_weight=None,
        trimmed_weight=None,
        over=None,
        printed=printed,
        pieces=pieces,
        laid=lay_out(pieces, *sides),
        on_mat=True,
    )
