"""The page that a customer answers a question on: reached by its unguessable link only."""

import uuid

from django.contrib import messages
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.in_words import piece_in_words
from yenzo.apps.designs.lending import lend_uploads
from yenzo.apps.designs.personalized import proof_of, read_as_kept
from yenzo.apps.designs.visitors import meet_visitor
from yenzo.apps.desk.mending import OrderedSlip, ordered_slip, sent_as_of
from yenzo.apps.desk.models import Question
from yenzo.apps.desk.pricing import cost_difference
from yenzo.apps.desk.services.preflights import DeskError
from yenzo.apps.desk.services.questions import answer_as_it_is, answer_by_changing, answer_in_words, may_stay
from yenzo.apps.desk.showing import marked_sides
from yenzo.apps.desk.views.pieces import picture_response
from yenzo.apps.slip.refreshing import refresh_context
from yenzo.core.documents.values import clean_text

REFUSED, TOO_MANY = 422, 429


@require_safe
@never_cache
def page(request: HttpRequest, token: str) -> HttpResponse:
    """Show a question with the piece that it is about, and the slip to correct it; once answered, what was."""
    question = _question(token)
    meet_visitor(request)
    lend_uploads(request, question.preflight.personalization.uploads.all())
    return _page(request, question, _slip_if_open(request, question))


def _page(
    request: HttpRequest,
    question: Question,
    sent: OrderedSlip | None,
    *,
    trouble: str = "",
    status: int = 200,
    **more: object,
) -> HttpResponse:
    recorded = read_as_kept(question.personalization)
    findings = [(1, question.finding)] if question.finding else []
    context = {
        "question": question,
        "order": question.preflight.line.order,
        "sides": list(marked_sides(recorded, findings)),
        "in_words": piece_in_words(recorded),
        "goods": recorded.setup.offer.name,
        "may_stay": question.is_open and may_stay(question),
        "sent_as": sent_as_of(request.POST) if request.method == "POST" else uuid.uuid4(),
        "trouble": trouble,
        **(_slip_context(question, sent) if sent else {}),
        **more,
    }
    return render(request, "desk/question.html", context, status=status)


def _slip_context(question: Question, sent: OrderedSlip) -> dict[str, object]:
    return {
        "slip": sent.slip,
        "slip_end": "desk/_answer_end.html",
        "amount": cost_difference(question.preflight, sent.slip.evaluation),
        "order": question.preflight.line.order,
        "not_yet": gettext("It can’t be made like this yet. Please mend this first:"),
    }


@require_POST
def preview(request: HttpRequest, token: str) -> HttpResponse:
    """Answer a keystroke on the slip of the piece. Writes nothing."""
    if not may_go_on(request, "preview"):
        return HttpResponse(gettext("Too many changes in a short time; wait a moment."), status=TOO_MANY)
    question = _question(token)
    sent = ordered_slip(request, question.preflight, request.POST)
    context = {**refresh_context(sent.slip, request.POST), **_slip_context(question, sent)}
    return render(request, "desk/_refresh.html", context)


@require_POST
def changed(request: HttpRequest, token: str) -> HttpResponse:
    """Take the correction."""
    question = _question(token)
    if not question.is_open:
        return redirect("desk:question", token)
    sent = ordered_slip(request, question.preflight, request.POST, shows_missing=True)
    if not may_go_on(request, "basket"):
        return _page(request, question, sent, trouble=_too_often(), status=TOO_MANY)
    if sent.is_waiting:
        said = gettext("Your file has arrived and is being looked at. Please send your answer in a moment.")
        return _page(request, question, sent, trouble=said, status=REFUSED)
    if sent.slip.verdict.blocked:
        blocking = list(sent.slip.verdict.blocking)
        return _page(request, question, sent, status=REFUSED, blocking=blocking)
    if request.POST.get("read") != "yes":
        said = gettext("Please say that you have read it letter for letter.")
        return _page(request, question, sent, trouble=said, status=REFUSED)
    try:
        answer_by_changing(actor_of(request.user), question.pk, sent.wanted(sent_as_of(request.POST)))
    except DeskError as error:
        return _page(request, question, sent, trouble=str(error), status=REFUSED)
    return _thanks(request, question)


@require_POST
def as_it_is(request: HttpRequest, token: str) -> HttpResponse:
    """Take that it is to be made as it is."""
    question = _question(token)
    if not may_go_on(request, "basket"):
        return _page(request, question, _slip_if_open(request, question), trouble=_too_often(), status=TOO_MANY)
    try:
        answer_as_it_is(actor_of(request.user), question.pk)
    except DeskError as error:
        return _page(request, question, _slip_if_open(request, question), trouble=str(error), status=REFUSED)
    return _thanks(request, question)


@require_POST
def in_words(request: HttpRequest, token: str) -> HttpResponse:
    """Take what the customer writes."""
    question = _question(token)
    text = clean_text(request.POST.get("text", ""))
    if not may_go_on(request, "basket"):
        return _page(request, question, _slip_if_open(request, question), trouble=_too_often(), status=TOO_MANY)
    try:
        answer_in_words(actor_of(request.user), question.pk, text)
    except DeskError as error:
        return _page(request, question, _slip_if_open(request, question), trouble=str(error), status=REFUSED)
    return _thanks(request, question)


def _slip_if_open(request: HttpRequest, question: Question) -> OrderedSlip | None:
    return ordered_slip(request, question.preflight) if question.is_open else None


def _too_often() -> str:
    return gettext("This was sent very often in a short time. Please wait a minute and send it again.")


def _thanks(request: HttpRequest, question: Question) -> HttpResponse:
    messages.success(request, gettext("Thank you: the workshop has your answer."))
    return redirect("desk:question", question.token)


@require_safe
@cache_control(private=True, max_age=3600)
def picture(request: HttpRequest, token: str, side_key: str) -> HttpResponseBase:  # noqa: ARG001
    """Show a side of the piece as it was asked about."""
    return picture_response(proof_of(_question(token).personalization, side_key))


def _question(token: str) -> Question:
    questions = Question.objects.select_related(
        "preflight__line__order", "preflight__line__revision", "personalization__revision", "finding"
    )
    return get_object_or_404(questions, token=token)
