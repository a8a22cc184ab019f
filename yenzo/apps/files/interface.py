"""What other apps say of files and of what is kept for a while: who points to a file, and what goes when."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime

from django.db import connection
from django.db.models import Model

Hashes = Callable[[], Iterable[str]]
# Who points to files, by app. A file that none of them yields goes.
REFERENCES: dict[str, Hashes] = {}


@dataclass(frozen=True)
class RetainedKind:
    """One kind of thing that is kept for a while: what it is, how to count and to clear what is older than a moment.

    For how many days it is kept stands under its key in the setting RETENTION_DAYS.
    """

    key: str
    label: str
    due: Callable[[datetime], int]
    clear: Callable[[datetime], int]


KINDS: dict[str, RetainedKind] = {}


def register_references(app: str, hashes: Hashes) -> None:
    """Say which files an app points to."""
    REFERENCES[app] = hashes


def register_retention(*kinds: RetainedKind) -> None:
    """Say what an app keeps only for a while."""
    KINDS.update({kind.key: kind for kind in kinds})


def hashes_in(model: type[Model], *columns: str) -> Iterator[str]:
    """Yield every SHA-256 that stands somewhere in JSON columns of a table, each once a column."""
    table = connection.ops.quote_name(model._meta.db_table)  # noqa: SLF001 - Django documents it
    with connection.cursor() as cursor:
        for column in columns:
            name = connection.ops.quote_name(column)
            cursor.execute(f"SELECT DISTINCT (regexp_matches({name}::text, '[0-9a-f]{{64}}', 'g'))[1] FROM {table}")
            yield from (row[0] for row in cursor.fetchall())
