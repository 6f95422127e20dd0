"""Lifetime cost in decimals: events when they fall due, running costs by month, growth and discount (chapters 5 and 7)."""

from __future__ import annotations

from collections.abc import Iterable
from decimal import ROUND_HALF_EVEN, Decimal
from functools import lru_cache

from ..errors import RuleError
from ..record import record
from ..treating.line import Purchase
from ..treating.report import Due, Running

CENT = Decimal("0.01")
HORIZONS = (5, 10, 15, 20)
_EPS = 1e-9


def cents(amount: Decimal) -> Decimal:
    """Rounded half-even to the cent."""
    return amount.quantize(CENT, rounding=ROUND_HALF_EVEN)


@lru_cache(maxsize=4096)
def price_factor(growth: Decimal, year: int) -> Decimal:
    """(1 + g)^year."""
    return (1 + growth) ** year


@lru_cache(maxsize=65536)
def discount_factor(rate: Decimal, month: float) -> Decimal:
    """(1 + r)^(month/12)."""
    if rate == 0:
        return Decimal(1)
    return (1 + rate) ** (Decimal(repr(month)) / 12)


def interval_months(due: Due) -> float:
    """Months between two: min(calendar, capacity ÷ (gallons a year/12)) × life factor; RuleError without either."""
    if due.life_factor <= 0:
        raise RuleError("cost.life_factor", f"{due.label}: a life factor must be above 0.", due.code, "Use 1 when nothing shortens it.")
    by_use = None if due.capacity_gal is None or due.gallons_year <= 0 else due.capacity_gal / (due.gallons_year / 12)
    ends = [m for m in (due.months, by_use) if m is not None]
    if not ends:
        raise RuleError("cost.interval", f"{due.label} has neither months nor gallons to go by.", due.code, "Give at least one.")
    interval = min(ends) * due.life_factor
    if interval <= 0:
        raise RuleError("cost.interval", f"{due.label}: an interval of 0 is not possible.", due.code, "Give months or gallons above 0.")
    return interval


def interval_why(due: Due) -> str:
    """Why the interval is what it is, in words."""
    by_use = None if due.capacity_gal is None or due.gallons_year <= 0 else due.capacity_gal / (due.gallons_year / 12)
    text = f"{due.capacity_gal:,.0f} gal at {due.gallons_year / 12:,.0f} gal a month" if by_use is not None and (due.months is None or by_use < due.months) else "by the calendar"
    if due.life_factor != 1.0:
        text += f", × {due.life_factor:g}"
    return f"{text}: {due.why}" if due.why else text


def months_due(interval: float, years: int) -> list[float]:
    """k × interval for k = 1, 2, … while below 12 · years."""
    end, out, k = 12 * years - _EPS, [], 1
    while k * interval < end:
        out.append(k * interval)
        k += 1
    return out


@record
class Event:
    """One thing paid for: month, rounded amount, kind and label."""

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

    ``per_gallon_house`` and ``per_gallon_tap`` are never summed; None: no gallons. ``curve``: (month, paid so far).
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
    curve: tuple[tuple[float, Decimal], ...]


def _running_years(running: Running, years: int, growth: Decimal, discount: Decimal) -> list[Decimal]:
    """A running cost by year: twelve monthly twelfths summed unrounded."""
    out = []
    for y in range(years):
        f = price_factor(growth, y)
        if discount == 0:
            out.append(running.per_year * f)
        else:
            out.append(sum((running.per_year / 12 * f / discount_factor(discount, float(12 * y + m)) for m in range(12)), Decimal(0)))
    return out


def lifetime(purchases: Iterable[Purchase], dues: Iterable[Due], running: Iterable[Running], years: int, growth: Decimal, discount: Decimal, house_gal_year: float = 0.0, tap_gal_year: float = 0.0) -> Lifetime:
    """Everything paid over ``years``: purchases at month 0, events rounded when due, running costs rounded once a year per kind."""
    if not 1 <= years <= 60:
        raise RuleError("cost.years", f"A horizon of {years} years is not possible.", "years", "Use 5, 10, 15 or 20.")
    events: list[Event] = []
    lines: list[CostLine] = []
    for p in purchases:
        for label, kind, amount in ((p.label, "equipment", p.price), (f"Installing {p.label}", "installation", p.installation)):
            if amount:
                events.append(Event(month=0.0, amount=cents(amount), kind=kind, label=label, scope=p.scope))
                lines.append(CostLine(label=label, kind=kind, scope=p.scope, price=amount, interval_months=None, times=1, total=cents(amount), why="once"))
    purchase = sum((e.amount for e in events), Decimal(0))
    for d in dues:
        step = interval_months(d)
        mine = [Event(month=m, amount=cents(d.price * price_factor(growth, int(m / 12 + _EPS)) / discount_factor(discount, m)), kind=d.kind, label=d.label, scope=d.scope) for m in months_due(step, years)]
        events += mine
        lines.append(CostLine(label=d.label, kind=d.kind, scope=d.scope, price=d.price, interval_months=step, times=len(mine), total=sum((e.amount for e in mine), Decimal(0)), why=interval_why(d)))
    run = list(running)
    by_kind: dict[str, Decimal] = {}
    by_year = [Decimal(0)] * years
    scope_total = {"house": Decimal(0), "tap": Decimal(0)}
    for e in events:
        by_kind[e.kind] = by_kind.get(e.kind, Decimal(0)) + e.amount
        by_year[min(years - 1, int(e.month / 12 + _EPS))] += e.amount
        scope_total[e.scope] += e.amount
    _add_running(run, years, growth, discount, by_kind, by_year, scope_total, lines)
    events.sort(key=lambda e: e.month)
    total = sum(by_kind.values(), Decimal(0))
    later = [by_year[0] - purchase, *by_year[1:]]

    def per(amount: Decimal, gallons: float) -> Decimal | None:
        return None if gallons <= 0 else amount / Decimal(repr(gallons * years))

    return Lifetime(
        years=years, total=total, purchase=purchase, by_kind=by_kind, by_year=tuple(by_year), first_year=by_year[0], worst_year=max(later), per_year=cents(total / years),
        per_gallon_house=per(scope_total["house"], house_gal_year), per_gallon_tap=per(scope_total["tap"], tap_gal_year), lines=tuple(lines), events=tuple(events),
        curve=_curve(events, run, years, growth, discount, total),
    )


def _add_running(run: list[Running], years: int, growth: Decimal, discount: Decimal, by_kind: dict[str, Decimal], by_year: list[Decimal], scope_total: dict[str, Decimal], lines: list[CostLine]) -> None:
    """Running costs, summed per kind and branch, rounded once a year."""
    groups: dict[tuple[str, str], list[list[Decimal]]] = {}
    for r in run:
        groups.setdefault((r.kind, r.scope), []).append(_running_years(r, years, growth, discount))
    for (kind, scope), parts in groups.items():
        sums = [cents(sum((p[y] for p in parts), Decimal(0))) for y in range(years)]
        by_kind[kind] = by_kind.get(kind, Decimal(0)) + sum(sums, Decimal(0))
        scope_total[scope] += sum(sums, Decimal(0))
        for y, s in enumerate(sums):
            by_year[y] += s
        labels = [r for r in run if r.kind == kind and r.scope == scope]
        lines.append(CostLine(label=" and ".join(dict.fromkeys(r.label for r in labels)), kind=kind, scope=scope, price=cents(sum((r.per_year for r in labels), Decimal(0))), interval_months=None, times=years, total=sum(sums, Decimal(0)), why="a year, spread by month; " + "; ".join(r.why for r in labels if r.why)))


def _curve(events: list[Event], run: list[Running], years: int, growth: Decimal, discount: Decimal, total: Decimal) -> tuple[tuple[float, Decimal], ...]:
    """Paid so far by month, with the steps of events; its end is the total."""
    yearly = sum((r.per_year for r in run), Decimal(0)) / 12
    out: list[tuple[float, Decimal]] = []
    paid, i = Decimal(0), 0
    for m in range(12 * years + 1):
        while i < len(events) and events[i].month <= m + _EPS:
            if events[i].month > 0:
                out.append((round(events[i].month, 3), cents(paid)))
            paid += events[i].amount
            out.append((round(events[i].month, 3), cents(paid)))
            i += 1
        if m == 12 * years:
            out.append((float(m), total))
            break
        if m % 3 == 0 and yearly:
            out.append((float(m), cents(paid)))
        paid += yearly * price_factor(growth, m // 12) / discount_factor(discount, float(m))
    return tuple(sorted(dict.fromkeys(out), key=lambda p: (p[0], p[1])))


def paid_by(curve: tuple[tuple[float, Decimal], ...], month: float) -> Decimal:
    """Paid by a month, straight lines between the points of a curve."""
    before = curve[0]
    for p in curve:
        if p[0] > month:
            if p[0] == before[0]:
                return before[1]
            share = Decimal(repr((month - before[0]) / (p[0] - before[0])))
            return before[1] + (p[1] - before[1]) * share
        before = p
    return before[1]


def stays_cheaper_from(a: Lifetime, b: Lifetime) -> int | None:
    """The month from which ``a`` stays cheaper than ``b`` to the end, when it began dearer; None otherwise."""
    last: int | None = None
    if a.total >= b.total:
        return None
    for m in range(12 * a.years, -1, -1):
        if paid_by(a.curve, m) < paid_by(b.curve, m):
            last = m
        else:
            break
    return last if last else None


def apr(price: Decimal, down: Decimal, monthly: Decimal, months: int) -> Decimal:
    """Yearly percentage rate [%] of a payment plan, nominal, twelve times the monthly rate, by bisection.

    Raises:
        RuleError: ``plan.impossible`` when the payments do not cover the price, or the rate passes 1,000 %.
    """
    owed = price - down
    if months <= 0 or monthly <= 0 or owed <= 0:
        raise RuleError("plan.impossible", "A plan needs a balance, payments and months above 0.", "plan", "Check price, down payment and months.")
    if monthly * months < owed - CENT:
        raise RuleError("plan.impossible", "The payments do not cover the price.", "plan", "Raise the payment or the months.")

    def worth(rate: float) -> float:
        return float(owed) - sum(float(monthly) / (1 + rate) ** k for k in range(1, months + 1))

    low, high = 0.0, 1000.0 / 1200.0
    if worth(high) < 0:
        raise RuleError("plan.apr", "The yearly rate of this plan is above 1,000 %.", "plan", "Check the payment: it is out of all proportion.")
    for _ in range(100):
        mid = (low + high) / 2
        if worth(mid) < 0:
            low = mid
        else:
            high = mid
    return Decimal(repr(low * 1200)).quantize(CENT)
