"""Lifetime cost: the worked figures to the cent, and properties."""

import math
import unittest
from decimal import ROUND_HALF_EVEN, Decimal

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.costing.falling import interval_months, months_due, rates_for
from zesty_glass.core.costing.money import lifetime, lifetime_total, stays_cheaper_from
from zesty_glass.core.costing.plan import apr
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.option import Purchase
from zesty_glass.core.treating.report import Due, Running

D = Decimal
BOUGHT = (Purchase(code="m", label="Membrane", price=D(480), installation=D(220), scope="tap"),)


def due(price, months=None, capacity=None, gallons=0.0, life=1.0, kind="filter"):
    return Due(
        code="c",
        label="A part",
        kind=kind,
        price=D(price),
        months=months,
        capacity_gal=capacity,
        gallons_year=gallons,
        life_factor=life,
        scope="tap",
    )


def run(per_year, kind="power"):
    return Running(label="Power", kind=kind, per_year=D(per_year), scope="tap")


PARTS = (due(62, 12), due(95, 36), due(38, 12))


class WorkedFigures(unittest.TestCase):
    def test_ten_years(self):
        self.assertEqual(lifetime(BOUGHT, PARTS, (run(31),), 10, D(0), D(0)).total, D("2195.00"))

    def test_interval_by_use(self):
        self.assertEqual(f"{interval_months(due(30, 12, 600, 2 * 365.25)):.2f}", "9.86")
        self.assertEqual(f"{interval_months(due(30, 12, 600, 4 * 365.25)):.2f}", "4.93")

    def test_where_only_gallons_count_and_no_water_runs_it_never_falls_due(self):
        dry = due(30, None, 600, 0.0)
        self.assertEqual(interval_months(dry), math.inf)
        life = lifetime(BOUGHT, (dry,), (), 20, D(0), D(0))
        self.assertEqual(
            (life.total, life.lines[-1].interval_months, life.lines[-1].times),
            (D("700.00"), None, 0),
        )
        self.assertIn("no water", life.lines[-1].why)

    def test_life_factor_shortens(self):
        self.assertEqual(interval_months(due(95, 36, life=0.5)), 18)

    def test_growth_by_price_year_and_half_even(self):
        life = lifetime((), (due("10.05", 12),), (), 3, D("0.03"), D(0))
        self.assertEqual([e.amount for e in life.events], [D("10.35"), D("10.66")])

    def test_first_and_worst_year(self):
        life = lifetime(BOUGHT, PARTS, (run(31),), 10, D(0), D(0))
        self.assertEqual((life.first_year, life.worst_year), (D("731.00"), D("226.00")))


class Refused(unittest.TestCase):
    def test_bad_input(self):
        for make in (
            lambda: interval_months(due(1)),
            lambda: interval_months(due(1, 12, life=0)),
            lambda: lifetime((), (), (), 0, D(0), D(0)),
            lambda: apr(D(100), D(0), D(1), 12),
            lambda: apr(D(100), D(0), D(100), 24),
        ):
            with self.assertRaises(RuleError):
                make()


class Plans(unittest.TestCase):
    def test_rate_free(self):
        self.assertEqual(apr(D(1200), D(0), D(100), 12), D("0.00"))

    def test_a_thousand_percent_is_the_last_rate(self):
        # one payment a month later: 1,200 owed, 2,200 paid is 10/12 a month, 1,000 % a year
        self.assertEqual(apr(D(1200), D(0), D(2200), 1), D("1000.00"))
        with self.assertRaises(RuleError) as e:
            apr(D(1200), D(0), D("2200.01"), 1)
        self.assertEqual(e.exception.code, "plan.apr")

    def test_one_payment_is_its_own_rate(self):
        # 1,000 owed, 1,010 paid after a month: 1 % a month, 12 % a year
        self.assertEqual(apr(D(1000), D(0), D(1010), 1), D("12.00"))

    def test_against_the_annuity_formula(self):
        rate = 0.09 / 12
        pay = 3000 * rate / (1 - (1 + rate) ** -36)
        self.assertAlmostEqual(float(apr(D(3000), D(0), D(repr(pay)), 36)), 9.0, 2)


class Properties(unittest.TestCase):
    parts = st.lists(
        st.tuples(
            st.integers(1, 500), st.floats(0.3, 60), st.sampled_from(["filter", "lamp", "membrane"])
        ),
        max_size=6,
    )
    rates = st.decimals("0", "0.2", places=3)

    @given(parts, st.integers(0, 900), rates, rates, st.integers(1, 20))
    def test_kinds_and_years_sum_to_the_total(self, parts, yearly, g, r, years):
        life = lifetime(
            BOUGHT, [due(p, m, kind=k) for p, m, k in parts], (run(yearly),), years, g, r
        )
        self.assertEqual(sum(life.by_kind.values()), life.total)
        self.assertEqual(sum(life.by_year), life.total)
        self.assertEqual(sum(line.total for line in life.lines), life.total)
        self.assertEqual((len(life.monthly), life.monthly[-1]), (12 * years + 1, life.total))

    @given(parts, st.integers(0, 900), rates)
    def test_a_longer_horizon_never_costs_less(self, parts, yearly, g):
        totals = [
            lifetime(BOUGHT, [due(p, m) for p, m, _ in parts], (run(yearly),), y, g, D(0)).total
            for y in (5, 10, 15, 20)
        ]
        self.assertEqual(totals, sorted(totals))

    @given(parts, st.lists(st.integers(0, 900), max_size=4), rates, rates, st.integers(1, 20))
    def test_the_total_alone_is_the_same_total(self, parts, yearly, g, r, years):
        what = (
            BOUGHT,
            [due(p, m, kind=k) for p, m, k in parts],
            [run(y, kind=f"k{n % 2}") for n, y in enumerate(yearly)],
            years,
            g,
            r,
        )
        self.assertEqual(lifetime_total(*what), lifetime(*what).total)

    @given(parts, rates, st.integers(1, 20))
    def test_the_curve_against_its_events(self, parts, g, years):
        life = lifetime(BOUGHT, [due(p, m) for p, m, _ in parts], (), years, g, D(0))
        for month in (0, 1, 6, 12 * years - 1):
            self.assertEqual(
                life.monthly[month],
                sum((e.amount for e in life.events if e.month <= month + 1e-9), D(0)),
            )

    @given(st.decimals("0.01", "900", places=2), rates, st.integers(1, 20))
    def test_grown_prices_are_rounded_half_even(self, price, g, years):
        for y, amount in enumerate(rates_for(g, D(0), years).priced(price)):
            self.assertEqual(
                amount, (price * (1 + g) ** y).quantize(D("0.01"), rounding=ROUND_HALF_EVEN)
            )

    @given(st.floats(0.05, 250), st.integers(1, 20))
    def test_event_count_against_plain_enumeration(self, interval, years):
        plain, k = 0, 1
        while k * interval < 12 * years - 1e-9:
            plain, k = plain + 1, k + 1
        self.assertEqual(len(months_due(interval, years)), plain)

    @given(parts, st.integers(1, 900), st.floats(50, 2000))
    def test_per_gallon_times_gallons_is_the_total(self, parts, yearly, gallons):
        life = lifetime(
            BOUGHT,
            [due(p, m) for p, m, _ in parts],
            (run(yearly),),
            10,
            D("0.03"),
            D(0),
            0.0,
            gallons,
        )
        self.assertAlmostEqual(float(life.per_gallon_tap) * gallons * 10, float(life.total), 4)
        self.assertIsNone(life.per_gallon_house)

    @given(st.integers(1, 500), st.integers(1, 500), st.integers(1, 90), st.integers(1, 90))
    def test_crossing_is_where_it_stays_cheaper(self, pa, pb, ra, rb):
        def life(p, r):
            return lifetime(
                (Purchase(code="x", label="x", price=D(p), installation=D(0), scope="tap"),),
                (),
                (run(r),),
                10,
                D(0),
                D(0),
            )

        a, b = life(pa, ra), life(pb, rb)
        m = stays_cheaper_from(a, b)
        if m is not None:
            self.assertTrue(all(x < y for x, y in zip(a.monthly[m:], b.monthly[m:], strict=True)))
            self.assertGreaterEqual(a.monthly[m - 1], b.monthly[m - 1])
