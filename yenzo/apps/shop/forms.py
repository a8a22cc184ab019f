"""The forms of checkout and sign-in."""

from collections.abc import Sequence
from datetime import date
from decimal import Decimal
from typing import Any

from django import forms
from django.utils import timezone
from django.utils.translation import gettext, gettext_lazy

from yenzo.apps.designs.models import Group
from yenzo.apps.orders.delivering import OfferedWay
from yenzo.apps.pages.addressing import PostalForm
from yenzo.apps.pages.fields import LineField, LinesField, MailField
from yenzo.apps.pages.templatetags.writing import day
from yenzo.core.documents.entries import Address
from yenzo.core.translation import current_language, locale_of

CHECK = gettext_lazy("I have checked the spelling of everything that will be made.")
# Longer than anybody plans ahead; a wish beyond it is a slip of the finger.
MOST_DAYS_AHEAD = 730


class LinkForm(forms.Form):
    mail = MailField(label=gettext_lazy("Your mail address"), widget=forms.EmailInput(attrs={"autocomplete": "email"}))


class CheckoutForm(PostalForm):
    """Who orders, where to, how and for when."""

    name = LineField(
        max_length=120, label=gettext_lazy("Your name"), widget=forms.TextInput(attrs={"autocomplete": "name"})
    )
    mail = MailField(
        label=gettext_lazy("Your mail address"),
        help_text=gettext_lazy("The confirmation goes there."),
        widget=forms.EmailInput(attrs={"autocomplete": "email"}),
    )
    delivery = forms.ChoiceField(label=gettext_lazy("How shall it get to you?"), widget=forms.RadioSelect)
    wished_for = forms.DateField(
        required=False,
        label=gettext_lazy("Is there a day that you need it by?"),
        widget=forms.DateInput(attrs={"type": "date"}),
    )
    purchase_number = LineField(
        max_length=60, required=False, label=gettext_lazy("Your purchase number, if it shall stand on the invoice")
    )
    repeats = LineField(
        max_length=60,
        required=False,
        label=gettext_lazy("Was it made before? The order or ticket of then"),
    )
    note = LinesField(
        max_length=2000,
        required=False,
        label=gettext_lazy("Anything else that we should know?"),
        widget=forms.Textarea(attrs={"rows": 2}),
    )
    checked = forms.BooleanField(
        label=CHECK, error_messages={"required": gettext_lazy("Please read the entries once more, then tick this.")}
    )
    checkout_key = forms.UUIDField(widget=forms.HiddenInput)
    basket_seen = forms.CharField(widget=forms.HiddenInput, max_length=10_000)
    field_order = ("name", "mail")

    def __init__(self, *args: Any, ways: Sequence[OfferedWay], goods_total: Decimal, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.goods_total = goods_total
        self.ways = {one.way.key: one for one in ways}
        choices = [(key, one.way.name) for key, one in self.ways.items()]
        self.fields["delivery"].choices = choices  # type: ignore[attr-defined] # a choice field has them

    @property
    def offered(self) -> OfferedWay:
        """The way that was chosen."""
        return self.ways[self.cleaned_data["delivery"]]

    @property
    def shown_ways(self) -> list[dict[str, Any]]:
        """The ways as the page shows them, each with what all of it comes to."""
        chosen = self["delivery"].value()
        names = locale_of(current_language()).territories
        return [
            {
                "key": key,
                "name": one.way.name,
                "price": one.price,
                "total": self.goods_total + one.price,
                "arrives_on": one.promise.arrives_on,
                "is_pickup": one.way.is_pickup,
                "countries": ", ".join(names.get(code, code) for code in one.way.countries),
                "is_chosen": key == chosen,
            }
            for key, one in self.ways.items()
        ]

    @property
    def is_wanted(self) -> bool:
        """Whether the address must be filled: not by who picks it up."""
        chosen = self.ways.get(self.cleaned_data.get("delivery", ""))
        return chosen is None or not chosen.way.is_pickup

    def clean(self) -> dict[str, Any]:
        """Look at what belongs together: the way and the country, the way and the day."""
        given = super().clean()
        chosen = self.ways.get(given.get("delivery", ""))
        country, wished_for = given.get("country"), given.get("wished_for")
        if chosen and country and not chosen.way.is_pickup and not chosen.way.goes_to(country):
            name = locale_of(current_language()).territories.get(country, country)
            why = gettext("{way} doesn't go to {country}. Please choose another way.")
            self.add_error("delivery", why.format(way=chosen.way.name, country=name))
        elif chosen and wished_for:
            self._judge_wish(chosen.promise.arrives_on, wished_for)
        return given

    def _judge_wish(self, first: date, wished_for: date) -> None:
        if wished_for < first:
            why = gettext("This way it can be with you on {day} at the earliest.")
            self.add_error("wished_for", why.format(day=day(first)))
        elif (wished_for - first).days > MOST_DAYS_AHEAD:
            self.add_error("wished_for", gettext("That is more than two years ahead. Please look at the year."))

    @property
    def destination(self) -> Address | None:
        """Where it goes, with the name; None where it is picked up."""
        return self.address.model_copy(update={"name": self.cleaned_data["name"]}) if self.is_wanted else None


class GroupForm(forms.Form):
    """How a group orders."""

    title = LineField(max_length=120, label=gettext_lazy("What is it for? Members read this first"))
    organiser = LineField(max_length=120, label=gettext_lazy("Your name, as the group knows you"))
    closes_on = forms.DateField(
        label=gettext_lazy("The last day to order"), widget=forms.DateInput(attrs={"type": "date"})
    )
    pays = forms.ChoiceField(
        label=gettext_lazy("Who pays?"),
        widget=forms.RadioSelect,
        choices=(
            (Group.Pays.ORGANISER, gettext_lazy("I pay for all")),
            (Group.Pays.EACH, gettext_lazy("Each pays their own")),
        ),
        initial=Group.Pays.ORGANISER,
    )
    goes = forms.ChoiceField(
        label=gettext_lazy("Where does it go?"),
        widget=forms.RadioSelect,
        choices=(
            (Group.Goes.TOGETHER, gettext_lazy("All together to me")),
            (Group.Goes.EACH, gettext_lazy("To each by themselves")),
        ),
        initial=Group.Goes.TOGETHER,
    )

    def clean_closes_on(self) -> date:
        """Let a group close today at the earliest."""
        closes_on: date = self.cleaned_data["closes_on"]
        if closes_on < timezone.localdate():
            raise forms.ValidationError(gettext("That day is over. Please pick a later one."))
        return closes_on

    def clean(self) -> dict[str, Any]:
        """Look at what belongs together."""
        given = super().clean() or {}
        if given.get("pays") == Group.Pays.ORGANISER and given.get("goes") == Group.Goes.EACH:
            self.add_error("goes", gettext("What you pay for goes to you. Let each pay their own to send it to each."))
        return given


class InvoiceForm(PostalForm):
    """Where the invoice goes, if that is elsewhere."""

    elsewhere = forms.BooleanField(
        required=False, label=gettext_lazy("The invoice goes to another address"), widget=forms.CheckboxInput
    )
    name = LineField(max_length=120, required=False, label=gettext_lazy("Name on the invoice"))
    field_order = ("elsewhere", "name")

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["country"].required = False

    def full_clean(self) -> None:
        """Judge it only if it is wanted; what was typed before that was unticked stays there unjudged."""
        super().full_clean()
        if self.is_bound and not self.is_wanted:
            self.errors.clear()

    def clean(self) -> dict[str, Any]:
        """Ask for the country first: all else follows from it."""
        if self.is_wanted and not self.cleaned_data.get("country"):
            self.add_error("country", gettext("Please pick the country."))
        return super().clean()

    @property
    def is_wanted(self) -> bool:
        """Whether it goes elsewhere."""
        return bool(self.cleaned_data.get("elsewhere"))

    @property
    def said(self) -> Address | None:
        """Where it goes; None where that is nowhere else."""
        return self.address.model_copy(update={"name": self.cleaned_data["name"]}) if self.is_wanted else None
