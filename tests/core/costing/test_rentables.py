"""Items of a line bought, rented and rented to own, beside each other, by hand."""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.core.treating.test_letting import ITEMS, chosen, line
from zesty_glass.core.costing.renting import rentables
from zesty_glass.core.treating.letting import Letting

D = Decimal


class Beside(unittest.TestCase):
    def ways(self, terms="buy", years=10):
        got = rentables(line(chosen("SO-15", terms)), ITEMS, years, D(0), D(0))
        self.assertEqual([(r.code, r.chosen) for r in got], [("SO-15", terms)])
        return {w.terms: w for w in got[0].ways}

    def test_the_same_three_however_it_is_had(self):
        every = [self.ways(t) for t in ("buy", "rental", "rent_to_own")]
        self.assertEqual(every[0], every[1])
        self.assertEqual(every[0], every[2])

    def test_rental_over_ten_years(self):
        # 120 + 120 × 39 = 4,800, and salt and water as bought, which the rent does not cover
        w = self.ways()
        salt = sum((r.per_year for r in line(chosen("SO-15", "rental")).running), D(0))
        self.assertAlmostEqual(w["rental"].total, D(4800) + 10 * salt, 0)
        self.assertGreater(w["rental"].total, w["buy"].total)

    def test_buying_is_cheaper_from_the_month_in_which_the_rents_passed_it(self):
        # bought 1,290 + 420 = 1,710; to own 95 + 46 a month with the same parts beside both:
        # 95 + 46 n > 1,710 for n = 36, which is paid at month 35
        self.assertEqual(self.ways()["rent_to_own"].buying_cheaper_from, 35)

    def test_the_rate_is_named(self):
        # 1,710 less 95 and the first 46 is 1,569, paid by 47 times 46: a factor of 34.11, which is
        # that of 1.42 % a month, (1 − 1.0142^−47) / 0.0142 = 34.1; × 12 = 17.0 %
        w = self.ways()["rent_to_own"]
        self.assertAlmostEqual(float(w.apr), 17.04, 1)
        self.assertGreater(w.apr_effective, w.apr)
        self.assertIsNone(self.ways()["rental"].apr)

    def test_a_rate_that_there_is_none_of_says_why(self):
        cheap = replace(
            ITEMS["SO-15"], lets=(Letting(kind="rent_to_own", per_month=D(10), months=12),)
        )
        got = rentables(line(chosen("SO-15", "buy")), {"SO-15": cheap}, 10, D(0), D(0))
        way = got[0].ways[1]
        self.assertIsNone(way.apr)
        self.assertIn("do not cover the price", way.no_rate)

    def test_of_a_system_with_the_parts_of_its_stages(self):
        # 60 to set up and 120 × 27 = 3,300; parts of the tap's own stages are in the rent, and
        # those of the softener beside it are not counted here
        both = line(chosen("DT-1", "buy"), chosen("SO-15", "buy"))
        tap, softener = rentables(both, ITEMS, 10, D(0), D(0))
        self.assertEqual((tap.code, softener.code), ("DT-1", "SO-15"))
        ways = {w.terms: w for w in tap.ways}
        water = sum((r.per_year for s in both.stages if s.scope == "tap" for r in s.running), D(0))
        self.assertAlmostEqual(ways["rental"].total, D(3300) + 10 * water, 0)
        # bought: 480 + 220, and its parts over ten years
        self.assertGreater(ways["buy"].total, D(700) + 10 * water + 500)
        self.assertEqual(
            (ways["buy"].at_once, ways["buy"].per_month, ways["buy"].months), (700, 0, 0)
        )
        self.assertFalse(ways["buy"].covers_parts)
        self.assertTrue(ways["rental"].covers_parts)

    def test_the_firms_service_is_in_a_rent_that_covers_it(self):
        served = replace(ITEMS["SO-15"], service_year=D(50))
        items = {**ITEMS, "SO-15": served}
        got = rentables(line(chosen("SO-15", "buy"), items=items), items, 10, D(0), D(0))[0]
        bare = rentables(line(chosen("SO-15", "buy")), ITEMS, 10, D(0), D(0))[0]
        more = {a.terms: a.total - b.total for a, b in zip(got.ways, bare.ways, strict=True)}
        self.assertEqual(more, {"buy": 500, "rental": 0, "rent_to_own": 500})

    def test_what_is_only_sold_is_not_listed(self):
        self.assertEqual(rentables(line(chosen("SO-10", "buy")), ITEMS, 10, D(0), D(0)), ())
