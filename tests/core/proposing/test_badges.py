"""What a proposed system is called the best at."""

import unittest
from dataclasses import replace

from tests.core.proposing.test_ahead import A
from zesty_glass.core.proposing.badges import badged
from zesty_glass.core.treating.option import Option


def line(id, **more):
    return replace(A, option=replace(A.option, id=id), **more)


CHEAP = line("cheap", price=900.0, cost=5_000.0, own_minutes=60.0)
LASTING = line("lasting", price=2_000.0, cost=3_000.0, own_minutes=90.0)
NOTHING = replace(A, option=Option(id="nothing", name="Do nothing"), leaves=("hardness",), meets=0)


def said(*lines):
    return {x.option.id: x.badges for x in badged(lines)}


class Badges(unittest.TestCase):
    def test_each_for_what_it_is_the_best_at_and_of_how_many(self):
        self.assertEqual(
            said(CHEAP, LASTING, NOTHING),
            {
                "cheap": ("Lowest price today of both", "Least of your time of both"),
                "lasting": ("Lowest total cost of both",),
                "nothing": (),
            },
        )

    def test_what_leaves_something_is_not_beside_what_answers(self):
        half = line("half", price=10.0, cost=10.0, leaves=("hardness",), meets=0)
        got = said(CHEAP, LASTING, half)
        self.assertEqual(got["half"], ())
        self.assertIn("Lowest price today of the 2 that fix it all", got["cheap"])

    def test_where_all_are_alike_nobody_is_the_best(self):
        self.assertNotIn("Least wastewater", str(said(CHEAP, LASTING)))
        self.assertEqual(said(CHEAP), {"cheap": ()})

    def test_what_only_comes_near_is_not_beside_what_answers(self):
        near = line("near", price=10.0, cost=10.0, meets=0)  # it leaves nothing, and meets less
        got = said(CHEAP, LASTING, near)
        self.assertEqual(got["near"], ())
        self.assertIn("Lowest total cost of the 2 that fix it all", got["lasting"])

    def test_a_whole_unit_apart_is_apart_and_half_of_one_is_not(self):
        for field, words in (
            ("price", "Lowest price today"),
            ("cost", "Lowest total cost"),
            ("waste_gal_year", "Least wastewater"),
            ("own_minutes", "Least of your time"),
        ):
            base = {"price": 9.0, "cost": 9.0, "waste_gal_year": 9.0, "own_minutes": 9.0}
            far = line("far", **{k: 50.0 for k in base})
            for by, alike in ((0.5, True), (1.0, False)):
                with self.subTest(field, by=by):
                    other = line("other", **{**base, field: 9.0 + by})
                    got = said(line("first", **base), other, far)
                    self.assertEqual(f"{words} of all 3" in got["other"], alike)

    def test_an_open_cost_counts_for_no_other_badge(self):
        got = said(replace(CHEAP, missing=("salt",)), LASTING)
        self.assertIn("Lowest price today of both", got["cheap"])

    def test_a_cost_that_is_open_is_no_lowest_cost(self):
        got = said(CHEAP, replace(LASTING, missing=("salt",)))
        self.assertNotIn("Lowest total cost", str(got))

    def test_two_that_are_alike_are_both_the_best(self):
        twin = line("twin", price=900.2, cost=6_000.0, own_minutes=99.0)
        got = said(CHEAP, LASTING, twin)
        self.assertIn("Lowest price today of all 3", got["cheap"])
        self.assertIn("Lowest price today of all 3", got["twin"])
