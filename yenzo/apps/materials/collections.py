"""Collections in a form: ready-made artwork of the core comes in, a name, rows and new files; and back."""

import tempfile
from pathlib import Path
from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.accounts.rights import Actor
from yenzo.apps.materials.services.artwork import add_made_artwork
from yenzo.apps.pages.fields import LineField
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.materials import Collection, ReadyDrawing
from yenzo.core.documents.reading import dump_part

KINDS = ("svg", "pdf", "png", "jpeg", "webp")
MOST_AT_ONCE = 30


class SeveralFiles(forms.FileInput):
    allow_multiple_selected = True


class CollectionForm(forms.Form):
    name = LineField(max_length=200, label="Name of the collection")


class DrawingForm(forms.Form):
    """One drawing that is there: its name and what it is found by."""

    key = forms.CharField(widget=forms.HiddenInput)
    name = LineField(max_length=200, label="Name")
    tags = LineField(required=False, max_length=400, label="Tags, with commas")


DrawingRows = forms.formset_factory(DrawingForm, extra=0, can_delete=True, max_num=500)


class CollectionEditor:
    """A collection's name, its drawings, and files that are added to it."""

    def __init__(self, collection: Collection | None, data: QueryDict | None = None, files: Any = None) -> None:
        self._have = {one.key: one for one in collection.drawings} if collection else {}
        rows = [{"key": one.key, "name": one.name, "tags": ", ".join(one.tags)} for one in self._have.values()]
        self.form = CollectionForm(
            data, initial={"name": collection.name if collection else ""}, auto_id="collection-%s"
        )
        self.form.fields["files"] = forms.FileField(
            required=False,
            widget=SeveralFiles(attrs={"multiple": True, "accept": ".svg,.pdf,.png,.jpg,.jpeg,.webp"}),
            label="Add drawings",
            help_text="SVG, PDF, PNG, JPEG or WebP; several at once",
        )
        self.rows = DrawingRows(data, initial=rows, prefix="drawing")
        self.files: list[Any] = files.getlist("files") if files else []

    @property
    def shown(self) -> list[tuple[ReadyDrawing | None, Any]]:
        """The rows, each with the drawing that it is about."""
        return [(self._have.get(str(row["key"].value())), row) for row in self.rows]

    def is_valid(self) -> bool:
        """Tell whether all is well so far; files are looked at when they are taken."""
        fine = all([self.form.is_valid(), self.rows.is_valid()])
        if len(self.files) > MOST_AT_ONCE:
            self.form.add_error("files", f"{len(self.files)} files are many at once: send {MOST_AT_ONCE} at most.")
            return False
        return fine

    def has_any(self, added: list[dict[str, Any]]) -> bool:
        """Tell whether anything is left in the collection."""
        return bool(added or self._kept())

    def document(self, added: list[dict[str, Any]]) -> dict[str, Any]:
        """Return the collection as a small document of the core, with what is added behind what is there."""
        drawings = []
        for row in self._kept():
            tags = list(dict.fromkeys(tag for part in row["tags"].split(",") if (tag := part.strip())))
            changed = {"name": row["name"], "tags": tags}
            drawings.append({**dump_part(self._have[row["key"]]), **changed})
        for made in added:
            key = free_key({"drawings": drawings}, ("drawings",), made["name"])
            drawings.append({"key": key, **made})
        return {"name": self.form.cleaned_data["name"], "drawings": drawings}

    def _kept(self) -> list[dict[str, Any]]:
        return [row for row in self.rows.cleaned_data if row.get("key") in self._have and not row.get("DELETE")]


def take_drawing(actor: Actor, file: Any) -> dict[str, Any]:
    """Keep a file as ready-made artwork, called as it is; raises ArtworkError."""
    name = file.name or "drawing"
    with tempfile.NamedTemporaryFile() as kept:
        for chunk in file.chunks():
            kept.write(chunk)
        kept.flush()
        made = add_made_artwork(actor, Path(kept.name), name, kinds=KINDS)
    return {"name": Path(name).stem.replace("-", " ").replace("_", " ").capitalize() or name, **made}
