"""What pages of production say of jobs."""

from collections.abc import Iterable
from itertools import islice
from typing import TypeVar

from django import template
from django.utils import timezone
from django.utils.html import format_html
from django.utils.safestring import SafeString

from yenzo.apps.production.models import Job

register = template.Library()
T = TypeVar("T")


@register.filter
def due(job: Job) -> SafeString:
    """Say by when a job is due, and whether that is over."""
    today = timezone.localdate()
    day = f"{job.due_on:%a} {job.due_on.day} {job.due_on:%b}"
    if job.is_open and job.due_on < today:
        return format_html('<b class="blocked">late, due {}</b>', day)
    return format_html("{}", "due today" if job.due_on == today else f"due {day}")


@register.filter
def named(names: dict[str, str], key: str) -> str:
    """Return what a method is called now; its key where it is gone."""
    return names.get(key, key)


@register.filter
def first_of(values: Iterable[T]) -> list[T]:
    """Return the first, if there is one."""
    return list(islice(values, 1))
