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
from collections.abc import Callable
from dataclasses import dataclass

from yenzo.core.planning.engine import engine_id
from yenzo.core.planning.manifest import (
    AreaEntry,
    DrawingEntry,
    FileEntry,
    Kind,
    Manifest,
    PictureEntry,
    TextEntry,
    entries_of,
)
from yenzo.core.planning.plates import margin_mm, plates_of
from yenzo.core.planning.ticket import make_ticket
from yenzo.core.planning.work import Work
from yenzo.core.render.files import render_file
from yenzo.core.render.pdf import PdfColors
from yenzo.core.scene.nodes import AreaScene
from yenzo.core.speaking import OWN_LANGUAGE, speaking

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


@speaking(OWN_LANGUAGE)  # whoever asks for it: a pack is the same for all
def make_pack(work: Work, on_progress: Progress | None = None) -> Pack:
    """Make the pack of a piece; `on_progress` is told (steps done, steps in all) after each file."""
    areas = [area for area in work.walked.scene.areas if area.nodes]
    methods = work.walked.setup.materials.methods
    plates = {area: plates_of(area, methods[area.method]) for area in areas}
    steps = sum(len(plates[area]) * len(methods[area.method].files) for area in areas) + 1 + len(work.originals)
    files: list[_File] = []
    area_entries = []

    def add(file: _File) -> None:
        files.append(file)
        if on_progress:
            on_progress(len(files), steps)

    for area in areas:
        names = []
        method = methods[area.method]
        for plate in plates[area]:
            stem = "_".join(
                filter(None, (work.number, area.side, area.key, safe_name(plate.name) if plate.name else ""))
            )
            for file_format in method.files:
                name = f"{stem}.{file_format}"
                colors = PdfColors(spots=method.spot_colors, process=method.cmyk, transparency=method.transparency)
                data = render_file(plate.page, work.assets, file_format, dpi=area.area.dpi, colors=colors)
                add(_File(name, file_format, data))
                names.append(name)
        area_entries.append(_area_entry(area, margin_mm(method), tuple(names)))
    add(_File(f"{work.number}_ticket.pdf", "ticket", make_ticket(work)))
    sent = Counter(original.field for original in work.originals)
    count = Counter[str]()
    for original in work.originals:
        count[original.field] += 1
        # Several of one field may have the same name.
        of = f"{original.field}-{count[original.field]}" if sent[original.field] > 1 else original.field
        add(_File(f"originals/{of}_{safe_name(original.name)}", "original", work.assets.read(original.sha256)))
    manifest = _manifest(work, tuple(area_entries), files)
    return Pack(_zip(manifest, files), manifest)


def safe_name(name: str) -> str:
    """Return a file name that every system can keep: no folders, no control characters, a bounded length."""
    plain = unicodedata.normalize("NFC", name).replace("\\", "/").rsplit("/", 1)[-1]
    plain = re.sub(r'[\x00-\x1f\x7f<>:"|?*]', "_", plain).strip(" .")
    return plain[-80:] or "file"


def _area_entry(area: AreaScene, margin: float, files: tuple[str, ...]) -> AreaEntry:
    offset = area.area.bleed_mm + margin
    return AreaEntry(
        side=area.side,
        area=area.key,
        name=area.name,
        width_mm=area.area.width_mm,
        height_mm=area.area.height_mm,
        bleed_mm=area.area.bleed_mm,
        trim_offset_mm=(offset, offset),
        method=area.method,
        dpi=area.area.dpi,
        texts=tuple(
            TextEntry(
                field=lettering.field,
                text=lettering.text,
                typeface=lettering.typeface_name,
                letter_height_mm=round(lettering.letter_height_mm, 3),
                color=lettering.paint.name,
                color_reference=lettering.paint.reference,
                ink_mm=_rounded(lettering.outline.bounds or (0, 0, 0, 0)),
            )
            for lettering in area.letterings
        ),
        pictures=tuple(
            PictureEntry(
                field=picture.field,
                name=picture.name,
                width_mm=round(picture.size_mm[0], 3),
                height_mm=round(picture.size_mm[1], 3),
                dpi=round(picture.dpi, 1),
            )
            for picture in area.pictures
        ),
        drawings=tuple(
            DrawingEntry(
                field=drawing.field,
                name=drawing.name,
                width_mm=round(drawing.size_mm[0], 3),
                height_mm=round(drawing.size_mm[1], 3),
                color=drawing.paint.name if drawing.paint else "",
            )
            for drawing in area.drawings
        ),
        files=files,
    )


def _rounded(box: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    left, top, right, bottom = (round(edge, 3) for edge in box)
    return left, top, right, bottom


def _manifest(work: Work, areas: tuple[AreaEntry, ...], files: list[_File]) -> Manifest:
    offer, asked = work.walked.setup.offer, work.walked.asked
    return Manifest(
        order=work.order,
        piece=work.piece,
        quantity=asked.pieces,
        product=offer.name,
        sku=offer.sku,
        variant=asked.variant,
        revision=work.revision,
        engine=engine_id(),
        entries=entries_of(asked),
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
