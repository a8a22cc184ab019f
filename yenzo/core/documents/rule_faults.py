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
    SIGNED_IN,
    SKU,
    VARIANT,
    Condition,
    Entry,
    Rule,
    holds,
    read_number,
)
from yenzo.core.documents.setup import Setup

# Beyond this many combinations nobody waits for an answer.
MOST_TRIED = 4000
ANYTHING_ELSE = "\u0001"
ONE_DAY = timedelta(days=1)
# So many options of one choice are tried in every combination.
MOST_TOGETHER = 6
PRODUCT_ITSELF = {VARIANT: "the variant", CATEGORY: "the category", SKU: "the SKU"}
SIGNED_IN_NAME = "the customer's sign-in"


def find_rule_faults(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each rule that looks at what isn't there or can't be, or waits for itself."""
    by_key = {field.key: field for field in setup.fields}
    for _, rule, what in rules_of(setup):
        for condition in rule.all_conditions:
            if condition.field == SIGNED_IN:
                if condition.test not in {"is", "is_not"} or not isinstance(condition.value, bool):
                    yield f"{what} when {SIGNED_IN_NAME} matches; compare it with yes or no."
                continue
            if condition.field in PRODUCT_ITSELF:
                yield from _impossible_product(setup, condition, what)
                continue
            if condition.field.startswith(AXIS):
                yield from _impossible_axis(setup, condition, what)
                continue
            other = by_key.get(condition.field)
            if other is None:
                yield f"{what} by a line that isn't there any more (“{condition.field}”). Please change that rule."
            elif fault := _impossible(other, condition):
                yield f"{what} when “{other.label}” matches, but {fault}"
    yield from _circles(setup)


def find_constant_rules(setup: Setup) -> Iterator[str]:
    """Yield a sentence for each rule that never or always holds."""
    for _, rule, what in rules_of(setup):
        yield from _constant(rule, what, setup)


def subject_name(setup: Setup, subject: str) -> str:
    """Return what a rule looks at, as it is called in sentences."""
    field = setup.field(subject)
    if subject == SIGNED_IN:
        return SIGNED_IN_NAME
    if subject.startswith(AXIS):
        axis = setup.offer.axis(subject.removeprefix(AXIS))
        return axis.name if axis else subject.removeprefix(AXIS)
    return PRODUCT_ITSELF.get(subject) or (field.label if field else subject)


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


def _impossible_product(setup: Setup, condition: Condition, what: str) -> Iterator[str]:
    if condition.test not in {"is", "is_not", "one_of"} or isinstance(condition.value, bool):
        yield f"{what} when {PRODUCT_ITSELF[condition.field]} matches; compare it by is, is not or one of."
    elif condition.field == VARIANT:
        for one in condition.values if condition.test == "one_of" else (condition.value,):
            if setup.offer.variant(str(one)) is None:
                yield f"{what} when the variant matches, but there is no variant “{one}”."


def _impossible_axis(setup: Setup, condition: Condition, what: str) -> Iterator[str]:
    key = condition.field.removeprefix(AXIS)
    axis = setup.offer.axis(key)
    if axis is None:
        yield f"{what} by what variants differ in, “{key}”, but they don't differ in that any more."
    elif condition.test not in {"is", "is_not", "one_of"} or isinstance(condition.value, bool):
        yield f"{what} when “{axis.name}” matches; compare it by is, is not or one of."
    else:
        for one in condition.values if condition.test == "one_of" else (condition.value,):
            if axis.value(one) is None:
                yield f"{what} when “{axis.name}” matches, but it has no value “{one}”."


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
    if not field.tests and not isinstance(field, ArtworkField):
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
    if key == VARIANT:
        return [variant.key for variant in setup.offer.variants]
    if key == SIGNED_IN:
        return [True, False]
    if key.startswith(AXIS):
        axis = setup.offer.axis(key.removeprefix(AXIS))
        return [value.key for value in axis.values] if axis else [""]
    field = setup.field(key)
    named = [str(value) for condition in conditions for value in (condition.value, *condition.values)]
    if isinstance(field, YesNoField):
        return [True, False]
    if isinstance(field, SeveralField):
        wanted = list(dict.fromkeys(named))[:MOST_TOGETHER]
        return [chosen for count in range(len(wanted) + 1) for chosen in combinations(wanted, count)]
    offered = field.offered if field else None
    if offered is not None:
        return ["", *offered]
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
