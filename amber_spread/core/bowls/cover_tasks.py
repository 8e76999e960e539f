"""The tasks of covering: in what order tiers are covered out of one bowl, so that trimmings of one serve the next."""

from collections.abc import Mapping, Sequence

from amber_spread.core.bowls.bowls import Bowl
from amber_spread.core.design.design import Design
from amber_spread.core.design.finishes import CollarCover
from amber_spread.core.kernel.task import Task, TaskKind, by_kind, task
from amber_spread.core.tier import Use

COVER_TASKS = by_kind(
    # kind, verb, place, heading, minutes: from memory
    TaskKind("cover_tier", "cover", "bench", "Cover", 20, needs="coat hard", leaves="covered"),
)


def covering_tasks(design: Design, bowls: Mapping[str, Bowl]) -> dict[str, list[Task]]:
    """By bowl, the tiers that are covered out of it: as the bowl walk has them, but collars from the top tier down, so
    that you knock none. Source: common practice.
    """
    found: dict[str, list[Task]] = {}
    for key, bowl in bowls.items():
        covers = [(step, use) for step, use in bowl.steps.items() if use.step == "cover"]
        if covers and all(isinstance(design.tiers[use.tier - 1].cover, CollarCover) for _, use in covers):
            covers.sort(key=lambda one: -one[1].tier)
        if covers:
            found[key] = _in_order(key, bowl, covers)
    return found


def _in_order(key: str, bowl: Bowl, covers: Sequence[tuple[str, Use]]) -> list[Task]:
    tasks: list[Task] = []
    for step, use in covers:
        covered = task(
            COVER_TASKS["cover_tier"],
            f"bowls.{key}.steps.{step}",
            f"Tier {use.tier}: cover it out of the bowl of {bowl.name.lower()}; {{stays}} stays on it.",
            [one.id for one in tasks[-1:]],
            stays=use.stays,
        )
        tasks.append(covered)
    return tasks
