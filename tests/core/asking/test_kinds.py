"""Every kind of field has all that a kind needs, and the typed ones read, judge and say what was given."""

from datetime import date

import pytest

from tests.core.conftest import board, entries
from yenzo.core.asking.ask import Context, ask
from yenzo.core.asking.kinds import KINDS, EntryContext, kind_of
from yenzo.core.asking.words import entries_in_words
from yenzo.core.documents.fields import AnyField, ArtworkField, YesNoField
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.translation import override_language

MODELS = AnyField.__origin__.__args__
NEEDED = {
    "choice": {"options": [{"key": "a", "label": "A"}, {"key": "b", "label": "B"}]},
    "several": {"options": [{"key": "a", "label": "A"}, {"key": "b", "label": "B", "produced": "BB"}]},
    "ready_made": {"options": [{"key": "a", "label": "A"}, {"key": "b", "label": "B"}]},
    "method": {"methods": ["carving"]},
    "fixed_text": {"text": "Made by hand"},
    "extra": {"price": "6.50"},
    "computed": {"formula": "pieces * 2"},
    "typeface": {"typefaces": ["quayside", "levant"]},
    "color": {"palette": "finishes"},
    "own_items": {"codes": {"palette": "finishes"}},
}
THURSDAY = date(2026, 11, 26)


def with_field(kind, **options):
    """A board that asks one more thing."""
    document = board()
    document["fields"].append({"key": "more", "kind": kind, "label": "More", **NEEDED.get(kind, {}), **options})
    return read_setup(document)


def answered(assets, setup, raw, language="en", today=THURSDAY):
    given = entries({"name": "Tern", "more": raw}, language=language)
    return evaluate(setup, given, assets, Context(today=today))


def problems(evaluation):
    return {problem.code: problem.message for problem in evaluation.verdict.problems if problem.field == "more"}


def normal(assets, setup, raw, **others):
    return answered(assets, setup, raw, **others).asked.values["more"]


def said(assets, setup, raw, language="en"):
    evaluation = answered(assets, setup, raw, language)
    field = setup.field("more")
    with override_language(language):
        return kind_of(field).words(field, evaluation.asked.values["more"], EntryContext(setup, language, THURSDAY))


def produced(assets, setup, raw, language):
    evaluation = answered(assets, setup, raw, language)
    field = setup.field("more")
    return kind_of(field).produced(field, evaluation.asked.values["more"], EntryContext(setup, language, THURSDAY))


def test_every_kind_of_the_documents_has_its_kind():
    assert set(KINDS) == set(MODELS)


@pytest.mark.parametrize("model", MODELS, ids=lambda model: model.model_fields["kind"].default)
def test_every_kind_asks_samples_and_has_worst_cases_that_are_allowed(assets, model):
    setup = with_field(model.model_fields["kind"].default)
    field = setup.field("more")
    kind = kind_of(field)
    assert "“More”" in kind.please(field)
    sample = kind.sample(field, setup)
    if model is not ArtworkField:
        assert not sample or not problems(answered(assets, setup, sample))
    worst = kind.worst(field, setup)
    assert worst
    for raw in worst:
        evaluation = answered(assets, setup, raw)
        found = problems(evaluation)
        assert set(found) <= {"missing_letter"}, (raw, found)
        around = EntryContext(setup, "en", THURSDAY)
        value = evaluation.asked.values["more"]
        if value and model is not YesNoField:
            assert kind.words(field, value, around)
            assert kind.produced(field, value, around)


@pytest.mark.parametrize(
    "kind", ["line", "number", "date", "email", "phone", "link", "note", "choice", "several", "address"]
)
def test_entry_of_any_kind_that_is_missing_is_asked_for(assets, kind):
    nothing = () if kind == "several" else ""
    assert "required" in problems(answered(assets, with_field(kind, required=True), nothing))


def test_heading_asks_nothing_whatever_is_sent(assets):
    evaluation = answered(assets, with_field("heading", required=True), "typed all the same")
    assert evaluation.asked.values["more"] == ""
    assert not problems(evaluation)


@pytest.mark.parametrize(
    ("raw", "code", "words"),
    [
        (("b", "a", "b"), None, "A, B"),
        (("a", "c"), "not_offered", "“c” can't be chosen"),
        (("a",), "too_few", "Please choose 1 more"),
        (("a", "b", "d"), "too_many", "3 are chosen; there is room for 2"),
    ],
)
def test_several_of_a_choice_are_kept_in_order_and_counted(assets, raw, code, words):
    options = [{"key": key, "label": key.upper()} for key in ("a", "b", "d")]
    setup = with_field("several", options=options, least=2, most=2)
    if code is None:
        assert normal(assets, setup, raw) == ("a", "b")
        assert said(assets, setup, raw) == words
    else:
        assert words in problems(answered(assets, setup, raw))[code]


LABEL = {"name": " Ann  Fairwater ", "street": "14 North Pontoon\n\n Pier C", "postcode": "po1 3ax", "town": "Hallow"}


def test_address_is_written_as_its_country_writes_it(assets):
    home = with_field("address")
    assert said(assets, home, {**LABEL, "country": "GB"}) == "Ann Fairwater, 14 North Pontoon, Pier C, HALLOW, PO1 3AX"
    abroad = {**LABEL, "postcode": "26133", "country": "DE"}
    assert said(assets, home, abroad) == "Ann Fairwater, 14 North Pontoon, Pier C, 26133 HALLOW, GERMANY"


@pytest.mark.parametrize(
    ("changed", "code", "words"),
    [
        ({"town": ""}, "incomplete", "lacks the town"),
        ({"postcode": "12345"}, "no_postcode", "“12345” is no postcode"),
        ({"country": "FR", "postcode": "33380"}, "no_country", "Nothing goes to “FR”"),
        ({"street": "x" * 300}, "too_long", "street and number is longer than any label"),
    ],
)
def test_address_that_can_not_be_right_is_said_so(assets, changed, code, words):
    setup = with_field("address", countries=["GB", "DE"])
    assert words in problems(answered(assets, setup, {**LABEL, "country": "GB", **changed}))[code]


def test_address_of_a_country_that_is_none_is_refused_and_still_said(assets):
    evaluation = answered(assets, with_field("address"), {"name": "Ann", "street": "1 Pier\nB", "country": "QX"})
    assert "Nothing goes to “QX”" in problems(evaluation)["no_country"]
    assert entries_in_words(evaluation.setup, evaluation.asked)[-1].words == "Ann, 1 Pier, B"


def test_choices_that_can_not_be_met_are_refused():
    with pytest.raises(Exception, match="at least 3 are wanted, but at most 2 can be chosen"):
        with_field("several", least=3)


@pytest.mark.parametrize(
    ("raw", "value"),
    [("12,50", "12.5"), (" 1 200.0 ", "1200"), ("−3", "-3"), ("007", "7"), ("0.0", "0"), ("", "")],
)
def test_number_is_read_with_a_point_or_a_comma(assets, raw, value):
    assert normal(assets, with_field("number"), raw) == value


@pytest.mark.parametrize("raw", ["twelve", "1e5", "12 mm", "1.2.3", "٣" * 40, "NaN", "inf", "--1", "9" * 16, "."])
def test_what_is_no_number_stays_as_typed_and_is_refused(assets, raw):
    setup = with_field("number")
    assert normal(assets, setup, raw) == raw
    assert "is no number" in problems(answered(assets, setup, raw))["no_number"]


def test_number_keeps_to_its_bounds_and_steps_in_words(assets):
    setup = with_field("number", least="20", most="60", step="2.5", unit="cm")
    found = {raw: problems(answered(assets, setup, raw)) for raw in ("17.5", "62,5", "21", "22.5", "60")}
    assert found["17.5"] == {"too_little": "For “More” at least 20 cm can be made."}
    assert found["62,5"] == {"too_much": "For “More” at most 60 cm can be made."}
    assert found["21"] == {"off_step": "“More” goes in steps of 2.5 cm, counted from 20 cm."}
    assert found["22.5"] == found["60"] == {}


def test_number_is_said_and_produced_in_the_customers_language(assets):
    setup = with_field("number", unit="cm")
    assert said(assets, setup, "1234.5") == "1,234.5 cm"
    assert said(assets, setup, "1234.5", "de") == "1.234,5 cm"
    with override_language("de"):
        assert produced(assets, setup, "1234.5", "en") == "1,234.5"


@pytest.mark.parametrize("raw", ["2026-13-01", "soon", "1/12/2026", "2026-1-1", "20261201xx"])
def test_what_is_no_day_is_refused(assets, raw):
    assert "is no day" in problems(answered(assets, with_field("date"), raw))["no_day"]


def test_days_count_working_days_and_leave_out_closed_ones(assets):
    setup = with_field(
        "date", after_working_days=2, within_days=30, closed_weekdays=[5, 6], closed_days=["2026-11-30", "2026-12-07"]
    )
    # From a Thursday: Friday is the first, Saturday, Sunday and the closed Monday don't count, Tuesday is the second.
    early = problems(answered(assets, setup, "2026-11-27"))
    assert early == {"too_early": "For “More” the first day that can be had is Tuesday, December 1, 2026."}
    assert problems(answered(assets, setup, "2026-12-01")) == {}
    assert "closed on Saturdays and Sundays" in problems(answered(assets, setup, "2026-12-05"))["closed_day"]
    assert "that day is closed" in problems(answered(assets, setup, "2026-12-07"))["closed_day"]
    assert "the last day is Saturday, December 26, 2026" in problems(answered(assets, setup, "2026-12-28"))["too_late"]


def test_order_keeps_the_day_it_was_asked(assets):
    setup = with_field("date", after_working_days=2)
    asked = ask(setup, entries({"name": "A", "more": "2026-11-30"}), Context(today=THURSDAY))
    assert asked.today == THURSDAY
    assert type(asked).model_validate(asked.model_dump(mode="json")) == asked


@pytest.mark.parametrize(
    ("written", "language", "words"),
    [("long", "en", "June 14, 2031"), ("long", "de", "14. Juni 2031"), ("short", "en-GB", "14/06/2031")],
)
def test_day_is_written_as_its_language_writes_it(assets, written, language, words):
    setup = with_field("date", written=written)
    assert said(assets, setup, "2031-06-14", language) == words
    # Whoever reads it, what lands on the goods stays.
    assert produced(assets, setup, "2031-06-14", language) == words


@pytest.mark.parametrize(
    ("kind", "raw", "value"),
    [
        ("email", " Ann@Harbor.Example ", "Ann@harbor.example"),
        ("phone", "020 7946 0018", "+44 20 7946 0018"),
        ("phone", "+49 30 901820", "+49 30 901820"),
        ("link", "harbor.example/terns", "https://harbor.example/terns"),
        ("link", "HTTP://harbor.example", "HTTP://harbor.example"),
        ("note", "  first \n\n second  ", "first\n\nsecond"),
    ],
)
def test_contact_is_kept_in_its_normal_form(assets, kind, raw, value):
    evaluation = answered(assets, with_field(kind), raw)
    assert evaluation.asked.values["more"] == value
    assert problems(evaluation) == {}


@pytest.mark.parametrize(
    ("kind", "raw"),
    [
        ("email", "ann"),
        ("email", "ann@"),
        ("email", "a b@c.example"),
        ("phone", "12"),
        ("phone", "call me"),
        ("link", "harbor"),
        ("link", "javascript:alert(1)"),
        ("link", "https://user@harbor.example"),
        ("link", "ftp://harbor.example"),
        ("email", "a" * 600 + "@b.example"),
    ],
)
def test_contact_that_is_none_is_refused_in_words_and_kept_as_typed(assets, kind, raw):
    evaluation = answered(assets, with_field(kind), raw)
    assert evaluation.asked.values["more"] == raw
    (message,) = problems(evaluation).values()
    assert message.startswith(f"“{raw[:20]}")


def test_note_that_is_too_long_says_by_how_much(assets):
    setup = with_field("note", most_characters=10)
    assert "has 3 characters too many" in problems(answered(assets, setup, "a" * 13))["too_long"]
    assert "many characters too many" in problems(answered(assets, setup, "a" * 6000))["too_long"]


def test_number_and_day_land_on_the_goods_as_text(assets):
    document = board()
    document["fields"] += [
        {"key": "year", "kind": "number", "label": "Year", "unit": "AD"},
        {"key": "day", "kind": "date", "label": "Day", "written": "short"},
    ]
    base = {**document["placements"][0], "joined": "{year} · {day}", "field": "year"}
    document["placements"] = [base]
    given = entries({"name": "A", "year": "1931,5", "day": "2031-06-14"}, language="en-GB")
    evaluation = evaluate(read_setup(document), given, assets)
    assert next(evaluation.scene.areas.__next__().letterings).text == "1,931.5 · 14/06/2031"


def test_bounds_that_contradict_each_other_are_refused():
    with pytest.raises(Exception, match="the least, 9, is above the most, 3"):
        with_field("number", least="9", most="3")


@pytest.mark.parametrize(
    ("raw", "value", "code"),
    [("2", "2", None), ("0", "", None), ("2,5", "2.5", "no_count"), ("-1", "-1", "no_count"), ("12", "12", "too_many")],
)
def test_extra_is_a_number_of_pieces(assets, raw, value, code):
    evaluation = answered(assets, with_field("extra"), raw)
    assert evaluation.asked.values["more"] == value
    assert set(problems(evaluation)) == ({code} if code else set())


def stocked(assets, stock, raw="2", pieces=1, **field):
    """What is the matter when so much is left."""
    setup = with_field("extra", sku="ROPE", **field)
    context = Context(today=THURSDAY, stock=stock)
    evaluation = evaluate(setup, entries({"name": "Tern", "more": raw}, pieces=pieces), assets, context)
    return evaluation, {problem.field: problem.message for problem in evaluation.verdict.problems}


def test_extra_costs_what_it_says_and_belongs_to_its_piece(assets):
    evaluation, found = stocked(assets, {"ROPE": 6, "OTHER": 1}, pieces=3)
    assert not found
    line = next(line for line in evaluation.quote.lines if line.key == "extra:more")
    assert (line.label, str(line.amount)) == ("2 × More", "13.00")
    assert evaluation.asked.stock == {"ROPE": 6}
    assert evaluation.asked.taken(evaluation.setup) == {"ROPE": 6, "NB-1": 3}


@pytest.mark.parametrize(
    ("stock", "field", "said"),
    [
        ({"ROPE": 5}, "more", "Of “More” 5 are left; 6 are wanted"),
        ({"ROPE": 0}, "more", "“More” is sold out"),
        ({"NB-1": 2}, "variant", "Of “Board” 2 are left; 3 are wanted"),
        ({"NB-1": 0}, "variant", "“Board” is sold out"),
    ],
)
def test_what_is_left_bounds_what_can_be_had(assets, stock, field, said):
    _, found = stocked(assets, stock, pieces=3)
    assert said in found[field]


@pytest.mark.parametrize(("more", "keys"), [({}, ("a",)), ({"least": 2}, ("a", "b")), ({"default": ["b"]}, ("b",))])
def test_sample_of_several_is_what_must_be_chosen_at_least_or_begins(more, keys):
    document = board()
    document["fields"].append({"key": "more", "kind": "several", "label": "More", **NEEDED["several"], **more})
    setup = read_setup(document)
    assert sample_entries(setup).values["more"] == keys
