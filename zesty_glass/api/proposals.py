"""Proposals: draft, write, present, decide, print."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from fastapi import APIRouter, Response

from ..records import store
from ..records.models import ProposalRow
from ..work import proposing
from .answers import answer
from .context import Context, Signed
from .schemas import DecideBody, Draft, ProposalBody, ProposalView

router = APIRouter(prefix="/api", tags=["proposals"])


def _view(ctx: Context, row: ProposalRow, status: int = 200) -> Response:
    proposal, offer = proposing.opened(row)
    with ctx.db() as db:
        every = store.of_visit(db, ProposalRow, ctx.who.firm_id, row.visit_id)
        changed = proposing.changed_since_the_one_before(row, every)
    return answer(
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
        ),
        status=status,
    )


@router.get("/visits/{id}/draft", response_model=Draft)
def draft(ctx: Signed, id: UUID, recommended: str) -> Draft:
    """The tool's first draft of the reasons."""
    with ctx.db() as db:
        return Draft(reasons=proposing.draft(db, ctx.who, id, recommended))


@router.post("/visits/{id}/proposals", response_model=ProposalView, status_code=201)
def make(ctx: Signed, id: UUID, body: ProposalBody) -> Response:
    """Write a proposal, or its next revision."""
    with ctx.db() as db:
        row = proposing.make(db, ctx.who, id, body.id, body.recommended, body.reasons, body.plan)
    return _view(ctx, row, 201)


@router.get("/proposals/{id}", response_model=ProposalView)
def show(ctx: Signed, id: UUID) -> Response:
    """A proposal as it was written."""
    with ctx.db() as db:
        row = proposing.get(db, ctx.who, id)
    return _view(ctx, row)


@router.post("/proposals/{id}/{to}", response_model=ProposalView)
def decide(
    ctx: Signed, id: UUID, to: Literal["presented", "accepted", "declined"], body: DecideBody
) -> Response:
    """Present, accept or decline."""
    with ctx.db() as db:
        row = proposing.decide(db, ctx.who, id, body.version, to, body.name, body.path)
    return _view(ctx, row)


@router.get("/proposals/{id}/pdf", response_class=Response)
def pdf(ctx: Signed, id: UUID) -> Response:
    """The proposal as a PDF."""
    from ..documents.pdf import (
        proposal_pdf,
    )  # WeasyPrint takes more than a second to import: only when it is needed

    with ctx.db() as db:
        row = proposing.get(db, ctx.who, id)
    proposal, offer = proposing.opened(row)
    data = proposal_pdf(offer, proposal)
    return Response(
        data,
        media_type="application/pdf",
        headers={
            "Content-Disposition": f'inline; filename="proposal-{offer.number}-{offer.revision}.pdf"',
            "Cache-Control": "no-store",
        },
    )
