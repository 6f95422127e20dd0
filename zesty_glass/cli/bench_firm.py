"""``./zesty bench firm``: a firm of 100,000 homes, a million readings and 200,000 fitted parts, and
how long its lists take, beside a route that does next to nothing.
"""

from __future__ import annotations

import shutil
import statistics
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, text

from ..demo.homes import uid
from ..demo.people import EMAIL, PASSWORD
from ..records.db import migrate
from ..work.jobs import job_id
from .cluster import Cluster
from .machine import ROOT

SECRET = "a secret for measuring only, long enough"

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


@contextmanager
def _firm() -> Iterator[tuple[Any, dict[str, Any], float]]:
    sys.path.insert(0, str(ROOT))
    from starlette.testclient import TestClient

    from zesty_glass.api.app import create_app
    from zesty_glass.demo.load import load_demo

    folder = Path(tempfile.mkdtemp(prefix="zg-bench-"))
    folder.chmod(0o755)
    cluster = Cluster(folder / "pg")  # durable, as a firm's own
    cluster.create()
    cluster.start()
    url = cluster.url("postgres")
    migrate(url)
    app = create_app(url, SECRET, secure_cookie=False)
    load_demo(app.state.sessions)
    begun = time.perf_counter()
    with app.state.engine.begin() as connection:
        rows = _rows(connection)
        for statement in _LOAD:
            connection.execute(text(statement), rows)
    with app.state.engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("vacuum analyze"))
    loaded = time.perf_counter() - begun
    client = TestClient(app)
    me = client.post("/api/session", json={"email": EMAIL, "password": PASSWORD}).json()
    client.headers["X-Zesty-Token"] = me["token"]
    try:
        yield client, rows, loaded
    finally:
        app.state.engine.dispose()
        cluster.stop()
        cluster.release()
        shutil.rmtree(folder, ignore_errors=True)


def _bare_insert(client: Any) -> Callable[[int], Any]:
    """One row, committed, with nothing around it."""
    engine = client.app.state.engine
    with engine.begin() as c:
        c.execute(text("create table bare (id uuid primary key, data jsonb)"))
    said = text("insert into bare values (:id, cast(:data as jsonb))")

    def ask(_: int) -> None:
        with engine.begin() as c:
            c.execute(said, {"id": uuid4(), "data": "{}"})

    return ask


def _bare_query(client: Any, home: UUID) -> Callable[[int], Any]:
    """One row by its key, with nothing around it."""
    engine = client.app.state.engine
    said = text("select customer from homes where id = :id")

    def ask(_: int) -> None:
        with engine.connect() as c:
            c.execute(said, {"id": home}).one()

    return ask


def _saves(client: Any) -> Callable[[int], Any]:
    """A reading of a visit, as the page sends it."""
    visit = uid("home-7-visit")
    view = client.get(f"/api/visits/{visit}").json()["visit"]
    sample = next(x for x in view["samples"] if x["raw"])
    like = next(r for r in sample["readings"] if r["analyte"] == "hardness")
    made = time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime())

    def ask(_: int) -> None:
        body = {**like, "id": str(uuid4()), "made_at": made}
        path = f"/api/visits/{visit}/samples/{sample['id']}/readings/{body['id']}"
        r = client.put(path, json=body)
        if r.status_code != 200:
            raise RuntimeError(r.text[:200])

    return ask


def _opens(client: Any) -> dict[str, Any]:
    """A visit opened: worked out anew after a reading, given again, and not changed."""
    save, path = _saves(client), f"/api/visits/{uid('home-1-visit')}"
    home, visit = client.get(path).json(), uid("home-1-visit")
    body = {"customer": home["visit"]["customer"]}
    etag = client.get(path).headers["etag"]
    version = [home["versions"]["home"]]

    def changed(n: int) -> None:
        new = {**home["visit"]["home"], "people": 3 + n % 2}
        sent = {**body, "version": version[0], "home": new}
        version[0] = client.put(f"/api/visits/{visit}/home", json=sent).json()["version"]

    def anew(many: int = 40) -> dict[str, float]:
        took = []
        for n in range(many):
            changed(n)
            begun = time.perf_counter()
            client.get(path)
            took.append((time.perf_counter() - begun) * 1000)
        return _spread(took)

    return {
        "save_a_reading": _timed(save, 100),
        "open_a_visit_again": _timed(lambda _: client.get(path), 100),
        "open_a_visit_not_changed": _timed(
            lambda _: client.get(path, headers={"If-None-Match": etag}), 100
        ),
        "open_a_visit_after_a_change": anew(),
    }


def firm() -> dict[str, Any]:
    """The figures of a large firm."""
    with _firm() as (client, rows, loaded):

        def get(path: str) -> Any:
            r = client.get(path)
            if r.status_code != 200:
                raise RuntimeError(f"{path}: {r.status_code} {r.text[:200]}")
            return r

        feed = client.post("/api/feeds", json={"id": str(uuid4())}).json()["path"]
        week = time.strftime("%Y-%m-%d", time.localtime(time.time() + 7 * 86_400))
        day = time.strftime("%Y-%m-%dT09:00:00Z", time.localtime(time.time() - 30 * 86_400))
        return {
            "homes": HOMES,
            "readings": HOMES * READINGS_EACH,
            "fitted_parts": HOMES * PARTS_EACH,
            "loading_s": round(loaded, 1),
            "bare_route": _timed(lambda n: get("/api/health")),
            "bare_indexed_query": _timed(_bare_query(client, rows["home"]), 200),
            "bare_insert": _timed(_bare_insert(client), 200),
            **_opens(client),
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
