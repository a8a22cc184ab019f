"""What a mail service must do."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from datetime import UTC, datetime
from email import policy
from email.message import EmailMessage
from email.utils import format_datetime


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


def mail_message(mail: Mail) -> EmailMessage:
    """Return a mail as a message (RFC 5322). Its heads are single lines, whatever was typed into them."""
    message = EmailMessage(policy=policy.SMTP)
    for head, value in (("From", mail.sender), ("To", mail.to), ("Subject", mail.subject)):
        message[head] = " ".join(value.split())
    message["Date"] = format_datetime(datetime.now(UTC))
    message.set_content(mail.text)
    for picture in mail.pictures:
        message.add_attachment(picture.png, maintype="image", subtype="png", filename=picture.name)
    return message
