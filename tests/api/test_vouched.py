"""What the server vouches for: who made a reading, with which kit; whose draft stays; whose page
signs in.
"""

from uuid import UUID, uuid4

from tests.api.client import ApiCase
from tests.application import Client
from tests.database import SECRET, fresh
from tests.documents.hostile import TEXTS
from zesty_glass.api.app import create_app
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.standins.mail import SimulatedMail
from zesty_glass.work import sharing
from zesty_glass.work.person import Person


class Readings(ApiCase):
    def test_a_kit_is_the_firms_own_whatever_the_request_says_of_it(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        r = self.reading("tds-1", {"method": "meter", "displays": [400, 401]})
        r["instrument"] = {**r["instrument"], "accuracy_share": 0.0001, "name": "A better one"}
        kept = self.keep(visit, sample, {**r, "by": "Somebody Else"})["reading"]
        self.assertEqual(kept["instrument"], self.instrument("tds-1"))
        self.assertEqual(kept["by"], self.get("/api/session")["name"])
        self.assertIsNotNone(kept["kept_at"])

    def test_a_kit_of_nobodys_is_refused(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        r = self.reading("tds-1", {"method": "meter", "displays": [400, 401]})
        r["instrument"] = {**r["instrument"], "id": "tds-of-mine"}
        self.assertEqual(self.keep(visit, sample, r, 422)["code"], "reading.kit")

    def test_a_clock_far_off_is_asked_about(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        r = self.reading("tds-1", {"method": "meter", "displays": [400, 401]})
        old = {**r, "id": str(uuid4()), "made_at": "2026-01-05T10:00:00Z"}
        flags = [f["id"] for f in self.keep(visit, sample, old)["value"]["flags"]]
        self.assertIn("reading.clock", flags)


class Drafts(ApiCase):
    def test_a_colleagues_draft_stays_when_another_writes_one(self):
        visit = self.new_visit()
        self.new_sample(visit)
        body = {"recommended": "today", "reasons": "x"}

        def write(client):
            id = str(uuid4())
            r = client.post(f"/api/visits/{visit}/proposals", json={**body, "id": id})
            self.assertEqual(r.status_code, 201, r.text[:300])
            return id

        mine, boss = write(self.client), self.manager()
        theirs = write(boss)
        again = write(boss)
        kept = {p["id"] for p in self.get(f"/api/visits/{visit}")["visit"]["proposals"]}
        self.assertEqual(kept, {mine, again})
        self.assertNotIn(theirs, kept)

    def test_one_id_with_other_content_is_refused(self):
        visit = self.new_visit()
        self.new_sample(visit)
        id = str(uuid4())
        path = f"/api/visits/{visit}/proposals"
        body = {"id": id, "recommended": "today", "reasons": "x"}
        for _ in range(2):
            self.send("POST", path, body, 201)
        r = self.send("POST", path, {**body, "reasons": "other"}, 422)
        self.assertEqual(r["code"], "request.other")
        started = {"id": str(uuid4()), "customer": {"name": "A"}, "home": {"name": "x"}}
        for _ in range(2):
            self.send("POST", "/api/visits", started, 201)
        other = {**started, "customer": {"name": "B"}}
        self.assertEqual(self.send("POST", "/api/visits", other, 422)["code"], "request.other")


class Mails(ApiCase):
    def test_no_text_gets_into_a_head(self):
        user = self.get("/api/session")
        who = Person(
            id=UUID(user["id"]), firm_id=UUID(uid("firm")), name=user["name"], role=user["role"]
        )
        sender = SimulatedMail()
        for text in TEXTS:
            with self.subTest(text), self.app.state.sessions.begin() as db:
                sharing.mail(
                    db,
                    who,
                    UUID(uid("home-1-proposal")),
                    uuid4(),
                    "a@b.example",
                    text,
                    5,
                    "",
                    sender,
                )
                sent = sender.sent[-1]
                self.assertNotRegex(sent.subject + sent.to + sent.attachment, r"[\r\n]")


class Addresses(ApiCase):
    def test_behind_a_proxy_that_rewrites_the_host_it_says_what_to_set(self):
        body = {"email": EMAIL, "password": PASSWORD}
        c = Client(self.app, raise_server_exceptions=False)
        wrong = c.post("/api/session", json=body, headers={"Origin": "https://elsewhere.example"})
        self.assertEqual((wrong.status_code, wrong.json()["code"]), (403, "session.origin"))
        self.assertIn("ZESTY_PUBLIC_ADDRESS", wrong.json()["remedy"])
        right = c.post("/api/session", json=body, headers={"Origin": "https://water.example"})
        self.assertEqual(right.status_code, 200)

    def test_links_never_come_from_a_header(self):
        mail = {"id": str(uuid4()), "to": "a@b.example"}
        path = f"/api/proposals/{uid('home-1-proposal')}/mail"
        r = self.client.post(path, json=mail, headers={"Host": "evil.example"})
        self.assertEqual(r.status_code, 201, r.text[:200])
        self.assertIn("https://water.example/p/", r.json()["text"])
        self.assertNotIn("evil", r.text)

    def test_over_https_cookie_and_transport_are_held_fast(self):
        app = create_app(fresh(), SECRET, secure_cookie=True)
        self.addCleanup(app.state.engine.dispose)
        c = Client(app, base_url="https://water.example")
        r = c.post("/api/session", json={"email": MANAGER_EMAIL, "password": PASSWORD})
        cookie = r.headers["set-cookie"]
        self.assertTrue(cookie.startswith("__Host-zesty_session="))
        for part in ("HttpOnly", "Secure", "SameSite=strict", "Path=/"):
            self.assertIn(part, cookie)
        self.assertNotIn("Domain", cookie)
        self.assertIn("max-age=31536000", r.headers["strict-transport-security"])
        self.assertEqual(c.get("/api/session").status_code, 200)
