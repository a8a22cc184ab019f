"""The hand-off pack: a piece of work comes in, a ZIP with manifest, ticket, production files and originals goes out.

The same work with the same engine gives the same bytes: names are sorted, dates are fixed.
"""

import hashlib
import io
import json
import re
import unicodedata
import zipfile
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from yenzo.core.asking.words import entries_in_words
from yenzo.core.documents.materials import Method
from yenzo.core.planning.engine import engine_id
from yenzo.core.planning.manifest import (
    AreaEntry,
    DrawingEntry,
    FileEntry,
    Kind,
    Manifest,
    PictureEntry,
    PlateEntry,
    SideEntry,
    TextEntry,
    WordedEntry,
    entries_of,
)
from yenzo.core.planning.plates import Plate, margin_mm, plates_of, spot_names
from yenzo.core.planning.side_sheet import make_side_sheet
from yenzo.core.planning.ticket import make_ticket, turned_deg, wanted_fields
from yenzo.core.planning.work import Work
from yenzo.core.render.files import render_file
from yenzo.core.render.pdf import PdfColors
from yenzo.core.scene.nodes import AreaScene, Lettering
from yenzo.core.translation import SOURCE_LANGUAGE, override_language

# The earliest date a ZIP can carry: a real one would make every pack different.
NO_DATE = (1980, 1, 1, 0, 0, 0)
Progress = Callable[[int, int], None]


@dataclass(frozen=True)
class Pack:
    """A finished pack: its bytes and the manifest inside it."""

    data: bytes
    manifest: Manifest


@dataclass(frozen=True)
class _File:
    name: str
    kind: Kind
    data: bytes


@override_language(SOURCE_LANGUAGE)  # whoever asks for it: a pack is the same for all
def make_pack(work: Work, on_progress: Progress | None = None) -> Pack:
    """Make the pack of a piece; `on_progress` is told (steps done, steps in all) after each file."""
    areas = [area for area in work.evaluation.scene.areas if area.nodes]
    sides = work.evaluation.scene.sides
    methods = work.evaluation.setup.materials.methods
    plates = {area: plates_of(area, methods[area.method]) for area in areas}
    steps = sum(len(plates[area]) * len(methods[area.method].files) for area in areas)
    steps += 1 + len(sides) + len(work.originals)
    files: list[_File] = []

    def add(file: _File) -> str:
        """Put a file into the pack, tell how far it is, and return its name."""
        files.append(file)
        if on_progress:
            on_progress(len(files), steps)
        return file.name

    stems = _stems(work, areas)
    area_entries = tuple(
        _area_entry(
            work, area, [(plate, add(file)) for plate, file in _area_files(work, area, plates[area], stems[area])]
        )
        for area in areas
    )
    add(_File(f"{work.number}_ticket.pdf", "ticket", make_ticket(work)))
    side_entries = tuple(
        SideEntry(
            side=side.key,
            name=side.name,
            width_mm=round(side.width_mm, 3),
            height_mm=round(side.height_mm, 3),
            file=add(_File(name, "side", make_side_sheet(side, work.number, work.assets))),
        )
        for side, name in zip(sides, _side_names(work), strict=True)
    )
    for file in _originals(work):
        add(file)
    manifest = _manifest(work, side_entries, tuple(area_entries), files)
    return Pack(_zip(manifest, files), manifest)


def _area_files(work: Work, area: AreaScene, plates: tuple[Plate, ...], stem: str) -> Iterator[tuple[Plate, _File]]:
    method = work.evaluation.setup.materials.methods[area.method]
    colors = PdfColors(spots=method.spot_colors, process=method.cmyk, transparency=method.transparency)
    for plate in plates:
        name = "_".join(filter(None, (stem, file_word(plate.name))))
        for file_format in method.files:
            data = render_file(plate.page, work.assets, file_format, dpi=area.area.dpi, colors=colors)
            yield plate, _File(f"{name}.{file_format}", file_format, data)


def _originals(work: Work) -> Iterator[_File]:
    sent = Counter(original.field for original in work.originals)
    count = Counter[str]()
    for original in work.originals:
        count[original.field] += 1
        # Several of one field may have the same name.
        of = f"{original.field}-{count[original.field]}" if sent[original.field] > 1 else original.field
        yield _File(f"originals/{of}_{safe_name(original.name)}", "original", work.assets.read(original.sha256))


def _stems(work: Work, areas: list[AreaScene]) -> dict[AreaScene, str]:
    """Return how the files of each area are called: by the names that people gave, and by keys where two are alike."""
    sides = {side.key: side.name for side in work.evaluation.scene.sides}
    named = {area: f"{file_word(sides[area.side])}_{file_word(area.name)}" for area in areas}
    often = Counter(name.casefold() for name in named.values())
    return {
        area: f"{work.number}_{name}" + (f"_{area.side}-{area.key}" if often[name.casefold()] > 1 else "")
        for area, name in named.items()
    }


def _side_names(work: Work) -> list[str]:
    sides = work.evaluation.scene.sides
    often = Counter(file_word(side.name).casefold() for side in sides)
    names = [
        file_word(side.name) + (f"_{side.key}" if often[file_word(side.name).casefold()] > 1 else "") for side in sides
    ]
    return [f"{work.number}_{name}_whole-side.pdf" for name in names]


def file_word(name: str) -> str:
    """Return a name that people gave as a part of a file's: what every system keeps, and no blanks."""
    plain = name.replace("/", "-").replace("'", "").replace("’", "")
    return "-".join(safe_name(plain).replace("_", "-").split()) if name else ""


def safe_name(name: str) -> str:
    """Return a file name that every system can keep: no folders, no control characters, a bounded length."""
    plain = unicodedata.normalize("NFC", name).replace("\\", "/").rsplit("/", 1)[-1]
    plain = re.sub(r'[\x00-\x1f\x7f<>:"|?*]', "_", plain).strip(" .")
    return plain[-80:] or "file"


def _area_entry(work: Work, area: AreaScene, files: list[tuple[Plate, str]]) -> AreaEntry:
    frame, setup = area.area, work.evaluation.setup
    method = setup.materials.methods[area.method]
    offset = frame.bleed_mm + margin_mm(method)
    side = work.evaluation.scene.side(area.side)

    def label(key: str) -> str:
        """Return what the workshop calls a field, empty for one that is gone."""
        field = setup.field(key)
        return (field.workshop_name or field.label) if field else ""

    return AreaEntry(
        side=area.side,
        side_name=side.name if side else "",
        area=area.key,
        name=area.name,
        left_mm=round(frame.x_mm, 3),
        top_mm=round(frame.y_mm, 3),
        turn_deg=frame.turn_deg,
        width_mm=frame.width_mm,
        height_mm=frame.height_mm,
        bleed_mm=frame.bleed_mm,
        trim_offset_mm=(offset, offset),
        method=area.method,
        method_name=method.name,
        dpi=frame.dpi,
        texts=tuple(_text_entry(text, label(text.field)) for text in area.letterings),
        pictures=tuple(
            PictureEntry(
                field=picture.field,
                label=label(picture.field),
                name=picture.name,
                width_mm=round(picture.size_mm[0], 3),
                height_mm=round(picture.size_mm[1], 3),
                shown_mm=_rounded_pair(area.shown_size(picture)),
                dpi=round(picture.dpi, 1),
                ink_mm=_rounded(picture.bounds),
                turn_deg=turned_deg(picture),
            )
            for picture in area.pictures
        ),
        drawings=tuple(
            DrawingEntry(
                field=drawing.field,
                label=label(drawing.field),
                name=drawing.name,
                width_mm=round(drawing.size_mm[0], 3),
                height_mm=round(drawing.size_mm[1], 3),
                color=drawing.paint.name if drawing.paint else "",
                ink_mm=_rounded(drawing.bounds),
                turn_deg=turned_deg(drawing),
                code=drawing.code.text if drawing.code else "",
            )
            for drawing in area.drawings
        ),
        plates=_plate_entries(area, method, files),
        files=tuple(name for _, name in files),
    )


def _plate_entries(area: AreaScene, method: Method, files: list[tuple[Plate, str]]) -> tuple[PlateEntry, ...]:
    spots = spot_names(area, method)
    paints = dict.fromkeys([*spots, *(plate.paint for plate, _ in files if plate.paint)])
    return tuple(
        PlateEntry(
            color=paint.name,
            reference=paint.reference,
            tool=paint.tool,
            screen=paint.screen,
            cmyk=paint.cmyk,
            spot=spots.get(paint, ""),
            files=tuple(name for plate, name in files if plate.paint == paint),
        )
        for paint in paints
    )


def _text_entry(text: Lettering, label: str) -> TextEntry:
    return TextEntry(
        field=text.field,
        label=label,
        text=text.text,
        lines=text.lines,
        typeface=text.typeface_name,
        letter_height_mm=round(text.letter_height_mm, 3),
        color=text.paint.name,
        color_reference=text.paint.reference,
        ink_mm=_rounded(text.outline.bounds or (0, 0, 0, 0)),
        turn_deg=turned_deg(text),
    )


def _rounded_pair(size: tuple[float, float]) -> tuple[float, float]:
    return round(size[0], 3), round(size[1], 3)


def _rounded(box: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    left, top, right, bottom = (round(edge, 3) for edge in box)
    return left, top, right, bottom


def _manifest(work: Work, sides: tuple[SideEntry, ...], areas: tuple[AreaEntry, ...], files: list[_File]) -> Manifest:
    offer, asked = work.evaluation.setup.offer, work.evaluation.asked
    variant = offer.variant(asked.variant)
    wanted = set(wanted_fields(work))
    said = tuple(
        WordedEntry(field=entry.field, label=entry.workshop_label, words=entry.words)
        for entry in entries_in_words(work.evaluation.setup, asked)
    )
    return Manifest(
        order=work.order,
        piece=work.piece,
        quantity=asked.pieces,
        product=offer.name,
        sku=offer.sku,
        variant=asked.variant,
        variant_name=variant.name if variant else "",
        wanted_by=tuple(entry for entry in said if entry.field in wanted),
        revision=work.revision,
        revision_number=work.revision_number,
        engine=engine_id(),
        entries=entries_of(asked),
        said=said,
        sides=sides,
        areas=areas,
        files=tuple(
            FileEntry(
                name=file.name,
                kind=file.kind,
                sha256=hashlib.sha256(file.data).hexdigest(),
                size_bytes=len(file.data),
            )
            for file in files
        ),
    )


def _zip(manifest: Manifest, files: list[_File]) -> bytes:
    text = json.dumps(manifest.model_dump(mode="json", by_alias=True), ensure_ascii=False, indent=1, sort_keys=True)
    contents = {"manifest.json": text.encode(), **{file.name: file.data for file in files}}
    output = io.BytesIO()
    with zipfile.ZipFile(output, "w") as archive:
        for name, data in sorted(contents.items()):
            info = zipfile.ZipInfo(name, NO_DATE)
            info.external_attr = 0o644 << 16
            packed = zipfile.ZIP_STORED if name.endswith((".png", ".pdf")) else zipfile.ZIP_DEFLATED
            archive.writestr(info, data, packed)
    return output.getvalue()
