"""What is asked when a visit is opened: statements made once, rows as plain as they are kept, for
nobody changes them.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from datetime import datetime
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import (
    BindParameter,
    ColumnElement,
    Select,
    bindparam,
    cast,
    func,
    literal,
    literal_column,
    or_,
    select,
    union_all,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session
from sqlalchemy.sql.expression import Executable

from .models import (
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

_FIRM: BindParameter[UUID] = bindparam("firm")
_VISIT: BindParameter[UUID] = bindparam("visit")
_VISITS: BindParameter[Any] = bindparam("visits", expanding=True)


def plain_rows(db: Session, query: Executable, **asked: Any) -> Sequence[Any]:
    """Rows past the session's own book-keeping, once what waits in it is written."""
    db.flush()
    return db.connection().execute(query, asked).all()


class Stored(NamedTuple):
    """A part of a visit as it is kept."""

    id: UUID
    version: int
    data: dict[str, Any]


class StoredReading(NamedTuple):
    """A reading as it is kept, and in which glass."""

    visit_id: UUID
    sample_id: UUID
    data: dict[str, Any]
    struck_at: datetime | None
    struck_because: str
    kept_at: datetime | None


_r = ReadingRow
_READINGS = (
    select(_r.visit_id, _r.sample_id, _r.data, _r.struck_at, _r.struck_because, _r.kept_at)
    .where(_r.firm_id == _FIRM, _r.visit_id.in_(_VISITS))
    .order_by(_r.position, _r.id)
)
_SOME_READINGS = _READINGS.where(
    _r.data["analyte"].as_string().in_(bindparam("analytes", expanding=True))
)


def readings_of(
    db: Session, firm: UUID, visits: Collection[UUID], analytes: tuple[str, ...] = ()
) -> list[StoredReading]:
    """Readings of some visits in their order, of some analytes alone or all."""
    asked = {"firm": firm, "visits": list(visits)}
    found = (
        plain_rows(db, _SOME_READINGS, **asked, analytes=analytes)
        if analytes
        else plain_rows(db, _READINGS, **asked)
    )
    return [StoredReading(*row) for row in found]


_s = SampleRow
_SAMPLES = (
    select(_s.visit_id, _s.id, _s.version, _s.data)
    .where(_s.firm_id == _FIRM, _s.visit_id.in_(_VISITS))
    .order_by(_s.position, _s.id)
)


def samples_of(db: Session, firm: UUID, visits: Collection[UUID]) -> list[tuple[UUID, Stored]]:
    """Glasses of some visits in their order, each with its visit."""
    found = plain_rows(db, _SAMPLES, firm=firm, visits=list(visits))
    return [(visit, Stored(id, version, data)) for visit, id, version, data in found]


_KINDS: tuple[type[SampleRow | OptionRow | LabSampleRow | DemonstrationRow], ...] = (
    SampleRow,
    OptionRow,
    LabSampleRow,
    DemonstrationRow,
)
_PARTS = union_all(
    *(
        select(literal(n).label("sort"), k.id, k.version, k.data, k.position).where(
            k.visit_id == _VISIT, k.firm_id == _FIRM
        )
        for n, k in enumerate(_KINDS)
    )
).order_by("position", "id")


def parts(
    db: Session, firm: UUID, visit: UUID
) -> tuple[list[Stored], list[Stored], list[Stored], list[Stored]]:
    """A visit's samples, lines, laboratory samples and demonstrations, each in their order, in one
    query.
    """
    found: tuple[list[Stored], list[Stored], list[Stored], list[Stored]] = [], [], [], []
    for sort, id, version, data, _ in plain_rows(db, _PARTS, firm=firm, visit=visit):
        found[sort].append(Stored(id, version, data))
    return found


_p = ProposalRow
_WITHOUT_SNAPSHOT = cast(
    cast(_p.data, JSONB).op("-")("snapshot").op("||")(cast({"snapshot": ""}, JSONB)), JSONB
)


def _proposals(data: Any) -> Select[Any]:
    return (
        select(_p.id, _p.version, data)
        .where(_p.visit_id == _VISIT, _p.firm_id == _FIRM)
        .order_by(_p.position)
    )


_PROPOSALS = {True: _proposals(_p.data), False: _proposals(_WITHOUT_SNAPSHOT)}


def proposals(
    db: Session, firm: UUID, visit: UUID, snapshots: bool = True
) -> list[tuple[UUID, int, dict[str, Any]]]:
    """A visit's proposals as (id, version, data); without ``snapshots`` their figures stay in the
    database.
    """
    found = plain_rows(db, _PROPOSALS[snapshots], firm=firm, visit=visit)
    return [(id, version, data) for id, version, data in found]


_v, _h = VisitRow, HomeRow


def _many(kind: type[ReadingRow | OptionRow | ProposalRow]) -> Any:
    return select(func.count()).where(kind.visit_id == _v.id).scalar_subquery()


_BETWEEN = (
    select(
        _v.id,
        _v.started_at,
        _v.consultant_id,
        _v.complaints,
        _v.step,
        _h.customer["name"].as_string(),
        _h.home["name"].as_string(),
        func.coalesce(_h.home["place"].as_string(), ""),
        func.coalesce(_h.home["source"].as_string(), "city"),
        *(_many(kind) for kind in (ReadingRow, OptionRow, ProposalRow)),
    )
    .join(_h, _h.id == _v.home_id)
    .where(
        _v.firm_id == _FIRM,
        _v.started_at >= bindparam("start"),
        _v.started_at < bindparam("end"),
    )
    .order_by(_v.started_at, _v.id)
)
_OWN = _BETWEEN.where(or_(_v.consultant_id == bindparam("consultant"), _v.consultant_id.is_(None)))


class Between(NamedTuple):
    """A visit as a list of a day names it, with how many readings, lines and proposals it has."""

    id: UUID
    started_at: datetime
    consultant_id: UUID | None
    complaints: list[dict[str, Any]]
    step: str
    customer: str
    home: str
    place: str
    source: str
    readings: int
    options: int
    proposals: int


def visits_between(
    db: Session, firm: UUID, start: datetime, end: datetime, consultant: UUID | None
) -> list[Between]:
    """Visits that start in a span, in order of time: of one consultant and of nobody, or all."""
    asked = {"firm": firm, "start": start, "end": end}
    found = (
        plain_rows(db, _BETWEEN, **asked)
        if consultant is None
        else plain_rows(db, _OWN, **asked, consultant=consultant)
    )
    return [Between(*row) for row in found]


_OF_HOME = (
    select(_v.id, _v.started_at, _v.consultant_id)
    .where(_v.firm_id == _FIRM, _v.home_id == bindparam("home"))
    .order_by(_v.started_at.desc())
)


def visits_of_home(db: Session, firm: UUID, home: UUID) -> list[tuple[UUID, datetime, UUID | None]]:
    """Every visit to a home as (id, time, consultant), the latest first."""
    return [(id, at, who) for id, at, who in plain_rows(db, _OF_HOME, firm=firm, home=home)]


_MARK: ColumnElement[str] = literal_column("items.xmin::text")
_MARKS = select(ItemRow.id, ItemRow.code, _MARK).where(
    ItemRow.firm_id == _FIRM, ItemRow.code.in_(bindparam("codes", expanding=True))
)


def item_marks(db: Session, firm: UUID, codes: Iterable[str]) -> list[tuple[UUID, str, str]]:
    """Items as (id, code, mark): the mark is another after every change of the row, whoever made
    it.
    """
    found = plain_rows(db, _MARKS, firm=firm, codes=list(codes))
    return [(id, code, mark) for id, code, mark in found]
