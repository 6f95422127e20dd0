"""The application: API, page, and nothing that is kept in memory between requests."""

from __future__ import annotations

import secrets
from pathlib import Path

from fastapi import FastAPI, Request, Response
from fastapi.responses import FileResponse, HTMLResponse, JSONResponse
from fastapi.staticfiles import StaticFiles
from sqlalchemy import text
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware

from .. import __version__
from ..records.db import make_engine, make_sessions
from ..work import seals
from . import (
    catalogue,
    demonstrations,
    feeds,
    firm,
    jobs,
    kits,
    laboratory,
    logbook,
    personal,
    problems,
    proposals,
    session,
    sharing,
    standins,
    visits,
)
from .bounds import POLICY, Bounds
from .described import described

PAGE = Path(__file__).resolve().parents[2] / "web" / "dist"


def create_app(
    database: str,
    secret: str,
    secure_cookie: bool = True,
    page: Path = PAGE,
    public_address: str = "",
    old_secrets: tuple[str, ...] = (),
) -> FastAPI:
    """An application on a database address.

    Args:
        secret: signs forgery tokens and seals; old_secrets: those it had before, which old seals
            are checked with.
        public_address: what people type to get here, for links in mails; never taken from a
            request.
    """
    app = FastAPI(
        title="Zesty Glass",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
        responses=problems.DESCRIBED,
    )
    engine = make_engine(database)
    app.state.sessions, app.state.secret, app.state.secure_cookie, app.state.engine = (
        make_sessions(engine, **{seals.KEYS: seals.keys_from(secret, old_secrets)}),
        secret,
        secure_cookie,
        engine,
    )
    app.state.public_address = public_address.rstrip("/")
    problems.install(app)
    app.add_middleware(GZipMiddleware, minimum_size=1500, compresslevel=2)
    app.add_middleware(Bounds, secure=secure_cookie)
    for module in (
        catalogue,
        demonstrations,
        session,
        visits,
        kits,
        laboratory,
        standins,
        firm,
        sharing,
        jobs,
        logbook,
        feeds,
        proposals,
        personal,
    ):
        app.include_router(module.router)

    @app.get("/api/health", include_in_schema=False)
    def health() -> JSONResponse:
        with engine.connect() as c:
            c.execute(text("select 1"))
        return JSONResponse({"ok": True, "version": __version__})

    _serve_page(app, page)
    described(app)
    return app


def _index(page: Path) -> Response:
    """The page itself, with a nonce of its own for the one style that a library adds while a dialog
    is open.
    """
    nonce = secrets.token_urlsafe(16)
    meta = f'<meta name="csp-nonce" content="{nonce}" />'
    text = (page / "index.html").read_text().replace("</head>", f"{meta}</head>", 1)
    policy = POLICY.replace("style-src 'self'", f"style-src 'self' 'nonce-{nonce}'")
    headers = {"Cache-Control": "no-cache", "Content-Security-Policy": policy}
    return HTMLResponse(text, headers=headers)


def _serve_page(app: FastAPI, page: Path) -> None:
    if (page / "assets").is_dir():
        app.mount("/assets", StaticFiles(directory=page / "assets"))

    @app.get("/{path:path}", include_in_schema=False)
    def index(request: Request, path: str) -> Response:
        if path.startswith("api/") or not (page / "index.html").is_file():
            raise HTTPException(404)
        file = page / path
        if path and file.is_file() and file.resolve().is_relative_to(page.resolve()):
            return FileResponse(file)
        return _index(page)
