"""Names are one line wherever they are typed; what is stored already still opens."""

from uuid import uuid4

from tests.api.client import ApiCase
from zesty_glass.records.models import HomeRow, VisitRow

TWO = "Ann\nBcc: everybody@x.example"


class OneLine(ApiCase):
    def test_at_every_door(self):
        visit = self.new_visit()
        v = self.get(f"/api/visits/{visit}")
        home, version = v["visit"]["home"], v["versions"]["home"]
        for customer, place in (
            ({"name": TWO}, home),
            ({"name": "Ann", "phone": "1\r2"}, home),
            ({"name": "Ann", "email": "a@b.example\u2028"}, home),
            ({"name": "Ann"}, {**home, "name": TWO}),
            ({"name": "Ann"}, {**home, "place": "x\u0007"}),
        ):
            body = {"version": version, "customer": customer, "home": place}
            said = self.send("PUT", f"/api/visits/{visit}/home", body, 422)
            self.assertEqual(said["code"], "text.one_line")
        asked = {"id": str(uuid4()), "customer": {"name": TWO}, "home": home, "complaints": []}
        self.send("POST", "/api/visits", asked, 422)

    def test_a_name_with_marks_and_other_spaces_is_a_name(self):
        visit = self.new_visit()
        v = self.get(f"/api/visits/{visit}")
        customer = {"name": "Zoë\u00a0Ní Dhónaill-Ōta"}
        body = {"version": v["versions"]["home"], "customer": customer, "home": v["visit"]["home"]}
        self.send("PUT", f"/api/visits/{visit}/home", body)

    def test_what_an_older_release_stored_still_opens(self):
        visit = self.new_visit()
        with self.app.state.sessions.begin() as db:
            home = db.get(HomeRow, db.query(VisitRow.home_id).filter(VisitRow.id == visit).scalar())
            home.customer = {**home.customer, "name": TWO}
        self.assertEqual(self.get(f"/api/visits/{visit}")["visit"]["customer"]["name"], TWO)

    def test_people_of_the_firm_too(self):
        boss = self.manager()
        body = {"id": str(uuid4()), "email": "n@l.example", "name": TWO, "role": "consultant"}
        r = boss.post("/api/people/invitations", json=body)
        self.assertEqual((r.status_code, r.json()["code"]), (422, "text.one_line"))
