"""Lather: worked figures, edges, and that swapping vials inverts their ratio."""

import unittest

from hypothesis import assume, given
from hypothesis import strategies as st

from tests.making import water
from zesty_glass.core.demonstrating.demonstrations import Lather, Vial
from zesty_glass.core.demonstrating.kettle import scale_year
from zesty_glass.core.demonstrating.lather import (
    Ratio,
    counted,
    expected_drops,
    household_share,
    ratio,
    spoon_share,
    spoonful,
)
from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range

counts = st.lists(st.integers(1, 10), min_size=2, max_size=15)


def vial(*steps, role="tap", held=True):
    return Vial(id="v", name="Vial", role=role, steps=steps, held=held)


def threes(n):
    return vial(*[3] * (n // 3))


class WorkedFigures(unittest.TestCase):
    def test_vials_of_6_18_and_33_in_steps_of_3(self):
        soft, mid, tap = (counted(threes(n)) for n in (6, 18, 33))
        self.assertEqual(ratio(mid, soft), Ratio(best=3.0, low=2.5, high=6.0))
        self.assertEqual(ratio(tap, soft), Ratio(best=5.5, low=5.0, high=11.0))

    def test_single_drops_near_the_end_narrow_it(self):
        soft, tap = counted(vial(3, 1, 1, 1)), counted(vial(*[3] * 10, 1, 1, 1))
        r = ratio(tap, soft)
        self.assertEqual((r.best, round(r.low, 2), r.high), (5.5, 5.33, 6.6))


class Edges(unittest.TestCase):
    def test_softened_at_one_step_has_no_upper_ratio(self):
        self.assertIsNone(ratio(counted(threes(18)), counted(threes(3))).high)

    def test_a_vial_that_does_not_hold_is_not_counted(self):
        self.assertIsNone(counted(vial(3, 3, held=False)))

    def test_bad_vials(self):
        for make, code in (
            (lambda: vial(0), "lather.steps"),
            (lambda: vial(99), "lather.steps"),
            (lambda: vial(held=True), "lather.no_soap"),
            (lambda: Lather(vials=()), "lather.vials"),
            (
                lambda: Lather(vials=(vial(3, role="softened"), vial(3, role="softened"))),
                "lather.two_softened",
            ),
            (lambda: Lather(vials=(vial(3),), volume_ml=0), "lather.volume_ml"),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                make()
            self.assertEqual(e.exception.code, code)


class Household(unittest.TestCase):
    def test_the_firms_figure_when_the_vial_showed_more(self):
        self.assertEqual(household_share(Ratio(best=5.5, low=5, high=11), 0.2), 0.2)

    def test_never_more_than_the_vial_showed(self):
        self.assertAlmostEqual(household_share(Ratio(best=1.5, low=1.1, high=2), 0.2), 1 - 1 / 1.1)

    def test_nothing_when_the_vial_showed_nothing(self):
        self.assertEqual(household_share(Ratio(best=1.1, low=0.9, high=1.5), 0.2), 0)


class Spoonful(unittest.TestCase):
    def test_mixed_by_volume(self):
        self.assertEqual(spoonful(Range.exact(300), Range.exact(0), 25, 5), Range.exact(50))
        self.assertAlmostEqual(spoon_share(25, 5), 1 / 6)

    @given(st.floats(0, 1000), st.floats(0, 1000), st.floats(1, 500), st.floats(0.1, 100))
    def test_it_lies_between_the_two(self, tap, soft, vial_ml, spoon_ml):
        mixed = spoonful(Range.exact(tap), Range.exact(soft), vial_ml, spoon_ml).best
        self.assertTrue(min(tap, soft) - 1e-6 <= mixed <= max(tap, soft) + 1e-6)


class Simulated(unittest.TestCase):
    def test_soap_bound_by_hardness(self):
        test = Lather(vials=(vial(3),), volume_ml=25, soap_mg_per_drop=2.5, lather_drops=2)
        self.assertEqual(expected_drops(Range.exact(0), test).best, 2)
        self.assertAlmostEqual(
            expected_drops(Range.exact(300), test).best, 2 + 6 * 300 * 0.025 / 2.5
        )

    @given(st.floats(0, 900), st.floats(0, 100))
    def test_harder_water_never_takes_less(self, hardness, more):
        test = Lather(vials=(vial(3),))
        self.assertGreaterEqual(
            expected_drops(Range.exact(hardness + more), test).best,
            expected_drops(Range.exact(hardness), test).best,
        )


class Swapped(unittest.TestCase):
    @given(counts, counts)
    def test_swapping_vials_inverts_the_ratio(self, a, b):
        x, y = counted(vial(*a)), counted(vial(*b))
        assume(x.low > 0 and y.low > 0)
        one, other = ratio(x, y), ratio(y, x)
        self.assertAlmostEqual(one.best, 1 / other.best)
        self.assertAlmostEqual(one.low, 1 / other.high)
        self.assertAlmostEqual(one.high, 1 / other.low)

    @given(counts, counts)
    def test_the_range_holds_the_best(self, a, b):
        r = ratio(counted(vial(*a)), counted(vial(*b)))
        self.assertTrue(r.low <= r.best and (r.high is None or r.best <= r.high))


class Kettle(unittest.TestCase):
    def test_the_smaller_of_calcium_and_alkalinity(self):
        s = scale_year(water(hardness=320, calcium=250, alkalinity=180), 4)
        self.assertAlmostEqual(s.grams.best, 180 * 4 * 365.25 / 1000)
        self.assertFalse(s.from_hardness)

    def test_without_alkalinity_hardness_stands_in_and_says_so(self):
        s = scale_year(water(hardness=320, calcium=250), 4)
        self.assertTrue(s.from_hardness)
        self.assertAlmostEqual(s.grams.best, 320 * 4 * 365.25 / 1000)

    def test_nothing_known_nothing_said(self):
        self.assertIsNone(scale_year(water(tds=400), 4))

    def test_an_open_end_stays_open(self):
        self.assertIsNone(scale_year(water(hardness=Range.of(400, 425, None)), 4).grams.high)
        s = scale_year(water(calcium=Range.of(400, 425, None), alkalinity=Range.exact(100)), 4)
        self.assertAlmostEqual(s.grams.high, 100 * 4 * 365.25 / 1000)

    @given(st.floats(1, 500), st.floats(1, 500), st.floats(0.1, 50))
    def test_more_alkalinity_never_leaves_less(self, calcium, alkalinity, litres):
        less = scale_year(water(calcium=calcium, alkalinity=alkalinity), litres)
        more = scale_year(water(calcium=calcium, alkalinity=alkalinity + 10), litres)
        self.assertGreaterEqual(more.grams.best, less.grams.best)
