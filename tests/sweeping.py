"""What `make test` proves once and `make sweep` in breadth: marks come in; which tests run, and in which order, goes out.

A sweep runs all that is marked `sweep` and every law with many examples, for so many minutes: what never ran first, then
what ran longest ago, otherwise in an order of the day. When which one last passed, and how long it took, is kept in
`.run/sweep.json`, and what share ran is said at the end.
"""

import json
import os
import random
from datetime import UTC, datetime
from pathlib import Path
from time import time

import pytest
from hypothesis import HealthCheck, settings

HISTORY = Path(__file__).resolve().parent.parent / ".run" / "sweep.json"
# The first makes a sweep of a run; the others are set by it, for xdist's workers.
MINUTES, BEGAN_AT, DAY = "SWEEP_MINUTES", "SWEEP_BEGAN_AT", "SWEEP_DAY"
IS_SWEEP = MINUTES in os.environ
# How many examples of a law are tried, as a share of hypothesis' hundred, or of the number that a test names.
SHARE = 4 if IS_SWEEP else 0.25
# What a test is taken to last that never ran, in seconds: stories, and others.
STORY_SECONDS, OTHER_SECONDS = 5.0, 6.0


def examples(count=100):
    """Return the settings of a law whose examples are dearer or cheaper than others': so many, as far as share goes."""
    return settings(
        max_examples=max(3, round(count * SHARE)),
        deadline=None,
        suppress_health_check=[HealthCheck.too_slow, HealthCheck.function_scoped_fixture],
    )


def spread(values, *, in_test=1):
    """Return parameters for a test of which `make test` runs the first `in_test`, and a sweep the others."""
    return [one if at < in_test else pytest.param(one, marks=pytest.mark.sweep) for at, one in enumerate(values)]


def shards(count, *, in_test=1):
    """Return the numbers of so many equal parts of something large; `make test` runs the first `in_test` of them."""
    return spread(range(count), in_test=in_test)


def is_story(item):
    """Tell whether a test needs a whole installation."""
    return item.nodeid.startswith(("tests/story/", "story/"))


class Sweep:
    """Chooses what a sweep runs, ends it in time, and keeps what ran when."""

    def __init__(self):
        os.environ.setdefault(BEGAN_AT, str(time()))
        os.environ.setdefault(DAY, str(datetime.now(UTC).toordinal()))
        self._began_at = float(os.environ[BEGAN_AT])
        self._ends_at = self._began_at + 60 * float(os.environ[MINUTES])
        self._history = json.loads(HISTORY.read_text()) if HISTORY.exists() else {}
        self._ran, self._failed, self._wanted = {}, set(), set()
        self._first_ends_at, self._stories_first = self._ends_at, True

    def _seconds(self, item):
        kept = self._history.get(item.nodeid)
        return kept["seconds"] if kept else STORY_SECONDS if is_story(item) else OTHER_SECONDS

    @pytest.hookimpl(trylast=True)
    def pytest_collection_modifyitems(self, config, items):
        """Leave what belongs to a sweep, in its order; stories together, as they share an installation."""
        chosen = [item for item in items if item.get_closest_marker("sweep") or is_law(item)]
        config.hook.pytest_deselected(items=[item for item in items if item not in set(chosen)])
        dice = random.Random(int(os.environ[DAY]))
        places = {item.nodeid: dice.random() for item in sorted(chosen, key=lambda item: item.nodeid)}
        chosen.sort(key=lambda item: (self._history.get(item.nodeid, {}).get("day", 0), places[item.nodeid]))
        blocks = [[item for item in chosen if is_story(item) is wanted] for wanted in (True, False)]
        self._stories_first = not chosen or is_story(chosen[0])
        first, second = blocks if self._stories_first else reversed(blocks)
        share = sum(map(self._seconds, first)) / max(1.0, sum(map(self._seconds, chosen)))
        self._first_ends_at = self._began_at + share * (self._ends_at - self._began_at)
        items[:] = [*first, *second]
        self._wanted = {item.nodeid for item in items}

    @pytest.hookimpl(tryfirst=True)
    def pytest_runtest_protocol(self, item, nextitem):
        """Begin nothing once the time of its block is over."""
        ends_at = self._first_ends_at if is_story(item) is self._stories_first else self._ends_at
        if time() <= ends_at:
            return None
        # The test before left standing what this one shares with it: all goes that the next one doesn't need.
        item.session._setupstate.teardown_exact(nextitem)
        return True

    @pytest.hookimpl(optionalhook=True)
    def pytest_xdist_node_collection_finished(self, node, ids):
        """Learn from a worker what there is."""
        self._wanted = set(ids)

    def pytest_runtest_logreport(self, report):
        """Keep what passed, and how long it took with all that it needed."""
        if report.failed:
            self._failed.add(report.nodeid)
        self._ran[report.nodeid] = self._ran.get(report.nodeid, 0) + report.duration

    def pytest_sessionfinish(self, session):
        """Write down what passed, to come later the next time."""
        if hasattr(session.config, "workerinput"):
            return
        day = int(os.environ[DAY])
        passed = {name: seconds for name, seconds in self._ran.items() if name not in self._failed}
        kept = {name: facts for name, facts in self._history.items() if name in self._wanted}
        kept |= {name: {"day": day, "seconds": round(seconds, 2)} for name, seconds in passed.items()}
        HISTORY.parent.mkdir(exist_ok=True)
        HISTORY.write_text(json.dumps(kept, indent=0, sort_keys=True))

    def pytest_terminal_summary(self, terminalreporter):
        """Say what share ran."""
        count, whole = len(self._ran), max(1, len(self._wanted))
        never = sum(name not in self._history and name not in self._ran for name in self._wanted)
        terminalreporter.write_line(
            f"Sweep: {count} of {len(self._wanted)} checks ran ({100 * count / whole:.0f} %), day {os.environ[DAY]}; "
            f"{never} have never run here."
        )


class EachOnce:
    """Leaves what is marked `sweep` out of `make test`."""

    @pytest.hookimpl(trylast=True)
    def pytest_collection_modifyitems(self, config, items):
        """Leave out what belongs to a sweep only."""
        swept = [item for item in items if item.get_closest_marker("sweep")]
        config.hook.pytest_deselected(items=swept)
        items[:] = [item for item in items if not item.get_closest_marker("sweep")]


def is_law(item):
    """Tell whether hypothesis looks for a counterexample of it."""
    return hasattr(getattr(item, "function", None), "hypothesis")
