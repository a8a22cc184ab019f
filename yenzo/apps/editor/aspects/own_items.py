"""What customers may put on the goods themselves: which kinds of item, how many, in which typefaces and colors."""

from typing import Any, get_args

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations, bounded_number
from yenzo.apps.materials.to_core import materials
from yenzo.apps.pages.phrases import counted, joined
from yenzo.core.documents.artwork import ArtworkKind
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import MOST_OWN_ITEMS, OwnLayout, OwnPictures, OwnTexts
from yenzo.core.documents.reading import dump_part
from yenzo.core.measure import plain_number

LAYOUTS = {
    "straight": "on a straight line",
    "wrapped": "wrapped at a width",
    "arched": "on an arch",
    "round": "all round a circle",
}


def _how_many(label: str, initial: int | None) -> forms.IntegerField:
    return forms.IntegerField(
        required=False, initial=initial or 0, min_value=0, max_value=MOST_OWN_ITEMS, label=label, help_text="0: none"
    )


def _several(label: str, choices: list[tuple[str, str]], initial: tuple[str, ...]) -> forms.MultipleChoiceField:
    return forms.MultipleChoiceField(
        required=False, choices=choices, initial=initial, widget=forms.CheckboxSelectMultiple, label=label
    )


def _text_fields(texts: OwnTexts | None, have: Materials, palettes: list[tuple[str, str]]) -> dict[str, forms.Field]:
    """Return what is asked of texts."""
    return {
        "most_texts": _how_many("Texts, at most", texts.most if texts else None),
        "most_characters": forms.IntegerField(
            required=False,
            initial=texts.most_characters if texts else 60,
            min_value=1,
            max_value=500,
            label="Characters a text, at most",
        ),
        "letters_least": bounded_number("Letters from, mm", texts.letters.least_mm if texts else 5, 0.5, 2000),
        "letters_most": bounded_number("Letters up to, mm", texts.letters.most_mm if texts else 60, 0.5, 2000),
        "typefaces": _several(
            "Typefaces", [(key, one.name) for key, one in have.typefaces.items()], texts.typefaces if texts else ()
        ),
        "layouts": _several("Texts stand", list(LAYOUTS.items()), texts.layouts if texts else get_args(OwnLayout)),
        "text_palette": forms.ChoiceField(
            required=False, choices=palettes, initial=texts.palette if texts else "", label="Colors of texts"
        ),
    }


class OwnItemsAspect(Aspect):
    key, heading = "own-items", "What may customers put on the goods themselves?"

    def words(self, line: FormLine) -> str:
        field = own_items_of(line)
        offered = (
            (field.texts, "text"),
            (field.pictures, "picture"),
            (field.drawings, "drawing"),
            (field.codes, "code"),
        )
        said = [counted(offer.most, noun) for offer, noun in offered if offer]
        letters = field.texts.letters if field.texts else None
        high = (
            f" (letters {plain_number(letters.least_mm, 1)} to {plain_number(letters.most_mm, 1)} mm)"
            if letters
            else ""
        )
        return f"up to {counted(field.most, 'item')} of their own: at most {joined(said)}{high}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        field, have = own_items_of(line), materials()
        texts, pictures, drawings, codes = field.texts, field.pictures, field.drawings, field.codes
        palettes = [("", "pick one…"), *((key, one.name) for key, one in have.palettes.items())]
        return {
            "most": forms.IntegerField(
                initial=field.most, min_value=1, max_value=MOST_OWN_ITEMS, label="Items in all, at most"
            ),
            **_text_fields(texts, have, palettes),
            "most_pictures": _how_many("Pictures that they send, at most", pictures.most if pictures else None),
            "kinds": _several(
                "Kinds of file",
                [(kind, kind.upper()) for kind in get_args(ArtworkKind)],
                pictures.kinds if pictures else OwnPictures().kinds,
            ),
            "most_drawings": _how_many("Ready-made drawings, at most", drawings.most if drawings else None),
            "collections": _several(
                "From the collections",
                [(key, one.name) for key, one in have.collections.items()],
                drawings.collections if drawings else (),
            ),
            "drawing_palette": forms.ChoiceField(
                required=False,
                choices=[("", "they stay as they are"), *palettes[1:]],
                initial=(drawings.palette or "") if drawings else "",
                label="Colors of drawings",
            ),
            "most_codes": _how_many("QR codes, at most", codes.most if codes else None),
            "code_palette": forms.ChoiceField(
                required=False, choices=palettes, initial=codes.palette if codes else "", label="Colors of codes"
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        texts, pictures, drawings, codes = (_texts(given), _pictures(given), _drawings(given), _codes(given))
        before = own_items_of(line).texts
        if texts and before and before.effects.names:
            texts["effects"] = dump_part(before.effects)
        if not any((texts, pictures, drawings, codes)):
            raise forms.ValidationError("Allow at least one kind of item, or take the line out of the form.")
        values = {"most": given["most"], "texts": texts, "pictures": pictures, "drawings": drawings, "codes": codes}
        return [line.set(name, value) for name, value in values.items()]


def own_items_of(line: FormLine) -> OwnItemsField:
    """Return the field of own items that a line's aspect is about."""
    assert isinstance(line.field, OwnItemsField)
    return line.field


def _needed(given: dict[str, Any], name: str, message: str) -> Any:
    if not given[name]:
        raise forms.ValidationError(message)
    return given[name]


def _texts(given: dict[str, Any]) -> dict[str, Any] | None:
    if not given["most_texts"]:
        return None
    least, most = given["letters_least"], given["letters_most"]
    if least is None or most is None or least > most:
        raise forms.ValidationError("Say how high letters may be: the least, and a most that is no lower.")
    return {
        "most": given["most_texts"],
        "most_characters": given["most_characters"] or 60,
        "letters": {"least_mm": least, "most_mm": most},
        "typefaces": _needed(given, "typefaces", "Pick a typeface that texts can have."),
        "palette": _needed(given, "text_palette", "Pick a palette that texts take their colors from."),
        "layouts": _needed(given, "layouts", "Pick at least one way in which texts stand."),
    }


def _pictures(given: dict[str, Any]) -> dict[str, Any] | None:
    if not given["most_pictures"]:
        return None
    return {"most": given["most_pictures"], "kinds": _needed(given, "kinds", "Pick a kind of file that can be sent.")}


def _drawings(given: dict[str, Any]) -> dict[str, Any] | None:
    if not given["most_drawings"]:
        return None
    collections = _needed(given, "collections", "Pick a collection that drawings come from; Materials has them.")
    palette = {"palette": given["drawing_palette"]} if given["drawing_palette"] else {}
    return {"most": given["most_drawings"], "collections": collections, **palette}


def _codes(given: dict[str, Any]) -> dict[str, Any] | None:
    if not given["most_codes"]:
        return None
    palette = _needed(given, "code_palette", "Pick a palette that codes take their colors from.")
    return {"most": given["most_codes"], "palette": palette}
