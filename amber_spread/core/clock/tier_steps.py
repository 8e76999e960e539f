"""The steps of one tier, from its batter to its last border, in the order of the work.

Different schools give different steps: the tables below say which, by the kinds of finish and cover in the design.
"""

from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

from amber_spread.core.clock.steps import StepList
from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import SemiNakedFinal, SoftFilling
from amber_spread.core.design.practice import Practice
from amber_spread.core.geometry.flat.outline import Outline
from amber_spread.core.kernel.check import RoundedQuantity, grams, measure
from amber_spread.core.kernel.figures import FROM_MEMORY, rule
from amber_spread.core.kernel.task import Task
from amber_spread.core.plan import TierPlan
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import BorderPlan

COATING: dict[str, tuple[str, ...]] = {
    "none": (),
    "freehand": ("final_coat", "firm_final"),
    "disc": ("disc_coat", "firm_final"),
    "twin": ("disc_coat", "firm_final"),
    "inverted": ("inverted_coat", "firm_inverted", "turn_back"),
    "towel": ("final_coat", "dry_skin", "smooth_towel", "firm_final"),
    "deckled": ("final_coat", "firm_final"),
    "semi_naked": (),
    "textured": ("piped_coat", "firm_final"),
}
"""The steps of each kind of final coat."""
COVERING: dict[str, tuple[str, ...]] = {
    "none": (),
    "drape": ("roll", "cover", "chill_cover"),
    "panel": ("roll", "firm_pieces", "cover", "chill_cover", "trim"),
    "box": ("roll", "firm_pieces", "cover", "chill_cover"),
    "halves": ("roll", "cover", "chill_cover"),
    "gores": ("roll", "cover", "chill_cover"),
    "patches": ("roll", "cover", "chill_cover"),
    "printed": ("wrap_printed", "set_printed"),
    "collar": ("spread_collar", "set_collar", "wrap_collar", "set_hard"),
}
"""The steps of each kind of cover."""
MADE_IN: dict[str, tuple[str, ...]] = {
    "syrup": ("soak", "cut_layers"),
    "seal": ("fill", "cut_layers"),
    "dam": ("fill", "cut_layers"),
    "filling": ("fill", "cut_layers"),
    "refill": ("carve", "cut_layers", "fill"),
    "crumb": ("crumb_coat",),
    "final": ("final_coat", "disc_coat", "inverted_coat", "piped_coat", "finish", "finish_there", "crumb_coat"),
    "cover": ("roll", "wrap_printed", "spread_collar"),
    "on_top": ("cut_on_top",),
    "border": ("pipe_border",),
    "region": ("pipe_region",),
    "glue": ("fill", "cut_layers"),
    "slide": ("fill", "cut_layers"),
    "joint": ("finish", "finish_there"),
}
"""The kinds of step in which a step of a bowl is taken out of it, the first that there is."""


@rule(
    "clock.bake",
    unit="min",
    formula="(10 + 0.13 * across) * (depth / 50.8) ** 0.5 * loads",
    source=FROM_MEMORY,
    rounding="up",
    words="A start and some more for a wide tin, longer for a deep one, for each time the oven is filled. Go by your "
    "recipe and a skewer that comes out clean.",
)
def bake_minutes(across_mm: float, depth_mm: float, loads_count: float) -> float:
    """Minutes in the oven: (10 + 0.13 across) x sqrt(depth / 50.8) x loads of the oven.

    An 8 in tin 2 in deep takes 35 to 40 min at a moderate heat (from memory).

    >>> round(bake_minutes(203.2, 50.8, 1), 1)
    36.4
    """
    return float((10 + 0.13 * across_mm) * (depth_mm / 50.8) ** 0.5 * loads_count)


def surface_cm2(outline: Outline, height_mm: float) -> float:
    """Wall and top of a tier with a straight wall, cm²: girth x height + area. Source: geometry.

    >>> from amber_spread.core.geometry.flat.outline import Round
    >>> round(surface_cm2(Round(100), 100))
    942
    """
    return (outline.perimeter_mm * height_mm + outline.area_mm2) / 100


class TierWork(NamedTuple):
    """One tier and what its steps depend on.

    It is baked in so many tins (none where it is baked already) of `batter_ml` in all, with so many loads of the oven.
    `stacking` are the tasks of stacking done to it, `covering` those of covering it. `coats_later` says that its final
    coat comes once the cake stands, `borders_now` that its borders are piped before.
    """

    number: int
    asked: Tier
    done: TierPlan
    usual: Practice
    media: Mapping[str, Medium]
    tins: int
    loads: int
    batter_ml: float
    stacking: Sequence[Task]
    covering: Sequence[Task]
    coats_later: bool
    borders_now: bool
    called: str

    @property
    def area_cm2(self) -> float:
        """Its wall and top below the coats."""
        return surface_cm2(self.asked.shape.outline(self.asked.tin_diameter_mm), self.done.coats.crumb.height.value)

    def is_ganache(self, medium: str) -> bool:
        """Whether a medium sets as ganache does, sooner than buttercream."""
        return medium in self.media and self.media[medium].kind == "ganache"


def tier_steps(work: TierWork) -> StepList:
    """Every step of a tier, in order. Source: common practice."""
    steps = StepList(f"tier_{work.asked.id}", work.number, work.called)
    if work.tins:
        _bake(work, steps)
    if work.done.carving is None:
        _build(work, steps)
    else:
        _carve(work, steps, work.done.carving.tasks)
    _crumb_coat(work, steps)
    if not work.coats_later:
        _final_coat(work, steps)
    _cover(work, steps)
    _decorate(work, steps)
    return steps


def _bake(work: TierWork, steps: StepList) -> None:
    asked, one = work.asked, "tin" if work.tins == 1 else "tins"
    steps.add(
        "mix_batter",
        f"{{batter}} of batter into {work.tins} {one} of {{across}}.",
        work.batter_ml / 1000,
        batter=RoundedQuantity(work.batter_ml, "ml", "up"),
        across=RoundedQuantity(asked.tin_diameter_mm, "mm"),
    )
    depth_mm = getattr(asked.layers.bake, "depth_mm", work.usual.tin_depth_mm)
    often = "" if work.loads == 1 else f" Fill the oven {work.loads} times."
    steps.add(
        "bake",
        f"Until a skewer comes out clean.{often}",
        wait=bake_minutes.figure(asked.tin_diameter_mm, depth_mm, work.loads),
    )
    steps.add("take_out", "Let them stand in their tins for 10 minutes, then turn them out onto a rack.", work.tins)
    steps.add("cool", "On a rack, with air below.")
    steps.add("wrap", "Wrapped before they are quite cold, they stay soft.", work.tins)
    steps.add("chill_cake", "Cold cake is cut clean. From the freezer, allow about 4 hours to thaw.")


def _build(work: TierWork, steps: StepList) -> None:
    layers, count = work.done.layers, work.asked.layers.count
    many = "1 layer," if count == 1 else f"{count} layers, each"
    steps.add(
        "level",
        f"{many} cut to {{cut}} and trimmed to {{across}} across.",
        count,
        cut=measure(layers.cut_height),
        across=measure(layers.cake_diameter),
    )
    if layers.syrup is not None:
        steps.add("soak", "Brush {weight} over all the layers.", count, weight=measure(layers.syrup.weight))
    _fill(work, steps)
    settling = [one for one in work.stacking if one.kind == "settle"]
    steps.add(
        "settle_overnight" if settling else "settle",
        "A light weight on a card on top helps. Keep it cold, as your local food code asks.",
    )
    steps.add("scrape", "Press it level both ways, and scrape off what stands out all round.", tasks=settling)


def _fill(work: TierWork, steps: StepList) -> None:
    filling, soft = work.done.layers.filling, isinstance(work.asked.filling, SoftFilling)
    building = [one for one in work.stacking if one.kind != "settle"]
    between = round(filling.count.value)
    if not between:
        steps.add("fill", "There is one layer: set it on its board.", 0, tasks=building)
        return
    text = f"{between} {'filling' if between == 1 else 'fillings'} of {{thick}}, {{weight}} in all."
    if filling.dam_width is not None:
        text += " Pipe the dam first, {dam} wide, and fill no higher than it."
    steps.add(
        "fill",
        text,
        between * (2 if soft else 1),
        tasks=building,
        thick=measure(filling.thickness),
        weight=measure(filling.weight),
        dam=measure(filling.dam_width or filling.thickness),
    )


def _carve(work: TierWork, steps: StepList, tasks: Sequence[Task]) -> None:
    steps.add(
        "cut_layers",
        "Each to its own template, then filled and stacked on its axis.",
        tasks=[*work.stacking, *(one for one in tasks if one.part != "Carve")],
    )
    steps.add("chill_stack", "Again whenever the layers begin to slide.")
    steps.add(
        "carve",
        "From the top down, in thin slices, with the boards of both views against it.",
        tasks=[one for one in tasks if one.part == "Carve" and one.kind != "score_lines"],
    )


def _crumb_coat(work: TierWork, steps: StepList) -> None:
    coats, scraped = work.done.coats, isinstance(work.asked.final, SemiNakedFinal)
    goes_on = coats.goes_on or coats.crumb.weight
    steps.add("crumb_coat", "{weight}, pressed in to leave no air.", work.area_cm2, weight=measure(goes_on))
    if scraped:
        steps.add("scrape_back", "{weight} of it stays.", work.area_cm2, weight=measure(coats.crumb_stays))
    steps.add("firm_crumb_ganache" if work.is_ganache(work.asked.crumb.medium) else "firm_crumb")


def _final_coat(work: TierWork, steps: StepList) -> None:
    final, covered = work.done.coats.final, work.asked.cover.kind != "none"
    for kind in COATING[work.asked.final.kind]:
        if kind == "turn_back" and covered:
            continue
        if kind == "firm_final" and work.is_ganache(getattr(work.asked.final, "medium", "")):
            kind = "firm_final_ganache"
        if kind in MADE_IN["final"] and final is not None:
            steps.add(
                kind,
                "{weight} stays on: {side} at the side, {top} on top.",
                work.area_cm2,
                weight=measure(work.done.coats.stays or final.weight),
                side=measure(final.side),
                top=measure(final.top),
            )
        else:
            steps.add(kind, _SAID.get(kind, ""), work.area_cm2)


_SAID = {
    "turn_back": "Peel the paper off. It sweats and softens as soon as it is out: work on at once.",
    "set_hard": "Then peel the paper off.",
    "smooth_towel": "Lay the towel on, rub with a smoother, peel it off.",
    "trim": "Cut the lip level with a knife laid flat on the top.",
    "firm_pieces": "On a board, with paper between.",
    "set_collar": "On its paper, flat.",
}
"""What to do in steps that say the same of every cake."""


def _cover(work: TierWork, steps: StepList) -> None:
    """Cover it; a cake upside-down is turned back just before. Lines are scored while the cover is soft."""
    turned = work.asked.final.kind == "inverted"
    carving = work.done.carving
    scored = [one for one in carving.tasks if one.kind == "score_lines"] if carving is not None else []
    for kind in COVERING[work.asked.cover.kind] if work.done.cover is not None else ():
        lies = kind in _LAID
        if lies and turned:
            steps.add("turn_back", _SAID["turn_back"])
        _add_cover(work, steps, kind)
        if lies and scored:
            _score(steps, scored)
            scored = []
    if scored:
        _score(steps, scored)


_LAID = ("cover", "wrap_printed", "wrap_collar")
"""The kinds of step that lay a cover on the cake."""


def _score(steps: StepList, tasks: Sequence[Task]) -> None:
    steps.add("score", "While it is still soft, no deeper than half of it.", tasks=tasks)


def _add_cover(work: TierWork, steps: StepList, kind: str) -> None:
    cover = work.done.cover
    assert cover is not None
    area_cm2 = work.area_cm2 if cover.roll_area is None else cover.roll_area.value / 100
    if kind in ("roll", "spread_collar") and cover.rolled_weight is not None:
        many = ((one.name.lower(), round(one.count.value)) for one in cover.pieces.values())
        pieces = ", ".join(name if count == 1 else f"{name} × {count}" for name, count in many)
        steps.add(kind, f"{{weight}} for {pieces or 'the sheet'}.", area_cm2, weight=measure(cover.rolled_weight))
    elif kind == "wrap_printed" and cover.printed is not None:
        sheets = cover.printed.sheets.value
        steps.add(kind, f"{sheets:.0f} {'sheet' if sheets == 1 else 'sheets'}.", sheets)
    else:
        steps.add(kind, _SAID.get(kind, ""), area_cm2, tasks=work.covering if kind in _LAID else ())


def _decorate(work: TierWork, steps: StepList) -> None:
    done = work.done
    if done.on_top:
        count = sum(one.piece.count.value for one in done.on_top.values())
        stays = grams(sum(one.stays_weight.value for one in done.on_top.values()))
        steps.add("cut_on_top", "{stays} stays on.", count, stays=stays)
    if done.regions:
        # A volume over its mean relief is an area: ml / mm x 10 is cm².
        area_cm2 = sum(10 * one.volume.value / one.relief.value for one in done.regions.values() if one.relief.value)
        weight = grams(sum(one.weight.value for one in done.regions.values()))
        steps.add("pipe_region", "{weight} in all.", area_cm2, weight=weight)
    if done.borders and work.borders_now:
        pipe_borders(steps, done.borders.values())


def pipe_borders(steps: StepList, borders: Iterable[BorderPlan], after: Iterable[str] = ()) -> None:
    """Add the piping of some borders."""
    found = list(borders)
    metres = sum(one.length.value for one in found) / 1000
    steps.add(
        "pipe_border",
        "{length} in all, {weight}.",
        metres,
        after=after,
        length=RoundedQuantity(1000 * metres, "mm"),
        weight=grams(sum(one.weight.value for one in found)),
    )
