"""A plan as JSON, of which nothing is written anew that an edit left as it was.

Most edits change one tier. The pieces of the others are the very objects that earlier plans held, since their tiers
were not worked again; what was written of those is kept, and the whole is put together of such pieces.
"""

import json
from functools import lru_cache
from typing import Any

from amber_spread.core.base import Frozen, Same
from amber_spread.core.bowls import Bowl
from amber_spread.core.plan import Plan, TierPlan
from amber_spread.core.section import Section

PARTS: dict[type, frozenset[str]] = {
    Plan: frozenset({"tiers", "bowls", "kit", "section"}),
    TierPlan: frozenset({"layers", "coats", "cover", "foot", "on_top", "borders", "gauge"}),
    Section: frozenset({"parts", "tiers", "added"}),
    Bowl: frozenset({"steps"}),
}
"""What is written by itself, of the pieces that are put together anew."""
KEPT = 2048
"""So many written pieces are kept, the ones asked for last: of some hundred cakes being edited."""


def written(plan: Plan) -> str:
    """The plan as JSON: the same as its `model_dump_json()` says, in another order of names."""
    return _put_together(plan)


def _put_together(piece: Frozen) -> str:
    apart = PARTS[type(piece)]
    rest = piece.model_dump_json(exclude=set(apart)).removesuffix("}")
    parts = [f'"{name}":{_of(getattr(piece, name))}' for name in sorted(apart)]
    return "".join((rest, "," if rest != "{" else "", ",".join(parts), "}"))


def _of(value: Any) -> str:
    if value is None:
        return "null"
    if isinstance(value, list):
        return "[" + ",".join(map(_of, value)) + "]"
    if isinstance(value, dict):
        return "{" + ",".join(f"{json.dumps(name)}:{_of(one)}" for name, one in value.items()) + "}"
    if isinstance(value, TierPlan | Section):
        return _put_together(value)
    return _kept(Same(value))


@lru_cache(maxsize=KEPT)
def _kept(piece: Same[Frozen]) -> str:
    found = piece.one
    return _put_together(found) if type(found) in PARTS else found.model_dump_json()
