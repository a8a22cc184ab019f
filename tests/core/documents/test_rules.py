"""Rules: what they compare, how they hold together, and which can't be right."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.core.conftest import board
from yenzo.core.documents.faults import find_nonsense
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.rules import Condition, Group, Rule, holds
from yenzo.core.errors import DocumentError


def one(test, value="", entry="", **others):
    """Whether one condition holds for an entry."""
    return holds(Rule(conditions=(Condition(field="a", test=test, value=value, **others),)), {"a": entry}.__getitem__)


@pytest.mark.parametrize(
    ("test", "value", "entry", "expected"),
    [
        ("is", "oak", "oak", True),
        ("is", "oak", "", False),
        ("is_not", "oak", "", True),
        ("is", True, True, True),
        ("is", False, "", True),
        ("filled", "", "x", True),
        ("filled", "", "", False),
        ("empty", "", "", True),
        ("contains", "BOAT", "my boathouse", True),
        ("contains", "boat", "ship", False),
        ("more", "9", "10", True),
        ("more", "9,5", "9.5", False),
        ("less", "9", "10", False),
        ("less", "9", "", False),
        ("more", "2031-01-01", "2031-06-14", True),
        ("less", "2031-01-01", "2031-06-14", False),
        ("more", "9", "ten", False),
        ("more", "9", True, False),
    ],
)
def test_condition_compares_as_it_says(test, value, entry, expected):
    assert one(test, value, entry) is expected


def test_one_of_several_values_is_enough():
    assert one("one_of", entry="b", values=("a", "b"))
    assert not one("one_of", entry="c", values=("a", "b"))


FLAGS = st.lists(st.booleans(), min_size=1, max_size=4)


@given(FLAGS, FLAGS, st.sampled_from(["all", "any", "none"]), st.sampled_from(["all", "any", "none"]))
def test_conditions_and_groups_hold_together_as_their_words_say(outer, inner, match, group_match):
    entries = {f"o{n}": value for n, value in enumerate(outer)} | {f"i{n}": value for n, value in enumerate(inner)}

    def conditions(prefix, flags):
        return tuple(Condition(field=f"{prefix}{n}", value=True) for n in range(len(flags)))

    together = {"all": all, "any": any, "none": lambda values: not any(values)}
    rule = Rule(
        match=match,
        conditions=conditions("o", outer),
        groups=(Group(match=group_match, conditions=conditions("i", inner)),),
    )
    assert holds(rule, entries.__getitem__) is together[match]([*outer, together[group_match](inner)])


def test_rule_without_a_condition_is_none():
    with pytest.raises(ValidationError, match="needs a condition"):
        Rule()


def asked_when(rule, *more, field="photo"):
    document = board()
    document["fields"] += more
    next(one for one in document["fields"] if one["key"] == field)["ask_when"] = rule
    return document


NUMBER = {"key": "size", "kind": "number", "label": "Size"}
HEADING = {"key": "words", "kind": "heading", "label": "Words"}


@pytest.mark.parametrize(
    ("conditions", "match", "said"),
    [
        ([{"field": "nobody", "test": "filled"}], "all", "a line that isn't there any more"),
        ([{"field": "wood", "value": "ash"}], "all", "“Wood” has no choice “ash”"),
        ([{"field": "wood", "test": "one_of", "values": ["oak", "ash"]}], "all", "“Wood” has no choice “ash”"),
        ([{"field": "with_photo", "value": "yes"}], "all", "never with “yes”"),
        ([{"field": "name", "test": "more", "value": "3"}], "all", "only numbers and days are more or less"),
        ([{"field": "size", "test": "more", "value": "big"}], "all", "“big” is no number"),
        ([{"field": "words", "value": "Words"}], "all", "“Words” can only be filled or empty"),
    ],
)
def test_rule_that_cannot_be_right_is_refused_naming_both_ends(conditions, match, said):
    with pytest.raises(DocumentError) as caught:
        read_setup(asked_when({"match": match, "conditions": conditions}, NUMBER, HEADING))
    assert said in caught.value.message


@pytest.mark.parametrize(
    ("conditions", "match", "said"),
    [
        (
            [{"field": "wood", "value": "oak"}, {"field": "wood", "value": "cedar"}],
            "all",
            "“Photo” is asked never, whatever is entered for “Wood”",
        ),
        (
            [{"field": "wood", "value": "oak"}, {"field": "wood", "test": "is_not", "value": "oak"}],
            "any",
            "“Photo” is asked always, whatever is entered for “Wood”",
        ),
        (
            [{"field": "size", "test": "more", "value": "9"}, {"field": "size", "test": "less", "value": "3"}],
            "all",
            "never, whatever is entered for “Size”",
        ),
        (
            [{"field": "name", "test": "contains", "value": "boat"}, {"field": "name", "test": "empty"}],
            "all",
            "never, whatever is entered for “Name of the boat”",
        ),
        (
            [{"field": "with_photo", "value": True}, {"field": "with_photo", "value": False}],
            "none",
            "never, whatever is entered for “With a photo”",
        ),
    ],
)
def test_rule_that_never_or_always_holds_makes_no_sense(conditions, match, said):
    (sentence,) = find_nonsense(read_setup(asked_when({"match": match, "conditions": conditions}, NUMBER)))
    assert said in sentence


@pytest.mark.parametrize(
    ("conditions", "match"),
    [
        ([{"field": "size", "test": "more", "value": "3"}, {"field": "size", "test": "less", "value": "9"}], "all"),
        (
            [{"field": "name", "test": "contains", "value": "a"}, {"field": "name", "test": "contains", "value": "b"}],
            "all",
        ),
        ([{"field": "wood", "value": "oak"}, {"field": "name", "test": "empty"}], "none"),
        ([{"field": "finish", "test": "one_of", "values": ["gold", "white"]}], "all"),
    ],
)
def test_rule_that_can_hold_and_can_fail_is_taken(conditions, match):
    assert find_nonsense(read_setup(asked_when({"match": match, "conditions": conditions}, NUMBER))) == []


def test_rule_on_a_text_of_the_workshops_own_can_be_read():
    motto = {"key": "motto", "kind": "fixed_text", "label": "Motto", "text": "Fair winds"}
    rule = {"conditions": [{"field": "motto", "value": "Fair winds"}]}
    setup = read_setup(asked_when(rule, motto))
    assert setup.field("photo").ask_when.conditions[0].value == "Fair winds"


def test_rules_inside_groups_are_looked_at_too():
    group = {"match": "any", "conditions": [{"field": "nobody", "test": "filled"}]}
    rule = {"conditions": [{"field": "with_photo", "value": True}], "groups": [group]}
    with pytest.raises(DocumentError, match="a line that isn't there any more"):
        read_setup(asked_when(rule))
    waiting = {
        "conditions": [{"field": "with_photo", "value": True}],
        "groups": [{"conditions": [{"field": "photo", "test": "filled"}]}],
    }
    document = asked_when(waiting, field="wood")
    document["fields"][3]["ask_when"] = {"conditions": [{"field": "wood", "value": "oak"}]}
    with pytest.raises(DocumentError, match="wait for each other"):
        read_setup(document)


def with_variants(document):
    document["offer"]["variants"] = [{"key": "small", "name": "Small"}, {"key": "large", "name": "Large"}]
    return document


SEVERAL = {
    "key": "extras",
    "kind": "several",
    "label": "Extras",
    "options": [{"key": "rope", "label": "Rope"}, {"key": "hook", "label": "Hook"}],
}


@pytest.mark.parametrize(
    ("condition", "said"),
    [
        ({"field": "@variant", "value": "huge"}, "there is no variant “huge”"),
        ({"field": "@category", "test": "filled"}, "compare it by is, is not or one of"),
        ({"field": "extras", "value": "rope"}, "“Extras” is several of a choice: ask what it has"),
        ({"field": "extras", "test": "has", "value": "oar"}, "“Extras” has no choice “oar”"),
        ({"field": "wood", "test": "has", "value": "oak"}, "“Wood” is no choice of several"),
    ],
)
def test_rule_on_what_the_product_is_or_has_can_not_look_at_what_is_not_there(condition, said):
    with pytest.raises(DocumentError, match=said):
        read_setup(with_variants(asked_when({"conditions": [condition]}, SEVERAL)))


def test_rule_that_every_variant_meets_is_found_and_one_on_the_category_is_not():
    both = {"conditions": [{"field": "@variant", "test": "one_of", "values": ["small", "large"]}]}
    assert (
        "always, whatever is entered for “the variant”" in find_nonsense(read_setup(with_variants(asked_when(both))))[0]
    )
    category = {"conditions": [{"field": "@category", "value": "Boards"}]}
    assert find_nonsense(read_setup(asked_when(category))) == []


def test_rule_on_several_that_can_not_hold_is_found():
    rope = [{"field": "extras", "test": test, "value": "rope"} for test in ("has", "has_not")]
    assert "never" in find_nonsense(read_setup(asked_when({"conditions": rope}, SEVERAL)))[0]


def test_section_and_choice_that_wait_for_each_other_are_found():
    document = board()
    document["sections"] = [
        {"key": "more", "title": "More", "ask_when": {"conditions": [{"field": "wood", "value": "oak"}]}}
    ]
    wood = next(field for field in document["fields"] if field["key"] == "wood")
    finish = next(field for field in document["fields"] if field["key"] == "finish")
    finish["section"] = "more"
    wood["options"][1]["ask_when"] = {"conditions": [{"field": "finish", "value": "gold"}]}
    with pytest.raises(DocumentError, match=r"These fields wait for each other: .*“Finish” → “Wood”"):
        read_setup(document)


def test_field_of_a_section_that_is_not_there_is_found():
    document = board()
    document["fields"][0]["section"] = "gone"
    with pytest.raises(DocumentError, match="stands in the section “gone”, which isn't there"):
        read_setup(document)
