import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.core.conftest import board, entries, typeface, upload
from yenzo.core.asking.ask import ask
from yenzo.core.asking.patterns import has_pattern, pattern_words
from yenzo.core.asking.texts import characters, room_left
from yenzo.core.documents.fields import Pattern
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate, evaluate_asked


def problems(setup, assets, values, **others):
    return {(p.code, p.field): p.message for p in evaluate(setup, entries(values, **others), assets).verdict.problems}


def test_required_entries_that_are_missing_are_all_named(setup, assets):
    found = problems(setup, assets, {"with_photo": True})
    assert set(found) == {("required", "name"), ("required", "photo")}
    assert found["required", "name"] == "Please fill in “Name of the boat”."


def test_text_that_is_too_long_says_by_how_much(setup, assets):
    found = problems(setup, assets, {"name": "A" * 21})
    assert "21 characters, 3 too many" in found["too_long", "name"]


def test_characters_not_allowed_are_named_with_those_that_are(setup, assets):
    found = problems(setup, assets, {"name": "Ahoy! 😀"})
    assert found["not_allowed", "name"].startswith("“!” and “😀” can't be used here.")
    assert "letters, digits, space, - & '" in found["not_allowed", "name"]


def test_character_the_typeface_lacks_is_named_with_typefaces_that_have_it(setup, assets):
    found = problems(setup, assets, {"name": "مرحبا", "lettering": "quayside"})
    assert "not in the typeface Quayside" in found["missing_letter", "name"]
    assert "Levant has all you typed" in found["missing_letter", "name"]
    assert problems(setup, assets, {"name": "مرحبا", "lettering": "levant"}) == {}


def test_entry_that_is_not_offered_is_a_problem_not_a_crash(setup, assets):
    found = problems(setup, assets, {"name": "A", "wood": "plaid", "finish": "mauve", "lettering": "comic"})
    assert {("not_offered", "wood"), ("not_offered", "finish"), ("not_offered", "lettering")} <= set(found)


def test_upload_of_a_kind_that_is_not_taken_is_a_problem(setup, assets):
    found = problems(setup, assets, {"name": "A", "with_photo": True}, uploads={"photo": upload(kind="tiff")})
    assert "PNG, JPEG, WEBP" in found["wrong_kind", "photo"]


@pytest.mark.parametrize(
    ("text", "count"), [("", 0), ("abc", 3), ("né", 2), ("ne\u0301", 2), ("👩‍🚀🇳🇱", 2), ("नमस्ते", 3)]
)
def test_characters_are_counted_as_people_count(text, count):
    assert len(characters(text)) == count


def test_room_is_what_is_left(setup):
    assert room_left(setup.field("name"), "WIND") == 14
    assert room_left(setup.field("name"), "W" * 20) == -2


def test_book_pasted_into_a_line_is_refused_in_words_and_never_laid_out(setup, assets):
    evaluation = evaluate(setup, entries({"name": "x" * 20_000}), assets)
    assert "a line has room for 500 at most" in evaluation.verdict.blocking[0].message
    assert not list(next(evaluation.scene.areas).nodes)


def test_upload_beyond_the_fields_megabytes_is_refused_with_both_sizes(setup, assets):
    heavy = {"photo": {**upload(), "size_bytes": 30_400_000}}
    found = problems(setup, assets, {"name": "Otter", "with_photo": True}, uploads=heavy)
    assert "has 30.4 MB; for “Photo” there is room for 25 MB" in found["too_many_bytes", "photo"]
    fitting = {"photo": {**upload(), "size_bytes": 25_000_000}}
    assert ("too_many_bytes", "photo") not in problems(
        setup, assets, {"name": "Otter", "with_photo": True}, uploads=fitting
    )


def test_letter_that_no_offered_typeface_has_names_the_workshops_others(assets):
    document = board()
    document["fields"][1]["typefaces"] = ["quayside"]
    document["materials"]["typefaces"]["monsoon"] = typeface("monsoon")
    problems = evaluate(read_setup(document), entries({"name": "भ"}), assets).verdict.problems
    missing = next(problem for problem in problems if problem.code == "missing_letter")
    assert (
        "Of the workshop's other typefaces, Monsoon has all you typed. Please write it without it." in missing.message
    )


def test_field_must_be_filled_only_when_its_rule_holds(assets):
    document = board()
    document["fields"].append(
        {
            "key": "port",
            "kind": "line",
            "label": "Port",
            "required_when": {"conditions": [{"field": "wood", "value": "oak"}]},
        }
    )
    setup = read_setup(document)
    assert ("required", "port") in problems(setup, assets, {"name": "A", "wood": "oak"})
    assert problems(setup, assets, {"name": "A", "wood": "cedar"}) == {}
    assert problems(setup, assets, {"name": "A", "wood": "oak", "port": "Hallow"}) == {}


def test_words_are_counted_as_people_count_them_and_emoji_kept_out(assets):
    document = board()
    document["fields"][0] = {
        "key": "name",
        "kind": "line",
        "label": "Name",
        "least_words": 2,
        "most_words": 3,
        "emoji": False,
    }
    setup = read_setup(document)
    assert (
        "has 4 words, 1 too many: there is room for 3"
        in problems(setup, assets, {"name": "a b-c d"})["too_many_words", "name"]
    )
    assert "at least 2 words" in problems(setup, assets, {"name": "one"})["too_few_words", "name"]
    assert problems(setup, assets, {"name": "the harbor's light"}) == {}
    assert "“⛵” can't be used here" in problems(setup, assets, {"name": "two ⛵"})["no_emoji", "name"]
    assert ("too_many_words", "name") in problems(
        setup, assets, {"name": "مرحبا بالعالم هذا نص", "lettering": "levant"}
    )


def texted(assets, field, typed, language="en", **materials):
    """The problems of a line of text with its settings, and what it became."""
    document = board()
    document["fields"].append({"key": "more", "kind": "line", "label": "More", **field})
    document["materials"] |= materials
    evaluation = evaluate(read_setup(document), entries({"name": "A", "more": typed}, language=language), assets)
    found = {one.code: one.message for one in evaluation.verdict.problems if one.field == "more"}
    return found, evaluation.asked.text("more")


@pytest.mark.parametrize(
    ("case", "language", "typed", "became"),
    [
        ("upper", "en", "straße iris", "STRASSE IRIS"),
        ("upper", "tr", "iris", "İRİS"),
        ("upper", "tr", "i\u0307zmir", "İZMİR"),
        ("upper", "en", "a\u00a0b", "A\u00a0B"),
        ("lower", "tr", "IRIS", "ırıs"),
        ("words", "en", "port HALLOW", "Port Hallow"),
        ("words", "nl", "ijsbrand", "IJsbrand"),
        ("first", "en", "égalité toujours", "Égalité toujours"),
        ("typed", "en", "asTyped", "asTyped"),
    ],
)
def test_case_is_forced_as_the_language_does(assets, case, language, typed, became):
    assert texted(assets, {"case": case}, typed, language)[1] == became


def test_older_documents_that_ask_for_capitals_are_read(assets):
    assert texted(assets, {"capitals": True}, "tern")[1] == "TERN"
    assert texted(assets, {"capitals": False}, "Tern")[1] == "Tern"


SAIL = {"shapes": ["AA 9999", "A-99[9]"], "passes": "PH 1931", "fails": "1931"}


@pytest.mark.parametrize(
    ("typed", "passes"),
    [("PH 1931", True), ("éß 0000", True), ("P-12", True), ("P-123", True), ("PH1931", False), ("PH 1931x", False)],
)
def test_text_has_one_of_the_shapes_from_beginning_to_end(assets, typed, passes):
    found, _ = texted(assets, {"pattern": SAIL}, typed)
    assert ("no_pattern" not in found) is passes
    if not passes:
        assert "two letters, a space and four digits" in found["no_pattern"]
        assert "like “PH 1931”" in found["no_pattern"]


@given(st.text(alphabet="A9*[]a1 -.(+", max_size=12), st.text(max_size=12))
def test_any_shape_that_can_be_saved_can_be_said_and_matched(shape, text):
    try:
        pattern = Pattern(shapes=(shape,), passes="x", fails="y")
    except ValidationError:
        return
    assert pattern_words(pattern)
    assert has_pattern(pattern, text) in {True, False}


def test_words_of_the_workshops_lists_are_kept_out_with_its_own_words(assets):
    lists = {"rude": {"name": "Rude", "words": ["Scurvydog"], "message": "we don't carve that."}}
    found, _ = texted(assets, {}, "my scurvyDOG, ahoy", word_lists=lists)
    assert found["word_kept_out"] == "“scurvyDOG”: we don't carve that."
    assert not texted(assets, {}, "scurvydogs", word_lists=lists)[0]
    assert not texted(assets, {"word_lists": False}, "scurvydog", word_lists=lists)[0]


def test_text_of_both_directions_from_an_order_of_before_is_asked_about(setup, assets):
    given = entries({"name": "حسن 22", "lettering": "levant"})
    asked = ask(setup, given).model_copy(update={"in_typed_order": True})
    evaluation = evaluate_asked(setup, asked, assets)
    assert [advice.code for advice in evaluation.verdict.advice] == ["typed_order"]
    assert not evaluation.verdict.blocked
    now = evaluate(setup, given, assets)
    assert not now.verdict.advice
    (read,), (typed,) = (list(one.scene.sides[0].areas[0].letterings) for one in (now, evaluation))
    assert read.outline != typed.outline


def test_text_of_exactly_the_most_and_the_least_characters_is_taken(assets):
    document = board()
    document["fields"][0] |= {"most_characters": 4, "least_characters": 4}
    setup = read_setup(document)
    assert problems(setup, assets, {"name": "TERN"}) == {}
    assert set(problems(setup, assets, {"name": "TERNS"})) == {("too_long", "name")}
    assert set(problems(setup, assets, {"name": "TER"})) == {("too_short", "name")}
