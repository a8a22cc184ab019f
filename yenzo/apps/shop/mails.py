"""Mails of the shop: links that customers sign in with, and by which they go on with a design elsewhere."""

from django.conf import settings
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.translation import gettext

from yenzo.apps.designs.models import Look
from yenzo.apps.outbox.interface import Writer, mails_are_written
from yenzo.apps.outbox.posting import Mail
from yenzo.apps.pages.languages import read_in
from yenzo.apps.shop.models import SignInLink
from yenzo.apps.shop.services.sign_in import token_of
from yenzo.apps.workshop.current import workshop_name


def _link(about: str, key: str) -> Mail:
    link = SignInLink.objects.get(pk=about)
    address = settings.SITE_ADDRESS + reverse("shop:use_link", args=[token_of(link)])
    with read_in(link.language):
        subject = gettext("Sign in at {workshop}").format(workshop=workshop_name())
        text = render_to_string("shop/mail/link.txt", {"address": address, "workshop_name": workshop_name()})
    return Mail(key, settings.WORKSHOP_MAIL, link.mail, subject, text)


def _look(about: str, key: str) -> Mail:
    look = Look.objects.get(pk=about)
    address = settings.SITE_ADDRESS + reverse("shop:look", args=[look.token])
    with read_in(look.language):
        subject = gettext("Go on with your design at {workshop}").format(workshop=workshop_name())
        text = render_to_string("shop/mail/look.txt", {"address": address, "workshop_name": workshop_name()})
    return Mail(key, settings.WORKSHOP_MAIL, look.mail, subject, text)


def register() -> None:
    """Say who writes them."""
    mails_are_written(
        Writer("sign-in", "Link to sign in with", _link, is_counted=True),
        Writer("look", "Link to go on with a design", _look, is_counted=True),
    )
