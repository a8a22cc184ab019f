"""Form fields that clean at the door: what was typed comes in; one line, several lines or a mail address goes out."""

from typing import Any

from django import forms
from django.core.exceptions import ValidationError
from django.utils.translation import gettext

from yenzo.apps.pages.addresses import AddressError, mail_identity
from yenzo.core.asking.invisible import reordering, turning_words, without_invisible
from yenzo.core.documents.values import clean_line, clean_text


def visible(text: str) -> str:
    """Return a text without what shows nothing; raises ValidationError for what turns the order of its letters."""
    cleaned, _ = without_invisible(text)
    if turning := reordering(cleaned):
        raise ValidationError(turning_words(turning))
    return cleaned


class LineField(forms.CharField):
    """A single line: breaks and tabs are spaces, what shows nothing is left out."""

    def to_python(self, value: Any) -> Any:
        """Clean what was typed."""
        return super().to_python(visible(clean_line(value)) if isinstance(value, str) else value)


class LinesField(forms.CharField):
    """Several lines."""

    def __init__(self, **options: Any) -> None:
        super().__init__(**{"widget": forms.Textarea, **options})

    def to_python(self, value: Any) -> Any:
        """Clean what was typed."""
        return super().to_python(visible(clean_text(value)) if isinstance(value, str) else value)


class MailField(forms.EmailField):
    """A mail address that can't be taken for somebody else's."""

    def clean(self, value: Any) -> Any:
        """Return what was typed, in one line; raises ValidationError for what looks like another address."""
        typed = super().clean(clean_line(value) if isinstance(value, str) else value)
        if typed:
            try:
                mail_identity(typed)
            except AddressError as error:
                if str(error) != "lookalike":
                    raise ValidationError(gettext("Please write a mail address like name@place.example.")) from error
                raise ValidationError(
                    gettext("“{mail}” has letters that look like others. Please type the address anew.").format(
                        mail=typed
                    )
                ) from error
        return typed
