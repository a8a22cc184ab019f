"""The desk: a doubted name is asked back and corrected on a phone, a word is mended and paid, the week is replanned."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.story.conftest import PHONE, WIDE, Held, fill_checkout, settled
from tests.story.test_pages import fits, found_by_axe
from tests.sweeping import spread

COARSE = Path(__file__).parents[2] / "demo/products/deck-cushion/entries/assets/evening-sail.png"


def looked_at(workshop, name):
    """Wait until the pieces of a customer's order were looked at; return its number and its first preflight."""
    [(number,)] = workshop.rows("SELECT number FROM orders_order WHERE customer_name = %s", name)
    rows = wait_until(
        lambda: workshop.rows(
            "SELECT p.id FROM desk_preflight p JOIN orders_line l ON l.id = p.line_id "
            "JOIN orders_order o ON o.id = l.order_id WHERE o.number = %s ORDER BY p.id",
            number,
        ),
        what="the preflight",
    )
    return number, rows[0][0]


def ordered(open_page, workshop, name, product, fill):
    """Order and pay a piece; return the customer's page, the number and the preflight."""
    page = open_page(f"/goods/{product}/")
    fill(page)
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, name, "asta@post.example", "Quay 9")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name="Pay").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    return page, *looked_at(workshop, name)


def test_doubted_name_is_asked_back_and_corrected_on_a_phone(open_page, workshop):
    customer, number, preflight = ordered(
        open_page, workshop, "Asta Doubt", "cedar-nameboard", lambda page: page.fill("#entry-name", "L0ngshore")
    )
    desk = open_page("/workshop/orders/?waits=desk", person="noor")
    desk.locator(f"[data-order='{number}'] .row-link").click()
    expect(desk.locator(".line-stands")).to_contain_text("is held: Digits and letters")
    desk.locator(".line-stands a").click()
    assert found_by_axe(desk) == []
    desk.get_by_role("link", name="Ask the customer").first.click()
    wording = desk.get_by_label(re.compile("In Asta Doubt"))
    expect(wording).to_have_value(re.compile("Should it be “LONGSHORE”"))
    wording.fill(wording.input_value() + " Thank you!")
    desk.get_by_role("button", name="Ask", exact=True).click()
    expect(desk.locator("[data-question=open]")).to_contain_text("Thank you!")
    customer.reload()
    expect(customer.locator(".order-question")).to_contain_text("Should it be")
    [(token,)] = workshop.rows("SELECT token FROM desk_question WHERE preflight_id = %s", preflight)
    phone = open_page(f"/question/{token}/", size=PHONE)
    expect(phone.locator(".mark circle")).to_have_count(1)
    assert found_by_axe(phone) == []
    assert fits(phone)
    phone.get_by_role("link", name="Correct it").click()
    phone.fill("#entry-name", "Longshore")
    settled(phone)
    phone.get_by_role("button", name="Send my correction").click()
    expect(phone.get_by_text("letter for letter").first).to_be_visible()
    # What was corrected is still there.
    expect(phone.locator("#entry-name")).to_have_value("Longshore")
    phone.get_by_text("I have read it letter for letter").click()
    phone.get_by_role("button", name="Send my correction").click()
    expect(phone.get_by_text("This is answered")).to_be_visible()
    desk.reload()
    expect(desk.locator("[data-state=released]")).to_be_visible()
    expect(desk.locator(".versions")).to_contain_text("LONGSHORE")
    assert found_by_axe(desk) == []
    jobs = "SELECT j.state FROM production_job j JOIN orders_line l ON l.id = j.line_id JOIN orders_order o ON o.id = l.order_id WHERE o.number = %s"
    assert workshop.rows(jobs, number) == [("ready",)]


def test_customer_answers_with_a_turned_picture_on_a_machine_that_never_sent_it(open_page, workshop):
    def fill(page):
        page.fill("#entry-words", "Evening Tide")
        page.check("[name=entry-with-emblem][value=yes]")
        expect(page.locator("#line-emblem")).to_be_visible()
        settled(page)
        page.set_input_files("[data-field=emblem] input[type=file]", COARSE)
        expect(page.locator("[data-field=emblem]")).to_contain_text("evening-sail.png")
        settled(page)

    *_, preflight = ordered(open_page, workshop, "Asta Coarse", "deck-cushion", fill)
    desk = open_page(f"/workshop/desk/{preflight}/?ask=by-hand", person="noor")
    expect(desk.locator("[data-finding=coarse]")).to_contain_text("the customer, by a better file")
    desk.get_by_label(re.compile("In Asta Coarse")).fill("Will you turn it, please?")
    desk.get_by_role("button", name="Ask", exact=True).click()
    expect(desk.locator("[data-question=open]")).to_be_visible()
    [(token,)] = workshop.rows("SELECT token FROM desk_question WHERE preflight_id = %s", preflight)
    other = open_page(f"/question/{token}/", size=WIDE)
    shown = other.locator("[data-field=emblem] img").first
    expect(shown).to_be_visible()
    assert shown.evaluate("(image) => image.decode().then(() => image.naturalWidth)") > 0
    other.locator("[data-field=emblem] select[name=quarter_turns]").select_option("1")
    expect(other.locator("[data-field=emblem] select[name=quarter_turns]")).to_have_value("1")
    settled(other)
    other.get_by_text("I have read it letter for letter").click()
    other.get_by_role("button", name="Send my correction").click()
    expect(other.get_by_text("This is answered")).to_be_visible()
    made = "SELECT count(*) FROM designs_upload WHERE (preparation ->> 'quarter_turns')::int = 1"
    assert workshop.rows(made)[0][0] >= 1


def test_word_is_mended_by_the_desk_and_the_customer_pays_the_rest(open_page, workshop):
    customer, number, preflight = ordered(
        open_page, workshop, "Asta Mended", "cedar-nameboard", lambda page: page.fill("#entry-name", "Whimbrel")
    )
    desk = open_page(f"/workshop/desk/{preflight}/", person="noor")
    desk.get_by_role("link", name="Mend the entries").click()
    expect(desk.locator("#difference")).to_contain_text("Costs the same")
    desk.fill("#entry-name", "Whimbrel & Sons")
    expect(desk.locator("#difference")).to_contain_text("more than before")
    assert found_by_axe(desk) == []
    desk.get_by_label(re.compile("Why it is changed")).fill("You rang: with the sons")
    desk.get_by_role("button", name="Change it").click()
    expect(desk.get_by_text(f"T-{number}-1 is changed")).to_be_visible()
    customer.reload()
    expect(customer.locator(".more-to-pay")).to_contain_text("with the sons")
    assert found_by_axe(customer) == []
    customer.locator(".more-to-pay").get_by_role("button", name=re.compile("Pay")).click()
    expect(customer.locator(".more-to-pay")).to_have_count(0)
    order = open_page(f"/workshop/orders/{number}/", person="noor")
    expect(order.locator("[data-difference=settled]")).to_contain_text("paid")
    expect(order.locator(".timeline")).to_contain_text("You rang: with the sons")


def test_card_of_the_week_is_dragged_and_moved_by_keys(open_page, workshop):
    _, number, _ = ordered(
        open_page, workshop, "Asta Week", "cedar-nameboard", lambda page: page.fill("#entry-name", "Dunlin")
    )
    week = open_page("/workshop/production/", person="noor")
    card = week.locator(".job-card", has_text=f"T-{number}-1/1")
    card.scroll_into_view_if_needed()
    days = card.locator("xpath=ancestor::tr").locator("td[data-day]")
    day = card.locator("xpath=ancestor::td").get_attribute("data-day")
    all_days = [days.nth(at).get_attribute("data-day") for at in range(days.count())]
    at = all_days.index(day)
    target = at - 1 if at > 1 else at + 1
    box, to = card.bounding_box(), days.nth(target).bounding_box()
    week.mouse.move(box["x"] + 8, box["y"] + 8)
    week.mouse.down()
    week.mouse.move(to["x"] + 20, to["y"] + 20, steps=8)
    expect(days.nth(target)).to_have_class(re.compile("is-over-here"))
    week.mouse.up()
    expect(week.locator(".board-said")).to_contain_text(f"T-{number}-1/1 is planned for")
    assert card.locator("xpath=ancestor::td").get_attribute("data-day") == all_days[target]
    card.focus()
    week.keyboard.press("ArrowRight")
    expect(card.locator("xpath=ancestor::td")).to_have_attribute("data-day", all_days[target + 1])
    expect(card).to_be_focused()
    # Two steps back while the first is on its way are two.
    held = Held(week, "**/plan/")
    for _ in range(2):
        week.keyboard.press("ArrowLeft")
        held.wait_for_one()
    held.let_go()
    expect(card.locator("xpath=ancestor::td")).to_have_attribute("data-day", all_days[target - 1])
    assert week.url.endswith("/workshop/production/")
    assert found_by_axe(week) == []


@pytest.mark.parametrize("size", spread([WIDE, {"width": 1024, "height": 768}, PHONE]))
def test_pages_of_the_desk_fit_and_are_clean(open_page, workshop, size):
    page = open_page("/workshop/orders/", size=size, person="noor")
    assert found_by_axe(page) == []
    page.goto("/workshop/production/packing/")
    assert found_by_axe(page) == []
    assert fits(page)
    page.goto("/workshop/production/packing/2004/")
    assert found_by_axe(page) == []
    assert fits(page)
