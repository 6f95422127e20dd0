"""What an operator sees: one line a request, counters for Prometheus, and whether it is well.

Lines and counters carry the route as it is written in the table, never an address with what it
holds, and no name of a person.
"""

from __future__ import annotations

import json
import logging
import os
import shutil
import sys
import tempfile
import time
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import uuid4

from fastapi import FastAPI
from fastapi.responses import JSONResponse, PlainTextResponse
from prometheus_client import (
    CONTENT_TYPE_LATEST,
    CollectorRegistry,
    Counter,
    Gauge,
    Histogram,
    multiprocess,
)
from prometheus_client import generate_latest as latest
from sqlalchemy import Engine, text
from sqlalchemy.exc import SQLAlchemyError
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from .. import __version__
from ..records.db import newest
from .problems import REQUEST

log = logging.getLogger("zesty.request")
logging.getLogger("zesty").addHandler(logging.NullHandler())  # until ``log_as`` says where to
ID_HEADER = b"x-request-id"
_BUCKETS = (0.005, 0.01, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10)
_QUIET = ("/healthz", "/readyz", "/metrics")


#: names the folder where the processes of one server count together
TOGETHER = "PROMETHEUS_MULTIPROC_DIR"


class Counters:
    """What is counted: by this process alone, or by all that share a folder."""

    def __init__(self) -> None:
        r = self.registry = CollectorRegistry()
        labels = ("method", "route", "status")
        self.requests = Counter("zesty_requests", "Requests answered.", labels, registry=r)
        self.seconds = Histogram(
            "zesty_request_seconds", "Time to answer.", ("route",), buckets=_BUCKETS, registry=r
        )
        self.under_way = Gauge(
            "zesty_requests_under_way",
            "Requests under way.",
            registry=r,
            multiprocess_mode="livesum",
        )
        info = Gauge(
            "zesty_info", "Version.", ("version",), registry=r, multiprocess_mode="livemax"
        )
        info.labels(__version__).set(1)

    def told(self) -> bytes:
        """All of it, in Prometheus' form."""
        folder = os.environ.get(TOGETHER)
        if not folder:
            return latest(self.registry)
        for file in Path(folder).glob("gauge_live*.db"):
            pid = file.stem.rsplit("_", 1)[1]
            if not Path("/proc", pid).exists():  # killed: what was under way there is no more
                multiprocess.mark_process_dead(int(pid), folder)  # type: ignore[no-untyped-call]
        every = CollectorRegistry()
        multiprocess.MultiProcessCollector(every, folder)  # type: ignore[no-untyped-call]
        return latest(every)


class JsonLines(logging.Formatter):
    """One JSON object a line."""

    def format(self, record: logging.LogRecord) -> str:
        """The line of a record."""
        said = {
            "time": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "logger": record.name,
            "message": record.getMessage(),
            **getattr(record, "told", {}),
        }
        if record.exc_info:
            said["exception"] = self.formatException(record.exc_info)
        return json.dumps(said, ensure_ascii=False, default=str)


class TextLines(logging.Formatter):
    """One line to be read by people."""

    def format(self, record: logging.LogRecord) -> str:
        """The line of a record."""
        time_ = datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds")
        told = " ".join(f"{k}={v}" for k, v in getattr(record, "told", {}).items())
        line = f"{time_} {record.levelname.lower()} {record.name} {record.getMessage()} {told}"
        return line.rstrip() + (
            "\n" + self.formatException(record.exc_info) if record.exc_info else ""
        )


def log_as(form: str) -> None:
    """Write the program's log to standard error, as ``json`` or ``text``."""
    handler = logging.StreamHandler(sys.stderr)
    handler.setFormatter(JsonLines() if form == "json" else TextLines())
    root = logging.getLogger("zesty")
    root.handlers[:] = [handler]
    root.setLevel(logging.INFO)
    root.propagate = False


def _route(scope: Scope) -> str:
    route = scope.get("route")
    return getattr(route, "path_format", "") or ("page" if route is not None else "none")


class Observed:
    """Gives every request an id, which its answer carries, and writes one line of it."""

    def __init__(self, app: ASGIApp, counters: Counters) -> None:
        self.app, self.counters = app, counters

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        id = uuid4().hex[:16]
        scope.setdefault("state", {})["request_id"] = id
        REQUEST.set(id)
        answer = Answer(self, scope, send, id)
        self.counters.under_way.inc()
        try:
            await self.app(scope, receive, answer.send)
        finally:
            answer.end()

    def write(self, scope: Scope, id: str, status: int, seconds: float) -> None:
        """The figures and the line of one answer [s]."""
        route, method = _route(scope), scope["method"]
        self.counters.requests.labels(method, route, str(status)).inc()
        self.counters.seconds.labels(route).observe(seconds)
        if scope["path"] in _QUIET and status < 400:
            return
        said: dict[str, Any] = {
            "request": id,
            "method": method,
            "route": route,
            "status": status,
            "ms": round(1000 * seconds, 1),
            "firm": str(scope["state"].get("firm", "")),
        }
        level = logging.ERROR if status >= 500 else logging.INFO
        log.log(level, "answered", extra={"told": said})


def _ready(engine: Engine) -> str:
    """Why the database cannot be worked with; empty when it can."""
    try:
        with engine.connect() as c:
            found = c.scalar(text("select version_num from alembic_version"))
    except SQLAlchemyError as e:
        return f"the database does not answer ({type(e).__name__})"
    if found != newest():
        return f"the database has shape {found}, this program {newest()}"
    return _full()


LEAST_FREE = 200_000_000  # [bytes] below which nothing new should begin: a PDF and a day's writing
#: where files of this program and of a database on this machine lie, as far as they are there
PLACES = (tempfile.gettempdir(), "/var/lib/postgresql")


def _full() -> str:
    """That a disk is nearly full; empty while it is not."""
    for place in filter(os.path.isdir, PLACES):
        free = shutil.disk_usage(place).free
        if free < LEAST_FREE:
            return f"the disk of {place} is nearly full: {free // 1_000_000} MB are left"
    return ""


def install(app: FastAPI, counters: Counters) -> None:
    """Routes for an operator: alive, ready, counters."""

    @app.get("/healthz", include_in_schema=False)
    def alive() -> JSONResponse:
        return JSONResponse({"ok": True, "version": __version__})

    @app.get("/readyz", include_in_schema=False)
    def ready() -> JSONResponse:
        why = _ready(app.state.engine)
        return JSONResponse({"ok": not why, "why": why}, status_code=503 if why else 200)

    @app.get("/metrics", include_in_schema=False)
    def metrics() -> PlainTextResponse:
        return PlainTextResponse(counters.told(), media_type=CONTENT_TYPE_LATEST)


class Answer:
    """One request's answer: counted once, before its last part is on its way.

    Whoever has read an answer finds it in the figures.
    """

    def __init__(self, observed: Observed, scope: Scope, send: Send, id: str) -> None:
        self._observed, self._scope, self._send, self._id = observed, scope, send, id
        self._began, self._status, self._ended = time.perf_counter(), 500, False

    async def send(self, message: Message) -> None:
        """Send a part of it, its head with the request's id."""
        if message["type"] == "http.response.start":
            self._status = message["status"]
            message["headers"] = [*message.get("headers", []), (ID_HEADER, self._id.encode())]
        elif not message.get("more_body"):
            self.end()
        await self._send(message)

    def end(self) -> None:
        """Count it, if it was not counted yet."""
        if self._ended:
            return
        self._ended = True
        self._observed.counters.under_way.dec()
        seconds = time.perf_counter() - self._began
        self._observed.write(self._scope, self._id, self._status, seconds)
