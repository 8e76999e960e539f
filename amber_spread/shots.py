"""Take the screenshots of docs/screenshots again, from the demo data."""

from pathlib import Path

from playwright.sync_api import Page, expect

from amber_spread.browser import chromium, page, served

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "screenshots"


def take_shots() -> int:
    """Write one picture of each main view. Returns the exit status."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with served("demo") as address, chromium() as browser:
        with page(browser) as screen:
            screen.goto(address)
            screen.locator(".shelf li").first.wait_for()
            # What takes long to draw is drawn while the shelf is looked at.
            expect(screen.locator(".unseen-cake")).to_have_count(0, timeout=60_000)
            expect(screen.locator(".shelf .next")).to_have_count(10, timeout=60_000)
            _take(screen, "shelf")
            _open(screen, "Fair centrepiece")
            for name in ("brief", "layers", "coats", "cover"):
                screen.keyboard.press("1234"[("brief", "layers", "coats", "cover").index(name)])
                if name == "layers":
                    screen.keyboard.press("ArrowUp")
                _take(screen, name)
            screen.keyboard.press("6")
            _take(screen, "stack")
            screen.keyboard.press("7")
            _take(screen, "mix")
            screen.keyboard.press("8")
            screen.locator("[data-want]").first.wait_for()
            _take(screen, "shop")
            screen.get_by_role("radio", name="All orders due").check(force=True)
            screen.get_by_text("orders are due").wait_for()
            _take(screen, "week")
            screen.keyboard.press("9")
            screen.locator(".days .sheet .label").first.wait_for()
            screen.locator(".days").evaluate("days => days.scrollTo(0, 640)")
            screen.get_by_text("Every step in order").click()
            screen.get_by_role("button", name="Firm the final coat, middle").click()
            screen.locator(".panel .step").evaluate("step => step.scrollIntoView({ block: 'end' })")
            screen.locator(".days").evaluate("days => days.scrollTo(0, 700)")
            _take(screen, "clock")
            screen.goto(address)
            _open(screen, "Raffle hive")
            screen.keyboard.press("4")
            _take(screen, "panel")
            screen.goto(address)
            _open(screen, "Ferryman’s farewell")
            screen.keyboard.press("5")
            screen.locator(".views .above").wait_for()
            _take(screen, "carve")
            screen.goto(address)
            _open(screen, "The old smoker")
            screen.keyboard.press("5")
            screen.get_by_role("button", name="In the round").click()
            screen.locator(".round[data-shown]").wait_for()
            screen.get_by_role("slider", name="Slice at a height").focus()
            for key in ("Home", "PageUp", "ArrowUp", "ArrowUp"):
                screen.keyboard.press(key)
            screen.get_by_text("Sliced").first.wait_for()
            screen.mouse.click(640, 100)
            _take(screen, "solids")
            screen.goto(address)
            _open(screen, "Beekeepers’ supper")
            screen.get_by_role("button", name="Order", exact=True).click()
            screen.get_by_text("What you own").click()
            screen.get_by_role("dialog", name="What you own").wait_for()
            _take(screen, "kit")
            screen.goto(f"{address}/pantry")
            screen.get_by_role("button", name="Meringue buttercream").click()
            _take(screen, "recipes")
            screen.goto(f"{address}/usual")
            screen.locator("main li").first.wait_for()
            _take(screen, "usual")
            screen.goto(f"{address}/places")
            screen.locator(".hands").first.wait_for()
            _take(screen, "places")
            screen.goto(f"{address}/week")
            screen.locator(".days .sheet .label").first.wait_for(timeout=60_000)
            screen.locator(".days").evaluate("days => days.scrollTo(0, 1200)")
            screen.locator(".label", has_text="Crumb coat").nth(2).click()
            _take(screen, "hours")
        with page(browser, (768, 1024)) as screen:
            screen.goto(address)
            _open(screen, "Fair centrepiece")
            _take(screen, "tablet")
    print(f"wrote the screenshots in {FOLDER.name}")
    return 0


def _open(screen: Page, title: str) -> None:
    screen.get_by_role("link", name=f"Open {title}").click()
    screen.locator("svg .part").first.wait_for()
    screen.locator("h2").first.click()


def _take(screen: Page, name: str) -> None:
    screen.mouse.move(1, 1)
    screen.wait_for_timeout(400)
    screen.screenshot(path=FOLDER / f"{name}.png")
