"""Small stages, places and pressure: the last value that passes and the first that does not."""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.core.treating.test_order import order
from tests.core.treating.test_stage_edges import TOWN, item, run, status
from tests.core.treating.test_stage_limits import sentence
from tests.making import water
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.calcite import to_saturation
from zesty_glass.core.treating.stages.cartridge import CartridgeFigures
from zesty_glass.core.treating.stages.devices import DeviceFigures
from zesty_glass.core.treating.stages.distiller import BATCH_GAL, DistillerFigures
from zesty_glass.core.treating.stages.neutraliser import WIDE_PH, NeutraliserFigures
from zesty_glass.core.treating.stages.sediment import SedimentFigures
from zesty_glass.core.treating.stages.specialists import SpecialistFigures
from zesty_glass.core.treating.stages.ultrafiltration import UltrafiltrationFigures
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.technology import Company


class Cartridges(unittest.TestCase):
    def of(self, ph, **more):
        return run(item(CartridgeFigures(media="iron_media", **more), "tap"), {"ph": ph})

    def test_its_window_in_words(self):
        self.assertIn("pH 0 to 8", sentence(self.of(9.0, ph_max=8.0), "cartridge.ph"))
        self.assertIn("pH 6 to 14", sentence(self.of(5.0, ph_min=6.0), "cartridge.ph"))


class Places(unittest.TestCase):
    """A fine cartridge guards the lamp; coarse comes before fine; at the tap it comes first."""

    def rank(self, micron, style="cartridge", scope="house", lamp=True):
        thing = item(SedimentFigures(style=style, micron=micron), scope)
        stream = source_stream(water(ph=7.0), None, None)
        beside = replace(Company(), fine_ahead=lamp) if lamp else Company()
        return TECHNOLOGIES["sediment"].place(thing, beside, stream)

    def test_five_microns_guard_the_lamp_and_six_do_not(self):
        self.assertEqual(self.rank(5.0), self.rank(1.0))
        self.assertGreater(self.rank(5.0), self.rank(6.0))
        self.assertEqual(self.rank(5.0, lamp=False), self.rank(5.0, style="spin_down"))

    def test_coarse_ahead_of_fine(self):
        self.assertLess(self.rank(6.0), self.rank(5.0, lamp=False))
        self.assertEqual(order("SD-20B", "SD-50"), ["SD-50", "SD-20B"])

    def test_ahead_of_all_else_at_the_tap(self):
        self.assertEqual(order("RO-75M", "SD-T10", "CB-T")[0], "SD-T10")

    def test_specialists_stand_where_the_trade_has_them(self):
        def house(kind):
            figures = SpecialistFigures(kind=kind)
            stream = source_stream(water(ph=7.0), None, None)
            return TECHNOLOGIES[kind].place(item(figures), Company(), stream)

        aired, dosed = house("aeration"), house("chlorinator")
        nitrate, arsenic = house("nitrate"), house("arsenic")
        self.assertLess(aired, dosed)
        self.assertLess(dosed, nitrate)
        self.assertLess(nitrate, arsenic)


class PressureTaken(unittest.TestCase):
    """The curve of an item is one of the house; at the tap nothing is taken from it."""

    def drop(self, figures, scope):
        thing = item(figures, scope, flow_gpm=18.0, drop_psi=4.0, drop_gpm=18.0)
        return run(thing, {"ph": 7.0, "turbidity": 1.0}, **TOWN).drop_psi

    def test_at_the_house_and_not_at_the_tap(self):
        for figures in (
            SedimentFigures(style="cartridge", micron=5.0),
            SpecialistFigures(kind="aeration"),
            DeviceFigures(kind="polish"),
        ):
            with self.subTest(figures.kind):
                self.assertEqual(self.drop(figures, "house"), 1.0)  # a quarter at half the flow
                self.assertEqual(self.drop(figures, "tap"), 0.0)

    def test_a_regulator_takes_none_by_curve(self):
        self.assertEqual(self.drop(DeviceFigures(kind="regulator", sets_psi=50.0), "house"), 0.0)

    def test_only_a_chlorinator_disinfects(self):
        self.assertTrue(SpecialistFigures(kind="chlorinator").disinfects)
        for kind in ("aeration", "nitrate", "arsenic"):
            self.assertFalse(SpecialistFigures(kind=kind).disinfects)


class Fibres(unittest.TestCase):
    """Ultrafiltration: rinsed every day where nothing else is stated; at the tap it takes none."""

    def of(self, scope="house", **more):
        figures = UltrafiltrationFigures(pore_um=0.02, rinse_gal=4.0, rinse_gpm=5.0, **more)
        thing = item(figures, scope, flow_gpm=18.0, drop_psi=4.0, drop_gpm=18.0)
        return run(thing, {"turbidity": 2.0, "iron": 0.1, "tannin": 0.0}, **TOWN)

    def test_a_rinse_a_day(self):
        self.assertAlmostEqual(self.of().drains[0].gal_year, 365.25 * 4)
        self.assertAlmostEqual(self.of(rinse_days=2.0).drains[0].gal_year, 365.25 / 2 * 4)

    def test_its_drop(self):
        self.assertEqual((self.of().drop_psi, self.of("tap").drop_psi), (1.0, 0.0))

    def test_a_rinse_of_a_litre_or_half_a_day_is_one(self):
        for right in ({"rinse_gal": 0.5}, {"rinse_gpm": 0.5}, {"rinse_days": 0.5}):
            figures = {"pore_um": 0.02, "rinse_gal": 4.0, "rinse_gpm": 5.0, **right}
            item(UltrafiltrationFigures(**figures))


class Batches(unittest.TestCase):
    def test_one_a_gallon_and_the_residue_each_time_it_is_full(self):
        figures = DistillerFigures(kwh_gal=3.0, gal_day=4.0, residue_share=0.1)
        r = run(item(figures, "tap"), {"tds": 500.0})
        drunk = 4 * 0.7 * 365.25
        self.assertAlmostEqual(r.chores[0].times_year, drunk / BATCH_GAL)
        self.assertAlmostEqual(r.drains[0].times_year, drunk / 4.0)
        power = next(f for f in r.figures if f.id == "power")
        self.assertEqual([x.label for x in power.working.rows if x.total], ["a year"])


class Acid(unittest.TestCase):
    def test_a_feeder_is_for_ph_under_five(self):
        figures = NeutraliserFigures(
            style="feed", volume_ft3=1.0, magnesia_share=0.0, bag_price=Decimal(30)
        )
        values = {"alkalinity": 30.0, "temperature": 12.0, "hardness": 40.0, "tds": 100.0}
        r = run(item(figures), {**values, "ph": 7.2})
        self.assertIn("pH under 5", sentence(r, "neutraliser.range"))
        bed = replace(figures, style="upflow", volume_ft3=1.5)
        r = run(item(bed), {**values, "ph": 7.2})
        self.assertIn("pH 6 to 6.9", sentence(r, "neutraliser.range"))

    def test_a_ph_that_is_wide_asks_for_a_meter(self):
        bed = NeutraliserFigures(style="upflow", volume_ft3=1.5)
        values = {"alkalinity": 30.0, "temperature": 12.0, "hardness": 40.0, "tds": 100.0}
        for half, said in ((WIDE_PH / 2, ""), (WIDE_PH / 2 + 0.01, "warn")):
            ph = Range.of(6.2 - half, 6.2, 6.2 + half)
            r = run(item(bed), {**values, "ph": ph})
            self.assertEqual(status(r, "neutraliser.ph_meter"), said, half)

    def test_what_it_adds_stands_out(self):
        bed = NeutraliserFigures(style="upflow", volume_ft3=1.5)
        values = {"alkalinity": 30.0, "temperature": 12.0, "hardness": 40.0, "tds": 100.0}
        r = run(item(bed), {**values, "ph": 6.2})
        rows = [x.label for f in r.figures for x in f.working.rows if x.total]
        self.assertIn("hardness added", rows)

    def test_water_that_scales_already_dissolves_nothing(self):
        # pH 8.4, 250 mg/L of calcium and of alkalinity at 15 °C: an index far above 0
        self.assertEqual(to_saturation(8.4, 250.0, 15.0, 250.0, 400.0), 0.0)
        self.assertGreater(to_saturation(6.2, 30.0, 12.0, 20.0, 80.0), 20.0)


if __name__ == "__main__":
    unittest.main()
