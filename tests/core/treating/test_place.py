"""Demand of a home, and what its place decides for an item."""

import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, membrane, settings, softener, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.home import Source
from zesty_glass.core.treating.demand import PEAK_BY_BATHROOMS, demand, interpolate, peak_gpm
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.place import (
    ASKED,
    backwash_checks,
    drop_at,
    item_pressure,
    larger_checks,
    pipe_checks,
    place_checks,
    septic_check,
)


def site(**about):
    return site_of(home(**about), settings(), water())


LEAD = next(i for i in example_items() if any(e.analyte == "lead" for e in i.effects))


def line_of(item, place, **values):
    option = Option(id="o", name="O", stages=(StageChoice(item=item.code),))
    return walk(option, {item.code: item}, water(hardness=200, **values), None, place, settings())


def statuses(checks):
    return {c.id: c.status for c in checks}


class Demand(unittest.TestCase):
    def test_worked_peaks(self):
        for bathrooms, gpm in ((1, 6), (1.5, 7.5), (2, 9), (2.5, 10.5), (3, 12), (6, 18), (0, 6)):
            self.assertEqual(peak_gpm(bathrooms), gpm)

    def test_a_bill_wins_over_people(self):
        d = demand(home(bill_gal_day=150.0), settings())
        self.assertEqual(
            (d.house_gal_day.low, d.house_gal_day.best, d.house_gal_day.high, d.from_bill),
            (150, 150, 150, True),
        )

    def test_people_carry_the_schools_range(self):
        d = demand(home(people=4), settings())
        self.assertEqual(
            (d.house_gal_day.low, d.house_gal_day.best, d.house_gal_day.high), (200, 240, 300)
        )

    def test_a_weak_supply_caps_the_peak_only_when_taken_full_bore(self):
        self.assertEqual(demand(home(flow_gpm=5.0, flow_full_bore=True), settings()).peak_gpm, 5.0)
        self.assertEqual(demand(home(flow_gpm=5.0), settings()).peak_gpm, 9.0)
        self.assertFalse(demand(home(flow_gpm=20.0, flow_full_bore=True), settings()).capped)

    def test_a_flow_of_nothing_is_no_peak(self):
        self.assertEqual(demand(home(flow_gpm=0.0, flow_full_bore=True), settings()).peak_gpm, 9.0)

    @given(st.floats(0, 8), st.floats(0, 8))
    def test_more_bathrooms_never_ask_for_less(self, a, b):
        self.assertLessEqual(peak_gpm(min(a, b)), peak_gpm(max(a, b)))

    @given(st.floats(-5, 30))
    def test_a_table_never_leaves_its_ends(self, x):
        self.assertTrue(6.0 <= interpolate(PEAK_BY_BATHROOMS, x) <= 18.0)

    @given(st.floats(0.2, 3), st.floats(1, 8))
    def test_use_scales_all_of_the_water(self, factor, people):
        a, b = (
            demand(home(people=people), settings()),
            demand(home(people=people), settings(), factor),
        )
        self.assertAlmostEqual(b.house_gal_year, a.house_gal_year * factor, 6)
        self.assertAlmostEqual(b.drinking_gal_year, a.drinking_gal_year * factor, 6)


class ImpossibleReadings(unittest.TestCase):
    def test_a_slip_of_the_finger_breaks_nothing(self):
        h = site_of(
            home(flow_gpm=None, static_psi=None),
            settings(),
            water(flow=3000.0, pressure_static=900.0),
        ).home
        self.assertEqual((h.flow_gpm, h.static_psi), (500, 300))

    def test_measured_flow_stands_in_for_what_was_not_typed(self):
        self.assertEqual(
            site_of(home(flow_gpm=None), settings(), water(flow=7.5)).home.flow_gpm, 7.5
        )
        self.assertEqual(
            site_of(home(flow_gpm=9.0), settings(), water(flow=7.5)).home.flow_gpm, 9.0
        )


class Place(unittest.TestCase):
    unit = replace(
        softener(1.5), drain=True, socket=True, headroom_in=60.0, weight_lb=420.0, flow_gpm=8.0
    )

    def test_what_is_there_is_met_and_what_is_not_stops(self):
        here = statuses(place_checks(self.unit, site()))
        self.assertEqual(
            (here["space.drain"], here["space.socket"], here.get("space.headroom", "met")),
            ("met", "met", "met"),
        )
        none = statuses(place_checks(self.unit, site(drain=False, socket=False, headroom_in=40.0)))
        self.assertEqual(
            (none["space.drain"], none["space.socket"], none["space.headroom"]),
            ("stop", "stop", "stop"),
        )

    def test_what_nobody_looked_at_is_unknown_and_names_the_look(self):
        bare = site(drain=None, socket=None, headroom_in=None, floor_ok=None)
        open_ = [c for c in place_checks(self.unit, bare) if c.status == "unknown"]
        self.assertEqual(len(open_), 4)
        self.assertTrue(all(c.test for c in open_))

    def test_a_floor_is_asked_about_under_what_is_heavy_alone(self):
        for weight, said in ((400.0, None), (400.5, "unknown"), (None, None)):
            unit = replace(self.unit, weight_lb=weight)
            self.assertEqual(statuses(place_checks(unit, site())).get("space.floor"), said)
        good = statuses(place_checks(self.unit, site(floor_ok=True)))
        self.assertEqual(good["space.floor"], "met")

    def test_a_pipe_that_is_cut_is_asked_about_and_a_metal_one_keeps_its_bond(self):
        for pipe, said in (
            ("", ["pipe.material"]),
            ("copper", ["pipe.bonding"]),
            ("Galvanised", ["pipe.bonding"]),
            ("plastic", []),
        ):
            found = pipe_checks(True, home(pipe_material=pipe))
            self.assertEqual([c.id for c in found], said, pipe)
            self.assertEqual(pipe_checks(False, home(pipe_material=pipe)), [])
        self.assertIn("of copper", pipe_checks(True, home(pipe_material="copper"))[0].sentence)

    def test_a_service_line_is_asked_about_where_lead_was_found_in_town(self):
        def said(place, **values):
            return [c.id for c in line_of(LEAD, place, **values).checks if c.id == "pipe.service"]

        town = home(source=Source.CITY, service_line="")
        self.assertEqual(said(town, lead=0.02), ["pipe.service"])
        self.assertEqual(said(town), [])
        self.assertEqual(said(replace(town, service_line="copper"), lead=0.02), [])
        self.assertEqual(said(replace(town, source=Source.WELL_DRILLED), lead=0.02), [])

    def test_floor_frost_and_flow_warn(self):
        found = statuses(place_checks(self.unit, site(floor_ok=False, freezing=True)))
        self.assertEqual(
            (found["space.floor"], found["space.freezing"], found["flow.limit"]),
            ("warn", "warn", "warn"),
        )

    def test_a_tenant_may_not_plumb(self):
        self.assertEqual(
            statuses(place_checks(self.unit, site(tenant=True)))["space.tenant"], "stop"
        )
        self.assertNotIn(
            "space.tenant",
            statuses(place_checks(replace(membrane(), plumbed=False), site(tenant=True))),
        )

    def test_pressure_drop_goes_with_the_square_of_the_flow(self):
        unit = replace(self.unit, drop_psi=4.0, drop_gpm=8.0)
        self.assertEqual(drop_at(unit, 16.0), 16.0)
        self.assertEqual(drop_at(unit, 4.0), 1.0)
        self.assertIsNone(drop_at(replace(unit, drop_psi=None), 8.0))


class Backwash(unittest.TestCase):
    def test_a_weak_pump_stops_an_unmeasured_one_is_unknown(self):
        for pump, status in ((4.0, "stop"), (8.0, "met"), (None, "unknown")):
            self.assertEqual(
                statuses(backwash_checks(8.0, 90, 2, site(pump_gpm=pump)))["well.backwash"], status
            )

    def test_no_pump_is_asked_of_a_town_main(self):
        self.assertNotIn(
            "well.backwash", statuses(backwash_checks(8.0, 90, 2, site(source=Source.CITY)))
        )

    def test_a_well_that_ran_low(self):
        self.assertEqual(
            statuses(backwash_checks(5.0, 90, 2, site(low_yield=True)))["well.low_yield"], "warn"
        )
        self.assertNotIn(
            "well.low_yield", statuses(backwash_checks(5.0, 40, 2, site(low_yield=True)))
        )

    def test_septic_names_the_largest_and_the_week(self):
        (c,) = septic_check(80, 240, site(septic=True))
        self.assertEqual(c.status, "warn")
        self.assertIn("80 gal", c.sentence)
        self.assertIn("240 gal", c.sentence)
        self.assertEqual(septic_check(80, 240, site(septic=False)), [])
        self.assertEqual(septic_check(20, 60, site(septic=True))[0].status, "say")


class Pressure(unittest.TestCase):
    def test_least_and_most(self):
        unit = replace(membrane(), psi_min=40.0)
        self.assertEqual(statuses(item_pressure(unit, site(), 45.0))["pressure.least"], "met")
        self.assertEqual(statuses(item_pressure(unit, site(), 39.0))["pressure.least"], "stop")
        self.assertEqual(statuses(item_pressure(unit, site(), None))["pressure.least"], "unknown")
        self.assertEqual(
            statuses(item_pressure(unit, site(static_psi=110.0), 45.0, 100.0))["pressure.most"],
            "stop",
        )


class Asked(unittest.TestCase):
    """What is asked of the place is a field of the home, and its answer settles the check."""

    def asked(self, place):
        item = replace(
            softener(2),
            drain=True,
            socket=True,
            headroom_in=60.0,
            scope="house",
            psi_min=40.0,
            weight_lb=420.0,
        )
        site = site_of(place, settings(), water(hardness=200))
        bed = backwash_checks(5.0, 60.0, 1.0, site)
        checks = (*place_checks(item, site), *item_pressure(item, site, place.running_psi), *bed)
        line = line_of(item, place)
        town = line_of(LEAD, replace(place, source=Source.CITY), lead=0.02)
        found = (*checks, *line.checks, *line.stages[0].checks, *town.checks)
        return {c.id for c in found if c.status in ("unknown", "say") and c.id in ASKED}

    def test_each_is_asked_while_it_is_not_known_and_settled_by_its_answer(self):
        bare = home(
            drain=None,
            socket=None,
            headroom_in=None,
            pump_gpm=None,
            running_psi=None,
            brine_forbidden=None,
            low_yield=None,
            bathrooms=9,
            source=Source.WELL_DRILLED,
        )
        self.assertEqual(self.asked(bare), set(ASKED))
        for check, asked in ASKED.items():
            answer = asked.choices[0] if asked.choices else True if not asked.unit else 50.0
            with self.subTest(check):
                told = replace(bare, **{asked.field: answer})
                self.assertNotIn(check, self.asked(told))


class Larger(unittest.TestCase):
    """A building beyond five bathrooms: by its designer, its pipe, or said that it is open."""

    def test_what_is_told_wins_over_bathrooms_and_pipe(self):
        d = demand(home(bathrooms=12, told_peak_gpm=44.0, pipe_in=2.0), settings())
        self.assertEqual((d.table_peak_gpm, d.peak_gpm, d.peak_by), (44.0, 44.0, "told"))
        small = demand(home(bathrooms=2, told_peak_gpm=7.0), settings())
        self.assertEqual((small.peak_gpm, small.peak_by), (7.0, "told"))

    def test_the_pipe_says_it_beyond_the_table_alone(self):
        # 1.5 in = 3.81 cm: 11.40 cm² × 200 cm/s = 2.280 L/s = 136.8 L/min = 36.1 gpm
        d = demand(home(bathrooms=12, pipe_in=1.5), settings())
        self.assertAlmostEqual(d.peak_gpm, 36.1, 1)
        self.assertEqual(d.peak_by, "pipe")
        narrow = demand(home(bathrooms=12, pipe_in=0.5), settings())
        self.assertEqual((narrow.peak_gpm, narrow.peak_by), (18.0, "pipe"))
        home_size = demand(home(bathrooms=5, pipe_in=1.5), settings())
        self.assertEqual((home_size.peak_gpm, home_size.peak_by), (18.0, "bathrooms"))

    def test_a_measured_flow_caps_what_was_told(self):
        d = demand(home(told_peak_gpm=44.0, flow_gpm=20.0, flow_full_bore=True), settings())
        self.assertEqual((d.peak_gpm, d.capped), (20.0, True))

    def test_what_is_open_is_said(self):
        for about, said in (
            ({"bathrooms": 5}, []),
            ({"bathrooms": 6}, ["unknown"]),
            ({"bathrooms": 6, "pipe_in": 1.5}, ["say"]),
            ({"bathrooms": 6, "told_peak_gpm": 30.0}, []),
        ):
            found = larger_checks(site(**about))
            self.assertEqual([c.status for c in found], said, about)
        self.assertIn("18 gpm", larger_checks(site(bathrooms=6))[0].sentence)
