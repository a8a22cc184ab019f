"""Which files designs point to, and how long designs and uploads are kept that were never ordered."""

from collections.abc import Callable, Iterator
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import QuerySet

from yenzo.apps.designs.models import ArrivingFile, Design, NameList, Personalization, Proof, UnfinishedEntries, Upload
from yenzo.apps.files.interface import RetainedKind, hashes_in, register_references, register_retention


def _hashes() -> Iterator[str]:
    for one in ("original_id", "prepared_id", "shown_id"):
        yield from Upload.objects.exclude(**{one: None}).values_list(one, flat=True).distinct()
    yield from hashes_in(Personalization, "entries", "asked")
    yield from hashes_in(NameList, "common")
    yield from Proof.objects.values_list("file_id", flat=True).distinct()


def _old_designs(before: datetime) -> QuerySet[Design]:
    # What was ordered has its own record; the design was only the way there.
    return Design.objects.filter(changed_at__lt=before)


def _old_lists(before: datetime) -> QuerySet[NameList]:
    # The pieces of those that were ordered have records of their own.
    return NameList.objects.filter(changed_at__lt=before)


def _old_unfinished(before: datetime) -> QuerySet[UnfinishedEntries]:
    return UnfinishedEntries.objects.filter(changed_at__lt=before)


def _old_personalizations(before: datetime) -> QuerySet[Personalization]:
    return Personalization.objects.unused().filter(made_at__lt=before)


def _old_uploads(before: datetime) -> QuerySet[Upload]:
    return Upload.objects.unused().filter(sent_at__lt=before)


def _old_arriving(before: datetime) -> QuerySet[ArrivingFile]:
    # What has arrived of them goes with the parts of files whose writing was broken off.
    return ArrivingFile.objects.filter(changed_at__lt=before)


def _clear_unused(old: Callable[[datetime], QuerySet[Any]], before: datetime) -> int:
    """Delete what is old and unused; return how many."""
    with transaction.atomic():
        # While they are held nothing can begin to use one; those that something used before are not among them.
        held = list(old(before).select_for_update(of=("self",)).values_list("pk", flat=True))
        cleared = old(before).filter(pk__in=held)
        return cleared.delete()[1].get(cleared.model._meta.label, 0)  # noqa: SLF001 - Django documents it


def register() -> None:
    """Say so."""
    register_references("personalizations and uploads", _hashes)
    register_retention(
        RetainedKind(
            "designs",
            "Designs that nobody changed since, in baskets and out of them",
            lambda before: _old_designs(before).count(),
            lambda before: _old_designs(before).delete()[1].get("designs.Design", 0),
        ),
        RetainedKind(
            "lists",
            "Lists of names that nobody changed since, ordered or not",
            lambda before: _old_lists(before).count(),
            lambda before: _old_lists(before).delete()[1].get("designs.NameList", 0),
        ),
        RetainedKind(
            "unfinished",
            "Entries that were begun and never put in a basket",
            lambda before: _old_unfinished(before).count(),
            lambda before: _old_unfinished(before).delete()[0],
        ),
        RetainedKind(
            "personalizations",
            "What pieces in baskets were before they were changed, with its pictures",
            lambda before: _old_personalizations(before).count(),
            lambda before: _clear_unused(_old_personalizations, before),
        ),
        RetainedKind(
            "arriving",
            "Files that arrived in part, and the notes of how they arrived",
            lambda before: _old_arriving(before).count(),
            lambda before: _old_arriving(before).delete()[0],
        ),
        RetainedKind(
            "uploads",
            "Uploads and their prepared versions that no design and no order uses",
            lambda before: _old_uploads(before).count(),
            lambda before: _clear_unused(_old_uploads, before),
        ),
    )
