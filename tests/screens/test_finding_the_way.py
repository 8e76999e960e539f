"""Where one is stands in the address, and what is typed shows before it is taken, in headless Chromium."""

import re

from playwright.sync_api import expect

from tests.screens.test_journeys import fill, lens, new_cake, panel, saved, what_is_owned


def three_tiers(screen, address, title):
    new_cake(screen, address, title)
    for _ in range(2):
        panel(screen).get_by_role("button", name="Add a tier on top").click()
    saved(screen)


def test_back_closes_a_dialog_and_the_address_holds_the_tier_in_hand(screen, address):
    three_tiers(screen, address, "Way marks")
    lens(screen, "Layers")
    heading = panel(screen).get_by_role("heading", name="Layers, top tier")
    expect(heading).to_be_focused()
    expect(screen).to_have_url(re.compile(r"/layers\?(walk=1&)?tier=[a-z0-9]{8}$"))
    tier = screen.url.rpartition("=")[2]
    screen.reload()
    expect(heading).to_be_visible()
    expect(what_is_owned(screen)).to_be_visible()
    screen.go_back()
    expect(screen.get_by_role("dialog", name="What you own")).to_be_hidden()
    expect(heading).to_be_visible()
    screen.keyboard.press("/")
    dialog = screen.get_by_role("dialog", name="The cake in one line")
    expect(dialog).to_be_visible()
    screen.reload()
    expect(dialog.get_by_role("textbox")).to_have_value(re.compile("3in|in"))
    screen.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    expect(screen).to_have_url(re.compile(rf"/layers\?(walk=1&)?tier={tier}$"))


def test_the_cake_follows_what_is_typed_and_is_as_it_was_where_that_is_given_up(screen, address):
    new_cake(screen, address, "While typing")
    lens(screen, "Layers")
    high = panel(screen).get_by_role("button", name=re.compile("^Filled and stacked, high:"))
    before = high.inner_text()
    cut = panel(screen).get_by_label("Each cut at")
    cut.click()
    cut.fill("2 3/4 in")
    expect(high).not_to_have_text(before)
    cut.press("Escape")
    expect(high).to_have_text(before)
    cut.click()
    cut.fill("8 / 4")
    cut.press("Enter")
    expect(panel(screen).get_by_text("Is that 8 1/4, or 8 divided by 4?")).to_be_visible()
    screen.reload()
    expect(panel(screen).get_by_label("Each cut at")).to_have_value("8 / 4")
    expect(panel(screen).get_by_text("Is that 8 1/4, or 8 divided by 4?")).to_be_visible()


def test_a_change_of_every_tier_is_said_and_taken_back_at_once(screen, address):
    three_tiers(screen, address, "All alike")
    lens(screen, "Layers")
    panel(screen).get_by_role("radio", name="Every tier").check(force=True)
    fill(panel(screen).get_by_label("Layers", exact=True), "4")
    expect(panel(screen).get_by_text("3 tiers changed.")).to_be_visible()
    panel(screen).get_by_role("button", name="The tier below").click()
    expect(panel(screen).get_by_label("Layers", exact=True)).to_have_value("4")
    panel(screen).get_by_role("button", name="Undo").click()
    expect(panel(screen).get_by_label("Layers", exact=True)).not_to_have_value("4")
    expect(panel(screen).get_by_text("tiers changed.")).to_be_hidden()


def test_the_drawing_is_told_tier_by_tier_and_servings_are_held_against_portions(screen, address):
    three_tiers(screen, address, "Said aloud")
    drawing = screen.get_by_role("img", name=re.compile("The cake in half-section"))
    expect(drawing).to_have_accessible_description(re.compile(r"Bottom: .* round\. 3 layers.*Middle: .*Top: "))
    expect(screen.get_by_role("combobox", name=re.compile("^Final coat: "))).to_have_count(0)
    panel(screen).get_by_text("For whom").click()
    fill(panel(screen).get_by_label("Servings wanted"), "4000")
    expect(panel(screen).get_by_text("fewer than asked for")).to_be_visible()
    fill(panel(screen).get_by_label("Customer"), "Wilmot hall")
    saved(screen)
    screen.get_by_role("button", name="Order", exact=True).click()
    expect(screen.get_by_text("Save as a file with customer")).to_be_visible()


def test_a_working_says_what_if_and_the_change_is_kept_or_left(screen, address):
    new_cake(screen, address, "What if")
    lens(screen, "Cover")
    panel(screen).get_by_role("radio", name="Drape").check(force=True)
    head = panel(screen).get_by_role("button", name=re.compile("^Roll out a circle:"))
    before = head.inner_text()

    def ask(text):
        head.click()
        working = screen.get_by_role("dialog", name="Working of Roll out a circle")
        # It stays when the pointer goes elsewhere.
        screen.mouse.move(300, 5)
        screen.wait_for_timeout(400)
        expect(working).to_be_visible()
        working.get_by_label("What if I changed").select_option(label="Trim allowance, all round")
        field = working.get_by_role("textbox", name="Trim allowance, all round")
        field.click()
        field.fill(text)
        expect(head).not_to_have_text(before)
        expect(working.get_by_role("button", name="Keep it")).to_be_enabled()
        return working

    ask("2 in").get_by_role("button", name="Leave it as it was").click()
    expect(head).to_have_text(before)
    screen.keyboard.press("Escape")
    ask("1 1/2 in").get_by_role("button", name="Keep it").click()
    screen.keyboard.press("Escape")
    expect(panel(screen).get_by_label("Trim allowance, all round")).to_have_value(re.compile("1 1/2"))
    expect(head).not_to_have_text(before)
    saved(screen)
    screen.get_by_role("button", name="Undo").click()
    expect(head).to_have_text(before)


def test_a_word_of_the_trade_is_found_with_its_drawing_and_seldom_parts_are_folded(screen, address):
    screen.goto(address)
    screen.get_by_role("button", name="Words of the trade").click()
    words = screen.get_by_role("dialog", name="Words of the trade")
    words.get_by_label("Look for").fill("runs")
    words.get_by_label("Look for").fill("soft filling")
    expect(words.locator("dt")).to_have_text(["Dam"])
    assert words.locator("svg .meant").bounding_box()["width"] > 5
    screen.go_back()
    expect(words).to_be_hidden()
    new_cake(screen, address, "Folded")
    lens(screen, "Cover")
    expect(panel(screen).get_by_role("button", name="Add a border")).to_be_hidden()
    panel(screen).get_by_text("Borders", exact=True).click()
    panel(screen).get_by_role("button", name="Add a border").click()
    expect(panel(screen).get_by_role("button", name="Remove this border")).to_be_visible()
    saved(screen)
    screen.reload()
    expect(panel(screen).get_by_role("button", name="Remove this border")).to_be_visible()


def test_an_order_opens_at_the_first_lens_and_a_lens_that_cannot_be_loaded_leaves_the_one_before(screen, address):
    new_cake(screen, address, "Through the glass")
    order = re.sub(r"(/orders/[^/?]+).*", r"\1", screen.url)
    screen.route(re.compile(r"assets/stack-"), lambda route: route.abort())
    screen.goto(order)
    brief = panel(screen).get_by_role("heading", name="Brief")
    expect(brief).to_be_visible()
    screen.keyboard.press("6")
    expect(screen.get_by_role("alert")).to_contain_text("Stack cannot be loaded just now")
    expect(brief).to_be_visible()
    screen.keyboard.press("3")
    expect(panel(screen).get_by_role("heading", name=re.compile("^Coats"))).to_be_focused()
    expect(screen.get_by_role("alert")).to_have_count(0)


def test_the_menu_of_an_order_is_loaded_when_it_is_first_opened_and_works_by_keyboard(screen, address):
    new_cake(screen, address, "On the menu")
    button = screen.get_by_role("button", name="Order", exact=True)
    button.focus()
    screen.keyboard.press("Enter")
    expect(screen.get_by_role("menu")).to_be_focused()
    screen.keyboard.press("ArrowDown")
    expect(screen.get_by_role("menuitem", name="Duplicate it")).to_be_focused()
    screen.keyboard.press("Escape")
    expect(button).to_be_focused()
    button.click()
    screen.get_by_role("menuitem", name="Keys").click()
    expect(screen.get_by_role("dialog", name="Keys")).to_be_visible()
