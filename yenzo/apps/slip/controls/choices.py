"""Controls that are chosen from: choices of one and of several, artwork, methods, typefaces, colors; and yes or no."""

from abc import abstractmethod
from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, TypeVar

from django.http import QueryDict

from yenzo.apps.designs.picture_addresses import SMALL, picture_address, specimen_address
from yenzo.apps.designs.specimens import specimen_of
from yenzo.apps.slip.controls.interface import Control, Details, Drawn, F, name_of
from yenzo.apps.slip.options import SlipOption
from yenzo.core.asking.ask import is_offered
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.documents.charges import ChoiceCharge
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import (
    ChoiceField,
    ColorField,
    MethodField,
    OptionsField,
    ReadyMadeField,
    SeveralField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.mixing import own_color

Amounts = dict[str, Decimal]
O = TypeVar("O", bound=OptionsField)  # noqa: E741 - one letter, as other type variables


@dataclass(frozen=True)
class ChoiceDetails(Details):
    """What can be chosen now, whether none may be taken, and a color that the customer mixed."""

    options: tuple[SlipOption, ...] = ()
    may_be_empty: bool = False
    own_color: str = ""


class ChosenControl(Control[F]):
    """A control that is chosen from; what each possibility adds to the price stands at it."""

    template = "slip/_choice_control.html"

    @abstractmethod
    def options(self, field: F, drawn: Drawn, amounts: Amounts) -> Iterable[SlipOption]:
        """Yield what can be chosen now."""

    def details(self, field: F, drawn: Drawn) -> ChoiceDetails:
        """Return what can be chosen now."""
        amounts: Amounts = {}
        for charge in drawn.evaluation.setup.charges_of(field.key):
            if isinstance(charge, ChoiceCharge):
                amounts |= charge.amounts
        mixed = own_color(drawn.value) or ""
        return ChoiceDetails(tuple(self.options(field, drawn, amounts)), self.may_be_empty(field), mixed)

    def may_be_empty(self, field: F) -> bool:  # noqa: ARG002 - most are taken back by choosing another
        """Tell whether what was picked can be taken back: one of a choice that needn't be made."""
        return False


class OptionsControl(ChosenControl[O]):
    """A choice among options of the field's own."""

    def options(self, field: O, drawn: Drawn, amounts: Amounts) -> Iterable[SlipOption]:
        """Yield the options that are offered now."""
        value, evaluation = drawn.value, drawn.evaluation
        chosen = value if isinstance(value, tuple) else (value,)
        for option in field.options:
            if is_offered(evaluation.setup, option, evaluation.asked):
                picture = picture_address(option.picture.asset, SMALL) if option.picture else None
                yield SlipOption(
                    option.key,
                    option.label,
                    option.key in chosen,
                    amounts.get(option.key),
                    swatch=option.swatch,
                    picture=picture,
                )

    def may_be_empty(self, field: O) -> bool:
        """Tell whether it needn't be made."""
        return not field.required

    def shape(self, field: O, value: Raw, details: Details) -> str:  # noqa: ARG002 - the interface says what there is
        """Return which options are there, where rules decide that."""
        if not any(option.ask_when for option in field.options) or not isinstance(details, ChoiceDetails):
            return ""
        return ",".join(option.key for option in details.options)


class SeveralControl(OptionsControl[SeveralField]):
    """A choice of several."""

    def sent(self, field: SeveralField, form: QueryDict) -> Raw | None:
        """Return the keys that were ticked; those that there are."""
        sent = form.getlist(name_of(field))
        return tuple(key for key in sent if field.option(key)) if sent else None

    def may_be_empty(self, field: SeveralField) -> bool:  # noqa: ARG002 - each is taken back by itself
        """Tell that each is taken back by itself."""
        return False


class MethodControl(ChosenControl[MethodField]):
    """A choice of decoration method."""

    def options(self, field: MethodField, drawn: Drawn, amounts: Amounts) -> Iterable[SlipOption]:
        """Yield the methods that there are."""
        methods = drawn.evaluation.setup.materials.methods
        for key in field.methods:
            if key in methods:
                yield SlipOption(key, methods[key].name, key == drawn.value, amounts.get(key))


class TypefaceControl(ChosenControl[TypefaceField]):
    """A choice of typeface, each shown in itself."""

    def options(self, field: TypefaceField, drawn: Drawn, amounts: Amounts) -> Iterable[SlipOption]:
        """Yield the typefaces that there are."""
        have = drawn.evaluation.setup.materials.typefaces
        for key in field.typefaces:
            if key in have:
                specimen = specimen_of(have[key])
                address, width = (specimen_address(have[key]), specimen.width_px) if specimen else ("", 0)
                yield SlipOption(
                    key, have[key].name, key == drawn.value, amounts.get(key), typeface=address, typeface_px=width
                )


class ColorControl(ChosenControl[ColorField]):
    """A choice of color, each shown by a spot of it."""

    def options(self, field: ColorField, drawn: Drawn, amounts: Amounts) -> Iterable[SlipOption]:
        """Yield the colors that there are."""
        setup = drawn.evaluation.setup
        palette = setup.materials.palettes.get(field.palette)
        for key in setup.offered_of(field) if palette else ():
            color = palette.color(key) if palette else None
            if color:
                chosen = color.key == drawn.value
                yield SlipOption(color.key, color.name, chosen, amounts.get(color.key), swatch=color.screen)


class YesNoControl(Control[YesNoField]):
    """Yes or no."""

    template = "slip/_yes_no_control.html"

    def sent(self, field: YesNoField, form: QueryDict) -> Raw | None:
        """Return whether yes was sent."""
        sent = form.getlist(name_of(field))
        return sent[-1] == "yes" if sent else None


CONTROLS: dict[type[FieldBase], Control[Any]] = {
    ChoiceField: OptionsControl[ChoiceField](),
    SeveralField: SeveralControl(),
    ReadyMadeField: OptionsControl[ReadyMadeField](),
    MethodField: MethodControl(),
    TypefaceField: TypefaceControl(),
    ColorField: ColorControl(),
    YesNoField: YesNoControl(),
}
