"""The list of orders: whose turn, sorted, and as a table that says only what its reader may know."""

import csv
import io

import pytest
from openpyxl import load_workbook

from tests.apps.conftest import GUEST
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.shop.services.checkout import order_basket

pytestmark = pytest.mark.django_db


def rows_of(client, query="", form="csv"):
    answer = client.get(f"/workshop/orders/orders.{form}{query}")
    if form == "csv":
        return list(csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig"))))
    sheet = load_workbook(io.BytesIO(answer.content)).active
    heads, *rows = sheet.iter_rows(values_only=True)
    return [dict(zip(heads, row, strict=True)) for row in rows]


@pytest.mark.parametrize("form", ["csv", "xlsx"])
def test_table_says_what_the_list_says(order, sign_in, form):
    [row] = rows_of(sign_in("desk"), form=form)
    assert str(row["Order"]) == str(order.number)
    assert (row["Words on the goods"], row["Waits for"], row["Address"]) == ("WIND & WHEY", "Customer", "Berth 14")
    assert float(row["Total"]) == float(order.total)


@pytest.mark.parametrize(
    ("role", "sees", "hidden"),
    [("seller", {"Total"}, {"Address", "Mail"}), ("decorator", set(), {"Address", "Mail", "Total", "Currency"})],
)
def test_addresses_and_prices_are_for_those_who_need_them(order, sign_in, role, sees, hidden):
    client = sign_in(role)
    [row] = rows_of(client)
    assert sees <= row.keys()
    assert not hidden & row.keys()
    for page in ("/workshop/orders/", f"/workshop/orders/{order.number}/"):
        shown = client.get(page).content.decode()
        assert "wilma@post.example" not in shown
        assert "Berth 14" not in shown
        assert ("£96.70" in shown) == ("Total" in sees)


@pytest.mark.parametrize("begins", ["=1+1", "+1", "-1", "@x", "\tx"])
def test_no_name_is_taken_for_a_formula(order, sign_in, begins):
    Order.objects.update(customer_name=begins)
    assert rows_of(sign_in("desk"))[0]["Customer"].startswith("'")
    assert rows_of(sign_in("desk"), form="xlsx")[0]["Customer"].strip() == begins.strip()


def test_ticked_orders_and_those_that_are_sought_are_in_the_table(order, sign_in):
    client = sign_in("desk")
    assert len(rows_of(client, f"?order={order.number}")) == 1
    assert rows_of(client, "?order=999999") == []
    assert rows_of(client, "?waits=desk") == []
    assert len(rows_of(client, "?waits=customer&q=whey")) == 1


@pytest.mark.parametrize(
    "query", ["by=day", "by=waits", "by=total", "by=customer", "by=x", "waits=x", "state=x", "page=x"]
)
def test_list_is_sorted_and_takes_no_nonsense(order, sign_in, query):
    page = sign_in("desk").get(f"/workshop/orders/?{query}").content.decode()
    assert f'data-order="{order.number}"' in page
    assert "<b>1</b> wait for their customer" in page


def test_what_isnt_known_comes_last_when_sorted(order, sign_in, visitor, put_in_basket, checkout_of):
    other = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))
    Order.objects.filter(pk=order.pk).update(leaves_on="2026-01-02")
    assert list(Order.objects.for_list().sorted_by("day")) == [order, other]


@pytest.mark.parametrize(("role", "sees"), [("owner", True), ("desk", True), ("seller", False), ("decorator", False)])
def test_customers_page_and_invoice_open_no_back_door_to_addresses(order, sign_in, role, sees):
    pay_order(GUEST, order, "approves")
    client = sign_in(role)
    assert ("Berth 14" in client.get(f"/order/{order.token}/").content.decode()) == sees
    assert client.get(f"/workshop/orders/{order.number}/invoice.pdf").status_code == (200 if sees else 403)
