"""Saving and removing what lies in a basket."""

import json
import uuid

from django.db import transaction
from django.utils import timezone

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Design, Upload
from yenzo.apps.designs.services.personalizations import keep_evaluation
from yenzo.apps.products.models import Revision
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import dump_document
from yenzo.core.evaluation import Evaluation

VISITORS = tuple(role for role in ALL_ROLES if role != SYSTEM)


@service(*VISITORS)
def save_design(
    actor: Actor,  # noqa: ARG001 - a visitor owns the designs, whoever is signed in
    revision: Revision,
    entries: Entries,
    evaluation: Evaluation,
    *,
    visitor: uuid.UUID,
    uploads: list[Upload],
    design_id: uuid.UUID | None = None,
    sent_as: uuid.UUID | None = None,
    in_basket: bool = True,
) -> Design:
    """Keep entries, and what evaluating them gave, as a design, in the basket or beside it, or in the place of one.

    The same entries, sent twice as the same (`sent_as`), are kept once. What lies in the basket already stays there.
    """
    document = dump_document(entries)
    with transaction.atomic():
        kept = keep_evaluation(revision, entries, evaluation, uploads)
        own = Design.objects.select_for_update().filter(visitor=visitor)
        design = own.of_visitor(visitor).filter(pk=design_id).first() if design_id else None
        if design is None and sent_as:
            content = json.dumps([str(visitor), revision.pk, document], sort_keys=True)
            once = uuid.uuid5(sent_as, content)
            facts = {"visitor": visitor, "personalization": kept, "in_basket": in_basket}
            design, is_new = own.get_or_create(pk=once, defaults=facts)
            if not is_new and design.personalization.entries != document:
                # It was changed in the basket since: this is another piece.
                design = None
        design = design or Design(visitor=visitor, personalization=kept, in_basket=in_basket)
        if design.revision.pk != revision.pk:
            design.kept_against = None
        design.personalization, design.in_basket = kept, design.in_basket or in_basket
        design.save()
    return design


@service(*VISITORS)
def name_design(actor: Actor, design_id: uuid.UUID, name: str, *, visitor: uuid.UUID) -> None:  # noqa: ARG001
    """Call a design by a name of its visitor's own."""
    Design.objects.filter(pk=design_id, visitor=visitor).update(name=name[:120])


@service(*VISITORS)
def throw_away_design(actor: Actor, design_id: uuid.UUID, *, visitor: uuid.UUID, is_away: bool) -> bool:  # noqa: ARG001
    """Throw a design away that doesn't lie in the basket, or take it up again; tell whether it was there."""
    own = Design.objects.filter(pk=design_id, visitor=visitor, in_basket=False)
    return bool(own.update(thrown_away_at=timezone.now() if is_away else None))


@service(*VISITORS)
def remove_design(actor: Actor, design_id: uuid.UUID, *, visitor: uuid.UUID) -> bool:  # noqa: ARG001
    """Take a design out of its visitor's basket; tell whether it was there."""
    return bool(Design.objects.filter(pk=design_id, visitor=visitor, in_basket=True).update(in_basket=False))


@service(*VISITORS)
def put_back_design(actor: Actor, design_id: uuid.UUID, *, visitor: uuid.UUID) -> bool:  # noqa: ARG001
    """Put a design back that was taken out of its visitor's basket; tell whether it was there to be put back."""
    return bool(Design.objects.taken_out_by(visitor).filter(pk=design_id).update(in_basket=True))


@service(*VISITORS)
def copy_design(actor: Actor, design_id: uuid.UUID, *, visitor: uuid.UUID) -> Design | None:  # noqa: ARG001
    """Make another piece like one, in the basket if that lies there; None if it isn't there."""
    with transaction.atomic():
        own = Design.objects.select_for_update(of=("self",)).for_list(visitor)
        design = own.filter(pk=design_id).first()
        if design is None:
            return None
        facts = {
            "personalization": design.personalization,
            "kept_against": design.kept_against,
            "name": design.name,
            "in_basket": design.in_basket,
        }
        return Design.objects.create(visitor=visitor, **facts)


@service(*VISITORS)
def keep_as_it_was(actor: Actor, design_id: uuid.UUID, live_id: int, *, visitor: uuid.UUID) -> bool:  # noqa: ARG001
    """Keep a piece as it was made, though this revision of its product is live by now; tell whether that holds.

    Whoever has seen another one than is live is asked again.
    """
    own = Design.objects.filter(pk=design_id, visitor=visitor, in_basket=True)
    # Saved, and not only updated: a checkout in another window sees that the basket is another one.
    with transaction.atomic():
        design = own.select_for_update(of=("self",)).select_related("personalization__revision__product").first()
        if design is None or design.revision.product.live_id != live_id:
            return False
        design.kept_against_id = live_id
        design.save()
    return True
