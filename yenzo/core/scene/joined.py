"""Joined texts: a pattern with fields in braces and the texts of those fields come in, one text goes out."""

from collections.abc import Mapping

from yenzo.core.documents.placements import JOINED_FIELD


def joined_text(pattern: str, parts: Mapping[str, str]) -> str:
    """Return the pattern filled in; an empty part takes along the joiner before it, or when it is first the one after.

    "{first} & {second}" gives "Ann & Ben", "Ann" or "Ben"; what stands before the first and after the last field
    stays as long as any part is there.
    """
    steps = JOINED_FIELD.split(pattern)
    texts, keys = steps[::2], steps[1::2]
    said = ""
    for joiner, key in zip(["", *texts[1:-1]], keys, strict=True):
        if part := parts.get(key, ""):
            said += joiner + part if said else part
    return texts[0] + said + texts[-1] if said else ""
