"""Jobs of production. Each may run twice, on two workers even, and finishes once."""

from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.outbox.orphaned_jobs import grace_cutoff
from yenzo.apps.production.making import make
from yenzo.apps.production.sending import ask_after_parcels
from yenzo.apps.production.services.packs import MAKING, look_after_packs, note_delay, note_failure
from yenzo.core.errors import YenzoError

# A fault of ours may last: 2, 4, 8 … seconds, for some two hours in all.
MOST_ATTEMPTS = 12
FAULT = "Something on our side failed."


@app.periodic(cron="* * * * *")
@app.task(name="production.look_after_packs", queueing_lock="look_after_packs")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have packs made whose job failed when nobody could write that down."""
    look_after_packs(SYSTEM_ACTOR, grace_cutoff())


@app.task(
    name=MAKING,
    pass_context=True,
    retry=RetryStrategy(max_attempts=MOST_ATTEMPTS, exponential_wait=2),
)
def make_pack(context: JobContext, *, pack_id: int) -> None:
    """Make the pack of a line and keep it. It has failed when the last attempt has."""
    try:
        make(pack_id)
    except YenzoError as error:
        # It would end the same way each time: staff decide.
        note_failure(SYSTEM_ACTOR, pack_id, error.message)
    except Exception:
        if context.job.attempts + 1 >= MOST_ATTEMPTS:
            note_failure(SYSTEM_ACTOR, pack_id, f"{FAULT} It was tried {MOST_ATTEMPTS} times; please try it here.")
        else:
            note_delay(SYSTEM_ACTOR, pack_id, f"{FAULT} It is tried again by itself in a moment.")
        raise


@app.periodic(cron="*/10 * * * *")
@app.task(name="production.ask_after_parcels", queueing_lock="ask_after_parcels")
def ask_carrier(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Ask the carrier which parcels were delivered."""
    ask_after_parcels()
