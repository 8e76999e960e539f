"""Work as data: every task has its row, follows what is there, and names figures of the plan it stands in."""

import re
from itertools import groupby

import pytest

from amber_spread.core.bowls.cover_tasks import COVER_TASKS
from amber_spread.core.cake.task_kinds import STACK_TASKS
from amber_spread.core.design.builds import CarvedBuild, Opening
from amber_spread.core.design.design import Cavity, Design, Layers, Stacking
from amber_spread.core.design.finishes import CollarCover, DrapeCover
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.solids import BallSolid
from amber_spread.core.design.stands import PillarsStand, RiserStand, StackedStand
from amber_spread.core.kernel.naming import figures
from amber_spread.core.kernel.task import TaskKind, by_kind
from amber_spread.core.plan import plan
from amber_spread.core.tier.carve.tasks import CARVE_TASKS
from tests.designs import MEDIA, STONE, tier

KINDS = STACK_TASKS | CARVE_TASKS | COVER_TASKS
ROOM = CarvedBuild(
    points_mm=STONE,
    scored_mm=20,
    openings=(
        Opening(solid=BallSolid(across_mm=50, x_mm=70, z_mm=40)),
        Opening(solid=BallSolid(across_mm=20, z_mm=60)),
        Opening(solid=BallSolid(across_mm=20, x_mm=-60, z_mm=60), medium=None),
    ),
)
DOUBLE = Layers(count=6, board_after=3)


def planned(*tiers, **stacking):
    return plan(Design(tiers=tiers, stacking=Stacking(**stacking)), Practice(), MEDIA)


CAKES = {
    "three driven": lambda: planned(tier(254), tier(203, layers=DOUBLE), tier(152), travels=True),
    "there, on pillars and a riser": lambda: planned(
        tier(254), tier(203, stand=PillarsStand()), tier(152, stand=RiserStand()), stacked="there", travels=True
    ),
    "coated after stacking, on sharp dowels": lambda: planned(
        tier(254), tier(203, stand=StackedStand(sort="wooden_dowel")), coated="after", travels=False
    ),
    "one tier": lambda: planned(tier(203)),
    "collars": lambda: planned(tier(254, cover=CollarCover()), tier(203, cover=CollarCover())),
    "draped": lambda: planned(*(tier(tin, cover=DrapeCover()) for tin in (152, 254, 203))),
    "carved": lambda: planned(tier(210, build=ROOM, layers=Layers(count=4, cavity=Cavity(diameter_mm=40), dome_mm=8))),
}  # fmt: skip


@pytest.fixture(scope="module")
def plans():
    return {name: made() for name, made in CAKES.items()}


def lists_of(whole):
    """The lists of tasks of a plan, each in its order."""
    yield from (one.carving.tasks for one in whole.tiers if one.carving)
    yield from (whole.stack.tasks, whole.stack.serving, *whole.covering.values())


@pytest.mark.parametrize("name", CAKES)
def test_every_task_has_a_row_and_follows_tasks_that_come_before_it(plans, name):
    seen = set()
    for tasks in lists_of(plans[name]):
        for task in tasks:
            row = KINDS[task.kind]
            assert task.id not in seen and re.fullmatch(rf"{re.escape(task.on)}\.{task.kind}(_\d+_\d+)?", task.id)
            assert (task.part, task.caution) == (row.part, row.caution)
            assert set(task.after) <= seen, f"{task.id} follows what does not come before it"
            seen.add(task.id)


@pytest.mark.parametrize("name", CAKES)
def test_the_figures_of_a_task_are_in_the_plan_and_are_those_of_its_sentence(plans, name):
    known = {one.id: one for one in figures(plans[name])}
    named = 0
    for task in (one for tasks in lists_of(plans[name]) for one in tasks):
        assert set(re.findall(r"{(\w+)}", task.text)) == set(task.values)
        for id in task.figures:
            named += 1
            assert known[id].unit in {value.unit for value in task.values.values()}
            whole = not id.endswith(("stack.glue", "stack.weight", "stack.height"))
            assert not whole or any(value.value == pytest.approx(known[id].value) for value in task.values.values())
        if any(value.unit == "mm" for value in task.values.values()) and "bead" not in task.kind:
            assert task.figures or task.kind in ("allow_short", "top_not_flat", "score_lines", "level_layers")
    assert named


@pytest.mark.parametrize("name", CAKES)
def test_hands_on_time_is_that_of_the_rows_added_up_by_heading(plans, name):
    whole = plans[name]
    for tasks, told in [(whole.stack.tasks, whole.stack.hands_on)] + [
        (one.carving.tasks, one.carving.hands_on) for one in whole.tiers if one.carving
    ]:
        parts = sorted(tasks, key=lambda one: one.part)
        by_part = {
            part: sum(KINDS[one.kind].base_min + KINDS[one.kind].each_min * one.count for one in those)
            for part, those in groupby(parts, key=lambda one: one.part)
        }
        assert {name: one.value for name, one in told.given.items()} == pytest.approx(by_part)
        assert told.value == pytest.approx(sum(by_part.values())) and told.unit == "min"


def test_every_kind_of_task_is_made_of_some_cake(plans):
    made = {task.kind for whole in plans.values() for tasks in lists_of(whole) for task in tasks}
    assert KINDS.keys() - made == {"top_not_flat"}


def test_a_caution_takes_no_time_and_a_supports_minutes_grow_with_its_number(plans):
    assert all(row.base_min == row.each_min == 0 for row in KINDS.values() if row.caution)
    whole = plans["three driven"]
    cut = [task for task in whole.stack.tasks if task.kind == "cut_supports"]
    assert [task.count for task in cut] == [
        len(joint.supports) for joint in whole.stack.joints.values() if not joint.inside
    ]
    assert KINDS["cut_supports"].each_min > 0


def test_supports_are_set_before_the_tier_above_is_lifted_on(plans):
    tasks = {task.id: task for task in plans["three driven"].stack.tasks}

    def before(id):
        return {one for near in tasks[id].after for one in ({near} | before(near))}

    lifted = before("tiers.3.lift_tier")
    assert {"stack.joints.tier_3.cut_supports", "stack.chill_tiers", "tiers.2.lift_tier"} <= lifted
    assert "stack.joints.tier_3.cut_supports" not in before("tiers.2.lift_tier")


def test_a_task_keeps_its_id_when_tiers_change_places():
    wide, narrow = tier(254, id="wide"), tier(240, id="slim")
    one, other = ({task.id for task in planned(*tiers).stack.tasks} for tiers in ((wide, narrow), (narrow, wide)))
    assert {"tiers.wide.fix_first_layer", "tiers.slim.fix_first_layer"} <= one & other


def test_two_kinds_of_one_name_are_refused():
    row = TaskKind("cut", "cut", "bench", "Cut")
    with pytest.raises(ValueError, match="one name"):
        by_kind(row, row)


def in_want(tasks, given):
    """The tasks that need a state which neither was there at the beginning nor is left by a task before them."""
    there, found = set(given), []
    for one in tasks:
        row = KINDS[one.kind]
        if row.needs is not None and row.needs not in there:
            found.append(one.id)
        there.add(row.leaves)
    return found


@pytest.mark.parametrize("name", CAKES)
def test_what_a_task_needs_is_there_or_left_by_a_task_before_it(plans, name):
    """Layers come cold to the stack, coats hard to the rolling pin, and lines are scored once the cover is on."""
    whole = plans[name]
    assert in_want(whole.stack.tasks, {"cold"}) == in_want(whole.stack.serving, ()) == []
    assert all(in_want(tasks, {"coat hard"}) == [] for tasks in whole.covering.values())
    assert all(in_want(one.carving.tasks, {"sheet soft"}) == [] for one in whole.tiers if one.carving)


def test_supports_are_pricked_and_pushed_once_the_coat_is_hard(plans):
    tasks = plans["three driven"].stack.tasks
    unchilled = [one for one in tasks if one.kind != "chill_tiers"]
    assert {"stack.joints.tier_2.prick_places", "tiers.2.lift_tier"} <= set(in_want(unchilled, {"cold"}))
    kinds = [one.kind for one in tasks]
    assert kinds.index("chill_tiers") < kinds.index("prick_places") < kinds.index("spread_glue")
