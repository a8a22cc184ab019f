"""The forms of checkout and sign-in."""

from django import forms
from django.utils.translation import gettext_lazy

from yenzo.apps.pages.fields import LineField, LinesField, MailField

CHECK = gettext_lazy("I have checked the spelling of everything that will be made.")


class LinkForm(forms.Form):
    mail = MailField(label=gettext_lazy("Your mail address"), widget=forms.EmailInput(attrs={"autocomplete": "email"}))


class CheckoutForm(forms.Form):
    name = LineField(
        max_length=120, label=gettext_lazy("Your name"), widget=forms.TextInput(attrs={"autocomplete": "name"})
    )
    mail = MailField(
        label=gettext_lazy("Your mail address"),
        help_text=gettext_lazy("The confirmation goes there."),
        widget=forms.EmailInput(attrs={"autocomplete": "email"}),
    )
    address = LinesField(
        max_length=600,
        label=gettext_lazy("Where shall we send it?"),
        widget=forms.Textarea(attrs={"rows": 4, "autocomplete": "street-address"}),
    )
    checked = forms.BooleanField(
        label=CHECK, error_messages={"required": gettext_lazy("Please read the entries once more, then tick this.")}
    )
    checkout_key = forms.UUIDField(widget=forms.HiddenInput)
    basket_seen = forms.CharField(widget=forms.HiddenInput, max_length=10_000)
