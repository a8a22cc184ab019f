"""Answers that are held back while somebody goes on: none of them takes away what was typed meanwhile."""

import re

import pytest
from playwright.sync_api import expect

from tests.core.conftest import picture_bytes
from tests.story.conftest import NO_LINE, Held, bench, emblem_page, settled
from tests.story.test_by_hand import drag
from tests.story.test_from_setup_to_pack import fill_aspect

# All lines of the slip as an answer would bring them that knows nothing of what was typed.
OLD_LINES = """() => [...document.querySelectorAll("#slip-form .line[id]")].map((line) => {
  const old = line.cloneNode(true);
  for (const one of old.querySelectorAll("input.entry")) one.setAttribute("value", "");
  for (const one of old.querySelectorAll("option")) one.removeAttribute("selected");
  old.setAttribute("hx-swap-oob", "true");
  return old.outerHTML;
}).join("")"""


def type_into(page, selector, words):
    page.locator(selector).press_sequentially(words)


@pytest.mark.sweep
def test_address_that_is_laid_out_anew_keeps_what_was_typed_meanwhile(open_page):
    page = open_page("/goods/harbor-pass/")
    page.get_by_role("button", name="Next page").click()
    page.fill("#entry-holder", "Juna Farwater")
    page.fill("#entry-born", "1988-05-14")
    page.select_option("#entry-berth", "guest")
    page.get_by_role("button", name="Next page").click()
    page.locator("[data-field=rules] label", has_text="Yes").click()
    page.get_by_role("button", name="Next page").click()
    page.locator("[data-field=how] label", has_text="By post").click()
    expect(page.locator("#entry-post-town")).to_be_visible()
    settled(page)
    held = Held(page, "**/preview/")
    page.select_option("#entry-post-country", "DE")
    held.wait_for_one()
    for part, words in (("name", "Ann Fairwater"), ("street", "Am Kai 3"), ("town", "Hallow")):
        page.fill(f"#entry-post-{part}", words)
    type_into(page, "#entry-post-postcode", "26133")
    held.let_go()
    for part, words in (("name", "Ann Fairwater"), ("street", "Am Kai 3"), ("postcode", "26133"), ("town", "Hallow")):
        expect(page.locator(f"#entry-post-{part}")).to_have_value(words)
    expect(page.locator("[name='entry-post.country']")).to_have_value("DE")
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_contain_text("Ann Fairwater, Am Kai 3, 26133 HALLOW, GERMANY")


def test_every_kind_of_control_keeps_its_newest_value_while_its_line_comes_anew(open_page):
    page = open_page("/goods/harbor-pass/")
    settled(page)
    held = Held(page, "**/preview/")
    page.fill("#entry-holder", "A")
    held.wait_for_one()
    # While that is under way, a field of each kind on the page is changed.
    page.fill("#entry-holder", "Juna Farwater")
    page.fill("#entry-born", "1988-05-14")
    page.select_option("#entry-berth", "guest")
    before = page.evaluate("Object.fromEntries(new FormData(document.getElementById('slip-form')))")
    # The answer lays every line out anew, as it was when it was asked for.
    stale = page.evaluate(OLD_LINES)
    held.let_go(stale)
    after = page.evaluate("Object.fromEntries(new FormData(document.getElementById('slip-form')))")
    for name in ("entry-holder", "entry-born", "entry-berth"):
        assert after[name] == before[name]
    expect(page.locator("#entry-holder")).to_have_value("Juna Farwater")


def test_file_that_arrives_while_what_was_entered_comes_back_stays(open_page, tmp_path):
    (tmp_path / "otter.png").write_bytes(picture_bytes((600, 600)))
    page = emblem_page(open_page)
    expect(page.locator("#slip-form")).to_have_attribute("data-is-kept", "yes")
    # The workshop doesn't hear of what is entered last: after a reload it comes back from this tab's own memory.
    page.route("**/keep/", lambda route: route.abort())
    page.fill("[data-field=words]", "Tern & Son")
    settled(page)
    held = Held(page, "**/again/")
    page.reload()
    held.wait_for_one()
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "otter.png")
    expect(page.locator("#held-emblem .held-file")).to_contain_text("otter.png")
    held.let_go()
    expect(page.locator("[data-field=words]")).to_have_value("Tern & Son")
    expect(page.locator("#held-emblem .held-file")).to_have_count(1)
    expect(page.locator("#held-emblem .held-file")).to_contain_text("otter.png")
    expect(page.locator("#ink-reverse image, #ink-reverse path")).not_to_have_count(0)
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_contain_text("otter.png")
    open_page.harmless.append(NO_LINE)


@pytest.mark.sweep
def test_try_out_keeps_what_is_typed_while_the_draft_changes_slowly(open_page, copy):
    page = bench(open_page, copy)
    held = Held(page, "**/try-out/refresh/")
    page.locator("#try-out [data-field=name]").fill("Kitti")
    held.wait_for_one()
    page.locator("#try-out [data-field=name]").fill("Kittiwake")
    held.let_go()
    expect(page.locator("#try-out [data-field=name]")).to_have_value("Kittiwake")
    expect(page.locator("#try-out #room-name")).to_have_text("room for 9 more")


def laid_out_anew_soon(page):
    """Return what holds back the answer that lays out the try-out of a tote anew, with two items on it."""
    slip = page.locator("#try-out")
    slip.get_by_role("button", name="Round the crab").click()
    expect(slip.locator("[data-own-row]")).to_have_count(2)
    settled(page)
    anew = Held(page, "**/try-out/")
    slip.evaluate("one => { one.dataset.isOld = 'yes' }")
    page.locator("#value-own-label-").click()
    page.get_by_label("Label for the customer").fill("Yours to fill")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    anew.wait_for_one()
    return slip, anew


@pytest.mark.sweep
def test_answer_to_a_form_that_was_laid_out_anew_meanwhile_is_taken_as_a_whole(open_page, tote_copy):
    page = bench(open_page, tote_copy)
    slip, anew = laid_out_anew_soon(page)
    # More is put on it; that answer comes after the new form is there.
    late = Held(page, "**/try-out/refresh/")
    slip.get_by_role("button", name="Name and catch").click()
    late.wait_for_one()
    anew.pass_on()
    expect(page.locator("#try-out[data-is-old]")).to_have_count(0)
    late.let_go()
    expect(slip.locator("[data-own-row]")).to_have_count(3)
    slip.get_by_role("button", name="Round the crab").click()
    expect(slip.locator("[data-own-row]")).to_have_count(2)


@pytest.mark.sweep
def test_what_is_dragged_while_the_try_out_is_to_be_laid_out_anew_stays_in_the_hand(open_page, tote_copy):
    page = bench(open_page, tote_copy)
    slip, anew = laid_out_anew_soon(page)
    # The crab is in the middle of the words round it.
    held = slip.locator(".goods [data-item]").last
    held.scroll_into_view_if_needed()
    before, box = held.get_attribute("data-shift"), held.bounding_box()
    drag(page, (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), [(6, 0), (12, 4)])
    expect(slip.locator(".is-dragged")).to_have_count(1)
    anew.let_go()
    expect(page.locator("#try-out[data-is-old]")).to_have_count(1)
    page.mouse.up()
    expect(slip).to_contain_text("Yours to fill")
    expect(page.locator("#try-out[data-is-old]")).to_have_count(0)
    expect(held).not_to_have_attribute("data-shift", before)


@pytest.mark.sweep
def test_press_that_is_answered_before_the_try_out_is_laid_out_anew_stays(open_page, tote_copy):
    page = bench(open_page, tote_copy)
    slip, anew = laid_out_anew_soon(page)
    slip.get_by_role("button", name="Name and catch").click()
    expect(slip.locator("[data-own-row]")).to_have_count(3)
    anew.let_go()
    expect(page.locator("#try-out[data-is-old]")).to_have_count(0)
    expect(slip.locator("[data-own-row]")).to_have_count(3)
    expect(slip).to_contain_text("Yours to fill")


@pytest.mark.sweep
def test_press_while_what_was_entered_comes_back_is_done_with_it(open_page):
    page = open_page("/goods/canvas-tote/")
    page.route("**/keep/", lambda route: route.abort())
    page.get_by_role("button", name="Round the crab").click()
    expect(page.locator("[data-own-row]")).to_have_count(2)
    settled(page)
    held = Held(page, "**/again/")
    page.reload()
    held.wait_for_one()
    page.get_by_role("button", name="Name and catch").click()
    held.let_go()
    expect(page.locator("[data-own-row]")).to_have_count(3)
    open_page.harmless.append(NO_LINE)


def test_what_was_entered_comes_back_also_when_the_line_is_lost_meanwhile(open_page):
    page = open_page("/goods/cedar-nameboard/")
    page.route("**/keep/", lambda route: route.abort())
    page.fill("#entry-name", "Tern")
    settled(page)
    page.route("**/again/", lambda route: route.abort(), times=2)
    page.reload()
    expect(page.locator("#entry-name")).to_have_value("Tern")
    expect(page.locator("#trouble")).to_be_hidden()
    open_page.harmless.append(NO_LINE)


def test_two_values_are_open_at_once_and_saving_one_leaves_the_other(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#value-name-limit-").click()
    expect(page.locator(".open-form")).to_have_count(1)
    page.locator("#value-finish-label-").click()
    expect(page.locator(".open-form")).to_have_count(2)
    page.locator(".open-form").last.get_by_label("Label for the customer").fill("Paint")
    page.get_by_label("Most characters").fill("11")
    page.locator(".open-form").first.get_by_role("button", name="Save").click()
    expect(page.locator("#value-name-limit-")).to_contain_text("11")
    expect(page.locator(".open-form")).to_have_count(1)
    expect(page.get_by_label("Label for the customer")).to_have_value("Paint")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    expect(page.locator("[data-line=finish]")).to_contain_text("Paint — a color")
    expect(page.locator(".open-form")).to_have_count(0)


def test_line_that_is_added_and_a_revision_that_is_published_wait_for_a_save_that_is_under_way(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#value-name-limit-").click()
    page.get_by_label("Most characters").fill("13")
    held = Held(page, "**/lines/name/limit/**")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    held.wait_for_one()
    page.get_by_label("Ask for").fill("Gift wrap")
    page.get_by_role("button", name="Add line").click()
    held.let_go()
    expect(page.locator(".sentence").last).to_contain_text("Gift wrap — a text")
    expect(page.locator("#value-name-limit-")).to_contain_text("13")
    expect(page.get_by_label("Ask for")).to_have_value("")
    page.locator("#value-name-limit-").click()
    page.get_by_label("Most characters").fill("14")
    held = Held(page, "**/lines/name/limit/**")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    held.wait_for_one()
    page.get_by_label("Ask for").fill("Gift card")
    page.get_by_role("button", name="Add line").click()
    page.locator("#publish").click()
    held.let_go()
    # Both wait, and go one after the other.
    expect(page.locator(".setup-said")).to_contain_text("is live")
    expect(page.locator(".sentence").last).to_contain_text("Gift card — a text")
    expect(page.locator("#value-name-limit-")).to_contain_text("14")


def test_revision_is_not_published_after_a_value_that_was_refused(open_page, copy):
    page = bench(open_page, copy)
    fill_aspect(page, "name-limit-", Most_characters="13")
    page.locator("#value-name-limit-").click()
    page.get_by_label("Most characters").fill("0")
    # Its browser would not send that.
    page.locator(".open-form").evaluate("form => { form.noValidate = true }")
    held = Held(page, "**/lines/name/limit/**")
    page.locator(".open-form").get_by_role("button", name="Save").click()
    held.wait_for_one()
    page.locator("#publish").click()
    held.let_go()
    expect(page.locator("#trouble")).to_contain_text("was not made")
    expect(page.locator("#publish")).to_be_enabled()
    assert page.locator(".setup-said").count() == 0


@pytest.mark.sweep
def test_what_was_left_as_it_is_is_not_found_again(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#value-name-limit-").click()
    page.get_by_label("Most characters").fill("99")
    page.get_by_role("button", name="Leave as it is").click()
    fill_aspect(page, "finish-label-", Label_for_the_customer="Paint")
    page.locator("#value-name-limit-").click()
    expect(page.get_by_label("Most characters")).not_to_have_value("99")


@pytest.mark.sweep
def test_form_with_a_field_called_remove_closes_and_outlives_the_save_of_another(open_page, copy):
    page = bench(open_page, copy)
    page.locator("#value-finish-charge-finish").click()
    expect(page.get_by_label("Take this charge away")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator(".open-form")).to_have_count(0)
    page.locator("#value-finish-charge-finish").click()
    page.locator("#value-name-limit-").click()
    page.get_by_label("Most characters").fill("12")
    page.locator(".open-form", has_text="Most characters").get_by_role("button", name="Save").click()
    expect(page.locator("#value-name-limit-")).to_contain_text("12")
    expect(page.get_by_label("Take this charge away")).to_be_visible()
    # That nothing was said on the console is looked at in the end, as in every story.


@pytest.mark.sweep
def test_page_that_is_left_while_it_sends_says_nothing(open_page):
    page = open_page("/goods/cedar-nameboard/")
    held = Held(page, "**/preview/")
    type_into(page, "#entry-name", "Tern")
    held.wait_for_one()
    said = []
    page.on("dialog", lambda dialog: said.append(dialog.message))
    page.get_by_role("link", name="Basket").first.click()
    expect(page).to_have_url(re.compile("/basket/$"))
    expect(page.locator("#trouble")).to_be_hidden()
    assert said == []
    page.go_back()
    expect(page.locator("#trouble")).to_be_hidden()
