"""``./zesty bench morning``: two hundred consultants on two processes for a minute, each with a
visit of their own; then the same with a process killed in the middle. What was acknowledged is
counted afterward: nothing of it may be missing.
"""

from __future__ import annotations

import http.client
import json
import os
import random
import re
import shutil
import signal
import statistics
import subprocess
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import uuid4

from sqlalchemy import text

from zesty_glass.demo.homes import home_1, uid
from zesty_glass.documents import visit_file
from zesty_glass.records.db import make_engine, make_sessions, migrate

from .served import durable, serving
from .signed import Signed, sign_in

CONSULTANTS, PROCESSES = 200, 2
MORNING_S, KILLED_S, KILL_AT_S = 60.0, 20.0, 6.0
THINKS_S = 6.0  # mean between two touches of one consultant that ask the server
#: of a hundred touches
MIX = {"reading": 46, "open": 40, "comparison": 7, "day": 5, "pdf": 2}
#: whose PDFs are asked for: an offer is written once, and read again by telephone and by mail
PAPERS = ("home-1-proposal", "home-2-proposal", *(f"past-{n}-proposal" for n in (1, 2, 3, 4)))
_ID = rb"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}"
_TRIES = 40  # a device asks again until it is answered, as the page does


@dataclass
class Tally:
    """What came of the touches: milliseconds by kind, errors in words, readings acknowledged."""

    took: dict[str, list[float]] = field(default_factory=dict)
    errors: Counter[str] = field(default_factory=Counter)
    acknowledged: set[str] = field(default_factory=set)
    asked_again: int = 0  # after a broken connection or, where one is patient, a 503

    def shown(self) -> dict[str, Any]:
        """Figures as they are printed."""
        every = sorted(ms for took in self.took.values() for ms in took)
        return {
            "requests": len(every),
            "all": _spread(every),
            **{kind: _spread(sorted(took)) for kind, took in sorted(self.took.items())},
            "errors": dict(self.errors),
            "asked_again": self.asked_again,
            "readings_acknowledged": len(self.acknowledged),
        }


def _spread(took: list[float]) -> dict[str, float]:
    if not took:
        return {}
    at = took[min(len(took) - 1, int(0.95 * len(took)))]
    return {
        "count": len(took),
        "median_ms": round(statistics.median(took), 1),
        "p95_ms": round(at, 1),
        "most_ms": round(took[-1], 1),
    }


def visits_of(signed: Signed) -> list[tuple[str, str, dict[str, Any]]]:
    """A visit for each consultant: its id, its raw glass, and a reading to keep again."""
    written = visit_file.write(home_1(datetime(2026, 11, 20, 9, 0, tzinfo=UTC)))
    c, out = signed.connect(), []
    for n in range(CONSULTANTS):
        own = re.sub(_ID, lambda m: uid(f"morning {n} {m[0]!r}").encode(), written)  # noqa: B023
        status, body = signed.ask(c, "POST", "/api/visits/import", own)
        if status != 201:
            raise RuntimeError(f"import: {status} {body[:300]!r}")
        id = json.loads(body)["id"]
        view = json.loads(signed.ask(c, "GET", f"/api/visits/{id}", plain=True)[1])
        raw = next(s for s in view["visit"]["samples"] if s["raw"])
        out.append((id, raw["id"], next(r for r in raw["readings"] if r["analyte"] == "tds")))
    return out


class Consultant(threading.Thread):
    """One person's morning: touches, with a while of talking between them."""

    def __init__(
        self,
        n: int,
        signed: Signed,
        visit: tuple[str, str, dict[str, Any]],
        until: float,
        tally: Tally,
        lock: threading.Lock,
        patient: bool,
    ) -> None:
        super().__init__(daemon=True)
        self._chance = random.Random(n)
        self._signed, self._visit, self._until = signed, visit, until
        self._tally, self._lock, self._patient = tally, lock, patient

    def run(self) -> None:
        """Touches until the morning is over."""
        c = self._signed.connect()
        time.sleep(self._chance.uniform(0, THINKS_S))
        while time.monotonic() < self._until:
            kind = self._chance.choices(list(MIX), list(MIX.values()))[0]
            c = self._touch(c, kind)
            time.sleep(self._chance.expovariate(1 / THINKS_S))

    def _asked(self, kind: str) -> tuple[str, str, bytes | None, str]:
        """Method, address, body and the reading's id of a touch."""
        visit, sample, reading = self._visit
        match kind:
            case "reading":
                id = str(uuid4())
                body = json.dumps(reading | {"id": id}).encode()
                path = f"/api/visits/{visit}/samples/{sample}/readings/{id}"
                return "PUT", path, body, id
            case "open":
                return "GET", f"/api/visits/{visit}", None, ""
            case "comparison":
                return "GET", f"/api/visits/{visit}/comparison?years=10", None, ""
            case "pdf":
                return "GET", f"/api/proposals/{uid(self._chance.choice(PAPERS))}/pdf", None, ""
        return "GET", "/api/visits", None, ""

    def _touch(self, c: http.client.HTTPConnection, kind: str) -> http.client.HTTPConnection:
        method, path, body, id = self._asked(kind)
        begun, again = time.perf_counter(), 0
        status, said = 0, b""
        while again < _TRIES:
            try:
                status, said = self._signed.ask(c, method, path, body)
                if not (self._patient and status == 503):
                    break
                again += 1
                time.sleep(0.4)
            except (OSError, http.client.HTTPException):
                again += 1
                c.close()
                c = self._signed.connect()
                time.sleep(0.1)
        ms = 1000 * (time.perf_counter() - begun)
        with self._lock:
            self._tally.took.setdefault(kind, []).append(ms)
            self._tally.asked_again += again
            if status not in (200, 201, 304):
                self._tally.errors[f"{kind}: {status} {said[:80]!r}"] += 1
            elif id:
                self._tally.acknowledged.add(id)
        return c


def morning_of(
    signed: Signed,
    visits: list[tuple[str, str, dict[str, Any]]],
    seconds: float,
    patient: bool = False,
) -> Tally:
    """All consultants at once, for so long; patient ones ask again where the server could not take
    it just now, as the page does.
    """
    tally, lock = Tally(), threading.Lock()
    until = time.monotonic() + seconds
    people = [Consultant(n, signed, v, until, tally, lock, patient) for n, v in enumerate(visits)]
    for p in people:
        p.start()
    for p in people:
        p.join(seconds + 60)
    return tally


def missing(url: str, acknowledged: set[str]) -> int:
    """How many acknowledged readings the database does not hold."""
    engine = make_engine(url)
    with engine.connect() as db:
        rows = db.execute(
            text("select id from readings where id = any(cast(:ids as uuid[]))"),
            {"ids": sorted(acknowledged)},
        )
        missing = acknowledged - {str(r.id) for r in rows}
    engine.dispose()
    return len(missing)


@contextmanager
def _served(folder: Path) -> Iterator[tuple[str, int, subprocess.Popen[bytes]]]:
    """A durable database with the demo's firm, and the server on two processes."""
    from zesty_glass.demo.load import load_demo

    with durable(folder) as url:
        migrate(url)
        engine = make_engine(url)
        load_demo(make_sessions(engine))
        engine.dispose()
        with serving(url, PROCESSES) as (port, process):
            yield url, port, process


def _one_process(parent: int) -> int:
    """A serving process under the one that watches over them."""
    children = Path(f"/proc/{parent}/task/{parent}/children").read_text().split()
    serving = [int(p) for p in children if b"spawn_main" in Path(f"/proc/{p}/cmdline").read_bytes()]
    return serving[-1]


def morning() -> dict[str, Any]:
    """A morning of many consultants, then one in which a process is killed."""
    folder = Path(tempfile.mkdtemp(prefix="zg-morning-"))
    try:
        with _served(folder) as (url, port, process):
            signed = sign_in(port)
            visits = visits_of(signed)
            calm = morning_of(signed, visits, MORNING_S)
            kill = threading.Timer(
                KILL_AT_S, lambda: os.kill(_one_process(process.pid), signal.SIGKILL)
            )
            kill.start()
            killed = morning_of(signed, visits, KILLED_S)
            kill.join()
            return {
                "consultants": CONSULTANTS,
                "processes": PROCESSES,
                "mean_between_touches_s": THINKS_S,
                "morning": calm.shown()
                | {"acknowledged_and_missing": missing(url, calm.acknowledged)},
                "a_process_killed": killed.shown()
                | {"acknowledged_and_missing": missing(url, killed.acknowledged)},
            }
    finally:
        shutil.rmtree(folder, ignore_errors=True)
