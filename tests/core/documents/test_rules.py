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


@pytest.mark.parametrize(
    ("conditions", "match", "said"),
    [
        ([{"field": "nobody", "test": "filled"}], "all", "no field has that key"),
        ([{"field": "wood", "value": "ash"}], "all", "“Wood” has no choice “ash”"),
        ([{"field": "wood", "test": "one_of", "values": ["oak", "ash"]}], "all", "“Wood” has no choice “ash”"),
        ([{"field": "with_photo", "value": "yes"}], "all", "never with “yes”"),
        ([{"field": "name", "test": "more", "value": "3"}], "all", "only numbers and days are more or less"),
        ([{"field": "size", "test": "more", "value": "big"}], "all", "“big” is no number"),
    ],
)
def test_rule_that_cannot_be_right_is_refused_naming_both_ends(conditions, match, said):
    with pytest.raises(DocumentError) as caught:
        read_setup(asked_when({"match": match, "conditions": conditions}, NUMBER))
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


def test_rules_inside_groups_are_looked_at_too():
    group = {"match": "any", "conditions": [{"field": "nobody", "test": "filled"}]}
    rule = {"conditions": [{"field": "with_photo", "value": True}], "groups": [group]}
    with pytest.raises(DocumentError, match="no field has that key"):
        read_setup(asked_when(rule))
    waiting = {
        "conditions": [{"field": "with_photo", "value": True}],
        "groups": [{"conditions": [{"field": "photo", "test": "filled"}]}],
    }
    document = asked_when(waiting, field="wood")
    document["fields"][3]["ask_when"] = {"conditions": [{"field": "wood", "value": "oak"}]}
    with pytest.raises(DocumentError, match="wait for each other"):
        read_setup(document)
