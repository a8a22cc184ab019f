"""The customer's order page: reached by its unguessable link only."""

import contextlib
import uuid

from django.contrib import messages
from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import SEES_ADDRESSES, actor_of
from yenzo.apps.designs.listed import begin_check
from yenzo.apps.designs.models import NameList
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, signed_in_mail, visitor_of
from yenzo.apps.desk.models import Question
from yenzo.apps.orders.models import Agreement, Order
from yenzo.apps.orders.models.events import INWARD
from yenzo.apps.orders.paying import pay_order
from yenzo.apps.orders.payment_gateway import payment_gateway
from yenzo.apps.orders.services.again import order_again
from yenzo.apps.orders.services.notes import write_to_workshop
from yenzo.apps.orders.services.orders import OrderError, cancel_own_order
from yenzo.apps.orders.showing import ShownAgreement, ShownLine
from yenzo.apps.orders.to_core import invoice_address_of
from yenzo.apps.orders.views.notes import file_of_note, send_note
from yenzo.apps.orders.views.orders import invoice_download, picture_of_line
from yenzo.apps.pages.addresses import mail_identity
from yenzo.apps.pages.addressing import written
from yenzo.apps.shop.views.products import TOO_MANY, TOO_OFTEN
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import home_country

# What is put in the basket next is an order of before again.
AGAIN = "again"


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
    more = request.POST.get("difference", "")
    known = order.differences.to_pay().filter(pk=sent_number(request, "difference")).first()
    # Refused when somebody was quicker (a second click, another window): the page says how it stands.
    with contextlib.suppress(OrderError):
        if known or not more:
            pay_order(actor_of(request.user), order, way, known)
    return redirect("shop:order", token)


@require_POST
def write(request: HttpRequest, token: str) -> HttpResponse:
    """Write to the workshop about an order, with a file if need be."""
    order = _own_order(request, token)
    trouble = send_note(request, order, write_to_workshop)
    if trouble:
        return _page(request, order, trouble=trouble, status=422)
    messages.success(request, gettext("The workshop has your message."))
    return redirect("shop:order", token)


@require_safe
def note_file(request: HttpRequest, token: str, note_id: int) -> HttpResponseBase:
    """Hand out a file of a message, to who may read it."""
    return file_of_note(_own_order(request, token), note_id, is_staff=False)


@require_POST
def cancel(request: HttpRequest, token: str) -> HttpResponse:
    """Cancel an order while nothing of it is begun."""
    order = _own_order(request, token)
    try:
        cancel_own_order(actor_of(request.user), order.pk)
    except OrderError as error:
        return _page(request, order, trouble=str(error), status=422)
    messages.success(request, gettext("Your order is cancelled."))
    return redirect("shop:order", token)


@require_POST
def again(request: HttpRequest, token: str) -> HttpResponse:
    """Put what an order had in the basket once more; what is changed then is changed there."""
    order = _own_order(request, token)
    if not may_go_on(request, "basket"):
        return _page(request, order, trouble=gettext(TOO_OFTEN), status=TOO_MANY)
    actor = actor_of(request.user)
    made = order_again(actor, order, visitor=visitor_of(request))
    if not made:
        return _page(request, order, trouble=gettext("Nothing of this order can be ordered again here."), status=422)
    request.session[AGAIN] = str(order.number)
    lists = [one for one in made if isinstance(one, NameList)]
    for names in lists:
        begin_check(actor, names, signed_in=is_signed_in(request))
    if len(made) == len(lists) == 1:
        return redirect("shop:list", lists[0].pk)
    messages.success(request, gettext("It lies in your basket as you had it. Change what you like."))
    if lists:
        messages.info(request, gettext("Its list of names is among your designs: look it through first."))
    return redirect("shop:basket")


@require_safe
def invoice(request: HttpRequest, token: str) -> HttpResponseBase:
    """Hand out the invoice of a paid order to who ordered it."""
    return invoice_download(_own_order(request, token))


@require_safe
@never_cache
def proof(request: HttpRequest, token: str) -> HttpResponse:
    """Show what was agreed to when it was ordered, for as long as there is the order."""
    order = _order(token)
    agreed = Agreement.objects.filter(line__order=order).order_by("line__number", "pk")
    shown = [ShownAgreement(one) for one in agreed.select_related("line__order", "personalization__revision")]
    return render(request, "shop/proof.html", {"order": order, "agreed": shown})


@require_safe
@cache_control(private=True, max_age=3600)
def agreed_picture(request: HttpRequest, token: str, agreement_id: int, side_key: str) -> HttpResponse:  # noqa: ARG001
    """Show a side as it was agreed to."""
    found = get_object_or_404(
        Agreement.objects.select_related("personalization__revision"), pk=agreement_id, line__order=_order(token)
    )
    picture = proof_of(found.personalization, side_key)
    if picture is None:
        raise Http404
    return HttpResponse(picture, content_type="image/png")


def _own_order(request: HttpRequest, token: str) -> Order:
    """Return an order to its customer and to staff; whoever else has its link may only look at it."""
    order = _order(token)
    if not is_theirs(request, order):
        raise PermissionDenied
    return order


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
        "events": order.events.exclude(kind__in=INWARD),
        "trouble": trouble,
        "is_theirs": is_theirs(request, order),
        "notes": order.notes.for_customer().select_related("person"),
        "sent_as": uuid.uuid4(),
        "invoice_to": invoice_to(order),
        "differences": order.differences.exclude(state="waived"),
        "questions": Question.objects.open().filter(preflight__line__order=order).select_related("preflight__line"),
    }
    return render(request, "shop/order.html", context, status=status)


def is_theirs(request: HttpRequest, order: Order) -> bool:
    """Tell whether who asks may read what only its customer may: where it goes, and what others wrote of it."""
    if known_visitor(request) == order.visitor or getattr(request.user, "role", "") in SEES_ADDRESSES:
        return True
    mail = signed_in_mail(request)
    return bool(mail) and bool(order.customer_identity) and mail_identity(mail) == order.customer_identity


def invoice_to(order: Order) -> str:
    """Return where the invoice goes if that is elsewhere."""
    address = invoice_address_of(order)
    return written(address, home_country(current_workshop())) if address else ""


def _payment_context(order: Order) -> dict[str, object]:
    was_declined = order.is_payable and order.payments.filter(state="declined").exists()
    return {"order": order, "ways": payment_gateway().ways, "was_declined": was_declined}


def _order(token: str) -> Order:
    return get_object_or_404(Order, token=token)
