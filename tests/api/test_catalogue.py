"""The catalog over the wire, the search's answer, and what if."""

import json
import subprocess
import sys
import unittest
from pathlib import Path
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, HOME_7, ApiCase
from zesty_glass.demo.homes import uid

ROOT = Path(__file__).resolve().parents[2]


class Files(ApiCase):
    def file(self, form="json"):
        return self.client.get(f"/api/catalogue/file?form={form}").content

    def bring(self, data, client=None):
        who = client or self.client
        on = who.post("/api/catalogue/preview", content=data).json().get("revision", "")
        return who.post(f"/api/catalogue/import?on={on}", content=data)

    def test_out_and_in_changes_nothing(self):
        for form in ("json", "csv"):
            r = self.bring(self.file(form), self.manager())
            self.assertEqual(r.status_code, 201, r.text[:300])
            self.assertEqual({x["change"] for x in r.json()["rows"]}, {"same"})

    def test_a_consultant_may_look_and_not_store(self):
        self.assertEqual(
            self.client.post("/api/catalogue/preview", content=self.file()).status_code, 200
        )
        self.assertEqual(self.bring(self.file()).status_code, 403)

    def test_one_bad_row_stores_nothing(self):
        items = json.loads(self.file())
        items[0]["price"], items[1]["price"] = "1", "-1"
        r = self.bring(json.dumps(items), self.manager())
        self.assertEqual((r.status_code, r.json()["code"]), (422, "catalogue.row"))
        self.assertIn("row 2", r.json()["where"])
        self.assertNotEqual(json.loads(self.file())[0]["price"], "1")

    def prices(self):
        return [
            p["price"]
            for o in self.get(f"/api/visits/{HOME_1}")["assessment"]["options"]
            if o["line"]
            for p in o["line"]["purchases"]
        ]

    def test_a_visit_keeps_the_prices_of_its_day_until_it_takes_todays(self):
        proposal = uid("home-1-proposal")
        before = self.get(f"/api/proposals/{proposal}")["offer"]
        items = json.loads(self.file())
        next(i for i in items if i["code"] == "SO-20")["price"] = "9999"
        self.assertEqual(self.bring(json.dumps(items), self.manager()).status_code, 201)
        self.assertEqual(self.get(f"/api/proposals/{proposal}")["offer"], before)
        self.assertNotIn("9999", self.prices())
        view = self.get(f"/api/visits/{HOME_1}")
        self.assertTrue(view["terms_differ"])
        version = {"version": view["versions"]["visit"]}
        self.send("PUT", f"/api/visits/{HOME_1}/terms", version)
        self.assertIn("9999", self.prices())
        self.assertFalse(self.get(f"/api/visits/{HOME_1}")["terms_differ"])
        self.assertEqual(self.get(f"/api/proposals/{proposal}")["offer"], before)

    def test_too_large_and_not_text(self):
        self.assertEqual(
            self.bring(b"x" * 6_000_000, self.manager()).json()["code"], "catalogue.too_large"
        )
        self.assertEqual(self.bring(b"x" * 60_000_000, self.manager()).status_code, 413)
        self.assertEqual(
            self.bring(b"\xff\xfe", self.manager()).json()["code"], "catalogue.encoding"
        )


class Suggests(ApiCase):
    def test_lines_best_first_with_reasons_for_what_is_left_out(self):
        s = self.get(f"/api/visits/{HOME_1}/suggest")
        self.assertEqual(s["lines"][0]["meets"], s["lines"][0]["wanted"])
        self.assertGreater(s["combinations"], 90_000)
        self.assertEqual(s["never"], s["combinations"] - s["walked"])
        self.assertTrue(all(x["rule"] and x["sentence"] for x in s["left_out"]))

    def test_a_line_it_found_can_be_taken(self):
        found = self.get(f"/api/visits/{HOME_2}/suggest")["lines"][0]["option"]
        id = str(uuid4())
        self.send("PUT", f"/api/visits/{HOME_2}/options/{id}", {**found, "id": id})
        option = next(
            o for o in self.get(f"/api/visits/{HOME_2}")["assessment"]["options"] if o["id"] == id
        )
        self.assertFalse(
            [c for s in option["line"]["stages"] for c in s["checks"] if c["status"] == "stop"]
        )

    def test_nothing_needed_stands_first(self):
        s = self.get(f"/api/visits/{HOME_7}/suggest")
        self.assertTrue(s["nothing_needed"])
        self.assertEqual(s["lines"][0]["option"]["stages"], [])

    def test_progress_and_the_answer_as_events(self):
        text = self.client.get(f"/api/visits/{HOME_1}/suggest/stream").text
        self.assertIn("event: progress", text)
        answer = json.loads(text.split("event: answer\ndata: ")[1])
        self.assertEqual(answer, self.get(f"/api/visits/{HOME_1}/suggest"))

    def test_without_a_raw_sample_it_says_what_to_do(self):
        visit = self.new_visit()
        self.assertEqual(
            self.send("GET", f"/api/visits/{visit}/suggest", None, 422)["code"], "search.no_raw"
        )
        self.assertIn("event: failed", self.client.get(f"/api/visits/{visit}/suggest/stream").text)


class WhatIfs(ApiCase):
    def test_each_change_of_a_line(self):
        out = {
            w["id"]: w
            for w in self.get(f"/api/visits/{HOME_2}/options/{uid('home-2-option-a')}/what-if")
        }
        self.assertEqual(out["ph"]["status"], "stop")
        self.assertIn("people", out)

    def test_a_line_that_is_not_there(self):
        self.get(f"/api/visits/{HOME_2}/options/{uuid4()}/what-if", 404)


class Command(unittest.TestCase):
    def run_it(self, *arguments):
        return subprocess.run(
            [sys.executable, "-m", "zesty_glass.cli.suggest", *arguments],
            cwd=ROOT,
            capture_output=True,
            text=True,
        )

    def test_prints_the_answer(self):
        r = self.run_it("docs/examples/nothing-needed.json")
        self.assertEqual(r.returncode, 0, r.stderr)
        self.assertTrue(json.loads(r.stdout)["nothing_needed"])

    def test_bad_files(self):
        for arguments in (
            ("nowhere.json",),
            ("README.md",),
            ("docs/examples/terrace.json", "--catalogue", "README.md"),
        ):
            r = self.run_it(*arguments)
            self.assertEqual((r.returncode, r.stdout), (2, ""))
            self.assertTrue(r.stderr.strip())
