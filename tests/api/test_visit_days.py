"""Visits that are planned, begun and never made; and the day whose prices and limits are theirs."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

from tests.api.client import ApiCase


def in_days(many):
    return (datetime.now(UTC) + timedelta(days=many)).isoformat()


class VisitDays(ApiCase):
    def visited(self, started_at):
        id = str(uuid4())
        body = {
            "id": id,
            "customer": {"name": f"Visited {id[:6]}"},
            "home": {"name": "A house", "source": "city"},
            "started_at": started_at,
        }
        self.send("POST", "/api/visits", body, 201)
        return id

    def again(self, visit, started_at):
        body = {"id": str(uuid4()), "started_at": started_at}
        return self.send("POST", f"/api/visits/{visit}/again", body, 201)["id"]

    def listed(self, id):
        return next((v for v in self.get("/api/visits") if v["id"] == id), None)

    def put(self, id, what, status=200, **more):
        version = self.get(f"/api/visits/{id}")["versions"]["visit"]
        return self.send("PUT", f"/api/visits/{id}/{what}", {"version": version, **more}, status)


class Planned(VisitDays):
    def test_a_planned_visit_is_never_the_last(self):
        made = self.visited(in_days(-20))
        name = self.get(f"/api/visits/{made}")["visit"]["customer"]["name"]
        planned = self.again(made, in_days(20))
        self.assertFalse(self.get(f"/api/visits/{planned}")["made"])
        home = next(h for h in self.get(f"/api/homes?find={name}")["homes"])
        self.assertEqual(home["last"], made)
        known = self.get(f"/api/visits/homes?find={name}")[0]
        self.assertEqual(known["visit"], made)

    def test_what_was_never_made_stays_until_it_is_closed_with_a_reason(self):
        id = self.visited(in_days(3))
        self.put(id, "plan", started_at=in_days(-40))
        self.assertFalse(self.listed(id)["made"])
        self.assertEqual(self.put(id, "close", 422, how="no_show")["code"], "visit.because")
        self.put(id, "close", how="no_show", because="Nobody was there.")
        self.assertIsNone(self.listed(id))
        closed = self.get(f"/api/visits/{id}")["closed"]
        self.assertEqual((closed["how"], closed["by"]), ("no_show", "Perrin Oakhalse"))
        self.put(id, "close")
        self.assertIsNotNone(self.listed(id))

    def test_what_was_read_at_is_made(self):
        id = self.visited(in_days(0))
        told = self.reading("hard-1", {"method": "drops", "drops": 4})
        self.keep(id, self.new_sample(id), told)
        told = self.put(id, "close", 422, how="cancelled", because="x")
        self.assertEqual(told["code"], "visit.begun")


class Terms(VisitDays):
    def settings(self, **more):
        manager = self.manager()
        firm = manager.get("/api/firm").json()
        body = {**firm, "settings": {**firm["settings"], **more}}
        r = manager.put("/api/firm", json={k: body[k] for k in ("version", "settings", "rules")})
        self.assertEqual(r.status_code, 200, r.text[:300])

    def of(self, id):
        return self.get(f"/api/visits/{id}")["visit"]["settings"]

    def test_a_planned_visit_takes_the_terms_of_the_day_it_is_made(self):
        planned, under_way = self.visited(in_days(9)), self.visited(in_days(0))
        self.settings(tax_equipment="0.0825", valid_days=17)
        self.assertNotEqual(self.of(under_way)["valid_days"], 17)
        self.assertNotEqual(self.of(planned)["valid_days"], 17)
        self.new_sample(planned)
        self.assertEqual(self.of(planned)["valid_days"], 17)
        self.assertEqual(self.of(planned)["tax_equipment"], "0.0825")
        view = self.get(f"/api/visits/{under_way}")
        self.assertTrue(view["terms_differ"])
        self.put(under_way, "terms")
        self.assertEqual(self.of(under_way)["valid_days"], 17)
