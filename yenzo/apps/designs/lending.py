"""Files lent to a browser: whose piece it is on whichever machine, it may look at its files and have them made anew.

They stay those of the visitor who sent them; the session remembers which were lent.
"""

import uuid
from collections.abc import Iterable

from django.http import HttpRequest

from yenzo.apps.designs.models import Upload

LENT = "lent_uploads"
MOST_LENT = 200


def lend_uploads(request: HttpRequest, uploads: Iterable[Upload]) -> None:
    """Let a browser use files, beside those that were lent to it before; the last ones count."""
    before = list(request.session.get(LENT, ()))
    more = [key for upload in uploads if (key := str(upload.pk)) not in before]
    if more:
        request.session[LENT] = [*before, *more][-MOST_LENT:]


def is_lent(request: HttpRequest, upload_id: uuid.UUID) -> bool:
    """Tell whether a file was lent to a browser."""
    return str(upload_id) in request.session.get(LENT, ())
