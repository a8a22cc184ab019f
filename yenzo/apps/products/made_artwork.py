"""The workshop's own artwork in set-ups: a set-up comes in, the files that it makes by itself go out."""

from collections.abc import Iterator

from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import ArtworkField, FixedArtworkField, OptionsField
from yenzo.core.documents.setup import Setup


def own_files(setup: Setup) -> Iterator[UploadedFile]:
    """Yield the fixed and ready-made artwork of a set-up, and the samples of what customers send."""
    for field in setup.fields:
        if isinstance(field, FixedArtworkField) and field.artwork:
            yield field.artwork
        elif isinstance(field, ArtworkField) and field.sample:
            yield field.sample
        elif isinstance(field, OptionsField):
            yield from (option.artwork for option in field.options if option.artwork)
