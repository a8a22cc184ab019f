"""The demo's documents: the core's command line takes them as they are."""

import json

import pytest

from demo.installation import ROOT
from demo.load import ORDERS
from demo.two_weeks import PAST
from yenzo.core.cli import run
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.wording import missing_words

PRODUCTS = ROOT / "demo" / "products"
CASES = sorted(path for path in PRODUCTS.glob("*/entries/*.json"))
# What each is there to show, where it isn't simply good.
SHOWS = {
    "too-many-lines": "too_many_lines",
    "letter-lacking": "missing_letter",
    "too-long": "too_long",
    "coarse-photo": "coarse",
}


def checked(path, command="check", *more):
    return run([command, str(path.parent.parent / "setup.json"), str(path), *more])


@pytest.mark.parametrize("path", CASES, ids=lambda path: path.stem)
def test_demo_entries_show_what_they_are_there_for(path):
    outcome = checked(path)
    codes = {item["code"] for item in [*outcome.value["problems"], *outcome.value["findings"]]}
    assert codes == {SHOWS[path.stem]} if path.stem in SHOWS else codes == set()
    assert outcome.status == (1 if path.stem in {"letter-lacking", "too-long", "too-many-lines"} else 0)


@pytest.mark.parametrize("path", CASES, ids=lambda path: path.stem)
def test_demo_sides_are_rendered_in_every_format(path, tmp_path):
    for side in json.loads((path.parent.parent / "setup.json").read_text()).get("sides", []):
        for file_format in ("svg", "png", "pdf"):
            made = checked(
                path, "render", "--side", side["key"], "--format", file_format, "--out", str(tmp_path / "side")
            )
            assert made.value["bytes"] == (tmp_path / "side").stat().st_size


def test_entries_of_all_demo_orders_are_there():
    for order in ORDERS:
        for product, entries in order.pieces:
            assert (PRODUCTS / product / "entries" / f"{entries}.json").exists()


def test_quote_of_the_first_order_adds_up():
    quote = checked(PRODUCTS / "cedar-nameboard" / "entries" / "wind-and-whey.json", "quote", "--pieces", "2").value
    assert [(line["key"], line["amount"]) for line in quote["lines"]] == [
        ("base", "86.00"),
        ("letters", "1.20"),
        ("port", "12.00"),
        ("finish", "24.00"),
    ]
    assert quote["total"] == "246.40"


@pytest.mark.parametrize("goods", sorted(PRODUCTS.iterdir()), ids=lambda goods: goods.name)
def test_demo_goods_have_their_words_in_every_language_of_the_shop(goods):
    setup = read_setup(json.loads((goods / "setup.json").read_text()))
    assert {language: missing_words(setup, language) for language in ("de", "ar")} == {"de": (), "ar": ()}


def test_entries_of_two_weeks_are_there_and_change_what_they_have():
    for past in PAST:
        for product, entries, changed in past.pieces:
            kept = json.loads((PRODUCTS / product / "entries" / f"{entries}.json").read_text())
            assert changed.keys() <= kept["values"].keys()
