"""The papers of an order: each is a function of its design file, its plan and what was chosen for it."""

from amber_spread.core.document import Document
from amber_spread.core.kernel.units import LengthUnit, WeightUnit
from amber_spread.core.plan import Plan
from amber_spread.papers.amounts import write_amounts
from amber_spread.papers.page import write_page_pdf, write_page_svg
from amber_spread.papers.pdf import write_pdf
from amber_spread.papers.plate import plate_of
from amber_spread.papers.sheets import Paper
from amber_spread.papers.strip import with_strip
from amber_spread.papers.svg import write_svg
from amber_spread.papers.templates import Template, templates_of
from amber_spread.papers.tiling import pages_of


def templates_pdf(document: Document, plan: Plan, tier: int | None, whole: bool, paper: Paper) -> bytes:
    """The templates of one tier or all as a PDF on as few pages as possible."""
    return write_pdf(_to_print(document, plan, tier, whole), paper)


def template_pages(document: Document, plan: Plan, tier: int | None, whole: bool, paper: Paper) -> int:
    """The number of pages of that PDF."""
    return max(1, len(pages_of(_to_print(document, plan, tier, whole), paper)))


def templates_svg(document: Document, plan: Plan, tier: int | None) -> str:
    """The templates of one tier or all in one drawing."""
    return write_svg(templates_of(document, plan, tier))


def templates_dxf(document: Document, plan: Plan, tier: int | None) -> str | bytes:
    """The templates of one tier or all for a plotter or cutter."""
    from amber_spread.papers.dxf import write_dxf  # takes long to load, and is seldom needed

    return write_dxf(templates_of(document, plan, tier))


def plate_pdf(document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit, paper: Paper) -> bytes:
    """The cake in half-section on one page."""
    return write_page_pdf(plate_of(document, plan, length, weight, paper))


def plate_svg(document: Document, plan: Plan, length: LengthUnit, weight: WeightUnit, paper: Paper) -> str:
    """The same as a drawing."""
    return write_page_svg(plate_of(document, plan, length, weight, paper))


def amounts_csv(_: Document, plan: Plan) -> str:
    """What every step takes, in grams."""
    return write_amounts(plan)


def _to_print(document: Document, plan: Plan, tier: int | None, whole: bool) -> list[Template]:
    """The templates in print order; plain circles and rectangles on one strip, unless asked for `whole`."""
    found = templates_of(document, plan, tier)
    return found if whole else with_strip(found)
