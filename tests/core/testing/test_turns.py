"""Where what is said of a reading turns: worked by hand."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from tests.core.testing.test_laboratory import DRAWN, bottle
from tests.making import from_lab, home, number_kit, reading, sample, water
from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.chlorine import combined
from zesty_glass.core.testing.finding import Weight
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.observations import OneDisplay
from zesty_glass.core.testing.procedures import PROCEDURES
from zesty_glass.core.testing.removal import Removal, removal_sentence
from zesty_glass.core.testing.tonight import OTHER, brings_water
from zesty_glass.core.testing.water import raw_sample, water_of


class Chlorine(unittest.TestCase):
    def test_free_over_total_is_an_error_and_as_much_is_none(self):
        self.assertTrue(combined(Range.of(1.1, 1.2, 1.3), Range.of(0.9, 1.0, 1.05)).error)
        self.assertFalse(combined(Range.of(1.0, 1.1, 1.2), Range.of(0.9, 1.0, 1.0)).error)

    def test_no_chloramine_is_shown_of_an_error_or_where_the_two_meet(self):
        self.assertFalse(combined(Range.of(1.1, 1.2, 1.3), Range.of(0.9, 1.0, 1.05)).shown)
        self.assertFalse(combined(Range.of(0.8, 0.9, 1.0), Range.of(0.9, 1.0, 1.1)).shown)
        self.assertTrue(combined(Range.of(0.1, 0.2, 0.3), Range.of(0.9, 1.0, 1.1)).shown)

    def test_from_a_fifth_of_a_milligram_on_it_is_noticed(self):
        def weight(best):
            found = meaning(water(chlorine_combined=best), home(), (), Rules()).findings
            return next(f.weight for f in found if f.analyte == "chlorine_combined")

        self.assertEqual((weight(0.19), weight(0.2)), (Weight.FINE, Weight.NOTICE))


class Bottles(unittest.TestCase):
    def test_one_time_without_its_offset_is_told(self):
        bare = (DRAWN + timedelta(hours=2)).replace(tzinfo=None)
        with self.assertRaises(RuleError) as e:
            bottle(handed_at=bare)
        self.assertEqual(e.exception.code, "lab.zone")
        bottle(handed_at=DRAWN + timedelta(hours=2))


class Removals(unittest.TestCase):
    def test_removal_sentence(self):
        whole = Removal(shown="removed", best=0.9, worst=0.85, most=0.95)
        self.assertEqual(removal_sentence(whole), "90 % less (85 to 95 %)")
        for end in ("worst", "most"):
            self.assertEqual(removal_sentence(replace(whole, **{end: None})), "90 % less")


class TonightsWater(unittest.TestCase):
    def test_one_sentence_that_brings_it_is_enough(self):
        self.assertTrue(brings_water((OTHER,)))
        self.assertTrue(brings_water(("Something else.", OTHER)))
        self.assertFalse(brings_water(("Something else.",)))
        self.assertFalse(brings_water(()))


class Waters(unittest.TestCase):
    def test_a_utility_s_report_gives_way_to_a_laboratory_even_an_older_one(self):
        old = replace(from_lab("ph", 7.0), made_at=datetime(2026, 1, 1, tzinfo=UTC))
        report = replace(
            from_lab("ph", 8.0, report="utility"), made_at=datetime(2026, 6, 1, tzinfo=UTC)
        )
        self.assertEqual(water_of(sample(old, report)).range("ph").best, 7.0)

    def test_chloramine_is_worked_out_of_both(self):
        kit = number_kit("chlorine_free"), number_kit("chlorine_total")
        both = sample(
            *(
                reading(k.analyte, k, OneDisplay(value=v))
                for k, v in zip(kit, (0.2, 1.6), strict=True)
            )
        )
        self.assertAlmostEqual(water_of(both).range("chlorine_combined").best, 1.4)

    def test_one_glass_is_raw(self):
        one, other = sample(id="a", raw=True), sample(id="b", raw=True)
        self.assertIs(raw_sample((one, sample(id="c", raw=False))), one)
        with self.assertRaises(RuleError) as e:
            raw_sample((one, other))
        self.assertEqual(e.exception.code, "samples.two_raw")


class Reagents(unittest.TestCase):
    def test_only_what_is_dipped_or_read_as_it_is_takes_none(self):
        # a probe, a thermometer, a gauge; all else can be blanked, timed or diluted
        without = {(p.kind.value, p.analyte) for p in PROCEDURES if not p.reagent}
        asked = ("ph", "temperature", "pressure_static", "pressure_running")
        self.assertEqual(without, {("meter", "tds"), *(("display", a) for a in asked)})


if __name__ == "__main__":
    unittest.main()
