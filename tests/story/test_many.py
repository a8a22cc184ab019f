"""Many at once, and once more: a crew from a spreadsheet, a design that wanders, an order again."""

import re
from datetime import UTC, datetime, timedelta

import pytest
from openpyxl import Workbook
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.story.conftest import PHONE, WIDE, fill_checkout
from tests.story.test_pages import fits, found_by_axe
from tests.sweeping import spread

DUTIES = ("Skipper", "Mate", "Engineer", "Cook", "Deck hand")
NAMES = (
    *("Wilma", "Otto", "Juna", "Pelle", "Runa", "Tova", "Ines", "Nils", "Oskar", "Maren", "Levi", "Sunniva"),
    *("Kaj", "Liv", "Tobias", "Alma", "Frode", "Signe", "Bo", "Astrid", "Eskil", "Dag", "Eir", "Hedda"),
)


def crew(path):
    """Write a spreadsheet of 24, three of whom can't be made as they stand."""
    book = Workbook()
    sheet = book.active
    sheet.append(["Given name", "Job aboard", "How many"])
    for at, name in enumerate(NAMES):
        sheet.append([name, DUTIES[at % len(DUTIES)], 1])
    sheet["A4"], sheet["B7"], sheet["C9"] = "Bartholomew-James", "Stoker", "some"
    book.save(path)
    return path


def mend(page, number, column, words):
    cell = page.locator(f'[data-row="{number}"] [data-column="{column}"]')
    cell.fill(words)
    cell.press("Tab")
    expect(page.locator(f'[data-row="{number}"]')).to_have_attribute("data-verdict", "good")


def begun_list(page):
    page.get_by_role("button", name="Many from a list").click()
    page.wait_for_url(re.compile("/lists/"))


def test_crew_of_24_goes_from_a_spreadsheet_with_three_faulty_rows_to_an_order(open_page, workshop, tmp_path):
    page = open_page("/goods/crew-patches/")
    begun_list(page)
    page.set_input_files("[name=sheet]", crew(tmp_path / "crew.xlsx"))
    page.get_by_role("button", name="Take these rows").click()
    # Its heads say nothing; the columns are told by what stands in them.
    for at, target in enumerate(("name", "duty", "@pieces")):
        expect(page.locator(f"[name=target-{at}]")).to_have_value(target)
    expect(page.locator('[data-verdict="faulty"]')).to_have_count(3)
    page.get_by_role("link", name="To be mended").click()
    expect(page.locator("tr[data-row]")).to_have_count(3)
    with page.expect_download() as marked:
        page.get_by_role("link", name="These as XLSX").click()
    assert marked.value.suggested_filename.endswith(".xlsx")
    mend(page, 3, 0, "Bart")
    mend(page, 6, 1, "Cook")
    mend(page, 8, 2, "2")
    expect(page.locator("#list-filters")).to_contain_text("To be mended 0")
    page.get_by_role("button", name="Put the 24 rows in the basket").click()
    expect(page.locator("[data-list]")).to_contain_text("A list of 24 rows")
    page.get_by_role("link", name="Go to the checkout").click()
    expect(page.locator(".checked-rows li")).to_have_count(24)
    fill_checkout(page, "Hedda Crewlist", "hedda@post.example", "Quay 2")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name="Pay").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    expect(page.locator("[data-row]")).to_have_count(24)
    [(number, quantity)] = workshop.rows(
        "SELECT o.number, l.quantity FROM orders_order o JOIN orders_line l ON l.order_id = o.id "
        "WHERE o.customer_name = %s",
        "Hedda Crewlist",
    )
    assert quantity == 25
    desk = open_page(f"/workshop/orders/{number}/", person="noor")
    expect(desk.locator("[data-row]")).to_have_count(24)
    expect(desk.get_by_role("link", name=f"T-{number}-1.zip")).to_be_visible(timeout=120_000)
    # The loft makes them in the order of the list; one that is spoilt is made again.
    loft = open_page("/workshop/production/stations/loft/", person="piet")
    for index in (1, 2):
        loft.get_by_label("Scan a ticket").fill(f"T-{number}-1.{index}")
        loft.get_by_label("Scan a ticket").press("Enter")
        expect(loft.locator(f"[data-job='T-{number}-1.{index}/1'].in-hand")).to_contain_text(NAMES[index - 1].upper())
        expect(loft.locator(f".coming [data-job='T-{number}-1.{index + 1}/1']")).to_have_count(1)
        loft.get_by_role("button", name="Made").click()
        expect(loft.locator(".in-hand")).to_have_count(0)
    page.reload()
    expect(page.locator("#payment")).to_contain_text("2 of 25 pieces are made")


def test_group_of_three_each_with_their_own_patch_and_one_pays_for_all(open_page, workshop):
    organiser = open_page("/goods/crew-patches/")
    begun_list(organiser)
    organiser.get_by_role("link", name="Let each fill in their own").click()
    organiser.get_by_label("What is it for?").fill("Lamp Island regatta")
    organiser.get_by_label("Your name, as the group knows you").fill("Wilma")
    organiser.get_by_label("The last day to order").fill((datetime.now(UTC).date() + timedelta(days=7)).isoformat())
    organiser.get_by_role("button", name="Make the group's page").click()
    link = organiser.locator("#group-link").input_value()
    for member, duty in (("Wilma", "Skipper"), ("Otto", "Mate"), ("Juna", "Cook")):
        page = open_page(link, size=PHONE)
        page.get_by_label("Your name").fill(member)
        page.get_by_label("Name", exact=True).fill(member)
        page.get_by_label("Duty", exact=True).select_option(label=duty)
        # They see their own as it will be made, before they order it.
        expect(page.locator(".piece-pictures [data-total]")).to_be_visible()
        expect(page.locator(".piece-pictures .problem")).to_have_count(0)
        page.get_by_role("button", name="Order mine").click()
        expect(page.locator(".own-row")).to_have_count(1)
        expect(page.locator(".own-row")).to_contain_text(member)
    organiser.reload()
    for member in ("Wilma", "Otto", "Juna"):
        expect(organiser.locator("tr[data-row]", has_text=member)).to_have_count(1)
    organiser.get_by_role("button", name="Put the 3 rows in the basket").click()
    organiser.get_by_role("link", name="Go to the checkout").click()
    expect(organiser.locator(".checked-rows li")).to_have_count(3)
    fill_checkout(organiser, "Wilma Gannet", "wilma@post.example", "Lamp Island")
    organiser.get_by_role("button", name="Order and go on").click()
    organiser.get_by_role("button", name="Pay").click()
    expect(organiser.locator("[data-order-state=paid]")).to_be_visible()
    expect(organiser.locator("[data-row]")).to_have_count(3)
    late = open_page(link, size=PHONE)
    expect(late.locator(".advice")).to_contain_text("This takes no more orders.")


def test_rows_pasted_over_a_cell_spread_and_are_checked(open_page, workshop):
    page = open_page("/goods/crew-patches/")
    begun_list(page)
    page.fill("#pasted", "Name\tDuty\nWilma\tMate\nOtto\tMate\nInes\tMate")
    page.get_by_role("button", name="Take these rows").click()
    page.locator('[name="cell-2-0"]').focus()
    page.evaluate(
        """() => {
          const data = new DataTransfer();
          data.setData("text/plain", "Runa\\tStoker\\nTova\\tCook\\n");
          document.activeElement.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true }));
        }"""
    )
    expect(page.locator('tr[data-row="2"]')).to_have_attribute("data-verdict", "faulty")
    expect(page.locator('[name="cell-2-1"]')).to_have_attribute("aria-invalid", "true")
    expect(page.locator('tr[data-row="3"]')).to_have_attribute("data-verdict", "good")
    page.reload()
    expect(page.locator('[name="cell-3-0"]')).to_have_value("Tova")


def test_what_is_typed_while_a_row_is_checked_stays(open_page, workshop):
    page = open_page("/goods/crew-patches/")
    begun_list(page)
    page.fill("#pasted", "Name\tDuty\nWilma\tMate\nOtto\tMate")
    page.get_by_role("button", name="Take these rows").click()
    held = []
    page.route("**/lists/*/1/", lambda route: held.append(route))
    page.locator('[name="cell-1-0"]').fill("Ada")
    with page.expect_request("**/lists/*/1/"):
        page.locator('[name="cell-1-0"]').press("Tab")
    page.locator('[name="cell-1-1"]').fill("Co")
    held[0].continue_()
    expect(page.locator("#picture-1 img")).to_be_visible()
    expect(page.locator('[name="cell-1-1"]')).to_have_value("Co")
    expect(page.locator('[name="cell-1-0"]')).to_have_value("Ada")
    page.unroute("**/lists/*/1/")


@pytest.mark.parametrize("size", spread([WIDE, PHONE]))
def test_pages_of_lists_and_designs_fit_and_are_clean(open_page, workshop, size):
    page = open_page("/goods/crew-patches/", size=size)
    begun_list(page)
    page.fill("#pasted", "Name\tDuty\nWilma\tMate\nOtto\tStoker")
    page.get_by_role("button", name="Take these rows").click()
    expect(page.locator("tr[data-row]")).to_have_count(2)
    assert found_by_axe(page) == []
    assert fits(page)
    page.goto("/designs/")
    assert found_by_axe(page) == []
    assert fits(page)


def test_design_begun_on_the_phone_is_finished_on_the_desktop_by_a_mailed_link(open_page, workshop):
    phone = open_page("/goods/slate-sign/", size=PHONE)
    phone.locator("textarea[name^=entry-]").first.fill("Harbor House")
    phone.get_by_role("button", name="Keep it for later").click()
    phone.get_by_role("link", name="Go on elsewhere").click()
    phone.get_by_label("Your mail address").fill("tove@post.example")
    phone.get_by_role("button", name="Mail me the link").click()
    expect(phone.get_by_text("A link is on its way")).to_be_visible()
    link = mailed_link(workshop, "look")
    desktop = open_page(link)
    expect(desktop.get_by_text("Harbor House")).to_be_visible()
    desktop.get_by_role("button", name="Go on here").click()
    expect(desktop.locator("textarea[name^=entry-]").first).to_have_value("Harbor House")
    desktop.locator("textarea[name^=entry-]").first.fill("Harbor House 2")
    desktop.get_by_role("button", name="Save the changes").click()
    expect(desktop.locator(".piece")).to_contain_text("Harbor House 2")
    phone.goto("/designs/")
    expect(phone.locator(".design")).to_contain_text("Harbor House")
    expect(phone.locator(".design")).not_to_contain_text("Harbor House 2")


def mailed_link(workshop, kind):
    """Return where the latest link of a kind leads, once it was mailed."""

    def found():
        kept = sorted((workshop.folder / "files").glob(f"**/{kind}-*.eml"))
        text = kept[-1].read_text().replace("=\n", "").replace("=3D", "=") if kept else ""
        return re.search(r"/look/\S+/", text)

    return wait_until(found, what="the mail")[0]


def test_order_is_ordered_again_with_one_changed_letter(open_page, workshop):
    page = open_page("/goods/deck-cushion/")
    page.fill("#entry-words", "Otter and Son")
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Sigrid Again", "sigrid@post.example", "Quay 4")
    page.get_by_role("button", name="Order and go on").click()
    page.get_by_role("button", name="Pay").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    page.get_by_role("button", name="Order this again").click()
    page.get_by_role("link", name="Change").click()
    page.fill("#entry-words", "Otter and Sun")
    page.get_by_role("button", name="Save the changes").click()
    page.get_by_role("link", name="Go to the checkout").click()
    # Who ordered here before needs to say again only that it was read.
    page.get_by_label("I have checked the spelling").check()
    page.get_by_role("button", name="Order and go on").click()
    expect(page.locator("[data-order-state=waiting]")).to_be_visible()
    [(first,), (second,)] = workshop.rows(
        "SELECT number FROM orders_order WHERE customer_name = %s ORDER BY number", "Sigrid Again"
    )
    desk = open_page(f"/workshop/orders/{second}/", person="noor")
    expect(desk.get_by_text("Again, as")).to_contain_text(f"order {first}")
    expect(desk.locator(".ticket")).to_contain_text("Otter and Sun")
