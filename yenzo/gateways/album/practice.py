"""The practice album as it is asked over HTTP; `practice_server` is the other end."""

import json
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from urllib.parse import quote, urlencode

import urllib3
from urllib3.exceptions import HTTPError

from yenzo.gateways.album.interface import (
    Album,
    AlbumPage,
    AlbumPicture,
    AlbumPictureError,
    AlbumRefusalError,
    AlbumSilenceError,
)

NAME = "Gull Album"
CLIENT = "yenzo"
PIECE_BYTES = 1 << 16
# What it says of its pictures, and what a small one of them may be.
MOST_SAID_BYTES, MOST_SMALL_BYTES = 500_000, 1_000_000
REFUSED, NONE, OK = {400, 401, 403}, {404, 410}, 200


class PracticeAlbum(Album):
    """Asks the album at an address; `secret` is what both ends know of each other.

    An answer must begin within the patience, go on within it, and be whole within the whole seconds.
    """

    def __init__(
        self, address: str, secret: str, *, patience_seconds: float = 6.0, whole_seconds: float = 30.0
    ) -> None:
        self._address = address.rstrip("/")
        self._secret = secret
        self._whole_seconds = whole_seconds
        timeout = urllib3.Timeout(connect=patience_seconds / 2, read=patience_seconds)
        self._pool = urllib3.PoolManager(timeout=timeout, retries=False)

    @property
    def name(self) -> str:
        """What customers know it by."""
        return NAME

    def consent_address(self, back: str, state: str) -> str:
        """Return its page of consent."""
        return f"{self._address}/consent?{urlencode({'client': CLIENT, 'back': back, 'state': state})}"

    def token(self, code: str) -> str:
        """Change the code."""
        fields = {"client": CLIENT, "secret": self._secret, "code": code}
        with self._answer("POST", "/token", "", fields) as answer:
            said = self._json(answer)
        if not isinstance(said.get("token"), str):
            raise AlbumSilenceError
        return str(said["token"])

    def page(self, token: str, after: str = "") -> AlbumPage:
        """Ask for a page."""
        with self._answer("GET", f"/pictures?{urlencode({'after': after})}", token) as answer:
            said = self._json(answer)
        try:
            pictures = tuple(AlbumPicture(str(one["key"]), str(one["name"])) for one in said["pictures"])
        except (KeyError, TypeError) as error:
            raise AlbumSilenceError from error
        return AlbumPage(pictures, str(said.get("after") or ""))

    def small(self, token: str, key: str) -> bytes:
        """Ask for a small picture."""
        with self._answer("GET", f"/pictures/{quote(key, safe='')}/small", token) as answer:
            return b"".join(self._pieces(answer, MOST_SMALL_BYTES))

    def fetch(self, token: str, key: str, into: Path, *, most_bytes: int) -> str:
        """Fetch a picture piece by piece."""
        try:
            with self._answer("GET", f"/pictures/{quote(key, safe='')}/whole", token) as answer, into.open("wb") as out:
                for piece in self._pieces(answer, most_bytes):
                    out.write(piece)
                return answer.headers.get("Picture-Name", "picture.jpg")
        except (AlbumPictureError, AlbumSilenceError, OSError):
            into.unlink(missing_ok=True)
            raise

    @contextmanager
    def _answer(
        self, method: str, path: str, token: str, fields: dict[str, str] | None = None
    ) -> Iterator[urllib3.BaseHTTPResponse]:
        headers = {"Authorization": f"Bearer {token}"} if token else {}
        body = None
        if fields is not None:
            body, headers["Content-Type"] = urlencode(fields), "application/x-www-form-urlencoded"
        try:
            answer = self._pool.request(
                method, self._address + path, body=body, headers=headers, preload_content=False, redirect=False
            )
        except HTTPError as error:
            raise AlbumSilenceError from error
        try:
            if answer.status in REFUSED:
                raise AlbumRefusalError
            if answer.status in NONE:
                raise AlbumPictureError
            if answer.status != OK:
                raise AlbumSilenceError
            yield answer
        finally:
            answer.close()

    def _pieces(self, answer: urllib3.BaseHTTPResponse, most_bytes: int) -> Iterator[bytes]:
        """Yield what an answer holds; raises AlbumPictureError for more bytes, AlbumSilenceError for less or late."""
        announced, size, until = answer.headers.get("Content-Length", ""), 0, time.monotonic() + self._whole_seconds
        try:
            # As it comes: who sends a byte now and then would never be silent for long.
            while piece := answer.read1(PIECE_BYTES):
                size += len(piece)
                if size > most_bytes:
                    raise AlbumPictureError
                if time.monotonic() > until:
                    raise AlbumSilenceError
                yield piece
        except HTTPError as error:
            raise AlbumSilenceError from error
        if announced.isdecimal() and int(announced) != size:
            raise AlbumSilenceError

    def _json(self, answer: urllib3.BaseHTTPResponse) -> dict[str, Any]:
        try:
            said = json.loads(b"".join(self._pieces(answer, MOST_SAID_BYTES)))
        except (ValueError, AlbumPictureError) as error:
            raise AlbumSilenceError from error
        if not isinstance(said, dict):
            raise AlbumSilenceError
        return said
