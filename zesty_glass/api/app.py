"""The application: API and page.

Between requests a process keeps in memory only what can be worked out again, each held against the
stamps of its rows before it is used: bodies of visits and comparisons (``work/held.py``, 64 MB at
most) and catalog items (``work/item_cache.py``, 4,000 at most).
"""

from __future__ import annotations

import re
import secrets
from collections.abc import AsyncIterator, Iterator
from contextlib import asynccontextmanager
from functools import cache
from mimetypes import guess_type
from pathlib import Path

from fastapi import FastAPI, Request, Response
from fastapi.responses import FileResponse, HTMLResponse, JSONResponse
from fastapi.staticfiles import StaticFiles
from sqlalchemy import text
from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.routing import BaseRoute
from starlette.types import Scope

from .. import __version__
from ..documents.reference import reference
from ..records.db import make_engine, make_sessions
from ..standins.mail import Mailer
from ..work import mailing, printing, seals
from ..work.held import Held
from . import (
    attached,
    auditing,
    catalogue,
    demonstrations,
    feeds,
    firm,
    homes,
    jobs,
    kits,
    laboratory,
    logbook,
    monday,
    observing,
    passkeys,
    people,
    personal,
    problems,
    proposals,
    session,
    sharing,
    standins,
    visits,
)
from .bounds import POLICY, Bounds, Heads
from .described import described, named
from .files import takes_a_file
from .route_index import Shelf

#: whose routes there are
MODULES = (
    catalogue,
    demonstrations,
    session,
    visits,
    kits,
    laboratory,
    standins,
    firm,
    homes,
    sharing,
    jobs,
    logbook,
    monday,
    feeds,
    proposals,
    personal,
    passkeys,
    people,
    auditing,
    attached,
)
PAGE = Path(__file__).resolve().parents[2] / "web" / "dist"


def every_route() -> Iterator[BaseRoute]:
    """The routes of every module."""
    return (route for module in MODULES for route in module.router.routes)


def create_app(
    database: str,
    secret: str,
    secure_cookie: bool = True,
    page: Path = PAGE,
    public_address: str = "",
    old_secrets: tuple[str, ...] = (),
    mailer: Mailer | None = None,
) -> FastAPI:
    """An application on a database address.

    Args:
        secret: signs forgery tokens and seals; old_secrets: those it had before, which old seals
            are checked with.
        public_address: what people type to get here, for links in mails; never taken from a
            request. mailer: a real sender; without one the stand-in keeps every message.
    """
    app = FastAPI(
        title="Zesty Glass",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
        responses=problems.DESCRIBED,
        generate_unique_id_function=named,
        lifespan=_posting,
    )
    stand_on(app, database, secret, secure_cookie, public_address, old_secrets, mailer)
    counters = observing.Counters()
    problems.install(app)
    app.add_middleware(GZipMiddleware, minimum_size=1500, compresslevel=2)
    app.add_middleware(Heads)
    files: list[re.Pattern[str]] = []
    app.add_middleware(Bounds, secure=secure_cookie, files=files)
    app.add_middleware(observing.Observed, counters=counters)
    for module in MODULES:
        app.include_router(module.router)
        files += takes_a_file(module.router)
    app.router.routes.insert(0, Shelf(every_route()))

    @app.get("/api/health", include_in_schema=False)
    def health() -> JSONResponse:
        with app.state.engine.connect() as c:
            c.execute(text("select 1"))
        return JSONResponse({"ok": True, "version": __version__})

    described_once = cache(lambda: reference(app.openapi()))

    @app.get("/api/description", include_in_schema=False)
    def description() -> Response:
        return _with_nonce(described_once())

    observing.install(app, counters)
    _serve_page(app, page)
    described(app)
    return app


def stand_on(
    app: FastAPI,
    database: str,
    secret: str,
    secure_cookie: bool = True,
    public_address: str = "",
    old_secrets: tuple[str, ...] = (),
    mailer: Mailer | None = None,
) -> None:
    """All that an application knows of its firm's database and address, in place of what it knew;
    the arguments are those of ``create_app``.
    """
    engine = make_engine(database)
    app.state.engine = engine
    # one statement is a transaction by itself here, without a question to begin and one to end it
    app.state.at_once = engine.execution_options(isolation_level="AUTOCOMMIT")
    known = {
        seals.KEYS: seals.keys_from(secret, old_secrets),
        mailing.CONFIGURED: mailer is not None and not mailer.simulated,
    }
    app.state.sessions = make_sessions(engine, **known)
    app.state.looks = make_sessions(app.state.at_once, **known)
    app.state.secret, app.state.secure_cookie = secret, secure_cookie
    app.state.public_address = public_address.rstrip("/")
    app.state.mailer, app.state.kept = mailer, Held()


@asynccontextmanager
async def _posting(app: FastAPI) -> AsyncIterator[None]:
    """While the application runs, what waits in the outbox is sent."""
    mailer: Mailer | None = app.state.mailer
    if mailer is None or mailer.simulated:
        yield
        return
    postman = mailing.Postman(
        app.state.sessions, mailer, app.state.public_address, printing.attached
    )
    postman.start()
    try:
        yield
    finally:
        postman.stop()


def _index(page: Path) -> Response:
    """The page itself, with a nonce of its own for the one style that a library adds while a dialog
    is open.
    """
    meta = '<meta name="csp-nonce" content="NONCE" />'
    text = (page / "index.html").read_text().replace("</head>", f"{meta}</head>", 1)
    return _with_nonce(text)


def _with_nonce(text: str) -> Response:
    """A page that may hold the one style that carries its nonce, written where NONCE stands."""
    nonce = secrets.token_urlsafe(16)
    policy = POLICY.replace("style-src 'self'", f"style-src 'self' 'nonce-{nonce}'")
    headers = {"Cache-Control": "no-cache", "Content-Security-Policy": policy}
    return HTMLResponse(text.replace("NONCE", nonce, 1), headers=headers)


#: how a text was compressed when the page was built, the smaller first: coding and suffix
PACKINGS = (("br", ".br"), ("gzip", ".gz"))


class _Assets(StaticFiles):
    """Files that carry a digest of what they hold in their name: kept by browsers for a year, and
    handed out as they were compressed when they were built.
    """

    async def get_response(self, path: str, scope: Scope) -> Response:
        """A file, in the smallest coding that the browser takes."""
        takes = Headers(scope=scope).get("accept-encoding", "")
        accepted = {c.split(";")[0].strip() for c in takes.split(",")}
        response, packed = await self._smallest(path, scope, accepted)
        if response.status_code in (200, 304):
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
            response.headers["Vary"] = "Accept-Encoding"
            if packed:
                response.headers["Content-Encoding"] = packed
                response.headers["Content-Type"] = guess_type(path)[0] or "text/plain"
        return response

    async def _smallest(self, path: str, scope: Scope, accepted: set[str]) -> tuple[Response, str]:
        for coding, suffix in PACKINGS:
            if coding in accepted and self.lookup_path(path + suffix)[1] is not None:
                return await super().get_response(path + suffix, scope), coding
        return await super().get_response(path, scope), ""


def _serve_page(app: FastAPI, page: Path) -> None:
    if (page / "assets").is_dir():
        app.mount("/assets", _Assets(directory=page / "assets"))

    @app.get("/{path:path}", include_in_schema=False)
    def index(request: Request, path: str) -> Response:
        if path == "api" or path.startswith("api/") or not (page / "index.html").is_file():
            raise HTTPException(404)
        file = page / path
        if path and file.is_file() and file.resolve().is_relative_to(page.resolve()):
            return FileResponse(file)
        return _index(page)
