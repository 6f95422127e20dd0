"""Readings from devices on a wire. Every answer says that a stand-in gave it."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Header, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import BaseModel

from ..core.errors import RuleError
from ..documents.codec import plain
from ..standins.interfaces import StreamingMeter
from ..work import standins
from .context import Signed

router = APIRouter(prefix="/api/visits/{id}/standins", tags=["stand-ins"])
EVERY_S, MOST_LOOKS = 0.35, 600


class OneNumber(BaseModel):
    """What a colorimeter shows."""

    value: float
    simulated: bool


async def _events(request: Request, meter: StreamingMeter, after: int) -> AsyncIterator[str]:
    yield f"event: about\ndata: {json.dumps({'simulated': meter.simulated})}\n\n"
    for look in meter.looks(after):
        if look.n > MOST_LOOKS or await request.is_disconnected():
            return
        yield f"id: {look.n}\ndata: {json.dumps(plain(look))}\n\n"
        await asyncio.sleep(EVERY_S)


@router.get("/meter/{sample_id}", response_class=StreamingResponse)
def meter(
    ctx: Signed,
    request: Request,
    id: UUID,
    sample_id: UUID,
    last_event_id: Annotated[int, Header(ge=0, le=MOST_LOOKS)] = 0,
) -> StreamingResponse:
    """The display of the meter on the wire, as server-sent events; a dropped stream goes on where
    it was.
    """
    with ctx.db() as db:
        device = standins.meter(db, ctx.who, id, str(sample_id))
    return StreamingResponse(
        _events(request, device, last_event_id),
        media_type="text/event-stream",
        headers={
            "Cache-Control": "no-store",
            "X-Accel-Buffering": "no",
            "Content-Encoding": "identity",
        },
    )


@router.get("/colorimeter/{sample_id}/{analyte}", response_model=OneNumber)
def colorimeter(ctx: Signed, id: UUID, sample_id: UUID, analyte: str, turn: int = 0) -> OneNumber:
    """One number of the colorimeter."""
    if analyte not in (
        "iron",
        "iron_ferrous",
        "manganese",
        "tannin",
        "chlorine_free",
        "chlorine_total",
        "turbidity",
    ):
        raise RuleError(
            "standin.analyte",
            f"The colorimeter does not read “{analyte}”.",
            "analyte",
            "Type what your kit shows.",
        )
    with ctx.db() as db:
        device = standins.colorimeter(db, ctx.who, id, str(sample_id), turn)
    return OneNumber(value=device.read(analyte), simulated=device.simulated)


@router.get("/laboratory/{lab_id}", response_class=Response)
def laboratory(ctx: Signed, id: UUID, lab_id: UUID) -> Response:
    """The simulated laboratory's report on a bottle, as CSV."""
    with ctx.db() as db:
        data = standins.report(db, ctx.who, id, str(lab_id))
    return Response(
        data,
        media_type="text/csv",
        headers={
            "Content-Disposition": 'attachment; filename="simulated-report.csv"',
            "Cache-Control": "no-store",
        },
    )
