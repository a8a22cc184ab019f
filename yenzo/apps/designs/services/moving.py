"""Moving all that one visitor has to another one, who is the same person on another machine."""

import uuid

from yenzo.apps.designs.models import Design, Look, NameList, UnfinishedEntries, Upload


def move_designs(*, before: uuid.UUID, after: uuid.UUID) -> None:
    """Make everything of one visitor another one's. To be called by a service, within its transaction.

    Of what both have begun of one product the later one stays.
    """
    for model in (Design, NameList, Upload, Look):
        model.objects.filter(visitor=before).update(visitor=after)
    for begun in UnfinishedEntries.objects.select_for_update().filter(visitor=before):
        there = UnfinishedEntries.objects.filter(
            visitor=after, product=begun.product_id, design=begun.design_id
        ).first()
        if there is not None and there.changed_at > begun.changed_at:
            begun.delete()
            continue
        if there is not None:
            there.delete()
        UnfinishedEntries.objects.filter(pk=begun.pk).update(visitor=after)
