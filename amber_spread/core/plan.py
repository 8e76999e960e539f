"""plan(design, practice, media, kit): the only way in. It calls the rooms in the order of the work."""

from amber_spread.core.bowls import (
    Base,
    Bowl,
    Covering,
    bowls_of,
    checks_of_bowls,
    covering_of,
    forget_bowls,
    leftovers_of,
    plan_bases,
)
from amber_spread.core.cake import (
    BatterPlan,
    Section,
    StackPlan,
    TierStack,
    checks_of_cake,
    checks_of_tier,
    draw_section,
    needs_of_cake,
    needs_of_tier,
    plan_batter,
    plan_stack,
)
from amber_spread.core.design.design import Design
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.base import Made
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.contents import Allergy, Contents, allergies_of, usual_contents
from amber_spread.core.stock.kit import STARTING, Kit, KitNeed, forget_kit, kit_of
from amber_spread.core.stock.media import Medium
from amber_spread.core.tier import (
    BorderPlan,
    CoatsPlan,
    CoverPlan,
    FootPlan,
    GaugeMark,
    LayersPlan,
    OnTopPlan,
    Unmade,
    Worked,
    forget_tiers,
    work,
)


class UnknownMedium(KeyError):
    """The design takes a medium that is not within reach; `path` is the field of the design that names it."""

    def __init__(self, path: tuple[str | int, ...], key: str) -> None:
        super().__init__(key)
        self.path = path
        self.key = key


class UnmadeTier(ValueError):
    """A tier that cannot be made; `path` is the field at fault, its tier counted from 0, and the message says why."""

    def __init__(self, path: tuple[str | int, ...], reason: str) -> None:
        super().__init__(reason)
        self.path = path


class TierPlan(Made):
    """Everything about one tier."""

    name: str
    layers: LayersPlan
    coats: CoatsPlan
    cover: CoverPlan | None
    foot: FootPlan | None
    on_top: dict[str, OnTopPlan]
    borders: dict[str, BorderPlan]
    gauge: dict[str, GaugeMark]
    stack: TierStack


class Plan(Made):
    """Everything about a cake: tiers from the bottom up, what to mix, the drawing, and what to know."""

    tiers: list[TierPlan]
    stack: StackPlan
    batter: BatterPlan
    allergens: list[Allergy]
    bowls: dict[str, Bowl]
    bases: dict[str, Base]
    leftovers: dict[str, list[str]]
    covering: list[Covering]
    kit: dict[str, KitNeed]
    section: Section
    checks: list[Check]


def plan(
    design: Design,
    practice: Practice,
    media: dict[str, Medium],
    kit: Kit | None = None,
    contents: Contents | None = None,
) -> Plan:
    """Every height, size and amount of a design.

    `media` holds every medium within reach by key (see `media.shelf`); `kit` is what the kitchen owns, the starting
    set where it is left out; `contents` is what its recipes come to, the program's own where left out. All lengths
    are in mm, volumes in ml, weights in g. Raises UnknownMedium when the design takes a medium that is not in `media`,
    and UnmadeTier when a tier cannot be made.
    """
    kit, contents = kit or STARTING, contents or usual_contents()
    taken = [list(tier.taken()) for tier in design.tiers]
    for index, steps in enumerate(taken):
        for path, key, _ in steps:
            if key not in media:
                raise UnknownMedium(("tiers", index, *path), key)

    hexes = {colour.name: colour.hex for colour in design.colours}
    marbled = {colour.name for colour in design.colours if colour.marbled and colour.parts}
    worked: list[Worked] = []
    for index, tier in enumerate(design.tiers):
        try:
            worked.append(work(index + 1, tier, practice, media, kit.mat, hexes, taken[index], marbled))
        except Unmade as error:
            raise UnmadeTier((index, *error.path), str(error)) from error
    numbered = list(enumerate(zip(design.tiers, worked, strict=True), 1))
    prints = [done.stands for done in worked]
    standing, whole = plan_stack([(done.stands, done.weights()) for done in worked], design.base_board, practice)
    needs = [
        need for number, (tier, done) in numbered for need in needs_of_tier(number, tier, done, standing[number - 1])
    ]
    owned = kit_of([*needs, *needs_of_cake(whole)], kit)
    bowls = bowls_of(design, [use for done in worked for use in done.uses], practice, media)
    checks = [
        check for number, (tier, done) in numbered for check in checks_of_tier(number, tier, done, practice, media, kit)
    ]
    used = {key: media[key] for steps in taken for _, key, _ in steps}
    allergens = allergies_of(used.values(), {tier.layers.cake for tier in design.tiers}, contents)
    checks.extend(checks_of_cake(design, prints, whole, used, list(owned.values()), allergens))
    checks.extend(checks_of_bowls(design, bowls, media))
    tiers = [_tier_plan(design, index, done, standing[index]) for index, done in enumerate(worked)]
    return Plan(
        tiers=tiers,
        stack=named(whole, "stack"),
        batter=named(plan_batter(design, [done.layers for done in worked], practice, contents.cakes), "batter"),
        allergens=allergens,
        bowls=bowls,
        leftovers=leftovers_of(bowls, media),
        bases=named(plan_bases(design, bowls, practice, media), "bases"),
        covering=covering_of(design, bowls),
        kit=owned,
        section=draw_section([done.drawn for done in worked], standing, whole, prints[0].outline),
        checks=checks,
    )


def forget() -> None:
    """Keep nothing of earlier plans, so that the next is worked from nothing."""
    forget_tiers()
    forget_bowls()
    forget_kit()


def _tier_plan(design: Design, index: int, done: Worked, stands: TierStack) -> TierPlan:
    return TierPlan(
        name=tier_name(design, index),
        layers=done.layers,
        coats=done.coats,
        cover=done.cover,
        foot=done.foot,
        on_top=done.on_top,
        borders=done.borders,
        gauge=done.gauge,
        stack=named(stands, f"tiers.{index + 1}.stack"),
    )


def tier_name(design: Design, index: int) -> str:
    """What a tier is called: its own name, or its place in the cake."""
    own, last = design.tiers[index].name, len(design.tiers) - 1
    if own is not None:
        return own
    if last == 0:
        return "Cake"
    if index in (0, last):
        return "Bottom" if index == 0 else "Top"
    return "Middle" if last == 2 else f"Tier {index + 1}"
