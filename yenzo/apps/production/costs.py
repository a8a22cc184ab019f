"""What making cost: jobs come in; minutes and cost, planned against taken, go out."""

from dataclasses import dataclass
from decimal import Decimal

from django.db.models import Sum

from yenzo.apps.orders.models import Order
from yenzo.apps.production.models import Job
from yenzo.core.planning.estimate import cost_of


@dataclass(frozen=True)
class Costs:
    """Minutes and what they cost, as planned and as taken, and how many pieces were spoilt."""

    planned: float
    taken: float
    cost_planned: Decimal
    cost_taken: Decimal
    spoilt: int


def costs_of(order: Order) -> Costs:
    """Return what the jobs of an order were planned to cost and cost, those of spoilt and changed pieces included."""
    jobs = Job.objects.filter(line__order=order)
    names = ("minutes_planned", "minutes_taken", "cost_planned", "spoilt")
    sums = jobs.aggregate(**{name: Sum(name) for name in names})
    taken = sum((cost_taken(job) for job in jobs), Decimal(0))
    return Costs(
        sums["minutes_planned"] or 0,
        sums["minutes_taken"] or 0,
        sums["cost_planned"] or Decimal(0),
        taken,
        sums["spoilt"] or 0,
    )


def cost_taken(job: Job) -> Decimal:
    """Return what the minutes that a job took cost, by the hour as it was planned."""
    if not job.minutes_planned:
        return Decimal(0)
    return cost_of(job.cost_planned * 60 / Decimal(str(job.minutes_planned)), job.minutes_taken)
