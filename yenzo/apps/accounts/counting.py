"""Counters in PostgreSQL for the library `limits`: each count is one statement, whichever process counts."""

from datetime import datetime, timedelta

from django.db import DatabaseError, connection
from django.utils import timezone
from limits.storage import Storage

from yenzo.apps.accounts.models import RateCounter

COUNT = """
INSERT INTO accounts_ratecounter AS now (key, count, ends_at) VALUES (%(key)s, %(amount)s, %(end)s)
ON CONFLICT (key) DO UPDATE SET
    count = CASE WHEN now.ends_at <= %(moment)s THEN EXCLUDED.count ELSE now.count + EXCLUDED.count END,
    ends_at = CASE WHEN now.ends_at <= %(moment)s THEN EXCLUDED.ends_at ELSE now.ends_at END
RETURNING count
"""


class DatabaseStorage(Storage):
    """Counts in a table. Fixed windows only: what has ended begins anew with the next count."""

    STORAGE_SCHEME = ["database"]

    @property
    def base_exceptions(self) -> type[Exception]:
        """What may go wrong."""
        return DatabaseError

    def incr(self, key: str, expiry: int, amount: int = 1) -> int:
        """Count, and return the count of this window."""
        now = timezone.now()
        values: dict[str, str | int | datetime] = {"key": key[:300], "amount": amount, "moment": now}
        values["end"] = now + timedelta(seconds=expiry)
        with connection.cursor() as cursor:
            cursor.execute(COUNT, values)
            return int(cursor.fetchone()[0])

    def get(self, key: str) -> int:
        """Return the count of this window."""
        found = RateCounter.objects.filter(key=key[:300], ends_at__gt=timezone.now()).first()
        return found.count if found else 0

    def get_expiry(self, key: str) -> float:
        """Return when this window ends, in seconds since 1970."""
        found = RateCounter.objects.filter(key=key[:300]).first()
        return (found.ends_at if found else timezone.now()).timestamp()

    def check(self) -> bool:
        """Tell whether it can be counted."""
        return connection.is_usable()

    def reset(self) -> int:
        """Forget all counts; return how many."""
        return RateCounter.objects.all().delete()[0]

    def clear(self, key: str) -> None:
        """Forget one count."""
        RateCounter.objects.filter(key=key[:300]).delete()
