"""``./zesty restore FILE``: a backup into an empty database, all of it or nothing, and counted."""

from __future__ import annotations

import argparse
import json
import shutil
import sys
import tarfile
import tempfile
from pathlib import Path
from typing import Any

from psycopg.conninfo import conninfo_to_dict
from sqlalchemy import text

from ..records.db import known_shapes, make_engine, newest, plain_url
from .backup import CHECKSUM, DUMP, MANIFEST, checksum, counted, digest, program, run
from .say import Stop, guarded, step
from .settings import database

LARGEST_MANIFEST = 1_000_000  # [bytes]


def _small(tar: tarfile.TarFile, name: str) -> bytes:
    """A small file of a backup, whole."""
    info = tar.getmember(name)
    part = tar.extractfile(info)
    if part is None or info.size > LARGEST_MANIFEST:
        raise KeyError(name)
    return part.read()


def _opened(file: Path, into: Path) -> dict[str, Any]:
    """The manifest, with the dump laid into a folder and checked."""
    try:
        with tarfile.open(file) as tar:
            manifest = _small(tar, MANIFEST)
            if CHECKSUM in tar.getnames() and _small(tar, CHECKSUM).decode() != checksum(manifest):
                raise Stop(f"{file.name} is damaged: its manifest was changed. Take another.")
            told: dict[str, Any] = json.loads(manifest)
            part = tar.extractfile(DUMP)
            if part is None:
                raise KeyError(DUMP)
            with (into / DUMP).open("wb") as dump:
                shutil.copyfileobj(part, dump)
    except (tarfile.TarError, KeyError, ValueError) as e:
        raise Stop(f"{file.name} is no backup made by ./zesty backup.") from e
    if digest(into / DUMP) != told.get("sha256"):
        raise Stop(f"{file.name} is damaged: its checksum does not fit. Take another backup.")
    if told.get("shape") not in known_shapes():
        raise Stop(
            f"{file.name} has shape {told.get('shape')}, which is newer than this program"
            f" ({newest()}). Use the program it was made with ({told.get('version')}), or a newer."
        )
    return told


def restore(url: str, file: Path) -> dict[str, int]:
    """Read a backup into an empty database; rows by table.

    Raises:
        Stop: the file is none or damaged, the database is not empty, or what was read does not
            count up.
    """
    engine = make_engine(url)
    try:
        with engine.connect() as c:
            if counted(c):
                raise Stop(
                    "The database is not empty: nothing was restored. Make a new one"
                    " (createdb), and name it in ZESTY_DATABASE."
                )
        with tempfile.TemporaryDirectory() as d:
            told = _opened(file, Path(d))
            run(
                url,
                program("pg_restore"),
                "--no-owner",
                "--no-privileges",
                "--exit-on-error",
                "--single-transaction",
                f"--dbname={conninfo_to_dict(plain_url(url))['dbname']}",
                str(Path(d, DUMP)),
            )
        with engine.connect() as c:
            rows = counted(c)
            c.execute(text("select 1"))
    finally:
        engine.dispose()
    if rows != told["rows"]:
        short = [n for n, many in told["rows"].items() if rows.get(n) != many]
        raise Stop(f"Rows do not count up in: {', '.join(short)}. Do not use this database.")
    return rows


def main(arguments: list[str]) -> int:
    """Restore."""
    parser = argparse.ArgumentParser(prog="./zesty restore")
    parser.add_argument("file", type=Path, help="a file made by ./zesty backup")
    file: Path = parser.parse_args(arguments).file
    rows = restore(database(), file)
    step(f"{sum(rows.values()):,} rows of {len(rows)} tables were restored, and counted")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
