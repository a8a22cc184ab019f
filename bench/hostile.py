"""Previews while others misuse the shop: slow senders and a hundred expensive files; latencies in ms come out.

Usage: python -m bench.hostile SITE SENDERS FILES SECONDS      on a running installation
"""

import http.cookiejar
import re
import statistics
import sys
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from contextlib import nullcontext

from bench.tools.slow_senders import slow_senders

PREVIEWS_A_SECOND = 35
TOKEN = re.compile(r'name="csrfmiddlewaretoken" value="([^"]+)"')
# 10 s of processor time for whoever draws it: many large blurs, each too small to be refused at sight.
HEAVY = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 60"><filter id="f"><feGaussianBlur stdDeviation="2"/>'
    "</filter>" + '<rect width="100" height="60" filter="url(#f)"/>' * 25 + "</svg>"
).encode()


def previews(site: str, seconds: float) -> tuple[list[float], int]:
    """Ask for previews at a steady pace, each on time; return their latencies and how many failed."""
    browser, token = visit(site)
    headers = {"X-CSRFToken": token, "Cookie": browser, "HX-Request": "true"}
    took: list[float] = []
    failed: list[str] = []
    threads = []

    def ask(number: int) -> None:
        body = urllib.parse.urlencode({"entry-name": f"Wind {number}"}).encode()
        began = time.perf_counter()
        try:
            request = urllib.request.Request(f"{site}/goods/cedar-nameboard/preview/", body, headers)
            with urllib.request.urlopen(request, timeout=30) as answer:
                answer.read()
            took.append((time.perf_counter() - began) * 1000)
        except OSError as error:
            failed.append(str(error))

    begin = time.perf_counter()
    for number in range(int(seconds * PREVIEWS_A_SECOND)):
        time.sleep(max(0, begin + number / PREVIEWS_A_SECOND - time.perf_counter()))
        threads.append(threading.Thread(target=ask, args=(number,)))
        threads[-1].start()
    for thread in threads:
        thread.join()
    return took, len(failed)


def visit(site: str) -> tuple[str, str]:
    """Open a product page; return the cookies and the token of its form."""
    jar = http.cookiejar.CookieJar()
    page = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar)).open(f"{site}/goods/cedar-nameboard/")
    token = TOKEN.search(page.read().decode())
    assert token is not None
    return "; ".join(f"{cookie.name}={cookie.value}" for cookie in jar), token[1]


def send_files(site: str, count: int) -> None:
    """Send expensive files, each from a visitor of its own."""
    for number in range(count):
        cookies, token = visit(site)
        boundary = uuid.uuid4().hex
        head = f'--{boundary}\r\nContent-Disposition: form-data; name="file"; filename="{number}.svg"\r\n\r\n'
        body = head.encode() + HEAVY + f"\r\n--{boundary}--\r\n".encode()
        headers = {
            "Content-Type": f"multipart/form-data; boundary={boundary}",
            "X-CSRFToken": token,
            "Cookie": cookies,
        }
        request = urllib.request.Request(f"{site}/uploads/?field=emblem", body, headers)
        with urllib.request.urlopen(request, timeout=60) as answer:
            assert answer.status == 202, answer.status


def measure(site: str, senders: int, files: int, seconds: float) -> dict[str, float]:
    """Return p50, p95 and worst in ms, and how many of the previews failed."""
    port = urllib.parse.urlsplit(site).port or 80
    with slow_senders(port, senders) if senders else nullcontext():
        sending = threading.Thread(target=send_files, args=(site, files))
        sending.start()
        took, failed = previews(site, seconds)
        sending.join()
    ranks = statistics.quantiles(took, n=20)
    return {
        "p50_ms": ranks[9],
        "p95_ms": ranks[18],
        "worst_ms": max(took),
        "failed": failed,
        "asked": len(took) + failed,
    }


if __name__ == "__main__":
    site, senders, files, seconds = sys.argv[1], *(int(value) for value in sys.argv[2:5])
    print({name: round(value, 1) for name, value in measure(site, senders, files, seconds).items()})
