"""Several people at a home; two homes that are one; a colleague's home that is asked for."""

from uuid import UUID, uuid4

from tests.api.client import HOME_1, ApiCase
from tests.clock import moved
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL
from zesty_glass.records.models import HomeRow, User, VisitRow
from zesty_glass.work.signing_in import add_user

OTHER, PASSWORD = "wenna@fallowbeck.example", "a long word to sign in with"


class HomesCase(ApiCase):
    def years(self, id, status=200):
        return self.get(f"/api/homes/{id}/years", status)

    def home_of(self, visit):
        with self.app.state.sessions() as db:
            return str(db.get(VisitRow, UUID(visit)).home_id)

    def visited(self, customer, **home):
        """A home with one visit, one glass in it, and one note."""
        visit = self.new_visit(**home)
        opened = self.get(f"/api/visits/{visit}")
        told = {"name": customer, "email": f"{customer.split()[0].lower()}@roakwell.example"}
        body = {"version": opened["versions"]["home"], "customer": told}
        body["home"] = opened["visit"]["home"]
        self.send("PUT", f"/api/visits/{visit}/home", body)
        self.new_sample(visit)
        id = self.home_of(visit)
        note = {"on": "2026-11-21", "text": f"Said by {customer}."}
        self.send("PUT", f"/api/homes/{id}/notes/{uuid4()}", note)
        return id, visit

    def colleague(self):
        with self.app.state.sessions.begin() as db:
            me = db.query(User).filter(User.email == EMAIL).one()
            if not db.query(User).filter(User.email == OTHER).count():
                add_user(db, me.firm_id, OTHER, "Wenna Fallowbeck", "consultant", PASSWORD)
        return self.signed_in(OTHER, PASSWORD)


class People(HomesCase):
    def put(self, home, people, status=204, version=None):
        version = version or self.years(home)["version"]
        self.send(
            "PUT", f"/api/homes/{home}/people", {"version": version, "people": people}, status
        )

    def test_each_has_a_part_a_language_and_a_say_in_being_reminded(self):
        home = self.home_of(HOME_1)
        before = self.years(home)
        customer = before["people"][0]
        self.assertEqual(customer["name"], before["customer"])
        second = {
            "name": "Ilario Marrash",
            "email": "ilario@marrash.example",
            "part": "decides",
            "language": "es",
            "reminders": False,
        }
        self.put(home, [customer, second])
        after = self.years(home)["people"]
        self.assertEqual(after[0], customer)
        self.assertEqual(after[1], {**second, "phone": ""})
        self.put(home, [customer], 409, before["version"])
        self.put(home, [customer])

    def test_an_old_tab_brings_no_consent_back(self):
        home = self.home_of(HOME_1)
        first = self.years(home)["people"][0]
        self.put(home, [{**first, "reminders": False, "language": "es"}])
        v = self.get(f"/api/visits/{HOME_1}")
        body = {"version": v["versions"]["home"], "customer": {"name": "Ottoline M. Marrash"}}
        self.send("PUT", f"/api/visits/{HOME_1}/home", {**body, "home": v["visit"]["home"]})
        now = self.years(home)["people"][0]
        self.assertEqual((now["name"], now["reminders"]), ("Ottoline M. Marrash", False))
        self.assertEqual(now["language"], "es")
        self.put(home, [first])

    def test_nobody_without_a_name_or_with_an_address_that_is_none(self):
        home = self.home_of(HOME_1)
        first = self.years(home)["people"][0]
        for bad in ({"name": " "}, {"name": "Il", "email": "no"}, {"name": "Il", "language": "xx"}):
            self.put(home, [first, bad], 422)
        self.put(home, [], 422)
        self.put(home, [first] * 10, 422)
        self.assertEqual(self.years(home)["people"], [first])


class OneHome(HomesCase):
    def merge(self, kept, gone, status=204):
        body = {"version": self.years(kept)["version"], "with_home": gone}
        self.send("POST", f"/api/homes/{kept}/merge", body, status)

    def two(self, place):
        """One house under two names of the same person, as two consultants might write it."""
        one = self.visited("Senna Roakwell", name="Quince House", place=place)
        other = self.visited("Joss Roakwell", name="quince house ", place=place.upper())
        return one, other

    def told(self, id):
        home = self.years(id)
        return {
            "visits": {v for v, _ in home["visits"]},
            "notes": {n["text"] for n in home["notes"]},
            "people": [p["name"] for p in home["people"]],
        }

    def test_it_is_offered_where_name_and_place_agree(self):
        (one, _), (other, _) = self.two("Nether Ash")
        self.visited("Senna Roakwell", name="Quince House", place="Over Ash")
        self.assertEqual([h["id"] for h in self.years(one)["alike"]], [other])
        self.assertEqual([h["id"] for h in self.years(other)["alike"]], [one])

    def test_nothing_is_lost_and_it_is_undone_within_a_day(self):
        (one, visit), (other, second) = self.two("Middle Ash")
        apart = self.told(one), self.told(other)
        self.merge(one, other)
        self.merge(one, other)  # twice is once
        both = self.told(one)
        self.assertEqual(both["visits"], {visit, second})
        self.assertEqual(both["notes"], apart[0]["notes"] | apart[1]["notes"])
        self.assertEqual(both["people"], ["Senna Roakwell", "Joss Roakwell"])
        self.assertEqual(self.years(other)["id"], one)  # an old tab opens the one home
        self.assertEqual(self.years(one)["alike"], [])
        found = self.get("/api/homes?find=middle ash")["homes"]
        self.assertEqual([h["id"] for h in found], [one])
        self.assertEqual([h["undo"] for h in self.years(one)["merged"]], [True])
        self.send("POST", f"/api/homes/{other}/unmerge", None, 204)
        self.assertEqual((self.told(one), self.told(other)), apart)

    def test_after_a_day_it_stays(self):
        (one, _), (other, _) = self.two("Long Ash")
        self.merge(one, other)
        del type(self).session
        with moved(2):
            self.client = self.signed_in(EMAIL)
            self.assertEqual([h["undo"] for h in self.years(one)["merged"]], [False])
            said = self.send("POST", f"/api/homes/{other}/unmerge", None, 422)
            self.assertEqual(said["code"], "home.merged_long")

    def test_not_with_itself_nor_with_what_is_another_already(self):
        (one, _), (other, _) = self.two("Short Ash")
        third, _ = self.visited("Senna Roakwell", name="Quince House", place="Short Ash")
        self.merge(one, one, 422)
        self.merge(one, other)
        self.send(
            "POST",
            f"/api/homes/{third}/merge",
            {"version": self.years(third)["version"], "with_home": other},
            422,
        )

    def test_whoever_is_erased_is_erased_in_both(self):
        (one, visit), (other, _) = self.two("Far Ash")
        self.merge(one, other)
        boss = self.manager()
        self.assertEqual(boss.post(f"/api/visits/{visit}/erase").status_code, 204)
        with self.app.state.sessions() as db:
            rows = [db.get(HomeRow, UUID(id)) for id in (one, other)]
            left = str([(h.customer, h.others, h.brought, h.home) for h in rows])
        self.assertNotIn("Joss Roakwell", left)
        self.assertNotIn("FAR ASH", left)


class Asking(HomesCase):
    def test_a_colleague_sees_the_place_alone_asks_and_is_given_it(self):
        home, visit = self.visited("Petra Unsworth-Lyle", name="Sorrel Cot", place="Nine Elms")
        wenna = self.colleague()
        self.assertEqual(wenna.get(f"/api/homes/{home}/years").status_code, 404)
        found = wenna.get("/api/homes/elsewhere?find=petra unsworth-lyle").json()
        self.assertEqual(found, [{"id": home, "place": "Nine Elms", "asked": False}])
        self.assertEqual(wenna.get("/api/homes/elsewhere?find=petra").json(), [])
        for _ in range(2):
            self.assertEqual(wenna.post(f"/api/homes/{home}/ask").status_code, 204)
        found = wenna.get("/api/homes/elsewhere?find=petra unsworth-lyle").json()
        self.assertTrue(found[0]["asked"])
        asked = [w for w in self.get("/api/waiting") if w["kind"] == "asked"]
        self.assertEqual([w["what"] for w in asked], ["Wenna Fallowbeck asks for this home"])
        [by] = self.years(home)["asked_by"]
        self.send("POST", f"/api/homes/{home}/give", {"to": by["id"], "give": True}, 204)
        self.years(home, 404)
        self.assertEqual(wenna.get(f"/api/visits/{visit}").status_code, 200)
        self.assertEqual(self.get("/api/waiting") and wenna.get("/api/waiting").status_code, 200)

    def test_nobody_asks_for_what_they_see(self):
        home, _ = self.visited("Petra Unsworth-Own", name="Sorrel Top", place="Nine Elms")
        self.send("POST", f"/api/homes/{home}/ask", None, 204)
        self.assertEqual(self.years(home)["asked_by"], [])

    def test_it_may_be_kept(self):
        home, _ = self.visited("Petra Unsworth-Mole", name="Sorrel End", place="Nine Elms")
        wenna = self.colleague()
        wenna.post(f"/api/homes/{home}/ask")
        [by] = self.years(home)["asked_by"]
        self.send("POST", f"/api/homes/{home}/give", {"to": by["id"], "give": False}, 204)
        self.assertEqual(self.years(home)["asked_by"], [])
        self.assertEqual(wenna.get(f"/api/homes/{home}/years").status_code, 404)

    def test_nobody_gives_it_who_does_not_have_it_nor_to_a_fitter(self):
        home, _ = self.visited("Petra Unsworth-Nye", name="Sorrel Row", place="Nine Elms")
        wenna = self.colleague()
        me = wenna.get("/api/session").json()["id"]
        body = {"to": me, "give": True}
        self.assertEqual(wenna.post(f"/api/homes/{home}/give", json=body).status_code, 404)
        fitter = self.signed_in(FITTER_EMAIL).get("/api/session").json()["id"]
        self.send("POST", f"/api/homes/{home}/give", {"to": fitter, "give": True}, 422)
