"""Errors in one form: problem details (RFC 9457) that say what, where and what to do. Internals
never leak.
"""

from __future__ import annotations

import logging
from contextvars import ContextVar
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DataError, DBAPIError, IntegrityError
from sqlalchemy.orm.exc import StaleDataError
from starlette.exceptions import HTTPException

from ..core.errors import RuleError
from ..documents.codec import Known, told_all
from ..documents.meant import fields_at
from ..records.store import NotFound
from ..work.apart import Busy, TooMuch
from ..work.person import Conflict, Forbidden
from ..work.signing_in import TooMany
from .context import Prove

log = logging.getLogger("zesty")


class Fault(BaseModel):
    """A further thing wrong with the same request."""

    code: str
    title: str
    where: str = ""
    remedy: str = ""


class Problem(BaseModel):
    """What went wrong: ``title`` in words, ``where`` the field, ``remedy`` what to do; ``also``:
    what else is wrong with the same request; ``request``: the id of its line in the server's log.
    """

    type: str = "about:blank"
    status: int
    code: str
    title: str
    where: str = ""
    remedy: str = ""
    changed: list[str] = []
    by: str = ""
    version: int | None = None
    request: str = ""
    also: list[Fault] = []


#: the id of the request under way, which its log line has too
REQUEST: ContextVar[str] = ContextVar("request", default="")


def problem(
    status: int, code: str, title: str, where: str = "", remedy: str = "", **more: Any
) -> JSONResponse:
    """A problem as a response."""
    body = Problem(
        status=status,
        code=code,
        title=title,
        where=where,
        remedy=remedy,
        request=REQUEST.get(),
        **more,
    ).model_dump(exclude_none=True)
    headers = {429: {"Retry-After": "60"}, 503: {"Retry-After": "5"}}.get(status, {})
    return JSONResponse(
        body, status_code=status, media_type="application/problem+json", headers=headers
    )


_HTTP = {
    400: ("request.unreadable", "The request could not be read.", "Send it again."),
    401: ("session.none", "You are not signed in.", "Sign in."),
    403: ("forbidden", "This is not allowed.", ""),
    404: ("not_found", "There is nothing here.", "Check the address."),
    405: ("method", "This cannot be done here.", "Check the address."),
    413: ("too_large", "This is too large.", "Send less."),
}
_WORDS = {
    400: "The request could not be read.",
    401: "Nobody is signed in.",
    403: "Not allowed, or the password is wanted again.",
    404: "There is no such thing here.",
    405: "This cannot be done here.",
    409: "Somebody changed it meanwhile; nothing was overwritten.",
    413: "Too large.",
    414: "The address is too long.",
    422: "Something in it does not fit: what, where, and what to do.",
    429: "Too many tries; wait.",
    503: "The database does not answer, or too much waits already.",
}
#: every error of every route, for the description: problem details and nothing else
DESCRIBED: dict[int | str, dict[str, Any]] = {
    status: {
        "description": words,
        "content": {
            "application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}
        },
    }
    for status, words in _WORDS.items()
}
_BY_CODE = {"file.too_large": 413, "proposal.replaced": 409, "sample.raw_twice": 409}


def _known(request: Request) -> Known:
    """The names that the body of a request may have at a place."""
    body = getattr(request.scope.get("route"), "body_field", None)
    kind = None if body is None else body.field_info.annotation
    return lambda place: fields_at(kind, place[1:])


def _invalid(e: RequestValidationError, request: Request) -> JSONResponse:
    errors = e.errors()
    if errors[0]["type"] == "json_invalid":
        return problem(400, "request.not_json", "The request is not JSON.", "", "Send it again.")
    return _refused(told_all(errors, known=_known(request)))


def _refused(e: RuleError) -> JSONResponse:
    """A refusal, and what else is wrong with the same request."""
    also = [Fault(code=x.code, title=x.what, where=x.where, remedy=x.remedy) for x in e.also]
    status = _BY_CODE.get(e.code, 422)
    return problem(status, e.code, e.what, e.where, e.remedy, also=also)


#: errors that are always answered alike: status, code, what, where, what to do
_ALIKE: dict[type[Exception], tuple[int, str, str, str, str]] = {
    TooMany: (
        429,
        "session.too_many",
        "Too many tries.",
        "password",
        "Wait a minute, and longer after each further try.",
    ),
    Prove: (
        403,
        "session.prove",
        "Prices, limits and people ask for your password again.",
        "password",
        "Give it, then do this once more.",
    ),
    Busy: (503, "busy", "Much of this is under way already.", "", "Try again in a moment."),
    TooMuch: (
        503,
        "too_much",
        "This took more time or memory than it may, and was ended.",
        "",
        "Nothing is lost. If it happens again, tell the firm: something in this visit is far"
        " too large.",
    ),
    StaleDataError: (
        409,
        "conflict",
        "Somebody changed this at the same moment. Yours was not stored.",
        "",
        "Look at what changed, then make your change again.",
    ),
    UnicodeError: (
        400,
        "request.unreadable",
        "The request holds what is no text.",
        "",
        "Send it again.",
    ),
    RecursionError: (
        400,
        "request.deep",
        "The request is nested too deeply.",
        "",
        "Is it the right file?",
    ),
    IntegrityError: (
        409,
        "conflict",
        "This was stored by somebody else at the same moment.",
        "",
        "Look again; nothing is lost.",
    ),
    DataError: (
        422,
        "input.data",
        "Something in this cannot be stored.",
        "",
        "Check what you sent.",
    ),
    DBAPIError: (
        503,
        "database",
        "The database does not answer.",
        "",
        "What you typed is kept on this device and sent again.",
    ),
}


def _alike(app: FastAPI, kind: type[Exception], answer: tuple[int, str, str, str, str]) -> None:
    @app.exception_handler(kind)
    def handle(_: Request, e: Exception) -> JSONResponse:
        if isinstance(e, DBAPIError):  # the statement and its values stay out of the log
            log.warning("%s: %s", kind.__name__, type(e.orig).__name__)
        return problem(*answer)


def _conflict(e: Conflict) -> JSONResponse:
    who = f" by {e.by}" if e.by else ""
    what = f": {', '.join(e.changed)}" if e.changed else ""
    return problem(
        409,
        "conflict",
        f"The {e.what} was changed{who} meanwhile{what}. Yours was not stored.",
        e.what,
        "Look at what changed, then make your change again.",
        changed=e.changed,
        by=e.by,
        version=e.version,
    )


def install(app: FastAPI) -> None:
    """Answer every error of the application with a problem."""
    for kind, answer in _ALIKE.items():
        _alike(app, kind, answer)

    @app.exception_handler(RuleError)
    def rule(_: Request, e: RuleError) -> JSONResponse:
        return _refused(e)

    @app.exception_handler(RequestValidationError)
    def invalid(request: Request, e: RequestValidationError) -> JSONResponse:
        return _invalid(e, request)

    @app.exception_handler(NotFound)
    def missing(_: Request, e: NotFound) -> JSONResponse:
        return problem(
            404,
            "not_found",
            f"There is no such {e.what}.",
            e.what,
            "It may have been removed. Go back and open it again.",
        )

    @app.exception_handler(Conflict)
    def conflict(_: Request, e: Conflict) -> JSONResponse:
        return _conflict(e)

    @app.exception_handler(Forbidden)
    def forbidden(_: Request, e: Forbidden) -> JSONResponse:
        return problem(403, "forbidden", str(e), "", "Ask a manager of the firm.")

    @app.exception_handler(HTTPException)
    def http(_: Request, e: HTTPException) -> JSONResponse:
        code, title, remedy = _HTTP.get(
            e.status_code, ("error", "This did not work.", "Try again.")
        )
        return problem(e.status_code, code, title, "", remedy)

    @app.exception_handler(Exception)
    def unexpected(_: Request, e: Exception) -> JSONResponse:
        log.exception("unexpected error")
        return problem(
            500,
            "internal",
            "Something went wrong on the server.",
            "",
            "What you typed is kept. Try again; if it happens again, tell the firm.",
        )
