"""Checks of instruments, notes on a home's years, contact cards, over the wire."""

from datetime import date, timedelta
from uuid import UUID, uuid4

from tests.api.client import HOME_1, ApiCase
from zesty_glass.records import notes as records
from zesty_glass.records.models import HomeRow

TODAY = date.today().isoformat()
TOMORROW = (date.today() + timedelta(days=1)).isoformat()


class Checks(ApiCase):
    def put(self, shown, status=200, id=None, key="tds-1", **more):
        body = {"on": TODAY, "standard": 342, "shown": shown, **more}
        return self.send("PUT", f"/api/instruments/{key}/checks/{id or uuid4()}", body, status)

    def kit(self):
        return next(k for k in self.get("/api/instruments") if k["id"] == "tds-1")

    def stale(self):
        """The meter's last check a year ago."""
        manager, kit = self.manager(), self.kit()
        version = manager.get("/api/firm").json()["kits"]["tds-1"]
        old = {**kit, "last_check": (date.today() - timedelta(days=365)).isoformat()}
        r = manager.put(
            "/api/instruments/tds-1", json=old, headers={"If-Match-Version": str(version)}
        )
        self.assertEqual(r.status_code, 200, r.text)
        return old["last_check"]

    def test_one_that_holds_is_its_last_check(self):
        self.stale()
        self.assertTrue(self.put(343)["within"])
        self.assertEqual(self.kit()["last_check"], TODAY)

    def test_one_that_does_not_leaves_it_due(self):
        was = self.stale()
        got = self.put(420)
        self.assertFalse(got["within"])
        self.assertIn("do not count on it", got["sentence"])
        self.assertEqual(self.kit()["last_check"], was)

    def test_one_that_was_fit_is_due_after_a_check_that_did_not_hold(self):
        self.put(343)
        self.assertEqual(self.kit()["last_check"], TODAY)
        self.put(420)
        self.assertIsNone(self.kit()["last_check"])
        self.put(343)
        self.assertEqual(self.kit()["last_check"], TODAY)

    def test_an_older_check_changes_nothing_of_the_kit(self):
        self.put(343)
        self.put(420, on=(date.today() - timedelta(days=9)).isoformat())
        self.assertEqual(self.kit()["last_check"], TODAY)

    def test_the_same_again_is_one(self):
        id = uuid4()
        many = len(self.put(343, id=id)["checks"])
        self.assertEqual(len(self.put(343, id=id)["checks"]), many)
        self.assertEqual(self.put(344, 422, id=id)["code"], "request.other")

    def test_listed_for_every_kit_that_was_checked(self):
        self.put(343)
        listed = {d["key"]: d for d in self.get("/api/instruments/drift")}
        self.assertIn("tds-1", listed)
        self.assertEqual(listed["tds-1"]["unit"], "mg/L")

    def test_refused(self):
        self.assertEqual(self.put(343, 422, on=TOMORROW)["code"], "check.day")
        self.put(343, 404, key="no-such")
        self.put("NaN", 422)

    def test_another_firm_sees_none_and_takes_no_id(self):
        id = uuid4()
        self.put(343, id=id)
        other = self.other_firm()
        self.assertEqual(other.get("/api/instruments/drift").json(), [])
        r = other.put(
            f"/api/instruments/tds-1/checks/{id}",
            json={"on": TODAY, "standard": 342, "shown": 343},
        )
        self.assertIn(r.status_code, (404, 422))


class NotesCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.home = self.get("/api/homes?find=ottoline")["homes"][0]["id"]

    def put(self, text, status=200, id=None, on=TODAY):
        path = f"/api/homes/{self.home}/notes/{id or uuid4()}"
        return self.send("PUT", path, {"on": on, "text": text}, status)

    def notes(self):
        return {n["id"]: n for n in self.get(f"/api/homes/{self.home}/years")["notes"]}


class Notes(NotesCase):
    def test_kept_struck_and_taken_back(self):
        note = self.put("  The supplier changed its source. ")
        self.assertEqual(note["text"], "The supplier changed its source.")
        path = f"/api/homes/{self.home}/notes/{note['id']}/strike"
        self.send("POST", path, {"because": "another home"})
        self.send("POST", path, {"because": "another home"})
        self.assertEqual(self.notes()[note["id"]]["struck"], "another home")
        self.send("POST", path, {})
        self.assertEqual(self.notes()[note["id"]]["struck"], "")

    def test_the_same_again_is_one(self):
        id = str(uuid4())
        self.put("Once.", id=id)
        self.put("Once.", id=id)
        self.assertEqual(sum(n["text"] == "Once." for n in self.notes().values()), 1)
        self.assertEqual(self.put("Twice.", 422, id=id)["code"], "request.other")

    def test_refused(self):
        self.assertEqual(self.put("   ", 422)["code"], "note.empty")
        self.assertEqual(self.put("x" * 501, 422)["code"], "note.long")
        self.assertEqual(self.put("x", 422, on=TOMORROW)["code"], "note.day")
        path = f"/api/homes/{self.home}/notes/{uuid4()}/strike"
        self.send("POST", path, {"because": "x"}, 404)


class Erased(NotesCase):
    def test_given_out_and_erased_with_the_person(self):
        self.put("Her brother set the pump lower.")
        path = f"/api/visits/{HOME_1}/personal-data"
        said = [n["text"] for n in self.get(path)["notes"]]
        self.assertIn("Her brother set the pump lower.", said)
        manager = self.manager()
        r = manager.post(f"/api/visits/{HOME_1}/erase", json={})
        self.assertLess(r.status_code, 300, r.text)
        with self.app.state.sessions() as db:
            firm = db.get(HomeRow, UUID(self.home)).firm_id
            texts = {n.text for n in records.of_home(db, firm, UUID(self.home))}
        self.assertEqual(texts, {"(erased)"})


class Contact(ApiCase):
    def test_a_card_is_read_and_nothing_is_stored(self):
        before = self.get("/api/homes")["total"]
        r = self.client.post(
            "/api/homes/contact",
            content=b"BEGIN:VCARD\r\nFN:Fenna Quillet\r\nTEL:555\r\nEND:VCARD\r\n",
        )
        self.assertEqual(
            r.json(), {"name": "Fenna Quillet", "phone": "555", "email": "", "place": ""}
        )
        self.assertEqual(self.get("/api/homes")["total"], before)
        bad = self.client.post("/api/homes/contact", content=b"no card")
        self.assertEqual((bad.status_code, bad.json()["code"]), (422, "contact.form"))
