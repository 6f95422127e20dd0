"""Water to the drain, by kind and branch."""

import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, membrane, settings, softener, water
from zesty_glass.core.costing.chores import chores, stage_minutes
from zesty_glass.core.costing.waste import BATHTUB_GAL, waste
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.report import Drain, Running
from zesty_glass.core.treating.stages.common import NOT_PRICED, TO_THE_DRAIN, WATER_PRICE

RAW = water(
    hardness=300.0,
    tds=400.0,
    temperature=15.0,
    ph=7.4,
    iron=0.02,
    manganese=0.01,
    chlorine_free=0.0,
    chlorine_total=0.0,
)
ITEMS = {i.code: i for i in (softener(1.5), membrane())}


def line(*codes, **about):
    return walk(
        Option(id="o", name="o", stages=tuple(StageChoice(item=c) for c in codes)),
        ITEMS,
        RAW,
        None,
        home(**about),
        settings(),
    )


def with_drains(*drains):
    one = line("soft-1.5")
    return replace(one, stages=(replace(one.stages[0], drains=drains),))


class Shares(unittest.TestCase):
    def test_nothing_bought_drains_nothing(self):
        w = waste(line())
        self.assertEqual(
            (w.total_gal_year, w.by_kind, w.largest_gal, w.brine, w.unknown),
            (0.0, {}, 0.0, False, False),
        )

    def test_house_and_tap_are_never_averaged(self):
        both = line("soft-1.5", "mem")
        w = waste(both)
        self.assertAlmostEqual(w.per_gallon_tap, w.tap_gal_year / both.demand.drinking_gal_year)
        self.assertAlmostEqual(w.per_gallon_house, w.house_gal_year / both.demand.house_gal_year)
        self.assertGreater(w.per_gallon_tap, 10 * w.per_gallon_house)

    def test_brine_and_the_largest_discharge(self):
        w = waste(
            with_drains(
                Drain(kind="regeneration", gal_year=900, largest_gal=45, times_year=20, brine=True),
                Drain(kind="backwash", gal_year=3000, largest_gal=120, times_year=25),
            )
        )
        self.assertEqual(
            (w.largest_gal, w.brine, w.by_kind),
            (120, True, {"regeneration": 900, "backwash": 3000}),
        )

    def test_a_membrane_that_cannot_say_is_unknown_not_nothing(self):
        dry = replace(RAW, values={k: v for k, v in RAW.values.items() if k != "temperature"})
        report = walk(
            Option(id="o", name="o", stages=(StageChoice(item="mem"),)),
            ITEMS,
            dry,
            None,
            home(),
            settings(),
        )
        self.assertTrue(waste(report).unknown)

    def test_an_empty_house_has_no_share(self):
        w = waste(line("soft-1.5", people=0))
        self.assertIsNone(w.share_of_use)
        self.assertIsNone(w.per_gallon_house)
        self.assertIsNone(w.per_gallon_tap)

    def test_a_gallon_a_year_is_enough_for_a_share(self):
        report = with_drains(Drain(kind="backwash", gal_year=3, largest_gal=3, times_year=1))
        little = replace(report.demand, house_gal_year=1.0, drinking_gal_year=0.5)
        w = waste(replace(report, demand=little))
        self.assertEqual((w.per_gallon_house, w.share_of_use), (3.0, 3.0))
        self.assertEqual(w.per_gallon_tap, 0.0)

    def test_what_nobody_pays_for_costs_nothing_and_is_priced(self):
        w = waste(with_drains(Drain(kind="backwash", gal_year=3, largest_gal=3, times_year=1)))
        self.assertEqual((w.cost_year >= 0, w.priced), (True, True))
        self.assertEqual((waste(line()).cost_year, waste(line()).priced), (0, True))


class Properties(unittest.TestCase):
    drains = st.lists(
        st.builds(
            Drain,
            kind=st.sampled_from(["membrane", "regeneration", "backwash", "distiller"]),
            gal_year=st.floats(0, 1e5),
            largest_gal=st.floats(0, 500),
            times_year=st.floats(0, 400),
            brine=st.booleans(),
            scope=st.sampled_from(["house", "tap"]),
        ),
        max_size=6,
    )

    @given(drains)
    def test_kinds_and_branches_sum_to_the_total(self, drains):
        w = waste(with_drains(*drains))
        self.assertAlmostEqual(sum(w.by_kind.values()), w.total_gal_year, 4)
        self.assertAlmostEqual(w.house_gal_year + w.tap_gal_year, w.total_gal_year, 4)
        self.assertAlmostEqual(w.bathtubs * BATHTUB_GAL, w.total_gal_year, 4)

    @given(st.floats(20, 365))
    def test_fewer_days_at_home_make_fuller_weeks_of_the_same_water(self, days):
        one = with_drains(Drain(kind="backwash", gal_year=3650, largest_gal=70, times_year=52))
        away = replace(one, demand=replace(one.demand, occupied_days=days))
        self.assertAlmostEqual(waste(away).week_gal, 3650 / days * 7)


class Work(unittest.TestCase):
    def test_minutes_of_a_line_are_those_of_its_stages(self):
        one = line("soft-1.5", "mem")
        self.assertAlmostEqual(chores(one).own_minutes, sum(stage_minutes(s) for s in one.stages))

    def test_bags_of_salt_stand_in_the_strip(self):
        c = chores(line("soft-1.5"))
        self.assertGreater(c.bags, 0)
        self.assertEqual(sum(m.count("salt") for m in c.strip), round(c.bags))
        self.assertEqual(len(c.strip), 12)

    def test_more_people_carry_more_salt(self):
        self.assertGreater(
            chores(line("soft-1.5", people=5)).bags, chores(line("soft-1.5", people=2)).bags
        )


class ByHand(unittest.TestCase):
    """240 gal a day in the house, 4 people at 0.7 gal to drink."""

    drains = (
        Drain(kind="backwash", gal_year=4000, largest_gal=80, times_year=50),
        Drain(kind="membrane", gal_year=2000, largest_gal=0, times_year=0, scope="tap"),
    )

    def test_branches_shares_weeks_and_tubs(self):
        one = with_drains(*self.drains)
        w = waste(one)
        use, drunk = one.demand.house_gal_year, one.demand.drinking_gal_year
        self.assertEqual((w.house_gal_year, w.tap_gal_year, w.total_gal_year), (4000, 2000, 6000))
        self.assertAlmostEqual(w.per_gallon_house, 4000 / use)
        self.assertAlmostEqual(w.per_gallon_tap, 2000 / drunk)
        self.assertAlmostEqual(w.share_of_use, 6000 / use)
        self.assertAlmostEqual(w.week_gal, 6000 / 365.25 * 7)
        self.assertEqual(w.bathtubs, 150.0)  # of 40 gal
        self.assertFalse(w.brine)

    def test_nobody_at_home_is_divided_by_a_day_at_least(self):
        one = with_drains(*self.drains)
        away = replace(one, demand=replace(one.demand, occupied_days=0.5))
        self.assertAlmostEqual(waste(away).week_gal, 42000)

    def test_what_a_stage_cannot_say_is_unknown(self):
        one = line("soft-1.5")
        bare = replace(one.stages[0], drains=())
        self.assertFalse(waste(replace(one, stages=(bare,))).unknown)
        silent = replace(bare, drain_unknown=True)
        self.assertTrue(waste(replace(one, stages=(bare, silent))).unknown)

    def test_what_its_water_costs_and_what_is_not_priced(self):
        def run(label, why, amount, **more):
            return Running(label=label, kind="water", per_year=Decimal(amount), why=why, **more)

        one = line("soft-1.5")
        priced = replace(
            one.stages[0],
            running=(run(TO_THE_DRAIN, "at 9 a 1,000 gal", 18), run("Salt", "bags", 70)),
        )
        w = waste(replace(one, stages=(priced,)))
        self.assertEqual((w.cost_year, w.priced), (Decimal(18), True))
        unknown = replace(priced, running=(run(TO_THE_DRAIN, NOT_PRICED, 0, missing=WATER_PRICE),))
        both = waste(replace(one, stages=(priced, unknown)))
        self.assertEqual((both.cost_year, both.priced), (Decimal(18), False))
