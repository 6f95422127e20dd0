"""Visits over the wire: start, test, repeat-safe writes, two people at once, lines, and the visit
file.
"""

import json
from unittest.mock import patch
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, HOME_7, ApiCase


class Testing(ApiCase):
    def test_a_visit_takes_so_many_readings_and_no_more(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        with patch("zesty_glass.work.readings.MOST_READINGS", 2):
            for n, status in enumerate((200, 200, 422)):
                r = self.reading("tds-1", {"method": "meter", "displays": [400 + n]})
                path = f"/api/visits/{visit}/samples/{sample}/readings/{r['id']}"
                said = self.send("PUT", path, r, status)
        self.assertEqual(said["code"], "readings.many")

    def test_a_reading_sent_twice_is_one_reading(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        r = self.reading("hard-1", {"method": "drops", "drops": 14})
        first, second = self.keep(visit, sample, r), self.keep(visit, sample, r)
        self.assertEqual(first, second)
        self.assertAlmostEqual(first["value"]["range"]["best"], 239.65, 1)
        self.assertEqual(
            len(self.get(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"]), 1
        )

    def test_repeats_are_added_and_never_changed(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        id = str(uuid4())
        for displays in ([412], [412, 415], [412, 415, 409], [412, 415]):
            kept = self.keep(
                visit, sample, self.reading("tds-1", {"method": "meter", "displays": displays}, id)
            )
        other = self.reading("tds-1", {"method": "meter", "displays": [1, 2, 3]}, id)
        self.assertEqual(self.keep(visit, sample, other, 422)["code"], "reading.other")
        self.assertEqual(kept["reading"]["observation"]["displays"], [412, 415, 409])
        self.assertEqual(round(kept["value"]["range"]["high"], 1), 423.8)

    def test_struck_readings_stay_on_record(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        r = self.reading("hard-1", {"method": "drops", "drops": 9})
        self.keep(visit, sample, r)
        for _ in range(2):
            self.send(
                "POST", f"/api/visits/{visit}/readings/{r['id']}/strike", {"because": "miscounted"}
            )
        view = self.get(f"/api/visits/{visit}")
        self.assertEqual(view["visit"]["samples"][0]["readings"][0]["struck_because"], "miscounted")
        self.assertNotIn("hardness", view["assessment"]["raw"]["values"])

    def test_bad_readings_are_refused_and_nothing_is_stored(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        bad = {
            "input.greater_than_equal": self.reading("hard-1", {"method": "drops", "drops": -2}),
            "pad.out_of_list": self.reading("hard-s", {"method": "pad", "pad": 40}),
            "dilution.below_one": self.reading(
                "hard-1", {"method": "drops", "drops": 2, "dilution": 0}
            ),
            "reading.method": self.reading("hard-1", {"method": "display", "value": 2}),
        }
        for code, r in bad.items():
            with self.subTest(code):
                p = self.keep(visit, sample, r, 422)
                self.assertEqual(p["code"], code)
                self.assertTrue(p["title"] and p["remedy"])
        wrong = self.reading("hard-1", {"method": "drops", "drops": "many"})
        self.assertIn("observation", self.keep(visit, sample, wrong, 422)["where"])
        late = self.reading("hard-1", {"method": "drops", "drops": 2}) | {
            "made_at": "2044-01-01T00:00:00Z"
        }
        self.assertEqual(self.keep(visit, sample, late, 422)["code"], "reading.future")
        self.assertEqual(self.get(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"], [])

    def test_unknown_things_are_not_found(self):
        p = self.get(f"/api/visits/{uuid4()}", 404)
        self.assertIn("no such visit", p["title"])
        self.keep(
            HOME_1, str(uuid4()), self.reading("hard-1", {"method": "drops", "drops": 2}), 404
        )
        self.get("/api/visits/not-an-id", 422)
        self.get("/api/nothing", 404)

    def test_one_raw_sample(self):
        visit = self.new_visit()
        self.new_sample(visit)
        id = str(uuid4())
        glass = {"id": id, "name": "Outside tap", "raw": True, "drawn_at": "2026-11-20T10:00:00Z"}
        path = f"/api/visits/{visit}/samples/{id}"
        told = self.send("PUT", path, glass, 409)
        self.assertEqual(told["code"], "sample.raw_twice")
        self.assertIn("Kitchen cold", told["title"])
        self.send("PUT", f"{path}?instead=true", glass)
        self.assertEqual(
            [s["raw"] for s in self.get(f"/api/visits/{visit}")["visit"]["samples"]], [False, True]
        )


class TwoPeople(ApiCase):
    def test_the_second_writer_is_told_what_changed(self):
        view = self.get(f"/api/visits/{HOME_2}")
        v, home = view["versions"]["home"], view["visit"]["home"]
        body = {"version": v, "customer": view["visit"]["customer"], "home": {**home, "people": 5}}
        self.send("PUT", f"/api/visits/{HOME_2}/home", body)
        p = self.send(
            "PUT", f"/api/visits/{HOME_2}/home", {**body, "home": {**home, "bathrooms": 3}}, 409
        )
        self.assertEqual(
            (p["changed"], p["by"], p["version"]), (["home.people"], "Perrin Oakhalse", v + 1)
        )
        self.assertEqual(self.get(f"/api/visits/{HOME_2}")["visit"]["home"]["bathrooms"], 1.5)

    def test_lines_and_visits_have_versions_too(self):
        view = self.get(f"/api/visits/{HOME_2}")
        o = view["visit"]["options"][0]
        path = f"/api/visits/{HOME_2}/options/{o['id']}"
        self.send(
            "PUT", path, {**o, "name": "Renamed"}, 200, If_Match_Version=view["versions"][o["id"]]
        )
        self.assertEqual(
            self.send(
                "PUT", path, {**o, "name": "Other"}, 409, If_Match_Version=view["versions"][o["id"]]
            )["changed"],
            ["name"],
        )
        self.send("PATCH", f"/api/visits/{HOME_2}", {"version": 99, "note": "x"}, 409)

    def test_impossible_homes_are_refused(self):
        view = self.get(f"/api/visits/{HOME_2}")
        p = self.send(
            "PUT",
            f"/api/visits/{HOME_2}/home",
            {
                "version": view["versions"]["home"],
                "customer": view["visit"]["customer"],
                "home": {**view["visit"]["home"], "people": -1},
            },
            422,
        )
        self.assertEqual(p["code"], "home.people")


class Lines(ApiCase):
    def test_a_line_is_worked_out(self):
        visit = self.new_visit(running_psi=60, drain=True, socket=True, headroom_in=80)
        sample = self.new_sample(visit)
        self.keep(visit, sample, self.reading("hard-1", {"method": "drops", "drops": 14}))
        o = {"id": str(uuid4()), "name": "Softener", "stages": [{"item": "SO-20"}]}
        self.send("PUT", f"/api/visits/{visit}/options/{o['id']}", o)
        report = self.get(f"/api/visits/{visit}")["assessment"]["options"][1]
        checks = {c["id"]: c for c in report["line"]["stages"][0]["checks"]}
        self.assertEqual(
            (checks["softener.chlorine_free"]["status"], checks["softener.chlorine_free"]["test"]),
            ("unknown", "free chlorine within a minute"),
        )
        self.assertEqual(checks["space.drain"]["status"], "met")
        self.send("DELETE", f"/api/visits/{visit}/options/{o['id']}", None, 204)
        self.send("DELETE", f"/api/visits/{visit}/options/{o['id']}", None, 204)

    def test_unknown_items_are_refused(self):
        o = {"id": str(uuid4()), "name": "X", "stages": [{"item": "NOPE"}]}
        self.assertEqual(
            self.send("PUT", f"/api/visits/{HOME_1}/options/{o['id']}", o, 422)["code"],
            "line.unknown_item",
        )

    def test_a_line_keeps_only_what_stands_there(self):
        o = {"id": str(uuid4()), "name": "Service", "stages": []}
        path = f"/api/visits/{HOME_1}/options/{o['id']}"
        gone = {**o, "keeps": [{"device": "not there", "how": "keep"}]}
        self.assertEqual(self.send("PUT", path, gone, 422)["code"], "line.kept_gone")
        self.send("PUT", path, {**o, "keeps": [{"device": "refrigerator", "how": "service"}]})
        report = self.get(f"/api/visits/{HOME_1}")["assessment"]["options"][-1]
        self.assertEqual(report["line"]["stages"][0]["name"], "Refrigerator filter, serviced")
        self.assertEqual(report["cost"]["purchase"], "44.00")
        self.send("DELETE", path, None, 204)

    def test_equipment_with_impossible_numbers_is_refused_by_name(self):
        view = self.get(f"/api/visits/{HOME_1}")
        home = view["visit"]["home"]
        home["in_place"][0]["months"] = -3
        body = {"version": view["versions"]["home"], "customer": view["visit"]["customer"]}
        p = self.send("PUT", f"/api/visits/{HOME_1}/home", {**body, "home": home}, 422)
        self.assertIn("in_place", p["where"])

    def test_an_impossible_claim_of_what_stands_there_is_refused_and_nothing_changes(self):
        view = self.get(f"/api/visits/{HOME_1}")
        home = view["visit"]["home"]
        for claims in (
            [{"analyte": "lead", "share": 0}],
            [{"analyte": "lead", "share": 1.2}],
            [{"analyte": "gold", "share": 0.5}],
            [{"analyte": "lead", "share": 0.9}, {"analyte": "lead", "share": 0.99}],
        ):
            with self.subTest(claims):
                there = [{**home["in_place"][0], "claims": claims}]
                body = {
                    "version": view["versions"]["home"],
                    "customer": view["visit"]["customer"],
                    "home": {**home, "in_place": there},
                }
                self.send("PUT", f"/api/visits/{HOME_1}/home", body, 422)
        self.assertEqual(self.get(f"/api/visits/{HOME_1}")["visit"]["home"], home)

    def test_home_7_needs_nothing(self):
        self.assertTrue(self.get(f"/api/visits/{HOME_7}")["assessment"]["nothing_needed"])
        self.assertFalse(self.get(f"/api/visits/{HOME_1}")["assessment"]["nothing_needed"])

    def test_horizons(self):
        c = self.get(f"/api/visits/{HOME_1}/comparison")
        totals = [float(o["options"][c["options"][1]["id"]]["cost"]["total"]) for o in c["over"]]
        self.assertEqual(totals, sorted(totals))


class Files(ApiCase):
    def test_out_and_in_and_out_is_the_same_bytes(self):
        first = self.client.get(f"/api/visits/{HOME_1}/file").content
        document = json.loads(first)
        renamed = json.loads(first.decode().replace(document["id"], str(uuid4())))
        fresh_ids = json.dumps(renamed)
        for thing in (
            *renamed["samples"],
            *renamed["options"],
            *renamed["demonstrations"],
            *renamed["proposals"],
            *(r for s in renamed["samples"] for r in s["readings"]),
        ):
            fresh_ids = (
                fresh_ids.replace(thing["id"], str(uuid4()))
                if thing not in renamed["proposals"]
                else fresh_ids
            )
        body = json.loads(fresh_ids)
        body["proposals"] = []
        r = self.client.post("/api/visits/import", content=json.dumps(body))
        self.assertEqual(r.status_code, 201, r.text)
        out = self.client.get(f"/api/visits/{r.json()['id']}/file").content
        brought = json.loads(out)
        self.assertEqual(brought.pop("brought")["consultant"], body["consultant"])
        self.assertEqual(brought, {k: v for k, v in body.items() if k != "brought"})
        self.assertEqual(self.client.get(f"/api/visits/{r.json()['id']}/file").content, out)

    def test_bringing_in_the_same_visit_again_is_harmless(self):
        data = self.client.get(f"/api/visits/{HOME_1}/file").content
        self.assertEqual(self.client.post("/api/visits/import", content=data).json()["id"], HOME_1)

    def test_bad_files_are_refused_whole(self):
        good = self.client.get(f"/api/visits/{HOME_2}/file").content
        before = len(self.get("/api/visits"))
        newer = json.loads(good) | {"version": 99, "id": str(uuid4())}
        cases = [
            (good[: len(good) // 2], 422, "file.cut_off"),
            (b"\xff\xfe\x00", 422, "file.not_text"),
            (b"{a}", 422, "file.not_json"),
            (b'{"a": 1}', 422, "file.format"),
            (json.dumps(newer).encode(), 422, "file.newer"),
            (b" " * 50_000_000, 413, "too_large"),
        ]
        for data, status, code in cases:
            with self.subTest(code):
                r = self.client.post("/api/visits/import", content=data)
                self.assertEqual((r.status_code, r.json()["code"]), (status, code))
                self.assertTrue(r.json()["remedy"])
        self.assertEqual(len(self.get("/api/visits")), before)


class Answers(ApiCase):
    def test_errors_never_leak_internals(self):
        r = self.client.post(
            "/api/visits", content=b"{not json", headers={"content-type": "application/json"}
        )
        self.assertEqual(
            (r.status_code, r.headers["content-type"]), (400, "application/problem+json")
        )
        self.assertNotIn("Traceback", r.text)

    def test_guards_are_on_every_answer(self):
        r = self.client.get("/api/session")
        self.assertIn("default-src 'none'", r.headers["content-security-policy"])
        self.assertEqual(r.headers["x-content-type-options"], "nosniff")
