"""What is seen while a cake is still being worked out: never an empty page, and never an old figure as a new one."""

import pytest
from playwright.sync_api import expect

from tests.screens.test_journeys import fill, serious, spills


@pytest.fixture
def held(screen):
    """Plans are asked for and not answered, as on a computer that is busy."""
    asked = []

    def hold():
        screen.route("**/api/plan/parts", lambda route: asked.append(route))
        return asked

    yield hold
    screen.unroute_all(behavior="ignoreErrors")


def test_a_cake_that_is_still_worked_out_is_seen_in_grey_and_can_be_renamed(screen, demo_address, held):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Fair centrepiece").click()
    expect(screen.get_by_role("img", name="The cake in half-section")).to_be_visible()
    place = screen.url
    asked = held()
    screen.goto(place)
    expect(screen.locator(".awaited svg")).to_be_visible()
    expect(screen.get_by_role("status").filter(has_text="Working out this cake")).to_be_visible()
    expect(screen.locator(".panel")).to_contain_text("The numbers come as soon as this cake is worked out")
    assert serious(screen) == []
    assert spills(screen) == [0, 0]
    for route in asked:
        route.continue_()
    screen.unroute_all(behavior="ignoreErrors")
    expect(screen.get_by_role("img", name="The cake in half-section")).to_be_visible()
    expect(screen.locator(".awaited")).to_have_count(0)


def test_figures_from_before_the_last_change_look_old_and_the_change_is_saved(screen, address, held):
    screen.goto(address)
    screen.get_by_role("button", name="New cake").first.click()
    expect(screen.get_by_role("img", name="The cake in half-section")).to_be_visible()
    held()
    fill(screen.get_by_role("textbox", name="Title"), "Saved before it is planned")
    expect(
        screen.get_by_role("status").filter(has_text="These numbers are from before your last change")
    ).to_be_visible()
    expect(screen.locator(".foot")).to_have_css("font-style", "italic")
    expect(screen.locator("[data-status=saved]")).to_be_visible()
    screen.reload()
    expect(screen.get_by_role("textbox", name="Title")).to_have_value("Saved before it is planned")
