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
from ..records import store
from ..records.models import HomeRow, ReadingRow, SampleRow
from . import jobs, visiting
from .person import Person

PAIRS = 300  # of the latest raw waters


def _samples(db: Session, who: Person, visit: UUID) -> tuple[Sample, ...]:
    """A visit's glasses with their readings; RuleError where one cannot be read."""
    samples = store.of_visit(db, SampleRow, who.firm_id, visit)
    readings = store.of_visit(db, ReadingRow, who.firm_id, visit)
    loaded: tuple[Sample, ...] = load(tuple[Sample, ...], visiting.with_readings(samples, readings))
    return loaded


def home(db: Session, who: Person, id: UUID) -> tuple[HomeRow, list[tuple[UUID, str]]]:
    """A home this person may see, with the visits they may see, the latest first."""
    row: HomeRow = store.get(db, HomeRow, who.firm_id, id, "home")
    seen = []
    for visit, at, _ in store.visits_of_home(db, who.firm_id, id):
        try:
            visiting.get(db, who, visit)
        except store.NotFound:
            continue
        seen.append((visit, at.isoformat()))
    if not seen:
        raise store.NotFound("home")
    return row, seen


def years(
    db: Session, who: Person, id: UUID, visits: list[tuple[UUID, str]]
) -> tuple[tuple[Series, ...], tuple[HomeEvent, ...], tuple[Job, ...]]:
    """A home's readings over the years, what changed at it, and its jobs."""
    waters = []
    for visit, _ in visits:
        try:
            samples = _samples(db, who, visit)
            raw = design_water(samples)
        except RuleError:
            continue  # what cannot be read is told where it stands
        if raw is not None:
            at = max(s.drawn_at for s in samples)
            waters.append(Known(at=at, visit=str(visit), water=raw))
    every = tuple(jobs.opened(r) for r in job_records.of_home(db, who.firm_id, id))
    with_values = tuple((j, tuple(work_out(p.reading) for p in j.proofs)) for j in every)
    return series(tuple(waters), with_values), events(every), every


def pairs(db: Session, who: Person) -> tuple[WaterPair, ...]:
    """Dissolved matter against hardness of the firm's latest raw waters."""
    found = []
    for visit, glass in records.latest_samples(db, who.firm_id, PAIRS):
        try:
            sample = next(s for s in _samples(db, who, visit) if s.id == str(glass))
            pair = pair_of(str(visit), water_of(sample))
        except (RuleError, StopIteration):
            continue
        if pair is not None:
            found.append(pair)
    return tuple(found)
