"""Orders, their lines and pieces, and what happened to them."""

import re
import secrets
import uuid
from typing import ClassVar, Self

from django.db import models
from django.db.models import F, Func, Q, Value
from django.utils import timezone
from django.utils.translation import gettext_lazy

from yenzo.apps.designs.models import NameList, Personalization
from yenzo.apps.pages.addresses import AddressError, mail_identity
from yenzo.apps.products.models import Product, Revision

TOKEN_BYTES = 24
MOST_WORDS_IN_TABLE = 4
# "2041", or what stands on a ticket: "T-2041-1", "T-2041-1.7".
NUMBER_OR_TICKET = re.compile(r"(T-)?(?P<number>\d{1,9})(-\d+(\.\d+)?)?", re.ASCII | re.IGNORECASE)
# What people call an order: counted by the database, so that no two have the same. Some are left out, when an order
# was begun and not made; that is less harm than one that waits for another.
NEXT_NUMBER = Func(Value("orders_number"), function="nextval", output_field=models.BigIntegerField())


def new_token() -> str:
    """Return the unguessable part of an order's address."""
    return secrets.token_urlsafe(TOKEN_BYTES)


class OrderQuerySet(models.QuerySet["Order"]):
    def for_list(self) -> Self:
        """Return all orders with what the list shows of them, the latest first."""
        # Whole documents and records would be read for a name and a mark.
        lines = Line.objects.select_related("revision", "personalization").only(
            "order_id", "number", "quantity", "cancelled", "search_text", "revision__name", "personalization__asked"
        )
        return self.prefetch_related(models.Prefetch("lines", lines)).order_by("-pk")

    def of_customer(self, mail: str) -> Self:
        """Return the orders of who proved this mail address."""
        try:
            return self.for_list().filter(customer_identity=mail_identity(mail))
        except AddressError:
            return self.none()

    def with_status(self, status: str) -> Self:
        """Return the orders that stand so: by payment as long as they aren't cancelled, or by how far they are."""
        made = self.filter(state=Order.State.PLACED, payment_state=Order.PaymentState.PAID)
        stages = {
            "late": made.filter(sent_at=None, leaves_on__lt=timezone.localdate()),
            "making": made.filter(made_at=None, begun_at__isnull=False),
            "made": made.filter(made_at__isnull=False, sent_at=None),
            "sent": made.filter(sent_at__isnull=False),
        }
        if status in stages:
            return stages[status]
        if status == Order.State.CANCELLED:
            return self.filter(state=Order.State.CANCELLED)
        return self.filter(state=Order.State.PLACED, payment_state=status)

    def sorted_by(self, by: str) -> Self:
        """Return the orders in an order that lists offer, what isn't known last; the latest first for any other."""
        if by not in SORTINGS:
            return self
        field, *_ = SORTINGS[by]
        first = F(field.removeprefix("-"))
        return self.order_by(first.desc(nulls_last=True) if field[0] == "-" else first.asc(nulls_last=True), "-pk")

    def matching(self, words: str) -> Self:
        """Return the orders with this number, of this customer or product, or with these words on the goods."""
        found = (
            Q(customer_name__icontains=words)
            | Q(customer_mail__icontains=words)
            | Q(lines__search_text__icontains=words)
            | Q(lines__revision__name__icontains=words)
        )
        named = NUMBER_OR_TICKET.fullmatch(words)
        if named:
            found |= Q(number=int(named["number"]))
        return self.filter(found).distinct()


class Order(models.Model):
    """What a customer ordered. Whoever has its token may see it."""

    class Channel(models.TextChoices):
        SHOP = "shop", gettext_lazy("Shop")

    class State(models.TextChoices):
        PLACED = "placed", gettext_lazy("Placed")
        CANCELLED = "cancelled", gettext_lazy("Cancelled")

    class PaymentState(models.TextChoices):
        WAITING = "waiting", gettext_lazy("Waiting for payment")
        UNKNOWN = "unknown", gettext_lazy("Payment unknown")
        PAID = "paid", gettext_lazy("Paid")
        OWED_BACK = "owed_back", gettext_lazy("To be paid back")
        PAID_BACK = "paid_back", gettext_lazy("Paid back")

    class WaitsFor(models.TextChoices):
        CUSTOMER = "customer", "Customer"
        DESK = "desk", "Desk"
        STATION = "station", "Station"

    number = models.BigIntegerField(unique=True, db_default=NEXT_NUMBER, help_text="what people call the order")
    channel = models.CharField(max_length=20, choices=Channel.choices, default=Channel.SHOP)
    outside_number = models.CharField(
        max_length=80, blank=True, help_text="what the order is called where it came from; none of the shop's own"
    )
    token = models.CharField(max_length=64, unique=True, default=new_token)
    # Buttons are pressed twice and lines break after an order was made: whoever sends it again gets the same one.
    checkout_key = models.UUIDField(unique=True, help_text="one checkout makes one order, however often it is sent")
    visitor = models.UUIDField(default=uuid.uuid4)
    customer_name = models.CharField(max_length=120)
    customer_mail = models.EmailField()
    customer_identity = models.CharField(
        max_length=320, blank=True, db_index=True, help_text="the mail address as it is compared; none of old ones"
    )
    is_mail_proven = models.BooleanField(default=False, help_text="whether its customer had signed in with it")
    address = models.TextField(max_length=1200, help_text="as it is written in the country it is in, without the name")
    delivery_address = models.JSONField(null=True, help_text="in its parts; none of orders of before")
    invoice_address = models.JSONField(null=True, help_text="in its parts, where it is another one")
    delivery = models.JSONField(
        null=True, help_text="the way that was chosen, as it was then; none of orders of before"
    )
    delivery_price = models.DecimalField(max_digits=12, decimal_places=3, default=0, help_text="within the total")
    leaves_on = models.DateField(null=True, help_text="by when it leaves, as it was promised")
    arrives_on = models.DateField(null=True, help_text="by when it arrives, as it was promised")
    wished_for = models.DateField(null=True, help_text="the day that the customer wishes it for")
    note = models.TextField(blank=True, max_length=2000, help_text="from the customer to the workshop")
    purchase_number = models.CharField(max_length=60, blank=True, help_text="what the customer's own books call it")
    repeats = models.CharField(max_length=60, blank=True, help_text="an order or ticket of before that it is like")
    again_of = models.ForeignKey("self", null=True, blank=True, on_delete=models.SET_NULL, related_name="orders_again")
    language = models.CharField(max_length=20, default="en-gb", help_text="of the customer")
    currency = models.CharField(max_length=3)
    total = models.DecimalField(max_digits=12, decimal_places=3)
    state = models.CharField(max_length=10, choices=State.choices, default=State.PLACED)
    payment_state = models.CharField(max_length=10, choices=PaymentState.choices, default=PaymentState.WAITING)
    spelling_checked_at = models.DateTimeField()
    placed_at = models.DateTimeField(auto_now_add=True)
    is_rush = models.BooleanField(default=False, help_text="made before all others")
    # What follows from payment, preflight, questions and jobs; the desk's app works it out.
    waits_for = models.CharField(
        max_length=10,
        choices=WaitsFor.choices,
        blank=True,
        default=WaitsFor.CUSTOMER,
        help_text="whose turn it is; nobody's once it is sent or cancelled",
    )
    waits_since = models.DateTimeField(default=timezone.now)
    begun_at = models.DateTimeField(null=True, help_text="when the first of it was begun to be made")
    # What follows from its jobs; production counts them.
    pieces_made = models.PositiveIntegerField(default=0)
    made_at = models.DateTimeField(null=True, help_text="when all of it was made")
    sent_at = models.DateTimeField(null=True)
    delivered_at = models.DateTimeField(null=True, help_text="when the carrier says that all of it arrived")
    carrier = models.CharField(max_length=80, blank=True)
    parcel_number = models.CharField(max_length=80, blank=True, help_text="by which the carrier knows it")

    objects = OrderQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=Q(total__gte=0), name="order_total_is_not_negative"),
            models.UniqueConstraint(
                fields=["channel", "outside_number"],
                condition=~Q(outside_number=""),
                name="order_of_outside_comes_in_once",
            ),
            models.CheckConstraint(
                condition=~Q(payment_state__in=("owed_back", "paid_back")) | Q(state="cancelled"),
                name="only_cancelled_orders_are_paid_back",
            ),
        ]

    def __str__(self) -> str:
        return f"Order {self.number}"

    @property
    def is_cancelled(self) -> bool:
        """Whether it was cancelled."""
        return self.state == self.State.CANCELLED

    @property
    def is_paid(self) -> bool:
        """Whether it is paid and to be made."""
        return self.payment_state == self.PaymentState.PAID and not self.is_cancelled

    @property
    def status(self) -> str:
        """How it stands, in one of the words that lists are filtered by."""
        return self.state if self.is_cancelled else self.payment_state

    @property
    def status_words(self) -> str:
        """How it stands, as people say it."""
        return str(dict(STATUSES)[self.status])

    @property
    def stage(self) -> str:
        """How far a paid order is: not begun, making, made, sent; empty for others."""
        if not self.is_paid:
            return ""
        if self.sent_at or self.made_at:
            return "sent" if self.sent_at else "made"
        return "making" if self.begun_at else "paid"

    @property
    def is_late(self) -> bool:
        """Whether it was to leave before today and hasn't."""
        is_due = self.leaves_on is not None and self.leaves_on < timezone.localdate()
        return is_due and self.is_paid and self.sent_at is None

    @property
    def is_cancellable(self) -> bool:
        """Whether it can be cancelled: not while a payment is under way."""
        return not self.is_cancelled and self.payment_state != self.PaymentState.UNKNOWN

    @property
    def is_cancellable_by_customer(self) -> bool:
        """Whether its customer can cancel it by themselves: while nothing of it is begun."""
        return self.is_cancellable and self.begun_at is None

    @property
    def delivery_name(self) -> str:
        """How it is delivered; empty of orders of before that was asked."""
        return str((self.delivery or {}).get("name", ""))

    @property
    def is_picked_up(self) -> bool:
        """Whether its customer picks it up."""
        return bool((self.delivery or {}).get("is_pickup"))

    @property
    def pieces(self) -> int:
        """How many pieces it has that are to be made."""
        return sum(line.quantity - line.cancelled for line in self.lines.all())

    @property
    def is_payable(self) -> bool:
        """Whether a payment may begin now."""
        return not self.is_cancelled and self.payment_state == self.PaymentState.WAITING


# What lists are sorted by: the field, and what that is called.
SORTINGS = {
    "day": ("leaves_on", "Leaves by"),
    "waits": ("waits_since", "Waits since"),
    "total": ("-total", "Total"),
    "customer": ("customer_name", "Customer"),
}

# What lists are filtered by.
STATUSES = (
    *((key, name) for key, name in Order.PaymentState.choices if key not in {"owed_back", "paid_back"}),
    (Order.State.CANCELLED.value, Order.State.CANCELLED.label),
)


# How far paid ones are, for the workshop's list.
STAGES = (("late", "Late"), ("making", "Being made"), ("made", "Made, not sent"), ("sent", "Sent"))


class Line(models.Model):
    """One line of an order: a personalization as it was ordered, how many of it, and the price of all.

    Of a list of names its personalization is that of the first row; each piece has its own.
    """

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="lines")
    number = models.PositiveSmallIntegerField()
    product = models.ForeignKey(Product, on_delete=models.PROTECT, related_name="+")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="lines")
    quantity = models.PositiveIntegerField()
    cancelled = models.PositiveIntegerField(default=0, help_text="how many of its pieces aren't made any more")
    # Of a list of names; else all its pieces are alike.
    rows = models.PositiveIntegerField(default=1, help_text="how many different pieces it has")
    names = models.ForeignKey(
        NameList,
        null=True,
        blank=True,
        on_delete=models.SET_NULL,
        related_name="lines",
        help_text="what it was ordered by",
    )
    # Frozen, and not worked out again: what a customer agreed to pay doesn't follow what charges come to later.
    quote = models.JSONField()
    search_text = models.TextField(help_text="the texts that are produced")

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["order", "number"], name="line_number_is_unique_in_its_order"),
            models.CheckConstraint(condition=Q(quantity__gte=1), name="line_has_pieces"),
            models.CheckConstraint(
                condition=Q(cancelled__lte=models.F("quantity")), name="line_cancels_at_most_its_pieces"
            ),
            models.CheckConstraint(
                condition=Q(rows__gte=1, rows__lte=models.F("quantity")), name="line_rows_are_pieces"
            ),
        ]

    def __str__(self) -> str:
        return f"T-{self.order.number}-{self.number}"

    @property
    def first_words(self) -> str:
        """The texts that are produced, as far as a table has room for them."""
        lines = self.search_text.split("\n")
        more = len(lines) - MOST_WORDS_IN_TABLE
        return self.search_text if more <= 0 else "\n".join([*lines[:MOST_WORDS_IN_TABLE], f"… {more} more"])

    @property
    def is_list(self) -> bool:
        """Whether its pieces differ: it was ordered by a list of names."""
        return self.rows > 1

    @property
    def is_in_typed_order(self) -> bool:
        """Whether its text runs both ways and was ordered before such texts were set as they are read."""
        return bool((self.personalization.asked or {}).get("in_typed_order"))


class Piece(models.Model):
    """One of the goods of a line, with what is to be on it now: it can be mended, made and spoilt by itself."""

    line = models.ForeignKey(Line, on_delete=models.CASCADE, related_name="pieces")
    # A row each, though most lines' pieces are the same: one of a list of names is mended or spoilt without the others.
    index = models.PositiveIntegerField(help_text="counted from 1 in its line")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="pieces")

    class Meta:
        ordering: ClassVar = ["line", "index"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["line", "index"], name="piece_index_is_unique_in_its_line"),
            models.CheckConstraint(condition=Q(index__gte=1), name="pieces_are_counted_from_one"),
        ]

    def __str__(self) -> str:
        return f"{self.line}.{self.index}" if self.line.quantity > 1 else str(self.line)


class Agreement(models.Model):
    """What a customer agreed to: pieces as they were shown, read letter for letter, before they were made."""

    class How(models.TextChoices):
        CHECKOUT = "checkout"
        ANSWER = "answer"

    line = models.ForeignKey(Line, on_delete=models.CASCADE, related_name="agreements")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="agreements")
    how = models.CharField(max_length=10, choices=How.choices)
    # What was shown is known by these for good, whatever becomes of the pictures.
    digests = models.JSONField(help_text="by side: the digest of what was shown")
    texts = models.JSONField(help_text="the texts as they were read")
    agreed_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["line", "personalization"], name="piece_is_agreed_to_once"),
        ]

    def __str__(self) -> str:
        return f"Agreed to {self.line}, {self.agreed_at:%Y-%m-%d %H:%M}"
