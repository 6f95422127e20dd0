"""A home over the years, and what a firm has learnt from its own readings."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime
from statistics import median
from typing import Literal

from ..analytes import ANALYTES
from ..ranges import Range
from ..record import record
from ..testing.value import Value
from ..testing.water import Water
from .care import Change
from .job import Job
from .proof import Verdict

Where = Literal["raw", "house", "tap"]
FEW = 5  # homes; below this a share says nothing
#: what is not followed over the years
_NOT_FOLLOWED = frozenset({"colour", "noticed"})


@record
class Point:
    """A value at a time and place [canonical unit]."""

    at: datetime
    where: Where
    range: Range | None
    below: float | None
    words: str
    visit: str


@record
class Series:
    """One analyte over the years, the oldest first."""

    analyte: str
    points: tuple[Point, ...]


@record
class HomeEvent:
    """What changed at a home: a line fitted, a part changed, a follow-up."""

    at: str
    what: str
    job: str


@record
class Known:
    """A water of a visit, with when it was drawn."""

    at: datetime
    visit: str
    water: Water


def series(
    waters: tuple[Known, ...], jobs: tuple[tuple[Job, tuple[Value, ...]], ...]
) -> tuple[Series, ...]:
    """Every analyte that was read at least once, those read most often first.

    Args:
        waters: raw waters of the visits. jobs: each with the values of its readings.
    """
    points: dict[str, list[Point]] = {}
    for k in waters:
        for name, v in k.water.values.items():
            point = Point(
                at=k.at,
                where="raw",
                range=v.range,
                below=v.below,
                words=v.words,
                visit=k.visit,
            )
            points.setdefault(name, []).append(point)
    for job, values in jobs:
        for proof, v in zip(job.proofs, values, strict=True):
            if proof.reading.struck_at is None:
                point = Point(
                    at=proof.reading.made_at,
                    where=proof.where,
                    range=v.range,
                    below=v.below,
                    words=v.words,
                    visit="",
                )
                points.setdefault(proof.reading.analyte, []).append(point)
    order = sorted(points, key=lambda n: (-len(points[n]), list(ANALYTES).index(n)))
    return tuple(
        Series(analyte=n, points=tuple(sorted(points[n], key=lambda p: p.at)))
        for n in order
        if n not in _NOT_FOLLOWED
    )


def events(jobs: tuple[Job, ...]) -> tuple[HomeEvent, ...]:
    """What changed at a home, the oldest first; parts changed on one day are one event."""
    out = []
    for j in jobs:
        if j.fitted_on is not None:
            out.append(HomeEvent(at=j.fitted_on.isoformat(), what=f"Fitted: {j.line}", job=j.id))
        by_day: dict[str, list[Change]] = {}
        for c in j.changes:
            by_day.setdefault(c.on.isoformat(), []).append(c)
        names = {p.key: p.label for p in j.parts}
        for day, changes in by_day.items():
            what = ", ".join(names.get(c.part, "a part") for c in changes)
            out.append(HomeEvent(at=day, what=f"Changed: {what}", job=j.id))
        out += [
            HomeEvent(at=f.on.isoformat(), what=f"Followed up: {f.closed or f.what}", job=j.id)
            for f in j.follow_ups
        ]
    return tuple(sorted(out, key=lambda e: e.at))


@record
class Kept:
    """How one item's promise of an analyte was kept, in homes.

    Args:
        homes: at how many homes it was measured. few: too few to say anything.
        short_by: by how much the short ones missed, in the middle, as a share of the water before.
        maker: who makes it, where the catalog says. items: whose promises these are.
        mended: at how many homes it fell short at first and does so no more.
    """

    kind: str
    item: str
    analyte: str
    homes: int
    as_promised: int
    better: int
    short: int
    short_by: float | None
    few: bool
    mended: int = 0
    maker: str = ""
    items: tuple[str, ...] = ()


def kept(
    counted: tuple[tuple[str, str, str, Verdict, int, float | None, int], ...],
    makers: Mapping[str, str],
) -> tuple[Kept, ...]:
    """The firm's record from counts of (technology, item, analyte, verdict, homes, short by, short
    at first); the most often measured first. ``makers``: who makes an item, by its name.
    """
    by: dict[tuple[str, str, str], dict[str, tuple[int, float | None, int]]] = {}
    for kind, item, analyte, verdict, many, missed, at_first in counted:
        by.setdefault((kind, item, analyte), {})[verdict] = (many, missed, at_first)
    out = []
    for (kind, item, analyte), counts in by.items():
        verdicts = ("as promised", "better", "short")
        good, better, short = (counts.get(v, (0, None, 0)) for v in verdicts)
        homes = good[0] + better[0] + short[0]
        if homes:
            out.append(
                Kept(
                    kind=kind,
                    item=item,
                    analyte=analyte,
                    homes=homes,
                    as_promised=good[0],
                    better=better[0],
                    short=short[0],
                    short_by=short[1],
                    few=homes < FEW,
                    mended=good[2] + better[2],
                    maker=makers.get(item, ""),
                    items=(item,),
                )
            )
    return tuple(sorted(out, key=_often))


def _often(k: Kept) -> tuple[int, str, str, str, str]:
    return (-k.homes, k.kind, k.maker, k.item, k.analyte)


def by_maker(lines: tuple[Kept, ...]) -> tuple[Kept, ...]:
    """The record by technology and maker: the items of one maker together. A home that has two of
    them counts for each; what is short by how much is the middle of the items', each as often as
    it was short.
    """
    groups: dict[tuple[str, str, str], list[Kept]] = {}
    for k in lines:
        if k.maker:
            groups.setdefault((k.kind, k.maker, k.analyte), []).append(k)
    return tuple(sorted((_together(of) for of in groups.values()), key=_often))


def _together(of: list[Kept]) -> Kept:
    homes = sum(k.homes for k in of)
    missed = [k.short_by for k in of if k.short_by is not None for _ in range(k.short)]
    return replace(
        of[0],
        item="",
        items=tuple(sorted(k.item for k in of)),
        homes=homes,
        as_promised=sum(k.as_promised for k in of),
        better=sum(k.better for k in of),
        short=sum(k.short for k in of),
        mended=sum(k.mended for k in of),
        short_by=median(missed) if missed else None,
        few=homes < FEW,
    )


@record
class Lasted:
    """How long a part really served before it was changed, against what was predicted.

    Args:
        predicted, lasted: the middle one [months]. changes: how many were counted, at how many
            homes. few: too few to say anything.
    """

    label: str
    kind: str
    predicted: float
    lasted: float
    changes: int
    homes: int
    few: bool


def lasted(
    counted: tuple[tuple[str, str, float, float, int, int], ...],
) -> tuple[Lasted, ...]:
    """Parts from counts of (label, kind, predicted, lasted, changes, homes); the most often changed
    first.
    """
    out = [
        Lasted(
            label=label,
            kind=kind,
            predicted=predicted,
            lasted=months,
            changes=changes,
            homes=homes,
            few=homes < FEW,
        )
        for label, kind, predicted, months, changes, homes in counted
    ]
    return tuple(sorted(out, key=lambda x: (-x.changes, x.label)))


@record
class Outcome:
    """Proposals written in one quarter (1 to 4) of a year, by what became of them."""

    quarter: str
    year: int
    of_year: int
    presented: int
    accepted: int
    declined: int
    expired: int

    @property
    def decided(self) -> int:
        """Those that somebody decided on."""
        return self.accepted + self.declined


def quarter_of(year: int, month: int) -> str:
    """The quarter of a month.

    >>> quarter_of(2026, 3), quarter_of(2026, 11)
    ('2026, quarter 1', '2026, quarter 4')
    """
    return f"{year}, quarter {(month - 1) // 3 + 1}"


def outcomes(counted: tuple[tuple[int, int, str, int], ...]) -> tuple[Outcome, ...]:
    """Outcomes from counts of (year, quarter 1 to 4, state, how many); the newest first."""
    by: dict[tuple[int, int], dict[str, int]] = {}
    for year, quarter, state, many in counted:
        of = by.setdefault((year, quarter), {})
        of[state] = of.get(state, 0) + many
    return tuple(
        Outcome(
            quarter=quarter_of(year, 3 * quarter),
            year=year,
            of_year=quarter,
            presented=of.get("presented", 0),
            accepted=of.get("accepted", 0),
            declined=of.get("declined", 0),
            expired=of.get("expired", 0),
        )
        for (year, quarter), of in sorted(by.items(), reverse=True)
    )


@record
class WaterPair:
    """Dissolved solids and hardness of one raw water [mg/L, mg/L as CaCO3]."""

    visit: str
    tds: float
    hardness: float


def pair_of(visit: str, water: Water) -> WaterPair | None:
    """A water's pair; None where one of the two was not read, or has no value."""
    tds, hardness = (water.values.get(n) for n in ("tds", "hardness"))
    if tds is None or hardness is None or tds.range is None or hardness.range is None:
        return None
    return WaterPair(visit=visit, tds=tds.range.best, hardness=hardness.range.best)
