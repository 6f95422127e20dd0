"""Reports: what a figure of a laboratory is in the canonical unit, by molar masses written out."""

import unittest

from tests.making import lab
from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.breath import breath_working, breathed_ph
from zesty_glass.core.testing.by_laboratory import laboratory
from zesty_glass.core.testing.observations import LaboratoryResult


def told(name, value, **more):
    return laboratory(lab(name), LaboratoryResult(value=value, **more))


def best(name, value, **more):
    return told(name, value, **more).range.best


class Bases(unittest.TestCase):
    def test_nitrate_and_nitrite_as_nitrogen(self):
        # NO3 62.0049, NO2 46.0055, N 14.0067 [g/mol]
        self.assertAlmostEqual(best("nitrate_n", 44.27, basis="NO3"), 10.0, 2)
        self.assertAlmostEqual(best("nitrite_n", 3.2845, basis="NO2"), 1.0, 4)
        self.assertEqual(best("nitrate_n", 7.0, basis="N"), 7.0)

    def test_calcium_and_magnesium_as_carbonate(self):
        # 100.087 / 40.078 = 2.4973 and 100.087 / 24.305 = 4.1180
        self.assertAlmostEqual(best("calcium", 100.0, basis="Ca"), 249.73, 1)
        self.assertAlmostEqual(best("magnesium", 10.0, basis="Mg"), 41.18, 2)
        self.assertEqual(best("calcium", 250.0, basis="CaCO3"), 250.0)
        self.assertEqual(best("magnesium", 41.0, basis="CaCO3"), 41.0)

    def test_an_uncertainty_stands_on_both_sides_and_never_under_zero(self):
        r = told("iron", 0.4, uncertainty=0.1).range
        self.assertEqual((round(r.low, 6), round(r.high, 6)), (0.3, 0.5))
        self.assertEqual(told("iron", 0.05, uncertainty=0.1).range.low, 0.0)

    def test_at_least_keeps_its_end_open(self):
        r = told("iron", 5.0, qualifier=">").range
        self.assertEqual((r.low, r.best, r.high), (5.0, 5.0, None))


class Radon(unittest.TestCase):
    def test_counted_at_once_it_is_what_was_measured(self):
        self.assertEqual(best("radon", 300.0, basis="counting", hours_to_count=0.0), 300.0)

    def test_no_time_runs_backwards(self):
        for hours in (None, -0.1):
            with self.assertRaises(RuleError) as e:
                told("radon", 300.0, basis="counting", hours_to_count=hours)
            self.assertEqual(e.exception.code, "laboratory.radon_hours")

    def test_later_than_four_days_is_flagged_for_radon_alone(self):
        for hours, flagged in ((96.0, False), (96.1, True)):
            value = told("radon", 300.0, basis="counting", hours_to_count=hours)
            with self.subTest(hours=hours):
                self.assertEqual([f.id for f in value.flags], ["radon.late"] * flagged)
        self.assertEqual(told("iron", 0.3, hours_to_count=200.0).flags, ())


class Breath(unittest.TestCase):
    def test_by_hand(self):
        # pK1 6.352 at 25 °C (Plummer and Busenberg 1982); C = 0.034 * 0.04 = 1.36 mmol/L
        # 160 / 50043.45 = 3.1972 mmol/L; log10(3.1972 / 1.36) = 0.3712
        self.assertAlmostEqual(breathed_ph(160.0), 6.723, 2)
        self.assertAlmostEqual(breathed_ph(0.0), 0.5 * (6.352 + 2.8665), 2)

    def test_the_slip_shows_what_was_reckoned(self):
        rows = [(r.label, r.value) for r in breath_working(80.0).rows]
        self.assertEqual(
            rows,
            [
                ("carbon dioxide from breath, C", "1.36"),
                ("this water, alkalinity 80 mg/L", "6.4"),
                ("alkalinity 160 mg/L", "6.7"),
                ("no minerals", "4.6"),
            ],
        )
        self.assertEqual(len(breath_working(None).rows), 3)


if __name__ == "__main__":
    unittest.main()
