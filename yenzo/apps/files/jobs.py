"""Jobs of every night: files are checked, what has been kept long enough is cleared. Both may run twice."""

from django.utils import timezone
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.files.services.checking import check_files
from yenzo.apps.files.services.clearing import clear_old


@app.periodic(cron="20 3 * * *")
@app.task(name="files.clear_old", queueing_lock="clear_old", lock="nightly")
def nightly_clearing(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Clear what is due."""
    clear_old(SYSTEM_ACTOR, timezone.now())


@app.periodic(cron="50 3 * * *")
@app.task(name="files.check_files", queueing_lock="check_files", lock="nightly")
def nightly_check(timestamp: int) -> None:  # noqa: ARG001 - periodic tasks get their time
    """Check all files."""
    check_files(SYSTEM_ACTOR, timezone.now())
