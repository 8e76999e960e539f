"""What a paper prints of a figure is what the screen shows of it: one rounding, one number."""

import io
import json
import re
from pathlib import Path

import pytest
from pypdf import PdfReader

from amber_spread.core.design.design import Design
from amber_spread.core.kernel.check import RoundedQuantity
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.units import format_length
from amber_spread.papers.printed import amount, measured
from amber_spread.papers.stack_cards import write_cards
from tests.designs import COLOURS, document, tier

CASES = json.loads((Path(__file__).parents[1] / "units.json").read_text())


@pytest.mark.parametrize(("value", "unit", "rounding", "words"), CASES["read_amounts"])
def test_an_amount_reads_on_paper_as_on_screen(value, unit, rounding, words):
    assert amount(RoundedQuantity(value, unit, rounding), "g") == words


def test_the_cards_say_every_length_as_its_figure_reads():
    cake = Design(tiers=(tier(254), tier(203.2), tier(152.4)), colours=COLOURS)
    found = document(tier(203.2), title="Three").model_copy(update={"design": cake})
    from amber_spread.core.document.document import plan_document

    plan = plan_document(found)
    text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(write_cards(found, plan, "in"))).pages)
    text = re.sub(r"\s+", " ", text)
    joint = plan.stack.joints["tier_2"]
    assert f"it should come to {measured(joint.length, 'in', 'g')}" in text
    assert f"punch a hole of {measured(plan.stack.dowel.hole, 'in', 'g')}" in text
    assert measured(plan.stack.dowel.hole, "in", "g") == format_length(plan.stack.dowel.hole.value, "in", "up")
    assert measured(plan.stack.tips, "in", "g") in text


def test_a_figure_in_a_sentence_keeps_its_rounding():
    from amber_spread.core.kernel.check import measure

    up = Figure(value=11.5, unit="mm", rule="total", rounding="up", given={}, id="")
    assert measured(measure(up), "in", "g") == measured(up, "in", "g") == "1/2 in"
