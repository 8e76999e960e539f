"""plan(design, practice, media): the only way in. It calls the rooms in the order of the work."""

from collections.abc import Iterator
from typing import Any, NamedTuple

from amber_spread.core.base import Frozen
from amber_spread.core.body import Envelopes
from amber_spread.core.bowls import Bowl, bowl_key, fill_bowl
from amber_spread.core.checks import Check, checks_of_cake, checks_of_tier
from amber_spread.core.coats import CoatsPlan, crumb_thickness, final_top, plan_coats
from amber_spread.core.cover import CoverPlan, cover_thickness, plan_cover
from amber_spread.core.design import Design, Tier
from amber_spread.core.figures import Figure
from amber_spread.core.layers import LayersPlan, plan_layers
from amber_spread.core.media import Medium
from amber_spread.core.practice import Practice
from amber_spread.core.section import Section, draw_section
from amber_spread.core.stack import StackPlan, TierStack, plan_stack
from amber_spread.core.uses import Use, uses_of_tier


class UnknownMedium(KeyError):
    """The design takes a medium that is not within reach; `path` is the field of the design that names it."""

    def __init__(self, path: tuple[str | int, ...], key: str) -> None:
        super().__init__(key)
        self.path = path
        self.key = key


class TierPlan(Frozen):
    """Everything about one tier."""

    name: str
    layers: LayersPlan
    coats: CoatsPlan
    cover: CoverPlan | None
    stack: TierStack


class Plan(Frozen):
    """Everything about a cake: tiers from the bottom up, what to mix, the drawing, and what to know."""

    tiers: list[TierPlan]
    stack: StackPlan
    bowls: dict[str, Bowl]
    section: Section
    checks: list[Check]


class Worked(NamedTuple):
    """One tier as its rooms left it, before it stands on the others."""

    layers: LayersPlan
    coats: CoatsPlan
    cover: CoverPlan | None
    envelopes: Envelopes


_HOLDERS = (Figure, Frozen, dict)


def plan(design: Design, practice: Practice, media: dict[str, Medium]) -> Plan:
    """Every height, size and amount of a design.

    `media` holds every medium within reach by key (see `media.shelf`). All lengths are in mm, volumes
    in ml, weights in g. Raises UnknownMedium when the design takes a medium that is not in `media`.
    """
    for path, key, _ in design.taken():
        if key not in media:
            raise UnknownMedium(path, key)
    worked = [_work(tier, practice, media) for tier in design.tiers]
    uses = [
        use
        for number, (tier, done) in enumerate(zip(design.tiers, worked, strict=True), 1)
        for use in uses_of_tier(number, tier, done.layers, done.coats, done.cover, practice)
    ]
    finished = [
        (done.envelopes.covered, done.envelopes.bare.width_mm, _weights(number, done.layers, uses))
        for number, done in enumerate(worked, 1)
    ]
    standing, whole = plan_stack(finished, design.base_board, practice)
    checks = [
        check
        for number, (tier, done) in enumerate(zip(design.tiers, worked, strict=True), 1)
        for check in checks_of_tier(number, tier, done.layers, done.coats, done.cover, practice, media)
    ]
    checks.extend(checks_of_cake(design, standing, whole, media))
    tiers = [
        TierPlan(
            name=tier_name(design, index),
            layers=done.layers,
            coats=done.coats,
            cover=done.cover,
            stack=standing[index],
        )
        for index, done in enumerate(worked)
    ]
    return Plan(
        tiers=[_named(tier, f"tiers.{number}") for number, tier in enumerate(tiers, 1)],
        stack=_named(whole, "stack"),
        bowls=_named(_fill_bowls(design, uses, practice, media), "bowls"),
        section=draw_section(design, [(done.layers, done.envelopes) for done in worked], standing, whole, media),
        checks=checks,
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


def _work(tier: Tier, practice: Practice, media: dict[str, Medium]) -> Worked:
    on_top = (crumb_thickness(tier, practice), final_top(tier, practice), cover_thickness(tier, practice))
    layers, bare = plan_layers(tier, practice, media, sum(figure.value for figure in on_top if figure))
    coats, crumbed, coated = plan_coats(tier, practice, media, bare)
    cover, covered = plan_cover(tier, practice, media, coated)
    return Worked(layers, coats, cover, Envelopes(bare, crumbed, coated, covered))


def _weights(number: int, layers: LayersPlan, uses: list[Use]) -> dict[str, float]:
    own: dict[str, float] = {use.step: use.stays.value for use in uses if use.tier == number}
    return {"cake": layers.cake_weight.value, **own}


def _fill_bowls(design: Design, uses: list[Use], practice: Practice, media: dict[str, Medium]) -> dict[str, Bowl]:
    by_bowl: dict[str, list[Use]] = {}
    for use in uses:
        by_bowl.setdefault(bowl_key(use.medium, use.colour), []).append(use)
    bowls = {}
    for key, served in by_bowl.items():
        medium, colour = media[served[0].medium], served[0].colour
        name = medium.name if colour is None else f"{medium.name}, {colour}"
        hex = design.colour_hex(colour) or medium.hex
        bowls[key] = fill_bowl(served, name, hex, practice.run_out_risk, practice.weigh_step_g)
    return bowls


def _named(node: Any, path: str) -> Any:
    """A copy of a piece of the plan in which every figure carries its path as its id."""
    if type(node) is Figure:
        return Figure(node.value, node.unit, node.rule, node.rounding, node.given, path)
    if isinstance(node, dict):
        return {key: _named(value, f"{path}.{key}") for key, value in node.items()}
    if isinstance(node, Frozen):
        values = node.__dict__
        named = {name: _named(value, f"{path}.{name}") for name, value in values.items() if isinstance(value, _HOLDERS)}
        return node.model_copy(update=named) if named else node
    return node


def figures(node: Any) -> Iterator[Figure]:
    """Every figure of a plan or of a piece of one, in the plan's order; each carries its id."""
    if isinstance(node, Figure):
        yield node
    elif isinstance(node, dict):
        for value in node.values():
            yield from figures(value)
    elif isinstance(node, list):
        for value in node:
            yield from figures(value)
    elif isinstance(node, Frozen):
        for name in type(node).model_fields:
            yield from figures(getattr(node, name))
