"""What is asked with every reading that is kept: two statements, made once."""

from __future__ import annotations

from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import and_, bindparam, func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from .models import InstrumentRow, ReadingRow, SampleRow, VisitRow

#: what a reading is kept with; nothing strikes a new one
KEPT = (
    "id",
    "firm_id",
    "visit_id",
    "sample_id",
    "position",
    "data",
    "struck_because",
    "kept_at",
)
_v, _s, _r, _i = VisitRow, SampleRow, ReadingRow, InstrumentRow
_LAST = select(func.coalesce(func.max(ReadingRow.position), 0)).where(
    ReadingRow.visit_id == bindparam("visit")
)
_AHEAD = (
    select(_v.consultant_id, _s.id, _r.id, _i.data, _LAST.scalar_subquery())
    .outerjoin(
        _s,
        and_(_s.id == bindparam("sample"), _s.firm_id == _v.firm_id, _s.visit_id == _v.id),
    )
    .outerjoin(_r, and_(_r.id == bindparam("reading"), _r.firm_id == _v.firm_id))
    .outerjoin(_i, and_(_i.firm_id == _v.firm_id, _i.key == bindparam("kit")))
    .where(_v.id == bindparam("visit"), _v.firm_id == bindparam("firm"))
)
_KEEP = (
    insert(ReadingRow)
    .values({c: bindparam(c) for c in KEPT})
    .on_conflict_do_nothing(index_elements=["id"])
    .returning(ReadingRow.id)
)


class Ahead(NamedTuple):
    """What a reading meets: whose visit it is, whether its glass is there, whether it was kept
    already, its kit as the firm has it, and the place of the visit's last reading.
    """

    consultant_id: UUID | None
    glass: bool
    kept: bool
    kit: dict[str, Any] | None
    last: int


def ahead_of(
    db: Session, firm: UUID, visit: UUID, sample: UUID, reading: UUID, kit: str
) -> Ahead | None:
    """What a reading meets at a visit; None when the firm has no such visit."""
    asked = {"firm": firm, "visit": visit, "sample": sample, "reading": reading, "kit": kit}
    row = db.connection().execute(_AHEAD, asked).one_or_none()
    if row is None:
        return None
    return Ahead(row[0], row[1] is not None, row[2] is not None, row[3], row[4])


def keep_reading(db: Session, **row: Any) -> bool:
    """Keep a reading, in one statement: ``KEPT`` of it; False when its id is in use.

    Two that are kept at once may have one place; their ids then tell their order.
    """
    return db.connection().execute(_KEEP, row).first() is not None
