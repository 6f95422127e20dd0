"""What a proposal said when it was shown stays so; a revision says what changed."""

import unittest
from uuid import uuid4

from tests.api.client import HOME_1, HOME_7
from tests.api.test_sharing import NOTHING, PROPOSAL, ShareCase
from zesty_glass.demo.homes import uid


class Revisions(ShareCase):
    def test_what_changed_is_told(self):
        visit = self.get(f"/api/visits/{HOME_7}")
        self.send(
            "PATCH", f"/api/visits/{HOME_7}", {"version": visit["versions"]["visit"], "horizon": 20}
        )
        made = self.send(
            "POST",
            f"/api/visits/{HOME_7}/proposals",
            {
                "id": str(uuid4()),
                "recommended": uid("home-7-option-a"),
                "reasons": "They dislike the taste.",
            },
            201,
        )
        changed = {c["what"]: (c["before"], c["after"]) for c in made["changed"]}
        self.assertEqual(changed["Recommended"][1], "Carbon pitcher")
        self.assertEqual(changed["Horizon"], ("10 years", "20 years"))
        self.assertEqual(changed["Reasons"][1], "They dislike the taste.")
        self.assertEqual(self.get(f"/api/proposals/{NOTHING}")["changed"], [])


class Frozen(ShareCase):
    """Old proposals re-open to the byte after prices, limits, settings and rules changed."""

    def figures(self):
        return (
            self.client.get(f"/api/proposals/{PROPOSAL}").json()["offer"],
            self.client.get(f"/api/proposals/{PROPOSAL}/costs.csv").content,
        )

    def test_byte_for_byte(self):
        before = self.figures()
        boss = self.manager()
        firm = boss.get("/api/firm").json()
        firm["settings"].update(
            price_growth="0.09", salt_bag="99", electricity="1.50", gal_per_person=75, iron_factor=5
        )
        for x in firm["rules"]["limits"]:
            x["value"] = x["value"] / 2
        r = boss.put(
            "/api/firm",
            json={"version": firm["version"], "settings": firm["settings"], "rules": firm["rules"]},
        )
        self.assertEqual(r.status_code, 200, r.text[:300])
        items = boss.get("/api/catalogue/file?form=json").json()
        for i in items:
            i["price"] = str(float(i["price"]) + 777)
            for c in i["consumables"]:
                c["price"] = str(float(c["price"]) * 3)
        import json

        on = boss.post("/api/catalogue/preview", content=json.dumps(items)).json()["revision"]
        self.assertEqual(
            boss.post(f"/api/catalogue/import?on={on}", content=json.dumps(items)).status_code,
            201,
        )
        self.assertEqual(self.figures(), before)
        version = {"version": self.get(f"/api/visits/{HOME_1}")["versions"]["visit"]}
        self.send("PUT", f"/api/visits/{HOME_1}/terms", version)
        self.assertEqual(self.figures(), before)
        now = self.get(f"/api/visits/{HOME_1}")["assessment"]["options"][1]["cost"]["total"]
        self.assertNotIn(now, [c["total"] for o in before[0]["options"] for c in o["costs"]])


if __name__ == "__main__":
    unittest.main()
