"""``./zesty bench firm``: a firm of 100,000 homes, a million readings and 200,000 fitted parts, and
how long its lists take, beside a route that does next to nothing.
"""

from __future__ import annotations

import gzip
import http.client
import json
import shutil
import statistics
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Engine, text

from zesty_glass.demo.homes import uid
from zesty_glass.records.db import make_engine, make_sessions, migrate
from zesty_glass.work.jobs import job_id

from .served import durable, serving
from .signed import sign_in

HOMES, READINGS_EACH, PARTS_EACH = 100_000, 10, 2

#: each is one statement over ``:many`` homes of one firm, made from rows of the demo
_LOAD = (
    "create temporary table n as select g, gen_random_uuid() as home, gen_random_uuid() as visit,"
    " gen_random_uuid() as sample, gen_random_uuid() as proposal, gen_random_uuid() as job"
    " from generate_series(1, :many) g",
    "insert into homes (id, firm_id, customer, home, version) select n.home, h.firm_id,"
    " jsonb_build_object('name', 'Name' || md5(n.g::text) || ' Family' || n.g),"
    " h.home || jsonb_build_object('name', 'House ' || n.g, 'place', 'Area ' || n.g % 40), 1"
    " from n, homes h where h.id = :home",
    "insert into visits (id, firm_id, home_id, consultant_id, consultant, started_at, complaints,"
    " step, recommended, horizon, assumptions_off, note, settings, rules, version, request,"
    " brought, own_items) select n.visit, v.firm_id, n.home, v.consultant_id, v.consultant,"
    " v.started_at - n.g * interval '17 minutes', v.complaints, v.step, v.recommended, v.horizon,"
    " v.assumptions_off, v.note, '{}', '{}', 1, '', null, '[]' from n, visits v"
    " where v.id = :visit",
    "insert into samples (id, firm_id, visit_id, position, data, version) select n.sample,"
    " s.firm_id, n.visit, 0, s.data || jsonb_build_object('id', n.sample), 1 from n, samples s"
    " where s.id = :sample",
    "insert into readings (id, firm_id, visit_id, sample_id, position, data, struck_because)"
    " select gen_random_uuid(), r.firm_id, n.visit, n.sample, k, r.data, ''"
    " from n, readings r, generate_series(1, :readings) k where r.id = :reading",
    "insert into proposals (id, firm_id, visit_id, position, data, request, seal, seal_key,"
    " version) select n.proposal, p.firm_id, n.visit, 0, '{\"state\": \"accepted\"}', '', '', '', 1"
    " from n, proposals p where p.id = :proposal",
    "insert into jobs (id, firm_id, visit_id, home_id, proposal_id, planned_on, data, summary,"
    " version)"
    " select n.job, j.firm_id, n.visit, n.home, n.proposal, current_date - n.g % 900, j.data,"
    " j.summary, 1"
    " from n, jobs j where j.id = :job",
    "insert into dues (job_id, key, firm_id, due_on, stage, label, kind, own, minutes)"
    " select n.job, 'k' || k, d.firm_id, current_date + (n.g * 7 + k * 131) % 720 - 30, d.stage,"
    " d.label, d.kind, d.own, d.minutes from n, (select * from dues where job_id = :job limit 1) d,"
    " generate_series(1, :parts) k",
    "insert into served (job_id, key, time, firm_id, home_id, label, kind, months, days)"
    " select n.job, s.key, s.time, s.firm_id, n.home, s.label, s.kind, s.months, s.days"
    " from n, served s where s.job_id = :job",
    "insert into proved (job_id, analyte, firm_id, home_id, kind, item, verdict, short_by)"
    " select n.job, 'hardness', v.firm_id, n.home, 'softener', 'Item ' || n.g % 50,"
    " case when n.g % 9 = 0 then 'short' else 'as promised' end,"
    " case when n.g % 9 = 0 then 0.1 end from n, visits v where v.id = :visit",
    # one home with twenty visits over ten years
    "update visits set home_id = :home, started_at = now() - interval '6 months' * x.k from"
    " (select n.visit, row_number() over (order by n.g) as k from n limit 20) x"
    " where visits.id = x.visit",
)


def _rows(connection: Connection) -> dict[str, Any]:
    """Rows of the demo that the firm is made from."""
    visit = UUID(uid("past-1-" + uid("home-1-visit")))
    one = connection.execute(
        text(
            "select v.home_id, (select id from samples where visit_id = v.id limit 1) as sample,"
            " (select id from readings where visit_id = v.id limit 1) as reading"
            " from visits v where v.id = :visit"
        ),
        {"visit": visit},
    ).one()
    proposal = UUID(uid("past-3-proposal"))
    return {
        "many": HOMES,
        "readings": READINGS_EACH,
        "parts": PARTS_EACH,
        "visit": visit,
        "home": one.home_id,
        "sample": one.sample,
        "reading": one.reading,
        "proposal": proposal,
        "job": job_id(proposal),
    }


def _timed(ask: Callable[[int], Any], many: int = 100) -> dict[str, float]:
    for n in range(3):
        ask(n)
    took = []
    for n in range(many):
        begun = time.perf_counter()
        ask(n)
        took.append((time.perf_counter() - begun) * 1000)
    return _spread(took)


def _spread(took: list[float]) -> dict[str, float]:
    took = sorted(took)
    return {
        "median_ms": round(statistics.median(took), 2),
        "p95_ms": round(took[int(0.95 * len(took)) - 1], 2),
    }


class Asking:
    """A page's requests on one kept connection to a server of its own."""

    def __init__(self, port: int) -> None:
        self._signed = sign_in(port)
        self._c = self._signed.connect()

    def get(self, path: str, etag: str = "") -> http.client.HTTPResponse:
        """Ask for something; the body is read, and kept in ``said``."""
        return self._ask("GET", path, None, {"If-None-Match": etag} if etag else {})

    def send(self, method: str, path: str, body: Any) -> Any:
        """Send something and read the answer."""
        self._ask(method, path, json.dumps(body).encode(), {"Content-Type": "application/json"})
        return self.json()

    def json(self) -> Any:
        """The last answer."""
        return json.loads(gzip.decompress(self.said) if self.packed else self.said)

    def _ask(
        self, method: str, path: str, body: bytes | None, more: dict[str, str]
    ) -> http.client.HTTPResponse:
        own = {"Cookie": self._signed.cookie, "X-Zesty-Token": self._signed.token}
        self._c.request(method, path, body, own | {"Accept-Encoding": "gzip"} | more)
        r = self._c.getresponse()
        self.said = r.read()
        self.packed = r.getheader("content-encoding") == "gzip"
        if r.status not in (200, 201, 304):
            raise RuntimeError(f"{method} {path}: {r.status} {self.said[:200]!r}")
        return r


@contextmanager
def _firm() -> Iterator[tuple[Asking, Engine, dict[str, Any], float]]:
    from zesty_glass.demo.load import load_demo

    folder = Path(tempfile.mkdtemp(prefix="zg-bench-"))
    try:
        with durable(folder) as url:
            migrate(url)
            engine = make_engine(url)
            load_demo(make_sessions(engine))
            begun = time.perf_counter()
            with engine.begin() as connection:
                rows = _rows(connection)
                for statement in _LOAD:
                    connection.execute(text(statement), rows)
            with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
                connection.execute(text("vacuum analyze"))
            loaded = time.perf_counter() - begun
            with serving(url, 1) as (port, _):
                yield Asking(port), engine, rows, loaded
            engine.dispose()
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _bare_insert(engine: Engine) -> Callable[[int], Any]:
    """One row, committed, with nothing around it."""
    with engine.begin() as c:
        c.execute(text("create table bare (id uuid primary key, data jsonb)"))
    said = text("insert into bare values (:id, cast(:data as jsonb))")

    def ask(_: int) -> None:
        with engine.begin() as c:
            c.execute(said, {"id": uuid4(), "data": "{}"})

    return ask


def _bare_query(engine: Engine, home: UUID) -> Callable[[int], Any]:
    """One row by its key, with nothing around it."""
    said = text("select customer from homes where id = :id")

    def ask(_: int) -> None:
        with engine.connect() as c:
            c.execute(said, {"id": home}).one()

    return ask


def _saves(page: Asking) -> Callable[[int], Any]:
    """A reading of a visit, as the page sends it."""
    visit = uid("home-7-visit")
    page.get(f"/api/visits/{visit}")
    sample = next(x for x in page.json()["visit"]["samples"] if x["raw"])
    like = next(r for r in sample["readings"] if r["analyte"] == "hardness")
    made = time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime())

    def ask(_: int) -> None:
        body = {**like, "id": str(uuid4()), "made_at": made}
        path = f"/api/visits/{visit}/samples/{sample['id']}/readings/{body['id']}"
        page.send("PUT", path, body)

    return ask


def _opens(page: Asking) -> dict[str, Any]:
    """A visit opened: worked out anew after a reading, given again, and not changed."""
    save, path = _saves(page), f"/api/visits/{uid('home-1-visit')}"
    etag = page.get(path).getheader("etag") or ""
    home, visit = page.json(), uid("home-1-visit")
    body = {"customer": home["visit"]["customer"]}
    version = [home["versions"]["home"]]

    def changed(n: int) -> None:
        new = {**home["visit"]["home"], "people": 3 + n % 2}
        sent = {**body, "version": version[0], "home": new}
        version[0] = page.send("PUT", f"/api/visits/{visit}/home", sent)["version"]

    def anew(many: int = 40) -> dict[str, float]:
        took = []
        for n in range(many):
            changed(n)
            begun = time.perf_counter()
            page.get(path)
            took.append((time.perf_counter() - begun) * 1000)
        return _spread(took)

    return {
        "save_a_reading": _timed(save, 100),
        "open_a_visit_again": _timed(lambda _: page.get(path), 100),
        "open_a_visit_not_changed": _timed(lambda _: page.get(path, etag), 100),
        "open_a_visit_after_a_change": anew(),
    }


def firm() -> dict[str, Any]:
    """The figures of a large firm, asked of a server of one process."""
    with _firm() as (page, engine, rows, loaded):
        get = page.get
        feed = page.send("POST", "/api/feeds", {"id": str(uuid4())})["path"]
        week = time.strftime("%Y-%m-%d", time.localtime(time.time() + 7 * 86_400))
        day = time.strftime("%Y-%m-%dT09:00:00Z", time.localtime(time.time() - 30 * 86_400))
        return {
            "homes": HOMES,
            "readings": HOMES * READINGS_EACH,
            "fitted_parts": HOMES * PARTS_EACH,
            "loading_s": round(loaded, 1),
            "bare_route": _timed(lambda n: get("/api/health")),
            "bare_indexed_query": _timed(_bare_query(engine, rows["home"]), 200),
            "bare_insert": _timed(_bare_insert(engine), 200),
            **_opens(page),
            "a_days_visits": _timed(lambda n: get(f"/api/visits?day={day}")),
            "find_a_home": _timed(lambda n: get(f"/api/homes?find=family{n * 37 + 1000}")),
            "homes_first_page": _timed(lambda n: get("/api/homes"), 30),
            "homes_by_what_is_due": _timed(lambda n: get("/api/homes?due=14"), 20),
            "homes_by_what_was_fitted": _timed(
                lambda n: get("/api/homes?fitted=softener&place=Cinderlow"), 20
            ),
            "due_within_a_week": _timed(lambda n: get(f"/api/due?until={week}"), 40),
            "home_over_ten_years": _timed(lambda n: get(f"/api/homes/{rows['home']}/years"), 40),
            "track_record": _timed(lambda n: get("/api/track"), 5),
            "parts_and_outcomes": _timed(lambda n: get("/api/track/more"), 5),
            "calendar_of_a_person": _timed(lambda n: get(feed), 20),
        }
