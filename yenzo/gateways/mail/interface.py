"""What a mail service must do."""

from abc import ABC, abstractmethod
from dataclasses import dataclass


@dataclass(frozen=True)
class MailPicture:
    """A picture that travels in a mail."""

    name: str
    png: bytes


@dataclass(frozen=True)
class Mail:
    """A mail. `key` names it for good: the same key is never sent twice."""

    key: str
    sender: str
    to: str
    subject: str
    text: str
    pictures: tuple[MailPicture, ...] = ()


class MailGateway(ABC):
    """A mail service."""

    @abstractmethod
    def send(self, mail: Mail) -> None:
        """Send a mail unless its key was sent already."""
