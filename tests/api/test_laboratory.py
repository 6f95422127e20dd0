"""Laboratory samples and results over the wire."""

from datetime import UTC, datetime
from urllib.parse import quote
from uuid import uuid4

from tests.api.client import HOME_2, ApiCase
from zesty_glass.documents import lab_csv
from zesty_glass.standins.instruments import SimulatedLaboratory

GOOD = b"analyte,result,unit,basis\narsenic,< 1,ppb,\nnitrate,3,mg/L,N\n"


class Laboratory(ApiCase):
    def raw(self, visit):
        return next(
            s["id"] for s in self.get(f"/api/visits/{visit}")["visit"]["samples"] if s["raw"]
        )

    def bottle(self, **more):
        return {
            "id": str(uuid4()),
            "kind": "bacteria",
            "sample": self.raw(HOME_2),
            "drawn_at": "2026-11-20T08:00:00+01:00",
            **more,
        }

    def test_by_post_before_the_firm_s_own_cutoff(self):
        def bacteria(at):
            told = self.get(f"/api/laboratory/posting?at={quote(at)}")
            return next(p for p in told if p["kind"] == "bacteria")

        # Monday 2 March 2026: the offset of the place is kept, the clock there counts
        self.assertTrue(bacteria("2026-03-02T15:30:00-05:00")["in_time"])
        self.assertTrue(bacteria("2026-03-02T16:30:00-05:00")["posted"].startswith("2026-03-03"))
        firm = self.get("/api/firm")
        keeps = firm["settings"] | {"post_cutoff": "17:30", "laboratory": "Fernpool Waters"}
        body = {"version": firm["version"], "settings": keeps, "rules": firm["rules"]}
        self.client = self.manager()
        self.send("PUT", "/api/firm", body)
        later = bacteria("2026-03-02T16:30:00-05:00")
        self.assertTrue(later["posted"].startswith("2026-03-02T17:30"))
        self.assertIn("Monday before 17:30", later["sentence"])

    def test_a_cutoff_or_a_day_that_cannot_be(self):
        firm = self.get("/api/firm")
        wrong = firm["settings"] | {"post_cutoff": "25:00"}
        body = {"version": firm["version"], "settings": wrong, "rules": firm["rules"]}
        self.client = self.manager()
        self.assertIn("no time of day", self.send("PUT", "/api/firm", body, 422)["title"])
        self.send("GET", "/api/laboratory/posting?at=1066-10-14T09:00:00%2B00:00", None, 422)
        self.send("GET", "/api/laboratory/posting?at=yesterday", None, 422)

    def test_a_struck_bottle_is_asked_for_again(self):
        b = self.bottle(kind="metals")
        path = f"/api/visits/{HOME_2}/lab-samples/{b['id']}"

        def asked():
            return "metals" in [s["kind"] for s in self.get(f"/api/visits/{HOME_2}")["suggested"]]

        before = asked()
        self.send("PUT", path, b)
        self.assertEqual((before, asked()), (True, False))
        struck = {"struck_at": "2026-11-20T08:30:00+01:00", "struck_because": "broken"}
        self.send("PUT", path, b | struck, If_Match_Version=1)
        view = self.get(f"/api/visits/{HOME_2}")
        self.assertTrue(asked())
        self.assertNotIn(b["id"], view["lab"])
        self.assertIn(b["id"], [x["id"] for x in view["visit"]["lab_samples"]])
        self.send("PUT", path, b, If_Match_Version=2)
        self.assertFalse(asked())
        late = struck | {"struck_at": "2150-01-01T00:00:00+00:00"}
        told = self.send("PUT", path, b | late, 422, If_Match_Version=3)
        self.assertEqual(told["code"], "lab.future")

    def test_a_bottle_and_its_chain(self):
        b = self.bottle()
        path = f"/api/visits/{HOME_2}/lab-samples/{b['id']}"
        self.assertEqual(self.send("PUT", path, b), self.send("PUT", path, b))
        view = self.get(f"/api/visits/{HOME_2}")
        self.assertTrue(view["lab"][b["id"]]["overdue"])
        handed = {**b, "handed_at": "2026-11-20T15:00:00+01:00"}
        self.send("PUT", path, handed, 200, If_Match_Version=1)
        self.assertEqual(
            self.send("PUT", path, {**b, "seal": "7"}, 409, If_Match_Version=1)["changed"],
            ["handed_at"],
        )
        self.assertNotIn("bacteria", [s["kind"] for s in view["suggested"]])

    def test_a_time_is_put_right_with_a_reason(self):
        b = self.bottle(skipped=[{"step": "Take the aerator off.", "because": "it is stuck"}])
        path = f"/api/visits/{HOME_2}/lab-samples/{b['id']}"
        self.send("PUT", path, b)
        said = self.get(f"/api/visits/{HOME_2}")["lab"][b["id"]]["sentence"]
        self.assertIn("Take the aerator off (it is stuck)", said)
        later = {**b, "drawn_at": "2026-11-20T09:00:00+01:00"}
        told = self.send("PUT", path, later, 422, If_Match_Version=1)
        self.assertEqual((told["code"], told["where"]), ("lab.corrected", "drawn_at"))
        reason = {"field": "drawn_at", "was": b["drawn_at"], "because": "summer time"}
        self.send("PUT", path, {**later, "corrected": [reason]}, 200, If_Match_Version=1)
        kept = next(
            x
            for x in self.get(f"/api/visits/{HOME_2}")["visit"]["lab_samples"]
            if x["id"] == b["id"]
        )
        self.assertEqual(kept["corrected"][0]["because"], "summer time")
        self.assertIn("T09:00:00", kept["drawn_at"])

    def test_bad_bottles(self):
        for more, code in (
            ({"kind": "wine"}, "lab.kind"),
            ({"drawn_at": "2044-01-01T00:00:00Z"}, "lab.future"),
            ({"handed_at": "2026-11-19T00:00:00Z"}, "lab.chain"),
        ):
            b = self.bottle(**more)
            self.assertEqual(
                self.send("PUT", f"/api/visits/{HOME_2}/lab-samples/{b['id']}", b, 422)["code"],
                code,
            )

    def test_results_come_in_whole_and_once(self):
        visit = self.new_visit(source="well_drilled")
        sample = self.new_sample(visit)
        path = f"/api/visits/{visit}/samples/{sample}/lab-results"
        for _ in range(2):
            self.assertEqual(self.client.post(path, content=GOOD).status_code, 201)
        view = self.get(f"/api/visits/{visit}")
        self.assertEqual(len(view["visit"]["samples"][0]["readings"]), 2)
        self.assertEqual(view["assessment"]["raw"]["values"]["nitrate_n"]["range"]["best"], 3)

    def test_one_bad_row_stores_nothing(self):
        visit = self.new_visit(source="well_drilled")
        sample = self.new_sample(visit)
        bad = GOOD + b"nitrate,3,mg/L,\n"
        self.assertFalse(self.client.post("/api/laboratory/preview", content=bad).json()["good"])
        r = self.client.post(f"/api/visits/{visit}/samples/{sample}/lab-results", content=bad)
        self.assertEqual(
            (r.status_code, r.json()["code"], r.json()["where"]), (422, "csv.row", "row 4, basis")
        )
        self.assertEqual(self.get(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"], [])
        self.assertEqual(
            self.client.post("/api/laboratory/preview", content=b"x" * 10_000_000).status_code, 413
        )


class Delay(ApiCase):
    """The simulated laboratory takes its time."""

    def bottle(self, received_at):
        visit = self.new_visit()
        glass, id = self.new_sample(visit), str(uuid4())
        body = {
            "id": id,
            "kind": "nitrate",
            "sample": glass,
            "drawn_at": "2026-11-20T10:00:00Z",
            "handed_at": "2026-11-20T11:00:00Z",
            "received_at": received_at,
        }
        self.send("PUT", f"/api/visits/{visit}/lab-samples/{id}", body)
        return visit, id

    def test_the_report_is_not_there_at_once(self):
        visit, id = self.bottle(datetime.now(UTC).isoformat())
        r = self.client.get(f"/api/visits/{visit}/standins/laboratory/{id}")
        self.assertEqual((r.status_code, r.json()["code"]), (422, "lab.not_ready"))
        self.assertIn(id, self.get(f"/api/visits/{visit}")["reports"])

    def test_a_while_later_it_is(self):
        visit, id = self.bottle((datetime.now(UTC) - SimulatedLaboratory.takes).isoformat())
        r = self.client.get(f"/api/visits/{visit}/standins/laboratory/{id}")
        self.assertEqual(r.status_code, 200)
        self.assertTrue(lab_csv.read(r.content).good)
