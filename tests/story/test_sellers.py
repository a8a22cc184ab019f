"""What sellers meet: hands on the bench, two people on one product, forms that open in place."""

import json

import pytest
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.core.conftest import picture_bytes
from tests.story.conftest import PHONE, bench, copy_of, settled
from tests.story.test_by_hand import drag
from tests.story.test_from_setup_to_pack import fill_aspect, place_of

PANEL = "front/name-panel"


def draft_area(workshop, copy):
    draft = workshop.rows("SELECT draft FROM catalogue_product WHERE key = %s", copy)[0][0]
    area = draft["sides"][0]["areas"][0]
    return [area[name] for name in ("x_mm", "y_mm", "width_mm", "height_mm")]


def test_arrow_keys_in_a_burst_move_an_area_by_their_sum(quiet_workshop, open_page, copy):
    page = bench(open_page, copy)
    page.locator(f'[data-imprint="{PANEL}"]').focus()
    for key in ["ArrowRight"] * 7 + ["Shift+ArrowDown", "ArrowUp", "ArrowUp"]:
        page.keyboard.press(key)
    wait_until(lambda: draft_area(quiet_workshop, copy) == [92, 48, 530, 96], what="the moves")
    expect(page.locator(f'[data-imprint="{PANEL}"]')).to_be_focused()
    expect(page.locator(".setup-said.problem")).to_have_count(0)


def test_area_is_moved_and_resized_by_the_hand_and_what_lies_in_it_goes_along(quiet_workshop, open_page, copy):
    page = bench(open_page, copy)
    area = page.locator(f'[data-imprint="{PANEL}"]')
    box = area.locator(".area-ground").bounding_box()
    mm = box["width"] / 530
    before = page.locator(".bench-ink path").first.bounding_box()
    # Brought back to where it was, nothing is sent, and there is nothing to undo.
    sent = []
    page.on("request", lambda request: sent.append(request.url) if request.url.endswith("/place/") else None)
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    drag(page, (x, y), [(30, 20), (0, 0)])
    page.mouse.up()
    expect(page.locator(".hand-sheet")).to_have_count(0)
    assert page.locator(".bench-ink path").first.bounding_box() == before
    expect(page.locator("#undo")).to_be_disabled()
    page.mouse.move(x, y)
    page.mouse.down()
    # Nothing draws it while Alt is held.
    page.keyboard.down("Alt")
    page.mouse.move(x - 20 * mm, y + 15 * mm, steps=4)
    page.mouse.up()
    page.keyboard.up("Alt")
    wait_until(lambda: draft_area(quiet_workshop, copy)[:2] != [85, 40], what="the move")
    moved = draft_area(quiet_workshop, copy)
    assert (abs(moved[0] - 65) < 1, abs(moved[1] - 55) < 1, moved[2:]) == (True, True, [530, 96])
    settled(page)
    assert len(sent) == 1
    assert abs(page.locator(".bench-ink path").first.bounding_box()["x"] - before["x"] + 20 * mm) < 2
    area.locator(".area-ground").click(position={"x": 40, "y": 12})
    settled(page)
    handle = page.locator(f'[data-imprint="{PANEL}"] [data-handle=se]').bounding_box()
    page.mouse.move(handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2)
    page.mouse.down()
    page.mouse.move(handle["x"] - 100 * mm, handle["y"] - 20 * mm, steps=4)
    page.mouse.up()
    wait_until(lambda: draft_area(quiet_workshop, copy)[2] < 440, what="the new size")
    assert draft_area(quiet_workshop, copy)[:2] == moved[:2]


def test_a_photo_in_its_ring_goes_along_while_its_area_is_held(quiet_workshop, open_page):
    page = bench(open_page, copy_of(quiet_workshop, "tide-clock"))
    image = page.locator(".bench-ink image").first
    key = image.evaluate("one => one.closest('[data-area]').dataset.area")
    box, before = page.locator(f"[data-imprint$='/{key}'] .shape").bounding_box(), image.bounding_box()
    # Its middle is a hole, for the hands.
    x, y = box["x"] + 0.1 * box["width"], box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.keyboard.down("Alt")
    page.mouse.move(x + 12, y + 8, steps=4)
    page.evaluate("() => new Promise(requestAnimationFrame)")
    held = page.locator(".hand-sheet image").bounding_box()
    assert (held["x"] - before["x"], held["y"] - before["y"]) == (pytest.approx(12, abs=0.3), pytest.approx(8, abs=0.3))
    assert image.evaluate("one => getComputedStyle(one.closest('[data-area]')).opacity") == "0"
    page.mouse.up()
    page.keyboard.up("Alt")
    expect(page.locator(".hand-sheet")).to_have_count(0)
    settled(page)


def test_two_sellers_on_the_same_value_and_the_later_one_sees_both(open_page, copy):
    first, second = bench(open_page, copy), bench(open_page, copy, person="mara")
    fill_aspect(first, "name-label-", Label_for_the_customer="Name of the ship")
    second.locator("#value-name-label-").click()
    second.get_by_label("Label for the customer").fill("Name of the vessel")
    second.locator(".open-form").get_by_role("button", name="Save").click()
    refused = second.locator(".setup-said.problem")
    expect(refused).to_contain_text("Iris changed this while you had it open")
    expect(refused).to_contain_text("“Name of the ship”")
    expect(refused).to_contain_text("“Name of the vessel”")
    fill_aspect(second, "finish-label-", Label_for_the_customer="Paint")
    second.locator("#undo").click()
    expect(second.locator("[data-line=finish]")).to_contain_text("Finish — a color")
    expect(second.locator(".sentence").first).to_contain_text("Name of the ship")


def test_line_is_dragged_to_the_top_and_the_slip_follows(open_page, copy):
    page = bench(open_page, copy, size={"width": 1280, "height": 1300})
    page.locator("#line-grip-finish").drag_to(page.locator("[data-line=name]"))
    expect(page.locator(".sentence").first).to_contain_text("Finish — a color")
    expect(page.locator("#try-out .line").first).to_have_id("line-finish")


def test_form_in_place_closes_on_escape_and_its_problem_stays_beside_it(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#value-name-height-name").click()
    page.get_by_label("Least letter height, mm").fill("99")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    expect(page.locator(".open-form .problem")).to_contain_text("The least letter height is above the most.")
    expect(page.get_by_label("Least letter height, mm")).to_have_value("99")
    page.keyboard.press("Escape")
    expect(page.locator(".open-form")).to_have_count(0)
    expect(page.locator("#value-name-height-name")).to_be_focused()


def test_try_out_keeps_what_was_typed_when_the_draft_changes(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#try-out [data-field=name]").fill("Kittiwake")
    expect(page.locator("#try-out #room-name")).to_have_text("room for 9 more")
    fill_aspect(page, "name-limit-", Most_characters="12")
    expect(page.locator("#try-out #room-name")).to_have_text("room for 3 more")
    expect(page.locator("#try-out [data-field=name]")).to_have_value("Kittiwake")


def test_word_that_is_being_typed_survives_an_answer_that_comes_in(open_page, copy):
    page = bench(open_page, copy)
    with page.expect_response(lambda answer: "/place/" in answer.url):
        page.locator(f'[data-imprint="{PANEL}"]').focus()
        page.keyboard.press("ArrowRight")
        page.get_by_label("Ask for").press_sequentially("Gift wrap")
    expect(page.get_by_label("Ask for")).to_have_value("Gift wrap")
    page.get_by_role("button", name="Add line").click()
    expect(page.locator(".sentence").last).to_contain_text("Gift wrap — a text")


def test_keys_lead_to_the_search_and_to_the_main_action(open_page, copy):
    page = bench(open_page, copy)
    page.locator("h1").click()
    page.keyboard.press("/")
    expect(page.get_by_label("Search orders and names on goods")).to_be_focused()
    fill_aspect(page, "name-case-", Produced="as typed")
    page.keyboard.press("Control+Enter")
    expect(page.locator(".setup-said")).to_contain_text("Revision 2 is live")


def test_dropped_picture_is_taken_like_a_picked_one(open_page):
    page = open_page("/goods/deck-cushion/")
    page.locator("[data-field=with-emblem] label", has_text="Yes").click()
    expect(page.locator("#line-emblem")).to_be_visible()
    data = json.dumps(list(picture_bytes((1200, 1200))))
    transfer = page.evaluate_handle(
        f"(() => {{ const t = new DataTransfer(); t.items.add(new File([new Uint8Array({data})], 'dropped.png')); return t; }})()"
    )
    page.locator("[data-upload=emblem]").dispatch_event("drop", {"dataTransfer": transfer})
    expect(page.locator("#held-emblem")).to_contain_text("dropped.png")
    expect(page.locator("#line-emblem .made")).to_contain_text("167 dpi at 182 × 182 mm")


def test_place_of_an_area_reads_in_millimetres(open_page, copy):
    assert place_of(bench(open_page, copy), PANEL) == [85, 40, 530, 96]


def test_kit_is_made_attached_and_published_with_its_products(open_page):
    page = open_page("/workshop/products/kits/", person="iris")
    page.get_by_label("Name of the kit").fill("Care")
    page.get_by_role("button", name="Make it").click()
    page.get_by_label("Ask for").fill("Oil it once more")
    page.locator(".new-line select").select_option(label="Yes or no")
    page.get_by_role("button", name="Add line").click()
    expect(page.locator(".sentence")).to_contain_text("Oil it once more")
    page.locator("#value-oil-it-once-more-charge-").click()
    form = page.locator(".open-form")
    form.get_by_label("Amount", exact=True).fill("3.20")
    form.get_by_role("button", name="Save").click()
    expect(page.locator(".sentence")).to_contain_text("Adds 3.20")
    page.goto(page.url.split("/workshop/")[0] + "/workshop/products/")
    page.get_by_label("Tick Slate berth sign").check()
    page.get_by_label("Kit", exact=True).select_option(label="Care")
    page.get_by_role("button", name="Attach it").click()
    expect(page.locator(".messages, .message, [role=status]").first).to_contain_text("1 product with the kit “Care”")
    page.goto(page.url.split("/workshop/")[0] + "/workshop/products/kits/care/publish/")
    expect(page.locator("tbody")).to_contain_text("Slate berth sign")
    page.get_by_role("button", name="Publish it in 1 product").click()
    page.goto(page.url.split("/workshop/")[0] + "/goods/slate-sign/")
    expect(page.locator("[data-field=care-oil-it-once-more]")).to_be_visible()
    expect(page.locator(".line", has_text="Oil it once more")).to_contain_text("£3.20")


def test_seller_translates_a_label_and_sees_it_as_a_customer(open_page):
    page = open_page("/workshop/products/key-float/", person="iris")
    page.get_by_role("link", name="Wording").click()
    page.get_by_label("Turned cork on a cord").fill("Gedrechselter Kork an einer Schnur.")
    page.get_by_label("Key number").fill("Nummer des Schlüssels")
    page.get_by_role("button", name="Save the wording").click()
    expect(page.locator(".message")).to_contain_text("The wording in Deutsch is saved.")
    page.get_by_role("link", name="Back to the set-up").click()
    page.get_by_label("Language of the customer").select_option("de")
    expect(page.locator("#try-out")).to_contain_text("Nummer des Schlüssels")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("#try-out")).not_to_contain_text("Nummer des Schlüssels")
    expect(page.get_by_label("Language of the customer")).to_have_value("de")


def test_what_ends_a_long_form_stays_in_sight_and_the_lines_keep_their_room(open_page):
    page = open_page("/workshop/products/burgee-pennant/?selected=flag/cloth", person="iris")
    page.locator("#shape-opener").click()
    expect(page.locator("#shape-form").get_by_role("button", name="Save")).to_be_in_viewport(ratio=1)
    assert page.locator(".order-form").bounding_box()["height"] > 300


def test_goods_lie_whole_on_the_bench_of_a_phone(open_page):
    page = open_page("/workshop/products/cedar-nameboard/", person="iris", size=PHONE)
    goods = page.locator("#bench image").first.bounding_box()
    assert goods["x"] > 4
    assert goods["x"] + goods["width"] < PHONE["width"] - 4


def test_action_that_takes_a_while_shows_that_it_is_under_way(open_page, copy):
    page = bench(open_page, copy)
    held = []
    page.route("**/windows/", lambda route: held.append(route))
    button = page.get_by_role("button", name="Windows")
    with page.expect_request("**/windows/"):
        button.click()
    expect(page.locator("button.htmx-request")).to_have_count(1)
    turning = "getComputedStyle(document.querySelector('button.htmx-request'), '::after').animationName"
    assert "turning" in page.evaluate(turning)
    held[0].continue_()
    expect(page.locator(".setup-said.problem")).to_contain_text("No hole was found")
    expect(page.locator("button.htmx-request")).to_have_count(0)
