"""The theme of a shop: its colors, corners and headings come in; what can't be read, and the stylesheet, go out."""

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from yenzo.core.documents.values import Frozen, ScreenColor
from yenzo.core.scene.contrast import contrast_of
from yenzo.core.translation import decimal, translate

# WCAG 2.2, 1.4.3: the contrast of words that are read (AA).
LEAST_CONTRAST = 4.5
WHITE = "#ffffff"
# Small print, advice and refusals have colors of their own, which must be read on the ground, too.
SAID_IN = ("#566267", "#8a6420", "#a83220")


class Theme(Frozen):
    """How a shop looks: `ink` is that of words and main buttons, `paper` the ground, `accent` of links and choices."""

    ink: ScreenColor = "#16303a"
    paper: ScreenColor = "#f8f5ee"
    accent: ScreenColor = "#1b6f6a"
    corner_px: int = Field(default=2, ge=0, le=24)
    headings: Literal["narrow", "plain"] = "narrow"

    def problems(self) -> Iterator[str]:
        """Yield in words what could not be read."""
        pairs = (
            (translate("The words on the ground"), self.ink, self.paper),
            (translate("White words on the main buttons"), WHITE, self.ink),
            (translate("Links on the ground"), self.accent, self.paper),
            (translate("Links on white cards"), self.accent, WHITE),
            *((translate("Small print and messages on the ground"), color, self.paper) for color in SAID_IN),
        )
        for what, first, second in pairs:
            contrast = contrast_of(first, second)
            if contrast < LEAST_CONTRAST:
                yield translate(
                    "{what} would be hard to read: their contrast is {contrast}, and {least} are needed.",
                    what=what,
                    contrast=decimal(contrast, 1),
                    least=decimal(LEAST_CONTRAST, 1),
                )

    @property
    def stylesheet(self) -> str:
        """The variables that it sets."""
        family = (
            '"Text", "Arabic", sans-serif' if self.headings == "plain" else '"Heading", "Text", "Arabic", sans-serif'
        )
        values = {
            "--ink": self.ink,
            "--paper": self.paper,
            "--sea": self.accent,
            "--rule": mixed(self.ink, self.paper, 0.16),
            "--sand": mixed(self.ink, self.paper, 0.06),
            "--heading": family,
            "--bs-link-color-rgb": _channels(self.accent),
            "--bs-link-hover-color-rgb": _channels(self.ink),
            "--bs-border-radius": f"{self.corner_px}px",
            "--corner": f"{self.corner_px}px",
        }
        return ":root {" + "".join(f"{name}: {value};" for name, value in values.items()) + "}\n"


def mixed(first: str, second: str, share: float) -> str:
    """Return a color between two, with a share of the first."""
    pairs = ((int(first[at : at + 2], 16), int(second[at : at + 2], 16)) for at in (1, 3, 5))
    return "#" + "".join(f"{round(share * one + (1 - share) * other):02x}" for one, other in pairs)


def _channels(color: str) -> str:
    return ", ".join(str(int(color[at : at + 2], 16)) for at in (1, 3, 5))
