"""``./zesty serve``: the application for a firm, configured by environment."""

from __future__ import annotations

import gc
import os
import socket
import sys
import tempfile
from collections.abc import Callable
from typing import Any

import uvicorn

from ..standins.mail import Mailer
from .say import Stop, guarded
from .settings import Config, from_environment

#: [s] an idle connection is kept: between two touches of a visit somebody talks for a while
KEPT_S = 65


class _Server(uvicorn.Server):
    def __init__(self, config: uvicorn.Config, started: Callable[[], None] | None) -> None:
        super().__init__(config)
        self._told = started

    async def startup(self, sockets: list[object] | None = None) -> None:  # type: ignore[override]
        """Say so once it listens."""
        await super().startup(sockets)  # type: ignore[arg-type]
        if self.started and self._told:
            self._told()


def forwarding(trusted: str) -> dict[str, Any]:
    """Whose word counts for where a request comes from: nobody's, unless proxies are named. No
    server name is told.
    """
    return {
        "server_header": False,
        "proxy_headers": bool(trusted),
        "forwarded_allow_ips": trusted or None,
    }


def quiet_collector() -> None:
    """What is loaded now stays: collections need not look at it again, and come less often.

    The value objects hold no cycles, so that a collection finds next to nothing; an answer makes
    tens of thousands.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 50)


def load() -> None:
    """Import what the server needs, ahead of serving."""
    from ..api import app  # noqa: F401


def run(
    database: str,
    secret: str,
    host: str,
    port: int,
    secure_cookie: bool = True,
    started: Callable[[], None] | None = None,
    public_address: str = "",
    old_secrets: tuple[str, ...] = (),
    trusted_proxies: str = "",
    mailer: Mailer | None = None,
    graceful_s: int = 3,
) -> None:
    """Serve in this process until a signal ends it."""
    from ..api.app import create_app
    from ..work.apart import papers

    app = create_app(
        database,
        secret,
        secure_cookie,
        public_address=public_address,
        old_secrets=old_secrets,
        mailer=mailer,
    )
    quiet_collector()
    papers().warm()  # the first PDF does not wait for what it needs
    _Server(
        uvicorn.Config(
            app,
            host=host,
            port=port,
            log_level="warning",
            access_log=False,
            timeout_keep_alive=KEPT_S,
            timeout_graceful_shutdown=graceful_s,
            **forwarding(trusted_proxies),
        ),
        started,
    ).run()


def app_from_environment() -> object:
    """The application for a worker process."""
    from ..api.app import create_app
    from ..api.observing import log_as

    c = from_environment()
    log_as(c.log)
    quiet_collector()
    return create_app(
        c.database,
        c.secret,
        not c.insecure_cookie,
        public_address=c.public_address,
        old_secrets=c.earlier(),
        mailer=c.mailer(),
    )


def _free(host: str, port: int) -> None:
    """Stop where something listens at an address already."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    with socket.socket(family) as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind((host, port))
        except OSError as e:
            raise Stop(
                f"It cannot listen at {host}, port {port}: {(e.strerror or 'refused').lower()}."
                " Set ZESTY_HOST or ZESTY_PORT."
            ) from e


def _several(c: Config) -> None:
    """Serve in several processes that count together."""
    from ..api.observing import TOGETHER

    with tempfile.TemporaryDirectory(prefix="zg-counted-") as counted:
        os.environ[TOGETHER] = counted
        uvicorn.run(
            "zesty_glass.cli.serve:app_from_environment",
            factory=True,
            host=c.host,
            port=c.port,
            workers=c.workers,
            log_level="warning",
            access_log=False,
            timeout_keep_alive=KEPT_S,
            timeout_graceful_shutdown=c.graceful_s,
            **forwarding(c.trusted_proxies),
        )


def main(_: list[str]) -> int:
    """Serve as the environment says."""
    from ..api.observing import log_as
    from ..records.db import NewerDatabase, migrate

    c = from_environment()
    _free(c.host, c.port)
    log_as(c.log)
    try:
        migrate(c.database)
    except NewerDatabase as e:
        raise Stop(str(e)) from e
    except Exception as e:
        raise Stop(
            f"The database does not answer or cannot be brought up to date ({type(e).__name__})."
            " Check ZESTY_DATABASE."
        ) from e
    if c.workers > 1:
        _several(c)
    else:
        run(
            c.database,
            c.secret,
            c.host,
            c.port,
            not c.insecure_cookie,
            public_address=c.public_address,
            old_secrets=c.earlier(),
            trusted_proxies=c.trusted_proxies,
            mailer=c.mailer(),
            graceful_s=c.graceful_s,
        )
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
