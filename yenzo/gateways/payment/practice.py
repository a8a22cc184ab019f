"""A practice payment service: it approves, declines or stays silent as told, and remembers in a folder of its own."""

import json
import time
from decimal import Decimal
from pathlib import Path

from yenzo.core.translation import translate_noop
from yenzo.gateways.payment.interface import Outcome, PaymentGateway, PaymentSilenceError, PaymentWay

APPROVES, DECLINES, SILENT = "approves", "declines", "silent"
VOIDED = "voided"


class PracticePayment(PaymentGateway):
    """Keeps one file a reference: the first to make it decides, so nothing is ever charged twice."""

    def __init__(self, folder: Path, *, silence_seconds: float = 6.0) -> None:
        self._folder = folder
        self._silence_seconds = silence_seconds

    @property
    def ways(self) -> tuple[PaymentWay, ...]:
        """Three practice cards, one for each thing that may happen."""
        return (
            PaymentWay(
                APPROVES,
                translate_noop("Practice card that pays"),
                translate_noop("No money moves; the payment is approved."),
            ),
            PaymentWay(
                DECLINES,
                translate_noop("Practice card that is declined"),
                translate_noop("The payment is refused; you can try again."),
            ),
            PaymentWay(
                SILENT,
                translate_noop("Practice card without an answer"),
                translate_noop("It is paid, but the answer comes late."),
            ),
        )

    def charge(self, reference: str, amount: Decimal, currency: str, way: str) -> Outcome:
        """Charge once; raises PaymentSilenceError for the silent card."""
        record = self._note(reference, {"amount": str(amount), "currency": currency, "way": way, "at": time.time()})
        if record["way"] == SILENT:
            raise PaymentSilenceError(reference)
        return Outcome.APPROVED if record["way"] == APPROVES else Outcome.DECLINED

    def settle(self, reference: str) -> Outcome:
        """Return how it ended; the silent card answers after some seconds."""
        record = self._note(reference, {"way": VOIDED, "at": time.time()})
        if record["way"] == SILENT and time.time() - float(record["at"]) < self._silence_seconds:
            raise PaymentSilenceError(reference)
        return Outcome.APPROVED if record["way"] in {APPROVES, SILENT} else Outcome.DECLINED

    def give_back(self, reference: str, key: str, amount: Decimal, currency: str) -> None:
        """Note once what is given back."""
        back = {"of": reference, "amount": str(amount), "currency": currency, "at": time.time()}
        self._note(f"back-{key}", back)

    def _note(self, reference: str, record: dict[str, object]) -> dict[str, str]:
        """Write the record if there is none yet; return the one that is there."""
        self._folder.mkdir(parents=True, exist_ok=True)
        # Linked into place whole, so that nobody reads half a record and only the first writer wins.
        path, draft = self._folder / f"{reference}.json", self._folder / f".{reference}.{time.monotonic_ns()}"
        draft.write_text(json.dumps(record))
        try:
            path.hardlink_to(draft)
        except FileExistsError:
            pass
        finally:
            draft.unlink()
        kept: dict[str, str] = json.loads(path.read_text())
        return kept
