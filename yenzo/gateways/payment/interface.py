"""What a payment service must do."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum


class Outcome(StrEnum):
    """How a payment ended."""

    APPROVED = "approved"
    DECLINED = "declined"


class PaymentSilenceError(Exception):
    """The service didn't answer: whether it was paid isn't known yet."""


@dataclass(frozen=True)
class PaymentWay:
    """A way to pay that the service offers, as customers see it."""

    key: str
    name: str
    help: str


class PaymentGateway(ABC):
    """A payment service. A reference is charged at most once, however often it is sent."""

    @property
    @abstractmethod
    def ways(self) -> tuple[PaymentWay, ...]:
        """The ways to pay, in the order to show them."""

    @abstractmethod
    def charge(self, reference: str, amount: Decimal, currency: str, way: str) -> Outcome:
        """Charge an amount once for this reference; raises PaymentSilenceError when no answer comes."""

    @abstractmethod
    def settle(self, reference: str) -> Outcome:
        """Return how the payment ended. One that the service never heard of is voided: it can't be charged later.

        Raises PaymentSilenceError when no answer comes.
        """

    @abstractmethod
    def give_back(self, reference: str, key: str, amount: Decimal, currency: str) -> None:
        """Give back a part of what was charged for a reference, once for this key, however often it is sent.

        Raises PaymentSilenceError when no answer comes.
        """
