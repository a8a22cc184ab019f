"""Arrangements of own items that customers can begin from: made in the try-out, kept here under a name."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.editor.aspects.own_items import own_items_of
from yenzo.apps.pages.phrases import joined
from yenzo.core.asking.gestures import after, read_gestures, read_hands
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.own_items import Beginning, OwnItems, OwnPicture
from yenzo.core.documents.reading import dump_part

MOST_NAME, MOST_BEGINNINGS = 80, 20


class BeginningsAspect(Aspect):
    key, heading, offer = "beginnings", "What can customers begin from?", "arrangement to begin from"

    def is_plain(self, line: FormLine) -> bool:
        return not own_items_of(line).beginnings

    def words(self, line: FormLine) -> str:
        return joined([f"“{one.name}”" for one in own_items_of(line).beginnings]) or "nothing that is arranged"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        named = {f"name-{one.key}": _name("Arrangement", one.name) for one in own_items_of(line).beginnings}
        for name in named.values():
            name.help_text = "Empty: it is taken away."
        new = _name("Keep what the try-out shows now as", "")
        new.help_text = "Arrange items in the try-out first; they are kept with their places, sizes and colors."
        hidden = {
            name: forms.CharField(required=False, widget=forms.HiddenInput(attrs={"data-from-try-out": name}))
            for name in ("hands", "gestures")
        }
        return {**named, "new_name": new, **hidden}

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        gone = [one.name for one in own_items_of(line).beginnings if not given[f"name-{one.key}"]]
        return [f"the arrangement “{name}”" for name in gone]

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        field = own_items_of(line)
        kept = [
            one.model_copy(update={"name": given[f"name-{one.key}"]})
            for one in field.beginnings
            if given[f"name-{one.key}"]
        ]
        if given["new_name"]:
            if len(kept) >= MOST_BEGINNINGS:
                raise forms.ValidationError(f"{MOST_BEGINNINGS} arrangements are all that there is room for.")
            taken = {"beginnings": [{"key": one.key} for one in field.beginnings]}
            key = free_key(taken, ("beginnings",), given["new_name"])
            kept.append(Beginning(key=key, name=given["new_name"], items=_arranged(line, given)))
        return [line.set("beginnings", [dump_part(one) for one in kept] or None)]


def _name(label: str, initial: str) -> forms.CharField:
    return forms.CharField(required=False, initial=initial, max_length=MOST_NAME, label=label)


def _arranged(line: FormLine, given: dict[str, Any]) -> OwnItems:
    """Return the items that lie on the goods of the try-out; raises ValidationError for what can't be kept."""
    hands = after(read_hands(given["hands"]), read_gestures(given["gestures"]))
    items = hands.items.get(line.field.key, ())
    if not items:
        raise forms.ValidationError("Put something on the goods in the try-out first: what lies there is kept.")
    if any(isinstance(item, OwnPicture) for item in items):
        raise forms.ValidationError(
            "A picture that was sent to the try-out isn't the workshop's. Put it into a collection under Materials and "
            "take it from there, or take it off the goods."
        )
    return items
