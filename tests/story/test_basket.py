"""The basket as customers use it: asked once more, counted, copied, taken out and put back, looked at large."""

import pytest
from playwright.sync_api import expect

from tests.story.conftest import PHONE, WIDE, fill_checkout
from tests.story.test_pages import fits, found_by_axe
from tests.sweeping import spread


def test_what_is_probably_wrong_is_asked_and_the_workshop_reads_what_was_meant(open_page, workshop):
    page = open_page("/goods/deck-cushion/")
    page.fill("#entry-words", "JOhn , Bert")
    expect(page.locator("#line-words [data-question]")).to_have_count(2)
    page.get_by_role("button", name="Write “JOhn, Bert”").click()
    expect(page.locator("#entry-words")).to_have_value("JOhn, Bert")
    expect(page.locator("#line-words [data-question]")).to_have_count(1)
    page.get_by_role("button", name="Put in the basket").click()
    # It keeps nobody from anything, and is asked once more.
    expect(page.locator(".piece [data-question=stray_capital]")).to_be_visible()
    page.get_by_role("button", name="It is right so").click()
    expect(page.locator("[data-question]")).to_have_count(0)
    page.get_by_role("link", name="Change").click()
    expect(page.locator("#entry-words")).to_have_value("JOhn, Bert")
    expect(page.locator("[data-question]")).to_have_count(0)
    page.fill("#entry-words", "JOhnny, Bert")
    expect(page.locator("#line-words [data-question]")).to_have_count(1)
    page.get_by_role("button", name="It is right so").click()
    expect(page.locator("#line-words [data-question]")).to_have_count(0)
    page.reload()
    expect(page.locator("#entry-words")).to_have_value("JOhnny, Bert")
    expect(page.locator("[data-question]")).to_have_count(0)
    page.get_by_role("button", name="Save the changes").click()
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Johnny Breakwater", "johnny@post.example", "Quay 9\nSandwick")
    page.get_by_role("button", name="Order and go on to payment").click()
    expect(page.locator("[data-order-state]")).to_be_visible()
    [(number,)] = workshop.rows("SELECT number FROM orders_order WHERE customer_name = %s", "Johnny Breakwater")
    desk = open_page(f"/workshop/orders/{number}/", person="mara")
    expect(desk.locator("[data-question=stray_capital]")).to_contain_text("The customer meant it so: JOhnny, Bert")


@pytest.mark.parametrize("size", spread([PHONE, WIDE]))
def test_the_basket_copies_counts_shows_large_and_puts_back(open_page, size):
    page = open_page("/goods/deck-cushion/", size=size)
    page.fill("#entry-words", "Otter & Son")
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("button", name="Copy").click()
    expect(page.locator(".piece")).to_have_count(2)
    page.locator("[name=pieces]").first.fill("3")
    page.locator("[name=pieces]").first.press("Enter")
    expect(page.locator("[data-total]").last).to_have_attribute("data-total", "192.00")
    page.locator("[data-large]").first.focus()
    page.keyboard.press("Enter")
    expect(page.locator("dialog.large img")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator("dialog.large")).to_be_hidden()
    page.get_by_role("button", name="Remove").first.click()
    expect(page.locator(".piece")).to_have_count(1)
    page.get_by_role("button", name="Put it back").click()
    expect(page.locator(".piece")).to_have_count(2)
    expect(page.locator("[data-total]").last).to_have_attribute("data-total", "192.00")
    assert fits(page)
    assert found_by_axe(page) == []
