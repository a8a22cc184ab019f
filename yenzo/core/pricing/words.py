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
from yenzo.core.pricing.counting import beyond_words, from_words, rate_words
from yenzo.core.translation import decimal, listed, translate

Write = Callable[[Decimal], str]


def charge_words(setup: Setup, charge: AnyCharge, write: Write) -> list[str]:
    """Return what a charge adds, as parts of a sentence; `write` writes an amount."""
    said = _said(setup, charge, write)
    least = [] if charge.least is None else [translate("at least {amount}", amount=write(charge.least))]
    most = [] if charge.most is None else [translate("at most {amount}", amount=write(charge.most))]
    if said and (least or most):
        said[-1] += f" ({listed([*least, *most])})"
    return [_per(part, charge) for part in said]


def _per(part: str, charge: AnyCharge) -> str:
    if charge.per == "piece":
        return part
    return (
        translate("{amount} once for all pieces", amount=part)
        if charge.per == "line"
        else translate("{amount} once an order", amount=part)
    )


def _said(setup: Setup, charge: AnyCharge, write: Write) -> list[str]:
    match charge:
        case FixedCharge():
            return [write(charge.amount)]
        case PercentCharge():
            return [translate("{percent} % of the base price", percent=decimal(charge.percent))]
        case ChoiceCharge():
            field = setup.field(charge.field or "")
            assert field is not None
            amounts = charge.amounts.items()
            return [
                translate("{amount} for {choice}", amount=write(amount), choice=value_name(setup, field, key))
                for key, amount in amounts
                if amount
            ]
        case BandCharge():
            adds = ((f"{decimal(band.percent)} %" if band.percent else write(band.amount)) for band in charge.bands)
            begin = (from_words(band, charge.of) for band in charge.bands)
            return [" ".join(both) for both in zip(adds, begin, strict=True)]
        case FormulaCharge():
            return [translate("what “{formula}” comes to", formula=charge.formula)]
        case CountedCharge():
            return [_counted(charge, write)]


def _counted(charge: CountedCharge, write: Write) -> str:
    beyond = beyond_words(charge.beyond)
    spaces = ", " + translate("spaces too") if isinstance(charge, CharacterCharge) and charge.count_spaces else ""
    whole = " " + translate("of its areas") if isinstance(charge, SquareCharge) and charge.measured == "area" else ""
    return f"{rate_words(charge, write(charge.amount))}{whole}{beyond}{spaces}"
