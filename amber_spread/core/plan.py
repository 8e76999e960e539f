"""plan(design, practice, media, kit): the only way in. It calls the rooms in the order of the work."""

from functools import lru_cache

from amber_spread.core.bowls import (
    Base,
    Bowl,
    Mixer,
    checks_of_bowls,
    fill_bowl,
    forget_walks,
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
from amber_spread.core.design.design import BowlOrder, Design
from amber_spread.core.design.finishes import CollarCover
from amber_spread.core.design.practice import Practice
from amber_spread.core.kernel.base import Kept, Made, Same
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.contents import Allergy, Contents, allergies_of, usual_contents
from amber_spread.core.stock.kit import STARTING, Kit, KitNeed, forget_kit, kit_of
from amber_spread.core.stock.media import BEATEN, Medium
from amber_spread.core.tier import (
    BorderPlan,
    CoatsPlan,
    CoverPlan,
    FootPlan,
    GaugeMark,
    LayersPlan,
    OnTopPlan,
    Unmade,
    Use,
    Worked,
    bowl_key,
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


class Covering(Made):
    """In what order the tiers are covered out of one bowl, by number from 1, so that trimmings of one serve the
    next.
    """

    bowl: str
    tiers: list[int]


NOTHING_DECIDED = BowlOrder(bowl="any")
BOWLS_KEPT = 512
"""So many bowls are kept, the ones asked for last."""


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
    uses = [use for done in worked for use in done.uses]
    prints = [done.stands for done in worked]
    weights = [_weights(number, done, uses) for number, (_, done) in numbered]
    standing, whole = plan_stack(list(zip(prints, weights, strict=True)), design.base_board, practice)
    needs = [
        need for number, (tier, done) in numbered for need in needs_of_tier(number, tier, done, standing[number - 1])
    ]
    owned = kit_of([*needs, *needs_of_cake(whole)], kit)
    bowls = _fill_bowls(design, uses, practice, media)
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
        covering=_covering(design, bowls),
        kit=owned,
        section=draw_section([done.drawn for done in worked], standing, whole, prints[0].outline),
        checks=checks,
    )


def forget() -> None:
    """Keep nothing of earlier plans, so that the next is worked from nothing."""
    forget_tiers()
    forget_walks()
    forget_kit()
    _bowl.cache_clear()


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


def _weights(number: int, done: Worked, uses: list[Use]) -> dict[str, float]:
    own: dict[str, float] = {"cake": done.layers.cake_weight.value}
    for use in uses:
        if use.tier == number:
            own[use.step] = own.get(use.step, 0.0) + use.stays.value
    if done.layers.cavity is not None and done.layers.cavity.fill_weight is not None:
        own["what is hidden in it"] = done.layers.cavity.fill_weight.value
    if done.foot is not None:
        own["slice cut off"] = -done.foot.slice_weight.value
    return own


def _fill_bowls(design: Design, uses: list[Use], practice: Practice, media: dict[str, Medium]) -> dict[str, Bowl]:
    by_bowl: dict[str, list[Use]] = {}
    for use in uses:
        by_bowl.setdefault(bowl_key(use.medium, use.colour), []).append(use)
    decided = {one.bowl: one for one in design.orders}
    bowls = {}
    for key, served in by_bowl.items():
        medium, colour = media[served[0].medium], served[0].colour
        name = medium.name if colour is None else f"{medium.name}, {colour}"
        hex = design.colour_hex(colour) or medium.hex
        own = decided.get(key, NOTHING_DECIDED)
        mixer = Mixer(medium.density_g_per_ml, practice.mixer_ml, practice.mixer_fill)
        bowls[key] = _bowl(
            key,
            tuple(map(Same, served)),
            name,
            hex,
            practice.run_out_risk,
            practice.weigh_step_g,
            own.steps,
            own.have_g,
            mixer if medium.kind in BEATEN else None,
        )
    return Kept(bowls)


@lru_cache(maxsize=BOWLS_KEPT)
def _bowl(
    key: str,
    uses: tuple[Same[Use], ...],
    name: str,
    hex: str,
    risk: float,
    step_g: float,
    wanted: tuple[str, ...],
    have_g: float | None,
    mixer: Mixer | None,
) -> Bowl:
    """A bowl, its figures called by where it stands. Tiers that nobody changed bring the very uses they brought before,
    so a bowl that serves those alone is not filled again.
    """
    found = fill_bowl([use.one for use in uses], name, hex, risk, step_g, wanted, have_g, mixer)
    return named(found, f"bowls.{key}")


def _covering(design: Design, bowls: dict[str, Bowl]) -> list[Covering]:
    """The order to cover in: as the bowl walk has it, but collars from the top tier down, so that none is knocked."""
    found = []
    for key, bowl in bowls.items():
        tiers = [use.tier for use in bowl.steps.values() if use.step == "cover"]
        if tiers and all(isinstance(design.tiers[tier - 1].cover, CollarCover) for tier in tiers):
            tiers.sort(reverse=True)
        if tiers:
            found.append(Covering(bowl=key, tiers=tiers))
    return found
