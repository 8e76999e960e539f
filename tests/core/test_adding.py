"""docs/adding.md tried: kinds that no room has heard of are added as the page says, and worked."""

import math
from datetime import datetime
from functools import partial
from typing import Annotated, Literal

import pytest

from amber_spread.core.cake.task_kinds import STACK_TASKS
from amber_spread.core.clock import clock_of, step_kinds
from amber_spread.core.clock.tier_steps import COATING
from amber_spread.core.design import kinds
from amber_spread.core.design.builds import BallBuild, TaperedBuild
from amber_spread.core.design.finishes import Border
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.rows import ask, row
from amber_spread.core.document.document import plan_document
from amber_spread.core.geometry.flat.pieces import circle, piece_of
from amber_spread.core.kernel.base import Frozen, Usual
from amber_spread.core.kernel.caching import forget
from amber_spread.core.kernel.task import TaskKind, by_kind, hands_on, task
from amber_spread.core.tier.cover import cover
from amber_spread.core.tier.cover.plan import Way
from amber_spread.core.tier.cover.rules import roll_diameter
from amber_spread.core.tier.decorate import borders
from tests.designs import MEDIA, document, planned, tier


class Added(Frozen):
    """A part of a tier that is of one medium and colour."""

    medium: str
    colour: str | None = None


def added(model, thickness, **more):
    """The row of a kind with one thickness, called by its kind."""
    kind = model.model_fields["kind"].default
    return row(model, kind.capitalize(), thickness, does=kind, leading=thickness.field, **more)


class CombedFinal(Added):
    """A final coat combed into ridges: one thickness of its own, on the top and at the side."""

    kind: Literal["combed"] = "combed"
    medium: str = "meringue_buttercream"
    ridge_mm: Annotated[float | None, Usual("coat_side_mm")] = None


COMBED = added(
    CombedFinal,
    ask("ridge_mm", "Ridges, high", "coat_thickness_mm"),
    technique="freehand",
    top_field="ridge_mm",
    side_field="ridge_mm",
    scraper=True,
)


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


class QuiltedCover(Added):
    """A cover of one quilted sheet, rolled large enough to reach the foot all round."""

    medium: str = "fondant"
    thickness_mm: Annotated[float | None, Usual("fondant_mm")] = None
    kind: Literal["quilted"] = "quilted"


QUILTED = added(
    QuiltedCover,
    ask("thickness_mm", "Rolled at", "fondant_thickness_mm"),
    technique="drape",
    suits=("straight", "tapered"),
    keeps=kinds.ROLLED,
    needs=kinds.SHEETS,
)


def quilt(job, asked):
    """One circle over the top and down to the foot."""
    across = roll_diameter.figure(job.coated.width_mm, job.coated.height_mm, 0.0)
    sheet = piece_of("Sheet", circle(across.value), job.hex_of(asked.colour), colour=asked.colour, diameter=across)
    return Way({"sheet": sheet}, True, {"roll_diameter": across}, kinds.suits("quilted", job.build))


@pytest.fixture
def _quilted(monkeypatch):
    kind, found = QUILTED
    monkeypatch.setitem(kinds._ROWS, kind, found)
    monkeypatch.setitem(kinds._COVERS, found.kind, found)
    monkeypatch.setitem(cover._WAYS, found.kind, quilt)
    yield
    forget()


def quilted(build=None, **fields):
    one = tier(254) if build is None else tier(254, build=build)
    return planned(one.model_copy(update={"cover": QuiltedCover(**fields)}))


@pytest.mark.usefixtures("_quilted")
def test_a_cover_is_a_row_and_a_function_that_gives_its_pieces():
    whole, bare = quilted(thickness_mm=5.0), planned(tier(254)).tiers[0]
    one, use = whole.tiers[0], whole.bowls["fondant"].steps["tier_1_cover"]
    assert one.stack.height.value == pytest.approx(bare.stack.height.value + 5.0)
    assert one.stack.diameter.value == pytest.approx(bare.stack.diameter.value + 10.0)
    across = bare.stack.diameter.value + 2 * bare.stack.height.value
    assert one.cover.pieces["sheet"].sizes["diameter"].value == pytest.approx(across)
    rolled_ml = math.pi / 4 * across**2 * 5.0 / 1000
    assert one.cover.rolled_weight.value == pytest.approx(rolled_ml * MEDIA["fondant"].density_g_per_ml)
    assert use.stays.value == pytest.approx(one.cover.stays.value) and use.stays.value < one.cover.rolled_weight.value
    assert quilted().tiers[0].cover.over.side.value == Practice().fondant_mm
    assert one.cover.suits and not any(check.code == "cover.suits_not" for check in whole.checks)


@pytest.mark.usefixtures("_quilted")
def test_a_build_that_the_row_of_a_cover_does_not_name_is_said_not_to_be_suited():
    assert quilted(build=TaperedBuild(narrow_mm=200)).tiers[0].cover.suits
    ball = quilted(build=BallBuild())
    assert not ball.tiers[0].cover.suits
    assert "cover.suits_not" in {check.code for check in ball.checks}


def test_a_kind_of_work_is_a_row_and_a_function():
    table = by_kind(*STACK_TASKS.values(), TaskKind("dust_board", "spread", "bench", "Finish", 3, 0.5))
    dusted = task(table["dust_board"], "stack", "Dust the board along {length}.", ["stack.fit_card"], 4)
    before = planned(tier(254), tier(203)).stack
    time = hands_on([*before.tasks, dusted], table)
    assert (dusted.id, dusted.on, dusted.part, dusted.caution) == ("stack.dust_board", "stack", "Finish", False)
    assert time.value - before.hands_on.value == pytest.approx(3 + 0.5 * 4)
    assert time.given["Finish"].value - before.hands_on.given["Finish"].value == pytest.approx(5)


class DottedBorder(Border):
    """A border of single dots, which take less than a bead that runs through."""

    bead: Literal["dots"] = "dots"


@pytest.mark.parametrize("where", ["foot", "top"])
def test_a_decoration_the_bead_of_a_border_is_a_share_of_a_round_one(monkeypatch, where):
    monkeypatch.setitem(borders.BEADS, "dots", 0.4)
    dots, full = (
        planned(tier(254).model_copy(update={"borders": (made(id="edge", at=where, bead_mm=12.0),)}))
        for made in (DottedBorder, partial(Border, bead="round"))
    )
    one, other = (whole.tiers[0].borders["border_edge"] for whole in (dots, full))
    assert one.length.value == pytest.approx(other.length.value)
    assert one.volume.value == pytest.approx(one.length.value * math.pi / 4 * 12.0**2 * 0.4 / 1000)
    use = dots.bowls["meringue_buttercream"].steps["tier_1_border"]
    assert use.stays.value == pytest.approx(one.weight.value) and one.weight.value < other.weight.value


def test_a_kind_of_step_is_a_row_and_its_place_in_a_table(monkeypatch):
    dust = step_kinds.StepKind("dust", "Dust with lustre", "bench", 4, 0.5, "dm2", needs="coat hard")
    monkeypatch.setitem(step_kinds.STEP_KINDS, "dust", dust)
    monkeypatch.setitem(COATING, "freehand", (*COATING["freehand"], "dust"))
    found = document(tier(203), due=datetime(2026, 12, 5, 11))
    clock = clock_of(found, plan_document(found))
    steps = {one.kind: one for one in clock.steps.values()}
    assert steps["firm_final"].end <= steps["dust"].start and steps["dust"].end <= steps["chill_whole"].start
    assert steps["dust"].hands.value > 4 and steps["dust"].name == "Dust with lustre"
