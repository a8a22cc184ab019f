"""A day at the workshop: what is paid is taken, made, spoilt, made again and sent; its customer reads along."""

import re

import pytest
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.core.artwork import samples
from tests.story.conftest import PHONE, fill_checkout, settled
from tests.story.test_pages import fits, found_by_axe
from tests.sweeping import spread

STATION = {"width": 1024, "height": 768}


def paid_order(open_page, workshop, name):
    """Order two cushions and pay; return the customer's page and the number."""
    page = open_page("/goods/deck-cushion/")
    page.fill("#entry-words", "Otter and Son")
    page.fill("#pieces", "2")
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, name, "tora@post.example", "Quay 7")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name="Pay").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    [(number,)] = workshop.rows("SELECT number FROM orders_order WHERE customer_name = %s", name)
    wait_until(
        lambda: workshop.rows(
            "SELECT j.id FROM production_job j JOIN orders_line l ON l.id = j.line_id "
            "JOIN orders_order o ON o.id = l.order_id WHERE o.number = %s",
            number,
        ),
        what="the jobs",
    )
    return page, number


def test_a_day_from_the_ticket_to_the_parcel(open_page, workshop):
    customer, number = paid_order(open_page, workshop, "Tora Floor")
    floor = open_page("/workshop/production/stations/press/", size=STATION, person="piet")
    scan = floor.get_by_label("Scan a ticket")
    expect(scan).to_be_focused()
    scan.fill(f"T-{number}-1")
    scan.press("Enter")
    in_hand = floor.locator(".in-hand")
    expect(in_hand).to_have_attribute("data-job", f"T-{number}-1/1")
    expect(in_hand).to_contain_text("Otter and Son")
    # Another one at the same station sees whose it is.
    other = open_page("/workshop/production/stations/press/", size=STATION, person="noor")
    expect(other.locator(".others")).to_contain_text("Piet")
    floor.get_by_label("How many are made").fill("1")
    floor.get_by_role("button", name="Made").click()
    expect(in_hand).to_contain_text("1 of 2 made")
    customer.reload()
    expect(customer.locator("#payment")).to_contain_text("1 of 2 pieces are made")
    expect(customer.get_by_text("Cancel this order")).to_have_count(0)
    floor.get_by_text("Spoilt…").click()
    floor.get_by_label("What happened").fill("The foil slipped")
    floor.get_by_role("button", name="Make it again").click()
    expect(floor.get_by_text("makes 1 again")).to_be_visible()
    scan.fill(f"T-{number}-1/1+2")
    scan.press("Enter")
    expect(in_hand).to_contain_text("Made again: The foil slipped")
    floor.get_by_role("button", name="Made").click()
    expect(floor.locator(".in-hand")).to_have_count(0)
    expect(floor.get_by_text("in the rack")).to_be_visible()
    packing = open_page("/workshop/production/packing/", size=STATION, person="noor")
    packing.get_by_label("Scan a ticket").fill(f"T-{number}-1")
    packing.get_by_label("Scan a ticket").press("Enter")
    expect(packing.get_by_text("All of it is packed")).to_be_visible()
    assert found_by_axe(packing) == []
    packing.get_by_role("button", name="Book it and send it").click()
    expect(packing.get_by_text("All of it is sent")).to_be_visible()
    customer.reload()
    expect(customer.locator("#payment")).to_contain_text("On its way")
    expect(customer.locator("#payment")).to_contain_text("Harbor Post")


def begin(floor, number):
    """Scan a ticket, and wait until it is in hand."""
    floor.get_by_label("Scan a ticket").fill(number)
    floor.get_by_label("Scan a ticket").press("Enter")
    expect(floor.locator(f".in-hand[data-job='{number}']")).to_be_visible()


def finish(floor):
    """Say that what is in hand is made."""
    floor.get_by_role("button", name="Made").click()
    expect(floor.locator(".in-hand")).to_have_count(0)


def test_an_order_goes_over_three_stations_from_the_week_to_the_parcel(open_page, workshop):
    customer = open_page("/goods/burgee-pennant/")
    customer.fill("[data-field=name]", "Dunlin")
    customer.check("[name=entry-with-emblem][value=yes]")
    settled(customer)
    crest = {"name": "crest.png", "mimeType": "image/png", "buffer": samples.logo_picture(size=(900, 900))}
    customer.set_input_files("[data-field=emblem] input[type=file]", crest)
    expect(customer.locator("[data-field=emblem]")).to_contain_text("crest.png")
    settled(customer)
    customer.get_by_role("button", name="Put in the basket").click()
    customer.goto("/goods/ships-bell/")
    customer.fill("[data-field=name]", "DUNLIN")
    customer.get_by_role("button", name="Put in the basket").click()
    customer.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(customer, "Una Threeways", "una@post.example", "Quay 8")
    customer.get_by_role("button", name="Order and go on").click()
    customer.get_by_role("button", name="Pay").click()
    expect(customer.locator("[data-order-state=paid]")).to_be_visible()
    [(number,)] = workshop.rows("SELECT number FROM orders_order WHERE customer_name = 'Una Threeways'")
    jobs = (
        "SELECT j.place, j.method FROM production_job j JOIN orders_line l ON l.id = j.line_id "
        "JOIN orders_order o ON o.id = l.order_id WHERE o.number = %s ORDER BY l.number, j.place"
    )
    steps = wait_until(lambda: len(found := workshop.rows(jobs, number)) == 3 and found, what="the jobs")
    where = {"cut-cloth": "loft", "transfer-print": "press", "engraving": "graver"}
    first, second = (
        open_page(f"/workshop/production/stations/{where[method]}/", person="piet") for _, method in steps[:2]
    )
    # What comes later on a piece isn't there before its time.
    second.get_by_label("Scan a ticket").fill(f"T-{number}-1")
    second.get_by_label("Scan a ticket").press("Enter")
    expect(second.get_by_text(f"T-{number}-1").first).to_be_visible()
    expect(second.locator(".in-hand")).to_have_count(0)
    begin(first, f"T-{number}-1/1")
    finish(first)
    begin(second, f"T-{number}-1/2")
    finish(second)
    expect(second.get_by_text("in the rack")).to_be_visible()
    graver = open_page("/workshop/production/stations/graver/", person="piet")
    begin(graver, f"T-{number}-2/1")
    week = open_page("/workshop/production/", person="noor")
    expect(week.locator(f"tr[data-job='T-{number}-2/1']")).to_contain_text("Piet")
    finish(graver)
    packing = open_page("/workshop/production/packing/", person="noor")
    for ticket, said in ((1, "Book it and send it as a part"), (2, "All of it is packed")):
        packing.get_by_label("Scan a ticket").fill(f"T-{number}-{ticket}")
        packing.get_by_label("Scan a ticket").press("Enter")
        expect(packing.get_by_text(said).first).to_be_visible()
    packing.get_by_role("button", name="Book it and send it").click()
    customer.reload()
    expect(customer.locator("#payment")).to_contain_text("On its way")


@pytest.mark.parametrize("size", spread([STATION, PHONE]))
def test_station_and_week_fit_and_are_clean(open_page, workshop, size):
    paid_order(open_page, workshop, f"Tora {size['width']}")
    page = open_page("/workshop/production/stations/press/", size=size, person="piet")
    assert found_by_axe(page) == []
    assert fits(page)
    page.get_by_role("button", name=re.compile("Take the next")).click()
    expect(page.locator(".in-hand")).to_be_visible()
    assert found_by_axe(page) == []
    assert fits(page)
    page.get_by_role("button", name="Put it back").click()
    page.goto("/workshop/production/")
    assert found_by_axe(page) == []
