"""Pictures that the core made: goods for everybody, uploads for the visitor who sent them, names in a typeface."""

import uuid

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_safe

from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.lending import is_lent
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.picture_addresses import WIDTHS_PX
from yenzo.apps.designs.side_pictures import screen_picture
from yenzo.apps.designs.specimens import make_specimen
from yenzo.apps.designs.visitors import known_visitor
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import read_stored
from yenzo.apps.materials.models import Material
from yenzo.apps.products.models import Revision
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.render.pictures import mime_type


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
    made = make_specimen(sha256, instance, name)
    if made is None:
        raise Http404
    return HttpResponse(made.markup, content_type="image/svg+xml")


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


def _picture(stored: StoredFile) -> HttpResponse:
    return _shown(read_stored(stored))


def _shown(data: bytes) -> HttpResponse:
    response = HttpResponse(data, content_type=mime_type(data))
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response["Cross-Origin-Resource-Policy"] = "same-origin"
    return response
