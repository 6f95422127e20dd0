"""Where what a stage says turns, and the small things it carries along: worked by hand."""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.core.treating.test_stage_edges import CERTIFIED, TOWN, figure, item, run, status
from tests.making import home, settings, water
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.items import Consumable, Effect
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages.carbon import CarbonFigures, _weakened
from zesty_glass.core.treating.stages.cartridge import CartridgeFigures
from zesty_glass.core.treating.stages.common import lasts_days, standing_costs, weekend_checks
from zesty_glass.core.treating.stages.membrane_flow import MembraneFigures
from zesty_glass.core.treating.stages.salt import salt_chore, salt_costs
from zesty_glass.core.treating.stages.uv import UvFigures, flow_at
from zesty_glass.core.treating.stream import Quantity

ARSENIC = Effect(analyte="arsenic", low=0.9, best=0.95, high=0.97, evidence=CERTIFIED)


def site(firm=None, **about):
    return site_of(home(**about), firm or settings(), water())


def cartridge(capacity, **more):
    part = Consumable(code="c", name="C", kind="filter", price=Decimal(9), capacity_gal=capacity)
    figures = CartridgeFigures(media="other", ph_min=6.0, ph_max=9.0)
    return item(figures, "tap", consumables=(part,), **more)


class OneCartridge:
    """A stage that treats so many gallons, at a home that uses ``gallons`` on a day."""

    def __init__(self, capacity, gallons, days=365.0):
        part = Consumable(
            code="c", name="C", kind="filter", price=Decimal(9), capacity_gal=capacity
        )
        figures = CartridgeFigures(media="other", ph_min=6.0, ph_max=9.0)
        self.item = item(figures, "tap", consumables=(part,))
        plain = site(**TOWN)
        demand = replace(plain.demand, occupied_days=days, drinking_gal_year=gallons * days)
        self.site = replace(plain, demand=demand)


class Cartridges(unittest.TestCase):
    def test_capacity_over_gallons_a_day(self):
        (days,) = lasts_days(OneCartridge(300.0, 2.0))
        self.assertAlmostEqual(days.number, 150.0)

    def test_less_than_a_gallon_a_day_is_use_too(self):
        (days,) = lasts_days(OneCartridge(300.0, 0.5))
        self.assertAlmostEqual(days.number, 600.0)

    def test_nobody_uses_it(self):
        self.assertEqual(lasts_days(OneCartridge(300.0, 0.0)), ())

    def test_warned_of_when_it_lasts_less_than_sixty_days(self):
        def days_of(capacity):
            thing = cartridge(capacity, effects=(ARSENIC,))
            return run(thing, {"arsenic": 0.02, "ph": 7.0}, **TOWN)

        a_day = figure(days_of(100.0), "days") / 100.0
        self.assertEqual(status(days_of(60.5 / a_day), "cartridge.days"), "")
        self.assertEqual(status(days_of(59.5 / a_day), "cartridge.days"), "warn")

    def test_a_full_weekend_is_two_days(self):
        for capacity, said in ((3.9, "warn"), (4.0, "say"), (4.1, "say")):
            (check,) = weekend_checks(OneCartridge(capacity, 2.0, days=100.0))
            self.assertEqual(check.status, said, capacity)

    def test_a_weekend_is_said_in_days_and_below_one_in_hours(self):
        (one,) = weekend_checks(OneCartridge(2.0, 2.0, days=100.0))
        self.assertIn("lasts 1.0 days", one.sentence)
        (less,) = weekend_checks(OneCartridge(1.0, 2.0, days=100.0))
        self.assertIn("lasts 12 hours", less.sentence)

    def test_a_home_lived_in_all_year_has_no_weekends(self):
        self.assertEqual(weekend_checks(OneCartridge(4.0, 2.0, days=200.0)), [])
        self.assertEqual(len(weekend_checks(OneCartridge(4.0, 2.0, days=199.0))), 1)


class Standing(unittest.TestCase):
    FIGURES = CarbonFigures(media="standard", volume_ft3=1.5)

    def test_a_kilowatt_hour_a_year_costs(self):
        at = site()
        one = standing_costs(item(self.FIGURES, kwh_year=1.0), at)
        self.assertEqual([c.per_year for c in one], [at.settings.electricity])
        self.assertEqual(standing_costs(item(self.FIGURES), at), ())

    def test_a_visit_a_year_costs(self):
        (one,) = standing_costs(item(self.FIGURES, service_year=Decimal(1)), site())
        self.assertEqual((one.kind, one.per_year), ("service", Decimal(1)))


class Salt(unittest.TestCase):
    def test_brought_for_a_dollar_a_bag(self):
        # 400 lb are ten bags of 40 lb
        at = site(settings(salt_bag=Decimal(10), salt_delivery=Decimal(1)))
        salt, brought = salt_costs(400.0, at)
        self.assertEqual((salt.per_year, brought.per_year), (Decimal(100), Decimal(10)))
        chore = salt_chore(400.0, at)
        self.assertEqual(
            (chore.label, chore.times_year, chore.bags), ("Fill in salt that is brought", 5.0, 0)
        )

    def test_fetched(self):
        at = site(settings(salt_bag=Decimal(10)))
        self.assertEqual([c.label for c in salt_costs(400.0, at)], ["Salt"])
        chore = salt_chore(400.0, at)
        self.assertEqual((chore.label, chore.times_year, chore.bags), ("Carry salt", 5.0, 10.0))


class Carbon(unittest.TestCase):
    NOW = Quantity(range=Range.of(0.9, 1.0, 1.1), state="measured", evidence=CERTIFIED.level)
    CLAIM = Quantity(range=Range.of(0.0, 0.05, 0.1), state="predicted", evidence=CERTIFIED.level)

    def test_half_the_contact_leaves_half_of_what_enters(self):
        # 1.1 − (1.1 − 0.1) · 0.5
        left = _weakened(self.CLAIM, self.NOW, 0.5)
        self.assertAlmostEqual(left.range.high, 0.6)

    def test_an_end_that_nobody_knows_stays_unknown(self):
        open_end = replace(self.NOW, range=Range(low=0.9, best=1.0, high=None))
        open_claim = replace(self.CLAIM, range=Range(low=0.0, best=0.05, high=None))
        nothing = replace(self.NOW, range=None)
        for claim, now in (
            (self.CLAIM, open_end),
            (open_claim, self.NOW),
            (self.CLAIM, nothing),
            (nothing, self.NOW),
        ):
            self.assertIsNone(_weakened(claim, now, 0.5))

    def test_at_the_tap_it_takes_no_pressure_of_the_house(self):
        thing = item(CarbonFigures(media="standard"), "tap")
        psi = run(thing, {"chlorine_free": 1.0}, **TOWN).outlet.psi
        self.assertEqual((psi.low, psi.best, psi.high), (50.0, 55.0, 60.0))


class Membrane(unittest.TestCase):
    def of(self, effects=(), values=None, **figures):
        made = {"rated_gpd": 75.0, "rated_ratio": 3.0, "rejection": 0.94, **figures}
        thing = item(MembraneFigures(**made), "tap", effects=effects)
        return run(thing, values or {"tds": 400.0, "temperature": 15.0}, **TOWN)

    def test_arsenic_is_asked_for_its_species_only_where_it_is_claimed_and_there(self):
        there = {"tds": 400.0, "arsenic": 0.02}
        nitrate = replace(ARSENIC, analyte="nitrate_n")
        self.assertEqual(status(self.of((ARSENIC,), there), "arsenic.species"), "unknown")
        self.assertEqual(status(self.of((nitrate,), there), "arsenic.species"), "")
        self.assertEqual(status(self.of((), there), "arsenic.species"), "")
        self.assertEqual(status(self.of((ARSENIC,)), "arsenic.species"), "")

    def test_water_to_the_drain_costs_only_where_there_is_some(self):
        with_drain, without = self.of(), self.of(rated_ratio=0.0)
        self.assertEqual(len([r for r in with_drain.running if r.kind == "water"]), 2)
        self.assertEqual(len([r for r in without.running if r.kind == "water"]), 1)


class Lamp(unittest.TestCase):
    TABLE = ((75.0, 8.0), (85.0, 10.0), (95.0, 12.0))

    def of(self, uvt_min=75.0, **more):
        made = {
            "device_class": "A",
            "monitored": True,
            "table": self.TABLE,
            "uvt_min": uvt_min,
            "dose": 40.0,
            "lamp_length_in": 30.0,
            "flat": False,
            "watts": 40.0,
        }
        return UvFigures(**{**made, **more})

    def test_nothing_is_treated_below_its_table_or_below_its_least(self):
        self.assertIsNone(flow_at(self.of(uvt_min=70.0), 74.9))
        self.assertIsNone(flow_at(self.of(uvt_min=80.0), 79.9))
        self.assertAlmostEqual(flow_at(self.of(), 75.0), 8.0)
        self.assertAlmostEqual(flow_at(self.of(uvt_min=80.0), 80.0), 9.0)

    def test_room_above_for_the_lamp(self):
        thing = item(self.of(), kwh_year=0.0)
        for headroom, said in ((30.0, ""), (29.9, "stop"), (None, "unknown")):
            report = run(thing, {"uvt": 90.0}, headroom_in=headroom, **TOWN)
            self.assertEqual(status(report, "uv.lamp_space"), said, headroom)
        tall = replace(thing, headroom_in=20.0)
        self.assertEqual(
            status(run(tall, {"uvt": 90.0}, headroom_in=50.0, **TOWN), "uv.lamp_space"), ""
        )
        self.assertEqual(
            status(run(tall, {"uvt": 90.0}, headroom_in=49.0, **TOWN), "uv.lamp_space"), "stop"
        )


if __name__ == "__main__":
    unittest.main()
