"""Other sites that may show the slip in a frame: lines as people write them come in, origins (RFC 6454) go out."""

from urllib.parse import urlsplit

import idna
from django.conf import settings

MOST_SITES = 20


def origins_of(lines: str) -> list[str]:
    """Return the origins in lines; raises ValueError, in words, for one that is none or isn't safe."""
    found = dict.fromkeys(origin_of(line.strip()) for line in lines.splitlines() if line.strip())
    if len(found) > MOST_SITES:
        raise ValueError(f"Up to {MOST_SITES} sites can be named.")
    return list(found)


def origin_of(written: str) -> str:
    """Return one origin; raises ValueError, in words."""
    said = f"“{written[:80]}” isn't the address of a site. Please write it like https://club.example."
    try:
        parts = urlsplit(written)
        port = f":{parts.port}" if parts.port else ""
        host = idna.encode(parts.hostname or "", uts46=True).decode("ascii")
    except ValueError as error:
        raise ValueError(said) from error
    is_rest = parts.path.strip("/") or parts.query or parts.fragment or parts.username or "*" in written
    # Letters, digits, dots and hyphens only: it goes into a header.
    is_host = host and all(char.isalnum() or char in ".-" for char in host)
    if is_rest or not is_host or parts.scheme not in {"https", "http"}:
        raise ValueError(said)
    if parts.scheme == "http" and not settings.IS_PRACTICE:
        raise ValueError(f"“{written[:80]}” is sent in the clear: what customers write there could be read. Use https.")
    return f"{parts.scheme}://{host}{port}"
