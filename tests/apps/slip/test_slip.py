import re
import uuid
from pathlib import Path

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.template.loader import get_template
from django.test import Client
from django.utils import timezone

from tests.apps.conftest import looked_at
from tests.apps.editor.test_aspects import kinds
from tests.core.conftest import board, entries, picture_bytes
from yenzo.apps.designs.models import Design, Upload
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.materials.services.materials import save_material
from yenzo.apps.products.kinds import KIND_WORDS
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.apps.slip.controls import CONTROLS
from yenzo.core.evaluation import evaluate

PREVIEW = "/goods/board/preview/"


def core_digest(product, **values):
    return evaluate(setup_of_revision(product.live), entries(values), StoredAssets()).scene.sides[0].digest


def test_every_kind_of_field_has_a_control_on_the_slip_and_a_noun_in_the_list(product):
    page = Client().get("/goods/board/").content.decode()
    assert set(KIND_WORDS) == kinds()
    for field in setup_of_revision(product.live).fields:
        assert f'data-field="{field.key}"' in page


def test_every_kind_of_field_has_its_control():
    assert {model.model_fields["kind"].default for model in CONTROLS} == kinds()
    for control in CONTROLS.values():
        assert get_template(control.template)


@pytest.fixture
def asking_all(owner, product):
    """The board as it asks one of every typed kind as well."""
    document = {name: value for name, value in board().items() if name != "materials"}
    document["offer"] = {**document["offer"], "name": "Asking"}
    document["fields"] += [
        {"key": "ties", "kind": "number", "label": "Ties", "unit": "cm", "least": "20", "most": "60"},
        {"key": "day", "kind": "date", "label": "Needed by", "after_working_days": 0, "within_days": 30},
        {"key": "mail", "kind": "email", "label": "Mail"},
        {"key": "phone", "kind": "phone", "label": "Phone"},
        {"key": "link", "kind": "link", "label": "Link"},
        {"key": "motto", "kind": "line", "label": "Motto", "most_words": 3},
        {"key": "note", "kind": "note", "label": "Note", "most_characters": 40},
        {"key": "home", "kind": "address", "label": "Home"},
        {"key": "fine", "kind": "heading", "label": "The fine print", "help": "Read me"},
        {
            "key": "extras",
            "kind": "several",
            "label": "Extras",
            "most": 1,
            "options": [{"key": "rope", "label": "Rope"}, {"key": "hook", "label": "Hook"}],
        },
    ]
    picture = setup_of_revision(product.live).sides[0].picture.model_dump()
    document["sides"][0]["picture"] = picture
    made = import_product(owner, document, key="asking")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    return made


def test_typed_kinds_are_asked_judged_and_follow_into_the_basket(asking_all, client):
    page = client.get("/goods/asking/").content.decode()
    for part in ("name", "street", "town", "postcode"):
        assert f'name="entry-home.{part}"' in page
    assert 'inputmode="decimal"' in page
    assert '<span class="unit">cm</span>' in page
    today = timezone.localdate()
    assert f'type="date" value="" id="entry-day" name="entry-day" data-field="day" min="{today}"' in page
    wrong = {
        "entry-name": "Tern",
        "entry-ties": "5",
        "entry-mail": "ann",
        "entry-note": "x" * 50,
        "entry-extras": ["", "rope", "hook"],
        "entry-home.country": "GB",
        "entry-home.name": "Ann",
        "entry-motto": "a b c d",
    }
    answer = client.post("/goods/asking/preview/", wrong).content.decode()
    for words in (
        "at least 20 cm",
        "is no mail address",
        "has 10 characters too many",
        "there is room for 1",
        "lacks street and number, the town and the postcode",
        "10 too many",
        "1 word too many",
    ):
        assert words in answer
    right = {
        "entry-name": "Tern",
        "entry-ties": "32,5",
        "entry-day": str(today),
        "entry-mail": "ann@harbor.example",
        "entry-phone": "020 7946 0018",
        "entry-link": "harbor.example",
        "entry-note": "Leave it by the boat",
        "entry-extras": ["", "hook"],
        "entry-home.country": "GB",
        "entry-home.name": "Ann Fairwater",
        "entry-home.street": "14 North Pontoon",
        "entry-home.postcode": "PO1 3AX",
        "entry-home.town": "Hallow",
    }
    assert client.post("/goods/asking/basket/", right).status_code == 302
    basket = client.get("/basket/").content.decode()
    for words in (
        "32.5 cm",
        "ann@harbor.example",
        "+44 20 7946 0018",
        "https://harbor.example",
        "Leave it by the boat",
        "Hook",
        "Ann Fairwater, 14 North Pontoon, HALLOW, PO1 3AX",
    ):
        assert words in basket


def test_line_that_becomes_needed_says_so(owner, product, client):
    document = {name: value for name, value in board().items() if name != "materials"}
    rule = {"conditions": [{"field": "wood", "value": "oak"}]}
    document["fields"].append({"key": "port", "kind": "line", "label": "Port", "required_when": rule})
    document["sides"][0]["picture"] = setup_of_revision(product.live).sides[0].picture.model_dump()
    made = import_product(owner, document, key="needing")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    needed = '<span data-part="needed-port"> <span class="needed">needed</span></span>'
    for wood, expected in (("oak", True), ("cedar", False)):
        answer = client.post("/goods/needing/preview/", {"entry-name": "A", "entry-wood": wood}).content.decode()
        assert (needed in answer) is expected
    refused = client.post("/goods/needing/basket/", {"entry-name": "A", "entry-wood": "oak"})
    assert "Please fill in “Port”." in refused.content.decode()


def test_share_of_the_price_stands_at_its_field_in_words(owner, product, client):
    document = {name: value for name, value in board().items() if name != "materials"}
    document["charges"] = [{"key": "it", "kind": "percent", "field": "wood", "percent": "12.50"}]
    document["sides"][0]["picture"] = setup_of_revision(product.live).sides[0].picture.model_dump()
    made = import_product(owner, document, key="sharing")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    assert "12.5 % of the base price" in client.get("/goods/sharing/").content.decode()


def test_preview_carries_the_digest_that_the_core_gives_for_what_was_typed(product):
    answer = Client().post(PREVIEW, {"entry-name": "Halcyon"})
    assert f'data-scene="{core_digest(product, name="Halcyon")}"' in answer.content.decode()


def test_preview_sends_only_sides_that_changed_and_no_control_that_stays(product):
    first = Client().post(PREVIEW, {"entry-name": "Halcyon"}).content.decode()
    [shown] = re.findall(r'name="shown" value="([^"]+)"', first)
    asked = "name lettering with_photo wood finish"
    page = Client().post(PREVIEW, {"entry-name": "Halcyon", "shown": shown, "asked": asked}).content.decode()
    assert "data-scene" not in page
    assert "<input class=" not in page
    assert "£86.40" not in page
    assert "room for" not in page


def test_line_that_becomes_asked_is_sent_and_keeps_what_was_typed(product):
    page = (
        Client()
        .post(
            PREVIEW,
            {"entry-name": "Otter", "entry-with_photo": "yes", "asked": "name lettering with_photo wood finish"},
        )
        .content.decode()
    )
    assert 'id="line-photo"' in page
    assert "hidden" not in re.search(r'<li id="line-photo"[^>]*>', page).group()


def test_preview_writes_no_row_and_no_session(product):
    answer = Client().post(PREVIEW, {"entry-name": "Otter"})
    assert answer.status_code == 200
    assert not answer.cookies.get("sessionid")
    assert not Design.objects.exists()


@pytest.mark.parametrize(
    "name", ["🚤" * 30, "\x00\x07", "<script>alert(1)</script>", "x" * 30_000, "شاطئ", "  ", "ẞ" * 9]
)
def test_ugly_text_is_answered_and_never_becomes_markup(product, name):
    answer = Client().post(
        PREVIEW,
        {
            "entry-name": name,
            "pieces": "-1",
            "variant": "none",
            "entry-finish": "pink",
            "shown": "x",
            "upload-photo": "x",
        },
    )
    assert answer.status_code == 200
    assert "<script" not in answer.content.decode()


def test_missing_letters_name_themselves_and_the_typefaces_that_have_them(product):
    page = Client().post(PREVIEW, {"entry-name": "Чайка", "entry-lettering": "levant"}).content.decode()
    assert "are not in the typeface Levant. Log-Book has all you typed." in page


def test_too_many_previews_in_a_minute_are_refused(product, settings):
    settings.LIMITS = {**settings.LIMITS, "preview": "2/minute"}
    client = Client(REMOTE_ADDR="10.9.8.7")
    assert [client.post(PREVIEW, {"entry-name": "a"}).status_code for _ in range(3)] == [200, 200, 429]


def test_upload_belongs_to_its_visitor_and_nobody_else_sees_or_uses_it(
    product, visitor, make_upload, browser_of, sign_in
):
    upload = make_upload(visitor)
    address = f"/uploads/{upload.pk}/picture/"
    assert browser_of(visitor).get(address).status_code == 200
    assert sign_in("decorator").get(address).status_code == 200
    assert browser_of(uuid.uuid4()).get(address).status_code == 404
    assert Client().get(address).status_code == 404
    form = {"entry-name": "Otter", "entry-with_photo": "yes", "upload-photo": str(upload.pk)}
    assert "otter.jpg" not in browser_of(uuid.uuid4()).post(PREVIEW, form).content.decode()
    assert "dpi at" in browser_of(visitor).post(PREVIEW, form).content.decode()


def test_bare_hash_of_a_private_file_opens_nothing(product, visitor, make_upload):
    upload = make_upload(visitor)
    assert Client().get(f"/goods-pictures/{upload.original_id}/").status_code == 404


def test_upload_is_taken_with_its_facts(client, db):
    sent = SimpleUploadedFile("../../etc/emblem.png", picture_bytes((640, 480)))
    answer = looked_at(client, client.post("/uploads/?field=photo", {"file": sent}))
    upload = Upload.objects.get()
    assert answer.status_code == 200
    assert (upload.name, upload.width_px, upload.kind) == ("emblem.png", 640, "png")
    assert f'value="{upload.pk}"' in answer.content.decode()


@pytest.mark.parametrize(
    ("data", "words"),
    [(b"", "is empty"), (b"\x89PNG\r\n\x1a\n cut", "damaged or cut off"), (b"MZ program", "is not a picture")],
)
def test_refused_upload_says_why_and_leaves_nothing(client, db, data, words):
    answer = looked_at(client, client.post("/uploads/?field=photo", {"file": SimpleUploadedFile("a.png", data)}))
    assert (answer.status_code, answer["Content-Type"]) == (422, "text/plain; charset=utf-8")
    assert words in answer.content.decode()
    assert not Upload.objects.ready().exists()


def test_refusal_names_the_kinds_that_the_field_takes(client, db):
    address, sent = (
        "/uploads/?field=photo&kind=svg&kind=pdf&kind=exe",
        SimpleUploadedFile("a.png", picture_bytes((9, 9))),
    )
    words = "“a.png” is a PNG file. Here, SVG, PDF can be used; please save it as one of these."
    assert client.post(address, {"file": sent}).content.decode() == words
    assert not Upload.objects.exists()


def test_upload_beyond_the_bound_is_read_past_and_refused_in_words(client, db, settings):
    settings.MOST_REQUEST_BYTES = 100_000
    answer = client.post("/uploads/?field=photo", {"file": SimpleUploadedFile("a.png", b"x" * 300_000)})
    assert answer.status_code == 422
    assert "MB can be taken" in answer.content.decode()
    assert not list(Path(settings.FILES_ROOT).glob("*.upload"))


def test_upload_without_a_file_is_refused_in_words(client, db):
    assert "No file arrived" in client.post("/uploads/").content.decode()


def test_try_out_uses_the_shops_own_partials_over_the_draft(sign_in, product):
    seller = sign_in("seller")
    page = seller.get("/workshop/products/board/try-out/").content.decode()
    assert 'data-field="name"' in page
    assert "data-total=" in page
    answer = seller.post("/workshop/products/board/try-out/refresh/", {"entry-name": "Otter"}).content.decode()
    assert f'data-scene="{core_digest(product, name="Otter")}"' in answer


def test_specimen_shows_a_typefaces_name_and_no_other_font(client, product):
    typeface = product.live.document["materials"]["typefaces"]["quayside"]
    answer = client.get(f"/typefaces/{typeface['font']}/specimen.svg")
    assert answer["Content-Type"] == "image/svg+xml"
    assert b"<path" in answer.content
    assert client.get(f"/typefaces/{'0' * 64}/specimen.svg").status_code == 404


def test_specimen_of_a_font_that_only_a_revision_uses_still_shows(client, owner, product):
    document = product.live.document["materials"]["typefaces"]["quayside"]
    save_material(
        owner,
        "typefaces",
        "quayside",
        {**document, "font": product.live.document["materials"]["typefaces"]["levant"]["font"]},
    )
    assert b"<path" in client.get(f"/typefaces/{document['font']}/specimen.svg").content


@pytest.fixture
def paged(owner, product):
    """A product that asks page by page, each to be finished first; the second only when a photo is wanted."""
    document = {name: value for name, value in board().items() if name != "materials"}
    document["form"] = {"shown": "pages", "finish_pages": True}
    document["sections"] = [
        {"key": "words", "title": "Words"},
        {
            "key": "picture",
            "title": "Picture",
            "ask_when": {"conditions": [{"field": "with_photo", "value": True}]},
        },
        {"key": "looks", "title": "Looks", "introduction": "How it looks"},
    ]
    places = {"name": "words", "with_photo": "words", "photo": "picture", "wood": "looks", "finish": "looks"}
    for field in document["fields"]:
        field["section"] = places.get(field["key"], "looks")
    document["sides"][0]["picture"] = setup_of_revision(product.live).sides[0].picture.model_dump()
    made = import_product(owner, document, key="paged")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    return made


def page_in_view(answer):
    return re.search(r'name="page" value="([a-z]*)" data-hidden-sections="([^"]*)"', answer).groups()


def test_pages_turn_only_when_finished_and_leave_out_what_is_not_asked(paged, client):
    first = client.get("/goods/paged/").content.decode()
    assert page_in_view(first) == ("words", "section-picture section-looks")
    assert "Page 1 of 2" in first
    address = "/goods/paged/preview/"
    held = client.post(address, {"page": "words", "go": "looks"}).content.decode()
    assert page_in_view(held)[0] == "words"
    assert "Please fill in “Name of the boat”." in held
    turned = client.post(address, {"page": "words", "go": "looks", "entry-name": "Tern"}).content.decode()
    assert page_in_view(turned)[0] == "looks"
    with_photo = {"page": "words", "go": "picture", "entry-name": "Tern", "entry-with_photo": "yes"}
    assert page_in_view(client.post(address, with_photo).content.decode())[0] == "picture"
    stays = {**with_photo, "page": "picture", "go": "looks"}
    assert page_in_view(client.post(address, stays).content.decode())[0] == "picture"
    assert page_in_view(client.post(address, {**stays, "go": "words"}).content.decode())[0] == "words"


def test_ordering_too_early_shows_the_page_of_the_first_problem(paged, client):
    refused = client.post("/goods/paged/basket/", {"page": "looks"}).content.decode()
    assert page_in_view(refused)[0] == "words"
    assert "Please fill in “Name of the boat”." in refused


def test_choice_that_need_not_be_made_can_be_taken_back_and_begins_with_the_sellers_words(owner, product, client):
    product.refresh_from_db()
    operations = [
        {"do": "set", "path": ["fields", "wood", "prompt"], "value": "Pick your wood"},
        {"do": "set", "path": ["fields", "wood", "shown"], "value": "list"},
    ]
    edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="x")
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    page = client.get("/goods/board/").content.decode()
    assert '<option value="">Pick your wood</option>' in page
    preview = client.post("/goods/board/preview/", {"entry-name": "Tern", "entry-wood": "oak"}).content.decode()
    assert 'data-total="119.50"' in preview
    back = client.post("/goods/board/preview/", {"entry-name": "Tern", "entry-wood": ""}).content.decode()
    assert 'data-total="95.50"' in back


def test_what_keeps_a_piece_from_the_basket_is_told_until_it_is_mended(product, client):
    refused = client.post("/goods/board/basket/", {"entry-name": "", "entry-wood": "cedar"})
    assert refused.status_code == 422
    assert 'name="missing" value="shown"' in refused.content.decode()
    still = client.post("/goods/board/preview/", {"entry-name": "", "missing": "shown"}).content.decode()
    assert "Not yet in the basket" in still
    mended = client.post("/goods/board/preview/", {"entry-name": "Tern", "missing": "shown"}).content.decode()
    assert "Not yet in the basket" not in mended
    assert '<div data-part="blocking">' in mended
    untold = client.post("/goods/board/preview/", {"entry-name": ""}).content.decode()
    assert "blocking" not in untold
