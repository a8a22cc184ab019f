"""Looking at pieces before they are made: a personalization comes in, what is found of it goes out."""

from yenzo.apps.designs.models import Personalization
from yenzo.apps.designs.to_core import asked_of, entries_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.languages import read_in
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.errors import YenzoError
from yenzo.core.evaluation import Evaluation, evaluate_asked
from yenzo.core.planning.release import Found, find_before_making
from yenzo.core.translation import SOURCE_LANGUAGE

UNREADABLE = "unreadable"


def inspect_personalization(
    personalization: Personalization, language: str = SOURCE_LANGUAGE, sound: set[str] | None = None
) -> tuple[Found, ...]:
    """Return what is found of a personalization by the checks of today, in words of a language.

    One that can't be drawn at all, as a file of it is damaged, has that as its only finding. Files that were found
    `sound` aren't read again.
    """
    setup = setup_of_revision(personalization.revision)
    typed = entries_of(personalization).values if personalization.entries else None
    with read_in(language):
        try:
            evaluation = evaluate_asked(
                setup, asked_of(personalization), StoredAssets(), language=language, typed=typed
            )
            _read_pictures(evaluation, set() if sound is None else sound)
        except YenzoError as error:
            why = f"It can’t be drawn: {error.message}"
            return (Found(code=UNREADABLE, field="", message=why, blocks=True),)
    return find_before_making(evaluation)


def _read_pictures(evaluation: Evaluation, sound: set[str]) -> None:
    """Read the pictures of a piece, which composing it doesn't; raises AssetError for one that is gone or damaged."""
    wanted = {picture.asset for area in evaluation.scene.areas for picture in area.pictures}
    for asset in sorted(wanted - sound):
        StoredAssets().read(asset)
        sound.add(asset)
