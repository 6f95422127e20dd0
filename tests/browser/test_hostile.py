"""Hostile texts in every free field of a visit are shown as text, on every view of it; a refused reading is set aside."""

import json
from datetime import date
from uuid import UUID, uuid4

from tests.browser.case import BrowserCase
from tests.documents.hostile import TEXTS
from zesty_glass.demo.homes import uid
from zesty_glass.demo.kits import demo_instruments
from zesty_glass.documents.codec import plain
from zesty_glass.records.models import HomeRow, OptionRow, SampleRow, VisitRow

ALL = " ".join(TEXTS).replace("\r\n", " ").replace("\n", " ")[:190]
VISIT = uid("home-1-visit")


class Hostile(BrowserCase):
    def spoil(self):
        with self.served.app.state.sessions.begin() as db:
            v = db.get(VisitRow, UUID(VISIT))
            v.complaints = [{**c, "words": ALL} for c in v.complaints]
            v.note, v.version = ALL, v.version + 1
            h = db.get(HomeRow, v.home_id)
            h.home = {**h.home, "name": ALL, "place": ALL, "note": ALL}
            h.customer, h.version = {"name": ALL, "phone": ALL, "email": ALL}, h.version + 1
            for kind in (SampleRow, OptionRow):
                for row in db.query(kind).filter(kind.visit_id == UUID(VISIT)):
                    row.data = {**row.data, "name": ALL, "note": ALL}
                    row.version += 1

    def test_on_every_view(self):
        self.spoil()
        views = ("before", "test", "meaning", "show", "line", "compare", "offer", "facing/glass")
        for path in ("/", *(f"/visits/{VISIT}/{v}" for v in views)):
            with self.subTest(path):
                self.go(path)
                self.b.see("alert(1)")
                found = self.b.driver.execute_script(
                    "return document.querySelectorAll('img[src=x], a[rel=attachment], main script').length"
                )
                self.assertEqual(found, 0)
        self.clean()


class Aside(BrowserCase):
    def json(self, path):
        return json.loads(self.fetch(path))

    def test_a_reading_that_is_never_taken_is_set_aside_and_mended(self):
        b = self.b
        visit = uid("home-7-visit")
        self.go(f"/visits/{visit}/meaning")
        kit = next(plain(k) for k in demo_instruments(date(2026, 11, 20)) if k.id == "hard-1")
        sample = self.json(f"/api/visits/{visit}")["visit"]["samples"][0]["id"]

        def entry(drops):
            return {
                "visit": visit,
                "sample": sample,
                "reading": {
                    "id": str(uuid4()),
                    "analyte": "hardness",
                    "instrument": kit,
                    "observation": {"method": "drops", "drops": drops, "dilution": 1},
                    "made_at": "2026-11-20T10:00:00Z",
                    "by": "",
                    "struck_at": None,
                    "struck_because": "",
                    "note": "",
                },
            }

        bad, good = entry(-4), entry(3)
        for e in (bad, good):
            b.driver.execute_script(
                "localStorage.setItem('zesty.waiting:' + arguments[0], arguments[1])",
                e["reading"]["id"],
                json.dumps(e),
            )
        self.go(f"/visits/{visit}/meaning")
        b.click("button", "1 reading set aside")
        b.see("This is too low: 0 is the least.")
        self.assertEqual(b.axe(), [])
        kept = self.json(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"]
        self.assertIn(good["reading"]["id"], [r["id"] for r in kept])
        b.type("[role=dialog] input", "5")
        b.click("button", "Send it again")
        b.until(
            lambda d: (
                bad["reading"]["id"]
                in [
                    r["id"]
                    for r in self.json(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"]
                ]
            )
        )
