"""Variants: axes that they differ by, and each with its name, price, pictures, size and areas."""

from typing import Any

from django import forms
from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.editor.axes import AxesForm, not_made
from yenzo.apps.editor.axis_prices import AxisPricesForm, prices_by_value
from yenzo.apps.editor.forms import VariantForm
from yenzo.apps.editor.sizes import VariantSizeForm
from yenzo.apps.editor.views.sides import edit, taken_picture
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.variants import Variant
from yenzo.core.errors import ArtworkError, DocumentError


@staff_page(*SELLERS)
def variants(request: HttpRequest, key: str) -> HttpResponse:
    """Show the variants, and add one with its pictures."""
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    form = _variant_form(request, setup)
    if request.method == "POST" and form.is_valid():
        name = form.cleaned_data["name"]
        item_key = free_key(product.draft, ("offer", "variants"), name)
        try:
            item = {"key": item_key, **_facts(request, setup, form)}
            edit(
                request, product, [{"do": "add", "path": ["offer", "variants"], "item": item}], f"Variant {name} added"
            )
        except (ArtworkError, DocumentError) as error:
            form.add_error(None, error.message)
        else:
            return redirect("editor:variants", key)
    return _page(request, product, setup, form, AxesForm(setup.offer))


@staff_page(*SELLERS)
@require_POST
def axes(request: HttpRequest, key: str) -> HttpResponse:
    """Say what the variants differ by, and make those that are missing."""
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    form = AxesForm(setup.offer, request.POST)
    if _is_saved(request, product, form, "Axes of the variants"):
        return redirect("editor:variants", key)
    return _page(request, product, setup, _variant_form(request, setup, is_sent=False), form)


@staff_page(*SELLERS)
@require_POST
def axis_prices(request: HttpRequest, key: str) -> HttpResponse:
    """Give every variant the price that its values add up to."""
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    form = AxisPricesForm(setup.offer, request.POST)
    if _is_saved(request, product, form, "Prices by what variants differ in"):
        return redirect("editor:variants", key)
    variant_form = _variant_form(request, setup, is_sent=False)
    return _page(request, product, setup, variant_form, AxesForm(setup.offer), form)


@staff_page(*SELLERS)
@require_POST
def make_variant(request: HttpRequest, key: str) -> HttpResponse:
    """Make a combination of values that had no variant."""
    product = get_object_or_404(Product, key=key)
    could = {variant["key"]: variant for variant in not_made(setup_of_draft(product).offer)}
    item = could.get(request.POST.get("key", ""))
    if item is None:
        raise Http404
    try:
        operation = {"do": "add", "path": ["offer", "variants"], "item": item}
        edit(request, product, [operation], f"Variant {item['name']} added")
    except DocumentError as error:
        messages.error(request, error.message)
    return redirect("editor:variants", key)


def _is_saved(request: HttpRequest, product: Product, form: AxesForm | AxisPricesForm, said: str) -> bool:
    if not form.is_valid():
        return False
    try:
        edit(request, product, form.operations(), said)
    except DocumentError as error:
        form.add_error(None, error.message)
        return False
    return True


def _page(
    request: HttpRequest,
    product: Product,
    setup: Setup,
    form: forms.Form,
    axes_form: AxesForm,
    prices_form: AxisPricesForm | None = None,
) -> HttpResponse:
    prices = prices_form or AxisPricesForm(setup.offer)
    context = {
        "form": form,
        "axes_form": axes_form,
        "prices_form": prices,
        "has_own_prices": bool(setup.offer.axes) and prices_by_value(setup.offer) is None,
        "not_made": not_made(setup.offer),
        "product": product,
        "setup": setup,
        "section": "products",
    }
    is_refused = form.is_bound or axes_form.is_bound or prices.is_bound
    return render(request, "editor/variants.html", context, status=422 if is_refused else 200)


def _variant_form(
    request: HttpRequest, setup: Setup, variant: Variant | None = None, *, is_sent: bool = True
) -> VariantForm:
    """Return the form of what a variant is called, costs and looks like."""
    initial = (
        {name: getattr(variant, name) for name in ("name", "price_difference", "sku", "swatch")} if variant else None
    )
    is_bound = is_sent and request.method == "POST"
    form = VariantForm(request.POST, request.FILES) if is_bound else VariantForm(initial=initial)
    for side in setup.sides:
        has_one = variant is not None and side.key in variant.pictures
        form.fields[f"picture-{side.key}"] = forms.FileField(
            required=False,
            label=f"Its picture of {side.name}",
            help_text="There is one; a new one takes its place." if has_one else "",
        )
    return form


def _facts(request: HttpRequest, setup: Setup, form: VariantForm, before: Variant | None = None) -> dict[str, Any]:
    """Return what a valid form says of a variant, as a document has it; raises ArtworkError."""
    given = form.cleaned_data
    kept = {side: picture.model_dump(mode="json") for side, picture in before.pictures.items()} if before else {}
    sent = {side.key: given[f"picture-{side.key}"] for side in setup.sides}
    pictures = kept | {side: taken_picture(request, file) for side, file in sent.items() if file}
    return {
        "name": given["name"],
        "swatch": given["swatch"],
        "price_difference": str(given["price_difference"]),
        **({"sku": given["sku"]} if given["sku"] else {}),
        **({"pictures": pictures} if pictures else {}),
    }


@staff_page(*SELLERS)
@require_POST
def remove_variant(request: HttpRequest, key: str, variant_key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    operation = {"do": "remove", "path": ["offer", "variants"], "key": variant_key}
    try:
        edit(request, product, [operation], "Variant removed")
    except DocumentError as error:
        messages.error(request, error.message)
    return redirect("editor:variants", key)


@staff_page(*SELLERS)
def edit_variant(request: HttpRequest, key: str, variant_key: str) -> HttpResponse:
    """Show a variant, or save what it is called, costs and looks like."""
    product, setup, variant = _variant(key, variant_key)
    form = _variant_form(request, setup, variant)
    if form.is_bound and form.is_valid():
        try:
            facts = _facts(request, setup, form, variant)
            names = ("name", "swatch", "price_difference", "sku", "pictures")
            path = ["offer", "variants", variant_key]
            operations = [{"do": "set", "path": [*path, name], "value": facts.get(name)} for name in names]
            edit(request, product, operations, f"Variant {variant.name}")
        except (ArtworkError, DocumentError) as error:
            form.add_error(None, error.message)
        else:
            return redirect("editor:variants", key)
    return _variant_page(request, product, variant, form, VariantSizeForm(setup, variant))


@staff_page(*SELLERS)
@require_POST
def size_variant(request: HttpRequest, key: str, variant_key: str) -> HttpResponse:
    """Save how large a variant's pictures show it, and where its areas lie."""
    product, setup, variant = _variant(key, variant_key)
    form = VariantSizeForm(setup, variant, request.POST)
    if form.is_valid():
        try:
            edit(request, product, form.operations(variant), f"Size of {variant.name}")
        except DocumentError as error:
            form.add_error(None, error.message)
        else:
            return redirect("editor:variants", key)
    return _variant_page(request, product, variant, _variant_form(request, setup, variant, is_sent=False), form)


def _variant(key: str, variant_key: str) -> tuple[Product, Setup, Variant]:
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    variant = setup.offer.variant(variant_key)
    if variant is None:
        raise Http404
    return product, setup, variant


def _variant_page(
    request: HttpRequest, product: Product, variant: Variant, form: forms.Form, size_form: VariantSizeForm
) -> HttpResponse:
    context = {"form": form, "size_form": size_form, "product": product, "variant": variant, "section": "products"}
    is_refused = form.is_bound or size_form.is_bound
    return render(request, "editor/variant.html", context, status=422 if is_refused else 200)
