"""Changing pieces that are ordered: entries are mended by the desk, or by an answer of their customer."""

import uuid
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from django.db import transaction
from django.utils import timezone
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import DESK, Actor, service
from yenzo.apps.designs.in_words import piece_in_words
from yenzo.apps.designs.models import Personalization, Upload
from yenzo.apps.designs.personalized import read_as_kept
from yenzo.apps.designs.services.personalizations import keep_evaluation
from yenzo.apps.designs.to_core import asked_of
from yenzo.apps.desk.interface import change_wanted, packed_wanted, pieces_changed
from yenzo.apps.desk.mails import want_change_mail
from yenzo.apps.desk.models import Change, Preflight
from yenzo.apps.desk.pricing import cost_difference
from yenzo.apps.desk.services.preflights import (
    DeskError,
    inspect_anew,
    keep_held,
    note_event,
    place_of,
    settle,
    to_be_made,
)
from yenzo.apps.orders.models import Agreement, Line, Order, OrderEvent
from yenzo.apps.orders.services.differences import note_difference
from yenzo.apps.orders.to_core import different_pieces
from yenzo.apps.stock.services.stock import OutOfStockError, return_stock, take_stock
from yenzo.core.asking.ask import Asked
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import Evaluation

MOST_WHY = 300


@dataclass(frozen=True)
class Wanted:
    """What pieces are to be from now on: the entries, what follows from them, and the files that they use.

    The same `sent_as` changes them once.
    """

    entries: Entries
    evaluation: Evaluation
    uploads: tuple[Upload, ...]
    sent_as: uuid.UUID


@service(*DESK)
def mend_pieces(
    actor: Actor, preflight_id: int, wanted: Wanted, *, why: str, is_waived: bool = False, even_begun: bool = False
) -> Change:
    """Change pieces for their customer, who gets a mail; a reason is needed. Return the change.

    What they cost more is to be paid, what they cost less is given back, unless it is waived. Raises DeskError for
    what can't be made, and, unless `even_begun` says that it is made anew, for what is begun.
    """
    with transaction.atomic():
        order, preflight = to_be_made(preflight_id)
        made = Change.objects.filter(sent_as=wanted.sent_as).first()
        if made is not None:
            return made
        if not why.strip():
            raise DeskError("Please say why it is changed: its customer reads that.")
        if preflight.questions.filter(state="open").exists():
            raise DeskError(f"{preflight.piece} waits for its customer's answer. Take the question back to change it.")
        change = change_pieces(actor, order, preflight, wanted, why=why.strip(), is_waived=is_waived, anew=even_begun)
        want_change_mail(actor, change)
        settle(actor, order, preflight)
    return change


def change_pieces(
    actor: Actor,
    order: Order,
    preflight: Preflight,
    wanted: Wanted,
    *,
    why: str,
    is_waived: bool = False,
    anew: bool = False,
) -> Change:
    """Make pieces what they are to be from now on: prices, stock and papers follow, and they are looked at once more.

    To be called within a transaction that holds the order.
    """
    evaluation, before = wanted.evaluation, preflight.personalization
    if evaluation.verdict.blocked:
        raise DeskError(evaluation.verdict.blocking[0].message)
    refuse_packed(preflight)
    begun = begun_of(preflight)
    if begun and not anew:
        raise DeskError(f"It is begun: {'; '.join(begun)}. Say that it is made anew, or leave it as it is.")
    amount = cost_difference(preflight, evaluation)
    _follow_stock(actor, evaluation.setup, asked_of(before), evaluation.asked, is_begun=bool(begun))
    said = f"{preflight.piece}: {why}"
    after = keep_evaluation(before.revision, wanted.entries, evaluation, wanted.uploads)
    change = Change.objects.create(
        preflight=preflight,
        before=before,
        after=after,
        who=actor.name,
        why=why[:MOST_WHY],
        difference=note_difference(actor, order, amount, said, line=preflight.line, is_waived=is_waived),
        sent_as=wanted.sent_as,
    )
    _replace(preflight, before, after)
    note_event(actor, preflight, OrderEvent.Kind.MENDED, reason=change.why)
    pieces_changed.send(Preflight, order=order, place=place_of(preflight))
    keep_held(preflight)
    inspect_anew(preflight)
    return change


def refuse_packed(preflight: Preflight) -> None:
    """Raise DeskError for pieces of which any lies in a parcel, sent or not."""
    order, place = preflight.line.order, place_of(preflight)
    if any(packed for _, packed in packed_wanted.send(Preflight, order=order, place=place)):
        raise DeskError(gettext("{piece} is packed or sent already.").format(piece=preflight.piece))


def begun_of(preflight: Preflight) -> list[str]:
    """Return in words what of pieces is begun or made."""
    order, place = preflight.line.order, place_of(preflight)
    return [said for _, words in change_wanted.send(Preflight, order=order, place=place) for said in words or ()]


def _follow_stock(actor: Actor, setup: Setup, before: Asked, after: Asked, *, is_begun: bool) -> None:
    """Take the blanks that pieces are to be made of now, and put those of before back, unless they are begun."""
    was, wanted = Counter(before.taken(setup)), Counter(after.taken(setup))
    if is_begun:
        was = Counter()
    if was == wanted:
        return
    try:
        take_stock(actor, dict(wanted - was))
    except OutOfStockError as error:
        raise DeskError(str(error)) from error
    return_stock(actor, dict(was - wanted))


def _replace(preflight: Preflight, before: Personalization, after: Personalization) -> None:
    line = preflight.line
    line.pieces.filter(personalization=before, index__gte=preflight.index).update(personalization=after)
    if line.personalization_id == before.pk:
        line.personalization = after
    line.search_text = "\n".join(dict.fromkeys(_texts(line)))
    line.save(update_fields=["personalization", "search_text"])
    preflight.personalization = after
    preflight.save(update_fields=["personalization"])


def _texts(line: Line) -> Iterable[str]:
    for one in different_pieces(line).values():
        yield from (text.text for area in read_as_kept(one).areas for text in area.texts)


def note_agreement(preflight: Preflight) -> None:
    """Keep that a customer agreed to pieces as they are now, by an answer. Once agreed to stays so."""
    recorded = read_as_kept(preflight.personalization)
    facts = {
        "how": Agreement.How.ANSWER,
        "digests": {side.key: side.digest for side in recorded.sides},
        "texts": [text.made.words for text in piece_in_words(recorded).texts],
        "agreed_at": timezone.now(),
    }
    Agreement.objects.get_or_create(line=preflight.line, personalization=preflight.personalization, defaults=facts)
