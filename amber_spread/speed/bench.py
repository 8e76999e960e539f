"""./amber bench: how long planning takes beside its floor, and how long an edit takes to be on screen."""

import sys
from collections.abc import Sequence
from datetime import date
from functools import partial

from amber_spread.core.bowls import Care, fill_bowl
from amber_spread.core.clock import clock_of
from amber_spread.core.clock.firm_waits import InUse, shell_at
from amber_spread.core.clock.heat import Rooms, minutes_of
from amber_spread.core.design.builds import BallBuild, TaperedBuild
from amber_spread.core.design.design import Tier
from amber_spread.core.design.finishes import GoresCover, PanelCover
from amber_spread.core.design.part_ids import with_ids
from amber_spread.core.design.shapes import HeartShape
from amber_spread.core.design.stands import StackedStand
from amber_spread.core.document import Document, plan_document, read_document, write_document
from amber_spread.core.kernel.caching import forget
from amber_spread.core.shop import Asked, bill_of, shop
from amber_spread.core.stock.composition import NO_RECIPES
from amber_spread.core.stock.media import shelf
from amber_spread.demo.pantry import PANTRY
from amber_spread.demo.week import week
from amber_spread.jobs.warm import short_collections, warm
from amber_spread.papers.dxf import write_dxf
from amber_spread.papers.pdf import write_pdf
from amber_spread.papers.svg import write_svg
from amber_spread.papers.templates import templates_of
from amber_spread.speed.calls import calls_of
from amber_spread.speed.carving import bench_carving
from amber_spread.speed.timing import GOAL_PLAN_MS, RUNS, report, show
from amber_spread.speed.weeks import bench_weeks

GOAL_EDIT_MS = 50.0
GOAL_SLOWED_MS = 200.0
GOAL_FRAME_MS = 20.0
GOAL_SLICE_MS = 1000 / 30
GOAL_LOAD_KB = 170
GOAL_PDF_MS = 1000.0
GOAL_BOWLS_MS = 10.0
GOAL_STACK_MS = 10.0
GOAL_SHOP_MS = 1000.0
GOAL_CLOCK_MS = 20.0
GOAL_LONG_CLOCK_MS = 200.0
GOAL_HEAT_MS = 20.0
SHOPPED = 20


def bench() -> int:
    """Print each figure as minimum, median and 95th percentile. Returns the exit status."""
    warm()
    short_collections()
    documents = {len(document.design.tiers): document for document in week(date(2026, 11, 24))}
    three = documents[3]
    text = write_document(three)
    show("floor: read the design file's JSON into types", lambda: Document.model_validate_json(text))
    for name, cake in (("all straight", three), ("of mixed shapes", _mixed(three))):
        print(f"\nplan of a three-tier cake, {name}")
        edits = (_wider(cake, step) for step in range(RUNS + 1))
        median = show("from nothing", lambda cake=cake: plan_document(cake), GOAL_PLAN_MS, before=forget)  # type: ignore[misc]
        show("its bottom tier changed", lambda edits=edits: plan_document(next(edits)), GOAL_PLAN_MS)  # type: ignore[misc]
        show("as it was", lambda cake=cake: plan_document(cake))  # type: ignore[misc]
    three = _mixed(three)
    print("\nthe plan of mixed shapes on its way")
    text = write_document(three)
    planned = plan_document(three)
    wire = show("floor: that plan written out as JSON", planned.model_dump_json)
    print(f"  planning from nothing takes {median / wire:.1f} times as long as writing the plan out")
    show("read, plan and write, as a request does", lambda: plan_document(read_document(text)).model_dump_json())
    show("the same from nothing", lambda: plan_document(read_document(text)).model_dump_json(), before=forget)
    edits = (_wider(three, step) for step in range(RUNS + 1))
    show("plan and write, its bottom tier changed", lambda: plan_document(next(edits)).model_dump_json())
    print("\npapers of the mixed cake")
    templates = templates_of(three, planned)
    show("templates as PDF", lambda: write_pdf(templates), GOAL_PDF_MS, runs=20)
    show("templates as SVG", lambda: write_svg(templates))
    show("templates as DXF", lambda: write_dxf(templates), runs=20)
    print("\ngrowth with tiers")
    one = None
    for count in (1, 3, 10, 30):
        many = _with_tiers(three, count)
        took = show(f"plan of {count} tiers, from nothing", lambda many=many: plan_document(many), before=forget)  # type: ignore[misc]
        one = one or took
        forget()
        print(f"  {took / one:.1f} times one tier, {calls_of(lambda many=many: plan_document(many)):,} Python calls")  # type: ignore[misc]
    print("\na stack of six tiers")
    six = _stacked(documents[3], 6)
    joints = plan_document(six).stack.joints.values()
    print(f"  {sum(len(joint.supports) for joint in joints)} supports under {len(joints)} tiers")
    show("from nothing", lambda: plan_document(six), GOAL_STACK_MS, before=forget)
    moves = (_moved(six, step) for step in range(RUNS + 1))
    show("its top tier set off the middle", lambda: plan_document(next(moves)), GOAL_STACK_MS)
    week_of_ten = plan_document(_with_tiers(documents[3], 10))
    served = [list(bowl.steps.values()) for bowl in week_of_ten.bowls.values()]
    print("\nbowls")
    show(
        "bowl walk with reserve, ten tiers",
        lambda: [fill_bowl(uses, "", "#FFFFFF", Care(0.05, 5)) for uses in served],
        GOAL_BOWLS_MS,
        before=forget,
    )
    bench_carving()
    _bench_shopping()
    _bench_clock(documents[3])
    bench_weeks()
    return _bench_screen()


def _bench_shopping() -> None:
    """Time the list and the money of many orders: with their plans at hand, and planned as the week's list asks."""
    documents = week(date(2026, 11, 24))
    orders = [documents[index % len(documents)] for index in range(SHOPPED)]

    def billed() -> list[Asked]:
        return [Asked(str(number), one, bill_of(one, plan_document(one))) for number, one in enumerate(orders)]

    asked = billed()
    print("\nshopping")
    planned = show(
        f"list and money of {SHOPPED} orders by their bills", lambda: shop(asked, PANTRY), GOAL_SHOP_MS, runs=20
    )
    whole = show(
        "the same, planned first, one mix for all of them",
        lambda: shop(billed(), PANTRY, pooled=True),
        GOAL_SHOP_MS,
        runs=20,
    )
    print(f"  {whole / planned:.1f} times the list alone; {whole / SHOPPED:.1f} ms an order")


def _bench_clock(document: Document) -> None:
    """Time the hours of an order, its plan at hand."""
    print("\nclock")
    for name, count, goal in (("three tiers", 3, GOAL_CLOCK_MS), ("fifteen tiers", 15, GOAL_LONG_CLOCK_MS)):
        many = _with_tiers(document, count)
        plan = plan_document(many)
        show(f"steps and hours of {name}", lambda many=many, plan=plan: clock_of(many, plan), goal, runs=20)  # type: ignore[misc]
    _bench_heat(document)


def _bench_heat(document: Document) -> None:
    """Time how one coat firms, from nothing, and print what finer cells change."""
    plan = plan_document(document)
    in_use = InUse(document.practice, shelf(document.media), NO_RECIPES)
    worn = shell_at("firm_final", document.design.tiers[0], plan.tiers[0], in_use)
    rooms = Rooms.of(document.practice)
    firming = partial(minutes_of.__wrapped__, worn, rooms, False)  # type: ignore[attr-defined]
    show("one coat firming, from nothing", firming, GOAL_HEAT_MS, runs=20)
    for fine in (1, 2, 4, 8):
        found = firming(fine)
        print(f"  cells {fine} times as fine: through {found.through:.2f} min, lift {found.lift:.2f} min")


def _mixed(document: Document) -> Document:
    """Three tiers that are none of them straight and round: a leaning wall in a panel, a heart, a ball in gores."""
    leaning, heart, ball = document.design.tiers
    tiers = (
        leaning.model_copy(update={"build": TaperedBuild(narrow_mm=200), "cover": PanelCover(top="over")}),
        heart.model_copy(update={"shape": HeartShape()}),
        ball.model_copy(update={"build": BallBuild(foot_mm=60), "cover": GoresCover()}),
    )
    return document.model_copy(update={"design": document.design.model_copy(update={"tiers": tiers})})


def _wider(document: Document, step: int) -> Document:
    """The document with its bottom tier's tin a little wider than at the step before."""
    first, *others = document.design.tiers
    wider = first.model_copy(update={"tin_diameter_mm": first.tin_diameter_mm + 0.01 * step})
    return document.model_copy(update={"design": document.design.model_copy(update={"tiers": (wider, *others)})})


def _with_tiers(document: Document, count: int) -> Document:
    return _of_tiers(document, [document.design.tiers[index % 3] for index in range(count)])


def _of_tiers(document: Document, tiers: Sequence[Tier]) -> Document:
    """The document with other tiers, each with an id of its own."""
    fresh = with_ids(tuple(tier.model_copy(update={"id": ""}) for tier in tiers))
    return document.model_copy(update={"design": document.design.model_copy(update={"tiers": fresh})})


def _stacked(document: Document, count: int) -> Document:
    """As many tiers, each two inches narrower than the one below, on eight supports each."""
    wide = document.design.tiers[0]
    tiers = [
        wide.model_copy(update={"tin_diameter_mm": 406.4 - 50.8 * index, "stand": StackedStand(count=8)})
        for index in range(count)
    ]
    return _of_tiers(document, tiers)


def _moved(document: Document, step: int) -> Document:
    *below, top = document.design.tiers
    moved = top.model_copy(update={"stand": top.stand.model_copy(update={"off_x_mm": 0.05 * step})})
    return document.model_copy(update={"design": document.design.model_copy(update={"tiers": (*below, moved)})})


def _bench_screen() -> int:
    """Time from a key that changes a number to the new figure on screen, in headless Chromium."""
    try:
        from amber_spread.speed.screen import SLOWED, screened
    except ImportError as error:
        print(f"\nThe edit-to-screen time needs the test packages: {error}", file=sys.stderr)
        return 1
    print("\nfrom an edit to the new figures on screen")
    seen = screened()
    plans = seen.bare
    edit = report("an edit on screen (three tiers)", seen.edits, GOAL_EDIT_MS, nearly_all=True)
    report(f"the same, the processor slowed {SLOWED} times", seen.slowed, GOAL_SLOWED_MS, nearly_all=True)
    for name, dragged, goal in (
        ("a frame while an edge is drawn out", seen.edge, GOAL_FRAME_MS),
        ("a frame while a carved cake is sliced through", seen.slices, GOAL_SLICE_MS),
        ("the same in the round, without a graphics card", seen.slices_round, GOAL_SLICE_MS),
    ):
        report(name, dragged.frames, goal)
        print(f"  redrawn {dragged.redrawn:.0f} times a second meanwhile")
    print(f"  first load of the shelf {seen.load_kb:.0f} kB (goal {GOAL_LOAD_KB} kB)")
    floor = report("floor: the bare request for the same plan", plans)
    print(f"  the screen takes {edit / floor:.1f} times as long as the bare request")
    return 0
