"""An outbox in a folder instead of the post: each mail is a standard message file (RFC 5322)."""

import re
import tempfile
from dataclasses import dataclass
from datetime import UTC, datetime
from email import policy
from email.message import EmailMessage
from email.parser import BytesParser
from email.utils import format_datetime, parsedate_to_datetime
from pathlib import Path

from yenzo.gateways.mail.interface import Mail, MailGateway


@dataclass(frozen=True)
class KeptMail:
    """A mail as it lies in the outbox."""

    key: str
    to: str
    subject: str
    text: str
    sent_at: datetime
    pictures: int


class OutboxFolder(MailGateway):
    """Keeps every mail as KEY.eml."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder

    def send(self, mail: Mail) -> None:
        """Put the mail in the folder, whole or not at all."""
        self._folder.mkdir(parents=True, exist_ok=True)
        path = self._path(mail.key)
        if path.exists():
            return
        with tempfile.NamedTemporaryFile(dir=self._folder, delete=False) as draft:
            draft.write(_message(mail).as_bytes(policy=policy.SMTP))
        Path(draft.name).replace(path)

    def kept(self) -> list[KeptMail]:
        """Return all mails, the latest first."""
        mails = [_read(path) for path in self._folder.glob("*.eml")]
        return sorted(mails, key=lambda mail: (mail.sent_at, mail.key), reverse=True)

    def find(self, key: str) -> bytes | None:
        """Return a mail as its message file, or None when there is none of that key."""
        path = self._path(key)
        return path.read_bytes() if path.is_file() else None

    def _path(self, key: str) -> Path:
        return self._folder / f"{re.sub(r'[^a-z0-9-]', '-', key.lower())}.eml"


def _message(mail: Mail) -> EmailMessage:
    message = EmailMessage()
    message["From"], message["To"], message["Subject"] = mail.sender, mail.to, mail.subject
    message["Date"] = format_datetime(datetime.now(UTC))
    message.set_content(mail.text)
    for picture in mail.pictures:
        message.add_attachment(picture.png, maintype="image", subtype="png", filename=picture.name)
    return message


def _read(path: Path) -> KeptMail:
    message = BytesParser(policy=policy.default).parsebytes(path.read_bytes())
    body = message.get_body(("plain",))
    return KeptMail(
        key=path.stem,
        to=str(message["To"]),
        subject=str(message["Subject"]),
        text=body.get_content().replace("\r\n", "\n") if body else "",
        sent_at=parsedate_to_datetime(str(message["Date"])),
        pictures=sum(1 for _ in message.iter_attachments()),
    )
