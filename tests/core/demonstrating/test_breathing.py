"""Breath and pH, by hand: what fell, what rose, what is expected, what cannot be; and suds."""

import unittest

from tests.core.demonstrating.test_shown import around, made
from tests.making import sample, shown
from zesty_glass.core.demonstrating.breathing import NOT_HEALTH
from zesty_glass.core.demonstrating.demonstrations import BreathTest, Lather, Vial
from zesty_glass.core.demonstrating.shown import show
from zesty_glass.core.errors import RuleError


def said(glass="raw", **seen):
    return show(made(BreathTest(sample=glass, **seen)), around())


class Breath(unittest.TestCase):
    def test_it_fell(self):
        out = said(before=7.6, breathed=6.8)
        self.assertIn("Breathed into for 60 s: pH fell from 7.6 to 6.8.", out.sentences)
        self.assertIn("carbon dioxide", out.sentences[1])
        self.assertEqual(out.sentences[-1], NOT_HEALTH)

    def test_no_difference_is_said_as_none(self):
        # 7.6 and 7.5 are nearer than a meter of ±0.1 tells apart
        out = said(before=7.6, breathed=7.5)
        self.assertIn("no difference that this meter shows", out.sentences[0])
        self.assertFalse(any("Breath brings" in s for s in out.sentences))

    def test_at_the_edge_of_what_a_meter_tells(self):
        for before, breathed in ((7.0, 6.8), (7.6, 7.4), (6.9, 6.7)):
            self.assertIn("fell", said(before=before, breathed=breathed).sentences[0])

    def test_a_rise_by_breath_is_questioned(self):
        self.assertEqual([f.id for f in said(before=6.5, breathed=7.0).flags], ["breath.rose"])
        self.assertEqual(said(before=7.0, breathed=6.5).flags, ())
        self.assertEqual(len(said(before=7.0, breathed=7.2).flags), 1)
        self.assertEqual(said(before=7.0, breathed=7.19).flags, ())

    def test_what_is_expected_stands_beside_it(self):
        # alkalinity is not tested in this glass: pure water alone, ½ (6.35 + 2.87) = 4.6
        result = said().result
        self.assertIsNone(result.expected)
        self.assertAlmostEqual(result.bare, 4.6, 1)

    def test_of_a_water_with_alkalinity(self):
        glass = sample(shown("alkalinity", 200.0, 5.0), id="mine")
        out = show(made(BreathTest(sample="mine", before=7.6, breathed=6.9)), around(glass))
        # pK1 6.35 + log10(200 / 50,043 / 0.00136) = 6.35 + 0.47 = 6.8
        self.assertAlmostEqual(out.result.expected, 6.8, 1)
        self.assertIn("ends near pH 6.8", " ".join(out.sentences))

    def test_a_glass_that_is_gone(self):
        self.assertTrue(said("no-such").refused)

    def test_nothing_measured_says_nothing(self):
        self.assertEqual(said().sentences, ())


class Airing(unittest.TestCase):
    def test_a_rise_names_carbon_dioxide(self):
        out = said(before=6.2, aired=7.0)
        self.assertIn("Poured to and fro 20 times: pH rose from 6.2 to 7.0.", out.sentences)
        self.assertIn("neutralizer is sized on that one", " ".join(out.sentences))

    def test_a_water_that_is_not_acid_is_not_called_so(self):
        out = " ".join(said(before=7.6, aired=7.9).sentences)
        self.assertIn("Carbon dioxide went out with the air; pH is measured at once", out)
        self.assertNotIn("acid", out)

    def test_an_acid_water_that_stays_so(self):
        self.assertIn("Airing changes little", " ".join(said(before=6.2, aired=6.3).sentences))

    def test_of_a_water_that_is_not_acid_nothing_more_is_said(self):
        self.assertEqual(len(said(before=7.4, aired=7.4).sentences), 2)

    def test_a_rise_of_three_tenths_is_enough_and_less_is_not(self):
        self.assertIn(
            "carbon dioxide went out", " ".join(said(before=6.5, aired=6.8).sentences).lower()
        )
        self.assertNotIn("went out", " ".join(said(before=6.5, aired=6.79).sentences))

    def test_seven_is_not_acid(self):
        self.assertNotIn("little", " ".join(said(before=7.0, aired=7.1).sentences[:-1]))
        self.assertIn("; pH is measured at once", " ".join(said(before=7.0, aired=7.4).sentences))


class CannotBe(unittest.TestCase):
    def test_refused(self):
        for code, wrong in (
            ("breath.ph", {"before": 14.1}),
            ("breath.ph", {"breathed": -1}),
            ("breath.ph", {"aired": float("nan")}),
            ("breath.seconds", {"seconds": 0}),
            ("breath.pours", {"pours": 201}),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                BreathTest(sample="raw", **wrong)
            self.assertEqual(e.exception.code, code)


class Suds(unittest.TestCase):
    def lather(self, *vials):
        return show(made(Lather(vials=vials)), around())

    def vial(self, name, mm, shakes=10, drops=3):
        return Vial(id=name, name=name, steps=(drops,), shakes=shakes, suds_mm=mm)

    def test_beside_each_other(self):
        out = self.lather(self.vial("Tap", 5), self.vial("Soft", 25))
        self.assertIn(
            "After 3 drops and 10 shakes each: suds of 5 mm in “Tap” and 25 mm in “Soft”.",
            " ".join(out.sentences),
        )
        self.assertEqual([v.suds_a_shake for v in out.result.vials], [0.5, 2.5])

    def test_other_soap_or_shakes_are_not_compared(self):
        for other in (self.vial("Soft", 25, shakes=9), self.vial("Soft", 25, drops=4)):
            out = self.lather(self.vial("Tap", 5), other)
            self.assertIn("not compared", " ".join(out.sentences))

    def test_one_alone_says_nothing(self):
        self.assertNotIn("suds", " ".join(self.lather(self.vial("Tap", 5)).sentences))

    def test_cannot_be(self):
        for code, wrong in (("lather.shakes", {"shakes": 0}), ("lather.suds_mm", {"suds_mm": 301})):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                Vial(id="v", name="V", steps=(1,), **wrong)
            self.assertEqual(e.exception.code, code)
