"""No query without an index at size: every statement that the routes make is explained with scans
of whole tables forbidden, and none is left that knows no other way.
"""

import json
import unittest
from datetime import date, timedelta
from uuid import UUID

from sqlalchemy import event, text

from tests.api.client import HOME_1, HOME_2, ApiCase
from zesty_glass.demo.homes import uid
from zesty_glass.work.jobs import job_id

#: tables that grow with the firm's years; the others hold a firm's people, kits and items
GROWS = frozenset(
    {
        "homes",
        "visits",
        "samples",
        "readings",
        "lab_samples",
        "demonstrations",
        "options",
        "proposals",
        "links",
        "mails",
        "jobs",
        "dues",
        "proved",
        "served",
        "audit",
    }
)


def scans(plan: dict) -> list[str]:
    """Tables of a plan that are read whole: without an index, or through one unasked."""
    kind, table = plan.get("Node Type", ""), plan.get("Relation Name", "")
    found = []
    if table in GROWS:
        narrowed = plan.get("Index Cond") or plan.get("Recheck Cond") or plan.get("TID Cond")
        ordered = kind in ("Index Scan", "Index Only Scan") and plan.get("limited")
        if not narrowed and not ordered:
            found.append(f"{kind} of {table}")
    for inner in plan.get("Plans", ()):
        limited = kind == "Limit" or plan.get("limited")
        found += scans({**inner, "limited": limited})
    return found


class Explained(ApiCase):
    def paths(self) -> list[str]:
        week = (date.today() + timedelta(days=7)).isoformat()
        day = date.today().isoformat()
        home = self.get("/api/homes")["homes"][0]["id"]
        job = job_id(UUID(uid("home-2-proposal")))
        return [
            "/api/visits",
            f"/api/visits?day={day}T09:00:00Z",
            f"/api/visits/{HOME_1}",
            f"/api/visits/{HOME_1}/comparison",
            f"/api/visits/{HOME_2}/proposals",
            f"/api/proposals/{uid('home-1-proposal')}",
            f"/api/proposals/{uid('home-1-proposal')}/links",
            "/api/outbox",
            "/api/track/more",
            "/api/track/jobs?kind=softener&item=x&analyte=hardness",
            "/api/track/waters",
            "/api/track/parts?label=x&kind=filter",
            "/api/track/proposals?year=2026&quarter=3&state=accepted",
            "/api/homes",
            "/api/homes?find=marl&place=Marl",
            "/api/homes?fitted=softener&due=60",
            f"/api/homes/{home}/years",
            f"/api/due?until={week}",
            "/api/waiting",
            f"/api/jobs/{job}",
            "/api/jobs",
            "/api/feeds",
            "/api/session",
        ]

    def asked(self) -> dict[str, tuple[str, object]]:
        """Every statement that the routes make, with values of one call and its route."""
        seen: dict[str, tuple[str, object]] = {}
        now = [""]

        def keep(conn, cursor, statement, parameters, context, many):
            if statement.lstrip().lower().startswith(("select", "with")):
                seen.setdefault(statement, (now[0], parameters))

        engine = self.app.state.engine
        event.listen(engine, "before_cursor_execute", keep)
        try:
            for path in self.paths():
                now[0] = path
                r = self.client.get(path)
                self.assertIn(r.status_code, (200, 404, 405, 422), f"{path}: {r.text[:200]}")
        finally:
            event.remove(engine, "before_cursor_execute", keep)
        return seen

    def whole(self, statements: dict[str, tuple[str, object]]) -> dict[str, list[str]]:
        """Statements that read a table whole, with their routes."""
        bad = {}
        raw = self.app.state.engine.raw_connection()
        try:
            cursor = raw.cursor()
            cursor.execute("set enable_seqscan = off")
            for statement, (path, parameters) in statements.items():
                cursor.execute("explain (format json) " + statement, parameters)
                plan = cursor.fetchone()[0]
                plan = json.loads(plan) if isinstance(plan, str) else plan
                if found := scans(plan[0]["Plan"]):
                    bad[f"{path}: {statement[:160]}"] = found
        finally:
            raw.rollback()
            raw.close()
        return bad

    def test_no_statement_reads_a_growing_table_whole(self):
        statements = self.asked()
        self.assertGreater(len(statements), 20)
        self.assertEqual(self.whole(statements), {})

    def test_one_that_does_is_told(self):
        for statement in (
            "select id from readings where data->>'analyte' = 'iron'",
            "select count(*) from homes",
            "select v.id from visits v join homes h on h.id = v.home_id where v.step = 'x'",
        ):
            self.assertTrue(self.whole({statement: ("by hand", None)}), statement)

    def test_the_tables_that_grow_are_there(self):
        with self.app.state.engine.connect() as c:
            there = set(
                c.scalars(text("select tablename from pg_tables where schemaname = 'public'"))
            )
        self.assertLessEqual(GROWS, there)


if __name__ == "__main__":
    unittest.main()
