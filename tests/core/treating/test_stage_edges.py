"""Where a stage's answer turns: the last value that passes and the first that does not, worked by
hand from the rules of the trade and the makers' figures.
"""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.making import home, settings, water
from zesty_glass.core.evidence import Evidence, Level
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.figures import Figures
from zesty_glass.core.treating.items import Effect, Item
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.by_clock import backwash_of, cost_of, drain_of, rinses
from zesty_glass.core.treating.stages.carbon import CarbonFigures
from zesty_glass.core.treating.stages.cartridge import CartridgeFigures
from zesty_glass.core.treating.stages.common import StageInput, after, claimed
from zesty_glass.core.treating.stages.conditioner import ConditionerFigures
from zesty_glass.core.treating.stages.distiller import DistillerFigures, residue_gal
from zesty_glass.core.treating.stages.iron_filter import IronFilterFigures
from zesty_glass.core.treating.stages.sediment import SedimentFigures
from zesty_glass.core.treating.stream import Quantity, source_stream

TOWN = {"source": Source.CITY, "pump_gpm": None}
STATED = Evidence(level=Level.MAKER_STATES)
CERTIFIED = Evidence(level=Level.CERTIFIED)


def item(figures: Figures, scope: str = "house", **more) -> Item:
    base = {
        "code": "x",
        "name": "X",
        "maker": "M",
        "scope": scope,
        "price": Decimal(100),
        "figures": figures,
        "flow_gpm": 30.0,
    }
    return Item(**{**base, **more})


def run(thing: Item, values: dict, psi=(50.0, 55.0, 60.0), ahead=(), rusted=None, **about):
    drawn = water(**values)
    site = site_of(home(**about), settings(), drawn)
    source = source_stream(drawn, None, None if psi is None else Range.of(*psi))
    inp = StageInput(
        item=thing,
        stream=replace(source, particulate_iron=rusted),
        site=site,
        overrides={},
        ahead=tuple(ahead),
    )
    return TECHNOLOGIES[thing.kind].run(inp)


def status(report, id: str) -> str:
    """The gravest status of a check."""
    order = ("", "met", "say", "warn", "unknown", "stop")
    return max((c.status for c in report.checks if c.id == id), key=order.index, default="")


def figure(report, id: str) -> float:
    return next(f.number for f in report.figures if f.id == id)


class Claims(unittest.TestCase):
    def effect(self, **more) -> Effect:
        return Effect(**{"analyte": "arsenic", "evidence": CERTIFIED, **more})

    def test_a_window_of_ph_holds_with_its_edges(self):
        e = self.effect(low=0.5, best=0.7, high=0.9, ph_min=6.0, ph_max=8.0)
        for low, high, level in (
            (6.0, 8.0, Level.CERTIFIED),
            (5.9, 7.0, Level.NO_CLAIM),
            (7.0, 8.1, Level.NO_CLAIM),
        ):
            self.assertIs(claimed(e, Range.of(low, low, high)), level, (low, high))
        self.assertIs(claimed(e, None), Level.NO_CLAIM)
        self.assertIs(claimed(e, Range.of(7.0, 7.0, None)), Level.NO_CLAIM)

    def test_one_side_of_a_window(self):
        least, most = self.effect(ph_min=6.0), self.effect(ph_max=8.0)
        self.assertIs(claimed(least, Range.exact(9.5)), Level.CERTIFIED)
        self.assertIs(claimed(most, Range.exact(4.0)), Level.CERTIFIED)
        self.assertIs(claimed(self.effect(), None), Level.CERTIFIED)

    def test_a_share_taken_from_a_range(self):
        q = Quantity(range=Range.of(8.0, 10.0, 12.0), state="measured")
        out = after(self.effect(low=0.5, best=0.7, high=0.9), q, Level.CERTIFIED)
        r = out.range
        self.assertEqual([round(x, 6) for x in (r.low, r.best, r.high)], [0.8, 3.0, 6.0])

    def test_at_most_so_much_behind_it(self):
        # half at least is taken of 8 to 12, and no more than 2 is left: 0.8, 2, 2
        q = Quantity(range=Range.of(8.0, 10.0, 12.0), state="measured")
        e = self.effect(low=0.5, best=0.7, high=0.9, out_at_most=2.0)
        r = after(e, q, Level.CERTIFIED).range
        self.assertEqual([round(x, 6) for x in (r.low, r.best, r.high)], [0.8, 2.0, 2.0])

    def test_a_claim_on_the_product_alone(self):
        # nothing said of the share: anything from 0 to 2, half of it the best; less where less came
        e = self.effect(out_at_most=2.0)
        q = Quantity(range=Range.of(8.0, 10.0, 12.0), state="measured")
        r = after(e, q, Level.CERTIFIED).range
        self.assertEqual((r.low, r.best, r.high), (0.0, 1.0, 2.0))
        little = Quantity(range=Range.of(0.4, 0.5, 0.6), state="measured")
        r = after(e, little, Level.CERTIFIED).range
        self.assertEqual((r.low, r.best, r.high), (0.0, 0.5, 0.6))
        open_ended = Quantity(range=Range.of(8.0, 8.0, None), state="measured")
        self.assertEqual(after(e, open_ended, Level.CERTIFIED).range.high, 2.0)

    def test_without_a_certificate_health_is_not_established(self):
        q = Quantity(range=Range.exact(10.0), state="measured")
        e = self.effect(low=0.9, best=0.9, high=0.9, evidence=STATED)
        self.assertFalse(after(e, q, Level.MAKER_STATES).established)
        iron = Effect(analyte="iron", low=0.9, best=0.9, high=0.9, evidence=STATED)
        self.assertTrue(after(iron, q, Level.MAKER_STATES).established)

    def test_what_was_never_tested_is_not_made(self):
        self.assertIsNone(after(self.effect(low=0.9, best=0.9, high=0.9), None, Level.CERTIFIED))


class Clock(unittest.TestCase):
    def test_rinses_in_a_seasonal_home(self):
        year = rinses(3.0, 60.0, 90.0)
        self.assertEqual((year.times, year.gal_year), (30.0, 1800.0))
        d = drain_of(year, "backwash", "tap", brine=True)
        self.assertEqual((d.gal_year, d.largest_gal, d.times_year), (1800.0, 60.0, 30.0))
        self.assertEqual((d.scope, d.brine), ("tap", True))

    def test_water_that_costs_nothing_is_no_cost(self):
        drawn = water(ph=7.0)
        free = site_of(home(septic=True, water_price=Decimal(0)), settings(), drawn)
        self.assertEqual(cost_of(rinses(3.0, 60.0, 90.0), free), ())

    def test_what_the_item_does_not_state_is_no_backwash(self):
        thing = item(SedimentFigures(style="backwashing", micron=20.0))
        inp = StageInput(
            item=thing,
            stream=source_stream(water(ph=7.0), None, None),
            site=site_of(home(), settings(), water(ph=7.0)),
            overrides={},
        )
        for gal, days in ((None, 3.0), (60.0, None), (0.0, 3.0)):
            self.assertEqual(backwash_of(5.0, gal, days, inp).drains, ())
        (drain,) = backwash_of(5.0, 60.0, 3.0, inp).drains
        self.assertAlmostEqual(drain.times_year, 365.25 / 3)


class Carbon(unittest.TestCase):
    """7.48 gal a ft³; the peak of two bathrooms is 9 gpm."""

    def of(self, ft3: float | None, values=None, media="standard", scope="house", **about):
        effect = Effect(analyte="chlorine_free", low=0.9, best=0.95, high=0.98, evidence=STATED)
        thing = item(CarbonFigures(media=media, volume_ft3=ft3), scope, effects=(effect,))
        return run(thing, values or {"chlorine_free": 1.0, "radon": 100.0}, **about)

    def test_a_minute_and_a_half_for_free_chlorine(self):
        # 1.5 min x 9 gpm / 7.48 = 1.805 ft³
        self.assertEqual(status(self.of(1.81), "carbon.ebct"), "met")
        self.assertEqual(status(self.of(1.80), "carbon.ebct"), "warn")

    def test_too_short_a_contact_weakens_the_claim_by_its_share(self):
        # 0.9 ft³: 0.748 min of 1.5, half: high end half-way from 0.1 back to 1.0
        r = self.of(0.9).outlet.range("chlorine_free")
        self.assertAlmostEqual(r.high, 1.0 - 0.9 * 0.748 / 1.5, 3)
        self.assertEqual(self.of(1.81).outlet.range("chlorine_free").high, 1.0 * (1 - 0.9))

    def test_chlorine_that_no_kit_shows_asks_no_contact(self):
        little = {"chlorine_free": 0.04, "radon": 100.0}
        self.assertEqual(status(self.of(0.5, little), "carbon.ebct"), "")
        some = {"chlorine_free": 0.05, "radon": 100.0}
        self.assertEqual(status(self.of(0.5, some), "carbon.ebct"), "warn")

    def test_a_volume_that_is_not_stated_is_asked_of_the_house_alone(self):
        self.assertEqual(status(self.of(None), "carbon.volume"), "unknown")
        self.assertEqual(status(self.of(None, scope="tap"), "carbon.volume"), "")

    def test_the_contact_is_shown(self):
        self.assertAlmostEqual(figure(self.of(3.0), "ebct"), 7.48 * 3 / 9, 6)

    def test_radon_collects_in_a_bed_of_the_house(self):
        for radon, said in ((5000.0, "met"), (5001.0, "stop")):
            found = self.of(3.0, {"chlorine_free": 1.0, "radon": radon})
            self.assertEqual(status(found, "carbon.radon"), said)
        wide = self.of(3.0, {"chlorine_free": 1.0, "radon": Range.of(4000, 4900, 5100)})
        self.assertEqual(status(wide, "carbon.radon"), "stop")
        unknown = self.of(3.0, {"chlorine_free": 1.0})
        self.assertEqual(status(unknown, "carbon.radon_unknown"), "unknown")
        town = self.of(3.0, {"chlorine_free": 1.0}, **TOWN)
        self.assertEqual(status(town, "carbon.radon_unknown"), "")
        tap = self.of(None, {"chlorine_free": 1.0, "radon": 9000.0}, scope="tap")
        self.assertEqual(status(tap, "carbon.radon"), "")

    def test_the_disinfectant_is_gone_behind_it_on_a_town_main(self):
        self.assertEqual(status(self.of(3.0, **TOWN), "carbon.disinfectant"), "say")
        self.assertEqual(status(self.of(3.0), "carbon.disinfectant"), "")
        self.assertEqual(status(self.of(1.0, scope="tap", **TOWN), "carbon.disinfectant"), "")

    def test_total_chlorine_behind_it_is_free_and_combined(self):
        both = tuple(
            Effect(analyte=a, low=0.5, best=0.5, high=0.5, evidence=STATED)
            for a in ("chlorine_free", "chlorine_combined")
        )
        thing = item(CarbonFigures(media="catalytic", volume_ft3=30.0), effects=both)
        values = {"chlorine_free": 0.4, "chlorine_combined": 1.0, "chlorine_total": 1.4}
        out = run(thing, {**values, "radon": 10.0}).outlet
        self.assertAlmostEqual(out.range("chlorine_total").best, 0.7)


class Cartridge(unittest.TestCase):
    effect = Effect(analyte="fluoride", low=0.8, best=0.9, high=0.95, evidence=CERTIFIED)

    def of(self, ph, media="bone_char", window=(6.0, 8.0)):
        f = CartridgeFigures(media=media, ph_min=window[0], ph_max=window[1])
        values = {"fluoride": 3.0} if ph is None else {"fluoride": 3.0, "ph": ph}
        return run(item(f, "tap", effects=(self.effect,)), values)

    def test_inside_its_window_and_at_its_edges(self):
        for ph, said in ((6.0, "met"), (8.0, "met"), (5.9, "stop"), (8.1, "stop")):
            self.assertEqual(status(self.of(ph), "cartridge.ph"), said, ph)

    def test_outside_it_nothing_is_claimed(self):
        inside, outside = self.of(7.0), self.of(8.5)
        self.assertAlmostEqual(inside.outlet.range("fluoride").best, 0.3)
        self.assertEqual(outside.outlet.range("fluoride").best, 3.0)
        self.assertEqual((inside.held_back, outside.held_back), ((), ("fluoride",)))

    def test_alumina_and_fluoride_above_seven_and_a_half(self):
        wide = (4.0, 9.0)
        self.assertEqual(status(self.of(7.5, "alumina", wide), "cartridge.fluoride"), "")
        self.assertEqual(status(self.of(7.6, "alumina", wide), "cartridge.fluoride"), "stop")
        self.assertEqual(status(self.of(7.6, "bone_char", wide), "cartridge.fluoride"), "")

    def test_no_window_stated_is_no_claim_but_a_warning_for_tannin_resin(self):
        none = (None, None)
        self.assertEqual(status(self.of(7.0, "other", none), "cartridge.no_window"), "stop")
        self.assertEqual(status(self.of(7.0, "tannin_resin", none), "cartridge.no_window"), "warn")
        self.assertEqual(self.of(7.0, "other", none).outlet.range("fluoride").best, 3.0)

    def test_a_ph_that_nobody_knows_stops_the_claim(self):
        self.assertEqual(self.of(None).outlet.range("fluoride").best, 3.0)

    def test_one_side_of_a_window_is_enough(self):
        self.assertEqual(status(self.of(4.0, window=(None, 8.0)), "cartridge.ph"), "met")
        self.assertEqual(status(self.of(9.0, window=(6.0, None)), "cartridge.ph"), "met")


class Conditioner(unittest.TestCase):
    def of(self, least=0.0, most=12.0, kind="salt_free", covers="house", manganese=0.01):
        f = ConditionerFigures(kind=kind, covers=covers, flow_min_gpm=least, flow_max_gpm=most)
        thing = item(f, drop_psi=4.0, drop_gpm=18.0)
        return run(thing, {"hardness": 250.0, "iron": 0.1, "manganese": manganese})

    def test_the_peak_lies_within_what_it_is_made_for(self):
        for least, most, said in (
            (0.0, 9.0, "met"),
            (0.0, 8.9, "warn"),
            (9.0, 12.0, "met"),
            (9.1, 12.0, "warn"),
        ):
            self.assertEqual(status(self.of(least, most), "conditioner.flow"), said, (least, most))

    def test_one_appliance_has_no_peak_of_the_house(self):
        self.assertEqual(status(self.of(0.0, 3.0, covers="appliance"), "conditioner.flow"), "")

    def test_the_minerals_stay_and_that_is_said(self):
        r = self.of()
        self.assertEqual(r.outlet.range("hardness").best, 250.0)
        self.assertIs(r.outlet.get("hardness").evidence, Level.DOES_NOT_REMOVE)
        self.assertEqual(status(r, "conditioner.minerals"), "say")

    def test_manganese_coats_its_media_from_a_twentieth_of_a_milligram(self):
        for manganese, said in ((0.05, "met"), (0.051, "warn")):
            r = self.of(manganese=manganese)
            self.assertEqual(status(r, "salt_free.manganese"), said, manganese)

    def test_one_appliance_takes_no_pressure_from_the_house(self):
        # 4 psi at 18 gpm; the peak of two bathrooms is 9: a quarter of it
        self.assertEqual(self.of().drop_psi, 1.0)
        self.assertEqual(self.of(covers="appliance").drop_psi, 0.0)

    def test_a_physical_device_is_disputed(self):
        physical = self.of(kind="physical")
        self.assertEqual(status(physical, "physical.disputed"), "warn")
        self.assertEqual(status(physical, "conditioner.evidence"), "")
        self.assertEqual(status(self.of(), "physical.disputed"), "")


class Distiller(unittest.TestCase):
    """Four people at 0.7 gal: 2.8 gal a day, 1,022.7 a year."""

    def of(self, **more):
        base = {"kwh_gal": 3.0, "gal_day": 4.0, "residue_share": 0.1}
        return run(item(DistillerFigures(**{**base, **more}), "tap"), {"tds": 500.0})

    def test_it_makes_what_is_drunk_or_stops(self):
        self.assertEqual(status(self.of(gal_day=2.8), "membrane.yield"), "met")
        self.assertEqual(status(self.of(gal_day=2.7), "membrane.yield"), "stop")

    def test_less_than_boiling_takes_cannot_be(self):
        self.assertEqual(status(self.of(kwh_gal=2.7), "distiller.energy"), "")
        self.assertEqual(status(self.of(kwh_gal=2.6), "distiller.energy"), "warn")

    def test_rejection_with_its_ends(self):
        # 98 %, 2 points under and 1.5 over: 500 x 0.02 = 10, 4 % = 20, 0.5 % = 2.5
        r = self.of().outlet.range("tds")
        self.assertEqual([round(x, 6) for x in (r.low, r.best, r.high)], [2.5, 10.0, 20.0])
        r = self.of(rejection=1.0).outlet.range("tds")
        self.assertEqual((r.low, r.best, round(r.high, 6)), (0.0, 0.0, 10.0))

    def test_power_residue_and_batches(self):
        r = self.of()
        self.assertAlmostEqual(figure(r, "power"), 3 * 1022.7, 1)
        self.assertAlmostEqual(r.drains[0].gal_year, 1022.7 / 9, 1)
        self.assertAlmostEqual(r.drains[0].per_gallon, 1 / 9, 6)
        self.assertAlmostEqual(r.chores[0].times_year, 1022.7, 1)
        self.assertEqual(self.of(automatic=True).chores, ())
        self.assertEqual(residue_gal(90.0, 0.0), 0.0)

    def test_nobody_drinks_and_nothing_is_divided(self):
        thing = item(DistillerFigures(kwh_gal=3.0, gal_day=4.0, residue_share=0.1), "tap")
        self.assertEqual(run(thing, {"tds": 500.0}, people=0).drains[0].per_gallon, 0.0)


class Sediment(unittest.TestCase):
    def of(self, micron: float, rusted: bool | None = True, scope="house"):
        thing = item(SedimentFigures(style="cartridge", micron=micron), scope)
        return run(thing, {"turbidity": 2.0}, rusted=rusted)

    def test_rusted_iron_is_held_by_five_microns(self):
        self.assertIs(self.of(5.0).outlet.particulate_iron, False)
        self.assertIs(self.of(5.1).outlet.particulate_iron, True)
        self.assertIsNone(self.of(1.0, rusted=None).outlet.particulate_iron)

    def test_only_a_backwashing_one_washes_itself(self):
        base = {"micron": 20.0, "backwash_gpm": 5.0, "backwash_gal": 60.0, "backwash_days": 3.0}
        washing = run(item(SedimentFigures(style="backwashing", **base)), {"turbidity": 2.0})
        self.assertAlmostEqual(washing.drains[0].gal_year, 365.25 / 3 * 60)
        still = run(item(SedimentFigures(style="cartridge", **base)), {"turbidity": 2.0})
        self.assertEqual(still.drains, ())


class Iron(unittest.TestCase):
    effect = Effect(analyte="iron", low=0.9, best=0.95, high=0.99, evidence=STATED)

    def figures(self, **more):
        return IronFilterFigures(
            iron_max=5.0,
            manganese_max=1.0,
            sulfide_max=2.0,
            ph_min_iron=6.8,
            ph_min_manganese=7.5,
            backwash_gpm=5.0,
            backwash_gal=60.0,
            backwash_days=3.0,
            **more,
        )

    def of(self, oxidant="air", about=None, **values):
        f = self.figures(oxidant=oxidant)
        base = {"iron": 3.0, "ph": 7.6, "tannin": 0.0, "hydrogen_sulfide": 0.0, "manganese": 0.0}
        measured = {k: v for k, v in {**base, **values}.items() if v is not None}
        return run(item(f, effects=(self.effect,)), measured, **(about or {}))

    def test_its_most_iron(self):
        self.assertEqual(status(self.of(iron=5.0), "iron_filter.iron"), "met")
        over = self.of(iron=5.1)
        self.assertEqual(status(over, "iron_filter.iron"), "stop")
        self.assertEqual(over.outlet.range("iron").best, 5.1)

    def test_its_ph_for_iron_and_a_higher_one_for_manganese(self):
        self.assertEqual(status(self.of(ph=6.8), "iron.ph"), "met")
        self.assertEqual(status(self.of(ph=6.7), "iron.ph"), "stop")
        self.assertEqual(status(self.of(ph=7.0, manganese=0.05), "iron.ph"), "met")
        self.assertEqual(status(self.of(ph=7.0, manganese=0.06), "iron.ph"), "stop")
        self.assertEqual(status(self.of(ph=7.5, manganese=0.06), "iron.ph"), "met")
        self.assertEqual(status(self.of(ph=Range.of(6.7, 6.8, 6.9)), "iron.ph"), "warn")

    def test_tannin_binds_iron_from_half_a_milligram(self):
        self.assertEqual(status(self.of(tannin=0.49), "iron.tannin"), "")
        bound = self.of(tannin=0.5)
        self.assertEqual(status(bound, "iron.tannin"), "stop")
        self.assertEqual(bound.outlet.range("iron").best, 3.0)
        astride = self.of(tannin=Range.of(0.4, 0.5, 0.6))
        self.assertEqual(status(astride, "iron.tannin_maybe"), "warn")

    def test_what_is_not_known_is_asked_on_a_well_and_of_iron_alone_in_town(self):
        def unknown(**about):
            r = self.of(iron=None, manganese=None, hydrogen_sulfide=None, about=about)
            return sorted(
                c.id.split(".")[1]
                for c in r.checks
                if c.status == "unknown" and c.id.startswith("iron_filter.")
            )

        self.assertEqual(unknown(), ["hydrogen_sulfide", "iron", "manganese"])
        self.assertEqual(unknown(**TOWN), ["iron"])

    def test_little_dissolved_iron_is_left_where_it_works_and_some_was_measured(self):
        left = self.of(iron_ferrous=2.0).outlet.get("iron_ferrous")
        self.assertEqual((left.range.low, left.range.best, left.range.high), (0.0, 0.05, 0.1))
        self.assertIs(left.evidence, Level.TYPICAL)
        self.assertIsNone(self.of().outlet.get("iron_ferrous"))
        defeated = self.of(iron_ferrous=2.0, ph=6.0).outlet
        self.assertEqual(defeated.range("iron_ferrous").best, 2.0)

    def test_the_least_ph_for_all_that_it_claims(self):
        self.assertEqual(self.figures().wants_ph, 7.5)
        self.assertEqual(replace(self.figures(), ph_min_manganese=None).wants_ph, 6.8)

    def test_it_says_what_oxidises(self):
        self.assertEqual(self.of().summary, "air")
        self.assertEqual(self.of(oxidant="chlorine").summary, "chlorine")

    def test_no_rusted_iron_behind_it_where_it_works(self):
        self.assertIs(self.of().outlet.particulate_iron, False)
        self.assertIsNone(self.of(ph=6.0).outlet.particulate_iron)


if __name__ == "__main__":
    unittest.main()
