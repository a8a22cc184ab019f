"""The post: a mail that an app has written comes in, and is handed to the mail backend that the settings choose."""

from dataclasses import dataclass
from email.mime.image import MIMEImage

from django.core.mail import EmailMultiAlternatives, get_connection
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
    # The same as HTML, where pictures stand in the text: each under its name as "cid:NAME".
    html: str = ""


def post(mail: Mail) -> None:
    """Send a mail."""
    message_of(mail, get_connection()).send()


def message_of(mail: Mail, connection: BaseEmailBackend | None = None) -> EmailMultiAlternatives:
    """Return a mail as Django sends it. Its heads are single lines, whatever was typed into them."""
    sender, to, subject = (" ".join(value.split()) for value in (mail.sender, mail.to, mail.subject))
    # Should it go out twice after all, for the post didn't say that it has it, mail programs know it by its name.
    name = f"<{mail.key}@{sender.rpartition('@')[2]}>"
    message = EmailMultiAlternatives(
        subject,
        mail.text,
        sender,
        [to],
        connection=connection,
        headers={KEY_HEAD: mail.key, "Message-ID": name},
    )
    if mail.html:
        message.attach_alternative(mail.html, "text/html")
    for picture in mail.pictures:
        image = MIMEImage(picture.png, "png")
        image.add_header("Content-ID", f"<{picture.name}>")
        image.add_header("Content-Disposition", "inline", filename=picture.name)
        message.attach(image)
    return message


def kept_outbox() -> OutboxFolder | None:
    """Return the outbox in a folder, if that is where mails go; what a real post has sent can't be read here."""
    connection = get_connection()
    return connection if isinstance(connection, OutboxFolder) else None
