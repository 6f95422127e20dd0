"""The audit trail, for a manager: read by page, filtered, and as a table."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response
from starlette.responses import StreamingResponse

from ..core.bounds import INT_MOST
from ..documents import sheets
from ..records import audit
from ..records.models import Audit
from .context import Managing
from .people_schemas import AuditLine, AuditPage
from .responses import CSV

router = APIRouter(prefix="/api/audit", tags=["audit"])
PAGE = 100
EACH, MOST_ROWS = 1000, 100_000  # rows read at once, and of one table
COLUMNS = ("id", "at", "who", "action", "target", "version", "fields", "before", "after")
Words = Annotated[str, Query(max_length=80)]
Before = Annotated[int | None, Query(ge=0, le=INT_MOST)]


def _line(x: Audit) -> AuditLine:
    return AuditLine(
        id=x.id,
        at=x.at,
        who=x.who,
        action=x.action,
        target=x.target,
        version=x.version,
        fields=x.fields,
        before=x.before,
        after=x.after,
    )


def _cells(x: Audit) -> tuple[object, ...]:
    fields = " ".join(x.fields)
    return (
        x.id,
        x.at.isoformat(),
        x.who,
        x.action,
        x.target,
        x.version,
        fields,
        x.before,
        x.after,
    )


def _filters(who: str, action: str, target: UUID | None, since: date | None) -> audit.Filters:
    return audit.Filters(who=who, action=action, target=target, since=since)


@router.get("", response_model=AuditPage)
def page(
    ctx: Managing,
    before: Before = None,
    who: Words = "",
    action: Words = "",
    target: UUID | None = None,
    since: date | None = None,
) -> AuditPage:
    """A page of the trail, the latest first; ``before``: the ``next`` of the page before."""
    wanted = _filters(who, action, target, since)
    with ctx.db() as db:
        rows = audit.rows(db, ctx.who.firm_id, wanted, before, PAGE + 1)
        lines = [_line(x) for x in rows[:PAGE]]
    return AuditPage(lines=lines, next=lines[-1].id if len(rows) > PAGE else None)


@router.get("/table.csv", response_class=Response, responses=CSV)
def table(
    ctx: Managing,
    who: Words = "",
    action: Words = "",
    target: UUID | None = None,
    since: date | None = None,
) -> Response:
    """The same as a table, the latest 100,000 lines at most."""
    wanted = _filters(who, action, target, since)

    def lines() -> Iterator[str]:
        begin: int | None = None
        head: tuple[str, ...] = COLUMNS
        for _ in range(MOST_ROWS // EACH):
            with ctx.db() as db:
                rows = audit.rows(db, ctx.who.firm_id, wanted, begin, EACH)
                text = sheets.write(head, map(_cells, rows))
            yield text
            if len(rows) < EACH:
                return
            head, begin = (), rows[-1].id

    headers = {"Content-Disposition": 'attachment; filename="audit.csv"'}
    return StreamingResponse(lines(), media_type="text/csv; charset=utf-8", headers=headers)
