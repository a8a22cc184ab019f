"""Sections of the order slip: added, edited, moved, removed, with their lines."""

import io

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.core.conftest import picture_bytes
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import setup_of_draft


@pytest.fixture
def page(sign_in, product):
    seller = sign_in("seller")

    def post(address, **values):
        return seller.post(f"/workshop/products/board/{address}", values)

    return post


def setup():
    return setup_of_draft(Product.objects.get(key="board"))


def test_section_takes_a_title_a_rule_and_lines_and_gives_them_back(page):
    assert "Section 1" in page("sections/").content.decode()
    key = setup().sections[0].key
    said = page(f"sections/{key}/title/", title="Looks", introduction="How it looks").content.decode()
    assert "introduced by “How it looks”" in said
    rule = {"match": "all", "inner-match": "any", "test-0": "with_photo is yes"}
    assert "With a photo is yes" in page(f"sections/{key}/ask-when/", **rule).content.decode()
    page("lines/wood/stands/", section=key, width="half")
    assert setup().field("wood").section == key
    page("form/shown/", shown="pages", finish_pages="on")
    assert setup().form.shown == "pages"
    page(f"sections/{key}/remove/")
    assert setup().sections == ()
    assert setup().field("wood").section is None
    assert "can't" not in page("undo/").content.decode()
    assert setup().field("wood").section == key


def test_line_that_is_moved_onto_a_line_of_another_section_joins_it(page):
    page("sections/")
    key = setup().sections[0].key
    page("lines/finish/stands/", section=key, width="full")
    last = len(setup().fields) - 1
    page("lines/name/move/", position=str(last))
    assert setup().field("name").section == key
    assert [field.key for field in setup().fields_of(key)] == ["finish", "name"]


def test_section_moves_up(page):
    page("sections/")
    page("sections/")
    first, second = (section.key for section in setup().sections)
    page(f"sections/{second}/up/")
    assert [section.key for section in setup().sections] == [second, first]


def test_picture_of_a_choice_is_kept_shown_and_taken_away(page, client):
    sent = SimpleUploadedFile("oak.png", picture_bytes((60, 40)), "image/png")
    looks = {"shown": "pictures", "swatch-cedar": "", "swatch-oak": "#8a6420"}
    said = page("lines/wood/looks/", **looks, **{"picture-oak": sent}).content.decode()
    assert "as pictures with 1 picture" in said
    oak = setup().field("wood").option("oak")
    assert oak.swatch == "#8a6420"
    assert client.get(f"/goods-pictures/{oak.picture.asset}/").status_code == 200
    page("lines/wood/looks/", **looks, **{"bare-oak": "on"})
    assert setup().field("wood").option("oak").picture is None


def test_file_that_is_no_picture_is_refused_in_the_form(page):
    lying = SimpleUploadedFile("oak.png", io.BytesIO(b"not a picture").read(), "image/png")
    answer = page("lines/wood/looks/", shown="pictures", **{"picture-oak": lying})
    assert answer.status_code == 422
    assert "oak.png" in answer.content.decode()


def test_artwork_of_our_own_is_kept_shown_and_published(page, owner, product, client):
    page("lines/", label="Our mark", kind="fixed_artwork")
    page("lines/our-mark/places/", areas="front/photo")
    sent = SimpleUploadedFile("mark.png", picture_bytes((300, 200)), "image/png")
    said = page("lines/our-mark/fixed-artwork/", file=sent).content.decode()
    assert "always made</button>: " in said
    assert "“mark.png”" in said
    product.refresh_from_db()
    revision = publish_setup(owner, product.pk, seen_version=product.draft_version)
    kept = {file.file_id for file in revision.files.all()}
    artwork = setup().field("our-mark").artwork
    assert {artwork.original, artwork.prepared} <= kept
    shop = client.get("/goods/board/").content.decode()
    assert f"/goods-pictures/{artwork.prepared}/" in shop
    assert "Our mark" not in shop


def test_ready_made_artwork_and_goods_that_follow_a_choice_are_set_up(page, client):
    page("lines/", label="Emblem", kind="ready_made")
    sent = SimpleUploadedFile("tern.png", picture_bytes((300, 200)), "image/png")
    said = page("lines/emblem/ready-made/", **{"artwork-first": sent}).content.decode()
    assert "1 piece of artwork" in said.replace("2 pieces", "1 piece")
    assert "none yet for Second" in said
    assert setup().field("emblem").option("first").picture is not None
    oak = SimpleUploadedFile("oak.png", picture_bytes((1400, 440), "#886644"), "image/png")
    assert "another picture of the goods for Oak" in page("lines/wood/goods/", **{"oak.front": oak}).content.decode()
    page("lines/wood/goods/", **{"oak.front.bare": "on"})
    assert not setup().field("wood").option("oak").goods


def test_area_follows_the_method_that_a_customer_chooses(page):
    page("lines/", label="Made by", kind="method")
    area = setup().sides[0].areas[0]
    numbers = {name: getattr(area, name) for name in ("name", "x_mm", "y_mm", "width_mm", "height_mm")}
    rest = {"safe_mm": 4, "bleed_mm": 2, "turn_deg": 0, "dpi": 100}
    page("areas/front/panel/", **numbers, **rest, method="field/made-by")
    assert setup().sides[0].areas[0].method_field == "made-by"
    page("areas/front/panel/", **numbers, **rest, method="carving")
    assert setup().sides[0].areas[0].method_field is None


def test_mask_tints_a_part_of_the_goods_for_each_choice_with_a_color(product, owner, sign_in, client):
    seller = sign_in("seller")
    address = "/workshop/products/board/lines/wood"
    edited = [{"do": "set", "path": ["fields", "wood", "options", "oak", "swatch"], "value": "#a63a2c"}]
    edit_draft(owner, product.pk, edited, seen_version=product.draft_version, label="Swatch")
    assert "mask.front" in seller.get(f"{address}/goods/").content.decode()
    whole = SimpleUploadedFile("mask.png", picture_bytes((140, 44), "#ffffff"), "image/png")
    page = seller.post(f"{address}/goods/", {"mask.front": whole}).content.decode()
    assert "a part of the goods in the color of Oak" in page
    product.refresh_from_db()
    oak = next(field for field in product.draft["fields"] if field["key"] == "wood")["options"][1]
    tinted = oak["overlays"]["front"]
    assert (tinted["width_px"], tinted["height_px"]) == (1400, 440)
    slip = seller.post("/workshop/products/board/try-out/", {"entry-wood": "oak"}).content.decode()
    assert f"/goods-pictures/{tinted['asset']}/" in slip
    assert client.get(f"/goods-pictures/{tinted['asset']}/").status_code == 200
    black = SimpleUploadedFile("mask.png", picture_bytes((140, 44), "#000000"), "image/png")
    assert "shows no part of the goods" in seller.post(f"{address}/goods/", {"mask.front": black}).content.decode()
    page = seller.post(f"{address}/goods/", {"mask.front.bare": "on"}).content.decode()
    assert "in the color of Oak" not in page


def test_sample_picture_stands_in_for_an_upload_and_is_never_made(
    page, owner, product, browser_of, make_upload, visitor
):
    sent = SimpleUploadedFile("otter.png", picture_bytes((300, 200)), "image/png")
    said = page("lines/photo/sample-picture/", file=sent).content.decode()
    assert "Until it is sent, " in said
    assert "“otter.png”" in said
    product.refresh_from_db()
    revision = publish_setup(owner, product.pk, seen_version=product.draft_version)
    sample = setup().field("photo").sample
    assert {sample.original, sample.prepared} <= {file.file_id for file in revision.files.all()}
    customer, address = browser_of(visitor), f"/goods-pictures/{sample.prepared}/"
    wanted = {"entry-name": "Tern", "entry-with_photo": "yes"}
    awaited = customer.post("/goods/board/preview/", wanted).content.decode()
    assert '<g class="stand-in"><' in awaited
    assert address in awaited
    assert "a sample stands faint on the goods" in awaited
    # It isn't theirs: the piece waits for their own.
    assert "Please add a picture for “Photo”" in customer.post("/goods/board/basket/", wanted).content.decode()
    own = {**wanted, "upload-photo": str(make_upload(visitor).pk)}
    assert "stand-in" not in customer.post("/goods/board/preview/", own).content.decode()
    # Nor does it stand there for whoever wants no photo.
    assert "stand-in" not in customer.post("/goods/board/preview/", {"entry-name": "Tern"}).content.decode()
    page("lines/photo/sample-picture/", bare="on")
    assert setup().field("photo").sample is None
