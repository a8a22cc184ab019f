"""Changes of a draft: small operations that carry the version seen, each with its way back."""

from collections.abc import Sequence
from typing import Any

from django.db import transaction

from yenzo.apps.accounts.rights import SELLERS, Actor, service
from yenzo.apps.products.models import DraftEdit, Product
from yenzo.apps.products.models.products import MOST_IN_A_CATEGORY
from yenzo.apps.products.to_core import read_draft, setup_of_draft
from yenzo.core.documents.edits import OPERATIONS, Operation, SetValue, apply_operations, value_at
from yenzo.core.documents.faults import find_nonsense
from yenzo.core.documents.reading import in_words
from yenzo.core.documents.renaming import followed_wording
from yenzo.core.errors import DocumentError

# Of what two people changed, so much is shown beside each other.
MOST_SAID = 200


class StaleEditError(DocumentError):
    """Somebody changed the same value meanwhile; the message shows both."""


@service(*SELLERS)
def edit_draft(
    actor: Actor,
    product_id: int,
    operations: Sequence[dict[str, Any]],
    *,
    seen_version: int,
    label: str,
    asked_as: str = "",
) -> Product:
    """Apply operations to a draft as one step; raises DocumentError (StaleEditError when overtaken).

    What is asked again as it was asked before, since its answer was lost on the way, is done once.
    """
    parsed = OPERATIONS.validate_python(list(operations))
    with transaction.atomic():
        product = Product.objects.select_for_update().get(pk=product_id)
        newer = product.edits.made_since(seen_version).filter(state=DraftEdit.State.DONE)
        if asked_as and newer.filter(person=actor.member, asked_as=asked_as).exists():
            return product
        _refuse_stale(product, parsed, seen_version)
        parsed = (*parsed, *_translations_along(product, parsed))
        back = _apply(product, parsed)
        if not back:
            # Nothing is otherwise: there is no step to take back, and what was taken back can still be done again.
            return product
        DraftEdit.objects.redoable_by(actor.member).filter(product=product).update(state=DraftEdit.State.DROPPED)
        DraftEdit.objects.create(
            product=product,
            version=product.draft_version,
            person=actor.member,
            label=label[:200],
            operations=_dumped(parsed),
            back=_dumped(back),
            asked_as=asked_as,
        )
    return product


@service(*SELLERS)
def undo_edit(actor: Actor, product_id: int) -> str:
    """Take back this person's latest edit that counts; return its label. Raises DocumentError when it can't be."""
    with transaction.atomic():
        product = Product.objects.select_for_update().get(pk=product_id)
        edit = DraftEdit.objects.undoable_by(actor.member).filter(product=product).first()
        if edit is None:
            raise DocumentError("nothing", product.key, "There is nothing of yours to undo.")
        later = [
            other
            for other in DraftEdit.objects.made_since(edit.version).filter(product=product, state=DraftEdit.State.DONE)
            if _overlap(_parsed(other.operations), _parsed(edit.operations))
        ]
        if later:
            message = (
                f"“{edit.label}” can't be undone: {later[-1].person} changed the same since (“{later[-1].label}”)."
            )
            raise StaleEditError("stale", product.key, message)
        _apply(product, _parsed(edit.back))
        edit.state, edit.version = DraftEdit.State.UNDONE, product.draft_version
        edit.save(update_fields=["state", "version"])
    return edit.label


@service(*SELLERS)
def redo_edit(actor: Actor, product_id: int) -> str:
    """Do again what this person undid last; return its label. Raises DocumentError when it can't be."""
    with transaction.atomic():
        product = Product.objects.select_for_update().get(pk=product_id)
        edit = DraftEdit.objects.redoable_by(actor.member).filter(product=product).first()
        if edit is None:
            raise DocumentError("nothing", product.key, "There is nothing to do again.")
        back = _apply(product, _parsed(edit.operations))
        edit.state, edit.back, edit.version = DraftEdit.State.DONE, _dumped(back), product.draft_version
        edit.save(update_fields=["state", "back", "version"])
    return edit.label


def _apply(product: Product, operations: tuple[Operation, ...]) -> tuple[Operation, ...]:
    """Change the draft of a locked product; return the way back, empty where that changes nothing.

    The changed draft must be a readable set-up.
    """
    changed, back = apply_operations(product.draft, operations)
    if changed == product.draft:
        return ()
    try:
        setup = read_draft(changed)
    except DocumentError as error:
        raise DocumentError(error.code, product.key, in_words(error, changed)) from error
    is_priced = not product.is_kit
    nonsense = set(find_nonsense(setup, is_priced=is_priced))
    # Only what this edit brings is refused: a draft that makes no sense already can still be mended step by step.
    before = find_nonsense(setup_of_draft(product), is_priced=is_priced) if nonsense else ()
    if brought := nonsense - set(before):
        raise DocumentError("no_sense", product.key, " ".join(sorted(brought)))
    product.draft, product.name, product.category = changed, setup.offer.name, setup.offer.category[:MOST_IN_A_CATEGORY]
    product.draft_version += 1
    product.save(update_fields=["draft", "draft_version", "name", "category"])
    return back


def _translations_along(product: Product, operations: tuple[Operation, ...]) -> tuple[Operation, ...]:
    """Return what keeps the translations of words that these operations change in their place."""
    if not product.draft.get("wording"):
        return ()
    before = setup_of_draft(product)
    try:
        after = read_draft(apply_operations(product.draft, operations)[0])
    except DocumentError:
        # Refused in words when it is applied.
        return ()
    followed = followed_wording(before, after)
    return tuple(SetValue(path=("wording", language), value=known) for language, known in followed.items())


def _refuse_stale(product: Product, operations: tuple[Operation, ...], seen_version: int) -> None:
    for edit in DraftEdit.objects.made_since(seen_version).filter(product=product):
        if not _overlap(_parsed(edit.operations), operations):
            continue
        now, yours = _both(product, _parsed(edit.operations), operations, edit.label)
        message = (
            f"{edit.person} changed this while you had it open. There now: “{_said(now)}”. Yours: “{_said(yours)}”. "
            "Look at it again and decide."
        )
        raise StaleEditError("stale", product.key, message)


def _both(product: Product, theirs: tuple[Operation, ...], ours: tuple[Operation, ...], label: str) -> tuple[Any, Any]:
    """Return what stands in a draft now and what was to stand there, of the first value that both changed otherwise."""
    touched = [one for one in ours if any(_touch(one, other) for other in theirs)]
    for one in touched:
        if isinstance(one, SetValue):
            now = value_at(product.draft, one.path)
            if now != one.value:
                return now, one.value
    return label, "your change"


def _said(value: Any) -> str:
    said = "what it is without" if value is None else str(value)
    if isinstance(value, dict):
        said = ", ".join(f"{key} {part}" for key, part in value.items())
    return said if len(said) <= MOST_SAID else f"{said[:MOST_SAID]}…"


def _overlap(first: tuple[Operation, ...], second: tuple[Operation, ...]) -> bool:
    return any(_touch(a, b) for a in first for b in second)


def _touch(first: Operation, second: Operation) -> bool:
    a, b = _target(first), _target(second)
    shorter = min(len(a), len(b))
    return a[:shorter] == b[:shorter]


def _target(operation: Operation) -> tuple[str, ...]:
    if isinstance(operation, SetValue):
        return operation.path
    key = operation.item.get("key", "") if operation.do == "add" else operation.key
    return (*operation.path, str(key))


def _parsed(operations: Any) -> tuple[Operation, ...]:
    return OPERATIONS.validate_python(operations)


def _dumped(operations: tuple[Operation, ...]) -> Any:
    return OPERATIONS.dump_python(operations, mode="json")
