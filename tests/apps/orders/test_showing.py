"""What customers and the desk are shown of an order: what is made, where it lands, by when."""

import io
import uuid
from datetime import timedelta

from django.utils import timezone
from PIL import Image

from tests.apps.conftest import GUEST, send_mails
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.services.checkout import order_basket


def motto_board(owner, product):
    """The board with a choice whose title isn't what is carved, which lands below the name."""
    product.refresh_from_db()
    motto = {"key": "fair", "label": "House motto", "produced": "Fair winds"}
    line = {"key": "motto", "kind": "choice", "label": "Motto", "options": [motto], "default": "fair"}
    below = {"key": "motto", "kind": "line", "field": "motto", "side": "front", "area": "panel", "least_mm": 28}
    below |= {"most_mm": 28, "typeface": {"fixed": "quayside"}, "color": {"palette": "finishes", "color": "white"}}
    below |= {"base_line": {"x_mm": 20, "y_mm": 90, "length_mm": 500}}
    day = {"key": "by", "kind": "date", "label": "Needed by", "after_working_days": 0, "within_days": 9000}
    operations = [
        {"do": "add", "path": ["fields"], "item": line},
        {"do": "add", "path": ["fields"], "item": day},
        {"do": "add", "path": ["fields"], "item": {"key": "gift", "kind": "note", "label": "Words on the card"}},
        {"do": "add", "path": ["placements"], "item": below},
        {"do": "set", "path": ["placements", "name", "base_line"], "value": {"x_mm": 20, "y_mm": 50, "length_mm": 500}},
    ]
    edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="x")
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    product.refresh_from_db()


def test_what_is_made_stands_in_checkout_order_and_mails_as_it_is_made(
    owner, product, visitor, put_in_basket, checkout_of, browser_of
):
    motto_board(owner, product)
    designs = [put_in_basket(visitor, name="TERN", gift="Dear Wil,\nfair winds!")]
    shopper = browser_of(visitor)
    checkout = shopper.get("/checkout/").content.decode()
    assert "Fair winds" in checkout
    assert "House motto" in checkout
    order = order_basket(GUEST, checkout_of(visitor, designs))
    assert "Fair winds" in shopper.get(f"/order/{order.token}/").content.decode()
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    text = send_mails()[f"{order.number}-paid-customer"].text
    assert "Fair winds" in text
    assert "TERN" in text


def test_order_page_says_where_how_large_and_by_when(
    owner, product, visitor, put_in_basket, checkout_of, sign_in, make_upload
):
    motto_board(owner, product)
    day = (timezone.localdate() + timedelta(days=40)).isoformat()
    upload = make_upload(visitor)
    designs = [put_in_basket(visitor, upload, name="TERN", gift="Dear Wil,\nfair winds!", by=day)]
    order = order_basket(GUEST, checkout_of(visitor, designs))
    desk = sign_in("desk")
    page = desk.get(f"/workshop/orders/{order.number}/").content.decode()
    assert "Front / Panel" in page
    # The photo covers 84 x 64 mm with its bleed; 80 x 60 of it show.
    assert "80 × 60 mm of 96 × 64 mm, cut off at the area’s edge" in page
    assert "Photo · Front / Photo" in page
    assert "Dear Wil,<br>fair winds!" in page
    assert "Needed by" in page
    assert "wanted-by" in page
    assert f"/orders/{order.number}/" in desk.get("/workshop/orders/?q=boar").content.decode()
    assert f"/orders/{order.number}/" not in desk.get("/workshop/orders/?q=teapot").content.decode()


def test_files_are_handed_out_as_received_and_as_these_pieces_are_made_with(
    owner, product, visitor, put_in_basket, checkout_of, sign_in, make_upload
):
    motto_board(owner, product)
    upload = make_upload(visitor)
    order = order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor, upload, name="TERN")]))
    desk = sign_in("desk")
    received, prepared = (desk.get(address) for address in sent_in(order, upload))
    with Image.open(io.BytesIO(received.content)) as sent, Image.open(io.BytesIO(prepared.content)) as made:
        assert sent.size == made.size == (upload.width_px, upload.height_px)
    assert prepared["Content-Disposition"].startswith("attachment")
    # What the customer makes of the file later is another piece's.
    upload.prepared = store_file(b"something else")
    upload.save()
    assert desk.get(sent_in(order, upload)[1]).content == prepared.content
    assert "Photo · Front / Photo" in desk.get(f"/workshop/orders/{order.number}/").content.decode()
    upload.pk = uuid.uuid4()
    assert [desk.get(address).status_code for address in sent_in(order, upload)] == [404, 404]


def sent_in(order, upload):
    address = f"/workshop/orders/{order.number}/1/uploads/{upload.pk}/"
    return address, f"{address}prepared/"
