"""The try-out slip beside a set-up: the shop's own partials over the draft."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.designs.to_core import uploads_of_form
from yenzo.apps.designs.visitors import known_visitor
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.languages import read_in
from yenzo.apps.products.kits import shown_draft
from yenzo.apps.products.models import Product
from yenzo.apps.slip.hands import selected_in_form
from yenzo.apps.slip.refreshing import refresh_context, turn_of_form
from yenzo.apps.slip.slip import Slip, build_slip
from yenzo.apps.slip.to_core import entries_of_form
from yenzo.apps.workshop.languages import shop_languages
from yenzo.core.documents.rules import SIGNED_IN
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import in_language, language_read
from yenzo.core.evaluation import sample_entries
from yenzo.core.translation import base_language, current_language


@staff_page(*SELLERS)
def try_out(request: HttpRequest, key: str) -> HttpResponse:
    """Show the whole slip: with sample entries at first, with what is typed when the draft has changed."""
    product = get_object_or_404(Product, key=key)
    setup = shown_draft(product)
    with read_in(_language(request, setup)):
        context = {
            "slip": _slip(request, setup),
            "refresh_address": reverse("editor:try_out_refresh", args=[key]),
            "is_try_out": True,
            "product": product,
            "looks_at_sign_in": _looks_at_sign_in(setup),
            "is_signed_in": request.POST.get("signed-in") == "yes",
        }
        return render(request, "editor/_try_out.html", context)


@staff_page(*SELLERS)
def refresh(request: HttpRequest, key: str) -> HttpResponse:
    """Answer a keystroke: only what changed."""
    setup = shown_draft(get_object_or_404(Product, key=key))
    with read_in(_language(request, setup)):
        return render(request, "slip/_refresh.html", refresh_context(_slip(request, setup), request.POST))


def _looks_at_sign_in(setup: Setup) -> bool:
    """Tell whether anything is asked only of customers who are signed in, or only of others."""
    rules = [part.ask_when for part in (*setup.sections, *setup.fields)]
    return any(condition.field == SIGNED_IN for rule in rules if rule for condition in rule.all_conditions)


def _language(request: HttpRequest, setup: Setup) -> str:
    """Return the language that is tried: the one picked, at first the set-up's own if the shop speaks it."""
    codes = [language.code for language in shop_languages()]
    picked = request.POST.get("language", "")
    own = (code for code in codes if base_language(code) == base_language(setup.language))
    return picked if picked in codes else next(own, codes[0])


def _slip(request: HttpRequest, own: Setup) -> Slip:
    setup, signed_in = in_language(own, current_language()), request.POST.get("signed-in") == "yes"
    if request.method != "POST" or "samples" in request.POST:
        samples = sample_entries(own).model_copy(update={"language": language_read(own, current_language())})
        return build_slip(setup, samples, StoredAssets(), {}, signed_in=signed_in)
    uploads = uploads_of_form(setup, request.POST, known_visitor(request))
    entries = entries_of_form(setup, request.POST, uploads)
    turn = turn_of_form(request.POST)
    selected = selected_in_form(request.POST)
    return build_slip(setup, entries, StoredAssets(), uploads, signed_in=signed_in, turn=turn, selected=selected)
