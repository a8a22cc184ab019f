"""Bringing what somebody made in a frame on another site into the browser that they order with."""

import uuid

from django.db import transaction

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.services.moving import move_designs


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def bring_basket(actor: Actor, *, before: uuid.UUID, after: uuid.UUID) -> None:  # noqa: ARG001 - whoever has the link
    """Make all that a frame's visitor has another visitor's; once done, there is nothing more to bring."""
    with transaction.atomic():
        move_designs(before=before, after=after)
