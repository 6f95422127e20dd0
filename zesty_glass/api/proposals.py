"""Proposals: draft, write, present, decide, print."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language
from ..records import money as payment_records
from ..records import store
from ..records.after_models import PaymentRow
from ..records.models import ProposalRow
from ..work import deciding, jobs, looking_again, money, owning, printing, proposing
from .context import Context, Selling, Signed
from .proposals_schemas import (
    CorrectBody,
    DecideBody,
    Draft,
    ExtendBody,
    PaymentBody,
    ProposalBody,
    ProposalView,
    Received,
)
from .responses import PDF, answer, pdf_file
from .schemas import StrikeBody

router = APIRouter(prefix="/api", tags=["proposals"])


def _view(ctx: Context, id: UUID, status: int = 200, language: Language = ORIGINAL) -> Response:
    with ctx.db() as db:
        row = proposing.get(db, ctx.who, id)
        proposal, offer, seal = proposing.opened(db, row)
        every = store.of_visit(db, ProposalRow, ctx.who.firm_id, row.visit_id)
        changed = proposing.changed_since_the_one_before(db, row, every)
        moved = looking_again.moved(db, row)
        last = deciding.right_to_cancel_until(db, row)
        job = jobs.behind(db, ctx.who.firm_id, row.id)
        received = payment_records.of_proposal(db, ctx.who.firm_id, row.id)
        of = money.sold_of(row) if proposal.signature else None
        people = owning.people(db, ctx.who, row.visit_id)
    return answer(
        in_language(
            ProposalView(
                id=proposal.id,
                visit=str(row.visit_id),
                state=proposal.state,
                version=row.version,
                digest=proposal.digest,
                presented_at=proposal.presented_at,
                decided_at=proposal.decided_at,
                signature=proposal.signature,
                offer=offer,
                latest=every[-1].id == row.id,
                changed=changed,
                seal=seal,
                said=proposal.said,
                until=proposal.until,
                moved=moved,
                because=proposal.because,
                terms=proposal.terms,
                replaced_by=proposal.replaced_by,
                beside=proposal.beside,
                beside_others=deciding.may_stand_beside(row, every),
                corrections=proposal.corrections,
                two_sign=proposal.two_sign,
                second=proposal.second,
                right_to_cancel_until=last,
                sold=of,
                received=tuple(_received(p) for p in received),
                job="" if job is None else job[0].id,
                people=people,
            ),
            language,
        ),
        status=status,
    )


def _received(p: PaymentRow) -> Received:
    because = "" if p.struck_at is None else p.struck_because
    return Received(
        id=p.id,
        on=p.on,
        amount=p.amount,
        label=p.label,
        note=p.note,
        by=p.by,
        struck_because=because,
    )


@router.put("/proposals/{id}/payments/{payment_id}", response_model=ProposalView)
def note_payment(ctx: Selling, id: UUID, payment_id: UUID, body: PaymentBody) -> Response:
    """Note a payment that was received; a repeat changes nothing."""
    with ctx.db() as db:
        row = proposing.get(db, ctx.who, id, lock=True)
        money.put(db, ctx.who, row, payment_id, body.on, body.amount, body.label, body.note)
    return _view(ctx, id)


@router.post("/proposals/{id}/payments/{payment_id}/strike", response_model=ProposalView)
def strike_payment(ctx: Selling, id: UUID, payment_id: UUID, body: StrikeBody) -> Response:
    """Strike a payment that was noted by mistake; it stays on record."""
    with ctx.db() as db:
        row = proposing.get(db, ctx.who, id, lock=True)
        money.strike(db, ctx.who, row, payment_id, body.because)
    return _view(ctx, id)


@router.get("/visits/{id}/draft", response_model=Draft)
def draft(ctx: Selling, id: UUID, recommended: Annotated[str, Query(max_length=80)]) -> Response:
    """Reasons to begin with: the tool's draft, and one's own words of the revision before."""
    with ctx.db() as db:
        found = proposing.draft(db, ctx.who, id, recommended)
    return answer(Draft(reasons=found.fresh, own=found.own, changes=found.changes))


@router.post("/visits/{id}/proposals", response_model=ProposalView, status_code=201)
def make(ctx: Selling, id: UUID, body: ProposalBody) -> Response:
    """Write a proposal, or its next revision."""
    with ctx.db() as db:
        row = proposing.make(
            db,
            ctx.who,
            id,
            body.id,
            body.recommended,
            body.reasons,
            body.plan,
            body.answers,
            body.terms,
        )
    return _view(ctx, row.id, 201)


@router.get("/proposals/{id}", response_model=ProposalView)
def show(ctx: Signed, id: UUID, language: Language = ORIGINAL) -> Response:
    """A proposal as it was written, or as it is said in the customer's language."""
    return _view(ctx, id, language=language)


@router.post("/proposals/{id}/{to}", response_model=ProposalView)
def decide(ctx: Selling, id: UUID, to: deciding.Decision, body: DecideBody) -> Response:
    """Present, accept, decline, withdraw, or cancel what was signed."""
    read = tuple(body.read)
    signed = deciding.Signed(body.name, body.path, read, body.typed, body.language)
    with ctx.db() as db:
        deciding.decide(
            db,
            ctx.who,
            id,
            body.version,
            to,
            signed,
            why=deciding.Why(body.because, body.terms),
            beside=body.beside,
            two_sign=body.two_sign,
        )
    return _view(ctx, id)


@router.put("/proposals/{id}/until", response_model=ProposalView)
def extend(ctx: Selling, id: UUID, body: ExtendBody) -> Response:
    """Give it a later last day."""
    with ctx.db() as db:
        deciding.extend(db, ctx.who, id, body.version, body.until)
    return _view(ctx, id)


@router.put("/proposals/{id}/correction", response_model=ProposalView)
def correct(ctx: Selling, id: UUID, body: CorrectBody) -> Response:
    """Note a correction beside its signature."""
    with ctx.db() as db:
        deciding.correct(db, ctx.who, id, body.version, body.said)
    return _view(ctx, id)


@router.get("/proposals/{id}/pdf", response_class=Response, responses=PDF)
def pdf(ctx: Signed, id: UUID, language: Language = ORIGINAL) -> Response:
    """The proposal as a PDF, in the customer's language."""
    with ctx.db() as db:
        proposal, offer, seal = proposing.opened(db, proposing.get(db, ctx.who, id))
    return pdf_file(printing.pdf(offer, proposal, seal, language=language), offer)
