"""Problems with entries, in plain words: a set-up, what is asked and the typefaces come in, problems go out."""

from collections.abc import Iterable, Iterator
from typing import Protocol, assert_never

import icu

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.texts import characters, describe_allowed, most_in, not_allowed
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ChoiceField,
    ColorField,
    LineField,
    ParagraphField,
    TextField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen

# The selector that asks for a character's picture.
EMOJI_STYLE = "\ufe0f"


class Problem(Frozen):
    """Something about an entry: a code for programs, the field, and what, why and the remedy in words."""

    code: str
    field: str
    message: str


class Coverage(Protocol):
    """Which characters the typefaces of a set-up have."""

    def missing(self, typeface: str, text: str, language: str) -> tuple[str, ...]:
        """Return the characters of a text that the typeface lacks, each once, in order."""
        ...

    def having(self, text: str, language: str, among: Iterable[str]) -> tuple[str, ...]:
        """Return which of the typefaces have all characters of a text."""
        ...


def check(setup: Setup, asked: Asked, coverage: Coverage) -> tuple[Problem, ...]:
    """Return every problem of the entries, in the order of the form."""
    found: list[Problem] = []
    for field in setup.fields:
        if field.key in asked.values:
            found.extend(_check_field(setup, field, asked, coverage))
    return tuple(found)


def _check_field(setup: Setup, field: AnyField, asked: Asked, coverage: Coverage) -> Iterator[Problem]:
    if not asked.is_filled(field.key):
        if field.required:
            yield Problem(code="required", field=field.key, message=_please(field))
        return
    match field:
        case LineField() | ParagraphField():
            yield from _check_text(field, asked.text(field.key))
            if len(asked.text(field.key)) <= most_in(field):
                yield from _check_letters(setup, field.key, asked.text(field.key), asked, coverage)
        case ChoiceField():
            yield from _check_offered(field, asked.text(field.key), {option.key for option in field.options})
            option = field.option(asked.text(field.key))
            if option:
                yield from _check_letters(setup, field.key, option.produced or option.label, asked, coverage)
        case TypefaceField():
            yield from _check_offered(field, asked.text(field.key), set(field.typefaces))
        case ColorField():
            yield from _check_offered(field, asked.text(field.key), offered_colors(setup, field))
        case ArtworkField():
            yield from _check_artwork(field, asked.values[field.key])
        case YesNoField():
            pass
        case _:
            assert_never(field)


def offered_colors(setup: Setup, field: ColorField) -> tuple[str, ...]:
    """Return the keys of the colors that a color field offers, in order."""
    palette = setup.materials.palettes.get(field.palette)
    return field.colors or (tuple(color.key for color in palette.colors) if palette else ())


def _please(field: AnyField) -> str:
    match field:
        case LineField() | ParagraphField():
            return f"Please fill in “{field.label}”."
        case YesNoField():
            return f"Please tick “{field.label}”; it can't be made without."
        case ArtworkField():
            return f"Please add a picture for “{field.label}”."
        case _:
            return f"Please choose “{field.label}”."


def _check_text(field: TextField, text: str) -> Iterator[Problem]:
    most = most_in(field)
    if len(text) > most:
        what = "a paragraph" if isinstance(field, ParagraphField) else "a line"
        message = f"This is {len(text)} characters long; {what} has room for {most} at most. Please shorten it."
        yield Problem(code="too_long", field=field.key, message=message)
        return
    if isinstance(field, ParagraphField) and field.most_lines is not None:
        lines = text.count("\n") + 1
        if lines > field.most_lines:
            message = (
                f"This has {lines} lines, {lines - field.most_lines} too many: there is room for {field.most_lines}."
            )
            yield Problem(code="too_many_lines", field=field.key, message=f"{message} Please join or drop some.")
    count = len(characters(text))
    if field.most_characters is not None and count > field.most_characters:
        over = count - field.most_characters
        message = (
            f"“{text}” has {count} characters, {over} too many: there is room for {field.most_characters}. "
            "Please shorten it."
        )
        yield Problem(code="too_long", field=field.key, message=message)
    if field.least_characters is not None and count < field.least_characters:
        message = f"“{text}” is too short: at least {field.least_characters} characters are needed here."
        yield Problem(code="too_short", field=field.key, message=message)
    wrong = not_allowed(field.allowed, text) if field.allowed else []
    if field.allowed and wrong:
        message = f"{_quoted(wrong)} can't be used here. What can: {describe_allowed(field.allowed)}."
        yield Problem(code="not_allowed", field=field.key, message=message)


def _check_offered(field: AnyField, value: str, offered: Iterable[str]) -> Iterator[Problem]:
    if value not in set(offered):
        message = f"“{value}” is not offered for “{field.label}” (any more). Please choose another."
        yield Problem(code="not_offered", field=field.key, message=message)


def _check_letters(setup: Setup, field_key: str, text: str, asked: Asked, coverage: Coverage) -> Iterator[Problem]:
    told: set[str] = set()
    for placement in setup.landings_of(field_key):
        if not isinstance(placement, TextPlacement):
            continue
        typeface = placement.typeface.fixed or asked.text(placement.typeface.field or "")
        if typeface in told or typeface not in setup.materials.typefaces:
            continue
        told.add(typeface)
        lacking = coverage.missing(typeface, text, asked.language)
        emoji = tuple(char for char in lacking if _is_emoji(char))
        if emoji:
            yield Problem(code="emoji", field=field_key, message=_emoji_words(setup, placement, emoji))
        missing = tuple(char for char in lacking if char not in emoji)
        if missing:
            chooses = setup.field(placement.typeface.field or "")
            among = chooses.typefaces if isinstance(chooses, TypefaceField) else ()
            having = coverage.having(text, asked.language, among)
            others = tuple(key for key in setup.materials.typefaces if key != typeface) if not having else ()
            elsewhere = coverage.having(text, asked.language, others)
            yield Problem(
                code="missing_letter",
                field=field_key,
                message=_missing_words(setup, typeface, missing, having, elsewhere),
            )


def _is_emoji(char: str) -> bool:
    """Tell whether a character is shown as a picture by default, or asks to be (UTS 51)."""
    return icu.Char.hasBinaryProperty(ord(char[0]), icu.UProperty.EMOJI_PRESENTATION) or EMOJI_STYLE in char


def _emoji_words(setup: Setup, placement: TextPlacement, emoji: tuple[str, ...]) -> str:
    side = setup.side(placement.side)
    area = side.area(placement.area) if side else None
    method = setup.materials.methods.get(area.method) if area else None
    are = "is an emoji" if len(emoji) == 1 else "are emoji"
    it = "it" if len(emoji) == 1 else "them"
    return f"{_quoted(emoji)} {are} and can't be {method.done if method else 'made'}. Please write it without {it}."


def _missing_words(
    setup: Setup, typeface: str, missing: tuple[str, ...], having: tuple[str, ...], elsewhere: tuple[str, ...]
) -> str:
    """Say what is missing, which typefaces of the offer have it, or else which others of the workshop do."""

    def name(key: str) -> str:
        return setup.materials.typefaces[key].name

    one = len(missing) == 1
    subject = f"The {'character' if one else 'characters'} {_quoted(missing)} {'is' if one else 'are'}"
    said = f"{subject} not in the typeface {name(typeface)}. "
    if not having and elsewhere:
        names = ", ".join(name(key) for key in elsewhere)
        said += f"Of the workshop's other typefaces, {names} {'has' if len(elsewhere) == 1 else 'have'} all you typed. "
    if not having:
        return said + f"Please write it without {'it' if one else 'them'}."
    if len(having) == 1:
        return said + f"{name(having[0])} has all you typed."
    return said + f"These have all you typed: {', '.join(name(key) for key in having)}."


def _check_artwork(field: ArtworkField, value: object) -> Iterator[Problem]:
    if not isinstance(value, UploadedFile):
        return
    if value.kind not in field.kinds:
        kinds = ", ".join(kind.upper() for kind in field.kinds)
        message = f"“{value.name}” is a {value.kind.upper()} file. What can be used for “{field.label}”: {kinds}."
        yield Problem(code="wrong_kind", field=field.key, message=message)
    if value.size_bytes > field.most_megabytes * 1e6:
        message = (
            f"“{value.name}” has {value.size_bytes / 1e6:.1f} MB; for “{field.label}” there is room for "
            f"{field.most_megabytes:g} MB. Please save it smaller, for example as a JPEG."
        )
        yield Problem(code="too_many_bytes", field=field.key, message=message)
    if field.one_color is not None and not value.one_color:
        message = f"“{value.name}” hasn't been made into one color yet. Please send it again."
        yield Problem(code="not_one_color", field=field.key, message=message)
    shorter = min(value.width_px, value.height_px)
    if field.least_pixels is not None and value.form == "picture" and shorter < field.least_pixels:
        message = (
            f"“{value.name}” has {value.width_px} × {value.height_px} pixels; at least {field.least_pixels} on the "
            "shorter edge are needed. Please pick a larger picture."
        )
        yield Problem(code="too_few_pixels", field=field.key, message=message)


def _quoted(chars: Iterable[str]) -> str:
    parts = [f"“{char}”" for char in chars]
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
