"""Where one thing becomes another in a reading: the last value that is taken and the first that is
not, each worked by hand from the procedure.
"""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

from tests.making import (
    NOON,
    drop_kit,
    from_lab,
    hardness,
    number_kit,
    reading,
    shown,
    tds,
    tds_meter,
)
from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.by_meter import (
    meter_error,
    repeats_needed,
    spread_allowed,
    tenfold,
)
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind, fitness
from zesty_glass.core.testing.observations import (
    BucketRuns,
    DropCount,
    OneDisplay,
    PadMatch,
)
from zesty_glass.core.testing.reading import Reading, extends, work_out

BUCKET = Instrument(id="b", name="Bucket", kind=InstrumentKind.BUCKET, analyte="flow")


def flags(r: Reading) -> list[str]:
    return [f.id for f in work_out(r).flags]


def code_of(make) -> str:
    try:
        make()
    except RuleError as e:
        return e.code
    return ""


class Meter(unittest.TestCase):
    def test_its_error_of_the_reading_and_of_full_scale(self):
        # 2 % of 400 and half a unit more: 8.5; of 999: 20.48
        of_reading = tds_meter("reading", accuracy_plus=0.5)
        self.assertAlmostEqual(meter_error(of_reading, 400), 8.5)
        self.assertAlmostEqual(meter_error(replace(of_reading, accuracy_of=None), 400), 20.48)
        bare = replace(of_reading, accuracy_of="full_scale", full_scale=None)
        self.assertAlmostEqual(meter_error(bare, 400), 8.5)

    def test_repeats_may_differ_by_three_or_three_percent(self):
        self.assertEqual(spread_allowed((90.0, 100.0)), 3.0)
        self.assertEqual(spread_allowed((300.0, 300.0)), 9.0)
        self.assertEqual(repeats_needed((100, 103)), 2)
        self.assertEqual(repeats_needed((100, 104)), 3)
        self.assertEqual(repeats_needed((100,)), 2)

    def test_tenfold_is_eight_to_twelve_times(self):
        for pair, said in (
            ((10, 79), False),
            ((10, 80), True),
            ((10, 120), True),
            ((10, 121), False),
            ((0, 100), False),
            ((100,), False),
        ):
            self.assertIs(tenfold(pair), said, pair)

    def test_a_third_repeat_is_asked_and_then_the_spread(self):
        self.assertIn("meter.repeats", flags(tds(400)))
        self.assertIn("meter.repeats", flags(tds(400, 430)))
        self.assertNotIn("meter.repeats", flags(tds(400, 405)))
        self.assertIn("meter.spread", flags(tds(400, 430, 402)))
        self.assertNotIn("meter.spread", flags(tds(400, 430, 402, 403)))

    def test_zero_in_distilled_water_temperature_rinsing_and_rest(self):
        self.assertNotIn("meter.zero", flags(tds(400, 400, zero=3)))
        self.assertIn("meter.zero", flags(tds(400, 400, zero=3.1)))
        for celsius, said in ((4.9, True), (5.0, False), (40.0, False), (40.1, True)):
            found = "meter.temperature" in flags(tds(400, 400, temperature_c=celsius))
            self.assertIs(found, said, celsius)
        self.assertIn("meter.not_rinsed", flags(tds(400, 400, rinsed=False)))
        self.assertIn("meter.unsteady", flags(tds(400, 400, steady=False)))
        self.assertEqual(flags(tds(400, 401, 400)), [])

    def test_one_display_of_nothing_among_others(self):
        # median 0 of 0, 0, 5: best half the resolution, low 0, high 5 + 2 % + half a step
        r = work_out(tds(0, 0, 5)).range
        self.assertEqual((r.low, r.best), (0.0, 0.5))
        self.assertAlmostEqual(r.high, 5.6)


class Drops(unittest.TestCase):
    def test_five_hundred_are_the_most(self):
        self.assertEqual(code_of(lambda: work_out(hardness(500))), "")
        self.assertEqual(code_of(lambda: work_out(hardness(501))), "drops.many")
        half = reading("hardness", drop_kit(), DropCount(drops=2.5))
        self.assertEqual(code_of(lambda: work_out(half)), "drops.negative")

    def test_a_dilution_of_one_is_none(self):
        self.assertEqual(work_out(hardness(5, 1)).range, work_out(hardness(5)).range)
        self.assertEqual(code_of(lambda: work_out(hardness(5, 0.99))), "dilution.below_one")

    def test_what_is_no_amount_is_not_diluted(self):
        for name in ("ph", "temperature", "uvt"):
            seen = reading(name, number_kit(name), OneDisplay(value=7, dilution=2))
            self.assertEqual(code_of(lambda r=seen: work_out(r)), "dilution.no_amount", name)


class Pads(unittest.TestCase):
    strip = Instrument(
        id="s", name="S", kind=InstrumentKind.STRIP, analyte="iron", steps=(0.0, 0.3, 1.0, 3.0)
    )

    def of(self, pad: int, between: bool = False, dilution: float = 1):
        seen = PadMatch(pad=pad, between=between, dilution=dilution)
        return work_out(reading("iron", self.strip, seen))

    def test_halfway_to_its_neighbours(self):
        r = self.of(2).range  # 1.0 between 0.3 and 3.0
        self.assertEqual((r.low, r.best, r.high), (0.65, 1.0, 2.0))

    def test_the_first_is_under_half_of_the_second(self):
        v = self.of(0)
        self.assertEqual((v.range.low, v.range.best, v.range.high, v.below), (0, 0.075, 0.15, 0.15))

    def test_the_last_has_no_upper_end_and_asks_for_dilution(self):
        v = self.of(3)
        self.assertEqual((v.range.low, v.range.best, v.range.high), (2.0, 3.0, None))
        self.assertTrue(v.open_ended)
        self.assertEqual([f.id for f in v.flags], ["pad.last"])
        self.assertEqual(
            (self.of(3, dilution=4).range.low, self.of(2).open_ended), (8.0 * 0.98, False)
        )

    def test_between_the_last_and_nothing_is_refused(self):
        self.assertEqual(self.of(2, between=True).range.high, 3.0)
        self.assertEqual(code_of(lambda: self.of(3, between=True)), "pad.out_of_list")
        self.assertEqual(code_of(lambda: self.of(-1)), "pad.out_of_list")
        self.assertEqual(code_of(lambda: self.of(4)), "pad.out_of_list")


class Display(unittest.TestCase):
    def test_accuracy_and_half_a_step(self):
        # 1.00 ± (0.03 + 0.005), diluted 1 in 2: 1.93 to 2.07, and 2 % either way of the syringe
        kit = number_kit("iron", 0.03, 0.01)
        r = work_out(reading("iron", kit, OneDisplay(value=1.0, dilution=2))).range
        self.assertEqual([round(x, 3) for x in (r.low, r.best, r.high)], [1.891, 2.0, 2.111])

    def test_a_ph_has_its_accuracy_alone(self):
        r = work_out(shown("ph", 7.0, 0.1)).range
        self.assertEqual([round(x, 3) for x in (r.low, r.best, r.high)], [6.9, 7.0, 7.1])

    def test_at_the_detection_limit_it_is_read_and_under_it_not(self):
        kit = number_kit("iron", 0.02, 0.01, 0.05)
        at = work_out(reading("iron", kit, OneDisplay(value=0.05)))
        under = work_out(reading("iron", kit, OneDisplay(value=0.04)))
        self.assertIsNone(at.below)
        self.assertEqual((under.below, under.range.high), (0.05, 0.05))

    def test_zero_is_under_a_step_but_for_ph_and_temperature(self):
        self.assertEqual(work_out(shown("iron", 0.0)).below, 0.1)
        self.assertIsNone(work_out(shown("ph", 0.0)).below)
        self.assertIsNone(work_out(shown("temperature", 0.0)).below)

    def test_frost_is_a_temperature_and_less_than_nothing_is_no_iron(self):
        self.assertLess(work_out(shown("temperature", -2.0)).range.low, -2.0)
        self.assertEqual(code_of(lambda: work_out(shown("iron", -0.1))), "display.negative")

    def test_without_a_blank(self):
        seen = OneDisplay(value=1.0, blanked=False)
        self.assertEqual(flags(reading("iron", number_kit("iron"), seen)), ["display.blank"])

    def test_what_cannot_be_in_water(self):
        self.assertEqual(
            code_of(lambda: work_out(shown("temperature", 111.0))), "reading.impossible"
        )
        self.assertEqual(code_of(lambda: work_out(shown("temperature", 110.0))), "")
        self.assertEqual(code_of(lambda: work_out(shown("ph", 14.0))), "")
        self.assertEqual(code_of(lambda: work_out(shown("ph", 14.1))), "display.ph")

    def test_no_transmittance_over_a_hundred_and_no_ph_over_fourteen(self):
        self.assertEqual(work_out(shown("uvt", 99.5, 2.0)).range.high, 100.0)
        self.assertEqual(work_out(shown("ph", 13.95, 0.2)).range.high, 14.0)
        self.assertAlmostEqual(work_out(shown("uvt", 90.0, 2.0)).range.high, 92.05)


class Bucket(unittest.TestCase):
    def of(self, *seconds: float, **more):
        return work_out(reading("flow", BUCKET, BucketRuns(volume_gal=5, seconds=seconds, **more)))

    def test_slowest_and_fastest_with_what_thumb_and_mark_err_by(self):
        # 5 gal in 30 s: 10 gpm; 0.97 x 300 / 30.3 = 9.604; 1.03 x 300 / 29.7 = 10.404
        r = self.of(30, 30, 30).range
        self.assertEqual([round(x, 3) for x in (r.low, r.best, r.high)], [9.604, 10.0, 10.404])

    def test_three_runs_are_asked(self):
        self.assertEqual([f.id for f in self.of(30, 30).flags], ["bucket.runs"])
        self.assertEqual(self.of(30, 30, 30).flags, ())

    def test_nothing_and_no_time_are_refused(self):
        self.assertEqual(code_of(lambda: self.of()), "bucket.zero")
        self.assertEqual(code_of(lambda: self.of(30, -1)), "bucket.zero")

    def test_full_bore_only_where_it_was(self):
        self.assertEqual(self.of(30, 30, 30).words, "")
        self.assertEqual(self.of(30, 30, 30, full_bore=True).words, "full bore")


class Clock(unittest.TestCase):
    def kept(self, days: float) -> list[str]:
        late = replace(hardness(5), kept_at=NOON + timedelta(days=days))
        return [f for f in flags(late) if f == "reading.clock"]

    def test_two_days_apart_either_way_are_asked_about(self):
        self.assertEqual(self.kept(2), [])
        self.assertEqual(self.kept(2.01), ["reading.clock"])
        self.assertEqual(self.kept(-2.01), ["reading.clock"])
        self.assertEqual(flags(hardness(5)), [])


class Growing(unittest.TestCase):
    """A meter reading grows by repeats, and by nothing else."""

    a = tds(400, 402)

    def test_with_a_repeat_more(self):
        self.assertTrue(extends(self.a, tds(400, 402, 401)))

    def test_not_the_same_again_nor_less_nor_changed(self):
        for other in (tds(400, 402), tds(400), tds(402, 400, 401), tds(400, 403, 401)):
            self.assertFalse(extends(self.a, other))

    def test_not_with_another_mark_or_meter_nor_once_struck(self):
        self.assertFalse(extends(self.a, tds(400, 402, 401, multiplier=10)))
        other = replace(tds(400, 402, 401), instrument=tds_meter(factor=0.7))
        self.assertFalse(extends(self.a, other))
        struck = replace(self.a, struck_at=datetime(2026, 11, 20, tzinfo=UTC))
        self.assertFalse(extends(struck, tds(400, 402, 401)))

    def test_drops_do_not_grow(self):
        self.assertFalse(extends(hardness(3), hardness(4)))
        self.assertFalse(extends(self.a, hardness(4)))


class Kits(unittest.TestCase):
    day = date(2026, 11, 20)

    def ids(self, **more) -> list[str]:
        return [f.id for f in fitness(replace(drop_kit(), **more), self.day)]

    def test_a_reagent_on_its_last_day_and_after_it(self):
        self.assertEqual(self.ids(reagent_expiry=self.day), [])
        self.assertEqual(
            self.ids(reagent_expiry=self.day - timedelta(days=1)), ["instrument.expired"]
        )

    def test_a_check_that_is_due_today_and_one_that_was(self):
        checked = self.day - timedelta(days=30)
        self.assertEqual(self.ids(last_check=checked, check_every_days=30), [])
        self.assertEqual(
            self.ids(last_check=checked, check_every_days=29), ["instrument.unchecked"]
        )
        self.assertEqual(self.ids(check_every_days=30), ["instrument.unchecked"])
        self.assertEqual(self.ids(last_check=checked), [])

    def test_what_no_kit_can_be(self):
        for more, code in (
            ({"resolution": 0}, "instrument.resolution"),
            ({"accuracy_of": "guess"}, "instrument.accuracy_of"),
            ({"accuracy_share": 1.0}, "instrument.accuracy_share"),
            ({"accuracy_share": -0.1}, "instrument.accuracy_share"),
            ({"drop_value": 0}, "instrument.drop_value"),
            ({"drop_value": None}, "instrument.drop_value"),
        ):
            self.assertEqual(code_of(lambda m=more: replace(drop_kit(), **m)), code, more)

    def test_steps_rise_from_nothing_up_and_are_two_at_least(self):
        for steps in ((), (1.0,), (1.0, 1.0), (2.0, 1.0), (-1.0, 2.0), (1.0, 3.0, 2.0)):
            made = code_of(lambda s=steps: replace(Pads.strip, steps=s))
            self.assertEqual(made, "instrument.steps", steps)
        self.assertEqual(code_of(lambda: replace(Pads.strip, steps=(0.0, 1.0))), "")


class WhatCannotBe(unittest.TestCase):
    def test_it_is_refused_with_its_unit_where_it_has_one(self):
        for analyte, unit, value, said in (
            ("ph", "pH", 15.0, "pH of 15 is not possible. Type what is shown: 0 to 14."),
            (
                "uvt",
                "%",
                120.0,
                "UV transmittance of 120 % is not possible. Type what is shown: 0 to 100.",
            ),
        ):
            with self.assertRaises(RuleError) as e:
                work_out(from_lab(analyte, value, unit=unit))
            self.assertEqual((e.exception.code, str(e.exception)), ("reading.impossible", said))

    def test_an_upper_end_past_what_can_be_is_brought_down_to_it(self):
        for value, plus, high in ((97.0, 5.0, 100.0), (95.0, 5.0, 100.0), (94.0, 5.0, 99.05)):
            r = work_out(shown("uvt", value, plus)).range
            self.assertAlmostEqual((r.best, r.high), (value, high), 1)


if __name__ == "__main__":
    unittest.main()
