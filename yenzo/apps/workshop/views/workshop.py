"""The workshop's own settings: one page, a form for each part of them."""

from typing import Any

from django.conf import settings
from django.contrib import messages
from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe
from pydantic import ValidationError

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.forms import (
    CalendarForm,
    DeliveryForms,
    KeptForm,
    LanguagesForm,
    MarkForm,
    NameForm,
    PreflightForm,
    SitesForm,
    StoreForm,
    ThemeForm,
    deliveries_form,
    said_deliveries,
)
from yenzo.apps.workshop.looks import theme_of_token, try_look
from yenzo.apps.workshop.services.workshop import WHO, change_workshop

PARTS: dict[str, Any] = {
    "name": NameForm,
    "calendar": CalendarForm,
    "kept": KeptForm,
    "preflight": PreflightForm,
    "store": StoreForm,
    "theme": ThemeForm,
    "languages": LanguagesForm,
    "sites": SitesForm,
}
REFUSED = 422


@staff_page(*WHO)
@require_safe
def settings_page(request: HttpRequest) -> HttpResponse:
    return page(request)


@staff_page(*WHO)
@require_POST
def change(request: HttpRequest, part: str) -> HttpResponse:
    """Keep one part of the settings."""
    if part == "deliveries":
        forms = DeliveryForms(request.POST, prefix="ways")
        if not forms.is_valid():
            return page(request, deliveries=forms)
        change_workshop(actor_of(request.user), {"deliveries": said_deliveries(forms)})
    elif part in PARTS:
        form = PARTS[part](request.POST)
        if not form.is_valid():
            return page(request, **{part: form})
        if part == "theme" and request.POST.get("do") == "try":
            return redirect(try_look(request, form.said))
        change_workshop(actor_of(request.user), form.said)
    else:
        raise Http404
    messages.success(request, "Kept. It holds from now on.")
    return redirect("workshop:settings")


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def theme(request: HttpRequest, token: str) -> HttpResponse:  # noqa: ARG001
    """Hand out the stylesheet of a theme; its address says all of it."""
    try:
        found = theme_of_token(token)
    except (signing.BadSignature, ValidationError) as error:
        raise Http404 from error
    return HttpResponse(found.stylesheet, content_type="text/css; charset=utf-8")


def page(request: HttpRequest, **sent: Any) -> HttpResponse:
    """Show all settings; a part that was sent and can't be kept stands there as it was sent."""
    workshop = current_workshop()
    context = {
        **{part: form.of(workshop) for part, form in PARTS.items()},
        "deliveries": deliveries_form(workshop),
        "mark": MarkForm.of(workshop),
        "section": "settings",
        "kept_mark": workshop.mark,
        "allowed": workshop.sites,
        "site_address": settings.SITE_ADDRESS,
        **sent,
    }
    return render(request, "workshop/settings.html", context, status=REFUSED if sent else 200)
