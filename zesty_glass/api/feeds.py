"""Calendars by a secret address."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, HTTPException, Path, Request, Response

from ..work import feeds
from .context import Signed
from .feeds_schemas import FeedBody, FeedMade, FeedView
from .paging import Paged
from .responses import described

router = APIRouter(prefix="/api", tags=["calendars"])
ICS = described("text/calendar", "A calendar, RFC 5545.", {"type": "string"})


@router.get("/feeds", response_model=list[FeedView])
def listed(ctx: Signed, page: Paged) -> Response:
    """One's own calendars; their addresses were shown when they were made."""
    with ctx.db() as db:
        found = [
            FeedView(id=f.id, home=f.home_id, made_at=f.made_at, revoked_at=f.revoked_at)
            for f in feeds.listed(db, ctx.who)
        ]
    return page.answer(found, list[FeedView], lambda x: x.id)


@router.post("/feeds", response_model=FeedMade, status_code=201)
def make(ctx: Signed, body: FeedBody) -> FeedMade:
    """A calendar of one's own round, or of a home; its address is in this answer and nowhere
    else.
    """
    with ctx.db() as db:
        row, token = feeds.make(db, ctx.who, body.id, body.home)
        return FeedMade(id=row.id, path=f"/api/feed/{token}")


@router.delete("/feeds/{id}", status_code=204)
def revoke(ctx: Signed, id: UUID) -> Response:
    """Make a calendar's address worthless at once."""
    with ctx.db() as db:
        feeds.revoke(db, ctx.who, id)
    return Response(status_code=204)


@router.get("/feed/{token}", response_class=Response, responses=ICS)
def read(request: Request, token: Annotated[str, Path(max_length=200)]) -> Response:
    """The calendar behind an address, for a calendar program; read-only, and nothing else."""
    with request.app.state.sessions.begin() as db:
        found = feeds.read(db, token, request.client.host if request.client else "")
    if found is None:
        raise HTTPException(404)
    headers = {"Cache-Control": "private, max-age=900", "X-Robots-Tag": "noindex, nofollow"}
    return Response(found, media_type="text/calendar", headers=headers)
