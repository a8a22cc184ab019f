"""The customer's order page: reached by its unguessable link only."""

import contextlib

from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.outside import payment_gateway
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.orders.services.orders import OrderError
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.orders.views.orders import picture_of_line
from yenzo.apps.shop.views.products import TOO_MANY, TOO_OFTEN


@require_safe
@never_cache
def order_page(request: HttpRequest, token: str) -> HttpResponse:
    return _page(request, _order(token))


@require_safe
@never_cache
def payment_state(request: HttpRequest, token: str) -> HttpResponse:
    """Answer the page that waits for a payment: its part about paying."""
    return render(request, "shop/_payment.html", _payment_context(_order(token)))


@require_POST
def pay(request: HttpRequest, token: str) -> HttpResponse:
    order = _order(token)
    way = request.POST.get("way", "")
    if way not in {offered.key for offered in payment_gateway().ways}:
        return _page(request, order, trouble=gettext("Please choose how to pay."), status=422)
    if not may_go_on(request, "payment"):
        return _page(request, order, trouble=gettext(TOO_OFTEN), status=TOO_MANY)
    # Refused when somebody was quicker (a second click, another window): the page says how it stands.
    with contextlib.suppress(OrderError):
        pay_order(actor_of(request.user), order, way)
    return redirect("shop:order", token)


@require_safe
@cache_control(private=True, max_age=3600)
def line_picture(
    request: HttpRequest,  # noqa: ARG001
    token: str,
    line_number: int,
    side_key: str,
    index: int = 1,
) -> HttpResponseBase:
    return picture_of_line(_order(token), line_number, side_key, index)


def _page(request: HttpRequest, order: Order, trouble: str = "", status: int = 200) -> HttpResponse:
    lines = order.lines.select_related("order", "revision", "personalization__revision")
    context = {
        **_payment_context(order),
        "lines": [ShownLine(line) for line in lines],
        "events": order.events.all(),
        "trouble": trouble,
    }
    return render(request, "shop/order.html", context, status=status)


def _payment_context(order: Order) -> dict[str, object]:
    was_declined = order.is_payable and order.payments.filter(state="declined").exists()
    return {"order": order, "ways": payment_gateway().ways, "was_declined": was_declined}


def _order(token: str) -> Order:
    return get_object_or_404(Order, token=token)
