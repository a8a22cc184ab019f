"""A stand-in for an album elsewhere: consent on its own page, pictures by pages, some answers slow and some broken.

Usage: python -m yenzo.gateways.album.practice_server --port 8482 --secret WORDS --back http://127.0.0.1:8480/
Keeps nothing: who consented before must do so again after a start. The pictures are drawn here.
"""

import argparse
import hashlib
import hmac
import html
import io
import json
import secrets
import sys
import time
from functools import lru_cache
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import parse_qs, unquote, urlencode, urlsplit

from PIL import Image, ImageDraw

from yenzo.gateways.album.practice import CLIENT, NAME

PICTURES, A_PAGE = 60, 24
WHAT = ("Harbor wall", "Low tide", "Regatta start", "Evening sail", "Terns", "The old crane", "First swim", "Fog bank")
# What goes wrong here, so that it is met: the file of one picture breaks off, one comes late, a page fails once.
BROKEN, LATE, FAILS_ONCE = 5, 9, "48"
CONSENT = """<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{name}</title>
<meta name="viewport" content="width=device-width, initial-scale=1"></head>
<body style="font-family: sans-serif; max-width: 32rem; margin: 3rem auto; padding: 0 1rem">
<h1>{name}</h1><p>The workshop asks to see your pictures, to put one of them on what you have made there.
It sees them until you close your browser, and takes only what you choose.</p>
<form method="post"><button name="consents" value="yes">Let it see them</button>
<button name="consents" value="no">Not now</button></form></body></html>"""


class Server(ThreadingHTTPServer):
    """The album: who has consented, and what has failed once."""

    daemon_threads = True

    def __init__(self, port: int, secret: str, back: str, late_seconds: float) -> None:
        super().__init__(("127.0.0.1", port), Handler)
        self.secret, self.back, self.late_seconds = secret, back, late_seconds
        self.codes: set[str] = set()
        self.tokens: set[str] = set()
        self.failed: set[str] = set()

    def handle_error(self, request: Any, client_address: Any) -> None:
        """Say nothing of who went away before the answer was there."""
        if not isinstance(sys.exc_info()[1], ConnectionError):
            super().handle_error(request, client_address)


class Handler(BaseHTTPRequestHandler):
    """Answers one request."""

    server: Server

    def log_message(self, *_said: Any) -> None:
        """Keep no log: addresses hold codes."""

    def do_GET(self) -> None:
        """Show the page of consent, or hand out pictures."""
        address = urlsplit(self.path)
        asked = {name: values[0] for name, values in parse_qs(address.query).items()}
        if address.path == "/consent":
            self._consent(asked)
        elif not address.path.startswith("/pictures"):
            self._say(404, b"")
        elif self.headers.get("Authorization", "").removeprefix("Bearer ") not in self.server.tokens:
            self._say(401, b"")
        elif address.path == "/pictures":
            self._page(asked.get("after", ""))
        else:
            _, _, key, size = (*map(unquote, address.path.split("/")), "", "")[:4]
            self._picture(key, size)

    def do_POST(self) -> None:
        """Take a consent, or change a code."""
        address = urlsplit(self.path)
        asked = {name: values[0] for name, values in parse_qs(address.query).items()}
        body = self.rfile.read(min(int(self.headers.get("Content-Length") or 0), 10_000)).decode(errors="replace")
        if address.path == "/consent" and self._may_return(asked):
            answer = {"state": asked.get("state", "")}
            if "consents=yes" in body:
                answer["code"] = secrets.token_urlsafe(24)
                self.server.codes.add(answer["code"])
            self.send_response(303)
            self.send_header("Location", f"{asked['back']}?{urlencode(answer)}")
            self.send_header("Content-Length", "0")
            self.end_headers()
        elif address.path == "/token":
            self._token(body)
        else:
            self._say(404, b"")

    def _may_return(self, asked: dict[str, str]) -> bool:
        return asked.get("client") == CLIENT and asked.get("back", "").startswith(self.server.back)

    def _consent(self, asked: dict[str, str]) -> None:
        if self._may_return(asked):
            self._say(200, CONSENT.format(name=html.escape(NAME)).encode(), "text/html; charset=utf-8")
        else:
            self._say(400, b"Nobody known here asks.", "text/plain")

    def _token(self, body: str) -> None:
        sent = {name: values[0] for name, values in parse_qs(body).items()}
        is_known = hmac.compare_digest(sent.get("secret", ""), self.server.secret)
        code = sent.get("code", "")
        if not is_known or code not in self.server.codes:
            self._say(400, b"{}", "application/json")
            return
        # Good for once.
        self.server.codes.discard(code)
        token = secrets.token_urlsafe(32)
        self.server.tokens.add(token)
        self._say(200, json.dumps({"token": token}).encode(), "application/json")

    def _page(self, after: str) -> None:
        if after == FAILS_ONCE and after not in self.server.failed:
            self.server.failed.add(after)
            self._say(503, b"")
            return
        first = int(after) if after.isascii() and after.isdecimal() and len(after) < 4 else 0
        shown = range(first, min(first + A_PAGE, PICTURES))
        pictures = [{"key": f"p{number}", "name": name_of(number)} for number in shown]
        following = str(shown.stop) if shown.stop < PICTURES else ""
        self._say(200, json.dumps({"pictures": pictures, "after": following}).encode(), "application/json")

    def _picture(self, key: str, size: str) -> None:
        number = int(key[1:]) if key[:1] == "p" and key[1:].isdecimal() and len(key) < 4 else PICTURES
        if number >= PICTURES or size not in {"small", "whole"}:
            self._say(404, b"")
            return
        if size == "small":
            self._say(200, drawn(number, 180), "image/jpeg")
            return
        if number == LATE:
            time.sleep(self.server.late_seconds)
        data = drawn(number, 1800)
        cut = data[: len(data) // 2] if number == BROKEN else data
        self._say(200, cut, "image/jpeg", size=len(data), name=f"{name_of(number)}.jpg")

    def _say(
        self, status: int, body: bytes, kind: str = "text/plain", *, size: int | None = None, name: str = ""
    ) -> None:
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body) if size is None else size))
        if name:
            self.send_header("Picture-Name", name)
        self.end_headers()
        self.wfile.write(body)
        self.close_connection = size is not None


def name_of(number: int) -> str:
    """Return what a picture is called."""
    return f"{WHAT[number % len(WHAT)]} {number // len(WHAT) + 1}"


@lru_cache(maxsize=200)
def drawn(number: int, width: int) -> bytes:
    """Return a picture of sea, sun and a sail as a JPEG; the same one each time."""
    dice = hashlib.sha256(str(number).encode()).digest()
    height = width * 2 // 3
    picture = Image.new("RGB", (width, height))
    draw = ImageDraw.Draw(picture)
    horizon = height * (45 + dice[0] % 20) // 100
    for y in range(height):
        share = y / height
        sky = (255 - int(90 * share), 214 - int(40 * share) - dice[1] % 40, 170 + int(60 * share))
        sea = (24 + dice[2] % 30, 92 + int(50 * share), 110 + int(40 * share))
        draw.line([(0, y), (width, y)], fill=sky if y < horizon else sea)
    sun, radius = (width * (20 + dice[3] % 60) // 100, horizon - height // 8), height // 12
    draw.ellipse([sun[0] - radius, sun[1] - radius, sun[0] + radius, sun[1] + radius], fill=(255, 236, 190))
    mast = width * (25 + dice[4] % 50) // 100
    top, foot = horizon - height // 3, horizon + height // 20
    draw.polygon([(mast, top), (mast, foot), (mast + height // 4, foot)], fill=(250, 248, 240))
    draw.polygon([(mast - height // 7, foot), (mast - 2, top + height // 12), (mast - 2, foot)], fill=(200, 64, 42))
    hull = [(mast - height // 5, foot + 4), (mast + height // 3, foot + 4), (mast + height // 4, foot + height // 14)]
    draw.polygon([*hull, (mast - height // 7, foot + height // 14)], fill=(40, 52, 60))
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=88)
    return out.getvalue()


def main() -> None:
    """Serve until stopped."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--port", type=int, required=True)
    options.add_argument("--secret", required=True)
    options.add_argument("--back", required=True, help="what addresses to return to begin with")
    options.add_argument("--late-seconds", type=float, default=20.0)
    given = options.parse_args()
    sys.stdout.write(f"{NAME} at http://127.0.0.1:{given.port}\n")
    sys.stdout.flush()
    Server(given.port, given.secret, given.back, given.late_seconds).serve_forever()


if __name__ == "__main__":
    main()
