"""The application on a fresh demo database, served from a thread of the test process."""

from __future__ import annotations

import threading
import time
from pathlib import Path

import uvicorn

from tests.application import borrowed, given_back
from tests.database import SECRET, fresh
from zesty_glass.api.app import create_app
from zesty_glass.cli.cluster import free_port


class Served:
    """``base`` is its address; ``close`` ends it."""

    def __init__(
        self,
        database: str | None = None,
        port: int | None = None,
        name: str = "127.0.0.1",
        page: Path | None = None,
    ) -> None:
        self.port = port or free_port()
        self.base = f"http://{name}:{self.port}"
        self.own = page is not None  # of a page of its own: not to be lent
        self.app = (
            borrowed(database or fresh(), public_address=self.base)
            if page is None
            else create_app(database or fresh(), SECRET, secure_cookie=False, page=page)
        )
        self.server = uvicorn.Server(
            uvicorn.Config(
                self.app,
                host="127.0.0.1",
                port=self.port,
                log_level="error",
                access_log=False,
                lifespan="off",
            )
        )
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        end = time.monotonic() + 15
        while not self.server.started:
            if time.monotonic() > end or not self.thread.is_alive():
                raise RuntimeError("the server did not start")
            self.thread.join(0.02)

    def close(self) -> None:
        """Stop serving."""
        self.server.should_exit = True
        self.server.force_exit = True
        self.thread.join(10)
        if not self.own:
            given_back(self.app)
