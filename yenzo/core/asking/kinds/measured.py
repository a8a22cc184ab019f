"""Numbers and days."""

import re
from collections.abc import Iterator
from datetime import date, timedelta
from decimal import Decimal
from typing import Any, TypeVar

from babel.core import UnknownLocaleError
from babel.dates import format_date
from babel.numbers import format_decimal

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.charges import ROUNDED
from yenzo.core.documents.fields import ComputedField, DateField, FieldBase, NumberField
from yenzo.core.documents.rules import MOST_DIGITS, read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import evaluate
from yenzo.core.speaking import later, listed, reader, say

WEEKDAYS = (
    later("Mondays"),
    later("Tuesdays"),
    later("Wednesdays"),
    later("Thursdays"),
    later("Fridays"),
    later("Saturdays"),
    later("Sundays"),
)
ONE_DAY = timedelta(days=1)
DAY = re.compile(r"[0-9]{4}-[0-9]{2}-[0-9]{2}")


N = TypeVar("N", NumberField, ComputedField)


class Numeric(Kind[N]):
    """What is a number, said and produced as its language writes it."""

    def words(self, field: N, value: Value, around: Around) -> str:
        number = read_number(str(value))
        return str(value) if number is None else _said(number, field)

    def produced(self, field: N, value: Value, around: Around) -> str:
        number = read_number(str(value))
        return str(value) if number is None else _formatted(number, around.language)


class NumberKind(Numeric[NumberField]):
    """A number, kept as it is written in documents: a point, no group marks, no zeros at the end."""

    def value(self, field: NumberField, given: Given) -> str:
        typed = (field.default if given.raw is None else str(given.raw)).strip()
        number = read_number(typed)
        return typed if number is None else _canonical(number)

    def problems(self, field: NumberField, value: Value, around: Around) -> Iterator[Problem]:
        number = read_number(str(value))
        if number is None:
            message = say(
                "“{value}” is no number. Please write digits, with a point or a comma before decimals.", value=value
            )
            yield problem(field, "no_number", message)
            return
        if field.least is not None and number < field.least:
            least = _said(field.least, field)
            yield problem(
                field, "too_little", say("For “{label}” at least {least} can be made.", label=field.label, least=least)
            )
        if field.most is not None and number > field.most:
            most = _said(field.most, field)
            yield problem(
                field, "too_much", say("For “{label}” at most {most} can be made.", label=field.label, most=most)
            )
        if field.step is not None and (number - (field.least or 0)) % field.step:
            step = _said(field.step, field)
            beginning = say(", counted from {least}", least=_said(field.least, field)) if field.least else ""
            yield problem(
                field,
                "off_step",
                say("“{label}” goes in steps of {step}{beginning}.", label=field.label, step=step, beginning=beginning),
            )

    def sample(self, field: NumberField, setup: Setup) -> str:
        return field.sample or field.default or _canonical(field.least or Decimal(1))

    def worst(self, field: NumberField, setup: Setup) -> tuple[Raw, ...]:
        ends = [bound for bound in (field.least, field.most) if bound is not None] or [Decimal(0), Decimal(888_888)]
        return tuple(_canonical(bound) for bound in ends)


def _canonical(number: Decimal) -> str:
    written = f"{number:f}"
    if "." in written:
        written = written.rstrip("0").rstrip(".")
    return "0" if written in {"-0", ""} else written


def _formatted(number: Decimal, language: str) -> str:
    try:
        return format_decimal(number, locale=language.replace("-", "_"), decimal_quantization=False)
    except (UnknownLocaleError, ValueError):
        return _canonical(number)


def _said(number: Decimal, field: NumberField | ComputedField) -> str:
    unit = f" {field.unit}" if field.unit else ""
    return f"{_formatted(number, reader())}{unit}"


class ComputedKind(Numeric[ComputedField]):
    """A number that a formula gives; empty while what it looks at gives none."""

    def value(self, field: ComputedField, given: Given) -> str:
        try:
            found = evaluate(field.formula, given.names)
        except FormulaError:
            return ""
        step = Decimal(1).scaleb(-field.decimals)
        rounded = found.quantize(step, ROUNDED[field.way])
        return _canonical(rounded) if len(rounded.as_tuple().digits) <= MOST_DIGITS else ""

    def problems(self, field: ComputedField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def please(self, field: ComputedField) -> str:
        return say("“{label}” can't be worked out yet: something that it is made of is missing.", label=field.label)

    def sample(self, field: ComputedField, setup: Setup) -> str:
        return ""

    def worst(self, field: ComputedField, setup: Setup) -> tuple[Raw, ...]:
        return ("",)


class DateKind(Kind[DateField]):
    """A day, kept as YYYY-MM-DD."""

    def value(self, field: DateField, given: Given) -> str:
        return (field.default if given.raw is None else str(given.raw)).strip()

    def problems(self, field: DateField, value: Value, around: Around) -> Iterator[Problem]:
        day = read_day(str(value))
        if day is None:
            yield problem(
                field,
                "no_day",
                say("“{value}” is no day. Please pick one for “{label}”.", value=value, label=field.label),
            )
            return
        if is_closed(field, day):
            why = say("that day is closed")
            if day.weekday() in field.closed_weekdays:
                why = say(
                    "closed on {weekdays}", weekdays=listed(say(WEEKDAYS[number]) for number in field.closed_weekdays)
                )
            message = say("{day} can't be had: {why}. Please pick another day.", day=_named(day), why=why)
            yield problem(field, "closed_day", message)
        if around.today is None:
            return
        first, last = earliest(field, around.today), latest(field, around.today)
        if first is not None and day < first:
            message = say(
                "For “{label}” the first day that can be had is {day}.",
                label=field.label,
                day=_named(first),
            )
            yield problem(field, "too_early", message)
        if last is not None and day > last:
            yield problem(
                field,
                "too_late",
                say("For “{label}” the last day is {day}.", label=field.label, day=_named(last)),
            )

    def words(self, field: DateField, value: Value, around: Around) -> str:
        day = read_day(str(value))
        return str(value) if day is None else _dated(day, field.written, reader())

    def produced(self, field: DateField, value: Value, around: Around) -> str:
        day = read_day(str(value))
        return str(value) if day is None else _dated(day, field.written, around.language)

    def please(self, field: DateField) -> str:
        return say("Please pick a day for “{label}”.", label=field.label)

    def sample(self, field: DateField, setup: Setup) -> str:
        # A day that is bounded goes by; the sample would soon be out of its bounds.
        return field.sample or field.default or ("2031-06-14" if field.within_days is None else "")

    def worst(self, field: DateField, setup: Setup) -> tuple[Raw, ...]:
        # The longest names of month and weekday in many languages.
        days = (date(2030, 9, 25) + ONE_DAY * more for more in range(14))
        return tuple(day.isoformat() for day in days if not is_closed(field, day))[:1]


def read_day(typed: str) -> date | None:
    """Return a day written YYYY-MM-DD; None for anything else."""
    try:
        return date.fromisoformat(typed) if DAY.fullmatch(typed) else None
    except ValueError:
        return None


def is_closed(field: DateField, day: date) -> bool:
    """Tell whether nothing is made or sent on a day."""
    return day.weekday() in field.closed_weekdays or day in field.closed_days


def earliest(field: DateField, today: date) -> date | None:
    """Return the first day that can be had: so many working days after today."""
    if field.after_working_days is None:
        return None
    day, left = today, field.after_working_days
    while left > 0:
        day += ONE_DAY
        left -= not is_closed(field, day)
    while is_closed(field, day):
        day += ONE_DAY
    return day


def latest(field: DateField, today: date) -> date | None:
    """Return the last day that can be had."""
    return None if field.within_days is None else today + timedelta(days=field.within_days)


def _named(day: date) -> str:
    return _dated(day, "full", reader())


def _dated(day: date, written: str, language: str) -> str:
    try:
        return format_date(day, written, locale=language.replace("-", "_"))
    except (UnknownLocaleError, ValueError):
        return day.isoformat()


KINDS: dict[type[FieldBase], Kind[Any]] = {
    NumberField: NumberKind(),
    ComputedField: ComputedKind(),
    DateField: DateKind(),
}
