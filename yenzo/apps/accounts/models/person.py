"""Staff: who signs in, in which role."""

from typing import ClassVar

from django.contrib.auth.models import AbstractUser
from django.db import models


class Role(models.TextChoices):
    OWNER = "owner", "Owner"
    SELLER = "seller", "Seller"
    DESK = "desk", "Desk"
    DECORATOR = "decorator", "Decorator"


class Person(AbstractUser):
    """A member of staff with exactly one role."""

    role = models.CharField(max_length=12, choices=Role.choices)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=models.Q(role__in=Role.values), name="person_has_a_known_role"),
        ]

    def __str__(self) -> str:
        return self.first_name or self.username
