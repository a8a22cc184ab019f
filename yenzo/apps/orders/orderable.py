"""What keeps a piece from being ordered: a personalization as it is asked now comes in, reasons in words go out."""

from collections.abc import Iterator

from django.conf import settings
from django.utils.translation import gettext

from yenzo.apps.designs.personalized import Personalized


def obstacles(piece: Personalized) -> Iterator[str]:
    """Yield in words each reason why a piece can't be ordered as it is. Nothing else decides that."""
    product = piece.revision.product
    if product.is_resting:
        yield gettext("The workshop doesn't sell this at the moment. What you entered is kept here.")
    elif not piece.is_of_today:
        yield gettext("The workshop has changed this product since. Please look at it again.")
    yield from (item.message for item in piece.verdict.blocking)
    if piece.quote.total < 0:
        yield gettext("It would cost less than nothing. Please tell the workshop.")
    if piece.quote.currency != settings.CURRENCY:
        yield gettext("It is priced in {currency}; the shop sells in {other}.").format(
            currency=piece.quote.currency, other=settings.CURRENCY
        )
