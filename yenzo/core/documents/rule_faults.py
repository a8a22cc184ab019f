"""Rules that can't be right: what they compare with isn't there or can't be, they never hold, or they always do."""

from collections.abc import Iterator
from datetime import date, timedelta
from itertools import combinations, product

from yenzo.core.documents.edits import Path
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ComputedField,
    DateField,
    OptionsField,
    SeveralField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.named import fields_by_name, readable_names
from yenzo.core.documents.rules import (
    AXIS,
    CATEGORY,
    SKU,
    VARIANT,
    Condition,
    Entry,
    Rule,
    holds,
    read_number,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.subjects import Subject, subject_name, subject_of

# Beyond this many combinations nobody waits for an answer.
MOST_TRIED = 4000
ANYTHING_ELSE = "\u0001"
ONE_DAY = timedelta(days=1)
# So many options of one choice are tried in every combination.
MOST_TOGETHER = 6


def find_rule_faults(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each rule that looks at what isn't there or can't be, or waits for itself."""
    for _, rule, what in rules_of(setup):
        for condition in rule.all_conditions:
            subject = subject_of(setup, condition.field)
            if subject is None:
                yield f"{what} {_gone(condition.field)}"
            elif subject.field is None:
                yield from _impossible_of_product(subject, condition, what)
            elif fault := _impossible(subject.field, condition):
                yield f"{what} when {subject.quoted} matches, but {fault}"
    yield from _circles(setup)


def find_constant_rules(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each rule that never or always holds."""
    for _, rule, what in rules_of(setup):
        yield from _constant(rule, what, setup)


def rules_of(setup: Setup) -> Iterator[tuple[Path, Rule, str]]:
    """Yield every rule: its path in the document, the rule, and in words what comes of it where it holds."""
    for section in setup.sections:
        if section.ask_when:
            yield ("sections", section.key, "ask_when"), section.ask_when, f"The section “{section.title}” is asked"
    for field in setup.fields:
        path = ("fields", field.key)
        if field.ask_when:
            yield (*path, "ask_when"), field.ask_when, f"“{field.label}” is asked"
        if field.required_when:
            yield (*path, "required_when"), field.required_when, f"“{field.label}” needed"
        for option in field.options if isinstance(field, OptionsField) else ():
            if option.ask_when:
                what = f"The choice “{option.label}” of “{field.label}” is offered"
                yield (*path, "options", option.key, "ask_when"), option.ask_when, what
    for placement in setup.placements:
        if placement.when:
            yield ("placements", placement.key, "when"), placement.when, f"A placement in “{placement.area}” lands"


def _gone(key: str) -> str:
    """Return what is said of a rule that looks at what isn't there any more."""
    if key.startswith(AXIS):
        return f"by what variants differ in, “{key.removeprefix(AXIS)}”, but they don't differ in that any more."
    return f"by a line that isn't there any more (“{key}”). Please change that rule."


def _impossible_of_product(subject: Subject, condition: Condition, what: str) -> Iterator[str]:
    """Yield what a rule can't ask of the customer, or of what a product is by itself."""
    if subject.is_yes_no:
        if condition.test not in {"is", "is_not"} or not isinstance(condition.value, bool):
            yield f"{what} when {subject.quoted} matches; compare it with yes or no."
    elif condition.test not in {"is", "is_not", "one_of"} or isinstance(condition.value, bool):
        yield f"{what} when {subject.quoted} matches; compare it by is, is not or one of."
    elif subject.values is not None:
        known = "there is no variant" if subject.key == VARIANT else "it has no value"
        for one in condition.values if condition.test == "one_of" else (condition.value,):
            if one not in subject.values:
                yield f"{what} when {subject.quoted} matches, but {known} “{one}”."


def _impossible(field: AnyField, condition: Condition) -> str | None:
    value = condition.value
    if condition.test in {"filled", "empty"}:
        return None
    is_ordered = condition.test in {"more", "less"}
    if is_ordered and condition.test not in field.tests:
        return f"only numbers and days are more or less than others, which “{field.label}” is not."
    if is_ordered and not isinstance(field, DateField) and read_number(str(value)) is None:
        return f"“{value}” is no number."
    if isinstance(field, YesNoField):
        return None if isinstance(value, bool) else f"“{field.label}” is answered with yes or no, never with “{value}”."
    if isinstance(value, bool):
        return f"“{field.label}” is no question: it is never answered with yes or no."
    if field.is_asked and not field.tests and not isinstance(field, ArtworkField):
        return f"“{field.label}” can only be filled or empty."
    several = isinstance(field, SeveralField)
    if several != (condition.test in {"has", "has_not"}):
        return f"“{field.label}” is {'several of a choice' if several else 'no choice of several'}: ask what it has."
    offered = field.offered
    for one in condition.values if condition.test == "one_of" else (value,):
        if offered is None or not one or condition.test == "contains":
            continue
        if one not in offered:
            what = "the typeface" if isinstance(field, TypefaceField) else "choice"
            has = "doesn't offer" if isinstance(field, TypefaceField) else "has no"
            return f"“{field.label}” {has} {what} “{one}”."
    if isinstance(field, ArtworkField) and value != "":
        return f"“{field.label}” is an upload; compare it with an empty entry only."
    return None


def _constant(rule: Rule, what: str, setup: Setup) -> Iterator[str]:
    """Yield a sentence for a rule that comes out the same whatever is entered."""
    keys = list(dict.fromkeys(condition.field for condition in rule.all_conditions))
    if CATEGORY in keys or SKU in keys:
        return  # It is there for other products, and comes out the same in each one of them.
    domains = [_domain(setup, key, [c for c in rule.all_conditions if c.field == key]) for key in keys]
    count = 1
    for domain in domains:
        count *= len(domain)
    if count > MOST_TRIED:
        return
    outcomes = set()
    for values in product(*domains):
        entries = dict(zip(keys, values, strict=True))
        outcomes.add(holds(rule, entries.__getitem__))
        if len(outcomes) > 1:
            return
    names = " and ".join(f"“{subject_name(setup, key)}”" for key in keys)
    how = "always, whatever is entered for" if outcomes == {True} else "never, whatever is entered for"
    yield f"{what} {how} {names}. Please change the rule or take it away."


def _domain(setup: Setup, key: str, conditions: list[Condition]) -> list[Entry]:
    """Return entries that stand for all there can be, as far as the conditions can tell them apart."""
    subject = subject_of(setup, key)
    named = [str(value) for condition in conditions for value in (condition.value, *condition.values)]
    if subject is None and key.startswith(AXIS):
        return [""]
    if subject and subject.is_yes_no:
        return [True, False]
    if subject and subject.is_product and subject.values is not None:
        return list(subject.values)
    if subject and isinstance(subject.field, SeveralField):
        wanted = list(dict.fromkeys(named))[:MOST_TOGETHER]
        return [chosen for count in range(len(wanted) + 1) for chosen in combinations(wanted, count)]
    if subject and subject.values is not None:
        return ["", *subject.values]
    around = [near for value in named for near in _near(value)]
    return list(dict.fromkeys(["", ANYTHING_ELSE, *named, *around, "".join(named)]))


def _near(value: str) -> Iterator[str]:
    """Yield what is just below and above a number or a day."""
    number = read_number(value)
    if number is not None:
        yield from (f"{number - 1:f}", f"{number + 1:f}")
        return
    try:
        day = date.fromisoformat(value)
    except ValueError:
        return
    yield from ((day - ONE_DAY).isoformat(), (day + ONE_DAY).isoformat())


def _circles(setup: Setup) -> Iterator[str]:
    waits = {field.key: _waits_for(setup, field) for field in setup.fields}
    done: set[str] = set()

    def visit(key: str, path: tuple[str, ...]) -> Iterator[str]:
        """Yield a sentence for each circle that is met from a field on; `path` is how it was reached."""
        if key in path:
            names = [subject_name(setup, step) for step in (*path[path.index(key) :], key)]
            yield "These fields wait for each other: " + " → ".join(f"“{name}”" for name in names) + "."
            return
        if key in done or key not in waits:
            return
        for other in waits[key]:
            yield from visit(other, (*path, key))
        done.add(key)

    for key in waits:
        yield from visit(key, ())


def _waits_for(setup: Setup, field: AnyField) -> list[str]:
    """Return what must be decided before the entry of a field is."""
    section = setup.section(field.section)
    rules = [field.ask_when, section.ask_when if section else None]
    if isinstance(field, OptionsField):
        rules += [option.ask_when for option in field.options]
    looked_at = [condition.field for rule in rules if rule for condition in rule.all_conditions]
    if isinstance(field, ComputedField):
        named = fields_by_name(setup)
        looked_at += [named[name].key for name in readable_names(field.formula) if name in named]
    return looked_at
