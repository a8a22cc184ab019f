"""The carrier that the settings choose."""

from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string

from yenzo.gateways.carrier.interface import Carrier


def carrier() -> Carrier:
    """Return the carrier."""
    chosen: dict[str, Any] = settings.CARRIER_GATEWAY
    made: Carrier = import_string(chosen["BACKEND"])(**chosen["OPTIONS"])
    return made
