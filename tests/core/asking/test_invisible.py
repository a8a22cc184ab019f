"""Characters that show nothing: dropped with a word, refused by name where they turn others, kept where scripts need them."""

import pytest

from tests.core.conftest import entries
from yenzo.core.asking.invisible import character_name, shown, without_invisible
from yenzo.core.evaluation import evaluate


@pytest.fixture
def evaluated(setup, assets):
    return lambda values: evaluate(setup, entries(values), assets)


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("Wind\u200bfall", "Windfall"),
        ("\ufeffTern", "Tern"),
        ("Til\u00adler", "Tiller"),
        ("a\u200db", "ab"),
        ("x\u3164", "x"),
        (
            "\u0646\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645",
            "\u0646\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645",
        ),
        ("\u0915\u094d\u200d\u0937", "\u0915\u094d\u200d\u0937"),
        ("\U0001f469\u200d\U0001f680", "\U0001f469\u200d\U0001f680"),
        ("\u2764\ufe0f", "\u2764\ufe0f"),
        ("\u845b\U000e0100", "\u845b\U000e0100"),
        ("Tern\u200f", "Tern"),
        ("12\u200f-13", "12\u200f-13"),
        ("\u202eTern", "\u202eTern"),
    ],
)
def test_what_shows_nothing_goes_and_what_scripts_need_stays(typed, kept):
    text, dropped = without_invisible(typed)
    assert text == kept
    assert bool(dropped) == (typed != kept)


def test_dropped_character_is_named_and_keeps_nothing_from_being_made(evaluated):
    found = evaluated({"name": "Wind\u200bfall"})
    assert found.asked.values["name"] == "WINDFALL"
    assert "zero width space (U+200B)" in found.verdict.advice_of("name")[0]
    assert not found.verdict.blocked


@pytest.mark.parametrize("char", "\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
def test_character_that_turns_the_order_is_refused_by_its_name(evaluated, char):
    found = evaluated({"name": f"Wind{char}fall"})
    assert found.verdict.blocked
    assert any(character_name(char) in item.message for item in found.verdict.blocking)


def test_what_was_left_out_is_told_only_of_what_is_asked(evaluated):
    found = evaluated({"name": "Tern", "port": "Nor\u200bth"})
    assert set(found.asked.left_out) <= set(found.asked.values)


def test_quotes_are_never_empty():
    assert shown("\u00a0") == "no-break space (U+00A0)"
    assert shown("a") == "a"
    assert shown(" ") == " "
