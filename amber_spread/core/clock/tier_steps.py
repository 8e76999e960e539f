"""The steps of one tier, from its batter to its last border, in the order of the work.

Different schools give different steps: the tables below say which, by the kinds of finish and cover in the design.
"""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from amber_spread.core.cake import TierStack
from amber_spread.core.clock.firm_waits import InUse, firming_at
from amber_spread.core.clock.step_kinds import STEP_KINDS
from amber_spread.core.clock.steps import Size, StepList
from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import CrumbCoat, FinalCoat, SemiNakedFinal, SoftFilling
from amber_spread.core.geometry.flat.outline import Outline
from amber_spread.core.kernel.check import RoundedQuantity, grams, measure
from amber_spread.core.kernel.figures import FROM_MEMORY, rule
from amber_spread.core.kernel.task import Task
from amber_spread.core.plan import TierPlan
from amber_spread.core.tier import BorderPlan

COATING: dict[str, tuple[str, ...]] = {
    "none": (),
    "freehand": ("final_coat", "firm_final"),
    "disc": ("disc_coat", "firm_final"),
    "twin": ("disc_coat", "firm_final"),
    "inverted": ("inverted_coat", "firm_inverted"),
    "towel": ("final_coat", "dry_skin", "smooth_towel", "firm_final"),
    "deckled": ("final_coat", "firm_final"),
    "semi_naked": (),
    "textured": ("piped_coat", "firm_final"),
}
"""The steps of each kind of final coat, from the one that spreads it."""
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
LAYING = ("cover", "wrap_printed", "wrap_collar")
"""The kinds of step that lay a cover on the cake."""
MADE_IN: dict[str, tuple[str, ...]] = {
    "syrup": ("soak", "cut_layers"),
    "seal": ("fill", "cut_layers"),
    "dam": ("fill", "cut_layers"),
    "filling": ("fill", "cut_layers"),
    "refill": ("carve", "cut_layers", "fill"),
    "crumb": ("crumb_coat",),
    "final": (*{steps[0]: None for steps in COATING.values() if steps}, "finish", "finish_there", "crumb_coat"),
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
    in_use: InUse
    tins: int
    loads: int
    batter_ml: float
    stacking: Sequence[Task]
    covering: Sequence[Task]
    coats_later: bool
    borders_now: bool
    called: str

    @property
    def scoring(self) -> list[Task]:
        """The tasks of scoring lines into its cover."""
        carving = self.done.carving
        return [] if carving is None else [one for one in carving.tasks if one.kind == "score_lines"]

    @property
    def area_cm2(self) -> float:
        """Its wall and top below the coats."""
        return surface_cm2(self.asked.shape.outline(self.asked.tin_diameter_mm), self.done.coats.crumb.height.value)

    def sets_sooner(self, coat: CrumbCoat | FinalCoat) -> bool:
        """Whether a coat sets sooner than buttercream, as ganache does."""
        medium = getattr(coat, "medium", None)
        return medium is not None and self.in_use.media[medium].kind == "ganache"


def tier_steps(work: TierWork) -> StepList:
    """Every step of a tier, in order. Source: common practice."""
    steps = StepList("tier", f"tier_{work.asked.id}", work.called, work.number, _size(work.done.stack))
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


def _size(stack: TierStack) -> Size:
    """How much room a tier takes in the cold: as finished, on its board."""
    across_mm, long_mm = (
        max(one.value for one in sizes if one is not None)
        for sizes in (
            (stack.diameter, stack.board_diameter),
            (stack.length or stack.diameter, stack.board_length or stack.board_diameter),
        )
    )
    board_mm = stack.board_thickness.value if stack.board_thickness is not None else 0.0
    return Size(across_mm, long_mm, stack.height.value + board_mm)


def _bake(work: TierWork, steps: StepList) -> None:
    asked, one = work.asked, "tin" if work.tins == 1 else "tins"
    steps.add(
        "mix_batter",
        f"{{batter}} of batter into {work.tins} {one} of {{across}}.",
        work.batter_ml / 1000,
        batter=RoundedQuantity(work.batter_ml, "ml", "up"),
        across=RoundedQuantity(asked.tin_diameter_mm, "mm"),
    )
    depth_mm = getattr(asked.layers.bake, "depth_mm", work.in_use.usual.tin_depth_mm)
    often = "" if work.loads == 1 else f" Fill the oven {work.loads} times."
    steps.add(
        "bake",
        f"Until a skewer comes out clean.{often}",
        wait=bake_minutes.figure(asked.tin_diameter_mm, depth_mm, work.loads),
    )
    steps.add("take_out", amount=work.tins)
    steps.add("cool")
    steps.add("wrap", amount=work.tins)
    steps.add("chill_cake")


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
    steps.add("settle_overnight" if settling else "settle")
    steps.add("scrape", tasks=settling)


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
    steps.add("cut_layers", tasks=[*work.stacking, *(one for one in tasks if one.part != "Carve")])
    steps.add("chill_stack")
    steps.add("carve", tasks=[one for one in tasks if one.part == "Carve" and one not in work.scoring])


def _crumb_coat(work: TierWork, steps: StepList) -> None:
    coats = work.done.coats
    goes_on = coats.goes_on or coats.crumb.weight
    steps.add("crumb_coat", "{weight}, pressed in to leave no air.", work.area_cm2, weight=measure(goes_on))
    if isinstance(work.asked.final, SemiNakedFinal):
        steps.add("scrape_back", "{weight} of it stays.", work.area_cm2, weight=measure(coats.crumb_stays))
    _firm(work, steps, "firm_crumb", work.asked.crumb)


def _firm(work: TierWork, steps: StepList, kind: str, coat: CrumbCoat | FinalCoat | None = None) -> None:
    """Firm it in the cold, in the fridge or the freezer."""
    firming = firming_at(kind, work.asked, work.done, work.in_use)
    steps.add(kind, wait=firming, sooner=coat is not None and work.sets_sooner(coat))


def _final_coat(work: TierWork, steps: StepList) -> None:
    final = work.done.coats.final
    if final is None:
        return
    spread, *rest = COATING[work.asked.final.kind]
    steps.add(
        spread,
        "{weight} stays on: {side} at the side, {top} on top.",
        work.area_cm2,
        weight=measure(work.done.coats.stays or final.weight),
        side=measure(final.side),
        top=measure(final.top),
    )
    for kind in rest:
        if STEP_KINDS[kind].firms:
            _firm(work, steps, kind, work.asked.final)
        else:
            steps.add(kind, amount=work.area_cm2)


def _cover(work: TierWork, steps: StepList) -> None:
    """Cover it. A cake coated upside-down is turned back just before; lines are scored while the cover is soft."""
    kinds = list(COVERING[work.asked.cover.kind])
    lays = next((at for at, kind in enumerate(kinds) if kind in LAYING), len(kinds))
    if work.scoring:
        kinds.insert(lays + 1, "score")
    if work.asked.final.kind == "inverted":
        kinds.insert(lays, "turn_back")
    for kind in kinds:
        _add_cover(work, steps, kind)


def _add_cover(work: TierWork, steps: StepList, kind: str) -> None:
    cover, area_cm2 = work.done.cover, work.area_cm2
    if cover is not None and cover.roll_area is not None:
        area_cm2 = cover.roll_area.value / 100
    if kind == "score":
        steps.add(kind, tasks=work.scoring)
    elif kind in ("roll", "spread_collar") and cover is not None and cover.rolled_weight is not None:
        many = ((one.name.lower(), round(one.count.value)) for one in cover.pieces.values())
        pieces = ", ".join(name if count == 1 else f"{name} × {count}" for name, count in many)
        steps.add(kind, f"{{weight}} for {pieces or 'the sheet'}.", area_cm2, weight=measure(cover.rolled_weight))
    elif kind == "wrap_printed" and cover is not None and cover.printed is not None:
        sheets = cover.printed.sheets.value
        steps.add(kind, f"{sheets:.0f} {'sheet' if sheets == 1 else 'sheets'}.", sheets)
    elif STEP_KINDS[kind].firms:
        _firm(work, steps, kind)
    else:
        steps.add(kind, amount=area_cm2, tasks=work.covering if kind in LAYING else ())


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


def pipe_borders(steps: StepList, borders: Iterable[BorderPlan]) -> None:
    """Add the piping of some borders."""
    found = list(borders)
    metres = sum(one.length.value for one in found) / 1000
    steps.add(
        "pipe_border",
        "{length} in all, {weight}.",
        metres,
        length=RoundedQuantity(1000 * metres, "mm"),
        weight=grams(sum(one.weight.value for one in found)),
    )
