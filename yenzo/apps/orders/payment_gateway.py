"""The payment service that the settings choose."""

from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string

from yenzo.gateways.payment.interface import PaymentGateway


def payment_gateway() -> PaymentGateway:
    """Return the payment service."""
    chosen: dict[str, Any] = settings.PAYMENT_GATEWAY
    gateway: PaymentGateway = import_string(chosen["BACKEND"])(**chosen["OPTIONS"])
    return gateway
