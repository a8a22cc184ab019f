"""Lines and paragraphs of text, and notes to the workshop."""

import re
from collections.abc import Iterator
from typing import Any

import icu

from yenzo.core.asking.invisible import without_invisible
from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.patterns import has_pattern, pattern_words
from yenzo.core.asking.problems import Problem, quoted
from yenzo.core.asking.texts import (
    MOST_IN_A_PARAGRAPH,
    characters,
    describe_allowed,
    is_emoji,
    most_in,
    not_allowed,
    words,
)
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import LineField, NoteField, ParagraphField, TextField
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import translate

UNBOUNDED = 40


# Blanks that may be made one; those that must not be broken stay as they are.
SPACES = re.compile(r"[^\S\u00a0\u202f]+")
# Languages in which i and ı are two letters (SpecialCasing.txt).
DOTTED_LANGUAGES = frozenset({"tr", "az"})


def plain_lines(raw: str) -> str:
    """Return a text of several lines without spaces at their ends and empty lines around it."""
    return "\n".join(SPACES.sub(" ", line).strip() for line in raw.splitlines()).strip("\n")


class TextKind(Kind[TextField]):
    """What lines and paragraphs share."""

    def problems(self, field: TextField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is too long or too short, has characters or words that may not be there, or another shape."""
        text = str(value)
        most = most_in(field)
        if len(text) > most:
            what = translate("a paragraph") if isinstance(field, ParagraphField) else translate("a line")
            message = translate(
                "This is {count} characters long; {what} has room for {most} at most. Please shorten it.",
                count=len(text),
                what=what,
                most=most,
            )
            yield problem(field, "too_long", message)
            return
        yield from self._shape_problems(field, text)
        count = len(characters(text))
        if field.most_characters is not None and count > field.most_characters:
            over = count - field.most_characters
            message = translate(
                "“{text}” has {count} characters, {over} too many: there is room for "
                "{most_characters}. Please shorten it.",
                text=text,
                count=count,
                over=over,
                most_characters=field.most_characters,
            )
            yield problem(field, "too_long", message)
        if field.least_characters is not None and count < field.least_characters:
            message = translate(
                "“{text}” is too short: at least {least_characters} characters are needed here.",
                text=text,
                least_characters=field.least_characters,
            )
            yield problem(field, "too_short", message)
        yield from _word_problems(field, text, context.language)
        emoji = [] if field.emoji else list(dict.fromkeys(char for char in characters(text) if is_emoji(char)))
        if emoji:
            message = translate("{words} can't be used here: please write without emoji.", words=quoted(emoji))
            yield problem(field, "no_emoji", message)
        wrong = not_allowed(field.allowed, text) if field.allowed else []
        if field.allowed and wrong:
            message = translate(
                "{words} can't be used here. What can: {allowed}.",
                words=quoted(wrong),
                allowed=describe_allowed(field.allowed),
            )
            yield problem(field, "not_allowed", message)

        if field.pattern is not None and not has_pattern(field.pattern, text):
            message = translate(
                "“{text}” isn't what is asked for: {pattern}, like “{passes}”.",
                text=text,
                pattern=pattern_words(field.pattern),
                passes=field.pattern.passes,
            )
            yield problem(field, "no_pattern", message)
        if field.word_lists:
            yield from _kept_out(field, text, context)

    def _shape_problems(self, field: TextField, text: str) -> Iterator[Problem]:
        yield from ()

    def sample(self, field: TextField, setup: Setup) -> str:
        """Return the sample or the default."""
        return field.sample or field.default

    def worst(self, field: TextField, setup: Setup) -> tuple[Raw, ...]:
        """Return texts of the widest, the highest and the narrowest letters, as long and as short as may be."""
        if field.pattern is not None:
            return (field.pattern.passes,)
        most = min(field.most_characters or UNBOUNDED, most_in(field))
        least = field.least_characters or 1
        return tuple((letter * most)[:most] for letter in ("W", "Åg", "i")) + ("I" * least,)


class LineKind(TextKind):
    """A line of text."""

    def value(self, field: TextField, entry: RawEntry) -> str:
        """Return the text in one line, in the case that is wanted."""
        return _cased(field, SPACES.sub(" ", _raw(field, entry)).strip(), entry.language)


class ParagraphKind(TextKind):
    """A text of several lines."""

    def value(self, field: TextField, entry: RawEntry) -> str:
        """Return the text in its lines, in the case that is wanted."""
        return _cased(field, plain_lines(_raw(field, entry)), entry.language)

    def _shape_problems(self, field: TextField, text: str) -> Iterator[Problem]:
        if not isinstance(field, ParagraphField) or field.most_lines is None:
            return
        lines = text.count("\n") + 1
        if lines > field.most_lines:
            message = translate(
                "This has {lines} lines, {over} too many: there is room for {most_lines}. Please join or drop some.",
                lines=lines,
                over=lines - field.most_lines,
                most_lines=field.most_lines,
            )
            yield problem(field, "too_many_lines", message)


class NoteKind(Kind[NoteField]):
    """A note to the workshop."""

    def value(self, field: NoteField, entry: RawEntry) -> str:
        """Return the note in its lines."""
        return plain_lines(_raw(field, entry))

    def problems(self, field: NoteField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield a note that is too long."""
        count = len(characters(str(value)[: MOST_IN_A_PARAGRAPH + 1]))
        if count > field.most_characters:
            over = translate("many") if count > MOST_IN_A_PARAGRAPH else str(count - field.most_characters)
            message = translate(
                "This note has {over} characters too many: there is room for {most_characters}. Please shorten it.",
                over=over,
                most_characters=field.most_characters,
            )
            yield problem(field, "too_long", message)

    def sample(self, field: NoteField, setup: Setup) -> str:
        """Return the sample or the default."""
        return field.sample or field.default

    def worst(self, field: NoteField, setup: Setup) -> tuple[Raw, ...]:
        """Return the longest note, and one in another script."""
        return ("note " * field.most_characters)[: field.most_characters].strip(), "Ж"


def _word_problems(field: TextField, text: str, language: str) -> Iterator[Problem]:
    if field.most_words is None and field.least_words is None:
        return
    count = len(words(text, language))
    if field.most_words is not None and count > field.most_words:
        over = count - field.most_words
        message = translate(
            "This has {count} words, {over} too many: there is room for {most_words}. Please shorten it.",
            count=count,
            over=over,
            most_words=field.most_words,
        )
        yield problem(field, "too_many_words", message)
    if field.least_words is not None and count < field.least_words:
        yield problem(
            field,
            "too_few_words",
            translate(
                "This is too short: at least {least_words} words are needed here.", least_words=field.least_words
            ),
        )


def _raw(field: TextField | NoteField, entry: RawEntry) -> str:
    """Return what was typed, or what the form begins with, without what shows nothing."""
    typed, _ = without_invisible(field.default if entry.raw is None else str(entry.raw))
    return typed


def _cased(field: TextField, text: str, language: str) -> str:
    # Unicode's full case mapping by language (the Standard, section 3.13): ß becomes SS, Turkish i keeps its dot.
    locale = icu.Locale(language)
    if locale.getLanguage() in DOTTED_LANGUAGES:
        # An i with a dot of its own is an i there: its capital has one dot, not two.
        text = text.replace("i\u0307", "i")
    match field.case:
        case "upper":
            return str(icu.UnicodeString(text).toUpper(locale))
        case "lower":
            return str(icu.UnicodeString(text).toLower(locale))
        case "words":
            return str(icu.UnicodeString(text).toTitle(locale))
        case "first":
            first = characters(text)[:1]
            begins = str(icu.UnicodeString("".join(first)).toUpper(locale))
            return begins + text[len("".join(first)) :]
    return text


def _kept_out(field: TextField, text: str, context: EntryContext) -> Iterator[Problem]:
    """Yield a problem for each list of the workshop that has a word of the text."""
    lists = context.setup.materials.word_lists
    if not lists:
        return
    typed = {word.casefold(): word for word in words(text, context.language)}
    for word_list in lists.values():
        found = [typed[word.casefold()] for word in word_list.words if word.casefold() in typed]
        if found:
            message = word_list.message or translate("We don't make goods with that.")
            yield problem(field, "word_kept_out", f"{quoted(dict.fromkeys(found))}: {message}")


LINE, PARAGRAPH, NOTE = LineKind(), ParagraphKind(), NoteKind()
KINDS: dict[type[FieldBase], Kind[Any]] = {LineField: LINE, ParagraphField: PARAGRAPH, NoteField: NOTE}
