"""By hand, with real pointers, fingers and keys: what was left is what is shown, and nothing is lost on the way."""

import json
from itertools import pairwise

import pytest
from playwright.sync_api import expect

from tests.story.conftest import PHONE, settled
from tests.story.test_held_answers import Held

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
