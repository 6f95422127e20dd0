"""What is read at a fitted part between two changes: a lamp's days powered, what is left of a bed.
It moves the day that the calendar alone would say.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from datetime import date, timedelta

from ..errors import RuleError
from ..record import record
from ..treating.stages import service_of
from ..units import DAYS_PER_MONTH

FARTHEST_DAYS = 36_500
LEFT_AT_LEAST = 67.0  # [%] of a bed: below it is topped up. Trade practice (2024)
SLACK_DAYS = 2  # [days] a lamp's counter may be ahead of the calendar


@record
class Gauge:
    """A reading at a part, by its key in the job; ``value`` in the unit of its kind: a lamp's days
    powered [days], what is left of a bed [%].
    """

    id: str
    part: str
    on: date
    value: float
    by: str = ""


@record
class Gauged:
    """What is read at a kind of part: its name, unit, the most it can be. The technologies at which
    it says something say so (``Service.gauges``): a bed of carbon or resin is used up without
    shrinking.
    """

    name: str
    unit: str
    most: float


#: kind of part -> what is read at it
GAUGED: Mapping[str, Gauged] = {
    "lamp": Gauged(name="Days powered, on its display", unit="days", most=20_000.0),
    "media": Gauged(name="What is left of the bed", unit="%", most=100.0),
}


def gauged(part: str, stage: str) -> Gauged | None:
    """What is read at a kind of part of a technology; None where nothing is."""
    return GAUGED.get(part) if part in service_of(stage).gauges else None


def latest(part: str, since: date, gauges: Iterable[Gauge]) -> Gauge | None:
    """The last reading at a part after its last change; None where there is none."""
    mine = [g for g in gauges if g.part == part and g.on > since]
    return max(mine, key=lambda g: (g.on, g.id), default=None)


def next_by_gauge(kind: str, months: float, since: date, read: Gauge) -> date | None:
    """When a part falls due by what was read at it; None where the reading says nothing yet.

    Args:
        months: its rated interval [months of 30.4375 days]; since: its last change.

    A lamp goes by its days powered, whatever water ran; a bed is topped up when a third of it is
    gone, at the pace it went since it was full.

    >>> lamp = Gauge(id="g", part="p", on=date(2026, 6, 1), value=300.0)
    >>> next_by_gauge("lamp", 12.0, date(2025, 6, 1), lamp)  # 365 rated, 65 left
    datetime.date(2026, 8, 5)
    """
    if kind == "lamp":
        left = round(months * DAYS_PER_MONTH) - read.value
        days = math.floor(max(left, 0.0))
        return read.on + timedelta(days=min(days, FARTHEST_DAYS))
    gone, days = 100.0 - read.value, (read.on - since).days
    if kind != "media" or gone <= 0:
        return None
    if read.value <= LEFT_AT_LEAST:
        return read.on
    whole = math.floor(days * (100.0 - LEFT_AT_LEAST) / gone)
    return since + timedelta(days=min(max(whole, 1), FARTHEST_DAYS))


def check_gauge(gauge: Gauge, kind: str | None, since: date | None, today: date) -> None:
    """RuleError for a reading that cannot be.

    Args:
        kind: of its part, None where the job has no such part; since: the part's last change or
            the fitting.
    """

    def refuse(code: str, what: str, where: str, remedy: str) -> None:
        raise RuleError(f"gauge.{code}", what, where, remedy)

    said = GAUGED.get(kind or "")
    if since is None:
        refuse("not_fitted", "The line is not fitted yet.", "on", "Say first when it was fitted.")
    elif said is None:
        refuse("part", "Nothing is read at this part.", "part", "Choose a lamp or a bed.")
    elif not (math.isfinite(gauge.value) and 0 <= gauge.value <= said.most):
        refuse(
            "value",
            f"{gauge.value:g} {said.unit} is not possible.",
            "value",
            f"Use 0 to {said.most:g} {said.unit}.",
        )
    elif gauge.on > today:
        refuse("future", "This day has not come yet.", "on", "Use the day it was read.")
    elif gauge.on <= since:
        refuse(
            "before_change",
            f"The part was new on {since:%B %-d, %Y}.",
            "on",
            "Use a day after that.",
        )
    elif kind == "lamp" and gauge.value > (gauge.on - since).days + SLACK_DAYS:
        refuse(
            "not_reset",
            f"The lamp is in for {(gauge.on - since).days} days and its display says"
            f" {gauge.value:g}.",
            "value",
            "Was its counter set back at the change? Set it back, or put the change right.",
        )
