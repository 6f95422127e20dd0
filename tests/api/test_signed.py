"""What was signed holds: the job is made from what was sealed, whatever changed since; a newer
revision takes the place of the last; what is found meanwhile reaches whoever would sign.
"""

import io
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import get_args
from unittest import mock
from uuid import UUID, uuid4

from pypdf import PdfReader
from sqlalchemy import select

from tests.api.client import HOME_1, HOME_2
from tests.api.test_accepting import AcceptCase
from tests.clock import moved
from zesty_glass.core.proposing.proposal import Proposal, State
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL
from zesty_glass.documents.codec import load
from zesty_glass.records.models import ProposalRow
from zesty_glass.records.standing import state_on
from zesty_glass.work import jobs

LINE = uid("home-1-option-b")
REPORT = "analyte,result,unit,basis\nE. coli,{result},per 100 mL,\n"


def in_days(many):
    return (datetime.now(UTC) + timedelta(days=many)).date().isoformat()


class SignedCase(AcceptCase):
    """The first home's proposal, presented; what was signed there before is cancelled."""

    def setUp(self):
        super().setUp()
        for p in self.get(f"/api/visits/{HOME_1}")["visit"]["proposals"]:
            if p["state"] == "accepted":
                self.decide(p["id"], "cancelled", because="Another test.", terms="None.")

    def decide(self, id, to, status=200, **more):
        body = {"version": self.get(f"/api/proposals/{id}")["version"], **more}
        return self.send("POST", f"/api/proposals/{id}/{to}", body, status)

    def written(self, recommended=LINE, visit=HOME_1):
        body = {"id": str(uuid4()), "recommended": recommended}
        return self.send("POST", f"/api/visits/{visit}/proposals", body, 201)

    def option(self, id=LINE, visit=HOME_1):
        opened = self.get(f"/api/visits/{visit}")
        found = next(o for o in opened["visit"]["options"] if o["id"] == id)
        return found, opened["versions"][id]

    def put_option(self, option, version, visit=HOME_1):
        path = f"/api/visits/{visit}/options/{option['id']}"
        self.send("PUT", path, option, if_match_version=version)

    def signed_job(self, **more):
        self.accept(self.token()[1], **more)
        return self.get(f"/api/jobs/{self.state()['job']}")["job"]

    def in_use(self, job):
        """Its steps are left out, and it is in use from today."""
        today = datetime.now(UTC).date().isoformat()
        version = self.get(f"/api/jobs/{job}")["version"]
        body = {"version": version, "on": today, "left_out": "Done by a plumber."}
        self.send("PUT", f"/api/jobs/{job}/fitted", body)

    def codes(self, job):
        return [s["code"] for s in job["stages"]]


class TheJob(SignedCase):
    def test_a_line_edited_since_makes_no_other_job(self):
        offered = self.state()["offer"]
        of = next(o for o in offered["options"] if o["id"] == LINE)
        option, version = self.option()
        less = {**option, "stages": option["stages"][:1], "name": "Another line"}
        self.put_option(less, version)
        try:
            job = self.signed_job()
        finally:
            self.put_option(option, self.option()[1])
        self.assertEqual(self.codes(job), [s["code"] for s in of["stages"]])
        self.assertEqual(job["line"], of["name"])

    def test_a_line_taken_away_since_still_has_its_job(self):
        offered = self.state()["offer"]
        option, version = self.option()
        self.client.delete(
            f"/api/visits/{HOME_1}/options/{LINE}", headers={"If-Match-Version": str(version)}
        )
        try:
            job = self.signed_job()
            self.assertIn("Its job is made.", self.told()[0]["text"])
        finally:
            self.put_option(option, 0)
        of = next(o for o in offered["options"] if o["id"] == LINE)
        self.assertEqual(self.codes(job), [s["code"] for s in of["stages"]])

    def test_where_none_can_be_made_the_signature_stays_and_the_firm_is_told(self):
        with mock.patch.object(jobs, "job_of", side_effect=ValueError("no")):
            self.accept(self.token()[1])
        self.assertEqual(self.state()["state"], "accepted")
        self.assertIn("could not be made", self.told()[0]["text"])
        first = self.get("/api/waiting")[0]
        self.assertEqual((first["kind"], first["path"]), ("unmade", f"/proposals/{self.made}"))
        self.send("POST", f"/api/proposals/{self.made}/job", None, 201)
        self.assertNotIn("unmade", {w["kind"] for w in self.get("/api/waiting")})

    def test_what_holds_water_is_measured_at_the_line_that_was_signed(self):
        option, version = self.option()
        job = self.signed_job()
        self.put_option({**option, "stages": option["stages"][:1]}, version)
        row = self.get(f"/api/jobs/{job['id']}")
        body = {"version": row["version"], "plumbing": {"heater_gal": 60.0}}
        try:
            after = self.send("PUT", f"/api/jobs/{job['id']}/plumbing", body)["job"]
        finally:
            self.put_option(option, self.option()[1])
        self.assertEqual([s["key"] for s in after["sheets"]], [s["key"] for s in job["sheets"]])


class Revisions(SignedCase):
    def test_presenting_the_next_replaces_the_last_and_its_links_lead_on(self):
        _, token = self.token()
        old = self.signed(token)
        second = self.written()
        self.decide(second["id"], "presented")
        self.assertEqual(self.state()["state"], "replaced")
        self.assertEqual(self.state()["replaced_by"], second["id"])
        seen = self.shown(token)
        self.assertTrue(seen["replaced"])
        self.assertEqual(seen["offer"]["revision"], second["offer"]["revision"])
        refused = self.stranger().post(f"/api/offered/{token}/accept", json=old)
        self.assertEqual((refused.status_code, refused.json()["code"]), (409, "proposal.replaced"))
        self.accept(token)
        self.assertEqual(self.get(f"/api/proposals/{second['id']}")["state"], "accepted")
        self.decide(self.made, "accepted", 409, name="Orla Fenbrook", typed=True)

    def test_two_revisions_of_one_line_make_one_job(self):
        self.accept(self.token()[1])
        first = self.state()["job"]
        second = self.written()
        self.decide(second["id"], "presented")
        read = [k["sentence"] for k in second["offer"]["before_signing"]]
        self.decide(second["id"], "accepted", name="Orla Fenbrook", typed=True, read=read)
        self.assertEqual(self.state()["state"], "replaced")
        ended = self.get(f"/api/jobs/{first}")
        self.assertEqual(ended["standing"]["state"], "ended")
        self.assertIn("revision", ended["job"]["ended"]["because"])
        self.assertNotIn(first, {j["id"] for j in self.get("/api/jobs")})

    def test_what_is_in_use_is_replaced_by_no_revision(self):
        self.accept(self.token()[1])
        self.in_use(self.state()["job"])
        second = self.written()
        self.decide(second["id"], "presented")
        read = [k["sentence"] for k in second["offer"]["before_signing"]]
        said = self.decide(second["id"], "accepted", 422, name="Orla", typed=True, read=read)
        self.assertEqual(said["code"], "job.in_use")
        self.assertEqual(self.state()["state"], "accepted")

    def test_a_second_offer_stands_beside_the_first_only_where_that_is_said(self):
        same = self.written()
        self.assertEqual(
            self.decide(same["id"], "presented", 422, beside=True)["code"], "proposal.beside"
        )
        other = self.written(uid("home-1-option-a"))
        self.decide(other["id"], "presented", beside=True)
        self.assertEqual(self.state()["state"], "presented")


class TwoDecide(SignedCase):
    def setUp(self):
        super().setUp()
        self.made = self.written()["id"]
        self.decide(self.made, "presented", two_sign=True)

    def test_it_is_accepted_when_both_have_signed(self):
        _, token = self.token()
        self.accept(token, name="Orla Fenbrook")
        first = self.state()
        self.assertEqual(first["state"], "presented")
        self.assertEqual((first["signature"]["name"], first["job"]), ("Orla Fenbrook", ""))
        self.accept(token, name="Orla Fenbrook")  # a repeat is harmless
        self.assertEqual(self.state()["state"], "presented")
        self.assertEqual(self.shown(token)["signed_by"], "Orla Fenbrook")
        known = [k["sentence"] for k in first["offer"]["before_signing"]]
        again = {"name": "orla fenbrook", "typed": True, "read": known}
        self.assertEqual(
            self.decide(self.made, "accepted", 422, **again)["code"], "signature.twice"
        )
        self.accept(token, name="Corin Fenbrook")
        both = self.state()
        self.assertEqual((both["state"], both["second"]["name"]), ("accepted", "Corin Fenbrook"))
        self.assertEqual((both["signature"], both["seal"]), (first["signature"], "good"))
        self.assertNotEqual(both["job"], "")
        self.assertEqual(len(self.told()), 1)
        paper = self.client.get(f"/api/proposals/{self.made}/pdf").content
        text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(paper)).pages)
        self.assertIn("by Orla Fenbrook on", text)
        self.assertIn("by Corin Fenbrook on", text)


class News(SignedCase):
    def found(self, result="present"):
        """E. coli comes in by a laboratory's report of the raw water."""
        visit = self.get(f"/api/visits/{HOME_1}")["visit"]
        raw = next(s for s in visit["samples"] if s["raw"])
        path = f"/api/visits/{HOME_1}/samples/{raw['id']}/lab-results"
        report = REPORT.format(result=result)
        self.assertEqual(self.client.post(path, content=report).status_code, 201)
        after = self.get(f"/api/visits/{HOME_1}")["visit"]
        raw = next(s for s in after["samples"] if s["raw"])
        stands = (r for r in raw["readings"] if not r["struck_at"])
        return next(r["id"] for r in stands if r["analyte"] == "e_coli")

    def struck(self, reading):
        body = {"because": "Another house."}
        self.send("POST", f"/api/visits/{HOME_1}/readings/{reading}/strike", body)

    def test_a_result_of_health_reaches_whoever_would_sign(self):
        _, token = self.token()
        self.assertEqual((self.shown(token)["news"], self.shown(token)["moved"]), ([], False))
        found = self.found()
        seen = self.shown(token)
        self.assertTrue(any("E. coli" in s for s in seen["news"]), seen["news"])
        self.assertIn("E. coli", " ".join(self.state()["moved"]["health"]))
        again = next(w for w in self.get("/api/waiting") if w["kind"] == "again")
        self.assertIn("E. coli", again["what"])
        self.struck(found)
        self.assertEqual(self.shown(token)["news"], [])

    def test_a_result_of_health_after_the_signature_reaches_whoever_would_fit(self):
        _, token = self.token()
        job = self.signed_job()["id"]
        found = self.found("12")
        self.addCleanup(self.struck, found)
        moved = self.state()["moved"]
        self.assertIn("E. coli", " ".join(moved["health"]))
        self.assertEqual(moved["changes"], [])
        self.assertIn("E. coli", " ".join(self.shown(token)["news"]))
        again = next(w for w in self.get("/api/waiting") if w["kind"] == "again")
        self.assertIn("before it is fitted: E. coli", again["what"])
        self.in_use(job)
        self.assertEqual([w for w in self.get("/api/waiting") if w["kind"] == "again"], [])

    def test_a_changed_line_is_told_on_both_sides(self):
        _, token = self.token()
        option, version = self.option()
        self.put_option({**option, "stages": option["stages"][:1]}, version)
        self.assertIn("stages", " ".join(d["what"] for d in self.state()["moved"]["changes"]))
        self.assertTrue(self.shown(token)["moved"])
        self.put_option(option, self.option()[1])
        self.assertEqual(self.state()["moved"], {"health": [], "changes": []})

    def test_another_reading_that_changes_nothing_is_no_news(self):
        visit = self.get(f"/api/visits/{HOME_1}")["visit"]
        raw = next(s for s in visit["samples"] if s["raw"])
        tds = next(r for r in raw["readings"] if r["analyte"] == "tds")
        now = datetime.now(UTC).isoformat()  # the demo's own of today may lie ahead, at night
        self.keep(HOME_1, raw["id"], {**tds, "id": str(uuid4()), "made_at": now})
        self.assertEqual(self.state()["moved"], {"health": [], "changes": []})


class Days(SignedCase):
    def later(self, days):
        """The server's clock moved on; sessions end with it."""
        del type(self).session
        return moved(days)

    def test_it_expires_by_the_day_everywhere(self):
        _, token = self.token(days=90)
        until = self.state()["until"]
        body = self.signed(token)
        with self.later(31):
            self.client = self.signed_in(EMAIL)
            self.assertEqual((self.state()["state"], self.shown(token)["state"]), ("expired",) * 2)
            opened = self.get(f"/api/visits/{HOME_1}")["visit"]["proposals"]
            self.assertEqual(opened[-1]["state"], "expired")
            waits = [w for w in self.get("/api/waiting") if w["path"].endswith(self.made)]
            self.assertEqual([w["what"][:23] for w in waits], ["A proposal has run out:"])
            refused = self.stranger().post(f"/api/offered/{token}/accept", json=body)
            self.assertEqual(refused.json()["code"], "proposal.expired")
            p = self.state()
            later = (datetime.fromisoformat(until) + timedelta(days=40)).date().isoformat()
            body = {"version": p["version"], "until": later}
            after = self.send("PUT", f"/api/proposals/{self.made}/until", body)
            self.assertEqual(after["state"], "presented")
            self.assertEqual(self.shown(token)["until"], later)

    def test_the_database_and_the_core_agree_on_what_has_expired(self):
        p = self.state()
        last = datetime.fromisoformat(p["until"]).date()
        with self.app.state.sessions() as db:
            row = db.get(ProposalRow, UUID(self.made))
            core = load(Proposal, row.data)
            for state in get_args(State):
                for day in (last - timedelta(days=1), last, last + timedelta(days=1)):
                    row.data = {**row.data, "state": state}
                    db.flush()
                    said = db.scalar(select(state_on(day)).where(ProposalRow.id == row.id))
                    self.assertEqual(said, replace(core, state=state).state_on(day), (state, day))
            db.rollback()

    def test_what_runs_out_is_given_a_later_day(self):
        p = self.state()
        for until in (in_days(-1), p["until"], in_days(800)):
            body = {"version": p["version"], "until": until}
            self.send("PUT", f"/api/proposals/{self.made}/until", body, 422)
        body = {"version": p["version"], "until": in_days(60)}
        after = self.send("PUT", f"/api/proposals/{self.made}/until", body)
        self.assertEqual((after["until"], after["seal"]), (in_days(60), "good"))


class Ending(SignedCase):
    def test_withdrawn_and_cancelled_need_a_reason(self):
        self.assertEqual(self.decide(self.made, "withdrawn", 422)["code"], "proposal.because")
        _, token = self.token()
        self.decide(self.made, "withdrawn", because="The maker ended it.")
        self.assertEqual(self.shown(token)["state"], "withdrawn")
        self.assertEqual(self.state()["because"], "The maker ended it.")
        self.send("POST", f"/api/proposals/{self.made}/links", {"id": str(uuid4())}, 422)

    def test_a_sale_is_cancelled_and_its_job_ends(self):
        self.accept(self.token()[1])
        job = self.state()["job"]
        self.assertIsNotNone(self.state()["right_to_cancel_until"])
        self.decide(self.made, "cancelled", because="They moved away.")
        ended = self.get(f"/api/jobs/{job}")
        self.assertEqual(
            (self.state()["state"], ended["standing"]["state"]), ("cancelled", "ended")
        )
        self.assertEqual(ended["standing"]["due"], [])

    def test_a_correction_stands_beside_the_signature(self):
        self.accept(self.token()[1])
        before = self.state()
        body = {"version": before["version"], "said": "It is spelled Fenbrooke."}
        after = self.send("PUT", f"/api/proposals/{self.made}/correction", body)
        self.assertEqual(after["signature"], before["signature"])
        self.assertEqual(after["corrections"][0]["said"], "It is spelled Fenbrooke.")
        self.assertEqual(after["seal"], "good")

    def test_no_unsigned_proposal_has_a_signature_to_correct(self):
        p = self.written(visit=HOME_2, recommended=uid("home-2-option-a"))
        body = {"version": p["version"], "said": "x"}
        self.send("PUT", f"/api/proposals/{p['id']}/correction", body, 422)
