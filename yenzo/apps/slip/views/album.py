"""Pictures from an album elsewhere: its owner consents there, sees it here, and what is chosen becomes an upload."""

from collections.abc import Callable
from functools import wraps
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.conf import settings
from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.receiving import refuse_too_often
from yenzo.apps.designs.services.uploads import receive_upload
from yenzo.apps.designs.visitors import known_visitor, meet_visitor, visitor_of
from yenzo.apps.slip.album_gateway import album
from yenzo.apps.slip.views.uploads import refuse, waits, wishes_of
from yenzo.core.errors import ArtworkError
from yenzo.gateways.album.interface import Album, AlbumPictureError, AlbumRefusalError, AlbumSilenceError

# Nobody needs an album for longer than an order takes.
COOKIE, SALT, STATE_SALT, LASTS_SECONDS, STATE_SECONDS = "album", "yenzo.album", "yenzo.album.state", 3600, 900
MOST_KEY = 200


def _of_album(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """Let a view have the album; there is nothing at its address where there is none."""

    @wraps(view)
    def found(request: HttpRequest, **arguments: Any) -> HttpResponse:
        chosen = album()
        if chosen is None:
            raise Http404
        return view(request, chosen, **arguments)

    return found


@require_safe
@never_cache
@_of_album
def pictures(request: HttpRequest, chosen: Album) -> HttpResponse:
    """Show a page of the album, or how to open it."""
    token, after = _token(request), request.GET.get("after", "")[:MOST_KEY]
    context: dict[str, Any] = {"album": chosen.name, "after": after}
    if not token:
        return render(request, "slip/_album.html", context)
    try:
        context["page"] = chosen.page(token, after)
    except AlbumRefusalError:
        response = render(request, "slip/_album.html", context)
        response.delete_cookie(COOKIE, path=reverse("slip:album"))
        return response
    except AlbumSilenceError:
        context["trouble"] = gettext("{album} doesn’t answer just now.").format(album=chosen.name)
    return render(request, "slip/_album.html", context)


@require_safe
@never_cache
@_of_album
def begin(request: HttpRequest, chosen: Album) -> HttpResponse:
    """Lead to where the album's owner consents."""
    state = signing.dumps(str(meet_visitor(request)), salt=STATE_SALT)
    return redirect(chosen.consent_address(_back(request), state))


@require_safe
@never_cache
@_of_album
def back(request: HttpRequest, chosen: Album) -> HttpResponse:
    """Take what the album's owner comes back with; the window that it was opened from goes on."""
    try:
        who = signing.loads(request.GET.get("state", ""), salt=STATE_SALT, max_age=STATE_SECONDS)
    except signing.BadSignature:
        who = ""
    code, trouble = request.GET.get("code", ""), ""
    token = ""
    if not who or who != str(known_visitor(request)):
        # Somebody else's consent must not end up in this browser.
        trouble = gettext("This was begun in another browser, or too long ago. Please begin again.")
    elif not code:
        trouble = gettext("The album stays closed: you chose not to open it.")
    else:
        try:
            token = chosen.token(code)
        except (AlbumRefusalError, AlbumSilenceError):
            trouble = gettext("{album} did not open. Please begin again.").format(album=chosen.name)
    response = render(request, "slip/album_back.html", {"album": chosen.name, "trouble": trouble})
    if token:
        response.set_signed_cookie(
            COOKIE,
            token,
            salt=SALT,
            max_age=LASTS_SECONDS,
            path=reverse("slip:album"),
            httponly=True,
            samesite="Lax",
            secure=settings.SESSION_COOKIE_SECURE,
        )
    return response


@require_safe
@cache_control(private=True, max_age=3600)
@_of_album
def small(request: HttpRequest, chosen: Album, key: str) -> HttpResponse:
    """Show a small picture of the album to its owner."""
    try:
        data = chosen.small(_token(request), key)
    except (AlbumPictureError, AlbumRefusalError, AlbumSilenceError) as error:
        raise Http404 from error
    return HttpResponse(
        data,
        content_type="image/jpeg",
        headers={"X-Content-Type-Options": "nosniff", "Content-Security-Policy": "default-src 'none'; sandbox"},
    )


@require_POST
@_of_album
def take(request: HttpRequest, chosen: Album) -> HttpResponse:
    """Fetch a picture of the album; from then on it is an upload like any other."""
    try:
        refuse_too_often(request, "file")
        wanted, kinds = wishes_of(request)
    except ArtworkError as error:
        return refuse(error.message)
    with TemporaryDirectory(dir=settings.FILE_UPLOAD_TEMP_DIR) as folder:
        path = Path(folder) / "picture"
        try:
            key = request.POST.get("picture", "")[:MOST_KEY]
            name = chosen.fetch(_token(request), key, path, most_bytes=settings.MOST_UPLOAD_BYTES)
            upload = receive_upload(
                actor_of(request.user), path, name, visitor=visitor_of(request), wanted=wanted, kinds=kinds
            )
        except AlbumRefusalError:
            return refuse(gettext("{album} is closed again. Please open it once more.").format(album=chosen.name))
        except AlbumPictureError:
            return refuse(gettext("This picture isn’t in the album any more, or it is too large to be taken."))
        except AlbumSilenceError:
            return refuse(
                gettext("The picture did not come whole from {album}. Please try again.").format(album=chosen.name)
            )
        except ArtworkError as error:
            return refuse(error.message)
    return waits(request, upload)


def _token(request: HttpRequest) -> str:
    return str(request.get_signed_cookie(COOKIE, default="", salt=SALT, max_age=LASTS_SECONDS))


def _back(request: HttpRequest) -> str:
    return request.build_absolute_uri(reverse("slip:album_back"))
