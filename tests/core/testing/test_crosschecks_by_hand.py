"""Readings held against each other: each check at the last value that passes and the first that
does not.
"""

import unittest
from dataclasses import replace

from tests.making import (
    hardness,
    home,
    number_kit,
    reading,
    sample,
    shown,
    tds,
    tds_meter,
    water,
)
from zesty_glass.core.home import Source
from zesty_glass.core.testing.crosschecks import CHECKS, crosschecks
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.observations import (
    BucketRuns,
    CupsSeen,
    MeterDisplays,
    OneDisplay,
)
from zesty_glass.core.testing.pairs import pairs
from zesty_glass.core.testing.reading import Reading
from zesty_glass.core.testing.water import Sample, water_of

WELL, TOWN = home(), home(source=Source.CITY, pump_gpm=None)
EXACT = tds_meter("reading", accuracy_share=0.0, resolution=1e-6)
CUPS = Instrument(id="c", name="Cups", kind=InstrumentKind.SENSES, analyte="colour")
BUCKET = Instrument(id="b", name="Bucket", kind=InstrumentKind.BUCKET, analyte="flow")


def exact(name: str, value: float) -> Reading:
    return reading(name, number_kit(name, 0.0, 1e-6), OneDisplay(value=value))


def meter(value: float, factor: float | None = 0.5) -> Reading:
    kit = replace(EXACT, factor=factor)
    return reading("tds", kit, MeterDisplays(displays=(value, value)))


def ids(*samples: Sample, place=WELL, earlier=None) -> list[str]:
    return [c.id for c in crosschecks(samples, place, earlier)]


def of(*readings: Reading, place=WELL, **about) -> list[str]:
    return ids(sample(*readings, **about), place=place)


class HardnessAndConductivity(unittest.TestCase):
    def test_hardness_is_at_most_065_of_the_conductivity(self):
        # TDS 200 at a factor of 0.5: 400 µS/cm, of which 0.65 is 260 mg/L
        self.assertNotIn("hardness_above_conductivity", of(meter(200), exact("hardness", 259)))
        self.assertIn("hardness_above_conductivity", of(meter(200), exact("hardness", 261)))

    def test_a_meter_without_a_known_factor_says_nothing(self):
        self.assertEqual(of(meter(200, None), exact("hardness", 900)), [])

    def test_soft_with_much_dissolved_was_perhaps_drawn_behind_a_softener(self):
        one_drop = hardness(1)
        self.assertIn("soft_with_tds", of(one_drop, meter(151)))
        self.assertNotIn("soft_with_tds", of(one_drop, meter(150)))
        self.assertNotIn("soft_with_tds", of(hardness(2), meter(400)))
        behind = {"treated": True, "raw": False, "id": "b"}
        self.assertNotIn("soft_with_tds", of(one_drop, meter(400), **behind))
        self.assertNotIn("soft_with_tds", of(one_drop, meter(400), kind="bottled"))


class Chlorine(unittest.TestCase):
    def test_a_town_main_without_any(self):
        self.assertIn("city_no_chlorine", of(exact("chlorine_total", 0.09), place=TOWN))
        self.assertNotIn("city_no_chlorine", of(exact("chlorine_total", 0.1), place=TOWN))
        self.assertEqual(of(exact("chlorine_free", 0.05), place=TOWN), ["city_no_chlorine"])

    def test_a_well_with_some(self):
        self.assertIn("well_chlorine", of(exact("chlorine_total", 0.2)))
        self.assertNotIn("well_chlorine", of(shown("chlorine_total", 0.0)))
        self.assertNotIn("well_chlorine", of(shown("chlorine_total", 0.1, 0.1)))

    def test_behind_treatment_hot_or_from_a_bottle_it_says_nothing(self):
        seen = exact("chlorine_total", 0.0001)
        for about in ({"treated": True}, {"draw": "hot"}, {"kind": "bottled"}):
            self.assertNotIn("city_no_chlorine", of(seen, place=TOWN, **about), about)

    def test_free_above_total(self):
        free, total = exact("chlorine_free", 1.0), exact("chlorine_total", 0.8)
        self.assertIn("free_above_total", of(free, total, place=TOWN))
        near = exact("chlorine_total", 1.0)
        self.assertNotIn("free_above_total", of(free, near, place=TOWN))


class Iron(unittest.TestCase):
    def test_a_cup_that_stays_clear_with_iron_in_it(self):
        clear = reading("colour", CUPS, CupsSeen(drawn="clear", stood="clear", stood_minutes=30))
        self.assertIn("iron_no_colour", of(exact("iron", 0.31), clear))
        self.assertNotIn("iron_no_colour", of(exact("iron", 0.29), clear))
        rusty = reading("colour", CUPS, CupsSeen(drawn="clear", stood="coloured", stood_minutes=30))
        self.assertNotIn("iron_no_colour", of(exact("iron", 3.0), rusty))
        self.assertNotIn("iron_no_colour", of(exact("iron", 3.0)))

    def test_iron_disturbs_the_tannin_kit(self):
        self.assertIn("tannin_iron", of(exact("iron", 0.31), exact("tannin", 1.0)))
        self.assertNotIn("tannin_iron", of(exact("iron", 0.3), exact("tannin", 1.0)))
        self.assertNotIn("tannin_iron", of(exact("iron", 2.0), shown("tannin", 0.0)))
        self.assertNotIn("tannin_iron", of(exact("tannin", 1.0)))


class Flow(unittest.TestCase):
    def runs(self, seconds: float) -> Reading:
        return reading("flow", BUCKET, BucketRuns(volume_gal=5, seconds=(seconds,) * 3))

    def test_more_than_the_pump_gives(self):
        # low end of 5 gal in s: 291 / (s + 0.3); above 10 gpm up to 28.8 s
        self.assertIn("flow_above_pump", of(self.runs(28.7)))
        self.assertNotIn("flow_above_pump", of(self.runs(28.9)))
        self.assertNotIn("flow_above_pump", of(self.runs(28.7), place=home(pump_gpm=None)))
        self.assertNotIn("flow_above_pump", of(self.runs(28.7), place=TOWN))

    def test_more_than_a_pipe_gives(self):
        # above 60 gpm up to 4.55 s
        self.assertEqual(of(self.runs(4.5), place=TOWN), ["flow_too_high"])
        self.assertEqual(of(self.runs(4.6), place=TOWN), [])


class Glasses(unittest.TestCase):
    def pair(self, before: Reading, after: Reading, **about) -> list[str]:
        more = {"id": "b", "raw": False, "treated": True, **about}
        return ids(sample(before), sample(replace(after, id="after"), **more))

    def test_higher_lower_and_the_same_behind_a_device(self):
        self.assertEqual(self.pair(meter(400), meter(480)), ["labels_swapped"])
        # sodium for calcium raises a meter a little: softened water is no swap
        self.assertEqual(self.pair(meter(400), meter(425)), [])
        self.assertEqual(self.pair(meter(400), meter(40)), [])
        self.assertEqual(self.pair(tds(400, 402), tds(399, 401)), ["no_difference"])

    def test_two_factors_are_not_compared(self):
        self.assertEqual(self.pair(meter(400), meter(40, 0.7)), ["factor_mismatch"])
        self.assertEqual(self.pair(meter(400), meter(40, None)), [])

    def test_another_glass_of_the_same_water_is_no_pair(self):
        self.assertEqual(self.pair(meter(400), meter(410), treated=False), [])

    def test_not_flushed_and_past_its_life(self):
        self.assertEqual(self.pair(meter(400), meter(40), just_changed=True), ["not_flushed"])
        self.assertEqual(self.pair(meter(400), meter(40), past_life=True), ["past_life"])

    def test_a_tenfold_slip_in_each_reading_but_a_struck_one(self):
        slipped = tds(1120, 112)
        self.assertEqual(of(slipped).count("tenfold"), 1)
        struck = replace(slipped, struck_at=slipped.made_at, struck_because="a slip")
        self.assertEqual(of(struck).count("tenfold"), 0)


class Before(unittest.TestCase):
    def far(self, name: str, now: float, then: float) -> bool:
        earlier = {name: water(**{name: then}).values[name]}
        return "far_from_before" in ids(sample(exact(name, now)), earlier=earlier)

    def test_half_as_much_again_either_way(self):
        self.assertFalse(self.far("hardness", 149, 100))
        self.assertTrue(self.far("hardness", 151, 100))
        self.assertTrue(self.far("hardness", 100, 151))

    def test_a_ph_by_one_and_what_changes_daily_never(self):
        self.assertFalse(self.far("ph", 7.9, 7.0))
        self.assertTrue(self.far("ph", 8.1, 7.0))
        self.assertFalse(self.far("temperature", 24.0, 8.0))

    def test_what_was_not_read_again_is_not_far(self):
        earlier = {"iron": water(iron=3.0).values["iron"]}
        self.assertEqual(ids(sample(exact("ph", 7.0)), earlier=earlier), [])

    def test_it_names_what_is_far(self):
        earlier = dict(water(hardness=400.0, ph=7.0, iron=0.1).values)
        raw = sample(exact("hardness", 100.0), exact("ph", 7.1), exact("iron", 3.0))
        (found,) = crosschecks((raw,), WELL, earlier)
        self.assertTrue(found.sentence.endswith("(Hardness, Iron, total)"), found.sentence)


class Table(unittest.TestCase):
    def test_each_says_what_to_do(self):
        for id, (sentence, remedy) in CHECKS.items():
            self.assertTrue(sentence.endswith((".", "?")) and remedy.endswith((".", ")")), id)

    def test_samples_that_fit_say_nothing(self):
        fits = (meter(260), exact("hardness", 240.0), exact("ph", 7.4), exact("iron", 0.1))
        self.assertEqual(of(*fits), [])


class NotComparedYet(unittest.TestCase):
    def said(self, first: Sample, second: Sample) -> dict[str, str]:
        found = pairs(first, water_of(first), second, water_of(second))
        return {p.analyte: p.sentence for p in found}

    raw = sample(meter(400), exact("ph", 7.0))

    def behind(self, *readings: Reading, **about) -> Sample:
        own = [replace(r, id=f"b-{r.id}") for r in readings]
        base = {"id": "b", "name": "Pitcher", "raw": False, "treated": True}
        return sample(*own, **{**base, **about})

    def test_a_filter_that_was_not_flushed(self):
        said = self.said(self.raw, self.behind(meter(40), exact("ph", 7.6), just_changed=True))
        self.assertIn("“Pitcher” was just changed and not flushed", said["tds"])
        self.assertEqual(said["ph"], "higher in the second")

    def test_a_glass_that_was_too_warm(self):
        warm = reading("tds", EXACT, MeterDisplays(displays=(40, 40), temperature_c=45))
        self.assertIn("too warm or too cold", self.said(self.raw, self.behind(warm))["tds"])

    def test_the_raw_one_stands_first_whichever_was_picked(self):
        behind = self.behind(meter(40))
        one, other = self.said(self.raw, behind), self.said(behind, self.raw)
        self.assertEqual(one["tds"], other["tds"])
        self.assertIn("90 % less", one["tds"])

    def test_lower_higher_and_the_same(self):
        self.assertEqual(
            self.said(self.raw, self.behind(exact("ph", 6.4)))["ph"], "lower in the second"
        )
        self.assertEqual(
            self.said(self.raw, self.behind(exact("ph", 7.0)))["ph"], "no difference shown"
        )

    def test_words_are_the_same_or_not(self):
        seen = CupsSeen(drawn="clear", stood="clear", stood_minutes=30)
        a = sample(reading("colour", CUPS, seen))
        b = self.behind(reading("colour", CUPS, replace(seen, drawn="coloured")))
        found = self.said(a, b)
        self.assertEqual(found.get("colour", "not the same"), "not the same")


if __name__ == "__main__":
    unittest.main()
