"""The bench by hand, with real pointers and keys: areas, marks, letters, the clipboard, arrangements."""

import pytest
from playwright.sync_api import expect

from tests.story.conftest import bench, copy_of, settled
from tests.story.test_by_hand import drag, middle_of
from tests.sweeping import spread


def mark(page, name):
    return page.locator(f"[data-mark={name}]").first


def said(page, name):
    settled(page)
    return mark(page, name).get_attribute("aria-label")


def shape_of(page, way, **numbers):
    page.locator("#shape-opener").click()
    page.locator(f"#shape-form [value={way}]").check()
    for name, value in numbers.items():
        page.locator(f"#shape-form [name={name}]").fill(value)
    page.locator("#shape-form button[type=submit]").click()
    expect(page.locator("#shape-form")).to_have_count(0)
    settled(page)


@pytest.mark.parametrize("by", spread(["mouse", "keys"]))
def test_a_seller_makes_a_ring_and_bends_its_surface_by_mouse_or_by_keys_alone(open_page, copy, by):
    page = bench(open_page, copy)

    def take(name, dx, dy):
        """Move a mark by so many mm, a multiple of ten."""
        if by == "mouse":
            x, y = middle_of(page, f"[data-mark={name}]")
            scale = page.evaluate("document.getElementById('bench').getScreenCTM().a")
            drag(page, (x, y), [(dx * scale / 2, dy * scale / 2), (dx * scale, dy * scale)])
            page.mouse.up()
        else:
            mark(page, name).focus()
            for key, count in (("ArrowRight", dx), ("ArrowLeft", -dx), ("ArrowDown", dy), ("ArrowUp", -dy)):
                for _ in range(count // 10):
                    page.keyboard.press(f"Shift+{key}")
        settled(page)

    page.locator("#new-area-front").click()
    settled(page)
    shape_of(page, "ring", hole="50", start_deg="180", spread_deg="180")
    before = said(page, "hole")
    take("hole", 0, 20)
    assert said(page, "hole") != before
    before = said(page, "end")
    take("end", -10, 20)
    assert said(page, "end") != before
    take("turn", 20, 0)
    assert "Turned by 0°" not in said(page, "turn")
    shape_of(page, "rectangle")
    page.locator("#shape-opener").click()
    page.locator("#shape-form [value=corners]").check()
    page.locator("#shape-form [name=corners]").fill("0 0, 0 0, 0 0, 0 0")
    page.locator("#shape-form button[type=submit]").click()
    expect(page.locator("[data-mark=c0]")).to_be_visible()
    before = [mark(page, "c2").get_attribute(name) for name in ("cx", "cy")]
    take("c2", -20, -10)
    assert [mark(page, "c2").get_attribute(name) for name in ("cx", "cy")] != before
    expect(page.locator(".bend-grid")).to_have_count(1)
    for _ in range(4):
        page.get_by_role("button", name="Undo").first.click()
        settled(page)


def test_a_text_is_taken_by_its_letters_and_an_area_by_what_there_is_of_it(open_page, quiet_workshop):
    page = bench(open_page, copy_of(quiet_workshop, "tide-clock"))
    dial = page.locator("[data-imprint='front/dial']").bounding_box()
    # Through the hole of the ring, beside the hand of the clock.
    page.mouse.click(dial["x"] + dial["width"] * 0.35, dial["y"] + dial["height"] * 0.4)
    expect(page.locator("#area-front-dial")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Done").click()
    expect(page.locator("#area-front-dial")).to_have_attribute("aria-pressed", "false")
    page.locator("#area-front-ring").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#area-front-ring")).to_have_attribute("aria-pressed", "true")
    letters, center = page.locator("[data-holds=mark-caption-center]"), page.locator("#mark-caption-center")
    expect(letters).to_have_count(1)
    before = center.bounding_box()
    on_letters = letters.evaluate(
        "path => { const { x, y } = path.getPointAtLength(9000).matrixTransform(path.getScreenCTM()); return [x, y]; }"
    )
    drag(page, on_letters, [(4, 3), (12, 9)])
    page.mouse.up()
    settled(page)
    after = center.bounding_box()
    assert after["x"] - before["x"] == pytest.approx(12, abs=1)
    assert after["y"] - before["y"] == pytest.approx(9, abs=1)


def test_an_area_is_copied_to_another_side_and_measured(open_page, copy):
    page = bench(open_page, copy)
    page.locator("[data-imprint]").first.click()
    expect(page.locator("[data-copy-area]")).to_be_visible()
    count = page.locator("[data-imprint]").count()
    clip = page.locator("[data-copy-area]").get_attribute("data-copy-area")
    page.evaluate(
        """clip => {
            document.activeElement.blur();
            const data = new DataTransfer();
            data.setData("text/plain", clip);
            document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true }));
        }""",
        clip,
    )
    expect(page.locator("[data-imprint]")).to_have_count(count + 1)
    page.get_by_role("button", name="Done").click()
    settled(page)
    page.get_by_role("button", name="Measure").click()
    x, y = middle_of(page, "#bench [data-ground]")
    drag(page, (x, y), [(30, 0), (60, 0)])
    page.mouse.up()
    expect(page.locator(".measured text")).to_contain_text(" mm")


def test_a_seller_arranges_in_the_try_out_and_customers_begin_from_it(open_page, tote_copy):
    page = bench(open_page, tote_copy)
    slip = page.locator("#try-out")
    slip.get_by_role("button", name="Round the crab").click()
    expect(slip.locator("[data-own-row]")).to_have_count(2)
    page.locator(".value", has_text="Round the crab").click()
    page.get_by_label("Keep what the try-out shows now as").fill("Crab by night")
    page.get_by_role("button", name="Save").click()
    expect(page.locator("#sentences")).to_contain_text("“Crab by night”")
    slip.get_by_role("button", name="Name and catch").click()
    expect(slip.locator("[data-own-row]")).to_have_count(3)
    slip.get_by_role("button", name="Crab by night").click()
    expect(slip.locator("[data-own-row]")).to_have_count(2)
    expect(slip.locator(".own-name")).to_contain_text("Crab")
