"""Mails of the desk: questions to customers, reminders of them, and what was changed for them."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import Actor
from yenzo.apps.designs.in_words import piece_in_words
from yenzo.apps.designs.models import Personalization
from yenzo.apps.designs.personalized import proof_of, read_as_kept
from yenzo.apps.desk.models import Change, Preflight, Question
from yenzo.apps.outbox.interface import Writer, mails_are_written
from yenzo.apps.outbox.posting import Mail, MailPicture
from yenzo.apps.outbox.services.mails import MailWish, want_mail
from yenzo.apps.pages.languages import read_in
from yenzo.apps.workshop.current import workshop_name


def want_question_mail(actor: Actor, question: Question) -> None:
    """Have the customer told of a question, or reminded of it."""
    key = f"question-{question.pk}-{question.reminders}"
    to = question.preflight.line.order.customer_mail
    want_mail(actor, MailWish(key, writer="question", about=str(question.pk), to=to))


def want_change_mail(actor: Actor, change: Change) -> None:
    """Have the customer told what was changed for them."""
    to = change.preflight.line.order.customer_mail
    want_mail(actor, MailWish(f"change-{change.pk}", writer="change", about=str(change.pk), to=to))


def want_cancelled_mail(actor: Actor, preflight: Preflight) -> None:
    """Have the customer told that pieces of their order were cancelled."""
    to = preflight.line.order.customer_mail
    want_mail(actor, MailWish(f"pieces-{preflight.pk}", writer="pieces-cancelled", about=str(preflight.pk), to=to))


def _cancelled(about: str, key: str) -> Mail:
    preflight = Preflight.objects.select_related("line__order", "personalization__revision").get(pk=about)
    order = preflight.line.order
    event = order.events.filter(kind="piece_cancelled", facts__piece=preflight.piece).last()
    with read_in(order.language):
        context = {
            "preflight": preflight,
            "order": order,
            "why": event.facts["reason"] if event else "",
            "difference": order.differences.filter(line=preflight.line, amount__lt=0).last(),
            "in_words": piece_in_words(read_as_kept(preflight.personalization)),
            "address": settings.SITE_ADDRESS + reverse("shop:order", args=[order.token]),
            "workshop_name": workshop_name(),
        }
        subject = gettext("A part of your order {number} is cancelled").format(number=order.number)
        text = render_to_string("desk/mail/cancelled.txt", context)
    return Mail(key, settings.WORKSHOP_MAIL, order.customer_mail, subject, text)


def _question(about: str, key: str) -> Mail:
    question = Question.objects.select_related("preflight__line__order", "personalization__revision").get(pk=about)
    order = question.preflight.line.order
    with read_in(order.language):
        said = gettext("A question about your order {number}: please answer before we make it")
        address = settings.SITE_ADDRESS + reverse("desk:question", args=[question.token])
        context = {
            "question": question,
            "order": order,
            "address": address,
            "workshop_name": workshop_name(),
            "in_words": piece_in_words(read_as_kept(question.personalization)),
        }
        text = render_to_string("desk/mail/question.txt", context)
        subject = said.format(number=order.number)
        pictures = tuple(_pictures(question.preflight.piece, question.personalization))
    return Mail(key, settings.WORKSHOP_MAIL, order.customer_mail, subject, text, pictures)


def _change(about: str, key: str) -> Mail:
    change = Change.objects.select_related("preflight__line__order", "after__revision", "difference").get(pk=about)
    order = change.preflight.line.order
    with read_in(order.language):
        context = {
            "change": change,
            "order": order,
            "difference": change.difference,
            "in_words": piece_in_words(read_as_kept(change.after)),
            "address": settings.SITE_ADDRESS + reverse("shop:order", args=[order.token]),
            "workshop_name": workshop_name(),
        }
        text = render_to_string("desk/mail/change.txt", context)
        subject = gettext("We changed something on your order {number}").format(number=order.number)
        pictures = tuple(_pictures(change.preflight.piece, change.after))
    return Mail(key, settings.WORKSHOP_MAIL, order.customer_mail, subject, text, pictures)


def _pictures(piece: str, personalization: Personalization) -> list[MailPicture]:
    sides = read_as_kept(personalization).sides
    drawn = ((side.key, proof_of(personalization, side.key)) for side in sides)
    return [MailPicture(f"{piece}-{key}.png", picture) for key, picture in drawn if picture]


def register() -> None:
    """Say who writes them."""
    mails_are_written(
        Writer("question", "Question before making, to the customer", _question),
        Writer("pieces-cancelled", "Pieces cancelled, to the customer", _cancelled),
        Writer("change", "Changed by the desk, to the customer", _change),
    )
