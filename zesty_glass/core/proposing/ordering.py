"""In which order lines are proposed, by their grades."""

from __future__ import annotations

import math

from .ranking import Grade

TEST_COST = 60.0  # [money] a laboratory's test of one thing with its post: trade practice (2024)
FREE = 500.0  # [money] what costs less is not told apart by its doublings


def _tenths(x: float) -> float:
    """A sum of shares in tenths, halves down: what is nearly met is not wholly met."""
    return math.ceil(10 * x - 0.5 - 1e-9) / 10


def _doublings(cost: float) -> float:
    """How often a cost has doubled: one thing less to watch is worth as much as twice the money,
    and no more (a trade judgement, 2024).
    """
    return math.log2(max(cost, FREE) / FREE)


OWN_HOUR = 10.0  # [money/h] what the household's own work counts at: a trade judgement (2026)


def order(
    nothing: bool,
    of_need: bool,
    stages: int,
    g: Grade,
    cost: float,
    waste: float,
    own_hours: float = 0.0,
) -> tuple[float, ...]:
    """Sorting key: nothing first where nothing was found; then health and complaints answered; then
    what goes against no diet of the house; then the least to watch, weighed by what it means, where
    twice the cost weighs as much as one warning that it may not work; then cost and waste.

    Args:
        own_hours: the household's own work over all years [h].

    What nobody complains of counts only where there is neither health nor complaint (``of_need``).
    What is not known is a test to make, and weighs as much as one costs: it is no fault of the
    line.
    """
    money = cost + TEST_COST * len(g.open) + OWN_HOUR * own_hours
    return (
        0.0 if nothing and not stages else 1.0,
        -round(g.health, 2),
        -_tenths(g.complaints if of_need else g.rest),
        float(g.against_diet),
        g.burden + _doublings(money),
        money,
        waste,
    )
