"""Journeys through the Mix lens, in headless Chromium."""

import re

from playwright.sync_api import expect

from tests.screens.test_journeys import lens, panel, saved


def grams(locator):
    text = re.sub(r"\s+", " ", locator.first.inner_text()).strip()
    value, unit = text.split(" ")
    return float(value) * (1000 if unit == "kg" else 1)


def test_a_smaller_risk_mixes_more_and_a_worse_order_says_what_it_costs(screen, demo_address):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Fair centrepiece").click()
    lens(screen, "Mix")
    expect(screen.locator(".room .vessel")).to_have_count(5)
    screen.locator("[data-vessel='fondant~blush']").click()
    mix = panel(screen).locator("[data-figure='bowls.fondant~blush.mix']")
    expect(mix).to_be_visible()
    before = grams(mix)
    panel(screen).get_by_role("radio", name="1 in 100").check(force=True)
    expect(mix).not_to_have_text(re.compile(re.escape(f"{before / 1000:g}")))
    assert grams(mix) > before
    assert grams(panel(screen).locator("[data-figure='bowls.fondant~blush.at_risk.1_in_20']")) == before

    later = panel(screen).get_by_role("button", name="Later: cover, Bottom")
    while later.is_enabled():
        later.click()
    expect(panel(screen).locator("li").last).to_contain_text("cover, Bottom")
    cost = panel(screen).locator("[data-figure='bowls.fondant~blush.order_cost']")
    expect(cost).to_be_visible()
    assert grams(cost) > 0
    saved(screen)
    panel(screen).get_by_role("button", name="Back to the order that needs least").click()
    expect(cost).to_have_count(0)
    saved(screen)


def test_a_step_is_dragged_in_its_bowl_and_twenty_cakes_show_what_may_run_short(screen, demo_address):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Judges’ tea").click()
    lens(screen, "Mix")
    vessel = screen.locator("[data-vessel='fondant~clover']")
    vessel.click()
    steps = panel(screen).locator("ol > li")
    expect(steps.first).to_contain_text("cover, Bottom")
    box = vessel.locator("rect.level").first.bounding_box()
    x = box["x"] + box["width"] / 2
    screen.mouse.move(x, box["y"] + 12)
    screen.mouse.down()
    screen.mouse.move(x, box["y"] + box["height"] + 20, steps=4)
    expect(vessel.locator(".gap")).to_have_count(1)
    screen.mouse.up()
    expect(steps.nth(1)).to_contain_text("cover, Bottom")
    expect(panel(screen).locator("[data-figure='bowls.fondant~clover.order_cost']")).to_be_visible()
    panel(screen).get_by_role("button", name="Back to the order that needs least").click()
    expect(steps.first).to_contain_text("cover, Bottom")

    dots = panel(screen).locator("figure")
    panel(screen).get_by_role("radio", name="1 in 5", exact=True).check(force=True)
    expect(dots.locator("circle")).to_have_count(20)
    expect(dots.locator("circle.short")).to_have_count(4)
    panel(screen).get_by_role("radio", name="1 in 100").check(force=True)
    expect(dots.locator("circle.short")).to_have_count(0)
    expect(dots).to_contain_text("none takes more than is mixed")
    panel(screen).get_by_role("radio", name="1 in 20").check(force=True)
    saved(screen)
