"""Undo and redo on every page that changes what all products share."""

from typing import Any

from django import template

from yenzo.apps.history.models import SharedChange

register = template.Library()


@register.inclusion_tag("history/_shared_history.html", takes_context=True)
def shared_history(context: dict[str, Any]) -> dict[str, Any]:
    """Show what the person at work could take back and do again."""
    request = context["request"]
    return {
        "request": request,
        "csrf_token": context.get("csrf_token"),
        "undoable": SharedChange.objects.undoable_by(request.user).first(),
        "redoable": SharedChange.objects.redoable_by(request.user).first(),
    }
