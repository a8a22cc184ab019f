"""What a set-up uses: of the workshop's materials, and which files by their SHA-256."""

from collections.abc import Iterator

from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.fields import (
    ArtworkField,
    ColorField,
    FixedArtworkField,
    MethodField,
    OptionsField,
    TypefaceField,
)
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.placements import TextPlacement
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Picture


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
        elif isinstance(field, OwnItemsField):
            typefaces |= set(field.texts.typefaces if field.texts else ())
            palettes |= {offer.palette for offer in (field.texts, field.drawings, field.codes) if offer}
            palettes |= {source.palette for source in (field.texts.effects.colors if field.texts else ())}
    for placement in setup.placements:
        typefaces |= set(placement.free.typefaces)
        palettes.add(placement.free.palette)
    if any(placement.free.styles for placement in setup.placements):
        typefaces |= {kin for key in typefaces for kin in setup.materials.kin_of(key or "")}
    methods = {area.method for side in setup.sides for area in side.areas}
    methods |= {key for field in setup.fields if isinstance(field, MethodField) for key in field.methods}
    have = setup.materials
    return have.model_copy(
        update={
            "methods": {key: method for key, method in have.methods.items() if key in methods},
            "palettes": {key: palette for key, palette in have.palettes.items() if key in palettes},
            "collections": {key: one for key, one in have.collections.items() if key in _collections(setup)},
            "typefaces": {key: typeface for key, typeface in have.typefaces.items() if key in typefaces},
        }
    )


def _collections(setup: Setup) -> frozenset[str]:
    offers = (field.drawings for field in setup.fields if isinstance(field, OwnItemsField))
    return frozenset(key for offer in offers if offer for key in offer.collections)


def own_artwork(setup: Setup) -> Iterator[UploadedFile]:
    """Yield the fixed and ready-made artwork of a set-up, and the samples of what customers send."""
    for field in setup.fields:
        if isinstance(field, FixedArtworkField) and field.artwork:
            yield field.artwork
        elif isinstance(field, ArtworkField) and field.sample:
            yield field.sample
        elif isinstance(field, OptionsField):
            yield from (option.artwork for option in field.options if option.artwork)
    for key in _collections(setup) & set(setup.materials.collections):
        yield from (one.artwork for one in setup.materials.collections[key].drawings)


def used_files(setup: Setup) -> frozenset[str]:
    """Return the SHA-256 of every file that a set-up needs: pictures, artwork as received and as made, fonts."""
    made = {sha256 for file in own_artwork(setup) for sha256 in (file.original, file.prepared)}
    fonts = {typeface.font for typeface in setup.materials.typefaces.values()}
    return frozenset(made | fonts | {picture.asset for picture in _pictures(setup)})


def _pictures(setup: Setup) -> Iterator[Picture]:
    if setup.offer.picture:
        yield setup.offer.picture
    yield from (side.picture for side in setup.sides)
    for variant in setup.offer.variants:
        yield from variant.pictures.values()
    for key in _collections(setup) & set(setup.materials.collections):
        yield from (one.picture for one in setup.materials.collections[key].drawings if one.picture)
    for field in setup.fields:
        if field.picture:
            yield field.picture
        for option in field.options if isinstance(field, OptionsField) else ():
            if option.picture:
                yield option.picture
            yield from (*option.goods.values(), *option.overlays.values())
