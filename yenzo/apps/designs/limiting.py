"""Rate limits that live in the process: a request and a kind of action come in; whether it may go on goes out."""

from django.conf import settings
from django.http import HttpRequest
from limits import RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import SlidingWindowCounterRateLimiter

_limiter = SlidingWindowCounterRateLimiter(MemoryStorage())


def may_go_on(request: HttpRequest, action: str) -> bool:
    """Count one more action of this address; False when it has had its share of this minute."""
    shares = {
        "preview": settings.PREVIEWS_A_MINUTE,
        "upload": settings.UPLOADS_A_MINUTE,
        "sign_in": settings.SIGN_INS_A_MINUTE,
    }
    return _limiter.hit(RateLimitItemPerMinute(shares[action]), action, request.META.get("REMOTE_ADDR", ""))
