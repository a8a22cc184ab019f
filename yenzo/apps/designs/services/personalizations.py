"""Keeping what a customer wants of a piece and what follows from it, with the pictures as proof."""

from collections.abc import Iterable

from yenzo.apps.designs.models import Personalization, Proof, Upload
from yenzo.apps.designs.personalized import Personalized, dump_record, keep_proof, made_record
from yenzo.apps.designs.side_pictures import side_picture
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.models import Revision
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import dump_document
from yenzo.core.evaluation import Evaluation


def keep_evaluation(
    revision: Revision, entries: Entries, evaluation: Evaluation, uploads: Iterable[Upload]
) -> Personalization:
    """Keep entries with what evaluating them gave, and each side's picture. To be called within a transaction."""
    kept = Personalization.objects.create(
        revision=revision,
        entries=dump_document(entries),
        asked=evaluation.asked.model_dump(mode="json"),
        record=dump_record(made_record(revision, evaluation)),
    )
    kept.uploads.set(uploads)
    for side in evaluation.scene.sides:
        keep_proof(kept, side.key, side_picture(side, StoredAssets()))
    return kept


def keep_rows(
    revision: Revision, rows: Iterable[tuple[Entries, Evaluation]], uploads: Iterable[Upload]
) -> list[Personalization]:
    """Keep the rows of a list with what evaluating them gave. Their pictures are drawn when somebody looks."""
    kept = Personalization.objects.bulk_create(
        Personalization(
            revision=revision,
            entries=dump_document(entries),
            asked=evaluation.asked.model_dump(mode="json"),
            record=dump_record(made_record(revision, evaluation)),
        )
        for entries, evaluation in rows
    )
    used = list(uploads)
    through = Personalization.uploads.through
    through.objects.bulk_create(
        through(personalization_id=one.pk, upload_id=upload.pk) for one in kept for upload in used
    )
    return kept


def keep_as_asked(piece: Personalized) -> Personalization:
    """Keep a piece as it is asked now, unless it is kept so already; with the same proofs if it looks the same."""
    before = piece.personalization
    asked = piece.asked.model_dump(mode="json")
    if before.asked == asked:
        return before
    kept = Personalization.objects.create(
        revision=before.revision, entries=before.entries, asked=asked, record=dump_record(piece.recorded.record)
    )
    kept.uploads.set(before.uploads.all())
    if piece.looks_as_kept:
        proofs = before.proofs.all()
        Proof.objects.bulk_create(Proof(personalization=kept, side=one.side, file_id=one.file_id) for one in proofs)
    return kept
