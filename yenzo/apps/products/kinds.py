"""Kinds of field as the workshop speaks of them, and what a new line of each begins with."""

from typing import Any, get_args

from yenzo.core.asking.kinds import KINDS
from yenzo.core.documents.artwork import ArtworkKind
from yenzo.core.documents.beginnings import likely_palette
from yenzo.core.documents.fields import FieldBase
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED

MODELS: dict[str, type[FieldBase]] = {model.model_fields["kind"].default: model for model in KINDS}
KIND_WORDS = {
    "line": "a text",
    "paragraph": "a paragraph",
    "choice": "a choice",
    "several": "a choice of several",
    "ready_made": "a choice of ready-made artwork",
    "method": "a choice of decoration method",
    "yes_no": "yes or no",
    "number": "a number",
    "computed": "a computed value",
    "extra": "another product with it",
    "date": "a day",
    "email": "a mail address",
    "phone": "a telephone number",
    "link": "an address in the web",
    "address": "a postal address",
    "note": "a note to the workshop",
    "typeface": "a choice of typeface",
    "color": "a color",
    "artwork": "an upload",
    "fixed_text": "a text of our own, always made",
    "fixed_artwork": "artwork of our own, always made",
    "heading": "a heading with words under it",
}


def beginning_of(setup: Setup, kind: str) -> dict[str, Any]:
    """Return what a new line of a kind has, so that it is usable at once."""
    if kind == "typeface":
        faces = list(setup.materials.typefaces)[:3] or [UNDECIDED]
        return {"typefaces": faces, "default": faces[0]}
    if kind == "color":
        key = likely_palette(setup)
        palette = setup.materials.palettes.get(key)
        return {"palette": key, **({"default": palette.colors[0].key} if palette else {})}
    if kind == "method":
        methods = list(setup.materials.methods) or [UNDECIDED]
        return {"methods": methods, "default": methods[0]}
    options = [{"key": "first", "label": "First"}, {"key": "second", "label": "Second"}]
    begins: dict[str, dict[str, Any]] = {
        "line": {"most_characters": 30},
        "paragraph": {"most_characters": 200},
        "choice": {"options": options},
        "several": {"options": options},
        "ready_made": {"options": options},
        "fixed_text": {"text": "Made by hand"},
        "computed": {"formula": "pieces"},
        "extra": {"price": "5.00"},
        "date": {"after_working_days": 5, "closed_weekdays": [5, 6]},
        "artwork": {"kinds": list(get_args(ArtworkKind))},
    }
    return begins.get(kind, {})
