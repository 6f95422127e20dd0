"""Open, start and change a visit; put the visit document together from its rows."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import Customer, Home
from ..core.proposing.proposal import Proposal
from ..core.testing.complaints import SIGNS, Complaint
from ..core.testing.observations import MeterDisplays
from ..core.testing.reading import Reading, Value, extends, work_out
from ..core.testing.water import Sample, design_water
from ..core.treating.line import Option
from ..core.visit import Visit
from ..documents.codec import load, plain
from ..records import store
from ..records.models import (
    DemonstrationRow,
    HomeRow,
    ItemRow,
    LabSampleRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    VisitRow,
)
from .keeping import keep_part
from .person import Person, changed, changed_fields, expect, note, now
from .shelf import taken

STEPS = ("before", "test", "meaning", "show", "line", "compare", "offer")


def today(db: Session, who: Person, day: datetime) -> list[dict[str, Any]]:
    """The visits around a day: the day's own first, then the week before."""
    start = day - timedelta(days=7)
    rows = store.visits_between(db, who.firm_id, start, day + timedelta(days=2))
    ids = [v.id for v, _ in rows]
    readings, options, proposals = (
        store.counts(db, ReadingRow, ids),
        store.counts(db, OptionRow, ids),
        store.counts(db, ProposalRow, ids),
    )
    out = []
    for v, h in rows:
        if not _visible(who, v.consultant_id):
            continue
        home = load(Home, h.home)
        out.append(
            {
                "id": v.id,
                "started_at": v.started_at,
                "customer": h.customer["name"],
                "home": home.name,
                "place": home.place,
                "source": home.source.value,
                "complaints": [c["words"] for c in v.complaints],
                "readings": readings.get(v.id, 0),
                "options": options.get(v.id, 0),
                "proposals": proposals.get(v.id, 0),
                "step": v.step,
            }
        )
    return out


def _complaints(raw: Iterable[Complaint]) -> list[dict[str, Any]]:
    out = []
    for i, c in enumerate(raw):
        if c.sign not in SIGNS:
            raise RuleError(
                "complaint.sign",
                f"There is no sign “{c.sign}”.",
                f"complaints[{i}].sign",
                "Choose one from the list, or “other”.",
            )
        if not c.words.strip():
            raise RuleError(
                "complaint.words",
                "A complaint needs the customer’s words.",
                f"complaints[{i}].words",
                "Write what they say.",
            )
        out.append(plain(c))
    return out


def start(
    db: Session,
    who: Person,
    id: UUID,
    customer: Customer,
    home: Home,
    complaints: tuple[Complaint, ...],
    started_at: datetime | None,
) -> VisitRow:
    """A new visit to a new home. Sent twice with one id it is one visit."""
    have = store.find(db, VisitRow, who.firm_id, id)
    if have is not None:
        return have
    if not customer.name.strip():
        raise RuleError(
            "customer.name",
            "A visit needs the customer’s name.",
            "customer.name",
            "Write it as they would sign.",
        )
    h = HomeRow(
        id=uuid4(), firm_id=who.firm_id, customer=plain(customer), home=plain(home), version=1
    )
    db.add(h)
    db.flush()
    return _begin(db, who, id, h.id, _complaints(complaints), started_at)


def _begin(
    db: Session,
    who: Person,
    id: UUID,
    home: UUID,
    complaints: list[dict[str, Any]],
    started_at: datetime | None,
) -> VisitRow:
    firm = store.firm(db, who.firm_id)
    v = VisitRow(
        id=id,
        firm_id=who.firm_id,
        home_id=home,
        consultant_id=who.id,
        consultant=who.name,
        started_at=started_at or now(),
        complaints=complaints,
        step="before",
        recommended=None,
        horizon=10,
        assumptions_off=[],
        settings=firm.settings,
        rules=firm.rules,
        version=1,
        note="",
    )
    db.add(v)
    note(db, who, v.id, "started", 1, [])
    db.flush()
    return v


def again(
    db: Session, who: Person, before: UUID, id: UUID, started_at: datetime | None
) -> VisitRow:
    """Another visit to the home of an earlier one, judged by today's rules. Sent twice with one id it is one visit."""
    have = store.find(db, VisitRow, who.firm_id, id)
    return have or _begin(db, who, id, get(db, who, before).home_id, [], started_at)


def _visible(who: Person, consultant: UUID | None) -> bool:
    return who.role != "consultant" or consultant in (None, who.id)


def other_visits(db: Session, who: Person, row: VisitRow) -> list[tuple[UUID, datetime]]:
    """The home's other visits that this person may see, the latest first."""
    return [
        (id, at)
        for id, at, c in store.visits_of_home(db, who.firm_id, row.home_id)
        if id != row.id and _visible(who, c)
    ]


def earlier(
    db: Session, who: Person, row: VisitRow, others: list[tuple[UUID, datetime]]
) -> dict[str, Value]:
    """Raw values by analyte of the home's last visit before this one that tested any; empty at a first visit."""
    for id, at in others:
        if at < row.started_at:
            samples, readings = (
                store.of_visit(db, SampleRow, who.firm_id, id),
                store.of_visit(db, ReadingRow, who.firm_id, id),
            )
            water = design_water(tuple(load(tuple[Sample, ...], _with_readings(samples, readings))))
            if water is not None and water.values:
                return water.values
    return {}


def known_homes(db: Session, who: Person, words: str) -> list[dict[str, Any]]:
    """Homes the firm knows by a name or place, each with its last visit that this person may see."""
    out = []
    for h in store.homes(db, who.firm_id, words.strip()):
        seen = [
            (id, at)
            for id, at, c in store.visits_of_home(db, who.firm_id, h.id)
            if _visible(who, c)
        ]
        if seen:
            out.append(
                {
                    "visit": seen[0][0],
                    "last": seen[0][1],
                    "visits": len(seen),
                    "customer": h.customer["name"],
                    "home": h.home["name"],
                    "place": h.home.get("place", ""),
                }
            )
    return out


def _with_readings(
    samples: Sequence[store.Stored | SampleRow], readings: list[ReadingRow]
) -> list[dict[str, Any]]:
    by_sample: dict[UUID, list[dict[str, Any]]] = {}
    for r in readings:
        by_sample.setdefault(r.sample_id, []).append(
            {**r.data, "struck_at": r.struck_at, "struck_because": r.struck_because}
        )
    return [{**s.data, "readings": by_sample.get(s.id, [])} for s in samples]


def get(db: Session, who: Person, id: UUID, lock: bool = False) -> VisitRow:
    """A visit this person may see."""
    row = store.get(db, VisitRow, who.firm_id, id, "visit", lock)
    if not _visible(who, row.consultant_id):
        raise store.NotFound("visit")
    return row


def change(db: Session, who: Person, id: UUID, version: int, fields: dict[str, Any]) -> VisitRow:
    """Change complaints, step, recommendation, horizon, assumptions or note; refused when it changed meanwhile."""
    row = get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    touched = []
    for name, value in fields.items():
        if name == "complaints":
            value = _complaints(value)
        if name == "step" and value not in STEPS:
            raise RuleError(
                "visit.step",
                f"There is no step “{value}”.",
                "step",
                f"Use one of {', '.join(STEPS)}.",
            )
        if name == "horizon" and value not in (5, 10, 15, 20):
            raise RuleError(
                "visit.horizon",
                f"A horizon of {value} years is not offered.",
                "horizon",
                "Use 5, 10, 15 or 20.",
            )
        if getattr(row, name) != value:
            setattr(row, name, value)
            touched.append(name)
    if touched:
        changed(db, who, row, "changed", touched)
    return row


def change_home(
    db: Session, who: Person, id: UUID, version: int, customer: Customer, home: Home
) -> HomeRow:
    """Change the customer and home of a visit; refused when they changed meanwhile."""
    visit = get(db, who, id)
    row = store.get(db, HomeRow, who.firm_id, visit.home_id, "home", lock=True)
    expect(db, "home", row, version)
    after_home, after_customer = plain(home), plain(customer)
    touched = [f"home.{f}" for f in changed_fields(row.home, after_home)] + [
        f"customer.{f}" for f in changed_fields(row.customer, after_customer)
    ]
    if touched:
        row.home, row.customer = after_home, after_customer
        changed(db, who, row, "changed", touched)
    return row


def put_sample(
    db: Session, who: Person, visit_id: UUID, sample: Sample, version: int | None
) -> SampleRow:
    """Draw a glass, or change what is written of it. Sent twice with one id it is one sample."""
    get(db, who, visit_id)
    if sample.drawn_at > now() + timedelta(minutes=5):
        raise RuleError(
            "sample.future", "The sample’s time lies in the future.", "drawn_at", "Check the clock."
        )
    if sample.raw and sample.treated:
        raise RuleError(
            "samples.raw_treated",
            "A raw sample is drawn ahead of all treatment.",
            "raw",
            "Mark it raw or treated, not both.",
        )
    data = plain(sample)
    data.pop("readings", None)
    id = UUID(sample.id)
    rows = store.of_visit(db, SampleRow, who.firm_id, visit_id)
    row = next((r for r in rows if r.id == id), None)
    if sample.raw:
        for other in rows:
            if other.id != id and other.data.get("raw"):
                other.data = {**other.data, "raw": False}
                changed(db, who, other, "changed", ["raw"])
    if row is None:
        if (
            store.find(db, SampleRow, who.firm_id, id) is not None
            or db.get(SampleRow, id) is not None
        ):
            raise RuleError(
                "sample.elsewhere", "This sample belongs to another visit.", "id", "Draw a new one."
            )
        row = SampleRow(
            id=id,
            firm_id=who.firm_id,
            visit_id=visit_id,
            position=len(rows) + 1,
            data=data,
            version=1,
        )
        db.add(row)
        note(db, who, id, "drawn", 1, [])
    elif row.data != data:
        expect(db, "sample", row, row.version if version is None else version)
        touched = changed_fields(row.data, data)
        row.data = data
        changed(db, who, row, "changed", touched)
    db.flush()
    return row


def put_reading(
    db: Session, who: Person, visit_id: UUID, sample_id: UUID, reading: Reading
) -> ReadingRow:
    """Keep a reading as made. Sent twice with one id it is one reading; a meter's repeats may be added to it, never changed.

    A reading that cannot be worked out is refused.
    """
    get(db, who, visit_id)
    sample = store.get(db, SampleRow, who.firm_id, sample_id, "sample")
    if sample.visit_id != visit_id:
        raise store.NotFound("sample")
    have = store.find(db, ReadingRow, who.firm_id, UUID(reading.id))
    if have is not None:
        if have.sample_id != sample_id:
            raise RuleError(
                "reading.elsewhere",
                "This reading belongs to another sample.",
                "id",
                "Make a new one.",
            )
        kept: Reading = load(Reading, {**have.data, "struck_at": have.struck_at})
        if extends(kept, reading) and isinstance(reading.observation, MeterDisplays):
            work_out(reading)
            have.data = {**have.data, "observation": plain(reading.observation)}
            note(
                db, who, have.id, "repeat added", len(reading.observation.displays), ["observation"]
            )
        return have
    if reading.made_at > now() + timedelta(minutes=5):
        raise RuleError(
            "reading.future",
            "The reading’s time lies in the future.",
            "made_at",
            "Check the clock.",
        )
    work_out(reading)
    row = ReadingRow(
        id=UUID(reading.id),
        firm_id=who.firm_id,
        visit_id=visit_id,
        sample_id=sample_id,
        position=store.next_position(db, ReadingRow, visit_id),
        data=plain(reading),
        struck_at=None,
        struck_because="",
    )
    db.add(row)
    db.flush()
    return row


def strike(db: Session, who: Person, visit_id: UUID, reading_id: UUID, because: str) -> ReadingRow:
    """Strike a reading through; it stays on record. Striking twice is striking once."""
    get(db, who, visit_id)
    row = store.get(db, ReadingRow, who.firm_id, reading_id, "reading", lock=True)
    if row.visit_id != visit_id:
        raise store.NotFound("reading")
    if row.struck_at is None:
        row.struck_at, row.struck_because = now(), because[:500]
        note(db, who, row.id, "struck", 1, [])
    return row


def put_option(
    db: Session, who: Person, visit_id: UUID, option: Option, version: int | None
) -> OptionRow:
    """Add or change a line. Its items must be in the catalogue."""
    get(db, who, visit_id)
    codes = [c.item for c in option.stages]
    known = {r.code for r in store.items(db, who.firm_id, codes)}
    for i, code in enumerate(codes):
        if code not in known:
            raise RuleError(
                "line.unknown_item",
                f"There is no item “{code}” in the catalogue.",
                f"stages[{i}].item",
                "Choose one from the catalogue.",
            )
    rows = store.of_visit(db, OptionRow, who.firm_id, visit_id)
    if len(rows) >= 6 and all(str(r.id) != option.id for r in rows):
        raise RuleError(
            "options.many",
            "Six lines are enough to choose from.",
            "options",
            "Take one away first.",
        )
    return keep_part(
        db, who, OptionRow, visit_id, UUID(option.id), plain(option), version, "line", "added"
    )


def drop_option(db: Session, who: Person, visit_id: UUID, option_id: UUID) -> None:
    """Take a line away; taking away what is gone is harmless."""
    visit = get(db, who, visit_id, lock=True)
    row = store.find(db, OptionRow, who.firm_id, option_id)
    if row is not None and row.visit_id == visit_id:
        db.delete(row)
        note(db, who, option_id, "removed", row.version, [])
        if visit.recommended == str(option_id):
            visit.recommended = None
            changed(db, who, visit, "changed", ["recommended"])


def document(
    db: Session, who: Person, row: VisitRow, snapshots: bool = True
) -> tuple[Visit, dict[str, int]]:
    """The whole visit as one document, and the version of each editable part by its id.

    Without ``snapshots`` the proposals come without their figures, which a page that lists them does not need.
    """
    home, firm = store.home_of(db, who.firm_id, row.home_id)
    samples, options, bottles, shown = store.parts(db, who.firm_id, row.id)
    readings, proposals = (
        store.of_visit(db, ReadingRow, who.firm_id, row.id),
        store.proposals(db, who.firm_id, row.id, snapshots),
    )
    raw = {
        "id": str(row.id),
        "firm": firm,
        "consultant": row.consultant,
        "started_at": row.started_at,
        "customer": home.customer,
        "home": home.home,
        "complaints": row.complaints,
        "samples": _with_readings(samples, readings),
        "lab_samples": [x.data for x in bottles],
        "options": [o.data for o in options],
        "recommended": row.recommended,
        "horizon": row.horizon,
        "assumptions_off": row.assumptions_off,
        "note": row.note,
        "settings": row.settings,
        "rules": row.rules,
        "catalogue": taken(db, who.firm_id, {c["item"] for o in options for c in o.data["stages"]}),
        "proposals": [data for _, _, data in proposals],
        "demonstrations": [d.data for d in shown],
    }
    versions = (
        {"visit": row.version, "home": home.version}
        | {str(x.id): x.version for x in bottles}
        | {str(d.id): d.version for d in shown}
        | {str(s.id): s.version for s in samples}
        | {str(o.id): o.version for o in options}
        | {str(p): version for p, version, _ in proposals}
    )
    visit: Visit = load(Visit, raw)
    return visit, versions


def bring_in(db: Session, who: Person, visit: Visit) -> VisitRow:
    """Store a visit from a file, all or nothing. The same visit again changes nothing; its catalogue items are added where the code is new."""
    have = store.find(db, VisitRow, who.firm_id, UUID(visit.id))
    if have is not None:
        return have
    if db.get(VisitRow, UUID(visit.id)) is not None:
        raise RuleError(
            "visit.elsewhere",
            "A visit with this id is kept elsewhere already.",
            "id",
            "It cannot be brought in twice.",
        )
    known = {r.code for r in store.items(db, who.firm_id)}
    db.add_all(
        ItemRow(
            id=uuid4(), firm_id=who.firm_id, code=i.code, data=plain(i), version=1, retired=False
        )
        for i in visit.catalogue
        if i.code not in known
    )
    h = HomeRow(
        id=uuid4(),
        firm_id=who.firm_id,
        customer=plain(visit.customer),
        home=plain(visit.home),
        version=1,
    )
    db.add(h)
    db.flush()
    row = VisitRow(
        id=UUID(visit.id),
        firm_id=who.firm_id,
        home_id=h.id,
        consultant_id=who.id,
        consultant=visit.consultant,
        started_at=visit.started_at,
        complaints=_complaints(visit.complaints),
        step="before" if not visit.samples else "test",
        recommended=visit.recommended,
        horizon=visit.horizon,
        assumptions_off=list(visit.assumptions_off),
        note=visit.note,
        settings=plain(visit.settings),
        rules=plain(visit.rules),
        version=1,
    )
    db.add(row)
    db.flush()
    _bring_in_parts(db, who, visit, row)
    note(db, who, row.id, "brought in", 1, [])
    db.flush()
    return row


def _bring_in_parts(db: Session, who: Person, visit: Visit, row: VisitRow) -> None:
    n = 0
    for i, s in enumerate(visit.samples, 1):
        data = plain(s)
        data.pop("readings")
        db.add(
            SampleRow(
                id=UUID(s.id),
                firm_id=who.firm_id,
                visit_id=row.id,
                position=i,
                data=data,
                version=1,
            )
        )
        db.flush()
        for r in s.readings:
            n += 1
            data = plain(r) | {"struck_at": None, "struck_because": ""}
            db.add(
                ReadingRow(
                    id=UUID(r.id),
                    firm_id=who.firm_id,
                    visit_id=row.id,
                    sample_id=UUID(s.id),
                    position=n,
                    data=data,
                    struck_at=r.struck_at,
                    struck_because=r.struck_because,
                )
            )
    for i, o in enumerate(visit.options, 1):
        db.add(
            OptionRow(
                id=UUID(o.id),
                firm_id=who.firm_id,
                visit_id=row.id,
                position=i,
                data=plain(o),
                version=1,
            )
        )
    for i, x in enumerate(visit.lab_samples, 1):
        db.add(
            LabSampleRow(
                id=UUID(x.id),
                firm_id=who.firm_id,
                visit_id=row.id,
                position=i,
                data=plain(x),
                version=1,
            )
        )
    for i, d in enumerate(visit.demonstrations, 1):
        db.add(
            DemonstrationRow(
                id=UUID(d.id),
                firm_id=who.firm_id,
                visit_id=row.id,
                position=i,
                data=plain(d),
                version=1,
            )
        )
    for i, p in enumerate(visit.proposals, 1):
        db.add(
            ProposalRow(
                id=UUID(p.id),
                firm_id=who.firm_id,
                visit_id=row.id,
                position=i,
                data=plain(p, Proposal),
                version=1,
            )
        )


__all__ = [
    "again",
    "bring_in",
    "change",
    "change_home",
    "document",
    "drop_option",
    "earlier",
    "get",
    "known_homes",
    "other_visits",
    "put_option",
    "put_reading",
    "put_sample",
    "start",
    "strike",
    "today",
]
