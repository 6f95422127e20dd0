"""Signing in with a passkey, and one's own passkeys."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field

from ..records import store
from ..work import passkeys, signing_in
from .context import Signed
from .paging import Paged
from .problems import problem
from .schemas import Body
from .session import admit_again, entered, wrong_password
from .session_schemas import Me, ProveBody

router = APIRouter(prefix="/api/session", tags=["session"])


class PasskeyView(BaseModel):
    """One of one's own passkeys, without what it is made of."""

    id: UUID
    name: str
    made_at: datetime
    used_at: datetime | None


class PasskeyBody(Body):
    """A new passkey: what to call it, and what the device answered."""

    name: str = Field(max_length=100)
    credential: dict[str, Any] = Field(description="a PublicKeyCredential, as its toJSON() says it")


class PasskeyAnswer(Body):
    """What the device answered when somebody signs in."""

    credential: dict[str, Any] = Field(description="a PublicKeyCredential, as its toJSON() says it")


class Options(BaseModel):
    """What the browser is to be asked with, as WebAuthn's JSON says it."""

    options: dict[str, Any] = Field(description="as parse…OptionsFromJSON() takes it")


def _place(request: Request) -> passkeys.Place:
    """The address people type to get here: keys are bound to its name. On the machine itself that
    is localhost, whatever it is from elsewhere.
    """
    host = request.headers.get("host", "")
    public: str = request.app.state.public_address
    if not public or host.split(":")[0] == "localhost":
        public = f"{request.url.scheme}://{host}"
    return passkeys.Place(public.split("://", 1)[1].split(":")[0], public)


def _view(row: Any) -> PasskeyView:
    return PasskeyView(id=row.id, name=row.name, made_at=row.made_at, used_at=row.used_at)


@router.get("/passkeys", response_model=list[PasskeyView])
def listed(ctx: Signed, page: Paged) -> Response:
    """One's own passkeys, the latest first."""
    with ctx.db() as db:
        found = [_view(r) for r in passkeys.listed(db, ctx.who)]
    return page.answer(found, list[PasskeyView], lambda x: x.id)


@router.post("/passkeys/options", response_model=Options)
def begin(request: Request, ctx: Signed, body: ProveBody) -> Options | Response:
    """Begin a new passkey, with the password: what the device is to be asked with."""
    admit_again(request, ctx)
    with ctx.db() as db:
        if not signing_in.prove(db, ctx.who, body.password):
            return wrong_password()
        return Options(options=passkeys.begin(db, ctx.who, _place(request)))


@router.post("/passkeys", response_model=PasskeyView, status_code=201)
def add(request: Request, ctx: Signed, body: PasskeyBody) -> PasskeyView:
    """Keep a new passkey, with what the device answered."""
    with ctx.db() as db:
        return _view(passkeys.add(db, ctx.who, _place(request), body.name, body.credential))


@router.delete("/passkeys/{id}", status_code=204)
def remove(ctx: Signed, id: UUID) -> Response:
    """Remove one of one's own passkeys; one that is gone already is no error."""
    with ctx.db() as db:
        passkeys.remove(db, ctx.who, id)
    return Response(status_code=204)


@router.post("/passkey/options", response_model=Options)
def offered(request: Request) -> Options:
    """Begin signing in with a passkey: what the device is to be asked with."""
    with request.app.state.sessions.begin() as db:
        signing_in.admit_key(db, request.client.host if request.client else "")
    with request.app.state.sessions.begin() as db:
        return Options(options=passkeys.offered(db, _place(request)))


@router.post("/passkey", response_model=Me)
def sign_in_by_passkey(request: Request, body: PasskeyAnswer) -> Response:
    """Start a session with a passkey; it stands for password and second factor."""
    with request.app.state.sessions.begin() as db:
        signing_in.admit_key(db, request.client.host if request.client else "")
    device = request.headers.get("user-agent", "")
    with request.app.state.sessions.begin() as db:
        found = passkeys.sign_in(db, _place(request), body.credential, device)
        firm = store.firm(db, found[1].firm_id).name if found else ""
    if found is None:
        return problem(
            401,
            "passkey.unknown",
            "This passkey opens nothing here.",
            "credential",
            "Sign in with your password; add the passkey under your name.",
        )
    return entered(request, *found, firm)
