"""Ids stay with their parts: figures are found again by them after parts were moved, copied or taken out."""

import json
import re
from datetime import date

import pytest
from hypothesis import given
from pydantic import ValidationError

from amber_spread.core.design.builds import Opening
from amber_spread.core.design.design import BowlOrder, Design
from amber_spread.core.design.finishes import Border, DrapeCover, OnTop
from amber_spread.core.design.part_ids import PartId
from amber_spread.core.design.practice import Practice
from amber_spread.core.design.shapes import HeartShape
from amber_spread.core.document.document import read_document
from amber_spread.core.kernel.naming import figures
from amber_spread.core.line.quick_line import read_line
from amber_spread.core.line.quick_writing import write_line
from amber_spread.core.plan import plan
from amber_spread.demo.week import week
from tests.core.test_golden import ORDERS, number_of
from tests.designs import MEDIA, tier, written_designs

DECORATED = {
    "borders": (Border(at="foot", bead_mm=8), Border(at="top", bead_mm=6)),
    "on_top": (OnTop(medium="fondant", shape=HeartShape(), across_mm=60),),
}


def planned(*tiers, **more):
    return plan(Design(tiers=tiers, **more), Practice(), MEDIA)


def lettered(part):
    """JSON of a design with other ids, and with these in the steps of its bowls."""
    if isinstance(part, dict):
        return {name: f"k{one}" if name == "id" else lettered(one) for name, one in part.items()}
    if isinstance(part, list):
        return [lettered(one) for one in part]
    return re.sub(r"^tier_([a-z0-9]+_[a-z])", r"tier_k\1", part) if isinstance(part, str) else part


def test_a_part_without_an_id_gets_its_place_or_the_next_number_that_is_free():
    ids = [one.id for one in Design(tiers=(tier(250), tier(200, id="1"), tier(150), tier(100, id="k7"))).tiers]
    assert ids == ["2", "1", "3", "k7"]
    assert [one.id for one in tier(200, **DECORATED).borders] == ["1", "2"]


def test_two_parts_of_one_list_cannot_have_one_id_and_the_second_is_named():
    with pytest.raises(ValidationError) as raised:
        Design(tiers=(tier(250, id="a"), tier(200, id="b"), tier(150, id="a")))
    (error,) = raised.value.errors()
    assert error["loc"] == ("tiers",) and error["ctx"]["path"] == [2, "id"]
    assert "is also the id of an earlier one, “a”" in error["msg"]
    same = {"solid": {"kind": "ball", "across_mm": 20}, "id": "x"}
    with pytest.raises(ValidationError, match="earlier one"):
        Design.model_validate({"tiers": [{"tin_diameter_mm": 200, "borders": [{"id": "x"}, {"id": "x"}]}]})
    assert Opening.model_validate(same).id == "x"


@pytest.mark.parametrize("bad", ["A", "a b", "ä", "x" * 13, "tier.1", "a_b"])
def test_an_id_that_would_not_fit_into_a_figures_id_is_refused(bad):
    with pytest.raises(ValidationError, match="pattern"):
        tier(200, id=bad)


def test_the_figures_of_a_tier_keep_their_ids_when_tiers_change_places():
    wide, narrow = tier(250, id="wide", **DECORATED), tier(240, id="other", cover=DrapeCover(thickness_mm=4))
    before, after = planned(wide, narrow), planned(narrow, wide)
    own = {one.id: one.value for one in figures(before) if one.id.startswith(("tiers.wide.", "tiers.other."))}
    moved = {one.id: one.value for one in figures(after) if one.id.startswith(("tiers.wide.", "tiers.other."))}
    rooms = ("layers", "coats", "borders", "on_top")
    alike = [name for name in own if name.split(".")[2] in rooms]
    assert len(alike) > 40 and {name for name in alike if name in moved} == set(alike)
    assert [name for name in alike if own[name] != moved[name]] == []
    assert "tier_other" in before.stack.joints and "tier_wide" in after.stack.joints


def test_a_piece_keeps_its_figures_when_one_before_it_is_taken_out():
    first, second = (OnTop(id=name, medium="fondant", shape=HeartShape(), across_mm=60) for name in ("a", "b"))
    both, one = (planned(tier(200, on_top=pieces)).tiers[0].on_top for pieces in ((first, second), (second,)))
    assert both["piece_b"].stays_weight == one["piece_b"].stays_weight
    assert one["piece_b"].stays_weight.id == "tiers.1.on_top.piece_b.stays_weight"
    assert one.keys() == {"piece_b"}


def test_the_order_a_bowl_is_worked_in_follows_its_tiers():
    cover = DrapeCover(thickness_mm=3)
    wide, narrow = tier(250, id="wide", cover=cover), tier(240, id="other", cover=cover)
    orders = (BowlOrder(bowl="fondant", steps=("tier_other_cover", "tier_wide_cover")),)
    for tiers in ((wide, narrow), (narrow, wide)):
        steps = planned(*tiers, orders=orders).bowls["fondant"].steps
        assert [key for key in steps if key.endswith("cover")] == ["tier_other_cover", "tier_wide_cover"]


@given(written_designs)
def test_a_line_typed_over_a_design_keeps_the_ids_of_its_parts(design):
    known = Design.model_validate(lettered(design.model_dump(mode="json")))
    found = read_line(write_line(known, MEDIA), MEDIA, Practice(), "mm", in_hand=known)
    assert (found.unread, found.design) == ([], known)


def test_a_line_that_says_fewer_and_more_tiers_keeps_ids_and_adds_new_ones():
    known = Design(tiers=(tier(250, id="2", cover=DrapeCover()), tier(200, id="x")))
    ids = [
        [one.id for one in read_line(line, MEDIA, Practice(), "mm", in_hand=known).design.tiers]
        for line in ("250 x 100", "250 x 100; 200 x 100; 150 x 100")
    ]
    assert ids == [["2"], ["2", "x", "3"]]


@pytest.mark.parametrize("path", [one for one in ORDERS if number_of(one) < 4], ids=lambda path: path.stem)
def test_parts_of_an_earlier_format_are_called_by_their_place(path):
    document = read_document(path.read_bytes())
    written = json.loads(path.read_text())
    assert [one.id for one in document.design.tiers] == [
        str(number) for number, _ in enumerate(written["design"]["tiers"], 1)
    ]
    for one in document.design.tiers:
        for parts in (one.borders, one.on_top, one.regions):
            assert [part.id for part in parts] == [str(number) for number, _ in enumerate(parts, 1)]


def test_the_pattern_of_an_id_leaves_out_what_parts_ids_in_a_path():
    (pattern,) = (one.pattern for one in PartId.__metadata__)
    assert not [sign for sign in "._~/ " if re.fullmatch(pattern, f"a{sign}b")]


def test_every_part_of_the_demos_orders_has_an_id_that_its_list_has_once():
    for document in week(date(2026, 11, 30)):
        lists = [document.design.tiers, document.design.colours]
        for one in document.design.tiers:
            lists += [one.borders, one.on_top, one.regions, getattr(one.build, "openings", ())]
        for parts in lists:
            ids = [part.id for part in parts]
            assert all(ids) and len(set(ids)) == len(ids)
