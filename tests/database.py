"""One throw-away PostgreSQL cluster a test run; a fresh copy of a prepared database a
test class.
"""

from __future__ import annotations

import atexit
import shutil
import tempfile
import time
import warnings
from functools import cache
from pathlib import Path
from uuid import uuid4

import psycopg
from argon2 import PasswordHasher

from zesty_glass.cli.cluster import Cluster
from zesty_glass.cli.say import Stop
from zesty_glass.demo.load import load_demo
from zesty_glass.records.db import make_engine, make_sessions, migrate
from zesty_glass.work import passwords, seals

SECRET = "a secret for tests, long enough"
# hundreds of sign-ins: the same hash at a small part of its cost (its own cost has a test)
passwords._hasher = PasswordHasher(time_cost=1, memory_cost=64, parallelism=1)
passwords._NOBODY = passwords._hasher.hash("nobody has this password")

warnings.filterwarnings("ignore", message="Using `httpx`")


LEFT_S = 3_600  # a cluster that nobody has for so long was left by a run that was killed


def _sweep() -> None:
    """Take away what killed runs left."""
    for left in Path(tempfile.gettempdir()).glob("zg-test-*/pg/in-use"):
        if time.time() - left.stat().st_mtime < LEFT_S:
            continue
        old = Cluster(left.parent, fast=True)
        try:
            old.take()
        except Stop:  # somebody has it
            continue
        old.stop()
        old.release()
        shutil.rmtree(left.parent.parent, ignore_errors=True)


@cache
def cluster() -> Cluster:
    """The run's cluster, stopped and removed at the end."""
    _sweep()
    folder = Path(tempfile.mkdtemp(prefix="zg-test-"))
    folder.chmod(0o755)
    c = Cluster(folder / "pg", fast=True)
    c.create()
    c.start()

    def away() -> None:
        c.stop()
        c.release()
        shutil.rmtree(folder, ignore_errors=True)

    atexit.register(away)
    return c


def _admin(sql: str) -> None:
    with psycopg.connect(cluster().url("postgres"), autocommit=True) as k:
        k.execute(sql)


@cache
def _template(demo: bool) -> str:
    name = "template_demo" if demo else "template_empty"
    if demo:
        _admin(f"create database {name} template {_template(False)}")
        engine = make_engine(cluster().url(name))
        load_demo(make_sessions(engine, **{seals.KEYS: seals.keys_from(SECRET)}))
        engine.dispose()
    else:
        _admin(f"create database {name}")
        migrate(cluster().url(name))
    return name


def fresh(demo: bool = True) -> str:
    """Address of a new database, with the demo firm or empty but migrated."""
    name = f"t_{uuid4().hex[:12]}"
    _admin(f"create database {name} template {_template(demo)}")
    return cluster().url(name)
