"""The outside services that the settings choose."""

from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string

from yenzo.gateways.mail.interface import MailGateway
from yenzo.gateways.payment.interface import PaymentGateway


def payment_gateway() -> PaymentGateway:
    """Return the payment service."""
    gateway: PaymentGateway = _made(settings.PAYMENT_GATEWAY)
    return gateway


def mail_gateway() -> MailGateway:
    """Return the mail service."""
    gateway: MailGateway = _made(settings.MAIL_GATEWAY)
    return gateway


def _made(chosen: Any) -> Any:
    return import_string(chosen["BACKEND"])(**chosen["OPTIONS"])
