"""What other apps say of their mails: who writes them, and what must not be read by others."""

from collections.abc import Callable
from dataclasses import dataclass

from yenzo.apps.outbox.posting import Mail

# What it is about (an id) and the mail's key come in; the mail goes out, in the language of who reads it.
Write = Callable[[str, str], Mail]


@dataclass(frozen=True)
class Writer:
    """One kind of mail. One that nobody asked for by paying or by proving the address is counted by its recipient."""

    name: str
    label: str
    write: Write
    is_counted: bool = False


WRITERS: dict[str, Writer] = {}


def mails_are_written(*writers: Writer) -> None:
    """Say who writes an app's mails."""
    WRITERS.update({writer.name: writer for writer in writers})
