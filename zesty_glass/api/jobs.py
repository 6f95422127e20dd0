"""Jobs and what falls due: made, planned, fitted, proved, looked after."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from ..core.aftercare.care import Change, state_on
from ..core.aftercare.disinfecting import METHODS, Plumbing, bleach_ml, litres
from ..core.aftercare.equipment import Move
from ..core.aftercare.gauging import Gauge
from ..core.aftercare.job import FollowUp, Job
from ..core.aftercare.proof import Proof
from ..core.aftercare.steps import sheet_of
from ..core.errors import RuleError
from ..records import jobs as records
from ..work import equipment, firm, in_care, job_days, jobs, proposing, waiting
from .address import same_id
from .context import Context, Selling, Signed
from .jobs_schemas import (
    Amount,
    CareBody,
    ChangeBody,
    Disinfection,
    DueLine,
    DueList,
    EndBody,
    FirmFitter,
    FittedBody,
    Fitters,
    FollowUpBody,
    GaugeBody,
    JobLine,
    JobMade,
    JobView,
    MoveBody,
    PlanBody,
    PlumbingBody,
    TickBody,
    WaitingLine,
)
from .paging import Paged
from .responses import answer
from .schemas import StrikeBody

router = APIRouter(prefix="/api", tags=["jobs"])
FARTHEST = timedelta(days=1100)


def _disinfection(p: Plumbing) -> Disinfection:
    parts = litres(p)
    amount, method = sum(x for _, x in parts), METHODS[p.method]
    return Disinfection(
        amounts=tuple(Amount(name=n, litres=x) for n, x in parts),
        litres=amount,
        dose_mg_l=method.dose_mg_l,
        bleach_ml=bleach_ml(amount, method.dose_mg_l, p.bleach_pct),
        hours=method.hours,
        method=method.name,
        source=f"{method.source} ({method.year})",
    )


def _view(ctx: Context, id: UUID) -> Response:
    with ctx.db() as db:
        row = jobs.get(db, ctx.who, id)
        job, at, home = jobs.seen(db, ctx.who, row)
        paid, currency = jobs.paid_for(db, ctx.who, row)
        return answer(
            JobView(
                id=str(row.id),
                visit=str(row.visit_id),
                version=row.version,
                customer=home.customer["name"],
                phone=home.customer.get("phone", ""),
                home=home.home["name"],
                place=home.home.get("place", ""),
                job=job,
                standing=at,
                disinfection=_disinfection(job.plumbing),
                payments=paid,
                currency=currency,
                changed_by=_changed_by(job),
            )
        )


def _changed_by(job: Job) -> dict[str, str]:
    found = {p.key: sheet_of(job.sheets, p.key, p.kind) for p in job.parts}
    return {key: s.key for key, s in found.items() if s is not None}


@router.post("/proposals/{id}/job", response_model=JobMade, status_code=201)
def make(ctx: Selling, id: UUID) -> JobMade:
    """The job of an accepted proposal; asked for twice it is one."""
    with ctx.db() as db:
        return JobMade(id=jobs.make(db, ctx.who, proposing.get(db, ctx.who, id, lock=True)).id)


@router.post("/visits/{id}/care", response_model=JobMade, status_code=201)
def take_into_care(ctx: Selling, id: UUID, body: CareBody) -> JobMade:
    """Take equipment that others fitted into care; asked for twice it is one."""
    with ctx.db() as db:
        return JobMade(id=in_care.take_into_care(db, ctx.who, id, body.device).id)


@router.get("/jobs", response_model=list[JobLine])
def listed(ctx: Signed, page: Paged) -> Response:
    """Jobs, those without a day first."""
    with ctx.db() as db:
        rows = records.jobs(db, ctx.who.firm_id, jobs.whose(ctx.who), page.reach)
    return page.answer([_line(x) for x in rows], list[JobLine], lambda x: x.id)


def _line(x: records.Listed) -> JobLine:
    planned = x.row["planned_on"]
    return JobLine(
        id=str(x.job),
        customer=x.customer,
        home=x.home,
        place=x.place,
        **{**x.row, "planned_on": None if planned is None else date.fromisoformat(planned)},
    )


@router.get("/due", response_model=DueList)
def due(
    ctx: Signed,
    until: date | None = None,
    after: Annotated[str, Query(max_length=400)] = "",
) -> Response:
    """What falls due up to a day (four weeks from today when none is said), the earliest first."""
    today = jobs.today()
    last = until or today + timedelta(days=28)
    if last > today + FARTHEST:
        raise RuleError("due.until", "This day is too far ahead.", "until", "Ask for three years.")
    with ctx.db() as db:
        found = records.dues(db, ctx.who.firm_id, last, jobs.whose(ctx.who), _after(after))
        areas = firm.areas(db, ctx.who)
    lines = tuple(
        DueLine(
            job=str(x.job),
            key=x.key,
            customer=x.customer,
            home=x.home,
            place=x.place,
            stage=x.stage,
            label=x.label,
            kind=x.kind,
            own=x.own,
            minutes=x.minutes,
            due_on=x.due_on,
            state=state_on(x.due_on, today),
            person=x.person,
        )
        for x in found
    )
    full = len(found) == records.MOST_LISTED
    more = f"{found[-1].due_on.isoformat()}/{found[-1].job}/{found[-1].key}" if full else ""
    return answer(DueList(today=today, until=last, lines=lines, more=more, areas=areas))


@router.get("/waiting", response_model=list[WaitingLine])
def waits(ctx: Signed, page: Paged) -> Response:
    """What waits beside the parts: bottles, kits, proposals that run out, water to be tested again,
    messages that failed.
    """
    today = jobs.today()
    with ctx.db() as db:
        found = waiting.waiting(db, ctx.who)
    lines = tuple(
        WaitingLine(
            kind=w.kind,
            what=w.what,
            whose=w.whose,
            on=w.on,
            state=state_on(w.on, today),
            path=w.path,
        )
        for w in found
    )
    return page.answer(lines, list[WaitingLine], lambda x: f"{x.kind} {x.path} {x.what}"[:200])


def _after(text: str) -> tuple[date, UUID, str]:
    """Where a page begins; RuleError for what no page was told."""
    if not text:
        return date.min, UUID(int=0), ""
    day, _, rest = text.partition("/")
    job, _, key = rest.partition("/")
    try:
        return date.fromisoformat(day), UUID(job), key
    except ValueError:
        raise RuleError(
            "due.after", "This is no page’s beginning.", "after", "Use “more” of the page before."
        ) from None


@router.get("/jobs/{id}", response_model=JobView)
def show(ctx: Signed, id: UUID) -> Response:
    """A job."""
    return _view(ctx, id)


@router.put("/jobs/{id}/plan", response_model=JobView)
def plan(ctx: Signed, id: UUID, body: PlanBody) -> Response:
    """Say when it is done, and by whom."""
    with ctx.db() as db:
        job_days.plan(
            db,
            ctx.who,
            id,
            body.version,
            body.planned_on,
            body.planned_at,
            body.fitter,
            body.note,
            body.anyway,
            body.fitter_id,
        )
    return _view(ctx, id)


@router.get("/fitters", response_model=Fitters)
def fitters(ctx: Signed) -> Fitters:
    """Who can be planned for a job."""
    with ctx.db() as db:
        firm_, outside = job_days.fitters(db, ctx.who)
    return Fitters(firm=[FirmFitter(id=UUID(f.id), name=f.name) for f in firm_], outside=outside)


@router.post("/jobs/{id}/end", response_model=JobView)
def end(ctx: Selling, id: UUID, body: EndBody) -> Response:
    """End a job, with the reason: cancelled before it was fitted, or taken out since."""
    with ctx.db() as db:
        job_days.end(db, ctx.who, id, body.version, body.because)
    return _view(ctx, id)


@router.post("/jobs/{id}/reopen", response_model=JobView)
def reopen(ctx: Selling, id: UUID, body: EndBody) -> Response:
    """Open a job again that ended, or was proved."""
    with ctx.db() as db:
        job_days.reopen(db, ctx.who, id, body.version, body.because)
    return _view(ctx, id)


@router.put("/jobs/{id}/plumbing", response_model=JobView)
def plumbing(ctx: Signed, id: UUID, body: PlumbingBody) -> Response:
    """Say what holds water in the home."""
    with ctx.db() as db:
        jobs.set_plumbing(db, ctx.who, id, body.version, body.plumbing)
    return _view(ctx, id)


@router.put("/jobs/{id}/fitted", response_model=JobView)
def fitted(ctx: Signed, id: UUID, body: FittedBody) -> Response:
    """Say on which day it went into use."""
    with ctx.db() as db:
        job_days.in_use(db, ctx.who, id, body.version, body.on, body.left_out)
    return _view(ctx, id)


@router.post("/jobs/{id}/ticks", response_model=JobView)
def tick(ctx: Signed, id: UUID, body: TickBody) -> Response:
    """Tick a step, leave it out with a reason, or take the tick back."""
    with ctx.db() as db:
        jobs.tick(db, ctx.who, id, body.sheet, body.step, body.done, body.left_out)
    return _view(ctx, id)


@router.put("/jobs/{id}/proofs/{reading_id}", response_model=JobView)
def put_proof(ctx: Signed, id: UUID, reading_id: UUID, body: Proof) -> Response:
    """Keep a reading behind the fitted line."""
    same_id(body.reading.id, reading_id, "reading", "reading")
    with ctx.db() as db:
        jobs.put_proof(db, ctx.who, id, body)
    return _view(ctx, id)


@router.post("/jobs/{id}/proofs/{reading_id}/strike", response_model=JobView)
def strike_proof(ctx: Signed, id: UUID, reading_id: UUID, body: StrikeBody) -> Response:
    """Strike a reading; it stays on record."""
    with ctx.db() as db:
        jobs.strike_proof(db, ctx.who, id, str(reading_id), body.because)
    return _view(ctx, id)


@router.put("/jobs/{id}/changes/{change_id}", response_model=JobView)
def put_change(ctx: Signed, id: UUID, change_id: UUID, body: ChangeBody) -> Response:
    """Keep that a part was changed; its next day moves."""
    change = Change(
        id=str(change_id),
        part=body.part,
        on=body.on,
        by=ctx.who.name,
        before=body.before,
        after=body.after,
        note=body.note,
    )
    with ctx.db() as db:
        jobs.put_change(db, ctx.who, id, change)
    return _view(ctx, id)


@router.delete("/jobs/{id}/changes/{change_id}", response_model=JobView)
def drop_change(ctx: Signed, id: UUID, change_id: UUID) -> Response:
    """Take a change back."""
    with ctx.db() as db:
        jobs.drop_change(db, ctx.who, id, str(change_id))
    return _view(ctx, id)


@router.put("/jobs/{id}/moves/{move_id}", response_model=JobView)
def put_move(ctx: Signed, id: UUID, move_id: UUID, body: MoveBody) -> Response:
    """Keep what became of a piece: swapped, taken out, returned, or bought out of its rent."""
    move = Move(
        id=str(move_id),
        piece=body.piece,
        fate=body.fate,
        on=body.on,
        because=body.because.strip(),
        by=ctx.who.name,
        price=body.price,
    )
    with ctx.db() as db:
        equipment.put_move(db, ctx.who, id, move)
    return _view(ctx, id)


@router.delete("/jobs/{id}/moves/{move_id}", response_model=JobView)
def drop_move(ctx: Signed, id: UUID, move_id: UUID) -> Response:
    """Take back what became of a piece."""
    with ctx.db() as db:
        equipment.drop_move(db, ctx.who, id, str(move_id))
    return _view(ctx, id)


@router.put("/jobs/{id}/gauges/{gauge_id}", response_model=JobView)
def put_gauge(ctx: Signed, id: UUID, gauge_id: UUID, body: GaugeBody) -> Response:
    """Keep what was read at a part, a lamp’s days or what is left of a bed; its next day moves."""
    read = Gauge(id=str(gauge_id), part=body.part, on=body.on, value=body.value)
    with ctx.db() as db:
        jobs.put_gauge(db, ctx.who, id, read)
    return _view(ctx, id)


@router.delete("/jobs/{id}/gauges/{gauge_id}", response_model=JobView)
def drop_gauge(ctx: Signed, id: UUID, gauge_id: UUID) -> Response:
    """Take a reading at a part back."""
    with ctx.db() as db:
        jobs.drop_gauge(db, ctx.who, id, str(gauge_id))
    return _view(ctx, id)


@router.put("/jobs/{id}/follow-ups/{follow_id}", response_model=JobView)
def put_follow_up(ctx: Signed, id: UUID, follow_id: UUID, body: FollowUpBody) -> Response:
    """Open what a short result leads to, or close it."""
    made = FollowUp(id=str(follow_id), analyte=body.analyte, what=body.what, on=body.on)
    with ctx.db() as db:
        jobs.put_follow_up(db, ctx.who, id, replace(made, closed=body.closed.strip()))
    return _view(ctx, id)
