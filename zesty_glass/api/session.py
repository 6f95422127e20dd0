"""Sign in, who am I, sign out."""

from __future__ import annotations

from fastapi import APIRouter, HTTPException, Request, Response
from fastapi.responses import JSONResponse

from ..records import store
from ..work import signing_in
from ..work.person import Person
from .context import COOKIE, Signed
from .problems import problem
from .schemas import Me, SignInBody

router = APIRouter(prefix="/api/session", tags=["session"])


def _me(request: Request, token: str, who: Person, firm: str) -> Me:
    return Me(
        id=who.id,
        name=who.name,
        role=who.role,
        firm=firm,
        token=signing_in.forgery_token(request.app.state.secret, token),
    )


@router.post("", response_model=Me)
def sign_in(request: Request, body: SignInBody) -> Response:
    """Start a session; the cookie is not readable by scripts."""
    origin = request.headers.get("origin")
    if origin and origin.split("://")[-1] != request.headers.get("host"):
        raise HTTPException(403)
    with request.app.state.sessions.begin() as db:
        found = signing_in.sign_in(
            db, body.email, body.password, request.client.host if request.client else ""
        )
        firm = store.firm(db, found[1].firm_id).name if found else ""
    if found is None:
        return problem(
            401,
            "session.wrong",
            "Address or password is not right.",
            "password",
            "Try again, or ask your manager for a new password.",
        )
    token, who = found
    response = JSONResponse(_me(request, token, who, firm).model_dump(mode="json"))
    response.set_cookie(
        COOKIE,
        token,
        max_age=int(signing_in.LASTS.total_seconds()),
        httponly=True,
        secure=request.app.state.secure_cookie,
        samesite="strict",
        path="/",
    )
    return response


@router.get("", response_model=Me)
def me(request: Request, ctx: Signed) -> Me:
    """Who is signed in."""
    with ctx.db() as db:
        firm = store.firm(db, ctx.who.firm_id).name
    return _me(request, request.cookies[COOKIE], ctx.who, firm)


@router.delete("", status_code=204)
def sign_out(request: Request, ctx: Signed) -> Response:
    """End the session."""
    with ctx.db() as db:
        store.sign_out(db, signing_in.token_hash(request.cookies[COOKIE]))
    response = Response(status_code=204)
    response.delete_cookie(COOKIE, path="/")
    return response
