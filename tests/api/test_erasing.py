"""Erased means erased: a marker in every text field that goes with a person is nowhere in the
database any more, and the audit's chain still holds.
"""

import re
from dataclasses import fields, is_dataclass, replace
from datetime import UTC, datetime
from itertools import count
from uuid import UUID, uuid4

from sqlalchemy.exc import DBAPIError

from tests.api.client import HOME_1, HOME_2, HOME_6
from tests.api.test_jobs import SOLD, JobCase
from tests.api.test_signed import in_days
from tests.clock import moved
from tests.database import SECRET
from zesty_glass.demo.homes import uid
from zesty_glass.documents import visit_file
from zesty_glass.documents.erasing import inner_of, kinds_of, mark_of, personal
from zesty_glass.records import audit
from zesty_glass.records.models import Audit, HomeRow, VisitRow
from zesty_glass.work import seals

PATH = "M10,10 L20,20"


class Markers:
    """Markers that are told apart, each a word and a number that no code holds."""

    def __init__(self):
        self.n = count(1)

    def one(self):
        return f"Quilltrap {next(self.n)}x"

    def all_of(self, value, kind=None):
        """A value with a marker in every field that goes with a person, empty ones too."""
        kind = type(value) if kind is None else kind
        mark = mark_of(kind)
        if mark is not None:
            wanted = isinstance(value, str) and mark.instead in ("(erased)", "{n}")
            return self.one() if wanted else value
        if is_dataclass(value) and not isinstance(value, type):
            of = {f.name: kinds_of(type(value))[f.name] for f in fields(value)}
            made = {n: self.all_of(getattr(value, n), k) for n, k in of.items() if personal(k)}
            if "struck_at" in of:  # a reason for striking stands beside its time alone
                made["struck_at"] = datetime.now(UTC)
            return replace(value, **made)
        if isinstance(value, tuple):
            return tuple(self.all_of(x, inner_of(kind, x)) for x in value)
        return value


class Trial(JobCase):
    def dumped(self):
        with self.app.state.engine.connect() as c:
            tables = (
                "select table_name from information_schema.tables where table_schema = 'public'"
            )
            for t in c.exec_driver_sql(tables).scalars().all():
                rows = c.exec_driver_sql(f'select row_to_json(t)::text from "{t}" t').scalars()
                for row in rows.all():
                    yield t, row

    def left(self):
        """Where a marker is still found: table, and what stands before it."""
        return sorted(
            {
                (t, m.group(0))
                for t, row in self.dumped()
                for m in re.finditer(r".{0,40}Quilltrap \d+x", row)
            }
        )

    def brought_in(self, visit, mark):
        """A visit as a file, with its markers, brought in as another one."""
        read = visit_file.read(self.client.get(f"/api/visits/{visit}/file").content)
        marked = mark.all_of(replace(read, id=str(uuid4()), proposals=()))
        made = self.client.post("/api/visits/import", content=visit_file.write(marked))
        self.assertEqual(made.status_code, 201, made.text[:400])
        return made.json()["id"]

    def sold_here(self, mark):
        """The first demo home: told, sold by link, fitted and looked after, in markers."""
        home = self.get(f"/api/visits/{HOME_1}")
        told = {k: mark.one() for k in ("name", "phone")} | {"email": "quilltrap@trap.example"}
        place = {**home["visit"]["home"], "name": mark.one(), "place": mark.one()}
        body = {"version": home["versions"]["home"], "customer": told, "home": place}
        self.send("PUT", f"/api/visits/{HOME_1}/home", body)
        with moved(-SOLD):
            job = self._sold("home-1-option-b", HOME_1)
        job = self.put(job, "plan", {"fitter": mark.one(), "note": mark.one()})
        today = in_days(0)
        body = {"version": job["version"], "on": in_days(-SOLD), "left_out": mark.one()}
        job = self.send("PUT", f"/api/jobs/{job['id']}/fitted", body)
        jid = job["id"]
        part = job["job"]["parts"][0]["key"]
        change = {"part": part, "on": today, **{k: mark.one() for k in ("before", "after", "note")}}
        self.send("PUT", f"/api/jobs/{jid}/changes/{uuid4()}", change)
        move = {"piece": 0, "fate": "swapped", "on": today, "because": mark.one()}
        self.send("PUT", f"/api/jobs/{jid}/moves/{uuid4()}", move)
        follow = {"analyte": "hardness", "on": today, "what": mark.one(), "closed": mark.one()}
        self.send("PUT", f"/api/jobs/{jid}/follow-ups/{uuid4()}", follow)
        proof = self.proof("hard-1", {"method": "drops", "drops": 1})
        proof["reading"]["note"] = mark.one()
        id = proof["reading"]["id"]
        self.send("PUT", f"/api/jobs/{jid}/proofs/{id}", proof)
        self.send("POST", f"/api/jobs/{jid}/proofs/{id}/strike", {"because": mark.one()})
        self.money_and_mail(job["job"]["proposal"], mark)
        self.notes(mark)

    def money_and_mail(self, proposal, mark):
        paid = {"on": in_days(-1), "amount": "10.00", "label": mark.one(), "note": mark.one()}
        path = f"/api/proposals/{proposal}/payments/{uuid4()}"
        self.send("PUT", path, paid)
        self.send("POST", f"{path}/strike", {"because": mark.one()})
        version = self.get(f"/api/proposals/{proposal}")["version"]
        self.send(
            "PUT",
            f"/api/proposals/{proposal}/correction",
            {"version": version, "said": mark.one()},
        )
        mail = {"id": str(uuid4()), "to": "quilltrap@trap.example", "text": mark.one()}
        self.send("POST", f"/api/proposals/{proposal}/mail", mail, 201)
        link = self.send(
            "POST", f"/api/proposals/{proposal}/links", {"id": str(uuid4()), "days": 30}, 201
        )
        asked = {"id": str(uuid4()), "about": "question", "text": mark.one()}
        token = link["path"].split("/p/")[1]
        r = self.client.post(f"/api/offered/{token}/ask", json=asked)
        self.assertLess(r.status_code, 300, r.text)

    def notes(self, mark):
        with self.app.state.sessions() as db:
            home = db.get(VisitRow, UUID(HOME_1)).home_id
        for kind in ("note", "warranty"):
            path = f"/api/homes/{home}/notes/{uuid4()}"
            self.send("PUT", path, {"on": in_days(-1), "text": mark.one(), "kind": kind})
            if kind == "warranty":
                self.send("POST", f"{path}/close", {"outcome": mark.one()})
            self.send("POST", f"{path}/strike", {"because": mark.one()})
        years = self.get(f"/api/homes/{home}/years")
        others = [{"name": mark.one(), "phone": mark.one()}]
        body = {"version": years["version"], "people": [*years["people"], *others]}
        self.send("PUT", f"/api/homes/{home}/people", body, 204)

    def test_no_marker_is_left(self):
        mark = Markers()
        visits = [self.brought_in(v, mark) for v in (HOME_1, HOME_2, HOME_6, uid("home-3-visit"))]
        self.sold_here(mark)
        self.assertGreater(len(self.left()), 100)
        boss = self.manager()
        for visit in (*visits, HOME_1):
            r = boss.post(f"/api/visits/{visit}/erase")
            self.assertEqual(r.status_code, 204, r.text[:600])
        self.assertEqual(self.left(), [])
        for visit in (*visits, HOME_1):
            self.assertEqual(self.get(f"/api/visits/{visit}")["unreadable"], [])
        with self.app.state.sessions() as db:
            firm = db.query(HomeRow.firm_id).filter(HomeRow.firm_id == UUID(uid("firm"))).first()[0]
            self.assertEqual(list(audit.breaks(db, firm, seals.every_key(SECRET))), [])

    def test_what_was_erased_from_the_trail_is_not_changed_afterwards(self):
        visit = self.new_visit()
        self.send("PATCH", f"/api/visits/{visit}", {"version": 1, "horizon": 15})
        self.assertEqual(self.manager().post(f"/api/visits/{visit}/erase").status_code, 204)
        of_it = f"update audit set {{}} where target = '{visit}'"
        for change in ("who = 'x'", "action = 'x', taken_out = 'y'", "taken_out = ''"):
            with self.app.state.engine.connect() as c:
                c.exec_driver_sql("set local zesty.erasing = 'on'")
                with self.subTest(change), self.assertRaises(DBAPIError):
                    c.exec_driver_sql(of_it.format(change))

    def test_the_chain_tells_a_row_that_somebody_else_blanked(self):
        visit = self.new_visit()
        self.send("PATCH", f"/api/visits/{visit}", {"version": 1, "horizon": 15})
        with self.app.state.sessions.begin() as db:
            firm = db.query(Audit.firm_id).filter(Audit.target == UUID(visit)).first()[0]
            audit.take_out(db, firm, [UUID(visit)], "(erased)", b"a key that is not ours")
        with self.app.state.sessions() as db:
            [told] = audit.breaks(db, firm, seals.every_key(SECRET))
            self.assertIn("after it was erased", told)
            self.assertEqual(list(audit.breaks(db, firm)), [])
