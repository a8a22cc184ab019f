"""Rules: conditions and the entries as they are now come in; whether they hold goes out."""

from collections.abc import Callable

from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import Condition, Rule


def holds(rule: Rule, value_of: Callable[[str], str | bool | UploadedFile]) -> bool:
    """Tell whether a rule holds; `value_of` gives the entry of a field, empty when it isn't asked."""
    results = (_matches(condition, value_of(condition.field)) for condition in rule.conditions)
    return all(results) if rule.match == "all" else any(results)


def _matches(condition: Condition, value: str | bool | UploadedFile) -> bool:
    # An entry that isn't asked is as if empty, which for a question means no.
    same = bool(value) == condition.value if isinstance(condition.value, bool) else value == condition.value
    return same if condition.test == "is" else not same
