"""The days of a job: what cannot be is refused, what looks wrong is asked, and it can be undone."""

from uuid import uuid4

from tests.api.test_jobs import JobCase, day


class Planning(JobCase):
    def plan(self, job, status=200, **more):
        return self.put(job, "plan", {"fitter": "Ansgar Tolleby", **more}, status)

    def test_no_day_that_is_over(self):
        job = self.sold(ago=0)
        self.assertEqual(self.plan(job, 422, planned_on="2020-05-01")["code"], "job.past")
        self.assertIsNone(self.get(f"/api/jobs/{job['id']}")["job"]["planned_on"])

    def test_a_fitter_is_at_one_place_at_a_time(self):
        first = self.plan(self.sold(ago=0), planned_on=day(-9), planned_at="09:00")
        other = self.sold("home-2-option-a", ago=0, visit=self.second())
        told = self.plan(other, 422, planned_on=day(-9), planned_at="10:30")
        self.assertEqual(told["code"], "job.booked")
        self.assertIn("09:00", told["title"])
        self.assertEqual(self.plan(other, 422, planned_on=day(-9))["code"], "job.booked")
        other = self.plan(other, planned_on=day(-9), planned_at="11:00")
        other = self.plan(other, planned_on=day(-9), planned_at="10:30", anyway=True)
        self.assertEqual(other["job"]["planned_at"], "10:30")
        self.assertEqual(first["job"]["planned_at"], "09:00")

    def test_a_fitter_is_a_person_of_the_firm_or_a_name_outside_it(self):
        job = self.sold()
        who = self.get("/api/fitters")["firm"]
        ansgar = next(f for f in who if f["name"] == "Ansgar Tolleby")
        job = self.plan(job, fitter="", fitter_id=ansgar["id"])
        self.assertEqual(job["job"]["fitter"], "Ansgar Tolleby")
        self.plan(job, 422, fitter_id=str(uuid4()))
        job = self.plan(job, fitter="Overbeck Pipes")
        self.assertEqual((job["job"]["fitter"], job["job"]["fitter_id"]), ("Overbeck Pipes", ""))
        self.assertIn("Overbeck Pipes", self.get("/api/fitters")["outside"])

    def test_a_new_name_is_on_what_is_still_to_fit(self):
        job = self.sold()
        fitter = next(f for f in self.get("/api/fitters")["firm"] if f["name"] == "Ansgar Tolleby")
        self.plan(job, fitter_id=fitter["id"])
        boss = self.manager()
        p = next(x for x in boss.get("/api/people").json()["people"] if x["id"] == fitter["id"])
        path, body = f"/api/people/{p['id']}", {"role": p["role"]}
        for name in ("Ansgar Wrexley", p["name"]):
            version = next(
                x for x in boss.get("/api/people").json()["people"] if x["id"] == p["id"]
            )["version"]
            boss.put(path, json={**body, "version": version, "name": name})
            self.assertEqual(self.get(f"/api/jobs/{job['id']}")["job"]["fitter"], name)

    def second(self):
        from tests.api.client import HOME_2

        return HOME_2


class InUse(JobCase):
    def test_not_before_it_was_sold(self):
        job = self.sold(ago=3)
        self.assertEqual(self.put(job, "fitted", {"on": day(9)}, 422)["code"], "job.before_sale")

    def test_not_while_steps_are_open_unless_they_are_left_out(self):
        job = self.sold()
        body = {"version": job["version"], "on": day(1)}
        told = self.send("PUT", f"/api/jobs/{job['id']}/fitted", body, 422)
        self.assertEqual(told["code"], "job.steps")
        self.assertIn(str(job["standing"]["steps"]), told["title"])
        done = self.put(job, "fitted", {"on": day(1)})
        self.assertEqual(done["standing"]["steps_done"], done["standing"]["steps"])
        self.assertEqual({t["left_out"] for t in done["job"]["ticks"]}, {"Done by a plumber."})


class Ending(JobCase):
    def send_to(self, job, to, because, status=200):
        body = {"version": job["version"], "because": because}
        return self.send("POST", f"/api/jobs/{job['id']}/{to}", body, status)

    def test_an_ended_job_stops_falling_due_and_goes_on_again(self):
        job = self.put(self.sold(), "fitted", {"on": day(300)})
        self.assertTrue(job["standing"]["due"])
        self.assertEqual(self.send_to(job, "end", " ", 422)["code"], "job.because")
        ended = self.send_to(job, "end", "The house was sold.")
        self.assertEqual((ended["standing"]["state"], ended["standing"]["due"]), ("ended", []))
        until = self.get(f"/api/due?until={day(-600)}")["lines"]
        self.assertNotIn(job["id"], {x["job"] for x in until})
        self.assertEqual(self.put(ended, "plan", {}, 422)["code"], "job.ended")
        self.assertEqual(self.send_to(ended, "end", "Twice.", 422)["code"], "job.ended")
        again = self.send_to(ended, "reopen", "It stays after all.")
        self.assertEqual(again["standing"]["due"], job["standing"]["due"])

    def test_a_job_whose_sale_was_cancelled_is_not_opened_again(self):
        job = self.sold()
        self.sold()
        ended = self.get(f"/api/jobs/{job['id']}")
        self.assertEqual(ended["standing"]["state"], "ended")
        self.assertEqual(self.send_to(ended, "reopen", "Again.", 422)["code"], "job.not_sold")

    def test_an_open_job_is_not_opened_again(self):
        self.assertEqual(self.send_to(self.sold(), "reopen", "Why.", 422)["code"], "job.open")
