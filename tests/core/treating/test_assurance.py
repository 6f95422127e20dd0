"""What a line may not promise: bacteria without disinfection, a claim outside of its window, and a
membrane, a cartridge or a pitcher beyond what it can bear.
"""

import unittest

from tests.any_water import ITEMS
from tests.core.treating.test_stage_edges import run, status
from tests.making import home, settings, water
from zesty_glass.core.home import Care, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages.common import certified_on
from zesty_glass.core.treating.stream import source_stream

#: what the lamp UV-20H wants to know of the water, all in order
CLEAR = {
    "uvt": 92.0,
    "iron": 0.05,
    "manganese": 0.01,
    "hardness": 60.0,
    "turbidity": 0.2,
    "ph": 7.2,
    "tannin": 0.0,
    "hydrogen_sulfide": 0.0,
}
#: bacteria as a laboratory counts them [per 100 mL]
COUNTED = {"coliform": 12.0, "e_coli": 3.0}


def line(*codes, values, **about):
    option = Option(id="a", name="A", stages=tuple(StageChoice(item=c) for c in codes))
    return walk(option, ITEMS, water(**values), None, home(**about), settings())


def said(report, id: str) -> bool:
    return any(c.id == id for c in report.checks)


class Bacteria(unittest.TestCase):
    def lamp(self, **values):
        return line("SD-20S", "UV-20H", values={**CLEAR, **COUNTED, **values})

    def test_a_lamp_that_is_right_silences(self):
        r = self.lamp()
        self.assertFalse(r.stages[-1].idle)
        self.assertFalse(said(r, "line.undisinfected") or said(r, "line.disinfection_open"))

    def test_a_lamp_that_is_stopped_does_not(self):
        r = self.lamp(uvt=60.0)
        self.assertTrue(said(r, "line.undisinfected"))
        self.assertEqual(r.stages[-1].outlet.get("coliform").range, Range.exact(12.0))

    def test_a_lamp_with_an_open_test_leaves_it_open(self):
        values = {**CLEAR, **COUNTED}
        del values["uvt"]
        r = line("SD-20S", "UV-20H", values=values)
        self.assertTrue(said(r, "line.disinfection_open"))
        self.assertFalse(said(r, "line.undisinfected"))
        self.assertEqual(r.stages[-1].outlet.get("coliform").range, Range.exact(12.0))

    def test_what_is_not_certified_for_bacteria_never_silences(self):
        for code in ("UF-10", "CB-10", "CC-15", "SD-20B", "SO-15", "RO-75M"):
            with self.subTest(code):
                self.assertTrue(said(line(code, values={**CLEAR, **COUNTED}), "line.undisinfected"))


class Windows(unittest.TestCase):
    """A certificate holds inside its window of pH: alumina 5.0 to 7.5, the arsenic cartridge 5.5
    to 8.5.
    """

    def held(self, code, **values):
        return certified_on(ITEMS[code], source_stream(water(**values), None, None))

    def test_alumina(self):
        self.assertEqual(self.held("FL-A", ph=7.5), {"fluoride"})
        self.assertEqual(self.held("FL-A", ph=7.6), set())

    def test_arsenic(self):
        self.assertEqual(self.held("AS-T", ph=8.5), {"arsenic"})
        self.assertEqual(self.held("AS-T", ph=8.6), set())

    def test_without_a_ph_no_window_holds(self):
        self.assertEqual(self.held("FL-A"), set())

    def test_bone_char_is_never_certified(self):
        self.assertEqual(self.held("FL-B", ph=7.0), set())


class Membranes(unittest.TestCase):
    def of(self, **values):
        return run(ITEMS["RO-75M"], {"ph": 7.0, "tds": 400.0, "hardness": 100.0, **values})

    def test_sulfate_from_a_thousand(self):
        self.assertEqual(status(self.of(sulfate=1000.0), "membrane.sulfate"), "warn")
        self.assertNotEqual(status(self.of(sulfate=999.0), "membrane.sulfate"), "warn")

    def test_silica_from_forty(self):
        self.assertEqual(status(self.of(silica=40.0), "membrane.silica"), "warn")
        self.assertNotEqual(status(self.of(silica=39.0), "membrane.silica"), "warn")


class ExchangePitcher(unittest.TestCase):
    """What its resin holds is so many milligrams: PT-2 lasts its rated gallons at its rated TDS."""

    def gallons(self, tds: float) -> float:
        r = run(ITEMS["PT-2"], {"tds": tds})
        return next(c for c in r.dues if c.capacity_gal is not None).capacity_gal

    def test_eight_times_the_dissolved_solids_an_eighth_of_the_gallons(self):
        rated = ITEMS["PT-2"].figures.rated_tds
        self.assertAlmostEqual(self.gallons(8 * rated) * 8, self.gallons(rated))

    def test_without_a_tds_it_asks(self):
        self.assertEqual(status(run(ITEMS["PT-2"], {"ph": 7.0}), "pitcher.tds"), "unknown")


class AnInfantsNitrate(unittest.TestCase):
    def asked(self, nitrate, infant=True, code="RO-75M"):
        values = {"ph": 7.0, "tds": 400.0, "hardness": 100.0, "nitrate_n": nitrate}
        about = {"source": Source.WELL_DRILLED, "care": Care(infant=infant)}
        return said(line(code, values=values, **about), "nitrate.infant")

    def test_from_half_of_the_limit(self):
        self.assertTrue(self.asked(5.0))
        self.assertFalse(self.asked(4.9))

    def test_only_with_an_infant_and_behind_what_takes_it_out(self):
        self.assertFalse(self.asked(8.0, infant=False))
        self.assertFalse(self.asked(8.0, code="CB-T"))
