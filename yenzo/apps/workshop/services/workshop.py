"""Changing what the workshop says of itself."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.db import transaction

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.workshop.current import forget_workshop
from yenzo.apps.workshop.models import Workshop
from yenzo.apps.workshop.wording import with_words

WHO = (Role.OWNER, Role.SELLER)


@service(*WHO)
def change_workshop(actor: Actor, said: dict[str, Any]) -> Workshop:  # noqa: ARG001 - the roles decide
    """Keep what the workshop says of itself; what isn't named stays."""
    with _locked() as workshop:
        for name, value in said.items():
            setattr(workshop, name, value)
    return workshop


@service(*WHO)
def change_wording(actor: Actor, language: str, said: dict[str, str]) -> Workshop:  # noqa: ARG001
    """Keep the workshop's own words in one language; those in others stay."""
    with _locked() as workshop:
        workshop.wording = with_words(workshop.wording, language, said)
    return workshop


@contextmanager
def _locked() -> Iterator[Workshop]:
    """Let one at a time change the settings."""
    with transaction.atomic():
        Workshop.objects.get_or_create(pk=Workshop.ONLY)
        workshop = Workshop.objects.select_for_update().get(pk=Workshop.ONLY)
        yield workshop
        workshop.save()
        forget_workshop()
