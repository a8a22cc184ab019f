"""How a sent file is wanted: what the slip's controls send comes in, the core's preparation goes out."""

from typing import Any

from django import forms

from yenzo.core.artwork.facts import Preparation
from yenzo.core.documents.artwork import OneColor


class PreparationForm(forms.Form):
    """The controls beside a file. Without a threshold it keeps its colors."""

    page = forms.IntegerField(required=False, min_value=1, max_value=10_000)
    trim = forms.BooleanField(required=False)
    no_ground = forms.BooleanField(required=False)
    threshold = forms.FloatField(required=False, min_value=1, max_value=99)
    smoothness = forms.FloatField(required=False, min_value=0, max_value=20)


def preparation_of(sent: dict[str, Any]) -> Preparation:
    """Return the preparation that valid data of the form asks for."""
    one_color = None
    if sent.get("threshold") is not None:
        smoothness = sent.get("smoothness")
        one_color = OneColor(threshold=sent["threshold"], smoothness=1 if smoothness is None else smoothness)
    return Preparation(page=sent.get("page") or 1, trim=sent["trim"], no_ground=sent["no_ground"], one_color=one_color)
