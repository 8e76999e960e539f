"""What a screen costs, in headless Chromium: an edit, from the key that takes a number to the new figures painted; an
edge that is drawn out; the first load of the shelf.
"""

import datetime
import itertools
import math
import time
from typing import NamedTuple

from playwright.sync_api import Browser, Page

from amber_spread.browser import chromium, page, served
from amber_spread.demo.week import week
from amber_spread.kitchen import ask

EDITS = 40
WARM = 6
"""So many edits before any is counted; both numbers are even, so that the first changes what the last left."""
MEASURE = """
async ([field, figure, text]) => {
    const input = document.querySelector(field);
    const shown = () => document.querySelector(figure).textContent;
    input.focus();
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    const before = shown();
    // Taken a frame later, so that it is not shown as it is typed, which it would be after a while.
    input.value = text;
    input.dispatchEvent(new Event('input'));
    await new Promise(requestAnimationFrame);
    const began = performance.now();
    input.blur();
    while (shown() === before) {
        if (performance.now() - began > 5000) throw new Error('the figure did not change');
        await new Promise(requestAnimationFrame);
    }
    return performance.now() - began;
}
"""


SLOWED = 4
DRAGGED_S = 2.0
FRAMES = """
(drawing) => {
    const seen = { frames: [], redrawn: 0 };
    const watch = new MutationObserver(() => (seen.redrawn += 1));
    watch.observe(document.querySelector(drawing).closest('svg'), { attributes: true, childList: true, subtree: true });
    const tick = (now) => {
        seen.frames.push(now);
        if (!seen.over) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
    window.dragSeen = seen;
}
"""


class Dragged(NamedTuple):
    """Milliseconds of each frame while something is dragged, and how often a second what it changes was redrawn."""

    frames: list[float]
    redrawn: float


class Screened(NamedTuple):
    """Milliseconds of each edit of a three-tier cake, and with the processor slowed; of each bare request for the same
    plan; an edge that is drawn out; a carved cake that is sliced through, flat and in the round; kB of the first load
    of the shelf.
    """

    edits: list[float]
    slowed: list[float]
    bare: list[float]
    edge: Dragged
    slices: Dragged
    slices_round: Dragged
    load_kb: float


def screened() -> Screened:
    """Measure all of it on a demo of its own."""
    with served("demo") as address, chromium() as browser:
        load_kb = _first_load(browser, address)
        with page(browser) as screen:
            screen.goto(address)
            screen.get_by_role("link", name="Open Fair centrepiece").click()
            screen.locator("svg .part").first.wait_for()
            screen.get_by_role("button", name="Layers").click()
            edits = _edits(screen)
            control = screen.context.new_cdp_session(screen)
            control.send("Emulation.setCPUThrottlingRate", {"rate": SLOWED})
            slowed = _edits(screen)
            control.send("Emulation.setCPUThrottlingRate", {"rate": 1})
            edge = _dragged(screen, ".frame .grip", ".frame svg .part", (30, 0))
            slices, slices_round = _sliced(screen, address)
        return Screened(edits, slowed, _bare_requests(address), edge, slices, slices_round, load_kb)


def _edits(screen: Page) -> list[float]:
    times = []
    field = ".panel input[data-edits='tiers.1.layers.cut_height']"
    screen.locator(field).wait_for()
    for index in range(EDITS + WARM):
        text = f"{30 + index % 2 * 5} mm"
        took = screen.evaluate(MEASURE, [field, "[data-figure='tiers.1.layers.height']", text])
        if index >= WARM:
            times.append(float(took))
    return times


def _sliced(screen: Page, address: str) -> tuple[Dragged, Dragged]:
    """The slice handle of a carved cake from its foot to its top and back, beside its flat view and in the round."""
    screen.goto(address)
    screen.get_by_role("link", name="Open The old smoker").click(timeout=60_000)
    screen.get_by_role("button", name="Carve").click()
    handle = screen.get_by_role("slider", name="Slice at a height")
    handle.focus()
    screen.keyboard.press("Home")
    screen.get_by_text("Sliced", exact=False).first.wait_for()
    high = (handle.bounding_box() or {"height": 0.0})["height"] / 2 - 30
    flat = _dragged(screen, "[role=slider] .track", "[role=slider] .track", (0, high))
    screen.get_by_role("button", name="In the round").click()
    screen.get_by_role("checkbox", name="cut open").wait_for()
    screen.wait_for_timeout(3000)
    return flat, _dragged(screen, "[role=slider] .track", "[role=slider] .track", (0, high))


def _dragged(screen: Page, grip: str, drawing: str, by: tuple[float, float]) -> Dragged:
    """What is dragged to and fro so far on either side of where it is taken hold of."""
    box = screen.locator(grip).first.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    screen.mouse.move(x, y)
    screen.mouse.down()
    screen.evaluate(FRAMES, drawing)
    began = time.monotonic()
    step = 0
    while time.monotonic() - began < DRAGGED_S:
        step += 1
        share = math.cos(step / 12) - 1
        screen.mouse.move(x + share * by[0], y + (share + 1) * by[1])
    seen = screen.evaluate("() => { window.dragSeen.over = true; return window.dragSeen; }")
    screen.mouse.up()
    times = [float(one) for one in seen["frames"]]
    return Dragged([after - before for before, after in itertools.pairwise(times)], seen["redrawn"] / DRAGGED_S)


def _first_load(browser: Browser, address: str) -> float:
    """Everything that is sent for a first look at the shelf, kB, as it comes to another machine: what stays on this one
    is not made smaller, since that would take longer than handing it over.
    """
    with page(browser) as screen:
        screen.set_extra_http_headers({"X-Forwarded-For": "127.0.0.1"})
        sent: list[float] = []
        control = screen.context.new_cdp_session(screen)
        control.send("Network.enable")
        control.on("Network.loadingFinished", lambda event: sent.append(event["encodedDataLength"]))
        screen.goto(address)
        screen.get_by_role("link", name="Open Fair centrepiece").wait_for()
        screen.wait_for_timeout(1000)
        return sum(sent) / 1024


def _bare_requests(address: str) -> list[float]:
    document = next(one for one in week(datetime.date.today()) if len(one.design.tiers) == 3)
    body, port = {"document": document.model_dump(mode="json")}, int(address.rpartition(":")[2])
    times = []
    for _ in range(EDITS):
        began = time.perf_counter()
        ask(port, "POST", "/api/plan/parts", body)
        times.append((time.perf_counter() - began) * 1000)
    return times
