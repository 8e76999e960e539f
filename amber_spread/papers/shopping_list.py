"""The shopping as CSV, and as a list to print and tick off at the shop."""

import csv
import io
from typing import Any

from reportlab.lib.units import mm
from reportlab.platypus import Spacer

from amber_spread.core.kernel.check import RoundedQuantity
from amber_spread.core.kernel.figures import Figure
from amber_spread.core.kernel.units import LengthUnit, WeightUnit, format_length
from amber_spread.core.shop import GROUPS, Bought, Shopping, Want
from amber_spread.core.stock.pantry import Label
from amber_spread.papers.amounts import plain
from amber_spread.papers.printed import HEADING, RIGHT, SOFT_TEXT, TEXT, TITLE, Box, amount, bound, table, worded
from amber_spread.papers.sheets import Paper

HEAD = ("group", "item", "name", "needed", "unit", "in_larder", "to_buy", "packs", "cost", "currency")
HEADINGS = {
    "ingredients": "Ingredients", "ready": "Ready to use", "goods": "Boards and supports",
    "tools": "Tools to get, once",
}  # fmt: skip
WIDTHS_MM = (7, 54, 50, 38, 29)


def write_shopping(shopping: Shopping) -> str:
    """A line for every item: what is needed, what is in, what to buy in which packs, and what it costs."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(HEAD)
    for want in shopping.wants.values():
        unit = want.needed.unit
        writer.writerow(
            (
                want.group,
                want.item,
                plain(_name(want.label, "mm")),
                f"{want.needed.value:.1f}",
                unit,
                f"{want.in_larder.value:.1f}" if want.in_larder else "0",
                f"{want.to_buy.value:.1f}",
                " + ".join(f"{one.count.value:g} x {one.size.value:g} {one.size.unit}" for one in want.packs.values()),
                f"{want.cost.value:.2f}" if want.cost else "",
                shopping.currency,
            )
        )
    writer.writerows(("not in it", "", plain(gap), "", "", "", "", "", "", "") for gap in shopping.gaps)
    return stream.getvalue()


def write_list(
    shopping: Shopping, title: str, length: LengthUnit = "in", weight: WeightUnit = "g", paper: Paper = "a4"
) -> bytes:
    """The list as a PDF with boxes to tick, what to make of it, allergens, and what it costs."""
    story: list[Any] = [worded(title, TITLE), worded(_for(shopping), SOFT_TEXT)]
    for group in GROUPS:
        wants = [want for want in shopping.wants.values() if want.group == group and want.to_buy.value > 0]
        if wants:
            story.append(worded(HEADINGS[group], HEADING))
            story.append(table([_line(want, shopping.currency, length, weight) for want in wants], WIDTHS_MM))
    story.append(Spacer(1, 4 * mm))
    if shopping.spend.value > 0 or not shopping.unpriced:
        story.append(worded(f"To pay for what is priced: {_money(shopping.spend.value, shopping.currency)}", HEADING))
    if shopping.unpriced:
        names = ", ".join(sorted({_name(shopping.labels[key], length) for key in shopping.unpriced}))
        story.append(worded(f"No price is known for: {names}.", TEXT))
    story.extend(worded(gap, TEXT) for gap in shopping.gaps)
    if shopping.allergens:
        story.append(worded("Allergens", HEADING))
        story.extend(worded(f"{one.allergen}: {', '.join(one.found_in)}", TEXT) for one in shopping.allergens)
        story.append(worded(ALLERGEN_CAUTION, SOFT_TEXT))
    return bound(story, title, paper)


ALLERGEN_CAUTION = (
    "As these recipes usually are. Go by the labels of what you buy, traces included, and tell the customer as your "
    "local food law asks."
)


def _for(shopping: Shopping) -> str:
    return "For " + "; ".join(share.title for share in shopping.orders.values())


def _line(want: Want, currency: str, length: LengthUnit, weight: WeightUnit) -> list[Any]:
    buy = " + ".join(_pack(one, weight) for one in want.packs.values()) or _amount(want, weight)
    needed = "" if want.group == "tools" else f"need {_counted(want.needed, want.pieces, weight)}"
    if needed and want.in_larder:
        needed += f", have {_quantity(want.in_larder, weight)}"
    cost = _money(want.cost.value, currency) if want.cost else "no price"
    return [
        Box(),
        worded(_name(want.label, length), TEXT),
        worded(buy, TEXT),
        worded(needed, SOFT_TEXT),
        worded(cost, RIGHT),
    ]


def _amount(want: Want, weight: WeightUnit) -> str:
    return _counted(want.to_buy, want.pieces_to_buy, weight)


def _counted(amount: Figure, pieces: Figure | None, weight: WeightUnit) -> str:
    return f"{pieces.value:g} ({_quantity(amount, weight)})" if pieces else _quantity(amount, weight)


def _quantity(quantity: Figure | RoundedQuantity, weight: WeightUnit) -> str:
    return amount(quantity, weight).replace(" ", "\u00a0")


def _pack(bought: Bought, weight: WeightUnit) -> str:
    size = bought.size
    if size.unit == "each":
        return f"{bought.count.value:g}" if size.value == 1 else f"{bought.count.value:g} x pack of {size.value:g}"
    return f"{bought.count.value:g} x {_quantity(RoundedQuantity(size.value, size.unit), weight)}"


def _name(label: Label, length: LengthUnit) -> str:
    if label.size is None:
        return label.name
    if label.size.unit == "each":
        return f"{label.name} x {label.size.value:g}"
    sides = [format_length(side.value, length) for side in (label.size, label.length) if side]
    return f"{label.name} {' x '.join(sides)}"


def _money(value: float, currency: str) -> str:
    return f"{value:,.2f} {currency}".replace(",", " ")
