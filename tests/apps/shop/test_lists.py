"""Lists of names: filled, mended, priced together, ordered as one line of different pieces."""

import io
import json
import re
import uuid
import zipfile
from decimal import Decimal

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from openpyxl import load_workbook

from tests.apps.conftest import GUEST, on_attempt
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.jobs import check_list
from yenzo.apps.designs.listed import FIRST_AT_ONCE, Listed, begin_check, check_some
from yenzo.apps.designs.models import NameList, NameRow, Personalization
from yenzo.apps.designs.services.lists import CHECKING, ListError, change_rows, put_list_in_basket
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production.jobs import make_pack
from yenzo.apps.production.models import Pack
from yenzo.apps.products.models import Revision
from yenzo.apps.shop.basket import basket_of
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.apps.stock.models import StockItem
from yenzo.core.lists.tables import MOST_ROWS

pytestmark = pytest.mark.django_db


@pytest.fixture
def browser(browser_of, visitor):
    return browser_of(visitor)


def only_list():
    return NameList.objects.select_related("revision__product__live").get()


def states(names):
    return {row.number: row.state for row in names.rows.active()}


def pasted(browser, *lines, **more):
    begun = browser.post("/goods/board/list/", {"entry-wood": "oak"})
    browser.post(f"{begun.url}fill/", {"pasted": "\n".join(lines), **more})
    return begun.url


def in_basket(names, visitor):
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    return only_list()


def test_list_is_begun_with_what_is_entered_and_each_row_is_checked_and_priced(browser, product):
    address = pasted(browser, "Name\tWood", "Otter\t", "Argo!\tCedar", "Wind & Whey\tBalsa")
    names = only_list()
    assert names.targets == ["name", "wood"]
    assert states(names) == {1: "good", 2: "faulty", 3: "faulty"}
    row = names.rows.get(number=1)
    assert row.personalization.asked["values"]["wood"] == "oak"
    page = browser.get(address).content.decode()
    assert re.findall(r'data-row="(\d)" data-verdict="(\w+)"', page) == [
        ("1", "good"),
        ("2", "faulty"),
        ("3", "faulty"),
    ]
    assert "“Balsa” can&#x27;t be chosen" in page
    assert "2 rows must be mended" in page


def test_file_is_taken_like_what_was_pasted(browser, product):
    begun = browser.post("/goods/board/list/", {})
    sheet = SimpleUploadedFile("crew.csv", "Name;Wood\nOtter;Oak\n".encode("cp1252"))
    browser.post(f"{begun.url}fill/", {"sheet": sheet})
    assert only_list().rows.get().cells == ["Otter", "Oak"]


@pytest.mark.parametrize("sent", [b"", b"\x00\x01"])
def test_file_that_is_no_list_is_refused_and_the_list_stays(browser, product, sent):
    address = pasted(browser, "Name", "Otter")
    answer = browser.post(f"{address}fill/", {"sheet": SimpleUploadedFile("x.xlsx", sent)}, follow=True)
    assert only_list().rows.count() == 1
    assert 'class="message' in answer.content.decode() or "problem" in answer.content.decode()


def test_faulty_row_is_mended_in_place_and_answers_with_what_is_said_of_it_only(browser, product):
    address = pasted(browser, "Name", "Otter", "Argo!")
    answer = browser.post(f"{address}2/", {"cell-2-0": "Argo"}, headers={"HX-Request": "true"})
    text = answer.content.decode()
    assert states(only_list()) == {1: "good", 2: "good"}
    # The cells are the customer's: no answer may write over what is typed meanwhile.
    assert "<input" not in re.sub(r'<input type="hidden"[^>]*>', "", text)
    assert 'data-says="good"' in text
    assert "Put the 2 rows in the basket" in text


def test_rows_are_saved_together_without_scripts_and_strange_cells_are_left_out(browser, product):
    address = pasted(browser, "Name\tWood", "Otter\tOak", "Ines\t")
    sent = {"cell-1-0": "Adder", "cell-2-1": "Cedar", "cell-9-0": "x", "cell-1-99": "x", "cell-a-b": "x", "cell-1": "x"}
    browser.post(f"{address}rows/", sent)
    assert [row.cells for row in only_list().rows.all()] == [["Adder", "Oak"], ["Ines", "Cedar"]]


def test_columns_are_matched_otherwise_and_that_is_remembered_in_the_next_list(browser, product):
    address = pasted(browser, "Rufname\tWood", "Otter\tOak")
    assert only_list().targets == ["", "wood"]
    browser.post(f"{address}columns/", {"target-0": "name", "target-1": "wood"})
    assert states(only_list()) == {1: "good"}
    pasted(browser, "Rufname", "Ines")
    assert NameList.objects.latest("created_at").targets == ["name"]


def test_no_two_columns_give_the_same_and_an_unknown_one_gives_nothing(browser, product):
    address = pasted(browser, "Name\tWood", "Otter\tOak")
    browser.post(f"{address}columns/", {"target-0": "wood", "target-1": "wood"})
    assert only_list().targets == ["wood", ""]
    browser.post(f"{address}columns/", {"target-0": "nonsense", "target-1": "name"})
    assert only_list().targets == ["", "name"]


def test_one_more_column_can_be_filled(browser, product):
    address = pasted(browser, "Name", "Otter")
    browser.post(f"{address}columns/", {"target-0": "name", "more": "@pieces"})
    browser.post(f"{address}rows/", {"cell-1-1": "3"})
    names = only_list()
    assert names.targets == ["name", "@pieces"]
    assert names.rows.get().personalization.asked["pieces"] == 3


def test_more_rows_are_added_after_those_there_or_taken_instead(browser, product):
    address = pasted(browser, "Name\tWood", "Otter\tOak")
    browser.post(f"{address}fill/", {"pasted": "Name\tWood\nInes\tOak", "adds": "yes"})
    assert [row.cells[0] for row in only_list().rows.all()] == ["Otter", "Ines"]
    browser.post(f"{address}fill/", {"pasted": "Name\nWilma", "adds": "no"})
    assert [row.cells for row in only_list().rows.all()] == [["Wilma"]]


def test_more_rows_than_there_is_room_for_are_refused_in_words(browser, product):
    address = pasted(browser, "Name", "Otter")
    many = "\n".join(["Name", *["Ines"] * MOST_ROWS])
    answer = browser.post(f"{address}fill/", {"pasted": many, "adds": "yes"}, follow=True)
    assert "1001 rows" in answer.content.decode()
    assert only_list().rows.count() == 1


def test_whole_lists_are_taken_less_often_than_rows_are_changed(browser, product, settings):
    settings.LIMITS = {**settings.LIMITS, "whole_list": "2/minute"}
    address = pasted(browser, "Name", "Otter")
    browser.post(f"{address}fill/", {"pasted": "Name\nInes", "adds": "yes"})
    answer = browser.post(f"{address}fill/", {"pasted": "Name\nWilma", "adds": "yes"}, follow=True)
    assert "very often in a short time" in answer.content.decode()
    assert only_list().rows.count() == 2
    browser.post(f"{address}1/", {"cell-1-0": "Adder"}, headers={"HX-Request": "true"})
    assert only_list().rows.get(number=1).cells == ["Adder"]


def test_row_taken_out_leaves_the_sum_and_comes_back(browser, product):
    address = pasted(browser, "Name", "Otter", "Ines")
    whole = Listed(only_list()).quote.total
    out = browser.post(f"{address}1/out/")
    assert out.url.endswith("?removed=1")
    assert "Row 1 was taken out" in browser.get(out.url).content.decode()
    assert Listed(only_list()).quote.total < whole
    browser.post(f"{address}1/back/")
    assert Listed(only_list()).quote.total == whole


def test_questions_about_rows_are_answered_or_their_mend_is_taken(browser, visitor, make_list):
    names = make_list(visitor, "Otter", "OTTER", "W1ND")
    rows = {one.row.number: one for one in Listed(names).rows}
    assert [question["code"] for question in rows[2].questions] == ["twice_in_list"]
    address = f"/lists/{names.pk}/"
    browser.post(f"{address}2/answer/", {"means": rows[2].questions[0]["means"]})
    assert Listed(only_list()).rows[1].questions == []
    question = rows[3].questions[0]
    assert question["mend"] == "WIND"
    answer = browser.post(f"{address}3/answer/", {"takes": question["takes"]}, headers={"HX-Request": "true"})
    assert 'value="WIND"' in answer.content.decode()
    assert only_list().rows.get(number=3).cells == ["WIND"]


def test_answer_that_it_is_right_so_is_kept_with_the_row_and_goes_to_the_order(
    browser, visitor, make_list, checkout_of
):
    names = make_list(visitor, "W1ND")
    question = Listed(names).rows[0].questions[0]
    browser.post(f"/lists/{names.pk}/1/answer/", {"means": question["means"]})
    names = in_basket(names, visitor)
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    asked = order.lines.get().personalization.asked
    assert [one["text"] for one in asked["meant"]["name"]] == ["W1ND"]


def test_rows_to_mend_come_back_as_a_spreadsheet_with_the_cells_marked(browser, product):
    address = pasted(browser, "Name\tWood", "Otter\tOak", "Ines\tBalsa")
    sheet = load_workbook(io.BytesIO(browser.get(f"{address}faulty.xlsx").content)).active
    assert [cell.value for cell in sheet[2]][:2] == ["Ines", "Balsa"]
    assert "Balsa" in sheet["B2"].comment.text
    assert sheet.max_row == 2


def test_blank_list_has_the_heads_that_the_product_takes(browser, product):
    sheet = load_workbook(io.BytesIO(browser.get("/goods/board/list.xlsx").content)).active
    assert [cell.value for cell in sheet[1]][:2] == ["Name of the boat", "Lettering"]


def test_list_with_a_faulty_row_does_not_go_into_the_basket(visitor, make_list):
    names = make_list(visitor, "Otter", "Argo!")
    with pytest.raises(ListError, match="1 row must be mended"):
        put_list_in_basket(GUEST, names.pk, visitor=visitor)
    assert not only_list().in_basket


def test_list_that_changes_leaves_the_basket(visitor, make_list):
    names = in_basket(make_list(visitor, "Otter"), visitor)
    change_rows(GUEST, names.pk, {1: {0: "Adder"}}, visitor=visitor)
    assert not only_list().in_basket


def test_check_that_ends_after_its_row_was_changed_says_nothing_of_it(visitor, make_list):
    names = make_list(visitor, "Otter")
    names.rows.update(state="unchecked", personalization=None)
    stale = list(names.rows.unchecked())
    change_rows(GUEST, names.pk, {1: {0: "Argo!"}}, visitor=visitor)
    check_some(GUEST, names, stale)
    assert states(only_list()) == {1: "unchecked"}
    begin_check(GUEST, only_list())
    assert states(only_list()) == {1: "faulty"}


def test_of_many_rows_the_first_are_checked_at_once_the_others_by_the_workers(browser, visitor, make_list):
    names = make_list(visitor, *[f"Otter {letter}" for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"], *["Ines"] * 20)
    assert [number for number, state in states(names).items() if state == "good"] == [*range(1, FIRST_AT_ONCE + 1)]
    page = browser.get(f"/lists/{names.pk}/").content.decode()
    assert f"{FIRST_AT_ONCE} of 46 rows are checked" in page
    assert page.count('class="row-picture"><img') == FIRST_AT_ONCE
    # What a row costs may depend on how many there are.
    assert "£" not in page.partition("<tbody>")[2].partition("</tbody>")[0]
    assert "HX-Refresh" not in browser.get(f"/lists/{names.pk}/state/")
    check_list(list_id=str(names.pk), first=1, last=46)
    assert set(states(only_list()).values()) == {"good"}
    assert browser.get(f"/lists/{names.pk}/state/")["HX-Refresh"] == "true"


def test_whoever_is_signed_in_is_so_for_the_workers_as_well(visitor, make_list):
    names = make_list(visitor, *["Otter"] * 60)
    with connection.cursor() as cursor:
        cursor.execute("UPDATE procrastinate_jobs SET status = 'failed'")
        begin_check(GUEST, names, signed_in=True)
        cursor.execute("SELECT args FROM procrastinate_jobs WHERE status = 'todo' AND task_name = %s", [CHECKING])
        waiting = [json.loads(args) if isinstance(args, str) else args for (args,) in cursor.fetchall()]
    assert waiting
    assert all(one["signed_in"] for one in waiting)


def test_what_is_for_customers_who_are_signed_in_is_in_rows_that_workers_check(visitor, make_list):
    names = make_list(visitor, *["Otter"] * 46)
    asked = []
    for signed_in in (False, True):
        names.rows.update(state="unchecked")
        check_list(list_id=str(names.pk), first=1, last=1, signed_in=signed_in)
        asked.append(names.rows.get(number=1).personalization.asked.get("signed_in", False))
    assert asked == [False, True]


def test_list_is_ordered_as_one_line_whose_pieces_have_their_own_entries(visitor, make_list, checkout_of):
    names = in_basket(make_list(visitor, "Otter\t2", "Ines\t", heads="Name\tPieces", wood="oak"), visitor)
    basket = basket_of(visitor)
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    line = order.lines.get()
    said = [piece.personalization.asked["values"]["name"] for piece in line.pieces.all()]
    assert said == ["OTTER", "OTTER", "INES"]
    assert (line.quantity, line.rows, line.is_list, line.names) == (3, 2, True, names)
    assert order.total == basket.total == Decimal(line.quote["total"])
    assert line.search_text == "OTTER\nINES"
    names.refresh_from_db()
    assert names.ordered_at
    assert not names.in_basket


def test_list_ordered_by_a_double_click_is_one_order(visitor, make_list, checkout_of):
    names = in_basket(make_list(visitor, "Otter", "Ines"), visitor)
    checkout = checkout_of(visitor, [names])
    assert order_basket(GUEST, checkout) == order_basket(GUEST, checkout)
    assert Order.objects.count() == 1


def test_stock_of_all_rows_is_taken_and_comes_back(owner, visitor, make_list, checkout_of):
    StockItem.objects.create(sku="NB-1", pieces=5)
    names = in_basket(make_list(visitor, "Otter\t2", "Ines\t1", heads="Name\tPieces"), visitor)
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    assert StockItem.objects.get().pieces == 2
    cancel_order(owner, order.pk)
    assert StockItem.objects.get().pieces == 5


def test_pages_of_the_order_show_each_row_and_its_picture(
    browser, visitor, make_list, checkout_of, sign_in, tmp_path, settings
):
    names = in_basket(make_list(visitor, "Otter", "Ines"), visitor)
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    customers = browser.get(f"/order/{order.token}/").content.decode()
    staffs = sign_in("desk").get(f"/workshop/orders/{order.number}/").content.decode()
    for page in (customers, staffs):
        assert re.findall(r'data-row="(\d)"', page) == ["1", "2"]
        assert "OTTER" in page
        assert "INES" in page
    first, second = (browser.get(f"/order/{order.token}/1.{at}/front/picture.png").content for at in (1, 2))
    assert first.startswith(b"\x89PNG")
    assert first != second
    assert browser.get(f"/order/{order.token}/1.3/front/picture.png").status_code == 404


def test_each_row_has_a_pack_of_its_own_and_all_are_handed_out_together(
    owner, visitor, make_list, checkout_of, sign_in
):
    names = in_basket(make_list(visitor, "Otter\t2", "Ines\t", heads="Name\tPieces"), visitor)
    order = order_basket(GUEST, checkout_of(visitor, [names]))
    Order.objects.update(payment_state="paid")
    inspect_order(SYSTEM_ACTOR, order.pk)
    for pack in Pack.objects.all():
        make_pack(on_attempt(0), pack_id=pack.pk)
    line = order.lines.get()
    desk = sign_in("desk")
    assert "2 packs, one a row" in desk.get(f"/workshop/packs/{line.pk}/").content.decode()
    answer = desk.get(f"/workshop/packs/{line.pk}/all/")
    with zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content))) as bundle:
        assert bundle.namelist() == [f"{line}.1.zip", f"{line}.3.zip"]
        with zipfile.ZipFile(io.BytesIO(bundle.read(f"{line}.3.zip"))) as pack:
            manifest = json.loads(pack.read("manifest.json"))
            assert any(name.startswith(f"{line}.3_") for name in pack.namelist())
    assert manifest["entries"]["values"]["name"] == "INES"
    assert manifest["quantity"] == 1


def test_list_of_somebody_else_is_nobodys(browser_of, visitor, make_list):
    names = make_list(visitor, "Otter")
    other = browser_of(uuid.uuid4())
    assert other.get(f"/lists/{names.pk}/").status_code == 404
    assert other.get(f"/lists/{names.pk}/1-none.webp").status_code == 404
    other.post(f"/lists/{names.pk}/rows/", {"cell-1-0": "Mine"})
    other.post(f"/lists/{names.pk}/1/out/")
    assert only_list().rows.active().get().cells == ["Otter"]


def test_what_all_share_is_changed_for_every_row(browser, visitor, make_list):
    names = make_list(visitor, "Otter", "Ines")
    page = browser.get(f"/goods/board/?list={names.pk}").content.decode()
    assert "Use it for the whole list" in page
    browser.post("/goods/board/list/", {"entry-wood": "oak", "list": str(names.pk)})
    assert only_list().common["values"]["wood"] == "oak"
    assert {row.personalization.asked["values"]["wood"] for row in only_list().rows.all()} == {"oak"}


def test_product_that_is_not_sold_by_list_offers_none(owner, browser, product):
    document = product.live.document
    Revision.objects.filter(pk=product.live.pk).update(
        document=document | {"form": {"by_list": False}}, sha256="0" * 64
    )
    assert "/list/" not in browser.get("/goods/board/").content.decode()
    assert browser.post("/goods/board/list/", {}).status_code == 404


def test_unused_personalizations_of_rows_are_told_from_used_ones(visitor, make_list):
    names = make_list(visitor, "Otter")
    assert not Personalization.objects.unused().exists()
    names.delete()
    assert Personalization.objects.unused().count() == 1
    assert not NameRow.objects.exists()


def test_list_read_in_another_language_says_its_faults_in_that(browser, visitor, make_list):
    names = make_list(visitor, "Argo!")
    browser.cookies["django_language"] = "de"
    assert "„!“" in browser.get(f"/lists/{names.pk}/").content.decode()
