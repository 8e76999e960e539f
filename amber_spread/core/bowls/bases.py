"""Bases: the uncoloured mix of one medium for all its bowls, split into colours, and colours blended of others.

A colour made of parts is not coloured from the base: each of its colours is coloured for it as well, by its share.
    whole of a colour = its own bowl + sum over blends of (whole of the blend x parts / all its parts)
The base is what all colours that are not blended take, and what stays uncoloured, less what is there already.
"""

from collections.abc import Mapping

from amber_spread.core.bowls.bowls import Bowl, batch, batches
from amber_spread.core.design.design import Colour
from amber_spread.core.design.settled import SettledDesign
from amber_spread.core.kernel.base import PlanPart, slug
from amber_spread.core.kernel.figures import DEFINITION, Figure, rule, total
from amber_spread.core.stock.media import BEATEN, Medium

PLAIN = "~plain"
"""The uncoloured share of a base: a key no colour's name can make."""


class Tint(PlanPart):
    """One colour of a base: what is coloured of it in all, for its own bowl and for blends. No name: uncoloured."""

    colour: str | None
    hex: str
    whole: Figure


class Sheet(PlanPart):
    """One sheet of a marbled blend, which is mixed on its own: what it takes in all, and the log of each part."""

    tier: int
    whole: Figure
    parts: dict[str, Figure]


class Blend(PlanPart):
    """A colour made of others by parts: what of each goes in. A marbled one is mixed sheet by sheet."""

    colour: str
    hex: str
    marbled: bool
    whole: Figure
    parts: dict[str, Figure]
    sheets: dict[str, Sheet]


class Base(PlanPart):
    """One medium mixed once for all its colours, and how it is then split."""

    medium: str
    name: str
    hex: str
    whole: Figure
    tints: dict[str, Tint]
    blends: dict[str, Blend]
    batches: Figure | None
    batch: Figure | None


@rule(
    "bases.part",
    unit="g",
    formula="whole * parts / all",
    source=DEFINITION,
    rounding="up",
    words="Its parts of the whole blend.",
)
def part_of(whole_g: float, parts: float, all: float) -> float:
    """What of one colour goes into a blend, g: whole x parts / all parts. Source: definition.

    >>> part_of(1050, 2, 3)
    700.0
    """
    return whole_g * parts / all


def plan_bases(cake: SettledDesign, bowls: Mapping[str, Bowl], media: Mapping[str, Medium]) -> dict[str, Base]:
    """The base of every medium that is mixed to more than one colour, or to a blend of colours."""
    by_medium: dict[str, list[Bowl]] = {}
    for bowl in bowls.values():
        by_medium.setdefault(bowl.medium, []).append(bowl)
    blended = {colour.name: colour for colour in cake.asked.colours if colour.parts}
    return {
        medium: _base(cake, media[medium], served, blended)
        for medium, served in by_medium.items()
        if len(served) > 1 or served[0].colour in blended
    }


def _base(cake: SettledDesign, medium: Medium, bowls: list[Bowl], blended: Mapping[str, Colour]) -> Base:
    usual = cake.usual
    taken: dict[str | None, dict[str, float]] = {}
    for bowl in bowls:
        still = bowl.mix if bowl.still_to_mix is None else bowl.still_to_mix
        taken.setdefault(bowl.colour, {})["its own bowl"] = still.value
    blends: dict[str, Blend] = {}
    while True:
        # A blend is split once nothing that is itself still to be split takes of it, be it by way of another blend.
        waiting = [name for name in taken if name is not None and name in blended and name not in blends]
        ready = [name for name in waiting if not any(_takes(other, name, blended) for other in waiting)]
        if not ready:
            break
        for name in ready:
            own = next((bowl for bowl in bowls if bowl.colour == name), None)
            blends[name] = _split(blended[name], taken, own)
    tints = {
        _key(colour): Tint(colour=colour, hex=cake.asked.colour_hex(colour) or medium.hex, whole=total(parts, "g"))
        for colour, parts in taken.items()
        if colour not in blends
    }
    whole = total({key: tint.whole.value for key, tint in tints.items()}, "g")
    beaten = medium.kind in BEATEN
    many = batches.figure(whole.value, medium.density_g_per_ml, usual.mixer_ml, usual.mixer_fill)
    return Base(
        medium=medium.key,
        name=medium.name,
        hex=medium.hex,
        whole=whole,
        tints=tints,
        blends={slug(name): blend for name, blend in blends.items()},
        batches=many if beaten else None,
        batch=batch.figure(whole.value, max(1.0, many.value)) if beaten else None,
    )


def _key(colour: str | None) -> str:
    return PLAIN if colour is None else slug(colour)


def _takes(blend: str, name: str, blended: Mapping[str, Colour]) -> bool:
    """Whether a blend is made of a colour, straight or by way of other blends."""
    parts = [part.colour for part in blended[blend].parts if part.colour is not None]
    return name in parts or any(_takes(part, name, blended) for part in parts if part in blended)


@rule(
    "bases.sheet",
    unit="g",
    formula="mix * takes / all",
    source=DEFINITION,
    rounding="up",
    words="What the sheet takes of the bowl for good, trimmings among it, as its share of all that is mixed.",
)
def sheet_of(mix_g: float, takes_g: float, all_g: float) -> float:
    """What one marbled sheet is mixed of, g: mix x what it takes / what all take. Source: definition.

    >>> round(sheet_of(520, 310, 465), 2)
    346.67
    """
    return mix_g * takes_g / all_g


def _split(blend: Colour, taken: dict[str | None, dict[str, float]], own: Bowl | None) -> Blend:
    """Ask the colours of a blend for their shares of it; `own` is the bowl that is mixed to the blend itself."""
    whole = total(taken[blend.name], "g")
    all_parts = sum(part.parts for part in blend.parts)
    parts = {}
    for part in blend.parts:
        figure = part_of.figure(whole.value, part.parts, all_parts)
        parts[_key(part.colour)] = figure
        taken.setdefault(part.colour, {})[f"for {blend.name}"] = figure.value
    sheets = {}
    if own is not None and blend.marbled:
        kept_g = sum(use.kept_g for use in own.steps.values())
        for key, use in own.steps.items():
            sheet = sheet_of.figure(own.mix.value, use.kept_g, kept_g)
            logs = {_key(part.colour): part_of.figure(sheet.value, part.parts, all_parts) for part in blend.parts}
            sheets[key] = Sheet(tier=use.tier, whole=sheet, parts=logs)
    return Blend(colour=blend.name, hex=blend.hex, marbled=blend.marbled, whole=whole, parts=parts, sheets=sheets)
