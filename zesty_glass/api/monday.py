"""What a manager asks on a Monday: the numbers, and a CSV file behind each."""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from typing import Annotated

from fastapi import APIRouter, Query, Response

from ..core.bounds import FIRST_DAY, LAST_DAY
from ..core.errors import RuleError
from ..core.record import record
from ..documents.tables import rows_csv
from ..work import monday as work
from ..work.person import now
from .context import Managing
from .responses import CSV, answer, file

router = APIRouter(prefix="/api/monday", tags=["monday"])
Day = Annotated[date | None, Query()]
COLUMNS = ("person", "what", "whose", "place", "on", "until", "amount", "currency", "path")


@record
class MondayRow:
    """One line behind a number."""

    person: str
    what: str
    whose: str
    place: str
    on: date | None
    until: date | None
    amount: Decimal | None
    currency: str
    path: str


@record
class MondayPart:
    """One number of the page, what it comes to, and the lines behind it."""

    what: work.What
    many: int
    total: Decimal | None
    rows: tuple[MondayRow, ...]


@record
class Monday:
    """What a manager asks on a Monday: of today, and of the month that a day is in."""

    today: date
    month: date
    parts: tuple[MondayPart, ...]


def _day(day: date | None) -> date | None:
    if day is not None and not FIRST_DAY.year < day.year < LAST_DAY.year:
        raise RuleError("day.far", "Nothing is known of such a day.", "day", "Use a nearer one.")
    return day


def _row(r: work.Row) -> MondayRow:
    return MondayRow(**{name: getattr(r, name) for name in COLUMNS})


@router.get("", response_model=Monday)
def monday(ctx: Managing, day: Day = None) -> Response:
    """Who is where, what was sold and is owed, what was forgotten; of the month of a day."""
    with ctx.db() as db:
        found = work.monday(db, ctx.who, _day(day))
    today = now().date()
    parts = tuple(
        MondayPart(
            what=what,
            many=len(rows),
            total=work.total(rows) if any(r.amount is not None for r in rows) else None,
            rows=tuple(_row(r) for r in rows),
        )
        for what, rows in found.items()
    )
    return answer(Monday(today=today, month=(day or today).replace(day=1), parts=parts))


@router.get("/{what}.csv", response_class=Response, responses=CSV)
def behind(ctx: Managing, what: work.What, day: Day = None) -> Response:
    """The lines behind one number, for a spreadsheet."""
    with ctx.db() as db:
        rows = work.behind(db, ctx.who, what, _day(day))
    lines = [[getattr(r, name) for name in COLUMNS] for r in rows]
    return file(rows_csv(COLUMNS, lines), "text/csv; charset=utf-8", f"monday-{what}.csv")
