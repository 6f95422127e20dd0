"""Lines with rented items: what is paid, what the rent covers, what is said, and each way side by
side.
"""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.paying import payments
from zesty_glass.core.proposing.price import Terms, price_lines, rent_lines, to_pay
from zesty_glass.core.treating.letting import Letting
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice

D = Decimal
ITEMS = {i.code: i for i in example_items()}
WATER = water(hardness=308, iron=0.02, tds=420, ph=7.6, temperature=12, chlorine_free=0.5)
NOTHING_GROWS = settings(price_growth=D(0), discount=D(0))


def line(*choices, items=ITEMS):
    option = Option(id="o", name="O", stages=tuple(choices))
    return walk(option, items, WATER, None, home(), NOTHING_GROWS)


def chosen(code, terms):
    return StageChoice(item=code, terms=terms)


class Rented(unittest.TestCase):
    def test_a_rental_has_no_price_but_a_rent(self):
        got = line(chosen("SO-15", "rental"))
        bought = got.purchases[0]
        self.assertEqual((bought.price, bought.installation), (0, D(120)))
        self.assertEqual(got.rent_month, D(39))

    def test_parts_are_in_the_rent_and_salt_is_not(self):
        bought, let = (line(chosen("SO-15", t)) for t in ("buy", "rental"))
        self.assertTrue(any(d.price for d in bought.dues))
        self.assertEqual({d.price for d in let.dues}, {0})
        self.assertEqual({d.why for d in let.dues}, {"in the rent"})
        self.assertEqual(
            [r.label for r in let.running if r.kind == "salt"],
            [r.label for r in bought.running if r.kind == "salt"],
        )

    def test_the_firms_service_is_in_the_rent(self):
        items = {**ITEMS, "SO-15": replace(ITEMS["SO-15"], service_year=D(50))}
        for terms, paid in (("buy", True), ("rental", False), ("rent_to_own", True)):
            got = line(chosen("SO-15", terms), items=items)
            self.assertEqual(any(r.kind == "service" for r in got.running), paid, terms)

    def test_of_a_system_too(self):
        got = line(chosen("DT-1", "rental"), chosen("SO-15", "buy"))
        tap = {s.code for s in got.stages if s.scope == "tap"}
        self.assertEqual(set(got.in_the_rent), tap)
        self.assertEqual({d.price for s in got.as_paid if s.code in tap for d in s.dues}, {0})
        self.assertTrue(any(d.price for s in got.as_paid if s.code == "SO-15" for d in s.dues))

    def test_to_own_pays_its_parts(self):
        self.assertTrue(any(d.price for d in line(chosen("SO-15", "rent_to_own")).dues))

    def test_it_is_said(self):
        for terms, id in (("rental", "let.rental"), ("rent_to_own", "let.to_own")):
            got = [c for c in line(chosen("SO-15", terms)).checks if c.id.startswith("let.")]
            self.assertEqual([(c.id, c.status) for c in got], [(id, "say")])
        self.assertFalse([c for c in line(chosen("SO-15", "buy")).checks if "let." in c.id])

    def test_what_the_firm_does_not_let_is_refused(self):
        with self.assertRaises(RuleError) as e:
            line(chosen("SO-10", "rental"))
        self.assertEqual(e.exception.code, "line.not_let")

    def test_an_item_is_let_once_each_way(self):
        let = Letting(kind="rental", per_month=D(9), months=9)
        with self.assertRaises(RuleError) as e:
            replace(ITEMS["SO-10"], lets=(let, let))
        self.assertEqual(e.exception.code, "letting.twice")


class Paid(unittest.TestCase):
    FIRM = settings(tax_equipment=D("0.05"), tax_labour=D("0"))

    def lines(self, terms, **agreed):
        got = line(chosen("SO-15", terms))
        price = sum((p.price for p in got.purchases), D(0))
        work = sum((p.installation for p in got.purchases), D(0))
        told = Terms(**agreed)
        return (
            *price_lines(price, work, told, self.FIRM),
            *rent_lines(got.purchases, told, self.FIRM),
        )

    def test_rent_stands_beside_what_is_paid_at_once(self):
        got = self.lines("rental")
        self.assertEqual(to_pay(got), D(120))
        self.assertEqual(
            [(x.kind, x.amount, x.times) for x in got[-2:]],
            [("rent", D(39), 0), ("rent_tax", D("1.95"), 0)],
        )

    def test_exempt_from_sales_tax(self):
        self.assertEqual([x.kind for x in self.lines("rental", tax_exempt=True)][-1], "rent")

    def test_payments_with_tax(self):
        rent = payments(self.lines("rent_to_own"), None)[-1]
        self.assertEqual((rent.amount, rent.many), (D("48.30"), 48))
        self.assertEqual(rent.when, "every month, 48 times")
        rent = payments(self.lines("rental"), None)[-1]
        self.assertEqual((rent.amount, rent.many, rent.when), (D("40.95"), 0, "every month"))


def rental(per_month="30", setup="0", months=12, kind="rental", **more):
    return Letting(kind=kind, per_month=D(per_month), setup=D(setup), months=months, **more)


class CannotBe(unittest.TestCase):
    def test_refused(self):
        for code, wrong in (
            ("letting.rent", {"per_month": "0"}),
            ("letting.rent", {"per_month": "-1"}),
            ("letting.setup", {"per_month": "NaN"}),
            ("letting.setup", {"setup": "-0.01"}),
            ("letting.setup", {"setup": "Infinity"}),
            ("letting.months", {"months": 0}),
            ("letting.months", {"months": 241}),
            ("letting.covers", {"kind": "rent_to_own", "covers_parts": True}),
        ):
            with self.subTest(code, **wrong), self.assertRaises(RuleError) as e:
                rental(**wrong)
            self.assertEqual(e.exception.code, code)

    def test_at_the_edges_it_can_be(self):
        for right in ({"per_month": "0.01"}, {"setup": "0"}, {"months": 1}, {"months": 240}):
            self.assertEqual(rental(**right).kind, "rental")

    def test_how_often_it_is_paid(self):
        self.assertIsNone(rental().payments)
        self.assertEqual(rental(kind="rent_to_own").payments, 12)
