"""What can become of a job: the states that each may go to. Nothing else decides that."""

HELD, WAITING, READY, BEGUN, DONE, STOPPED = "held", "waiting", "ready", "begun", "done", "stopped"
NEXT: dict[str, frozenset[str]] = {
    HELD: frozenset({WAITING, READY, STOPPED}),
    WAITING: frozenset({HELD, READY, STOPPED}),
    READY: frozenset({HELD, BEGUN, STOPPED}),
    BEGUN: frozenset({READY, DONE, STOPPED}),
    DONE: frozenset(),
    STOPPED: frozenset(),
}
UNBEGUN = (HELD, WAITING, READY)
OPEN = (*UNBEGUN, BEGUN)


def may_become(before: str, after: str) -> bool:
    """Tell whether a job in one state may go to another."""
    return after in NEXT[before]
