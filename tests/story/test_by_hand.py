"""By hand, with real pointers, fingers and keys: what was left is what is shown, and nothing is lost on the way."""

import io
import json
import math
import re
import zipfile
from itertools import pairwise

import pytest
from playwright.sync_api import expect

from tests.story.conftest import PHONE, WIDE, Held, fill_checkout, settled
from tests.story.test_from_setup_to_pack import download_pack
from tests.story.test_pages import fits, found_by_axe
from tests.sweeping import spread

PHOTO = "demo/products/tide-clock/assets/sample-harbor.jpg"
NEAR_PX = 0.3


def clock(open_page, **others):
    """The tide clock with a photo on its dial."""
    page = open_page("/goods/tide-clock/", **others)
    page.set_input_files("#entry-photo", PHOTO)
    expect(page.locator("[data-hold=photo]")).to_be_visible()
    settled(page)
    return page


def bell(open_page, name="HALCYON"):
    page = open_page("/goods/ships-bell/")
    page.fill("#entry-name", name)
    expect(page.locator("[data-hold=name]")).to_be_visible()
    settled(page)
    return page


def hands(page, key):
    settled(page)
    return json.loads(page.locator("[name=hands]").input_value()).get("adjustments", {}).get(key, {})


def middle_of(page, selector):
    box = page.locator(selector).first.bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def where(page, key):
    """Return the left, top, width and height that something shows with, in pixels of the screen."""
    return page.evaluate(
        """key => {
            const box = document.querySelector(`.goods [data-item="${key}"] :is(image, path:not([data-grip]))`).getBoundingClientRect();
            return [box.x, box.y, box.width, box.height];
        }""",
        key,
    )


def drag(page, start, way):
    page.mouse.move(*start)
    page.mouse.down()
    for dx, dy in way:
        page.mouse.move(start[0] + dx, start[1] + dy)
    page.evaluate("() => new Promise(requestAnimationFrame)")


def fingers(page):
    """Return what puts fingers on the screen."""
    session = page.context.new_cdp_session(page)
    session.send("Emulation.setTouchEmulationEnabled", {"enabled": True, "maxTouchPoints": 5})

    def put(kind, *points):
        touches = [{"x": x, "y": y, "id": number} for number, (x, y) in enumerate(points)]
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches})

    return put


def test_what_the_hand_left_is_what_the_server_shows_and_nothing_is_asked_while_it_is_down(open_page):
    page = clock(open_page)
    page.locator("[data-hold=photo]").focus()
    for _ in range(6):
        page.keyboard.press("+")
    assert hands(page, "photo")["scale"] == pytest.approx(1.05**6, rel=1e-3)
    asked = []
    page.on("request", lambda request: "preview" in request.url and asked.append(request.url))
    x, y = middle_of(page, ".goods svg")
    drag(page, (x - 40, y - 50), [(4, 3), (9, 6), (15, 9)])
    left = where(page, "photo")
    assert asked == []
    page.mouse.up()
    settled(page)
    expect(page.locator(".goods [data-item=photo] [data-moves]").first).not_to_have_attribute("transform", "")
    assert where(page, "photo") == pytest.approx(left, abs=NEAR_PX)
    assert hands(page, "photo")["shift_mm"][0] > 0


def painted_in(page, steps):
    """Return how often the browser painted anything of the page during some steps of the mouse."""
    browser = page.context.browser
    browser.start_tracing(page=page, categories=["devtools.timeline"])
    for x, y in steps:
        page.mouse.move(x, y)
        page.evaluate("() => new Promise(requestAnimationFrame)")
    names = [event["name"] for event in json.loads(browser.stop_tracing())["traceEvents"]]
    assert names.count("Layerize") >= len(steps) / 2
    return names.count("Paint")


def test_what_follows_the_hand_is_shown_where_it_will_lie_and_nothing_is_painted_anew_for_it(open_page):
    page = open_page("/goods/canvas-tote/")
    page.get_by_role("button", name="+ Text").click()
    page.fill("[data-own-text]", "GULL")
    settled(page)
    key = page.locator("[data-hold]").first.get_attribute("data-hold")
    x, y = middle_of(page, f".goods [data-item='{key}'] [data-grip]")
    drag(page, (x, y), [(4, 3), (9, 6)])
    expect(page.locator(".hand-sheet")).to_have_count(1)
    assert painted_in(page, [(x + 9 + step, y + 6 + step) for step in range(1, 13)]) <= 2
    left = where(page, key)
    page.mouse.up()
    settled(page)
    assert where(page, key) == pytest.approx(left, abs=NEAR_PX)
    expect(page.locator(".hand-sheet")).to_have_count(0)
    assert page.evaluate("document.getAnimations().length") == 0


def test_a_photo_never_uncovers_its_window_and_undo_goes_back_step_by_step(open_page):
    page = clock(open_page)
    x, y = middle_of(page, ".goods svg")
    drag(page, (x - 40, y - 50), [(100, 80)])
    page.mouse.up()
    assert max(abs(mm) for mm in hands(page, "photo").get("shift_mm", [0, 0])) < 0.2
    page.locator("[data-strip=photo] [data-typed=width]").fill("240")
    page.keyboard.press("Enter")
    assert hands(page, "photo")["scale"] == pytest.approx(1.5, rel=1e-2)
    page.locator("[data-strip=photo] [data-put=turn_deg]").fill("15")
    page.keyboard.press("Enter")
    assert hands(page, "photo")["turn_deg"] == 15
    page.locator("[data-hand=undo]").click()
    assert "turn_deg" not in hands(page, "photo")
    page.locator("[data-hand=redo]").click()
    assert hands(page, "photo")["turn_deg"] == 15
    page.get_by_role("button", name="Back to start").click()
    assert hands(page, "photo") == {}


def test_two_fingers_bring_a_face_into_the_ring_on_a_phone_and_nothing_scrolls(open_page):
    page = clock(open_page, size=PHONE)
    put = fingers(page)
    page.evaluate("scrollTo(0, 0)")
    x, y = middle_of(page, ".goods svg")
    put("touchStart", (x - 15, y - 15))
    put("touchEnd")
    expect(page.locator("[data-strip=photo]")).to_be_visible()
    x, y = middle_of(page, ".goods svg")
    put("touchStart", (x - 30, y), (x + 30, y))
    for step in range(1, 8):
        put("touchMove", (x - 30 - 3 * step, y - 2 * step), (x + 30 + 3 * step, y + 2 * step))
    put("touchEnd")
    changed = hands(page, "photo")
    assert changed["scale"] > 1.5
    assert changed["turn_deg"] > 5
    assert page.evaluate("scrollY") == 0
    put("touchStart", (10, 90))
    put("touchEnd")
    page.fill("#entry-caption", "PORT HALLOW")
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator("main")).to_contain_text("PORT HALLOW")


def test_a_text_is_moved_and_turned_by_keys_alone_and_stops_at_the_edge(open_page):
    page = bell(open_page)
    page.locator("[data-hold=name]").focus()
    for key in ("ArrowDown", ">", ">", "Shift+ArrowRight"):
        page.keyboard.press(key)
    assert hands(page, "name")["turn_deg"] == 2
    for _ in range(30):
        page.keyboard.press("Shift+ArrowRight")
    assert hands(page, "name")["shift_mm"][0] < 100
    expect(page.locator("[data-strip=name]")).to_contain_text("It stops at the edge of “Waist”.")
    expect(page.locator("[data-hold=name]")).to_be_focused()
    page.keyboard.press("Home")
    assert hands(page, "name") == {}


def test_a_hand_goes_on_while_answers_are_held_back_and_nothing_it_did_is_lost(open_page):
    page = bell(open_page, "TERN")
    held = Held(page, "**/preview/")
    page.locator("[data-hold=name]").focus()
    seen = []
    for _ in range(8):
        page.keyboard.press("ArrowLeft")
        seen.append(where(page, "name")[0])
    held.wait_for_one()
    assert all(after < before for before, after in pairwise(seen))
    held.let_go()
    expect(page.locator("[name=gestures]")).to_have_value("")
    assert hands(page, "name")["shift_mm"][0] == pytest.approx(-8)
    page.reload()
    expect(page.locator("[data-hold=name]")).to_be_visible()
    assert hands(page, "name")["shift_mm"][0] == pytest.approx(-8)


def tote(open_page, **others):
    page = open_page("/goods/canvas-tote/", **others)
    expect(page.locator("[data-own]")).to_be_visible()
    return page


def items(page):
    settled(page)
    return json.loads(page.locator("[name=hands]").input_value()).get("items", {}).get("own", [])


def test_the_small_picture_of_a_side_follows_and_nothing_of_it_can_be_held(open_page):
    page = tote(open_page)
    page.get_by_role("button", name="+ Text").click()
    for words in ("OTTER", "WHELK"):
        page.locator("[data-own-text]").fill(words)
        settled(page)
        drawn = page.locator("#ink-front [data-item] path:not([data-grip])").first.get_attribute("d")
        small = page.locator("[data-show-side=front] svg > g path[fill]:not([fill=none])")
        expect(small.first).to_have_attribute("d", drawn)
    expect(page.locator(".thumbs :is([data-item], [data-scene], [id^=ink-])")).to_have_count(0)


ALL_DRAWN = """() => {
  const drawn = (selector) => [...document.querySelectorAll(`${selector} path[fill]:not([fill=none])`)].map((path) => path.getAttribute("d"));
  const large = drawn("#ink-front"), small = drawn("[data-show-side=front] svg > g");
  return large.length && JSON.stringify(large) === JSON.stringify(small);
}"""


def test_in_the_small_picture_only_what_has_changed_is_copied_and_all_is_there(open_page):
    page = tote(open_page)
    for _ in range(2):
        page.get_by_role("button", name="+ Text").click()
        settled(page)
    boxes = page.locator("[data-own-text]")
    for at, words in ((0, "OTTER"), (1, "WHELK"), (0, "GULL")):
        boxes.nth(at).fill(words)
        settled(page)
        page.wait_for_function(ALL_DRAWN)
    other = page.locator("[data-show-side=front] svg > g path[fill]:not([fill=none])").last.element_handle()
    boxes.nth(0).fill("TERN")
    settled(page)
    page.wait_for_function(ALL_DRAWN)
    assert other.evaluate("path => path.isConnected")


def test_undo_after_what_changed_nothing_goes_back_one_step_only(open_page):
    page = clock(open_page)
    width = page.locator("[data-strip=photo] [data-typed=width]")
    page.locator("[data-hold=photo]").click()
    for value, scale in (("200", 1.25), ("240", 1.5)):
        width.fill(value)
        page.keyboard.press("Enter")
        assert hands(page, "photo")["scale"] == pytest.approx(scale, rel=1e-2)
    page.locator("[data-hold=photo]").click()
    page.locator("[data-hand=center]").click()
    settled(page)
    page.locator("[data-hand=undo]").click()
    assert hands(page, "photo")["scale"] == pytest.approx(1.25, rel=1e-2)
    width.fill("240")
    page.keyboard.press("Enter")
    assert hands(page, "photo")["scale"] == pytest.approx(1.5, rel=1e-2)
    page.locator("[data-hand=undo]").click()
    assert hands(page, "photo")["scale"] == pytest.approx(1.25, rel=1e-2)


def test_a_tote_is_composed_on_a_phone_and_is_made_as_it_was_seen(open_page, workshop):
    page = tote(open_page, size=PHONE)
    page.get_by_role("button", name="+ Text", exact=True).click()
    page.locator("[data-own-text]").press_sequentially("SALT & RYE")
    expect(page.locator("[data-hold] bdi")).to_have_text("SALT & RYE")
    page.set_input_files("#entry-own", "demo/products/deck-cushion/entries/assets/tern-emblem.png")
    expect(page.locator("[data-hold]")).to_have_count(2)
    page.get_by_role("button", name="+ Drawing", exact=True).click()
    page.get_by_label("Search").fill("crab")
    page.get_by_role("button", name="Crab", exact=True).click()
    expect(page.locator("[data-hold]")).to_have_count(3)
    page.get_by_role("button", name="+ Code", exact=True).click()
    page.locator("[data-own-text]").nth(1).press_sequentially("https://salt.example")
    expect(page.locator("[data-hold]")).to_have_count(4)
    page.locator("[data-strip]:visible [data-put=place]").select_option(label="Back / Back print")
    settled(page)
    page.locator("[data-hold]", has_text="SALT & RYE").click()
    page.locator("[data-strip]:visible [data-put=turn_deg]").fill("-12")
    page.keyboard.press("Enter")
    settled(page)
    shown = page.evaluate(
        """() => Object.fromEntries([...document.querySelectorAll(".goods [data-item]")].map((item) => {
            const numbers = (text) => text.split(" ").map(Number), [l, t, r, b] = numbers(item.dataset.box);
            const [a, c, d, e, x, y] = numbers(item.dataset.at);
            return [item.dataset.item, [a * (l + r) / 2 + d * (t + b) / 2 + x, c * (l + r) / 2 + e * (t + b) / 2 + y]];
        }))"""
    )
    assert len(shown) == 4
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator("main")).to_contain_text("tern-emblem.png")
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Tove Marsh", "tove@post.example", "Dyke 1")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name=re.compile("^Pay ")).click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    data = download_pack(open_page("/workshop/orders/", person="noor"), "SALT & RYE")
    manifest = json.loads(zipfile.ZipFile(io.BytesIO(data)).read("manifest.json"))
    made = [one for area in manifest["areas"] for kind in ("texts", "pictures", "drawings") for one in area[kind]]
    for one in made:
        left, top, right, bottom = one["ink_mm"]
        off = min(math.hypot((left + right) / 2 - x, (top + bottom) / 2 - y) for x, y in shown.values())
        assert off < 1
    assert {one["turn_deg"] for one in made} == {0, -12}
    assert any(one.get("code") == "https://salt.example" for one in made)


def test_items_are_ordered_locked_doubled_and_taken_off_and_undo_brings_them_back(open_page):
    page = tote(open_page)
    page.get_by_role("button", name="Name and catch").click()
    expect(page.locator("[data-own-row]")).to_have_count(3)
    page.get_by_role("button", name="Double “Herring”").click()
    expect(page.locator("[data-own-row]")).to_have_count(4)
    page.get_by_role("button", name="Put “SALT & RYE” above").click()
    settled(page)
    assert [item["key"] for item in items(page)][:2] == ["i2", "i1"]
    page.get_by_role("button", name="Lock “since 2019”").click()
    expect(page.get_by_role("button", name="Lock “since 2019”")).to_have_attribute("aria-pressed", "true")
    before = items(page)
    page.locator("[data-hold]", has_text="since 2019").focus()
    page.keyboard.press("ArrowLeft")
    assert items(page) == before
    page.locator("[data-hold]", has_text="SALT & RYE").focus()
    page.keyboard.press("Delete")
    expect(page.locator("[data-own-row]")).to_have_count(3)
    page.locator("[data-hand=undo]").click()
    expect(page.locator("[data-own-row]")).to_have_count(4)
    page.reload()
    expect(page.locator("[data-own-row]")).to_have_count(4)
    page.get_by_role("button", name="Take “SALT & RYE” off").click()
    expect(page.locator("[data-own-row]")).to_have_count(3)


def test_a_photo_is_turned_and_cut_without_touching_what_was_sent(open_page):
    page = clock(open_page)
    first = page.locator("[name=upload-photo]").input_value()
    page.locator("#held-photo [name=quarter_turns]").select_option("1")
    expect(page.locator(f"[name=upload-photo][value='{first}']")).to_have_count(0)
    page.get_by_text("Cut it").click()
    frame = page.locator("[data-crop-frame] [data-corner=se]")
    frame.scroll_into_view_if_needed()
    drag(page, middle_of(page, "[data-crop-frame] [data-corner=se]"), [(-20, -20), (-60, -60)])
    page.mouse.up()
    expect(page.get_by_text("Cut to a part of it")).to_be_visible()
    expect(page.locator("#held-photo small")).not_to_contain_text("1100 × 1100")
    page.get_by_text("Cut to a part of it").click()
    page.get_by_role("button", name="Show all of it again").click()
    expect(page.locator("#held-photo small")).to_contain_text("1100 × 1100")


def test_a_picture_of_ones_own_is_turned_and_keeps_its_place_and_undo_brings_the_first_back(open_page):
    page = tote(open_page)
    page.set_input_files("#entry-own", PHOTO)
    turned = page.locator(".own-row [name=quarter_turns]")
    expect(turned).to_have_value("0")
    [before] = items(page)
    turned.select_option("1")
    expect(page.locator("#held-own .one-file")).to_have_count(2)
    expect(page.locator("[name=gestures]")).to_have_value("")
    [after] = items(page)
    assert after["file"] != before["file"]
    assert {**after, "file": ""} == {**before, "file": ""}
    page.locator("[data-hand=undo]").click()
    expect(page.locator(".own-row [name=quarter_turns]")).to_have_value("0")
    assert items(page) == [before]


@pytest.mark.parametrize("size", spread([WIDE, PHONE]))
def test_what_is_held_and_what_can_be_picked_is_accessible_and_fits(open_page, size):
    page = tote(open_page, size=size)
    page.get_by_role("button", name="Round the crab").click()
    page.locator("[data-hold]").first.click()
    expect(page.locator("[data-strip]")).to_be_visible()
    settled(page)
    assert fits(page)
    assert found_by_axe(page) == []
    page.get_by_role("button", name="+ Drawing", exact=True).click()
    page.get_by_role("button", name="shore", exact=True).click()
    expect(page.locator(".drawing-grid li:visible")).to_have_count(5)
    assert found_by_axe(page) == []
