"""What a carrier must do."""

from abc import ABC, abstractmethod
from dataclasses import dataclass


class CarrierSilenceError(Exception):
    """The carrier didn't answer: whether the parcel is booked isn't known yet."""


@dataclass(frozen=True)
class Booking:
    """A booked parcel: who carries it, by which number it is known there, and its label as a PDF."""

    carrier: str
    number: str
    label: bytes


class Carrier(ABC):
    """A carrier. A reference is booked at most once, however often it is sent."""

    @abstractmethod
    def book(self, reference: str, address: str, contents: str) -> Booking:
        """Book a parcel to an address as it is written, the name first.

        Raises CarrierSilenceError when no answer comes.
        """

    @abstractmethod
    def is_delivered(self, number: str) -> bool:
        """Tell whether a parcel was delivered; raises CarrierSilenceError without an answer."""
