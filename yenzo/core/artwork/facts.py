"""What is known of an outside file, within which bounds it is looked at, and how it is wanted."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.artwork import Form, OneColor
from yenzo.core.documents.values import Frozen

Wish = Literal["trim", "no_ground"]
Share = Annotated[float, Field(ge=0, le=1)]
LEAST_SHARE = 0.01


class ArtworkLimits(Frozen):
    """Bounds of every decode: bytes of the file, pixels, pictures of an animation, seconds and memory of its process.

    A drawing of more points than `most_points` is used as a picture. `kinds` are the only ones that are wanted; all if
    none is named.
    """

    kinds: tuple[str, ...] = ()
    most_bytes: int = 50_000_000
    most_pixels: int = 120_000_000
    most_frames: int = 1000
    most_points: int = 20_000
    most_seconds: int = 10
    most_memory_bytes: int = 2_000_000_000


class Preparation(Frozen):
    """How a file is wanted: which of its pages, turned, cut to a part of it, without an empty border or a plain ground,
    in one color, as pixels.

    It is turned clockwise first; `crop` is what is left then, by the shares of its width and height at which the part
    begins and ends: left, top, right, bottom.
    """

    page: int = Field(default=1, ge=1, le=10_000)
    quarter_turns: int = Field(default=0, ge=0, le=3)
    crop: tuple[Share, Share, Share, Share] | None = None
    trim: bool = False
    no_ground: bool = False
    one_color: OneColor | None = None
    as_picture: bool = False

    @model_validator(mode="after")
    def _leaves_something(self) -> Self:
        left, top, right, bottom = self.crop or (0, 0, 1, 1)
        if right - left < LEAST_SHARE or bottom - top < LEAST_SHARE:
            raise ValueError("what is cut out of the picture leaves nothing of it")
        return self


class ArtworkFacts(Frozen):
    """An accepted file: its kind, whether it became a picture (pixels) or a drawing (outlines), and its size, upright.

    The size of a drawing is in units of its own. `wishes` are the preparations that would change something.
    """

    kind: str
    form: Form
    size_bytes: int
    width_px: int
    height_px: int
    dpi: float | None = None
    see_through: bool = False
    pages: int = 1
    wishes: tuple[Wish, ...] = ()
    notes: tuple[str, ...] = ()


class PreparedArtwork(Frozen):
    """An accepted file with the two files that the core made from it: for production and for the screen."""

    facts: ArtworkFacts
    prepared: bytes
    shown: bytes
