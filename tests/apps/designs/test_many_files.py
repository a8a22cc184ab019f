"""Several files in one field, from the slip to the workshop."""

import pytest

from yenzo.apps.designs.models import Design
from yenzo.apps.orders.to_core import work_of
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.shop.services.checkout import order_basket

FORM = {"entry-name": "Otter", "entry-with_photo": "yes", "entry-lettering": "quayside", "entry-finish": "gold"}


@pytest.fixture
def album(owner, product):
    """The board, with up to three photos."""
    operation = {"do": "set", "path": ["fields", "photo", "most_files"], "value": 3}
    edited = edit_draft(owner, product.pk, [operation], seen_version=product.draft_version, label="Files")
    publish_setup(owner, product.pk, seen_version=edited.draft_version)
    product.refresh_from_db()
    return product


def test_files_are_kept_in_their_order_from_the_slip_to_the_workshop(
    album, visitor, make_upload, browser_of, checkout_of, actors
):
    sent = [make_upload(visitor, name) for name in ("b.jpg", "a.jpg")]
    browser = browser_of(visitor)
    page = browser.get("/goods/board/").content.decode()
    assert "data-many" in page
    assert "up to 3 files" in page
    browser.post("/goods/board/basket/", {**FORM, "upload-photo": [str(one.pk) for one in sent]})
    design = Design.objects.get()
    assert [file["name"] for file in design.personalization.entries["uploads"]["photo"]] == ["b.jpg", "a.jpg"]
    assert "b.jpg, a.jpg" in browser.get("/basket/").content.decode()
    page = browser.get(f"/goods/board/?design={design.pk}").content.decode()
    assert page.index("b.jpg") < page.index("a.jpg")
    assert "Add another file" in page
    order = order_basket(actors["customer"], checkout_of(visitor, [design]))
    work = work_of(line := order.lines.get(), 1, 1, line.personalization)
    assert [original.name for original in work.originals] == ["b.jpg", "a.jpg"]
    assert order.lines.get().personalization.uploads.count() == 2


def test_same_file_named_twice_counts_once_and_strangers_files_never(album, visitor, make_upload, browser_of):
    import uuid

    own, other = make_upload(visitor), make_upload(uuid.uuid4(), "other.jpg")
    named = [str(own.pk), str(own.pk), str(other.pk), "no-uuid"]
    browser_of(visitor).post("/goods/board/basket/", {**FORM, "upload-photo": named})
    assert Design.objects.get().personalization.entries["uploads"]["photo"]["name"] == "otter.jpg"


def test_one_file_too_many_is_refused_and_all_stay(album, visitor, make_upload, browser_of):
    sent = [str(make_upload(visitor, f"{number}.jpg").pk) for number in range(4)]
    page = browser_of(visitor).post("/goods/board/basket/", {**FORM, "upload-photo": sent}).content.decode()
    assert "there is room for 3 files; 4 are here" in page
    assert all(f'value="{pk}"' in page for pk in sent)


def test_seller_says_how_many_files_and_which_lands_where(album, sign_in):
    seller = sign_in("seller")
    address = "/workshop/products/board/lines/photo"
    kinds = {"kinds": ["png"], "most_megabytes": 8, "most_files": 4, "least_files": 2}
    assert "2 to 4 files: PNG, up to 8 MB" in seller.post(f"{address}/kinds/", kinds).content.decode()
    refused = seller.post(f"{address}/kinds/", {**kinds, "least_files": 5})
    assert "above the most" in refused.content.decode()
    page = seller.post(f"{address}/places/", {"areas": ["front/photo", "front/panel"]}).content.decode()
    album.refresh_from_db()
    assert [one.get("nth", 1) for one in album.draft["placements"] if one["field"] == "photo"] == [1, 2]
    assert "file 2" in page
    key = next(one["key"] for one in album.draft["placements"] if one.get("nth") == 2)
    assert "file 4" in seller.post(f"{address}/nth/?placement={key}", {"nth": 4}).content.decode()
    fewer = seller.post(f"{address}/kinds/", {**kinds, "least_files": "", "most_files": 3})
    assert "is file 4 of “Photo”, which takes 3 at most" in fewer.content.decode()
