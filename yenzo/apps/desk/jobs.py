"""Jobs of the desk. Each may run twice without harm."""

from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.desk.services.preflights import look_after_preflights
from yenzo.apps.desk.services.questions import remind_customers
from yenzo.apps.outbox.orphaned_jobs import grace_cutoff


@app.periodic(cron="* * * * *")
@app.task(name="desk.look_after", queueing_lock="look_after_desk")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Look at what was paid and nobody looked at, and remind customers of questions."""
    look_after_preflights(SYSTEM_ACTOR, grace_cutoff())
    remind_customers(SYSTEM_ACTOR, timezone.now())
