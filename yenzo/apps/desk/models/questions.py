"""What customers are asked before their pieces are made, and what they answer."""

import secrets
from typing import ClassVar, Self

from django.db import models
from django.db.models import Q

from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.models import Personalization
from yenzo.apps.desk.models.preflights import Finding, Preflight
from yenzo.apps.orders.models import Order

TOKEN_BYTES = 24


def new_token() -> str:
    """Return the unguessable part of a question's address."""
    return secrets.token_urlsafe(TOKEN_BYTES)


class QuestionQuerySet(models.QuerySet["Question"]):
    def open(self) -> Self:
        """Return what waits for an answer, in orders that are still to be made."""
        return self.filter(state=Question.State.OPEN).exclude(preflight__line__order__state=Order.State.CANCELLED)


class Question(models.Model):
    """A question to a customer about pieces that are held for it."""

    class State(models.TextChoices):
        OPEN = "open", "Waits for the customer"
        CORRECTED = "corrected", "Corrected by the customer"
        APPROVED = "approved", "To be made as it is"
        WRITTEN = "written", "Answered in words"
        WITHDRAWN = "withdrawn", "Taken back"

    preflight = models.ForeignKey(Preflight, on_delete=models.PROTECT, related_name="questions")
    finding = models.ForeignKey(Finding, null=True, blank=True, on_delete=models.SET_NULL, related_name="questions")
    personalization = models.ForeignKey(
        Personalization, on_delete=models.PROTECT, related_name="questions", help_text="what was asked about"
    )
    token = models.CharField(max_length=64, unique=True, default=new_token)
    text = models.TextField(max_length=2000, help_text="in the customer's language")
    state = models.CharField(max_length=10, choices=State.choices, default=State.OPEN)
    person = models.ForeignKey(Person, null=True, blank=True, on_delete=models.SET_NULL, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    reminders = models.PositiveSmallIntegerField(default=0)
    answered_at = models.DateTimeField(null=True, blank=True)
    answer = models.TextField(blank=True, max_length=2000)
    waited_days = models.PositiveSmallIntegerField(default=0, help_text="working days that the answer took")

    objects = QuestionQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["pk"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["preflight"], condition=Q(state="open"), name="one_open_question_about_pieces"
            ),
            models.CheckConstraint(
                condition=Q(state__in=("open", "withdrawn")) | Q(answered_at__isnull=False),
                name="answered_question_says_when",
            ),
        ]

    def __str__(self) -> str:
        return f"Question about {self.preflight}"

    @property
    def is_open(self) -> bool:
        """Whether it waits for an answer."""
        return self.state == self.State.OPEN and not self.preflight.line.order.is_cancelled
