"""How large it is: a ruler on the goods, and true size on a screen that a bank card has measured."""

import pytest
from playwright.sync_api import expect

from tests.story.conftest import PHONE, WIDE
from tests.story.test_pages import fits, found_by_axe


@pytest.mark.parametrize("size", [WIDE, PHONE])
def test_ruler_lies_on_the_goods_in_their_millimetres(open_page, size):
    page = open_page("/goods/cedar-nameboard/", size=size)
    page.get_by_role("button", name="Ruler").click()
    # The board is 700 mm wide: marks each 50 mm, numbers each 100.
    numbers = page.locator(".goods:not([hidden]) .ruler-number").all_text_contents()
    assert {"0", "100", "200", "700"} <= set(numbers)
    page.fill("[data-field=name]", "Otter")
    expect(page.locator("#ink-front path")).not_to_have_count(0)
    expect(page.locator(".ruler")).not_to_have_count(0)
    assert fits(page)
    page.get_by_role("button", name="Ruler").click()
    expect(page.locator(".ruler")).to_have_count(0)


def test_goods_are_as_large_as_the_card_says_and_that_is_remembered(open_page):
    page = open_page("/goods/key-float/")
    page.get_by_role("button", name="True size").click()
    card, goods = page.locator(".bank-card"), page.locator("[data-true-goods]")
    view = goods.get_attribute("viewBox").split()
    page.locator("[data-px-per-mm]").fill("5")
    box = card.bounding_box()
    assert abs(box["width"] - 85.6 * 5) < 1
    assert abs(box["height"] - 53.98 * 5) < 1
    assert abs(goods.bounding_box()["width"] - float(view[2]) * 5) < 1
    page.locator("[data-beside]").select_option("coin")
    page.locator("[data-coin-mm]").fill("30")
    assert abs(page.locator("[data-true-beside]").bounding_box()["width"] - 150) < 1
    page.locator("[data-beside]").select_option("hand")
    assert abs(page.locator("[data-true-beside]").bounding_box()["height"] - 950) < 1
    assert found_by_axe(page) == []
    page.keyboard.press("Escape")
    page.reload()
    page.get_by_role("button", name="True size").click()
    expect(page.locator("[data-px-per-mm]")).to_have_value("5")
    expect(page.locator("[data-calibrate]")).not_to_have_attribute("open", "")
