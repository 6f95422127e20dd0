"""Lifetime cost in decimals: events when they fall due, running costs by month, growth and
discount.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from decimal import ROUND_HALF_EVEN, Decimal
from functools import lru_cache
from itertools import accumulate
from operator import add, lt
from typing import NamedTuple

from ..errors import RuleError
from ..record import record
from ..treating.line import Purchase
from ..treating.report import Due, Running

CENT = Decimal("0.01")
HORIZONS = (5, 10, 15, 20)
MOST_PRICES = 4000  # grown prices remembered a horizon
LEAST_INTERVAL = 0.01  # [months]; what falls due oftener is a slip
_EPS = 1e-9
_ZERO, _MICRO = Decimal(0), Decimal("0.000001")


def cents(amount: Decimal) -> Decimal:
    """An amount rounded half-even to the cent [money].

    >>> cents(Decimal("2.345")), cents(Decimal("2.355"))
    (Decimal('2.34'), Decimal('2.36'))
    """
    return amount.quantize(CENT, rounding=ROUND_HALF_EVEN)


class Falling(NamedTuple):
    """When something falls due [months], what is paid each time, the sums by year,
    and all of it.
    """

    months: tuple[float, ...]
    amounts: tuple[Decimal, ...]
    by_year: tuple[tuple[int, Decimal], ...]
    total: Decimal


class Rates:
    """Growth by price year and discount by month, each power and each grown price
    worked out once.
    """

    __slots__ = ("_falling", "_priced", "_running", "discounted", "grown", "rate", "years")

    def __init__(self, growth: Decimal, discount: Decimal, years: int) -> None:
        self.grown = [(1 + growth) ** y for y in range(years)]
        self.rate, self.years = discount, years
        self.discounted = discount != 0
        self._priced: dict[Decimal, list[Decimal]] = {}
        self._falling: dict[tuple[Decimal, float, float], Falling] = {}
        self._running: dict[Decimal, list[Decimal]] = {}

    def priced(self, price: Decimal) -> list[Decimal]:
        """A price in each year, to the cent."""
        known = self._priced.get(price)
        if known is None:
            if len(self._priced) >= MOST_PRICES:
                self._priced.clear()
            known = self._priced[price] = [cents(price * g) for g in self.grown]
        return known

    def falling(self, price: Decimal, step: float, used: float = 0.0) -> Falling:
        """Everything that falls due every ``step`` months at a price, each event to the cent;
        ``used``: what the first has served already [months].
        """
        known = self._falling.get((price, step, used))
        if known is None:
            if len(self._falling) >= MOST_PRICES:
                self._falling.clear()
            months, prices = months_due(step, self.years, used), self.priced(price)
            by_year: dict[int, Decimal] = {}
            amounts = []
            for m in months:
                y = int(m / 12 + _EPS)
                amount = (
                    cents(price * self.grown[y] / self.discount(m))
                    if self.discounted
                    else prices[y]
                )
                amounts.append(amount)
                by_year[y] = by_year.get(y, _ZERO) + amount
            known = self._falling[price, step, used] = Falling(
                tuple(months), tuple(amounts), tuple(by_year.items()), sum(amounts, _ZERO)
            )
        return known

    def running(self, per_year: Decimal) -> list[Decimal]:
        """A running cost in each year, to the cent."""
        known = self._running.get(per_year)
        if known is None:
            if len(self._running) >= MOST_PRICES:
                self._running.clear()
            known = self._running[per_year] = [
                cents(amount) for amount in running_years(per_year, self)
            ]
        return known

    def discount(self, month: float) -> Decimal:
        """(1 + r)^(month/12)."""
        return (1 + self.rate) ** (Decimal(repr(month)) / 12)


@lru_cache(32)
def rates_for(growth: Decimal, discount: Decimal, years: int) -> Rates:
    """The rates of a firm over a horizon; asked for again and again while lines are compared."""
    return Rates(growth, discount, years)


def interval_months(due: Due) -> float:
    """Time between two [months]: the smaller of calendar and capacity ÷ (gallons a year / 12),
    times the life factor; infinite where nothing runs through and no calendar holds.

    Raises:
        RuleError: neither months nor gallons, or a life factor that is not above 0.

    Source: makers rate parts by months and gallons, whichever is sooner.
    """
    if due.life_factor <= 0:
        raise RuleError(
            "cost.life_factor",
            f"{due.label}: a life factor must be above 0.",
            due.code,
            "Use 1 when nothing shortens it.",
        )
    by_use = _by_use(due)
    ends = [m for m in (due.months, by_use) if m is not None]
    if not ends:
        raise RuleError(
            "cost.interval",
            f"{due.label} has neither months nor gallons to go by.",
            due.code,
            "Give at least one.",
        )
    interval = min(ends) * due.life_factor
    if interval <= 0:
        raise RuleError(
            "cost.interval",
            f"{due.label}: an interval of 0 is not possible.",
            due.code,
            "Give months or gallons above 0.",
        )
    return max(interval, LEAST_INTERVAL)


def _falls(due: Due, rates: Rates) -> Falling:
    return rates.falling(due.price, interval_months(due), due.used_months)


def keeps_up(dues: Iterable[Due]) -> None:
    """RuleError when something would fall due more often than every ``LEAST_INTERVAL`` [months],
    about seven hours.
    """
    for due in dues:
        if interval_months(due) <= LEAST_INTERVAL:
            raise RuleError(
                "cost.often",
                f"{due.label} would be used up within hours at this home’s use.",
                due.code,
                "Choose one that is made for so much water.",
            )


def _by_use(due: Due) -> float | None:
    """Months until the gallons are used up; None when they do not count."""
    if due.capacity_gal is None:
        return None
    if due.gallons_year <= _EPS:
        return math.inf if due.months is None else None
    return due.capacity_gal / (due.gallons_year / 12)


def interval_why(due: Due) -> str:
    """Why the interval is what it is, in words."""
    by_use = _by_use(due)
    if by_use == math.inf:
        return "no water runs through it"
    text = (
        f"{due.capacity_gal:,.0f} gal at {due.gallons_year / 12:,.0f} gal a month"
        if by_use is not None and (due.months is None or by_use < due.months)
        else "by the calendar"
    )
    if due.life_factor != 1.0:
        text += f", × {due.life_factor:g}"
    return f"{text}: {due.why}" if due.why else text


def months_due(interval: float, years: int, used: float = 0.0) -> list[float]:
    """When a part falls due [months from now]: k × interval for k = 1, 2, … while below 12 · years.

    Args:
        interval: [months]. years: horizon [years]. used: what the first has served already
            [months]: all fall due so much earlier, one that is overdue at once.

    >>> months_due(5.0, 1)
    [5.0, 10.0]
    >>> months_due(6.0, 1, used=9.0)  # three months over: now, and in six
    [0.0, 6.0]
    """
    end, out, k = 12 * years - _EPS, [], 1
    ahead = min(used, interval)
    while k * interval - ahead < end:
        out.append(k * interval - ahead)
        k += 1
    return out


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
    """One line of the schedule, with price, interval and the reason for it."""

    label: str
    kind: str
    scope: str
    price: Decimal
    interval_months: float | None
    times: int
    total: Decimal
    why: str


@record
class Lifetime:
    """Cost over a horizon.

    ``per_gallon_house`` and ``per_gallon_tap`` are never summed; None: no gallons. ``monthly``:
    paid so far at each month from 0 to the end, for the cumulative curve.
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


def running_years(per_year: Decimal, rates: Rates) -> list[Decimal]:
    """A running cost by year [money/year]: twelve monthly twelfths, summed unrounded, each after
    growth and discount.
    """
    if not rates.discounted:
        return [per_year * f for f in rates.grown]
    return [
        sum((per_year / 12 * f / rates.discount(float(12 * y + m)) for m in range(12)), _ZERO)
        for y, f in enumerate(rates.grown)
    ]


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
    total = sum((cents(p.price) + cents(p.installation) for p in purchases), _ZERO)
    total += sum(
        (rates.falling(d.price, interval_months(d), d.used_months).total for d in dues), _ZERO
    )
    return total + sum(
        (amount for per_year in _by_kind(running).values() for amount in rates.running(per_year)),
        _ZERO,
    )


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
    """
    rates = _rates(growth, discount, years)
    events: list[Event] = []
    lines: list[CostLine] = []
    for p in purchases:
        for label, kind, amount in (
            (p.label, "equipment", p.price),
            (f"Installing {p.label}", "installation", p.installation),
        ):
            if amount:
                events.append(
                    Event(month=0.0, amount=cents(amount), kind=kind, label=label, scope=p.scope)
                )
                lines.append(
                    CostLine(
                        label=label,
                        kind=kind,
                        scope=p.scope,
                        price=amount,
                        interval_months=None,
                        times=1,
                        total=cents(amount),
                        why="once",
                    )
                )
    purchase = sum((e.amount for e in events), _ZERO)
    by_kind: dict[str, Decimal] = {}
    by_year = [_ZERO] * years
    scope_total = {"house": _ZERO, "tap": _ZERO}
    by_year[0] += purchase
    for e in events:
        by_kind[e.kind] = by_kind.get(e.kind, _ZERO) + e.amount
        scope_total[e.scope] += e.amount
    for d in dues:
        step, due = interval_months(d), _falls(d, rates)
        times, total_due = len(due.months), due.total
        events += [
            Event(m, amount, d.kind, d.label, d.scope)
            for m, amount in zip(due.months, due.amounts, strict=True)
        ]
        for y, amount in due.by_year:
            by_year[y] += amount
        if times:
            by_kind[d.kind] = by_kind.get(d.kind, _ZERO) + total_due
            scope_total[d.scope] += total_due
        lines.append(
            CostLine(
                label=d.label,
                kind=d.kind,
                scope=d.scope,
                price=d.price,
                interval_months=None if step == math.inf else step,
                times=times,
                total=total_due,
                why=interval_why(d),
            )
        )
    run = list(running)
    _add_running(run, years, rates, by_kind, by_year, scope_total, lines)
    events.sort()
    total = sum(by_kind.values(), Decimal(0))
    later = [by_year[0] - purchase, *by_year[1:]]

    def per(amount: Decimal, gallons: float) -> Decimal | None:
        return None if gallons <= 0 else amount / Decimal(repr(gallons * years))

    return Lifetime(
        years=years,
        total=total,
        purchase=purchase,
        by_kind=by_kind,
        by_year=tuple(by_year),
        first_year=by_year[0],
        worst_year=max(later),
        per_year=cents(total / years),
        per_gallon_house=per(scope_total["house"], house_gal_year),
        per_gallon_tap=per(scope_total["tap"], tap_gal_year),
        lines=tuple(lines),
        events=tuple(events),
        monthly=_monthly(events, run, years, rates, total),
    )


def added_cost(
    purchases: Iterable[Purchase],
    dues: Iterable[Due],
    running: Iterable[Running],
    rates: Rates,
    years: int,
) -> Decimal:
    """What some stages add to a lifetime: purchases and every event to the cent, running costs
    unrounded.

    Unlike a total of ``lifetime`` this adds up over stages without a remainder, which a comparison
    of many lines needs; the two differ by less than half a cent a year and kind.
    """
    total = sum((cents(p.price) + cents(p.installation) for p in purchases), _ZERO)
    total += sum(
        (rates.falling(d.price, interval_months(d), d.used_months).total for d in dues), _ZERO
    )
    return total + sum((sum(running_years(r.per_year, rates), _ZERO) for r in running), _ZERO)


def _by_kind(running: Iterable[Running]) -> dict[tuple[str, str], Decimal]:
    """Running costs a year, by kind and branch."""
    groups: dict[tuple[str, str], Decimal] = {}
    for r in running:
        groups[r.kind, r.scope] = groups.get((r.kind, r.scope), _ZERO) + r.per_year
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
        total = sum(sums, _ZERO)
        by_kind[kind] = by_kind.get(kind, _ZERO) + total
        scope_total[scope] += total
        for y, s in enumerate(sums):
            by_year[y] += s
        labels = [r for r in run if r.kind == kind and r.scope == scope]
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


def _monthly(
    events: list[Event], run: list[Running], years: int, rates: Rates, total: Decimal
) -> tuple[Decimal, ...]:
    """Paid by the end of month m − 1, m = 0 … 12 · years; what falls due at month 0 is in the
    first, the last is the total.
    """
    twelfth = sum((r.per_year for r in run), _ZERO) / 12
    monthly = [(twelfth * f).quantize(_MICRO) for f in rates.grown]
    adds = [_ZERO] * (
        12 * years + 1
    )  # the last takes what falls due after the last month began: it is in the total
    ceil = math.ceil
    for month, amount, *_ in events:
        adds[ceil(month - _EPS)] += amount
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
    otherwise.
    """
    if a.total >= b.total:
        return None
    cheaper = list(map(lt, a.monthly, b.monthly))
    cheaper.reverse()
    return len(cheaper) - cheaper.index(False) if False in cheaper else None
