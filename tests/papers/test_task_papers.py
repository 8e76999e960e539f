"""Cards and bench sheet print the tasks of the plan, each once, in their order, with its measures put in."""

import io
import re

import pytest
from pypdf import PdfReader

from amber_spread.core.design.builds import CarvedBuild
from amber_spread.core.design.finishes import CollarCover, DrapeCover
from amber_spread.core.document.document import plan_document
from amber_spread.papers.bench_sheet import write_bench_sheet
from amber_spread.papers.printed import measured
from amber_spread.papers.stack_cards import write_cards
from tests.designs import STONE, document, tier


def text_of(pdf):
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages))


def sentence(task):
    return task.text.format(**{name: measured(value, "cm", "g") for name, value in task.values.items()})


@pytest.fixture(scope="module")
def carved():
    found = document(tier(254, build=CarvedBuild(points_mm=STONE)), title="Stone")
    return found, plan_document(found)


def test_the_cards_print_every_task_in_its_order_and_the_time_for_each_kind_of_work(carved):
    found, plan = carved
    text = text_of(write_cards(found, plan, "cm"))
    carving = plan.tiers[0].carving
    places = [text.index(sentence(task)) for task in (*carving.tasks, *plan.stack.tasks)]
    assert places == sorted(places) and len(set(places)) == len(places)
    assert f"Hands-on time for carving it: about {carving.hands_on.value:.0f} min" in text
    assert f"Hands-on time for stacking and packing: about {plan.stack.hands_on.value:.0f} min" in text
    for task in (*carving.tasks, *plan.stack.tasks):
        assert (f"Caution: {sentence(task)}" in text) == task.caution


@pytest.mark.parametrize(("cover", "order"), [(DrapeCover(), [1, 2]), (CollarCover(), [2, 1])])
def test_the_bench_sheet_says_in_what_order_to_cover(cover, order):
    found = document(tier(254, cover=cover), tier(203.2, cover=cover), title="Two")
    plan = plan_document(found)
    _, _, text = text_of(write_bench_sheet(found, plan, "cm")).partition("Cover, in this order")
    said = [sentence(task).partition(": ")[2] for tasks in plan.covering.values() for task in tasks]
    places = [text.index(words) for words in said]
    assert places == sorted(places)
    assert [int(one) for one in re.findall(r"Tier (\d) cover it", text)] == order
    alone = document(tier(254, cover=cover), title="One")
    assert "Cover, in this order" not in text_of(write_bench_sheet(alone, plan_document(alone), "cm"))
