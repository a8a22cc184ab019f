"""Counters for the library `limits`: in PostgreSQL, where each count is one statement, and in the process alone."""

import time
from dataclasses import dataclass
from datetime import datetime, timedelta
from threading import Lock

from cachetools import LRUCache
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


@dataclass
class Window:
    """A count, and when it ends by a clock that nobody sets."""

    count: int
    ends_at: float


class ProcessStorage(Storage):
    """Counts in the process, for what is counted many times a second. Fixed windows only.

    The library's own starts a thread with nearly every count, to forget what has ended; here what was counted longest
    ago makes room.
    """

    STORAGE_SCHEME = ["process"]

    def __init__(self, most: int = 20_000) -> None:
        """Count up to so many things at a time."""
        super().__init__()
        self._windows: LRUCache[str, Window] = LRUCache(most)
        self._lock = Lock()

    @property
    def base_exceptions(self) -> type[Exception]:
        """What may go wrong."""
        return ValueError

    def incr(self, key: str, expiry: int, amount: int = 1) -> int:
        """Count, and return the count of this window."""
        now = time.monotonic()
        with self._lock:
            window = self._windows.get(key)
            if window is None or window.ends_at <= now:
                window = self._windows[key] = Window(0, now + expiry)
            window.count += amount
            return window.count

    def get(self, key: str) -> int:
        """Return the count of this window."""
        with self._lock:
            window = self._windows.get(key)
        return window.count if window and window.ends_at > time.monotonic() else 0

    def get_expiry(self, key: str) -> float:
        """Return when this window ends, in seconds since 1970."""
        with self._lock:
            window = self._windows.get(key)
        left = window.ends_at - time.monotonic() if window else 0
        return time.time() + left

    def check(self) -> bool:
        """Tell that it can always be counted."""
        return True

    def reset(self) -> int:
        """Forget all counts; return how many."""
        with self._lock:
            had = len(self._windows)
            self._windows.clear()
        return had

    def clear(self, key: str) -> None:
        """Forget one count."""
        with self._lock:
            self._windows.pop(key, None)
