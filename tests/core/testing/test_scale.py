"""The scale index beside a full geochemical model, and what it means in a heater."""

import json
import math
import unittest
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.scale import heated, saturation_index, short_index, tendency
from zesty_glass.core.treating.stages.calcite import to_saturation, to_target

TABLE = json.loads(Path(__file__).with_name("phreeqc.json").read_text())


def worst_of_95(differences):
    """What 95 of 100 stay within."""
    return sorted(map(abs, differences))[math.ceil(0.95 * len(differences)) - 1]


class Hardly(unittest.TestCase):
    def test_next_to_no_calcium_dissolves_calcite_and_breaks_nothing(self):
        self.assertLess(saturation_index(7.0, 200, 15, 5e-324, 100), -8)


class BesideAFullModel(unittest.TestCase):
    def test_at_the_tap(self):
        self.assertEqual(len(TABLE), 300)
        off = [
            saturation_index(r["ph"], r["tds"], r["t"], r["ca"], r["alk"]) - r["si"] for r in TABLE
        ]
        self.assertLess(worst_of_95(off), 0.05)

    def test_in_a_closed_heater(self):
        hot = [heated(r["ph"], r["tds"], r["t"], r["ca"], r["alk"], 60.0) for r in TABLE]
        self.assertLess(
            worst_of_95([i - r["hot_si"] for (_, i), r in zip(hot, TABLE, strict=True)]), 0.2
        )
        self.assertLess(
            worst_of_95([p - r["hot_ph"] for (p, _), r in zip(hot, TABLE, strict=True)]), 0.15
        )

    def test_the_short_formula_stands_too_low(self):
        off = [short_index(r["ph"], r["tds"], r["t"], r["ca"], r["alk"]) - r["si"] for r in TABLE]
        self.assertTrue(-0.3 < sum(off) / len(off) < -0.12)

    def test_calcite_where_the_target_governs(self):
        """The equation leaves activities out, so it stands some per cent above the full model."""
        rows = [r for r in TABLE if 0 < r.get("to_target", 0) <= r.get("to_saturation", 0)]
        self.assertGreater(len(rows), 60)
        off = [to_target(r["ph"], r["alk"], r["t"]) / r["to_target"] - 1 for r in rows]
        self.assertLess(worst_of_95(off), 0.1)

    def test_calcite_where_saturation_governs(self):
        rows = [r for r in TABLE if 5 < r.get("to_saturation", 0) < r.get("to_target", 0)]
        self.assertGreater(len(rows), 10)
        off = [
            to_saturation(r["ph"], r["alk"], r["t"], r["ca"], r["tds"]) / r["to_saturation"] - 1
            for r in rows
        ]
        self.assertLess(worst_of_95(off), 0.2)
        self.assertLess(sorted(map(abs, off))[len(off) // 2], 0.06)


class Index(unittest.TestCase):
    def test_worked_figures(self):
        self.assertEqual(f"{saturation_index(7.6, 380, 15, 190, 160):+.2f}", "+0.17")
        ph, index = heated(7.6, 380, 15, 190, 160)
        self.assertEqual((f"{ph:.2f}", f"{index:+.2f}"), ("7.45", "+0.61"))

    def test_total_hardness_is_at_most(self):
        r = Range.exact
        t = tendency(r(7.6), r(380), r(15), None, r(160), r(190))
        self.assertTrue(t.at_most)
        self.assertIsNone(tendency(r(7.6), None, r(15), r(190), r(160)))
        self.assertIsNone(tendency(r(7.6), r(380), r(15), Range.of(0, 5, 9), r(160)))
        self.assertIsNone(tendency(r(12.0), r(380), r(15), r(190), r(160)))  # of lye alone

    waters = (st.floats(6, 8.3), st.floats(50, 900), st.floats(5, 30), st.floats(5, 400))

    @given(*waters, st.floats(40, 400))
    def test_a_heater_scales_more_though_its_ph_falls(self, ph, tds, t, ca, alk):
        hot, index = heated(ph, tds, t, ca, alk, 60.0)
        self.assertLess(hot, ph + 0.02)
        self.assertGreater(index, saturation_index(ph, tds, t, ca, alk) - 0.02)

    @given(*waters, st.floats(40, 400))
    def test_a_heater_as_cold_as_the_tap_changes_nothing(self, ph, tds, t, ca, alk):
        _, index = heated(ph, tds, t, ca, alk, t)
        self.assertAlmostEqual(index, saturation_index(ph, tds, t, ca, alk), delta=0.12)
