"""The control of artwork: files that are here, files that are looked at, and what can be sent."""

from dataclasses import dataclass
from typing import Any

from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.picture_addresses import SMALL, picture_address
from yenzo.apps.slip.controls.interface import Control, Details, Drawn
from yenzo.apps.slip.controls.others import UnsentControl
from yenzo.core.asking.check import is_needed
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.setup import Setup

# What browsers know each kind of file by; some know HEIC and TIFF by their endings only.
PICKED = {
    "png": "image/png",
    "jpeg": "image/jpeg",
    "webp": "image/webp",
    "tiff": "image/tiff,.tif,.tiff",
    "heic": "image/heic,.heic,.heif",
    "svg": "image/svg+xml",
    "pdf": "application/pdf",
}


@dataclass(frozen=True)
class UploadDetails(Details):
    """Files that are here, and those still to be looked at or refused; what browsers offer; a sample meanwhile."""

    uploads: tuple[Upload, ...] = ()
    pending: tuple[Upload, ...] = ()
    accept: str = ""
    most_bytes: int = 0
    sample: str = ""
    ratio: str = "1"


class UploadControl(UnsentControl[ArtworkField]):
    """Pictures and drawings of the customer's own: they are sent by themselves, and named by the form."""

    template = "slip/_upload_control.html"

    def details(self, field: ArtworkField, drawn: Drawn) -> UploadDetails:
        """Return the files and what can be sent."""
        is_wanted = field.sample is not None and is_needed(drawn.evaluation.setup, field, drawn.evaluation.asked)
        return UploadDetails(
            uploads=drawn.uploads,
            pending=drawn.pending,
            accept=",".join(PICKED[kind] for kind in field.kinds),
            most_bytes=int(field.most_megabytes * 1_000_000),
            ratio=_ratio(drawn.evaluation.setup, field),
            sample=picture_address(field.sample.prepared, SMALL) if field.sample and is_wanted else "",
        )


def _ratio(setup: Setup, field: ArtworkField) -> str:
    """Return width to height of the first area that the field's files go to."""
    for placement in setup.placements_of(field.key):
        side = setup.side(placement.side)
        area = side.area(placement.area) if side else None
        if area:
            return f"{area.width_mm / area.height_mm:.4f}"
    return "1"


CONTROLS: dict[type[FieldBase], Control[Any]] = {ArtworkField: UploadControl()}
