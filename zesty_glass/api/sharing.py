"""Links for customers, mail, and a proposal's files. Everything under /api/offered needs a link's
token and nothing else.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, HTTPException, Path, Query, Request, Response

from ..core.aftercare.care import Falling
from ..core.aftercare.job import Job, Standing
from ..core.aftercare.steps import sheet_of
from ..core.assess import assess
from ..core.bounds import FIRST_DAY, LAST_DAY
from ..core.errors import RuleError
from ..core.presenting.revision import MovedOn
from ..documents.codes import code_picture
from ..documents.tables import costs_csv, readings_csv
from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language
from ..records.models import LinkRow, MailRow
from ..work import deciding, printing, proposing, sharing, visiting
from ..work.mending import worked
from ..work.person import now
from .context import Selling, Signed
from .paging import Paged
from .responses import CSV, PDF, answer, described, file, pdf_file, safe_name
from .sharing_schemas import (
    AcceptBody,
    AskBody,
    CareLine,
    KeptLine,
    LinkBody,
    LinkMade,
    LinkView,
    MailBody,
    MailView,
    OfferedView,
)

router = APIRouter(prefix="/api", tags=["sharing"])
_PRIVATE = {"Cache-Control": "no-store", "X-Robots-Tag": "noindex, nofollow"}


def _link(x: LinkRow) -> LinkView:
    return LinkView(
        id=x.id,
        made_at=x.made_at,
        made_by=x.made_by,
        expires_at=x.expires_at,
        opened=x.opened,
        opened_at=x.opened_at,
        standing=sharing.standing(x, now()),
    )


def _mail(m: MailRow) -> MailView:
    return MailView(
        id=m.id,
        at=m.at,
        by=m.by,
        to=m.to,
        subject=m.subject,
        text=m.text,
        attachment=m.attachment,
        simulated=m.simulated,
        proposal=m.proposal_id,
        state=m.state,  # type: ignore[arg-type]
        error=m.error,
        about=m.about,
        answered_at=m.answered_at,
    )


def _address(request: Request, token: str) -> str:
    """Where a link's page is read."""
    base = request.app.state.public_address or str(request.base_url).rstrip("/")
    return f"{base}/p/{token}"


@router.get("/proposals/{id}/links", response_model=list[LinkView])
def links(ctx: Selling, page: Paged, id: UUID) -> Response:
    """Links to a proposal; their addresses were shown when they were made."""
    with ctx.db() as db:
        found = [_link(x) for x in sharing.links(db, ctx.who, id)]
    return page.answer(found, list[LinkView], lambda x: x.id)


@router.post("/proposals/{id}/links", response_model=LinkMade, status_code=201)
def make_link(ctx: Selling, request: Request, id: UUID, body: LinkBody) -> LinkMade:
    """Make a link that expires; its address is in this answer and nowhere else."""
    with ctx.db() as db:
        row, token = sharing.make_link(db, ctx.who, id, body.id, body.days)
        picture = code_picture(_address(request, token))
        return LinkMade(link=_link(row), path=f"/p/{token}", picture=picture)


@router.delete("/links/{id}", status_code=204)
def revoke(ctx: Selling, id: UUID) -> Response:
    """Make a link worthless at once."""
    with ctx.db() as db:
        sharing.revoke(db, ctx.who, id)
    return Response(status_code=204)


@router.post("/proposals/{id}/mail", response_model=MailView, status_code=201)
def mail(ctx: Selling, request: Request, id: UUID, body: MailBody) -> MailView:
    """Mail a proposal's link; the stand-in keeps it in the outbox."""
    if not request.app.state.public_address:
        raise RuleError(
            "mail.no_address",
            "This installation does not know the address that people reach it under.",
            "ZESTY_PUBLIC_ADDRESS",
            "Whoever runs it sets ZESTY_PUBLIC_ADDRESS. Until then make a link, and send it"
            " yourself.",
        )
    with ctx.db() as db:
        return _mail(
            sharing.mail(
                db,
                ctx.who,
                id,
                body.id,
                body.to,
                body.text,
                body.days,
                request.app.state.public_address or "",
                language=body.language,
            )
        )


@router.get("/outbox", response_model=list[MailView])
def outbox(ctx: Selling, page: Paged) -> Response:
    """Messages that went out, the latest first."""
    with ctx.db() as db:
        found = [_mail(m) for m in sharing.outbox(db, ctx.who, page.reach)]
    return page.answer(found, list[MailView], lambda x: x.id)


@router.post("/outbox/{id}/answered", response_model=MailView)
def answered(ctx: Selling, id: UUID) -> MailView:
    """Say that a question was answered, as by telephone."""
    with ctx.db() as db:
        return _mail(sharing.answered(db, ctx.who, id))


@router.get("/proposals/{id}/costs.csv", response_class=Response, responses=CSV)
def costs(ctx: Selling, id: UUID) -> Response:
    """The cost schedule of every option, as it was frozen."""
    with ctx.db() as db:
        offer = proposing.opened(db, proposing.get(db, ctx.who, id)).offer
    name = f"costs-{safe_name(offer.number, 'x')}-{offer.revision}.csv"
    return file(costs_csv(offer), "text/csv; charset=utf-8", name)


@router.get(
    "/proposals/{id}/calendar.ics",
    response_class=Response,
    responses=described("text/calendar", "Dates for a calendar.", {"type": "string"}),
)
def calendar(
    ctx: Signed, id: UUID, start: date | None = None, years: Annotated[int, Query(ge=1, le=20)] = 5
) -> Response:
    """When filters, lamps and media of the recommended line fall due, from the day of
    installing.
    """
    from ..documents.calendar import (
        service_calendar,
    )  # a third of a second to import: only when it is needed

    with ctx.db() as db:
        proposal, offer, _ = proposing.opened(db, proposing.get(db, ctx.who, id))
    day = start or (proposal.decided_at or now()).date()
    if not FIRST_DAY.year < day.year < LAST_DAY.year - 30:
        raise RuleError(
            "day.far", "Nothing is installed on such a day.", "start", "Use a nearer one."
        )
    return file(
        service_calendar(offer, proposal.id, day, now(), years),
        "text/calendar; charset=utf-8",
        f"service-{safe_name(offer.number, 'x')}.ics",
    )


@router.get("/visits/{id}/readings.csv", response_class=Response, responses=CSV)
def readings(ctx: Signed, id: UUID) -> Response:
    """Every reading of a visit with its range."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    return file(
        worked(visit, lambda v: readings_csv(v, assess(v))),
        "text/csv; charset=utf-8",
        "readings.csv",
    )


Token = Annotated[str, Path(max_length=200)]


def _open(request: Request, token: str) -> sharing.ByLink:
    # kept also when there is nothing: the try is counted
    with request.app.state.sessions.begin() as db:
        found = sharing.open_link(db, token, request.client.host if request.client else "")
    if found is None:
        raise HTTPException(404)
    return found


@router.get("/offered/{token}", response_model=OfferedView)
def offered(request: Request, token: Token, language: Language = ORIGINAL) -> Response:
    """A proposal for whoever holds its link: read-only, and nothing else; in their language."""
    proposal, offer, seal, replaced, moved = _open(request, token)
    with request.app.state.sessions.begin() as db:
        job = sharing.job_behind(db, token)
    out = answer(
        in_language(
            OfferedView(
                state=proposal.state,
                presented_at=proposal.presented_at,
                decided_at=proposal.decided_at,
                offer=offer,
                seal=seal,
                care=() if job is None else _care(job[0], job[1].due),
                kept=() if job is None else _kept(*job),
                digest=proposal.digest,
                signed_by=proposal.signature.name if proposal.signature else "",
                until=proposal.until,
                two_sign=proposal.two_sign,
                replaced=replaced,
                news=moved.health,
                moved=moved != MovedOn(),
            ),
            language,
        )
    )
    out.headers.update(_PRIVATE)
    return out


def _care(job: Job, due: tuple[Falling, ...]) -> tuple[CareLine, ...]:
    return tuple(
        CareLine(
            label=f.part.label,
            due_on=f.next,
            state=f.state,
            own=f.part.own,
            months=f.part.months,
            steps=sheet_of(job.sheets, f.part.key, f.part.kind) if f.part.own else None,
        )
        for f in due
    )


def _tried(job: Job, analyte: str) -> str:
    """What is tried about a promise that fell short, and by when; nothing once it is closed."""
    open_ = (f for f in job.follow_ups if f.analyte == analyte and not f.closed)
    return next((f"{f.what} ({f.on:%B %-d, %Y})" for f in open_), "")


def _kept(job: Job, at: Standing) -> tuple[KeptLine, ...]:
    return tuple(
        KeptLine(proved=replace(p, causes=()), tried=_tried(job, p.promise.analyte))
        for p in at.proved
    )


@router.post("/offered/{token}/ask", status_code=204)
def ask(request: Request, token: Token, body: AskBody) -> Response:
    """A question, or the wish for a visit, to the firm; repeats are harmless."""
    with request.app.state.sessions.begin() as db:
        if not sharing.ask(db, token, body.id, body.about, body.text):
            raise HTTPException(404)
    return Response(status_code=204)


@router.post("/offered/{token}/accept", status_code=204)
def accept(request: Request, token: Token, body: AcceptBody) -> Response:
    """Accept the proposal as it was shown, with a drawn signature or the name typed in its place;
    repeats are harmless."""
    read = tuple(body.read)
    signed = deciding.Signed(body.name, body.path, read, body.typed, body.language)
    with request.app.state.sessions.begin() as db:  # kept also when it is refused
        sharing.try_to_accept(db, token)
    with request.app.state.sessions.begin() as db:
        if not sharing.accept(db, token, body.digest, signed):
            raise HTTPException(404)
    return Response(status_code=204)


@router.get("/offered/{token}/pdf", response_class=Response, responses=PDF)
def offered_pdf(request: Request, token: Token, language: Language = ORIGINAL) -> Response:
    """The same as a PDF."""
    proposal, offer, seal, _, _ = _open(request, token)
    out = pdf_file(printing.pdf(offer, proposal, seal, _address(request, token), language), offer)
    out.headers.update(_PRIVATE)
    return out
