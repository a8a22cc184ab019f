"""On another site: its page shows a slip of the workshop's, hears what was put in the basket, and it is ordered here."""

import functools
import threading
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer

import pytest
from playwright.sync_api import expect

from demo.installation import ROOT
from tests.story.conftest import PHONE, fill_checkout, settled
from tests.story.test_pages import fits
from tests.sweeping import spread


class Quiet(SimpleHTTPRequestHandler):
    def log_message(self, *_said):
        pass


@pytest.fixture
def club(quiet_workshop):
    """The example's page at an origin of its own, which the workshop allows."""
    server = ThreadingHTTPServer(
        ("127.0.0.1", 0), functools.partial(Quiet, directory=str(ROOT / "examples" / "other-site"))
    )
    threading.Thread(target=server.serve_forever, daemon=True).start()
    origin = f"http://127.0.0.1:{server.server_port}"
    quiet_workshop.execute(f"UPDATE workshop_workshop SET sites = '[\"{origin}\"]'::jsonb")
    yield f"{origin}/?shop={quiet_workshop.url}&product=slate-sign"
    server.shutdown()
    server.server_close()


@pytest.mark.parametrize("size", spread([None, PHONE]))
def test_a_member_personalizes_a_sign_on_the_clubs_page_and_orders_it_at_the_workshop(open_page, workshop, club, size):
    page = open_page(club, **({"size": size} if size else {}))
    slip = page.frame_locator("#slip")
    slip.locator("#entry-words").fill("BERTH 9\nWherry")
    expect(slip.locator(".behind")).to_be_hidden()
    expect(slip.locator("[data-problem=words]")).to_have_count(0)
    settled(slip)
    assert fits(page)
    # What was begun is there again when the club's page is loaded again.
    with page.expect_response("**/keep/"):
        slip.locator("#entry-words").fill("BERTH 9\nWherries")
    page.reload()
    expect(slip.locator("#entry-words")).to_have_value("BERTH 9\nWherries")
    slip.locator("[data-main-action]").click()
    expect(page.locator("#made")).to_contain_text("1 × ")
    expect(slip.locator(".piece")).to_contain_text("Wherries")
    slip.locator("[data-bring]").click()
    page.get_by_role("button", name="Put them in the basket").click()
    expect(page.locator(".piece")).to_contain_text("Wherries")
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Wanda Wherry", "wanda@post.example", "Boathouse 1")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name="Pay").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()


def test_a_site_that_isnt_allowed_shows_nothing_of_the_shop(open_page, quiet_workshop, club):
    quiet_workshop.execute("UPDATE workshop_workshop SET sites = '[]'::jsonb")
    page = open_page(club)
    page.wait_for_load_state("networkidle")
    assert page.frames[1].evaluate("document.body?.textContent ?? ''").find("Order slip") == -1
    assert any("frame-ancestors" in said for said in open_page.said)
    open_page.harmless.extend(("frame-ancestors", "status of 403"))
