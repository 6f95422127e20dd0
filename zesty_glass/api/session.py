"""Sign in, who am I, sign out."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, Request, Response
from fastapi.responses import JSONResponse

from ..documents.codes import code_picture
from ..records import signing, store
from ..work import people, second_factor, signing_in
from ..work.person import Person
from .context import Signed, cookie_name, session_token
from .paging import Paged
from .people_schemas import FactorBegun, FactorBody, PasswordBody, RecoveryCodes
from .problems import problem
from .session_schemas import Me, ProveBody, SessionView, SignInBody

router = APIRouter(prefix="/api/session", tags=["session"])


def _me(request: Request, token: str, who: Person, firm: str, factor: bool = False) -> Me:
    return Me(
        id=who.id,
        name=who.name,
        role=who.role,
        firm=firm,
        second_factor=factor,
        token=signing_in.forgery_token(request.app.state.secret, token),
    )


def _from_here(request: Request) -> bool:
    """Whether a sign-in comes from a page of ours: the public address when one is set, else the
    host it was sent to.
    """
    origin = request.headers.get("origin")
    public = request.app.state.public_address
    if not origin or (public and origin == public):
        return True
    return origin.split("://")[-1] == request.headers.get("host")


@router.post("", response_model=Me)
def sign_in(request: Request, body: SignInBody) -> Response:
    """Start a session; the cookie is not readable by scripts."""
    if not _from_here(request):
        return problem(
            403,
            "session.origin",
            "This page and the server do not agree on the address they have.",
            "",
            "Behind a proxy set ZESTY_PUBLIC_ADDRESS to what people type (docs/operating.md).",
        )
    address = request.client.host if request.client else ""
    with request.app.state.sessions.begin() as db:
        signing_in.admit(db, body.email, address)
    with request.app.state.sessions.begin() as db:
        device = request.headers.get("user-agent", "")
        try:
            found = signing_in.sign_in(db, body.email, body.password, address, device, body.code)
        except signing_in.CodeWanted:
            return problem(
                401,
                "session.code",
                "The six digits of the second factor are wanted."
                if not body.code
                else "These digits are not right, or were used already.",
                "code",
                "Type those that show now, or one of the codes on paper.",
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
    return entered(request, *found, firm)


def entered(request: Request, token: str, who: Person, firm: str) -> Response:
    """The answer to whoever signed in, with the session's cookie."""
    response = JSONResponse(_me(request, token, who, firm).model_dump(mode="json"))
    response.set_cookie(
        cookie_name(request.app.state.secure_cookie),
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
        factor = signing.user(db, ctx.who.id).totp_on
    return _me(request, session_token(request) or "", ctx.who, firm, factor)


@router.delete("", status_code=204)
def sign_out(request: Request, ctx: Signed) -> Response:
    """End the session."""
    with ctx.db() as db:
        signing.sign_out(db, signing_in.token_hash(session_token(request) or ""))
    response = Response(status_code=204)
    secure = request.app.state.secure_cookie
    response.delete_cookie(
        cookie_name(secure), path="/", secure=secure, httponly=True, samesite="strict"
    )
    return response


@router.post("/prove", status_code=204)
def prove(request: Request, ctx: Signed, body: ProveBody) -> Response:
    """Give the password again: prices, limits and people ask for it an hour after signing in."""
    admit_again(request, ctx)
    with ctx.db() as db:
        if not signing_in.prove(db, ctx.who, body.password):
            return wrong_password()
    return Response(status_code=204)


@router.post("/password", status_code=204)
def password(request: Request, ctx: Signed, body: PasswordBody) -> Response:
    """One's own new password; all other sessions end."""
    admit_again(request, ctx)
    with ctx.db() as db:
        if not people.change_password(db, ctx.who, body.old, body.new):
            return wrong_password()
    return Response(status_code=204)


@router.post("/second-factor", response_model=FactorBegun)
def begin_factor(ctx: Signed) -> FactorBegun:
    """A second factor's secret and its picture, not in force until its first code."""
    with ctx.db() as db:
        firm = store.firm(db, ctx.who.firm_id).name
        secret, address = second_factor.begin(db, ctx.who, firm)
    return FactorBegun(secret=secret, picture=code_picture(address))


@router.put("/second-factor", response_model=RecoveryCodes)
def confirm_factor(request: Request, ctx: Signed, body: FactorBody) -> RecoveryCodes:
    """Put it in force with its first code; codes for paper are shown this once."""
    admit_again(request, ctx)
    with ctx.db() as db:
        return RecoveryCodes(codes=list(second_factor.confirm(db, ctx.who, body.code)))


@router.post("/second-factor/off", status_code=204)
def factor_off(request: Request, ctx: Signed, body: ProveBody) -> Response:
    """Take the second factor off, with the password."""
    admit_again(request, ctx)
    with ctx.db() as db:
        if not second_factor.off(db, ctx.who, body.password):
            return wrong_password()
    return Response(status_code=204)


def admit_again(request: Request, ctx: Signed) -> None:
    """Count a try to give one's password again."""
    address = request.client.host if request.client else ""
    with ctx.db() as db:
        signing_in.admit(db, ctx.who.email, address)


def wrong_password() -> Response:
    """The answer to a password that is not right."""
    return problem(422, "session.wrong", "The password is not right.", "password", "Try again.")


@router.get("/all", response_model=list[SessionView])
def every(ctx: Signed, page: Paged) -> Response:
    """Where this person is signed in."""
    with ctx.db() as db:
        found = [
            SessionView(
                id=s.id,
                created_at=s.created_at,
                seen_at=s.seen_at,
                device=s.device,
                this=s.id == ctx.who.session,
            )
            for s in signing.sign_ins(db, ctx.who.id)
        ]
    return page.answer(found, list[SessionView], lambda x: x.id)


@router.delete("/all/{id}", status_code=204)
def end(ctx: Signed, id: UUID) -> Response:
    """End one of this person's sessions; one that is gone already is no error."""
    with ctx.db() as db:
        signing.end_sign_in(db, ctx.who.id, id)
    return Response(status_code=204)
