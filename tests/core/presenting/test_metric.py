"""Sentences turned into metric units, worked by hand: 1 gal = 3.785 L, 1 lb = 0.4536 kg, 1 in =
2.54 cm, 1 psi = 6.895 kPa, 1 ft³ = 28.317 L, 1 gpg = 17.118 mg/L.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.assess import assess
from zesty_glass.core.presenting.metric import in_units, said_metric
from zesty_glass.core.presenting.offer import make_offer
from zesty_glass.core.treating.report import Figure
from zesty_glass.core.working import working
from zesty_glass.demo.homes import demo_visits

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
HOME_1 = demo_visits(AT)[0]
METRIC = replace(HOME_1, settings=replace(HOME_1.settings, units="metric"))


class Sentences(unittest.TestCase):
    def test_amounts_by_hand(self):
        for us, metric in (
            ("8 gpm", "30 L/min"),
            ("30 gpm", "6.8 m³/h"),  # 113.6 L/min
            ("26 gpm", "98 L/min"),
            ("25 to 30 gpm", "5.7 to 6.8 m³/h"),
            ("1 gal", "3.8 L"),
            ("70 gal at once, 122 gal a week", "265 L at once, 462 L a week"),
            ("75 gal/day", "284 L/day"),
            ("60 gal/ft³", "8 L/L"),
            ("60 psi", "414 kPa"),
            ("62 in of height", "157 cm of height"),
            ("0.5 ft³ of resin", "14 L of resin"),
            ("8 lb/ft³", "128 g/L"),
            ("40-lb bags", "18-kg bags"),
            ("5 lb", "2.3 kg"),
            ("2.4 to 6.1 gpg", "41 to 104 mg/L"),
            ("19 gpg", "325 mg/L (19 gpg)"),
            ("3,350 grains a pound of salt", "479 g a kilogram of salt"),
            ("3,434 pCi/L", "127 Bq/L"),
            ("3,626 gal at 10.30 a 1,000 gal", "13,726 L at 2.72 a m³"),
            ("5,700 gal a year", "21,600 L a year"),
            ("6 gpm/ft²", "15 m/h"),
        ):
            self.assertEqual(said_metric(us), metric)

    def test_words_that_look_like_units_stay(self):
        for text in (
            "at 1 in the morning",
            "2 in parallel",
            "19 gpg, 18.2 °dH",
            "a gallon",
            "3 galvanized pipes",
            "pH 7",
            "10 lbf",
            "",
        ):
            self.assertEqual(said_metric(text), text)

    @given(st.floats(0.01, 1e6))
    def test_a_number_is_turned_to_within_what_it_is_said_by(self, gallons):
        said = said_metric(f"{gallons:.2f} gal")
        litres = float(said.removesuffix(" L").replace(",", ""))
        exact = float(f"{gallons:.2f}") * 3.785411784
        least = 0.051 if exact < 10 else 0.51
        self.assertAlmostEqual(litres, exact, delta=max(least, exact * 0.01))


class Answers(unittest.TestCase):
    def figure(self, value, unit):
        why = working(f"Why {value} {unit}?", "a × b", "by hand", ("a", value, unit))
        return Figure(id="f", label="flow", value=value, unit=unit, number=9.0, working=why)

    def test_a_figure_is_turned_with_its_unit_and_its_working_keeps_the_formula(self):
        (f,) = in_units((self.figure("9", "gpm"),), METRIC)
        self.assertEqual((f.value, f.unit, f.number), ("34", "L/min", 9.0))
        self.assertEqual(f.working.title, "Why 34 L/min?")
        self.assertEqual((f.working.rows[0].value, f.working.rows[0].unit), ("9", "gpm"))
        self.assertIn("9 gpm", f.working.note)

    def test_a_ratio_is_the_same_in_every_unit(self):
        def ratio(visit):
            made = make_offer(
                visit,
                number="1",
                revision=1,
                created_at=visit.started_at,
                valid_until=visit.started_at.date(),
                recommended=visit.options[1].id,
                reasons="",
            )
            pairs = [f for o in made.options for s in o.stages for f in s.figures]
            return [v for label, v in pairs if label == "to the drain, for what is drunk"]

        self.assertTrue(ratio(HOME_1))
        self.assertEqual(ratio(HOME_1), ratio(METRIC))
        self.assertTrue(all(v.endswith(" to 1") for v in ratio(METRIC)))

    def test_a_target_of_a_band_is_said_whole_in_metric(self):
        wanted = [r.target_words for r in assess(METRIC).rows if r.analyte == "hardness"]
        self.assertIn("60 mg/L", wanted[0])

    def test_a_figure_in_no_us_unit_is_as_it_was(self):
        f = self.figure("9", "min")
        self.assertIs(in_units((f,), METRIC)[0], f)

    def test_in_us_units_nothing_is_touched(self):
        a = assess(HOME_1)
        self.assertIs(in_units(a, HOME_1), a)

    def test_the_firms_own_names_stay(self):
        name = next(i.name for i in METRIC.catalogue if " ft³" in i.name)
        self.assertEqual(in_units((f"{name}: 8 gpm",), METRIC), (f"{name}: 30 L/min",))

    def test_what_was_measured_is_the_same_whatever_it_is_shown_in(self):
        us, metric = assess(HOME_1), in_units(assess(METRIC), METRIC)
        for a, b in zip(us.options, metric.options, strict=True):
            self.assertEqual(a.line.tap.quantities, b.line.tap.quantities)
            self.assertEqual(a.cost.total, b.cost.total)
