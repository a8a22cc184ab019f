"""The price of one order line: a set-up and what is asked come in, a quote whose lines add up to its total goes out."""

from collections.abc import Iterator
from decimal import ROUND_HALF_UP, Decimal
from typing import assert_never

from babel.numbers import get_currency_precision

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.texts import characters
from yenzo.core.asking.words import say_amount, value_name
from yenzo.core.documents.charges import AnyCharge, CharacterCharge, ChoiceCharge, FixedCharge
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Money


class QuoteLine(Frozen):
    """One row of a quote, for one piece: what it is for, and the amount."""

    key: str
    label: str
    amount: Money


class Quote(Frozen):
    """The price of one order line: the rows for one piece, their sum, and the total of all its pieces."""

    lines: tuple[QuoteLine, ...]
    each: Money
    pieces: int
    total: Money
    currency: str


def price(setup: Setup, asked: Asked) -> Quote:
    """Return the quote for what is asked. The sum of the lines times the pieces is the total, to the last digit."""
    currency = setup.offer.currency
    lines = tuple(_rounded(line, currency) for line in _lines(setup, asked))
    each = sum((line.amount for line in lines), Decimal(0))
    return Quote(lines=lines, each=each, pieces=asked.pieces, total=each * asked.pieces, currency=currency)


def _lines(setup: Setup, asked: Asked) -> Iterator[QuoteLine]:
    offer = setup.offer
    yield QuoteLine(key="base", label=offer.name, amount=offer.base_price)
    variant = offer.variant(asked.variant)
    if variant and variant.price_difference:
        yield QuoteLine(key="variant", label=variant.name, amount=variant.price_difference)
    for charge in setup.charges:
        field = setup.field(charge.field)
        if field is None or not asked.is_filled(charge.field):
            continue
        line = _charge_line(setup, charge, field, asked)
        if line is not None and line.amount:
            yield line


def _charge_line(setup: Setup, charge: AnyCharge, field: AnyField, asked: Asked) -> QuoteLine | None:
    match charge:
        case FixedCharge():
            return QuoteLine(key=charge.key, label=field.label, amount=charge.amount)
        case ChoiceCharge():
            chosen = asked.text(field.key)
            amount = charge.amounts.get(chosen)
            label = f"{field.label}: {value_name(setup, field, chosen)}"
            return None if amount is None else QuoteLine(key=charge.key, label=label, amount=amount)
        case CharacterCharge():
            return _by_character(charge, field, asked)
        case _:
            assert_never(charge)


def _by_character(charge: CharacterCharge, field: AnyField, asked: Asked) -> QuoteLine | None:
    counted = [char for char in characters(asked.text(field.key)) if charge.count_spaces or not char.isspace()]
    more = len(counted) - charge.beyond
    if more <= 0:
        return None
    letters = "character" if more == 1 else "characters"
    beyond = f" beyond the first {charge.beyond}" if charge.beyond else ""
    label = f"{field.label}: {more} {letters}{beyond}, at {say_amount(charge.amount)}"
    return QuoteLine(key=charge.key, label=label, amount=charge.amount * more)


def _rounded(line: QuoteLine, currency: str) -> QuoteLine:
    # The smallest unit of a currency is CLDR's, by ISO 4217.
    unit = Decimal(1).scaleb(-get_currency_precision(currency))
    return line.model_copy(update={"amount": line.amount.quantize(unit, ROUND_HALF_UP)})
