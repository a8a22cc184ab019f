"""The error root of the core.

YenzoError
├── DocumentError      a set-up or entries document can't be read or contradicts itself
├── AssetError         a picture or font that a document names is not there or is not what it says
├── TypefaceError      a font file can't be used
├── ArtworkError       an outside file is refused
├── ShapeError         an outline is too tangled to be worked on
├── FormulaError       a formula can't be read or comes to no number
├── TableError         a list of names can't be read
└── RenderError        a back-end can't make what is asked
"""


class YenzoError(Exception):
    """What went wrong, in words: a code for programs, the object at fault, and a message with the remedy."""

    def __init__(self, code: str, subject: str, message: str) -> None:
        super().__init__(message)
        self.code = code
        self.subject = subject
        self.message = message

    def __reduce__(self) -> tuple[type["YenzoError"], tuple[str, str, str]]:
        return type(self), (self.code, self.subject, self.message)


class DocumentError(YenzoError):
    """A set-up or entries document can't be read or contradicts itself."""


class AssetError(YenzoError):
    """A picture or font that a document names is not there or is not what it says."""


class TypefaceError(YenzoError):
    """A font file can't be used."""


class ArtworkError(YenzoError):
    """An outside file is refused."""


class ShapeError(YenzoError):
    """An outline is too tangled to be worked on."""


class FormulaError(YenzoError):
    """A formula can't be read or comes to no number."""


class TableError(YenzoError):
    """A list of names can't be read."""


class RenderError(YenzoError):
    """A back-end can't make what is asked."""
