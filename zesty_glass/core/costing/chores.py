"""The work a line asks for in a year, and a strip of twelve months."""

from __future__ import annotations

import math

from ..record import record
from ..treating.line import LineReport
from ..treating.report import Chore, Due, StageReport
from .falling import interval_months

MONTHS = 12


@record
class YearlyChore:
    """One kind of work: times and minutes a year, by the household or the firm; ``bags`` of salt
    carried.
    """

    label: str
    kind: str
    times_year: float
    minutes_year: float
    own: bool
    bags: float = 0.0


@record
class Chores:
    """All chores, minutes a year of the household's own, and by month (0 to 11): labels due in the
    first year of service.
    """

    chores: tuple[YearlyChore, ...]
    own_minutes: float
    bags: float
    strip: tuple[tuple[str, ...], ...]


def _counted(stage: StageReport) -> tuple[Chore, ...]:
    """A stage's own work; topping up is left out where the media falls due by itself."""
    media = any(d.kind == "media" for d in stage.dues)
    return tuple(c for c in stage.chores if not (media and c.label == "Top up media"))


def stage_minutes(stage: StageReport) -> float:
    """The household's own work that a stage asks for [min/year]: parts it changes and chores."""
    return sum(MONTHS / interval_months(d) * d.minutes for d in stage.dues if d.own) + sum(
        c.times_year * c.minutes for c in _counted(stage) if c.own
    )


def _changing(d: Due, step: float) -> YearlyChore:
    """Changing a part every ``step`` months [months]."""
    times = MONTHS / step
    return YearlyChore(
        label=d.label, kind=d.kind, times_year=times, minutes_year=times * d.minutes, own=d.own
    )


def _work(c: Chore) -> YearlyChore:
    return YearlyChore(
        label=c.label,
        kind="salt" if c.bags else "work",
        times_year=c.times_year,
        minutes_year=c.times_year * c.minutes,
        own=c.own,
        bags=c.bags,
    )


def _months_due(step: float) -> list[int]:
    """Months of the first year, 0 to 11, in which something falls due every ``step`` months."""
    times = math.floor(MONTHS / step + 1e-9)
    return [max(0, min(11, round(k * step) - 1)) for k in range(1, times + 1)]


def _salt_months(bags: int) -> list[int]:
    """Months, 0 to 11, in which so many bags are carried, spread over the year."""
    return [int(i * MONTHS / bags) % MONTHS for i in range(bags)]


def chores(line: LineReport) -> Chores:
    """Chores of a line; the strip shows what falls due in each month of its first year."""
    out: list[YearlyChore] = []
    strip: list[list[str]] = [[] for _ in range(12)]
    for stage in line.stages:
        for d in stage.dues:
            step = interval_months(d)
            if step == math.inf:
                continue
            out.append(_changing(d, step))
            for month in _months_due(step):
                strip[month].append(d.kind)
        for c in _counted(stage):
            out.append(_work(c))
            for month in _salt_months(round(c.bags)):
                strip[month].append("salt")
    return Chores(
        chores=tuple(out),
        own_minutes=sum(c.minutes_year for c in out if c.own),
        bags=sum(c.bags for c in out),
        strip=tuple(tuple(m) for m in strip),
    )
