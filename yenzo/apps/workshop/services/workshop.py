"""Changing what the workshop says of itself."""

from typing import Any

from django.db import transaction

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.workshop.models import Workshop
from yenzo.apps.workshop.own import forget_workshop

WHO = (Role.OWNER, Role.SELLER)


@service(*WHO)
def change_workshop(actor: Actor, said: dict[str, Any]) -> Workshop:  # noqa: ARG001 - the roles decide
    """Keep what the workshop says of itself; what isn't named stays."""
    with transaction.atomic():
        Workshop.objects.get_or_create(pk=Workshop.ONLY)
        workshop = Workshop.objects.select_for_update().get(pk=Workshop.ONLY)
        for name, value in said.items():
            setattr(workshop, name, value)
        workshop.save()
        forget_workshop()
    return workshop
