"""Alembic's entry: migrations run on the address that the caller gives."""

from alembic import context

from zesty_glass.records.base import Base
from zesty_glass.records.db import make_engine

engine = make_engine(context.config.attributes["url"])
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
