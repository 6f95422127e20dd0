"""Devices on a wire, units, kits and limits over the wire."""

import json
from uuid import uuid4

from tests.api.client import HOME_1, ApiCase
from zesty_glass.core.testing.by_meter import tenfold
from zesty_glass.documents import lab_csv
from zesty_glass.standins.instruments import (
    SimulatedColorimeter,
    SimulatedLaboratory,
    SimulatedMeter,
)
from zesty_glass.standins.tap import Tap


class StandIns(ApiCase):
    def raw(self):
        return next(
            s["id"] for s in self.get(f"/api/visits/{HOME_1}")["visit"]["samples"] if s["raw"]
        )

    def looks(self, after=0, many=4):
        out = []
        headers = {"Last-Event-ID": str(after)} if after else {}
        from zesty_glass.api import standins as wire

        fast, most = wire.EVERY_S, wire.MOST_LOOKS
        wire.EVERY_S, wire.MOST_LOOKS = 0, after + many
        try:
            r = self.client.get(
                f"/api/visits/{HOME_1}/standins/meter/{self.raw()}", headers=headers
            )
        finally:
            wire.EVERY_S, wire.MOST_LOOKS = fast, most
        self.assertIn('"simulated": true', r.text)
        for line in r.text.splitlines():
            if line.startswith('data: {"n"'):
                out.append(json.loads(line[6:]))
        return out

    def test_a_dropped_stream_goes_on_where_it_was(self):
        whole = self.looks(many=8)
        self.assertEqual([x["n"] for x in whole], list(range(1, 9)))
        self.assertEqual(self.looks(after=4, many=4), whole[4:])

    def test_the_meter_drifts_in_settles_and_changes_range(self):
        m = SimulatedMeter(Tap("x", {"tds": 450.0}), "x")
        first, late = m.look(1), [m.look(n).display for n in range(12, 40)]
        self.assertFalse(first.steady)
        self.assertLess(first.display, min(late))
        self.assertLess(max(late) - min(late), 15)
        big = SimulatedMeter(Tap("y", {"tds": 1500.0}), "y").look(20)
        self.assertEqual(big.multiplier, 10)
        self.assertTrue(tenfold((1500, big.display)))

    def test_the_colorimeter_reads_the_same_tap(self):
        value = self.get(f"/api/visits/{HOME_1}/standins/colorimeter/{self.raw()}/chlorine_total")
        self.assertTrue(value["simulated"])
        self.assertAlmostEqual(value["value"], 1.6, delta=0.3)
        self.get(f"/api/visits/{HOME_1}/standins/colorimeter/{self.raw()}/radon", 422)
        a = SimulatedColorimeter(Tap("s"), "s:1").read("iron")
        self.assertEqual(a, SimulatedColorimeter(Tap("s"), "s:1").read("iron"))

    def test_the_laboratory_s_report_can_be_brought_in(self):
        report = SimulatedLaboratory(Tap("s")).report(
            ("coliform", "nitrate_n", "lead", "arsenic", "radon", "hardness")
        )
        self.assertTrue(lab_csv.read(report).good, report)
        b = {
            "id": str(uuid4()),
            "kind": "nitrate",
            "sample": self.raw(),
            "drawn_at": "2026-11-20T08:00:00Z",
        }
        self.send("PUT", f"/api/visits/{HOME_1}/lab-samples/{b['id']}", b)
        path = f"/api/visits/{HOME_1}/standins/laboratory/{b['id']}"
        self.assertEqual(self.client.get(path).json()["code"], "lab.not_received")
        self.send(
            "PUT",
            f"/api/visits/{HOME_1}/lab-samples/{b['id']}",
            {**b, "received_at": "2026-11-20T12:00:00Z"},
            200,
            If_Match_Version=1,
        )
        self.assertIn("nitrate_n", self.client.get(path).text)


class Units(ApiCase):
    def test_metric_on_the_page(self):
        us = self.get(f"/api/visits/{HOME_1}")["assessment"]["meaning"]["findings"][0]
        metric = self.get(f"/api/visits/{HOME_1}?units=metric")["assessment"]["meaning"][
            "findings"
        ][0]
        self.assertEqual((us["shown"], metric["shown"]), ("19 gpg", "325 mg/L"))
        self.get(f"/api/visits/{HOME_1}?units=furlongs", 422)


class Firm(ApiCase):
    def test_only_a_manager_changes_limits_and_old_visits_keep_theirs(self):
        before = self.get(f"/api/visits/{HOME_1}")["assessment"]["meaning"]
        firm = self.get("/api/firm")
        limits = [
            {**x, "value": 0.01, "year": 2027} if x["id"] == "iron.stains" else x
            for x in firm["rules"]["limits"]
        ]
        body = {
            "version": firm["version"],
            "settings": firm["settings"],
            "rules": {**firm["rules"], "limits": limits},
        }
        self.send("PUT", "/api/firm", body, 403)
        self.client = self.manager()
        self.send("PUT", "/api/firm", body)
        again = self.send("PUT", "/api/firm", body)  # an answer that was lost, asked for again
        self.assertEqual(again["version"], firm["version"] + 1)
        older = {**body, "rules": firm["rules"]}
        self.assertEqual(self.send("PUT", "/api/firm", older, 409)["version"], firm["version"] + 1)
        after = self.get("/api/firm")
        self.assertEqual(after["rules"]["version"], firm["rules"]["version"] + 1)
        bad = {
            **body,
            "version": after["version"],
            "rules": {**firm["rules"], "limits": [{**limits[0], "source": ""}]},
        }
        self.assertEqual(self.send("PUT", "/api/firm", bad, 422)["code"], "limit.data")
        self.assertEqual(self.get(f"/api/visits/{HOME_1}")["assessment"]["meaning"], before)
        visit = self.new_visit()
        self.assertEqual(
            self.get(f"/api/visits/{visit}")["visit"]["rules"]["version"], after["rules"]["version"]
        )

    def test_a_new_strip_is_data(self):
        self.client = self.manager()
        strip = {
            "id": "new-strip",
            "name": "Iron strip",
            "kind": "strip",
            "analyte": "iron",
            "steps": [0, 0.3, 1, 3],
        }
        self.send("PUT", "/api/instruments/new-strip", strip)
        self.assertEqual(
            self.send("PUT", "/api/instruments/new-strip", {**strip, "steps": [3, 1]}, 422)["code"],
            "instrument.steps",
        )
        visit = self.new_visit()
        sample = self.new_sample(visit)
        kept = self.keep(visit, sample, self.reading("new-strip", {"method": "pad", "pad": 1}))
        self.assertEqual(
            (kept["value"]["range"]["low"], kept["value"]["range"]["high"]), (0.15, 0.65)
        )
        self.send(
            "PUT",
            "/api/instruments/new-strip",
            {**strip, "name": "Renamed"},
            409,
            If_Match_Version=7,
        )
