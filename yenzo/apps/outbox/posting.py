"""The post: a mail that an app has written comes in, and is handed to the mail backend that the settings choose."""

from dataclasses import dataclass

from django.core.mail import EmailMessage, get_connection
from django.core.mail.backends.base import BaseEmailBackend

from yenzo.gateways.mail.outbox import KEY_HEAD, OutboxFolder


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


def post(mail: Mail) -> None:
    """Send a mail."""
    message_of(mail, get_connection()).send()


def message_of(mail: Mail, connection: BaseEmailBackend | None = None) -> EmailMessage:
    """Return a mail as Django sends it. Its heads are single lines, whatever was typed into them."""
    sender, to, subject = (" ".join(value.split()) for value in (mail.sender, mail.to, mail.subject))
    # Should it go out twice after all, for the post didn't say that it has it, mail programs know it by its name.
    name = f"<{mail.key}@{sender.rpartition('@')[2]}>"
    return EmailMessage(
        subject,
        mail.text,
        sender,
        [to],
        connection=connection,
        attachments=[(picture.name, picture.png, "image/png") for picture in mail.pictures],
        headers={KEY_HEAD: mail.key, "Message-ID": name},
    )


def kept_outbox() -> OutboxFolder | None:
    """Return the outbox in a folder, if that is where mails go; what a real post has sent can't be read here."""
    connection = get_connection()
    return connection if isinstance(connection, OutboxFolder) else None
