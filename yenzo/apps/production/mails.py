"""Mails of production: a part of an order is on its way."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import Actor
from yenzo.apps.outbox.interface import Writer, mails_are_written
from yenzo.apps.outbox.posting import Mail
from yenzo.apps.outbox.services.mails import MailWish, want_mail
from yenzo.apps.pages.languages import read_in
from yenzo.apps.production.models import Parcel
from yenzo.apps.workshop.current import workshop_name


def want_part_mail(actor: Actor, parcel: Parcel) -> None:
    """Have the customer told that a part of their order is on its way."""
    to = parcel.order.customer_mail
    want_mail(actor, MailWish(f"parcel-{parcel.pk}", writer="parcel", about=str(parcel.pk), to=to))


def _part(about: str, key: str) -> Mail:
    parcel = Parcel.objects.select_related("order").get(pk=about)
    order = parcel.order
    with read_in(order.language):
        context = {
            "order": order,
            "parcel": parcel,
            "address": settings.SITE_ADDRESS + reverse("shop:order", args=[order.token]),
            "workshop_name": workshop_name(),
        }
        subject = gettext("A part of your order {number} is on its way").format(number=order.number)
        text = render_to_string("production/mail/part.txt", context)
    return Mail(key, settings.WORKSHOP_MAIL, order.customer_mail, subject, text)


def register() -> None:
    """Say who writes them."""
    mails_are_written(Writer("parcel", "Part of an order sent, to the customer", _part))
