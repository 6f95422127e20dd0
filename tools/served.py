"""A durable database and a server of its own, for what is measured."""

from __future__ import annotations

import http.client
import os
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from zesty_glass.cli.cluster import Cluster, free_port
from zesty_glass.cli.machine import ROOT

SECRET = "a secret for measuring only, long enough"


@contextmanager
def durable(folder: Path) -> Iterator[str]:
    """The address of an empty database that keeps what it acknowledges, as a firm's own does."""
    folder.chmod(0o755)
    cluster = Cluster(folder / "pg")
    cluster.create()
    cluster.start()
    try:
        yield cluster.url("postgres")
    finally:
        cluster.stop()
        cluster.release()


@contextmanager
def serving(url: str, processes: int) -> Iterator[tuple[int, subprocess.Popen[bytes]]]:
    """The server of a database, as ``./zesty serve`` starts it: its port, and its process."""
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "zesty_glass.cli.serve"],
        cwd=ROOT,
        env=os.environ
        | {
            "ZESTY_DATABASE": url,
            "ZESTY_SECRET": SECRET,
            "ZESTY_PORT": str(port),
            "ZESTY_WORKERS": str(processes),
            "ZESTY_INSECURE_COOKIE": "true",
        },
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        start_new_session=True,
    )
    try:
        _until_ready(port)
        yield port, process
    finally:
        os.killpg(process.pid, signal.SIGTERM)
        process.wait(30)


def _until_ready(port: int) -> None:
    end = time.monotonic() + 60
    while time.monotonic() < end:
        try:
            c = http.client.HTTPConnection("127.0.0.1", port, timeout=2)
            c.request("GET", "/readyz")
            if c.getresponse().status == 200:
                return
        except OSError:
            pass
        time.sleep(0.1)
    raise RuntimeError("the server did not start")
