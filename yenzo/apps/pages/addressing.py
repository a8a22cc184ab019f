"""Postal addresses in forms: what was typed comes in; an address as its country writes it goes out."""

from typing import Any

from django import forms
from django.utils.functional import lazy
from django.utils.translation import gettext, gettext_lazy

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.core.asking.kinds import EntryContext, RawEntry, kind_of
from yenzo.core.asking.kinds.addresses import countries, parts_of
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.entries import Address
from yenzo.core.documents.fields import AddressField
from yenzo.core.documents.setup import Offer, Setup
from yenzo.core.translation import current_language, locale_of

MOST_PART = 200
PARTS = ("company", "street", "district", "postcode", "town", "region")


def country_names() -> list[tuple[str, str]]:
    """Return all countries by what they are called in the language of who reads."""
    names = locale_of(current_language()).territories
    return sorted(((code, names.get(code, code)) for code in countries()), key=lambda one: one[1])


class CountrySelect(forms.Select):
    """The countries; each says which parts its addresses have, so that the page shows those only."""

    def create_option(self, name: str, value: Any, *args: Any, **kwargs: Any) -> dict[str, Any]:
        """Return an option with the parts of its country."""
        option = super().create_option(name, value, *args, **kwargs)
        option["attrs"]["data-parts"] = " ".join(part for part, _ in parts_of(str(value)))
        return option


def _line(label: Any, autocomplete: str) -> LineField:
    widget = forms.TextInput(attrs={"autocomplete": autocomplete, "dir": "auto"})
    return LineField(max_length=MOST_PART, required=False, label=label, widget=widget)


class PostalForm(forms.Form):
    """A postal address without the name. All parts are there; those that its country doesn't have are hidden."""

    company = _line(gettext_lazy("Company"), "organization")
    street = LinesField(
        max_length=MOST_PART,
        required=False,
        label=gettext_lazy("Street and number"),
        widget=forms.Textarea(attrs={"rows": 2, "autocomplete": "street-address", "dir": "auto"}),
    )
    district = _line(gettext_lazy("District"), "address-level3")
    postcode = _line(gettext_lazy("Postcode"), "postal-code")
    town = _line(gettext_lazy("Town"), "address-level2")
    region = _line(gettext_lazy("Region"), "address-level1")
    country = forms.ChoiceField(
        choices=lazy(country_names, list),
        label=gettext_lazy("Country"),
        widget=CountrySelect(attrs={"autocomplete": "country", "data-country": ""}),
    )

    def clean(self) -> dict[str, Any]:
        """Judge the address: parts that its country needs, each at its own place, and then the whole."""
        given = super().clean() or {}
        country = given.get("country")
        if not country or not self.is_wanted:
            return given
        needed = [part for part, is_needed in parts_of(country) if is_needed and part in PARTS]
        for part in needed:
            if not given.get(part) and part not in self.errors:
                self.add_error(part, gettext("Please fill this in."))
        if not self.errors.keys() & set(PARTS):
            for problem in _problems(self.address):
                self.add_error("postcode" if problem.code == "no_postcode" else None, problem.message)
        return given

    @property
    def postal_fields(self) -> list[forms.BoundField]:
        """The parts of the address as they are shown, the country first: the others follow it."""
        return [self["country"], *(self[part] for part in PARTS)]

    @property
    def is_wanted(self) -> bool:
        """Whether it must be filled."""
        return True

    @property
    def address(self) -> Address:
        """The address in its parts, tidied; the parts that its country doesn't have left out."""
        given = self.cleaned_data
        country = given["country"]
        has = {part for part, _ in parts_of(country)} | {"company"}
        return _tidied(Address(country=country, **{part: given.get(part, "") for part in PARTS if part in has}))


def _field(country: str) -> AddressField:
    return AddressField(key="address", label=str(gettext_lazy("Address")), country=country)


def _context() -> EntryContext:
    setup = Setup(offer=Offer(name="-", base_price="0"))
    return EntryContext(setup=setup, language=current_language(), today=None)


def _tidied(address: Address) -> Address:
    field = _field(address.country)
    tidied = kind_of(field).value(field, RawEntry(address, (), current_language(), {}))
    assert isinstance(tidied, Address)
    return tidied


def _problems(address: Address) -> list[Problem]:
    """Return what is wrong with an address; whose it is is asked elsewhere."""
    named = address.model_copy(update={"name": "-"})
    field = _field(address.country)
    return list(kind_of(field).problems(field, named, _context()))


def written(address: Address, home: str) -> str:
    """Return an address as it is written on a parcel that is sent from a country, without the name."""
    return str(kind_of(_field(home)).produced(_field(home), address, _context()))
