"""Calendars by a secret address: read by a calendar library, taken back, and nobody else's."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from icalendar import Calendar

from tests.api.client import ApiCase
from tests.application import Client
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.records import signing
from zesty_glass.records.after_models import DueRow, JobRow
from zesty_glass.records.models import HomeRow, User, VisitRow
from zesty_glass.work import signing_in
from zesty_glass.work.jobs import job_id

TOMORROW = datetime.now(UTC).date() + timedelta(days=1)


class Feeds(ApiCase):
    def made(self, **more):
        return self.send("POST", "/api/feeds", {"id": str(uuid4()), **more}, 201)

    def read(self, path, status=200):
        r = Client(self.app, raise_server_exceptions=False).get(path)
        self.assertEqual(r.status_code, status, r.text[:200])
        return r

    def events(self, path):
        calendar = Calendar.from_ical(self.read(path).content)
        return {str(e["SUMMARY"]): e for e in calendar.walk("VEVENT")}

    def test_a_round_with_jobs_and_parts(self):
        events = self.events(self.made()["path"])
        job = events["Hesper Dunnoway: fit Upflow calcite"]
        self.assertEqual(job["DTSTART"].dt.date(), TOMORROW)
        self.assertEqual((job["DTSTART"].dt.hour, job["DTSTART"].dt.minute), (9, 30))
        self.assertIn("Odile Brackenreed: Media top-up", events)

    def test_visits_stand_at_their_time_and_a_fitter_has_none(self):
        visit = self.new_visit()
        at = datetime.now(UTC).replace(microsecond=0) + timedelta(days=6)
        body = {"version": 1, "started_at": at.isoformat()}
        self.send("PUT", f"/api/visits/{visit}/plan", body)
        event = self.events(self.made()["path"])["Tamsin Roakwell: visit"]
        self.assertEqual(event["DTSTART"].dt, at)
        fitter = self.signed_in(FITTER_EMAIL)
        path = fitter.post("/api/feeds", json={"id": str(uuid4())}).json()["path"]
        self.assertFalse([name for name in self.events(path) if name.endswith(": visit")])

    def test_of_one_home_only(self):
        home = self.get("/api/homes?find=kettleby")["homes"][0]["id"]
        events = self.events(self.made(home=home)["path"])
        self.assertTrue(events)
        self.assertTrue(all(name.startswith("Orrin Kettleby") for name in events))

    def test_a_change_moves_what_the_calendar_shows(self):
        path = self.made()["path"]
        name = "Sabra Lindlow: Pitcher cartridge"
        before = self.events(path)[name]["DTSTART"].dt
        job = job_id(UUID(uid("past-3-proposal")))
        seen = self.get(f"/api/jobs/{job}")
        body = {"part": seen["job"]["parts"][0]["key"], "on": datetime.now(UTC).date().isoformat()}
        self.send("PUT", f"/api/jobs/{job}/changes/{uuid4()}", body)
        self.assertGreater(self.events(path)[name]["DTSTART"].dt, before)

    def test_taken_back_it_opens_nothing(self):
        made = self.made()
        self.read(made["path"])
        self.send("DELETE", f"/api/feeds/{made['id']}", None, 204)
        self.read(made["path"], 404)
        self.read("/api/feed/" + "x" * 43, 404)
        shown = next(f for f in self.get("/api/feeds") if f["id"] == made["id"])
        self.assertIsNotNone(shown["revoked_at"])
        self.assertNotIn("path", shown)

    def test_nobody_takes_back_anothers(self):
        made = self.made()
        other = self.signed_in(FITTER_EMAIL)
        self.assertEqual(other.delete(f"/api/feeds/{made['id']}").status_code, 404)
        self.assertEqual(other.get("/api/feeds").json(), [])
        self.read(made["path"])

    def test_a_colleague_reads_nothing_of_anothers_customers(self):
        with self.app.state.sessions.begin() as db:
            firm = signing.user_by_email(db, EMAIL).firm_id
            email = "calendar@larkspout.example"
            signing_in.add_user(db, firm, email, "Colleague", "consultant", PASSWORD)
        colleague = self.signed_in("calendar@larkspout.example")
        made = colleague.post("/api/feeds", json={"id": str(uuid4())}).json()
        self.assertEqual(self.events(made["path"]), {})
        home = self.get("/api/homes?find=kettleby")["homes"][0]["id"]
        body = {"id": str(uuid4()), "home": home}
        self.assertEqual(colleague.post("/api/feeds", json=body).status_code, 404)
        self.assertEqual(colleague.get("/api/due").json()["lines"], [])
        self.assertEqual(colleague.get("/api/jobs").json(), [])
        self.assertEqual(colleague.get("/api/homes").json()["homes"], [])
        query = "kind=softener&item=Softener, 2 ft³, metered&analyte=hardness"
        part = self.get("/api/track/more")["lasted"][0]
        now = self.get("/api/track/more")["outcomes"][0]
        for asked in (
            f"jobs?{query}",
            f"parts?label={part['label']}&kind={part['kind']}",
            f"proposals?year={now['year']}&quarter={now['of_year']}&state=accepted",
            "waters",
        ):
            self.assertTrue(self.get(f"/api/track/{asked}")["lines"], asked)
            self.assertEqual(colleague.get(f"/api/track/{asked}").json()["lines"], [], asked)

    def test_a_home_given_to_another_leaves_ones_calendar(self):
        visit = self.new_visit()
        home = self.get("/api/homes?find=roakwell")["homes"][0]["id"]
        path = self.made(home=home)["path"]
        self.read(path)
        with self.app.state.sessions.begin() as db:
            other = db.query(User).filter(User.email == MANAGER_EMAIL).one().id
            db.query(VisitRow).filter(VisitRow.id == UUID(visit)).update({"consultant_id": other})
        self.read(path, 404)

    def test_two_homes_that_are_called_alike_stay_two_entries(self):
        with self.app.state.sessions.begin() as db:
            due = db.query(DueRow, JobRow).join(JobRow, JobRow.id == DueRow.job_id).all()
            (a, job), (b, other) = due[0], next(d for d in due if d[1].home_id != due[0][1].home_id)
            names = db.get(HomeRow, job.home_id)
            twin = db.get(HomeRow, other.home_id)
            twin.home = {**twin.home, **{k: names.home.get(k, "") for k in ("name", "place")}}
            b.due_on = a.due_on
            whose = [names.customer["name"], twin.customer["name"]]
        on = [name for name in self.events(self.made()["path"])]
        for who in whose:
            self.assertTrue([name for name in on if name.startswith(f"{who}: ")], who)

    def test_who_works_here_no_more_has_no_calendar(self):
        other = self.signed_in(FITTER_EMAIL)
        made = other.post("/api/feeds", json={"id": str(uuid4())}).json()
        self.read(made["path"])
        with self.app.state.sessions.begin() as db:
            db.query(User).filter(User.email == FITTER_EMAIL).update({"active": False})
        self.read(made["path"], 404)

    def test_the_customers_link_says_what_is_due(self):
        proposal = uid("past-1-proposal")
        link = self.send(
            "POST", f"/api/proposals/{proposal}/links", {"id": str(uuid4()), "days": 5}, 201
        )
        offered = self.read("/api/offered/" + link["path"].removeprefix("/p/")).json()
        self.assertEqual(offered["care"][0]["state"], "overdue")
        self.assertTrue(offered["care"][0]["own"])
        for x in offered["care"]:  # with the steps of what they do themselves, and of nothing else
            self.assertEqual(x["steps"] is not None, x["own"], x["label"])
        self.assertNotIn("Ansgar", str(offered["care"]))

    def test_the_customers_link_says_what_fell_short_and_what_is_tried(self):
        link = self.send(
            "POST",
            f"/api/proposals/{uid('past-4-proposal')}/links",
            {"id": str(uuid4()), "days": 5},
            201,
        )
        offered = self.read("/api/offered/" + link["path"].removeprefix("/p/")).json()
        (line,) = offered["kept"]
        job = self.get(f"/api/jobs/{job_id(UUID(uid('past-4-proposal')))}")
        (own,) = job["standing"]["proved"]
        self.assertEqual(line["proved"], own | {"causes": []})
        self.assertEqual(own["verdict"], "short")
        self.assertIn(job["job"]["follow_ups"][0]["what"], line["tried"])
