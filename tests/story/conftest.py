"""The whole of Yenzo running for the stories: a database of its own, web processes, a worker, and Chromium."""

import hashlib
from collections import defaultdict
from itertools import count

import pytest
from playwright.sync_api import expect, sync_playwright

from demo.installation import Installation
from demo.load import PASSWORD

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]
WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
# Generous: a busy machine may take its time, and nothing waits longer than it must.
PATIENCE_MS = 60_000
# What Chromium notes of each request that found no line.
NO_LINE = "net::ERR_"
# What may stand on a console: Chromium notes refused entries (422), and that it left the focus with who had it already;
# htmx notes a request that was under way when its page was left.
HARMLESS = (
    "status of 422",
    "Autofocus processing was blocked",
    "htmx:afterRequest",
    "htmx:sendError",
    "htmx:sendAbort",
)
# Of copies of the nameboard, each for one story.
NUMBERS = count(1)
expect.set_options(timeout=PATIENCE_MS)


def settled(page):
    """Wait until no request of the page is under way."""
    expect(page.locator(".htmx-request")).to_have_count(0)


class Held:
    """Requests of a page that are kept waiting for their answers until they are let go."""

    def __init__(self, page, pattern):
        self._page, self.routes, self._holds = page, [], True
        page.route(pattern, self._take)
        self._first = page.expect_request(pattern).__enter__()

    def _take(self, route):
        if self._holds:
            self.routes.append(route)
        else:
            route.continue_()

    def wait_for_one(self):
        assert self._first.value
        # It is in our hands by the time that the browser has answered anything else.
        self._page.title()
        assert self.routes

    def pass_on(self):
        """Let pass what waits and whatever comes from now on; others may wait still."""
        self._holds = False
        for route in self.routes:
            route.continue_()

    def let_go(self, answer=None):
        """Answer what waits, with an answer of ours if told, and let pass whatever comes from now on."""
        if answer is None:
            self.pass_on()
        else:
            self._holds = False
            for route in self.routes:
                route.fulfill(status=200, content_type="text/html", body=answer)
        settled(self._page)


def fill_checkout(page, name, mail, address):
    """Fill the checkout's form and tick that the spelling was checked."""
    page.get_by_label("Your name").fill(name)
    page.get_by_label("Your mail address").fill(mail)
    to = page.locator("[data-postal]").first
    to.get_by_label("Street and number").fill(address)
    to.get_by_label("Postcode").fill("PO1 3AX")
    to.get_by_label("Town").fill("Port Hallow")
    page.get_by_label("I have checked the spelling").check()


@pytest.fixture(scope="package")
def quiet_workshop(tmp_path_factory, worker_id):
    """The installation without a worker."""
    workshop = Installation(
        tmp_path_factory.mktemp("workshop"),
        name=f"story_{worker_id}",
        PRACTICE_SILENCE_SECONDS="2",
        SETTLE_AFTER_SECONDS="1",
        WORKER_SILENCE_SECONDS="3",
        LIMIT_UPLOADS="1000/minute",
        LIMIT_CHECKOUTS="1000/minute",
        LIMIT_SIGN_INS="1000/minute",
        LIMIT_STAFF_SIGN_INS="1000/minute",
    )
    # Customers' files are looked at in every story; what else workers do is held back where a story wants it so.
    workshop.start_worker("artwork")
    yield workshop
    workshop.stop()


@pytest.fixture(scope="package")
def workshop(quiet_workshop):
    quiet_workshop.start_worker()
    return quiet_workshop


@pytest.fixture(scope="package")
def chromium():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium-headless-shell", args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="package")
def signed_in(chromium, quiet_workshop):
    """What a browser keeps of somebody who signed in, asked for once each."""
    kept = {None: None}

    def state_of(person):
        if person not in kept:
            context = chromium.new_context(base_url=quiet_workshop.url)
            page = context.new_page()
            page.goto("/workshop/sign-in/")
            page.fill("[name=username]", person)
            page.fill("[name=password]", PASSWORD)
            page.get_by_role("button", name="Sign in").click()
            page.wait_for_url(lambda url: "sign-in" not in url)
            kept[person] = context.storage_state()
            context.close()
        return kept[person]

    return state_of


@pytest.fixture(scope="package")
def browsers():
    """Browsers that nobody uses now, by language: what they know of static files spares the next one time."""
    return defaultdict(list)


@pytest.fixture
def open_page(chromium, browsers, quiet_workshop, signed_in):
    """Open a page as somebody: a browser of its own, without a past, whose console must stay empty."""
    used, said = [], []

    def opened(address="/", *, size=WIDE, person=None, language="en-GB", expected=200):
        free = browsers[language]
        context = (
            free.pop() if free else chromium.new_context(viewport=WIDE, base_url=quiet_workshop.url, locale=language)
        )
        context.set_default_timeout(PATIENCE_MS)
        used.append((language, context))
        context.add_cookies((signed_in(person) or {"cookies": []})["cookies"])
        page = context.new_page()
        page.set_viewport_size(size)
        # Chromium notes on the console that a page was answered with a fault: one that is expected is none.
        harmless = f"status of {expected}"
        page.on("console", lambda message: harmless in message.text or said.append(f"{page.url}: {message.text}"))
        page.on("pageerror", lambda error: said.append(f"{page.url}: {error}"))
        page.goto(address)
        return page

    # `harmless` is for what a test means to happen: whenever that comes, and however often.
    opened.said, opened.harmless = said, list(HARMLESS)
    yield opened
    for language, context in used:
        for page in context.pages:
            page.close()
        context.clear_cookies()
        browsers[language].append(context)
    assert [line for line in said if not any(harmless in line for harmless in opened.harmless)] == []


def sha256_of(data):
    return hashlib.sha256(data).hexdigest()


@pytest.fixture
def copy(quiet_workshop):
    """A product like the nameboard that each test may change."""
    return copy_of(quiet_workshop, "cedar-nameboard")


@pytest.fixture
def tote_copy(quiet_workshop):
    """A product like the canvas tote that each test may change."""
    return copy_of(quiet_workshop, "canvas-tote")


def copy_of(workshop, like):
    """Return the key of a new product that is one of the demo's in all else."""
    key = f"copy-{next(NUMBERS)}"
    others = {
        table: ", ".join(
            name
            for (name,) in workshop.rows(
                "SELECT column_name FROM information_schema.columns WHERE table_name = %s", f"catalogue_{table}"
            )
            if name not in {"id", "key", "live_id", "product_id"}
        )
        for table in ("product", "revision")
    }
    workshop.execute(
        f"WITH made AS (INSERT INTO catalogue_product (key, {others['product']}) "
        f"SELECT '{key}', {others['product']} FROM catalogue_product WHERE key = '{like}' RETURNING id) "
        f"INSERT INTO catalogue_revision (product_id, {others['revision']}) SELECT made.id, {others['revision']} "
        "FROM made, catalogue_revision WHERE catalogue_revision.id = "
        f"(SELECT live_id FROM catalogue_product WHERE key = '{like}')"
    )
    workshop.execute(
        "UPDATE catalogue_product p SET live_id = r.id FROM catalogue_revision r "
        f"WHERE r.product_id = p.id AND p.key = '{key}'"
    )
    return key


def bench(open_page, copy, **others):
    page = open_page(f"/workshop/products/{copy}/", person=others.pop("person", "iris"), **others)
    expect(page.locator("#try-out [data-total]")).to_be_visible()
    return page


def emblem_page(open_page, **others):
    page = open_page("/goods/deck-cushion/", **others)
    page.fill("[data-field=words]", "Otter & Son")
    page.locator("[data-field=with-emblem] label", has_text="Yes").click()
    expect(page.locator("#line-emblem")).to_be_visible()
    return page


def bell_at_the_checkout(open_page):
    """A bell in the basket, and its customer about to say where it goes."""
    page = open_page("/goods/ships-bell/")
    page.fill("[data-field=name]", "TERN")
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("link", name="Go to the checkout").click()
    return page
