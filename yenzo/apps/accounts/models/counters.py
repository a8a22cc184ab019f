"""Counters of rate limits that all processes share."""

from django.db import models


class RateCounter(models.Model):
    """How often something was done in a window of time that ends."""

    key = models.CharField(primary_key=True, max_length=300)
    count = models.PositiveIntegerField()
    ends_at = models.DateTimeField(db_index=True)

    def __str__(self) -> str:
        return f"{self.key}: {self.count}"
