"""The price of one order line: a set-up and what is asked come in, a quote whose lines add up to its total goes out."""

from collections.abc import Iterator
from decimal import ROUND_HALF_UP, Decimal
from typing import assert_never

from babel.numbers import get_currency_precision

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.texts import characters, words
from yenzo.core.asking.words import say_amount, value_name
from yenzo.core.documents.charges import (
    AnyCharge,
    CharacterCharge,
    ChoiceCharge,
    CountedCharge,
    FixedCharge,
    LineCharge,
    PercentCharge,
    WordCharge,
)
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Money

COUNTED: dict[type[CountedCharge], tuple[str, str]] = {
    CharacterCharge: ("character", "characters"),
    WordCharge: ("word", "words"),
    LineCharge: ("line", "lines"),
}


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
    found = _label_and_amount(setup, charge, field, asked)
    if found is None:
        return None
    label, amount = found
    if charge.least is not None:
        amount = max(amount, charge.least)
    if charge.most is not None:
        amount = min(amount, charge.most)
    return QuoteLine(key=charge.key, label=label, amount=amount)


def _label_and_amount(setup: Setup, charge: AnyCharge, field: AnyField, asked: Asked) -> tuple[str, Decimal] | None:
    match charge:
        case FixedCharge():
            return field.label, charge.amount
        case PercentCharge():
            share = f"{charge.percent.normalize():f} %"
            return f"{field.label}: {share} of the base price", _base(setup, asked) * charge.percent / 100
        case ChoiceCharge():
            return _by_choice(setup, charge, field, asked)
        case CharacterCharge() | WordCharge() | LineCharge():
            return _by_count(charge, field, asked)
        case _:
            assert_never(charge)


def _by_choice(setup: Setup, charge: ChoiceCharge, field: AnyField, asked: Asked) -> tuple[str, Decimal] | None:
    value = asked.values[field.key]
    charged = [str(key) for key in (value if isinstance(value, tuple) else (value,)) if key in charge.amounts]
    if not charged:
        return None
    names = ", ".join(value_name(setup, field, key) for key in charged)
    return f"{field.label}: {names}", sum((charge.amounts[key] for key in charged), Decimal(0))


def _base(setup: Setup, asked: Asked) -> Decimal:
    variant = setup.offer.variant(asked.variant)
    return setup.offer.base_price + (variant.price_difference if variant else 0)


def _by_count(charge: CountedCharge, field: AnyField, asked: Asked) -> tuple[str, Decimal] | None:
    one, many = COUNTED[type(charge)]
    more = _count(charge, asked.text(field.key), asked.language) - charge.beyond
    if more <= 0:
        return None
    beyond = f" beyond the first {charge.beyond}" if charge.beyond else ""
    label = f"{field.label}: {more} {one if more == 1 else many}{beyond}, at {say_amount(charge.amount)}"
    return label, charge.amount * more


def _count(charge: CountedCharge, text: str, language: str) -> int:
    if isinstance(charge, WordCharge):
        return len(words(text, language))
    if isinstance(charge, CharacterCharge):
        return sum(charge.count_spaces or not char.isspace() for char in characters(text))
    return sum(bool(line.strip()) for line in text.split("\n"))


def _rounded(line: QuoteLine, currency: str) -> QuoteLine:
    # The smallest unit of a currency is CLDR's, by ISO 4217.
    unit = Decimal(1).scaleb(-get_currency_precision(currency))
    return line.model_copy(update={"amount": line.amount.quantize(unit, ROUND_HALF_UP)})
