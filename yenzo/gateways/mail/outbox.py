"""An outbox in a folder instead of the post: each mail is a standard message file (RFC 5322)."""

import re
import secrets
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from email import policy
from email.message import EmailMessage
from email.parser import BytesParser
from email.utils import parsedate_to_datetime
from pathlib import Path

from yenzo.gateways.mail.interface import Mail, MailGateway, mail_message


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
        message = mail_message(mail).as_bytes()
        draft = self._folder / f".{path.stem}.{secrets.token_hex(6)}"
        try:
            draft.write_bytes(message)
            draft.replace(path)
        finally:
            draft.unlink(missing_ok=True)

    def read(self, key: str) -> KeptMail | None:
        """Return a mail that is kept, or None when there is none of that key."""
        message = self._message(key)
        return _kept(key, message) if message else None

    def find(self, key: str, change_text: Callable[[str], str]) -> bytes | None:
        """Return a mail as its message file with its text changed, or None when there is none of that key."""
        message = self._message(key)
        body = message.get_body(("plain",)) if message else None
        if message is None or body is None:
            return None
        body.set_content(change_text(body.get_content()))
        return message.as_bytes()

    def drop(self, keys: Iterable[str]) -> None:
        """Forget mails."""
        for key in keys:
            self._path(key).unlink(missing_ok=True)

    def _message(self, key: str) -> EmailMessage | None:
        path = self._path(key)
        if not path.is_file():
            return None
        return BytesParser(EmailMessage, policy=policy.SMTP).parsebytes(path.read_bytes())

    def _path(self, key: str) -> Path:
        return self._folder / f"{re.sub(r'[^a-z0-9-]', '-', key.lower())}.eml"


def _kept(key: str, message: EmailMessage) -> KeptMail:
    body = message.get_body(("plain",))
    return KeptMail(
        key=key,
        to=str(message["To"]),
        subject=str(message["Subject"]),
        text=body.get_content().replace("\r\n", "\n") if body else "",
        sent_at=parsedate_to_datetime(str(message["Date"])),
        pictures=sum(1 for _ in message.iter_attachments()),
    )
