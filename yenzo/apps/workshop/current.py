"""The workshop as it says itself: nothing comes in, its settings go out; what it hasn't said is as it ships."""

from collections.abc import Callable
from contextvars import ContextVar

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from yenzo.apps.workshop.models import Workshop

# What this request has read of it: several pages' parts ask for it.
_read: ContextVar[list[Workshop] | None] = ContextVar("workshop", default=None)


def current_workshop() -> Workshop:
    """Return the workshop's settings; within a request they are read once."""
    read = _read.get()
    if read:
        return read[0]
    kept = Workshop.objects.select_related("mark").defer("mark__data")
    found = kept.filter(pk=Workshop.ONLY).first() or Workshop()
    if read is not None:
        read.append(found)
    return found


def forget_workshop() -> None:
    """Read the settings anew the next time: they were changed."""
    read = _read.get()
    if read:
        read.clear()


class WorkshopPerRequest:
    """Lets each request read the workshop's settings once."""

    def __init__(self, answer: Callable[[HttpRequest], HttpResponse]) -> None:
        self.answer = answer

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer a request."""
        token = _read.set([])
        try:
            return self.answer(request)
        finally:
            _read.reset(token)


def workshop_name() -> str:
    """Return what the workshop is called."""
    return current_workshop().name


def kept_days(kind: str) -> int:
    """Return for how many days things of a kind are kept that nobody needs for good."""
    days = current_workshop().kept_days.get(kind, settings.RETENTION_DAYS[kind])
    return int(days)
