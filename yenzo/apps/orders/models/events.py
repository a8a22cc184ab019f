"""What happened to orders: kinds of events, and their words for who reads."""

from datetime import date
from decimal import Decimal
from typing import ClassVar

from django.db import models
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.orders.models.orders import Order
from yenzo.apps.pages.templatetags.writing import day
from yenzo.core.translation import money

# What happens within the workshop is no customer's matter.
INWARD = ("spoilt", "pack_ready", "pack_again", "typed_order", "held", "released", "waived", "rushed", "day_moved")


class OrderEvent(models.Model):
    """Something that happened to an order: what kind of thing, its facts, when, and who did it."""

    class Kind(models.TextChoices):
        PLACED = "placed"
        PAID = "paid"
        DECLINED = "declined"
        CANCELLED = "cancelled"
        CANCELLED_PAID = "cancelled_paid"
        PACK_READY = "pack_ready"
        PACK_AGAIN = "pack_again"
        TYPED_ORDER = "typed_order"
        BEGUN = "begun"
        MADE = "made"
        SPOILT = "spoilt"
        SENT = "sent"
        PART_SENT = "part_sent"
        DELIVERED = "delivered"
        HELD = "held"
        RELEASED = "released"
        WAIVED = "waived"
        ASKED = "asked"
        REMINDED = "reminded"
        ANSWERED = "answered"
        WITHDRAWN = "withdrawn"
        WAITED = "waited"
        MENDED = "mended"
        PIECE_CANCELLED = "piece_cancelled"
        COSTS_MORE = "costs_more"
        MORE_PAID = "more_paid"
        MORE_WAIVED = "more_waived"
        GIVEN_BACK = "given_back"
        RUSHED = "rushed"
        DAY_MOVED = "day_moved"

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="events")
    at = models.DateTimeField(auto_now_add=True)
    who = models.CharField(max_length=120)
    kind = models.CharField(max_length=20, choices=Kind.choices)
    facts = models.JSONField(default=dict, help_text="what its sentence names")

    class Meta:
        ordering: ClassVar = ["at", "pk"]

    def __str__(self) -> str:
        return self.words

    @property
    def words(self) -> str:
        """What happened, in the language of who reads."""
        facts = dict(self.facts)
        if "amount" in facts:
            facts["amount"] = money(Decimal(facts["amount"]), facts["currency"])
        if "day" in facts:
            facts["day"] = day(date.fromisoformat(facts["day"]))
        return gettext(EVENT_WORDS[self.Kind(self.kind)]).format(**facts)


# Those that are inward are for the workshop, in its own language.
EVENT_WORDS = {
    OrderEvent.Kind.PLACED: gettext_noop("Ordered; the spelling was checked"),
    OrderEvent.Kind.PAID: gettext_noop("Paid"),
    OrderEvent.Kind.DECLINED: gettext_noop("The payment was declined; nothing was taken"),
    OrderEvent.Kind.CANCELLED: gettext_noop("Cancelled"),
    OrderEvent.Kind.CANCELLED_PAID: gettext_noop("Cancelled; what was paid is paid back"),
    OrderEvent.Kind.PACK_READY: gettext_noop("Pack {piece} is ready"),
    OrderEvent.Kind.PACK_AGAIN: gettext_noop("Pack {piece} is tried again"),
    OrderEvent.Kind.BEGUN: gettext_noop("The workshop has begun to make it"),
    OrderEvent.Kind.MADE: gettext_noop("All of it is made"),
    OrderEvent.Kind.SPOILT: gettext_noop("{job}: {count} spoilt and made again: {reason}"),
    OrderEvent.Kind.SENT: gettext_noop("On its way"),
    OrderEvent.Kind.PART_SENT: gettext_noop("{pieces} pieces are on their way: {parcel}"),
    OrderEvent.Kind.DELIVERED: gettext_noop("Delivered"),
    OrderEvent.Kind.HELD: "{piece} is held: {reason}",
    OrderEvent.Kind.RELEASED: "{piece} is released to be made",
    OrderEvent.Kind.WAIVED: "{piece}: “{finding}” may stay: {reason}",
    OrderEvent.Kind.ASKED: gettext_noop("{piece}: a question to the customer"),
    OrderEvent.Kind.REMINDED: gettext_noop("{piece}: the customer was reminded of the question"),
    OrderEvent.Kind.ANSWERED: gettext_noop("{piece}: the question is answered"),
    OrderEvent.Kind.WITHDRAWN: gettext_noop("{piece}: the question was taken back"),
    OrderEvent.Kind.WAITED: gettext_noop("The answer took {days} working days; it leaves by {day}"),
    OrderEvent.Kind.MENDED: gettext_noop("{piece} was changed: {reason}"),
    OrderEvent.Kind.PIECE_CANCELLED: gettext_noop("{piece} is cancelled: {reason}"),
    OrderEvent.Kind.COSTS_MORE: gettext_noop("{amount} more are to be paid: {reason}"),
    OrderEvent.Kind.MORE_PAID: gettext_noop("{amount} more are paid"),
    OrderEvent.Kind.MORE_WAIVED: gettext_noop("{amount} more needn’t be paid"),
    OrderEvent.Kind.GIVEN_BACK: gettext_noop("{amount} were paid back"),
    OrderEvent.Kind.RUSHED: "To be made before all others",
    OrderEvent.Kind.DAY_MOVED: "It leaves by {day}: {reason}",
    OrderEvent.Kind.TYPED_ORDER: gettext_noop(
        "Piece {number}: its text runs in both directions and keeps the order that its customer saw"
    ),
}
