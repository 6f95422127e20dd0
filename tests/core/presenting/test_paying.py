"""What is paid for a job, and when."""

import unittest
from decimal import Decimal as D

from zesty_glass.core.presenting.offer import plan_terms
from zesty_glass.core.presenting.paying import payments
from zesty_glass.core.proposing.price import Terms, price_lines
from zesty_glass.core.proposing.proposal import Plan
from zesty_glass.core.rules import Settings


def price(**terms):
    settings = Settings(tax_equipment=D("0.05"), tax_labour=D(0))
    return price_lines(D(2000), D(400), Terms(**terms), settings)


def said(lines, plan=None):
    return [(p.label, p.many, p.amount, p.when) for p in payments(lines, plan)]


class Paying(unittest.TestCase):
    def test_all_of_it_when_it_is_installed(self):
        # 2,000 and 5 % of it, and 400: 2,500
        self.assertEqual(said(price()), [("All of it", 1, D("2500.00"), "when it is installed")])

    def test_a_deposit_and_the_rest_are_the_whole(self):
        self.assertEqual(
            said(price(deposit=D(600))),
            [
                ("Deposit", 1, D(600), "at signing"),
                ("Rest", 1, D("1900.00"), "when it is installed"),
            ],
        )

    def test_a_plan_is_paid_by_the_month(self):
        plan = plan_terms(Plan(down=D(100), monthly=D(110), months=24), D(2500))
        self.assertEqual(
            said(price(), plan),
            [
                ("Down payment", 1, D(100), "at signing"),
                ("Instalment", 24, D(110), "every month, 24 times"),
            ],
        )
        everything = sum(p.amount * p.many for p in payments(price(), plan))
        self.assertEqual(everything, plan.total_paid)

    def test_nothing_down_is_not_a_payment(self):
        plan = plan_terms(Plan(monthly=D(110), months=24), D(2500))
        self.assertEqual([p[0] for p in said(price(), plan)], ["Instalment"])

    def test_nothing_is_claimed_of_a_price_that_is_not_known(self):
        self.assertEqual(payments((), None), ())


if __name__ == "__main__":
    unittest.main()
