"""Promises held against readings, drift, and bleach: worked by hand."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.aftercare import drift
from zesty_glass.core.aftercare.disinfecting import (
    METHODS,
    Plumbing,
    bleach_ml,
    litres,
    pipe_litres,
)
from zesty_glass.core.aftercare.proof import causes_of, verdict
from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.value import Value


def value(low, best, high, analyte="hardness", **more):
    r = None if best is None else Range.of(low, best, high)
    return Value(analyte=analyte, unit="", range=r, **more)


class Verdicts(unittest.TestCase):
    PROMISED = Range.of(5.0, 8.0, 12.0)

    def test_ranges_that_meet_are_as_promised(self):
        for low, best, high in ((12.0, 14.0, 16.0), (2.0, 4.0, 5.0), (6.0, 7.0, 8.0)):
            self.assertEqual(
                verdict("hardness", self.PROMISED, value(low, best, high)), "as promised"
            )

    def test_above_is_short_and_below_is_better(self):
        self.assertEqual(verdict("hardness", self.PROMISED, value(12.1, 14.0, 16.0)), "short")
        self.assertEqual(verdict("hardness", self.PROMISED, value(1.0, 3.0, 4.9)), "better")

    def test_an_open_end_is_never_better(self):
        self.assertEqual(verdict("hardness", self.PROMISED, value(1.0, 3.0, None)), "as promised")

    def test_ph_is_short_below_and_above_what_is_wanted(self):
        promised = Range.of(7.0, 7.4, 7.6)
        for low, high, said in ((6.4, 6.6, "short"), (8.0, 8.2, "better"), (8.6, 8.8, "short")):
            self.assertEqual(verdict("ph", promised, value(low, low, high, "ph")), said)

    def test_only_a_laboratory_closes_microbes(self):
        absent = value(0, None, 0, "coliform", words="absent")
        self.assertEqual(verdict("coliform", None, absent), "laboratory only")
        lab = value(0, None, 0, "coliform", words="absent", laboratory=True)
        self.assertEqual(verdict("coliform", None, lab), "as promised")
        found = value(0, None, 0, "e_coli", words="present", laboratory=True)
        self.assertEqual(verdict("e_coli", None, found), "short")

    def test_what_was_not_predicted_was_not_promised(self):
        self.assertEqual(verdict("sodium", None, value(1, 2, 3)), "not promised")

    def test_causes_in_their_order_and_only_what_can_be(self):
        ids = [c.id for c in causes_of(frozenset({"softener"}))]
        self.assertEqual(
            ids, ["not_flushed", "bypass", "setting", "feed", "channelled", "exhausted"]
        )
        ids = [c.id for c in causes_of(frozenset({"membrane"}))]
        self.assertEqual(ids, ["not_flushed", "bypass", "feed", "seal", "exhausted"])


class Drift(unittest.TestCase):
    def test_the_alarm_is_the_larger_of_two(self):
        self.assertAlmostEqual(drift.rejection_alarm(0.96), 0.768)
        self.assertAlmostEqual(drift.rejection_alarm(0.92), 0.75)  # 0.736 would be less

    def test_a_membrane(self):
        self.assertIsNone(drift.membrane(0.96, 0.77))
        self.assertIn("75%", drift.membrane(0.90, 0.74).sentence)
        with self.assertRaises(RuleError):
            drift.rejection(0, 10)

    def test_chlorine_and_hardness(self):
        self.assertIsNone(drift.carbon(0.1))
        self.assertIsNotNone(drift.carbon(0.11))
        self.assertIsNone(drift.softener(17.118))  # 1 gpg
        self.assertIn("3 gpg", drift.softener(51.354).sentence)


class Bleach(unittest.TestCase):
    def test_the_worked_figure(self):
        # 20 gal + 40 gal + 60 ft of ¾ in + 4 L: 75.7 + 151.4 + 5.7 + 4 = 236.8 L
        parts = litres(Plumbing(tank_gal=20))
        self.assertEqual([round(x) for _, x in parts], [76, 151, 6, 4])
        self.assertEqual(round(bleach_ml(sum(x for _, x in parts), 50, 8.25)), 144)

    def test_what_is_empty_is_not_listed(self):
        self.assertEqual(len(litres(Plumbing(heater_gal=0, pipe_ft=0))), 1)

    def test_the_well_is_part_of_the_dose(self):
        # π/4 × 6² × 12 / 231 = 1.469 gal a foot: 100 ft hold 146.9 gal, 556 L
        named = dict(litres(Plumbing(well_ft=100.0)))
        self.assertAlmostEqual(named["the well, 100 ft of water"], 555.9, 0)

    def test_the_methods_of_the_codes(self):
        # IPC 610.1 and UPC 609.9 (2021): 50 mg/L for 24 h, or 200 mg/L for 3 h; AWWA C652: 6 h
        ways = {m.id: (m.dose_mg_l, m.hours) for m in METHODS.values()}
        self.assertEqual(ways["code_24h"], (50.0, 24.0))
        self.assertEqual(ways["code_3h"], (200.0, 3.0))
        self.assertEqual(ways["c652_6h"], (50.0, 6.0))
        self.assertEqual(Plumbing().method, "code_24h")

    def test_a_pipe(self):
        # π/4 · 1² in² · 12 in = 9.425 in³ = 0.0408 gal = 0.1544 L a foot of 1 in
        self.assertAlmostEqual(pipe_litres(1, 1), 0.15444, 4)

    @given(st.floats(1, 5000), st.floats(1, 15), st.floats(1, 200))
    def test_it_makes_the_dose(self, water, strength, dose):
        ml = bleach_ml(water, dose, strength)
        self.assertAlmostEqual(ml * strength * 10 / water, dose, 6)  # 1 % is 10 mg a mL

    def test_refused(self):
        for water, dose, strength, code in (
            (100, 50, 0, "bleach.strength"),
            (100, 50, 16, "bleach.strength"),
            (100, 0, 8, "bleach.dose"),
            (-1, 50, 8, "bleach.water"),
        ):
            with self.assertRaises(RuleError) as e:
                bleach_ml(water, dose, strength)
            self.assertEqual(e.exception.code, code)
        with self.assertRaises(RuleError):
            Plumbing(heater_gal=-1)
