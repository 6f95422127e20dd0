"""``./zesty demo``: cluster, migration, demo firm, server; Ctrl-C or SIGTERM stops all of it."""

from __future__ import annotations

import argparse
import errno
import os
import secrets
import socket
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from . import ending
from .cluster import Cluster, disk_full, free_port, says_full
from .machine import STATE
from .say import Stop, guarded, step


def port_in_use(host: str, port: int) -> bool:
    """Whether somebody listens there already."""
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind((host, port))
        except OSError as e:
            if e.errno == errno.EADDRINUSE:
                return True
            if e.errno == errno.EACCES:
                raise Stop(
                    f"Port {port} is for root alone. Run: ./zesty demo --port {8420 + port}"
                ) from e
            raise Stop(f"Cannot listen on {host}: {e.strerror}.") from e
    return False


def port(text: str) -> int:
    """A port as it is typed; 0: any that is free."""
    if not text.isdecimal() or int(text) > 65_535:
        raise argparse.ArgumentTypeError(f"{text} is no port: use 1 to 65535, or 0 for any")
    return int(text)


def _secret(folder: Path) -> str:
    file = folder / "secret"
    if not file.exists():
        file.write_text(secrets.token_urlsafe(32))
        os.chmod(file, 0o600)
    return file.read_text().strip()


def prepare(cluster: Cluster, secret: str) -> str:
    """Database, migration and demo data; the address of the database."""
    import psycopg
    from sqlalchemy import func, select

    from ..records.db import make_engine, make_sessions, migrate, newest, shape
    from ..records.models import Firm
    from ..work import seals

    with psycopg.connect(cluster.url("postgres"), autocommit=True) as c:
        if c.execute("select 1 from pg_database where datname = 'zesty'").fetchone() is None:
            c.execute("create database zesty")
    url = cluster.url()
    if shape(url) != newest():
        step("bringing the database up to date")
        migrate(url)
    engine = make_engine(url)
    sessions = make_sessions(engine, **{seals.KEYS: seals.keys_from(secret)})
    with sessions() as db:
        empty = db.scalar(select(func.count()).select_from(Firm)) == 0
    if empty:
        from ..demo.load import load_demo

        load_demo(sessions, two_years=True)
        step("demo firm loaded")
    engine.dispose()
    return url


def main(arguments: list[str]) -> int:
    """Run the demo until Ctrl-C, or until it is told to end."""
    parser = argparse.ArgumentParser(prog="./zesty demo")
    parser.add_argument("--port", type=port, default=8420, help="port on 127.0.0.1 (8420)")
    parser.add_argument(
        "--data", type=Path, default=STATE / "demo", help="folder of the demo's database"
    )
    parser.add_argument("--once", action="store_true", help=argparse.SUPPRESS)
    given = parser.parse_args(arguments)
    given.port = given.port or free_port()
    if port_in_use("127.0.0.1", given.port):
        raise Stop(
            f"Port {given.port} is in use: another demo may be running. Stop it, or run: ./zesty"
            f" demo --port {given.port + 1}"
        )
    cluster = Cluster(given.data / "postgres")
    ending.by_exit()  # the server hands a signal on once it has stopped itself
    try:
        made = cluster.create()
        step("new database folder made" if made else "database folder found")
        with ThreadPoolExecutor(1) as beside:
            starting = beside.submit(cluster.start)
            from .serve import load, run

            load()  # what the server needs is loaded while PostgreSQL starts
            starting.result()
        step(f"PostgreSQL runs on port {cluster.port}")
        try:
            url = prepare(cluster, _secret(given.data))
        except Exception as e:
            if says_full(str(e)):  # whichever layer said it: driver or SQLAlchemy
                raise Stop(disk_full(given.data)) from e
            raise

        step("serving")

        def started() -> None:
            from ..demo.people import PASSWORD, TO_TRY

            people = "\n".join(f"  sign in as     {email:<28} {what}" for email, what in TO_TRY)
            print(
                f"\n  Zesty Glass    http://127.0.0.1:{given.port}\n{people}\n "
                f" password       {PASSWORD}\n\n  Ctrl-C stops it.",
                flush=True,
            )

        run(
            url,
            _secret(given.data),
            "127.0.0.1",
            given.port,
            secure_cookie=False,
            started=started,
            public_address=f"http://127.0.0.1:{given.port}",
        )
    finally:
        if cluster.port:
            step("stopping PostgreSQL")
            cluster.stop()
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
