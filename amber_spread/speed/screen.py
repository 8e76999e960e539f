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
() => {
    const edge = document.querySelector('.frame');
    const seen = { frames: [], cakes: 0 };
    const watch = new MutationObserver(() => (seen.cakes += 1));
    watch.observe(edge.querySelector('svg .part').closest('svg'), { attributes: true, childList: true, subtree: true });
    const tick = (now) => {
        seen.frames.push(now);
        if (!seen.over) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
    window.dragSeen = seen;
}
"""


class Screened(NamedTuple):
    """Milliseconds of each edit of a three-tier cake, and with the processor slowed; of each bare request for the same
    plan; of each frame while an edge is drawn out, and how often a second the cake was redrawn in that; kB of the first
    load of the shelf.
    """

    edits: list[float]
    slowed: list[float]
    bare: list[float]
    frames: list[float]
    redrawn: float
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
            frames, redrawn = _dragged(screen)
        return Screened(edits, slowed, _bare_requests(address), frames, redrawn, load_kb)


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


def _dragged(screen: Page) -> tuple[list[float], float]:
    """Milliseconds between frames while the edge of the tier in hand is drawn to and fro, and redraws a second."""
    grip = screen.locator(".frame .grip").first.bounding_box()
    assert grip is not None
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    screen.mouse.move(x, y)
    screen.mouse.down()
    screen.evaluate(FRAMES)
    began = time.monotonic()
    step = 0
    while time.monotonic() - began < DRAGGED_S:
        step += 1
        screen.mouse.move(x - 30 + 30 * math.cos(step / 12), y)
    seen = screen.evaluate("() => { window.dragSeen.over = true; return window.dragSeen; }")
    screen.mouse.up()
    times = [float(one) for one in seen["frames"]]
    return [after - before for before, after in itertools.pairwise(times)], seen["cakes"] / DRAGGED_S


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
        ask(port, "POST", "/api/plan", body)
        times.append((time.perf_counter() - began) * 1000)
    return times
