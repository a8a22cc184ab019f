"""Palettes and typefaces in their forms."""

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from tests.core.conftest import TYPEFACES
from tests.core.text.fonts import variable_font
from yenzo.apps.materials.palettes import PaletteEditor
from yenzo.apps.materials.to_core import materials
from yenzo.apps.products.to_core import setup_of_revision

LIST_PAGE = reverse("materials:materials")
NEW_PALETTE, NEW_TYPEFACE = reverse("materials:new_palette"), reverse("materials:new_typeface")
FINISHES = reverse("materials:palette", args=["finishes"])
GOLD = {"key": "gold", "name": "Gold leaf", "screen": "#d4a83e", "reference": "GL 23"}


def sent(*rows, name="Finishes"):
    data = {"name": name, "color-TOTAL_FORMS": len(rows), "color-INITIAL_FORMS": 0}
    return data | {f"color-{number}-{key}": value for number, row in enumerate(rows) for key, value in row.items()}


def test_colors_are_changed_added_and_dropped_and_keep_their_keys(sign_in, product):
    rows = (
        {**GOLD, "name": "Leaf gold", "cmyk": "0, 25.5 80 10", "tool": "T3"},
        {"key": "white", "name": "White", "screen": "#ffffff", "DELETE": "on"},
        {"name": "Gold", "screen": "#aa8800"},
        {"name": "Gold", "screen": "#bb9900"},
        {"name": "", "screen": "#000000"},
    )
    assert sign_in("seller").post(FINISHES, sent(*rows)).url == LIST_PAGE
    colors = materials().palettes["finishes"].colors
    assert [(color.key, color.name) for color in colors] == [
        ("gold", "Leaf gold"),
        ("gold-2", "Gold"),
        ("gold-3", "Gold"),
    ]
    assert (colors[0].cmyk, colors[0].tool, colors[1].cmyk) == ((0, 25.5, 80, 10), "T3", None)


def test_saving_a_palette_as_it_opened_changes_nothing(sign_in, product):
    before = materials().palettes["finishes"]
    rows = [row.initial for row in PaletteEditor(before).rows.initial_forms]
    sign_in("seller").post(FINISHES, sent(*rows))
    assert materials().palettes["finishes"] == before


@pytest.mark.parametrize(
    ("rows", "said"),
    [
        (({**GOLD, "cmyk": "1 2 3"},), "Write four numbers from 0 to 100"),
        (({**GOLD, "cmyk": "1 2 3 x"},), "Write four numbers from 0 to 100"),
        (({**GOLD, "cmyk": "1 2 3 101"},), "Write four numbers from 0 to 100"),
        (({**GOLD, "DELETE": "on"},), "needs at least one color"),
        ((), "needs at least one color"),
    ],
)
def test_palette_without_sense_is_refused_and_keeps_what_was_typed(sign_in, product, rows, said):
    answer = sign_in("seller").post(FINISHES, sent(*rows, name="My own"))
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert 'value="My own"' in answer.content.decode()
    assert len(materials().palettes["finishes"].colors) == 2


def test_new_palette_gets_a_key_of_its_own_and_revisions_keep_theirs(sign_in, product):
    live = setup_of_revision(product.live).materials.palettes["finishes"]
    seller = sign_in("seller")
    seller.post(NEW_PALETTE, sent({"name": "Teal", "screen": "#117788"}))
    assert materials().palettes["finishes-2"].colors[0].key == "teal"
    seller.post(FINISHES, sent({**GOLD, "screen": "#000000"}))
    assert setup_of_revision(product.live).materials.palettes["finishes"] == live
    assert seller.get(reverse("materials:palette", args=["none"])).status_code == 404


def font_file(data, name="vary.ttf"):
    return SimpleUploadedFile(name, data)


def test_typeface_is_added_at_an_instance_shown_and_renamed_without_its_file(sign_in, product, client):
    seller = sign_in("seller")
    given = {"name": "H", "instance": "Bold", "licence": "Own drawing", "file": font_file(variable_font())}
    assert seller.post(NEW_TYPEFACE, given).url == LIST_PAGE
    made = materials().typefaces["h"]
    assert (made.instance, made.licence) == ("Bold", "Own drawing")
    page = seller.get(reverse("materials:typeface", args=["h"])).content.decode()
    assert "specimen.svg?instance=Bold" in page
    assert client.get(f"/typefaces/{made.font}/specimen.svg?instance=Bold").status_code == 200
    assert client.get(f"/typefaces/{made.font}/specimen.svg").status_code == 404
    seller.post(reverse("materials:typeface", args=["h"]), {"name": "HH", "instance": ""})
    assert (materials().typefaces["h"].name, materials().typefaces["h"].font) == ("HH", made.font)


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"name": "A"}, "required"),
        ({"name": "A", "file": font_file(b"no font")}, "is not a font file"),
        (
            {"name": "A", "file": font_file((TYPEFACES / "haven.ttf").read_bytes()), "instance": "Bold"},
            "isn&#x27;t a var",
        ),
        ({"name": "", "file": font_file(variable_font())}, "required"),
    ],
)
def test_font_that_cannot_be_used_is_refused_in_words(sign_in, product, given, said):
    before = materials().typefaces
    answer = sign_in("seller").post(NEW_TYPEFACE, given)
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert materials().typefaces == before


def test_only_sellers_edit_materials(sign_in, product):
    for address in (NEW_PALETTE, NEW_TYPEFACE, FINISHES):
        assert sign_in("decorator").get(address).status_code == 403


def test_word_list_is_made_kept_out_and_changed(sign_in, product):
    seller = sign_in("seller")
    address = reverse("materials:new_word_list")
    refused = seller.post(address, {"name": "Rude", "words": "two words"})
    assert "one word a line" in refused.content.decode()
    given = {"name": "Rude", "words": "Bilgerat\n\nBilgerat\nscurvydog", "message": "please be kind."}
    assert seller.post(address, given).url == LIST_PAGE
    assert materials().word_lists["rude"].words == ("Bilgerat", "scurvydog")
    assert "2 words that nobody may have made" in seller.get(LIST_PAGE).content.decode()
    refresh = f"/workshop/products/{product.key}/try-out/refresh/"
    assert "“BILGERAT”: please be kind." in seller.post(refresh, {"entry-name": "bilgerat"}).content.decode()
