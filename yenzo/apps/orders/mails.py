"""Mails about an order: an occasion comes in, messages to customer and workshop go out."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.accounts.languages import read_in
from yenzo.apps.designs.side_pictures import side_picture
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.outside import mail_gateway
from yenzo.apps.orders.showing import ShownPiece
from yenzo.gateways.mail.interface import Mail, MailPicture

SUBJECTS = {
    "placed": gettext_noop("Your order {number}: please check it once more"),
    "paid": gettext_noop("Your order {number} is paid"),
}
WORKSHOP_SUBJECTS = {"placed": "New order {number} from {name}", "paid": "Order {number} is paid"}


def send_mails(order_id: int, occasion: str) -> None:
    """Send the customer's and the workshop's mail; a mail that went out already isn't sent again."""
    order = Order.objects.get(pk=order_id)
    with read_in(order.language):
        _send(order, occasion, order.customer_mail, gettext(SUBJECTS[occasion]), "customer")
    with read_in(settings.LANGUAGE_CODE):
        _send(order, occasion, settings.WORKSHOP_MAIL, WORKSHOP_SUBJECTS[occasion], "workshop")


def _send(order: Order, occasion: str, to: str, subject: str, recipient: str) -> None:
    shown = [ShownPiece(piece) for piece in order.pieces.select_related("order", "revision")]
    mail = Mail(
        key=f"{order.number}-{occasion}-{recipient}",
        sender=settings.WORKSHOP_MAIL,
        to=to,
        subject=subject.format(number=order.number, name=order.customer_name),
        text=_text(order, shown, occasion, recipient),
        pictures=tuple(_pictures(shown)),
    )
    mail_gateway().send(mail)


def _text(order: Order, shown: list[ShownPiece], occasion: str, recipient: str) -> str:
    if recipient == "customer":
        address = reverse("shop:order", args=[order.token])
    else:
        address = reverse("orders:order", args=[order.number])
    context = {
        "order": order,
        "pieces": shown,
        "occasion": occasion,
        "is_customer": recipient == "customer",
        "address": settings.SITE_ADDRESS + address,
        "workshop_name": settings.WORKSHOP_NAME,
    }
    return render_to_string("orders/mail/order.txt", context)


def _pictures(shown: list[ShownPiece]) -> list[MailPicture]:
    assets = StoredAssets()
    return [
        MailPicture(f"{one.piece}-{side.key}.png", side_picture(side, assets))
        for one in shown
        for side in one.walked.scene.sides
    ]
