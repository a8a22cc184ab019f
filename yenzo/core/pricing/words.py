"""Charges in words: a charge comes in, what it adds goes out, for the seller's sentence and beside the field."""

from collections.abc import Callable
from decimal import Decimal

from yenzo.core.asking.words import value_name
from yenzo.core.documents.charges import (
    AnyCharge,
    BandCharge,
    CharacterCharge,
    ChoiceCharge,
    CountedCharge,
    FixedCharge,
    FormulaCharge,
    PercentCharge,
    SquareCharge,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.counting import a_noun, beyond_words, from_words

Say = Callable[[Decimal], str]
PER = {"piece": "", "line": " once for all pieces", "order": " once an order"}


def charge_words(setup: Setup, charge: AnyCharge, say: Say) -> list[str]:
    """Return what a charge adds, as parts of a sentence; `say` writes an amount."""
    said = _said(setup, charge, say)
    known = (("at least", charge.least), ("at most", charge.most))
    bounds = " and ".join(f"{word} {say(bound)}" for word, bound in known if bound is not None)
    if said and bounds:
        said[-1] += f" ({bounds})"
    return [f"{part}{PER[charge.per]}" for part in said]


def _said(setup: Setup, charge: AnyCharge, say: Say) -> list[str]:
    match charge:
        case FixedCharge():
            return [say(charge.amount)]
        case PercentCharge():
            return [f"{_plain(charge.percent)} % of the base price"]
        case ChoiceCharge():
            field = setup.field(charge.field or "")
            assert field is not None
            amounts = charge.amounts.items()
            return [f"{say(amount)} for {value_name(setup, field, key)}" for key, amount in amounts if amount]
        case BandCharge():
            adds = ((f"{_plain(band.percent)} %" if band.percent else say(band.amount)) for band in charge.bands)
            begin = (from_words(band, charge.of) for band in charge.bands)
            return [" ".join(both) for both in zip(adds, begin, strict=True)]
        case FormulaCharge():
            return [f"what “{charge.formula}” comes to"]
        case CountedCharge():
            return [_counted(charge, say)]


def _counted(charge: CountedCharge, say: Say) -> str:
    beyond = beyond_words(charge.beyond)
    spaces = ", spaces too" if isinstance(charge, CharacterCharge) and charge.count_spaces else ""
    whole = " of its areas" if isinstance(charge, SquareCharge) and charge.measured == "area" else ""
    return f"{say(charge.amount)} {a_noun(charge)}{whole}{beyond}{spaces}"


def _plain(number: Decimal) -> str:
    return f"{number.normalize():f}"
