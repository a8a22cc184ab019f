"""Texts as they are made: a scene comes in; each text with its lines, and where it stands, goes out."""

from yenzo.core.documents.values import Frozen
from yenzo.core.scene.nodes import Scene


class MadeText(Frozen):
    """A text on the goods: the side and area, its lines as they are produced, and the fields whose entries make it."""

    side: str
    area: str
    lines: tuple[str, ...]
    fields: tuple[str, ...]

    @property
    def words(self) -> str:
        """Its lines below each other."""
        return "\n".join(self.lines)


def made_texts(scene: Scene) -> tuple[MadeText, ...]:
    """Return every text that is made, side by side and area by area."""
    return tuple(
        MadeText(side=side.name, area=area.name, lines=text.lines or (text.text,), fields=text.fields)
        for side in scene.sides
        for area in side.areas
        for text in area.letterings
    )
