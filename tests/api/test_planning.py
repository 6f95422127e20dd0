"""A visit is moved and given to another while nothing was read at it."""

import unittest
from datetime import UTC, datetime, timedelta

from tests.api.client import HOME_1, ApiCase
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL, MANAGER_EMAIL


class Planning(ApiCase):
    later = (datetime.now(UTC) + timedelta(days=9)).replace(microsecond=0)

    def plan(self, visit, status=200, version=1, client=None, **more):
        body = {"version": version, "started_at": self.later.isoformat(), **more}
        r = (client or self.client).put(f"/api/visits/{visit}/plan", json=body)
        self.assertEqual(r.status_code, status, r.text[:300])
        return r.json()

    def of(self, manager, email):
        people = manager.get("/api/people").json()["people"]
        return next(p["id"] for p in people if p["email"] == email)

    def test_it_is_moved_and_stands_on_its_day(self):
        visit = self.new_visit()
        self.plan(visit)
        day = self.later.strftime("%Y-%m-%dT00:00:00Z")
        self.assertIn(visit, [v["id"] for v in self.get(f"/api/visits?day={day}")])
        self.assertNotIn(visit, [v["id"] for v in self.get("/api/visits")])

    def test_on_an_old_version_it_is_refused(self):
        visit = self.new_visit()
        self.plan(visit)
        self.plan(visit, 409)

    def test_what_was_read_at_keeps_its_day(self):
        view = self.get(f"/api/visits/{HOME_1}")
        p = self.plan(HOME_1, 422, view["versions"]["visit"])
        self.assertEqual(p["code"], "visit.begun")

    def test_a_day_years_ahead_is_a_slip(self):
        far = (datetime.now(UTC) + timedelta(days=800)).isoformat()
        p = self.plan(self.new_visit(), 422, started_at=far)
        self.assertEqual(p["code"], "visit.far")

    def test_a_manager_gives_it_to_another_and_nobody_else_does(self):
        visit, manager = self.new_visit(), self.manager()
        own = self.of(manager, MANAGER_EMAIL)
        self.plan(visit, 403, consultant=own)
        fitter = self.of(manager, FITTER_EMAIL)
        p = self.plan(visit, 422, client=manager, consultant=fitter)
        self.assertEqual(p["code"], "visit.consultant")
        self.plan(visit, client=manager, consultant=own)
        self.assertEqual(self.client.get(f"/api/visits/{visit}").status_code, 404)
        theirs = manager.get(f"/api/visits/{visit}").json()
        self.assertEqual(theirs["visit"]["consultant"], "Sunniva Larkspur-Howe")
        back = self.of(manager, EMAIL)
        self.plan(visit, client=manager, version=theirs["versions"]["visit"], consultant=back)
        self.assertEqual(self.client.get(f"/api/visits/{visit}").status_code, 200)


if __name__ == "__main__":
    unittest.main()
