"""What people did to what all products share: materials, stock, who uses a kit."""

from typing import ClassVar, Self

from django.conf import settings
from django.db import models


class SharedChangeQuerySet(models.QuerySet["SharedChange"]):
    def undoable_by(self, person: object) -> Self:
        """Return a person's changes that stand, the latest first."""
        return self.filter(person=person, state=SharedChange.State.DONE).order_by("-moved")

    def redoable_by(self, person: object) -> Self:
        """Return the changes that a person took back, the last taken back first."""
        return self.filter(person=person, state=SharedChange.State.UNDONE).order_by("-moved")


class SharedChange(models.Model):
    """One change of something that all products share, with what was there before and after. Undo is each person's own.

    None stands for what isn't there.
    """

    class State(models.TextChoices):
        DONE = "done"
        UNDONE = "undone"
        DROPPED = "dropped", "Undone, then overtaken by another change"

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    label = models.CharField(max_length=200)
    kept_by = models.CharField(max_length=20, help_text="which kind of thing was changed")
    subject = models.TextField(help_text="which of its kind; one a line")
    before = models.JSONField(null=True)
    after = models.JSONField(null=True)
    state = models.CharField(max_length=8, choices=State.choices, default=State.DONE)
    moved = models.PositiveBigIntegerField(help_text="counts each doing, undoing and doing again")
    made_at = models.DateTimeField(auto_now_add=True)

    objects = SharedChangeQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["moved"]

    def __str__(self) -> str:
        return self.label
