"""Orders, their pieces and what happened to them."""

import re
import secrets
import uuid
from typing import ClassVar, Self

from django.db import models
from django.db.models import Q
from django.utils.translation import gettext, gettext_lazy

from yenzo.apps.accounts.addresses import AddressError, mail_identity
from yenzo.apps.catalogue.models import Revision
from yenzo.apps.designs.models import Upload

# What people call an order counts on from here, so that the first one isn't number 1.
NUMBERS_BEGIN_AFTER = 2000
TOKEN_BYTES = 24
# "2041", or what stands on a ticket: "T-2041-1".
NUMBER_OR_TICKET = re.compile(r"(T-)?(?P<number>\d{1,9})(-\d+)?", re.ASCII | re.IGNORECASE)


def new_token() -> str:
    """Return the unguessable part of an order's address."""
    return secrets.token_urlsafe(TOKEN_BYTES)


class OrderQuerySet(models.QuerySet["Order"]):
    def for_list(self) -> Self:
        """Return all orders with what the list shows of them, the latest first."""
        return self.prefetch_related("pieces__revision").order_by("-pk")

    def of_customer(self, mail: str) -> Self:
        """Return the orders of who proved this mail address."""
        try:
            return self.for_list().filter(customer_identity=mail_identity(mail))
        except AddressError:
            return self.none()

    def numbered(self, number: int) -> Self:
        """Return the order with the number that people use."""
        return self.filter(pk=number - NUMBERS_BEGIN_AFTER)

    def matching(self, words: str) -> Self:
        """Return the orders with this number, of this customer or product, or with these words on the goods."""
        found = (
            Q(customer_name__icontains=words)
            | Q(customer_mail__icontains=words)
            | Q(pieces__search_text__icontains=words)
            | Q(pieces__revision__name__icontains=words)
        )
        named = NUMBER_OR_TICKET.fullmatch(words)
        if named:
            found |= Q(pk=int(named["number"]) - NUMBERS_BEGIN_AFTER)
        return self.filter(found).distinct()


class Order(models.Model):
    """What a customer ordered. Whoever has its token may see it."""

    class State(models.TextChoices):
        WAITING = "waiting", gettext_lazy("Waiting for payment")
        UNKNOWN = "unknown", gettext_lazy("Payment unknown")
        PAID = "paid", gettext_lazy("Paid")
        CANCELLED = "cancelled", gettext_lazy("Cancelled")

    token = models.CharField(max_length=64, unique=True, default=new_token)
    checkout_key = models.UUIDField(unique=True, help_text="one checkout makes one order, however often it is sent")
    visitor = models.UUIDField(default=uuid.uuid4)
    customer_name = models.CharField(max_length=120)
    customer_mail = models.EmailField()
    customer_identity = models.CharField(
        max_length=320, blank=True, db_index=True, help_text="the mail address as it is compared; none of old ones"
    )
    is_mail_proven = models.BooleanField(default=False, help_text="whether its customer had signed in with it")
    address = models.TextField(max_length=600)
    language = models.CharField(max_length=20, default="en-gb", help_text="of the customer")
    currency = models.CharField(max_length=3)
    total = models.DecimalField(max_digits=12, decimal_places=3)
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    spelling_checked_at = models.DateTimeField()
    placed_at = models.DateTimeField(auto_now_add=True)

    objects = OrderQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(total__gte=0), name="order_total_is_not_negative"),
        ]

    def __str__(self) -> str:
        return f"Order {self.number}"

    @property
    def number(self) -> int:
        """What people call the order."""
        return self.pk + NUMBERS_BEGIN_AFTER

    @property
    def is_cancellable(self) -> bool:
        """Whether it can be cancelled: not while a payment is under way."""
        return self.state in {self.State.WAITING, self.State.PAID}

    @property
    def is_payable(self) -> bool:
        """Whether a payment may begin now."""
        return self.state == self.State.WAITING


class Piece(models.Model):
    """One line of an order: frozen are what was asked, its price, and the revision that it was made with."""

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="pieces")
    number = models.PositiveSmallIntegerField()
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    asked = models.JSONField()
    quote = models.JSONField()
    search_text = models.TextField(help_text="the texts that are produced")
    uploads = models.ManyToManyField(Upload, related_name="pieces")

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["order", "number"], name="piece_number_is_unique_in_its_order"),
        ]

    def __str__(self) -> str:
        return f"T-{self.order.number}-{self.number}"

    @property
    def is_in_typed_order(self) -> bool:
        """Whether its text runs both ways and was ordered before such texts were set as they are read."""
        return bool(self.asked.get("in_typed_order"))


class OrderEvent(models.Model):
    """Something that happened to an order, and who did it."""

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="events")
    at = models.DateTimeField(auto_now_add=True)
    who = models.CharField(max_length=120)
    what = models.CharField(max_length=300, help_text="in English; {names} in it stand for facts")
    facts = models.JSONField(default=dict)

    class Meta:
        ordering: ClassVar = ["at", "pk"]

    def __str__(self) -> str:
        return self.words

    @property
    def words(self) -> str:
        """What happened, in the language of who reads."""
        said = gettext(self.what)
        return said.format(**self.facts) if self.facts else said
