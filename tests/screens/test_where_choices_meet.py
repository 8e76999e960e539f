"""Where two choices meet on the screen: a coat over another's crumb, stripes round a tier, shaped boards, no prices."""

from playwright.sync_api import expect

from tests.screens.test_journeys import lens, new_cake, panel, saved, what_is_owned


def test_a_coat_in_another_medium_offers_to_take_the_crumb_coat_with_it(screen, address):
    new_cake(screen, address, "Two bowls")
    lens(screen, "Coats")
    panel(screen).locator(".medium .which").first.click()
    screen.get_by_role("option", name="Dark ganache").click()
    offer = panel(screen).locator(".offer")
    expect(offer).to_contain_text("out of a second bowl")
    bowls = screen.locator("[data-bowl]")
    expect(bowls).to_have_count(2)
    offer.get_by_role("button").click()
    expect(offer).to_have_count(0)
    expect(bowls).to_have_count(1)
    saved(screen)


def test_stripes_lie_round_the_tier_and_every_colour_is_to_be_had_ready(screen, demo_address):
    screen.goto(demo_address)
    screen.get_by_role("link", name="Open Raffle hive").click()
    lens(screen, "Cover")
    expect(panel(screen).get_by_text("Have ready, fondant, slate")).to_be_visible()
    expect(panel(screen).get_by_text("to carry them")).to_be_visible()
    panel(screen).get_by_label("Stripes run").select_option("round")
    panel(screen).get_by_label("Edges between them").select_option("irregular")
    expect(panel(screen).get_by_role("heading", name="Panel, 2 of them")).to_be_visible()
    saved(screen)


def test_a_rectangle_has_its_length_and_is_then_owned(screen, address):
    new_cake(screen, address, "Sheet cake")
    panel(screen).get_by_role("radio", name="rectangle").first.check(force=True)
    base = panel(screen).locator(".need", has_text="Rectangle base board")
    expect(base).to_be_visible()
    dialog = what_is_owned(screen)
    dialog.get_by_label("Another shaped board: shape").select_option("rectangle")
    dialog.get_by_label("Another shaped board, across").fill("12")
    dialog.get_by_role("button", name="Add a shaped board").click()
    expect(dialog.get_by_role("alert")).to_contain_text("A rectangle has a length too")
    dialog.get_by_label("Another shaped board, long").fill("18")
    dialog.get_by_role("button", name="Add a shaped board").click()
    expect(dialog.get_by_role("button", name="Remove the 12 in × 18 in rectangle board")).to_be_visible()
    screen.keyboard.press("Escape")
    expect(base).to_contain_text("in your sizes; leaves with the cake")


def test_no_price_is_made_of_nothing(screen, address):
    new_cake(screen, address, "No prices")
    lens(screen, "Shop")
    expect(panel(screen).get_by_text("no price yet").first).to_be_visible()
    expect(panel(screen).get_by_text("Work alone comes to")).to_be_visible()
    expect(panel(screen).get_by_text("A price to ask", exact=True)).to_have_count(0)
    expect(panel(screen).get_by_role("link", name="Give them prices")).to_be_visible()
