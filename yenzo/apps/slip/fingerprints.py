"""Parts of a page: digests of what holds them and of each come in; which of them differ from those seen goes out.

A request carries what the page shows, so that only what looks otherwise is sent and laid out anew.
"""

import hashlib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from yenzo.core.caching import SizedCache

DIGEST_BYTES = 6
MOST_TOLD_BYTES, LEAST_BYTES = 4_000_000, 100
_digests: SizedCache[str] = SizedCache(MOST_TOLD_BYTES)


def digest_of(content: str) -> str:
    """Return what tells some content from other content, in a few letters."""
    return hashlib.blake2b(content.encode(), digest_size=DIGEST_BYTES).hexdigest()


@dataclass(frozen=True)
class Fingerprints:
    """Something that shows in parts: what holds them, and each of them, as digests."""

    key: str
    frame: str
    parts: tuple[str, ...]

    @property
    def token(self) -> str:
        """The digests, as the next request carries them."""
        return f"{self.key}:{self.frame}:{','.join(self.parts)}"

    def changed(self, seen: Mapping[str, "Fingerprints"]) -> tuple[int, ...] | None:
        """Return which parts differ from those seen; None where it must be shown as a whole."""
        before = seen.get(self.key)
        if before is None or before.frame != self.frame or len(before.parts) != len(self.parts):
            return None
        return tuple(at for at, part in enumerate(self.parts) if part != before.parts[at])


def fingerprints_of(key: str, frame: str, contents: Iterable[str]) -> Fingerprints:
    """Return the digests of what holds some parts, and of each of them."""
    return Fingerprints(key, digest_of(frame), tuple(_kept_digest(content) for content in contents))


def _kept_digest(content: str) -> str:
    """Return the digest of a part, worked out once: of many parts few change."""
    return _digests.get(content, lambda: (digest_of(content), LEAST_BYTES + len(content)))


def read_fingerprints(tokens: str) -> dict[str, Fingerprints]:
    """Return what a request says that it shows; what can't be read isn't seen."""
    seen = {}
    for word in tokens.split():
        key, _, digests = word.partition(":")
        frame, _, parts = digests.partition(":")
        seen[key] = Fingerprints(key, frame, tuple(parts.split(",")) if parts else ())
    return seen
