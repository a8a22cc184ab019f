"""The workshop's own settings: one page, a form for each part of them."""

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.workshop.forms import (
    CalendarForm,
    DeliveryForms,
    KeptForm,
    NameForm,
    PreflightForm,
    StoreForm,
    deliveries_form,
    said_deliveries,
)
from yenzo.apps.workshop.own import own_workshop
from yenzo.apps.workshop.services.workshop import WHO, change_workshop

PARTS: dict[str, Any] = {
    "name": NameForm,
    "calendar": CalendarForm,
    "kept": KeptForm,
    "preflight": PreflightForm,
    "store": StoreForm,
}
REFUSED = 422


@staff_page(*WHO)
@require_safe
def settings_page(request: HttpRequest) -> HttpResponse:
    return _page(request)


@staff_page(*WHO)
@require_POST
def change(request: HttpRequest, part: str) -> HttpResponse:
    """Keep one part of the settings."""
    if part == "deliveries":
        forms = DeliveryForms(request.POST, prefix="ways")
        if not forms.is_valid():
            return _page(request, deliveries=forms)
        change_workshop(actor_of(request.user), {"deliveries": said_deliveries(forms)})
    elif part in PARTS:
        form = PARTS[part](request.POST)
        if not form.is_valid():
            return _page(request, **{part: form})
        change_workshop(actor_of(request.user), form.said)
    else:
        raise Http404
    messages.success(request, "Kept. It holds from now on.")
    return redirect("workshop:settings")


def _page(request: HttpRequest, **sent: Any) -> HttpResponse:
    workshop = own_workshop()
    context = {
        **{part: form.of(workshop) for part, form in PARTS.items()},
        "deliveries": deliveries_form(workshop),
        "section": "settings",
        **sent,
    }
    return render(request, "workshop/settings.html", context, status=REFUSED if sent else 200)
