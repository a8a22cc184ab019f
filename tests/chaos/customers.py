"""A customer without a browser: chooses, uploads, orders and pays over HTTP, and tries again for as long as it takes."""

import http.client
import http.cookiejar
import re
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from dataclasses import dataclass, field

AWAY = (OSError, http.client.HTTPException)
TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')
HIDDEN = re.compile(r'<input[^>]*type="hidden"[^>]*name="(checkout_key|basket_seen)"[^>]*value="([^"]*)"')
ORDER = re.compile(r"/order/([^/]+)/")
PAUSE_SECONDS = 0.2
ADDRESS = {"street": "Quay 1", "postcode": "PO1 3AX", "town": "Port Hallow", "country": "GB"}


class GivenUpError(Exception):
    """The time was over before it succeeded."""


@dataclass
class Record:
    """What customers know of their orders: checkouts that they sent, tokens that they were shown, what they paid."""

    checkouts: dict[str, str] = field(default_factory=dict)
    paid: set[str] = field(default_factory=set)
    refused: list[str] = field(default_factory=list)


class Customer:
    """One customer, with cookies of their own."""

    def __init__(self, site: str, record: Record, until: float) -> None:
        self._site = site
        self._record = record
        self._until = until
        jar = urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())
        self._browser = urllib.request.build_opener(jar)

    def order(self, name: str, picture: bytes | None) -> None:
        """Order a cushion with a picture, or a nameboard, and pay."""
        goods, line = ("deck-cushion", "words") if picture else ("cedar-nameboard", "name")
        page = self._get(f"/goods/{goods}/")
        form = {"csrfmiddlewaretoken": TOKEN.search(page)[1], "pieces": "1", f"entry-{line}": name}
        if picture:
            form |= {"entry-with-emblem": "yes", "upload-emblem": self._upload(page, picture)}
        self._post(f"/goods/{goods}/basket/", form)
        page = self._get("/checkout/")
        hidden = {key: urllib.parse.unquote(value) for key, value in HIDDEN.findall(page)}
        if "checkout_key" not in hidden:
            self._record.refused.append(f"{name}: nothing lay in the basket")
            return
        key = hidden["checkout_key"]
        self._record.checkouts[key] = ""
        person = {
            "name": name,
            "delivery": "post",
            "mail": f"{uuid.uuid4().hex[:8]}@post.example",
            "checked": "on",
        } | ADDRESS
        shown = self._post("/checkout/", {"csrfmiddlewaretoken": TOKEN.search(page)[1], **hidden, **person})
        token = ORDER.search(shown)[1]
        self._record.checkouts[key] = token
        page = self._get(f"/order/{token}/")
        while 'data-order-state="paid"' not in page:
            if 'name="way"' in page:
                form = {"csrfmiddlewaretoken": TOKEN.search(page)[1], "way": "approves"}
                self._post(f"/order/{token}/pay/", form)
            time.sleep(PAUSE_SECONDS)
            page = self._get(f"/order/{token}/")
        self._record.paid.add(token)

    def _upload(self, page: str, picture: bytes) -> str:
        boundary = uuid.uuid4().hex
        body = (
            (
                f'--{boundary}\r\nContent-Disposition: form-data; name="file"; filename="emblem.png"\r\n'
                "Content-Type: image/png\r\n\r\n"
            ).encode()
            + picture
            + f"\r\n--{boundary}--\r\n".encode()
        )
        headers = {
            "Content-Type": f"multipart/form-data; boundary={boundary}",
            "X-CSRFToken": TOKEN.search(page)[1],
        }
        while True:
            answer = self._try(urllib.request.Request(f"{self._site}/uploads/?field=emblem", body, headers))
            if answer is None or answer[0] != 202:
                continue
            address = answer[2]
            while True:
                answer = self._try(urllib.request.Request(self._site + address))
                if answer and answer[0] == 200:
                    return re.search(r'name="upload-emblem" value="([^"]+)"', answer[1])[1]
                if answer and answer[0] == 422:
                    break
                time.sleep(PAUSE_SECONDS)

    def _get(self, address: str) -> str:
        return self._patiently(urllib.request.Request(self._site + address))

    def _post(self, address: str, form: dict[str, str]) -> str:
        return self._patiently(urllib.request.Request(self._site + address, urllib.parse.urlencode(form).encode()))

    def _patiently(self, request: urllib.request.Request) -> str:
        """Send until it is answered well, as somebody does who presses the button again."""
        while True:
            answer = self._try(request)
            if answer and answer[0] == 200:
                return answer[1]
            if answer and answer[0] == 422:
                raise AssertionError(f"{request.full_url} was refused: {answer[1][:2000]}")
            time.sleep(PAUSE_SECONDS)

    def _try(self, request: urllib.request.Request) -> tuple[int, str, str] | None:
        if time.monotonic() > self._until:
            raise GivenUpError(request.full_url)
        try:
            with self._browser.open(request, timeout=40) as answer:
                return answer.status, answer.read().decode(), answer.headers.get("Location", "")
        except urllib.error.HTTPError as error:
            text = error.read().decode(errors="replace")
            if error.code == 500:
                self._record.refused.append(f"{request.full_url}: 500")
            return error.code, text, ""
        except AWAY:
            return None


def send_customers(site: str, count: int, until: float, record: Record, picture: bytes) -> list[threading.Thread]:
    """Let customers order one after another, several at once, until the time is over."""

    def shop(number: int) -> None:
        turn = 0
        while time.monotonic() < until:
            turn += 1
            customer = Customer(site, record, until + 120)
            try:
                customer.order(f"{chr(65 + number)}{turn}", picture if turn % 3 == 0 else None)
            except GivenUpError as error:
                record.refused.append(f"given up: {error}")

    threads = [threading.Thread(target=shop, args=(number,)) for number in range(count)]
    for thread in threads:
        thread.start()
    return threads


__all__ = ["Customer", "Record", "send_customers"]
