"""The made-up week: every order plans without trouble, and its pantry buys and prices nearly all of it."""

from datetime import date

import pytest

from amber_spread.core.document.document import plan_document
from amber_spread.core.kernel.naming import figures
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.stock.kit import STARTING
from amber_spread.core.stock.pantry import Pantry
from amber_spread.demo.pantry import PANTRY
from amber_spread.demo.week import load_week, week
from amber_spread.store.orders import Sought
from amber_spread.store.shelves import PantryShelf

DAY = date(2026, 11, 24)


@pytest.fixture(scope="module")
def asked():
    return [Asked(str(index), one, bill_of(one, plan_document(one, STARTING))) for index, one in enumerate(week(DAY))]


def test_the_pantry_stands_up_to_its_own_checks():
    assert Pantry.model_validate(PANTRY.model_dump(mode="json")) == PANTRY


def test_the_weeks_list_is_priced_but_for_little_and_adds_up(asked):
    found = shop(asked, PANTRY)
    assert len(found.orders) == len(asked) == 10
    assert len(found.unpriced) <= len(found.wants) / 5
    paid = sum(want.cost.value for want in found.wants.values() if want.cost)
    assert found.spend.value == pytest.approx(paid)
    for want in found.wants.values():
        assert want.to_buy.value <= want.needed.value
        assert want.over is None or want.over.value >= -1e-6
    assert found.gaps == []


def test_every_price_to_ask_covers_what_the_order_costs(asked):
    for share in shop(asked, PANTRY).orders.values():
        cost = share.cost
        parts = (cost.materials, cost.work, cost.overhead, cost.profit)
        assert cost.price.value >= sum(part.value for part in parts) - 1e-6
        assert cost.price.value % PANTRY.terms.round_to == pytest.approx(0, abs=1e-9)


def test_one_mix_for_the_week_saves_what_it_says_and_buys_no_more(asked):
    apart, together = shop(asked, PANTRY), shop(asked, PANTRY, pooled=True)
    assert apart.saved.value == pytest.approx(sum(pool.saved.value for pool in apart.pools.values()))
    assert apart.saved.value > 0
    assert together.spend.value <= apart.spend.value
    assert {item: want.needed.value for item, want in together.wants.items() if want.group == "goods"} == {
        item: want.needed.value for item, want in apart.wants.items() if want.group == "goods"
    }


def test_every_figure_of_the_list_is_called_by_its_path(asked):
    ids = [figure.id for figure in figures(shop(asked, PANTRY))]
    assert len(ids) == len(set(ids)) > 200
    assert all(id.startswith("shop.") for id in ids)


def test_the_week_is_loaded_once_with_its_pantry(book):
    load_week(book, DAY)
    shelf = PantryShelf(book.engine)
    kept = shelf.open()
    assert kept.content == PANTRY
    load_week(book, DAY)
    assert book.shelf(Sought()).in_all == 10
    assert shelf.open() == kept
