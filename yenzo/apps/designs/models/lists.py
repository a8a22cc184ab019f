"""Lists of names: many pieces of one product, each with entries of its own."""

import uuid
from typing import ClassVar, Self

from django.db import models

from yenzo.apps.designs.models.designs import Design
from yenzo.apps.designs.models.groups import Group
from yenzo.apps.designs.models.personalizations import Personalization
from yenzo.apps.designs.models.uploads import Upload
from yenzo.apps.products.models import Revision

FIRST = 3


class NameListQuerySet(models.QuerySet["NameList"]):
    def of_visitor(self, visitor: uuid.UUID) -> Self:
        """Return the lists of this visitor that weren't ordered, the latest first."""
        return self.filter(visitor=visitor, ordered_at=None).select_related("revision__product").order_by("-created_at")

    def with_counts(self) -> Self:
        """Return the lists with how many rows stand in each, as `row_count`."""
        return self.annotate(row_count=models.Count("rows", filter=models.Q(rows__is_out=False)))

    def in_basket_of(self, visitor: uuid.UUID) -> Self:
        """Return the lists in this visitor's basket, oldest first."""
        own = self.filter(visitor=visitor, in_basket=True).select_related("revision__product__live")
        return own.order_by("created_at")


class NameList(models.Model):
    """A list as its visitor has it now: what all pieces share, what each column gives, and its rows."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField(db_index=True)
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    common = models.JSONField(help_text="entries that all pieces share, as an entries document")
    uploads = models.ManyToManyField(Upload, related_name="lists", help_text="what the shared entries use")
    targets = models.JSONField(default=list, help_text="by column: what it gives, empty for nothing")
    heads = models.JSONField(default=list, help_text="by column: what it is headed by")
    language = models.CharField(max_length=20, help_text="in which its rows were checked")
    group = models.ForeignKey(
        Group, null=True, blank=True, on_delete=models.SET_NULL, related_name="lists", help_text="whose members fill it"
    )
    in_basket = models.BooleanField(default=False)
    ordered_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = NameListQuerySet.as_manager()
    # Of those that were read `with_counts` only.
    row_count: int

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=models.Q(ordered_at=None) | models.Q(in_basket=False), name="ordered_list_left_the_basket"
            ),
        ]

    def __str__(self) -> str:
        return f"List of {self.revision.name}, {self.id}"

    @property
    def first_rows(self) -> "models.QuerySet[NameRow]":
        """Its first rows, which stand for all of them where there is little room."""
        return self.rows.active()[:FIRST]


class NameRowQuerySet(models.QuerySet["NameRow"]):
    def active(self) -> Self:
        """Return the rows that weren't taken out, in their order."""
        return self.filter(is_out=False).order_by("number")

    def unchecked(self) -> Self:
        """Return the rows that are still to be checked."""
        return self.active().filter(state=NameRow.State.UNCHECKED)


class NameRow(models.Model):
    """One row: its cells as they were given, and what a check found of them."""

    class State(models.TextChoices):
        UNCHECKED = "unchecked"
        GOOD = "good"
        FAULTY = "faulty"

    list = models.ForeignKey(NameList, on_delete=models.CASCADE, related_name="rows")
    number = models.PositiveIntegerField(help_text="counted from 1 in its list; stays when others are taken out")
    cells = models.JSONField(help_text="by column, as they were given")
    meant = models.JSONField(default=dict, help_text="by field: answers to questions about this row")
    state = models.CharField(max_length=10, choices=State.choices, default=State.UNCHECKED)
    # A check that ends after the row was changed says nothing about it.
    version = models.PositiveIntegerField(default=1)
    told = models.JSONField(default=dict, help_text="what the check found, in words")
    digest = models.CharField(max_length=64, blank=True, help_text="of its first side as drawn")
    personalization = models.ForeignKey(
        Personalization, null=True, blank=True, on_delete=models.PROTECT, related_name="rows"
    )
    is_out = models.BooleanField(default=False, help_text="taken out, and can be put back")
    by = models.CharField(max_length=120, blank=True, help_text="the member of a group who filled it in")
    member = models.UUIDField(null=True, blank=True, help_text="that member's visitor")
    # Buttons are pressed twice: the same piece of a member is one row.
    sent_as = models.UUIDField(null=True, blank=True)
    design = models.ForeignKey(
        Design, null=True, blank=True, on_delete=models.SET_NULL, related_name="+", help_text="where each pays"
    )

    objects = NameRowQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["list", "number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["list", "number"], name="row_number_is_unique_in_its_list"),
            models.UniqueConstraint(fields=["list", "sent_as"], name="row_is_filled_in_once"),
            models.CheckConstraint(
                condition=~models.Q(state="good") | models.Q(personalization__isnull=False),
                name="good_row_has_its_personalization",
            ),
        ]

    def __str__(self) -> str:
        return f"Row {self.number} of {self.list_id}"
