"""Each kit has its own steps: a strip is dipped, a meter rinsed, drops are not a meter."""

import unittest
from datetime import date

from tests.making import drop_kit, tds_meter
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.procedures import PROCEDURES, REAGENTS, procedure
from zesty_glass.demo.kits import demo_instruments

K = InstrumentKind
BY_ITS_MANUAL = ("Read as its manual says",)


def kit(kind, analyte, **more):
    return Instrument(id="k", name="Some kit", kind=kind, analyte=analyte, **more)


class Procedures(unittest.TestCase):
    def test_each_stands_once_and_names_an_analyte_that_is(self):
        keys = [(p.kind, p.analyte) for p in PROCEDURES]
        self.assertEqual(len(keys), len(set(keys)))
        self.assertLessEqual({a for _, a in keys if a}, set(ANALYTES))

    def test_where_a_reagent_goes_in_hands_are_warned(self):
        for p in PROCEDURES:
            if p.kind is K.DROPS or "reagent" in " ".join(p.steps).lower():
                self.assertEqual((p.caution, p.reagent), (REAGENTS, True), p.title)

    def test_ph_drops_are_no_meter(self):
        drops = procedure(kit(K.COMPARATOR, "ph", steps=(6.0, 7.0, 8.0)))
        meter = procedure(kit(K.DISPLAY, "ph"))
        self.assertIn("On site, never posted", drops.steps)
        self.assertIn("On site, never posted", meter.steps)
        self.assertTrue(drops.reagent)
        self.assertFalse(meter.reagent)

    def test_a_strip_of_anything_is_dipped(self):
        for analyte in ("hardness", "iron", "hydrogen_sulfide"):
            steps = procedure(kit(K.STRIP, analyte, steps=(0.0, 1.0))).steps
            self.assertEqual(steps[0], "Dip without moving it")

    def test_an_unknown_kit_goes_by_its_manual(self):
        p = procedure(kit(K.DISPLAY, "fluoride"))
        self.assertEqual((p.title, p.steps), ("Some kit", BY_ITS_MANUAL))

    def test_drop_kit_and_meter(self):
        self.assertEqual(procedure(drop_kit()).title, "Hardness, by drops")
        self.assertEqual(procedure(tds_meter()).steps[0], "Cup and probe rinsed")

    def test_no_kit_of_the_demo_is_left_to_its_manual(self):
        stations_of_their_own = {"colour", "noticed", "flow"}
        for k in demo_instruments(date(2026, 1, 1)):
            if k.kind is K.LABORATORY or k.analyte in stations_of_their_own:
                continue
            self.assertNotEqual(procedure(k).steps, BY_ITS_MANUAL, k.name)


if __name__ == "__main__":
    unittest.main()
