"""Personalizations as they are read: rows come in; what was made, the verdict, the price and pictures go out.

What was kept is read and not worked out again. In a basket the entries are asked once more, as the day, the stock and
the customer may be others now; the goods are composed anew only if that makes them look otherwise.
"""

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from django.conf import settings
from django.db import transaction

from yenzo.apps.designs.in_words import PieceInWords, piece_in_words
from yenzo.apps.designs.models import Design, NameList, Personalization, Proof
from yenzo.apps.designs.request_context import request_context
from yenzo.apps.designs.side_pictures import side_picture
from yenzo.apps.designs.to_core import asked_of, entries_of, record_kept
from yenzo.apps.files.store import StoredAssets, read_stored, store_file
from yenzo.apps.products.models import Revision
from yenzo.apps.products.to_core import setup_of_revision, shop_setup
from yenzo.core.asking.ask import Asked, Context, ask
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.variants import Variant
from yenzo.core.errors import AssetError
from yenzo.core.evaluation import Evaluation, evaluate_asked
from yenzo.core.preflight.verdict import Verdict
from yenzo.core.pricing.order import OrderLine, quote_order
from yenzo.core.pricing.quote import Quote, price
from yenzo.core.record import Record, Recorded, judged_anew, looks_the_same, record_of
from yenzo.core.translation import base_language, current_language


@dataclass(frozen=True)
class Personalized:
    """A personalization as it is asked now: in the words of who reads, with the verdict and the price of now."""

    personalization: Personalization
    recorded: Recorded
    verdict: Verdict
    quote: Quote
    looks_as_kept: bool
    # The live revision that the customer has seen and doesn't want instead, if any.
    kept_against: int | None = None

    @property
    def is_of_today(self) -> bool:
        """Whether it is of the live revision, or its customer wants it to stay as it is."""
        return self.revision.product.live_id in (self.revision.pk, self.kept_against)

    @property
    def revision(self) -> Revision:
        """The revision that it was made with."""
        return self.personalization.revision

    @property
    def setup(self) -> Setup:
        """Its set-up, in the words of who reads."""
        return self.recorded.setup

    @property
    def asked(self) -> Asked:
        """What is asked now."""
        return self.recorded.asked

    @property
    def variant(self) -> Variant | None:
        """The variant of the goods."""
        return self.setup.offer.variant(self.asked.variant)

    @property
    def in_words(self) -> PieceInWords:
        """Its texts as they are made, and its other entries."""
        return piece_in_words(self.recorded)


def read_now(personalizations: Sequence[Personalization], *, signed_in: bool) -> list[Personalized]:
    """Return personalizations as they are asked now, each with its price alone."""
    setups = [shop_setup(one.revision) for one in personalizations]
    context = request_context(setups, signed_in=signed_in)
    return [_now(one, setup, context) for one, setup in zip(personalizations, setups, strict=True)]


def read_designs(designs: Sequence[Design], *, signed_in: bool) -> list[Personalized]:
    """Return what lies in a basket as it is asked now, each piece with its price alone."""
    pieces = read_now([design.personalization for design in designs], signed_in=signed_in)
    return [replace(piece, kept_against=design.kept_against_id) for design, piece in zip(designs, pieces, strict=True)]


def _now(personalization: Personalization, setup: Setup, context: Context) -> Personalized:
    asked = ask(setup, entries_of(personalization), context)
    verdict, looks_as_kept = None, False
    record = record_kept(personalization)
    if record is not None:
        looks_as_kept = looks_the_same(asked, _asked_of(personalization, setup))
        told = record.verdict_in(current_language()) if looks_as_kept else None
        verdict = judged_anew(setup, asked, record, told.findings, StoredAssets()) if told else None
    if record is None or verdict is None:
        evaluation = evaluate_asked(setup, asked, StoredAssets())
        record, verdict = made_record(personalization.revision, evaluation), evaluation.verdict
    quote = price(setup, asked, record.amounts)
    return Personalized(personalization, Recorded(setup, asked, record), verdict, quote, looks_as_kept)


def read_rows(names: NameList, *, signed_in: bool) -> list[Personalized]:
    """Return the rows of a list as they are asked now, each with its price alone."""
    rows = names.rows.active().select_related("personalization__revision__product__live")
    return read_now([row.personalization for row in rows if row.personalization], signed_in=signed_in)


def quoted_together(pieces: Sequence[tuple[Personalized, str]]) -> list[Personalized]:
    """Return the pieces of one order, each given with the list that it is a row of, if any, with their quotes.

    What is charged once an order stands in one of them only.
    """
    quotes = quote_order(
        OrderLine(str(one.revision.product_id), one.setup, one.asked, one.recorded.record.amounts, of_list)
        for one, of_list in pieces
    )
    return [replace(one, quote=quote) for (one, _), quote in zip(pieces, quotes, strict=True)]


def read_as_kept(personalization: Personalization) -> Recorded:
    """Return a personalization as it was asked when it was kept. What has no record yet is worked out, and gets one."""
    setup = shop_setup(personalization.revision)
    asked = _asked_of(personalization, setup)
    record = record_kept(personalization)
    if record is None:
        record = made_record(personalization.revision, evaluate_asked(setup, asked, StoredAssets()))
        personalization.record = dump_record(record)
        Personalization.objects.filter(pk=personalization.pk, record__isnull=True).update(record=personalization.record)
    return Recorded(setup, asked, record)


def _asked_of(personalization: Personalization, setup: Setup) -> Asked:
    """Return what was asked when it was kept; of what was put in a basket before that was kept, what is asked now."""
    if personalization.asked is not None:
        return asked_of(personalization)
    return ask(setup, entries_of(personalization), request_context([setup], signed_in=False))


def proof_of(personalization: Personalization, side_key: str) -> bytes | None:
    """Return the picture of a side as it was kept, or None if there is no such side.

    Where none was kept, for there was no room or it is from before, it is drawn, and kept if that can be.
    """
    kept = personalization.proofs.filter(side=side_key).select_related("file").first()
    if kept is not None:
        with suppress(AssetError):
            return read_stored(kept.file)
    setup = setup_of_revision(personalization.revision)
    evaluation = evaluate_asked(setup, _asked_of(personalization, setup), StoredAssets())
    side = evaluation.scene.side(side_key)
    if side is None:
        return None
    drawn = side_picture(side, StoredAssets())
    keep_proof(personalization, side_key, drawn)
    return drawn


def keep_proof(personalization: Personalization, side_key: str, drawn: bytes) -> None:
    """Keep the picture of a side; what can't be kept, for a full disk, is drawn anew when somebody looks."""
    with suppress(OSError), transaction.atomic():
        file = store_file(drawn)
        Proof.objects.get_or_create(personalization=personalization, side=side_key, defaults={"file": file})


def made_record(revision: Revision, evaluation: Evaluation) -> Record:
    """Return the record of an evaluation; what it tells its reader, it tells the workshop in its own language."""
    others: dict[str, Verdict] = {}
    own = settings.LANGUAGE_CODE
    if evaluation.verdict.says_something and base_language(own) != base_language(evaluation.language):
        again = evaluate_asked(setup_of_revision(revision), evaluation.asked, StoredAssets(), language=own)
        others[own] = again.verdict
    return record_of(evaluation, others)


def dump_record(record: Record) -> dict[str, object]:
    """Return a record as JSON values."""
    return record.model_dump(mode="json", by_alias=True)
