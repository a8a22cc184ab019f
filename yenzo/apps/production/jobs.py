"""Jobs of production. Each may run twice, on two workers even, and finishes once."""

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.production.making import make
from yenzo.apps.production.services.packs import note_failure
from yenzo.core.errors import YenzoError


@app.task(name="production.make_pack", retry=RetryStrategy(max_attempts=4, exponential_wait=3))
def make_pack(*, pack_id: int) -> None:
    """Make the pack of a piece and keep it."""
    try:
        make(pack_id)
    except YenzoError as error:
        # It would end the same way each time: staff decide.
        note_failure(SYSTEM_ACTOR, pack_id, error.message)
    except Exception:
        note_failure(
            SYSTEM_ACTOR,
            pack_id,
            "Something on our side failed. It is tried again a few times by itself; after that, try it here.",
        )
        raise
