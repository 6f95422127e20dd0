"""Assumptions: listed, each can be switched off, none silent; soap never more than a lather test
showed.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal

from zesty_glass.core.assess import assess, assess_over
from zesty_glass.demo.homes import home_1, home_6

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
BASE = home_1(AT)
SOAP = replace(
    BASE,
    home=replace(BASE.home, soap_month=Decimal("40"), bottled_month=Decimal("0")),
    demonstrations=(),
)


def total(a, name):
    return next(o.cost.total for o in a.options if o.name == name)


def kinds(a, name):
    return next(o.cost.by_kind for o in a.options if o.name == name)


class Listed(unittest.TestCase):
    def test_none_without_a_habit(self):
        self.assertEqual(
            assess(replace(SOAP, home=replace(SOAP.home, soap_month=Decimal(0)))).assumptions, ()
        )

    def test_each_is_said_with_what_it_comes_to(self):
        listed = {a.id: a for a in assess(SOAP).assumptions}
        self.assertEqual(set(listed), {"soap.today", "soap.less"})
        self.assertEqual(listed["soap.less"].per_year, Decimal("96.0"))
        self.assertIn("20 % less soap", listed["soap.less"].sentence)
        self.assertIn("estimate", listed["soap.less"].sentence)
        self.assertIn("$0 to $96 a year", listed["soap.less"].sentence)

    def test_only_softened_lines_are_credited(self):
        a = assess(SOAP)
        self.assertLess(
            kinds(a, "Softener and drinking tap")["soap"], kinds(a, "Without salt")["soap"]
        )
        self.assertEqual(kinds(a, "Without salt")["soap"], kinds(a, "Today")["soap"])

    def test_switched_off_it_counts_for_nothing(self):
        off = assess(replace(SOAP, assumptions_off=("soap.less",)))
        self.assertEqual(
            kinds(off, "Softener and drinking tap")["soap"], kinds(off, "Today")["soap"]
        )
        none = assess(replace(SOAP, assumptions_off=("soap.today",)))
        self.assertNotIn("soap", kinds(none, "Today"))

    def test_never_more_than_the_lather_test_showed(self):
        lather = BASE.demonstrations[0]
        weak = replace(
            lather,
            body=replace(
                lather.body,
                vials=tuple(
                    replace(v, steps=(3, 3, 1) if v.role == "tap" else (3, 3))
                    for v in lather.body.vials
                    if v.role != "conditioned"
                ),
            ),
        )
        listed = {a.id: a for a in assess(replace(SOAP, demonstrations=(weak,))).assumptions}
        self.assertLess(listed["soap.less"].per_year, Decimal("96"))

    def test_a_simulated_lather_proves_nothing(self):
        lather = replace(BASE.demonstrations[0], simulated=True)
        self.assertEqual(
            assess(replace(SOAP, demonstrations=(lather,))).assumptions, assess(SOAP).assumptions
        )

    def test_a_tap_unit_ends_the_bottles_only_when_that_is_assumed(self):
        v = home_6(AT)
        on, off = assess(v), assess(replace(v, assumptions_off=("bottled.ends",)))
        self.assertLess(total(on, "Pitcher"), total(off, "Pitcher"))


class Horizons(unittest.TestCase):
    def test_once_for_all_horizons_is_the_same_as_one_by_one(self):
        for years, a in zip(
            (5, 10, 15, 20), assess_over(BASE, (5, 10, 15, 20), use_bands=True), strict=True
        ):
            self.assertEqual(a, assess(BASE, years, use_bands=True))

    def test_a_longer_one_never_costs_less(self):
        every = assess_over(BASE, (5, 10, 15, 20))
        for n in range(len(every[0].options)):
            totals = [a.options[n].cost.total for a in every]
            self.assertEqual(totals, sorted(totals))

    def test_the_sum_of_kinds_is_the_total(self):
        for a in assess_over(BASE, (5, 20)):
            for o in a.options:
                self.assertEqual(sum(o.cost.by_kind.values()), o.cost.total)
                self.assertEqual(sum(o.cost.by_year), o.cost.total)

    def test_the_band_holds_the_expected(self):
        for o in assess(BASE, use_bands=True).options:
            if o.use_band is not None:
                self.assertTrue(o.use_band.low <= o.cost.total <= o.use_band.high)

    def test_per_gallon_times_gallons_is_what_the_branch_costs(self):
        a = assess(BASE)
        for o in a.options:
            if o.cost.per_gallon_tap is not None:
                back = o.cost.per_gallon_tap * Decimal(
                    repr(a.demand.drinking_gal_year * o.cost.years)
                ) + (o.cost.per_gallon_house or 0) * Decimal(
                    repr(a.demand.house_gal_year * o.cost.years)
                )
                self.assertAlmostEqual(back, o.cost.total, places=2)

    def test_more_use_never_costs_less(self):
        low, expected, high = (assess_over(BASE, (10,), use=u)[0] for u in (50 / 60, 1.0, 75 / 60))
        for a, b, c in zip(low.options, expected.options, high.options, strict=True):
            self.assertTrue(a.cost.total <= b.cost.total <= c.cost.total, a.name)
