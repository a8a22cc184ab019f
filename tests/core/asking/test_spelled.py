"""A text is read letter by letter, with names for what is easily mistaken."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.asking.spelled import spelled
from yenzo.core.translation import override_language


def test_letters_that_look_alike_and_what_shows_nothing_have_names():
    found = [(one.letter, one.name) for one in spelled("O0 lI-")]
    assert found == [
        ("O", "letter O"),
        ("0", "zero"),
        (" ", "space"),
        ("l", "small L"),
        ("I", "capital I"),
        ("-", "hyphen"),
    ]


@pytest.mark.parametrize("text", ["Z\u030cena", "नमस्ते", "👨‍👩‍👧", "é"])
def test_marks_stay_with_the_letters_that_they_stand_on(text):
    assert "".join(one.letter for one in spelled(text)) == text
    assert len(spelled(text)) <= len(text)


def test_names_are_said_in_the_language_of_who_reads():
    with override_language("de"):
        assert spelled("0")[0].name == "Null"


@given(st.text(max_size=40))
def test_nothing_is_added_and_nothing_left_out(text):
    assert "".join(one.letter for one in spelled(text)) == text
