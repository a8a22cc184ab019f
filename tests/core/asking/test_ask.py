import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board, entries, upload
from yenzo.core.asking.ask import Context, ask
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import price


def test_entry_that_is_not_asked_is_left_out_whatever_was_typed(setup):
    asked = ask(setup, entries({"with_photo": False}, uploads={"photo": upload()}))
    assert "photo" not in asked.values


def test_entry_returns_when_asked_again(setup):
    asked = ask(setup, entries({"with_photo": True}, uploads={"photo": upload()}))
    assert asked.values["photo"].name == "otter.jpg"


def test_rule_over_an_unasked_field_takes_it_as_empty():
    document = board()
    document["fields"][4]["ask_when"] = {"conditions": [{"field": "photo", "test": "is_not", "value": ""}]}
    document["fields"][4]["ask_when"]["conditions"][0]["test"] = "is"
    asked = ask(read_setup(document), entries({"with_photo": False}, uploads={"photo": upload()}))
    assert "wood" in asked.values


@pytest.mark.parametrize(
    ("match", "wood", "finish", "is_asked"),
    [
        ("all", "oak", "white", True),
        ("all", "oak", "gold", False),
        ("any", "cedar", "white", True),
        ("any", "cedar", "gold", False),
    ],
)
def test_rule_needs_all_or_any_of_its_conditions(match, wood, finish, is_asked):
    document = board()
    document["fields"][2]["ask_when"] = {
        "match": match,
        "conditions": [{"field": "wood", "value": "oak"}, {"field": "finish", "test": "is_not", "value": "gold"}],
    }
    asked = ask(read_setup(document), entries({"wood": wood, "finish": finish}))
    assert ("with_photo" in asked.values) is is_asked


@pytest.mark.parametrize(
    ("typed", "language", "produced"),
    [
        ("  wind  &\twhey ", "en", "WIND & WHEY"),
        ("straße", "de", "STRASSE"),
        ("izmir", "tr", "İZMİR"),
        ("e\u0301tienne", "fr", "ÉTIENNE"),
    ],
)
def test_line_is_cased_and_spaced_as_produced(setup, typed, language, produced):
    assert ask(setup, entries({"name": typed}), Context(language=language)).text("name") == produced


def test_missing_values_take_defaults_but_blank_ones_stay_blank(setup):
    assert ask(setup, entries()).text("lettering") == "quayside"
    assert ask(setup, entries({"lettering": ""})).text("lettering") == ""


raw_values = st.fixed_dictionaries(
    {},
    optional={
        "name": st.text(max_size=20),
        "lettering": st.sampled_from(["quayside", "levant", "", "nonsense"]),
        "with_photo": st.booleans() | st.sampled_from(["yes", "no", ""]),
        "wood": st.sampled_from(["oak", "cedar", ""]),
        "finish": st.text(max_size=3),
        "stranger": st.text(max_size=3),
    },
)


@given(raw_values)
def test_asked_holds_known_fields_only_and_asking_again_changes_nothing(values):
    setup = read_setup(board())
    asked = ask(setup, entries(values))
    assert set(asked.values) <= {field.key for field in setup.fields}
    again = ask(setup, entries({**values, **{k: v for k, v in asked.values.items() if k != "photo"}}))
    # What showed nothing is gone the second time, and so is the word about it.
    assert again == asked.model_copy(update={"left_out": {}})


def ruled():
    """A board that comes small and large; large ones have a section, and oak is for large ones only."""
    document = board()
    large = {"conditions": [{"field": "@variant", "value": "large"}]}
    document["offer"]["variants"] = [{"key": "small", "name": "Small"}, {"key": "large", "name": "Large"}]
    document["sections"] = [{"key": "more", "title": "More", "ask_when": large}]
    document["fields"].append({"key": "words", "kind": "line", "label": "Words", "section": "more", "required": True})
    wood = next(field for field in document["fields"] if field["key"] == "wood")
    wood["options"][1]["ask_when"] = large
    return read_setup(document)


def test_section_that_is_not_asked_asks_none_of_its_fields():
    given = {"name": "Tern", "words": "typed before"}
    assert "words" not in ask(ruled(), entries(given, variant="small")).values
    assert ask(ruled(), entries(given, variant="large")).text("words") == "typed before"


def test_choice_that_is_not_offered_counts_as_none_and_comes_back():
    chosen = {"wood": "oak"}
    small, large = (ask(ruled(), entries(chosen, variant=variant)) for variant in ("small", "large"))
    assert (small.text("wood"), large.text("wood")) == ("", "oak")
    assert "wood" not in {line.key for line in price(ruled(), small, Amounts()).lines}
    assert "wood" in {line.key for line in price(ruled(), large, Amounts()).lines}


def test_rule_looks_at_the_place_on_an_axis_of_the_chosen_variant():
    document = board()
    document["offer"] |= {
        "axes": [
            {
                "key": "edge",
                "name": "Edge",
                "values": [{"key": "rope", "name": "Rope"}, {"key": "plain", "name": "Plain"}],
            }
        ],
        "variants": [{"key": key, "name": key, "at": {"edge": key}} for key in ("rope", "plain")],
    }
    document["fields"][4]["ask_when"] = {"conditions": [{"field": "@axis/edge", "value": "rope"}]}
    setup = read_setup(document)
    assert "wood" in ask(setup, entries({"name": "A"}, variant="rope")).values
    assert "wood" not in ask(setup, entries({"name": "A"}, variant="plain")).values
    document["fields"][4]["ask_when"] = {"conditions": [{"field": "@axis/edge", "value": "silk"}]}
    with pytest.raises(DocumentError, match="it has no value “silk”"):
        read_setup(document)
