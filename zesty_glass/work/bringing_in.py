"""A visit from a file: it becomes a visit of whoever brings it in, and speaks for nobody else.

Proposals come as history and never as signed; items stay the visit's own and do not go on sale; the
firm's settings and rules hold unless a manager lets the file's hold for this visit. All of it is
worked out before any of it is stored.
"""

from __future__ import annotations

import json
from dataclasses import fields, replace
from typing import Any
from uuid import UUID, uuid4, uuid5

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.errors import RuleError
from ..core.presenting.offer import Offer
from ..core.proposing.proposal import Proposal, digest
from ..core.rules import Rules, Settings
from ..core.testing.reading import work_out
from ..core.visit import BroughtIn, Visit
from ..documents.codec import load, load_json, plain
from ..records import store
from ..records.models import (
    DemonstrationRow,
    HomeRow,
    LabSampleRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    VisitRow,
)
from . import visiting
from .firm import rules_of
from .person import Forbidden, Person, now
from .versioning import note, same_id

MOST_DIFFERENCES = 60


def bring_in(db: Session, who: Person, visit: Visit, with_rules: bool = False) -> VisitRow:
    """Store a visit from a file, all or nothing. The same file again changes nothing.

    Args:
        with_rules: the file's settings and rules hold for this visit; only a manager allows that.

    Raises:
        Forbidden: ``with_rules`` without a manager. RuleError: something in it cannot be worked
            out.
    """
    if with_rules and who.role != "manager":
        raise Forbidden("Only a manager lets a file’s rules hold.")
    id = same_id(visit.id)
    for known in (id, uuid5(who.firm_id, visit.id)):
        have = store.find(db, VisitRow, who.firm_id, known)
        if have is not None:
            return visiting.get(db, who, known)
    if store.any_taken(db, (id, *_ids(visit))):
        visit = _renamed(visit, who.firm_id)
    firm = store.firm(db, who.firm_id)
    settings, rules = load(Settings, firm.settings), rules_of(firm)
    told = differences(visit.settings, settings, visit.rules, rules)
    brought = BroughtIn(
        at=now(),
        by=who.name,
        consultant=visit.consultant,
        taken=with_rules and bool(told),
        differences=told,
    )
    if not with_rules:
        visit = replace(visit, settings=settings, rules=rules)
    visit = replace(visit, brought=brought, proposals=_history(visit.proposals))
    _work_out(visit)
    return store_visit(db, who, visit)


def store_visit(db: Session, who: Person, visit: Visit) -> VisitRow:
    """Store a visit with all its parts under the ids it has."""
    visiting.check_named(visit.customer, visit.home)
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
        complaints=[plain(c) for c in visit.complaints],
        step="before" if not visit.samples else "test",
        recommended=visit.recommended,
        horizon=visit.horizon,
        assumptions_off=list(visit.assumptions_off),
        note=visit.note,
        settings=plain(visit.settings),
        rules=plain(visit.rules),
        version=1,
        request="",
        brought=None if visit.brought is None else plain(visit.brought),
        own_items=[plain(i) for i in visit.catalogue] if visit.brought is not None else [],
        terms_at=now(),
        made_at=visit.started_at if visit.samples or visit.started_at <= now() else None,
    )
    db.add(row)
    db.flush()
    _store_parts(db, who, visit, row)
    note(db, who, row.id, "brought in", 1, [])
    db.flush()
    visiting.keep_found(db, who, row.home_id)
    return row


def _store_parts(db: Session, who: Person, visit: Visit, row: VisitRow) -> None:
    common: dict[str, Any] = {"firm_id": who.firm_id, "visit_id": row.id}
    n = 0
    for i, s in enumerate(visit.samples, 1):
        data = plain(s)
        data.pop("readings")
        db.add(SampleRow(id=UUID(s.id), position=i, data=data, version=1, **common))
        db.flush()
        for r in s.readings:
            n += 1
            data = plain(r) | {"struck_at": None, "struck_because": ""}
            reading = ReadingRow(id=UUID(r.id), sample_id=UUID(s.id), position=n, data=data)
            reading.firm_id, reading.visit_id = who.firm_id, row.id
            reading.struck_at, reading.struck_because = r.struck_at, r.struck_because
            reading.kept_at = r.kept_at
            db.add(reading)
    listed: tuple[tuple[type[Any], tuple[Any, ...]], ...] = (
        (OptionRow, visit.options),
        (LabSampleRow, visit.lab_samples),
        (DemonstrationRow, visit.demonstrations),
        (ProposalRow, visit.proposals),
    )
    for kind, parts in listed:
        for i, x in enumerate(parts, 1):
            db.add(kind(id=UUID(x.id), position=i, data=plain(x), version=1, **common))


def _ids(visit: Visit) -> tuple[UUID, ...]:
    parts: list[Any] = [
        *visit.samples,
        *(r for s in visit.samples for r in s.readings),
        *visit.options,
        *visit.lab_samples,
        *visit.demonstrations,
        *visit.proposals,
    ]
    found = tuple(same_id(x.id, f"{type(x).__name__.lower()} {x.id[:40]}") for x in parts)
    if len(set(found)) != len(found):
        raise RuleError(
            "file.twice", "Two parts of the file have one id.", "id", "Export it again."
        )
    return found


def _renamed(visit: Visit, firm: UUID) -> Visit:
    """The visit under ids of its own, the same ones each time: those of the file are in use
    elsewhere.
    """
    mine = {str(i): str(uuid5(firm, str(i))) for i in _ids(visit)}
    mine[visit.id] = str(uuid5(firm, visit.id))

    def again(value: Any) -> Any:
        if isinstance(value, dict):
            return {mine.get(k, k): again(v) for k, v in value.items()}
        if isinstance(value, list):
            return [again(v) for v in value]
        return mine.get(value, value) if isinstance(value, str) else value

    renamed: Visit = load(Visit, again(plain(visit)))
    return renamed


def _history(proposals: tuple[Proposal, ...]) -> tuple[Proposal, ...]:
    """Proposals of a file as history: who signed, and when, is what the file says and
    nothing more.
    """
    out = []
    for i, p in enumerate(proposals):
        where = f"proposals[{i}].snapshot"
        if digest(p.snapshot) != p.digest:
            raise RuleError(
                "file.digest", "This proposal does not match its digest.", where, "Export it again."
            )
        load_json(Offer, p.snapshot, where)
        said = p.said or f"The file says: {p.state}"
        if p.signature is not None and not p.said:
            said += f" by {p.signature.name} on {p.signature.at:%Y-%m-%d}"
        out.append(replace(p, state="brought_in", signature=None, said=said[:400]))
    return tuple(out)


def _work_out(visit: Visit) -> None:
    """RuleError, with its place, when anything in the visit cannot be worked out."""
    visiting.check_complaints(visit.complaints)
    for i, s in enumerate(visit.samples):
        for j, r in enumerate(s.readings):
            try:
                work_out(r)
            except RuleError as e:
                where = f"samples[{i}].readings[{j}].{e.where}"
                raise RuleError(e.code, e.what, where, e.remedy) from e
    try:
        assess(visit)
    except RuleError:
        raise
    except (ArithmeticError, ValueError, TypeError, KeyError, IndexError) as e:
        raise RuleError(
            "file.unworkable",
            "A number in this file cannot be worked with.",
            "file",
            "Look for one that is far too large or small, mend it, and try again.",
        ) from e


def differences(
    theirs: Settings, ours: Settings, their_rules: Rules, our_rules: Rules
) -> tuple[str, ...]:
    """Where a file's settings and rules are others than the firm's, in words."""
    out = [
        f"{f.name.replace('_', ' ')}: {_short(getattr(theirs, f.name))} in the file, "
        f"{_short(getattr(ours, f.name))} here"
        for f in fields(ours)
        if getattr(theirs, f.name) != getattr(ours, f.name)
    ]
    here = {x.id: x for x in our_rules.limits}
    there = {x.id: x for x in their_rules.limits}
    for id in sorted(here.keys() | there.keys()):
        a, b = there.get(id), here.get(id)
        if a is None or b is None:
            out.append(f"limit {id}: only {'here' if a is None else 'in the file'}")
        elif (a.value, a.governs) != (b.value, b.governs):
            out.append(f"limit {id}: {a.value:g} in the file, {b.value:g} here")
    if json.dumps(plain(their_rules)["bands"]) != json.dumps(plain(our_rules)["bands"]):
        out.append("bands: others in the file")
    more = len(out) - MOST_DIFFERENCES
    return tuple([*out[:MOST_DIFFERENCES], *([f"and {more} more"] if more > 0 else [])])


def _short(value: object) -> str:
    text = str(value)
    return text if len(text) <= 60 else text[:57] + "…"
