#!/usr/bin/env python3
"""Takes the pictures of docs/screenshots from a running demo (`make demo` in another window, then `make screenshots`).

Usage: screenshots.py [FOLDER] [NAME...]
"""

import json
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

CHECKOUT = Path(__file__).resolve().parent.parent
WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
FLAGS = ("--no-sandbox", "--disable-gpu", "--disable-background-networking", "--no-first-run")


def typed(page: Page) -> None:
    """Fill the nameboard's slip as a customer would."""
    page.fill("[data-field=name]", "Wind & Whey")
    page.locator("[data-field=with-port] label", has_text="Yes").click()
    page.fill("#entry-port", "Port Hallow")
    page.locator("#line-port .made").wait_for()
    page.evaluate("scrollTo(0, 0)")


def composed(page: Page) -> None:
    """Begin from the seller's arrangement on the tote, and take its first text."""
    page.get_by_role("button", name="Name and catch").click()
    page.locator("[data-hold]").first.click()
    page.wait_for_load_state("networkidle")
    page.evaluate("scrollTo(0, 0)")


def in_basket(page: Page) -> None:
    """Put a nameboard in the basket and look at it."""
    typed(page)
    page.get_by_role("button", name="Put in the basket").click()
    page.locator(".piece").first.wait_for()


def at_checkout(page: Page) -> None:
    """Go on to the checkout with a nameboard."""
    in_basket(page)
    page.get_by_role("link", name="Go to the checkout").click()
    page.locator(".checkout").wait_for()


def picked_area(page: Page) -> None:
    """Wait for the try-out and pick the first area."""
    page.locator("#try-out .quote").wait_for()
    page.locator("#bench [data-imprint]").first.click()
    page.locator(".strip-form").wait_for()


def list_gone_on_with(page: Page) -> None:
    """Go on with the demo's list of names."""
    page.get_by_role("button", name="Begin from this").click()
    page.locator("tr[data-row] img").first.wait_for()


def next_taken(page: Page) -> None:
    """Take the next job, unless one is in hand."""
    if not page.locator(".in-hand").count():
        page.get_by_role("button", name="Take the next").click()
    page.locator(".in-hand").wait_for()


def pack_shown(page: Page) -> None:
    """Wait until the pack's part has come."""
    page.locator("[data-pack=done]").first.wait_for()


def seen_through_the_ring(page: Page) -> None:
    """Go on to the tide clock, with a photo behind its window."""
    page.get_by_role("link", name="Tide clock").first.click()
    page.fill("[data-field=caption]", "Port Hallow · 1931")
    assets = CHECKOUT / "demo" / "products" / "tide-clock" / "entries" / "assets"
    page.set_input_files("#line-photo input[type=file]", assets / "harbor-evening.png")
    page.locator("#line-photo .made").wait_for()
    page.locator("[data-hold]").click()
    page.locator("[data-strip=photo] [data-typed=width]").fill("200")
    page.keyboard.press("Enter")
    page.locator("[data-hold]", has_text="200 × 200").wait_for()
    page.evaluate("scrollTo(0, 0)")


def compass_in_arabic(page: Page) -> None:
    """Go on to the compass, choose Arabic, and type on the lid."""
    page.get_by_role("link", name="Brass compass").first.click()
    page.locator(".languages summary").click()
    page.get_by_role("button", name="العربية").click()
    page.fill("[data-field=words]", "May the tide bring you home")
    page.fill("[data-field=initials]", "WR")
    page.locator("#line-initials .made").wait_for()
    page.evaluate("scrollTo(0, 0)")


Scene = tuple[str, dict[str, int], str, Callable[[Page], None] | None]
SCENES: dict[str, Scene] = {
    "shop": ("shop", WIDE, "", None),
    "product": ("product", WIDE, "", typed),
    "compose": ("compose", WIDE, "", composed),
    "product-window": ("shop", WIDE, "", seen_through_the_ring),
    "list": ("list", WIDE, "", list_gone_on_with),
    "basket": ("product", WIDE, "", in_basket),
    "checkout": ("product", WIDE, "", at_checkout),
    "order": ("order", WIDE, "", None),
    "product-phone": ("product", PHONE, "", typed),
    "arabic-phone": ("shop", PHONE, "", compass_in_arabic),
    "products": ("products", WIDE, "seller", None),
    "setup": ("setup", WIDE, "seller", picked_area),
    "week": ("board", WIDE, "desk", None),
    "held": ("held", WIDE, "desk", None),
    "question-phone": ("question", PHONE, "", None),
    "station": ("station", {"width": 1024, "height": 768}, "decorator", next_taken),
    "materials": ("materials", WIDE, "seller", None),
    "orders": ("orders", WIDE, "desk", None),
    "order-staff": ("order_staff", WIDE, "desk", pack_shown),
}


def main(arguments: list[str]) -> int:
    """Take all pictures, or those that are named."""
    folder = Path(arguments[0]) if arguments else CHECKOUT / "docs" / "screenshots"
    folder.mkdir(parents=True, exist_ok=True)
    facts = json.loads((CHECKOUT / ".run" / "demo.json").read_text())
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium-headless-shell", args=list(FLAGS))
        for name, (page_name, size, role, act) in SCENES.items():
            if arguments[1:] and name not in arguments[1:]:
                continue
            page = browser.new_context(viewport=size).new_page()
            page.on("console", lambda message: print(f"console: {message.text}"))
            page.on("pageerror", lambda error: print(f"error: {error}"))
            if role:
                _sign_in(page, facts["sign_in_page"], next(one for one in facts["staff"] if one["role"] == role))
            page.goto(facts["pages"][page_name])
            if act:
                act(page)
            page.wait_for_load_state("networkidle")
            page.screenshot(path=folder / f"{name}.png")
            page.context.close()
        browser.close()
    return 0


def _sign_in(page: Page, address: str, person: dict[str, str]) -> None:
    page.goto(address)
    page.fill("[name=username]", person["sign_in"])
    page.fill("[name=password]", person["password"])
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_load_state()


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
