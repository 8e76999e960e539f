"""What earlier formats said, put as today's says it: pure steps from one number to the next, oldest first.

A file is never written over to be read: it is kept as it was saved, and these steps run each time it is opened. A step
knows nothing of the types of today, only of JSON; whoever changes a format adds one step here, and a file of the old
format to `tests/golden`.
"""

from collections.abc import Callable, Mapping
from typing import Any, Literal

FileKind = Literal["order", "kit", "pantry", "practice", "places"]
UpgradeStep = Callable[[dict[str, Any]], dict[str, Any]]

_FORMER = {"batter_fill": 0.6, "semi_naked_share": 0.4}
_FORMER_TECHNIQUES: dict[str, tuple[float, float, float]] = {
    "filling": (0.03, 0.05, 0.10), "crumb": (0.25, 0.25, 0.25), "freehand": (0.08, 0.50, 0.20),
    "disc": (0.08, 1.00, 0.15), "twin": (0.08, 1.00, 0.15), "inverted": (0.08, 0.60, 0.15), "towel": (0.08, 0.40, 0.20),
    "deckled": (0.08, 0.40, 0.25), "semi_naked": (1.00, 0.25, 0.30),
}  # fmt: skip
"""What a practice of format 1 started from before these were set by common practice, as (lost, float, variation)."""


def _order_1(order: dict[str, Any]) -> dict[str, Any]:
    """Format 1: one piece on the top, or none, where there are several now; and the starting values of its day.

    Whole practices from before `level_mm` take today's starting values where they had the former: nobody had changed
    those; they were wrong for common practice, or meant something else (see docs/formats.md).
    """
    design = order.get("design")
    if isinstance(design, dict) and isinstance(design.get("tiers"), list):
        tiers = [_with_pieces(tier) for tier in design["tiers"]]
        order = {**order, "design": {**design, "tiers": tiers}}
    practice = order.get("practice")
    if isinstance(practice, dict) and "level_mm" not in practice and {"techniques", "run_out_risk"} <= practice.keys():
        order = {**order, "practice": _as_it_now_starts(practice)}
    return order


def _with_pieces(tier: object) -> object:
    if not isinstance(tier, dict) or "on_top" not in tier or isinstance(tier["on_top"], list):
        return tier
    on_top = tier["on_top"]
    return {**tier, "on_top": [] if on_top is None else [on_top]}


def _as_it_now_starts(practice: dict[str, Any]) -> dict[str, Any]:
    kept = {name: value for name, value in practice.items() if _FORMER.get(name) != value}
    techniques = practice["techniques"]
    if isinstance(techniques, dict):
        kept["techniques"] = {
            name: value
            for name, value in techniques.items()
            if not isinstance(value, dict) or _FORMER_TECHNIQUES.get(name) != tuple(value.values())
        }
    return kept


def _order_2(order: dict[str, Any]) -> dict[str, Any]:
    """Format 2: supports were sold in one length, a value of the usual; now the kit says how long each sort is."""
    practice = order.get("practice")
    return {**order, "practice": _practice_1(practice)} if isinstance(practice, dict) else order


def _order_3(order: dict[str, Any]) -> dict[str, Any]:
    """Format 3: parts had no ids. Each gets its place as its id when the design is validated (`design/part_ids.py`)."""
    return order


def _order_4(order: dict[str, Any]) -> dict[str, Any]:
    """Format 4: the working day and the hands were values of the usual; now they are the kitchen's hands and places."""
    practice = order.get("practice")
    return {**order, "practice": _practice_2(practice)} if isinstance(practice, dict) else order


def _practice_2(practice: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in practice.items() if name not in _HOURS}


_HOURS = {"hands": 1, "day_begins_min": 480.0, "day_ends_min": 1080.0}
"""The hands and hours in a practice up to format 2, as it started."""


LAST_WITH_HOURS = 2
"""The last format of a practice that says how many hands there are, and when they work."""


def hours_once(practice: dict[str, Any]) -> dict[str, Any] | None:
    """The hands and places of a kitchen whose usual, of a format up to `LAST_WITH_HOURS`, says so many hands and such
    hours; None where nobody had changed them.
    """
    hours = {name: practice.get(name, value) for name, value in _HOURS.items()}
    if hours == _HOURS or not isinstance(hours["hands"], int):
        return None
    day = {"begins_min": hours["day_begins_min"], "ends_min": hours["day_ends_min"]}
    return {"hands": [{"week": [day] * 7}] * hours["hands"]}


def _practice_1(practice: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in practice.items() if name != "rod_mm"}


STEPS: dict[FileKind, dict[int, UpgradeStep]] = {
    "order": {1: _order_1, 2: _order_2, 3: _order_3, 4: _order_4}, "kit": {}, "pantry": {},
    "practice": {1: _practice_1, 2: _practice_2}, "places": {},
}  # fmt: skip
"""By what is kept, the step that leads from each format to the next."""
NOW: dict[FileKind, int] = {kind: 1 + max(steps, default=0) for kind, steps in STEPS.items()}
"""The number of today's format of each."""


class FromLater(ValueError):
    """Something was written in a format this version does not know yet."""


def upgraded(kind: FileKind, number: int, content: Mapping[str, Any]) -> dict[str, Any]:
    """What was written in format `number`, as today's format says it. Raises FromLater for a number beyond today's."""
    if not 1 <= number <= NOW[kind]:
        raise FromLater(f"is number {number}, and this version reads none beyond {NOW[kind]}")
    found = dict(content)
    for step in range(number, NOW[kind]):
        found = STEPS[kind][step](found)
    return found
