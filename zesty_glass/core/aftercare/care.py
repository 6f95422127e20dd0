"""What falls due at a home after the fitting: parts with their dates, and what moves them."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from datetime import date, timedelta
from typing import Literal

from ..costing.falling import by_use_months, interval_months
from ..errors import RuleError
from ..occupancy import ALL_YEAR, DAYS_OF_YEAR, Occupancy, day_used_up
from ..record import Words, record
from ..treating.report import Due, StageReport
from ..units import DAYS_PER_MONTH
from .gauging import FARTHEST_DAYS, Gauge, latest, next_by_gauge

SOON_DAYS = 60  # [days] ahead in which a part is "soon"
DUE_DAYS = 14  # [days] ahead in which it is "due": the round of a fortnight

State = Literal["overdue", "due", "soon", "later"]


@record
class Part:
    """A part of a fitted stage that falls due again and again.

    Args:
        key: stage and part, one name in the job. months: between two at this home [months];
            by_calendar: at the longest, whatever runs through it [months]; days_lived: of use that
            it takes where somebody is there [days]; both None where the use does not count.
        own: the household does it. minutes: work each time [min].
        why: what the interval hangs on.
    """

    key: str
    stage: str
    label: str
    kind: str
    months: float
    own: bool
    minutes: int
    price: str = ""
    why: str = ""
    by_calendar: float | None = None
    days_lived: float | None = None


@record
class Change:
    """A part that was changed, or a job that was done.

    Args:
        on: the day. before, after: readings or the state, as they were said.
    """

    id: str
    part: str
    on: date
    by: str
    before: Words = ""
    after: Words = ""
    note: Words = ""


@record
class Falling:
    """A part with its next day and how it stands; ``read``: what moved that day from the
    calendar's.
    """

    part: Part
    last: date
    next: date
    state: State
    changed: int
    read: Gauge | None = None


def parts_of(stages: tuple[StageReport, ...], lived_year: float = DAYS_OF_YEAR) -> tuple[Part, ...]:
    """All that falls due at a line's stages, with the intervals of this home.

    Args:
        lived_year: days a year that somebody is there [days/year].
    """
    out: dict[str, Part] = {}
    for n, s in enumerate(stages):
        for d in s.dues:
            months = interval_months(d)
            if math.isfinite(months) and months > 0:
                key = f"{n}:{s.code}:{d.code}"
                by_use = d.months is None or months < d.months * d.life_factor - 1e-9
                out[key] = Part(
                    key=key,
                    stage=s.name,
                    label=d.label,
                    kind=d.kind,
                    months=months,
                    own=d.own,
                    minutes=d.minutes,
                    price=str(d.price),
                    why="by use" if by_use else "by the calendar",
                    by_calendar=_by_calendar(d),
                    days_lived=_days_lived(d, lived_year),
                )
    return tuple(out.values())


def _by_calendar(due: Due) -> float | None:
    """The longest that the calendar lets a part stay [months]; None where only use counts."""
    if due.months is None or due.lived_days is not None:
        return None
    return due.months * due.life_factor


def _days_lived(due: Due, lived_year: float) -> float | None:
    """Days lived in that use a part up [days]; None where only the calendar counts."""
    if due.lived_days is not None:
        return due.lived_days
    months = by_use_months(due)
    return None if months is None else months * due.life_factor / 12 * lived_year


def _next(p: Part, last: date, lived: Occupancy, lived_year: float) -> date:
    """The day on which a part falls due again: when it is used up where somebody is there, at the
    latest by the calendar."""
    if p.days_lived is None or lived_year >= DAYS_OF_YEAR - 1:
        return next_day(last, p.months)
    used = day_used_up(last, p.days_lived, lived, lived_year)
    return used if p.by_calendar is None else min(used, next_day(last, p.by_calendar))


def next_day(last: date, months: float) -> date:
    """The day on which a part falls due again: at least a day after ``last``.

    Args:
        months: interval [months of 30.4375 days], rounded to whole days here and nowhere before.

    >>> next_day(date(2026, 1, 1), 12.0)
    datetime.date(2027, 1, 1)
    """
    days = round(months * DAYS_PER_MONTH)
    return last + timedelta(days=min(max(days, 1), FARTHEST_DAYS))


def state_on(day: date, today: date) -> State:
    """How a day that something falls due on stands today.

    >>> state_on(date(2026, 11, 19), date(2026, 11, 20))
    'overdue'
    """
    left = (day - today).days
    if left < 0:
        return "overdue"
    if left <= DUE_DAYS:
        return "due"
    return "soon" if left <= SOON_DAYS else "later"


def falling(
    parts: tuple[Part, ...],
    changes: tuple[Change, ...],
    fitted_on: date,
    today: date,
    gauges: tuple[Gauge, ...] = (),
    lived: Occupancy = ALL_YEAR,
    lived_year: float = DAYS_OF_YEAR,
) -> tuple[Falling, ...]:
    """Every part with its next day, the earliest first. A part is counted from its last change, or
    from the fitting; what was read at it since says better.

    Args:
        lived, lived_year: when somebody is there, and on how many days a year [days/year].
    """
    out = []
    for p in parts:
        done = [c.on for c in changes if c.part == p.key]
        last = max(done, default=fitted_on)
        read = latest(p.key, last, gauges)
        by_gauge = None if read is None else next_by_gauge(p.kind, p.months, last, read)
        day = by_gauge or _next(p, last, lived, lived_year)
        out.append(
            Falling(
                part=p,
                last=last,
                next=day,
                state=state_on(day, today),
                changed=len(done),
                read=read,
            )
        )
    return tuple(sorted(out, key=lambda f: (f.next, f.part.key)))


#: blanks of a firm's reminder
BLANKS = ("{customer}", "{parts}", "{firm}")


def reminder(
    text: str,
    customer: str,
    firm: str,
    parts: Iterable[tuple[str, str, bool]],
    say: Callable[[str], str] = str,
) -> str:
    """What a reminder says: the firm's own text with its blanks filled in; a blank it does not have
    stays as it was written.

    Args:
        parts: what falls due, with its day and whether the household does it, as they are said.
        say: says the rest in the customer's language.
    """
    itself = say(" (you can do this yourself)")
    lines = [f"- {label}, {day}{itself if own else ''}" for label, day, own in parts]
    out = say(text).replace("{parts}", "\n".join(lines))
    return out.replace("{customer}", customer).replace("{firm}", firm)


def check_change(
    change: Change, parts: tuple[Part, ...], fitted_on: date | None, today: date
) -> None:
    """RuleError for a change that cannot be: of a part that is not there, before the fitting, or in
    days to come.
    """

    def refuse(code: str, what: str, where: str, remedy: str) -> None:
        raise RuleError(f"change.{code}", what, where, remedy)

    if fitted_on is None:
        refuse("not_fitted", "The line is not fitted yet.", "on", "Say first when it was fitted.")
    elif change.part not in {p.key for p in parts}:
        refuse("part", "This part does not belong to this job.", "part", "Choose one of its parts.")
    elif change.on < fitted_on:
        refuse(
            "before_fitting",
            f"{change.on:%B %-d, %Y} is before the fitting on {fitted_on:%B %-d, %Y}.",
            "on",
            "Use the day of the change.",
        )
    elif change.on > today:
        refuse("future", "This day has not come yet.", "on", "Use the day of the change.")
