"""docs/adding.md tried: kinds that no room has heard of are added as the page says, and worked."""

from typing import Annotated, Literal

import pytest

from amber_spread.core.cake.task_kinds import STACK_TASKS
from amber_spread.core.design import kinds
from amber_spread.core.design.rows import ask, row
from amber_spread.core.kernel.base import Frozen, Usual
from amber_spread.core.kernel.task import TaskKind, by_kind, hands_on, task
from tests.designs import planned, tier


class CombedFinal(Frozen):
    """A final coat combed into ridges: one thickness of its own, on the top and at the side."""

    kind: Literal["combed"] = "combed"
    medium: str = "meringue_buttercream"
    colour: str | None = None
    ridge_mm: Annotated[float | None, Usual("coat_side_mm")] = None


COMBED = row(
    CombedFinal, "Combed", ask("ridge_mm", "Ridges, high", "coat_thickness_mm"), does="combed into ridges",
    leading="ridge_mm", technique="freehand", top_field="ridge_mm", side_field="ridge_mm", scraper=True,
)  # fmt: skip


@pytest.fixture
def _combed(monkeypatch):
    monkeypatch.setitem(kinds._ROWS, *COMBED)


def combed(**fields):
    return tier(254).model_copy(update={"final": CombedFinal(**fields)})


@pytest.mark.usefixtures("_combed")
def test_a_coat_with_a_field_of_its_own_is_planned_by_its_row_alone():
    thick, usual = (planned(combed(**fields)).tiers[0].coats.final for fields in ({"ridge_mm": 9.0}, {}))
    assert (thick.side.value, thick.top.value) == (9.0, 9.0)
    assert 0 < usual.side.value < 9.0
    assert thick.volume.value > usual.volume.value
    bare, full = planned(tier(254)).tiers[0], planned(combed(ridge_mm=9.0)).tiers[0]
    assert full.stack.height.value - bare.stack.height.value == pytest.approx(9.0 - bare.coats.final.top.value)


@pytest.mark.usefixtures("_combed")
def test_it_is_in_its_bowl_by_the_technique_of_its_row():
    whole = planned(combed(ridge_mm=9.0))
    use = whole.bowls["meringue_buttercream"].steps["tier_1_final"]
    assert use.stays.value == pytest.approx(whole.tiers[0].coats.stays.value)
    freehand = planned(tier(254)).bowls["meringue_buttercream"].steps["tier_1_final"]
    assert use.lost.value / use.stays.value == pytest.approx(freehand.lost.value / freehand.stays.value)


def test_a_kind_of_work_is_a_row_and_a_function():
    table = by_kind(*STACK_TASKS.values(), TaskKind("dust_board", "spread", "bench", "Finish", 3, 0.5))
    dusted = task(table["dust_board"], "stack", "Dust the board along {length}.", ["stack.fit_card"], 4)
    before = planned(tier(254), tier(203)).stack
    time = hands_on([*before.tasks, dusted], table)
    assert (dusted.id, dusted.on, dusted.part, dusted.caution) == ("stack.dust_board", "stack", "Finish", False)
    assert time.value - before.hands_on.value == pytest.approx(3 + 0.5 * 4)
    assert time.given["Finish"].value - before.hands_on.given["Finish"].value == pytest.approx(5)
