"""Pages that are seen before their scripts have come: what is entered and pressed meanwhile counts."""

import re

from playwright.sync_api import expect

from tests.story.conftest import Held, bench
from tests.story.test_many import begun_list

SCRIPTS = re.compile(r"/js/(product_page|setup_page|page|list)|/vendor/htmx")


def seen_early(page, address):
    """Open a page whose scripts are held back."""
    held = Held(page, SCRIPTS)
    page.goto(address, wait_until="commit")
    return held


def test_name_that_is_typed_before_the_scripts_are_there_shows_on_the_goods(open_page):
    page = open_page("/")
    held = seen_early(page, "/goods/cedar-nameboard/")
    page.fill("#entry-name", "Tern")
    page.locator("[data-field=finish] label").last.click()
    held.pass_on()
    expect(page.locator("#room-name")).to_have_text("room for 14 more")


def test_button_that_is_pressed_before_the_scripts_are_there_acts_once_they_are(open_page):
    page = open_page("/")
    held = seen_early(page, "/goods/canvas-tote/")
    page.get_by_role("button", name="Round the crab").click()
    held.pass_on()
    expect(page.locator("[data-own-row]")).to_have_count(2)


def test_row_of_a_list_that_is_mended_before_the_scripts_are_there_is_checked(open_page, workshop):
    page = open_page("/goods/crew-patches/")
    begun_list(page)
    page.fill("#pasted", "Name\tDuty\nBartholomew-James\tMate\nOtto\tMate")
    page.get_by_role("button", name="Take these rows").click()
    expect(page.locator('tr[data-row="1"]')).to_have_attribute("data-verdict", "faulty")
    held = seen_early(page, page.url)
    page.locator('[name="cell-1-0"]').fill("Bart")
    page.locator('[name="cell-1-0"]').press("Tab")
    held.pass_on()
    expect(page.locator('tr[data-row="1"]')).to_have_attribute("data-verdict", "good")


def test_line_that_is_added_before_the_scripts_are_there_is_added(open_page, copy):
    page = bench(open_page, copy)
    held = seen_early(page, page.url)
    page.get_by_label("Ask for").fill("Gift wrap")
    page.get_by_role("button", name="Add line").click()
    held.pass_on()
    expect(page.locator(".sentence").last).to_contain_text("Gift wrap — a text")
