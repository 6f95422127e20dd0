"""Which stand-in answers for a sample: its tap is seeded by the sample, around what its readings
already show.
"""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.testing.laboratory import KIND_BY_ID
from ..core.testing.water import water_of
from ..core.visit import Visit
from ..records import store
from ..standins.instruments import SimulatedColorimeter, SimulatedLaboratory, SimulatedMeter
from ..standins.interfaces import Colorimeter, Laboratory, StreamingMeter
from ..standins.tap import Tap
from . import visiting
from .person import Person, now


def _tap(db: Session, who: Person, visit_id: UUID, sample_id: str) -> Tap:
    visit, _ = visiting.document(db, who, visiting.get(db, who, visit_id), snapshots=False)
    sample = next((s for s in visit.samples if s.id == sample_id), None)
    if sample is None:
        raise store.NotFound("sample")
    known = {k: v.range.best for k, v in water_of(sample).values.items() if v.range is not None}
    return Tap(sample_id, known)


def meter(db: Session, who: Person, visit_id: UUID, sample_id: str) -> StreamingMeter:
    """The meter on the wire in this sample's glass."""
    return SimulatedMeter(_tap(db, who, visit_id, sample_id), sample_id)


def colorimeter(db: Session, who: Person, visit_id: UUID, sample_id: str, turn: int) -> Colorimeter:
    """The colorimeter with a vial of this sample; another ``turn`` shows its noise."""
    return SimulatedColorimeter(_tap(db, who, visit_id, sample_id), f"{sample_id}:{turn}")


def reports(visit: Visit) -> dict[str, datetime]:
    """When the laboratory's report on each bottle it has received is expected, by bottle."""
    return {
        b.id: SimulatedLaboratory.ready_at(b.received_at)
        for b in visit.bottles
        if b.received_at is not None and b.reported_at is None
    }


def report(db: Session, who: Person, visit_id: UUID, lab_id: str) -> bytes:
    """The laboratory's report on a bottle, once it was received."""
    visit, _ = visiting.document(db, who, visiting.get(db, who, visit_id), snapshots=False)
    bottle = next((b for b in visit.bottles if b.id == lab_id), None)
    if bottle is None:
        raise store.NotFound("laboratory sample")
    if bottle.received_at is None:
        raise RuleError(
            "lab.not_received",
            "The laboratory has not received this bottle.",
            "received_at",
            "Hand it over first.",
        )
    lab: Laboratory = SimulatedLaboratory(_tap(db, who, visit_id, bottle.sample))
    if now() < (ready := lab.ready_at(bottle.received_at)):
        raise RuleError(
            "lab.not_ready",
            "The laboratory is still at work on this bottle.",
            "received_at",
            f"Its report is expected in {(ready - now()).total_seconds():.0f} s.",
        )
    return lab.report(KIND_BY_ID[bottle.kind].analytes)
