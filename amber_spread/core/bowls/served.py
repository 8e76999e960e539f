"""Every bowl of a cake: which uses it serves, and in what order its tiers are covered out of it."""

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from amber_spread.core.bowls.bases import Base, plan_bases
from amber_spread.core.bowls.bowl_checks import checks_of_bowls
from amber_spread.core.bowls.bowls import Bowl, Care, Mixer, fill_bowl
from amber_spread.core.bowls.cover_tasks import covering_tasks
from amber_spread.core.bowls.leftovers import leftovers_of
from amber_spread.core.design.design import BowlOrder
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import FrozenDict
from amber_spread.core.kernel.caching import TIERS, cached
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.naming import named
from amber_spread.core.kernel.task import Task
from amber_spread.core.stock.media import BEATEN, Medium
from amber_spread.core.tier import Use

NOTHING_DECIDED = BowlOrder(bowl="any")


class Mixed(NamedTuple):
    """All that is mixed for a cake: its bowls and bases, what is left of them, the order to cover in, what to know."""

    bowls: dict[str, Bowl]
    bases: dict[str, Base]
    leftovers: dict[str, list[str]]
    covering: dict[str, list[Task]]
    checks: list[Check]


def mix(cake: SettledDesign, uses: Iterable[Use], media: Mapping[str, Medium]) -> Mixed:
    """Fill every bowl that the tiers take from; their figures called as they stand in the plan."""
    bowls = bowls_of(cake, uses, media)
    return Mixed(
        bowls=bowls,
        bases=named(plan_bases(cake, bowls, media), "bases"),
        leftovers=leftovers_of(bowls, media),
        covering=covering_tasks(cake.asked, bowls),
        checks=list(checks_of_bowls(cake.asked, bowls, media)),
    )


def bowls_of(cake: SettledDesign, uses: Iterable[Use], media: Mapping[str, Medium]) -> dict[str, Bowl]:
    """Every bowl by its key, filled for all that the tiers take of its medium in its colour."""
    design, usual = cake.asked, cake.usual
    by_bowl: dict[str, list[Use]] = {}
    for use in uses:
        by_bowl.setdefault(use.bowl_key, []).append(use)
    decided = {one.bowl: one for one in design.orders}
    care = Care(usual.run_out_risk, usual.weigh_step_g)
    bowls = {}
    for key, served in by_bowl.items():
        medium, colour = media[served[0].medium], served[0].colour
        name = medium.name if colour is None else f"{medium.name}, {colour}"
        hex = design.colour_hex(colour) or medium.hex
        own = decided.get(key, NOTHING_DECIDED)
        mixer = Mixer(medium.density_g_per_ml, usual.mixer_ml, usual.mixer_fill)
        bowls[key] = _bowl(
            key,
            tuple(served),
            name,
            hex,
            care,
            own,
            mixer if medium.kind in BEATEN else None,
        )
    return FrozenDict(bowls)


@cached(TIERS)
def _bowl(
    key: str,
    uses: tuple[Use, ...],
    name: str,
    hex: str,
    care: Care,
    decided: BowlOrder,
    mixer: Mixer | None,
) -> Bowl:
    """A bowl, its figures called by where it stands. Tiers that nobody changed bring the very uses they brought before,
    so a bowl that serves those alone is not filled again.
    """
    found = fill_bowl(uses, name, hex, care, decided.steps, decided.have_g, mixer)
    return named(found, f"bowls.{key}")
