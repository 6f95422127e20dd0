"""Lifetime cost in decimals: events when they fall due, running costs by month, growth and
discount.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from itertools import accumulate
from operator import add, lt
from typing import NamedTuple

from ..errors import RuleError
from ..record import record
from ..treating.letting import Letting
from ..treating.option import Purchase
from ..treating.report import Due, Running
from .falling import (
    EPS,
    ZERO,
    Falling,
    Rates,
    cents,
    interval_months,
    interval_why,
    rates_for,
    running_years,
)

HORIZONS = (5, 10, 15, 20)
_MICRO = Decimal("0.000001")


def _falls(due: Due, rates: Rates) -> Falling:
    return rates.falling(due.price, interval_months(due), due.used_months)


class Event(NamedTuple):
    """One thing paid for: month, rounded amount, kind and label (a tuple: there are thousands of
    them).
    """

    month: float
    amount: Decimal
    kind: str
    label: str
    scope: str


@record
class CostLine:
    """One line of the schedule, with price, interval and the reason for it; ``missing``: what has
    to be known to price it.
    """

    label: str
    kind: str
    scope: str
    price: Decimal
    interval_months: float | None
    times: int
    total: Decimal
    why: str
    missing: str = ""


@record
class Lifetime:
    """Cost over a horizon.

    ``per_gallon_house`` and ``per_gallon_tap`` are never summed; None: no gallons. ``monthly``:
    paid so far at each month from 0 to the end, for the cumulative curve. ``missing``: what has to
    be known to price the rest; totals are "at least" then.
    """

    years: int
    total: Decimal
    purchase: Decimal
    by_kind: dict[str, Decimal]
    by_year: tuple[Decimal, ...]
    first_year: Decimal
    worst_year: Decimal
    per_year: Decimal
    per_gallon_house: Decimal | None
    per_gallon_tap: Decimal | None
    lines: tuple[CostLine, ...]
    events: tuple[Event, ...]
    monthly: tuple[Decimal, ...]
    missing: tuple[str, ...] = ()


def _rates(growth: Decimal, discount: Decimal, years: int) -> Rates:
    if not 1 <= years <= 60:
        raise RuleError(
            "cost.years",
            f"A horizon of {years} years is not possible.",
            "years",
            "Use 5, 10, 15 or 20.",
        )
    return rates_for(growth, discount, years)


def lifetime_total(
    purchases: Iterable[Purchase],
    dues: Iterable[Due],
    running: Iterable[Running],
    years: int,
    growth: Decimal,
    discount: Decimal,
) -> Decimal:
    """The total of ``lifetime`` alone, to the cent."""
    rates = _rates(growth, discount, years)
    total = sum((_paid_for(p, rates) for p in purchases), ZERO)
    total += sum(
        (rates.falling(d.price, interval_months(d), d.used_months).total for d in dues), ZERO
    )
    return total + sum(
        (amount for per_year in _by_kind(running).values() for amount in rates.running(per_year)),
        ZERO,
    )


def rents(let: Letting, rates: Rates) -> tuple[Decimal, ...]:
    """Every rent that is paid within the horizon [money], from month 0, ahead, each to the cent.

    A rental grows with prices, a year at a time, and goes on; rent-to-own keeps the amount that
    was agreed and ends with its last payment. Both are discounted by their month.
    """
    end = 12 * rates.years
    months = range(end if let.payments is None else min(let.payments, end))
    grown = rates.grown if let.payments is None else (Decimal(1),) * rates.years
    return tuple(cents(let.per_month * grown[m // 12] / rates.discount(float(m))) for m in months)


def _paid_for(p: Purchase, rates: Rates) -> Decimal:
    """All that a purchase takes over the horizon [money]: at once, and as rent."""
    at_once = cents(p.price) + cents(p.installation)
    return at_once if p.let is None else at_once + sum(rents(p.let, rates), ZERO)


def _rented(p: Purchase, let: Letting, rates: Rates, sums: _Sums) -> tuple[list[Event], CostLine]:
    """The rents of a purchase, added to the sums."""
    label, paid = f"Rent of {p.label}", rents(let, rates)
    events = [Event(float(m), amount, "rent", label, p.scope) for m, amount in enumerate(paid)]
    for m, amount in enumerate(paid):
        sums.by_year[m // 12] += amount
        sums.add("rent", p.scope, amount)
    line = CostLine(
        label=label,
        kind="rent",
        scope=p.scope,
        price=let.per_month,
        interval_months=1.0,
        times=len(paid),
        total=sum(paid, ZERO),
        why=(
            f"at least {let.months} months, with the firm’s prices"
            if let.payments is None
            else f"{let.months} payments as agreed, then it is yours"
        ),
    )
    return events, line


@dataclass
class _Sums:
    """What is paid, summed as it is added: by kind of cost, by year and by branch."""

    by_kind: dict[str, Decimal]
    by_year: list[Decimal]
    by_scope: dict[str, Decimal]

    def add(self, kind: str, scope: str, amount: Decimal) -> None:
        """An amount [money] to its kind and branch; its years are the caller's."""
        self.by_kind[kind] = self.by_kind.get(kind, ZERO) + amount
        self.by_scope[scope] += amount


def _bought(purchases: Iterable[Purchase]) -> Iterator[tuple[Event, CostLine]]:
    """Price and installation of what is bought, paid at once."""
    for p in purchases:
        for label, kind, amount in (
            (p.label, "equipment", p.price),
            (
                f"Installing {p.label}" if p.let is None else f"Setting up {p.label}",
                "installation",
                p.installation,
            ),
        ):
            if not amount:
                continue
            paid = cents(amount)
            yield (
                Event(month=0.0, amount=paid, kind=kind, label=label, scope=p.scope),
                CostLine(
                    label=label,
                    kind=kind,
                    scope=p.scope,
                    price=amount,
                    interval_months=None,
                    times=1,
                    total=paid,
                    why="once",
                ),
            )


def _due_events(d: Due, rates: Rates, sums: _Sums) -> tuple[list[Event], CostLine]:
    """What falls due, each time rounded to the cent, added to the sums."""
    step, due = interval_months(d), _falls(d, rates)
    events = [
        Event(m, amount, d.kind, d.label, d.scope)
        for m, amount in zip(due.months, due.amounts, strict=True)
    ]
    for y, amount in due.by_year:
        sums.by_year[y] += amount
    if due.months:
        sums.add(d.kind, d.scope, due.total)
    line = CostLine(
        label=d.label,
        kind=d.kind,
        scope=d.scope,
        price=d.price,
        interval_months=None if step == math.inf else step,
        times=len(due.months),
        total=due.total,
        why=interval_why(d),
    )
    return events, line


def per_gallon(amount: Decimal, gallons_year: float, years: int) -> Decimal | None:
    """Money a gallon over ``years``; None ("n/a") where no water is used [money/gal].

    Args:
        amount: paid over all the years [money]. gallons_year: used [gal/year].

    >>> per_gallon(Decimal(500), 250.0, 10)
    Decimal('0.2')
    """
    return None if gallons_year <= 0 else amount / Decimal(repr(gallons_year * years))


def lifetime(
    purchases: Iterable[Purchase],
    dues: Iterable[Due],
    running: Iterable[Running],
    years: int,
    growth: Decimal,
    discount: Decimal,
    house_gal_year: float = 0.0,
    tap_gal_year: float = 0.0,
) -> Lifetime:
    """Everything paid over ``years``: purchases at month 0, events rounded when due, running costs
    rounded once a year per kind.

    Args:
        growth, discount: a year, as shares [1].
        house_gal_year, tap_gal_year: used a year, for the price of a gallon [gal/year].
    """
    rates, purchases = _rates(growth, discount, years), tuple(purchases)
    sums = _Sums({}, [ZERO] * years, {"house": ZERO, "tap": ZERO})
    bought = list(_bought(purchases))
    events = [e for e, _ in bought]
    lines = [line for _, line in bought]
    for e in events:
        sums.add(e.kind, e.scope, e.amount)
    purchase = sum((e.amount for e in events), ZERO)
    sums.by_year[0] += purchase
    falling = [_rented(p, p.let, rates, sums) for p in purchases if p.let is not None]
    falling += [_due_events(d, rates, sums) for d in dues]
    for more, line in falling:
        events += more
        lines.append(line)
    run = list(running)
    _add_running(run, years, rates, sums.by_kind, sums.by_year, sums.by_scope, lines)
    events.sort()
    total = sum(sums.by_kind.values(), Decimal(0))
    return Lifetime(
        years=years,
        total=total,
        purchase=purchase,
        by_kind=sums.by_kind,
        by_year=tuple(sums.by_year),
        first_year=sums.by_year[0],
        worst_year=max([sums.by_year[0] - purchase, *sums.by_year[1:]]),
        per_year=cents(total / years),
        per_gallon_house=per_gallon(sums.by_scope["house"], house_gal_year, years),
        per_gallon_tap=per_gallon(sums.by_scope["tap"], tap_gal_year, years),
        lines=tuple(lines),
        events=tuple(events),
        monthly=_monthly(events, run, years, rates, total),
        missing=missing_of(run),
    )


def missing_of(running: Iterable[Running]) -> tuple[str, ...]:
    """What has to be known to price some running costs, each once."""
    return tuple(dict.fromkeys(r.missing for r in running if r.missing))


def added_cost(
    purchases: Iterable[Purchase],
    dues: Iterable[Due],
    running: Iterable[Running],
    rates: Rates,
    years: int,
) -> Decimal:
    """What some stages add to a lifetime: purchases and every event to the cent, running costs
    unrounded. What nobody can price counts dear, so that it is never cheaper.

    Unlike a total of ``lifetime`` this adds up over stages without a remainder, which a comparison
    of many lines needs; the two differ by less than half a cent a year and kind.
    """
    total = sum((_paid_for(p, rates) for p in purchases), ZERO)
    total += sum(
        (rates.falling(d.price, interval_months(d), d.used_months).total for d in dues), ZERO
    )
    each = (running_years(r.per_year + r.counted, rates) for r in running)
    return total + sum((sum(years_, ZERO) for years_ in each), ZERO)


def _by_kind(running: Iterable[Running]) -> dict[tuple[str, str], Decimal]:
    """Running costs a year, by kind and branch."""
    groups: dict[tuple[str, str], Decimal] = {}
    for r in running:
        groups[r.kind, r.scope] = groups.get((r.kind, r.scope), ZERO) + r.per_year
    return groups


def _add_running(
    run: list[Running],
    years: int,
    rates: Rates,
    by_kind: dict[str, Decimal],
    by_year: list[Decimal],
    scope_total: dict[str, Decimal],
    lines: list[CostLine],
) -> None:
    """Running costs, summed per kind and branch, rounded once a year."""
    for (kind, scope), per_year in _by_kind(run).items():
        sums = rates.running(per_year)
        total = sum(sums, ZERO)
        of_kind = [r for r in run if (r.kind, r.scope) == (kind, scope)]
        labels = [r for r in of_kind if not r.missing]
        lines += [_unpriced(r, years) for r in of_kind if r.missing]
        if not labels:
            continue
        by_kind[kind] = by_kind.get(kind, ZERO) + total
        scope_total[scope] += total
        for y, s in enumerate(sums):
            by_year[y] += s
        lines.append(
            CostLine(
                label=" and ".join(dict.fromkeys(r.label for r in labels)),
                kind=kind,
                scope=scope,
                price=cents(sum((r.per_year for r in labels), Decimal(0))),
                interval_months=None,
                times=years,
                total=total,
                why="a year, spread by month; " + "; ".join(r.why for r in labels if r.why),
            )
        )


def _unpriced(r: Running, years: int) -> CostLine:
    """A line that says what would price it, in place of an amount."""
    return CostLine(
        label=r.label,
        kind=r.kind,
        scope=r.scope,
        price=ZERO,
        interval_months=None,
        times=years,
        total=ZERO,
        why=r.why,
        missing=r.missing,
    )


def _monthly(
    events: list[Event], run: list[Running], years: int, rates: Rates, total: Decimal
) -> tuple[Decimal, ...]:
    """Paid by the end of month m − 1, m = 0 … 12 · years; what falls due at month 0 is in the
    first, the last is the total.
    """
    twelfth = sum((r.per_year for r in run), ZERO) / 12
    monthly = [(twelfth * f).quantize(_MICRO) for f in rates.grown]
    adds = [ZERO] * (
        12 * years + 1
    )  # the last takes what falls due after the last month began: it is in the total
    ceil = math.ceil
    for month, amount, *_ in events:
        adds[ceil(month - EPS)] += amount
    adds.pop()
    if twelfth:
        spent = [x for x in monthly for _ in range(12)]
        if rates.discounted:
            spent = [x / rates.discount(float(m)) for m, x in enumerate(spent)]
        adds[1:] = map(add, adds[1:], spent)
    out = list(accumulate(adds))
    out.append(total)
    return tuple(out)


def stays_cheaper_from(a: Lifetime, b: Lifetime) -> int | None:
    """The month from which ``a`` stays cheaper than ``b`` to the end, when it began dearer; None
    otherwise, and where ``a`` costs more than is known.
    """
    if a.missing or a.total >= b.total:
        return None
    cheaper = list(map(lt, a.monthly, b.monthly))
    cheaper.reverse()
    return len(cheaper) - cheaper.index(False) if False in cheaper else None
