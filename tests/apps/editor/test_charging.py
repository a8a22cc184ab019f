"""Charges in the set-up: each is said, edited and taken away by itself, on a line or on the piece as a whole."""

import pytest
from django.core.exceptions import ValidationError

from tests.apps.editor.test_aspects import line_of, posted, saved, words
from tests.core.conftest import board
from yenzo.apps.editor.aspects import ASPECTS
from yenzo.apps.editor.aspects.charge_ways import ways_of
from yenzo.apps.editor.aspects.interface import WholeForm
from yenzo.apps.editor.aspects.sections import FORM_ASPECTS, form_sentence
from yenzo.core.documents.charges import AnyCharge
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.reading import dump_document, read_setup

CHARGE = ASPECTS["charge"]


def test_every_kind_of_charge_can_be_had_by_some_line():
    kinds = {model.model_fields["kind"].default for model in AnyCharge.__origin__.__args__}
    setup = read_setup(board())
    paragraph = setup.fields[0].model_copy(update={"key": "more"})
    fields = [*setup.fields, paragraph]
    own = {"per_item"} & {
        way.kind for way in ways_of(OwnItemsField(key="own", label="Own", codes={"palette": "finishes"}))
    }
    assert {way.kind for field in fields for way in ways_of(field)} | {"per_line"} | own == kinds
    assert "per_word" not in {way.kind for way in ways_of(setup.field("photo"))}
    assert "per_choice" not in {way.kind for way in ways_of(None)}


@pytest.mark.parametrize(
    ("field_key", "given", "said"),
    [
        ("name", {"way": "fixed", "amount": "2.5"}, "Adds 0.40 a character beyond the first 6 and 2.50."),
        ("name", {"way": "per_word", "amount": "1", "beyond": 2, "least": "0", "most": "4"}, "1.00 a word beyond the"),
        ("name", {"way": "per_character", "amount": "1", "count_spaces": True}, "1.00 a character, spaces too."),
        ("with_photo", {"way": "percent", "percent": "12.5", "least": "3"}, "12.5 % of the base price (at least 3.00)"),
        ("photo", {"way": "per_upload", "amount": "4", "per": "line"}, "Adds 4.00 a file once for all pieces."),
        ("photo", {"way": "per_cm2", "amount": "0.1", "measured": "area"}, "Adds 0.10 a cm² of its areas."),
        ("name", {"way": "per_color", "amount": "3", "beyond": 1}, "3.00 a color beyond the first one"),
        ("name", {"way": "per_side", "amount": "3"}, "3.00 a side."),
        ("name", {"way": "per_placed", "amount": "3"}, "3.00 an item placed."),
        ("name", {"way": "formula", "formula": "count(name) * 2"}, "what “count(name) * 2” comes to."),
        (
            "photo",
            {"way": "bands", "of": "pieces", "bands": "1 = 4.00\n10 = -5 %"},
            "4.00 from 1 piece on and -5 % from",
        ),
    ],
)
def test_charge_that_is_added_is_said(field_key, given, said):
    line = line_of(read_setup(board()), field_key, "")
    again = saved(board(), line, CHARGE, posted(CHARGE.form(line), **given))
    assert said in words(again, field_key)
    added = again.charges[-1]
    opened = line_of(again, field_key, added.key)
    kept = saved(dump_document(again), opened, CHARGE, posted(CHARGE.form(opened)))
    assert kept.charges[-1] == added


def test_charge_keeps_its_place_when_it_is_changed_and_goes_when_it_is_taken_away():
    line = line_of(read_setup(board()), "name", "letters")
    changed = saved(board(), line, CHARGE, posted(CHARGE.form(line), amount="0.55", is_summed=True, step="0.5"))
    first = changed.charges[0]
    assert (first.key, str(first.amount), first.shown, str(first.rounding.step)) == ("letters", "0.55", False, "0.5")
    gone = saved(board(), line, CHARGE, posted(CHARGE.form(line), remove=True))
    assert [charge.key for charge in gone.charges] == ["photo", "wood", "finish"]


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"way": "fixed"}, "Write what it adds"),
        ({"way": "percent"}, "how many percent"),
        ({"way": "bands", "bands": ""}, "at least one band"),
        ({"way": "bands", "bands": "many = 4"}, "“many = 4” is no band"),
        ({"way": "bands", "bands": "1 = NaN"}, "is no band"),
        ({"way": "formula", "formula": "nothing * 2"}, "names “nothing”, which isn't there"),
        ({"way": "formula", "formula": "2 +"}, "can't be read as a formula"),
        ({"way": "fixed", "amount": "1", "least": "9", "most": "3"}, "above the most"),
    ],
)
def test_charge_without_sense_is_refused_in_words(given, said):
    line = line_of(read_setup(board()), "name", "")
    form = CHARGE.form(line, posted(CHARGE.form(line), **given))
    assert form.is_valid(), form.errors
    with pytest.raises(ValidationError, match=said):
        CHARGE.operations(line, form.cleaned_data)


def whole(document, key, **given):
    form = WholeForm(read_setup(document))
    aspect = FORM_ASPECTS[key]
    return saved(document, form, aspect, posted(aspect.form(form), **given))


def test_piece_as_a_whole_has_charges_taxes_and_a_sum_of_extras():
    made = whole(board(), "charge", way="bands", bands="10 = -5 %", label="Ten or more")
    made = whole(dump_document(made), "tax", tax_percent="20", taxes_included=False)
    made = whole(dump_document(made), "extras", extras="sum")
    made = whole(dump_document(made), "shown", shown="folded")
    said = "".join(part.words for part in form_sentence(made))
    assert "Prices are with 20 % tax on top" in said
    assert "customers see what is added in one sum. Adds -5 % from 10 pieces on" in said


def test_charge_is_edited_on_the_page_and_undone(sign_in, product):
    seller = sign_in("seller")
    address = "/workshop/products/board/lines/name/charge/"
    given = {"way": "per_word", "amount": "0.5", "per": "piece", "round_way": "nearest"}
    assert "0.50 a word" in seller.post(address, given).content.decode()
    assert seller.get(f"{address}?charge=nobody").status_code == 404
    opened = seller.get(f"{address}?charge=letters").content.decode()
    assert 'value="0.40"' in opened
    assert "0.50 a word" not in seller.post("/workshop/products/board/undo/").content.decode()
    piece = "/workshop/products/board/form/charge/"
    assert "7.00 once an order" in seller.post(piece, {"way": "fixed", "amount": "7", "per": "order"}).content.decode()
