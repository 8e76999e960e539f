"""Any design printed as its quick line."""

from collections.abc import Iterable, Iterator, Mapping
from typing import Any, NamedTuple

from pydantic import BaseModel

from amber_spread.core.design.design import Colour, Design, Layers, Tier
from amber_spread.core.design.finishes import OnTop, PatchColour, PatchSeam
from amber_spread.core.design.part_ids import typed_fields
from amber_spread.core.kernel.units import LengthUnit
from amber_spread.core.line.quick_media import medium_written
from amber_spread.core.line.quick_steps import orders_by_place
from amber_spread.core.line.quick_words import (
    CLAUSES,
    NESTED,
    WHOLE,
    colour_written,
    drawn_fields,
    kind_word,
    length_written,
    word_of,
    written,
)
from amber_spread.core.stock.media import Medium

ELSEWHERE = {"kind", *NESTED, "target_height_mm"}
"""Fields that stand elsewhere in the line."""


class Writing(NamedTuple):
    """What a line is written with: the media by key, and the unit of lengths that have a mark in it."""

    media: Mapping[str, Medium]
    unit: LengthUnit

    def length(self, mm: float) -> str:
        """A length as it is written."""
        return length_written(mm, self.unit)


def write_line(design: Design, media: Mapping[str, Medium], unit: LengthUnit = "mm") -> str:
    """The design as its line; read back with the same media, and the same design in hand, it is the same design."""
    by = Writing(media, unit)
    tiers = [list(_clauses(tier, by)) for tier in design.tiers]
    common = [clause for clause in tiers[0] if all(tier.count(clause) == 1 for tier in tiers)]
    repeated = {clause.split()[0] for tier in tiers for clause in tier if clause not in common}
    common = [clause for clause in common if clause.split()[0] not in repeated]
    heads = [
        ", ".join([_head(tier, by), *(clause for clause in clauses if clause not in common)])
        for tier, clauses in zip(design.tiers, tiers, strict=True)
    ]
    sections = ["; ".join(heads), *common]
    for whole in WHOLE:
        decided = getattr(design, whole.field)
        if decided != whole.model():
            sections.append(whole.word + _fields(decided, by))
    for order in orders_by_place(design):
        have = "" if order.have_g is None else f" have {written(order.have_g)}"
        sections.append(f"order {colour_written(order.bowl)}{have} {' / '.join(order.steps)}".rstrip())
    sections.extend(_colour(colour) for colour in design.colours)
    return " | ".join(sections)


def _colour(colour: Colour) -> str:
    words = [f"colour {colour_written(colour.name)} {colour.hex}"]
    if colour.marbled:
        words.append("marbled")
    if colour.parts:
        words.append("of " + _shares([(part.colour, part.parts) for part in colour.parts]))
    return " ".join(words)


def _patch(one: PatchColour, by: Writing) -> str:
    """What a patch is cut from."""
    own = [] if one.medium is None else [medium_written(one.medium, by.media)]
    return " ".join([*own, colour_written(one.colour) if one.colour else "plain"])


def _seam(one: PatchSeam) -> str:
    """A seam where it was chosen, how far it is turned where it is, and what it runs within where it ends there."""
    turned = f" {written(one.turn_deg)}" if one.turn_deg else ""
    within = f" {one.within.side} {one.within.seam}" if one.within else ""
    return f"{one.run} {written(one.at)}{turned}{within}"


def _shares(shares: Iterable[tuple[str | None, float]]) -> str:
    return " / ".join(f"{colour_written(colour) if colour else 'plain'} {written(share)}" for colour, share in shares)


def _head(tier: Tier, by: Writing) -> str:
    words = [by.length(tier.tin_diameter_mm)]
    if tier.layers.target_height_mm is not None:
        words.append(f"x {by.length(tier.layers.target_height_mm)}")
    words.append(kind_word(tier.shape.kind) + _fields(tier.shape, by))
    if not tier.build.straight:
        words.append(kind_word(tier.build.kind) + _fields(tier.build, by))
    return " ".join(words)


def _clauses(tier: Tier, by: Writing) -> Iterator[str]:
    if tier.name is not None:
        yield f"named {colour_written(tier.name)}"
    for part in CLAUSES:
        value: Any = tier
        for step in part.path:
            value = getattr(value, step)
        for one in value if part.many else [value]:
            if one is None or (part.left and one == type(one)() == Tier.model_fields[part.path[0]].default):
                continue
            kind = getattr(one, "kind", None)
            words = [part.word] + ([kind_word(kind)] if kind and len(part.kinds) > 1 else [])
            if isinstance(one, OnTop):
                words.append(kind_word(one.shape.kind) + _fields(one.shape, by))
            yield " ".join(words) + _fields(one, by)


def _fields(model: BaseModel, by: Writing) -> str:
    """Every field that is not as it would be left, by its word and value."""
    found = []
    for name in typed_fields(type(model)):
        field, value = type(model).model_fields[name], getattr(model, name)
        counted = name == "count" and isinstance(model, Layers)
        outlined = name == "shape" and isinstance(value, BaseModel)
        if (
            outlined
            or name in ELSEWHERE
            or name in drawn_fields(type(model))
            or (value == field.default and not counted)
        ):
            continue
        if name == "points_mm":
            found.append("points " + " / ".join(f"{by.length(x)}:{by.length(y)}" for x, y in value))
            continue
        word = word_of(name)
        if value is None:
            found.append(f"{word} none")
        elif name.endswith("medium"):
            found.append(
                f"{word} {medium_written(value, by.media)}" if name != "medium" else medium_written(value, by.media)
            )
        elif name.endswith("colour"):
            found.append(colour_written(value) if name == "colour" else f"{word} {colour_written(value)}")
        elif name == "stripes":
            found.append(f"stripes {_shares([(one.colour, one.share) for one in value])}")
        elif name == "patch_colours":
            found.append(f"{word} {' / '.join(_patch(one, by) for one in value)}")
        elif name == "own_seams":
            found.append(f"{word} {' / '.join(map(_seam, value))}")
        elif name == "points":
            found.append("points " + " / ".join(f"{written(one.up)}:{written(one.out)}" for one in value))
        elif isinstance(value, tuple):
            found.append(f"{word} {' / '.join(by.length(one) for one in value)}")
        elif name.endswith("_mm"):
            found.append(f"{word} {by.length(value)}")
        else:
            found.append(f"{word} {value if isinstance(value, str) else written(value)}")
    return "".join(f" {one}" for one in found)
