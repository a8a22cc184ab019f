"""What templates of the slip ask of albums elsewhere."""

from django import template

from yenzo.apps.slip.album_gateway import album

register = template.Library()


@register.simple_tag
def album_name() -> str:
    """Return what the album is called that pictures may be taken from; empty where there is none."""
    chosen = album()
    return chosen.name if chosen else ""
