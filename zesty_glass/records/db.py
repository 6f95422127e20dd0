"""Engine and sessions."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy import Engine, create_engine, text
from sqlalchemy.orm import Session, sessionmaker


def make_engine(url: str) -> Engine:
    """An engine on PostgreSQL through psycopg; a dropped connection is noticed before it is used."""
    if url.startswith(("postgresql://", "postgres://")):
        url = "postgresql+psycopg://" + url.split("://", 1)[1]
    return create_engine(url, pool_pre_ping=True, pool_size=5, max_overflow=5)


def make_sessions(engine: Engine) -> sessionmaker[Session]:
    """A factory of sessions."""
    return sessionmaker(engine, expire_on_commit=False)


def at_head(url: str) -> bool:
    """Whether the database has the newest shape already; asked without loading the migrations' machinery."""
    newest = max(
        p.name.split("_")[0]
        for p in (Path(__file__).parent / "migrations" / "versions").glob("[0-9]*.py")
    )
    engine = make_engine(url)
    try:
        with engine.connect() as c:
            return (
                bool(c.scalar(text("select to_regclass('alembic_version') is not null")))
                and c.scalar(text("select version_num from alembic_version")) == newest
            )
    finally:
        engine.dispose()


def migrate(url: str, revision: str = "head") -> None:
    """Bring the database to the newest shape."""
    if revision == "head" and at_head(url):
        return
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url
    command.upgrade(config, revision)


@contextmanager
def transaction(sessions: sessionmaker[Session]) -> Iterator[Session]:
    """One transaction: all of it or nothing."""
    with sessions.begin() as session:
        yield session
