"""Taking back what was done to materials, stock and kits' users."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import redirect
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.history.services.changes import step_shared
from yenzo.core.errors import DocumentError


@staff_page(*SELLERS)
@require_POST
def step(request: HttpRequest) -> HttpResponse:
    """Take back, or do again, and go back to the page that asked."""
    actor = actor_of(request.user)
    try:
        if request.POST.get("way") == "redo":
            messages.success(request, f"Done again: {step_shared(actor, 'redo')}")
        else:
            messages.success(request, f"Undone: {step_shared(actor, 'undo')}")
    except DocumentError as error:
        messages.error(request, error.message)
    to = request.POST.get("next", "")
    is_ours = to.startswith("/") and url_has_allowed_host_and_scheme(to, {request.get_host()})
    return HttpResponseRedirect(to) if is_ours else redirect("materials:materials")
