"""A value held against its limits: what is said, how much it weighs, and what is never dropped."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.analytes import ANALYTES, Kind
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.finding import Finding, Weight
from zesty_glass.core.testing.judged import judge, limit_words
from zesty_glass.core.testing.value import Value

RULES = Rules()


def held(name: str, low: float, best: float, high: float | None, **more) -> Finding:
    value = Value(analyte=name, unit="", range=Range.of(low, best, high), **more)
    found = judge(name, value, RULES, "us")
    assert found is not None
    return found


def certified(name: str, best: float, **more) -> Finding:
    return held(name, best, best, best, laboratory=True, certified=True, **more)


class TwoLimits(unittest.TestCase):
    """Manganese stains from 0.05 mg/L (US 1991), and is one of health from 0.08 (WHO 2021)."""

    def test_a_stain_for_sure_and_health_perhaps_are_both_said(self):
        f = held("manganese", 0.06, 0.075, 0.09)
        self.assertEqual((f.weight, f.kind, f.sure), (Weight.ACT, Kind.HEALTH, True))
        self.assertIn("above 0.05 mg/L, staining limit", f.sentence)
        self.assertIn("possibly above 0.08 mg/L, provisional guideline (WHO 2021)", f.sentence)
        self.assertFalse(f.settled)
        self.assertIn("measure it finer", f.next)

    def test_right_at_a_limit_of_health(self):
        f = held("manganese", 0.08, 0.08, 0.08)
        self.assertIn("right at 0.08 mg/L", f.sentence)
        self.assertFalse(f.settled)

    def test_under_it_nothing_of_health_is_said(self):
        f = held("manganese", 0.06, 0.065, 0.07)
        self.assertEqual((f.kind, f.settled, f.next), (Kind.LOOKS_TASTE, True, ""))
        self.assertNotIn("health", f.sentence)

    def test_over_it_for_sure_the_limit_of_health_leads(self):
        f = held("manganese", 0.09, 0.1, 0.11)
        self.assertIn("above 0.08 mg/L", f.sentence)
        self.assertNotIn("staining", f.sentence)
        self.assertTrue(f.settled)

    def test_who_vouches_decides_who_is_asked(self):
        by_kit = held("manganese", 0.2, 0.2, 0.2)
        self.assertIn("confirm by a certified laboratory", by_kit.sentence)
        self.assertIn("local health authority judges it", certified("manganese", 0.2).sentence)
        by_other = held("manganese", 0.2, 0.2, 0.2, laboratory=True)
        self.assertIn("confirm by a certified laboratory", by_other.sentence)


class RightAt(unittest.TestCase):
    def test_a_certified_result_right_at_its_limit_is_sampled_again(self):
        f = certified("arsenic", 0.01)
        self.assertEqual((f.id, f.weight), ("arsenic.at_limit", Weight.NOTICE))
        self.assertIn("nothing to spare", f.sentence)
        self.assertEqual((f.sure, f.settled), (False, False))

    def test_a_little_under_it_is_reported(self):
        self.assertEqual(certified("arsenic", 0.0098).id, "arsenic.reported")

    def test_a_little_over_it_is_over(self):
        self.assertEqual(certified("arsenic", 0.0102).weight, Weight.HEALTH)

    def test_under_a_detection_limit_right_at_it_is_reported(self):
        below = {"below": 0.01, "laboratory": True, "certified": True}
        self.assertEqual(held("arsenic", 0.0, 0.005, 0.01, **below).weight, Weight.FINE)

    def test_a_goal_of_zero_has_no_right_at(self):
        self.assertEqual(certified("lead", 0.001).weight, Weight.HEALTH)

    def test_a_limit_of_looks_is_met_right_at_it(self):
        f = held("iron", 0.3, 0.3, 0.3)
        self.assertEqual((f.weight, f.sure), (Weight.FINE, True))


class NobodyVouches(unittest.TestCase):
    def test_a_kit_is_not_a_judge_of_health(self):
        f = held("nitrate_n", 4.0, 5.0, 6.0)
        self.assertEqual((f.id, f.weight), ("nitrate_n.not_judged", Weight.NOTICE))

    def test_a_laboratory_that_may_be_certified_or_not_is_never_silent_over_a_limit(self):
        f = held("nitrate_n", 14.0, 15.0, 16.0, laboratory=True)
        self.assertEqual((f.id, f.weight), ("nitrate_n.to_confirm", Weight.HEALTH))
        self.assertIn("If it is right it is over 10", f.sentence)

    def test_bacteria_that_an_uncertified_laboratory_found(self):
        value = Value(analyte="coliform", unit="", range=None, words="present", laboratory=True)
        f = judge("coliform", value, RULES, "us")
        self.assertEqual(f.weight, Weight.HEALTH)
        self.assertIn("until then act as if it were", f.sentence)

    def test_a_method_too_coarse_for_the_limit(self):
        below = {"below": 0.05, "laboratory": True, "certified": True}
        f = held("arsenic", 0.0, 0.025, 0.05, **below)
        self.assertEqual((f.id, f.weight), ("arsenic.too_coarse", Weight.NOTICE))
        self.assertIn("Not known to be under it", f.sentence)


class Plain(unittest.TestCase):
    def test_dissolved_matter_says_nothing_of_hardness_or_health(self):
        f = held("tds", 400, 410, 420)
        self.assertIn("nothing about hardness, and nothing about health", f.sentence)
        self.assertIs(f.kind, Kind.LOOKS_TASTE)

    def test_moderately_hard_is_worth_knowing_and_hard_asks_to_act(self):
        # 17.118 mg/L as CaCO3 a gpg: 5 gpg moderately hard, 12 gpg very hard
        self.assertIs(held("hardness", 84, 85.6, 87).weight, Weight.NOTICE)
        self.assertIs(held("hardness", 204, 205.4, 207).weight, Weight.ACT)
        self.assertIs(held("hardness", 16, 17.1, 18).weight, Weight.FINE)

    def test_chloramine_not_shown_where_free_and_total_overlap(self):
        self.assertIs(held("chlorine_combined", 0.9, 1.1, 1.3).weight, Weight.NOTICE)
        self.assertIs(held("chlorine_combined", 0.05, 0.1, 0.15).weight, Weight.FINE)

    def test_ph_under_and_over_its_two_limits(self):
        self.assertIn("below 6.5", held("ph", 6.0, 6.1, 6.2).sentence)
        self.assertIn("above 8.5", held("ph", 8.8, 8.9, 9.0).sentence)
        self.assertIn("between 6.5 and 8.5", held("ph", 7.1, 7.2, 7.4).sentence)

    def test_a_range_astride_a_limit_is_possibly_beyond_it(self):
        f = held("ph", 6.9, 7.0, 7.1)
        self.assertIn("possibly below 7", f.sentence)
        self.assertFalse(f.sure)
        self.assertIn("possibly above 8.5", held("ph", 8.4, 8.5, 8.6).sentence)

    def test_no_limit_is_said_and_not_called_fine(self):
        self.assertIs(held("potassium", 4.0, 5.0, 6.0).weight, Weight.NOT_JUDGED)

    def test_chlorine_over_its_limit_is_repeated_and_the_utility_called(self):
        f = held("chlorine_total", 4.2, 4.5, 4.8)
        self.assertIn("Repeat on site, then call the utility.", f.sentence)
        self.assertNotIn("certified laboratory", f.sentence)


class Words(unittest.TestCase):
    def test_a_limit_has_as_many_digits_as_it_needs(self):
        self.assertEqual(limit_words("manganese", 0.08), "0.08 mg/L")
        self.assertEqual(limit_words("tds", 500), "500 mg/L")
        self.assertEqual(limit_words("ph", 6.5), "6.5")


class Always(unittest.TestCase):
    @given(
        st.sampled_from(sorted(ANALYTES)),
        st.floats(0.001, 2000),
        st.floats(0, 1),
        st.floats(0, 1),
        st.booleans(),
    )
    def test_a_limit_of_health_that_is_within_a_range_is_never_passed_over(
        self, name, best, under, over, vouched
    ):
        r = Range.of(best * (1 - under), best, best * (1 + over))
        value = Value(analyte=name, unit="", range=r, laboratory=vouched, certified=vouched)
        f = judge(name, value, RULES, "us")
        limits = [
            x.value
            for x in RULES.limits
            if x.analyte == name and x.governs and x.about in ("health", "infants")
        ]
        if f is None or not any(r.at_most(x).value != "met" for x in limits):
            return
        self.assertTrue(f.kind is Kind.HEALTH, f)
        self.assertNotIn(f.weight, (Weight.FINE,))


if __name__ == "__main__":
    unittest.main()


class Digits(unittest.TestCase):
    def test_a_limit_has_as_many_digits_as_tell_it_apart(self):
        for name, value, shown in (
            ("iron", 2.26, "2.3 mg/L"),
            ("iron", 1.96, "1.96 mg/L"),
            ("manganese", 0.126, "0.13 mg/L"),
            ("iron", 25.26, "25 mg/L"),
        ):
            self.assertEqual(limit_words(name, value), shown)

    def test_ph_is_named_once(self):
        self.assertTrue(held("ph", 6.0, 6.1, 6.2).sentence.startswith("pH 6.1: below"))
        self.assertTrue(held("iron", 0.5, 0.5, 0.5).sentence.startswith("Iron, total 0.5 mg/L"))


class NotDetected(unittest.TestCase):
    """Lead's goal is zero; the strictest number any body gives is Canada's 0.005 mg/L (2019)."""

    def under(self, limit):
        return held("lead", 0.0, 0.0, limit, below=limit, laboratory=True, certified=True)

    def test_a_method_that_could_not_have_seen_the_strictest_number(self):
        f = self.under(0.008)
        self.assertEqual((f.id, f.limit, f.weight), ("lead.too_coarse", 0.005, Weight.NOTICE))
        self.assertIn("Not known to be under it", f.sentence)

    def test_a_method_that_reaches_it(self):
        self.assertEqual(self.under(0.005).weight, Weight.FINE)


class OverAndNobodyVouches(unittest.TestCase):
    def test_over_a_goal_of_zero_no_number_is_compared_with(self):
        f = held("coliform", 5.0, 5.0, 5.0, laboratory=True)
        self.assertEqual((f.id, f.weight), ("coliform.to_confirm", Weight.HEALTH))
        self.assertNotIn("it is over", f.sentence)
        self.assertIn("Have it confirmed at once", f.sentence)

    def test_over_a_number_it_is_said(self):
        f = held("arsenic", 0.02, 0.02, 0.02, laboratory=True)
        self.assertIn("If it is right it is over 0.01 mg/L", f.sentence)


class OneSureOnePerhaps(unittest.TestCase):
    def test_what_is_surely_over_one_limit_of_health_is_settled(self):
        # manganese over WHO's 0.08 for sure, astride Canada's 0.12 (2019)
        self.assertTrue(held("manganese", 0.09, 0.11, 0.15).settled)
