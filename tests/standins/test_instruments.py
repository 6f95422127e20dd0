"""The simulated devices: repeatable, honest noise, and files that the real readers take."""

import itertools
import unittest
from datetime import UTC, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from zesty_glass.core.analytes import ANALYTES
from zesty_glass.documents import lab_csv
from zesty_glass.standins.instruments import (
    SETTLES_AFTER,
    SimulatedColorimeter,
    SimulatedLaboratory,
    SimulatedMeter,
)
from zesty_glass.standins.mail import Message, SimulatedMail
from zesty_glass.standins.tap import PLAIN, Tap


class TheTap(unittest.TestCase):
    @given(st.text(max_size=12))
    def test_the_same_seed_is_the_same_water(self, seed):
        self.assertEqual(Tap(seed).truth, Tap(seed).truth)

    def test_the_truth_lies_within_two_percent_of_what_is_known(self):
        truth = Tap("a", {"iron": 3.0}).truth
        self.assertTrue(2.94 <= truth["iron"] <= 3.06)
        self.assertEqual(truth["coliform"], 0.0)


class TheMeter(unittest.TestCase):
    def test_it_drifts_in_and_settles(self):
        looks = list(itertools.islice(SimulatedMeter(Tap("a", {"tds": 400.0}), "s").looks(), 20))
        self.assertLess(looks[0].display, looks[-1].display)
        self.assertEqual([x.steady for x in looks].index(True), SETTLES_AFTER - 1)
        self.assertLess(max(x.display for x in looks[10:]) - min(x.display for x in looks[10:]), 12)

    @given(st.integers(0, 200))
    @settings(max_examples=20)
    def test_a_dropped_stream_goes_on_where_it_was(self, after):
        meter = SimulatedMeter(Tap("a"), "s")
        self.assertEqual(next(meter.looks(after)), meter.look(after + 1))

    def test_above_999_it_shows_its_range_mark(self):
        look = SimulatedMeter(Tap("a", {"tds": 4200.0}), "s").look(30)
        self.assertEqual(look.multiplier, 10)
        self.assertAlmostEqual(look.display * look.multiplier, 4200, delta=150)

    def test_it_says_what_it_is(self):
        for device in (
            SimulatedMeter(Tap("a"), "s"),
            SimulatedColorimeter(Tap("a"), "s"),
            SimulatedLaboratory(Tap("a")),
            SimulatedMail(),
        ):
            self.assertTrue(device.simulated)


class TheColorimeter(unittest.TestCase):
    @given(st.floats(0, 5), st.text(max_size=6))
    def test_never_below_zero_and_near_the_truth(self, iron, seed):
        tap = Tap("a", {"iron": iron})
        shown = SimulatedColorimeter(tap, seed).read("iron")
        self.assertGreaterEqual(shown, 0)
        self.assertLess(
            abs(shown - tap.truth["iron"]), 6 * (0.03 * tap.truth["iron"] + 0.01) + 0.01
        )

    def test_what_it_does_not_know_reads_about_nothing(self):
        self.assertLess(SimulatedColorimeter(Tap("a"), "s").read("uranium"), 0.1)


class TheLaboratory(unittest.TestCase):
    def test_its_report_is_taken_by_the_reader_row_by_row(self):
        asked = ("lead", "nitrate_n", "coliform", "e_coli", "radon", "hardness", "uvt", "arsenic")
        preview = lab_csv.read(SimulatedLaboratory(Tap("a")).report(asked))
        self.assertEqual([r.error for r in preview.rows], [""] * len(asked))
        self.assertEqual([r.analyte for r in preview.rows], list(asked))

    def test_every_analyte_it_may_be_asked_for(self):
        known = [a for a in PLAIN if a in ANALYTES]
        for r in lab_csv.read(SimulatedLaboratory(Tap("b")).report(tuple(known))).rows:
            self.assertEqual(r.error, "", r)

    def test_under_its_limit_it_says_not_detected(self):
        report = SimulatedLaboratory(Tap("a", {"lead": 0.0002})).report(("lead",)).decode()
        self.assertIn("lead,ND", report)

    def test_a_report_takes_its_time(self):
        at = datetime(2026, 11, 20, 9, tzinfo=UTC)
        self.assertGreater(SimulatedLaboratory.ready_at(at) - at, timedelta(0))


class TheMail(unittest.TestCase):
    def test_it_keeps_every_message_in_order(self):
        mail = SimulatedMail()
        for n in range(3):
            mail.send(Message(to=f"a{n}@marrash.example", subject="s", text="t"))
        self.assertEqual([m.to for m in mail.sent], [f"a{n}@marrash.example" for n in range(3)])
