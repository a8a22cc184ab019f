"""A customer who presses keys: entries go to a running installation as a browser sends them; milliseconds come back."""

import html
import re
import time
import urllib.parse
import urllib.request


def form(name: str) -> bytes:
    """Return the slip of the nameboard as a browser sends it."""
    values = {
        "entry-name": name,
        "entry-lettering": "quayside",
        "entry-with-port": "yes",
        "entry-port": "Port Hallow",
        "entry-finish": "gold",
        "view": "front",
    }
    return urllib.parse.urlencode(values).encode()


# What a page says with each key of what it shows.
SHOWN = re.compile(r"""<input type="hidden" name="(shown|asked|told|page|variant|hands)" value=(["'])(.*?)\2""")


class Shopper:
    """Sends previews as a browser does: with its token, the page's language, and what the last answer showed."""

    def __init__(self, url: str, product: str = "cedar-nameboard") -> None:
        self._address = f"{url}/goods/{product}/"
        self._opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        page = self._opener.open(self._address).read().decode()
        token = page.split('name="csrfmiddlewaretoken" value="')[1].split('"')[0]
        self._headers = {"X-CSRFToken": token, "Page-Language": "en-gb", "HX-Request": "true"}
        self._shown = self._shown_in(page)

    @staticmethod
    def _shown_in(page: str) -> dict[str, str]:
        return {name: html.unescape(value) for name, _, value in SHOWN.findall(page)}

    def preview(self, name: str) -> float:
        """Return how many milliseconds one preview of the nameboard took."""
        return self.send(form(name))

    def send(self, entries: bytes) -> float:
        """Return how many milliseconds one preview of these entries took."""
        named = urllib.parse.parse_qs(entries.decode())
        shown = {name: value for name, value in self._shown.items() if name not in named}
        body = b"&".join((entries, urllib.parse.urlencode(shown).encode()))
        request = urllib.request.Request(f"{self._address}preview/", body, self._headers)
        begun = time.perf_counter()
        answer = self._opener.open(request).read()
        taken = 1000 * (time.perf_counter() - begun)
        self._shown |= self._shown_in(answer.decode())
        return taken
