"""What can become of a job: the states that each may go to. Nothing else decides that."""

WAITING, READY, BEGUN, DONE, STOPPED = "waiting", "ready", "begun", "done", "stopped"
NEXT: dict[str, frozenset[str]] = {
    WAITING: frozenset({READY, STOPPED}),
    READY: frozenset({BEGUN, STOPPED}),
    BEGUN: frozenset({READY, DONE, STOPPED}),
    DONE: frozenset(),
    STOPPED: frozenset(),
}
OPEN = (WAITING, READY, BEGUN)


def may_become(before: str, after: str) -> bool:
    """Tell whether a job in one state may go to another."""
    return after in NEXT[before]
