"""Mails of the shop: the link that a customer signs in with."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext

from yenzo.apps.outbox.interface import Writer, mails_are_written
from yenzo.apps.outbox.posting import Mail
from yenzo.apps.pages.languages import read_in
from yenzo.apps.shop.models import SignInLink
from yenzo.apps.shop.services.sign_in import token_of


def _link(about: str, key: str) -> Mail:
    link = SignInLink.objects.get(pk=about)
    address = settings.SITE_ADDRESS + reverse("shop:use_link", args=[token_of(link)])
    with read_in(link.language):
        subject = gettext("Sign in at {workshop}").format(workshop=settings.WORKSHOP_NAME)
        text = render_to_string("shop/mail/link.txt", {"address": address, "workshop_name": settings.WORKSHOP_NAME})
    return Mail(key, settings.WORKSHOP_MAIL, link.mail, subject, text)


def register() -> None:
    """Say who writes it."""
    mails_are_written(Writer("sign-in", "Link to sign in with", _link, is_counted=True))
