"""The post that the settings choose."""

from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string

from yenzo.gateways.mail.interface import MailGateway


def mail_gateway() -> MailGateway:
    """Return the mail service."""
    chosen: dict[str, Any] = settings.MAIL_GATEWAY
    gateway: MailGateway = import_string(chosen["BACKEND"])(**chosen["OPTIONS"])
    return gateway
