"""Mail addresses as identities: what somebody typed comes in; the one way to write it that is compared goes out.

The local part keeps its letters but for the case of ASCII; the domain is written as IDNA 2008 (RFC 5891) has it.
Nothing is folded that might be somebody else's: what looks like another domain is refused (UTS 39).
"""

import unicodedata
from functools import lru_cache

import icu
import idna
from email_validator import EmailNotValidError, validate_email

from yenzo.apps.pages.errors import AppError

MOST_LENGTH = 254  # RFC 5321, 4.5.3.1.3
ASCII_LOWER = {code: code + 32 for code in range(ord("A"), ord("Z") + 1)}


class AddressError(AppError):
    """No address that mail can be sent to, or one that looks like another; the message is a code for the caller."""


@lru_cache(maxsize=1)
def _checker() -> icu.SpoofChecker:
    checker = icu.SpoofChecker()
    checker.setRestrictionLevel(icu.URestrictionLevel.HIGHLY_RESTRICTIVE)
    return checker


def mail_identity(typed: str) -> str:
    """Return the address as it identifies its owner; raises AddressError. Two that differ are two people."""
    address = unicodedata.normalize("NFC", typed.strip())
    # What only becomes ASCII by being normalised was meant to be taken for it.
    if sum(char.isascii() for char in address) > sum(char.isascii() for char in typed.strip()):
        raise AddressError("lookalike")
    local, at, domain = address.rpartition("@")
    if not at or len(address) > MOST_LENGTH:
        raise AddressError("no_address")
    try:
        validate_email(address, check_deliverability=False, allow_smtputf8=True, test_environment=True)
    except EmailNotValidError as error:
        raise AddressError("no_address") from error
    labels = [_label(label) for label in domain.translate(ASCII_LOWER).split(".")]
    return f"{local.translate(ASCII_LOWER)}@{'.'.join(labels)}"


def _label(label: str) -> str:
    try:
        written = idna.encode(label).decode("ascii")
        shown = idna.decode(written)
    except idna.IDNAError as error:
        raise AddressError("no_address") from error
    if not shown.isascii():
        checker = _checker()
        # Letters of several scripts, or each one like an ASCII letter: "ı" is read as "i", "æ" is itself.
        is_mixed = checker.check(shown)
        skeleton = checker.getSkeleton(0, shown)
        if is_mixed or (skeleton.isascii() and len(skeleton) == len(shown)):
            raise AddressError("lookalike")
    return written
