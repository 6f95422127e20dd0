"""The people of a firm, their invitations, and tokens for scripts."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, BackgroundTasks, HTTPException, Request, Response
from sqlalchemy.orm import Session, sessionmaker

from ..records import store
from ..records.models import InvitationRow, TokenRow, User
from ..work import mailing, people, signing_in, tokens
from .context import Managing, ManagingAgain
from .paging import Paged
from .people_schemas import (
    CodeBody,
    ForgottenBody,
    InvitationView,
    InviteBody,
    Invited,
    JoinBody,
    JoinView,
    LetInBody,
    People,
    PersonChange,
    PersonView,
    ResetBody,
    TakeOutBody,
    TokenBody,
    TokenMade,
    TokenView,
)

router = APIRouter(prefix="/api", tags=["people"])


def _person(u: User) -> PersonView:
    return PersonView(
        id=u.id,
        version=u.version,
        name=u.name,
        email=u.email,
        role=u.role,  # type: ignore[arg-type]
        active=u.active,
        second_factor=u.totp_on,
    )


def _invitation(x: InvitationRow) -> InvitationView:
    return InvitationView(
        id=x.id,
        email=x.email,
        name=x.name,
        role=x.role,  # type: ignore[arg-type]
        made_by=x.made_by,
        expires_at=x.expires_at,
        for_a_new_password=x.user_id is not None,
    )


def _token(x: TokenRow) -> TokenView:
    return TokenView(
        id=x.id,
        name=x.name,
        scopes=x.scopes,
        made_at=x.made_at,
        expires_at=x.expires_at,
        revoked_at=x.revoked_at,
        used_at=x.used_at,
    )


def _invited(found: people.Invited) -> Invited:
    path = f"/join/{found.code}" if found.code else ""
    return Invited(id=found.row.id, code=found.code, path=path)


@router.get("/people", response_model=People)
def listed(ctx: Managing, page: Paged) -> People:
    """Everybody of the firm, a page at a time, and open invitations; managers only."""
    with ctx.db() as db:
        users, invitations = people.listed(db, ctx.who)
        here, more = page.cut(users, lambda u: u.id)
        return People(
            people=[_person(u) for u in here],
            invitations=[_invitation(x) for x in invitations],
            mail=mailing.queues(db),
            more=more,
        )


@router.post("/people/invitations", response_model=Invited, status_code=201)
def invite(ctx: ManagingAgain, body: InviteBody) -> Invited:
    """Invite somebody; repeats are harmless."""
    with ctx.db() as db:
        return _invited(
            people.invite(db, ctx.who, body.id, body.email, body.name, body.role, body.by_mail)
        )


@router.delete("/people/invitations/{id}", status_code=204)
def revoke(ctx: Managing, id: UUID) -> Response:
    """Make an invitation worthless."""
    with ctx.db() as db:
        people.revoke(db, ctx.who, id)
    return Response(status_code=204)


@router.put("/people/{id}", response_model=PersonView)
def change(ctx: ManagingAgain, id: UUID, body: PersonChange) -> PersonView:
    """Change somebody's name or role, on top of a version."""
    with ctx.db() as db:
        return _person(people.change(db, ctx.who, id, body.version, body.name, body.role))


@router.post("/people/{id}/take-out", response_model=PersonView)
def take_out(ctx: ManagingAgain, id: UUID, body: TakeOutBody) -> PersonView:
    """Take somebody out: all that is open ends at once, their visits go to another."""
    with ctx.db() as db:
        return _person(people.deactivate(db, ctx.who, id, body.version, body.to))


@router.post("/people/{id}/let-in", response_model=PersonView)
def let_in(ctx: ManagingAgain, id: UUID, body: LetInBody) -> PersonView:
    """Let somebody in again."""
    with ctx.db() as db:
        return _person(people.activate(db, ctx.who, id, body.version))


@router.post("/people/{id}/new-password", response_model=Invited, status_code=201)
def new_password(ctx: ManagingAgain, id: UUID, body: ResetBody) -> Invited:
    """Let somebody who forgot their password choose a new one; repeats are harmless."""
    with ctx.db() as db:
        return _invited(people.reset(db, ctx.who, id, body.id, body.by_mail))


def _admit(request: Request) -> None:
    address = request.client.host if request.client else ""
    with request.app.state.sessions.begin() as db:
        signing_in.admit_code(db, address)


@router.post("/join/look", response_model=JoinView)
def look(request: Request, body: CodeBody) -> JoinView:
    """Who is invited by a code."""
    _admit(request)
    with request.app.state.sessions.begin() as db:
        found = people.invitation(db, body.code)
        if found is None:
            raise HTTPException(404)
        return JoinView(
            firm=store.firm(db, found.firm_id).name,
            name=found.name,
            email=found.email,
            for_a_new_password=found.user_id is not None,
        )


@router.post("/join", status_code=204)
def join(request: Request, body: JoinBody) -> Response:
    """Choose a password with a code; the code works once. Then sign in."""
    _admit(request)
    with request.app.state.sessions.begin() as db:
        if people.accept(db, body.code, body.name, body.password) is None:
            raise HTTPException(404)
    return Response(status_code=204)


@router.post("/session/forgotten", status_code=204)
def forgotten(request: Request, body: ForgottenBody, after: BackgroundTasks) -> Response:
    """Ask for a new password by mail; the answer is the same whoever the address is, and comes
    before anybody is looked for.
    """
    _admit(request)
    with request.app.state.sessions.begin() as db:
        people.admit_forgotten(db, body.email)
    after.add_task(_mail_forgotten, request.app.state.sessions, body.email)
    return Response(status_code=204)


def _mail_forgotten(sessions: sessionmaker[Session], email: str) -> None:
    with sessions.begin() as db:
        people.mail_forgotten(db, email)


@router.get("/tokens", response_model=list[TokenView])
def listed_tokens(ctx: Managing, page: Paged) -> Response:
    """The firm's tokens for scripts; managers only."""
    with ctx.db() as db:
        found = [_token(x) for x in tokens.listed(db, ctx.who)]
    return page.answer(found, list[TokenView], lambda x: x.id)


@router.post("/tokens", response_model=TokenMade, status_code=201)
def make_token(ctx: ManagingAgain, body: TokenBody) -> TokenMade:
    """A new token; it is in this answer and nowhere else."""
    with ctx.db() as db:
        row, token = tokens.make(db, ctx.who, body.id, body.name, tuple(body.scopes), body.days)
        return TokenMade(id=row.id, token=token)


@router.delete("/tokens/{id}", status_code=204)
def revoke_token(ctx: Managing, id: UUID) -> Response:
    """Make a token worthless at once."""
    with ctx.db() as db:
        tokens.revoke(db, ctx.who, id)
    return Response(status_code=204)
