"""The workshop as it says itself: nothing comes in, its settings go out; what it hasn't said is as it ships."""

from django.conf import settings

from yenzo.apps.workshop.models import Workshop


def own_workshop() -> Workshop:
    """Return the workshop's settings."""
    return Workshop.objects.filter(pk=Workshop.ONLY).first() or Workshop()


def workshop_name() -> str:
    """Return what the workshop is called."""
    return own_workshop().name


def kept_days(kind: str) -> int:
    """Return for how many days things of a kind are kept that nobody needs for good."""
    days = own_workshop().kept_days.get(kind, settings.RETENTION_DAYS[kind])
    return int(days)
