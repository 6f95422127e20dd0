"""Hostile texts in every free field of a visit are shown as text, on every view of it; a refused
reading is set aside.
"""

import json
from datetime import date
from uuid import UUID, uuid4

from tests.browser.case import BrowserCase
from tests.browser.driving import Browser
from tests.documents.hostile import TEXTS
from zesty_glass.demo.homes import uid
from zesty_glass.demo.kits import demo_instruments
from zesty_glass.documents.codec import plain
from zesty_glass.records.models import HomeRow, OptionRow, SampleRow, VisitRow

ALL = " ".join(TEXTS).replace("\r\n", " ").replace("\n", " ")[:190]
VISIT = uid("home-1-visit")
#: how many elements of the hostile texts came to life
PLANTED = "return document.querySelectorAll('img[src=x], a[rel=attachment], main script').length"


class Hostile(BrowserCase):
    def spoil(self, name=ALL):
        with self.served.app.state.sessions.begin() as db:
            v = db.get(VisitRow, UUID(VISIT))
            v.complaints = [{**c, "words": ALL} for c in v.complaints]
            v.note, v.version = ALL, v.version + 1
            h = db.get(HomeRow, v.home_id)
            h.home = {**h.home, "name": ALL, "place": ALL, "note": ALL}
            h.customer, h.version = {"name": ALL, "phone": ALL, "email": ALL}, h.version + 1
            for kind in (SampleRow, OptionRow):
                for row in db.query(kind).filter(kind.visit_id == UUID(VISIT)):
                    row.data = {**row.data, "name": name, "note": name}
                    row.version += 1

    def test_on_every_view(self):
        self.spoil()
        views = ("before", "test", "meaning", "show", "line", "compare", "offer", "facing/glass")
        for path in ("/", *(f"/visits/{VISIT}/{v}" for v in views)):
            with self.subTest(path):
                self.go(path)
                self.b.see("alert(1)")
                self.assertEqual(self.b.driver.execute_script(PLANTED), 0)
        self.clean()

    def ask(self, method, path, body=None):
        """A request as the page makes it."""
        status, answer = self.b.driver.execute_async_script(
            """
            const [method, path, body, done] = arguments;
            (async () => {
              const { token } = await (await fetch("/api/session")).json();
              const headers = { "X-Zesty-Token": token, "Content-Type": "application/json" };
              const r = await fetch(path, { method, headers, body: body && JSON.stringify(body) });
              done([r.status, await r.json()]);
            })();
            """,
            method,
            path,
            body,
        )
        self.assertIn(status, (200, 201), answer)
        return answer

    def test_on_a_link_that_a_stranger_opens(self):
        self.go("/")
        self.spoil("<img src=x onerror=alert(1)> =cmd|' /C calc'!A0")
        options = self.ask("GET", f"/api/visits/{VISIT}")["visit"]["options"]
        body = {"id": str(uuid4()), "recommended": options[0]["id"], "reasons": ALL}
        made = self.ask("POST", f"/api/visits/{VISIT}/proposals", body)
        shown = f"/api/proposals/{made['id']}/presented"
        self.ask("POST", shown, {"version": made["version"]})
        link = self.ask("POST", f"/api/proposals/{made['id']}/links", {"id": str(uuid4())})
        stranger = Browser((390, 844))
        self.addCleanup(stranger.close)
        stranger.go(self.served.base + link["path"])
        stranger.see("If you were not there")
        stranger.see("alert(1)")
        self.assertEqual(stranger.driver.execute_script(PLANTED), 0)
        self.assertEqual(stranger.axe(), [])


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
