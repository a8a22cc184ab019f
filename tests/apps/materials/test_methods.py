from urllib.parse import urlencode

import pytest
from django.http import QueryDict
from django.urls import reverse

from yenzo.apps.materials.methods import MethodForm, method_row
from yenzo.apps.materials.to_core import materials
from yenzo.core.documents.materials import Method

LIST_PAGE, NEW_PAGE = reverse("materials:materials"), reverse("materials:new_method")
NEW = {
    "name": "Rotary engraving",
    "done": "engraved",
    "least_letter_mm": "3.5",
    "least_stroke_mm": "0.2",
    "tool_mm": "0.3",
    "least_dpi": "200",
    "good_dpi": "300",
    "most_colors": "1",
    "made_files": ["svg", "dxf"],
    "mirrored": "on",
    "underbase_mm": "-0.3",
    "setup_minutes": "8",
    "piece_minutes": "2",
    "letter_minutes": "0.2",
    "cm2_minutes": "0.01",
    "hour_cost": "36",
    "order": "40",
}


def page_of(key):
    return reverse("materials:method", args=[key])


def test_method_says_in_its_row_what_it_makes_and_gets():
    plain = Method(name="Carving", done="carved", least_letter_mm=20)
    row = method_row("carving", plain)
    assert (row.name, row.letters, row.strokes, row.gaps, row.artwork) == ("Carving", "20", "–", "–", "72 / 150")
    assert (row.colors, row.files, row.more) == ("–", "SVG, PNG, PDF", "")
    busy = Method(
        name="Transfer",
        done="printed",
        least_gap_mm=0.4,
        most_colors=3,
        gradients=False,
        files=("pdf",),
        mirrored=True,
        separations=True,
        underbase_mm=0.25,
        registration=True,
        spot_colors=True,
    )
    row = method_row("transfer", busy)
    assert (row.gaps, row.colors, row.files) == ("0.4", "3", "PDF")
    assert row.more == (
        "no gradients, mirrored, one plate a color as well, a white underbase 0.25 mm wider, "
        "registration marks, spot colors"
    )


def test_small_letters_may_have_a_limit_of_their_own_below_that_of_capitals():
    row = method_row("pen", Method(name="Pen", done="drawn", least_letter_mm=5, least_small_mm=3.5))
    assert row.letters == "5 / 3.5"
    form = MethodForm(None, QueryDict(urlencode({**NEW, "least_small_mm": "4"}, doseq=True)))
    assert list(form.errors) == ["least_small_mm"]
    form = MethodForm(None, QueryDict(urlencode({**NEW, "least_small_mm": "2.5"}, doseq=True)))
    assert form.is_valid()
    assert form.document()["least_small_mm"] == 2.5


def test_new_method_is_made_from_the_form_and_opens_with_what_it_has(sign_in, product):
    seller = sign_in("seller")
    assert seller.post(NEW_PAGE, NEW).url == LIST_PAGE
    made = materials().methods["rotary-engraving"]
    assert (made.least_stroke_mm, made.files, made.mirrored, made.underbase_mm) == (0.2, ("svg", "dxf"), True, -0.3)
    assert made.gradients is False
    page = seller.get(page_of("rotary-engraving")).content.decode()
    assert 'value="0.2"' in page
    assert "0.3 mm narrower" in seller.get(LIST_PAGE).content.decode()


def test_saving_a_method_as_it_opened_changes_nothing(sign_in, product):
    before = materials().methods["carving"]
    form = MethodForm(before)
    data = {name: form.initial[name] for name in form.fields if form.initial[name] not in (None, False)}
    sign_in("seller").post(page_of("carving"), data)
    assert materials().methods["carving"] == before


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"made_files": []}, "Pick at least one"),
        ({"good_dpi": "100"}, "below what is refused"),
        ({"name": ""}, "required"),
    ],
)
def test_method_without_sense_is_refused_and_keeps_what_was_typed(sign_in, product, given, said):
    answer = sign_in("seller").post(NEW_PAGE, {**NEW, **given})
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert 'value="3.5"' in answer.content.decode()


def test_method_that_is_not_there_is_not_found(sign_in, product):
    assert sign_in("seller").get(page_of("none")).status_code == 404
    assert sign_in("decorator").get(page_of("carving")).status_code == 403
