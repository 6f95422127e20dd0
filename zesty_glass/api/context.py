"""What a handler gets: the signed-in person and a transaction."""

from __future__ import annotations

import hmac
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Annotated

from fastapi import Depends, HTTPException, Request
from fastapi.routing import APIRoute
from sqlalchemy import Engine
from sqlalchemy.orm import Session, sessionmaker
from starlette.routing import BaseRoute

from ..work import signing_in, tokens
from ..work.person import Forbidden, Person, now
from .may import EVERYBODY, MANAGER, SELLING, Policy, script_may

FORGERY_HEADER = "x-zesty-token"
SAFE = ("GET", "HEAD", "OPTIONS")


def cookie_name(secure: bool) -> str:
    """The session's cookie; over HTTPS browsers themselves hold its name to this host and to no
    other (RFC 6265bis).
    """
    return "__Host-zesty_session" if secure else "zesty_session"


class Prove(Exception):
    """The password must be given again before this is done."""


class Context:
    """A signed-in request."""

    def __init__(self, who: Person, request: Request) -> None:
        self.who = who
        self._sessions: sessionmaker[Session] = request.app.state.sessions
        self._looks: sessionmaker[Session] = request.app.state.looks

    @contextmanager
    def db(self) -> Iterator[Session]:
        """One transaction. It is committed before the answer is sent: what the page shows as saved
        is saved.
        """
        with self._sessions.begin() as session:
            yield session

    @contextmanager
    def look(self) -> Iterator[Session]:
        """Statements that are each a transaction by itself: nothing is asked to begin or end it."""
        with self._looks() as session:
            yield session


def session_token(request: Request) -> str | None:
    """The token that a request's cookie carries."""
    return request.cookies.get(cookie_name(request.app.state.secure_cookie))


@dataclass(frozen=True, slots=True)
class Allowed:
    """The dependency of a handler: its policy held up against whoever asks."""

    policy: Policy

    def __call__(self, request: Request) -> Context:
        """The context of a signed-in request."""
        return signed(request, self.policy)


def policies(routes: Iterable[BaseRoute]) -> dict[tuple[str, str], Policy]:
    """The policy of every route that has one, by method and path."""
    return {
        (method, route.path_format): dependency.call.policy
        for route in routes
        if isinstance(route, APIRoute)
        for method in route.methods or ()
        for dependency in route.dependant.dependencies
        if isinstance(dependency.call, Allowed)
    }


def signed(request: Request, policy: Policy) -> Context:
    """The context of a signed-in request; 401 without a session, 403 when an unsafe request lacks
    its token, or where the policy does not allow it.
    """
    scheme, _, script = request.headers.get("authorization", "").partition(" ")
    if scheme.lower() == "bearer" and script.strip().startswith(tokens.PREFIX):
        return _of_a_script(request, script.strip(), policy)
    token = session_token(request)
    if not token:
        raise HTTPException(401)
    engine: Engine = request.app.state.at_once
    with engine.connect() as at_once:
        who = signing_in.whose(at_once, token)
    if who is None:
        raise HTTPException(401)
    request.state.firm = who.firm_id
    _allowed(request, who, token, policy)
    return Context(who, request)


def _of_a_script(request: Request, token: str, policy: Policy) -> Context:
    """The context of a request that carries a token: it needs no forgery token, for no browser adds
    it by itself; 401 when it does not count, 403 where it does not open.
    """
    sessions: sessionmaker[Session] = request.app.state.sessions
    address = request.client.host if request.client else ""
    with sessions.begin() as db:
        found = tokens.whose(db, token, address)
    if found is None:
        raise HTTPException(401)
    who, scopes = found
    request.state.firm = who.firm_id
    if who.role not in policy.roles or not script_may(scopes, *_route(request)):
        raise Forbidden("This token does not open this.")
    return Context(who, request)


def _route(request: Request) -> tuple[str, str]:
    method = "GET" if request.method == "HEAD" else request.method
    return method, request.scope["route"].path_format


def _allowed(request: Request, who: Person, token: str, policy: Policy) -> None:
    """403 when a request may be forged, the role may not, or the password is wanted again."""
    if request.method not in SAFE:
        given = request.headers.get(FORGERY_HEADER, "").encode("utf-8", "replace")
        wanted = signing_in.forgery_token(request.app.state.secret, token).encode()
        if not hmac.compare_digest(given, wanted):
            raise HTTPException(403)
    if who.role not in policy.roles:
        raise Forbidden("Your role does not include this.")
    proved = who.proved_at is not None and now() - who.proved_at <= signing_in.PROVED_FOR
    if policy.again and not proved:
        raise Prove


#: whoever is signed in
Signed = Annotated[Context, Depends(Allowed(Policy(EVERYBODY)))]
#: who sells: consultants and managers
Selling = Annotated[Context, Depends(Allowed(Policy(SELLING)))]
Managing = Annotated[Context, Depends(Allowed(Policy(MANAGER)))]
#: a manager who has given the password again within the hour
ManagingAgain = Annotated[Context, Depends(Allowed(Policy(MANAGER, again=True)))]
