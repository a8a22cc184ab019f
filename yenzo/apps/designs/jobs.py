"""Jobs of designs. Arguments are ids only; each may run twice without harm."""

import uuid

from django.utils.translation import gettext
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.services.uploads import LOOKING, give_up_upload, look_after_uploads
from yenzo.apps.designs.services.uploads import look_at_upload as look
from yenzo.apps.outbox.promises import before_now
from yenzo.apps.pages.languages import read_in

MOST_ATTEMPTS = 3


@app.periodic(cron="* * * * *")
@app.task(name="designs.look_after_uploads", queueing_lock="look_after_uploads")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have files looked at whose job failed when nobody could write that down."""
    look_after_uploads(SYSTEM_ACTOR, before_now())


@app.task(
    name=LOOKING,
    queue="artwork",
    pass_context=True,
    retry=RetryStrategy(max_attempts=MOST_ATTEMPTS, wait=1),
)
def look_at_upload(context: JobContext, *, upload_id: str) -> None:
    """Look at a customer's file. Its own queue: no pack and no mail waits for it."""
    upload = Upload.objects.filter(pk=upload_id).first()
    if upload is None:
        return
    with read_in(upload.language):
        try:
            look(SYSTEM_ACTOR, uuid.UUID(upload_id))
        except Exception:
            if context.job.attempts + 1 >= MOST_ATTEMPTS:
                why = gettext("“{name}” could not be looked at: something on our side failed. Please send it again.")
                give_up_upload(SYSTEM_ACTOR, uuid.UUID(upload_id), why.format(name=upload.name))
            raise
