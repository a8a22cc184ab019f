"""What is done one after another, whoever does it: locks that a transaction holds until it ends."""

from django.db import connection

# Arbitrary numbers that nothing else locks.
HISTORY, PUBLISHING = 7_203_911, 7_203_912


def one_after_another(lock: int) -> None:
    """Wait until no other transaction holds the lock, then hold it."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s)", [lock])
