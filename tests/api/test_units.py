"""What is sent in metric units, and an appliance's card over the wire."""

import json
import re

from tests.api.client import HOME_1, ApiCase
from zesty_glass.demo.homes import uid

_US = re.compile(r"\d (gpm|psi|lb)\b")


def spelt(x) -> str:
    return json.dumps(x, ensure_ascii=False)


class Metric(ApiCase):
    def sentences(self, view):
        options = view["assessment"]["options"]
        return spelt([s["checks"] for o in options for s in o["line"]["stages"]])

    def test_a_visit_is_said_in_the_units_that_are_asked_for(self):
        us = self.get(f"/api/visits/{HOME_1}?units=us")
        metric = self.get(f"/api/visits/{HOME_1}?units=metric")
        self.assertRegex(self.sentences(us), _US)
        self.assertNotRegex(self.sentences(metric), _US)
        self.assertIn("L/min", self.sentences(metric))
        self.assertEqual(us["visit"]["home"], metric["visit"]["home"])

    def test_what_the_search_proposes_and_what_if(self):
        for path in (
            f"/api/visits/{HOME_1}/suggest",
            f"/api/visits/{HOME_1}/options/{uid('home-1-option-b')}/what-if",
        ):
            own = re.compile("|".join(re.escape(i["name"]) for i in self.get("/api/catalogue")))
            said = {u: own.sub("", spelt(self.get(f"{path}?units={u}"))) for u in ("us", "metric")}
            if path.endswith("suggest"):
                self.assertTrue(re.search(r"\d (gpm|gal|gpg)\b", said["us"]), path)
            left = [said["metric"][m.start() - 60 : m.end()] for m in _US.finditer(said["metric"])]
            self.assertEqual(left, [], path)


class Appliance(ApiCase):
    def test_a_card_with_what_the_household_says(self):
        told = "dose_here=60&dose_soft=35&dose_price=4&uses_year=200"
        card = self.get(f"/api/visits/{HOME_1}/appliances/dishwasher?{told}")
        self.assertEqual(card["name"], "Dishwasher")
        worth = dict(card["waters"][0]["worth"])
        self.assertEqual(worth["Detergent beyond soft water"], "5 L or kg a year, $20.00")

    def test_what_cannot_be_is_refused_in_words(self):
        for told, status in (
            ("dose_here=30&dose_soft=31", 422),
            ("uses_year=-1", 422),
            ("salt_kg=nan", 422),
        ):
            self.get(f"/api/visits/{HOME_1}/appliances/dishwasher?{told}", status)
        self.get(f"/api/visits/{HOME_1}/appliances/toaster", 422)


class Steps(ApiCase):
    def test_a_line_has_its_steps_before_it_is_sold(self):
        path = f"/api/visits/{HOME_1}/options/{uid('home-1-option-b')}/steps"
        told = self.get(f"{path}?units=metric")
        keys = [s["key"].split(":")[0] for s in told["sheets"]]
        self.assertEqual(keys[:2], ["pipe", "carbon_start"])
        self.assertIn("Flush 1,290 L to", spelt(told["sheets"]))
        self.assertIn("Flush 340 gal to", spelt(self.get(f"{path}?units=us")["sheets"]))

    def test_a_line_that_is_not_there_has_none(self):
        self.get(f"/api/visits/{HOME_1}/options/{uid('home-1')}/steps", 404)


class FilterCheck(ApiCase):
    def test_what_stands_there_goes_home_on_one_page(self):
        path = f"/api/visits/{HOME_1}/in-place"
        r = self.client.get(f"{path}/refrigerator/check")
        self.assertEqual((r.status_code, r.content[:5]), (200, b"%PDF-"))
        self.assertIn("filter-check-refrigerator-filter.pdf", r.headers["content-disposition"])
        self.get(f"{path}/nobody/check", 422)
