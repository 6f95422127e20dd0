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
    and_,
    bindparam,
    cast,
    func,
    literal,
    literal_column,
    null,
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
    PastItemRow,
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


_p = ProposalRow
_WITHOUT_SNAPSHOT = cast(
    cast(_p.data, JSONB).op("-")("snapshot").op("||")(cast({"snapshot": ""}, JSONB)), JSONB
)
_NOTHING = (null(), null(), literal(""), null())  # of what a reading alone has


def _part(sort: int, kind: Any, data: Any, version: Any, own: Any = _NOTHING) -> Select[Any]:
    return select(
        literal(sort).label("sort"), kind.id, version, data, kind.position.label("position"), *own
    ).where(kind.visit_id == _VISIT, kind.firm_id == _FIRM)


_KINDS: tuple[type[SampleRow | OptionRow | LabSampleRow | DemonstrationRow], ...] = (
    SampleRow,
    OptionRow,
    LabSampleRow,
    DemonstrationRow,
)


def _everything(snapshots: bool) -> Executable:
    struck = (_r.sample_id, _r.struck_at, _r.struck_because, _r.kept_at)
    return union_all(
        _part(5, _r, _r.data, literal(1), struck),
        *(_part(n, kind, kind.data, kind.version) for n, kind in enumerate(_KINDS)),
        _part(4, _p, _p.data if snapshots else _WITHOUT_SNAPSHOT, _p.version),
    ).order_by("position", "id")


_PARTS = {snapshots: _everything(snapshots) for snapshots in (True, False)}


class Parts(NamedTuple):
    """All parts of a visit, each kind in its order."""

    samples: list[Stored]
    options: list[Stored]
    bottles: list[Stored]
    shown: list[Stored]
    proposals: list[Stored]
    readings: list[StoredReading]


def parts(db: Session, firm: UUID, visit: UUID, snapshots: bool = True) -> Parts:
    """A visit's parts in one query; without ``snapshots`` the proposals' figures stay in the
    database.
    """
    kinds: tuple[list[Stored], ...] = ([], [], [], [], [])
    readings: list[StoredReading] = []
    for sort, id, version, data, _, *own in plain_rows(
        db, _PARTS[snapshots], firm=firm, visit=visit
    ):
        if sort == 5:
            sample, struck_at, because, kept_at = own
            readings.append(StoredReading(visit, sample, data, struck_at, because, kept_at))
        else:
            kinds[sort].append(Stored(id, version, data))
    samples, options, bottles, shown, proposals = kinds
    return Parts(samples, options, bottles, shown, proposals, readings)


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
        _v.made_at.is_not(None),
        _v.closed,
    )
    .join(_h, _h.id == _v.home_id)
    .where(
        _v.firm_id == _FIRM,
        _v.started_at < bindparam("end"),
        or_(
            _v.started_at >= bindparam("start"),
            and_(_v.made_at.is_(None), _v.closed.is_(None)),
        ),
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
    made: bool
    closed: dict[str, Any] | None


def visits_between(
    db: Session, firm: UUID, start: datetime, end: datetime, consultant: UUID | None
) -> list[Between]:
    """Visits that start in a span, and those before it that nobody has made or closed, in order of
    time: of one consultant and of nobody, or all.
    """
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
    .order_by(_v.made_at.is_(None), _v.started_at.desc())
)


def visits_of_home(db: Session, firm: UUID, home: UUID) -> list[tuple[UUID, datetime, UUID | None]]:
    """Every visit to a home as (id, time, consultant): those that were made, the latest first, then
    those that are planned or were never made.
    """
    return [(id, at, who) for id, at, who in plain_rows(db, _OF_HOME, firm=firm, home=home)]


_PAST = (
    select(PastItemRow.code, PastItemRow.data)
    .distinct(PastItemRow.code)
    .where(
        PastItemRow.firm_id == _FIRM,
        PastItemRow.code.in_(bindparam("codes", expanding=True)),
        PastItemRow.until > bindparam("at"),
    )
    .order_by(PastItemRow.code, PastItemRow.until)
)


def past_items(
    db: Session, firm: UUID, codes: Iterable[str], at: datetime
) -> dict[str, dict[str, Any]]:
    """Items that changed since a moment, as they were then, by code."""
    return dict(plain_rows(db, _PAST, firm=firm, codes=list(codes), at=at))


_ANY_PAST = select(
    select(PastItemRow.code)
    .where(PastItemRow.firm_id == _FIRM, PastItemRow.until > bindparam("at"))
    .exists()
)


def any_past_items(db: Session, firm: UUID, at: datetime) -> bool:
    """Whether any item of a firm changed since a moment."""
    return bool(plain_rows(db, _ANY_PAST, firm=firm, at=at)[0][0])


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
