"""Shopping over HTTP: for the order in hand, or for everything due in some days; and the lists to take along."""

import logging
import uuid
from datetime import date, timedelta
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Query, Response

from amber_spread.core.document import Document, FileError, complaint_at, plan_document
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.shop import Asked, Shopping, bill_of, shop
from amber_spread.core.stock.contents import contents_of
from amber_spread.core.stock.kit import Kit
from amber_spread.jobs.designs import Inputs
from amber_spread.jobs.not_ready import NotReady
from amber_spread.papers.sheets import Paper
from amber_spread.papers.shopping_list import write_list, write_shopping
from amber_spread.store.orders import Billed
from amber_spread.web.caller import CallerOf
from amber_spread.web.cards import BillPending, NoBill
from amber_spread.web.files import download
from amber_spread.web.orders import Book, CardMakerOf
from amber_spread.web.pantry import CSV, KeptPantry
from amber_spread.web.planner import PlannerOf, sent_as
from amber_spread.web.threads import ThreadsOf

log = logging.getLogger("amber_spread")
router = APIRouter(tags=["shopping"])
LONGEST_DAYS = 62
First = Annotated[date, Query(ge=date(1970, 1, 1), le=date(2200, 1, 1))]
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


class ListPending(NotReady):
    """Some orders of a list have no bill yet. A total of the others would be too small, so there is no list."""

    def __init__(self, done: int, orders: int) -> None:
        super().__init__(f"Working out the list: {done} of {orders} orders done.")


class Shopper:
    """Shops for orders by the bills kept of them, with what the kitchen keeps."""

    def __init__(self, book: Book, pantry: KeptPantry, cards: CardMakerOf) -> None:
        self.book, self.pantry, self.cards = book, pantry, cards

    def of_one(self, id: uuid.UUID) -> tuple[str, Shopping]:
        """The title of one order, and its shopping. Raises ListPending, and FileError if it cannot be made."""
        billed = self.book.billed(id)
        try:
            return billed.order.document.title, shop([self._asked(billed)], self.pantry)
        except BillPending as error:
            raise ListPending(0, 1) from error
        except NoBill as error:
            raise FileError([complaint_at(("design",), str(error))]) from error

    def of_days(self, first: date, days: int, pooled: bool) -> Shopping:
        """The shopping of every order due on these days. It names the orders it leaves out: those that cannot be read
        or made, and those beyond the limit. Raises ListPending.
        """
        due = self.book.due_between(first, first + timedelta(days=days - 1))
        asked, left_out = [], [f"“{one.title}” is not in this list: it cannot be read here." for one in due.unread]
        pending = 0
        for billed in due.orders:
            order = billed.order
            try:
                asked.append(self._asked(billed))
            except BillPending:
                pending += 1
            except NoBill as error:
                left_out.append(f"“{order.document.title}” is not in this list. {error}")
            except Exception:
                log.exception("order %s cannot be shopped for", order.id)
                left_out.append(f"“{order.document.title}” is not in this list: it cannot be worked out here.")
        if pending:
            raise ListPending(len(due.orders) - pending, len(due.orders))
        beyond = due.in_all - len(due.orders) - len(due.unread)
        if beyond:
            most = len(due.orders) + len(due.unread)
            left_out.insert(
                0,
                f"{beyond} of the {due.in_all} orders due on these days are not in this list, which takes {most}, the "
                "first due: shop for the rest by fewer days at a time.",
            )
        return shop(asked, self.pantry, pooled, left_out)

    def _asked(self, billed: Billed) -> Asked:
        return Asked(str(billed.order.id), billed.order.document, self.cards.bill(billed))


ShopperOf = Annotated[Shopper, Depends()]


def _sent(shopping: Shopping) -> Response:
    # Written out here, since FastAPI would first validate all of it again.
    return Response(shopping.model_dump_json(), media_type="application/json")


@router.post("/shop", response_model=Shopping)
async def shop_for_one(
    pantry: KeptPantry,
    planner: PlannerOf,
    caller: CallerOf,
    threads: ThreadsOf,
    document: Annotated[Document, Body()],
    kit: Annotated[Kit | None, Body()] = None,
) -> Response:
    """The shopping of one design as it stands in the hand. Nothing is stored."""
    with sent_as("document"):
        plan = await planner.run(caller, plan_document, Inputs(document, kit, contents_of(pantry)))
    asked = [Asked("order", document, bill_of(document, plan))]
    return _sent(await threads.run(caller, lambda: shop(asked, pantry)))


@router.get("/shop/week", response_model=Shopping)
def shop_for_days(first: First, shopper: ShopperOf, days: Days = 7, pooled: bool = False) -> Response:
    """The shopping of every order due on these days; `pooled` mixes what several take in one colour together."""
    return _sent(shopper.of_days(first, days, pooled))


@router.get("/shop/week.csv", response_class=Response)
def days_csv(first: First, shopper: ShopperOf, days: Days = 7, pooled: bool = False) -> Response:
    """The list of these days as CSV."""
    found = shopper.of_days(first, days, pooled)
    return download(f"shopping from {first}.csv", CSV, write_shopping(found))


@router.get("/shop/week.pdf", response_class=Response)
def days_pdf(
    first: First,
    shopper: ShopperOf,
    days: Days = 7,
    pooled: bool = False,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    paper: Paper = "a4",
) -> Response:
    """The list of these days to print."""
    found = shopper.of_days(first, days, pooled)
    content = write_list(found, f"Shopping from {first.day} {first:%B %Y}", length, weight, paper)
    return download(f"shopping from {first}.pdf", "application/pdf", content)


@router.get("/orders/{id}/shopping.csv", response_class=Response)
def order_csv(id: uuid.UUID, shopper: ShopperOf) -> Response:
    """The list of one order as CSV."""
    title, found = shopper.of_one(id)
    return download(f"{title} shopping.csv", CSV, write_shopping(found))


@router.get("/orders/{id}/shopping.pdf", response_class=Response)
def order_pdf(
    id: uuid.UUID,
    shopper: ShopperOf,
    length: LengthUnit = "in",
    weight: WeightUnit = "g",
    paper: Paper = "a4",
) -> Response:
    """The list of one order to print."""
    title, found = shopper.of_one(id)
    return download(f"{title} shopping.pdf", "application/pdf", write_list(found, title, length, weight, paper))
