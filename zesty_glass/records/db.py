"""Engine and sessions."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from time import monotonic
from typing import Any

from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.exc import DisconnectionError
from sqlalchemy.orm import Session, sessionmaker
from sqlalchemy.pool import ConnectionPoolEntry, PoolProxiedConnection


def make_engine(url: str) -> Engine:
    """An engine on PostgreSQL through psycopg; a connection that was dropped while nobody used it
    is noticed before it is used.
    """
    if url.startswith(("postgresql://", "postgres://")):
        url = "postgresql+psycopg://" + url.split("://", 1)[1]
    engine = create_engine(url, pool_size=5, max_overflow=5)
    event.listen(engine, "checkin", _given_back)
    event.listen(engine, "checkout", partial(_still_there, engine))
    return engine


#: [s] a connection lies idle before it is asked whether it is still there
ASKED_AFTER = 1.0


def _given_back(connection: DBAPIConnection | None, record: ConnectionPoolEntry) -> None:
    record.info["given_back"] = monotonic()


def _still_there(
    engine: Engine,
    connection: DBAPIConnection,
    record: ConnectionPoolEntry,
    proxy: PoolProxiedConnection,
) -> None:
    """Ask a connection that lay idle whether it is still there; the pool opens another when it is
    not. One that worked just now is not asked: each question is a way to the database and back.
    """
    since = record.info.get("given_back")
    if since is None or monotonic() - since < ASKED_AFTER:
        return
    try:
        engine.dialect.do_ping(connection)
    except Exception as e:
        raise DisconnectionError from e


def plain_url(url: str) -> str:
    """An address as PostgreSQL's own programs take it."""
    return url.replace("postgresql+psycopg://", "postgresql://", 1)


def make_sessions(engine: Engine, **info: Any) -> sessionmaker[Session]:
    """A factory of sessions; ``info`` is what each of them carries, such as the keys of seals."""
    from . import audit  # noqa: F401 – the trail is written when a session commits

    return sessionmaker(engine, expire_on_commit=False, info=info)


def known_shapes() -> set[str]:
    """Every shape of the database that this program knows; found without loading the migrations'
    machinery.
    """
    folder = Path(__file__).parent / "migrations" / "versions"
    return {p.name.split("_")[0] for p in folder.glob("[0-9]*.py")}


def newest() -> str:
    """The shape that this program works with."""
    return max(known_shapes())


def shape(url: str) -> str | None:
    """The shape a database has; None when it is empty."""
    engine = make_engine(url)
    try:
        with engine.connect() as c:
            if not c.scalar(text("select to_regclass('alembic_version') is not null")):
                return None
            found: str | None = c.scalar(text("select version_num from alembic_version"))
            return found
    finally:
        engine.dispose()


class NewerDatabase(Exception):
    """The database has a shape that this program does not know."""

    def __init__(self, found: str) -> None:
        super().__init__(
            f"The database has shape {found}, which is newer than this program ({newest()}). "
            "Start the newer program, or restore a backup made before it."
        )


_MIGRATING = 7_203_114_900_512  # key of the lock that lets one server migrate at a time


def migrate(url: str, revision: str = "head") -> None:
    """Bring the database to the newest shape; servers that start at once wait for the first of
    them.

    Raises:
        NewerDatabase: a newer program has been at work in it.
    """
    found = shape(url)
    if found is not None and found not in known_shapes():
        raise NewerDatabase(found)
    if revision == "head" and found == newest():
        return
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url
    engine = make_engine(url)
    try:
        with engine.connect() as c:
            c.execute(text("select pg_advisory_lock(:key)"), {"key": _MIGRATING})
            c.commit()
            try:
                command.upgrade(config, revision)
            finally:
                c.execute(text("select pg_advisory_unlock(:key)"), {"key": _MIGRATING})
    finally:
        engine.dispose()


@contextmanager
def transaction(sessions: sessionmaker[Session]) -> Iterator[Session]:
    """One transaction: all of it or nothing."""
    with sessions.begin() as session:
        yield session
