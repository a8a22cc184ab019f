"""What differs between a piece as it was made and as its product is sold now, in words for its customer."""

import pytest
from django.utils import translation

from tests.core.conftest import board
from yenzo.apps.designs.differing import what_differs
from yenzo.apps.files.store import StoredAssets
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.record import Recorded, record_of

pytestmark = pytest.mark.django_db


def differs(change, **values):
    before, now = board(), board()
    change(now)
    entries = read_entries({"values": {"name": "Wind & Whey", **values}})
    walks = [evaluate(read_setup(document), entries, StoredAssets()) for document in (before, now)]
    recorded = [Recorded(one.setup, one.asked, record_of(one)) for one in walks]
    return what_differs(recorded[0], walks[0].quote, recorded[1], walks[1].quote)


def nothing(document):
    document["offer"]["base_price"] = "86.0"


def dearer(document):
    document["offer"]["base_price"] = "90.00"


def without_finish_charge(document):
    document["charges"] = [one for one in document["charges"] if one["key"] != "finish"]


def smaller_panel(document):
    document["sides"][0]["areas"][0]["height_mm"] = 60


def without_wood(document):
    document["fields"] = [one for one in document["fields"] if one["key"] != "wood"]
    document["charges"] = [one for one in document["charges"] if one["key"] != "wood"]


def with_a_line(document):
    document["fields"].append({"key": "port", "kind": "line", "label": "Home port"})


def other_letters(document):
    next(one for one in document["fields"] if one["key"] == "lettering")["default"] = "log-book"


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (dearer, "Board: £90.00 instead of £86.00"),
        (without_finish_charge, "isn’t charged any more"),
        (smaller_panel, "The letters of “WIND & WHEY” were"),
        (smaller_panel, "Front looks otherwise"),
        (without_wood, "“Wood” isn’t asked any more"),
        (with_a_line, "“Home port” is asked as well now"),
        (other_letters, "“Lettering” was Quayside and is"),
        (other_letters, "instead of Quayside"),
    ],
)
def test_what_is_otherwise_is_said(product, change, said):
    assert any(said in words for words in differs(change)), differs(change)


def test_nothing_is_said_where_a_customer_would_notice_nothing(product):
    assert differs(nothing) == ()


def test_it_is_said_in_the_language_of_who_reads(product):
    with translation.override("de"):
        assert any("statt" in words for words in differs(dearer))
