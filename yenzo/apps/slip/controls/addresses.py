"""The control of a postal address: its parts, as its country has them."""

from dataclasses import dataclass
from typing import Any

from django.http import QueryDict
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.slip.controls.interface import Control, Details, Drawn, name_of
from yenzo.core.asking.kinds.addresses import countries, parts_of
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.documents.entries import Address, Entries
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import AddressField
from yenzo.core.translation import current_language, locale_of

MOST_PART = 1000
# What each part is called, and what browsers know it by.
PART_NAMES = {
    "name": (gettext_noop("Name"), "name"),
    "company": (gettext_noop("Company"), "organization"),
    "street": (gettext_noop("Street and number"), "street-address"),
    "district": (gettext_noop("District"), "address-level3"),
    "postcode": (gettext_noop("Postcode"), "postal-code"),
    "town": (gettext_noop("Town"), "address-level2"),
    "region": (gettext_noop("Region"), "address-level1"),
}


@dataclass(frozen=True)
class AddressPart:
    """One part of an address."""

    name: str
    label: str
    autocomplete: str
    value: str
    is_needed: bool


@dataclass(frozen=True)
class AddressDetails(Details):
    """The parts of the address, and the countries that can be picked as (code, name)."""

    parts: tuple[AddressPart, ...] = ()
    countries: tuple[tuple[str, str], ...] = ()


class AddressControl(Control[AddressField]):
    """A postal address."""

    template = "slip/_address_control.html"

    def sent(self, field: AddressField, form: QueryDict) -> Raw | None:
        """Return the address in its parts; an unknown country is the one that stood there at first."""
        name = name_of(field)
        country = form.get(f"{name}.country")
        if country is None:
            return None
        parts = {part: form.get(f"{name}.{part}", "")[:MOST_PART] for part in Address.model_fields if part != "country"}
        return Address(**parts, country=country if country in countries() else field.country)

    def value(self, field: AddressField, entries: Entries) -> Raw:
        """Return what was typed, or an empty address in the country that stands there at first."""
        typed = entries.values.get(field.key)
        return typed if isinstance(typed, Address) else Address(country=field.country)

    def details(self, field: AddressField, drawn: Drawn) -> AddressDetails:
        """Return the parts of the country that is picked, and all that can be."""
        value = drawn.value
        names = locale_of(current_language()).territories
        offered = [(code, names.get(code, code)) for code in field.countries or countries()]
        parts = parts_of(value.country) if isinstance(value, Address) else ()
        return AddressDetails(
            tuple(
                AddressPart(part, gettext(PART_NAMES[part][0]), PART_NAMES[part][1], getattr(value, part), is_needed)
                for part, is_needed in parts
            ),
            tuple(sorted(offered, key=lambda country: country[1])),
        )

    def shape(self, field: AddressField, value: Raw, details: Details) -> str:  # noqa: ARG002
        """Return the country: each has parts of its own."""
        return value.country if isinstance(value, Address) else ""


CONTROLS: dict[type[FieldBase], Control[Any]] = {AddressField: AddressControl()}
