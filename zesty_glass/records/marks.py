"""Marks: a short text that changes whenever anything a home's visits are worked out from changes.

PostgreSQL stamps every row with the transaction that wrote it (``xmin``); a digest over the ids and
stamps of all rows of a home says in one query whether what was worked out before still holds, for
every process alike.
"""

from __future__ import annotations

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
with v as (select id from visits where firm_id = :firm and home_id = :home)
select md5(string_agg(x, ',' order by x)),
  exists(select 1 from lab_samples where visit_id in (select id from v))
from (
  select 'f' || xmin::text as x from firms where id = :firm
  union all select 'h' || xmin::text from homes where firm_id = :firm and id = :home
  union all select 'v' || id || xmin::text from visits where firm_id = :firm and home_id = :home
  {_OF_VISITS}
  union all select 'i' || coalesce(md5(string_agg(id || xmin::text, ',' order by id)), '')
    from items where firm_id = :firm
) t
""")


def of_home(db: Session, firm: UUID, home: UUID) -> tuple[str, bool]:
    """The mark of a home, its visits with all their parts, the firm and its catalogue; and whether
    there are bottles, whose days count down while nothing changes.
    """
    mark, bottles = db.execute(_MARK, {"firm": firm, "home": home}).one()
    return mark or "", bottles
