"""The verdict: problems and findings come in; what blocks and what is advice goes out. Nothing else decides that."""

from collections.abc import Iterable

from yenzo.core.asking.problems import LEFT_OUT, TYPED_ORDER, Problem
from yenzo.core.documents.values import Frozen
from yenzo.core.preflight.findings import Finding

ADVICE = frozenset({LEFT_OUT, TYPED_ORDER, "near_edge", "coarse", "hardly_seen", "see_through", "white_edge"})

# What a problem with the entry says already of what would be found in the scene.
SAME_AS = {"emoji": "missing_letter"}


class Verdict(Frozen):
    """All problems and findings; `blocked` tells whether any of them keeps the piece from being made."""

    problems: tuple[Problem, ...]
    findings: tuple[Finding, ...]

    @property
    def _all(self) -> tuple[Problem | Finding, ...]:
        everything: list[Problem | Finding] = [*self.problems, *self.findings]
        return tuple(everything)

    @property
    def blocking(self) -> tuple[Problem | Finding, ...]:
        """What must be mended before the piece can be ordered or made."""
        return tuple(item for item in self._all if item.code not in ADVICE)

    @property
    def advice(self) -> tuple[Problem | Finding, ...]:
        """What may stay as it is."""
        return tuple(item for item in self._all if item.code in ADVICE)

    @property
    def says_something(self) -> bool:
        """Whether there is anything to tell, be it advice only."""
        return bool(self.problems or self.findings)

    @property
    def blocked(self) -> bool:
        """Whether something must be mended first."""
        return bool(self.blocking)

    def advice_of(self, field: str) -> tuple[str, ...]:
        """Return the advice at a field, each once."""
        return _messages(self.advice, field)


def judge(problems: Iterable[Problem], findings: Iterable[Finding]) -> Verdict:
    """Return the verdict. A missing letter that is a problem already isn't repeated as a finding."""
    told = {(SAME_AS.get(problem.code, problem.code), problem.field) for problem in problems}
    kept = tuple(finding for finding in findings if (finding.code, finding.field) not in told)
    return Verdict(problems=tuple(problems), findings=kept)


def _messages(items: Iterable[Problem | Finding], field: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys(item.message for item in items if item.field == field))
