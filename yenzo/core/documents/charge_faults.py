"""Charges that can't be right: a set-up comes in, sentences that name charge and field go out."""

from collections.abc import Iterator
from decimal import Decimal

from yenzo.core.documents.charges import (
    OF_A_FIELD,
    AnyCharge,
    BandCharge,
    CharacterCharge,
    ChoiceCharge,
    CountedCharge,
    FormulaCharge,
    LineCharge,
    PercentCharge,
    UploadCharge,
    WordCharge,
)
from yenzo.core.documents.fields import AnyField, SeveralField
from yenzo.core.documents.named import MEASURED, formula_fault
from yenzo.core.documents.setup import Setup


def charge_name(setup: Setup, charge: AnyCharge) -> str:
    """Return what a charge is called in sentences: after its label, its field or the piece."""
    field = setup.field(charge.field or "")
    return charge.label or (field.label if field else setup.offer.name)


def find_charge_faults(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each charge that hangs on what isn't there or counts what its field hasn't."""
    for charge in setup.charges:
        if charge.field is None:
            yield from _of_the_piece(setup, charge)
            continue
        field = setup.field(charge.field)
        if field is None:
            yield f"A charge hangs on the field “{charge.field}”, which isn't there."
        elif fault := _unfit(field, charge):
            yield f"“{field.label}” {fault}"
        elif isinstance(charge, ChoiceCharge):
            yield from _charged_choices(field, charge)
        elif isinstance(charge, FormulaCharge) and (fault := formula_fault(setup, charge.formula, *MEASURED)):
            yield f"The charge of “{field.label}” can't be worked out: {fault}"


def _of_the_piece(setup: Setup, charge: AnyCharge) -> Iterator[str]:
    if isinstance(charge, OF_A_FIELD) or (isinstance(charge, BandCharge) and charge.of == "entry"):
        yield f"The charge “{charge.key}” counts what is entered; hang it on a field."
    elif isinstance(charge, FormulaCharge) and (fault := formula_fault(setup, charge.formula, *MEASURED)):
        yield f"The charge “{charge_name(setup, charge)}” can't be worked out: {fault}"


def _unfit(field: AnyField, charge: AnyCharge) -> str | None:
    """Return why a field can't have a charge."""
    if not field.has_entry:
        return "is a heading: nothing is charged for it."
    if isinstance(charge, CharacterCharge | WordCharge) and charge.kind not in field.charged_by:
        by = "character" if isinstance(charge, CharacterCharge) else "word"
        return f"can't be charged by the {by}: it isn't a text."
    if isinstance(charge, LineCharge) and charge.kind not in field.charged_by:
        return "can't be charged by the line: it has only one."
    if isinstance(charge, UploadCharge) and charge.kind not in field.charged_by:
        return "can't be charged by the file: it isn't an upload."
    if isinstance(charge, BandCharge) and charge.of == "entry" and not field.is_number:
        return "has no number that bands could be of."
    return None


def _charged_choices(field: AnyField, charge: ChoiceCharge) -> Iterator[str]:
    if charge.kind not in field.charged_by:
        yield f"“{field.label}” can't be charged by the choice: it isn't one."
        return
    # Of a whole palette, which color is offered shows with the materials.
    offered = charge.amounts if field.offered is None else field.offered
    for key in sorted(set(charge.amounts) - set(offered)):
        yield f"“{field.label}” has a charge for “{key}”, which it doesn't offer."


def find_prices_below_zero(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each charge that can push the price below zero, and for all of them together."""
    offer = setup.offer
    lowest = offer.base_price + min((variant.price_difference for variant in offer.variants), default=Decimal(0))
    if lowest < 0:
        yield f"With its cheapest variant “{offer.name}” would cost {lowest}, less than nothing."
        return
    for charge in setup.charges:
        name = charge_name(setup, charge)
        least = _least(setup, charge, lowest)
        if least is None:
            yield f"The charge of “{name}” may take off more and more; say the least that it comes to."
            continue
        lowest += min(least, Decimal(0))
        if lowest < 0:
            yield f"The charge of “{name}” can push the price below zero, to {lowest}."
            return


def _least(setup: Setup, charge: AnyCharge, base: Decimal) -> Decimal | None:
    """Return the least that a charge comes to; None when there is no end to it."""
    if isinstance(charge, FormulaCharge):
        found: Decimal | None = None
    elif isinstance(charge, CountedCharge):
        found = Decimal(0) if charge.amount >= 0 else None
    elif isinstance(charge, ChoiceCharge):
        several = isinstance(setup.field(charge.field or ""), SeveralField)
        below = [amount for amount in charge.amounts.values() if amount < 0]
        found = sum(below, Decimal(0)) if several else min(charge.amounts.values(), default=Decimal(0))
    elif isinstance(charge, BandCharge):
        found = min(Decimal(0), *(band.amount + base * band.percent / 100 for band in charge.bands))
    else:
        found = base * charge.percent / 100 if isinstance(charge, PercentCharge) else charge.amount
    return charge.least if found is None else charge.bounded(found)
