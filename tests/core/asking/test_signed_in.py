"""What is asked of customers who are signed in."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.asking.ask import Asked, Context, ask
from yenzo.core.documents.kit_use import KitUse
from yenzo.core.documents.kits import with_kits
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError

KNOWN = {"conditions": [{"field": "@signed_in", "value": True}]}


def asked_of(setup, *, signed_in, **values):
    return ask(setup, entries({"name": "Otter", **values}), Context(signed_in=signed_in))


def club(**rule):
    return read_setup(
        {
            "offer": {"name": "Club", "base_price": "0"},
            "fields": [{"key": "berth", "kind": "line", "label": "Berth", **rule}],
        }
    )


def test_rule_looks_at_whether_the_customer_is_signed_in():
    document = board()
    document["fields"][0]["ask_when"] = KNOWN
    setup = read_setup(document)
    assert "name" in asked_of(setup, signed_in=True).values
    assert "name" not in asked_of(setup, signed_in=False).values
    assert "name" not in ask(setup, entries({"name": "Otter"})).values


def test_order_keeps_whether_its_customer_was_signed_in():
    asked = asked_of(read_setup(board()), signed_in=True)
    assert Asked.model_validate(asked.model_dump(mode="json")).signed_in
    assert asked.subject(read_setup(board()), "@signed_in") is True


@pytest.mark.parametrize(
    "rule", [{}, {"ask_when": {"match": "any", "conditions": [{"field": "@variant", "value": ""}]}}]
)
def test_kit_for_signed_in_customers_asks_nobody_else(rule):
    kit = club(**({} if not rule else {"ask_when": {"conditions": [{"field": "@category", "value": "Brass"}]}}))
    document = board()
    document["offer"]["category"] = "Brass"
    setup = with_kits(read_setup(document), [KitUse(key="club", name="Club", setup=kit, only_signed_in=True)])
    assert "club-berth" in asked_of(setup, signed_in=True).values
    assert "club-berth" not in asked_of(setup, signed_in=False).values


def test_kit_for_variants_and_signed_in_customers_asks_where_both_hold():
    document = board()
    document["offer"]["variants"] = [{"key": "oak", "name": "Oak"}, {"key": "ash", "name": "Ash"}]
    use = KitUse(key="club", name="Club", setup=club(), variants=("oak",), only_signed_in=True)
    setup = with_kits(read_setup(document), [use])

    def is_asked(variant, signed_in):
        given = entries({"name": "Otter"}, variant=variant)
        return "club-berth" in ask(setup, given, Context(signed_in=signed_in)).values

    assert [is_asked(variant, known) for variant in ("oak", "ash") for known in (True, False)] == [True] + [False] * 3


def test_sign_in_is_compared_with_yes_or_no_only():
    for condition in ({"field": "@signed_in", "value": "yes"}, {"field": "@signed_in", "test": "filled"}):
        document = board()
        document["fields"][0]["ask_when"] = {"conditions": [condition]}
        with pytest.raises(DocumentError, match="compare it with yes or no"):
            read_setup(document)
