import html
import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import reverse

from tests.core.conftest import board, picture_bytes
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.core.documents import reading

BASE = "/workshop/products/board/"


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


def draft_of(product):
    product.refresh_from_db()
    return product.draft


def test_new_product_begins_with_a_picture_and_goes_on_to_its_scale(seller):
    facts = {"name": "Oar blade", "base_price": "30"}
    picture = SimpleUploadedFile("oar.png", picture_bytes((300, 200)))
    answer = seller.post(reverse("editor:new_product"), {**facts, "picture": picture})
    assert answer.url == reverse("editor:scale", args=["oar-blade", "front"])
    marks = {"start_x": 10, "start_y": 100, "end_x": 290, "end_y": 100, "length_mm": 140}
    assert seller.post(answer.url, marks).url == reverse("editor:setup", args=["oar-blade"])
    side = Product.objects.get(key="oar-blade").draft["sides"][0]
    assert side["scale"]["length_mm"] == 140


@pytest.mark.parametrize(("data", "words"), [(b"", "empty"), (b"GIF89a....", "is a GIF file")])
def test_refused_picture_of_a_new_product_keeps_what_was_typed(seller, data, words):
    facts = {"name": "Oar blade", "base_price": "30", "picture": SimpleUploadedFile("oar.png", data)}
    answer = seller.post(reverse("editor:new_product"), facts)
    page = answer.content.decode()
    assert answer.status_code == 422
    assert words in page
    assert 'value="Oar blade"' in page
    assert not Product.objects.exists()


def test_scale_of_two_marks_on_one_point_is_refused_in_words(seller, product):
    marks = {"start_x": 10, "start_y": 10, "end_x": 10, "end_y": 10, "length_mm": 140}
    answer = seller.post(f"{BASE}sides/front/scale/", marks)
    assert answer.status_code == 422
    assert "mark two points that are apart" in answer.content.decode()


def test_area_is_drawn_moved_resized_and_removed_with_what_lies_in_it(seller, product):
    place = {"x_mm": "100.04", "y_mm": "20", "width_mm": "50", "height_mm": "0.2"}
    seller.post(f"{BASE}areas/front/", place)
    drawn = draft_of(product)["sides"][0]["areas"][-1]
    assert (drawn["x_mm"], drawn["height_mm"]) == (100.0, 1.0)
    seller.post(f"{BASE}areas/front/panel/place/", {"x_mm": "81", "y_mm": "38", "width_mm": "500", "height_mm": "98"})
    panel = draft_of(product)["sides"][0]["areas"][0]
    assert (panel["x_mm"], panel["width_mm"]) == (81, 500)
    asked = seller.post(f"{BASE}areas/front/panel/remove/").content.decode()
    assert "“Name of the boat” would no longer go there; “Name of the boat” would go nowhere" in asked
    product.refresh_from_db()
    assert len(product.draft["sides"][0]["areas"]) > 1
    seller.post(f"{BASE}areas/front/panel/remove/", {"sure": "on"})
    draft = draft_of(product)
    assert [area["key"] for area in draft["sides"][0]["areas"]] == ["photo", drawn["key"]]
    assert [placement["key"] for placement in draft["placements"]] == ["photo"]


def test_numbers_of_an_area_that_leave_nothing_are_refused_and_kept_on_the_page(seller, product):
    numbers = {
        "name": "Panel",
        "x_mm": 80,
        "y_mm": 38,
        "width_mm": 540,
        "height_mm": 98,
        "safe_mm": 60,
        "turn_deg": 0,
        "bleed_mm": 2,
        "dpi": 100,
        "method": "carving",
        "selected": "front/panel",
    }
    answer = seller.post(f"{BASE}areas/front/panel/", numbers)
    assert answer.status_code == 422
    assert "a safe margin of 60 mm leaves nothing of the area “Panel”" in answer.content.decode()
    answer = seller.post(f"{BASE}areas/front/panel/", {**numbers, "safe_mm": 5, "dpi": 5})
    assert "dpi: Ensure this value is greater than or equal to 36." in answer.content.decode()


def test_lines_are_added_moved_copied_and_removed(seller, product):
    for kind in ("line", "paragraph", "choice", "yes_no", "typeface", "color", "artwork"):
        answer = seller.post(f"{BASE}lines/", {"label": f"New {kind}", "kind": kind})
        assert answer.status_code == 200, kind
    keys = [field["key"] for field in draft_of(product)["fields"]]
    kinds = ("line", "paragraph", "choice", "yes-no", "typeface", "color", "artwork")
    assert keys[-7:] == [f"new-{kind}" for kind in kinds]
    seller.post(f"{BASE}lines/wood/move/", {"position": "0"})
    seller.post(f"{BASE}lines/wood/copy/")
    draft = draft_of(product)
    assert [field["label"] for field in draft["fields"][:2]] == ["Wood", "Wood (copy)"]
    assert [charge["amounts"] for charge in draft["charges"] if charge["field"].startswith("wood")] == [
        {"oak": "24.00"}
    ] * 2
    seller.post(f"{BASE}lines/wood/remove/")
    assert "wood" not in [field["key"] for field in draft_of(product)["fields"]]


def test_line_that_others_lean_on_is_kept_and_the_page_says_why(seller, product):
    answer = seller.post(f"{BASE}lines/with_photo/remove/")
    assert answer.status_code == 422
    assert (
        "“Photo” is asked by a line that isn't there any more (“with_photo”). Please change that rule."
        in html.unescape(answer.content.decode())
    )
    assert "with_photo" in [field["key"] for field in draft_of(product)["fields"]]


def test_edit_announces_itself_to_the_try_out_and_a_stale_one_says_both(seller, sign_in, product):
    label = {"label": "Ship", "workshop_name": "", "help": "", "seen": "0"}
    assert seller.post(f"{BASE}lines/name/label/", label)["HX-Trigger-After-Swap"] == "draft-changed"
    answer = sign_in("owner").post(f"{BASE}lines/name/label/", {**label, "label": "Vessel"})
    page = answer.content.decode()
    assert answer.status_code == 422
    assert "Seller changed this while you had it open" in page
    assert "“Ship”" in page
    assert "“Vessel”" in page


def test_change_that_is_asked_again_as_its_answer_was_lost_is_done_once(seller, sign_in, product):
    def count():
        return len(draft_of(product)["sides"][0]["areas"])

    def draw(client, **seen):
        place = {"x_mm": 10, "y_mm": 10, "width_mm": 40, "height_mm": 20}
        assert client.post(f"{BASE}areas/front/", {**place, **seen}).status_code == 200

    before, version = count(), product.draft_version
    for _ in range(2):
        draw(seller, seen=version)
    assert count() == before + 1
    # Whoever has had the answer wants one more; so does another person, and who doesn't say what they have seen.
    draw(seller, seen=version + 1)
    draw(sign_in("owner"), seen=version + 2)
    for _ in range(2):
        draw(seller)
    assert count() == before + 5
    # What was taken back isn't done any more: whoever still sees it as it was before is told.
    again = {"seen": version + 5, "x_mm": 5, "y_mm": 5, "width_mm": 9, "height_mm": 9}
    assert seller.post(f"{BASE}areas/front/", again).status_code == 200
    seller.post(f"{BASE}undo/")
    answer = seller.post(f"{BASE}areas/front/", again)
    assert answer.status_code == 422
    assert "Seller changed this while you had it open" in answer.content.decode()


def test_value_that_is_sent_again_is_not_told_to_be_overtaken_by_itself(seller, product):
    label = {"label": "Ship", "workshop_name": "", "help": "", "seen": "0"}
    for _ in range(2):
        assert seller.post(f"{BASE}lines/name/label/", label).status_code == 200
    assert seller.post(f"{BASE}lines/name/label/", {**label, "label": "Vessel"}).status_code == 422


def test_publishing_from_the_page_makes_the_next_revision_live(seller, product):
    seller.post(f"{BASE}offer/", {"name": "Board", "base_price": "91.50", "sku": "", "category": "", "story": ""})
    product.refresh_from_db()
    answer = seller.post(f"{BASE}publish/", {"seen": product.draft_version})
    assert "Revision 2 is live" in answer.content.decode()


def test_variant_with_a_picture_of_its_own_is_added_and_removed(seller, product):
    facts = {
        "name": "Oiled",
        "price_difference": "4",
        "swatch": "#553311",
        "picture-front": SimpleUploadedFile("o.png", picture_bytes((1400, 440))),
    }
    seller.post(f"{BASE}variants/", facts)
    variant = draft_of(product)["offer"]["variants"][0]
    assert (variant["name"], list(variant["pictures"])) == ("Oiled", ["front"])
    seller.post(f"{BASE}variants/oiled/remove/")
    assert draft_of(product)["offer"]["variants"] == []


@pytest.mark.parametrize(
    "path",
    ["lines/none/label/", "lines/name/none/", "areas/lid/x/", "sides/lid/scale/", "lines/name/height/?placement=none"],
)
def test_what_is_not_there_is_not_found(seller, product, path):
    assert seller.post(BASE + path, {}).status_code == 404


def test_product_list_asks_the_database_as_often_for_many_as_for_one(seller, owner, product):
    def queries():
        with CaptureQueriesContext(
            connection,
        ) as caught:
            assert seller.get(reverse("editor:products")).status_code == 200
        return len(caught)

    one = queries()
    for number in range(3):
        made = import_product(owner, json.loads(json.dumps(board())), key=f"board-{number}")
        publish_setup(owner, made.pk, seen_version=0)
    assert queries() == one


def options_of(product):
    return next(field for field in draft_of(product)["fields"] if field["key"] == "wood")["options"]


def test_renamed_choice_keeps_its_key_charge_looks_and_translation(seller, product, owner):
    swatch = [{"do": "set", "path": ["fields", "wood", "options", "oak", "swatch"], "value": "#aa8844"}]
    words = [{"do": "set", "path": ["wording"], "value": {"de": {"Oak": "Eiche", "Cedar": "Zeder"}}}]
    edit_draft(owner, product.pk, [*swatch, *words], seen_version=0, label="x")
    seller.post(f"{BASE}lines/wood/options/", {"options": "Cedar\nOld oak = OAK\nAsh", "seen": "1"})
    assert [(one["key"], one["label"]) for one in options_of(product)] == [
        ("cedar", "Cedar"),
        ("oak", "Old oak"),
        ("ash", "Ash"),
    ]
    assert options_of(product)[1]["swatch"] == "#aa8844"
    draft = draft_of(product)
    assert next(charge for charge in draft["charges"] if charge["key"] == "wood")["amounts"] == {"oak": "24.00"}
    assert draft["wording"] == {"de": {"Old oak": "Eiche", "Cedar": "Zeder"}}
    seller.post(f"{BASE}undo/")
    assert draft_of(product)["wording"] == {"de": {"Oak": "Eiche", "Cedar": "Zeder"}}


def test_choice_that_has_a_charge_goes_only_when_that_is_meant(seller, product):
    asked = seller.post(f"{BASE}lines/wood/options/", {"options": "Cedar", "seen": "0"})
    assert asked.status_code == 422
    assert "With that goes the 24.00 that “Oak” adds." in asked.content.decode()
    assert len(options_of(product)) == 2
    seller.post(f"{BASE}lines/wood/options/", {"options": "Cedar", "seen": "0", "sure": "on"})
    assert [one["key"] for one in options_of(product)] == ["cedar"]
    assert "wood" not in {charge["key"] for charge in draft_of(product)["charges"]}


def test_side_goes_only_when_that_is_meant(seller, product):
    asked = seller.post(f"{BASE}sides/front/remove/").content.decode()
    assert "Remove the side “Front” and its picture? 2 imprint areas would go with it." in asked
    assert draft_of(product)["sides"]
    seller.post(f"{BASE}sides/front/remove/", {"sure": "on"})
    assert not draft_of(product).get("sides")


def test_emptied_price_is_refused_in_the_place_of_its_own_form(seller, product):
    given = {"name": "Board", "base_price": "", "sku": "", "category": "", "story": ""}
    answer = seller.post(f"{BASE}offer/", given)
    assert (answer.status_code, answer["HX-Retarget"]) == (422, "#offer-form > .open-form")
    assert answer.content.decode().count("<form") == 1


def test_telephone_number_can_be_put_on_the_goods(seller, product):
    seller.post(f"{BASE}lines/", {"label": "Ring here", "kind": "phone"})
    seller.post(f"{BASE}lines/ring-here/places/", {"areas": ["front/photo"], "seen": "1"})
    placed = [one for one in draft_of(product)["placements"] if one["field"] == "ring-here"]
    assert [(one["kind"], one["area"]) for one in placed] == [("line", "photo")]


@pytest.mark.parametrize(
    ("address", "given", "said"),
    [
        ("areas/front/panel/", {"safe_mm": 60}, "a safe margin of 60 mm leaves nothing of the area “Panel”"),
        ("lines/wood/kind/", {"kind": "line"}, "Wood"),
        ("lines/with_photo/remove/", {}, "“Photo” is asked by a line that isn't there any more"),
    ],
)
def test_refusals_speak_of_names_and_never_of_documents(seller, product, address, given, said):
    numbers = {"name": "Panel", "x_mm": 80, "y_mm": 38, "width_mm": 540, "height_mm": 98, "safe_mm": 4, "turn_deg": 0}
    numbers |= {"bleed_mm": 2, "dpi": 100, "method": "carving", "selected": "front/panel", "seen": "0"}
    page = html.unescape(seller.post(f"{BASE}{address}", {**numbers, **given}).content.decode())
    assert "set-up document" not in page
    assert said in page


def test_choice_that_becomes_free_text_asks_before_rules_wait_for_its_words(seller, owner, product):
    rule = {"match": "all", "inner-match": "any", "test-0": "wood is oak"}
    seller.post(f"{BASE}lines/photo/ask-when/", rule)
    # What it costs with each choice can't stay: that is refused before anything else.
    for charge in [charge for charge in draft_of(product)["charges"] if charge["field"] == "wood"]:
        remove = {"do": "remove", "path": ["charges"], "key": charge["key"]}
        seen = Product.objects.get(pk=product.pk).draft_version
        edit_draft(owner, product.pk, [remove], seen_version=seen, label="No charge")
    asked = html.unescape(seller.post(f"{BASE}lines/wood/kind/", {"kind": "line"}).content.decode())
    assert "“Photo” is asked when it is “Oak”; then only who types exactly that meets it" in asked
    assert field_of(product, "wood")["kind"] == "choice"
    seller.post(f"{BASE}lines/wood/kind/", {"kind": "line", "sure": "on"})
    assert field_of(product, "wood")["kind"] == "line"
    (condition,) = field_of(product, "photo")["ask_when"]["conditions"]
    assert condition["value"] == "Oak"
    # On the way back the rule waits for the choice again, which is kept.
    seller.post(f"{BASE}lines/wood/kind/", {"kind": "choice"})
    (condition,) = field_of(product, "photo")["ask_when"]["conditions"]
    assert condition["value"] == "oak"


def field_of(product, key):
    return next(field for field in draft_of(product)["fields"] if field["key"] == key)


def test_edit_reads_each_state_of_the_draft_once(product, sign_in, monkeypatch):
    read, whole = [], reading._read

    def counted(model, data, what):
        read.append(what)
        return whole(model, data, what)

    monkeypatch.setattr(reading, "_read", counted)
    seller = sign_in("seller")
    seller.get("/workshop/products/board/")
    read.clear()
    # No other test has this label: what was read once is known.
    form = {"label": "Launch", "workshop_name": "", "seen": product.draft_version}
    assert seller.post("/workshop/products/board/lines/name/label/", form).status_code == 200
    assert read == [reading.SETUP]


def test_another_picture_of_a_side_keeps_its_areas_by_two_points(seller, product):
    side = product.draft["sides"][0]
    sent = seller.post(
        f"{BASE}sides/front/picture/", {"picture": SimpleUploadedFile("new.png", picture_bytes((600, 200)))}
    )
    page = seller.get(sent.url)
    assert page.context["picture"]["width_px"] == 600
    start, end = side["scale"]["start_px"], side["scale"]["end_px"]
    before = {"before-start_x": start[0], "before-start_y": start[1], "before-end_x": end[0], "before-end_y": end[1]}
    after = {"after-start_x": 100, "after-start_y": 50, "after-end_x": 500, "after-end_y": 50}
    together = {**after, "after-end_x": 100}
    token = page.context["token"]
    refused = seller.post(f"{BASE}sides/front/match/", {**before, **together, "picture": token})
    assert (refused.status_code, "apart" in refused.content.decode()) == (422, True)
    assert draft_of(product)["sides"][0] == side
    seller.post(f"{BASE}sides/front/match/", {**before, **after, "picture": token})
    new = draft_of(product)["sides"][0]
    assert new["scale"]["length_mm"] == pytest.approx(side["scale"]["length_mm"])
    assert [area["width_mm"] for area in new["areas"]] == [area["width_mm"] for area in side["areas"]]
    assert new["picture"]["width_px"] == 600


def test_a_picture_that_nobody_sent_is_not_taken(seller, product):
    answer = seller.get(f"{BASE}sides/front/match/?picture=forged")
    assert answer.url == f"{BASE}sides/front/scale/"
    assert seller.post(f"{BASE}sides/front/picture/", {}).status_code == 422
