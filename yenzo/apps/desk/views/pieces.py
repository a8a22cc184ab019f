"""The desk's pages of ordered pieces: what was found, what is held, asked back, mended."""

import uuid
from collections.abc import Callable
from datetime import date
from decimal import Decimal, InvalidOperation

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase, QueryDict
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import DESK, STAFF, actor_of
from yenzo.apps.designs.lending import lend_uploads
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.designs.visitors import meet_visitor
from yenzo.apps.desk.mending import OrderedSlip, ordered_slip, sent_as_of
from yenzo.apps.desk.models import Change, Finding, Preflight, Question
from yenzo.apps.desk.pricing import cost_difference, cost_of_pieces
from yenzo.apps.desk.services.cancelling import cancel_pieces
from yenzo.apps.desk.services.changes import mend_pieces
from yenzo.apps.desk.services.preflights import DeskError, hold_pieces, release_pieces, waive_finding
from yenzo.apps.desk.services.questions import ask_customer, withdraw_question
from yenzo.apps.desk.services.replanning import move_order, rush_order
from yenzo.apps.desk.showing import ShownPreflight, question_words
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.differences import waive_difference
from yenzo.apps.pages.numbers import whole_number, whole_numbers
from yenzo.apps.slip.refreshing import refresh_context
from yenzo.core.documents.values import clean_line

MOST_SHOWN = 40


@staff_page(*STAFF)
@require_safe
@never_cache
def of_line(request: HttpRequest, line_id: int) -> HttpResponse:
    """Show for its order's page how a line's pieces stand: those that are held, and how many are released."""
    preflights = list(Preflight.objects.shown().filter(line=line_id).prefetch_related("findings", "questions"))
    held = [ShownPreflight(one) for one in preflights if one.is_held]
    cancelled = [one for one in preflights if one.is_cancelled]
    context = {
        "held": held[:MOST_SHOWN],
        "more": max(0, len(held) - MOST_SHOWN),
        "cancelled": cancelled,
        "released": len(preflights) - len(held) - len(cancelled),
        "single": preflights[0] if len(preflights) == 1 else None,
        "is_looked_at": bool(preflights),
    }
    return render(request, "desk/_line.html", context)


@staff_page(*STAFF)
@require_safe
@never_cache
def page(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Show pieces with what was found of them, marked on their pictures."""
    return _page(request, _preflight(preflight_id))


def _page(request: HttpRequest, preflight: Preflight, *, status: int = 200, **more: object) -> HttpResponse:
    shown = ShownPreflight(preflight)
    may_decide = getattr(request.user, "role", "") in DESK
    asks = _asked_about(request, preflight)
    may_cancel = may_decide and preflight.line.order.pieces > shown.piece.count
    cost = cost_of_pieces(preflight) if may_cancel else Decimal(0)
    parts = {"may_cancel": may_cancel, "cost": cost}
    context = {"shown": shown, "may_decide": may_decide, "section": "orders", **parts, **asks, **more}
    return render(request, "desk/pieces.html", context, status=status)


def _asked_about(request: HttpRequest, preflight: Preflight) -> dict[str, object]:
    """Return the finding that a question is written about, and the wording that is suggested."""
    if not request.GET.get("ask"):
        return {}
    finding = Finding.objects.filter(pk=sent_number(request, "ask"), preflight=preflight).first()
    return {"asks": True, "asked_about": finding, "wording": question_words(preflight, finding)}


@staff_page(*DESK)
@require_POST
def hold(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Hold pieces by hand."""
    why = request.POST.get("why", "")
    return _done(request, preflight_id, lambda: hold_pieces(actor_of(request.user), preflight_id, why))


@staff_page(*DESK)
@require_POST
def release(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Release pieces to be made."""
    return _done(request, preflight_id, lambda: release_pieces(actor_of(request.user), preflight_id))


@staff_page(*DESK)
@require_POST
def waive(request: HttpRequest, finding_id: int) -> HttpResponse:
    """Let a finding stay."""
    preflight = get_object_or_404(Preflight, findings=finding_id)
    why = request.POST.get("why", "")
    return _done(request, preflight.pk, lambda: waive_finding(actor_of(request.user), finding_id, why))


@staff_page(*DESK)
@require_POST
def cancel(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Cancel pieces, and give back what they cost or what is said."""
    why = clean_line(request.POST.get("why", ""))
    amount = parsed_amount(request.POST.get("amount", ""))
    if amount is None:
        trouble = "Please write what is given back as an amount, like 12.50."
        return _page(request, _preflight(preflight_id), status=422, trouble=trouble)
    done = "The mail to the customer waits in the outbox."
    return _done(request, preflight_id, lambda: cancel_pieces(actor_of(request.user), preflight_id, why, amount), done)


@staff_page(*DESK)
@require_POST
def ask(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Ask the customer."""
    finding = whole_number(request.POST.get("finding", ""))
    text = request.POST.get("text", "")
    return _done(
        request,
        preflight_id,
        lambda: ask_customer(actor_of(request.user), preflight_id, text, finding),
        "The mail to the customer waits in the outbox. The pieces are held for the answer.",
    )


@staff_page(*DESK)
@require_POST
def withdraw(request: HttpRequest, question_id: int) -> HttpResponse:
    """Take a question back."""
    question = get_object_or_404(Question, pk=question_id)
    return _done(request, question.preflight_id, lambda: withdraw_question(actor_of(request.user), question_id))


def _done(request: HttpRequest, preflight_id: int, do: Callable[[], object], said: str = "") -> HttpResponse:
    preflight = _preflight(preflight_id)
    try:
        do()
    except DeskError as error:
        return _page(request, _preflight(preflight.pk), status=422, trouble=str(error))
    if said:
        messages.success(request, said)
    return redirect("desk:pieces", preflight.pk)


@staff_page(*DESK)
@never_cache
def mend(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Show the slip of ordered pieces, and change them as it is sent."""
    preflight = _preflight(preflight_id)
    if request.method != "POST":
        meet_visitor(request)
        lend_uploads(request, preflight.personalization.uploads.all())
        return _slip_page(request, preflight, ordered_slip(request, preflight))
    sent = ordered_slip(request, preflight, request.POST, shows_missing=True)
    why = request.POST.get("why", "").strip()
    if sent.is_waiting:
        return _slip_page(request, preflight, sent, "The file is still being looked at. Please send it in a moment.")
    if not why:
        return _slip_page(request, preflight, sent, "Please say why it is changed: its customer reads that.")
    if sent.slip.verdict.blocked:
        return _slip_page(request, preflight, sent, blocking=list(sent.slip.verdict.blocking))
    try:
        change = mend_pieces(
            actor_of(request.user),
            preflight_id,
            sent.wanted(sent_as_of(request.POST)),
            why=why,
            is_waived=request.POST.get("money") == "waived",
            even_begun=request.POST.get("anew") == "yes",
        )
    except DeskError as error:
        return _slip_page(request, preflight, sent, str(error))
    messages.success(request, f"{preflight.piece} is changed. The mail to the customer waits in the outbox.")
    return redirect("desk:pieces", change.preflight_id)


def _slip_page(
    request: HttpRequest, preflight: Preflight, sent: OrderedSlip, trouble: str = "", **more: object
) -> HttpResponse:
    context = {
        **_slip_context(preflight, sent),
        "begun": ShownPreflight(preflight).begun,
        "sent_as": sent_as_of(request.POST) if request.method == "POST" else uuid.uuid4(),
        "typed": request.POST,
        "trouble": trouble,
        "section": "orders",
        **more,
    }
    refused = bool(trouble or more)
    return render(request, "desk/mend.html", context, status=422 if refused else 200)


def _slip_context(preflight: Preflight, sent: OrderedSlip) -> dict[str, object]:
    return {
        "preflight": preflight,
        "order": preflight.line.order,
        "slip": sent.slip,
        "slip_end": "desk/_mend_end.html",
        "amount": cost_difference(preflight, sent.slip.evaluation),
    }


@staff_page(*DESK)
@require_POST
def preview(request: HttpRequest, preflight_id: int) -> HttpResponse:
    """Answer a keystroke on the slip of ordered pieces. Writes nothing."""
    preflight = _preflight(preflight_id)
    sent = ordered_slip(request, preflight, request.POST)
    context = {**refresh_context(sent.slip, request.POST), **_slip_context(preflight, sent)}
    return render(request, "desk/_refresh.html", context)


@staff_page(*STAFF)
@require_safe
@cache_control(private=True, max_age=3600)
def changed_picture(
    request: HttpRequest,  # noqa: ARG001
    preflight_id: int,
    change_id: int,
    when: str,
    side_key: str,
) -> HttpResponseBase:
    """Show a side as it was before a change, or after it."""
    change = get_object_or_404(
        Change.objects.select_related("before__revision", "after__revision"), pk=change_id, preflight=preflight_id
    )
    return picture_response(proof_of(change.before if when == "before" else change.after, side_key))


def picture_response(picture: bytes | None) -> HttpResponse:
    """Answer with a picture; there is none of a side that isn't there."""
    if picture is None:
        raise Http404
    return HttpResponse(picture, content_type="image/png")


@staff_page(*DESK)
@require_POST
def rush(request: HttpRequest, number: int) -> HttpResponse:
    """Have an order made before all others, or in its turn again."""
    is_rush = request.POST.get("rush") == "yes"
    return _order_done(request, number, lambda pk: rush_order(actor_of(request.user), pk, is_rush=is_rush))


@staff_page(*DESK)
@require_POST
def move(request: HttpRequest, number: int) -> HttpResponse:
    """Have an order leave on another day."""
    try:
        leaves_on = date.fromisoformat(request.POST.get("leaves_on", ""))
    except ValueError:
        messages.error(request, "Please pick a day.")
        return redirect("orders:order", number)
    why = request.POST.get("why", "")
    return _order_done(request, number, lambda pk: move_order(actor_of(request.user), pk, leaves_on, why))


@staff_page(*DESK)
@require_POST
def waive_amount(request: HttpRequest, number: int, difference_id: int) -> HttpResponse:
    """Let an amount be that is still to be paid."""
    order = get_object_or_404(Order, number=number)
    difference = get_object_or_404(order.differences, pk=difference_id)
    waive_difference(actor_of(request.user), difference.pk)
    return redirect("orders:order", number)


@staff_page(*DESK)
@require_POST
def many(request: HttpRequest) -> HttpResponse:
    """Do the same with all orders that are ticked."""
    ticked = whole_numbers(request.POST.getlist("order"))
    is_rush, done = request.POST.get("do") == "rush", 0
    if not ticked:
        messages.error(request, "No order is chosen yet.")
    for order in Order.objects.filter(number__in=ticked):
        try:
            rush_order(actor_of(request.user), order.pk, is_rush=is_rush)
            done += 1
        except DeskError as error:
            messages.error(request, str(error))
    if done:
        how = "made before all others" if is_rush else "made in their turn"
        messages.success(request, f"{done} order{'s are' if done > 1 else ' is'} {how}.")
    query = QueryDict(request.POST.get("query", "")[:500]).urlencode()
    return redirect(f"{reverse('orders:orders')}?{query}" if query else "orders:orders")


def parsed_amount(sent: str) -> Decimal | None:
    """Return an amount as it was typed, with a point or a comma; None for none."""
    try:
        amount = Decimal(sent.strip().replace(",", ".")[:20])
    except InvalidOperation:
        return None
    return amount.quantize(Decimal("0.001")) if amount.is_finite() and abs(amount) < Decimal(10**8) else None


def _order_done(request: HttpRequest, number: int, do: Callable[[int], object]) -> HttpResponse:
    order = get_object_or_404(Order, number=number)
    try:
        do(order.pk)
    except DeskError as error:
        messages.error(request, str(error))
    return redirect("orders:order", number)


def _preflight(preflight_id: int) -> Preflight:
    return get_object_or_404(Preflight.objects.shown().prefetch_related("findings"), pk=preflight_id)
