"""What is kept of an order beside it: its card for the shelf, to scale and with what needs attention, and its bill."""

import logging
import uuid
from collections.abc import Callable, Hashable
from datetime import datetime
from typing import Any

from pydantic import ValidationError

from amber_spread.core.document import Document, FileError
from amber_spread.core.geometry.flat.outline import Point
from amber_spread.core.kernel.base import Frozen
from amber_spread.core.kernel.check import Check
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.plan import Plan
from amber_spread.core.shop import Bill, bill_of
from amber_spread.core.stock.kit import Kit
from amber_spread.core.tier import Silhouette
from amber_spread.jobs.not_ready import NotReady
from amber_spread.store.orders import Billed, MadeCard, Order, OrderBook, Shelved, Unread
from amber_spread.store.shelves import Kept, KitShelf
from amber_spread.web.later import Later
from amber_spread.web.planner import Planner
from amber_spread.web.soon import UNREADABLE, FailedLately, Soon, made_by, why_not

log = logging.getLogger("amber_spread")
SEEN_PLACES = 1
"""A silhouette on the shelf is true to a tenth of a millimetre."""


class Outside(Frozen):
    """What of an order is seen on the shelf."""

    tiers: list[Silhouette]
    base_diameter: Figure
    base_thickness: Figure
    height: Figure
    attention: list[Check]


class Card(Frozen):
    """An order on the shelf. Where it cannot be shown, `outside` is missing and `unseen` says why; one `pending` soon
    can be.
    """

    id: uuid.UUID
    revision: int
    saved_at: datetime
    archived: bool
    title: str
    due: datetime | None
    outside: Outside | None
    unseen: str
    pending: bool = False


class NoBill(ValueError):
    """An order has no bill; the message says why, as a sentence."""


class BillPending(NotReady):
    """The bill of an order is being made in the background."""


class CardMaker:
    """Makes the cards and bills that one request asks for, for what the kitchen owns now."""

    def __init__(self, book: OrderBook, planner: Planner, later: Later) -> None:
        self.book = book
        self.planner = planner
        self.soon = Soon(later)
        self.kit: Kept[Kit] = KitShelf(book.engine).open()
        self.by = made_by(self.kit.number)

    def save(self, document: Document, save: Callable[[MadeCard | None], Order]) -> Order:
        """Save a design with its card and bill if they are made quickly; else they follow in the background."""
        made = self._made(document, self.planner.quick_plan)
        order = save(made)
        if made is None:
            self.soon.later.begin(*self._later(order.id, order.revision, document))
        return order

    def bill(self, billed: Billed) -> Bill:
        """The bill of an order: the stored one, or one made again if the program or the kit changed. Raises NoBill, and
        BillPending while it is made in the background.
        """
        order = billed.order
        if billed.made_by == self.by:
            try:
                return _read(billed.card, billed.bill)
            except ValidationError:
                log.exception("the stored bill of order %s cannot be read", order.id)
        made = self._remade(order.id, order.revision, order.document)
        if made is None:
            raise BillPending
        return _read(made.card, made.bill)

    def shown(self, shelved: Shelved) -> Card:
        """An order's stored card, or a new one if the program or the kit has changed: made now if that is quick, else
        in the background.
        """
        standing = shelved.standing
        kept = shelved.card if shelved.card_made_by == self.by else None
        try:
            return _card(shelved, kept or self._again(shelved))
        except ValidationError:
            log.exception("the card kept of order %s cannot be read", standing.id)
            return _card(shelved, _unseen(UNSEEN))

    def _again(self, shelved: Shelved) -> dict[str, Any]:
        standing = shelved.standing
        try:
            made = self._remade(standing.id, standing.revision, self.book.open(standing.id).document)
            return _unseen(DRAWN_SOON) | {"pending": True} if made is None else made.card
        except NoBill as error:
            return _unseen(str(error))
        except Unread:
            unread = MadeCard(_unseen(UNREADABLE), None, self.by)
            self.book.keep_card(standing.id, standing.revision, unread)
            return unread.card
        except Exception:
            # Whatever is wrong with one order, the others stand; it may be another time, so this is not kept.
            log.exception("order %s cannot be shown on the shelf", standing.id)
            return _unseen(UNSEEN)

    def _remade(self, id: uuid.UUID, revision: int, document: Document) -> MadeCard | None:
        """The card and bill of a revision, made and stored now if that is quick and the request has time left; None if
        they follow in the background. Raises NoBill if that failed a moment ago.
        """
        key, then = self._later(id, revision, document)
        try:
            made = self.soon.make(key, lambda: self._made(document, self.planner.quick_plan), then)
        except FailedLately as error:
            raise NoBill(UNSEEN) from error
        if made is not None:
            self.book.keep_card(id, revision, made)
        return made

    def _later(self, id: uuid.UUID, revision: int, document: Document) -> tuple[Hashable, Callable[[], None]]:
        def make() -> None:
            now = self.book.shelved(id)
            # A later revision has a card of its own, and another request may have made this one a moment ago.
            if now.standing.revision == revision and now.card_made_by != self.by:
                made = self._made(document, self.planner.plan)
                if made is not None:
                    self.book.keep_card(id, revision, made)

        return (id, revision, self.by), make

    def _made(self, document: Document, planned: Callable[[Document, Kit], Plan | None]) -> MadeCard | None:
        """The card and bill of a design, or a card that says why it cannot be made; None if it is not planned now."""
        try:
            plan = planned(document, self.kit.content)
        except FileError as error:
            return MadeCard(_unseen(why_not(error)), None, self.by)
        if plan is None:
            return None
        card = {"outside": _outside(plan).model_dump(mode="json"), "unseen": ""}
        return MadeCard(card, bill_of(document, plan).model_dump(mode="json"), self.by)


def _read(card: dict[str, Any] | None, bill: dict[str, Any] | None) -> Bill:
    if card and card.get("unseen"):
        raise NoBill(card["unseen"])
    return Bill.model_validate(bill)


def _unseen(why: str) -> dict[str, Any]:
    return {"outside": None, "unseen": why}


DRAWN_SOON = "It is being drawn, which takes a few seconds."
UNSEEN = "It cannot be shown here. Open it to see why; the fault has been written to the log."


def _card(shelved: Shelved, content: dict[str, Any]) -> Card:
    standing = shelved.standing
    return Card(
        id=standing.id,
        revision=standing.revision,
        saved_at=shelved.saved_at,
        archived=standing.archived,
        title=standing.title,
        due=standing.due,
        **content,
    )


def _outside(plan: Plan) -> Outside:
    return Outside(
        tiers=[_coarser(tier) for tier in plan.section.tiers],
        base_diameter=_bare(plan.stack.base_diameter),
        base_thickness=_bare(plan.stack.base_thickness),
        height=_bare(plan.stack.height),
        attention=[check for check in plan.checks if check.severity != "caution"],
    )


def _coarser(tier: Silhouette) -> Silhouette:
    """A silhouette as it is seen on the shelf, from the side alone."""
    outline, left = _rounded(tier.outline), _rounded(tier.left)
    piped = [one.replace(left=[*map(_rounded, one.left)], right=[*map(_rounded, one.right)]) for one in tier.piped]
    return tier.replace(seen_from_above=[], outline=outline, left=left, piped=piped)


def _rounded(line: list[Point]) -> list[Point]:
    return [(round(x, SEEN_PLACES), round(z, SEEN_PLACES)) for x, z in line]


def _bare(figure: Figure) -> Figure:
    """A figure without what was put into it: nobody asks for its working on the shelf."""
    return Figure(figure.value, figure.unit, figure.rule, figure.rounding, {}, figure.id)
