"""Marks: a short text that changes whenever anything a home's visits are worked out from changes.

PostgreSQL stamps every row with the transaction that wrote it (``xmin``); a digest over the ids and
stamps of all rows of a home says in one query whether what was worked out before still holds, for
every process alike.
"""

from __future__ import annotations

from typing import NamedTuple
from uuid import UUID

from sqlalchemy import text
from sqlalchemy.orm import Session

_PARTS = (
    "samples",
    "readings",
    "lab_samples",
    "demonstrations",
    "options",
    "proposals",
)
_OF_VISITS = " ".join(
    f"union all select '{n}' || id || xmin::text from {n} where visit_id in (select id from v)"
    for n in _PARTS
)
_MARK = text(f"""
with here as (select home_id, consultant_id from visits where firm_id = :firm and id = :visit),
v as (
  select id, xmin::text as stamp from visits
  where firm_id = :firm and home_id = (select home_id from here)
)
select md5(string_agg(x, ',' order by x)),
  exists(select 1 from lab_samples where visit_id in (select id from v)),
  exists(select 1 from here), (select consultant_id from here)
from (
  select 'f' || xmin::text as x from firms where id = :firm
  union all select 'h' || xmin::text from homes
    where firm_id = :firm and id = (select home_id from here)
  union all select 'v' || id || stamp from v
  {_OF_VISITS}
  union all select 'i' || coalesce(md5(string_agg(id || xmin::text, ',' order by id)), '')
    from items where firm_id = :firm
) t
""")


class Mark(NamedTuple):
    """The mark of a home, its visits with all their parts, the firm and its catalog; whether
    there are bottles, whose days count down while nothing changes; and who makes the visit.
    """

    mark: str
    bottles: bool
    consultant_id: UUID | None


def of_visit(db: Session, firm: UUID, visit: UUID) -> Mark | None:
    """The mark of the home that a visit is made to; None when the firm has no such visit."""
    mark, bottles, there, consultant = db.execute(_MARK, {"firm": firm, "visit": visit}).one()
    return Mark(mark or "", bottles, consultant) if there else None
