"""The steps of a whole order: its bowls, its tiers, and stacking, finishing, boxing and driving it."""

import math
from collections.abc import Iterable, Iterator, Mapping

from amber_spread.core.bowls import Bowl, bought_coloured
from amber_spread.core.cake import Oven, oven_loads
from amber_spread.core.clock.firm_waits import InUse
from amber_spread.core.clock.steps import MIX_TASKS, Size, Step, StepList
from amber_spread.core.clock.tier_steps import MADE_IN, TierWork, pipe_borders, tier_steps
from amber_spread.core.document import Document
from amber_spread.core.kernel.check import measure
from amber_spread.core.kernel.task import Task, task
from amber_spread.core.plan import Plan
from amber_spread.core.stock.composition import NO_RECIPES, Compositions
from amber_spread.core.stock.media import Medium, MediumKind, shelf

DRIVE_MIN = 30.0
"""A drive that is not set is planned as this long (from memory)."""
MIXING: dict[MediumKind, tuple[str, ...]] = {
    "buttercream": ("mix_bowl",),
    "frosting": ("mix_bowl",),
    "glaze": ("mix_bowl",),
    "filling": ("open_filling",),
    "ganache": ("mix_ganache", "set_ganache"),
    "fondant": ("colour_sheet", "rest_sheet"),
    "chocolate": ("melt_chocolate",),
    "syrup": ("boil_syrup", "cool_syrup"),
}
"""The steps of getting each kind of medium ready."""
HOT: dict[MediumKind, str] = {"ganache": "Hot cream", "syrup": "Hot syrup"}
"""What burns while a medium of a kind is made."""


def steps_of(document: Document, plan: Plan, made_of: Compositions = NO_RECIPES) -> list[Step]:
    """Every step of an order, each after those it follows. `made_of` is what the recipes in use make media of."""
    media, cake = shelf(document.media), _Cake(document, plan)
    in_use = InUse(document.practice, media, made_of)
    tiers = {number: tier_steps(cake.tier(number, in_use)) for number in range(1, len(plan.tiers) + 1)}
    whole = cake.put_together(tiers.values())
    bowls = [_mix(document, key, bowl, media[bowl.medium]) for key, bowl in plan.bowls.items()]
    steps = {one.id: one for made in (*bowls, *tiers.values(), whole) for one in made.steps}
    for made, bowl in zip(bowls, plan.bowls.values(), strict=True):
        for id in _first_uses(bowl, tiers, whole) if made.steps else ():
            steps[id] = steps[id]._replace(after=(*steps[id].after, *made.last))
    return list(steps.values())


def _mix(document: Document, key: str, bowl: Bowl, medium: Medium) -> StepList:
    """Getting a bowl ready; a sheet in its own colour needs nothing."""
    steps = StepList("bowl", f"bowl_{key}", _in_a_sentence(bowl.name))
    plain = bowl.colour is None or bought_coloured(document.design, bowl, medium)
    if medium.kind == "fondant" and plain:
        return steps
    hot = HOT.get(medium.kind)
    caution = f"{hot} burns: keep handles turned in, and children away."
    cautions = [task(MIX_TASKS["mind_hot"], f"bowls.{key}", caution)] if hot is not None else []
    for number, kind in enumerate(MIXING[medium.kind]):
        steps.add(
            kind,
            "{mix} in all.",
            bowl.mix.value / 1000,
            tasks=cautions if number == 0 else (),
            mix=measure(bowl.mix),
        )
    return steps


PROPER = ("American ", "French ", "Italian ", "Swiss ")


def _in_a_sentence(name: str) -> str:
    """The name of a bowl as it stands in a sentence: with a small letter, unless it is named after a country."""
    return name if name.startswith(PROPER) else f"{name[:1].lower()}{name[1:]}"


def _first_uses(bowl: Bowl, tiers: Mapping[int, StepList], whole: StepList) -> Iterator[str]:
    """The step of each tier, or of the whole cake, in which the bowl is first taken from."""
    for use in bowl.steps.values():
        lists = (tiers[use.tier], whole)
        found = (made.id_of(kind) for kind in MADE_IN[use.step] for made in lists if made.has(kind))
        yield next(found)


class _Cake:
    """An order and its plan, with the tasks of stacking by what they are done to."""

    def __init__(self, document: Document, plan: Plan) -> None:
        self.document, self.plan, self.design = document, plan, document.design
        self.there = self.design.stacking.stacked == "there" and len(plan.tiers) > 1
        self.later = {task.on for task in plan.stack.tasks if task.kind == "coat_after"}

    def tasks(self, *parts: str) -> list[Task]:
        """The tasks of stacking under some headings."""
        return [one for one in self.plan.stack.tasks if one.part in parts]

    def tier(self, number: int, in_use: InUse) -> TierWork:
        """What the steps of a tier depend on."""
        asked, done = self.design.tiers[number - 1], self.plan.tiers[number - 1]
        tins, loads = self._tins(number)
        batter = self.plan.batter.tiers.get(f"tier_{asked.id}")
        path = f"tiers.{asked.id}"
        return TierWork(
            number=number,
            asked=asked,
            done=done,
            in_use=in_use,
            tins=tins,
            loads=loads,
            batter_ml=batter.value if batter is not None else 0.0,
            stacking=[one for one in self.tasks("Build") if one.on == path],
            covering=self._covering(asked.id),
            coats_later=path in self.later,
            borders_now=self.there or len(self.plan.tiers) == 1,
            called=self._called(number),
        )

    def _called(self, number: int) -> str:
        """What a tier is called in the name of a step: nothing where there is one without a name of its own."""
        own, name = self.design.tiers[number - 1].name, self.plan.tiers[number - 1].name
        return own or ("" if len(self.plan.tiers) == 1 else name.lower())

    def _covering(self, tier_id: str) -> list[Task]:
        """The task of covering a tier: one, out of however many bowls."""
        tasks = (one for those in self.plan.covering.values() for one in those)
        return [one for one in tasks if one.on.endswith(f".tier_{tier_id}_cover")][:1]

    def _tins(self, number: int) -> tuple[int, int]:
        """In how many tins a tier is baked, and how often the oven is filled for it; a tin too large for it alone."""
        asked, usual = self.design.tiers[number - 1], self.document.practice
        carved = self.plan.carved.get(f"tier_{asked.id}")
        if carved is not None:
            tins = round(carved.bakes.value)
            return tins, tins if carved.loads is None else round(carved.loads.value)
        found = self.plan.tiers[number - 1].layers.tins
        if found is None:
            return 0, 0
        outline, tins = asked.shape.outline(asked.tin_diameter_mm), math.ceil(found.value)
        size = 2 * outline.half_width_mm, 2 * outline.half_length_mm
        return tins, oven_loads(((size, tins),), Oven.of(usual)) or tins

    def put_together(self, tiers: Iterable[StepList]) -> StepList:
        """Supports, stacking, finishing, boxing and driving: in the kitchen, or where the cake stays."""
        done, steps = (
            [id for made in tiers for id in made.last],
            StepList("cake", "cake", "the whole cake", size=self._size()),
        )
        supports = self.tasks("Supports") + [one for one in self.tasks("Build") if one.on == "stack"]
        if len(self.plan.tiers) > 1:
            steps.add("supports", tasks=supports, after=done)
            done = []
            if not self.there:
                self._stack(steps, "")
                self._borders(steps)
        if self.design.stacking.travels is not False:
            steps.add("chill_whole", after=done)
            steps.add("box", tasks=[one for one in self.tasks("Drive") if one.kind != "drive"])
            minutes = self.design.stacking.drive_min
            note = "" if minutes is not None else "The drive is not set: half an hour is planned."
            steps.add("drive", note, DRIVE_MIN if minutes is None else minutes)
            done = []
        if self.there:
            self._stack(steps, "_there")
        return steps

    def _size(self) -> Size:
        """How much room the whole cake takes, on its base board."""
        stack, tiers = self.plan.stack, [one.stack for one in self.plan.tiers]
        base = stack.base_diameter.value, (stack.base_length or stack.base_diameter).value
        width_mm = max(base[0], *(one.diameter.value for one in tiers))
        depth_mm = max(base[1], *((one.length or one.diameter).value for one in tiers))
        return Size(width_mm, depth_mm, stack.height.value)

    def _stack(self, steps: StepList, where: str) -> None:
        stack = self.plan.stack
        steps.add(
            f"stack{where}",
            "{weight} in all, {height} high.",
            tasks=self.tasks("Stack"),
            weight=measure(stack.weight),
            height=measure(stack.height),
        )
        finish = self.tasks("Finish")
        if finish:
            steps.add(f"finish{where}", tasks=finish)

    def _borders(self, steps: StepList) -> None:
        borders = [one for tier in self.plan.tiers for one in tier.borders.values()]
        if borders:
            pipe_borders(steps, borders)
