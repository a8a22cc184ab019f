"""Jobs of designs. Arguments are ids, and what only a request knows; each may run twice without harm."""

import uuid

from django.utils.translation import gettext
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.listed import check_some
from yenzo.apps.designs.models import NameList, Upload
from yenzo.apps.designs.services.lists import CHECKING, look_after_lists
from yenzo.apps.designs.services.uploads import LOOKING, give_up_upload, look_after_uploads
from yenzo.apps.designs.services.uploads import look_at_upload as look
from yenzo.apps.outbox.orphaned_jobs import grace_cutoff
from yenzo.apps.pages.languages import read_in

MOST_ATTEMPTS = 3


@app.periodic(cron="* * * * *")
@app.task(name="designs.look_after_uploads", queueing_lock="look_after_uploads")
def look_after(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have files looked at whose job failed when nobody could write that down."""
    look_after_uploads(SYSTEM_ACTOR, grace_cutoff())


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


@app.task(name=CHECKING, retry=RetryStrategy(max_attempts=MOST_ATTEMPTS, wait=1))
def check_list(*, list_id: str, first: int, last: int, signed_in: bool = False) -> None:
    """Check the rows of a list from one number to another, as far as they are still to be checked.

    What only customers may have who are signed in, they may have in all rows.
    """
    names = NameList.objects.select_related("revision__product").filter(pk=list_id).first()
    if names is None:
        return
    with read_in(names.language):
        rows = names.rows.unchecked().filter(number__gte=first, number__lte=last)
        check_some(SYSTEM_ACTOR, names, rows, signed_in=signed_in)


@app.periodic(cron="* * * * *")
@app.task(name="designs.look_after_lists", queueing_lock="look_after_lists")
def look_after_names(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Have rows checked whose job failed when nobody could write that down."""
    look_after_lists(SYSTEM_ACTOR, grace_cutoff())
