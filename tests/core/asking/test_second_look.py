"""The second look: what is probably wrong is asked about, what is written so anywhere isn't, and no answer is forgotten."""

import warnings

import pytest
from faker import Faker, config

from tests.core.conftest import board, entries
from yenzo.core.asking.ask import ask
from yenzo.core.asking.second_look.interface import Looked
from yenzo.core.asking.second_look.look import doubts, second_look
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate

NAMES_A_LANGUAGE, LEAST_UNASKED = 40, 0.995


def asked_of(text, language="en", typed=None):
    return [(one.code, one.suggestion) for one in doubts(Looked(text, typed or text, language))]


@pytest.mark.parametrize(
    ("text", "code", "suggestion"),
    [
        ("HALcYON", "stray_capital", "HALCYON"),
        ("JOhn Reed", "stray_capital", "John Reed"),
        ("hELLO", "stray_capital", "Hello"),
        ("AnnA", "stray_capital", "Anna"),
        ("Ünal ÖZdemir", "stray_capital", "Ünal Özdemir"),
        ("HALCY0N", "digit_for_letter", "HALCYON"),
        ("M1LLER", "digit_for_letter", "MILLER"),
        ("Hel1o", "digit_for_letter", "Hello"),
        ("0tter", "digit_for_letter", "Otter"),
        ("since 2O24", "digit_for_letter", "since 2024"),
        ("J\u043ehn", "look_alike", "John"),
        ("\u041d\u0410\u041d\u041d\u0410 and Anna", "look_alike", "HAHHA and Anna"),
        ("\u0410\u043dn\u0430", "look_alike", None),
        ("Anna , Bert", "space_before_comma", "Anna, Bert"),
        ("Anna,Bert", "no_space_after_comma", "Anna, Bert"),
        ("Anna, Bert,", "ends_with_comma", "Anna, Bert"),
        ("Otter (since 2001", "bracket_alone", None),
        ("31.02.2019", "no_such_day", None),
        ("29.2.2023", "no_such_day", None),
        ("2023-13-01", "no_such_day", None),
        ("30 February 2020", "no_such_day", None),
        ("June 31st, 2020", "no_such_day", None),
        ("Salt and and Rye", "word_twice", "Salt and Rye"),
    ],
)
def test_what_is_probably_wrong_is_asked_about_with_its_mend(text, code, suggestion):
    [(found, mended)] = asked_of(text)
    assert found == code
    if suggestion is not None:
        assert mended == suggestion
        assert asked_of(mended) == []


@pytest.mark.parametrize(
    "text",
    [
        "MacDonald", "O'Brien", "van der Meer", "d'Arc", "McDONALD", "DeVito", "LeBron", "FitzGerald", "isiXhosa", "nÓg",
        "IJsbrand", "DVDs", "PhD", "GmbH", "iPhone", "LaToya", "Mary-Jane", "St. John's", "AB10", "K1T5", "R2D2", "1st", "4x4",
        "3D", "5ally", "1.2.3", "01/12/2024", "12/25/2024", "29.02.2024", "+44 20 7946 0958", "Bora Bora", "Wind & Whey",
        "WIND & WHEY", "wind & whey", "Иван Петров", "Ελένη", "山田 太郎", "שלום", "MIT", "AC/DC", "1,5 m", "10,000", "",
    ],
)  # fmt: skip
def test_what_is_written_so_is_not_asked_about(text):
    assert asked_of(text) == []


def test_months_are_read_in_the_language_of_the_text():
    assert asked_of("31. Juni 2020", "de") == [("no_such_day", None)]
    assert asked_of("30. Juni 2020", "de") == []
    assert asked_of("31 juin", "fr") == [("no_such_day", None)]


def test_two_spaces_that_were_typed_are_asked_about_though_one_is_made():
    assert asked_of("Anna Bert", typed="Anna  Bert") == [("two_spaces", "Anna Bert")]


@pytest.mark.sweep
def test_names_of_a_hundred_languages_stay_unasked():
    names = []
    for locale in config.AVAILABLE_LOCALES:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", UserWarning)
            made = Faker(locale)
        made.seed_instance(11)
        names += [(locale.split("_")[0], made.name()) for _ in range(NAMES_A_LANGUAGE)]
    assert len(names) >= 4000
    asked_about = [(language, name) for language, name in names if asked_of(name, language)]
    assert len(asked_about) <= (1 - LEAST_UNASKED) * len(names), asked_about


def questions_of(**given):
    setup = read_setup(with_small_letters())
    return second_look(setup, ask(setup, read_entries({"values": {"name": "JOhn"}, **given})))


def with_small_letters():
    document = board()
    document["fields"][0].pop("case", None)
    return document


def test_an_answer_holds_for_this_doubt_about_this_text_only():
    [question] = questions_of()
    assert (question.field, question.suggestion, question.is_meant) == ("name", "John", False)
    answer = {"code": "stray_capital", "text": "JOhn"}
    assert questions_of(meant={"name": [answer]})[0].is_meant
    for other in ({**answer, "text": "JOHn"}, {**answer, "code": "look_alike"}):
        assert not questions_of(meant={"name": [other]})[0].is_meant
    assert not questions_of(meant={"photo": [answer]})[0].is_meant


def test_answers_change_nothing_of_what_is_made_or_paid(assets):
    setup = read_setup(with_small_letters())
    plain = evaluate(setup, entries({"name": "JOhn"}), assets)
    meant = read_entries({"values": {"name": "JOhn"}, "meant": {"name": [{"code": "stray_capital", "text": "JOhn"}]}})
    said = evaluate(setup, meant, assets)
    assert [side.digest for side in said.scene.sides] == [side.digest for side in plain.scene.sides]
    assert said.quote == plain.quote
    assert said.verdict == plain.verdict
    assert not said.verdict.blocked


def test_forced_capitals_leave_nothing_to_ask():
    document = board()
    document["fields"][0]["case"] = "upper"
    setup = read_setup(document)
    assert second_look(setup, ask(setup, entries({"name": "JOhn"}))) == ()
