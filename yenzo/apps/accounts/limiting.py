"""Rate limits: a request and a kind of action come in; whether it may go on goes out.

Previews come many times a second and are counted in the process; all else is counted for all processes together.
"""

import ipaddress
from functools import lru_cache

from django.conf import settings
from django.http import HttpRequest
from limits import RateLimitItem, parse_many
from limits.storage import storage_from_string
from limits.strategies import FixedWindowRateLimiter, RateLimiter

from yenzo.apps.accounts.counting import ProcessStorage

IN_PROCESS = {"preview"}
# The part of an IPv6 address that one household or firm has.
NETWORK_BITS = 64
# Importing storages of our own registers them.
_own = FixedWindowRateLimiter(ProcessStorage())


def client_address(request: HttpRequest) -> str:
    """Return who asks: what the outermost of our own proxies saw, or who is connected when there is none.

    What a client itself claims in X-Forwarded-For stands to the left of that, and is not believed.
    """
    told = [part.strip() for part in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if part.strip()]
    count = settings.TRUSTED_PROXIES
    seen = told[-count] if count and len(told) >= count else request.META.get("REMOTE_ADDR", "")
    try:
        address = ipaddress.ip_address(seen)
    except ValueError:
        return str(request.META.get("REMOTE_ADDR", ""))
    if address.version == 6:
        return str(ipaddress.ip_network((address, NETWORK_BITS), strict=False))
    return str(address)


def may_go_on(request: HttpRequest, action: str) -> bool:
    """Count one more action of this client; False when it has had its share."""
    return count_once(action, client_address(request))


def count_once(action: str, who: str) -> bool:
    """Count one more action of somebody, named as you like; False when it is beyond the share."""
    limiter = _limiter(action)
    # All windows are counted, whatever the first one says.
    within = [limiter.hit(share, action, who) for share in _shares(action)]
    return all(within)


def forget(action: str, who: str) -> None:
    """Begin to count somebody's actions anew."""
    for share in _shares(action):
        _limiter(action).clear(share, action, who)


@lru_cache(maxsize=100)
def _parsed(written: str) -> list[RateLimitItem]:
    return parse_many(written)


def _shares(action: str) -> list[RateLimitItem]:
    return _parsed(settings.LIMITS[action])


def _limiter(action: str) -> RateLimiter:
    return _own if action in IN_PROCESS else _shared(settings.LIMITS_STORAGE)


@lru_cache(maxsize=2)
def _shared(place: str) -> RateLimiter:
    return FixedWindowRateLimiter(storage_from_string(place))
