"""Jobs of the outbox. Arguments are ids only; each may run twice without harm."""

from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.outbox.orphaned_jobs import grace_cutoff
from yenzo.apps.outbox.services.mails import SENDING, look_after_mails, note_unsent
from yenzo.apps.outbox.services.mails import send_mail as send

# The post may be away for a while: 2, 4, 8 … seconds, for about a day in all.
MOST_ATTEMPTS = 16


@app.periodic(cron="* * * * *")
@app.task(name="outbox.look_after_mails", queueing_lock="look_after_mails")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have mails sent whose job failed when nobody could write that down."""
    look_after_mails(SYSTEM_ACTOR, grace_cutoff())


@app.task(name=SENDING, pass_context=True, retry=RetryStrategy(max_attempts=MOST_ATTEMPTS, exponential_wait=2))
def send_mail(context: JobContext, *, mail_id: int) -> None:
    """Send a mail that is wanted."""
    try:
        send(SYSTEM_ACTOR, mail_id)
    except Exception as error:
        tries = context.job.attempts + 1
        is_over = tries >= MOST_ATTEMPTS
        said = f"{type(error).__name__}: {error}" if str(error) else type(error).__name__
        rest = "It is not tried again by itself." if is_over else "It is tried again by itself."
        note_unsent(SYSTEM_ACTOR, mail_id, f"{said[:200]} ({tries} of {MOST_ATTEMPTS} tries). {rest}", is_over=is_over)
        raise
