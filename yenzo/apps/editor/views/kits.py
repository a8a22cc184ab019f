"""Kits: the list, who uses one, what a product has otherwise, and publishing with all that it changes."""

from django.conf import settings
from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.kit_forms import NewKitForm, OverrideForm, ScopeForm
from yenzo.apps.products.kits import Kits
from yenzo.apps.products.listing import list_rows
from yenzo.apps.products.models import Product
from yenzo.apps.products.readiness import unready
from yenzo.apps.products.services.kits import (
    create_kit,
    kit_effects,
    move_kit_up,
    override_kit,
    publish_kit,
    set_kit_scope,
)
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.errors import DocumentError


@staff_page(*SELLERS)
def kit_list(request: HttpRequest) -> HttpResponse:
    """Show the kits in their order, with who uses each."""
    form = NewKitForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        kit = create_kit(actor_of(request.user), name=form.cleaned_data["name"], currency=settings.CURRENCY)
        return redirect("editor:setup", kit.key)
    products, kits = list(Product.objects.products()), Kits()
    rows = [
        {"kit": row.product, "asks": row.asks, "users": kits.users(row.product, products)}
        for row in list_rows(Product.objects.kits())
    ]
    status = 422 if form.is_bound else 200
    context = {"rows": rows, "form": form, "section": "products"}
    return render(request, "editor/kits.html", context, status=status)


@staff_page(*SELLERS)
def kit_scope(request: HttpRequest, key: str) -> HttpResponse:
    """Show or say which products use a kit."""
    kit = _kit(key)
    form = ScopeForm(kit, request.POST if request.method == "POST" else None)
    if form.is_bound and form.is_valid():
        set_kit_scope(actor_of(request.user), kit.pk, **form.cleaned_data)
        messages.success(request, "Drafts have it at once; the shop when the kit or the product is published.")
        return redirect("editor:kits")
    context = {"kit": kit, "form": form, "section": "products"}
    return render(request, "editor/kit_scope.html", context, status=422 if form.is_bound else 200)


@staff_page(*SELLERS)
def kit_override(request: HttpRequest, key: str, product_key: str) -> HttpResponse:
    """Show or say what one product has otherwise than a kit."""
    kit, product = _kit(key), get_object_or_404(Product.objects.products(), key=product_key)
    used = next((used for used in Kits().used_by(product) if used.kit == kit), None)
    if used is None:
        raise Http404
    form = OverrideForm(used, setup_of_draft(product), request.POST if request.method == "POST" else None)
    if form.is_bound and form.is_valid():
        variants = form.cleaned_data.get("variants", [])
        try:
            override_kit(actor_of(request.user), kit.pk, product.pk, variants=variants, overrides=form.overrides())
        except DocumentError as error:
            form.add_error(None, error.message)
        else:
            return redirect("editor:setup", product.key)
    context = {"kit": kit, "product": product, "form": form, "section": "products"}
    return render(request, "editor/kit_override.html", context, status=422 if form.is_bound else 200)


@staff_page(*SELLERS)
def kit_publish(request: HttpRequest, key: str) -> HttpResponse:
    """Show what publishing a kit changes, product by product, or publish it with all of them."""
    kit, trouble = _kit(key), ""
    if request.method == "POST":
        try:
            seen = sent_number(request, "seen")
            revision, count = publish_kit(actor_of(request.user), kit.pk, seen_version=seen)
        except DocumentError as error:
            trouble = error.message
        else:
            noun = "product" if count == 1 else "products"
            messages.success(request, f"Revision {revision.number} of the kit is live, in {count} {noun}.")
            return redirect("editor:kits")
    effects = kit_effects(kit)
    context = {
        "kit": kit,
        "currency": settings.CURRENCY,
        "effects": effects,
        "faults": unready(setup_of_draft(kit), is_priced=False),
        "is_held": any(effect.troubles for effect in effects),
        "trouble": trouble,
        "section": "products",
    }
    return render(request, "editor/kit_publish.html", context, status=422 if trouble else 200)


@staff_page(*SELLERS)
@require_POST
def kit_up(request: HttpRequest, key: str) -> HttpResponse:
    move_kit_up(actor_of(request.user), _kit(key).pk)
    return redirect("editor:kits")


def _kit(key: str) -> Product:
    return get_object_or_404(Product.objects.kits(), key=key)
