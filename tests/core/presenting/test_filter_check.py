"""The page of a filter that stands in a home already."""

import unittest
from datetime import UTC, datetime

from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.filter_check import filter_check
from zesty_glass.demo.homes import demo_visits
from zesty_glass.documents.pdf import filter_check_html

VISITS = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))


def checks():
    for v in VISITS:
        a = assess(v)
        for j in a.in_place:
            yield v, j, filter_check(v, a, j.id)


class FilterChecks(unittest.TestCase):
    def of(self, kind):
        return next((v, c) for v, j, c in checks() if j.kind == kind)

    def test_label_and_today_stand_beside_each_other(self):
        _, pitcher = self.of("jug")
        chlorine = next(r for r in pitcher.rows if r.analyte == "chlorine_total")
        self.assertIn("60 % less, its label", chlorine.claim)
        self.assertIn("73 % less", chlorine.change)
        self.assertEqual(chlorine.words, "as claimed")
        self.assertIn("About 40 gal left of 40 gal.", pitcher.facts)
        self.assertEqual(pitcher.verdict, "Keep it")

    def test_what_is_over_behind_it_is_said_before_what_it_does(self):
        v, softener = self.of("softener")
        self.assertTrue(softener.over[0].startswith("Iron, total 1.9 mg/L"))
        page = filter_check_html(softener)
        self.assertLess(page.index("Over a limit behind it"), page.index("What it does today"))
        self.assertIn(v.home.name, page)
        self.assertIn("not whether your water is good to drink", page)

    def test_a_price_nobody_knows_is_no_price(self):
        _, softener = self.of("softener")
        self.assertIsNone(softener.cost_year)
        page = filter_check_html(softener)
        self.assertIn("Its parts have no price here yet.", page)
        self.assertNotIn("About $", page)

    def test_no_fact_stands_twice(self):
        for v, j, check in checks():
            with self.subTest(v.home.name, device=j.name):
                self.assertEqual(len(check.facts), len(set(check.facts)))

    def test_of_what_does_not_stand_there_is_no_page(self):
        v = VISITS[0]
        with self.assertRaises(RuleError) as e:
            filter_check(v, assess(v), "nobody")
        self.assertEqual(e.exception.code, "filter_check.device")
