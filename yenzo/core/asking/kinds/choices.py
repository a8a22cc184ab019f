"""Everything that is chosen: choices, yes or no, typefaces, colors."""

import re
from abc import abstractmethod
from collections.abc import Iterable, Iterator
from typing import Any, TypeVar

from yenzo.core.asking.kinds.interface import EntryContext, F, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import (
    ChoiceField,
    ColorField,
    MethodField,
    Option,
    OptionsField,
    ReadyMadeField,
    SeveralField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.materials import PaletteColor
from yenzo.core.documents.mixing import nearest, own_color
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import translate


def _palette_colors(setup: Setup, field: ColorField) -> list[PaletteColor]:
    palette = setup.materials.palettes.get(field.palette)
    found = [palette.color(key) for key in setup.offered_of(field)] if palette else []
    return [color for color in found if color]


Options = TypeVar("Options", bound=OptionsField)


class OneOf(Kind[F]):
    """What is one of some possibilities, kept by its key."""

    @abstractmethod
    def offered(self, field: F, setup: Setup) -> Iterable[str]:
        """Return the keys of what may be chosen."""

    def value(self, field: F, entry: RawEntry) -> str:
        """Return the key that was chosen, or the one that the form begins with; empty when nothing is."""
        return (_default(field) if entry.raw is None else str(entry.raw)) or ""

    def problems(self, field: F, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what was chosen and is not, or no longer, offered."""
        if value not in set(self.offered(field, context.setup)):
            message = translate(
                "“{value}” can't be chosen for “{label}”. Please choose one of those offered.",
                value=value,
                label=field.label,
            )
            yield problem(field, "not_offered", message)

    def of_cell(self, field: F, cell: str, context: EntryContext) -> Raw:
        """Return the key of what the cell names, by its words or by its key."""
        return _keys_by_name(self, field, self.offered(field, context.setup), context).get(cell.casefold(), cell)

    def please(self, field: F) -> str:
        """Ask for a choice."""
        return translate("Please choose “{label}”.", label=field.label)

    def sample(self, field: F, setup: Setup) -> str:
        """Return the default, or the first that is offered."""
        return _default(field) or next(iter(self.offered(field, setup)), "")

    def worst(self, field: F, setup: Setup) -> tuple[Raw, ...]:
        """Return everything that is offered: each may be the hardest to make."""
        return tuple(self.offered(field, setup))


def _keys_by_name(kind: Kind[F], field: F, keys: Iterable[str], context: EntryContext) -> dict[str, str]:
    """Return, by everything that a possibility is called, its key; where two are called the same, the first."""
    keys, named = tuple(keys), dict[str, str]()
    for written in (kind.words, kind.produced):
        for key in keys:
            named.setdefault(written(field, key, context).casefold(), key)
    return named | {key: key for key in keys}


def _default(field: FieldBase) -> str:
    return getattr(field, "default", None) or ""


class OneOption(OneOf[Options]):
    """One of the options that the field itself has."""

    def offered(self, field: Options, setup: Setup) -> Iterable[str]:
        """Return the keys of the options."""
        return [option.key for option in field.options]

    def words(self, field: Options, value: Value, context: EntryContext) -> str:
        """Return the option's label; a key that isn't offered as it is."""
        option = field.option(value)
        return option.label if option else str(value)


class ChoiceKind(OneOption[ChoiceField]):
    """A choice among options."""

    def produced(self, field: ChoiceField, value: Value, context: EntryContext) -> str:
        """Return what the option has made in place of its label, if it has that."""
        option = field.option(value)
        return (option.produced or option.label) if option else str(value)


class ReadyMadeKind(OneOption[ReadyMadeField]):
    """A choice among the workshop's own artwork."""


class MethodKind(OneOf[MethodField]):
    """A choice of decoration method."""

    def offered(self, field: MethodField, setup: Setup) -> Iterable[str]:
        """Return the keys of the methods."""
        return field.methods

    def words(self, field: MethodField, value: Value, context: EntryContext) -> str:
        """Return the method's name."""
        method = context.setup.materials.methods.get(str(value))
        return method.name if method else str(value)


class SeveralKind(Kind[SeveralField]):
    """Several of a choice, kept by their keys in the order of the set-up."""

    def value(self, field: SeveralField, entry: RawEntry) -> tuple[str, ...]:
        """Return the keys in the order of the set-up; unknown ones after them, to be told as problems."""
        raw = field.default if entry.raw is None else entry.raw
        wanted = raw if isinstance(raw, tuple) else (str(raw),) if raw else ()
        known = [option.key for option in field.options if option.key in wanted]
        return (*known, *dict.fromkeys(key for key in wanted if key not in known))

    def problems(self, field: SeveralField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is not offered, and more or fewer than may be chosen."""
        chosen = value if isinstance(value, tuple) else ()
        for key in chosen:
            if field.option(key) is None:
                message = translate(
                    "“{value}” can't be chosen for “{label}”. Please choose one of those offered.",
                    value=key,
                    label=field.label,
                )
                yield problem(field, "not_offered", message)
        if field.most is not None and len(chosen) > field.most:
            message = translate(
                "Of “{label}” {count} are chosen; there is room for {most}. Please take some away.",
                label=field.label,
                count=len(chosen),
                most=field.most,
            )
            yield problem(field, "too_many", message)
        if field.least is not None and len(chosen) < field.least:
            more = field.least - len(chosen)
            yield problem(
                field,
                "too_few",
                translate(
                    "Please choose {more} more of “{label}”: {least} are needed.",
                    more=more,
                    label=field.label,
                    least=field.least,
                ),
            )

    def of_cell(self, field: SeveralField, cell: str, context: EntryContext) -> Raw:
        """Return the keys of all that the cell names, one after another with commas or semicolons between."""
        named = {option.produced.casefold(): option.key for option in field.options if option.produced}
        named |= {option.label.casefold(): option.key for option in field.options}
        named |= {option.key: option.key for option in field.options}
        if cell.casefold() in named:
            return (named[cell.casefold()],)
        parts = [part.strip() for part in re.split(r"[,;\n]", cell) if part.strip()]
        return tuple(named.get(part.casefold(), part) for part in parts)

    def please(self, field: SeveralField) -> str:
        """Ask for as many as are needed."""
        count = (
            translate("at least {least}", least=field.least)
            if field.least and field.least > 1
            else translate("something")
        )
        return translate("Please choose {count} of “{label}”.", count=count, label=field.label)

    def words(self, field: SeveralField, value: Value, context: EntryContext) -> str:
        """Return the labels as a list."""
        return ", ".join(option.label for option in _chosen(field, value))

    def produced(self, field: SeveralField, value: Value, context: EntryContext) -> str:
        """Return what the options have made, as a list."""
        return ", ".join(option.produced or option.label for option in _chosen(field, value))

    def sample(self, field: SeveralField, setup: Setup) -> tuple[str, ...]:
        """Return the default, or as few as are needed."""
        return field.default or tuple(option.key for option in field.options)[: field.least or 1]

    def worst(self, field: SeveralField, setup: Setup) -> tuple[Raw, ...]:
        """Return the longest that may be chosen together, and as few as may be."""
        keys = tuple(option.key for option in field.options)
        by_length = sorted(field.options, key=lambda option: -len(option.produced or option.label))
        longest = {option.key for option in by_length[: field.most or len(keys)]}
        return tuple(key for key in keys if key in longest), keys[: field.least or 1]


def _chosen(field: SeveralField, value: Value) -> list[Option]:
    keys = value if isinstance(value, tuple) else ()
    return [option for key in keys if (option := field.option(key))]


class TypefaceKind(OneOf[TypefaceField]):
    """A choice of typeface."""

    def offered(self, field: TypefaceField, setup: Setup) -> Iterable[str]:
        """Return the keys of the typefaces."""
        return field.typefaces

    def words(self, field: TypefaceField, value: Value, context: EntryContext) -> str:
        """Return the typeface's name."""
        typeface = context.setup.materials.typefaces.get(str(value))
        return typeface.name if typeface else str(value)


class ColorKind(OneOf[ColorField]):
    """A color of a palette, or one that was mixed, as #rrggbb."""

    def value(self, field: ColorField, entry: RawEntry) -> str:
        """Return the key of a color, or a mixed one as #rrggbb in lower case."""
        value = super().value(field, entry)
        return own_color(value) or value

    def offered(self, field: ColorField, setup: Setup) -> Iterable[str]:
        """Return the keys of the colors: of the whole palette where none are named."""
        return setup.offered_of(field)

    def problems(self, field: ColorField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield a color that is not offered, or a mixed one that is too far from all that are (CIEDE2000)."""
        own = own_color(value) if field.reach is not None else None
        if own is None or field.reach is None:
            yield from super().problems(field, value, context)
            return
        near = nearest(_palette_colors(context.setup, field), own)
        if near is None or near[1] > field.reach:
            message = translate("“{color}” is too far from the colors that can be made here.", color=own)
            if near is not None:
                message += " " + translate("The nearest is “{color}”.", color=near[0].name)
            yield problem(field, "out_of_reach", message)

    def words(self, field: ColorField, value: Value, context: EntryContext) -> str:
        """Return the color's name; of a mixed one the nearest with it."""
        palette = context.setup.materials.palettes.get(field.palette)
        color = palette.color(str(value)) if palette else None
        own = own_color(value)
        near = nearest(_palette_colors(context.setup, field), own) if own and color is None else None
        if near:
            return translate("{color}, near {name}", color=str(own), name=near[0].name)
        return color.name if color else str(value)


class YesNoKind(Kind[YesNoField]):
    """A question answered by yes or no."""

    def value(self, field: YesNoField, entry: RawEntry) -> bool:
        """Return whether it was answered with yes, or what the form begins with."""
        return field.default if entry.raw is None else entry.raw is True or entry.raw == "yes"

    def problems(self, field: YesNoField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield nothing: no answer is wrong."""
        yield from ()

    def of_cell(self, field: YesNoField, cell: str, context: EntryContext) -> Raw | None:
        """Return whether the cell says yes or no: in words of who reads, with a tick, or with a number."""
        yes = {"yes", "true", "x", "1", "\N{CHECK MARK}", translate("yes").casefold()}
        no = {"no", "false", "-", "0", translate("no").casefold()}
        return cell.casefold() in yes if cell.casefold() in yes | no else None

    def please(self, field: YesNoField) -> str:
        """Ask for yes, which is all that is good where an answer is needed."""
        return translate("Please choose Yes for “{label}”; it can't be made without.", label=field.label)

    def words(self, field: YesNoField, value: Value, context: EntryContext) -> str:
        """Return yes or no in the language of who reads."""
        return translate("yes") if value else translate("no")

    def sample(self, field: YesNoField, setup: Setup) -> bool:
        """Return what the form begins with."""
        return field.default

    def worst(self, field: YesNoField, setup: Setup) -> tuple[Raw, ...]:
        """Return both answers."""
        return True, False


KINDS: dict[type[FieldBase], Kind[Any]] = {
    ChoiceField: ChoiceKind(),
    SeveralField: SeveralKind(),
    ReadyMadeField: ReadyMadeKind(),
    MethodField: MethodKind(),
    TypefaceField: TypefaceKind(),
    ColorField: ColorKind(),
    YesNoField: YesNoKind(),
}
