"""The price line by line, worked by hand."""

import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.making import settings
from zesty_glass.core.costing.plan import apr, effective_rate
from zesty_glass.core.errors import RuleError
from zesty_glass.core.proposing.price import Terms, price_lines, to_pay

D = Decimal
TAXED = settings(tax_equipment=D("0.06"), tax_labour=D("0.02"))


def lines(equipment="1000", installation="200", firm=TAXED, **terms):
    told = Terms(**{k: D(v) if isinstance(v, str) else v for k, v in terms.items()})
    return {
        x.label.split(",")[0]: x.amount
        for x in price_lines(D(equipment), D(installation), told, firm)
    }


class Price(unittest.TestCase):
    def test_tax_by_kind(self):
        # 1,000 × 6 % = 60; 200 × 2 % = 4; 1,000 + 200 + 64 = 1,264
        got = lines()
        self.assertEqual(got["Sales tax on equipment"], D("60.00"))
        self.assertEqual(got["Sales tax on labor"], D("4.00"))
        self.assertEqual(got["To pay"], D("1264.00"))

    def test_a_discount_comes_off_before_tax_in_proportion(self):
        # 120 off 1,200: 100 of equipment, 20 of work; 900 × 6 % = 54; 180 × 2 % = 3.60
        got = lines(discount="120")
        self.assertEqual(got["Discount"], D("-120"))
        self.assertEqual(got["Sales tax on equipment"], D("54.00"))
        self.assertEqual(got["Sales tax on labor"], D("3.60"))
        self.assertEqual(got["To pay"], D("1137.60"))

    def test_exempt(self):
        got = lines(tax_exempt=True)
        self.assertEqual(got["To pay"], D("1200"))
        self.assertEqual(got["Exempt from sales tax"], 0)

    def test_deposit_and_rest(self):
        got = lines(deposit="264")
        self.assertEqual((got["Deposit"], got["Rest"]), (D("264"), D("1000.00")))

    def test_no_tax_no_line(self):
        self.assertEqual(set(lines(firm=settings())), {"Equipment", "Installation", "To pay"})
        self.assertEqual(set(lines("0", "0", settings())), {"Equipment", "To pay"})

    def test_what_cannot_be(self):
        for terms, code in (
            ({"discount": "-1"}, "terms.negative"),
            ({"deposit": "-1"}, "terms.negative"),
            ({"discount": "1200.01"}, "terms.discount"),
            ({"deposit": "1264.01"}, "terms.deposit"),
        ):
            with self.assertRaises(RuleError) as e:
                lines(**terms)
            self.assertEqual(e.exception.code, code)

    @given(
        st.decimals(0, 50_000, places=2),
        st.decimals(0, 5_000, places=2),
        st.decimals(0, 1, places=2),
    )
    def test_the_lines_add_up(self, equipment, installation, share):
        discount = ((equipment + installation) * share).quantize(D("0.01"), "ROUND_DOWN")
        got = price_lines(equipment, installation, Terms(discount=discount), TAXED)
        self.assertEqual(sum(x.amount for x in got if x.kind != "total"), to_pay(got))


class Rates(unittest.TestCase):
    def test_nominal_and_effective(self):
        # 1 % a month is 12 % nominal and 1.01^12 − 1 = 12.68 % effective
        self.assertEqual(effective_rate(D("12.00")), D("12.68"))
        self.assertEqual(effective_rate(D("0")), D("0.00"))

    def test_of_a_plan(self):
        # 1,000 over 12 months at 1 % a month: payment 1,000 × 0.01 / (1 − 1.01^−12) = 88.85
        nominal = apr(D("1000"), D("0"), D("88.85"), 12)
        self.assertAlmostEqual(float(nominal), 12.0, 1)
        self.assertAlmostEqual(float(effective_rate(nominal)), 12.68, 1)


if __name__ == "__main__":
    unittest.main()
