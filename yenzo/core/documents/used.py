"""What a set-up uses of the workshop's materials: a set-up with all of them comes in, those that it needs go out."""

from yenzo.core.documents.fields import ColorField, MethodField, TypefaceField
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.setup import Setup


def used_materials(setup: Setup) -> Materials:
    """Return the methods, palettes and typefaces that a set-up refers to, and every list of words."""
    lines = [placement for placement in setup.placements if isinstance(placement, TextPlacement)]
    typefaces = {line.typeface.fixed for line in lines}
    palettes = {source.palette for placement in setup.placements for source in placement.colors}
    for field in setup.fields:
        if isinstance(field, TypefaceField):
            typefaces |= set(field.typefaces)
        elif isinstance(field, ColorField):
            palettes.add(field.palette)
    methods = {area.method for side in setup.sides for area in side.areas}
    methods |= {key for field in setup.fields if isinstance(field, MethodField) for key in field.methods}
    have = setup.materials
    return have.model_copy(
        update={
            "methods": {key: method for key, method in have.methods.items() if key in methods},
            "palettes": {key: palette for key, palette in have.palettes.items() if key in palettes},
            "typefaces": {key: typeface for key, typeface in have.typefaces.items() if key in typefaces},
        }
    )
