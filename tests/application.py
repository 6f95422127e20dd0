"""Applications on databases of their own, and clients of them.

An application works out its routes with its first requests, which takes a second: it is borrowed
and given back, so that the next test class finds it warm and on another database.
"""

from __future__ import annotations

import atexit
from contextlib import ExitStack
from functools import cache

from anyio.from_thread import BlockingPortal, start_blocking_portal
from fastapi import FastAPI
from starlette.testclient import TestClient

from tests.database import SECRET
from zesty_glass.api.app import create_app, stand_on
from zesty_glass.cli import ending

_at_hand: list[FastAPI] = []


def borrowed(database: str, **settings) -> FastAPI:
    """An application that nobody else has, on this database."""
    settings = {"secure_cookie": False, **settings}
    if not _at_hand:
        return create_app(database, SECRET, **settings)
    app = _at_hand.pop()
    stand_on(app, database, SECRET, **settings)
    return app


def given_back(app: FastAPI) -> None:
    """Its connections closed, and free for the next."""
    app.state.engine.dispose()
    _at_hand.append(app)


@cache
def _loop() -> BlockingPortal:
    held = ExitStack()
    # told to end amid a request, the loop would wait for it, and it for the loop
    atexit.register(lambda: None if ending.told else held.close())
    return held.enter_context(start_blocking_portal())


class Client(TestClient):
    """A client whose requests share one event loop of the run, in place of one each."""

    def __init__(self, app: FastAPI, **more) -> None:
        super().__init__(app, **more)
        self.portal = _loop()
