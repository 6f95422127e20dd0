"""``./zesty bench trouble``: consultants at work while the database is stopped for some seconds,
and while its disk is full for some. Devices keep what was not acknowledged and send it again, as
the page does; what was acknowledged is counted afterward.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import tempfile
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from zesty_glass.cli.cluster import Cluster
from zesty_glass.cli.say import Stop
from zesty_glass.records.db import make_engine, make_sessions, migrate

from .bench_morning import PROCESSES, missing, morning_of, visits_of
from .served import serving
from .signed import sign_in

SECONDS, AT_S, LASTS_S = 24.0, 6.0, 5.0
DISK_MB = 900  # of the disk that becomes full
LEFT_KB = 64  # that are left on it


@contextmanager
def _small_disk(folder: Path) -> Iterator[Path | None]:
    """A disk of its own in memory; None where this user may not mount one."""
    place = folder / "disk"
    place.mkdir()
    size = f"size={DISK_MB}m"
    mounted = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", size, "tmpfs", str(place)], capture_output=True
    )
    if os.geteuid() != 0 or mounted.returncode:
        yield None
        return
    try:
        place.chmod(0o755)
        yield place
    finally:
        subprocess.run(["umount", "-l", str(place)], capture_output=True)


def _fill(place: Path) -> None:
    """Take what room a disk has, but for some kilobytes."""
    left = shutil.disk_usage(place).free - 1024 * LEFT_KB
    with (place / "ballast").open("wb") as ballast:
        os.posix_fallocate(ballast.fileno(), 0, max(1, left))


def _up_again(cluster: Cluster) -> None:
    """Start the database where it had been, unless it never went down."""
    try:
        cluster.start(cluster.port)
    except Stop:
        cluster.start(cluster.port)  # it was still on its way down


def _during(
    folder: Path, start: Callable[[Cluster], None], end: Callable[[Cluster], None]
) -> dict[str, Any]:
    """A morning on a database in a folder, with trouble from ``start`` to ``end``."""
    from zesty_glass.demo.load import load_demo

    folder.chmod(0o755)
    cluster = Cluster(folder / "pg")
    cluster.create()
    cluster.start()
    try:
        url = cluster.url("postgres")
        migrate(url)
        engine = make_engine(url)
        load_demo(make_sessions(engine))
        engine.dispose()
        with serving(url, PROCESSES) as (port, _):
            signed = sign_in(port)
            visits = visits_of(signed)
            timers = (
                threading.Timer(AT_S, start, (cluster,)),
                threading.Timer(AT_S + LASTS_S, end, (cluster,)),
            )
            for t in timers:
                t.start()
            tally = morning_of(signed, visits, SECONDS, patient=True)
            for t in timers:
                t.join()
            return tally.shown() | {"acknowledged_and_missing": missing(url, tally.acknowledged)}
    finally:
        cluster.stop()
        cluster.release()


def _made_room(place: Path, cluster: Cluster) -> None:
    (place / "ballast").unlink()
    if not cluster.runs():  # it ends by itself where its log cannot be written
        _up_again(cluster)


def trouble() -> dict[str, Any]:
    """A database that is stopped, and a disk that is full, each for some seconds of a morning."""
    folder = Path(tempfile.mkdtemp(prefix="zg-trouble-"))
    folder.chmod(0o755)
    said: dict[str, Any] = {"seconds": SECONDS, "trouble_from_s": AT_S, "trouble_lasts_s": LASTS_S}
    try:
        stopped = folder / "stopped"
        stopped.mkdir()
        said["database_stopped"] = _during(stopped, Cluster.stop, _up_again)
        with _small_disk(folder) as place:
            said["disk_full"] = (
                "not tried: mounting a small disk wants root"
                if place is None
                else _during(place, lambda _: _fill(place), lambda c: _made_room(place, c))
            )
        return said
    finally:
        shutil.rmtree(folder, ignore_errors=True)
