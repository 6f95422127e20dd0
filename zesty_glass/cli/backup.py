"""``./zesty backup FILE``: the whole database in one file: a dump by pg_dump, and what belongs to
it.

The file is a tar of ``manifest.json`` (version, shape, rows of every table, SHA-256 of the dump)
and ``database.dump`` (pg_dump's custom format). Rows are counted in the snapshot that is dumped.
"""

from __future__ import annotations

import argparse
import hashlib
import io
import json
import os
import shutil
import subprocess
import sys
import tarfile
import tempfile
from datetime import UTC, datetime
from pathlib import Path

from psycopg.conninfo import conninfo_to_dict
from sqlalchemy import Connection, text

from .. import __version__
from ..records.db import make_engine, plain_url
from .cluster import programs
from .say import Stop, guarded, step
from .settings import database

DUMP, MANIFEST, CHECKSUM = "database.dump", "manifest.json", "manifest.json.sha256"


def program(name: str) -> str:
    """A program of PostgreSQL's client."""
    beside = programs() / name
    found = str(beside) if beside.exists() else shutil.which(name)
    if found is None:
        raise Stop(f"{name} is not installed. Run: sudo apt-get install postgresql-client")
    return found


def run(url: str, *command: str) -> None:
    """Run a program of PostgreSQL on a database. Its address goes by the environment, so that no
    list of processes shows a password; what it complains of is told.
    """
    known = conninfo_to_dict(plain_url(url))
    names = {"host": "PGHOST", "port": "PGPORT", "user": "PGUSER", "password": "PGPASSWORD"}
    found = {env: str(known[k]) for k, env in names.items() if known.get(k) is not None}
    found["PGDATABASE"] = str(known.get("dbname") or "")
    done = subprocess.run(command, capture_output=True, text=True, env=os.environ | found)
    if done.returncode:
        said = done.stderr.strip().splitlines()
        raise Stop(f"{Path(command[0]).name} did not work: {said[-1] if said else 'no reason'}")


def counted(c: Connection) -> dict[str, int]:
    """Rows of every table."""
    names = c.scalars(
        text("select tablename from pg_tables where schemaname = 'public' order by tablename")
    )
    return {n: c.execute(text(f'select count(*) from "{n}"')).scalar_one() for n in names}


def digest(path: Path) -> str:
    """SHA-256 of a file."""
    with path.open("rb") as f:
        return hashlib.file_digest(f, "sha256").hexdigest()


def back_up(url: str, target: Path) -> dict[str, int]:
    """Write a backup; the file appears when it is whole. Rows by table."""
    engine = make_engine(url)
    with tempfile.TemporaryDirectory(dir=target.parent) as d:
        dump = Path(d, DUMP)
        try:
            with engine.connect().execution_options(isolation_level="REPEATABLE READ") as c:
                snapshot = c.execute(text("select pg_export_snapshot()")).scalar_one()
                rows = counted(c)
                shape = c.scalar(text("select version_num from alembic_version"))
                run(
                    url,
                    program("pg_dump"),
                    "--format=custom",
                    "--no-owner",
                    "--no-privileges",
                    f"--snapshot={snapshot}",
                    f"--file={dump}",
                )
        finally:
            engine.dispose()
        told = {
            "program": "Zesty Glass",
            "version": __version__,
            "shape": shape,
            "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
            "rows": rows,
            "sha256": digest(dump),
        }
        whole = Path(d, "backup.tar")
        with tarfile.open(whole, "w") as tar:
            manifest = json.dumps(told, indent=1).encode()
            for name, data in ((MANIFEST, manifest), (CHECKSUM, checksum(manifest).encode())):
                info = tarfile.TarInfo(name)
                info.size = len(data)
                tar.addfile(info, io.BytesIO(data))
            tar.add(dump, DUMP)
        whole.chmod(0o600)
        whole.replace(target)
    return rows


def checksum(manifest: bytes) -> str:
    """What stands beside a manifest, so that a damaged one is told."""
    return hashlib.sha256(manifest).hexdigest()


def main(arguments: list[str]) -> int:
    """Back up."""
    parser = argparse.ArgumentParser(prog="./zesty backup")
    parser.add_argument("file", type=Path, help="where the backup goes; it must not exist yet")
    target: Path = parser.parse_args(arguments).file.absolute()
    if target.exists():
        raise Stop(f"{target} exists. Name another file, or take it away first.")
    rows = back_up(database(), target)
    step(f"{sum(rows.values()):,} rows of {len(rows)} tables are in {target}")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
