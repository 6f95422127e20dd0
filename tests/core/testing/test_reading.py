"""Readings: worked figures, edges, and properties of every instrument."""

import unittest
from dataclasses import replace
from datetime import date

from hypothesis import given
from hypothesis import strategies as st

from tests.making import (
    drop_kit,
    from_lab,
    hardness,
    lab,
    number_kit,
    reading,
    shown,
    tds,
    tds_meter,
)
from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.by_laboratory import radon_at_drawing
from zesty_glass.core.testing.by_meter import repeats_needed
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.observations import (
    BucketRuns,
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    OneDisplay,
    PadMatch,
)
from zesty_glass.core.testing.reading import work_out

STRIP = Instrument(
    id="s",
    name="Strip",
    kind=InstrumentKind.STRIP,
    analyte="hardness",
    unit="mg/L as CaCO3",
    steps=(0, 25, 50, 120, 180, 250, 425),
)


def ends(value):
    return (
        round(value.range.best, 1),
        round(value.range.low, 1),
        None if value.range.high is None else round(value.range.high, 1),
    )


class WorkedFigures(unittest.TestCase):
    def test_meter_of_reading(self):
        self.assertEqual(ends(work_out(tds(412, 415, 409))), (412, 400.3, 423.8))

    def test_meter_of_full_scale(self):
        self.assertEqual(ends(work_out(tds(412, 415, 409, of="full_scale"))), (412, 388.5, 435.5))

    def test_accuracy_unknown_means_full_scale(self):
        self.assertEqual(
            work_out(tds(412, 415, 409, of=None)).range,
            work_out(tds(412, 415, 409, of="full_scale")).range,
        )

    def test_fourteen_drops(self):
        self.assertEqual(ends(work_out(hardness(14))), (239.7, 222.5, 239.7))

    def test_strip_between(self):
        self.assertEqual(
            ends(work_out(reading("hardness", STRIP, PadMatch(pad=3, between=True)))),
            (150, 120, 180),
        )

    def test_strip_at(self):
        self.assertEqual(
            ends(work_out(reading("hardness", STRIP, PadMatch(pad=3)))), (120, 85, 150)
        )

    def test_radon(self):
        self.assertEqual(round(radon_at_drawing(2150, 62)), 3434)
        self.assertEqual(round(radon_at_drawing(2150, 62) * 0.037), 127)
        r = from_lab("radon", 2150, basis="counting", unit="pCi/L", hours_to_count=62)
        self.assertEqual(round(work_out(r).range.best), 3434)

    def test_radon_as_of_collection_is_not_corrected(self):
        self.assertEqual(
            work_out(from_lab("radon", 2150, basis="collection", unit="pCi/L")).range.best, 2150
        )


class Edges(unittest.TestCase):
    def test_display_zero_is_under_the_resolution(self):
        v = work_out(tds(0, 0))
        self.assertEqual((v.below, v.range.low, v.range.best, v.range.high), (1, 0, 0.5, 1))

    def test_even_number_of_repeats(self):
        self.assertEqual(work_out(tds(100, 104)).range.best, 102)

    def test_no_drops_and_one_drop(self):
        none, one = work_out(hardness(0)), work_out(hardness(1))
        self.assertAlmostEqual(none.below, 17.1181, 4)
        self.assertAlmostEqual(none.range.best, 17.1181 / 2, 4)
        self.assertEqual((one.range.low, round(one.range.best, 4)), (0, 17.1181))

    def test_first_pad_starts_at_zero_and_last_has_no_end(self):
        first, last = (
            work_out(reading("hardness", STRIP, PadMatch(pad=0))),
            work_out(reading("hardness", STRIP, PadMatch(pad=6))),
        )
        self.assertEqual((first.range.low, first.range.high), (0, 12.5))
        self.assertIsNone(last.range.high)
        self.assertTrue(last.open_ended)

    def test_first_pad_of_ph_reaches_half_a_step_below(self):
        strip = replace(STRIP, analyte="ph", unit="pH", steps=(6.0, 6.5, 7.0))
        self.assertEqual(work_out(reading("ph", strip, PadMatch(pad=0))).range.low, 5.75)

    def test_range_mark_multiplies_displays_and_resolution(self):
        v = work_out(tds(112, 113, multiplier=10))
        self.assertEqual(v.range.best, 1125)
        self.assertAlmostEqual(v.range.low, 1120 - (22.4 + 5))

    def test_tenfold_repeats_are_questioned(self):
        self.assertIn("meter.tenfold", [f.id for f in work_out(tds(1120, 112, 1121)).flags])

    def test_third_repeat_when_two_disagree(self):
        self.assertEqual(repeats_needed((400, 405)), 2)
        self.assertEqual(repeats_needed((400, 420)), 3)
        self.assertEqual(repeats_needed((50, 54)), 3)

    def test_under_detection(self):
        v = work_out(reading("iron", number_kit("iron", 0.02, 0.01, 0.05), OneDisplay(value=0.02)))
        self.assertEqual((v.below, v.range.best), (0.05, 0.025))

    def test_bucket(self):
        kit = Instrument(id="b", name="Bucket", kind=InstrumentKind.BUCKET, analyte="flow")
        v = work_out(reading("flow", kit, BucketRuns(volume_gal=5, seconds=(27.0, 28.0, 27.3))))
        self.assertAlmostEqual(v.range.best, 300 / 27.3)

    def test_what_the_pressure_tank_gives_sizes_nothing(self):
        kit = Instrument(id="b", name="Bucket", kind=InstrumentKind.BUCKET, analyte="flow")
        for running, words, flagged in ((True, "full bore", False), (False, "", True)):
            seen = BucketRuns(
                volume_gal=5, seconds=(20, 20, 20), full_bore=True, pump_running=running
            )
            v = work_out(reading("flow", kit, seen))
            self.assertEqual(v.words, words)
            self.assertEqual("bucket.tank" in {f.id for f in v.flags}, flagged)

    def test_nitrate_as_no3_becomes_as_n(self):
        self.assertAlmostEqual(
            work_out(from_lab("nitrate_n", 44.27, basis="NO3")).range.best, 10.0, 2
        )

    def test_expired_reagent_stays_with_the_reading(self):
        kit = replace(drop_kit(), reagent_expiry=date(2026, 1, 1))
        self.assertIn(
            "instrument.expired",
            [f.id for f in work_out(reading("hardness", kit, DropCount(drops=3))).flags],
        )


class Refused(unittest.TestCase):
    def refuse(self, code, make):
        with self.assertRaises(RuleError) as e:
            make()
        self.assertEqual(e.exception.code, code)
        self.assertTrue(e.exception.what and e.exception.remedy)

    def test_bad_input(self):
        cases = {
            "drops.negative": lambda: work_out(hardness(-1)),
            "drops.many": lambda: work_out(hardness(9000)),
            "dilution.below_one": lambda: work_out(hardness(3, dilution=0)),
            "pad.out_of_list": lambda: work_out(reading("hardness", STRIP, PadMatch(pad=9))),
            "meter.empty": lambda: work_out(tds()),
            "meter.negative": lambda: work_out(tds(-3, 2)),
            "meter.multiplier": lambda: work_out(tds(3, 2, multiplier=7)),
            "display.ph": lambda: work_out(shown("ph", 15)),
            "display.negative": lambda: work_out(shown("iron", -1)),
            "bucket.zero": lambda: work_out(
                reading(
                    "flow",
                    Instrument(id="b", name="B", kind=InstrumentKind.BUCKET, analyte="flow"),
                    BucketRuns(volume_gal=5, seconds=(0.0,)),
                )
            ),
            "laboratory.basis": lambda: work_out(from_lab("nitrate_n", 3)),
            "laboratory.radon_basis": lambda: work_out(from_lab("radon", 3)),
            "laboratory.radon_hours": lambda: work_out(from_lab("radon", 3, basis="counting")),
            "laboratory.words": lambda: work_out(from_lab("lead", qualifier="absent")),
            "laboratory.value": lambda: work_out(from_lab("lead")),
            "unit.unknown": lambda: work_out(from_lab("lead", 3, unit="gpg")),
            "reading.method": lambda: work_out(
                reading("hardness", drop_kit(), OneDisplay(value=3))
            ),
            "reading.instrument": lambda: work_out(reading("iron", drop_kit(), DropCount(drops=3))),
        }
        for code, make in cases.items():
            with self.subTest(code):
                self.refuse(code, make)


class Properties(unittest.TestCase):
    @given(
        st.lists(st.integers(0, 1999), min_size=1, max_size=5),
        st.sampled_from(["reading", "full_scale", None]),
    )
    def test_meter_range_holds_every_display(self, displays, of):
        r = work_out(tds(*displays, of=of)).range
        self.assertTrue(r.low <= r.best <= r.high)
        self.assertTrue(all(r.low <= d <= r.high for d in displays))

    @given(
        st.lists(st.integers(1, 999), min_size=2, max_size=4),
        st.floats(0.005, 0.05),
        st.sampled_from([1, 5, 10]),
    )
    def test_a_finer_meter_never_widens(self, displays, share, res):
        coarse = work_out(
            reading(
                "tds",
                tds_meter("reading", accuracy_share=share, resolution=res),
                MeterDisplays(displays=tuple(displays)),
            )
        ).range
        fine = work_out(
            reading(
                "tds",
                tds_meter("reading", accuracy_share=share / 2, resolution=res / 2),
                MeterDisplays(displays=tuple(displays)),
            )
        ).range
        self.assertTrue(fine.low >= coarse.low and fine.high <= coarse.high)

    @given(st.integers(0, 200), st.floats(0.1, 5))
    def test_a_finer_drop_never_widens(self, n, v):
        coarse = work_out(reading("hardness", drop_kit(value=v), DropCount(drops=n))).range
        fine = work_out(reading("hardness", drop_kit(value=v / 2), DropCount(drops=2 * n))).range
        self.assertLessEqual(fine.high - fine.low, coarse.high - coarse.low + 1e-9)

    @given(st.integers(0, 100), st.floats(1, 50))
    def test_dilution_scales_drops(self, n, d):
        plain, diluted = work_out(hardness(n)).range, work_out(hardness(n, dilution=d)).range
        self.assertAlmostEqual(diluted.best, plain.best * d, 6)
        # what a syringe errs by: 2 % either way, of what was diluted at all
        off = 1.0 if d == 1 else 1.02
        self.assertAlmostEqual(diluted.high, plain.high * d * off, 6)

    @given(st.integers(0, 5), st.booleans(), st.floats(1, 20))
    def test_pad_range_holds_best_and_dilution_scales(self, pad, between, d):
        a = work_out(reading("hardness", STRIP, PadMatch(pad=pad, between=between))).range
        b = work_out(
            reading("hardness", STRIP, PadMatch(pad=pad, between=between, dilution=d))
        ).range
        self.assertTrue(a.low <= a.best <= a.high)
        self.assertAlmostEqual(b.best, a.best * d, 6)

    @given(st.floats(0, 14), st.floats(0, 0.5))
    def test_display_range_holds_best(self, value, plus):
        r = work_out(reading("ph", number_kit("ph", plus), OneDisplay(value=value))).range
        self.assertTrue(r.low <= r.best <= r.high)

    @given(st.floats(0.001, 1e5), st.floats(0, 300))
    def test_radon_only_grows_back(self, measured, hours):
        self.assertGreaterEqual(radon_at_drawing(measured, hours), measured)

    @given(st.floats(1e-6, 1e4), st.sampled_from(["µg/L", "mg/L", "ppb"]))
    def test_laboratory_units_agree(self, value, unit):
        r = work_out(reading("lead", lab("lead"), LaboratoryResult(value=value, unit=unit)))
        self.assertAlmostEqual(r.range.high, value * (1.0 if unit == "mg/L" else 1e-3), 9)
