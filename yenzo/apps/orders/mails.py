"""Mails of orders: an order comes in; what goes to customer and workshop goes out.

Before an order is paid, its address is only what somebody typed: unless its customer has proven it by signing in, one
short mail goes there without anything that was typed. The pictures and the words follow when it is paid.
"""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.accounts.rights import Actor
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.orders.models import Order, OrderNote
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.outbox.interface import Writer, mails_are_written
from yenzo.apps.outbox.posting import Mail, MailPicture
from yenzo.apps.outbox.services.mails import MailWish, want_mail
from yenzo.apps.pages.languages import read_in
from yenzo.apps.workshop.current import workshop_name

SUBJECTS = {
    "placed": gettext_noop("Your order {number}: please check it once more"),
    "asked": gettext_noop("An order was placed with your address"),
    "paid": gettext_noop("Your order {number} is paid"),
    "cancelled": gettext_noop("Your order {number} is cancelled"),
    "sent": gettext_noop("Your order {number} is on its way"),
}
WORKSHOP_SUBJECTS = {
    "placed": "New order {number} from {name}",
    "paid": "Order {number} is paid",
    "cancelled": "Order {number} is cancelled: what was paid is given back",
    "sent": "Order {number} is sent",
}
# Of a long list: the order page shows the others.
MOST_PICTURED = 12
LABELS = {
    "placed": "Order placed",
    "asked": "Order placed, address not proven",
    "paid": "Order paid",
    "cancelled": "Paid order cancelled",
    "sent": "Order sent",
}


def want_order_mails(actor: Actor, order: Order, occasion: str) -> None:
    """Have the mails of an occasion ("placed", "paid", "cancelled") sent to customer and workshop."""
    to_customer = "asked" if occasion == "placed" and not order.is_mail_proven else occasion
    for who, name, to in (
        ("customer", to_customer, order.customer_mail),
        ("workshop", occasion, settings.WORKSHOP_MAIL),
    ):
        key = f"{order.number}-{occasion}-{who}"
        want_mail(actor, MailWish(key, writer=f"order-{name}-{who}", about=str(order.pk), to=to))


def _to_customer(occasion: str) -> Writer:
    def write(about: str, key: str) -> Mail:
        order = Order.objects.get(pk=about)
        with read_in(order.language):
            subject = gettext(SUBJECTS[occasion]).format(number=order.number)
            address = settings.SITE_ADDRESS + reverse("shop:order", args=[order.token])
            if occasion == "asked":
                context = {"order": order, "address": address, "workshop_name": workshop_name()}
                text = render_to_string("orders/mail/asked.txt", context)
                return Mail(key, settings.WORKSHOP_MAIL, order.customer_mail, subject, text)
            return _full(order, key, occasion, subject, address, is_customer=True)

    label = f"{LABELS[occasion]}, to the customer"
    return Writer(f"order-{occasion}-customer", label, write, is_counted=occasion == "asked")


def _to_workshop(occasion: str) -> Writer:
    def write(about: str, key: str) -> Mail:
        order = Order.objects.get(pk=about)
        with read_in(settings.LANGUAGE_CODE):
            subject = WORKSHOP_SUBJECTS[occasion].format(number=order.number, name=order.customer_name)
            address = settings.SITE_ADDRESS + reverse("orders:order", args=[order.number])
            return _full(order, key, occasion, subject, address, is_customer=False)

    return Writer(f"order-{occasion}-workshop", f"{LABELS[occasion]}, to the workshop", write)


def _full(order: Order, key: str, occasion: str, subject: str, address: str, *, is_customer: bool) -> Mail:
    shown = [ShownLine(line) for line in order.lines.select_related("order", "revision", "personalization__revision")]
    context = {
        "order": order,
        "lines": shown,
        "occasion": occasion,
        "is_customer": is_customer,
        "address": address,
        "workshop_name": workshop_name(),
        "most_pictured": MOST_PICTURED,
    }
    text = render_to_string("orders/mail/order.txt", context)
    html = render_to_string("orders/mail/order.html", context)
    to = order.customer_mail if is_customer else settings.WORKSHOP_MAIL
    return Mail(key, settings.WORKSHOP_MAIL, to, subject, text, tuple(_pictures(shown)), html)


def _pictures(shown: list[ShownLine]) -> list[MailPicture]:
    return [
        MailPicture(f"{piece.number}-{side.key}.png", picture)
        for one in shown
        for piece in one.pieces[:MOST_PICTURED]
        for side in piece.recorded.sides
        if (picture := proof_of(piece.personalization, side.key))
    ]


def want_note_mail(actor: Actor, note: OrderNote) -> None:
    """Have the other side told of a message about an order."""
    who, to = ("customer", note.order.customer_mail) if note.is_from_workshop else ("workshop", settings.WORKSHOP_MAIL)
    want_mail(actor, MailWish(f"note-{note.pk}", writer=f"note-{who}", about=str(note.pk), to=to))


def _note_to_customer(about: str, key: str) -> Mail:
    note = OrderNote.objects.select_related("order").get(pk=about)
    with read_in(note.order.language):
        subject = gettext("A message about your order {number}").format(number=note.order.number)
        address = settings.SITE_ADDRESS + reverse("shop:order", args=[note.order.token])
        context = {"note": note, "address": address, "workshop_name": workshop_name()}
        text = render_to_string("orders/mail/note.txt", context)
    return Mail(key, settings.WORKSHOP_MAIL, note.order.customer_mail, subject, text)


def _note_to_workshop(about: str, key: str) -> Mail:
    note = OrderNote.objects.select_related("order").get(pk=about)
    with read_in(settings.LANGUAGE_CODE):
        address = settings.SITE_ADDRESS + reverse("orders:order", args=[note.order.number])
        context = {"note": note, "address": address, "workshop_name": workshop_name()}
        text = render_to_string("orders/mail/note.txt", context)
    subject = f"Message about order {note.order.number} from {note.order.customer_name}"
    return Mail(key, settings.WORKSHOP_MAIL, settings.WORKSHOP_MAIL, subject, text)


def register() -> None:
    """Say who writes them."""
    mails_are_written(
        Writer("note-customer", "Message about an order, to the customer", _note_to_customer),
        Writer("note-workshop", "Message about an order, to the workshop", _note_to_workshop),
        *(_to_customer(occasion) for occasion in SUBJECTS),
        *(_to_workshop(occasion) for occasion in WORKSHOP_SUBJECTS),
    )
