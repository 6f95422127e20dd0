"""Open, start and change a visit; put the visit document together from its rows."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import Customer, Home, check_names, check_one_line
from ..core.testing.complaints import SIGNS, Complaint
from ..core.testing.finding import Weight
from ..core.testing.value import Value
from ..core.testing.water import Sample, design_water
from ..core.visit import Visit
from ..core.worked import drawn
from ..documents.codec import load, plain
from ..records import homes, opening, store
from ..records.models import HomeRow, OptionRow, VisitRow
from . import versioning
from .firm import rules_of
from .item_cache import taken_at
from .mending import Unreadable, readable
from .person import Person, now
from .versioning import expect, note, request_of, same_request

MOST_SAMPLES, MOST_READINGS = 60, 1000
AHEAD = timedelta(hours=1)  # a visit that begins later than this is only planned
STEPS = ("before", "test", "meaning", "show", "line", "compare", "offer")

ASKS = (Weight.HEALTH, Weight.ACT)


def today(db: Session, who: Person, day: datetime) -> list[dict[str, Any]]:
    """The visits around a day: the day's own first, then the week before."""
    start, end = day - timedelta(days=7), day + timedelta(days=2)
    own = who.id if who.role == "consultant" else None
    rows = opening.visits_between(db, who.firm_id, start, end, own)
    may = _fitter_sees(db, who, [v.id for v in rows])
    return [
        v._asdict() | {"complaints": [c["words"] for c in v.complaints]}
        for v in rows
        if v.id in may
    ]


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
    check_named(customer, home)
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
    begins = started_at or now()
    v = VisitRow(
        id=id,
        firm_id=who.firm_id,
        home_id=home,
        consultant_id=who.id,
        consultant=who.name,
        started_at=begins,
        complaints=complaints,
        step="before",
        recommended=None,
        horizon=10,
        assumptions_off=[],
        settings={},
        rules={},
        version=1,
        note="",
        request=asked,
        brought=None,
        own_items=[],
        made_at=None if begins > now() + AHEAD else begins,
    )
    take_terms(db, v)
    db.add(v)
    note(db, who, v.id, "started", 1, [])
    db.flush()
    return v


def take_terms(db: Session, row: VisitRow) -> None:
    """Judge a visit by the firm's settings, rules and prices of this moment, all together."""
    firm = store.firm(db, row.firm_id)
    row.settings, row.rules = firm.settings, plain(rules_of(firm))
    row.terms_at = now()


def terms_of(row: VisitRow) -> datetime:
    """The moment whose prices are a visit's."""
    return row.terms_at or row.started_at


def terms_differ(db: Session, row: VisitRow) -> bool:
    """Whether the firm's settings, rules or prices are others now than those of a visit."""
    firm = store.firm(db, row.firm_id)
    rules = plain(rules_of(firm))
    if (row.settings, row.rules) != (firm.settings, rules):
        return True
    return opening.any_past_items(db, row.firm_id, terms_of(row))


def begun(db: Session, who: Person, row: VisitRow) -> None:
    """A planned visit is made: from now on it is judged by the terms of its day. Of one that is
    under way nothing changes.
    """
    if row.made_at is not None:
        return
    row.made_at, row.closed = now(), None
    take_terms(db, row)
    row.version += 1
    note(db, who, row.id, "begun", row.version, ["made_at"], None, {"made_at": row.made_at})
    db.flush()


def terms_of_today(db: Session, who: Person, id: UUID, version: int) -> VisitRow:
    """Judge a visit by the firm's prices, taxes and limits of today from now on; what was presented
    or signed stays as it is.
    """
    row = get(db, who, id, lock=True)
    expect(db, "visit", row, version)
    before = terms_of(row)
    take_terms(db, row)
    row.version += 1
    said = {"terms_at": before}, {"terms_at": row.terms_at}
    note(db, who, row.id, "terms of today", row.version, ["terms_at"], *said)
    db.flush()
    return row


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
    every = opening.visits_of_home(db, who.firm_id, row.home_id)
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
                [s for _, s in opening.samples_of(db, who.firm_id, (id,))],
                opening.readings_of(db, who.firm_id, (id,)),
            )
            water = design_water(tuple(load(tuple[Sample, ...], with_readings(samples, readings))))
            if water is not None and water.values:
                return water.values
    return {}


def known_homes(db: Session, who: Person, words: str, most: int = 12) -> list[dict[str, Any]]:
    """Homes the firm knows by a name or place, each with its last visit that this
    person may see.
    """
    out = []
    for h in store.homes(db, who.firm_id, words.strip(), most):
        every = opening.visits_of_home(db, who.firm_id, h.id)
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
    samples: Sequence[opening.Stored], readings: Sequence[opening.StoredReading]
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
    if not sees(db, who, id, row.consultant_id):
        raise store.NotFound("visit")
    return row


def sees(db: Session, who: Person, id: UUID, consultant: UUID | None) -> bool:
    """Whether this person may see a visit of their firm, which a consultant makes."""
    return _visible(who, consultant) and bool(_fitter_sees(db, who, (id,)))


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
    versioning.change(db, who, row, after)
    if "step" in after:
        keep_found(db, who, row.home_id)
    return row


def keep_found(db: Session, who: Person, home: UUID) -> None:
    """Keep with a home what its latest readings say that asks for something, so that homes are
    found by it, whichever visit was opened last. What cannot be read stays as it was: the visit
    says what is wrong.
    """
    latest = homes.latest_tested(db, who.firm_id, home)
    if latest is None:
        return
    visit, _ = document(db, who, latest, snapshots=False)
    try:
        at = drawn(visit)
        meaning = None if at.raw is None else at.meaning(at.raw)
    except (ValueError, ArithmeticError, TypeError, LookupError):
        return
    asks = {f.analyte for f in meaning.findings if f.weight in ASKS} if meaning else set()
    homes.keep_found(db, who.firm_id, home, sorted(asks))


def _recommendable(db: Session, who: Person, row: VisitRow, option: str | None) -> None:
    if option in (None, "today", row.recommended):
        return
    if all(str(o.id) != option for o in store.of_visit(db, OptionRow, who.firm_id, row.id)):
        raise RuleError(
            "visit.recommended", "There is no such line here.", "recommended", "Choose one of them."
        )


_AGREED = ("part", "language", "reminders")


def check_named(customer: Customer, home: Home) -> None:
    """RuleError for names that are more than one line."""
    check_names(customer)
    for name in ("name", "place"):
        check_one_line(getattr(home, name), f"home.{name}")


def change_home(
    db: Session, who: Person, id: UUID, version: int, customer: Customer, home: Home
) -> HomeRow:
    """Change the customer and home of a visit; refused when they changed meanwhile. What somebody
    agreed to, and the language they read, are changed with the home's people alone.
    """
    check_named(customer, home)
    visit = get(db, who, id)
    row = store.get(db, HomeRow, who.firm_id, visit.home_id, "home", lock=True)
    expect(db, "home", row, version)
    agreed = {k: row.customer[k] for k in _AGREED if k in row.customer}
    after = {"home": plain(home), "customer": {**plain(customer), **agreed}}
    versioning.change(db, who, row, after)
    return row


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
    samples, options, bottles, shown, proposals, readings = opening.parts(
        db, who.firm_id, row.id, snapshots
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
        "proposals": [p.data for p in proposals],
        "demonstrations": [d.data for d in shown],
        "brought": row.brought,
    }
    versions = (
        {"visit": row.version, "home": home.version}
        | {str(x.id): x.version for x in bottles}
        | {str(d.id): d.version for d in shown}
        | {str(s.id): s.version for s in samples}
        | {str(o.id): o.version for o in options}
        | {str(p.id): p.version for p in proposals}
    )
    visit, unreadable = readable(raw)
    return _standing(visit), versions, unreadable


def _standing(visit: Visit) -> Visit:
    """The visit with its proposals as they stand today."""
    today = now().date()
    if all(p.state_on(today) == p.state for p in visit.proposals):
        return visit
    every = tuple(replace(p, state=p.state_on(today)) for p in visit.proposals)
    return replace(visit, proposals=every)


def _items_of(
    db: Session, who: Person, row: VisitRow, options: Sequence[opening.Stored]
) -> list[Any]:
    """Every item that the visit's lines use: the visit's own first, the firm's for the rest."""
    codes = {
        c["item"]
        for o in options
        for c in o.data.get("stages") or ()
        if isinstance(c, dict) and "item" in c
    }
    own = {i["code"]: i for i in row.own_items}
    return [
        *own.values(),
        *(i for i in taken_at(db, who.firm_id, codes, terms_of(row)) if i.code not in own),
    ]


__all__ = [
    "again",
    "change",
    "change_home",
    "check_complaints",
    "document",
    "earlier",
    "get",
    "known_homes",
    "opened",
    "other_visits",
    "start",
    "today",
]
