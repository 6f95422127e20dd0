"""What is stored always opens: a part that cannot be read or worked out any more is left out, said,
and can be struck.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from typing import Any, TypeVar
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.demonstrating.demonstrations import Demonstration
from ..core.errors import RuleError
from ..core.home import Customer, Home
from ..core.proposing.proposal import Proposal
from ..core.record import record
from ..core.rules import Rules, Settings
from ..core.testing.complaints import Complaint
from ..core.testing.laboratory import LabSample
from ..core.testing.reading import Reading, work_out
from ..core.testing.water import Sample
from ..core.treating.items import Item
from ..core.treating.option import Option
from ..core.visit import Visit
from ..documents.codec import load, plain
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
from . import versioning
from .firm import rules_of
from .person import Person

_T = TypeVar("_T")


@record
class Unreadable:
    """A part of a visit that does not open: what it is, which one, and why."""

    part: str
    id: str
    because: str


#: lists of a visit, the kind of what is in them, and what one of them is called
_LISTS: dict[str, tuple[Any, str]] = {
    "complaints": (Complaint, "complaint"),
    "lab_samples": (LabSample, "bottle"),
    "options": (Option, "line"),
    "catalogue": (Item, "item"),
    "proposals": (Proposal, "proposal"),
    "demonstrations": (Demonstration, "demonstration"),
}
#: single fields, and what stands in for one that cannot be read
_FIELDS: dict[str, Callable[[], Any]] = {
    "customer": lambda: Customer(name="(cannot be read)"),
    "home": lambda: Home(name="(cannot be read)"),
    "recommended": lambda: None,
    "horizon": lambda: 10,
    "assumptions_off": tuple,
    "note": lambda: "",
    "settings": Settings,
    "rules": Rules,
    "brought": lambda: None,
}
#: what arithmetic may answer to numbers that nobody should have let in
_FAULTS = (RuleError, ArithmeticError, ValueError, TypeError, KeyError, IndexError)


def _because(error: Exception) -> str:
    if isinstance(error, RuleError):
        place = f" ({error.where})" if error.where else ""
        return f"{error.what}{place}"
    return "A number in it cannot be worked with."


def readable(raw: dict[str, Any]) -> tuple[Visit, tuple[Unreadable, ...]]:
    """A visit from what is stored, and the parts that had to be left out."""
    try:
        visit: Visit = load(Visit, raw)
    except RuleError:
        return _part_by_part(raw)
    return visit, ()


def _part_by_part(raw: dict[str, Any]) -> tuple[Visit, tuple[Unreadable, ...]]:
    bad: list[Unreadable] = []
    out = {k: v for k, v in raw.items() if k not in _FIELDS and k not in _LISTS and k != "samples"}
    bare = {k: raw[k] for k in ("id", "firm", "consultant", "started_at")}
    bare |= {"customer": Customer(name="x"), "home": Home(name="x")}
    for name, stand_in in _FIELDS.items():
        try:
            out[name] = getattr(load(Visit, {**bare, name: raw[name]}), name)
        except RuleError as e:
            out[name] = stand_in()
            bad.append(Unreadable(part=name, id=str(raw["id"]), because=_because(e)))
    for name, (kind, called) in _LISTS.items():
        out[name] = list(_good(raw[name] or (), kind, called, bad))
    out["samples"] = list(_samples(raw["samples"], bad))
    visit: Visit = load(
        Visit, {k: v for k, v in out.items() if k != "firm"} | {"firm": raw["firm"]}
    )
    return visit, tuple(bad)


def _good(listed: Iterable[Any], kind: Any, called: str, bad: list[Unreadable]) -> Iterator[Any]:
    for x in listed:
        if isinstance(x, kind):
            yield x
            continue
        try:
            yield load(kind, x)
        except RuleError as e:
            id = x.get("id", x.get("code", "")) if isinstance(x, dict) else ""
            bad.append(Unreadable(part=called, id=str(id), because=_because(e)))


def _samples(listed: list[dict[str, Any]], bad: list[Unreadable]) -> Iterator[Sample]:
    for x in listed:
        readings = tuple(_good(x.get("readings") or (), Reading, "reading", bad))
        try:
            sample: Sample = load(Sample, {**x, "readings": []})
        except RuleError as e:
            bad.append(Unreadable(part="sample", id=str(x.get("id", "")), because=_because(e)))
            continue
        yield replace(sample, readings=readings)


def workable(visit: Visit) -> tuple[Visit, tuple[Unreadable, ...]]:
    """The visit without the parts that its arithmetic cannot work with; nothing is left out of one
    that works.
    """
    try:
        assess(visit)
    except _FAULTS as e:
        return _searched(visit, e)
    return visit, ()


def _searched(visit: Visit, error: Exception) -> tuple[Visit, tuple[Unreadable, ...]]:
    bad: list[Unreadable] = []
    samples = []
    for s in visit.samples:
        good = []
        for r in s.readings:
            try:
                work_out(r)
                good.append(r)
            except _FAULTS as e:
                bad.append(Unreadable(part="reading", id=r.id, because=_because(e)))
        samples.append(replace(s, readings=tuple(good)))
    visit = replace(visit, samples=tuple(samples))
    for name, called in (("demonstrations", "demonstration"), ("options", "line")):
        visit = _without_faulty(visit, name, called, bad)
    try:
        assess(visit)
    except _FAULTS:
        raise RuleError(
            "visit.unworkable",
            f"This visit cannot be worked out: {_because(error)}",
            "visit",
            "Run ./zesty check, or bring it in again from its file.",
        ) from error
    return visit, tuple(bad)


def _without_faulty(visit: Visit, name: str, called: str, bad: list[Unreadable]) -> Visit:
    """Each of a list's parts tried alone; those that fail are left out."""
    bare = replace(visit, demonstrations=(), options=())
    good = []
    for x in getattr(visit, name):
        alone = (
            replace(bare, demonstrations=(x,), options=visit.options)
            if name == "demonstrations"
            else replace(bare, options=(x,))
        )
        try:
            assess(alone)
            good.append(x)
        except _FAULTS as e:
            bad.append(Unreadable(part=called, id=x.id, because=_because(e)))
    if name == "demonstrations":
        return replace(visit, demonstrations=tuple(good))
    return replace(visit, options=tuple(good))


def worked(visit: Visit, what: Callable[[Visit], _T]) -> _T:
    """``what`` of a visit, or of as much of it as can be worked with."""
    try:
        return what(visit)
    except _FAULTS:
        good, left_out = workable(visit)
        if not left_out:
            raise
        return what(good)


_ROWS: dict[str, tuple[Any, ...]] = {
    "reading": (ReadingRow,),
    "sample": (SampleRow,),
    "bottle": (LabSampleRow,),
    "line": (OptionRow,),
    "proposal": (ProposalRow,),
    "demonstration": (DemonstrationRow,),
}


def strike(db: Session, who: Person, visit: VisitRow, part: str, id: UUID) -> None:
    """Take a part out of a locked visit that cannot be read; the audit keeps what it said. A field
    gets its default.

    Raises:
        NotFound: no such part here. RuleError: the part can be read, and is crossed out where it is
            shown.
    """
    if part in _FIELDS:
        _reset(db, who, visit, part)
        return
    (kind,) = _ROWS.get(part, (None,))
    row = None if kind is None else store.find(db, kind, who.firm_id, id, lock=True)
    if row is None or row.visit_id != visit.id:
        raise store.NotFound("part")
    action = f"struck a {part} that could not be read"
    versioning.note(
        db, who, row.id, action, getattr(row, "version", 1), [], None, {"was": row.data}
    )
    db.delete(row)


def _reset(db: Session, who: Person, visit: VisitRow, part: str) -> None:
    stand_in = _FIELDS[part]
    if part in ("customer", "home"):
        home = store.get(db, HomeRow, who.firm_id, visit.home_id, "home", lock=True)
        versioning.change(db, who, home, {part: plain(stand_in())}, "mended")
        return
    if part in ("settings", "rules"):
        firm = store.firm(db, who.firm_id)
        value = firm.settings if part == "settings" else plain(rules_of(firm))
    else:
        made = stand_in()
        value = list(made) if isinstance(made, tuple) else made
    versioning.change(db, who, visit, {part: value}, "mended")
