"""Asking, checking and pricing a large set-up: 60 fields, 40 rules, 40 charges."""

from collections.abc import Callable
from typing import Any

from yenzo.core.asking.ask import ask
from yenzo.core.asking.check import check
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.quote import price

FIELDS, RULES, CHARGES = 60, 40, 40
OPTIONS = [{"key": key, "label": key.title()} for key in ("oak", "ash", "elm", "larch")]
KINDS: tuple[dict[str, Any], ...] = (
    {"kind": "line", "most_characters": 30, "most_words": 6, "allowed": {"others": "-&'"}, "case": "upper"},
    {"kind": "choice", "options": OPTIONS, "default": "oak"},
    {"kind": "number", "least": "1", "most": "500", "unit": "cm"},
    {"kind": "several", "options": OPTIONS, "most": 3},
    {"kind": "yes_no", "default": True},
    {"kind": "paragraph", "most_lines": 4},
)
ENTRIES = ("Wind & Whey", "ash", "120", ("oak", "elm"), True, "One\nTwo three")
CHARGED: tuple[dict[str, Any], ...] = (
    {"kind": "per_character", "amount": "0.40", "beyond": 6},
    {"kind": "per_choice", "amounts": {"ash": "2.00"}},
    {"kind": "formula", "formula": "up(f2 / 30) * 4 + base_price * 0.01", "least": "0"},
    {"kind": "per_choice", "amounts": {"elm": "1.00"}},
    {"kind": "percent", "percent": "2"},
    {"kind": "per_line", "amount": "0.80"},
)


class NoLettersMissing:
    """Typefaces that have everything: what they lack is measured elsewhere."""

    def missing(self, typeface: str, text: str, language: str) -> tuple[str, ...]:  # noqa: ARG002
        """Return nothing."""
        return ()

    def having(self, text: str, language: str, among: Any) -> tuple[str, ...]:  # noqa: ARG002
        """Return all."""
        return tuple(among)


def large_setup() -> Setup:
    """Return a set-up of 60 fields of six kinds, 40 of them asked by a rule, and 40 charges."""
    fields = [{"key": f"f{n}", "label": f"Line {n}", "required": True, **KINDS[n % len(KINDS)]} for n in range(FIELDS)]
    for n in range(FIELDS - RULES, FIELDS):
        before = {"field": f"f{n - 6 - n % 6}", "test": "filled"}
        fields[n]["ask_when"] = {"match": "any", "conditions": [before, {"field": "f1", "value": "ash"}]}
    charges = [{"key": f"c{n}", "field": f"f{n}", **CHARGED[n % len(CHARGED)]} for n in range(CHARGES)]
    offer = {"name": "Large", "base_price": "80.00"}
    return read_setup({"schema": "yenzo-setup/1", "offer": offer, "fields": fields, "charges": charges})


def large_entries() -> Entries:
    """Return entries for every field."""
    return Entries(values={f"f{n}": ENTRIES[n % len(ENTRIES)] for n in range(FIELDS)})


def ask_check_price() -> Callable[[], object]:
    """Return a function that asks, checks and prices the large set-up once."""
    setup, entries, coverage, amounts = large_setup(), large_entries(), NoLettersMissing(), Amounts()

    def act() -> object:
        asked = ask(setup, entries)
        return check(setup, asked, coverage), price(setup, asked, amounts)

    return act
