"""Who pays what, and when, for a job that was sold: from the proposal that was signed."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

from ..proposing.price import PriceLine
from ..record import record
from .offer import PlanTerms

INSTALLED = "when it is installed"


@record
class Payment:
    """One amount [money] that the customer pays: what it is, and when.

    ``many``: how many times, 0 as long as it is rented; ``amount`` is that of one time.
    """

    label: str
    amount: Decimal
    when: str
    many: int = 1


def _by_plan(plan: PlanTerms) -> tuple[Payment, ...]:
    monthly = Payment(
        label="Instalment",
        amount=plan.monthly,
        when=f"every month, {plan.months} times",
        many=plan.months,
    )
    if not plan.down:
        return (monthly,)
    return (Payment(label="Down payment", amount=plan.down, when="at signing"), monthly)


def payments(price: tuple[PriceLine, ...], plan: PlanTerms | None) -> tuple[Payment, ...]:
    """What is to be paid for the recommended line, in its order; with a plan by the plan. Nothing
    for a proposal that is older than prices line by line.

    Tax stands in the amounts, and a deposit is part of the price. Rent comes beside either.
    """
    return (*_at_once(price, plan), *_rents(price))


def _rents(price: tuple[PriceLine, ...]) -> tuple[Payment, ...]:
    out: list[Payment] = []
    for x in price:
        if x.kind == "rent":
            when = f"every month, {x.times} times" if x.times else "every month"
            out.append(Payment(label=x.label, amount=x.amount, when=when, many=x.times))
        elif x.kind == "rent_tax" and out:
            out[-1] = replace(out[-1], amount=out[-1].amount + x.amount)
    return tuple(out)


def _at_once(price: tuple[PriceLine, ...], plan: PlanTerms | None) -> tuple[Payment, ...]:
    if plan is not None:
        return _by_plan(plan)
    amounts = {x.kind: x.amount for x in price}
    if "deposit" in amounts:
        return (
            Payment(label="Deposit", amount=amounts["deposit"], when="at signing"),
            Payment(label="Rest", amount=amounts["rest"], when=INSTALLED),
        )
    total = amounts.get("total", Decimal(0))
    return (Payment(label="All of it", amount=total, when=INSTALLED),) if total else ()
