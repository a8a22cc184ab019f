from types import SimpleNamespace

import pytest
from django.utils import timezone

from yenzo.apps.orders.jobs import settle_payment, tell_paid
from yenzo.gateways.payment.interface import PaymentSilenceError

DAY_SECONDS = 24 * 3600


@pytest.mark.parametrize("job", [settle_payment, tell_paid])
@pytest.mark.parametrize("error", [PaymentSilenceError("r1"), OSError("the line is down")])
def test_job_is_tried_soon_and_then_for_about_a_day_whatever_failed(job, error):
    decisions = [
        job.retry_strategy.get_retry_decision(exception=error, job=SimpleNamespace(attempts=attempts))
        for attempts in range(16)
    ]
    waits = [(decision.retry_at - timezone.now()).total_seconds() for decision in decisions]
    assert waits[0] <= 5
    assert DAY_SECONDS <= sum(waits) <= 2 * DAY_SECONDS
    assert job.retry_strategy.get_retry_decision(exception=error, job=SimpleNamespace(attempts=16)) is None
