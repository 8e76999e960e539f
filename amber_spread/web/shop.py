"""Shopping over HTTP: for the order in hand, or for everything due in some days; and the lists to take along."""

import logging
import uuid
from collections.abc import Callable
from datetime import timedelta
from functools import partial
from typing import Annotated, NamedTuple, TypeVar

from fastapi import APIRouter, Body, Depends, Query, Response

from amber_spread.core.document import Document, FileError, complaint_at
from amber_spread.core.shop import Asked, Shopping
from amber_spread.core.stock.contents import contents_of
from amber_spread.core.stock.kit import Kit
from amber_spread.jobs.designs import Inputs
from amber_spread.jobs.not_ready import NotReady, OutOfBudget
from amber_spread.jobs.papers import shopping_json, shopping_of, shopping_of_one
from amber_spread.papers.shopping_list import write_list, write_shopping
from amber_spread.store.orders import Billed
from amber_spread.web.caller import CallerOf
from amber_spread.web.cards import BillPending, CardMaker, NoBill
from amber_spread.web.files import JSON, PDF, download
from amber_spread.web.orders import Book, CardMakerOf, Day
from amber_spread.web.pantry import CSV, KeptPantry
from amber_spread.web.papers import PrintingOf
from amber_spread.web.planner import LONGEST_S, PlannerOf, sent_as

T = TypeVar("T")
log = logging.getLogger("amber_spread")
router = APIRouter(tags=["shopping"])
LONGEST_DAYS = 62
Days = Annotated[int, Query(ge=1, le=LONGEST_DAYS)]


class ListPending(NotReady):
    """Some orders of a list have no bill yet. A total of the others would be too small, so there is no list."""

    def __init__(self, done: int, orders: int) -> None:
        super().__init__(f"Working out the list: {done} of {orders} orders done.")


class ToShop(NamedTuple):
    """What a list is made of: orders with their bills, and words for the orders that are left out."""

    asked: tuple[Asked, ...]
    left_out: tuple[str, ...] = ()


def bills_of_one(id: uuid.UUID, book: Book, cards: CardMakerOf) -> tuple[str, ToShop]:
    """The title of an order, and its bill. Raises ListPending, and FileError if it cannot be made."""
    billed = book.billed(id)
    try:
        return billed.order.document.title, ToShop((_asked(billed, cards),))
    except BillPending as error:
        raise ListPending(0, 1) from error
    except NoBill as error:
        raise FileError([complaint_at(("design",), str(error))]) from error


def bills_of_days(first: Day, book: Book, cards: CardMakerOf, days: Days = 7) -> ToShop:
    """The bills of every order due on these days. It names the orders it leaves out: those that cannot be read or made,
    and those beyond the limit. Raises ListPending.
    """
    due = book.due_between(first, first + timedelta(days=days - 1))
    asked, left_out = [], [f"“{one.title}” is not in this list: it cannot be read here." for one in due.unread]
    pending = 0
    for billed in due.orders:
        order = billed.order
        try:
            asked.append(_asked(billed, cards))
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
    return ToShop(tuple(asked), tuple(left_out))


def _asked(billed: Billed, cards: CardMaker) -> Asked:
    return Asked(str(billed.order.id), billed.order.document, cards.bill(billed))


OneOf = Annotated[tuple[str, ToShop], Depends(bills_of_one)]
DaysOf = Annotated[ToShop, Depends(bills_of_days)]


class Shopper:
    """Makes shopping lists as jobs, with what the kitchen keeps."""

    def __init__(self, pantry: KeptPantry, planner: PlannerOf, caller: CallerOf) -> None:
        self.pantry, self.planner, self.caller = pantry, planner, caller

    async def made(self, to_shop: ToShop, write: Callable[..., T], *choices: object, pooled: bool = False) -> T:
        """A list, written by a function of it and what was chosen."""
        given = write, choices, to_shop.asked, self.pantry, pooled, to_shop.left_out
        return await self.planner.alone(self.caller, OutOfBudget(), LONGEST_S, shopping_of, *given)


ShopperOf = Annotated[Shopper, Depends()]


@router.post("/shop", response_model=Shopping)
async def shop_for_one(
    pantry: KeptPantry,
    planner: PlannerOf,
    caller: CallerOf,
    document: Annotated[Document, Body()],
    kit: Annotated[Kit | None, Body()] = None,
) -> Response:
    """The shopping of one design as it stands in the hand. Nothing is stored."""
    with sent_as("document"):
        inputs = Inputs(document, kit, contents_of(pantry))
        found = await planner.run(caller, partial(shopping_of_one, pantry), inputs, longer=True)
    return Response(found, media_type=JSON)


@router.get("/shop/week", response_model=Shopping)
async def shop_for_days(to_shop: DaysOf, shopper: ShopperOf, pooled: bool = False) -> Response:
    """The shopping of every order due on these days; `pooled` mixes what several take in one colour together."""
    return Response(await shopper.made(to_shop, shopping_json, pooled=pooled), media_type=JSON)


@router.get("/shop/week.csv", response_class=Response)
async def days_csv(to_shop: DaysOf, first: Day, shopper: ShopperOf, pooled: bool = False) -> Response:
    """The list of these days as CSV."""
    content = await shopper.made(to_shop, write_shopping, pooled=pooled)
    return download(f"shopping from {first}.csv", CSV, content)


@router.get("/shop/week.pdf", response_class=Response)
async def days_pdf(to_shop: DaysOf, first: Day, shopper: ShopperOf, by: PrintingOf, pooled: bool = False) -> Response:
    """The list of these days to print."""
    title = f"Shopping from {first.day} {first:%B %Y}"
    content = await shopper.made(to_shop, write_list, title, *by.choices, pooled=pooled)
    return download(f"shopping from {first}.pdf", PDF, content)


@router.get("/orders/{id}/shopping.csv", response_class=Response)
async def order_csv(one: OneOf, shopper: ShopperOf) -> Response:
    """The list of one order as CSV."""
    title, to_shop = one
    return download(f"{title} shopping.csv", CSV, await shopper.made(to_shop, write_shopping))


@router.get("/orders/{id}/shopping.pdf", response_class=Response)
async def order_pdf(one: OneOf, shopper: ShopperOf, by: PrintingOf) -> Response:
    """The list of one order to print."""
    title, to_shop = one
    content = await shopper.made(to_shop, write_list, title, *by.choices)
    return download(f"{title} shopping.pdf", PDF, content)
