"""The checkout: what will be made is read once more, letter for letter; where it goes is asked; the order is placed."""

import uuid
from dataclasses import dataclass
from decimal import Decimal

from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.translation import gettext

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.visitors import is_signed_in, signed_in_mail, visitor_of
from yenzo.apps.orders.delivering import OfferedWay, offered_ways
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import Customer, OrderError, Wishes
from yenzo.apps.pages.addressing import written
from yenzo.apps.shop.basket import Basket, basket_of
from yenzo.apps.shop.forms import CheckoutForm, InvoiceForm
from yenzo.apps.shop.groups import group_of
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket
from yenzo.apps.shop.views.orders import AGAIN
from yenzo.apps.shop.views.products import TOO_MANY, TOO_OFTEN
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import home_country
from yenzo.core.pricing.delivery import DeliveryWay

REFUSED = 422
INVOICE = "invoice"


@dataclass(frozen=True)
class Asking:
    """The forms of a checkout over what lies in the basket."""

    basket: Basket
    form: CheckoutForm
    invoice: InvoiceForm

    def is_valid(self) -> bool:
        """Tell whether all of it can be ordered so."""
        is_valid = self.form.is_valid()
        return self.invoice.is_valid() and is_valid

    @property
    def trouble(self) -> bool:
        """Whether something must be mended."""
        return bool(self.form.errors or self.invoice.errors)


def checkout(request: HttpRequest) -> HttpResponse:
    """Ask where it goes and make the order: once, however often it is sent."""
    visitor = visitor_of(request)
    full = basket_of(visitor, signed_in=is_signed_in(request))
    if request.method != "POST":
        return _page(request, _asking(full, initial=_initial(request, full))) if full.is_orderable else _to_basket()
    asking = _asking(full, request.POST)
    if not asking.is_valid():
        return _page(request, asking)
    if not may_go_on(request, "checkout"):
        asking.form.add_error(None, gettext(TOO_OFTEN))
        return _page(request, asking, status=TOO_MANY)
    try:
        order = order_basket(actor_of(request.user), _checkout_of(request, visitor, asking))
    except OrderError as error:
        asking.form.add_error(None, str(error))
        return _page(request, asking)
    request.session.pop(AGAIN, None)
    return redirect("shop:order", order.token)


def _to_basket() -> HttpResponse:
    return redirect("shop:basket")


def _asking(full: Basket, sent: QueryDict | None = None, initial: dict[str, object] | None = None) -> Asking:
    ways = _ways(full)
    country = {"country": (initial or {}).get("country", "")}
    form = CheckoutForm(sent, initial=initial, ways=ways, goods_total=full.total)
    return Asking(full, form, InvoiceForm(sent, initial=country, prefix=INVOICE))


def _initial(request: HttpRequest, full: Basket) -> dict[str, object]:
    """Return what stands in the form at first: of who has ordered before in this browser, what they gave then."""
    ways = _ways(full)
    found: dict[str, object] = {
        "checkout_key": uuid.uuid4(),
        "basket_seen": _digest(full),
        "mail": signed_in_mail(request),
        "country": home_country(current_workshop()),
        "delivery": ways[0].way.key,
        "repeats": request.session.get(AGAIN, ""),
    }
    before = Order.objects.filter(visitor=visitor_of(request)).order_by("-pk").first()
    if before is not None:
        found |= {"name": before.customer_name, "mail": signed_in_mail(request) or before.customer_mail}
        found |= {part: words for part, words in (before.delivery_address or {}).items() if part != "name"}
    return found


def _ways(full: Basket) -> tuple[OfferedWay, ...]:
    """Return how what lies in the basket can be delivered: what a group orders together goes together."""
    ways = offered_ways(full.setups, full.total)
    group = None if full.lists else group_of([line.design for line in full.lines])
    if group is None:
        return ways
    name = gettext("Together with “{title}”, to {organiser}").format(title=group.title, organiser=group.organiser)
    way = DeliveryWay(key="group", name=name[:200], days=0, is_pickup=True)
    return (OfferedWay(way, Decimal(0), ways[0].promise),)


def _digest(full: Basket) -> str:
    return basket_digest([*(line.design for line in full.lines), *(one.names for one in full.lists)])


def _checkout_of(request: HttpRequest, visitor: uuid.UUID, asking: Asking) -> Checkout:
    given, destination = asking.form.cleaned_data, asking.form.destination
    home = home_country(current_workshop())
    address = written(destination.model_copy(update={"name": ""}), home) if destination else ""
    invoice = asking.invoice.said
    customer = Customer(visitor, given["name"], given["mail"], address, signed_in_mail(request), destination, invoice)
    wishes = Wishes(
        offered=asking.form.offered,
        wished_for=given["wished_for"],
        note=given["note"],
        purchase_number=given["purchase_number"],
        repeats=given["repeats"],
    )
    return Checkout(given["checkout_key"], customer, given["basket_seen"], wishes)


def _page(request: HttpRequest, asking: Asking, status: int = REFUSED) -> HttpResponse:
    context = {"form": asking.form, "invoice": asking.invoice, "basket": asking.basket, "trouble": asking.trouble}
    return render(request, "shop/checkout.html", context, status=status if asking.form.is_bound else 200)
