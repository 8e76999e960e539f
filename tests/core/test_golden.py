"""Files of every format so far, as they were written in their day: each is read and planned for ever."""

import json
import re
from pathlib import Path

import pytest

from amber_spread.core.clock import Places
from amber_spread.core.document.document import FORMAT, plan_document, read_document, write_document
from amber_spread.core.document.upgrades import NOW, STEPS, FromLater, hours_once, upgraded
from amber_spread.core.stock.kit import Kit
from amber_spread.core.stock.pantry import Pantry
from tests.kinds import BUILDS, COVERS, FILLINGS, FINALS, SHAPES, SOLID_KINDS, STANDS

GOLDEN = Path(__file__).resolve().parents[1] / "golden"
WHOLES = {"kit": Kit, "pantry": Pantry}
ORDERS = sorted(GOLDEN.glob("order-*.json"))
FIRST = sorted(GOLDEN.glob("order-1-first-*.json"))


def number_of(path):
    return int(re.fullmatch(r"[a-z]+-(\d+)-.*", path.stem)[1])


@pytest.mark.parametrize("path", ORDERS, ids=lambda path: path.stem)
def test_an_order_of_any_format_so_far_is_read_and_planned(path):
    written = json.loads(path.read_text())
    assert written["format"] == f"amber-spread/{number_of(path)}"
    document = read_document(path.read_bytes())
    assert (document.format, document.title) == (FORMAT, written["title"])
    assert [tier.tin_diameter_mm for tier in document.design.tiers] == [
        tier["tin_diameter_mm"] for tier in written["design"]["tiers"]
    ]
    plan = plan_document(document)
    assert len(plan.tiers) == len(written["design"]["tiers"])
    assert all(bowl.mix.value >= bowl.stays.value for bowl in plan.bowls.values())
    assert read_document(write_document(document)) == document


@pytest.mark.parametrize("kind", WHOLES)
def test_a_kit_and_a_pantry_of_any_format_so_far_are_read(kind):
    paths = sorted(GOLDEN.glob(f"{kind}-*.json"))
    assert paths
    for path in paths:
        written = json.loads(path.read_text())
        found = WHOLES[kind].model_validate(upgraded(kind, number_of(path), written))
        assert (
            found.model_dump(mode="json").items()
            >= {
                name: value for name, value in written.items() if name in ("pin_mm", "discs_mm", "packs", "currency")
            }.items()
        )


def test_there_is_a_file_of_every_format_there_has_been():
    assert {number_of(path) for path in ORDERS} == set(range(1, NOW["order"] + 1))
    assert set(STEPS["order"]) == set(range(1, NOW["order"]))


def test_the_files_of_todays_format_hold_every_kind_there_is():
    text = "".join(path.read_text() for path in GOLDEN.glob(f"order-{NOW['order']}-kinds*.json"))
    kinds = {
        kind.model_fields["kind"].default
        for union in (SHAPES, BUILDS, SOLID_KINDS, FILLINGS, FINALS, COVERS, STANDS)
        for kind in union
    }
    assert kinds == {kind for kind in kinds if f'"kind":"{kind}"' in text}


def test_a_length_that_supports_were_sold_in_is_left_out_since_the_kit_says_it_now():
    written = json.loads((GOLDEN / "order-2-kinds.json").read_text())
    written["practice"] = {"rod_mm": 250.0, "bead_mm": 5.0}
    assert read_document(json.dumps(written)).practice.bead_mm == 5.0
    assert upgraded("practice", 1, {"rod_mm": 250.0, "bead_mm": 5.0}) == {"bead_mm": 5.0}


def test_the_working_day_of_a_practice_is_left_out_since_it_is_the_kitchens_hands_and_places_now():
    written = json.loads((GOLDEN / "order-4-kinds.json").read_text())
    written["practice"] = {"hands": 3, "day_begins_min": 300.0, "day_ends_min": 900.0, "bead_mm": 5.0}
    assert read_document(json.dumps(written)).practice.bead_mm == 5.0
    assert upgraded("practice", 2, written["practice"]) == {"bead_mm": 5.0}
    hands = Places.model_validate(hours_once(written["practice"])).hands
    assert len(hands) == 3 and {day.begins_min for one in hands for day in one.week} == {300.0}
    assert hours_once({"hands": 1, "bead_mm": 5.0}) is None


def test_an_upgrade_changes_nothing_of_what_it_was_given():
    for path in ORDERS:
        written = json.loads(path.read_text())
        before = json.dumps(written)
        upgraded("order", number_of(path), written)
        assert json.dumps(written) == before


def test_a_practice_of_the_first_day_takes_todays_starting_values_and_keeps_what_was_set():
    written = json.loads(FIRST[0].read_text())
    assert "level_mm" not in written["practice"]
    written["practice"]["batter_fill"] = 0.55
    written["practice"]["techniques"]["freehand"] = {"lost": 0.2, "float": 0.3, "variation": 0.1}
    practice = read_document(json.dumps(written)).practice
    assert practice.batter_fill == 0.55
    assert practice.techniques.freehand.lost == 0.2
    assert practice.semi_naked_share == 0.25
    assert practice.techniques.crumb.lost == 0.15


@pytest.mark.parametrize("number", [0, -1, NOW["order"] + 1, 10**6])
def test_a_format_there_is_not_is_said_to_come_from_later(number):
    with pytest.raises(FromLater, match="this version reads none beyond"):
        upgraded("order", number, {})
