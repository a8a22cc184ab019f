"""Problems with entries, in plain words: a set-up, what is asked and the typefaces come in, problems go out."""

from collections.abc import Iterator

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.by_hand import base_typeface
from yenzo.core.asking.invisible import dropped_words, has_both_directions, reordering, turning_words
from yenzo.core.asking.kinds import EntryContext, Value, kind_of
from yenzo.core.asking.problems import GOODS, LEFT_OUT, TYPED_ORDER, Coverage, Problem, quoted
from yenzo.core.asking.texts import MOST_IN_A_PARAGRAPH, is_emoji
from yenzo.core.documents.entries import UNTOUCHED, Address
from yenzo.core.documents.fields import AnyField, ComputedField, TypefaceField
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.rules import holds
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import evaluate
from yenzo.core.translation import translate, translate_plural


def check(setup: Setup, asked: Asked, coverage: Coverage) -> tuple[Problem, ...]:
    """Return every problem of the entries, in the order of the form."""
    found: list[Problem] = list(_check_stock(setup, asked))
    for field in setup.fields:
        if field.key in asked.values:
            found.extend(_check_field(setup, field, asked, coverage))
    return tuple(found)


def _check_stock(setup: Setup, asked: Asked) -> Iterator[Problem]:
    """Yield a problem when there are fewer of the goods than pieces are wanted."""
    left = asked.stock.get(setup.sku_of(asked.variant))
    if left is None or left >= asked.pieces:
        return
    variant = setup.offer.variant(asked.variant)
    name = f"{setup.offer.name}, {variant.name}" if variant else setup.offer.name
    if left:
        wanted = asked.pieces
        message = translate(
            "Of “{name}” {left} are left; {wanted} are wanted. Please take fewer.", name=name, left=left, wanted=wanted
        )
    else:
        message = translate("“{name}” is sold out. Please come back later.", name=name)
    if len(setup.offer.variants) > 1:
        message += " " + translate("Or choose another one.")
    yield Problem(code="out_of_stock", field=GOODS, message=message)


def is_needed(setup: Setup, field: AnyField, asked: Asked) -> bool:
    """Tell whether a field needed, with all else as it is entered now."""
    if not (field.has_entry and field.is_asked):
        return False
    rule = field.required_when
    return field.required or (rule is not None and holds(rule, lambda key: asked.subject(setup, key)))


def is_awaited(setup: Setup, field: AnyField, asked: Asked) -> bool:
    """Tell whether a field is asked, needed, and isn't yet."""
    return field.key in asked.values and not asked.is_filled(field.key) and is_needed(setup, field, asked)


def _check_field(setup: Setup, field: AnyField, asked: Asked, coverage: Coverage) -> Iterator[Problem]:
    kind, value = kind_of(field), asked.values[field.key]
    if dropped := asked.left_out.get(field.key):
        yield Problem(code=LEFT_OUT, field=field.key, message=dropped_words(dropped))
    if not asked.is_filled(field.key):
        if is_needed(setup, field, asked):
            yield Problem(code="required", field=field.key, message=kind.please(field))
        elif isinstance(field, ComputedField):
            yield from _check_result(setup, field, asked)
        return
    context = EntryContext(setup, asked.language, asked.today, asked.stock, asked.pieces)
    if turning := reordering(_written(value)):
        yield Problem(code="reorders", field=field.key, message=turning_words(turning))
    yield from kind.problems(field, value, context)
    produced = kind.produced(field, value, context)
    if len(produced) <= MOST_IN_A_PARAGRAPH:
        yield from _check_letters(setup, field.key, produced, asked, coverage)
        if asked.in_typed_order and has_both_directions(produced) and setup.landings_of(field.key):
            yield Problem(code=TYPED_ORDER, field=field.key, message=_typed_order_words())


def _check_result(setup: Setup, field: ComputedField, asked: Asked) -> Iterator[Problem]:
    """Yield a problem when a formula comes to nothing: whatever is made or charged by it would count it as 0."""
    try:
        evaluate(field.formula, asked.names(setup))
    except FormulaError:
        message = translate(
            "“{label}” can't be worked out from these entries. Please change them, or ask the workshop.",
            label=field.label,
        )
        yield Problem(code="no_result", field=field.key, message=message)


def _written(value: Value) -> str:
    """Return what somebody wrote of an entry, all parts of an address together."""
    if isinstance(value, Address):
        return "".join(part for _, part in value)
    return value if isinstance(value, str) else ""


def _check_letters(setup: Setup, field_key: str, text: str, asked: Asked, coverage: Coverage) -> Iterator[Problem]:
    told: set[str] = set()
    for placement in setup.landings_of(field_key):
        if not isinstance(placement, TextPlacement):
            continue
        held = asked.adjustments.get(placement.key, UNTOUCHED).typeface
        typeface = held or base_typeface(placement, asked.values)
        if typeface in told or typeface not in setup.materials.typefaces:
            continue
        told.add(typeface)
        lacking = coverage.missing(typeface, text, asked.language)
        emoji = tuple(char for char in lacking if is_emoji(char))
        if emoji:
            yield Problem(code="emoji", field=field_key, message=_emoji_words(setup, placement, emoji))
        missing = tuple(char for char in lacking if char not in emoji)
        if missing:
            chooses = setup.field(placement.typeface.field or "")
            among = chooses.typefaces if isinstance(chooses, TypefaceField) else placement.free.typefaces
            having = coverage.having(text, asked.language, among)
            others = tuple(key for key in setup.materials.typefaces if key != typeface) if not having else ()
            elsewhere = coverage.having(text, asked.language, others)
            yield Problem(
                code="missing_letter",
                field=field_key,
                message=_missing_words(setup, typeface, missing, having, elsewhere),
            )


def _typed_order_words() -> str:
    return translate(
        "This was ordered while texts of mixed directions were set in the order they were typed. It is made as the "
        "customer saw it: please ask whether it is meant so."
    )


def _emoji_words(setup: Setup, placement: TextPlacement, emoji: tuple[str, ...]) -> str:
    side = setup.side(placement.side)
    area = side.area(placement.area) if side else None
    method = setup.materials.methods.get(area.method) if area else None
    return translate_plural(
        "{emoji} is an emoji and can't be {made}. Please write it without it.",
        "{emoji} are emoji and can't be {made}. Please write it without them.",
        len(emoji),
        emoji=quoted(emoji),
        made=method.done if method else translate("made"),
    )


def _missing_words(
    setup: Setup, typeface: str, missing: tuple[str, ...], having: tuple[str, ...], elsewhere: tuple[str, ...]
) -> str:
    """Say what is missing, which typefaces of the offer have it, or else which others of the workshop do."""

    def name(key: str) -> str:
        """Return what a typeface is called."""
        return setup.materials.typefaces[key].name

    said = [
        translate_plural(
            "The character {characters} is not in the typeface {typeface}.",
            "The characters {characters} are not in the typeface {typeface}.",
            len(missing),
            characters=quoted(missing),
            typeface=name(typeface),
        )
    ]
    if having:
        said.append(
            translate_plural(
                "{typefaces} has all you typed.",
                "These have all you typed: {typefaces}.",
                len(having),
                typefaces=", ".join(name(key) for key in having),
            )
        )
        return " ".join(said)
    if elsewhere:
        said.append(
            translate_plural(
                "Of the workshop's other typefaces, {typefaces} has all you typed.",
                "Of the workshop's other typefaces, {typefaces} have all you typed.",
                len(elsewhere),
                typefaces=", ".join(name(key) for key in elsewhere),
            )
        )
    said.append(translate_plural("Please write it without it.", "Please write it without them.", len(missing)))
    return " ".join(said)
