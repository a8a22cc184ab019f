"""A file of a request: counted, taken from its temporary place, and kept for a worker to look at."""

from pathlib import Path

from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest
from django.utils.translation import gettext

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.services.uploads import receive_upload
from yenzo.apps.designs.visitors import visitor_of
from yenzo.core.artwork.facts import Preparation
from yenzo.core.errors import ArtworkError


def refuse_too_often(request: HttpRequest, name: str) -> None:
    """Count one more file; raises ArtworkError when a client has sent its share."""
    if not may_go_on(request, "upload"):
        why = gettext("These are many files in a short time. Please wait a minute and send this one again.")
        raise ArtworkError("too_often", name, why)


def received(request: HttpRequest, sent: object, *, wanted: Preparation, kinds: tuple[str, ...]) -> Upload:
    """Keep a file that came with a request; raises ArtworkError for none, and for what is refused at sight."""
    if not isinstance(sent, TemporaryUploadedFile):
        raise ArtworkError("missing", "file", gettext("No file arrived. Please pick it again."))
    actor, path = actor_of(request.user), Path(sent.temporary_file_path())
    return receive_upload(actor, path, sent.name or "file", visitor=visitor_of(request), wanted=wanted, kinds=kinds)
