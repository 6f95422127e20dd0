"""What a handler gets: the signed-in person and a transaction."""

from __future__ import annotations

import hmac
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Annotated

from fastapi import Depends, HTTPException, Request
from sqlalchemy.orm import Session, sessionmaker

from ..work import signing_in
from ..work.person import Person

COOKIE = "zesty_session"
FORGERY_HEADER = "x-zesty-token"


class Context:
    """A signed-in request."""

    def __init__(self, who: Person, sessions: sessionmaker[Session]) -> None:
        self.who = who
        self._sessions = sessions

    @contextmanager
    def db(self) -> Iterator[Session]:
        """One transaction. It is committed before the answer is sent: what the page shows as saved is saved."""
        with self._sessions.begin() as session:
            yield session


def signed(request: Request) -> Context:
    """The context of a signed-in request; 401 without a session, 403 when an unsafe request lacks its token."""
    token = request.cookies.get(COOKIE)
    if not token:
        raise HTTPException(401)
    sessions: sessionmaker[Session] = request.app.state.sessions
    with sessions.begin() as db:
        who = signing_in.whose(db, token)
    if who is None:
        raise HTTPException(401)
    if request.method not in ("GET", "HEAD", "OPTIONS"):
        given = request.headers.get(FORGERY_HEADER, "")
        if not hmac.compare_digest(
            given, signing_in.forgery_token(request.app.state.secret, token)
        ):
            raise HTTPException(403)
    return Context(who, sessions)


Signed = Annotated[Context, Depends(signed)]
