"""The field of own items: where customers put texts, pictures, drawings and codes freely."""

from typing import Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.artwork import ArtworkKind
from yenzo.core.documents.entries import MOST_FILES
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.own_items import Beginning, Count, OwnCodes, OwnDrawings, OwnPictures, OwnTexts


class OwnItemsField(FieldBase):
    """Items of the customer's own in one or several areas, up to a number; what isn't named can't be added."""

    lands_as = "items"
    takes_files = True
    tests = ()
    charged_by = ("per_item",)

    kind: Literal["own_items"] = "own_items"
    most: Count = 10
    texts: OwnTexts | None = None
    pictures: OwnPictures | None = None
    drawings: OwnDrawings | None = None
    codes: OwnCodes | None = None
    beginnings: tuple[Beginning, ...] = Field(default=(), max_length=20)

    @model_validator(mode="after")
    def _takes_something(self) -> Self:
        if not any((self.texts, self.pictures, self.drawings, self.codes)):
            raise ValueError("say what customers may add: texts, pictures, drawings or codes")
        return self

    @property
    def kinds(self) -> tuple[ArtworkKind, ...]:
        """The kinds of file that can be sent; none where pictures can't be."""
        return self.pictures.kinds if self.pictures else ()

    @property
    def most_megabytes(self) -> float:
        """How large a file may be."""
        return self.pictures.most_megabytes if self.pictures else 0.0

    @property
    def most_files(self) -> int:
        """How many files may be sent: what was taken off the goods may come back."""
        return MOST_FILES

    @property
    def one_color(self) -> None:
        """Nothing: files are prepared as they are."""
        return

    @property
    def least_pixels(self) -> None:
        """Nothing: how sharp a picture is depends on how large it is made."""
        return

    def most_of(self, kind: str) -> int:
        """Return how many items of a kind may be added."""
        offered = {"text": self.texts, "picture": self.pictures, "drawing": self.drawings, "code": self.codes}[kind]
        return offered.most if offered else 0

    def beginning(self, key: str) -> Beginning | None:
        """Return the arrangement with this key, if there is one."""
        return next((one for one in self.beginnings if one.key == key), None)
