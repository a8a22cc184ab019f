"""Hand-off packs: one a line, of a list one a row, kept as first made."""

from typing import ClassVar, Self

from django.db import models
from django.db.models import OuterRef, Q, Subquery

from yenzo.apps.designs.models import Personalization
from yenzo.apps.files.models import StoredFile
from yenzo.apps.orders.models import Line, Order, Piece


class PackQuerySet(models.QuerySet["Pack"]):
    def current(self) -> Self:
        """Return the packs of pieces as they are now, not those of before they were changed."""
        now = Piece.objects.filter(line=OuterRef("line"), index=OuterRef("index"))
        return self.filter(personalization=Subquery(now.values("personalization")))

    def under_way(self) -> Self:
        """Return the packs that something is still going to happen to by itself."""
        return self.filter(state__in=(Pack.State.WAITING, Pack.State.MAKING)).exclude(
            line__order__state=Order.State.CANCELLED
        )


class Pack(models.Model):
    """The pack of a line's pieces that are alike, from being wanted to being made."""

    class State(models.TextChoices):
        WAITING = "waiting", "Waiting for the worker"
        MAKING = "making", "Being made"
        DONE = "done", "Ready"
        FAILED = "failed", "Could not be made"
        DROPPED = "dropped", "Not wanted any more: its pieces were changed"

    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="packs")
    index = models.PositiveIntegerField(default=1, help_text="the first of its pieces, counted in the line")
    personalization = models.ForeignKey(Personalization, on_delete=models.PROTECT, related_name="packs")
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    steps_done = models.PositiveSmallIntegerField(default=0)
    steps = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=500, blank=True)
    questioned = models.CharField(
        max_length=500, blank=True, help_text="what checks say today of what was agreed to when it was ordered"
    )
    file = models.ForeignKey(StoredFile, null=True, blank=True, on_delete=models.PROTECT, related_name="+")
    engine = models.CharField(max_length=16, blank=True)
    wanted_at = models.DateTimeField(auto_now_add=True)
    made_at = models.DateTimeField(null=True, blank=True)

    objects = PackQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["line", "index"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["line", "index", "personalization"], name="one_pack_for_pieces_as_they_are"
            ),
            models.CheckConstraint(condition=~Q(state="done") | Q(file__isnull=False), name="pack_done_has_its_file"),
        ]

    def __str__(self) -> str:
        return f"Pack of {self.piece}"

    @property
    def piece(self) -> str:
        """What its pieces are called."""
        return f"{self.line}.{self.index}" if self.line.is_list else str(self.line)

    @property
    def percent(self) -> int:
        """How far it is, in percent."""
        return round(100 * self.steps_done / self.steps) if self.steps else 0

    @property
    def is_under_way(self) -> bool:
        """Whether something is still going to happen by itself."""
        return self.state in {self.State.WAITING, self.State.MAKING}
