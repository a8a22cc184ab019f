"""Possibilities of the slip: a field comes in; what can be chosen, with its looks and its price, goes out."""

from dataclasses import dataclass
from decimal import Decimal

from yenzo.apps.designs.picture_addresses import SMALL, picture_address, specimen_address
from yenzo.core.asking.ask import Asked, is_offered
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.documents.charges import ChoiceCharge
from yenzo.core.documents.fields import AnyField, ColorField, MethodField, OptionsField, TypefaceField
from yenzo.core.documents.setup import Setup


@dataclass(frozen=True)
class SlipOption:
    """One possibility of a choice, as the slip shows it."""

    key: str
    label: str
    is_chosen: bool
    amount: Decimal | None = None
    swatch: str | None = None
    typeface: str | None = None
    picture: str | None = None
    moves_others: bool = False


def options_of(setup: Setup, field: AnyField, value: Raw, asked: Asked) -> tuple[SlipOption, ...]:
    """Return what can be chosen for a field now."""
    amounts: dict[str, Decimal] = {}
    for charge in setup.charges_of(field.key):
        if isinstance(charge, ChoiceCharge):
            amounts |= charge.amounts
    if isinstance(field, OptionsField):
        return tuple(_options(setup, field, value, asked, amounts))
    if isinstance(field, TypefaceField):
        have = setup.materials.typefaces
        return tuple(
            SlipOption(key, have[key].name, key == value, amounts.get(key), typeface=specimen_address(have[key]))
            for key in field.typefaces
            if key in have
        )
    if isinstance(field, MethodField):
        methods = setup.materials.methods
        kept = [key for key in field.methods if key in methods]
        return tuple(SlipOption(key, methods[key].name, key == value, amounts.get(key)) for key in kept)
    return tuple(_colors(setup, field, value, amounts)) if isinstance(field, ColorField) else ()


def _options(
    setup: Setup, field: OptionsField, value: Raw, asked: Asked, amounts: dict[str, Decimal]
) -> list[SlipOption]:
    chosen = value if isinstance(value, tuple) else (value,)
    return [
        SlipOption(
            option.key,
            option.label,
            option.key in chosen,
            amounts.get(option.key),
            swatch=option.swatch,
            picture=picture_address(option.picture.asset, SMALL) if option.picture else None,
        )
        for option in field.options
        if is_offered(setup, option, asked)
    ]


def _colors(setup: Setup, field: ColorField, value: Raw, amounts: dict[str, Decimal]) -> list[SlipOption]:
    palette = setup.materials.palettes.get(field.palette)
    colors = [palette.color(key) for key in setup.offered_of(field)] if palette else []
    return [
        SlipOption(color.key, color.name, color.key == value, amounts.get(color.key), swatch=color.screen)
        for color in colors
        if color
    ]
