"""The whole cake as it stands: its tiers on each other, batter, what is asked of the kit, what it holds."""

from collections.abc import Mapping
from typing import NamedTuple

from amber_spread.core.cake.bake_checks import checks_of_bake
from amber_spread.core.cake.bakes import CarvedBake, plan_carved_bake
from amber_spread.core.cake.batter import BatterPlan, plan_batter
from amber_spread.core.cake.checks import checks_of_cake, checks_of_tier
from amber_spread.core.cake.needs import needs_of_cake, needs_of_tier
from amber_spread.core.cake.section import Section, draw_section
from amber_spread.core.cake.stack import Stacked, StackPlan, TierStack
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import interned
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.naming import named
from amber_spread.core.stock.contents import Allergy, Contents, allergies_of
from amber_spread.core.stock.kit import Kit, KitNeed, kit_of
from amber_spread.core.stock.media import Medium


class Standing(NamedTuple):
    """A cake that stands: where each of its tiers does, bottom first, and what is asked for and known of the whole."""

    tiers: list[TierStack]
    stack: StackPlan
    carved: dict[str, CarvedBake]
    batter: BatterPlan
    allergens: list[Allergy]
    kit: dict[str, KitNeed]
    section: Section
    checks: list[Check]


def stand(
    cake: SettledDesign,
    stacked: Stacked,
    media: Mapping[str, Medium],
    kit: Kit,
    contents: Contents,
) -> Standing:
    """The tiers as they are `stacked`; their figures called as they stand in the plan.

    `kit` is what the kitchen owns, `contents` what its recipes come to.
    """
    stood, tiers, whole = stacked
    worked = [one.done for one in stood]
    carved = {one.number: bake for one in stood if (bake := plan_carved_bake(one.done, kit.tins))}
    needs = [need for one in stood for need in needs_of_tier(one.number, one.done, carved.get(one.number))]
    own_kit = interned(kit)
    owned = kit_of([*needs, *needs_of_cake(whole)], own_kit)
    used = {medium.key: medium for done in worked for medium in done.takes}
    hidden = [tier.layers.cavity.filled_with for tier in cake.asked.tiers if tier.layers.cavity]
    inside = dict.fromkeys(key for key in hidden if key is not None)
    known = [*used.values(), *(media[key] for key in inside if key in media and key not in used)]
    allergens = allergies_of(known, {tier.layers.cake for tier in cake.asked.tiers}, inside, contents)
    checks = [check for number, done in enumerate(worked, 1) for check in checks_of_tier(number, done, own_kit)]
    checks.extend(
        check for number, bake in carved.items() for check in checks_of_bake(number, worked[number - 1], bake)
    )
    checks.extend(checks_of_cake(cake, stacked, used, list(owned.values()), allergens))
    return Standing(
        tiers=tiers,
        stack=named(whole, "stack"),
        carved=named({f"tier_{worked[number - 1].id}": bake for number, bake in carved.items()}, "carved"),
        batter=named(
            plan_batter(
                cake,
                [done.layers for done in worked],
                {number: bake.batter for number, bake in carved.items()},
                contents.cakes,
            ),
            "batter",
        ),
        allergens=allergens,
        kit=owned,
        section=draw_section(stood, tiers, whole),
        checks=checks,
    )
