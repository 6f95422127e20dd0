"""The firm's memory: its homes, one over the years, and what it has learnt."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.job import Job
from ..core.aftercare.logbook import (
    HomeEvent,
    Known,
    Series,
    WaterPair,
    events,
    pair_of,
    series,
)
from ..core.errors import RuleError
from ..core.testing.reading import work_out
from ..core.testing.water import Sample, design_water, water_of
from ..documents.codec import load
from ..records import homes as records
from ..records import jobs as job_records
from ..records import opening, store
from ..records.models import HomeRow
from . import jobs, visiting
from .person import Person

PAIRS = 300  # of the latest raw waters


def _samples(
    db: Session, who: Person, visits: list[UUID], analytes: tuple[str, ...] = ()
) -> dict[UUID, tuple[Sample, ...]]:
    """The glasses of some visits with their readings (of some analytes alone, or all); a visit that
    cannot be read is left out: what is wrong with it is told where it stands.
    """
    glasses, readings = records.glasses(db, who.firm_id, visits, analytes)
    out: dict[UUID, tuple[Sample, ...]] = {}
    for visit, own in glasses.items():
        try:
            out[visit] = load(
                tuple[Sample, ...], visiting.with_readings(own, readings.get(visit, []))
            )
        except RuleError:
            continue
    return out


def home(db: Session, who: Person, id: UUID) -> tuple[HomeRow, list[tuple[UUID, str]]]:
    """A home this person may see, with the visits they may see, the latest first; the one that it
    turned out to be, where it was merged.
    """
    row: HomeRow = store.get(db, HomeRow, who.firm_id, id, "home")
    if row.merged_into is not None:
        return home(db, who, row.merged_into)
    every = opening.visits_of_home(db, who.firm_id, id)
    may = visiting.seen_of(db, who, every)
    seen = [(visit, at.isoformat()) for visit, at, _ in every if visit in may]
    if not seen:
        raise store.NotFound("home")
    return row, seen


def years(
    db: Session, who: Person, id: UUID, visits: list[tuple[UUID, str]]
) -> tuple[tuple[Series, ...], tuple[HomeEvent, ...], tuple[Job, ...]]:
    """A home's readings over the years, what changed at it, and its jobs."""
    waters = []
    for visit, samples in _samples(db, who, [v for v, _ in visits]).items():
        raw = design_water(samples)
        if raw is not None:
            at = max(s.drawn_at for s in samples)
            waters.append(Known(at=at, visit=str(visit), water=raw))
    every = tuple(jobs.opened(r) for r in job_records.of_home(db, who.firm_id, id))
    with_values = tuple((j, tuple(work_out(p.reading) for p in j.proofs)) for j in every)
    return series(tuple(waters), with_values), events(every), every


def pairs(db: Session, who: Person) -> tuple[WaterPair, ...]:
    """Dissolved solids against hardness of the firm's latest raw waters."""
    latest = records.latest_raw(db, who.firm_id, PAIRS)
    found = []
    for visit, samples in _samples(db, who, latest, ("tds", "hardness")).items():
        raw = next((s for s in samples if s.raw), None)
        pair = None if raw is None else pair_of(str(visit), water_of(raw))
        if pair is not None:
            found.append(pair)
    return tuple(found)
