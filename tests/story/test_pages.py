"""Every page, wide and on a phone, in all languages: an empty console under the policy, and nothing for axe to find."""

import json
from importlib.util import find_spec
from pathlib import Path

import pytest

from tests.story.conftest import PHONE, WIDE, settled

AXE = next(Path(find_spec("axe_playwright_python").submodule_search_locations[0]).rglob("axe.min.js")).read_text()
# Of what is right axe need not tell, which halves its work.
WANTED = {
    "runOnly": ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice", "experimental"],
    "resultTypes": ["violations"],
    "selectors": False,
}
PEOPLE = {
    "products": "iris",
    "setup": "iris",
    "materials": "iris",
    "orders": "noor",
    "order_staff": "noor",
    "outbox": "noor",
}
PAGES = [
    "shop",
    "product",
    "product_heavy",
    "basket",
    "order",
    "products",
    "setup",
    "materials",
    "orders",
    "order_staff",
    "outbox",
]
MORE = {
    "/workshop/sign-in/": None,
    "/workshop/products/new/": "iris",
    "/workshop/products/cedar-nameboard/sides/front/scale/": "iris",
    "/workshop/products/deck-cushion/variants/": "iris",
    "/workshop/products/materials/methods/engraving/": "iris",
    "/workshop/products/burgee-pennant/?selected=flag/cloth": "iris",
    "/workshop/products/harbor-pass/": "iris",
    "/workshop/products/gift-wrapping/": "iris",
    "/workshop/products/cedar-nameboard/price/": "iris",
    "/workshop/products/slate-sign/wording/": "iris",
    "/workshop/products/slate-sign/variants/": "iris",
    "/workshop/products/slate-sign/variants/large/": "iris",
    "/workshop/products/kits/": "iris",
    "/workshop/products/kits/gift-wrapping/users/": "iris",
    "/workshop/products/kits/gift-wrapping/publish/": "iris",
    "/workshop/products/kits/gift-wrapping/in/ships-bell/": "iris",
    "/workshop/products/stock/": "iris",
    "/goods/harbor-pass/": None,
    "/goods/key-float/": None,
    "/goods/ships-bell/": None,
    "/goods/slate-sign/": None,
    "/goods/canvas-tote/": None,
    "/goods/none/": None,
    "/workshop/": "iris",
    "/workshop/words/": "iris",
    "/workshop/files/": "mara",
    "/workshop/settings/": "mara",
    "/workshop/settings/wording/": "iris",
    "/about/delivery/": None,
    "/workshop/products/cedar-nameboard/sides/new/": "iris",
    "/workshop/products/materials/typefaces/new/": "iris",
    "/workshop/products/materials/collections/sea-life/": "iris",
    "/workshop/products/materials/palettes/new/": "iris",
}
# One page of each template is looked at by `make test`, on a phone those that are used there.
SAME_TEMPLATES = (
    "product_heavy",
    "/workshop/products/slate-sign/variants/",
    "/workshop/products/burgee-pennant/?selected=flag/cloth",
    "/workshop/products/harbor-pass/",
    "/workshop/products/gift-wrapping/",
    "/workshop/products/cedar-nameboard/sides/front/scale/",
    "/goods/harbor-pass/",
    "/goods/key-float/",
    "/goods/ships-bell/",
    "/goods/slate-sign/",
)
ON_PHONES = ("shop", "product", "basket", "order")
IN_SHOP = (
    "/",
    "/goods/cedar-nameboard/",
    "/goods/harbor-pass/",
    "/goods/deck-cushion/",
    "/basket/",
    "/checkout/",
    "/account/",
)


@pytest.fixture(scope="package")
def addresses(quiet_workshop):
    return quiet_workshop.pages()


def found_by_axe(page):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    found = page.evaluate(f"axe.run(document, {json.dumps(WANTED)})")
    return [(rule["id"], [node["html"][:160] for node in rule["nodes"]]) for rule in found["violations"]]


def fits(page):
    return page.evaluate("document.documentElement.scrollWidth <= innerWidth + 1")


def is_looked_at_by_others(name, size):
    """Whether a page of the same template is looked at in this size, or a phone's of a page that nobody opens on one."""
    return name in SAME_TEMPLATES or (size is PHONE and name not in ON_PHONES)


@pytest.mark.parametrize(
    ("name", "size"),
    [
        pytest.param(name, size, marks=pytest.mark.sweep if is_looked_at_by_others(name, size) else ())
        for name in (*PAGES, *MORE)
        for size in (WIDE, PHONE)
    ],
)
def test_page_is_accessible_fits_and_says_nothing_on_its_console(open_page, addresses, name, size):
    address, person = addresses.get(name, name), PEOPLE.get(name, MORE.get(name))
    page = open_page(address, person=person, size=size)
    settled(page)
    assert fits(page)
    assert found_by_axe(page) == []
    if name == "/goods/none/":
        open_page.harmless.append("status of 404")


@pytest.mark.sweep
@pytest.mark.parametrize(("language", "direction"), [("ar", "rtl"), ("de-DE", "ltr")])
def test_shop_is_accessible_and_fits_in_every_language(open_page, language, direction):
    page = open_page("/goods/ships-bell/", language=language)
    page.fill("[data-field=name]", "TERN")
    page.locator("[data-main-action]").click()
    page.wait_for_url("**/basket/")
    for address in IN_SHOP:
        page.goto(address)
        page.wait_for_load_state("networkidle")
        assert page.evaluate("getComputedStyle(document.body).direction") == direction
        for size in (WIDE, PHONE):
            page.set_viewport_size(size)
            assert fits(page), (address, size)
            assert found_by_axe(page) == [], (address, size)
