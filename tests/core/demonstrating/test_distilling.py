"""Distilling: the balance closes when amounts and displays agree, and is flagged when
they do not.
"""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from tests.making import NOON, home, settings, tds_meter, water
from zesty_glass.core.demonstrating.around import Around
from zesty_glass.core.demonstrating.demonstrations import Demonstration, Distilling
from zesty_glass.core.demonstrating.distilling import balance, residue_volume, verdict
from zesty_glass.core.demonstrating.shown import show
from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.observations import MeterDisplays


def run(
    feed,
    residue=None,
    distillate=None,
    feed_l=1.2,
    residue_l=None,
    distillate_l=None,
    hardness=0.0,
    temperature=20.0,
):
    d = Distilling(
        sample="raw",
        instrument=tds_meter(),
        feed_l=feed_l,
        residue_l=residue_l,
        distillate_l=distillate_l,
        feed=MeterDisplays(displays=(feed, feed)),
        residue=(
            None
            if residue is None
            else MeterDisplays(displays=(residue, residue), temperature_c=temperature)
        ),
        distillate=None if distillate is None else MeterDisplays(displays=(distillate, distillate)),
    )
    return balance(d, water(hardness=hardness))


class WorkedFigure(unittest.TestCase):
    def test_260_boiled_until_690(self):
        self.assertEqual(round(residue_volume(260, 1.2, 0, 690), 2), 0.45)

    def test_0_45_litres_closes(self):
        self.assertEqual(run(260, 690, residue_l=0.45).verdict, "closes")

    def test_0_7_litres_is_a_wrong_reading(self):
        b = run(260, 690, residue_l=0.7)
        self.assertEqual(b.verdict, "too much")
        self.assertEqual(round(b.residue_l, 2), 0.45)

    def test_the_residue_is_predicted_from_the_amounts(self):
        self.assertEqual(round(run(260, residue_l=0.452).residue_mg_l.best), 690)


class WhereItWent(unittest.TestCase):
    """The distillate's removal is a bound by this meter; the residue is so many times the feed."""

    def said(self, **more):
        feed = MeterDisplays(displays=(260.0, 260.0))
        d = Distilling(
            sample="raw", instrument=tds_meter(), feed_l=1.2, feed=feed, residue_l=0.45, **more
        )
        at = Around(samples={}, waters={}, lines={}, home=home(), settings=settings(), meanings={})
        return " ".join(show(Demonstration(id="d", made_at=NOON, body=d), at).sentences)

    def test_at_least_so_much_less(self):
        # 260 ± (2 % + 0.5) leaves 254.3 at the least; 4 ± 0.58 is 4.58 at the most: 98.2 % less
        text = self.said(distillate=MeterDisplays(displays=(4.0, 4.0)))
        self.assertIn("at least 98 % less", text)
        self.assertIn("as far as this meter can tell", text)

    def test_no_difference_is_said_so(self):
        text = self.said(distillate=MeterDisplays(displays=(258.0, 258.0)))
        self.assertIn("no difference shown", text)
        self.assertNotIn("at least", text)

    def test_times_as_concentrated(self):
        text = self.said(residue=MeterDisplays(displays=(650.0, 650.0)))  # 650 / 260
        self.assertIn("2.5 times as concentrated", text)
        near = self.said(residue=MeterDisplays(displays=(262.0, 262.0)))
        self.assertNotIn("concentrated", near)


class Edges(unittest.TestCase):
    def test_scale_explains_a_low_residue_of_hard_water(self):
        self.assertEqual(run(400, 560, residue_l=0.6, hardness=0).verdict, "too little")
        self.assertEqual(run(400, 560, residue_l=0.6, hardness=250).verdict, "closes with scale")

    def test_scale_never_explains_a_high_one(self):
        self.assertEqual(run(260, 690, residue_l=0.7, hardness=300).verdict, "too much")

    def test_a_half_made_one_is_open(self):
        b = run(260)
        self.assertEqual((b.verdict, b.residue_l, b.residue_mg_l), ("open", None, None))

    def test_a_hot_residue_is_flagged(self):
        self.assertIn(
            "residue.meter.temperature",
            [f.id for f in run(260, 690, residue_l=0.45, temperature=80).flags],
        )

    def test_a_residue_thinner_than_the_distillate_never_can_be(self):
        self.assertIsNone(residue_volume(260, 1.2, 5, 5))

    def test_impossible_amounts_are_refused(self):
        for more, code in (
            ({"residue_l": 2.0}, "distilling.more_than_fed"),
            ({"residue_l": 0.7, "distillate_l": 0.9}, "distilling.more_than_fed"),
            ({"residue_l": 0.0}, "distilling.volume"),
            ({"feed_l": -1}, "distilling.volume"),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                run(260, **more)
            self.assertEqual(e.exception.code, code)


class Mass(unittest.TestCase):
    @given(st.integers(20, 900), st.floats(0.3, 0.9), st.floats(0, 0.05))
    def test_it_closes_when_amounts_and_displays_agree(self, feed, left, passed):
        """Independent: share the mass out by hand, round as a meter does, and ask."""
        feed_l, residue_l = 1.0, left
        over = feed * passed
        residue = (feed * feed_l - over * (feed_l - residue_l)) / residue_l
        b = run(
            feed,
            round(residue),
            round(over),
            feed_l=feed_l,
            residue_l=residue_l,
            distillate_l=feed_l - residue_l,
        )
        self.assertEqual(b.verdict, "closes")

    @given(st.floats(1, 1000), st.floats(0.1, 2), st.floats(0.1, 0.99))
    def test_the_residue_volume_puts_the_mass_back(self, feed, litres, share):
        residue = feed / share
        self.assertAlmostEqual(
            residue_volume(feed, litres, 0, residue) * residue, feed * litres, places=6
        )

    @given(st.floats(0, 1000), st.floats(0, 1000), st.floats(0, 500), st.floats(0, 500))
    def test_more_scale_never_turns_closed_into_wrong(self, fed, out, scale, more):
        a, b = (verdict(Range.exact(fed), Range.exact(out), s) for s in (scale, scale + more))
        self.assertFalse(a.startswith("closes") and not b.startswith("closes"))
