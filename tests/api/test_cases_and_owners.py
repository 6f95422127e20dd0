"""Complaints and warranty cases wait until they are closed; a home changes hands."""

from uuid import uuid4

from tests.api.test_signed import SignedCase, in_days
from tests.clock import moved
from zesty_glass.demo.load import EMAIL


class Cases(SignedCase):
    def home(self):
        return self.get("/api/homes?find=marrash")["homes"][0]["id"]

    def put(self, kind="warranty", status=200):
        id = str(uuid4())
        body = {"on": in_days(-1), "text": "The valve drips.", "kind": kind}
        self.send("PUT", f"/api/homes/{self.home()}/notes/{id}", body, status)
        return id

    def waits(self):
        return [w["what"] for w in self.get("/api/waiting") if w["kind"] == "case"]

    def test_a_case_waits_until_it_is_closed_with_what_came_of_it(self):
        id = self.put()
        self.assertIn("Warranty: The valve drips.", self.waits())
        path = f"/api/homes/{self.home()}/notes/{id}/close"
        closed = self.send("POST", path, {"outcome": "The maker sent a valve."})
        self.assertEqual(closed["closed_on"], in_days(0))
        self.assertEqual(self.waits(), [])
        self.assertIsNone(self.send("POST", path, {"outcome": ""})["closed_on"])
        self.assertEqual(len(self.waits()), 1)
        strike = {"because": "another home"}
        self.send("POST", f"/api/homes/{self.home()}/notes/{id}/strike", strike)
        self.assertEqual(self.waits(), [])

    def test_a_note_is_no_case(self):
        id = self.put("note")
        self.assertEqual(self.waits(), [])
        path = f"/api/homes/{self.home()}/notes/{id}/close"
        self.send("POST", path, {"outcome": "x"}, 404)
        self.put("wish", 422)


class Owners(SignedCase):
    def test_the_history_stays_and_what_was_the_sellers_ends(self):
        home = self.get("/api/homes?find=marrash")["homes"][0]["id"]
        _, token = self.token()
        before = self.get(f"/api/homes/{home}/years")
        body = {
            "version": before["version"],
            "customer": {"name": "Ilse Quarrowby", "email": "ilse@quarrowby.example"},
            "since": in_days(-2),
        }
        self.send("PUT", f"/api/homes/{home}/owner", {**body, "since": in_days(2)}, 422)
        self.send("PUT", f"/api/homes/{home}/owner", body, 204)
        self.send("PUT", f"/api/homes/{home}/owner", body, 409)
        after = self.get(f"/api/homes/{home}/years")
        self.assertEqual(after["customer"], "Ilse Quarrowby")
        self.assertEqual(after["former"], [["Ottoline Marrash", in_days(-2)]])
        self.assertEqual(after["series"], before["series"])
        self.assertEqual(self.stranger().get(f"/api/offered/{token}").status_code, 404)
        self.assertEqual(self.state()["state"], "withdrawn")
        self.assertIn("new owner", self.state()["because"])

    def test_the_sellers_name_leaves_and_the_home_stays(self):
        del type(self).session
        with moved(5):
            self.client = self.signed_in(EMAIL)
            home = self.get("/api/homes?find=flintlock")["homes"][0]["id"]
            before = self.get(f"/api/homes/{home}/years")
            seller, buyer = before["customer"], f"Buyer {uuid4().hex[:6]}"
            partner, tenant = ({"name": n, "part": n} for n in ("decides", "tenant"))
            people = [*before["people"], partner, tenant]
            body = {"version": before["version"], "people": people}
            self.send("PUT", f"/api/homes/{home}/people", body, 204)
            version = self.get(f"/api/homes/{home}/years")["version"]
            body = {"version": version, "customer": {"name": buyer}, "since": in_days(4)}
            self.send("PUT", f"/api/homes/{home}/owner", body, 204)
            boss = self.manager()
            for _ in range(2):
                self.assertEqual(boss.post(f"/api/homes/{home}/former/erase").status_code, 204)
            erased = self.get(f"/api/homes/{home}/years")
            self.assertEqual((erased["former"], erased["customer"]), ([], buyer))
            self.assertEqual([p["name"] for p in erased["people"]], [buyer, "tenant"])
            self.assertEqual(erased["series"], before["series"])
            self.assertNotIn(seller, self.client.get(f"/api/proposals/{self.made}").text)
