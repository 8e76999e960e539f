"""What every tier of the grid and every file kept comes to is what it was: no figure, point or piece moves unnoticed.

Of each, and of each part of its plan, one number is kept: all the numbers in it, each weighed by where it stands, added
up. Where a figure is meant to change, the numbers are written anew by `AMBER_WRITE_GOLDEN=1 ./amber test
tests/core/test_unchanged.py`, and the commit says why. Whether a figure is right is for the other tests to say.
"""

import itertools
import json
import os
from collections.abc import Iterator
from pathlib import Path

import pytest

from amber_spread.core.document import plan_document, read_document
from amber_spread.core.kernel.naming import figures
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.demo.pantry import PANTRY
from tests.core.test_golden import GOLDEN, ORDERS
from tests.core.test_pairs import GRID, done, name_of

KEPT = GOLDEN / "unchanged.json"
WEIGHTS = (1.0, 1.7, 0.6, 2.3, 0.9, 1.3, 3.1)
TOLERANCE = 1e-7


def numbers(value) -> Iterator[float]:
    """Every number in a piece of a plan, in order; of words how many letters they have."""
    if isinstance(value, dict):
        for one in value.values():
            yield from numbers(one)
    elif isinstance(value, list | tuple):
        for one in value:
            yield from numbers(one)
    elif isinstance(value, str):
        yield float(len(value))
    elif value is not None:
        yield float(value)


def weighed(value) -> float:
    """All of them in one: rounded to what two machines agree on."""
    return float(f"{sum(weight * one for weight, one in zip(itertools.cycle(WEIGHTS), numbers(value))):.10g}")


def of_plan(plan) -> dict[str, float]:
    """Of a plan each part, and of its tiers each part of each."""
    parts = plan.model_dump(mode="json")
    tiers = parts.pop("tiers")
    found = {name: weighed(part) for name, part in parts.items() if part}
    for number, tier in enumerate(tiers, 1):
        found |= {f"{number} {name}": weighed(part) for name, part in tier.items() if part}
    return found


def of_orders() -> dict[str, dict[str, float]]:
    # The third format's file of every kind holds the same cakes as the fourth's.
    left_out = ("carved", "bodied", "3-kinds")
    documents = {path.stem: read_document(path.read_bytes()) for path in ORDERS if not path.stem.endswith(left_out)}
    plans = {name: plan_document(document) for name, document in documents.items()}
    asked = [Asked(name, documents[name], bill_of(documents[name], plans[name])) for name in sorted(plans)]
    found = {name: of_plan(plan) for name, plan in plans.items()}
    for pooled in (False, True):
        whole = shop(asked, PANTRY, pooled=pooled)
        found[f"shop {pooled}"] = {"figures": weighed([one.value for one in figures(whole)]), "count": len(whole.wants)}
    return found


def found_now() -> dict[str, dict[str, float]]:
    # What is measured on a lattice differs in its last digits from machine to machine.
    tiers = [tier for tier in GRID if not tier.build.carved]
    return of_orders() | {f"{place} {name_of(tier)}": of_plan(done(tier)[0]) for place, tier in enumerate(tiers)}


def test_nothing_has_moved_that_was_not_meant_to():
    now = found_now()
    if os.environ.get("AMBER_WRITE_GOLDEN"):
        lines = (f"{json.dumps(name)}: {json.dumps(parts)}" for name, parts in now.items())
        KEPT.write_text("{\n" + ",\n".join(lines) + "\n}\n")
    kept = json.loads(KEPT.read_text())
    assert now.keys() == kept.keys()
    moved = [
        f"{name}: {part} was {kept[name].get(part)}, is {now[name].get(part)}"
        for name in kept
        for part in kept[name].keys() | now[name].keys()
        if now[name].get(part) != pytest.approx(kept[name].get(part), rel=TOLERANCE)
    ]
    assert not moved, f"{len(moved)} moved:\n" + "\n".join(moved[:25])


def test_a_number_that_moves_or_changes_places_is_seen():
    before = weighed({"a": [1.0, 2.0], "b": "as it is"})
    assert before != weighed({"a": [2.0, 1.0], "b": "as it is"})
    assert before != weighed({"a": [1.0, 2.00001], "b": "as it is"})
    assert before != weighed({"a": [1.0, 2.0], "b": "as it was"})
    assert Path(KEPT).stat().st_size < 520_000
