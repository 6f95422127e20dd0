"""What falls due: when, how often, and at which price of its year."""

from __future__ import annotations

import math
from collections.abc import Iterable
from decimal import ROUND_HALF_EVEN, Decimal
from functools import lru_cache
from typing import NamedTuple

from ..errors import RuleError
from ..treating.report import Due

CENT = Decimal("0.01")


MOST_PRICES = 4000  # grown prices remembered a horizon


LEAST_INTERVAL = 0.01  # [months]; what falls due oftener is a slip


EPS = 1e-9  # [months] two times nearer than this are one
ZERO = Decimal(0)


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
                y = int(m / 12 + EPS)
                amount = (
                    cents(price * self.grown[y] / self.discount(m))
                    if self.discounted
                    else prices[y]
                )
                amounts.append(amount)
                by_year[y] = by_year.get(y, ZERO) + amount
            known = self._falling[price, step, used] = Falling(
                tuple(months), tuple(amounts), tuple(by_year.items()), sum(amounts, ZERO)
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
    by_use = by_use_months(due)
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


def by_use_months(due: Due) -> float | None:
    """Months until the gallons are used up; None when they do not count."""
    if due.capacity_gal is None:
        return None
    if due.gallons_year <= EPS:
        return math.inf if due.months is None else None
    return due.capacity_gal / (due.gallons_year / 12)


def interval_why(due: Due) -> str:
    """Why the interval is what it is, in words."""
    by_use = by_use_months(due)
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
    end, out, k = 12 * years - EPS, [], 1
    ahead = min(used, interval)
    while k * interval - ahead < end:
        out.append(k * interval - ahead)
        k += 1
    return out


def running_years(per_year: Decimal, rates: Rates) -> list[Decimal]:
    """A running cost by year [money/year]: twelve monthly twelfths, summed unrounded, each after
    growth and discount.
    """
    if not rates.discounted:
        return [per_year * f for f in rates.grown]
    return [
        sum((per_year / 12 * f / rates.discount(float(12 * y + m)) for m in range(12)), ZERO)
        for y, f in enumerate(rates.grown)
    ]
