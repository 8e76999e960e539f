"""What gives when an order cannot be ready in time: every change is made here by other code, and the clock asked again."""

import json
from datetime import datetime, timedelta

import pytest

from amber_spread.core.clock import Kitchen, Places, Progress, Variant, clock_of, gives_of, minute_of, more_places
from amber_spread.core.clock.places import ColdShelf, Hands
from amber_spread.core.clock.placing import NOTHING_AROUND
from amber_spread.core.design.finishes import DrapeCover
from amber_spread.core.document import plan_document, read_document, write_document
from tests.core.test_clock import ordered
from tests.core.test_week import DUE
from tests.designs import tier

KITCHENS = {
    "one pair of hands": Places(),
    "two, no freezer": Places(hands=(Hands(name="Wren"), Hands(name="Linnet")), freezer=()),
    "one low shelf": Places(fridge=(ColdShelf(width_mm=260, depth_mm=260, height_mm=120),)),
}
CAKES = {
    "one tier": (tier(203),),
    "covered": (tier(254, cover=DrapeCover()), tier(203, cover=DrapeCover()), tier(152, cover=DrapeCover())),
    "half covered": (tier(254), tier(178, cover=DrapeCover())),
}


def gives(document, now, places):
    variants = [
        Variant(what, text, changes, changed, NOTHING_AROUND) for what, text, changes, changed in more_places(places)
    ]
    return gives_of(document, plan_document, now, Kitchen(places), NOTHING_AROUND, variants)


def changed(whole, changes):
    """JSON Patch on plain data, as the screen does it."""
    data = json.loads(whole)
    for one in changes:
        path = one.path.lstrip("/").split("/")
        holder = data
        for key in path[:-1]:
            holder = holder[int(key)] if isinstance(holder, list) else holder[key]
        last = path[-1]
        if one.op == "add":
            assert last == "-"
            holder.append(one.value)
        elif one.op == "remove":
            del holder[int(last)]
        else:
            holder[last] = one.value
    return json.dumps(data)


def outcome(document, places, now):
    around = NOTHING_AROUND._replace(progress=Progress({}, minute_of(now), True))
    clock = clock_of(document, plan_document(document), now, Kitchen(places), around)
    late = max(one.end for one in clock.steps.values()) - clock.ready
    rooms = [check for check in clock.checks if check.code.startswith("clock.no_room")]
    return max(0, late / timedelta(minutes=1)), len(rooms)


@pytest.mark.parametrize("hours", [8, 20, 30])
@pytest.mark.parametrize("kitchen", KITCHENS)
@pytest.mark.parametrize("cake", CAKES)
def test_everything_that_gives_does_what_it_says_once_it_is_made(cake, kitchen, hours):
    document, places = ordered(*CAKES[cake]).model_copy(update={"due": DUE}), KITCHENS[kitchen]
    now = DUE - timedelta(hours=hours)
    found = gives(document, now, places)
    before = outcome(document, places, now)
    assert found.enough == (before == (0, 0))
    assert ("late" in found.as_it_is.values) == (before[0] > 0)
    for one in found.gives:
        then_document, then_places = document, places
        if one.on == "order":
            then_document = read_document(changed(write_document(document), one.changes))
        else:
            then_places = Places.model_validate_json(changed(places.model_dump_json(), one.changes))
        after = outcome(then_document, then_places, now)
        assert after < before, one.said.text
        assert one.enough == (after == (0, 0)), one.said.text
        assert (one.result.values["late"].value if "late" in one.result.values else 0) == after[0], one.said.text
    whole = [one.enough for one in found.gives]
    assert whole == sorted(whole, reverse=True), "what is enough comes first"
    if before[0]:
        assert any(one.what == "due" and "late" not in one.result.values for one in found.gives)


def test_an_order_in_good_time_needs_nothing():
    document = ordered(tier(203)).model_copy(update={"due": DUE})
    found = gives(document, DUE - timedelta(days=4), Places())
    assert found.enough and found.gives == []


def test_a_pair_of_hands_that_helps_says_for_how_long_and_on_which_day():
    document = ordered(*CAKES["covered"]).model_copy(update={"due": DUE})
    hands = [
        one
        for hours in range(16, 60, 4)
        for one in gives(document, DUE - timedelta(hours=hours), Places()).gives
        if one.what == "hands"
    ]
    assert hands
    assert all("h on " in one.said.text and "December" in one.said.text for one in hands)


def test_a_shelf_is_added_only_where_one_is_wanted():
    low = KITCHENS["one low shelf"]
    document = ordered(tier(203), tier(203)).model_copy(update={"due": DUE})
    now = datetime(2026, 11, 30, 8)
    assert outcome(document, low, now)[1] > 0
    assert "fridge" not in {one.what for one in gives(document, now, Places()).gives}
