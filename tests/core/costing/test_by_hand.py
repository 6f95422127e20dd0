"""Money worked by hand, each case with its derivation: growth, discount, edges of intervals, per
gallon, the monthly curve, plans.
"""

import math
import unittest
from decimal import Decimal

from zesty_glass.core.costing.falling import (
    interval_months,
    interval_why,
    keeps_up,
    months_due,
    rates_for,
)
from zesty_glass.core.costing.money import (
    HORIZONS,
    added_cost,
    lifetime,
    lifetime_total,
    stays_cheaper_from,
)
from zesty_glass.core.costing.plan import apr
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.option import Purchase
from zesty_glass.core.treating.report import Due, Running

D = Decimal


def due(price, months=None, capacity=None, gallons=0.0, **more):
    base = {"code": "c", "label": "A part", "kind": "filter", "life_factor": 1.0, "scope": "tap"}
    return Due(
        **{
            **base,
            "price": D(str(price)),
            "months": months,
            "capacity_gal": capacity,
            "gallons_year": gallons,
            **more,
        }
    )


def power(per_year, label="Power", kind="power", scope="tap", why=""):
    return Running(label=label, kind=kind, per_year=D(str(per_year)), scope=scope, why=why)


def bought(price=0, installation=0, scope="tap"):
    return (
        Purchase(
            code="m", label="A unit", price=D(price), installation=D(installation), scope=scope
        ),
    )


def life(purchases=(), dues=(), running=(), years=1, growth="0", discount="0", **gallons):
    return lifetime(purchases, dues, running, years, D(growth), D(discount), **gallons)


class GrowthAndDiscount(unittest.TestCase):
    def test_a_price_grows_with_whole_years(self):
        # 100 every 12 months over 3 years at 10 %: month 12 is year 1 (110.00), 24 is year 2
        # (121.00); month 36 is the end and does not count
        got = life(dues=(due(100, 12),), years=3, growth="0.10")
        self.assertEqual([e.amount for e in got.events], [D("110.00"), D("121.00")])
        self.assertEqual(got.by_year, (0, D("110.00"), D("121.00")))

    def test_within_the_first_year_a_price_has_not_grown(self):
        # every 6 months over 1 year: once, at month 6, at today's price
        self.assertEqual(life(dues=(due(100, 6),), growth="0.10").total, D("100.00"))

    def test_an_event_is_discounted_by_its_month(self):
        # 121 at month 24, 10 % a year: 121 / 1.1^2 = 100.00; at month 12 110 / 1.1 = 100.00
        self.assertEqual(life(dues=(due(121, 24),), years=3, discount="0.10").total, D("100.00"))
        both = life(dues=(due(100, 12),), years=3, growth="0.10", discount="0.10")
        self.assertEqual([e.amount for e in both.events], [D("100.00"), D("100.00")])

    def test_half_a_year_is_the_root_of_a_year(self):
        # 100 at month 6, 21 % a year: 100 / √1.21 = 100 / 1.1 = 90.91
        self.assertEqual(life(dues=(due(100, 6),), discount="0.21").total, D("90.91"))

    def test_running_costs_are_discounted_month_by_month(self):
        # 12 a month at months 0 to 11, at 12 % a year: 12 × Σ 1.12^(−m/12)
        # = 12 × (1 − 1/1.12) / (1 − 1.12^(−1/12)) = 12 × 0.1071429 / 0.0093996 = 136.784
        got = life(running=(power(144),), discount="0.12")
        self.assertEqual(got.total, D("136.78"))

    def test_running_costs_grow_by_the_year(self):
        # 100, then 103, then 106.09
        got = life(running=(power(100),), years=3, growth="0.03")
        self.assertEqual(got.by_year, (D("100.00"), D("103.00"), D("106.09")))
        self.assertEqual(got.total, D("309.09"))

    def test_growth_and_discount_of_one_rate_cancel_by_the_year(self):
        # the second year is 1.1 times the first, and a year later: 1.1 / 1.1
        got = life(running=(power(144),), years=3, growth="0.10", discount="0.10")
        self.assertEqual(got.by_year[0], got.by_year[1])
        self.assertEqual(got.by_year[0], got.by_year[2])

    def test_a_purchase_is_never_discounted(self):
        self.assertEqual(life(bought(480, 220), discount="0.5").total, D("700.00"))

    def test_the_total_alone_is_the_same_total(self):
        parts, run = (due(62, 12), due(95, 36), due(38, 7.3)), (power(31), power(9, kind="salt"))
        for growth, discount in (("0.03", "0"), ("0.03", "0.05"), ("0", "0.02")):
            whole = life(bought(480, 220), parts, run, 10, growth, discount).total
            alone = lifetime_total(bought(480, 220), parts, run, 10, D(growth), D(discount))
            self.assertEqual(whole, alone)
            added = added_cost(
                bought(480, 220), parts, run, rates_for(D(growth), D(discount), 10), 10
            )
            self.assertLess(abs(added - whole), D("0.11"))  # half a cent a year and kind


class Intervals(unittest.TestCase):
    def test_due_while_before_the_end(self):
        self.assertEqual(months_due(12, 2), [12])
        self.assertEqual(months_due(8, 2), [8, 16])
        self.assertEqual(months_due(24, 2), [])

    def test_capacity_by_the_month(self):
        # 600 gal at 1,200 gal a year is 100 gal a month: 6 months
        self.assertAlmostEqual(interval_months(due(1, None, 600, 1200)), 6.0)
        # the calendar is sooner at 4
        self.assertAlmostEqual(interval_months(due(1, 4, 600, 1200)), 4.0)
        # a life factor of a half halves it
        self.assertAlmostEqual(interval_months(due(1, 4, 600, 1200, life_factor=0.5)), 2.0)

    def test_why(self):
        self.assertEqual(interval_why(due(1, 12, 600, 1200)), "600 gal at 100 gal a month")
        self.assertEqual(interval_why(due(1, 5, 600, 1200)), "by the calendar")
        self.assertEqual(interval_why(due(1, 6, 600, 1200)), "by the calendar")
        self.assertEqual(interval_why(due(1, None, 600, 1200)), "600 gal at 100 gal a month")
        self.assertEqual(interval_why(due(1, 12)), "by the calendar")
        self.assertEqual(
            interval_why(due(1, 12, life_factor=0.5, why="iron")), "by the calendar, × 0.5: iron"
        )
        self.assertEqual(interval_why(due(1, None, 600, 0.0)), "no water runs through it")

    def test_what_cannot_be(self):
        for bad, code in (
            (due(1, 12, life_factor=0.0), "cost.life_factor"),
            (due(1), "cost.interval"),
            (due(1, 0.0), "cost.interval"),
        ):
            with self.assertRaises(RuleError) as e:
                interval_months(bad)
            self.assertEqual(e.exception.code, code)

    def test_the_least_interval(self):
        # 0.02 months is above the least of 0.01, 0.01 is not
        keeps_up([due(1, 0.02)])
        for months in (0.01, 0.001):
            with self.assertRaises(RuleError) as e:
                keeps_up([due(1, months)])
            self.assertEqual(e.exception.code, "cost.often")
        self.assertEqual(interval_months(due(1, 0.001)), 0.01)


class Sums(unittest.TestCase):
    def test_years_kinds_and_the_average(self):
        # 700 to begin with, 60 at month 6 and 18 of the second year, 24 a year of power:
        # year 1: 700 + 60 + 24 = 784; year 2: 60 + 60 + 24 (months 12, 18)
        got = life(bought(480, 220), (due(60, 6),), (power(24),), 2)
        self.assertEqual(got.by_year, (D("784.00"), D("144.00")))
        self.assertEqual((got.first_year, got.worst_year), (D("784.00"), D("144.00")))
        self.assertEqual(got.per_year, D("464.00"))
        self.assertEqual(
            got.by_kind,
            {
                "equipment": D("480.00"),
                "installation": D("220.00"),
                "filter": D("180.00"),
                "power": D("48.00"),
            },
        )

    def test_the_worst_year_leaves_out_what_was_bought(self):
        # 700 bought and 24 of power: the first year is 724, the worst of the rest 24
        got = life(bought(480, 220), (), (power(24),), 2)
        self.assertEqual(got.worst_year, D("24.00"))

    def test_per_gallon_by_branch(self):
        # tap: 700 + 24 a year over 2 years = 748, of 500 gal a year: 748 / 1,000 = 0.748
        # house: 100 of salt a year over 2 years, of 80,000 gal a year: 200 / 160,000 = 0.00125
        run = (power(24), power(100, "Salt", "salt", "house"))
        got = life(bought(480, 220), (), run, 2, house_gal_year=80_000, tap_gal_year=500)
        self.assertEqual(got.per_gallon_tap, D("0.748"))
        self.assertEqual(got.per_gallon_house, D("0.00125"))
        dry = life(bought(480, 220), (), run, 2)
        self.assertEqual((dry.per_gallon_tap, dry.per_gallon_house), (None, None))
        one = life(bought(480, 220), years=1, tap_gal_year=1)
        self.assertEqual(one.per_gallon_tap, D(700))

    def test_lines_say_how_often_and_what_for(self):
        run = (
            power(10, why="10 kWh"),
            power(5, "Pump", why="5 kWh"),
            power(7, scope="house"),
            power(3, "Salt", "salt"),
        )
        got = life(bought(480), (due(60, 6),), run, 2)
        unit, part, tap, house, salt = got.lines
        self.assertEqual((unit.times, unit.total, unit.interval_months), (1, D("480.00"), None))
        self.assertEqual((part.times, part.total, part.interval_months), (3, D("180.00"), 6))
        self.assertEqual((tap.label, tap.price, tap.times), ("Power and Pump", D("15.00"), 2))
        self.assertEqual(tap.why, "a year, spread by month; 10 kWh; 5 kWh")
        self.assertEqual((house.label, house.total), ("Power", D("14.00")))
        self.assertEqual((salt.price, salt.total), (D("3.00"), D("6.00")))

    def test_what_never_falls_due_has_no_interval(self):
        got = life(dues=(due(60, None, 600, 0.0),), years=5)
        self.assertEqual((got.lines[0].interval_months, got.lines[0].times), (None, 0))
        self.assertEqual(got.by_kind, {})

    def test_a_horizon_is_between_1_and_60_years(self):
        life(years=1)
        life(years=60)
        for years in (0, 61):
            with self.assertRaises(RuleError):
                life(years=years)


class Curve(unittest.TestCase):
    def test_month_by_month(self):
        # 100 at once, 10 at month 6 (paid by the end of month 5), 12 a year: 1 a month
        got = life(bought(100), (due(10, 6),), (power(12),), 1).monthly
        self.assertEqual(len(got), 13)
        self.assertEqual([got[m] for m in (0, 1, 5, 6, 11)], [100, 101, 105, 116, 121])
        self.assertEqual(got[12], D("122.00"))

    def test_the_curve_grows_with_the_year(self):
        # 12 a year is 1 a month; in the second year, at 10 %, 1.10
        got = life(running=(power(12),), years=2, growth="0.10").monthly
        self.assertEqual(len(got), 25)
        self.assertEqual([got[m + 1] - got[m] for m in (0, 11, 12, 22)], [1, 1, D("1.1"), D("1.1")])

    def test_discounted(self):
        # 12 a year at 21 %: month 0 costs 1, month 6 costs 1 / 1.1
        got = life(running=(power(12),), discount="0.21").monthly
        self.assertEqual(got[1], 1)
        self.assertAlmostEqual(float(got[7] - got[6]), 1 / 1.1, 6)

    def test_from_when_the_dearer_one_stays_cheaper(self):
        # 100 + 1 a month against 3 a month: 100 + m < 3 m from m = 51 on
        dear, cheap = life(bought(100), (), (power(12),), 5), life((), (), (power(36),), 5)
        self.assertEqual(stays_cheaper_from(dear, cheap), 51)
        self.assertIsNone(stays_cheaper_from(cheap, dear))
        self.assertIsNone(stays_cheaper_from(cheap, cheap))
        # one that is cheaper from the first month on has no crossing
        self.assertIsNone(stays_cheaper_from(life(running=(power(1),)), life(bought(9))))


class Horizons(unittest.TestCase):
    def test_those_that_are_offered(self):
        self.assertEqual(HORIZONS, (5, 10, 15, 20))


class Plans(unittest.TestCase):
    def test_no_interest(self):
        self.assertEqual(apr(D(1200), D(0), D(100), 12), D("0.00"))
        self.assertEqual(apr(D(1300), D(100), D(100), 12), D("0.00"))

    def test_one_payment_after_a_month(self):
        # 101 for 100 a month later is 1 % a month, 12 % nominal; with 50 down on 150 the same
        self.assertEqual(apr(D(100), D(0), D(101), 1), D("12.00"))
        self.assertEqual(apr(D(150), D(50), D(101), 1), D("12.00"))

    def test_two_payments(self):
        # 1,000 at 2 % a month in two payments: 1,000 × 0.02 / (1 − 1.02^−2) = 515.05
        self.assertAlmostEqual(float(apr(D(1000), D(0), D("515.0495"), 2)), 24.0, 2)

    def test_a_payment_rounded_down_is_no_fault(self):
        # 100 / 3 = 33.33, short by a cent
        self.assertEqual(apr(D(100), D(0), D("33.33"), 3), D("0.00"))
        # 100 / 12 = 8.33, short by 4 cents: half a cent a month is 6
        self.assertEqual(apr(D(100), D(0), D("8.33"), 12), D("0.00"))
        # half a cent a month and no more: 12 × 8.33 = 99.96 is 6 cents short of 100.02
        self.assertEqual(apr(D("100.02"), D(0), D("8.33"), 12), D("0.00"))
        with self.assertRaises(RuleError):
            apr(D("100.03"), D(0), D("8.33"), 12)
        for monthly, months in (("33.32", 3), ("8.32", 12)):
            with self.assertRaises(RuleError) as e:
                apr(D(100), D(0), D(monthly), months)
            self.assertEqual(e.exception.code, "plan.impossible")

    def test_the_highest_rate(self):
        # 1,000 % a year is 83.33 % a month: one payment of 183.33 for 100
        self.assertLess(apr(D(100), D(0), D("183"), 1), 1000)
        with self.assertRaises(RuleError) as e:
            apr(D(100), D(0), D("184"), 1)
        self.assertEqual(e.exception.code, "plan.apr")

    def test_what_is_no_plan(self):
        for price, down, monthly, months in (
            (100, 0, 10, 0),
            (100, 0, 0, 12),
            (100, 100, 10, 12),
            (100, 120, 10, 12),
            (100, 0, -10, 12),
        ):
            with self.assertRaises(RuleError) as e:
                apr(D(price), D(down), D(monthly), months)
            self.assertEqual(
                e.exception.what, "A plan needs a balance, payments and months above 0."
            )
        self.assertTrue(math.isfinite(apr(D(1), D(0), D(1), 1)))


class Falling(unittest.TestCase):
    def test_a_new_part_falls_due_when_it_has_served_its_months(self):
        # every six months of one year: once, at month six, for the second would be its end
        new = rates_for(D(0), D(0), 1).falling(D(10), 6.0)
        self.assertEqual((new.months, new.total), ((6.0,), D(10)))

    def test_one_that_has_served_four_months_falls_due_in_two(self):
        used = rates_for(D(0), D(0), 1).falling(D(10), 6.0, 4.0)
        self.assertEqual((used.months, used.total), ((2.0, 8.0), D(20)))


if __name__ == "__main__":
    unittest.main()
