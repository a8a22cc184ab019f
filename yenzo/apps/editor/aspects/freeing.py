"""What customers may change by hand: a placement comes in, words and a form go out; nothing is free unless ticked."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations, bounded_number
from yenzo.apps.materials.to_core import materials
from yenzo.apps.pages.phrases import counted, joined
from yenzo.core.documents.freedoms import HELD_FAST, Freedoms, LetterHeights, Scaling
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number

ALL_ROUND_DEG = 180


class FreeAspect(Aspect):
    key, heading, offer = "free", "What may customers change by hand?", "by hand"

    def words(self, line: FormLine) -> str:
        free = _free_of(line)
        return joined(_phrases(line.setup, free)) if free else "nothing"

    def is_plain(self, line: FormLine) -> bool:
        return not _free_of(line)

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        free = _free_of(line)
        sizes = free.scale
        order = forms.BooleanField(
            required=False, initial=free.order, label="Put it above or below what else is in the area"
        )
        fields: dict[str, forms.Field] = {
            "move": forms.BooleanField(required=False, initial=free.move, label="Move it"),
            "turn_deg": bounded_number(
                "Turn it by up to, degrees",
                free.turn_deg or None,
                0,
                ALL_ROUND_DEG,
                "180 is all round; empty: not at all",
            ),
            "scale_least": bounded_number("Size it from, times", sizes.least if sizes else None, 0.05, 20),
            "scale_most": bounded_number(
                "Up to, times",
                sizes.most if sizes else None,
                0.05,
                20,
                "Of the size that it has at first; it still covers its area, or stays inside. Empty: not at all",
            ),
        }
        if isinstance(line.placement, TextPlacement):
            fields |= self._text_fields(free)
        palettes = [("", "It stays as it is"), *((key, one.name) for key, one in materials().palettes.items())]
        fields["palette"] = forms.ChoiceField(
            choices=palettes, required=False, initial=free.palette or "", label="Color it from the palette"
        )
        return fields | {"order": order}

    @staticmethod
    def _text_fields(free: Freedoms) -> dict[str, forms.Field]:
        letters = free.letters
        return {
            "letters_least": bounded_number("Letters from, mm", letters.least_mm if letters else None, 0.5, 2000),
            "letters_most": bounded_number(
                "Up to, mm", letters.most_mm if letters else None, 0.5, 2000, "Empty: not at all"
            ),
            "typefaces": forms.MultipleChoiceField(
                choices=[(key, one.name) for key, one in materials().typefaces.items()],
                required=False,
                initial=free.typefaces,
                widget=forms.CheckboxSelectMultiple,
                label="Change its typeface to",
            ),
            "styles": forms.BooleanField(
                required=False,
                initial=free.styles,
                label="Bold, italic and the like, where its family has them",
            ),
            "align": forms.BooleanField(required=False, initial=free.align, label="Align it"),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        free = Freedoms(
            move=given["move"],
            turn_deg=given["turn_deg"] or 0,
            scale=_span(Scaling, "size", given["scale_least"], given["scale_most"], ("least", "most")),
            letters=_span(
                LetterHeights,
                "letter height",
                given.get("letters_least"),
                given.get("letters_most"),
                ("least_mm", "most_mm"),
            ),
            typefaces=tuple(given.get("typefaces", ())),
            styles=given.get("styles", False),
            palette=given["palette"] or None,
            align=given.get("align", False),
            order=given["order"],
        )
        return [line.set_placement("free", dump_part(free) if free else None)]


def _free_of(line: FormLine) -> Freedoms:
    return line.placement.free if line.placement else HELD_FAST


def _span(kind: type[Any], what: str, least: float | None, most: float | None, names: tuple[str, str]) -> Any:
    """Return two bounds as a set-up has them, or None where neither is given."""
    if least is None and most is None:
        return None
    if least is None or most is None:
        raise forms.ValidationError(f"Give both the least and the most {what}, or neither.")
    if least > most:
        raise forms.ValidationError(f"The least {what} is above the most.")
    return kind(**dict(zip(names, (least, most), strict=True)))


def _phrases(setup: Setup, free: Freedoms) -> list[str]:
    said = ["move it"] if free.move else []
    if free.turn_deg:
        said.append("turn it" if free.turn_deg >= ALL_ROUND_DEG else f"turn it by up to {plain_number(free.turn_deg)}°")
    if free.scale:
        said.append(f"size it {plain_number(free.scale.least, 2)} to {plain_number(free.scale.most, 2)} times")
    if free.letters:
        least, most = plain_number(free.letters.least_mm, 1), plain_number(free.letters.most_mm, 1)
        said.append(f"choose letters of {least} to {most} mm")
    if free.typefaces:
        said.append(f"choose among {counted(len(free.typefaces), 'other typeface')}")
    if free.styles:
        said.append("make it bold or italic")
    if free.palette:
        palette = setup.materials.palettes.get(free.palette)
        said.append(f"color it from “{palette.name if palette else free.palette}”")
    if free.align:
        said.append("align it")
    if free.order:
        said.append("put it above or below others")
    return said
