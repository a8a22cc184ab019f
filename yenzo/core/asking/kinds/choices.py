"""Everything that is chosen: choices, yes or no, typefaces, colors."""

from abc import abstractmethod
from collections.abc import Iterable, Iterator
from typing import Any, TypeVar

from yenzo.core.asking.kinds.interface import Around, F, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.fields import (
    ChoiceField,
    ColorField,
    FieldBase,
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
from yenzo.core.speaking import say


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

    def value(self, field: F, given: Given) -> str:
        return (_default(field) if given.raw is None else str(given.raw)) or ""

    def problems(self, field: F, value: Value, around: Around) -> Iterator[Problem]:
        if value not in set(self.offered(field, around.setup)):
            message = say(
                "“{value}” can't be chosen for “{label}”. Please choose one of those offered.",
                value=value,
                label=field.label,
            )
            yield problem(field, "not_offered", message)

    def please(self, field: F) -> str:
        return say("Please choose “{label}”.", label=field.label)

    def sample(self, field: F, setup: Setup) -> str:
        return _default(field) or next(iter(self.offered(field, setup)), "")

    def worst(self, field: F, setup: Setup) -> tuple[Raw, ...]:
        return tuple(self.offered(field, setup))


def _default(field: FieldBase) -> str:
    return getattr(field, "default", None) or ""


class OneOption(OneOf[Options]):
    """One of the options that the field itself has."""

    def offered(self, field: Options, setup: Setup) -> Iterable[str]:
        return [option.key for option in field.options]

    def words(self, field: Options, value: Value, around: Around) -> str:
        option = field.option(value)
        return option.label if option else str(value)


class ChoiceKind(OneOption[ChoiceField]):
    """A choice among options."""

    def produced(self, field: ChoiceField, value: Value, around: Around) -> str:
        option = field.option(value)
        return (option.produced or option.label) if option else str(value)


class ReadyMadeKind(OneOption[ReadyMadeField]):
    """A choice among the workshop's own artwork."""


class MethodKind(OneOf[MethodField]):
    """A choice of decoration method."""

    def offered(self, field: MethodField, setup: Setup) -> Iterable[str]:
        return field.methods

    def words(self, field: MethodField, value: Value, around: Around) -> str:
        method = around.setup.materials.methods.get(str(value))
        return method.name if method else str(value)


class SeveralKind(Kind[SeveralField]):
    """Several of a choice, kept by their keys in the order of the set-up."""

    def value(self, field: SeveralField, given: Given) -> tuple[str, ...]:
        raw = field.default if given.raw is None else given.raw
        wanted = raw if isinstance(raw, tuple) else (str(raw),) if raw else ()
        known = [option.key for option in field.options if option.key in wanted]
        return (*known, *dict.fromkeys(key for key in wanted if key not in known))

    def problems(self, field: SeveralField, value: Value, around: Around) -> Iterator[Problem]:
        chosen = value if isinstance(value, tuple) else ()
        for key in chosen:
            if field.option(key) is None:
                message = say(
                    "“{value}” can't be chosen for “{label}”. Please choose one of those offered.",
                    value=key,
                    label=field.label,
                )
                yield problem(field, "not_offered", message)
        if field.most is not None and len(chosen) > field.most:
            message = say(
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
                say(
                    "Please choose {more} more of “{label}”: {least} are needed.",
                    more=more,
                    label=field.label,
                    least=field.least,
                ),
            )

    def please(self, field: SeveralField) -> str:
        count = say("at least {least}", least=field.least) if field.least and field.least > 1 else say("something")
        return say("Please choose {count} of “{label}”.", count=count, label=field.label)

    def words(self, field: SeveralField, value: Value, around: Around) -> str:
        return ", ".join(option.label for option in _chosen(field, value))

    def produced(self, field: SeveralField, value: Value, around: Around) -> str:
        return ", ".join(option.produced or option.label for option in _chosen(field, value))

    def sample(self, field: SeveralField, setup: Setup) -> tuple[str, ...]:
        return field.default or tuple(option.key for option in field.options)[: field.least or 1]

    def worst(self, field: SeveralField, setup: Setup) -> tuple[Raw, ...]:
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
        return field.typefaces

    def words(self, field: TypefaceField, value: Value, around: Around) -> str:
        typeface = around.setup.materials.typefaces.get(str(value))
        return typeface.name if typeface else str(value)


class ColorKind(OneOf[ColorField]):
    """A color of a palette, or one that was mixed, as #rrggbb."""

    def value(self, field: ColorField, given: Given) -> str:
        value = super().value(field, given)
        return own_color(value) or value

    def offered(self, field: ColorField, setup: Setup) -> Iterable[str]:
        return setup.offered_of(field)

    def problems(self, field: ColorField, value: Value, around: Around) -> Iterator[Problem]:
        own = own_color(value) if field.reach is not None else None
        if own is None or field.reach is None:
            yield from super().problems(field, value, around)
            return
        near = nearest(_palette_colors(around.setup, field), own)
        if near is None or near[1] > field.reach:
            message = say("“{color}” is too far from the colors that can be made here.", color=own)
            if near is not None:
                message += " " + say("The nearest is “{color}”.", color=near[0].name)
            yield problem(field, "out_of_reach", message)

    def words(self, field: ColorField, value: Value, around: Around) -> str:
        palette = around.setup.materials.palettes.get(field.palette)
        color = palette.color(str(value)) if palette else None
        own = own_color(value)
        near = nearest(_palette_colors(around.setup, field), own) if own and color is None else None
        if near:
            return say("{color}, near {name}", color=str(own), name=near[0].name)
        return color.name if color else str(value)


class YesNoKind(Kind[YesNoField]):
    """A question answered by yes or no."""

    def value(self, field: YesNoField, given: Given) -> bool:
        return field.default if given.raw is None else given.raw is True or given.raw == "yes"

    def problems(self, field: YesNoField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def please(self, field: YesNoField) -> str:
        return say("Please choose Yes for “{label}”; it can't be made without.", label=field.label)

    def words(self, field: YesNoField, value: Value, around: Around) -> str:
        return say("yes") if value else say("no")

    def sample(self, field: YesNoField, setup: Setup) -> bool:
        return field.default

    def worst(self, field: YesNoField, setup: Setup) -> tuple[Raw, ...]:
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
