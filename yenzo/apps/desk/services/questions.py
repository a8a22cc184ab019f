"""Asking customers back: a question is asked, its customer reminded, and answers; what follows goes on by itself."""

from datetime import datetime, timedelta

from django.db import transaction
from django.utils import timezone
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import ALL_ROLES, DESK, SYSTEM, Actor, service
from yenzo.apps.desk.inspection import UNREADABLE
from yenzo.apps.desk.interface import order_replanned
from yenzo.apps.desk.mails import want_question_mail
from yenzo.apps.desk.models import Preflight, Question
from yenzo.apps.desk.services.changes import Wanted, change_pieces, note_agreement
from yenzo.apps.desk.services.preflights import (
    MOST_REASON,
    DeskError,
    findings_of,
    keep_held,
    note_event,
    settle,
    to_be_made,
    waive,
)
from yenzo.apps.desk.waiting import update_waits_for
from yenzo.apps.orders.models import Order, OrderEvent
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of

# After so many days a customer is reminded, once each.
REMINDED_AFTER = (timedelta(days=2), timedelta(days=5))
ANYBODY = tuple(role for role in ALL_ROLES if role != SYSTEM)
MOST_TEXT = 2000


@service(*DESK)
def ask_customer(actor: Actor, preflight_id: int, text: str, finding_id: int | None = None) -> Question:
    """Ask the customer of pieces, who gets a mail; the pieces are held for the answer. What is open already stays."""
    with transaction.atomic():
        order, preflight = to_be_made(preflight_id)
        asked = preflight.questions.filter(state=Question.State.OPEN).first()
        if asked is not None:
            return asked
        if not text.strip():
            raise DeskError("Please write what you want to know.")
        finding = preflight.findings.filter(pk=finding_id).first() if finding_id else None
        if not preflight.is_held:
            keep_held(preflight)
        question = Question.objects.create(
            preflight=preflight,
            finding=finding,
            personalization=preflight.personalization,
            text=text.strip()[:MOST_TEXT],
            person=actor.member,
        )
        note_event(actor, preflight, OrderEvent.Kind.ASKED)
        want_question_mail(actor, question)
        update_waits_for(order)
    return question


@service(*DESK)
def withdraw_question(actor: Actor, question_id: int) -> Question:
    """Take a question back: the desk decides by itself. One that is answered stays."""
    with transaction.atomic():
        order, preflight, question = _open(question_id)
        if question.state == Question.State.OPEN:
            question.state = Question.State.WITHDRAWN
            question.save(update_fields=["state"])
            note_event(actor, preflight, OrderEvent.Kind.WITHDRAWN)
            # Whoever took it back says what becomes of the pieces.
            preflight.held_why = preflight.held_why or "A question to the customer was taken back."
            preflight.save(update_fields=["held_why"])
            update_waits_for(order)
    return question


@service(*ANYBODY)
def answer_by_changing(actor: Actor, question_id: int, wanted: Wanted) -> Question:
    """Take a customer's correction: the pieces are as entered from now on, agreed to, and go on by themselves."""
    with transaction.atomic():
        order, preflight, question = _open(question_id)
        if question.state != Question.State.OPEN:
            return question
        why = f"The customer's answer to: {question.text}"[:MOST_REASON]
        # They were asked while it may have been begun: what is made of it is made anew.
        change_pieces(actor, order, preflight, wanted, why=why, anew=True)
        note_agreement(preflight)
        _answered(actor, order, preflight, question, Question.State.CORRECTED, is_agreed=True)
    return question


@service(*ANYBODY)
def answer_as_it_is(actor: Actor, question_id: int) -> Question:
    """Take that a customer wants the pieces made as they are; they go on by themselves.

    Raises DeskError where they can't be made so.
    """
    with transaction.atomic():
        order, preflight, question = _open(question_id)
        if question.state != Question.State.OPEN:
            return question
        if not may_stay(question):
            raise DeskError(gettext("It can’t be made as it is."))
        note_agreement(preflight)
        _answered(actor, order, preflight, question, Question.State.APPROVED, is_agreed=True)
    return question


@service(*ANYBODY)
def answer_in_words(actor: Actor, question_id: int, answer: str) -> Question:
    """Take what a customer writes; the pieces stay held until the desk has read it."""
    with transaction.atomic():
        order, preflight, question = _open(question_id)
        if question.state != Question.State.OPEN:
            return question
        if not answer.strip():
            raise DeskError(gettext("Please write your answer."))
        question.answer = answer.strip()[:MOST_TEXT]
        keep_held(preflight, f"The customer answered: {question.answer}")
        _answered(actor, order, preflight, question, Question.State.WRITTEN)
    return question


def may_stay(question: Question) -> bool:
    """Tell whether what is asked about can be made as it is."""
    return not any(one.blocks and not one.is_waived for one in findings_of(question.preflight))


def _open(question_id: int) -> tuple[Order, Preflight, Question]:
    preflight_id = Question.objects.values_list("preflight", flat=True).get(pk=question_id)
    order, preflight = to_be_made(preflight_id)
    question = Question.objects.get(pk=question_id)
    question.preflight = preflight
    return order, preflight, question


def _answered(
    actor: Actor, order: Order, preflight: Preflight, question: Question, state: str, *, is_agreed: bool = False
) -> None:
    question.state, question.answered_at = state, timezone.now()
    question.waited_days = working_days_waited(question)
    question.save(update_fields=["state", "answered_at", "answer", "waited_days"])
    note_event(actor, preflight, OrderEvent.Kind.ANSWERED)
    if is_agreed:
        for finding in findings_of(preflight):
            if not finding.is_waived and not finding.blocks and finding.code != UNREADABLE:
                waive(actor, preflight, finding, "The customer was asked and wants it so.")
    _wait_along(actor, order, question.waited_days)
    settle(actor, order, preflight)


def working_days_waited(question: Question) -> int:
    """Return how many working days after the day of a question have begun since."""
    asked_on, today = timezone.localdate(question.asked_at), timezone.localdate()
    days = calendar_of(current_workshop()).open_days(asked_on + timedelta(days=1))
    waited = 0
    for day in days:
        if day > today:
            break
        waited += 1
    return waited


def _wait_along(actor: Actor, order: Order, days: int) -> None:
    """Let an order leave later by the working days that its customer took to answer, and say so."""
    if not days or order.leaves_on is None:
        return
    calendar = calendar_of(current_workshop())
    order.leaves_on = calendar.after(order.leaves_on, days)
    order.arrives_on = order.arrives_on and calendar.after(order.arrives_on, days)
    order.save(update_fields=["leaves_on", "arrives_on"])
    facts = {"days": days, "day": str(order.leaves_on)}
    OrderEvent.objects.create(order=order, who=actor.name, kind=OrderEvent.Kind.WAITED, facts=facts)
    order_replanned.send(Order, order=order)


@service(SYSTEM)
def remind_customers(actor: Actor, now: datetime) -> int:
    """Remind customers of open questions, after two days and after five; return how many were reminded."""
    due = [
        Question.objects.open().filter(reminders=number, asked_at__lt=now - after).values_list("pk", flat=True)
        for number, after in enumerate(REMINDED_AFTER)
    ]
    return sum(_reminded(actor, pk, now) for keys in due for pk in list(keys))


def _reminded(actor: Actor, question_id: int, now: datetime) -> bool:
    with transaction.atomic():
        _, preflight, question = _open(question_id)
        number = question.reminders
        is_due = number < len(REMINDED_AFTER) and question.asked_at < now - REMINDED_AFTER[number]
        if question.state != Question.State.OPEN or not is_due:
            return False
        question.reminders = number + 1
        question.save(update_fields=["reminders"])
        note_event(actor, preflight, OrderEvent.Kind.REMINDED)
        want_question_mail(actor, question)
    return True
