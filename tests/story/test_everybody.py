"""For everybody: by keyboard alone, zoomed in, with colors of one's own, by ear, and in languages longer than English."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.story.conftest import PHONE, WIDE, bell_at_the_checkout, bench, fill_checkout, settled
from tests.story.test_from_setup_to_pack import fill_aspect
from tests.sweeping import spread

GOODS = sorted(path.name for path in Path("demo/products").iterdir())
# Wide; at 200 and 400 % of 1280 x 1024; a phone that lies, one whose keyboard is up, and one that stands.
SIZES = ((1280, 800), (640, 400), (320, 256), (844, 390), (390, 480), (390, 844))
# What lies over a control that has the focus, or over its label.
COVERED = """async () => {
  const found = [];
  // What is pinned tells how high it is once it is laid out.
  for (let frame = 0; frame < 2; frame++) await new Promise(requestAnimationFrame);
  const all = "a[href], button, input:not([type=hidden]), select, textarea, summary";
  for (const one of document.querySelectorAll(`main :is(${all})`)) {
    if (!one.checkVisibility({ visibilityProperty: true }) || one.disabled) continue;
    one.focus();
    const label = one.closest("label") ?? one.labels?.[0];
    const shown = one.matches(".visually-hidden, .chip input") ? one.closest("label") : one;
    for (const part of new Set([shown, label].filter(Boolean))) {
      const box = part.getBoundingClientRect();
      const at = document.elementFromPoint(box.left + Math.min(box.width / 2, 40), box.top + Math.min(box.height / 2, 12));
      const isOwn = at && (part.contains(at) || (at.contains(part) && !at.closest(".stage, .slip-foot")));
      if (!isOwn) found.push(`${one.name || one.textContent.trim()} at ${Math.round(box.top)}, under ${at?.className ?? "nothing"}`);
    }
  }
  return found;
}"""
# Every text half as long again, as languages differ; or all of the page running the other way.
LONGER = """() => {
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const node = walker.currentNode, words = node.data.trim();
    if (!words || node.parentElement.closest("script, style, svg, textarea, option, .exact, .code, bdi")) continue;
    node.data += " " + "wörter ".repeat(Math.ceil(words.length * 0.4 / 7));
  }
}"""
CUT = """() => {
  const found = [];
  const wide = document.documentElement.scrollWidth;
  if (wide > innerWidth + 1) found.push(`the page is ${wide} px wide`);
  const walker = document.createTreeWalker(document.querySelector("body"), NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const parent = walker.currentNode.parentElement;
    if (!walker.currentNode.data.trim() || !parent.checkVisibility({ visibilityProperty: true })) continue;
    if (parent.closest(".visually-hidden, .skip, svg, script, noscript, option, textarea")) continue;
    const range = document.createRange();
    range.selectNodeContents(walker.currentNode);
    const text = range.getBoundingClientRect();
    for (let box = parent; box && box !== document.body; box = box.parentElement) {
      const style = getComputedStyle(box), room = box.getBoundingClientRect();
      // What scrolls can be read, and what ends in dots says so.
      if (style.overflowX === "auto" || style.overflowX === "scroll" || style.textOverflow === "ellipsis") break;
      if (style.overflowX !== "hidden" && !box.matches("button, .chip-face, .main-action, .second-action, th, td")) continue;
      if (text.left < room.left - 2 || text.right > room.right + 2) found.push(`${box.className || box.tagName}: ${walker.currentNode.data.trim().slice(0, 40)}`);
      break;
    }
  }
  return found;
}"""
IN_SHOP = ["/", "/goods/cedar-nameboard/", "/goods/harbor-pass/", "/basket/", "/account/"]
IN_WORKSHOP = {
    "/workshop/products/": "iris",
    "/workshop/products/cedar-nameboard/": "iris",
    "/workshop/products/materials/": "iris",
    "/workshop/products/slate-sign/variants/": "iris",
    "/workshop/orders/": "noor",
    "/workshop/orders/2001/": "noor",
    "/workshop/outbox/": "noor",
}


def focused(page):
    """The name by which the focused element is known."""
    return page.evaluate("document.activeElement.id || document.activeElement.textContent.trim()")


@pytest.mark.parametrize("goods", spread(GOODS, in_test=2))
def test_nothing_lies_over_the_control_that_has_the_focus_nor_over_its_label(open_page, goods):
    page = open_page(f"/goods/{goods}/")
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        expect(page.locator("html")).to_have_js_property("clientHeight", height)
        assert page.evaluate(COVERED) == [], (width, height)


def test_goods_stay_in_sight_while_somebody_types_on_a_phone_with_its_keyboard_up(open_page):
    page = open_page("/goods/cedar-nameboard/", size={"width": 390, "height": 480})
    page.locator("[name=entry-screws]").focus()
    assert page.locator(".goods svg").bounding_box()["y"] >= 0
    page = open_page("/goods/harbor-pass/", size=PHONE)
    page.locator("[name=pieces]").focus()
    assert page.locator(".goods svg").count() == 0


def test_focus_stays_where_the_work_was_and_what_was_done_is_said_once(open_page, copy):
    page = bench(open_page, copy)
    said = page.locator("#announced")
    fill_aspect(page, "name-limit-", Most_characters="11")
    expect(page.locator("#value-name-limit-")).to_be_focused()
    expect(said).not_to_be_empty()
    page.locator("#undo").press("Enter")
    expect(page.locator("#value-name-limit-")).to_contain_text("18")
    expect(page.locator("#redo")).to_be_enabled()
    assert focused(page) in {"undo", "redo"}
    page.locator("#redo").press("Enter")
    expect(page.locator("#value-name-limit-")).to_contain_text("11")
    assert focused(page) in {"undo", "redo"}
    page.get_by_role("button", name="Imprint area").first.press("Enter")
    expect(page.locator(".area.is-selected")).to_be_focused()
    expect(said).to_have_text("Area drawn on Front")
    page.locator(".strip").get_by_role("button", name="Done").press("Enter")
    expect(page.locator(".strip-form")).to_have_count(0)
    assert focused(page).startswith("area-front-")
    second = page.locator("[data-line]").nth(1).get_attribute("data-line")
    page.locator("#remove-screws").press("Enter")
    if page.locator(".question").count():
        expect(page.locator(".question [data-takes-focus]")).to_be_focused()
        page.keyboard.press("Enter")
    expect(page.locator("[data-line=screws]")).to_have_count(0)
    assert focused(page).startswith(("line-grip-", "section-value-", "value-")), second
    page.locator("#publish").press("Enter")
    expect(page.locator(".setup-said")).to_be_focused()
    expect(said).to_contain_text("Revision 2 is live")


def test_keys_of_a_screen_are_shown_and_single_ones_can_be_switched_off(open_page):
    page = open_page("/workshop/products/cedar-nameboard/", person="iris")
    page.keyboard.press("?")
    keys = page.get_by_role("dialog")
    expect(keys).to_contain_text("Move the line that has the focus")
    keys.get_by_role("checkbox").uncheck()
    keys.get_by_role("button", name="Close").click()
    page.keyboard.press("/")
    expect(page.locator("#search")).not_to_be_focused()
    page.keyboard.press("?")
    expect(keys).to_be_hidden()
    page.evaluate("localStorage.clear()")


def test_refusal_leads_from_its_summary_to_each_field_that_says_why(open_page):
    page = bell_at_the_checkout(open_page)
    fill_checkout(page, "", "nobody", "Dyke 1")
    page.get_by_role("button", name="Order and go on").click()
    summary = page.locator(".summary")
    expect(summary).to_be_focused()
    assert page.title().startswith("Not done yet")
    summary.get_by_role("link", name="Your mail address").click()
    mail = page.get_by_label("Your mail address")
    expect(mail).to_be_focused()
    expect(mail).to_have_attribute("aria-invalid", "true")
    described = mail.get_attribute("aria-describedby").split()
    assert any("no mail address" in page.locator(f"#{name}").inner_text() for name in described)


def test_only_what_changed_is_said_once_somebody_pauses(open_page):
    page = open_page("/goods/cedar-nameboard/")
    settled(page)
    page.evaluate("""() => {
      window.heard = [];
      new MutationObserver(() => heard.push(document.getElementById("announced").textContent)).observe(
        document.getElementById("announced"), { childList: true });
    }""")
    page.locator("[data-field=name]").press_sequentially("WIND & WHEY", delay=30)
    expect(page.locator("#announced")).to_contain_text("mm high")
    heard = page.evaluate("heard")
    assert len(heard) == 1
    assert "Front: “WIND & WHEY”, 76 mm high, middle" in heard[0]
    assert "Total £111.20" in heard[0]
    page.locator("[data-field=finish] label", has_text="Harbor white").click()
    expect(page.locator("#announced")).to_contain_text("Total £95.20")
    assert "Letters now" not in page.locator("#announced").inner_text()
    assert page.locator("[aria-live]").count() == 0


def test_state_shows_in_colors_of_the_readers_own(open_page):
    page = open_page("/goods/cedar-nameboard/")
    page.emulate_media(forced_colors="active")
    face = page.locator("[data-field=line] .chip-face")
    style = "(one, part) => { const got = getComputedStyle(one, part); return [got.content, got.outlineStyle, got.fontWeight]; }"
    chosen, other = (
        page.locator(f"[data-field=line] input{mark} + .chip-face").first for mark in (":checked", ":not(:checked)")
    )
    assert face.count() > 1
    for part in ("null", "'::before'"):
        looks = [one.evaluate(f"(one) => ({style})(one, {part})") for one in (chosen, other)]
        assert looks[0] != looks[1]
    specimen = page.locator("img.specimen").first.evaluate("(one) => getComputedStyle(one).backgroundColor")
    assert specimen == "rgb(255, 255, 255)"
    page = open_page("/workshop/products/", person="iris")
    page.emulate_media(forced_colors="active")
    filters = page.locator(".filters a")
    looks = filters.evaluate_all(
        "all => all.map((one) => [getComputedStyle(one).outlineStyle, getComputedStyle(one).fontWeight].join())"
    )
    assert len(set(looks)) > 1


def test_printed_order_has_all_entries(open_page):
    page = open_page("/workshop/orders/2001/", person="noor")
    fold = page.locator(".ticket-entries dl").first
    expect(fold).to_be_hidden()
    page.evaluate("dispatchEvent(new Event('beforeprint'))")
    page.emulate_media(media="print")
    expect(fold).to_be_visible()
    page.evaluate("dispatchEvent(new Event('afterprint'))")
    page.emulate_media(media="screen")
    expect(fold).to_be_hidden()


@pytest.mark.parametrize("address", spread([*IN_SHOP, *IN_WORKSHOP], in_test=3))
def test_longer_languages_and_those_from_right_to_left_cut_nothing_off(open_page, address):
    page = open_page(address, person=IN_WORKSHOP.get(address))
    page.wait_for_load_state("networkidle")
    for way in ("ltr", "rtl"):
        page.evaluate(f"document.documentElement.dir = '{way}'")
        if way == "ltr":
            page.evaluate(LONGER)
        for size in (WIDE, PHONE):
            page.set_viewport_size(size)
            assert page.evaluate(CUT) == [], (way, size)
