"""The price helper of a product: what it costs, what price gives the wanted margin, what each extra earns."""

from decimal import Decimal

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.pricing import CostsForm, extra_rows
from yenzo.apps.products.kits import shown_draft
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.products import save_costs
from yenzo.apps.products.to_core import costs_of
from yenzo.core.errors import DocumentError
from yenzo.core.pricing.helper import margin_of


@staff_page(*SELLERS)
def price_helper(request: HttpRequest, key: str) -> HttpResponse:
    """Show what a product costs and earns, or save what it costs."""
    product = get_object_or_404(Product.objects.products(), key=key)
    setup, costs = shown_draft(product), costs_of(product)
    form = CostsForm(setup, costs, request.POST if request.method == "POST" else None)
    if form.is_bound and form.is_valid():
        save_costs(actor_of(request.user), product.pk, form.costs())
        return redirect("editor:price_helper", key)
    context = {
        "product": product,
        "setup": setup,
        "form": form,
        "costs": costs,
        "margin": margin_of(costs, setup.offer.base_price),
        "extras": extra_rows(setup, costs),
        "section": "products",
    }
    return render(request, "editor/price_helper.html", context, status=422 if form.is_bound else 200)


@staff_page(*SELLERS)
@require_POST
def use_price(request: HttpRequest, key: str) -> HttpResponse:
    """Make the suggested price the draft's base price."""
    product = get_object_or_404(Product.objects.products(), key=key)
    price: Decimal = costs_of(product).price
    operation = {"do": "set", "path": ["offer", "base_price"], "value": str(price)}
    try:
        edit_draft(
            actor_of(request.user), product.pk, [operation], seen_version=product.draft_version, label="Suggested price"
        )
    except DocumentError as error:
        messages.error(request, error.message)
    return redirect("editor:price_helper", key)
