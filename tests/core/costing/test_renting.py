"""Renting beside buying, worked by hand: months, growth, discount, what the rent covers, yearly
rate, and the month from which buying is cheaper.
"""

import unittest
from decimal import Decimal

from tests.core.costing.test_by_hand import due, life, power
from zesty_glass.core.costing.falling import rates_for
from zesty_glass.core.costing.money import added_cost, lifetime_total, rents
from zesty_glass.core.costing.renting import yearly_rate
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.letting import Letting
from zesty_glass.core.treating.option import Purchase

D = Decimal


def rental(per_month="30", setup="0", months=12, **more):
    return Letting(kind="rental", per_month=D(per_month), setup=D(setup), months=months, **more)


def to_own(per_month="50", setup="0", months=24):
    return Letting(kind="rent_to_own", per_month=D(per_month), setup=D(setup), months=months)


def rented(let):
    return (
        Purchase(
            code="u", label="A unit", price=D(0), installation=let.setup, scope="house", let=let
        ),
    )


class Rents(unittest.TestCase):
    def test_a_rental_is_paid_every_month_of_the_horizon_ahead(self):
        # 24 months of 30: 720, the first at month 0, the last at month 23
        got = life(rented(rental()), years=2)
        self.assertEqual((got.total, got.by_year), (D("720.00"), (D("360.00"), D("360.00"))))
        self.assertEqual([got.events[0].month, got.events[-1].month], [0.0, 23.0])

    def test_a_rental_grows_a_year_at_a_time(self):
        # 12 × 30 = 360; the second year 12 × 33 = 396
        self.assertEqual(life(rented(rental()), years=2, growth="0.10").total, D("756.00"))

    def test_to_own_ends_with_its_last_payment_and_does_not_grow(self):
        # 24 × 50 = 1,200 over 5 years at 10 % growth all the same
        got = life(rented(to_own()), years=5, growth="0.10")
        self.assertEqual(got.total, D("1200.00"))
        self.assertEqual(got.by_year, (D("600.00"), D("600.00"), 0, 0, 0))

    def test_to_own_that_is_longer_than_the_horizon_is_cut_there(self):
        self.assertEqual(life(rented(to_own(months=24)), years=1).total, D("600.00"))

    def test_each_rent_is_discounted_by_its_month(self):
        # 21 % a year: month 0 in full, month 6 by √1.21 = 1.1: 110 → 100.00
        got = rents(to_own("110", months=7), rates_for(D(0), D("0.21"), 1))
        self.assertEqual((got[0], got[6]), (D("110.00"), D("100.00")))

    def test_what_is_paid_once_comes_first_and_is_no_rent(self):
        got = life(rented(rental(setup="120")), years=1)
        self.assertEqual(got.purchase, D("120.00"))
        self.assertEqual(got.by_kind, {"installation": D("120.00"), "rent": D("360.00")})
        self.assertEqual(got.worst_year, D("360.00"))
        self.assertEqual(got.lines[0].label, "Setting up A unit")

    def test_the_curve_starts_with_the_first_rent_and_ends_with_the_total(self):
        got = life(rented(rental(setup="120")), years=1)
        self.assertEqual(
            (got.monthly[0], got.monthly[1], got.monthly[-1]),
            (D(150), D(180), D(480)),
        )

    def test_the_three_sums_of_a_line_agree(self):
        bought, dues, running = rented(rental(setup="120")), (due(20, 6),), (power(12),)
        rates = rates_for(D("0.03"), D("0.02"), 3)
        whole = life(bought, dues, running, years=3, growth="0.03", discount="0.02").total
        self.assertEqual(lifetime_total(bought, dues, running, 3, D("0.03"), D("0.02")), whole)
        self.assertAlmostEqual(added_cost(bought, dues, running, rates, 3), whole, 1)


class YearlyRate(unittest.TestCase):
    def test_one_per_cent_a_month(self):
        # 1,000 bought; 12 payments, the first at once: 1,000 = x (1 + 1/1.01 + … + 1/1.01^11),
        # x = 1,000 / (1.01 × 11.2551) = 87.97
        self.assertAlmostEqual(float(yearly_rate(D(1000), to_own("87.97", months=12))), 12, 1)

    def test_what_is_paid_once_counts_as_paid_down(self):
        # 600 down of 1,600 leaves the same 1,000
        got = yearly_rate(D(1600), to_own("87.97", setup="600", months=12))
        self.assertAlmostEqual(float(got), 12, 1)

    def test_rents_that_come_to_less_than_the_price_have_no_rate(self):
        with self.assertRaises(RuleError) as e:
            yearly_rate(D(1000), to_own("10", months=12))
        self.assertEqual(e.exception.code, "plan.impossible")
