"""The firm's memory: its homes, one over the years, and what it has learnt."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from datetime import date, timedelta
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Depends, Query, Response
from pydantic import Field
from starlette.responses import StreamingResponse

from ..core.aftercare.care import state_on
from ..core.aftercare.logbook import by_maker, kept, lasted, outcomes
from ..core.analytes import ANALYTES
from ..core.errors import RuleError
from ..core.home import Customer, Source
from ..core.in_place import KINDS as IN_PLACE
from ..core.treating.stages import KIND_NAMES
from ..documents.codec import load
from ..documents.contact_card import ContactCard, read_card
from ..documents.old_notes import OldNotes
from ..records import homes as records
from ..records import track as record
from ..records.models import HomeRow
from ..records.note_models import HomeNoteRow
from ..work import asking_for, instrument_checks, jobs, logbook, old_notes, one_home
from .context import ManagingAgain, Selling, Signed
from .files import FileBody
from .logbook_schemas import (
    AlikeHome,
    AskedFor,
    BehindLine,
    CloseCase,
    HomeJob,
    HomeLine,
    HomeNote,
    HomePage,
    HomeYears,
    MergedHome,
    NoteBody,
    StrikeNote,
    Track,
    TrackBehind,
    TrackMore,
)
from .responses import CSV, answer

router = APIRouter(prefix="/api", tags=["logbook"])
Words = Annotated[str, Query(max_length=200)]
ItemName = Annotated[str, Field(max_length=200)]


MOST_DAYS = 3_650  # [days] ahead in which something may be asked to fall due
Kind = Annotated[str, Query(max_length=40, description="A kind of stage that the firm fitted.")]
Asking = Annotated[
    str, Query(max_length=40, description="An analyte that asked for something there.")
]
There = Annotated[str, Query(max_length=40, description="A kind of equipment that stands there.")]
Days = Annotated[
    int | None, Query(ge=0, le=MOST_DAYS, description="Something falls due within so many days.")
]


def wanted(
    ctx: Signed,
    find: Words = "",
    place: Words = "",
    source: Source | None = None,
    fitted: Kind = "",
    due: Days = None,
    found: Asking = "",
    there: There = "",
) -> records.Wanted:
    """Which homes, of those that this person sees; filters combine, and what is not named asks
    nothing.
    """
    return records.Wanted(
        words=find,
        place=place,
        source="" if source is None else source.value,
        consultant=jobs.whose(ctx.who),
        fitter=ctx.who.role == "installer",
        fitted=_one_of(fitted, KIND_NAMES, "fitted", "This is no kind of stage."),
        due_by=None if due is None else jobs.today() + timedelta(days=due),
        found=_one_of(found, ANALYTES, "found", "This is nothing that is tested."),
        there=_one_of(there, IN_PLACE, "there", "This is no kind of equipment."),
    )


def _one_of(told: str, known: Iterable[str], where: str, what: str) -> str:
    """A filter's word, which is one of those that there are; RuleError for another."""
    if told and told not in known:
        raise RuleError(f"homes.{where}", what, where, "Use one of: " + ", ".join(known) + ".")
    return told


Filters = Annotated[records.Wanted, Depends(wanted)]


@router.get("/homes", response_model=HomePage)
def found(
    ctx: Signed, filters: Filters, after: Annotated[str, Query(max_length=600)] = ""
) -> Response:
    """Homes by name, house or place, a page at a time."""
    today = jobs.today()
    with ctx.db() as db:
        rows, total = records.found(db, ctx.who.firm_id, filters, _after(after))
        lines = tuple(
            HomeLine(
                id=str(x.row.id),
                customer=x.row.customer["name"],
                home=x.row.home["name"],
                place=x.row.home.get("place", ""),
                source=x.row.home.get("source", "city"),
                visits=x.visits,
                last_at=x.last_at,
                last=None if x.last is None else str(x.last),
                due_on=x.due_on,
                state=None if x.due_on is None else state_on(x.due_on, today),
            )
            for x in rows
        )
        full = len(rows) == records.PAGE
        more = f"{rows[-1].row.id}/{rows[-1].row.words}" if full else ""
    return answer(HomePage(homes=lines, total=total, more=more))


@router.get("/homes/table.csv", response_class=Response, responses=CSV)
def table(ctx: Signed, filters: Filters) -> Response:
    """The same homes as a table, all of them."""

    def lines() -> Iterator[str]:
        with ctx.db() as db:
            yield from old_notes.table(db, ctx.who, filters)

    headers = {"Content-Disposition": 'attachment; filename="homes.csv"'}
    return StreamingResponse(lines(), media_type="text/csv; charset=utf-8", headers=headers)


@router.post("/homes/preview", response_model=OldNotes)
def look(ctx: Selling, data: FileBody) -> Response:
    """Old notes as CSV: what becomes of every row; nothing is stored."""
    return answer(old_notes.preview(ctx.who, data))


@router.post("/homes/import", response_model=OldNotes)
def bring_in(ctx: ManagingAgain, data: FileBody) -> Response:
    """Old notes as CSV, all or nothing; the same file again changes nothing. Managers only."""
    with ctx.db() as db:
        return answer(old_notes.bring_in(db, ctx.who, data))


def _after(text: str) -> tuple[str, UUID] | None:
    """Where a page begins; RuleError for what no page was told."""
    if not text:
        return None
    id, _, words = text.partition("/")
    try:
        return words, UUID(id)
    except ValueError:
        raise RuleError(
            "homes.after", "This is no page’s beginning.", "after", "Use “more” of the page before."
        ) from None


@router.get("/homes/{id}/years", response_model=HomeYears)
def years(ctx: Signed, id: UUID) -> Response:
    """A home over the years: its readings, and what changed at it."""
    with ctx.db() as db:
        row, visits = logbook.home(db, ctx.who, id)
        series, events, every = logbook.years(db, ctx.who, row.id, visits)
        return answer(
            HomeYears(
                id=str(row.id),
                version=row.version,
                people=load(tuple[Customer, ...], [row.customer, *row.others]),
                alike=tuple(
                    AlikeHome(**_named(h), visits=many)
                    for h, many in one_home.alike(db, ctx.who, row)
                ),
                merged=tuple(
                    MergedHome(**_named(h), undo=one_home.may_undo(h))
                    for h in one_home.merged(db, ctx.who, row)
                ),
                asked_by=tuple(
                    AskedFor(id=str(user.id), name=user.name, at=ask.at)
                    for ask, user in asking_for.asked(db, ctx.who, row)
                ),
                former=tuple((f["name"], f["until"]) for f in row.former),
                customer=row.customer["name"],
                home=row.home["name"],
                place=row.home.get("place", ""),
                source=row.home.get("source", "city"),
                visits=tuple((str(v), at) for v, at in visits),
                series=series,
                events=events,
                notes=tuple(_note(n) for n in instrument_checks.of_home(db, ctx.who, row.id)),
                jobs=tuple(HomeJob(id=j.id, line=j.line, fitted_on=j.fitted_on) for j in every),
            )
        )


def _named(row: HomeRow) -> dict[str, str]:
    return {"id": str(row.id), "customer": row.customer["name"], "home": row.home["name"]}


@router.put("/homes/{id}/notes/{note_id}", response_model=HomeNote)
def put_note(ctx: Signed, id: UUID, note_id: UUID, body: NoteBody) -> Response:
    """Say why something changed at a home; the same again changes nothing."""
    with ctx.db() as db:
        return answer(
            _note(
                instrument_checks.add_note(db, ctx.who, id, note_id, body.on, body.text, body.kind)
            )
        )


@router.post("/homes/{id}/notes/{note_id}/close", response_model=HomeNote)
def close_case(ctx: Signed, id: UUID, note_id: UUID, body: CloseCase) -> Response:
    """Close a complaint or warranty case with what came of it, or take that back."""
    with ctx.db() as db:
        return answer(_note(instrument_checks.close_case(db, ctx.who, id, note_id, body.outcome)))


@router.post("/homes/{id}/notes/{note_id}/strike", response_model=HomeNote)
def strike_note(ctx: Signed, id: UUID, note_id: UUID, body: StrikeNote) -> Response:
    """Strike a note with its reason, or take that back; it stays on record."""
    with ctx.db() as db:
        return answer(_note(instrument_checks.strike_note(db, ctx.who, id, note_id, body.because)))


def _note(row: HomeNoteRow) -> HomeNote:
    return HomeNote(
        id=str(row.id),
        on=row.on,
        text=row.text,
        by=row.by,
        struck=row.struck_because,
        kind=row.kind,  # type: ignore[arg-type]
        closed_on=row.closed_on,
        outcome=row.outcome,
    )


@router.post("/homes/contact", response_model=ContactCard)
def contact(_: Selling, data: FileBody) -> Response:
    """A contact card (vCard) read; nothing is stored."""
    return answer(read_card(data))


@router.get("/track", response_model=Track)
def track(ctx: Selling) -> Response:
    """How the firm's promises were kept, and dissolved solids against hardness of its waters."""
    with ctx.db() as db:
        firm = ctx.who.firm_id
        counted = tuple(record.tallies(db, firm))
        lines = kept(counted, record.makers(db, firm))  # type: ignore[arg-type]
        return answer(
            Track(
                kept=lines,
                by_maker=by_maker(lines),
                pairs=tuple(replace(p, visit="") for p in logbook.pairs(db, ctx.who)),
            )
        )


@router.get("/track/more", response_model=TrackMore)
def more(ctx: Selling) -> Response:
    """How long the firm's parts really lasted, and what became of its proposals."""
    with ctx.db() as db:
        firm = ctx.who.firm_id
        parts = tuple(record.lasted(db, firm))
        states = tuple(record.outcomes(db, firm, jobs.today()))
    return answer(TrackMore(lasted=lasted(parts), outcomes=outcomes(states)))


def _behind(found: list[record.Behind]) -> TrackBehind:
    return TrackBehind(lines=[BehindLine(**x._asdict()) for x in found])


@router.get("/track/jobs", response_model=TrackBehind)
def behind(
    ctx: Selling,
    kind: Words,
    item: Annotated[list[ItemName], Query(max_length=200)],
    analyte: Words,
) -> TrackBehind:
    """The jobs behind one line of the record: of one item, or of several."""
    with ctx.db() as db:
        seen = jobs.whose(ctx.who)
        return _behind(record.behind_promises(db, ctx.who.firm_id, kind, item, analyte, seen))


@router.get("/track/waters", response_model=TrackBehind)
def behind_waters(ctx: Selling) -> TrackBehind:
    """The visits whose raw waters are drawn, dissolved solids against hardness."""
    with ctx.db() as db:
        visits = [UUID(p.visit) for p in logbook.pairs(db, ctx.who)]
        seen = jobs.whose(ctx.who)
        return _behind(record.behind_waters(db, ctx.who.firm_id, visits, seen))


@router.get("/track/parts", response_model=TrackBehind)
def behind_part(ctx: Selling, label: Words, kind: Words) -> TrackBehind:
    """The jobs at which a part was changed."""
    with ctx.db() as db:
        seen = jobs.whose(ctx.who)
        return _behind(record.behind_part(db, ctx.who.firm_id, label, kind, seen))


@router.get("/track/proposals", response_model=TrackBehind)
def behind_outcome(
    ctx: Selling,
    year: Annotated[int, Query(ge=2000, le=2200)],
    quarter: Annotated[int, Query(ge=1, le=4)],
    state: Literal["presented", "accepted", "declined", "expired"],
) -> TrackBehind:
    """The proposals of one quarter that stand so."""
    since = date(year, 3 * quarter - 2, 1)
    before = date(year + (quarter == 4), 3 * quarter % 12 + 1, 1)
    with ctx.db() as db:
        return _behind(
            record.behind_outcome(
                db,
                ctx.who.firm_id,
                state,
                since.isoformat(),
                before.isoformat(),
                jobs.whose(ctx.who),
                jobs.today(),
            )
        )
