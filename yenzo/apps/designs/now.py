"""What the core may not fetch itself: the day it is in the workshop's own time zone."""

from django.utils import timezone

from yenzo.core.asking.ask import Context


def context_now() -> Context:
    """Return the context of a request that is answered now."""
    return Context(today=timezone.localdate())
