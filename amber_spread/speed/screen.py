"""How long an edit takes to be on screen: from the key that takes a number to the new figures painted."""

import datetime
import time

from amber_spread.browser import chromium, page, served
from amber_spread.demo.week import week
from amber_spread.kitchen import ask

EDITS = 40
MEASURE = """
async ([field, figure, text]) => {
    const input = document.querySelector(field);
    const shown = () => document.querySelector(figure).textContent;
    input.focus();
    input.value = text;
    input.dispatchEvent(new Event('input'));
    await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    const before = shown();
    const began = performance.now();
    input.blur();
    while (shown() === before) {
        if (performance.now() - began > 5000) throw new Error('the figure did not change');
        await new Promise(requestAnimationFrame);
    }
    return performance.now() - began;
}
"""


def edit_to_screen() -> tuple[list[float], list[float]]:
    """Milliseconds of each edit of a three-tier cake, and of each bare request for the same plan."""
    times = []
    with served("demo") as address, chromium() as browser, page(browser) as screen:
        screen.goto(address)
        screen.get_by_role("link", name="Open Fair centrepiece").click()
        screen.locator("svg .part").first.wait_for()
        screen.get_by_role("button", name="Layers").click()
        field = ".panel input[data-edits='tiers.1.layers.cut_height']"
        screen.locator(field).wait_for()
        for index in range(EDITS + 5):
            text = f"{30 + index % 2 * 5} mm"
            took = screen.evaluate(MEASURE, [field, "[data-figure='tiers.1.layers.height']", text])
            if index >= 5:
                times.append(float(took))
        return times, _bare_requests(address)


def _bare_requests(address: str) -> list[float]:
    document = next(one for one in week(datetime.date.today()) if len(one.design.tiers) == 3)
    body, port = {"document": document.model_dump(mode="json")}, int(address.rpartition(":")[2])
    times = []
    for _ in range(EDITS):
        began = time.perf_counter()
        ask(port, "POST", "/api/plan", body)
        times.append((time.perf_counter() - began) * 1000)
    return times
