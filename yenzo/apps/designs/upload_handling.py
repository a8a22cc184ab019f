"""Receiving files: a request's body comes in; what is beyond the bound is read past and never written to disk."""

from django.conf import settings
from django.core.files.uploadhandler import StopUpload, TemporaryFileUploadHandler


class BoundedUploadHandler(TemporaryFileUploadHandler):
    """Writes to temporary files until a request has sent more than it may; then none of its files arrives."""

    def __init__(self, *args: object, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)  # type: ignore[arg-type]
        self._received = 0

    def receive_data_chunk(self, raw_data: bytes, start: int) -> None:
        """Write a chunk, or stop."""
        self._received += len(raw_data)
        if self._received > settings.MOST_REQUEST_BYTES:
            # The rest is still read, so that the answer in words reaches the sender.
            raise StopUpload(connection_reset=False)
        super().receive_data_chunk(raw_data, start)
