"""How a sent file is wanted: what the slip's controls send comes in, the core's preparation goes out."""

from typing import Any

from django import forms

from yenzo.core.artwork.facts import LEAST_SHARE, Preparation
from yenzo.core.documents.artwork import OneColor

WHOLE = (0.0, 0.0, 1.0, 1.0)


class PreparationForm(forms.Form):
    """The controls beside a file. Without a threshold it keeps its colors."""

    page = forms.IntegerField(required=False, min_value=1, max_value=10_000)
    quarter_turns = forms.IntegerField(required=False, min_value=0, max_value=3)
    crop_left = forms.FloatField(required=False, min_value=0, max_value=99)
    crop_top = forms.FloatField(required=False, min_value=0, max_value=99)
    crop_right = forms.FloatField(required=False, min_value=1, max_value=100)
    crop_bottom = forms.FloatField(required=False, min_value=1, max_value=100)
    trim = forms.BooleanField(required=False)
    no_ground = forms.BooleanField(required=False)
    threshold = forms.FloatField(required=False, min_value=1, max_value=99)
    smoothness = forms.FloatField(required=False, min_value=0, max_value=20)

    def clean(self) -> dict[str, Any]:
        """Refuse to cut everything off."""
        given: dict[str, Any] = super().clean() or {}
        left, top, right, bottom = _shares(given)
        if right - left < LEAST_SHARE or bottom - top < LEAST_SHARE:
            raise forms.ValidationError("nothing is left")
        return given


def _shares(sent: dict[str, Any]) -> tuple[float, float, float, float]:
    """Return where a part begins and ends; what isn't told is the picture's own edge."""
    edges = {"left": 0.0, "top": 0.0, "right": 100.0, "bottom": 100.0}
    left, top, right, bottom = (
        (whole if sent.get(f"crop_{name}") is None else sent[f"crop_{name}"]) / 100 for name, whole in edges.items()
    )
    return left, top, right, bottom


def preparation_of(sent: dict[str, Any]) -> Preparation:
    """Return the preparation that valid data of the form asks for."""
    one_color = None
    if sent.get("threshold") is not None:
        smoothness = sent.get("smoothness")
        one_color = OneColor(threshold=sent["threshold"], smoothness=1 if smoothness is None else smoothness)
    crop = _shares(sent)
    return Preparation(
        page=sent.get("page") or 1,
        quarter_turns=sent.get("quarter_turns") or 0,
        crop=None if crop == WHOLE else crop,
        trim=sent["trim"],
        no_ground=sent["no_ground"],
        one_color=one_color,
    )
