"""A customer's files: as received, and the pictures that the core made from them."""

import uuid
from pathlib import Path
from typing import ClassVar, Self

from django.conf import settings
from django.db import models
from django.db.models import Q
from django.utils.translation import gettext

from yenzo.apps.files.models import StoredFile
from yenzo.core.documents.artwork import UploadedFile

MOST_PAGES_SHOWN = 200


class UploadQuerySet(models.QuerySet["Upload"]):
    def of_visitor(self, visitor: uuid.UUID) -> Self:
        """Return the uploads that this visitor may use and see."""
        return self.filter(visitor=visitor).select_related("original")

    def ready(self) -> Self:
        """Return the uploads that were looked at and accepted."""
        return self.filter(state=Upload.State.READY)

    def waiting(self) -> Self:
        """Return the uploads that are still to be looked at."""
        return self.filter(state=Upload.State.WAITING)

    def unused(self) -> Self:
        """Return the uploads that nothing uses that is kept."""
        return self.filter(personalizations=None, lists=None)


class Upload(models.Model):
    """A customer's file, from being received to being accepted or refused by whoever looks at it.

    It belongs to the visitor who sent it, and to nobody who merely knows its hash.
    """

    class State(models.TextChoices):
        WAITING = "waiting", "To be looked at"
        READY = "ready", "Accepted"
        REFUSED = "refused", "Refused"

    state = models.CharField(max_length=8, choices=State.choices, default=State.READY)
    refusal = models.TextField(blank=True, help_text="why it was refused, in the language of who sent it")
    language = models.CharField(max_length=20, default="en-gb", help_text="of who sent it")
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField(db_index=True)
    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=10, blank=True)
    form = models.CharField(max_length=10, default="picture", help_text="picture or drawing")
    pages = models.PositiveIntegerField(default=1)
    see_through = models.BooleanField(default=False)
    wishes = models.JSONField(default=list, help_text="preparations that would change something")
    preparation = models.JSONField(default=dict, help_text="how it was wanted")
    width_px = models.PositiveIntegerField(default=0)
    height_px = models.PositiveIntegerField(default=0)
    notes = models.JSONField(default=list)
    original = models.ForeignKey(StoredFile, on_delete=models.PROTECT, related_name="+")
    prepared = models.ForeignKey(StoredFile, null=True, on_delete=models.PROTECT, related_name="+")
    shown = models.ForeignKey(StoredFile, null=True, on_delete=models.PROTECT, related_name="+")
    sent_at = models.DateTimeField(auto_now_add=True)

    objects = UploadQuerySet.as_manager()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=~Q(state="ready") | Q(prepared__isnull=False, shown__isnull=False),
                name="ready_upload_has_its_files",
            ),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def page_numbers(self) -> range:
        """The pages that may be chosen, the first ones of a long file."""
        return range(1, min(self.pages, MOST_PAGES_SHOWN) + 1)

    @property
    def turns(self) -> tuple[tuple[int, int], ...]:
        """The quarter turns that may be chosen, each in degrees."""
        return tuple((turns, 90 * turns) for turns in range(4))

    @property
    def crop_numbers(self) -> tuple[tuple[str, str, str], ...]:
        """Where the part begins and ends that the file was cut to: name, label and percent of each edge."""
        crop = self.preparation.get("crop") or (0, 0, 1, 1)
        labels = {
            "left": gettext("Left"),
            "top": gettext("Top"),
            "right": gettext("Right"),
            "bottom": gettext("Bottom"),
        }
        return tuple(
            (name, label, f"{round(100 * at, 2):g}") for (name, label), at in zip(labels.items(), crop, strict=True)
        )

    @property
    def for_entries(self) -> UploadedFile:
        """The upload, which is ready, as an entries document has it."""
        assert self.prepared_id is not None
        return UploadedFile(
            name=self.name,
            original=self.original_id,
            prepared=self.prepared_id,
            kind=self.kind,
            form="drawing" if self.form == "drawing" else "picture",
            see_through=self.see_through,
            one_color=bool(self.preparation.get("one_color")),
            width_px=self.width_px,
            height_px=self.height_px,
            size_bytes=self.original.size_bytes,
        )


class ArrivingFile(models.Model):
    """A file that arrives part by part: what has arrived lies in the folder of files until all of it is there.

    A browser whose line broke asks by its own `key`, or by the same file picked anew, how much is here, and goes on.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    visitor = models.UUIDField()
    key = models.UUIDField(help_text="the browser's, for this sending of it")
    name = models.CharField(max_length=300)
    size_bytes = models.PositiveBigIntegerField()
    modified = models.BigIntegerField(help_text="when the file was changed last, in milliseconds, as its browser says")
    received_bytes = models.PositiveBigIntegerField(default=0)
    upload = models.ForeignKey(Upload, null=True, on_delete=models.CASCADE, related_name="+")
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes: ClassVar = [models.Index(fields=["visitor", "key"])]

    def __str__(self) -> str:
        return f"{self.name}, {self.received_bytes} of {self.size_bytes} bytes"

    @property
    def path(self) -> Path:
        """Where the parts lie that have arrived."""
        return Path(settings.FILES_ROOT) / f"{self.pk.hex}.upload.arriving"

    @property
    def is_complete(self) -> bool:
        """Whether all of it has arrived."""
        return self.received_bytes == self.size_bytes
