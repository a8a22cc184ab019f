"""Stock: what set-ups name by SKU, and how many of it are left."""

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.catalogue.models import Product, StockItem
from yenzo.apps.catalogue.services.stock import count_stock
from yenzo.apps.catalogue.to_core import all_materials
from yenzo.core.documents.fields import ExtraField
from yenzo.core.documents.reading import read_setup

MOST = 1_000_000
MOST_IN_A_SKU = 60


def named_skus() -> dict[str, str]:
    """Return every SKU that a draft names, and of what it is, in words."""
    named: dict[str, str] = {}
    materials = all_materials()
    for product in Product.objects.order_by("name"):
        setup = read_setup({**product.draft, "materials": materials})
        if setup.offer.sku:
            named.setdefault(setup.offer.sku, setup.offer.name)
        for variant in setup.offer.variants:
            if variant.sku:
                named.setdefault(variant.sku, f"{setup.offer.name}, {variant.name}")
        for field in setup.fields:
            if isinstance(field, ExtraField) and field.sku:
                named.setdefault(field.sku, f"{field.label}, with {setup.offer.name}")
    return {sku: name for sku, name in named.items() if len(sku) <= MOST_IN_A_SKU}


class StockForm(forms.Form):
    """How many are left of each SKU; empty where nobody counts."""

    def __init__(self, named: dict[str, str], counted: dict[str, int], *args: object) -> None:
        super().__init__(*args)  # type: ignore[arg-type]
        for sku, name in named.items():
            self.fields[sku] = forms.IntegerField(
                required=False, min_value=0, max_value=MOST, initial=counted.get(sku), label=f"{sku} · {name}"
            )


@staff_page(*SELLERS)
def stock(request: HttpRequest) -> HttpResponse:
    """Show what is left of everything that is counted, or count it."""
    counted = dict(StockItem.objects.values_list("sku", "pieces"))
    named = dict.fromkeys(counted, "no longer in any draft") | named_skus()
    form = StockForm(named, counted, *([request.POST] if request.method == "POST" else []))
    if form.is_bound and form.is_valid():
        count_stock(actor_of(request.user), form.cleaned_data)
        messages.success(request, "The stock is counted.")
        return redirect("catalogue:stock")
    context = {"form": form, "section": "products"}
    return render(request, "catalogue/stock.html", context, status=422 if form.is_bound else 200)
