"""What a consultant sets on a stage, and what is dialled and carried of it: worked by hand."""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.making import home, settings, softener, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.adjusting import HOUR, RESERVE, set_to
from zesty_glass.core.treating.hours import clock_hours, hour_words
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.report import StageReport
from zesty_glass.core.treating.stages import TECHNOLOGIES

ITEMS = {i.code: i for i in example_items()}
HARD = {"hardness": 20 * 17.118, "iron": 0.0, "manganese": 0.0}
ACID = {"ph": 6.0, "alkalinity": 30.0, "hardness": 40.0, "iron": 0.0, "temperature": 12.0}


def line(*stages, values=HARD, firm=None, **about):
    """A line of (item, settings) on a water."""
    items = {i.code: i for i, _ in stages}
    choices = tuple(StageChoice(item=i.code, overrides=told) for i, told in stages)
    option = Option(id="o", name="O", stages=choices)
    return walk(option, items, water(**values), None, home(**about), firm or settings())


def figure(stage: StageReport, id: str):
    return next(f for f in stage.figures if f.id == id)


class Bounds(unittest.TestCase):
    def test_a_setting_is_taken_within_its_bounds_and_refused_beyond(self):
        self.assertEqual(set_to(RESERVE, {}, 1.0), 1.0)
        for good in (0, 3, "2.5"):
            self.assertEqual(set_to(RESERVE, {"reserve_days": good}, 1.0), float(good))
        for bad in (-0.1, 3.1, "much"):
            with self.assertRaises(RuleError) as e:
                set_to(RESERVE, {"reserve_days": bad}, 1.0)
            self.assertEqual(e.exception.code, "stage.setting")
            self.assertEqual(e.exception.where, "overrides.reserve_days")

    def test_every_setting_that_is_declared_is_read_by_its_technology(self):
        """A field on the page that does nothing is worse than none."""
        for kind, technology in TECHNOLOGIES.items():
            for setting in technology.settings:
                if setting.key == HOUR.key:
                    continue  # read by the line
                with self.subTest(f"{kind}: {setting.key}"):
                    self.assertTrue(self.changes(kind, setting))

    def changes(self, kind, setting):
        values = {**HARD, **ACID, "tannin": 1.0, "uvt": 90.0, "chlorine_free": 0.0}
        about = {"source": Source.WELL_DRILLED, "occupied_days": 100}
        for item in ITEMS.values():
            if item.kind != kind or item.scope != "house":
                continue
            if kind == "carbon":  # no bed of the demo is backwashed
                washed = {"backwash_gpm": 5.0, "backwash_gal": 50.0, "backwash_days": 7.0}
                item = replace(item, figures=replace(item.figures, **washed))
            plain = line((item, {}), values=values, **about)
            for to in (setting.least or 0.5, setting.most, 2.0, 10.0):
                try:
                    other = line((item, {setting.key: to}), values=values, **about)
                except RuleError:
                    continue  # the item's own table is narrower than what anybody may type
                if other.stages[0] != plain.stages[0]:
                    return True
        return False


class Reserve(unittest.TestCase):
    # 1 ft³ at 8 lb holds 24,000 grains; 2 people × 60 gal × 20 gpg = 2,400 grains a day: ten days
    unit = replace(softener(1), flow_gpm=20.0)

    def interval(self, **told):
        stage = line((self.unit, told), people=2).stages[0]
        return figure(stage, "interval").number, dict(stage.settings)["Kept back"]

    def test_days_kept_back_shorten_the_interval_by_as_many(self):
        self.assertEqual(self.interval()[1], "1 day")
        self.assertAlmostEqual(self.interval()[0], 9.0, 2)
        self.assertAlmostEqual(self.interval(reserve_days=2.5)[0], 7.5, 2)
        self.assertEqual(self.interval(reserve_days=2.5)[1], "2.5 days")
        self.assertAlmostEqual(self.interval(reserve_days=0)[0], 10.0, 2)


class Hours(unittest.TestCase):
    rinsing = (ITEMS["FE-L12"], ITEMS["SO-20"])

    def clocks(self, *told):
        drawn = line(*zip(self.rinsing, told, strict=True), values={**HARD, "iron": 2.0, "ph": 7.5})
        return [dict(s.settings)["Clock"] for s in drawn.stages], drawn.checks

    def test_one_after_the_other_from_one_in_the_morning(self):
        self.assertEqual(self.clocks({}, {})[0], ["1 in the morning", "2 in the morning"])

    def test_an_hour_that_is_set_is_kept_and_the_others_go_around_it(self):
        self.assertEqual(
            self.clocks({}, {"clock_hour": 1})[0], ["2 in the morning", "1 in the morning"]
        )
        self.assertEqual(
            self.clocks({"clock_hour": 14}, {})[0], ["2 in the afternoon", "1 in the morning"]
        )

    def test_two_at_one_hour_are_warned_of(self):
        both, checks = self.clocks({"clock_hour": 3}, {"clock_hour": 3})
        self.assertEqual(both, ["3 in the morning"] * 2)
        self.assertIn(("line.same_hour", "warn"), [(c.id, c.status) for c in checks])
        _, checks = self.clocks({"clock_hour": 3}, {"clock_hour": 4})
        self.assertNotIn("line.same_hour", [c.id for c in checks])

    def test_what_drains_nothing_has_no_hour(self):
        drawn = line(
            (ITEMS["AC-U15"], {}), (ITEMS["SO-20"], {}), values={**ACID, "hardness": 200.0}
        )
        hours = clock_hours(drawn.stages)
        self.assertEqual([drawn.stages[i].code for i in hours], ["SO-20"])

    def test_hours_in_words(self):
        self.assertEqual(
            [hour_words(h) for h in (0, 11, 12, 17, 18, 23)],
            [
                "midnight",
                "11 in the morning",
                "12 in the afternoon",
                "5 in the afternoon",
                "6 in the evening",
                "11 in the evening",
            ],
        )
        self.assertEqual(clock_hours([]), {})


class Carried(unittest.TestCase):
    def test_a_bed_is_topped_up_by_bags_and_at_the_worst_end_sooner(self):
        acid = {**ACID, "ph": Range.of(5.9, 6.0, 6.1)}
        stage = line((ITEMS["AC-U15"], {}), values=acid).stages[0]
        year, f = figure(stage, "media").number, figure(stage, "top_up")
        bed = 1.5 * ITEMS["AC-U15"].figures.media_lb_ft3
        self.assertAlmostEqual(f.number, 12 * bed / 3 / year, 1)
        self.assertIn("of 50 lb", f.worst)
        worst = float(f.worst.split("every ")[1].split()[0])
        self.assertLess(worst, f.number)
        # 7.48 × 1.5 ÷ 9 gpm
        self.assertAlmostEqual(figure(stage, "ebct").number, 1.247, 3)

    def test_a_feed_pump_and_a_bed_that_loses_nothing_carry_no_bags(self):
        def ids(code, **values):
            return [
                f.id for f in line((ITEMS[code], {}), values={**ACID, **values}).stages[0].figures
            ]

        self.assertIn("top_up", ids("AC-U15"))
        self.assertNotIn("top_up", ids("AC-FD"))

    def test_one_bag_is_said_as_one(self):
        unit = ITEMS["AC-U15"]
        for months in range(1, 40):
            stage = line((unit, {"refill_months": months}), values=ACID).stages[0]
            said = figure(stage, "top_up").worst
            self.assertNotIn("1 bags", said.replace(".1 bags", ""))

    def test_a_top_up_that_is_set_sooner_is_kept(self):
        unit = ITEMS["AC-U15"]
        due = {d.code: d for d in line((unit, {"refill_months": 5}), values=ACID).stages[0].dues}
        self.assertEqual(due["AC-U15-media"].months, 5)

    def test_what_its_way_of_flowing_means_is_said(self):
        for code, said in (("AC-U15", "upflow"), ("AC-B15", "backwashing")):
            checks = line((ITEMS[code], {}), values=ACID).stages[0].checks
            self.assertIn(f"neutraliser.{said}", [c.id for c in checks])

    def test_a_lamp_s_design_flow_as_it_comes_about(self):
        stage = line((ITEMS["UV-20H"], {}), values={"uvt": 95.0}, bathrooms=1.5).stages[0]
        f = figure(stage, "uv_design")
        self.assertEqual((f.value, f.worst), ("9.4", "peak 7.5 gpm × 1.25"))
        self.assertEqual(dict(stage.settings)["Lamp"], "365 days powered")

    def test_a_lamp_s_flow_is_held_by_a_limiter_or_known_from_a_bucket(self):
        def design(told, **about):
            stage = line((ITEMS["UV-20H"], told), values={"uvt": 95.0}, **about).stages[0]
            return figure(stage, "uv_design")

        def known(f):
            return next(r.value for r in f.working.rows if r.label == "it is known")

        held = design({"limiter_gpm": 6}, bathrooms=1.5)
        self.assertEqual((held.number, held.worst), (6.0, "held by the flow limiter"))
        idle = design({"limiter_gpm": 12}, bathrooms=1.5)  # 7.5 × 1.25 = 9.4 does not reach it
        self.assertEqual((idle.value, idle.worst), ("9.4", "peak 7.5 gpm × 1.25"))
        # 9 gpm out of a bucket is more than the table's 7.5
        full = design({}, bathrooms=1.5, flow_gpm=9.0, flow_full_bore=True)
        self.assertEqual((full.number, known(full)), (11.25, "as measured"))
        throttled = design({}, bathrooms=1.5, flow_gpm=7.5, flow_full_bore=False)
        self.assertEqual(known(throttled), "by bathrooms")

    def test_a_lamp_that_is_logged_lasts_by_the_days_it_burns(self):
        def months(**told):
            about = {"occupied_days": 121.75}
            stage = line((ITEMS["UV-20H"], told), values={"uvt": 95.0}, **about).stages[0]
            return stage.dues[0].months

        self.assertAlmostEqual(months(lay_up_logged=1), 3 * months(), 6)

    def test_a_membrane_says_its_tank_and_what_tells_of_a_change(self):
        here = {"values": {"tds": 300.0, "temperature": 15.0}, "running_psi": 60.0}
        told = dict(line((ITEMS["RO-75E"], {}), **here).stages[0].settings)
        self.assertEqual(told["Tells of a change"], "a light by months")
        self.assertIn("3", told["Tank"])
        tankless = dict(line((ITEMS["RO-TL4"], {}), **here).stages[0].settings)
        self.assertIn("none", tankless["Tank"])


class Weekends(unittest.TestCase):
    def said(self, **about):
        unit = ITEMS["CB-C20"]
        part = replace(unit.consumables[0], capacity_gal=300.0)
        unit = replace(unit, consumables=(part,))
        checks = line((unit, {}), values={"tds": 50.0}, **about).stages[0].checks
        return [(c.status, c.sentence) for c in checks if c.id == "use.weekend"]

    def test_a_full_weekend_of_ten_takes_a_cartridge_in_half_a_day(self):
        # ten people × 60 gal × two days = 1,200 gal; 300 of 600 a day: half a day
        ((status, sentence),) = self.said(people=10, occupied_days=70)
        self.assertEqual(status, "warn")
        for part in ("weekend of 10", "1,200 gal", "300 gal", "12 hours"):
            self.assertIn(part, sentence)

    def test_a_small_weekend_is_said_and_a_home_lived_in_has_none(self):
        ((status, sentence),) = self.said(people=2, occupied_days=199)
        self.assertEqual((status, "2.5 days" in sentence), ("say", True))
        self.assertEqual(self.said(people=10, occupied_days=200), [])


class Salt(unittest.TestCase):
    def test_salt_that_is_brought_costs_more_and_is_not_carried(self):
        def of(**firm):
            stage = line((softener(1.5), {}), people=4, firm=settings(**firm)).stages[0]
            return {r.label: r.per_year for r in stage.running}, stage.chores

        cost, chores = of()
        brought, less = of(salt_delivery=Decimal(4), salt_bag=Decimal(8))
        self.assertNotIn("Salt, brought", cost)
        # the same bags: 4 for bringing each beside 8 for the salt
        self.assertEqual(brought["Salt, brought"] * 2, brought["Salt"])
        self.assertEqual((chores[0].label, chores[0].minutes), ("Carry salt", 10))
        self.assertEqual((less[0].minutes, less[0].bags), (4, 0))
        # two bags at a time, carried or brought
        self.assertAlmostEqual(chores[0].bags, 2 * chores[0].times_year)
        self.assertAlmostEqual(less[0].times_year, chores[0].times_year)

    def test_a_price_below_nothing_is_refused(self):
        for name in ("salt_delivery", "drain_price", "outlet_price"):
            with self.subTest(name), self.assertRaises(RuleError):
                settings(**{name: Decimal("-1")})


class Areas(unittest.TestCase):
    def test_each_is_named_once_and_none_is_empty(self):
        self.assertEqual(settings(areas=("Marl End", "Cinderlow")).areas[0], "Marl End")
        for bad in (("A", "A"), ("A", " ")):
            with self.assertRaises(RuleError) as e:
                settings(areas=bad)
            self.assertEqual(e.exception.code, "settings.areas")


class TankSwitch(unittest.TestCase):
    def test_a_well_s_pressure_lies_between_its_switch(self):
        about = home(cut_in_psi=30.0, cut_out_psi=50.0)
        psi = site_of(replace(about, running_psi=None), settings(), water()).running_psi
        self.assertEqual((psi.low, psi.best, psi.high), (30, 40, 50))
        told = site_of(replace(about, running_psi=44.0), settings(), water()).running_psi
        self.assertEqual((told.low, told.high), (44, 44))
        half = replace(about, cut_out_psi=None, running_psi=None)
        self.assertIsNone(site_of(half, settings(), water()).running_psi)

    def test_a_switch_that_stops_below_its_start_is_refused(self):
        for start, stop in ((50.0, 30.0), (40.0, 40.0)):
            with self.assertRaises(RuleError) as e:
                home(cut_in_psi=start, cut_out_psi=stop)
            self.assertEqual(e.exception.code, "home.tank_psi")


if __name__ == "__main__":
    unittest.main()
