"""Payment plans: the yearly rate, nominal and effective."""

from __future__ import annotations

from decimal import ROUND_HALF_EVEN, Decimal

from ..errors import RuleError
from .falling import CENT


def apr(price: Decimal, down: Decimal, monthly: Decimal, months: int) -> Decimal:
    """Yearly percentage rate [%] of a payment plan, nominal, twelve times the monthly rate, by
    bisection.

    Payments that fall short by their own rounding alone are a rate of 0.

    Raises:
        RuleError: ``plan.impossible`` when the payments do not cover the price, or the rate passes
            1,000 %.

    >>> round(apr(Decimal(1000), Decimal(0), Decimal("88.85"), 12), 1)  # 1 % a month
    Decimal('12.0')
    """
    owed = price - down
    if months <= 0 or monthly <= 0 or owed <= 0:
        raise RuleError(
            "plan.impossible",
            "A plan needs a balance, payments and months above 0.",
            "plan",
            "Check price, down payment and months.",
        )
    if monthly * months < owed - max(
        CENT, CENT / 2 * months
    ):  # a payment is rounded to the cent, every month
        raise RuleError(
            "plan.impossible",
            "The payments do not cover the price.",
            "plan",
            "Raise the payment or the months.",
        )

    def worth(rate: float) -> float:
        return float(owed) - sum(float(monthly) / (1 + rate) ** k for k in range(1, months + 1))

    low, high = 0.0, 1000.0 / 1200.0
    if worth(high) < 0:
        raise RuleError(
            "plan.apr",
            "The yearly rate of this plan is above 1,000 %.",
            "plan",
            "Check the payment: it is out of all proportion.",
        )
    for _ in range(100):
        mid = (low + high) / 2
        if worth(mid) < 0:
            low = mid
        else:
            high = mid
    return Decimal(repr(low * 1200)).quantize(CENT)


def effective_rate(nominal: Decimal) -> Decimal:
    """Effective yearly rate [%] of a nominal one [%] that is charged by the month: (1 + r/12)^12 −
    1.

    Source: by definition of compound interest.

    >>> round(effective_rate(Decimal(12)), 2)  # 1.01^12
    Decimal('12.68')
    """
    monthly = nominal / 1200
    return (100 * ((1 + monthly) ** 12 - 1)).quantize(CENT, ROUND_HALF_EVEN)
