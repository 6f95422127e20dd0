"""Ratings that no device has, drains of what makes nothing, and places in a line: worked by hand
from the makers' figures and the rules of the trade.
"""

import unittest
from dataclasses import fields, replace
from decimal import Decimal

from tests.core.treating.test_last_stages import Lamp, Membrane
from tests.core.treating.test_stage_edges import TOWN, item, run, status
from tests.making import home, membrane, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stages.membrane_flow import (
    MembraneFigures,
    at_home,
    for_nothing,
    ndp,
    permeate_gpd,
    waste_ratio,
)
from zesty_glass.core.treating.stages.neutraliser import NeutraliserFigures
from zesty_glass.core.treating.stages.sediment import SedimentFigures
from zesty_glass.core.treating.stages.uv import design_flow
from zesty_glass.core.treating.stream import Quantity, source_stream


def sentence(report, id: str) -> str:
    return next((c.sentence for c in report.checks if c.id == id), "")


class MembraneRatings(unittest.TestCase):
    def test_those_that_none_has_are_refused(self):
        for wrong in (
            {"rejection": 0.0},
            {"rejection": 1.0},
            {"rejection": 1.5},
            {"rated_gpd": 0.0},
            {"rated_gpd": -1.0},
            {"rated_ratio": -0.5},
            {"efficiency": 0.0},
            {"efficiency": 1.5},
        ):
            with self.subTest(wrong), self.assertRaises(RuleError):
                membrane(**wrong)

    def test_those_at_the_edge_are_taken(self):
        for right in (
            {"rejection": 0.999},
            {"rated_gpd": 0.5},
            {"rated_ratio": 0.0},
            {"efficiency": 1.0},
        ):
            with self.subTest(right):
                membrane(**right)


class AnyRatings(unittest.TestCase):
    """What no data sheet holds is refused when the item is made, not when it is reckoned with."""

    def test_no_number_of_any_item_breaks_the_reckoning(self):
        w = water(
            hardness=300.0,
            tds=500.0,
            iron=1.0,
            manganese=0.1,
            ph=6.3,
            alkalinity=40.0,
            temperature=12.0,
            tannin=0.4,
            chlorine_free=0.4,
            turbidity=2.0,
            uvt=85.0,
        )
        for thing in example_items():
            if thing.kind == "system":
                continue
            for f in fields(thing.figures):
                value = getattr(thing.figures, f.name)
                if isinstance(value, bool) or not isinstance(value, int | float):
                    continue
                for wrong in (0, -1, 1e-9, 1e12):
                    with self.subTest(item=thing.code, field=f.name, value=wrong):
                        self.reckon(thing, f.name, wrong, w)

    def reckon(self, thing, name, value, w):
        try:
            odd = replace(thing, figures=replace(thing.figures, **{name: value}))
            option = Option(id="o", name="X", stages=(StageChoice(item=odd.code),))
            walk(option, {odd.code: odd}, w, None, home(), settings())
        except RuleError as e:
            self.assertTrue(e.remedy)

    def test_less_than_nothing_is_refused(self):
        for wrong in (-0.1, float("nan"), float("inf")):
            with self.assertRaises(RuleError) as e:
                item(SedimentFigures(style="cartridge", micron=wrong))
            self.assertEqual(e.exception.code, "item.micron")

    def test_what_is_divided_by_is_not_nothing(self):
        self.assertEqual(item(SedimentFigures(style="cartridge", micron=0.0)).figures.micron, 0.0)
        with self.assertRaises(RuleError) as e:
            item(NeutraliserFigures(style="upflow", volume_ft3=0.0))
        self.assertEqual(e.exception.code, "item.volume_ft3")

    def test_a_neutraliser_s_target_and_magnesia(self):
        for wrong in ({"target_ph": 5.9}, {"target_ph": 9.1}, {"magnesia_share": 0.51}):
            with self.assertRaises(RuleError, msg=str(wrong)):
                item(NeutraliserFigures(style="upflow", volume_ft3=1.5, **wrong))
        for right in ({"target_ph": 6.0}, {"target_ph": 9.0}, {"magnesia_share": 0.5}):
            item(NeutraliserFigures(style="upflow", volume_ft3=1.5, **right))


class MembraneFlow(unittest.TestCase):
    F = MembraneFigures(
        rated_gpd=75.0,
        rated_ratio=3.0,
        rejection=0.94,
        tank_gal=3.0,
        precharge_psi=7.0,
        shutoff_share=2 / 3,
    )

    def test_without_a_drain_the_feed_is_not_concentrated(self):
        # 60 psi less 500 mg/L at 0.01 psi a mg/L; 10 psi behind it take 10 more
        self.assertAlmostEqual(ndp(60.0, 500.0, 0.0), 55.0)
        self.assertAlmostEqual(ndp(60.0, 500.0, 0.0, 10.0), 45.0)

    def test_with_a_drain_of_one_to_one_it_is(self):
        # R = 1/2: −ln 0.5 / 0.5 = 1.3863; 60 − 5 × 1.3863
        self.assertAlmostEqual(ndp(60.0, 500.0, 1.0), 53.0685, 3)

    def test_a_tank_that_is_full_from_the_start_makes_nothing(self):
        # two thirds of 60 psi is 40: a pre-charge of 40 lets nothing in, one of 39 does
        full = replace(self.F, precharge_psi=40.0)
        self.assertEqual(at_home(full, 60.0, 300.0, 25.0).gpd, 0.0)
        self.assertGreater(at_home(replace(self.F, precharge_psi=39.0), 60.0, 300.0, 25.0).gpd, 0)

    def test_the_mean_back_pressure_of_its_tank(self):
        # air from 7 to 40 psi, 21.7 to 54.7 absolute: the mean over the volume that goes in is
        # 21.7 × ln(54.7 / 21.7) / (1 − 21.7 / 54.7) − 14.7 = 18.6 psi
        here = at_home(self.F, 60.0, 300.0, 25.0)
        self.assertAlmostEqual(here.back_psi, 18.56, 1)
        self.assertAlmostEqual(here.gpd, permeate_gpd(self.F, 60.0, 300.0, 25.0, here.back_psi))
        self.assertEqual(at_home(replace(self.F, tank_gal=None), 60.0, 300.0, 25.0).back_psi, 0.0)

    def test_nobody_drinks_and_nothing_is_divided(self):
        open_ = replace(self.F, shut_off=False)
        here = at_home(open_, 60.0, 300.0, 25.0)
        self.assertIsNone(waste_ratio(open_, here, 0.0))
        self.assertAlmostEqual(waste_ratio(open_, here, 2.0), here.drain / 2)

    def test_what_makes_nothing_drains_for_nothing_unless_it_has_no_drain(self):
        dead = at_home(self.F, 2.0, 2000.0, 25.0)
        self.assertEqual(dead.gpd, 0.0)
        self.assertEqual(for_nothing(self.F, dead), dead.drain)
        closed = replace(self.F, rated_ratio=0.0)
        self.assertEqual(for_nothing(closed, at_home(closed, 2.0, 2000.0, 25.0)), 0.0)


class MembraneHere(unittest.TestCase):
    of, values = Membrane.of, Membrane.values

    def test_manganese_fouls_it_from_a_twentieth(self):
        self.assertEqual(status(self.of({"manganese": 0.05}), "membrane.manganese"), "met")
        self.assertEqual(status(self.of({"manganese": 0.06}), "membrane.manganese"), "warn")

    def test_no_net_pressure_stops_it_and_its_drain_never_closes(self):
        r = self.of({"tds": 2000.0}, psi=(2.0, 2.0, 2.0))
        self.assertEqual(status(r, "membrane.drains"), "stop")
        lost = r.drains[-1]
        self.assertEqual((lost.largest_gal, lost.times_year), (0.0, 0.0))
        self.assertGreater(lost.gal_year, 1000)

    def test_no_net_pressure_and_no_drain_makes_nothing(self):
        r = self.of({"tds": 2000.0}, psi=(2.0, 2.0, 2.0), rated_ratio=0.0)
        self.assertEqual(status(r, "membrane.never"), "stop")
        self.assertEqual(status(r, "membrane.drains"), "")

    def test_less_than_a_gallon_is_less_than_is_drunk(self):
        # rated 1 gal/day at 60 psi and 500 mg/L: under 1 here, 2.8 are drunk
        r = self.of(rated_gpd=1.0)
        self.assertEqual(status(r, "membrane.yield"), "stop")
        self.assertEqual(status(r, "membrane.drains"), "")

    def test_a_tank_empties_at_once_and_none_does_not(self):
        tank = self.of(tank_gal=3.0, precharge_psi=7.0, shutoff_share=2 / 3).drains[0]
        self.assertAlmostEqual(tank.largest_gal, 3.0 * tank.per_gallon)
        self.assertEqual(self.of().drains[0].largest_gal, 0.0)

    def test_without_a_shut_off_it_is_said_also_where_the_yield_is_not_known(self):
        bare = {k: v for k, v in self.values.items() if k != "temperature"}
        figures = MembraneFigures(
            rated_gpd=50.0, rated_ratio=3.0, rejection=0.94, shut_off=False, efficiency=0.25
        )
        r = run(item(figures, "tap"), bare, **TOWN)
        self.assertEqual(status(r, "membrane.no_shutoff"), "warn")
        # 150 gal to the drain a day, four people drink 2.8
        self.assertAlmostEqual(r.drains[0].per_gallon, 150 / 2.8)
        self.assertAlmostEqual(r.drains[0].gal_year, 150 * 365.25, 3)

    def test_unsafe_feed_says_whether_it_was_found_or_is_likely(self):
        lake = run(
            item(MembraneFigures(rated_gpd=75.0, rated_ratio=3.0, rejection=0.94), "tap"),
            self.values,
            source=Source.LAKE,
        )
        self.assertEqual(status(lake, "membrane.feed"), "stop")
        self.assertIn("likely (surface water)", sentence(lake, "membrane.feed"))


class MembraneWorkings(unittest.TestCase):
    """The slips of the brief's own example: 75 gal/day at 60 psi, 500 mg/L and 25 °C, 3 to 1; here
    52 psi, 12 °C and 380 mg/L: 41.5 gal/day, 34.7 minutes a gallon, 209 to the drain, 5.0 to 1.
    """

    values = {**Membrane.values, "tds": 380.0, "temperature": 12.0}

    def rows(self, id, values=None, **more):
        r = Membrane.of(self, values, psi=(52.0, 52.0, 52.0), **more)
        shown = next(f for f in r.figures if f.id == id)
        rows = {x.label: (x.value, x.unit, x.total) for x in shown.working.rows}
        return rows, shown

    def test_what_it_makes(self):
        rows, shown = self.rows("yield")
        self.assertEqual(rows["so it makes"], ("41.5", "gal/day", True))
        self.assertTrue(rows["net driving pressure"][2])
        self.assertEqual(rows["a gallon takes"], ("34.7", "min", False))
        self.assertEqual(rows["a liter takes"], ("9.2", "min", False))
        # 0.01 × 380 × 1.1507
        self.assertEqual(rows["less 0.01 × 380 mg/L × 1.151"], ("4.4", "psi", False))
        self.assertAlmostEqual(shown.number, 41.5, 1)

    def test_without_a_drain_the_feed_counts_as_it_is(self):
        rows, _ = self.rows("yield", rated_ratio=0.0)
        self.assertEqual(rows["less 0.01 × 380 mg/L × 1.000"], ("3.8", "psi", False))

    def test_what_it_drains(self):
        rows, shown = self.rows("waste")
        self.assertEqual(rows["drain while it runs"], ("209", "gal/day", False))
        self.assertEqual(rows["over a year"], ("5.0", "to 1", True))
        self.assertEqual(rows["concentrate while it runs"], ("451", "mg/L", False))
        self.assertEqual(shown.working.formula, "drain ÷ permeate here")
        self.assertNotIn("efficiency rating, tank and shut-off in use", rows)

    def test_an_efficiency_rating_stands_in_the_slip(self):
        rows, shown = self.rows("waste", efficiency=0.25)
        rated = rows["efficiency rating, tank and shut-off in use"]
        self.assertEqual(rated, ("25", "%", False))
        self.assertEqual(rows["over a year"], ("3.0", "to 1", True))
        self.assertEqual(shown.working.formula, "efficiency rating")

    def test_as_rated_while_its_yield_is_not_known(self):
        bare = {k: v for k, v in self.values.items() if k != "temperature"}
        for more, formula, ratio in (
            ({"efficiency": 0.25}, "(1 − efficiency) ÷ efficiency", 3.0),
            ({"efficiency": 0.25, "shut_off": False}, "drain of the whole day ÷ use", 225 / 2.8),
        ):
            figures = MembraneFigures(rated_gpd=75.0, rated_ratio=3.0, rejection=0.94, **more)
            r = run(item(figures, "tap"), bare, **TOWN)
            shown = next(f for f in r.figures if f.id == "waste")
            self.assertEqual(shown.working.formula, formula)
            self.assertAlmostEqual(shown.number, ratio)

    def test_a_glass_without_a_tank(self):
        # 1/16 gal at 41.5 a day: 130 seconds; 237 mL
        rows, shown = self.rows("glass")
        self.assertAlmostEqual(shown.number, 86_400 / 16 / 41.5, 0)
        self.assertEqual(rows["a glass"], ("237", "mL", False))

    def test_less_than_a_gallon_a_day_still_fills_a_glass(self):
        _, shown = self.rows("glass", rated_gpd=1.0)
        self.assertGreater(shown.number, 5000)

    def test_with_a_tank_its_hours_are_shown(self):
        ids = [
            f.id
            for f in Membrane.of(
                self, psi=(52.0,) * 3, tank_gal=3.0, precharge_psi=7.0, shutoff_share=2 / 3
            ).figures
        ]
        self.assertEqual(ids, ["yield", "waste", "fill"])


class ByTheWeek(unittest.TestCase):
    def test_a_backwash_to_a_septic_tank_is_counted_by_the_week(self):
        # 60 gal every third day: 140 a week
        figures = SedimentFigures(
            style="backwashing", micron=20.0, backwash_gpm=5.0, backwash_gal=60.0, backwash_days=3.0
        )
        r = run(item(figures), {"turbidity": 2.0}, septic=True)
        said = sentence(r, "septic.discharge")
        self.assertIn("60 gal at once", said)
        self.assertIn("140 gal a week", said)

    def test_no_salt_in_it(self):
        figures = SedimentFigures(
            style="backwashing", micron=20.0, backwash_gpm=5.0, backwash_gal=60.0, backwash_days=3.0
        )
        self.assertFalse(run(item(figures), {"turbidity": 2.0}).drains[0].brine)


class YearlyService(unittest.TestCase):
    def running(self, service, **about):
        thing = item(SedimentFigures(style="cartridge", micron=5.0), service_year=Decimal(service))
        return [r.per_year for r in run(thing, {"turbidity": 1.0}, **about).running]

    def test_what_its_service_costs_a_year(self):
        self.assertEqual(self.running("0.50"), [Decimal("0.50")])
        self.assertEqual(self.running("0"), [])


class LampRatings(unittest.TestCase):
    def uv(self, table):
        return item(replace(Lamp.figures, table=table))

    def test_a_table_rises_and_every_flow_is_above_nothing(self):
        for wrong in (
            (),
            ((80.0, 8.0), (70.0, 4.0)),
            ((70.0, 4.0), (70.0, 5.0)),
            ((70.0, 0.0), (80.0, 8.0)),
            ((70.0, 4.0), (80.0, -1.0)),
        ):
            with self.subTest(wrong), self.assertRaises(RuleError):
                self.uv(wrong)
        self.assertEqual(self.uv(((70.0, 4.0), (80.0, 8.0))).figures.largest_gpm, 8.0)

    def flow(self, overrides=None, scope="house", **about):
        thing = item(Lamp.figures, scope)
        drawn = water(**Lamp.clear)
        site = site_of(home(**about), settings(), drawn)
        stream = source_stream(drawn, None, Range.exact(55.0))
        return design_flow(
            StageInput(item=thing, stream=stream, site=site, overrides=overrides or {}, ahead=())
        )

    def test_the_larger_of_the_table_and_the_bucket_decides(self):
        # two bathrooms: 9 gpm by the table; times 1.25
        full = {"flow_full_bore": True}
        self.assertAlmostEqual(self.flow(), 11.25)
        self.assertAlmostEqual(self.flow(flow_gpm=14.0, **full), 17.5)
        self.assertAlmostEqual(self.flow(flow_gpm=5.0, **full), 11.25)
        self.assertAlmostEqual(self.flow(flow_gpm=14.0, flow_full_bore=False), 11.25)

    def test_limiters_as_they_are_made(self):
        for gpm in (0.25, 0.5, 11.0):
            self.assertAlmostEqual(self.flow({"limiter_gpm": gpm}), gpm)
        self.assertAlmostEqual(self.flow({"limiter_gpm": 100.0}), 11.25)
        for gpm in (0.24, 100.5):
            with self.assertRaises(RuleError, msg=gpm):
                self.flow({"limiter_gpm": gpm})

    def test_at_the_tap_half_a_gallon_a_minute(self):
        self.assertAlmostEqual(self.flow(scope="tap"), 0.625)


class LampHere(unittest.TestCase):
    of, clear, figures, fine = Lamp.of, Lamp.clear, Lamp.figures, Lamp.fine

    def asked(self, coloured):
        drawn = {k: v for k, v in self.clear.items() if k != "uvt"}
        w = water(**drawn)
        site = site_of(home(), settings(), w)
        source = replace(source_stream(w, None, Range.exact(55.0)), coloured=coloured)
        inp = StageInput(
            item=item(self.figures), stream=source, site=site, overrides={}, ahead=(self.fine,)
        )
        return sentence(TECHNOLOGIES["uv"].run(inp), "uv.uvt_unknown")

    def test_clear_to_the_eye_says_less_than_colour_that_is_open(self):
        self.assertEqual(self.asked(False), "Transmittance not measured.")
        self.assertNotEqual(self.asked(None), self.asked(False))
        self.assertEqual(self.asked(None), self.asked(True))

    def test_microbes_behind_it_are_established_by_a_claim_alone(self):
        w = water(**self.clear)
        found = Quantity(range=None, state="measured", words="present")
        site = site_of(home(headroom_in=80.0), settings(), w)
        source = source_stream(w, None, Range.exact(55.0)).with_({"coliform": found})
        inp = StageInput(
            item=item(self.figures), stream=source, site=site, overrides={}, ahead=(self.fine,)
        )
        behind = TECHNOLOGIES["uv"].run(inp).outlet.get("coliform")
        self.assertEqual(behind.words, "inactivated at the lamp")
        self.assertFalse(behind.established)


if __name__ == "__main__":
    unittest.main()
