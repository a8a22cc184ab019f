"""What the workshop makes by itself: fixed texts and artwork, ready-made artwork, and goods that follow a choice."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LineField
from yenzo.apps.pages.phrases import counted, joined
from yenzo.core.artwork.tinting import Tints
from yenzo.core.documents.artwork import OneColor
from yenzo.core.documents.fields import ArtworkField, FixedArtworkField, FixedTextField, OptionsField
from yenzo.core.documents.setup import Setup

ARTWORK = "artwork-"


class ArtworkFile(forms.FileField):
    """A file that is made with customers' pieces, or stands in for theirs, and no picture of goods.

    `kinds` are the only ones that are taken; all if none is named.
    """

    def __init__(self, *, kinds: tuple[str, ...] = (), one_color: OneColor | None = None, **more: Any) -> None:
        super().__init__(**more)
        self.kinds, self.one_color = kinds, one_color


class MaskFile(forms.FileField):
    """A mask of the part of goods that takes colors."""

    def __init__(self, tints: Tints, **more: Any) -> None:
        super().__init__(**more)
        self.tints = tints


class FixedTextAspect(Aspect):
    key, heading = "fixed-text", "Which text is always made?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, FixedTextField)
        return f"“{line.field.text}”"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, FixedTextField)
        return {"text": LineField(max_length=200, initial=line.field.text, label="Text")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("text", given["text"])]


class FixedArtworkAspect(Aspect):
    key, heading = "fixed-artwork", "Which artwork is always made?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, FixedArtworkField)
        return f"“{line.field.artwork.name}”" if line.field.artwork else "none yet"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:  # noqa: ARG002 - a new file, whatever there is
        return {"file": ArtworkFile(required=True, label="File: PNG, JPEG, WebP, TIFF, HEIC, SVG or PDF")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("artwork", given["file"]["artwork"])]


class StandInAspect(Aspect):
    key, heading, offer = "sample-picture", "What shows how it will look?", "sample picture"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.field, ArtworkField)
        return line.field.sample is None

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ArtworkField)
        return f"“{line.field.sample.name}”" if line.field.sample else "nothing"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ArtworkField)
        explained = "It stands on the goods, faint, while the customer's own must still be sent. It is never made."
        fields: dict[str, forms.Field] = {
            "file": ArtworkFile(
                required=False,
                kinds=line.field.kinds,
                one_color=line.field.one_color,
                label=f"File: {', '.join(kind.upper() for kind in line.field.kinds)}",
                help_text=explained,
            )
        }
        if line.field.sample:
            fields["bare"] = forms.BooleanField(required=False, label="No sample picture")
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given.get("bare"):
            return [line.set("sample", None)]
        return [line.set("sample", given["file"]["artwork"])] if given.get("file") else []


class ReadyMadeAspect(Aspect):
    key, heading = "ready-made", "Which artwork may be chosen?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, OptionsField)
        lacking = [option.label for option in line.field.options if option.artwork is None]
        have = counted(len(line.field.options) - len(lacking), "piece of artwork", "pieces of artwork")
        return f"{have}{f', none yet for {joined(lacking)}' if lacking else ''}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, OptionsField)
        return {
            f"{ARTWORK}{option.key}": ArtworkFile(
                required=False, label=f"{option.label}: {'another file' if option.artwork else 'its file'}"
            )
            for option in line.field.options
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        operations: Operations = []
        for name, made in given.items():
            if made:
                path = ["fields", line.field.key, "options", name.removeprefix(ARTWORK)]
                operations += [{"do": "set", "path": [*path, part], "value": made[part]} for part in made]
        return operations


class GoodsAspect(Aspect):
    key, heading, offer = "goods", "Do the goods look otherwise with a choice?", "goods that follow it"

    def is_plain(self, line: FormLine) -> bool:
        assert isinstance(line.field, OptionsField)
        return not any(option.goods or option.overlays for option in line.field.options)

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, OptionsField)
        named = [option.label for option in line.field.options if option.goods]
        tinted = [option.label for option in line.field.options if option.overlays]
        said = [f"another picture of the goods for {joined(named)}"] if named else []
        said += [f"a part of the goods in the color of {joined(tinted)}"] if tinted else []
        return joined(said) if said else "the same goods with each"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, OptionsField)
        fields: dict[str, forms.Field] = {}
        for option in line.field.options:
            for side in line.setup.sides:
                name = f"{option.key}.{side.key}"
                fields[name] = forms.FileField(
                    required=False,
                    label=f"{option.label}: {side.name}",
                    help_text="There is one; a new one takes its place." if side.key in option.goods else "",
                )
                if side.key in option.goods:
                    fields[f"{name}.bare"] = forms.BooleanField(required=False, label=f"{option.label}: as without it")
        return fields | self._masks(line.field, line.setup)

    def _masks(self, field: OptionsField, setup: Setup) -> dict[str, forms.Field]:
        """Return what tints a part of the goods in the color of each choice that has one."""
        colors = {option.key: option.swatch for option in field.options if option.swatch}
        fields: dict[str, forms.Field] = {}
        for side in setup.sides if colors else ():
            fields[f"mask.{side.key}"] = MaskFile(
                Tints(side.picture.asset, colors),
                required=False,
                label=f"{side.name}: mask of the part that takes each choice's color",
                help_text="As large as the picture of the goods; opaque (or white) where the color goes.",
            )
            if any(side.key in option.overlays for option in field.options):
                fields[f"mask.{side.key}.bare"] = forms.BooleanField(
                    required=False, label=f"{side.name}: no part tinted"
                )
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, OptionsField)
        operations: Operations = []
        for option in line.field.options:
            goods = {side: picture.model_dump(mode="json") for side, picture in option.goods.items()}
            for side in line.setup.sides:
                name = f"{option.key}.{side.key}"
                if given.get(f"{name}.bare"):
                    goods.pop(side.key, None)
                elif given.get(name):
                    goods[side.key] = given[name]
            overlays = {side: picture.model_dump(mode="json") for side, picture in option.overlays.items()}
            for side in line.setup.sides:
                if given.get(f"mask.{side.key}.bare"):
                    overlays.pop(side.key, None)
                elif option.key in (tints := given.get(f"mask.{side.key}") or {}):
                    overlays[side.key] = tints[option.key]
            path = ["fields", line.field.key, "options", option.key]
            operations += [
                {"do": "set", "path": [*path, "goods"], "value": goods or None},
                {"do": "set", "path": [*path, "overlays"], "value": overlays or None},
            ]
        return operations
