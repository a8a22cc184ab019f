"""An outbox in a folder instead of the post: each mail is a standard message file (RFC 5322).

It is one of Django's mail backends: `EMAIL_BACKEND` names it, or another one that reaches a post.
"""

import re
import secrets
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from email import policy
from email.message import EmailMessage
from email.parser import BytesParser
from email.utils import parsedate_to_datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.mail import EmailMessage as Mail
from django.core.mail.backends.base import BaseEmailBackend

# Names a mail for good; the same is never sent twice.
KEY_HEAD = "X-Yenzo-Key"


@dataclass(frozen=True)
class KeptMail:
    """A mail as it lies in the outbox."""

    key: str
    to: str
    subject: str
    text: str
    sent_at: datetime
    pictures: int


class OutboxFolder(BaseEmailBackend):
    """Keeps every mail as KEY.eml in the folder of the setting OUTBOX_FOLDER."""

    def __init__(self, folder: Path | None = None, **options: Any) -> None:
        super().__init__(**options)
        self._folder = Path(folder or settings.OUTBOX_FOLDER)

    def send_messages(self, email_messages: Sequence[Mail]) -> int:
        """Put mails in the folder, each whole or not at all, unless its key lies there already; return how many."""
        return sum(self._send(message) for message in email_messages)

    def _send(self, mail: Mail) -> bool:
        self._folder.mkdir(parents=True, exist_ok=True)
        path = self._path(mail.extra_headers.get(KEY_HEAD) or secrets.token_hex(8))
        if path.exists():
            return False
        message = mail.message().as_bytes(linesep="\r\n")  # type: ignore[call-arg] # Django takes it
        draft = self._folder / f".{path.stem}.{secrets.token_hex(6)}"
        try:
            draft.write_bytes(message)
            draft.replace(path)
        finally:
            draft.unlink(missing_ok=True)
        return True

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
        html = message.get_body(("html",))
        if html is not None:
            html.set_content(change_text(html.get_content()), subtype="html")
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
