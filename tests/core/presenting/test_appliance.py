"""One appliance's card, worked by hand."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal

from tests.making import reading
from zesty_glass.core.assess import assess
from zesty_glass.core.demonstrating.kettle import scale_mg_l
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.appliance import (
    APPLIANCES,
    Told,
    appliance_card,
    dose_class,
    salt_least,
)
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.observations import PadMatch
from zesty_glass.core.words import about
from zesty_glass.demo.homes import demo_visits

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
HARD, *_ = demo_visits(AT)  # 325 mg/L as it comes, a softener in its lines


def card(kind, told=None, visit=HARD):
    return appliance_card(visit, assess(visit), kind, told or Told())


def open_ended(sample):
    """A glass whose strip ended above its last pad."""
    strip = Instrument(
        id="strip",
        name="Strip",
        kind=InstrumentKind.STRIP,
        analyte="hardness",
        unit="mg/L as CaCO3",
        steps=(0.0, 120.0, 425.0),
    )
    others = tuple(r for r in sample.readings if r.analyte != "hardness")
    return replace(sample, readings=(*others, reading("hardness", strip, PadMatch(pad=2))))


def lines(water):
    return dict((*water.sets, *water.worth))


class Figures(unittest.TestCase):
    def test_the_least_salt_is_two_moles_for_one_and_has_no_upper_end(self):
        # 280 × 11 L × 250 mg/L = 770 g of CaCO3; 116.886 / 100.0869 = 1.1678: 0.899 kg
        salt = salt_least(Range.of(200.0, 250.0, 300.0), 280, 11.0)
        self.assertAlmostEqual(salt.best, 0.899, 3)
        self.assertAlmostEqual(salt.low, 0.719, 3)
        self.assertIsNone(salt.high)

    def test_doses_by_the_package_s_classes(self):
        # 1.5 mmol/L = 150.1 mg/L, 2.5 mmol/L = 250.2 mg/L
        for low, high, said in (
            (100, 150, "soft"),
            (151, 250, "medium"),
            (251, 400, "hard"),
            (140, 260, "soft or hard"),
            (260, None, "hard"),
        ):
            self.assertEqual(dose_class(Range.of(low, low, high)), said)


class Cards(unittest.TestCase):
    def test_a_dishwasher_as_it_comes_and_behind_a_softener(self):
        c = card("dishwasher")
        raw, *behind = c.waters
        self.assertEqual(raw.name, "As it comes")
        top = assess(HARD).options[0].line.source.range("hardness").high
        self.assertIn(f"{top / 17.848:.0f} °dH", lines(raw)["Hardness step"])
        self.assertIn("at least", lines(raw)["Its own salt"])
        self.assertTrue(behind)
        soft = lines(behind[0])
        self.assertIn("little or none", soft["Its own salt"])
        self.assertIn("etches glass", soft["Detergent"])

    def test_what_the_household_says_is_money(self):
        told = Told(
            uses_year=200,
            dose_here=60,
            dose_soft=35,
            dose_price=Decimal("4"),
            salt_kg=6,
            salt_price=Decimal("1.50"),
        )
        said = lines(card("dishwasher", told).waters[0])
        # (60 - 35) mL × 200 = 5 L, at 4: 20; 6 kg at 1.50: 9
        self.assertEqual(said["Detergent beyond soft water"], "5 L or kg a year, $20.00")
        self.assertEqual(said["Salt as you told us"], "6 kg a year, $9.00")

    def test_a_heater_keeps_its_temperature(self):
        said = lines(card("water_heater").waters[0])
        self.assertEqual(said["Descale"], "yearly")
        self.assertIn("not turned down", said["Temperature"])

    def test_a_coffee_machine_s_scale_is_at_most_what_may_fall_out(self):
        water = assess(HARD).options[0].line.source
        most = scale_mg_l(water)[0].high
        for litres, uses in ((2.0, None), (5.0, 100.0)):
            told = Told(litres=litres, uses_year=uses)
            said = lines(card("coffee_machine", told).waters[0])["Scale, at most"]
            grams = most * litres * (uses or 365.25) / 1000
            self.assertTrue(said.startswith(f"{about(grams)} g a year"), said)

    def test_a_hardness_without_an_upper_end_sets_the_highest_step(self):
        at = replace(HARD, samples=tuple(open_ended(s) for s in HARD.samples))
        raw = card("dishwasher", visit=at).waters[0]
        self.assertIn("highest", lines(raw)["Hardness step"])
        self.assertEqual(lines(card("water_heater", visit=at).waters[0])["Descale"], "yearly")

    def test_every_appliance_has_a_card(self):
        for kind, appliance in APPLIANCES.items():
            c = card(kind)
            self.assertEqual(c.name, appliance.name)
            self.assertTrue(all(w.sets for w in c.waters))

    def test_what_cannot_be_is_refused(self):
        with self.assertRaises(RuleError) as e:
            Told(dose_here=30, dose_soft=31)
        self.assertEqual(e.exception.code, "appliance.dose")
        Told(dose_here=30, dose_soft=30)
        with self.assertRaises(RuleError) as e:
            card("dishwasher", visit=replace(HARD, samples=()))
        self.assertEqual(e.exception.code, "appliance.no_hardness")


if __name__ == "__main__":
    unittest.main()
