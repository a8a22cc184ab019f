"""Wording: what customers read of a product, in each language that the shop speaks."""

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.wording import (
    OtherLanguage,
    groups_of,
    lending_operations,
    lent_words,
    operations_for,
    other_languages,
    own_languages,
)
from yenzo.apps.products.kits import shown_draft
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import clean_text
from yenzo.core.documents.wording import read_words
from yenzo.core.errors import DocumentError


@staff_page(*SELLERS)
def wording(request: HttpRequest, key: str) -> HttpResponse:
    """Show all texts of a product in one language, or save what is typed there."""
    product = get_object_or_404(Product, key=key)
    setup = shown_draft(product)
    language = _language(setup, request.GET.get("language"))
    if request.method != "POST":
        return _page(request, product, setup, language, {})
    sent = {name: clean_text(str(value)).strip() for name, value in request.POST.items() if name.startswith("words-")}
    operations = operations_for(product, setup, language.key, sent)
    if not operations:
        messages.info(request, "Nothing was different.")
        return redirect(_address(key, language.key))
    try:
        _edit(request, product, operations, f"{language.name} wording")
    except DocumentError as error:
        return _page(request, product, setup, language, sent, trouble=error.message)
    messages.success(request, f"The wording in {language.name} is saved. Customers get it when you publish.")
    return redirect(_address(key, language.key))


@staff_page(*SELLERS)
@require_POST
def lend_wording(request: HttpRequest, key: str) -> HttpResponse:
    """Take over what other products have for texts that are missing here."""
    product = get_object_or_404(Product, key=key)
    setup = shown_draft(product)
    language = _language(setup, request.POST.get("language"))
    lent = lent_words(product, setup, language.key)
    try:
        if lent:
            _edit(request, product, lending_operations(product, language.key, lent), f"{language.name} wording")
        messages.success(request, f"{len(lent)} {'text is' if len(lent) == 1 else 'texts are'} filled in.")
    except DocumentError as error:
        messages.error(request, error.message)
    return redirect(_address(key, language.key))


@staff_page(*SELLERS)
@require_POST
def own_language(request: HttpRequest, key: str) -> HttpResponse:
    """Say which language the product itself is written in."""
    product = get_object_or_404(Product, key=key)
    wanted = request.POST.get("own", "")
    if wanted in dict(own_languages()):
        try:
            _edit(request, product, [{"do": "set", "path": ["language"], "value": wanted}], "Language of the product")
        except DocumentError as error:
            messages.error(request, error.message)
    return redirect(_address(key))


def _edit(request: HttpRequest, product: Product, operations: list[dict[str, object]], label: str) -> None:
    seen = sent_number(request, "seen", product.draft_version)
    edit_draft(actor_of(request.user), product.pk, operations, seen_version=seen, label=label)


def _language(setup: Setup, wanted: str | None) -> OtherLanguage:
    languages = other_languages(setup)
    found = next((language for language in languages if language.key == wanted), None)
    if found is None and (wanted or not languages):
        raise Http404
    return found or languages[0]


def _address(key: str, language: str = "") -> str:
    return reverse("editor:wording", args=[key]) + (f"?language={language}" if language else "")


def _page(
    request: HttpRequest,
    product: Product,
    setup: Setup,
    language: OtherLanguage,
    typed: dict[str, str],
    *,
    trouble: str = "",
) -> HttpResponse:
    only_missing = "missing" in request.GET
    context = {
        "product": product,
        "setup": setup,
        "language": language,
        "languages": other_languages(setup),
        "own_languages": own_languages(),
        "groups": groups_of(setup, language.key, typed, only_missing=only_missing),
        "total": len(read_words(setup)),
        "lent": len(lent_words(product, setup, language.key)),
        "only_missing": only_missing,
        "trouble": trouble,
        "section": "products",
    }
    return render(request, "editor/wording.html", context, status=422 if trouble else 200)
