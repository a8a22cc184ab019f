"""Numbers and days."""

import re
from collections.abc import Iterator
from datetime import date, timedelta
from decimal import Decimal
from typing import Any, TypeVar

from babel.core import UnknownLocaleError
from babel.dates import format_date, parse_date
from babel.numbers import format_decimal

from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.charges import ROUNDED
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import ComputedField, DateField, NumberField
from yenzo.core.documents.rules import MOST_DIGITS, read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import evaluate
from yenzo.core.translation import current_language, listed, locale_of, translate, translate_noop

WEEKDAYS = (
    translate_noop("Mondays"),
    translate_noop("Tuesdays"),
    translate_noop("Wednesdays"),
    translate_noop("Thursdays"),
    translate_noop("Fridays"),
    translate_noop("Saturdays"),
    translate_noop("Sundays"),
)
ONE_DAY = timedelta(days=1)
DAY = re.compile(r"[0-9]{4}-[0-9]{2}-[0-9]{2}")


N = TypeVar("N", NumberField, ComputedField)


class Numeric(Kind[N]):
    """What is a number, said and produced as its language writes it."""

    def words(self, field: N, value: Value, context: EntryContext) -> str:
        """Return the number as who reads writes it, with its unit."""
        number = read_number(str(value))
        return str(value) if number is None else _said(number, field)

    def produced(self, field: N, value: Value, context: EntryContext) -> str:
        """Return the number as the goods' language writes it, without its unit."""
        number = read_number(str(value))
        return str(value) if number is None else _formatted(number, context.language)


class NumberKind(Numeric[NumberField]):
    """A number, kept as it is written in documents: a point, no group marks, no zeros at the end."""

    def value(self, field: NumberField, entry: RawEntry) -> str:
        """Return the number as documents write it; what is none as it was typed."""
        typed = (field.default if entry.raw is None else str(entry.raw)).strip()
        number = read_number(typed)
        return typed if number is None else _canonical(number)

    def problems(self, field: NumberField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is no number, lies out of bounds, or between two steps."""
        number = read_number(str(value))
        if number is None:
            message = translate(
                "“{value}” is no number. Please write digits, with a point or a comma before decimals.", value=value
            )
            yield problem(field, "no_number", message)
            return
        if field.least is not None and number < field.least:
            least = _said(field.least, field)
            yield problem(
                field,
                "too_little",
                translate("For “{label}” at least {least} can be made.", label=field.label, least=least),
            )
        if field.most is not None and number > field.most:
            most = _said(field.most, field)
            yield problem(
                field, "too_much", translate("For “{label}” at most {most} can be made.", label=field.label, most=most)
            )
        if field.step is not None and (number - (field.least or 0)) % field.step:
            step = _said(field.step, field)
            beginning = translate(", counted from {least}", least=_said(field.least, field)) if field.least else ""
            yield problem(
                field,
                "off_step",
                translate(
                    "“{label}” goes in steps of {step}{beginning}.", label=field.label, step=step, beginning=beginning
                ),
            )

    def sample(self, field: NumberField, setup: Setup) -> str:
        """Return the sample, the default, or the least."""
        return field.sample or field.default or _canonical(field.least or Decimal(1))

    def worst(self, field: NumberField, setup: Setup) -> tuple[Raw, ...]:
        """Return the least and the most; without bounds nothing and many wide digits."""
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
    return f"{_formatted(number, current_language())}{unit}"


class ComputedKind(Numeric[ComputedField]):
    """A number that a formula gives; empty while what it looks at gives none."""

    def value(self, field: ComputedField, entry: RawEntry) -> str:
        """Return what the formula comes to, rounded; empty where it comes to nothing or has too many digits."""
        try:
            found = evaluate(field.formula, entry.names)
        except FormulaError:
            return ""
        step = Decimal(1).scaleb(-field.decimals)
        rounded = found.quantize(step, ROUNDED[field.way])
        return _canonical(rounded) if len(rounded.as_tuple().digits) <= MOST_DIGITS else ""

    def problems(self, field: ComputedField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield nothing: what a formula gives is not typed by anybody."""
        yield from ()

    def please(self, field: ComputedField) -> str:
        """Say that something is missing that the formula looks at."""
        return translate(
            "“{label}” can't be worked out yet: something that it is made of is missing.", label=field.label
        )

    def sample(self, field: ComputedField, setup: Setup) -> str:
        """Return nothing: the formula gives it."""
        return ""

    def worst(self, field: ComputedField, setup: Setup) -> tuple[Raw, ...]:
        """Return nothing: the formula gives it."""
        return ("",)


class DateKind(Kind[DateField]):
    """A day, kept as YYYY-MM-DD."""

    def value(self, field: DateField, entry: RawEntry) -> str:
        """Return what was typed, or what the form begins with."""
        return (field.default if entry.raw is None else str(entry.raw)).strip()

    def problems(self, field: DateField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is no day, a closed one, or one that is too early or too late counted from today."""
        day = read_day(str(value))
        if day is None:
            yield problem(
                field,
                "no_day",
                translate("“{value}” is no day. Please pick one for “{label}”.", value=value, label=field.label),
            )
            return
        if is_closed(field, day):
            why = translate("that day is closed")
            if day.weekday() in field.closed_weekdays:
                why = translate(
                    "closed on {weekdays}",
                    weekdays=listed(translate(WEEKDAYS[number]) for number in field.closed_weekdays),
                )
            message = translate("{day} can't be had: {why}. Please pick another day.", day=_named(day), why=why)
            yield problem(field, "closed_day", message)
        if context.today is None:
            return
        first, last = earliest(field, context.today), latest(field, context.today)
        if first is not None and day < first:
            message = translate(
                "For “{label}” the first day that can be had is {day}.",
                label=field.label,
                day=_named(first),
            )
            yield problem(field, "too_early", message)
        if last is not None and day > last:
            yield problem(
                field,
                "too_late",
                translate("For “{label}” the last day is {day}.", label=field.label, day=_named(last)),
            )

    def words(self, field: DateField, value: Value, context: EntryContext) -> str:
        """Return the day as who reads writes it."""
        day = read_day(str(value))
        return str(value) if day is None else _dated(day, field.written, current_language())

    def produced(self, field: DateField, value: Value, context: EntryContext) -> str:
        """Return the day as the goods' language writes it."""
        day = read_day(str(value))
        return str(value) if day is None else _dated(day, field.written, context.language)

    def of_cell(self, field: DateField, cell: str, context: EntryContext) -> Raw:
        """Return the day that the cell writes as who reads writes days; what can't be read so as it is."""
        if read_day(cell) is not None:
            return cell
        try:
            return parse_date(cell, locale=locale_of(current_language()), format="short").isoformat()
        except (ValueError, IndexError):
            return cell

    def please(self, field: DateField) -> str:
        """Ask for a day."""
        return translate("Please pick a day for “{label}”.", label=field.label)

    def sample(self, field: DateField, setup: Setup) -> str:
        """Return the sample or the default; a bounded day has none that would last."""
        # A day that is bounded goes by; the sample would soon be out of its bounds.
        return field.sample or field.default or ("2031-06-14" if field.within_days is None else "")

    def worst(self, field: DateField, setup: Setup) -> tuple[Raw, ...]:
        """Return a day that is long to write and is not closed."""
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
    return _dated(day, "full", current_language())


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
