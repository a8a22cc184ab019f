"""The try-out slip beside a set-up: the shop's own partials over the draft."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.catalogue.files import StoredAssets
from yenzo.apps.catalogue.kits import shown_draft
from yenzo.apps.catalogue.models import Product
from yenzo.apps.designs.refreshing import refresh_context, turn_of_form
from yenzo.apps.designs.slip import Slip, build_slip
from yenzo.apps.designs.to_core import entries_of_form, uploads_of_form
from yenzo.apps.designs.visitors import known_visitor
from yenzo.core.spine import sample_entries


@staff_page(*SELLERS)
def try_out(request: HttpRequest, key: str) -> HttpResponse:
    """Show the whole slip: with sample entries at first, with what is typed when the draft has changed."""
    product = get_object_or_404(Product, key=key)
    context = {
        "slip": _slip(request, product),
        "refresh_address": reverse("designs:try_out_refresh", args=[key]),
        "is_try_out": True,
        "product": product,
    }
    return render(request, "designs/_try_out.html", context)


@staff_page(*SELLERS)
def refresh(request: HttpRequest, key: str) -> HttpResponse:
    """Answer a keystroke: only what changed."""
    slip = _slip(request, get_object_or_404(Product, key=key))
    return render(request, "designs/_refresh.html", refresh_context(slip, request.POST))


def _slip(request: HttpRequest, product: Product) -> Slip:
    setup = shown_draft(product)
    if request.method != "POST" or "samples" in request.POST:
        return build_slip(setup, sample_entries(setup), StoredAssets(), {})
    uploads = uploads_of_form(setup, request.POST, known_visitor(request))
    entries = entries_of_form(setup, request.POST, uploads)
    return build_slip(setup, entries, StoredAssets(), uploads, turn=turn_of_form(request.POST))
