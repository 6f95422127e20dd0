"""Open, start and change a visit; put the visit document together from its rows."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import Customer, Home
from ..core.rules import Rules, in_force
from ..core.testing.complaints import SIGNS, Complaint
from ..core.testing.instruments import Instrument, InstrumentKind
from ..core.testing.observations import MeterDisplays
from ..core.testing.reading import Reading, extends, work_out
from ..core.testing.value import Value
from ..core.testing.water import Sample, design_water
from ..core.treating.line import Option
from ..core.visit import Visit
from ..documents import lab_csv
from ..documents.codec import load, plain
from ..records import store
from ..records.models import (
    HomeRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    VisitRow,
)
from . import keeping
from .keeping import expect, keep_part, note, request_of, same_id, same_request
from .mending import Unreadable, readable
from .person import Person, now
from .shelf import taken

MOST_SAMPLES, MOST_READINGS = 60, 1000
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
    may = _fitter_sees(db, who, ids)
    for v, h in rows:
        if v.id not in may or not _visible(who, v.consultant_id):
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


def check_complaints(raw: Iterable[Complaint]) -> list[dict[str, Any]]:
    """Complaints as they are kept; RuleError for one without words, or of a sign that
    nobody knows.
    """
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
    """A new visit to a new home. Sent twice with one id it is one visit; other content under that
    id is refused.
    """
    asked = request_of(plain(customer), plain(home), [plain(c) for c in complaints], started_at)
    have = _had(db, who, id, asked)
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
    return _begin(db, who, id, h.id, check_complaints(complaints), started_at, asked)


def _had(db: Session, who: Person, id: UUID, asked: str) -> VisitRow | None:
    """The visit that this request started already."""
    have = store.find(db, VisitRow, who.firm_id, id)
    if have is not None:
        get(db, who, id)
        same_request(have.request, asked, "visit")
    return have


def _begin(
    db: Session,
    who: Person,
    id: UUID,
    home: UUID,
    complaints: list[dict[str, Any]],
    started_at: datetime | None,
    asked: str,
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
        rules=plain(in_force(load(Rules, firm.rules))),
        version=1,
        note="",
        request=asked,
        brought=None,
        own_items=[],
    )
    db.add(v)
    note(db, who, v.id, "started", 1, [])
    db.flush()
    return v


def again(
    db: Session, who: Person, before: UUID, id: UUID, started_at: datetime | None
) -> VisitRow:
    """Another visit to the home of an earlier one, judged by today's rules. Sent twice with one id
    it is one visit.
    """
    asked = request_of("again", before, started_at)
    have = _had(db, who, id, asked)
    return have or _begin(db, who, id, get(db, who, before).home_id, [], started_at, asked)


def _visible(who: Person, consultant: UUID | None) -> bool:
    return who.role != "consultant" or consultant in (None, who.id)


def _fitter_sees(db: Session, who: Person, visits: Iterable[UUID]) -> set[UUID]:
    """Visits that a fitter has work at: those with an accepted proposal; all of them for everybody
    else.
    """
    return set(visits) if who.role != "installer" else store.accepted(db, who.firm_id, visits)


def seen_of(
    db: Session, who: Person, visits: Sequence[tuple[UUID, datetime, UUID | None]]
) -> set[UUID]:
    """Those of some visits, as (id, time, consultant), that this person may see."""
    may = _fitter_sees(db, who, (id for id, _, _ in visits))
    return {id for id, _, consultant in visits if id in may and _visible(who, consultant)}


def other_visits(db: Session, who: Person, row: VisitRow) -> list[tuple[UUID, datetime]]:
    """The home's other visits that this person may see, the latest first."""
    every = store.visits_of_home(db, who.firm_id, row.home_id)
    seen = _fitter_sees(db, who, (id for id, _, _ in every))
    return [(id, at) for id, at, c in every if id != row.id and id in seen and _visible(who, c)]


def earlier(
    db: Session, who: Person, row: VisitRow, others: list[tuple[UUID, datetime]]
) -> dict[str, Value]:
    """Raw values by analyte of the home's last visit before this one that tested any; empty at a
    first visit.
    """
    for id, at in others:
        if at < row.started_at:
            samples, readings = (
                store.of_visit(db, SampleRow, who.firm_id, id),
                store.of_visit(db, ReadingRow, who.firm_id, id),
            )
            water = design_water(tuple(load(tuple[Sample, ...], with_readings(samples, readings))))
            if water is not None and water.values:
                return water.values
    return {}


def known_homes(db: Session, who: Person, words: str) -> list[dict[str, Any]]:
    """Homes the firm knows by a name or place, each with its last visit that this
    person may see.
    """
    out = []
    for h in store.homes(db, who.firm_id, words.strip()):
        every = store.visits_of_home(db, who.firm_id, h.id)
        may = _fitter_sees(db, who, (id for id, _, _ in every))
        seen = [(id, at) for id, at, c in every if id in may and _visible(who, c)]
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


def with_readings(
    samples: Sequence[store.Stored | SampleRow], readings: list[ReadingRow]
) -> list[dict[str, Any]]:
    """Glasses as they are kept, each with its readings."""
    by_sample: dict[UUID, list[dict[str, Any]]] = {}
    for r in readings:
        by_sample.setdefault(r.sample_id, []).append(
            {
                **r.data,
                "struck_at": r.struck_at,
                "struck_because": r.struck_because,
                "kept_at": r.kept_at,
            }
        )
    return [{**s.data, "readings": by_sample.get(s.id, [])} for s in samples]


def get(db: Session, who: Person, id: UUID, lock: bool = False) -> VisitRow:
    """A visit this person may see."""
    row = store.get(db, VisitRow, who.firm_id, id, "visit", lock)
    if not _visible(who, row.consultant_id) or not _fitter_sees(db, who, (id,)):
        raise store.NotFound("visit")
    return row


def _changed_to(name: str, value: Any) -> Any:
    """What a field of a visit is changed to, checked."""
    if name == "complaints":
        return check_complaints(value or ())
    if name == "assumptions_off":
        return list(value or ())
    if name == "note":
        return value or ""
    if name == "step" and value not in STEPS:
        raise RuleError(
            "visit.step", "There is no such step.", "step", f"Use one of {', '.join(STEPS)}."
        )
    if name == "horizon" and value not in (5, 10, 15, 20):
        raise RuleError(
            "visit.horizon",
            f"A horizon of {value} years is not offered.",
            "horizon",
            "Use 5, 10, 15 or 20.",
        )
    return value


def change(db: Session, who: Person, id: UUID, version: int, fields: dict[str, Any]) -> VisitRow:
    """Change complaints, step, recommendation, horizon, assumptions or note; refused when it
    changed meanwhile.
    """
    row = get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    after = {name: _changed_to(name, value) for name, value in fields.items()}
    _recommendable(db, who, row, after.get("recommended"))
    keeping.change(db, who, row, after)
    return row


def _recommendable(db: Session, who: Person, row: VisitRow, option: str | None) -> None:
    if option in (None, "today", row.recommended):
        return
    if all(str(o.id) != option for o in store.of_visit(db, OptionRow, who.firm_id, row.id)):
        raise RuleError(
            "visit.recommended", "There is no such line here.", "recommended", "Choose one of them."
        )


def change_home(
    db: Session, who: Person, id: UUID, version: int, customer: Customer, home: Home
) -> HomeRow:
    """Change the customer and home of a visit; refused when they changed meanwhile."""
    visit = get(db, who, id)
    row = store.get(db, HomeRow, who.firm_id, visit.home_id, "home", lock=True)
    expect(db, "home", row, version)
    keeping.change(db, who, row, {"home": plain(home), "customer": plain(customer)})
    return row


def put_sample(
    db: Session, who: Person, visit_id: UUID, sample: Sample, version: int | None
) -> SampleRow:
    """Draw a glass, or change what is written of it. Sent twice with one id it is one sample."""
    get(db, who, visit_id, lock=True)
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
    id = same_id(sample.id)
    rows = store.of_visit(db, SampleRow, who.firm_id, visit_id)
    row = next((r for r in rows if r.id == id), None)
    if row is None and (store.taken_id(db, SampleRow, id) or len(rows) >= MOST_SAMPLES):
        raise RuleError(
            "sample.elsewhere",
            "This glass cannot be drawn here: its id is in use, or the visit has too many glasses.",
            "id",
            "Draw a new one.",
        )
    if row is not None and row.data != data:
        expect(db, "sample", row, version or 0)
    if sample.raw:
        for other in rows:
            if other.id != id and other.data.get("raw"):
                keeping.change(db, who, other, {"data": {**other.data, "raw": False}})
    return keep_part(db, who, SampleRow, visit_id, id, data, version, "sample", "drawn")


def as_here(db: Session, who: Person, reading: Reading) -> Reading:
    """A reading as the server vouches for it: who made it, and the firm's own kit as it is now.

    The time stays the device's; when it was kept stands beside it.
    """
    kit = reading.instrument
    if kit.kind is InstrumentKind.LABORATORY:
        kit = lab_csv.instrument_for(reading.analyte)
    else:
        row = store.instrument(db, who.firm_id, kit.id)
        if row is None or row.data["analyte"] != reading.analyte:
            raise RuleError(
                "reading.kit",
                "This kit is not one of the firm’s.",
                "instrument",
                "Choose one from the kit roll; a manager adds kits under “Kits and catalogue”.",
            )
        kit = load(Instrument, row.data)
    return replace(reading, instrument=kit, by=who.name, struck_at=None, struck_because="")


def put_reading(
    db: Session, who: Person, visit_id: UUID, sample_id: UUID, reading: Reading
) -> ReadingRow:
    """Keep a reading as made. Sent twice with one id it is one reading; a meter's repeats may be
    added to it, never changed, and anything else under that id is refused.

    A reading that cannot be worked out is refused.
    """
    get(db, who, visit_id, lock=True)
    sample = store.get(db, SampleRow, who.firm_id, sample_id, "sample")
    if sample.visit_id != visit_id:
        raise store.NotFound("sample")
    id = same_id(reading.id)
    have = store.find(db, ReadingRow, who.firm_id, id, lock=True)
    if have is not None:
        return _kept_again(db, who, have, sample_id, reading)
    reading = as_here(db, who, reading)
    if reading.made_at > now() + timedelta(minutes=5):
        raise RuleError(
            "reading.future",
            "The reading’s time lies in the future.",
            "made_at",
            "Check the clock of this device.",
        )
    work_out(reading)
    row = ReadingRow(
        id=id,
        firm_id=who.firm_id,
        visit_id=visit_id,
        sample_id=sample_id,
        position=store.next_position(db, ReadingRow, visit_id),
        data=plain(reading),
        struck_at=None,
        struck_because="",
        kept_at=now(),
    )
    if row.position > MOST_READINGS:
        raise RuleError(
            "readings.many", "This visit has too many readings.", "reading", "Start another visit."
        )
    db.add(row)
    db.flush()
    return row


def _kept_again(
    db: Session, who: Person, have: ReadingRow, sample_id: UUID, reading: Reading
) -> ReadingRow:
    """A reading whose id is known: the same again, a meter's next repeat, or something else, which
    is refused.
    """
    if have.sample_id != sample_id:
        raise RuleError(
            "reading.elsewhere", "This reading belongs to another sample.", "id", "Make a new one."
        )
    kept: Reading = load(Reading, {**have.data, "struck_at": have.struck_at})
    reading = replace(reading, instrument=kept.instrument)
    if kept.observation == reading.observation or extends(reading, kept):
        return have
    if not extends(kept, reading) or not isinstance(reading.observation, MeterDisplays):
        raise RuleError(
            "reading.other",
            "This reading was kept already, and showed something else.",
            "observation",
            "What was kept stays. Strike it through, and make another.",
        )
    work_out(reading)
    have.data = {**have.data, "observation": plain(reading.observation)}
    many = len(reading.observation.displays)
    note(db, who, have.id, "repeat added", many, [])
    db.flush()
    return have


def strike(db: Session, who: Person, visit_id: UUID, reading_id: UUID, because: str) -> ReadingRow:
    """Strike a reading through; it stays on record. Striking twice is striking once."""
    get(db, who, visit_id, lock=True)
    row = store.get(db, ReadingRow, who.firm_id, reading_id, "reading", lock=True)
    if row.visit_id != visit_id:
        raise store.NotFound("reading")
    if row.struck_at is None:
        row.struck_at, row.struck_because = now(), because[:500]
        note(db, who, row.id, "struck", 1, ["because"], None, {"because": because[:500]})
    return row


def put_option(
    db: Session, who: Person, visit_id: UUID, option: Option, version: int | None
) -> OptionRow:
    """Add or change a line. Its items must be in the catalogue, or be the visit's own."""
    visit = get(db, who, visit_id, lock=True)
    codes = [c.item for c in option.stages]
    known = {r.code for r in store.items(db, who.firm_id, codes)}
    known |= {i["code"] for i in visit.own_items}
    for i, code in enumerate(codes):
        if code not in known:
            raise RuleError(
                "line.unknown_item",
                f"There is no item “{code}” in the catalogue.",
                f"stages[{i}].item",
                "Choose one from the catalogue.",
            )
    _keeps_what_stands(db, who, visit, option)
    rows = store.of_visit(db, OptionRow, who.firm_id, visit_id)
    if len(rows) >= 6 and all(str(r.id) != option.id for r in rows):
        raise RuleError(
            "options.many",
            "Six lines are enough to choose from.",
            "options",
            "Take one away first.",
        )
    id = same_id(option.id)
    return keep_part(db, who, OptionRow, visit_id, id, plain(option), version, "line", "added")


def _keeps_what_stands(db: Session, who: Person, visit: VisitRow, option: Option) -> None:
    """RuleError when a line keeps equipment that does not stand in the home."""
    if not option.keeps:
        return
    home, _ = store.home_of(db, who.firm_id, visit.home_id)
    there = {d["id"] for d in home.home.get("in_place") or ()}
    for i, kept in enumerate(option.keeps):
        if kept.device not in there:
            raise RuleError(
                "line.kept_gone",
                "This equipment is not among what stands in the home.",
                f"keeps[{i}].device",
                "Write it down under “Before” first, or leave it out of the line.",
            )


def drop_option(
    db: Session, who: Person, visit_id: UUID, option_id: UUID, version: int | None
) -> None:
    """Take a line away; taking away what is gone is harmless, what somebody changed meanwhile is
    refused.
    """
    visit = get(db, who, visit_id, lock=True)
    row = store.find(db, OptionRow, who.firm_id, option_id, lock=True)
    if row is None or row.visit_id != visit_id:
        return
    if version is not None:
        expect(db, "line", row, version)
    keeping.remove(db, who, row)
    if visit.recommended == str(option_id):
        keeping.change(db, who, visit, {"recommended": None})


def document(
    db: Session, who: Person, row: VisitRow, snapshots: bool = True
) -> tuple[Visit, dict[str, int]]:
    """The whole visit as one document, and the version of each editable part by its id; what cannot
    be read is left out.

    Without ``snapshots`` the proposals come without their figures, which a page that lists them
    does not need.
    """
    visit, versions, _ = opened(db, who, row, snapshots)
    return visit, versions


def opened(
    db: Session, who: Person, row: VisitRow, snapshots: bool = True
) -> tuple[Visit, dict[str, int], tuple[Unreadable, ...]]:
    """The same, with the parts that cannot be read any more and why."""
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
        "samples": with_readings(samples, readings),
        "lab_samples": [x.data for x in bottles],
        "options": [o.data for o in options],
        "recommended": row.recommended,
        "horizon": row.horizon,
        "assumptions_off": row.assumptions_off,
        "note": row.note,
        "settings": row.settings,
        "rules": row.rules,
        "catalogue": _items_of(db, who, row, options),
        "proposals": [data for _, _, data in proposals],
        "demonstrations": [d.data for d in shown],
        "brought": row.brought,
    }
    versions = (
        {"visit": row.version, "home": home.version}
        | {str(x.id): x.version for x in bottles}
        | {str(d.id): d.version for d in shown}
        | {str(s.id): s.version for s in samples}
        | {str(o.id): o.version for o in options}
        | {str(p): version for p, version, _ in proposals}
    )
    visit, unreadable = readable(raw)
    return visit, versions, unreadable


def _items_of(
    db: Session, who: Person, row: VisitRow, options: Sequence[store.Stored]
) -> list[Any]:
    """Every item that the visit's lines use: the visit's own first, the firm's for the rest."""
    codes = {
        c["item"]
        for o in options
        for c in o.data.get("stages") or ()
        if isinstance(c, dict) and "item" in c
    }
    own = {i["code"]: i for i in row.own_items}
    return [*own.values(), *(i for i in taken(db, who.firm_id, codes) if i.code not in own)]


__all__ = [
    "again",
    "change",
    "change_home",
    "check_complaints",
    "document",
    "drop_option",
    "earlier",
    "get",
    "known_homes",
    "opened",
    "other_visits",
    "put_option",
    "put_reading",
    "put_sample",
    "start",
    "strike",
    "today",
]
