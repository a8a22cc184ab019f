"""What staff are told of files on every page: nothing, most of the time."""

from django import template
from django.core.cache import cache

from yenzo.apps.files.disk_space import LOOKED_AT_SECONDS, disk_space
from yenzo.apps.files.models import FileTrouble

register = template.Library()


@register.simple_tag
def files_warning() -> str:
    """Return what the owner should look at on the page of files, as it was some seconds ago; else nothing."""
    said: str | None = cache.get("files-warning")
    if said is None:
        damaged = FileTrouble.objects.unresolved().count()
        said = ""
        if damaged:
            said = f"{damaged} kept file{'' if damaged == 1 else 's'} {'is' if damaged == 1 else 'are'} not whole."
        elif not disk_space().takes_more:
            said = "There is no room for customers' files any more: they are refused."
        elif disk_space().is_low:
            said = "The room for files is running low."
        cache.set("files-warning", said, LOOKED_AT_SECONDS)
    return said
