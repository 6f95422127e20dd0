"""Jobs over the wire: from the signature to what is proved, and what falls due."""

import copy
from datetime import UTC, date, datetime, timedelta
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, ApiCase
from tests.clock import moved
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import FITTER_EMAIL

TODAY = datetime.now(UTC).date()
PATH = "M10,10 L20,20 L30,15 L60,40"


def day(ago):
    return (TODAY - timedelta(days=ago)).isoformat()


SOLD = 400  # days ago


class JobCase(ApiCase):
    def sold(self, option="home-1-option-b", visit=HOME_1, ago=SOLD):
        """A job from a proposal that was presented and signed so many days ago; what was signed
        before at this visit is cancelled.
        """
        with moved(-ago):
            return self._sold(option, visit)

    def _sold(self, option, visit):
        for p in self.get(f"/api/visits/{visit}")["visit"]["proposals"]:
            if p["state"] == "accepted":
                version = self.get(f"/api/proposals/{p['id']}")["version"]
                why = {"version": version, "because": "Another was wanted.", "terms": "None."}
                self.send("POST", f"/api/proposals/{p['id']}/cancelled", why)
        p = self.send(
            "POST",
            f"/api/visits/{visit}/proposals",
            {"id": str(uuid4()), "recommended": uid(option)},
            201,
        )
        p = self.send("POST", f"/api/proposals/{p['id']}/presented", {"version": p["version"]})
        read = [k["sentence"] for k in p["offer"]["before_signing"]]
        body = {"version": p["version"], "name": "Ottoline Marrash", "path": PATH, "read": read}
        self.send("POST", f"/api/proposals/{p['id']}/accepted", body)
        made = self.send("POST", f"/api/proposals/{p['id']}/job", None, 201)
        return self.get(f"/api/jobs/{made['id']}")

    def put(self, job, what, body, status=200):
        versioned = what in ("plan", "plumbing", "fitted")
        more = {"version": job["version"]} if versioned else {}
        if what == "fitted":
            more["left_out"] = "Done by a plumber."
        return self.send("PUT", f"/api/jobs/{job['id']}/{what}", {**more, **body}, status)

    def proof(self, kit, seen, where="house", id=None):
        now = datetime.now(UTC).isoformat()
        reading = self.reading(kit, seen, id) | {"made_at": now}
        return {"where": where, "phase": "flushed", "reading": reading}


class Jobs(JobCase):
    def test_accepting_makes_a_job_and_asking_again_makes_no_other(self):
        job = self.sold()
        proposal = job["job"]["proposal"]
        again = self.send("POST", f"/api/proposals/{proposal}/job", None, 201)
        self.assertEqual(again["id"], job["id"])
        self.assertEqual(job["standing"]["state"], "to plan")
        self.assertEqual(job["customer"], "Ottoline Marrash")
        self.assertIn("membrane", {s["kind"] for s in job["job"]["stages"]})
        price = self.get(f"/api/proposals/{proposal}")["offer"]["price"]
        total = next(x["amount"] for x in price if x["kind"] == "total")
        self.assertEqual(
            job["payments"],
            [
                {
                    "label": "All of it",
                    "amount": total,
                    "when": "when it is installed",
                    "many": 1,
                    "starts": "use",
                    "rent": None,
                }
            ],
        )
        self.assertEqual(job["currency"], "$")

    def test_what_is_not_signed_is_no_job(self):
        p = self.send(
            "POST",
            f"/api/visits/{HOME_1}/proposals",
            {"id": str(uuid4()), "recommended": uid("home-1-option-a")},
            201,
        )
        told = self.send("POST", f"/api/proposals/{p['id']}/job", None, 422)
        self.assertEqual(told["code"], "job.accepted")

    def test_from_planned_to_short_to_as_promised(self):
        job = self.sold()
        job = self.put(job, "plan", {"planned_on": day(0), "planned_at": "09:30", "fitter": "A"})
        self.assertEqual(job["standing"]["state"], "planned")
        early = self.proof("hard-1", {"method": "drops", "drops": 6})
        path = f"proofs/{early['reading']['id']}"
        self.assertEqual(self.put(job, path, early, 422)["code"], "job.not_fitted")
        job = self.put(job, "fitted", {"on": day(3)})
        self.assertTrue(job["standing"]["due"])
        aged, ahead = (copy.deepcopy(early) for _ in range(2))
        aged["reading"]["made_at"] = f"{day(5)}T09:00:00Z"
        ahead["reading"]["made_at"] = f"{day(-2)}T09:00:00Z"
        self.assertEqual(self.put(job, path, aged, 422)["code"], "job.before_fitting")
        self.assertEqual(self.put(job, path, ahead, 422)["code"], "reading.future")
        job = self.put(job, path, early)
        short = next(p for p in job["standing"]["proved"] if p["promise"]["analyte"] == "hardness")
        self.assertEqual(short["verdict"], "short")
        self.assertEqual(short["causes"][0]["id"], "not_flushed")
        self.assertEqual(job["standing"]["state"], "short")
        follow = {"analyte": "hardness", "what": "Bypass closed.", "on": day(0)}
        id = str(uuid4())
        self.put(job, f"follow-ups/{id}", follow)
        struck = {"because": "bypass was open"}
        reading = early["reading"]["id"]
        self.send("POST", f"/api/jobs/{job['id']}/proofs/{reading}/strike", struck)
        good = self.proof("hard-1", {"method": "drops", "drops": 0})
        job = self.put(job, f"proofs/{good['reading']['id']}", good)
        self.assertEqual(
            job["standing"]["state"], "short", "an open follow-up keeps it from being proved"
        )
        job = self.put(job, f"follow-ups/{id}", {**follow, "closed": "It was the bypass."})
        shown = {p["promise"]["analyte"]: p["verdict"] for p in job["standing"]["proved"]}
        self.assertEqual(shown, {"hardness": "as promised"})
        self.assertEqual(job["standing"]["state"], "fitted")

    def test_a_repeat_changes_nothing_and_another_reading_under_one_id_is_refused(self):
        job = self.put(self.sold(), "fitted", {"on": day(1)})
        p = self.proof("hard-1", {"method": "drops", "drops": 1})
        path = f"proofs/{p['reading']['id']}"
        first = self.put(job, path, p)
        self.assertEqual(self.put(job, path, p)["version"], first["version"])
        p["reading"]["observation"]["drops"] = 2
        self.assertEqual(self.put(job, path, p, 422)["code"], "job.proof")

    def test_a_kit_is_the_firms_own_whatever_the_page_says_of_it(self):
        job = self.put(self.sold(), "fitted", {"on": day(1)})
        p = self.proof("tds-1", {"method": "meter", "displays": [20, 20]}, where="tap")
        p["reading"]["instrument"] = {**p["reading"]["instrument"], "accuracy_share": 0.9}
        kept = self.put(job, f"proofs/{p['reading']['id']}", p)["job"]["proofs"][0]
        self.assertEqual(kept["reading"]["instrument"], self.instrument("tds-1"))
        strange = self.proof("tds-1", {"method": "meter", "displays": [20, 20]})
        strange["reading"]["instrument"]["id"] = "nobody-s"
        told = self.put(job, f"proofs/{strange['reading']['id']}", strange, 422)
        self.assertEqual(told["code"], "reading.kit")

    def test_two_who_plan_at_once_never_overwrite_each_other(self):
        job = self.sold()
        self.put(job, "plan", {"fitter": "Ansgar"})
        told = self.put(job, "plan", {"fitter": "Perrin"}, 409)
        self.assertIn("fitter", told["changed"])
        self.assertEqual(self.get(f"/api/jobs/{job['id']}")["job"]["fitter"], "Ansgar")

    def test_ticks_keep_who_and_when_and_are_taken_back(self):
        job = self.sold()
        sheet = job["job"]["sheets"][0]["key"]
        body = {"sheet": sheet, "step": 1}
        path = f"/api/jobs/{job['id']}/ticks"
        first = self.send("POST", path, body)
        self.assertEqual(first["standing"]["steps_done"], 1)
        self.assertEqual(first["job"]["ticks"][0]["by"], "Perrin Oakhalse")
        again = self.send("POST", path, body)
        self.assertEqual(again["job"]["ticks"], first["job"]["ticks"])
        back = self.send("POST", path, {**body, "done": False})
        self.assertEqual(back["standing"]["steps_done"], 0)
        self.assertEqual(self.send("POST", path, {**body, "step": 40}, 422)["code"], "job.step")

    def test_the_bleach_follows_what_was_measured(self):
        job = self.sold()
        kept = {**job["job"]["plumbing"], "heater_gal": 80, "bleach_pct": 6}
        now = self.put(job, "plumbing", {"plumbing": kept})
        # 80 gal = 302.8 L, 5.7 L of pipe, 4 L of housings: 312.5 L × 50 ÷ (10 × 6)
        self.assertEqual(round(now["disinfection"]["bleach_ml"]), 260)
        self.assertFalse(now["job"]["plumbing"]["assumed"])
        weak = {"plumbing": {**kept, "bleach_pct": 0}}
        self.assertEqual(self.put(now, "plumbing", weak, 422)["code"], "bleach.strength")

    def test_what_cannot_be_is_refused(self):
        job = self.put(self.sold(), "fitted", {"on": day(10)})
        part = job["job"]["parts"][0]["key"]
        for body, code in (
            ({"part": part, "on": day(11)}, "change.before_fitting"),
            ({"part": part, "on": day(-1)}, "change.future"),
            ({"part": "0:X:y", "on": day(1)}, "change.part"),
        ):
            told = self.put(job, f"changes/{uuid4()}", body, 422)
            self.assertEqual(told["code"], code)
        self.assertEqual(self.put(job, "fitted", {"on": day(-1)}, 422)["code"], "job.future")
        job = self.put(job, f"changes/{uuid4()}", {"part": part, "on": day(5)})
        told = self.put(job, "fitted", {"on": day(4)}, 422)
        self.assertEqual(told["code"], "job.changed_before")
        told = self.put(job, "fitted", {"on": None}, 422)
        self.assertEqual(told["code"], "job.changed_before")

    def test_a_consultant_sees_no_other_firms_or_colleagues_job(self):
        self.assertEqual(self.client.get(f"/api/jobs/{uuid4()}").status_code, 404)

    def test_a_fitter_works_at_it(self):
        fitter = self.signed_in(FITTER_EMAIL)
        mine = {j["id"] for j in fitter.get("/api/jobs").json()}
        self.assertEqual(mine, {j["id"] for j in self.get("/api/jobs")})
        r = fitter.put(f"/api/jobs/{next(iter(mine))}/plan", json={"version": 0})
        self.assertEqual(r.status_code, 409)


class Due(JobCase):
    def test_a_change_moves_a_part_and_nothing_falls_due_twice(self):
        job = self.put(self.sold(), "fitted", {"on": day(300)})
        first = job["standing"]["due"][0]
        until = (TODAY + timedelta(days=900)).isoformat()

        def listed():
            lines = self.get(f"/api/due?until={until}")["lines"]
            return [x for x in lines if x["job"] == job["id"]]

        before = {x["key"]: x["due_on"] for x in listed()}
        self.assertEqual(len(before), len(listed()))
        key = first["part"]["key"]
        id = str(uuid4())
        self.put(job, f"changes/{id}", {"part": key, "on": day(1), "before": "brown"})
        after = {x["key"]: x["due_on"] for x in listed()}
        self.assertGreater(after[key], before[key])
        self.assertEqual({**after, key: ""}, {**before, key: ""})
        self.send("DELETE", f"/api/jobs/{job['id']}/changes/{id}")
        self.assertEqual({x["key"]: x["due_on"] for x in listed()}, before)

    def test_overdue_first(self):
        lines = self.get("/api/due")["lines"]
        self.assertEqual([x["due_on"] for x in lines], sorted(x["due_on"] for x in lines))
        self.assertEqual(lines[0]["state"], "overdue")
        self.assertIn("Odile Brackenreed", {x["customer"] for x in lines})

    def test_each_line_has_its_person_the_fitter_before_the_visitor(self):
        fitted = {j["id"]: j["fitter"] for j in self.get("/api/jobs")}
        lines = self.get("/api/due")["lines"]
        self.assertTrue(all(x["person"] for x in lines))
        for x in lines:
            if fitted.get(x["job"]):
                self.assertEqual(x["person"], fitted[x["job"]])

    def test_the_demo_has_a_job_for_tomorrow_and_one_that_is_short(self):
        states = {(j["customer"], j["state"]) for j in self.get("/api/jobs")}
        self.assertIn(("Tolland Wray-Pike", "short"), states)
        self.assertIn("planned", {s for _, s in states})
        planned = next(j for j in self.get("/api/jobs") if j["state"] == "planned")
        self.assertEqual(date.fromisoformat(planned["planned_on"]), TODAY + timedelta(days=1))

    def test_a_page_that_nobody_was_told_of(self):
        for bad in ("x", "2026-01-01/x/y"):
            self.assertEqual(self.get(f"/api/due?after={bad}", 422)["code"], "due.after")
        far = (TODAY + timedelta(days=2000)).isoformat()
        self.assertEqual(self.get(f"/api/due?until={far}", 422)["code"], "due.until")

    def test_erasing_a_person_leaves_the_job_without_words(self):
        job = next(j for j in self.get("/api/jobs") if j["state"] == "planned")
        seen = self.get(f"/api/jobs/{job['id']}")
        body = {"note": "Key under the pot", "planned_on": day(-1)}
        self.put(seen, "plan", body)
        given = self.get(f"/api/visits/{HOME_2}/personal-data")
        self.assertEqual(given["jobs"][0]["note"], "Key under the pot")
        self.assertEqual(self.manager().post(f"/api/visits/{HOME_2}/erase").status_code, 204)
        after = self.get(f"/api/jobs/{job['id']}")
        self.assertEqual((after["job"]["note"], after["customer"]), 2 * ("(erased)",))


class Gauges(JobCase):
    """What is read at a lamp or a bed moves its day, once, and is taken back."""

    def bed(self):
        """A job with a bed that is topped up, fitted a hundred days ago."""
        job = self.put(self.sold("home-2-option-a", HOME_2), "fitted", {"on": day(100)})
        return job, next(d for d in job["standing"]["due"] if d["part"]["kind"] == "media")

    def read(self, job, value, ago=0, id=None, part="", status=200):
        body = {"part": part, "on": day(ago), "value": value}
        return self.put(job, f"gauges/{id or uuid4()}", body, status)

    def test_the_day_moves_and_comes_back(self):
        job, before = self.bed()
        key, id = before["part"]["key"], str(uuid4())
        moved = self.read(job, 60, id=id, part=key)
        due = next(d for d in moved["standing"]["due"] if d["part"]["key"] == key)
        self.assertEqual((due["next"], due["read"]["value"]), (day(0), 60))
        again = self.read(job, 60, id=id, part=key)
        self.assertEqual(again["version"], moved["version"])
        other = self.read(job, 61, id=id, part=key, status=422)
        self.assertEqual(other["code"], "request.other")
        listed = self.get(f"/api/due?until={day(0)}")["lines"]
        self.assertIn(key, {x["key"] for x in listed if x["job"] == job["job"]["id"]})
        r = self.client.delete(f"/api/jobs/{job['job']['id']}/gauges/{id}")
        due = next(d for d in r.json()["standing"]["due"] if d["part"]["key"] == key)
        self.assertEqual((due["next"], due["read"]), (before["next"], None))

    def test_a_bed_that_does_not_shrink_is_not_read(self):
        job = self.put(self.sold(), "fitted", {"on": day(100)})
        carbon = next(p for p in job["job"]["parts"] if p["kind"] == "media")
        self.assertEqual(self.read(job, 90, part=carbon["key"], status=422)["code"], "gauge.part")

    def test_refused(self):
        job, bed = self.bed()
        key = bed["part"]["key"]
        for code, value, part, ago in (
            ("gauge.value", 101, key, 0),
            ("gauge.part", 3, "no-such", 0),
            ("gauge.before_change", 90, key, 100),
        ):
            told = self.read(job, value, ago, part=part, status=422)
            self.assertEqual(told["code"], code)


class InCare(JobCase):
    """Equipment that others fitted, among what the firm looks after."""

    def taken(self, device="refrigerator", status=201, visit=HOME_1):
        return self.send("POST", f"/api/visits/{visit}/care", {"device": device}, status)

    def test_its_parts_fall_due_from_its_last_change_on(self):
        id = self.taken()["id"]
        self.assertEqual(self.taken()["id"], id)
        job = self.get(f"/api/jobs/{id}")
        self.assertEqual(job["standing"]["state"], "in care")
        self.assertEqual((job["job"]["sheets"], job["job"]["promises"]), ([], []))
        self.assertEqual(job["payments"], [])
        there = self.get(f"/api/visits/{HOME_1}")["visit"]["home"]["in_place"][0]
        self.assertEqual(job["job"]["fitted_on"], there["changed_on"] or there["fitted_on"])
        (part,) = job["standing"]["due"]
        self.assertIn("cartridge", part["part"]["label"])
        self.assertEqual(part["state"], "overdue")  # eight months over, by its months
        due = self.get("/api/due")["lines"]
        self.assertIn(id, [x["job"] for x in due])

    def test_a_change_moves_its_day(self):
        other = self.get("/api/homes?there=fridge&find=kettleby")["homes"][0]
        id = self.taken(visit=other["last"])["id"]
        job = self.get(f"/api/jobs/{id}")
        key = job["standing"]["due"][0]["part"]["key"]
        self.put(job, f"changes/{uuid4()}", {"part": key, "on": day(0)})
        (part,) = self.get(f"/api/jobs/{id}")["standing"]["due"]
        self.assertEqual((part["state"], part["changed"]), ("later", 1))

    def test_what_is_not_there_or_falls_never_due_is_refused(self):
        self.taken("another", 404)
        visits = (uid(f"home-{n}-visit") for n in range(1, 8))
        homes = {v: self.get(f"/api/visits/{v}")["visit"]["home"] for v in visits}
        there = next(
            v for v, h in homes.items() if any(d["id"] == "softener" for d in h["in_place"])
        )
        told = self.send("POST", f"/api/visits/{there}/care", {"device": "softener"}, 422)
        self.assertEqual(told["code"], "care.nothing")
