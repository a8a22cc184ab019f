"""Looks: made, withdrawn, and begun from."""

import uuid
from collections.abc import Iterable

from django.db import transaction
from django.utils import timezone

from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.designs.models import Design, Look, NameList, NameRow, Personalization, Upload
from yenzo.apps.designs.services.designs import VISITORS
from yenzo.core.translation import current_language


@service(*VISITORS)
def show_design(
    actor: Actor,  # noqa: ARG001 - a visitor owns the designs, whoever is signed in
    design_id: uuid.UUID,
    *,
    visitor: uuid.UUID,
    is_shared: bool,
    mail: str = "",
) -> Look | None:
    """Make a link that shows a design as it is now; the same one while it stays so. None if it isn't there."""
    with transaction.atomic():
        design = Design.objects.select_for_update().filter(pk=design_id, visitor=visitor, thrown_away_at=None).first()
        if design is None:
            return None
        facts = {"design": design, "personalization_id": design.personalization_id, "visitor": visitor}
        return _look(is_shared=is_shared, mail=mail, **facts)


@service(*VISITORS)
def show_list(actor: Actor, list_id: uuid.UUID, *, visitor: uuid.UUID, is_shared: bool, mail: str = "") -> Look | None:  # noqa: ARG001
    """Make a link that shows a list; the same one each time. None if it isn't there."""
    with transaction.atomic():
        names = NameList.objects.select_for_update(of=("self",)).of_visitor(visitor).filter(pk=list_id).first()
        return _look(is_shared=is_shared, mail=mail, names=names, visitor=visitor) if names else None


def _look(*, is_shared: bool, mail: str, **facts: object) -> Look:
    there = Look.objects.active().filter(is_shared=is_shared, mail=mail, **facts).first()
    return there or Look.objects.create(is_shared=is_shared, mail=mail, language=current_language(), **facts)


@service(*VISITORS)
def withdraw_looks(actor: Actor, design_id: uuid.UUID, *, visitor: uuid.UUID) -> int:  # noqa: ARG001
    """Let the links that show a design show nothing from now on; return how many did."""
    looks = Look.objects.filter(design=design_id, visitor=visitor, withdrawn_at=None)
    return looks.update(withdrawn_at=timezone.now())


@service(*VISITORS)
def begin_from_look(actor: Actor, look: Look, *, visitor: uuid.UUID) -> Design | NameList:  # noqa: ARG001
    """Give a visitor a copy of what a look shows, with files of their own; it is theirs alone from then on."""
    with transaction.atomic():
        if look.names is not None:
            return copied_list(look.names, visitor)
        assert look.personalization is not None
        kept = copied(look.personalization, visitor)
        name = look.design.name if look.design and not look.is_shared else ""
        return Design.objects.create(visitor=visitor, personalization=kept, in_basket=False, name=name)


def copied(before: Personalization, visitor: uuid.UUID) -> Personalization:
    """Return a copy of a personalization whose files belong to a visitor. To be called within a transaction."""
    kept = Personalization.objects.create(
        revision=before.revision, entries=before.entries, asked=before.asked, record=before.record
    )
    kept.uploads.set(own_files(before.uploads.all(), visitor))
    return kept


def own_files(uploads: Iterable[Upload], visitor: uuid.UUID) -> list[Upload]:
    """Return the same files as a visitor's own; theirs already as they are."""
    own = []
    for upload in uploads:
        if upload.visitor != visitor:
            upload.pk, upload.visitor = uuid.uuid4(), visitor
            upload._state.adding = True  # noqa: SLF001 - Django's documented way to copy a row
            upload.save()
        own.append(upload)
    return own


def copied_list(before: NameList, visitor: uuid.UUID) -> NameList:
    """Return a copy of a list, its rows to be checked. To be called within a transaction."""
    names = NameList.objects.create(
        visitor=visitor,
        revision=before.revision,
        common=before.common,
        targets=before.targets,
        heads=before.heads,
        language=before.language,
    )
    names.uploads.set(own_files(before.uploads.all(), visitor))
    rows = before.rows.active().values("number", "cells", "meant")
    NameRow.objects.bulk_create(NameRow(list=names, **row) for row in rows)
    return names
