"""How quiet the machine is: what the same piece of work takes now is held against the fastest that it ever took."""

import statistics
import time

LOOPS, STEPS = 7, 100_000


class Machine:
    """Tells how fast the machine is just now, of the fastest that it was seen to be; others may be at work on it."""

    def __init__(self) -> None:
        self._fastest_s = float("inf")

    def share(self) -> float:
        """Return its speed now, as a share of its fastest."""
        taken = statistics.median(_loop_s() for _ in range(LOOPS))
        self._fastest_s = min(self._fastest_s, taken)
        return self._fastest_s / taken


def _loop_s() -> float:
    begun = time.perf_counter()
    total = 0
    for step in range(STEPS):
        total += step
    return time.perf_counter() - begun
