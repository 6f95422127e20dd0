"""A softener worked by hand: capacity by dose, sizing, its edges, what it leaves and adds."""

import unittest
from decimal import Decimal

from tests.core.treating.test_stages import line
from tests.making import home, settings, softener, water
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.items import Consumable
from zesty_glass.core.treating.stages import softener_shown as shown
from zesty_glass.core.treating.stages import softener_size as soft
from zesty_glass.core.treating.stages.softener_size import SoftenerFigures
from zesty_glass.core.units import MG_L_PER_GPG

GPG = 17.118061
METERED = SoftenerFigures(resin_ft3=1.0, dose_lb_ft3=8)
CLOCK = SoftenerFigures(resin_ft3=1.0, dose_lb_ft3=8, control="clock", clock_days=7)


def sized(gpg, gal=240.0, f=METERED, iron=0.0, dose=8.0, days=365.25, **more):
    return soft.size(f, gpg, gal, iron, dose, days, **more)


def stage(ft3=1.5, w=None, h=None, s=None, overrides=None, **figures):
    return line(
        softener(ft3, **figures), w=water(**(w or {"hardness": 240})), h=h, s=s, overrides=overrides
    ).stages[0]


def checks(r):
    return {c.id: c.status for c in r.checks}


class Capacity(unittest.TestCase):
    def test_the_table_and_straight_lines_between(self):
        # grains a cubic foot: 4 → 14,000, 6 → 20,000, 8 → 24,000, 10 → 27,000, 15 → 30,000
        for dose, grains in (
            (4, 14_000),
            (5, 17_000),
            (6, 20_000),
            (7, 22_000),
            (8, 24_000),
            (9, 25_500),
            (10, 27_000),
            (12.5, 28_500),
            (15, 30_000),
        ):
            self.assertAlmostEqual(soft.capacity_grains(1.0, dose), grains)
        self.assertAlmostEqual(soft.capacity_grains(2.5, 8), 60_000)

    def test_compensated_hardness(self):
        # 10 gpg + 4 × 0.5 iron + 2 × 0.1 manganese = 12.2; with a factor of 5: 12.7
        self.assertAlmostEqual(soft.compensated_gpg(10 * GPG, 0.5, 0.1), 12.2)
        self.assertAlmostEqual(soft.compensated_gpg(10 * GPG, 0.5, 0.1, 5.0), 12.7)


class Sizing(unittest.TestCase):
    def test_metered(self):
        # 10 gpg × 240 gal = 2,400 grains a day; 24,000 ÷ 2,400 = 10 days, one kept back: 9
        s = sized(10)
        self.assertAlmostEqual(s.load_grains, 2400)
        self.assertAlmostEqual((s.days_held, s.by_capacity, s.interval)[1], 9)
        self.assertAlmostEqual(s.interval, 9)
        self.assertAlmostEqual(s.regens_year, 365 / 9)
        self.assertAlmostEqual(s.salt_lb_year, 8 * 365 / 9)
        self.assertAlmostEqual(s.rinse_gal_year, 60 * 365 / 9)
        # grains taken out a pound: 2,400 × 365 ÷ (8 × 365/9) = 2,700; rated 24,000 ÷ 8 = 3,000
        self.assertAlmostEqual(s.operating_gr_lb, 2700)
        self.assertAlmostEqual(s.rated_gr_lb, 3000)
        self.assertEqual(s.leakage, 0)

    def test_iron_of_0_3_shortens_it_to_four_days(self):
        self.assertEqual(sized(10, iron=0.3).interval, 4)
        self.assertAlmostEqual(sized(10, iron=0.29).interval, 9)
        longer = SoftenerFigures(resin_ft3=1.0, dose_lb_ft3=8, iron_interval_days=6)
        self.assertEqual(sized(10, f=longer, iron=1.0).interval, 6)

    def test_at_most_fourteen_days(self):
        # 2 gpg × 240 = 480 grains: 50 days held
        s = sized(2)
        self.assertAlmostEqual(s.by_capacity, 49)
        self.assertEqual(s.interval, 14)

    def test_a_season_counts_its_own_days(self):
        self.assertAlmostEqual(sized(10, days=70).regens_year, 70 / 9)
        self.assertAlmostEqual(sized(10, days=365).regens_year, 365 / 9)

    def test_a_clock(self):
        # 2,400 a day × 7 = 16,800 of 24,000: never hard; 4,000 a day: 1 − 24,000/28,000 = 1/7
        self.assertEqual(sized(10, f=CLOCK).leakage, 0)
        self.assertEqual(sized(10, f=CLOCK).interval, 7)
        hard = sized(4000 / 240, f=CLOCK)
        self.assertAlmostEqual(hard.leakage, 1 / 7)
        self.assertAlmostEqual(sized(4000 / 240, f=CLOCK, clock_days=10).leakage, 1 - 24 / 40)

    def test_no_demand(self):
        s = sized(0)
        self.assertEqual(
            (
                s.load_grains,
                s.days_held,
                s.by_capacity,
                s.interval,
                s.regens_year,
                s.salt_lb_year,
                s.rinse_gal_year,
                s.operating_gr_lb,
                s.leakage,
            ),
            (0, 0, 0, None, 0, 0, 0, 0, 0),
        )
        self.assertFalse(s.cannot)

    def test_a_day_s_load_above_what_it_holds(self):
        # 100 gpg × 240 = 24,000: exactly a day, which is no day in reserve
        self.assertIsNone(sized(100).interval)
        self.assertTrue(sized(100).cannot)
        self.assertEqual((sized(120).salt_lb_year, sized(120).operating_gr_lb), (0, 0))
        self.assertAlmostEqual(sized(99).interval, 24_000 / (99 * 240) - 1)

    def test_a_lower_dose_that_still_fits(self):
        # 1 ft³, 2,000 a day, 5 days wanted: 6 × 2,000 = 12,000 ≤ 14,000: 4 lb do
        self.assertEqual(soft.lower_dose(METERED, 2000, 5, 8), 4)
        # 6 days wanted: 14,000 ÷ 2,000 − 1 = 6 exactly
        self.assertEqual(soft.lower_dose(METERED, 2000, 6, 8), 4)
        # 8 days: 18,000, so 6 lb; 10 days: 22,000, which wants 8, the dose in use
        self.assertEqual(soft.lower_dose(METERED, 2000, 8, 8), 6)
        self.assertIsNone(soft.lower_dose(METERED, 2000, 10, 8))


class Workings(unittest.TestCase):
    """The slips behind a softener's figures: every row as it is worked out by hand."""

    def rows(self, id, **more):
        shown = next(f for f in stage(**more).figures if f.id == id)
        return {r.label: (r.value, r.unit, r.total) for r in shown.working.rows}, shown

    def test_days_as_a_valve_counts_them(self):
        for interval, said in ((9.0, "9"), (9.2, "about 9"), (0.4, "about 1"), (8.999, "about 9")):
            self.assertEqual(shown.about_days(interval), said)

    def test_metered_with_its_day_kept_back(self):
        # 1 ft³ at 8 lb: 24,000 grains; 10 gpg × 4 × 60 gal = 2,400 a day: 10 days less one
        w = {"hardness": 10 * MG_L_PER_GPG}
        rows, interval = self.rows("interval", ft3=1.0, dose_lb_ft3=8.0, w=w)
        self.assertEqual(rows["load a day"], ("2,400", "grains", False))
        self.assertEqual(rows["less a day kept back"], ("9.00", "days", True))
        self.assertEqual(rows["so it regenerates every"], ("9", "days", True))
        self.assertEqual(interval.value, "9")
        self.assertNotIn("iron of 0.3 mg/L or more", rows)

    def test_the_rule_for_iron_stands_from_0_3(self):
        for iron, said in ((0.3, True), (0.29, False)):
            w = {"hardness": 10 * GPG, "iron": iron}
            rows, _ = self.rows("interval", ft3=1.0, w=w)
            self.assertEqual("iron of 0.3 mg/L or more" in rows, said, iron)

    def test_a_clock_that_lets_hard_water_through(self):
        # 4,000 grains a day for 7 days: 28,000 on 24,000 of capacity; a seventh comes through
        rows, _ = self.rows(
            "interval",
            ft3=1.0,
            control="clock",
            clock_days=7,
            dose_lb_ft3=8.0,
            w={"hardness": 4000 / 240 * GPG},
        )
        self.assertEqual(rows["load between regenerations"], ("28,000", "grains", True))
        self.assertEqual(rows["hard share of the water"], ("14", "%", False))
        self.assertNotIn("less a day kept back", rows)

    def test_a_lower_dose_is_offered_to_a_metered_one_alone(self):
        # 14 + 4 gpg on 240 gal: 4,320 a day, five of them 21,600; 4 lb hold 21,000, 6 lb 30,000
        w = {"hardness": 14 * GPG, "iron": 1.0}
        for more, offered in (({}, True), ({"control": "clock", "clock_days": 4}, False)):
            _, figure = self.rows("interval", ft3=1.5, dose_lb_ft3=8.0, w=w, **more)
            self.assertEqual("At 6 lb/ft³" in figure.working.note, offered, more)

    def test_what_a_year_comes_to_stands_out(self):
        for id in ("salt", "rinse"):
            rows, _ = self.rows(id, ft3=1.0, dose_lb_ft3=8.0, w={"hardness": 10 * GPG})
            self.assertEqual([k for k, v in rows.items() if v[2]], ["a year"])
        # 365 / 9 renewals of 8 lb: 324 lb, 8.1 bags of 40
        rows, _ = self.rows("salt", ft3=1.0, dose_lb_ft3=8.0, w={"hardness": 10 * GPG})
        self.assertEqual(rows["a year"][0], "324")
        self.assertEqual(rows["in 40-lb bags"][0], "8.1")


class Checks(unittest.TestCase):
    def test_too_small_wasteful_and_fitting(self):
        # 4 people × 60 = 240 gal; 1.5 ft³ at 8 lb holds 36,000
        self.assertEqual(checks(stage(w={"hardness": 10 * GPG}))["softener.too_small"], "met")
        # 60 gpg: 14,400 a day, 2.5 days held, 1.5 by capacity
        self.assertEqual(checks(stage(w={"hardness": 60 * GPG}))["softener.too_small"], "stop")
        # 8 gpg: 1,920 a day, 18.75 held, 17.75 by capacity: above 14
        self.assertEqual(checks(stage(w={"hardness": 8 * GPG}))["softener.wasteful"], "warn")
        self.assertNotIn("softener.wasteful", checks(stage(w={"hardness": 12 * GPG})))
        clock = stage(w={"hardness": 8 * GPG}, control="clock", clock_days=7)
        self.assertNotIn("softener.wasteful", checks(clock))

    def test_two_days_are_enough(self):
        # 50 gpg: 12,000 a day, 3 held, 2 by capacity, to the grain; more use than the best is the
        # worst end
        got = checks(stage(w={"hardness": 50 * GPG}))
        self.assertNotIn("softener.too_small", got)
        self.assertEqual(got["softener.worst_end"], "warn")
        # 51 gpg: 1.94 days
        self.assertEqual(checks(stage(w={"hardness": 51 * GPG}))["softener.too_small"], "stop")

    def test_the_worst_end(self):
        wide = {"hardness": Range.of(40 * GPG, 45 * GPG, 60 * GPG)}
        self.assertEqual(checks(stage(w=wide))["softener.worst_end"], "warn")
        far = {"hardness": Range.of(40 * GPG, 45 * GPG, 200 * GPG)}
        self.assertEqual(checks(stage(w=far))["softener.worst_end"], "warn")
        near = {"hardness": Range.of(10 * GPG, 11 * GPG, 12 * GPG)}
        self.assertNotIn("softener.worst_end", checks(stage(w=near)))

    def test_a_clock_that_waits_too_long(self):
        # 30 gpg: 7,200 a day; 36,000 ÷ (7,200 × 7) = 0.714: hard for 29 % of the water
        late = stage(w={"hardness": 30 * GPG}, control="clock", clock_days=7)
        told = next(c for c in late.checks if c.id == "softener.clock")
        self.assertIn(
            "On its clock of every 7 days, 29 % of the water comes out hard", told.sentence
        )
        self.assertIn("Set it to 5 days", told.sentence)
        in_time = stage(w={"hardness": 20 * GPG}, control="clock", clock_days=7)
        self.assertNotIn("softener.clock", checks(in_time))
        sooner = stage(
            w={"hardness": 30 * GPG}, control="clock", clock_days=7, overrides={"clock_days": 5}
        )
        self.assertNotIn("softener.clock", checks(sooner))

    def test_rated_grains_a_pound(self):
        # 8 lb: 3,000 is under 3,350; 6 lb: 3,333; 4 lb: 3,500
        for dose, told in ((8, True), (6, True), (4, False)):
            got = checks(stage(w={"hardness": 10 * GPG}, dose_lb_ft3=dose))
            self.assertEqual("softener.efficiency" in got, told, dose)

    def test_flow_through_the_resin(self):
        # 3 bathrooms: 12 gpm at peak; 1 ft³ passes 10, 1.5 ft³ 15
        big = home(bathrooms=3)
        self.assertEqual(checks(stage(1.0, h=big))["flow.limit"], "warn")
        self.assertEqual(checks(stage(1.5, h=big))["flow.limit"], "met")

    def test_rusted_iron_not_looked_at(self):
        iron = {"hardness": 240, "iron": 0.2}
        self.assertEqual(checks(stage(w=iron))["softener.particulate_iron"], "unknown")
        for little in ({"hardness": 240, "iron": 0.05}, {"hardness": 240}):
            self.assertNotEqual(checks(stage(w=little)).get("softener.particulate_iron"), "unknown")
        open_end = {"hardness": 240, "iron": Range.of(0.0, 0.05, None)}
        self.assertEqual(checks(stage(w=open_end))["softener.particulate_iron"], "unknown")

    def test_tannin_on_the_iron(self):
        base = {"hardness": 240, "iron": 1.0}
        town = home(source=Source.CITY)
        for more, place, status in (
            ({"tannin": 0.9}, None, {"softener.tannin": "warn"}),
            ({"tannin": Range.of(0.3, 0.5, 0.7)}, None, {"softener.tannin_maybe": "warn"}),
            ({"tannin": 0.1}, None, {}),
            ({}, None, {"softener.tannin": "unknown"}),
            ({}, town, {}),
            ({"iron": 0.29}, None, {}),
        ):
            got = checks(stage(w={**base, **more}, h=place))
            self.assertEqual({k: v for k, v in got.items() if "tannin" in k}, status, more)

    def test_what_tannin_binds_passes(self):
        free = stage(w={"hardness": 240, "iron": 1.0, "tannin": 0.1}).outlet.range("iron")
        bound = stage(w={"hardness": 240, "iron": 1.0, "tannin": 0.9}).outlet.range("iron")
        self.assertEqual((free.low, free.best), (0.0, 0.1))
        self.assertAlmostEqual(free.high, 0.3)
        self.assertEqual((bound.low, bound.best, bound.high), (0.0, 0.5, 1.0))


class Leaves(unittest.TestCase):
    def test_soft_water(self):
        out = stage().outlet
        h = out.range("hardness")
        self.assertEqual(h.low, 0.0)
        self.assertAlmostEqual(h.best, GPG / 2)
        self.assertAlmostEqual(h.high, GPG)
        self.assertAlmostEqual(out.get("hardness").below, GPG)

    def test_water_softer_than_that_stays(self):
        h = stage(w={"hardness": 5}).outlet
        self.assertEqual((h.range("hardness").high, h.get("hardness").below), (5, None))

    def test_a_late_clock_leaves_hard_water(self):
        # 30 gpg, hard for 2/7 of the water: half a grain + 2/7 × 30 = 9.07 gpg in the mean; at the
        # end of each week it is the raw water, and what stands behind is judged by that
        r = stage(w={"hardness": 30 * GPG}, control="clock", clock_days=7)
        h = r.outlet.range("hardness")
        self.assertAlmostEqual(h.best / GPG, 0.5 + 30 * 2 / 7, 4)
        self.assertAlmostEqual(h.high / GPG, 30, 4)
        self.assertIsNone(r.outlet.get("hardness").below)

    def test_sodium_and_potassium_by_charge(self):
        # 100 mg/L of hardness taken out (as CaCO3): 45.94 mg of sodium, 78.13 of potassium
        r = stage(w={"hardness": 100, "sodium": 10, "potassium": 2})
        self.assertAlmostEqual(r.outlet.range("sodium").best, 10 + 45.94, 1)
        self.assertAlmostEqual(r.outlet.range("potassium").best, 2)
        other = stage(w={"hardness": 100, "sodium": 10, "potassium": 2}, salt="potassium")
        self.assertAlmostEqual(other.outlet.range("potassium").best, 2 + 78.13, 1)
        self.assertAlmostEqual(other.outlet.range("sodium").best, 10)

    def test_sodium_that_was_not_tested_rises_by_so_much(self):
        q = stage(w={"hardness": 100}).outlet.get("sodium")
        # at least what is added: its own comes on top
        self.assertAlmostEqual(q.range.best, 45.94, 2)
        self.assertIsNone(q.range.high)
        self.assertIn("rises by 46 mg/L", q.note)

    def test_potassium_chloride_is_its_own_salt(self):
        # 8 lb/ft³ of sodium chloride is 10.2 of potassium chloride, at its own price
        both = [stage(w={"hardness": 250}, salt=x) for x in ("sodium", "potassium")]
        salt = [next(r for r in x.running if r.kind == "salt") for x in both]
        self.assertAlmostEqual(float(salt[1].per_year / salt[0].per_year), 1.276 * 32 / 9.5, 4)
        self.assertEqual([r.label for r in salt], ["Salt", "Potassium chloride"])

    def test_barium_and_radium_go_with_the_hardness(self):
        out = stage(w={"hardness": 250, "barium": 3.0, "radium": 12.0}).outlet
        self.assertAlmostEqual(out.best("barium"), 3.0 * 0.07)
        self.assertAlmostEqual(out.best("radium"), 12.0 * 0.1)
        self.assertFalse(out.get("radium").established)

    def test_calcium_falls_with_the_hardness(self):
        # 150 of 240 is calcium: of the 1 gpg at most that is left it is 150/240
        c = stage(w={"hardness": 240, "calcium": 150}).outlet.range("calcium")
        self.assertAlmostEqual(c.high, GPG * 150 / 240)
        self.assertAlmostEqual(c.best, GPG / 2 * 150 / 240)
        self.assertIsNone(stage().outlet.get("calcium"))

    def test_calcium_and_magnesium_are_the_hardness_that_is_left(self):
        out = stage(w={"hardness": 240, "calcium": 150, "magnesium": 90}).outlet
        both = out.range("calcium").plus(out.range("magnesium"))
        for end in ("low", "best", "high"):
            self.assertAlmostEqual(getattr(both, end), getattr(out.range("hardness"), end))

    def test_iron_within_what_it_takes(self):
        self.assertEqual(stage(w={"hardness": 240, "iron": 2.0}).outlet.range("iron").best, 0.2)
        over = stage(w={"hardness": 240, "iron": 2.5})
        self.assertEqual(over.outlet.range("iron").best, 2.5)


class Costs(unittest.TestCase):
    def test_salt_by_the_bag(self):
        # 10 gpg, 240 gal, 1.5 ft³ at 8 lb: 15 days held, 14 between; 365/14 × 12 lb = 312.9 lb,
        # 7.82 bags at 9.50 = 74.31
        r = stage(w={"hardness": 10 * GPG}, s=settings(salt_bag=Decimal("10.00")))
        salt = next(x for x in r.running if x.kind == "salt")
        self.assertAlmostEqual(float(salt.per_year), 365 / 14 * 12 / 40 * 10, 1)
        chore = r.chores[0]
        self.assertAlmostEqual(chore.bags, 365 / 14 * 12 / 40)
        self.assertAlmostEqual(chore.times_year, chore.bags / 2)
        self.assertEqual(chore.minutes, 10)

    def test_rinse_water(self):
        r = stage(w={"hardness": 10 * GPG})
        self.assertAlmostEqual(r.drains[0].gal_year, 365 / 14 * 60 * 1.5)
        self.assertAlmostEqual(r.drains[0].largest_gal, 90)
        self.assertTrue(r.drains[0].brine)

    def test_without_demand_nothing_is_carried(self):
        dry = stage(w={"hardness": 0.0})
        self.assertEqual((dry.chores, dry.drains), ((), ()))
        self.assertFalse([x for x in dry.running if x.kind == "salt"])

    def test_iron_of_one_shortens_the_resin(self):
        resin = Consumable(
            code="r", name="Resin", kind="resin", price=Decimal(300), months=120, minutes=60
        )
        for iron, life in ((0.9, 1.0), (1.0, 0.7)):
            r = stage(w={"hardness": 240, "iron": iron}, consumables=(resin,))
            self.assertEqual(r.dues[0].life_factor, life)

    def test_what_is_dialled(self):
        # 10 gpg + 4 × 0.5 = 12 gpg; 8 × 1.5 = 12 lb
        r = stage(w={"hardness": 10 * GPG, "iron": 0.5})
        self.assertEqual(dict(r.settings)["Hardness setting"], "12 gpg")
        self.assertEqual(dict(r.settings)["Salt a regeneration"], "12 lb")
        self.assertEqual(dict(r.settings)["Longest interval"], "4 days")
        figure = next(f for f in r.figures if f.id == "interval")
        self.assertEqual((figure.value, figure.unit), ("4", "days"))


class WhatTheClockLetsThrough(unittest.TestCase):
    def test_the_hard_share_is_said_in_percent(self):
        # brief 4: 1 ft³ at 8 lb by clock every 7 days, 240 gal/day at 16.4 gpg: 24,000 grains of
        # 27,552: 13 % of the water stays hard
        r = stage(1.0, {"hardness": 16.4 * GPG}, control="clock", dose_lb_ft3=8, clock_days=7)
        rows = [row for f in r.figures for row in f.working.rows]
        share = next(row.value for row in rows if row.label == "hard share of the water")
        self.assertEqual(share, "13")


if __name__ == "__main__":
    unittest.main()
