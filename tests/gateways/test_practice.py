from concurrent.futures import ThreadPoolExecutor
from decimal import Decimal

import pytest

from yenzo.gateways.payment.interface import Outcome, PaymentSilenceError
from yenzo.gateways.payment.practice import PracticePayment

SUM = Decimal("12.50")


def test_reference_is_charged_once_whatever_is_sent_later(tmp_path):
    bank = PracticePayment(tmp_path / "bank")
    assert bank.charge("r1", SUM, "GBP", "declines") is Outcome.DECLINED
    assert bank.charge("r1", SUM, "GBP", "approves") is Outcome.DECLINED
    assert bank.settle("r1") is Outcome.DECLINED


def test_silent_card_answers_late_that_it_was_paid(tmp_path):
    with pytest.raises(PaymentSilenceError):
        PracticePayment(tmp_path).charge("r1", SUM, "GBP", "silent")
    with pytest.raises(PaymentSilenceError):
        PracticePayment(tmp_path).settle("r1")
    assert PracticePayment(tmp_path, silence_seconds=0).settle("r1") is Outcome.APPROVED


def test_charge_and_settling_at_the_same_moment_agree(tmp_path):
    bank = PracticePayment(tmp_path)
    with ThreadPoolExecutor(8) as pool:
        for number in range(20):
            reference = f"r{number}"
            charged = pool.submit(bank.charge, reference, SUM, "GBP", "approves")
            settled = pool.submit(bank.settle, reference)
            assert charged.result() == settled.result()
    assert not list(tmp_path.glob(".*"))
