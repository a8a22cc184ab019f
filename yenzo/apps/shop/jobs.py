"""Jobs of the shop. Arguments are ids only."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext
from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.languages import read_in
from yenzo.apps.orders.outside import mail_gateway
from yenzo.apps.shop.models import SignInLink
from yenzo.apps.shop.services.sign_in import token_of
from yenzo.gateways.mail.interface import Mail


@app.task(name="shop.send_link", retry=RetryStrategy(max_attempts=8, exponential_wait=2))
def send_link(*, link_id: str) -> None:
    """Mail a link to the customer who asked for it."""
    link = SignInLink.objects.get(pk=link_id)
    address = settings.SITE_ADDRESS + reverse("shop:use_link", args=[token_of(link)])
    with read_in(link.language):
        mail = Mail(
            key=f"sign-in-{link.pk}",
            sender=settings.WORKSHOP_MAIL,
            to=link.mail,
            subject=gettext("Sign in at {workshop}").format(workshop=settings.WORKSHOP_NAME),
            text=render_to_string("shop/mail/link.txt", {"address": address, "workshop_name": settings.WORKSHOP_NAME}),
            pictures=(),
        )
        mail_gateway().send(mail)
