"""Keeping what somebody has begun to enter, until it lies in the basket or is begun anew."""

import uuid

from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.designs.models import Design, UnfinishedEntries
from yenzo.apps.designs.services.designs import VISITORS
from yenzo.apps.products.models import Product


@service(*VISITORS)
def keep_entries(
    actor: Actor,  # noqa: ARG001 - a visitor owns the entries, whoever is signed in
    product: Product,
    form: str,
    *,
    visitor: uuid.UUID,
    design: Design | None = None,
) -> None:
    """Keep a form as it stands, instead of what was kept before."""
    UnfinishedEntries.objects.update_or_create(visitor=visitor, product=product, design=design, defaults={"form": form})


@service(*VISITORS)
def forget_entries(actor: Actor, product: Product, *, visitor: uuid.UUID, design: Design | None = None) -> None:  # noqa: ARG001
    """Keep a form no longer: it is finished, or begun anew."""
    UnfinishedEntries.objects.filter(visitor=visitor, product=product, design=design).delete()
