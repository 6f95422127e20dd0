"""Ranges and units: arithmetic that never loses an end."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range, Verdict
from zesty_glass.core.rules import BAND_SETS, LIMITS, Rules, Settings
from zesty_glass.core.units import MG_L_PER_GPG, convert, hardness_in_every_unit

number = st.floats(0, 1e5)


@st.composite
def ranges(draw, open_ended=False):
    low, best, high = sorted(draw(st.tuples(number, number, number)))
    return Range.of(low, best, None if open_ended and draw(st.booleans()) else high)


class Arithmetic(unittest.TestCase):
    @given(ranges(), ranges())
    def test_sum_and_difference_hold_every_pair(self, a, b):
        s, d = a.plus(b), a.minus(b, floor=None)
        for x in (a.low, a.best, a.high):
            for y in (b.low, b.best, b.high):
                self.assertTrue(s.low - 1e-6 <= x + y <= s.high + 1e-6)
                self.assertTrue(d.low - 1e-6 <= x - y <= d.high + 1e-6)

    @given(ranges(), st.floats(0, 1), st.floats(0, 1), st.floats(0, 1))
    def test_removal_is_monotonic(self, a, p, q, r):
        low, best, high = sorted((p, q, r))
        out = a.removed(low, best, high)
        self.assertLessEqual(out.high, a.high + 1e-9)
        self.assertLessEqual(a.removed(best, best, high).high, out.high + 1e-9)

    @given(ranges(True), st.floats(0, 1e5))
    def test_verdicts_agree_with_the_ends(self, a, limit):
        v = a.at_most(limit)
        if v is Verdict.MET:
            self.assertTrue(a.high is not None and a.high <= limit)
        elif v is Verdict.NOT_MET:
            self.assertGreater(a.low, limit)
        if a.high is None:
            self.assertIsNot(v, Verdict.MET)

    @given(ranges(True), ranges(True))
    def test_overlap_is_mutual_and_touching_counts(self, a, b):
        self.assertEqual(a.overlaps(b), b.overlaps(a))
        if a.high is not None:
            self.assertTrue(a.overlaps(Range.exact(a.high)))

    def test_order_and_finiteness_are_kept(self):
        for low, best, high in ((2, 1, 3), (0, 2, 1), (0, float("nan"), 1), (0, 1, float("inf"))):
            with self.assertRaises(RuleError):
                Range.of(low, best, high)

    def test_values_are_frozen(self):
        with self.assertRaises(AttributeError):
            Range.exact(1.0).best = 2.0


class Units(unittest.TestCase):
    def test_constants(self):
        self.assertEqual(f"{MG_L_PER_GPG:.4f}", "17.1181")
        self.assertAlmostEqual(convert(1, "gpg", "mg/L as CaCO3"), 17.1181, 4)
        self.assertAlmostEqual(convert(127, "Bq/L", "pCi/L"), 3432.4, 1)
        self.assertAlmostEqual(convert(57.2, "°F", "°C"), 14.0)
        self.assertAlmostEqual(hardness_in_every_unit(178.48)["°dH"], 10.0)

    def test_a_wrong_unit_is_an_error_that_names_the_right_ones(self):
        with self.assertRaises(RuleError) as e:
            convert(3, "gpg", "mg/L")
        self.assertIn("mg/L", e.exception.remedy)


class Data(unittest.TestCase):
    def test_every_limit_has_source_and_year(self):
        self.assertEqual(len({x.id for x in LIMITS}), len(LIMITS))
        for x in LIMITS:
            self.assertTrue(x.source and 1960 < x.year <= 2027 and x.value >= 0, x.id)

    def test_bands_rise_from_zero(self):
        for b in BAND_SETS.values():
            self.assertEqual(b.of(0, 0)[0].name, b.bands[0].name)
        self.assertEqual(Rules().band_set("tds").of(300, 300)[0].name, "good")

    def test_settings_out_of_range_are_refused(self):
        for field, value in (("iron_factor", 40), ("gal_per_person", 0), ("price_growth", 3)):
            with self.assertRaises(RuleError):
                Settings(**{field: value})
