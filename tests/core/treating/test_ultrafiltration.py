"""Ultrafiltration: what it holds back, what passes, and its rinses; worked by hand."""

import unittest
from dataclasses import replace

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Source
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages.by_clock import rinses
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stages.ultrafiltration import UltrafiltrationFigures
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.walking import run_stage

ITEM = next(i for i in example_items() if i.code == "UF-10")


def stage(particulate=None, h=None, **values):
    h = h or home(source=Source.WELL_DRILLED, drain=True, socket=True, static_psi=60)
    w = water(**{"turbidity": 3.0, "tds": 200, "hardness": 100, "iron": 0.1, **values})
    site = site_of(h, settings(), w)
    source = replace(source_stream(w, None, site.running_psi), particulate_iron=particulate)
    return run_stage(StageInput(item=ITEM, stream=source, site=site, overrides={}), source, {})


class Fibres(unittest.TestCase):
    def test_rusted_iron_is_held_back_and_nothing_is_known_of_what_nobody_looked_at(self):
        for before, after in ((True, False), (False, False), (None, None)):
            _, outlet = stage(particulate=before)
            self.assertIs(outlet.particulate_iron, after)

    def test_haze_falls_and_what_is_dissolved_passes(self):
        _, outlet = stage()
        self.assertAlmostEqual(outlet.best("turbidity"), 0.09)  # 97 % of 3 NTU
        self.assertEqual((outlet.best("tds"), outlet.best("hardness")), (200, 100))

    def test_bacteria_are_not_claimed(self):
        _, outlet = stage(coliform=4.0)
        self.assertEqual(outlet.best("coliform"), 4.0)

    def test_iron_and_tannin_are_warned_of(self):
        def checks(**values):
            return {c.id: c.status for c in stage(**values)[0].checks}

        self.assertEqual(checks(iron=0.2)["ultrafiltration.iron"], "met")
        self.assertEqual(checks(iron=1.0)["ultrafiltration.iron"], "warn")
        self.assertEqual(checks(tannin=1.0)["ultrafiltration.tannin"], "warn")

    def test_rinses(self):
        # every other day of 300 at home, 6 gal each: 150 rinses, 900 gal
        year = rinses(2, 6, 300)
        self.assertEqual((year.times, year.gal_year), (150.0, 900.0))
        drain = stage()[0].drains[0]
        self.assertAlmostEqual(drain.gal_year, 365.25 * 5)

    def test_it_counts_as_a_fine_filter(self):
        self.assertEqual(ITEM.figures.holds_um, 0.02)

    def test_figures_that_none_has(self):
        good = {"pore_um": 0.02, "rinse_gal": 4.0, "rinse_gpm": 5.0}
        for wrong in (
            {"pore_um": 0.0},
            {"pore_um": 0.11},
            {"rinse_gal": -1.0},
            {"rinse_gpm": 0.0},
            {"rinse_days": 0.0},
        ):
            with self.assertRaises(RuleError, msg=str(wrong)):
                replace(ITEM, figures=UltrafiltrationFigures(**{**good, **wrong}))
        replace(ITEM, figures=UltrafiltrationFigures(**{**good, "pore_um": 0.1}))
