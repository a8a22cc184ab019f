"""Ways to reach somebody: mail addresses, telephone numbers, links."""

from abc import abstractmethod
from collections.abc import Iterator
from typing import Any
from urllib.parse import urlsplit

import phonenumbers
from email_validator import EmailNotValidError, validate_email

from yenzo.core.asking.kinds.interface import EntryContext, F, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.field_base import FieldBase, TypedField
from yenzo.core.documents.fields import EmailField, LinkField, PhoneField
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import translate

MOST_CHARACTERS = 500


class Contact(Kind[F]):
    """What is typed and has a form of its own."""

    @abstractmethod
    def normal(self, field: F, typed: str) -> str | None:
        """Return what was typed in its one normal form, or None when it has none."""

    @abstractmethod
    def fault(self, typed: str) -> str:
        """Return what is the matter with what was typed, and the remedy."""

    def value(self, field: F, entry: RawEntry) -> str:
        """Return what was typed in its normal form; what has none as it was typed, in one line."""
        assert isinstance(field, TypedField)
        typed = " ".join((field.default if entry.raw is None else str(entry.raw)).split())
        return (self.normal(field, typed) if typed and len(typed) <= MOST_CHARACTERS else None) or typed

    def problems(self, field: F, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what has no normal form, or is longer than any."""
        typed = str(value)
        if len(typed) > MOST_CHARACTERS or self.normal(field, typed) is None:
            yield problem(field, f"no_{type(field).model_fields['kind'].default}", self.fault(typed[:60]))

    def sample(self, field: F, setup: Setup) -> str:
        """Return the sample or the default."""
        assert isinstance(field, TypedField)
        return field.sample or field.default


class EmailKind(Contact[EmailField]):
    """A mail address; nobody is asked whether it exists."""

    def normal(self, field: EmailField, typed: str) -> str | None:
        """Return the address as RFC 5321 normalises it (email-validator), or None."""
        try:
            return validate_email(typed, check_deliverability=False, test_environment=True).normalized
        except EmailNotValidError:
            return None

    def fault(self, typed: str) -> str:
        """Say what a mail address needs."""
        return translate(
            "“{typed}” is no mail address. It needs a name, an @ and a place: ann@harbor.example.", typed=typed
        )

    def worst(self, field: EmailField, setup: Setup) -> tuple[Raw, ...]:
        """Return a short and a long one."""
        return "a@b.example", "the.keeper.of.the.northern.light@harbor-master.port-hallow.example"


class PhoneKind(Contact[PhoneField]):
    """A telephone number, kept in its international form."""

    def normal(self, field: PhoneField, typed: str) -> str | None:
        """Return the number in its international form (libphonenumber), or None if it can't be one."""
        try:
            number = phonenumbers.parse(typed, field.region)
        except phonenumbers.NumberParseException:
            return None
        if not phonenumbers.is_possible_number(number):
            return None
        return str(phonenumbers.format_number(number, phonenumbers.PhoneNumberFormat.INTERNATIONAL))

    def fault(self, typed: str) -> str:
        """Say how a telephone number is written."""
        return translate(
            "“{typed}” is no telephone number. Please write it with its area or country: +44 20 7946 0018.", typed=typed
        )

    def worst(self, field: PhoneField, setup: Setup) -> tuple[Raw, ...]:
        """Return one in its international form."""
        return ("+44 20 7946 0018",)


class LinkKind(Contact[LinkField]):
    """An address in the web."""

    def normal(self, field: LinkField, typed: str) -> str | None:
        """Return the address with its scheme, or None for what has no host or a user in it."""
        written = typed if "://" in typed else f"https://{typed}"
        try:
            parts = urlsplit(written)
            host = (parts.hostname or "").encode("idna").decode()
        except (ValueError, UnicodeError):
            return None
        named = host.rpartition(".")
        is_one = parts.scheme in {"http", "https"} and named[0] and len(named[2]) > 1 and " " not in written
        return written if is_one and not parts.username else None

    def fault(self, typed: str) -> str:
        """Say what an address in the web looks like."""
        return translate(
            "“{typed}” is no address in the web. One looks like https://harbor.example/terns.", typed=typed
        )

    def worst(self, field: LinkField, setup: Setup) -> tuple[Raw, ...]:
        """Return a short and a long one."""
        return "https://harbor.example", f"https://harbor.example/{'terns/' * 12}"


KINDS: dict[type[FieldBase], Kind[Any]] = {EmailField: EmailKind(), PhoneField: PhoneKind(), LinkField: LinkKind()}
