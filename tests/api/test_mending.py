"""Whatever is stored, the visit opens: what does not work out is left out, said, and
can be struck.
"""

import json
from uuid import UUID, uuid4

from sqlalchemy.exc import DBAPIError

from tests.api.client import HOME_1, ApiCase
from tests.database import SECRET
from zesty_glass.cli import audit as audit_command
from zesty_glass.cli import check
from zesty_glass.demo.homes import uid
from zesty_glass.records.models import (
    Audit,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    VisitRow,
)


class Opens(ApiCase):
    def spoil(self, kind, id, **changes):
        """What another program, or an older one, may have left in the database."""
        with self.app.state.sessions.begin() as db:
            row = db.get(kind, UUID(id))
            for name, value in changes.items():
                setattr(row, name, value)

    def with_readings(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        good = self.reading("hard-1", {"method": "drops", "drops": 9})
        bad = self.reading("hard-s", {"method": "pad", "pad": 2})
        for r in (good, bad):
            self.keep(visit, sample, r)
        return visit, sample, good, bad

    def test_a_bad_reading(self):
        visit, _, _, bad = self.with_readings()
        for observation in (
            {"method": "pad", "pad": 4000},
            {"method": "pad", "pad": None},
            {"method": "laboratory", "value": 1e308, "unit": "mg/L"},
            {"method": "magic"},
            None,
        ):
            with self.subTest(observation):
                self.spoil(ReadingRow, bad["id"], data={**bad, "observation": observation})
                v = self.get(f"/api/visits/{visit}")
                self.assertEqual([x["id"] for x in v["unreadable"]], [bad["id"]])
                self.assertTrue(v["unreadable"][0]["because"])
                self.assertIn("hardness", v["assessment"]["raw"]["values"])
                for path in ("comparison", "readings.csv"):
                    r = self.client.get(f"/api/visits/{visit}/{path}")
                    self.assertEqual(r.status_code, 200, r.text[:300])
        path = f"/api/visits/{visit}/unreadable/reading/{bad['id']}/strike"
        self.send("POST", path, None, 204)
        self.assertEqual(self.get(f"/api/visits/{visit}")["unreadable"], [])
        with self.app.state.sessions() as db:
            kept = db.query(Audit).filter(Audit.target == UUID(bad["id"])).all()
        self.assertIn("struck a reading that could not be read", [a.action for a in kept])

    def test_what_can_be_read_is_not_struck_this_way(self):
        visit, _, good, _ = self.with_readings()
        path = f"/api/visits/{visit}/unreadable/reading/{good['id']}/strike"
        self.send("POST", path, None, 404)

    def test_fields_of_the_visit(self):
        for name, value in (
            ("horizon", 100_000),
            ("assumptions_off", None),
            ("assumptions_off", {"a": 1}),
            ("complaints", [{"no": "words"}]),
            ("settings", {"currency": "<b>"}),
            ("rules", []),
            ("note", "x" * 10_000),
        ):
            visit, *_ = self.with_readings()
            if value is None:
                value = "null"
            with self.subTest(f"{name} {str(value)[:20]}"):
                self.spoil(VisitRow, visit, **{name: value})
                v = self.get(f"/api/visits/{visit}")
                self.assertEqual(len(v["unreadable"]), 1)
                self.assertIn("hardness", v["assessment"]["raw"]["values"])
                if name != "complaints":
                    path = f"/api/visits/{visit}/unreadable/{name}/{visit}/strike"
                    self.send("POST", path, None, 204)
                    self.assertEqual(self.get(f"/api/visits/{visit}")["unreadable"], [])

    def test_other_parts(self):
        visit, sample, _, _ = self.with_readings()
        line = str(uuid4())
        body = {"id": line, "name": "x"}
        self.send("PUT", f"/api/visits/{visit}/options/{line}", body)
        self.spoil(OptionRow, line, data={**body, "stages": "all of them"})
        self.spoil(SampleRow, sample, data={"id": sample})
        v = self.get(f"/api/visits/{visit}")
        self.assertEqual({x["part"] for x in v["unreadable"]}, {"line", "sample"})
        for x in v["unreadable"]:
            self.send(
                "POST", f"/api/visits/{visit}/unreadable/{x['part']}/{x['id']}/strike", None, 204
            )
        self.assertEqual(self.get(f"/api/visits/{visit}")["unreadable"], [])

    def test_the_command_lists_them(self):
        visit, _, _, bad = self.with_readings()
        self.spoil(ReadingRow, bad["id"], data={**bad, "observation": None})
        said, status = self.command(check.main, [])
        self.assertEqual(status, 1)
        self.assertIn(f"visit {visit}: reading {bad['id']}", said)
        self.command(check.main, ["--strike"])
        self.assertNotIn(bad["id"], self.command(check.main, [])[0])

    def command(self, main, arguments):
        import contextlib
        import io
        from unittest import mock

        url = self.app.state.engine.url.render_as_string(hide_password=False)
        out = io.StringIO()
        with mock.patch.dict("os.environ", ZESTY_DATABASE=url), contextlib.redirect_stdout(out):
            status = main(arguments)
        return out.getvalue(), status

    def test_the_audit_is_verified_and_a_change_in_it_is_found(self):
        self.new_visit()
        said, status = self.command(audit_command.main, [])
        self.assertEqual(status, 0, said)
        self.assertIn("all in order", said)
        with self.app.state.engine.begin() as c:
            c.exec_driver_sql("alter table audit disable trigger audit_rows_stay")
            c.exec_driver_sql(
                "update audit set who = 'Nobody' where id = (select max(id) from audit)"
            )
            c.exec_driver_sql("alter table audit enable trigger audit_rows_stay")
        said, status = self.command(audit_command.main, [])
        self.assertEqual(status, 1)
        self.assertIn("was changed after it was written", said)


class Audited(ApiCase):
    def test_rows_are_added_and_never_changed(self):
        for sql in ("update audit set who = 'x'", "delete from audit", "truncate audit"):
            with (
                self.subTest(sql),
                self.assertRaises(DBAPIError) as caught,
                self.app.state.engine.begin() as c,
            ):
                c.exec_driver_sql(sql)
            self.assertIn("append-only", str(caught.exception))

    def test_old_and_new_values_stand_there_and_no_personal_ones(self):
        boss = self.manager()
        firm = boss.get("/api/firm").json()
        body = {k: firm[k] for k in ("version", "settings", "rules")}
        body["settings"]["valid_days"] = 45
        boss.put("/api/firm", json=body)
        visit = self.new_visit()
        v = self.get(f"/api/visits/{visit}")
        change = {k: v["visit"][k] for k in ("customer", "home")} | {"version": 1}
        change["customer"]["phone"] = "555 0100"
        self.send("PUT", f"/api/visits/{visit}/home", change)
        with self.app.state.sessions() as db:
            rows = db.query(Audit).order_by(Audit.id).all()
        last = next(r for r in reversed(rows) if "settings.valid_days" in r.fields)
        told = [json.loads(t)["settings.valid_days"] for t in (last.before, last.after)]
        self.assertEqual(told, [30, 45])
        self.assertIn(["customer.phone"], [r.fields for r in rows])
        self.assertFalse(any("555 0100" in r.after or "Tamsin" in r.after for r in rows))

    def test_what_is_rolled_back_leaves_no_row(self):
        with self.app.state.sessions() as db:
            before = db.query(Audit).count()
        visit = self.new_visit()
        self.send("PATCH", f"/api/visits/{visit}", {"version": 9, "note": "x"}, 409)
        with self.app.state.sessions() as db:
            self.assertEqual(db.query(Audit).count(), before + 1)


class Sealed(ApiCase):
    PROPOSAL = uid("home-2-proposal")

    def made(self):
        made = self.send(
            "POST",
            f"/api/visits/{HOME_1}/proposals",
            {"id": str(uuid4()), "recommended": "today", "reasons": "x"},
            201,
        )
        self.assertEqual(made["seal"], "good")
        shown = self.send("POST", f"/api/proposals/{made['id']}/presented", {"version": 1})
        self.assertEqual(shown["seal"], "good")
        return shown

    def test_whoever_changes_a_proposal_in_the_database_breaks_its_seal(self):
        for name, change in {
            "state": lambda d: d.update(state="accepted"),
            "name": lambda d: d.update(
                signature={"name": "X", "at": "2026-11-20T10:00:00Z", "path": "M1,1", "digest": "x"}
            ),
            "time": lambda d: d.update(presented_at="2020-01-01T00:00:00Z"),
            "snapshot": lambda d: d.update(snapshot=d["snapshot"].replace("$", "€", 1)),
            "validity": lambda d: d.update(valid_until="2099-01-01"),
        }.items():
            with self.subTest(name):
                p = self.made()
                with self.app.state.sessions.begin() as db:
                    row = db.get(ProposalRow, UUID(p["id"]))
                    data = dict(row.data)
                    change(data)
                    row.data = data
                shown = self.get(f"/api/proposals/{p['id']}")
                self.assertEqual(shown["seal"], "broken")
                body = {"version": p["version"], "name": "Ottoline", "path": "M1,1 L2,2 L3,3"}
                r = self.send("POST", f"/api/proposals/{p['id']}/accepted", body, 422)
                self.assertEqual(r["code"], "proposal.seal")
                link = self.send(
                    "POST", f"/api/proposals/{p['id']}/links", {"id": str(uuid4())}, 201
                )
                token = link["path"].removeprefix("/p/")
                self.assertEqual(self.get(f"/api/offered/{token}")["seal"], "broken")

    def test_another_key_is_told_from_a_broken_seal(self):
        from zesty_glass.records.db import make_sessions
        from zesty_glass.work import seals

        p = self.made()

        def standing(*secrets):
            keys = seals.keys_from(*secrets)
            with make_sessions(self.app.state.engine, **{seals.KEYS: keys})() as db:
                return seals.standing(db, db.get(ProposalRow, UUID(p["id"])))

        self.assertEqual(standing("a new secret, long enough"), "unknown_key")
        self.assertEqual(standing("a new secret, long enough", (SECRET,)), "good")
