"""Who pays what, and when, for a job that was sold: from the proposal that was signed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from datetime import date
from decimal import Decimal
from typing import Literal

from ..months import month_on
from ..proposing.price import PriceLine
from ..record import record
from .offer import PlanTerms

INSTALLED = "when it is installed"
Starts = Literal["signing", "use", "month_after_use"]


@record
class Payment:
    """One amount [money] that the customer pays: what it is, and when.

    Args:
        many: how many times, a month apart, 0 as long as it is rented; ``amount`` is that of one
            time.
        starts: from which day on. rent: the rent of the how-manieth rented thing, from 0.
    """

    label: str
    amount: Decimal
    when: str
    many: int = 1
    starts: Starts = "use"
    rent: int | None = None


@record
class Sold:
    """What a signed proposal comes to: all that is to be paid, and how much was taken off.

    ``total`` and ``discount`` [money] are without what is rented.
    """

    total: Decimal
    discount: Decimal
    currency: str
    payments: tuple[Payment, ...]


@record
class Owed:
    """One payment that falls on a day [money]."""

    label: str
    amount: Decimal
    on: date


def sold(price: tuple[PriceLine, ...], plan: PlanTerms | None, currency: str) -> Sold:
    """What a proposal comes to once it is signed."""
    of = {x.kind: x.amount for x in price}
    return Sold(
        total=of.get("total", Decimal(0)),
        discount=-of.get("discount", Decimal(0)),
        currency=currency,
        payments=payments(price, plan),
    )


def _days(p: Payment, signed: date, in_use: date | None, last: date) -> Iterator[date]:
    """Days on which a payment falls, up to a last one."""
    if p.starts == "signing":
        yield signed
        return
    if in_use is None:
        return
    first, n = (1 if p.starts == "month_after_use" else 0), 0
    while (p.many == 0 or n < p.many) and (day := month_on(in_use, first + n)) <= last:
        yield day
        n += 1


def owed(
    what: tuple[Payment, ...],
    signed: date,
    in_use: date | None,
    ended: date | None,
    span: tuple[date, date],
    rents_end: tuple[date | None, ...] = (),
) -> tuple[Owed, ...]:
    """What falls due in a span of days, its first and last included.

    Args:
        in_use: None while it is not fitted: nothing but what is paid at signing falls due. ended:
            nothing falls due after it. rents_end: the same for each rented thing, in their order.
    """
    last = span[1] if ended is None else min(span[1], ended)
    out = [
        Owed(label=p.label, amount=p.amount, on=day)
        for p in what
        for day in _days(p, signed, in_use, _last_of(p, last, rents_end))
        if span[0] <= day <= last
    ]
    return tuple(sorted(out, key=lambda x: x.on))


def _last_of(p: Payment, last: date, rents_end: tuple[date | None, ...]) -> date:
    """The last day on which a payment can fall."""
    end = rents_end[p.rent] if p.rent is not None and p.rent < len(rents_end) else None
    return last if end is None else min(last, end)


def _by_plan(plan: PlanTerms) -> tuple[Payment, ...]:
    monthly = Payment(
        label="Instalment",
        amount=plan.monthly,
        when=f"every month, {plan.months} times",
        many=plan.months,
        starts="month_after_use",
    )
    if not plan.down:
        return (monthly,)
    return (
        Payment(label="Down payment", amount=plan.down, when="at signing", starts="signing"),
        monthly,
    )


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
            nth = len(out)
            out.append(Payment(label=x.label, amount=x.amount, when=when, many=x.times, rent=nth))
        elif x.kind == "rent_tax" and out:
            out[-1] = replace(out[-1], amount=out[-1].amount + x.amount)
    return tuple(out)


def _at_once(price: tuple[PriceLine, ...], plan: PlanTerms | None) -> tuple[Payment, ...]:
    if plan is not None:
        return _by_plan(plan)
    amounts = {x.kind: x.amount for x in price}
    if "deposit" in amounts:
        return (
            Payment(
                label="Deposit", amount=amounts["deposit"], when="at signing", starts="signing"
            ),
            Payment(label="Rest", amount=amounts["rest"], when=INSTALLED),
        )
    total = amounts.get("total", Decimal(0))
    return (Payment(label="All of it", amount=total, when=INSTALLED),) if total else ()
