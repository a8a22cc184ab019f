"""Ordering again what was ordered before: an order's pieces lie in a basket once more, to be changed or not."""

import uuid

from django.db import transaction

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Design, NameList, NameRow
from yenzo.apps.designs.services.looks import copied, copied_list
from yenzo.apps.orders.models import Line, Order
from yenzo.apps.orders.to_core import different_pieces


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def order_again(actor: Actor, order: Order, *, visitor: uuid.UUID) -> list[Design | NameList]:  # noqa: ARG001
    """Give a visitor copies of what an order had: pieces in the basket, lists to be looked through first.

    Orders of before their entries were kept have none to give.
    """
    made: list[Design | NameList] = []
    with transaction.atomic():
        lines = order.lines.select_related("revision", "personalization", "names")
        for line in lines:
            if line.personalization.entries is None:
                continue
            if line.is_list:
                made.append(_list_again(line, visitor))
            else:
                kept = copied(line.personalization, visitor)
                made.append(Design.objects.create(visitor=visitor, personalization=kept))
    return made


def _list_again(line: Line, visitor: uuid.UUID) -> NameList:
    """Return the list that a line was ordered by as a new one; where that is gone, a list of its pieces' entries."""
    if line.names is not None:
        return copied_list(line.names, visitor)
    pieces = list(different_pieces(line).values())
    values = [(piece.entries or {}).get("values", {}) for piece in pieces]
    differing = [key for key in values[0] if any(one.get(key) != values[0][key] for one in values)]
    texts = [key for key in differing if all(isinstance(one.get(key, ""), str) for one in values)]
    shared = {key: value for key, value in values[0].items() if key not in texts}
    common = {**(pieces[0].entries or {}), "values": shared, "pieces": 1}
    names = NameList.objects.create(
        visitor=visitor, revision=line.revision, common=common, targets=texts, heads=texts, language="en-gb"
    )
    NameRow.objects.bulk_create(
        NameRow(list=names, number=number, cells=[one.get(key, "") for key in texts])
        for number, one in enumerate(values, 1)
    )
    return names
