"""What is kept of a customer is given out, and erased; what the firm accounts for stays without
them.
"""

import json
from datetime import timedelta
from uuid import UUID, uuid4

from tests.api.client import HOME_2, ApiCase
from zesty_glass.demo.homes import uid
from zesty_glass.records.models import VisitRow
from zesty_glass.work import personal
from zesty_glass.work.person import Person, now


class PersonalData(ApiCase):
    def setUp(self):
        super().setUp()
        self.last = f"Quill{uuid4().hex[:10]}"
        self.NAME = f"Ulmer {self.last}"

    def served(self):
        visit = self.new_visit()
        v = self.get(f"/api/visits/{visit}")
        home = {
            **v["visit"]["home"],
            "name": f"{self.last} house",
            "place": "Elm Row",
            "note": "key",
        }
        customer = {"name": self.NAME, "phone": "555 0199", "email": f"ulmer@{self.last}.example"}
        body = {"version": 1, "home": home, "customer": customer}
        self.send("PUT", f"/api/visits/{visit}/home", body)
        sample = self.new_sample(visit)
        self.keep(visit, sample, self.reading("hard-1", {"method": "drops", "drops": 9}))
        p = self.send(
            "POST",
            f"/api/visits/{visit}/proposals",
            {"id": str(uuid4()), "recommended": "today", "reasons": f"For {self.NAME}."},
            201,
        )
        self.send("POST", f"/api/proposals/{p['id']}/presented", {"version": 1})
        body = {"version": 2, "name": self.NAME, "path": "M1,1 L2,2 L3,3"}
        self.send("POST", f"/api/proposals/{p['id']}/accepted", body)
        mail = {"id": str(uuid4()), "to": f"ulmer@{self.last}.example", "text": f"Dear {self.NAME}"}
        self.send("POST", f"/api/proposals/{p['id']}/mail", mail, 201)
        return visit, p["id"]

    def test_all_of_it_is_given_out(self):
        visit, _ = self.served()
        text = self.client.get(f"/api/visits/{visit}/personal-data").text
        for said in (self.NAME, "555 0199", "Elm Row", self.last, "hard-1"):
            self.assertIn(said, text)
        self.assertEqual(
            set(json.loads(text)),
            {
                *("customer", "others", "former", "merged", "home", "visits"),
                *("mails", "links", "jobs", "pictures", "notes", "payments"),
            },
        )

    def test_erased_means_nowhere(self):
        visit, proposal = self.served()
        boss = self.manager()
        for _ in range(2):
            self.assertEqual(boss.post(f"/api/visits/{visit}/erase").status_code, 204)
        for path in (
            f"/api/visits/{visit}",
            f"/api/visits/{visit}/file",
            f"/api/visits/{visit}/personal-data",
            f"/api/proposals/{proposal}",
            "/api/outbox",
            "/api/visits",
        ):
            text = boss.get(path).text
            for said in (self.NAME, self.last):
                self.assertNotIn(said, text, path)
        kept = boss.get(f"/api/proposals/{proposal}").json()
        self.assertEqual((kept["state"], kept["seal"]), ("accepted", "good"))
        self.assertIn("erased", kept["said"])
        self.assertTrue(kept["offer"]["options"])

    def test_nothing_of_the_person_is_in_the_database_any_more(self):
        visit, _ = self.served()
        self.manager().post(f"/api/visits/{visit}/erase")
        with self.app.state.engine.connect() as c:
            tables = (
                c.exec_driver_sql(
                    "select table_name from information_schema.tables where table_schema = 'public'"
                )
                .scalars()
                .all()
            )
            for t in tables:
                rows = (
                    c.exec_driver_sql(f'select row_to_json(t)::text from "{t}" t').scalars().all()
                )
                for row in rows:
                    self.assertNotIn(self.last, row, t)

    def test_old_homes_by_the_firms_rule(self):
        visit, _ = self.served()
        with self.app.state.sessions.begin() as db:
            db.get(VisitRow, UUID(visit)).started_at = now() - timedelta(days=5 * 366)
        who = Person(
            id=UUID(int=0), firm_id=UUID(uid("firm")), name="./zesty forget", role="manager"
        )
        with self.app.state.sessions.begin() as db:
            self.assertEqual(personal.forget_old(db, who, 6), 0)
            self.assertEqual(personal.forget_old(db, who, 5), 1)
            self.assertEqual(personal.forget_old(db, who, 5), 0)
        self.assertIn("erased", self.get(f"/api/visits/{visit}")["visit"]["customer"]["name"])
        self.assertNotIn("erased", self.get(f"/api/visits/{HOME_2}")["visit"]["customer"]["name"])
