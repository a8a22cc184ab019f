"""Pictures that the core made: goods for everybody, uploads for the visitor who sent them, names in a typeface."""

import uuid
from functools import lru_cache

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_safe

from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.lending import is_lent
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.picture_addresses import WIDTHS_PX
from yenzo.apps.designs.side_pictures import screen_picture
from yenzo.apps.designs.visitors import known_visitor
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import StoredAssets, read_stored
from yenzo.apps.materials.models import Material
from yenzo.apps.products.models import Revision
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.render.pictures import mime_type
from yenzo.core.render.svg import path_data
from yenzo.core.shapes.booleans import Pen, stroked
from yenzo.core.shapes.centerlines import center_lines
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.text.fonts import load_font
from yenzo.core.text.shaping import outline_of

SPECIMEN_LETTER_MM = 12.0
SPECIMEN_PEN = Pen(0.7, cap="round", join="round")


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def goods_picture(request: HttpRequest, sha256: str) -> HttpResponse:  # noqa: ARG001
    stored = get_object_or_404(StoredFile, sha256=sha256, is_public=True)
    return _picture(stored)


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def smaller_picture(request: HttpRequest, sha256: str, width_px: int) -> HttpResponse:  # noqa: ARG001
    """Show a public picture as a WebP that is as wide as screens need it; a drawing as it is."""
    if width_px not in WIDTHS_PX:
        raise Http404
    stored = get_object_or_404(StoredFile, sha256=sha256, is_public=True)

    def read() -> bytes:
        return read_stored(stored)

    return _shown(screen_picture(f"{sha256}-{width_px}", read, width_px))


@require_safe
@cache_control(private=True, max_age=3600)
def upload_picture(request: HttpRequest, upload_id: uuid.UUID) -> HttpResponse:
    """Show an upload, as the core prepared it for screens, to who sent it, whom it is lent to, and staff."""
    upload = get_object_or_404(Upload.objects.ready().select_related("shown"), pk=upload_id)
    is_theirs = upload.visitor == known_visitor(request) or is_lent(request, upload.pk)
    if not is_theirs and not isinstance(request.user, Person):
        raise Http404
    assert upload.shown is not None
    return _picture(upload.shown)


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def specimen(request: HttpRequest, sha256: str) -> HttpResponse:
    """Show a typeface's name set in it, at its instance if it has one."""
    instance = request.GET.get("instance", "")
    name = _name_of_typeface(sha256, instance)
    return HttpResponse(_specimen(sha256, instance, name), content_type="image/svg+xml")


def _name_of_typeface(sha256: str, instance: str) -> str:
    """Return what a typeface is called among the materials, or in a revision that keeps using it."""
    for material in Material.objects.filter(kind=Material.Kind.TYPEFACE, document__font=sha256):
        if material.document.get("instance", "") == instance:
            return str(material.document["name"])
    revision = get_object_or_404(Revision.objects.filter(files__file=sha256)[:1])
    faces = setup_of_revision(revision).materials.typefaces.values()
    name = next((face.name for face in faces if (face.font, face.instance) == (sha256, instance)), None)
    if name is None:
        raise Http404
    return name


@lru_cache(maxsize=200)
def _specimen(sha256: str, instance: str, name: str) -> str:
    font = load_font(StoredAssets(), sha256, name, instance)
    outline, _ = outline_of(font, name)
    em_mm = SPECIMEN_LETTER_MM / font.letter_height_em
    sized = outline.mapped(Matrix(em_mm, 0, 0, em_mm, 0, 0))
    if font.is_single_line:
        line = center_lines(sized)
        sized = stroked(line.verbs, line.points, SPECIMEN_PEN)
    ink = sized.bounds
    if ink is None:
        raise Http404
    # All specimens share a height, so that letter heights compare.
    top, height, width = -SPECIMEN_LETTER_MM * 1.3, SPECIMEN_LETTER_MM * 1.8, ink.width + 1
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{ink.left - 0.5:.2f} {top:.2f} {width:.2f} {height:.2f}" '
        f'width="{width:.1f}mm" height="{height:.1f}mm"><path transform="scale(.001)" fill="#16303a" '
        f'd="{path_data(sized)}"/></svg>'
    )


def _picture(stored: StoredFile) -> HttpResponse:
    return _shown(read_stored(stored))


def _shown(data: bytes) -> HttpResponse:
    response = HttpResponse(data, content_type=mime_type(data))
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response["Cross-Origin-Resource-Policy"] = "same-origin"
    return response
