"""What an album must do: with its owner's consent it lists pictures page by page and hands them out."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from pathlib import Path


class AlbumSilenceError(Exception):
    """The album didn't answer in time, or its answer broke off or made no sense: it may work the next time."""


class AlbumRefusalError(Exception):
    """The album refuses: its owner's consent was never given, was used up, or is over."""


class AlbumPictureError(Exception):
    """There is no such picture, or it is larger than may be taken."""


@dataclass(frozen=True)
class AlbumPicture:
    """A picture in an album: the key it is fetched by, and what its owner calls it."""

    key: str
    name: str


@dataclass(frozen=True)
class AlbumPage:
    """Some pictures, and what the next ones are asked for by; empty when there are no more."""

    pictures: tuple[AlbumPicture, ...]
    after: str


class Album(ABC):
    """An album. Its owner consents on its own page and comes back with a code, which is changed for a token once."""

    @property
    @abstractmethod
    def name(self) -> str:
        """What customers know it by."""

    @abstractmethod
    def consent_address(self, back: str, state: str) -> str:
        """Return the page where the owner consents; it leads back to `back` with the state and, if so, a code."""

    @abstractmethod
    def token(self, code: str) -> str:
        """Change a code for the token that opens the album; raises AlbumRefusalError or AlbumSilenceError."""

    @abstractmethod
    def page(self, token: str, after: str = "") -> AlbumPage:
        """Return pictures, newest first; raises AlbumRefusalError or AlbumSilenceError."""

    @abstractmethod
    def small(self, token: str, key: str) -> bytes:
        """Return a small JPEG of a picture; raises AlbumPictureError, AlbumRefusalError or AlbumSilenceError."""

    @abstractmethod
    def fetch(self, token: str, key: str, into: Path, *, most_bytes: int) -> str:
        """Write the whole picture to a file, and return its name; nothing is left of one that didn't come whole.

        Raises AlbumPictureError, AlbumRefusalError or AlbumSilenceError.
        """
