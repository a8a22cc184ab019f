"""Changes of a draft take turns, however slow the line is or often it breaks: each is done, and once."""

import pytest
from playwright.sync_api import expect

from tests.story.conftest import NO_LINE, Held, bench, settled
from tests.story.test_by_hand import drag
from tests.story.test_from_setup_to_pack import fill_aspect


def front_of(page):
    """Return the first area of the bench and where it lies, in mm."""
    area = page.locator("#bench [data-imprint]").first
    return area, [float(number) for number in area.get_attribute("data-place").split()]


def lose_answers(page, address, times):
    """Have requests arrive whose answers find no line; return the statuses of those, as they come."""
    lost = []

    def lose(route):
        lost.append(route.fetch().status)
        route.abort()

    page.route(address, lose, times=times)
    return lost


def test_revision_that_is_published_waits_for_what_the_hand_has_just_moved(open_page, copy):
    page = bench(open_page, copy)
    fill_aspect(page, "name-limit-", Most_characters="13")
    area, (left, *_) = front_of(page)
    held = Held(page, "**/place/")
    area.focus()
    page.keyboard.press("Shift+ArrowRight")
    held.wait_for_one()
    page.locator("#publish").click()
    held.let_go()
    expect(page.locator(".setup-said")).to_contain_text("is live")
    page.reload()
    assert front_of(page)[1][0] == left + 10
    expect(page.locator("#publish")).to_be_disabled()


def test_what_the_hand_moves_while_the_line_is_lost_arrives_once_it_is_back(open_page, copy):
    page = bench(open_page, copy)
    area, (left, *_) = front_of(page)
    page.route("**/place/", lambda route: route.abort())
    area.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("#trouble")).to_be_visible()
    page.keyboard.press("Shift+ArrowRight")
    page.unroute("**/place/")
    expect(page.locator("#trouble")).to_be_hidden()
    settled(page)
    page.reload()
    assert front_of(page)[1][0] == left + 20
    open_page.harmless.append(NO_LINE)


@pytest.mark.sweep
def test_areas_that_are_drawn_one_after_another_on_a_slow_line_are_all_there(open_page, copy):
    page = bench(open_page, copy)
    ground = page.locator("#bench [data-ground]").first
    ground.scroll_into_view_if_needed()
    count, box = page.locator("#bench [data-imprint]").count(), ground.bounding_box()
    held = Held(page, "**/areas/*/")
    for at in range(3):
        drag(page, (box["x"] + 12 + 22 * at, box["y"] + 8), [(6, 6), (14, 12)])
        page.mouse.up()
        held.wait_for_one()
    held.let_go()
    expect(page.locator("#bench [data-imprint]")).to_have_count(count + 3)


@pytest.mark.sweep
def test_area_that_was_drawn_and_whose_answer_was_lost_is_there_once(open_page, copy):
    page = bench(open_page, copy)
    ground = page.locator("#bench [data-ground]").first
    ground.scroll_into_view_if_needed()
    count, box = page.locator("#bench [data-imprint]").count(), ground.bounding_box()
    lost = lose_answers(page, "**/areas/*/", 2)
    drag(page, (box["x"] + 12, box["y"] + 8), [(6, 6), (14, 12)])
    page.mouse.up()
    expect(page.locator("#bench [data-imprint]")).to_have_count(count + 1)
    assert lost == [200, 200]
    settled(page)
    page.reload()
    expect(page.locator("#bench [data-imprint]")).to_have_count(count + 1)
    open_page.harmless.append(NO_LINE)


@pytest.mark.sweep
def test_what_the_hand_moves_on_after_an_answer_was_lost_is_not_overtaken_by_itself(open_page, copy):
    page = bench(open_page, copy)
    area, (left, *_) = front_of(page)
    lost = lose_answers(page, "**/place/", 1)
    area.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("#trouble")).to_be_visible()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("#trouble")).to_be_hidden()
    settled(page)
    expect(page.locator(".problem.setup-said")).to_have_count(0)
    page.reload()
    assert front_of(page)[1][0] == left + 20
    assert lost == [200]
    open_page.harmless.append(NO_LINE)


def test_each_press_of_undo_takes_back_one_step_however_slow_the_line_is(open_page, copy):
    page = bench(open_page, copy)
    area, (left, *_) = front_of(page)
    for step in range(1, 4):
        area.focus()
        page.keyboard.press("Shift+ArrowRight")
        page.wait_for_function(
            f"() => document.querySelector('#bench [data-imprint]').dataset.place.startsWith('{left + 10 * step:g} ')"
        )
        settled(page)
    held = Held(page, "**/undo/")
    for _ in range(3):
        page.locator("#undo").click()
    held.wait_for_one()
    held.let_go()
    page.unroute("**/undo/")
    settled(page)
    expect(page.locator("#redo")).to_be_enabled()
    page.reload()
    assert front_of(page)[1][0] == left


@pytest.mark.sweep
def test_line_that_is_moved_twice_while_the_first_move_is_on_its_way_goes_two_places(open_page, copy):
    page = bench(open_page, copy)
    keys = [one.get_attribute("data-line") for one in page.locator("#sentences [data-line]").all()]
    held = Held(page, "**/move/")
    page.locator(f"#line-grip-{keys[0]}").focus()
    for _ in range(2):
        page.keyboard.press("Alt+ArrowDown")
        held.wait_for_one()
    held.let_go()
    expect(page.locator("#sentences [data-line]").nth(2)).to_have_attribute("data-line", keys[0])
