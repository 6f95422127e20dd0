"""A customer's own data: given out, and erased."""

from __future__ import annotations

import json
from uuid import UUID

from fastapi import APIRouter, Response

from ..work import personal
from .context import ManagingAgain, Selling
from .responses import described, file

router = APIRouter(prefix="/api/visits/{id}", tags=["personal data"])


@router.get(
    "/personal-data",
    response_class=Response,
    responses=described("application/json", "All that is kept of a customer.", {"type": "object"}),
)
def give_out(ctx: Selling, id: UUID) -> Response:
    """Everything kept of the customer of a visit, as one file."""
    with ctx.db() as db:
        found = personal.given_out(db, ctx.who, id)
    data = json.dumps(found, indent=2, default=str, ensure_ascii=False).encode()
    return file(data, "application/json", "personal-data.json")


@router.post("/erase", status_code=204)
def erase(ctx: ManagingAgain, id: UUID) -> Response:
    """Take the person out of everything kept of this home; proposals stay without them. Managers
    only.
    """
    with ctx.db() as db:
        personal.erase(db, ctx.who, id)
    return Response(status_code=204)
