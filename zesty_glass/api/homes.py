"""Who is at a home, who looks after it, and homes that turned out to be one."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from ..work import asking_for, logbook, one_home, owning, personal
from ..work.person import manager_only
from .context import ManagingAgain, Selling
from .logbook_schemas import Elsewhere, GiveHome, OneHome, OwnerBody, PeopleBody
from .paging import Paged

router = APIRouter(prefix="/api/homes", tags=["logbook"])
Name = Annotated[str, Query(max_length=80, description="A customer’s or a house’s whole name.")]


@router.put("/{id}/owner", status_code=204)
def change_owner(ctx: Selling, id: UUID, body: OwnerBody) -> Response:
    """A home has a new owner from a day on: its history stays, links and open offers end."""
    with ctx.db() as db:
        owning.change_owner(db, ctx.who, id, body.version, body.customer, body.since)
    return Response(status_code=204)


@router.post("/{id}/former/erase", status_code=204)
def erase_former(ctx: ManagingAgain, id: UUID) -> Response:
    """Erase those who owned a home before."""
    with ctx.db() as db:
        manager_only(ctx.who)
        personal.erase_former(db, ctx.who, logbook.home(db, ctx.who, id)[0].id)
    return Response(status_code=204)


@router.put("/{id}/people", status_code=204)
def put_people(ctx: Selling, id: UUID, body: PeopleBody) -> Response:
    """Say who is at a home, each with their part, language and whether they may be reminded."""
    with ctx.db() as db:
        owning.set_people(db, ctx.who, id, body.version, body.people)
    return Response(status_code=204)


@router.post("/{id}/merge", status_code=204)
def merge(ctx: Selling, id: UUID, body: OneHome) -> Response:
    """Make two homes one; it can be undone within a day."""
    with ctx.db() as db:
        one_home.merge(db, ctx.who, id, body.with_home, body.version)
    return Response(status_code=204)


@router.post("/{id}/unmerge", status_code=204)
def unmerge(ctx: Selling, id: UUID) -> Response:
    """Take it back that a home turned out to be another."""
    with ctx.db() as db:
        one_home.undo(db, ctx.who, id)
    return Response(status_code=204)


@router.get("/elsewhere", response_model=list[Elsewhere])
def elsewhere(ctx: Selling, page: Paged, find: Name) -> Response:
    """Homes of a name that colleagues look after: their place alone."""
    with ctx.db() as db:
        found = asking_for.elsewhere(db, ctx.who, find)
    lines = [Elsewhere(id=id, place=place, asked=asked) for id, place, asked in found]
    return page.answer(lines, list[Elsewhere], lambda x: x.id)


@router.post("/{id}/ask", status_code=204)
def ask(ctx: Selling, id: UUID) -> Response:
    """Ask for a home that a colleague looks after."""
    with ctx.db() as db:
        asking_for.ask(db, ctx.who, id)
    return Response(status_code=204)


@router.post("/{id}/give", status_code=204)
def give(ctx: Selling, id: UUID, body: GiveHome) -> Response:
    """Give a home to who asks for it, or do not."""
    with ctx.db() as db:
        asking_for.answer(db, ctx.who, id, body.to, body.give)
    return Response(status_code=204)
