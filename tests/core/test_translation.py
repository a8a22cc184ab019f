from decimal import Decimal

import pytest

from tests.core.conftest import board
from yenzo.core.asking.ask import ask
from yenzo.core.asking.check import check
from yenzo.core.documents.charges import BandCharge, CharacterCharge
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.pricing.counting import counted_words
from yenzo.core.pricing.words import charge_words
from yenzo.core.text.typefaces import Typefaces
from yenzo.core.translation import (
    current_language,
    decimal,
    is_right_to_left,
    listed,
    override_language,
    translate,
    translate_plural,
)


def test_english_is_what_is_written_in_the_code():
    assert current_language() == "en"
    assert translate("Please choose “{label}”.", label="Wood") == "Please choose “Wood”."
    for language in ("en-GB", "tlh", "xx-bad-tag"):
        with override_language(language):
            assert translate("Please choose “{label}”.", label="Wood") == "Please choose “Wood”."
            assert decimal(1.5, 1) == "1.5"


def test_language_holds_in_its_block_only_and_blocks_lie_in_each_other():
    with override_language("de"):
        with override_language("ar"):
            assert translate("yes") == "نعم"
        assert translate("yes") == "ja"
    with pytest.raises(ValueError, match="stop"), override_language("de"):
        raise ValueError("stop")
    assert translate("yes") == "yes"


def test_language_of_a_country_falls_back_to_the_language():
    with override_language("de-AT"):
        assert translate("Please choose “{label}”.", label="Holz") == "Bitte wählen Sie „Holz“."


def test_values_with_braces_stay_as_they_are():
    assert translate("Please choose “{label}”.", label="{name}") == "Please choose “{name}”."


@pytest.mark.parametrize(
    ("count", "words"),
    [(0, "لون"), (1, "لون واحد"), (2, "لونان"), (5, "ألوان"), (11, "لونًا"), (100, "لون"), (103, "ألوان")],
)
def test_many_follows_the_six_forms_of_arabic(count, words):
    with override_language("ar"):
        said = translate_plural("{count} color", "{count} colors", count)
    assert said.split("\u2069 ")[-1] == words


def test_what_has_decimals_is_many():
    charge = CharacterCharge(key="c", field="name", amount="1", kind="per_character")
    assert counted_words(charge, Decimal(1)) == "1 character"
    assert counted_words(charge, Decimal("1.5")) == "1.5 characters"


def test_quoted_values_do_not_turn_a_sentence_that_runs_from_right_to_left():
    with override_language("ar"):
        assert "\u2068Wood\u2069" in translate("Please choose “{label}”.", label="Wood")
    assert is_right_to_left("ar")
    assert is_right_to_left("he-IL")
    assert not is_right_to_left("de")


def test_numbers_and_lists_are_written_as_the_reader_does():
    assert (decimal(0.25, 2), decimal(Decimal("1.50")), decimal(1000.5)) == ("0.25", "1.5", "1000.5")
    assert (listed([]), listed("a"), listed("ab"), listed("abc", "or")) == ("", "a", "a and b", "a, b or c")
    with override_language("de"):
        assert (decimal(0.25, 2), decimal(3.0, 0)) == ("0,25", "3")
        assert (listed("abc"), listed("ab", "or")) == ("a, b und c", "a oder b")


def test_problems_and_charges_are_said_in_the_readers_language(assets):
    setup = read_setup(board())
    typefaces = Typefaces(setup.materials, assets)
    asked = ask(setup, read_entries({"values": {"name": "Much Too Long For Any Board"}}))
    with override_language("de"):
        (found,) = check(setup, asked, typefaces)
        charge = setup.charges[0]
        words = charge_words(setup, charge, str)
    assert found.message.endswith("27 Zeichen, 9 zu viel: Platz ist für 18. Bitte kürzen Sie.")
    assert words == ["0.40 je Zeichen nach den ersten 6"]
    with override_language("ar"):
        assert check(setup, asked, typefaces)[0].code == found.code == "too_long"


def test_bands_begin_with_one_or_many():
    charge = BandCharge(key="b", kind="bands", bands=[{"begins": 1, "amount": "1"}, {"begins": 10, "amount": "2"}])
    setup = read_setup(board())
    assert charge_words(setup, charge, str) == ["1 from 1 piece on", "2 from 10 pieces on"]
    with override_language("de"):
        assert charge_words(setup, charge, str) == ["1 ab 1 Stück", "2 ab 10 Stück"]
