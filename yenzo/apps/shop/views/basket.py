"""The basket and the checkout."""

import uuid

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.designs.to_core import as_uuid
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, signed_in_mail, visitor_of
from yenzo.apps.orders.services.orders import Customer, OrderError
from yenzo.apps.shop.basket import Basket, basket_of
from yenzo.apps.shop.forms import CheckoutForm
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket
from yenzo.apps.shop.views.products import TOO_MANY, TOO_OFTEN

REFUSED = 422


@require_safe
def basket(request: HttpRequest) -> HttpResponse:
    visitor, taken_out = known_visitor(request), as_uuid(request.GET.get("removed", ""))
    removed = None
    if visitor and taken_out:
        own = Design.objects.taken_out_by(visitor).select_related("personalization__revision")
        removed = own.filter(pk=taken_out).first()
    return render(request, "shop/basket.html", {"basket": _basket_of(request, visitor), "removed": removed})


@require_safe
@cache_control(private=True, max_age=3600)
def design_picture(request: HttpRequest, design_id: uuid.UUID, side_key: str) -> HttpResponse:
    """Show a side of a design to the visitor whose basket it lies in."""
    own = Design.objects.select_related("personalization__revision")
    design = get_object_or_404(own, pk=design_id, visitor=known_visitor(request))
    picture = proof_of(design.personalization, side_key)
    if picture is None:
        raise Http404
    return HttpResponse(picture, content_type="image/png")


def checkout(request: HttpRequest) -> HttpResponse:
    """Ask for name, mail and address, and make the order: once, however often it is sent."""
    visitor = visitor_of(request)
    full = _basket_of(request, visitor)
    if request.method != "POST":
        if not full.is_orderable:
            return redirect("shop:basket")
        seen = {
            "checkout_key": uuid.uuid4(),
            "basket_seen": basket_digest([*(line.design for line in full.lines), *(one.names for one in full.lists)]),
        }
        return _checkout_page(request, CheckoutForm(initial={**seen, "mail": signed_in_mail(request)}), full)
    form = CheckoutForm(request.POST)
    if not form.is_valid():
        return _checkout_page(request, form, full)
    if not may_go_on(request, "checkout"):
        form.add_error(None, gettext(TOO_OFTEN))
        return _checkout_page(request, form, full, status=TOO_MANY)
    given = form.cleaned_data
    customer = Customer(visitor, given["name"], given["mail"], given["address"], signed_in_mail(request))
    try:
        wanted = Checkout(given["checkout_key"], customer, given["basket_seen"])
        order = order_basket(actor_of(request.user), wanted)
    except OrderError as error:
        form.add_error(None, str(error))
        return _checkout_page(request, form, full)
    return redirect("shop:order", order.token)


def _basket_of(request: HttpRequest, visitor: uuid.UUID | None) -> Basket:
    return basket_of(visitor, signed_in=is_signed_in(request))


def _checkout_page(request: HttpRequest, form: CheckoutForm, full: Basket, status: int = REFUSED) -> HttpResponse:
    context = {"form": form, "basket": full}
    return render(request, "shop/checkout.html", context, status=status if form.is_bound else 200)
