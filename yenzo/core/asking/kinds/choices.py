"""Everything that is chosen: choices, yes or no, typefaces, colors."""

from abc import abstractmethod
from collections.abc import Iterable, Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, F, Given, Kind, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.fields import ChoiceField, ColorField, FieldBase, TypefaceField, YesNoField
from yenzo.core.documents.setup import Setup


def offered_colors(setup: Setup, field: ColorField) -> tuple[str, ...]:
    """Return the keys of the colors that a color field offers, in order."""
    palette = setup.materials.palettes.get(field.palette)
    return field.colors or (tuple(color.key for color in palette.colors) if palette else ())


class OneOf(Kind[F]):
    """What is one of some possibilities, kept by its key."""

    @abstractmethod
    def offered(self, field: F, setup: Setup) -> Iterable[str]:
        """Return the keys of what may be chosen."""

    def value(self, field: F, given: Given) -> str:
        return (_default(field) if given.raw is None else str(given.raw)) or ""

    def problems(self, field: F, value: Value, around: Around) -> Iterator[Problem]:
        if value not in set(self.offered(field, around.setup)):
            message = f"“{value}” can't be chosen for “{field.label}”. Please choose one of those offered."
            yield problem(field, "not_offered", message)

    def please(self, field: F) -> str:
        return f"Please choose “{field.label}”."

    def sample(self, field: F, setup: Setup) -> str:
        return _default(field) or next(iter(self.offered(field, setup)), "")

    def worst(self, field: F, setup: Setup) -> tuple[str | bool, ...]:
        return tuple(self.offered(field, setup))


def _default(field: FieldBase) -> str:
    return getattr(field, "default", None) or ""


class ChoiceKind(OneOf[ChoiceField]):
    """A choice among options."""

    def offered(self, field: ChoiceField, setup: Setup) -> Iterable[str]:
        return [option.key for option in field.options]

    def words(self, field: ChoiceField, value: Value, around: Around) -> str:
        option = field.option(value)
        return option.label if option else str(value)

    def produced(self, field: ChoiceField, value: Value, around: Around) -> str:
        option = field.option(value)
        return (option.produced or option.label) if option else str(value)


class TypefaceKind(OneOf[TypefaceField]):
    """A choice of typeface."""

    def offered(self, field: TypefaceField, setup: Setup) -> Iterable[str]:
        return field.typefaces

    def words(self, field: TypefaceField, value: Value, around: Around) -> str:
        typeface = around.setup.materials.typefaces.get(str(value))
        return typeface.name if typeface else str(value)


class ColorKind(OneOf[ColorField]):
    """A color of a palette."""

    def offered(self, field: ColorField, setup: Setup) -> Iterable[str]:
        return offered_colors(setup, field)

    def words(self, field: ColorField, value: Value, around: Around) -> str:
        palette = around.setup.materials.palettes.get(field.palette)
        color = palette.color(str(value)) if palette else None
        return color.name if color else str(value)


class YesNoKind(Kind[YesNoField]):
    """A question answered by yes or no."""

    def value(self, field: YesNoField, given: Given) -> bool:
        return field.default if given.raw is None else given.raw is True or given.raw == "yes"

    def problems(self, field: YesNoField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def please(self, field: YesNoField) -> str:
        return f"Please tick “{field.label}”; it can't be made without."

    def words(self, field: YesNoField, value: Value, around: Around) -> str:
        return "yes" if value else "no"

    def sample(self, field: YesNoField, setup: Setup) -> bool:
        return field.default

    def worst(self, field: YesNoField, setup: Setup) -> tuple[str | bool, ...]:
        return True, False


KINDS: dict[type[FieldBase], Kind[Any]] = {
    ChoiceField: ChoiceKind(),
    TypefaceField: TypefaceKind(),
    ColorField: ColorKind(),
    YesNoField: YesNoKind(),
}
