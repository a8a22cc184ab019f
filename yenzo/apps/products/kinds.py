"""Kinds of field as the workshop speaks of them, and what a new line of each begins with."""

from dataclasses import dataclass
from typing import Any, get_args

from django.utils.translation import gettext_noop

from yenzo.core.asking.kinds import KINDS
from yenzo.core.documents.artwork import ArtworkKind
from yenzo.core.documents.beginnings import likely_palette
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED

MODELS: dict[str, type[FieldBase]] = {model.model_fields["kind"].default: model for model in KINDS}


@dataclass(frozen=True)
class KindWords:
    """How the workshop speaks of a kind of field.

    `phrase` names one in a sentence, `noun` and `plural` count several; `yours` says to customers what of it is theirs.
    """

    phrase: str
    noun: str
    plural: str | None = None
    yours: str | None = None


# In the order in which sellers pick a kind.
KIND_WORDS = {
    "line": KindWords("a text", "text", yours=gettext_noop("words")),
    "paragraph": KindWords("a paragraph", "paragraph", yours=gettext_noop("words")),
    "choice": KindWords("a choice", "choice"),
    "several": KindWords("a choice of several", "choice of several", plural="choices of several"),
    "ready_made": KindWords("a choice of ready-made artwork", "choice of artwork", plural="choices of artwork"),
    "method": KindWords("a choice of decoration method", "choice of method", plural="choices of method"),
    "yes_no": KindWords("yes or no", "question"),
    "number": KindWords("a number", "number"),
    "computed": KindWords("a computed value", "computed value"),
    "extra": KindWords("another product with it", "extra"),
    "date": KindWords("a day", "day"),
    "email": KindWords("a mail address", "mail address"),
    "phone": KindWords("a telephone number", "telephone number"),
    "link": KindWords("an address in the web", "link"),
    "address": KindWords("a postal address", "address", plural="addresses"),
    "note": KindWords("a note to the workshop", "note"),
    "typeface": KindWords("a choice of typeface", "typeface", yours=gettext_noop("lettering")),
    "color": KindWords("a color", "color", yours=gettext_noop("color")),
    "artwork": KindWords("an upload", "upload", yours=gettext_noop("picture")),
    "own_items": KindWords(
        "items of the customer's own", "field of own items", plural="fields of own items", yours=gettext_noop("design")
    ),
    "fixed_text": KindWords("a text of our own, always made", "text of our own", plural="texts of our own"),
    "fixed_artwork": KindWords("artwork of our own, always made", "artwork of our own", plural="artwork of our own"),
    "heading": KindWords("a heading with words under it", "heading"),
}


def _own_items_beginning(setup: Setup) -> dict[str, Any]:
    texts = {
        "letters": {"least_mm": 5, "most_mm": 60},
        "typefaces": list(setup.materials.typefaces)[:5] or [UNDECIDED],
        "palette": likely_palette(setup),
    }
    collections = list(setup.materials.collections)
    return {"texts": texts, "pictures": {}, **({"drawings": {"collections": collections}} if collections else {})}


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
    if kind == "own_items":
        return _own_items_beginning(setup)
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
