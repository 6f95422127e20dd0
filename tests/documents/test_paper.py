"""The proposal on paper: a first page that stands alone, times in words, a document that a screen
reader can read."""

import io
import unittest
from dataclasses import replace
from datetime import UTC, date, datetime
from decimal import Decimal

from pypdf import PdfReader

from zesty_glass.core.costing.money import CostLine
from zesty_glass.core.presenting.offer import Offer, make_offer
from zesty_glass.core.proposing.proposal import Proposal, Signature
from zesty_glass.demo.homes import home_1, home_7
from zesty_glass.documents import pdf

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
LINK = "https://water.example/p/" + "A" * 43


def offered(visit, recommended: str) -> Offer:
    return make_offer(
        visit,
        number="261120-AB12",
        revision=1,
        created_at=AT,
        valid_until=date(2026, 12, 20),
        recommended=recommended,
        reasons="",
    )


def proposal(offer: Offer, **more) -> Proposal:
    base = {
        "id": "x",
        "number": offer.number,
        "revision": 1,
        "recommended": offer.recommended,
        "reasons": offer.reasons,
        "horizon": offer.horizon,
        "plan": None,
        "created_at": AT,
        "valid_until": offer.valid_until,
        "snapshot": "{}",
        "digest": "0" * 64,
    }
    return Proposal(**{**base, **more})


def line(months: float | None, times: int = 1, why: str = "by the calendar") -> CostLine:
    return CostLine(
        label="Filter",
        kind="filter",
        scope="tap",
        price=Decimal(9),
        interval_months=months,
        times=times,
        total=Decimal(9),
        why=why,
    )


class Paper(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        visit = home_1(AT)
        cls.offer = offered(visit, visit.options[1].id)
        data = pdf.proposal_pdf(cls.offer, proposal(cls.offer), "good", LINK)
        cls.reader = PdfReader(io.BytesIO(data))
        cls.pages = [" ".join(p.extract_text().split()) for p in cls.reader.pages]

    def test_the_first_page_stands_alone(self):
        for said in (
            "hardness at 19 gpg",
            "We recommend “Softener and drinking tap”",
            "Perrin Oakhalse, Larkspout",
            "to buy and install",
            "total cost over 10 years",
            "of wastewater a year",
            "of your time a year",
            "Before you sign",
        ):
            self.assertIn(said, self.pages[0])

    def test_a_warning_before_signing_stands_once_beside_the_reasons(self):
        whole = " ".join(self.pages)
        self.assertEqual(whole.count("Before you sign"), 1)

    def test_no_time_that_is_never_reached_costs_a_line(self):
        whole = " ".join(self.pages)
        self.assertNotIn("0 times", whole)
        self.assertNotIn(".0 months", whole)
        self.assertIn("Not within these 10 years: Resin, 2 ft³, replaced, every 12 years.", whole)

    def test_no_page_has_a_few_lines_only(self):
        for n, text in enumerate(self.pages):
            self.assertGreater(len(text), 300, n)

    def test_a_date_stays_on_one_line(self):
        raw = "\n".join(p.extract_text() for p in self.reader.pages)
        self.assertIn("Nov 20, 2026", raw)

    def test_it_is_tagged_and_says_its_language(self):
        root = self.reader.trailer["/Root"]
        self.assertTrue(root["/MarkInfo"]["/Marked"])
        self.assertEqual(root["/Lang"], "en")
        self.assertIn("/StructTreeRoot", root)
        self.assertIn("261120-AB12", self.reader.metadata.title)

    def test_every_font_is_within_it(self):
        for page in self.reader.pages:
            for font in page["/Resources"]["/Font"].values():
                of = font.get_object()
                inner = of["/DescendantFonts"][0].get_object() if "/DescendantFonts" in of else of
                keys = inner["/FontDescriptor"].get_object()
                self.assertTrue({"/FontFile2", "/FontFile3", "/FontFile"} & keys.keys())

    def test_the_code_is_there_with_a_link_only(self):
        with_link = pdf.proposal_html(self.offer, proposal(self.offer), "good", LINK)
        without = pdf.proposal_html(self.offer, proposal(self.offer))
        self.assertIn("decide on a phone", with_link)
        self.assertNotIn("decide on a phone", without)


class Words(unittest.TestCase):
    def test_how_far_apart(self):
        for months, said in (
            (144.0, "every 12 years"),
            (30.0, "every 2.5 years"),
            (12.0, "yearly"),
            (11.4, "every 11 months"),
            (1.5, "every 2 months"),
            (1.0, "monthly"),
            (0.5, "every 15 days"),
        ):
            self.assertEqual(pdf.every(months), said, months)

    def test_when_and_how_often_and_why(self):
        self.assertEqual(pdf._when(line(12.0, 9)), "yearly, 9 times; by the calendar")
        self.assertEqual(pdf._when(line(84.0, 1)), "every 7 years, once; by the calendar")
        self.assertEqual(pdf._when(line(144.0, 0)), "every 12 years")
        self.assertEqual(pdf._when(line(None, 1, "once")), "once")

    def test_what_nobody_can_price_is_no_zero(self):
        unpriced = replace(line(None, 1, "not priced: ask for the water bill"), missing="the price")
        self.assertTrue(pdf._unpriced(unpriced))
        self.assertFalse(pdf._unpriced(line(None, 1, "once")))


class Others(unittest.TestCase):
    def test_nothing_needed_is_the_title(self):
        offer = offered(home_7(AT), "today")
        text = pdf.proposal_html(offer, proposal(offer))
        self.assertIn("<h1>Nothing needed</h1>", text)
        self.assertEqual(text.count("We recommend that you buy nothing."), 1)

    def test_four_findings_at_most_and_how_many_more(self):
        visit = home_1(AT)
        offer = offered(visit, visit.options[1].id)
        many = tuple(
            replace(offer.findings[0], sentence=f"Finding {n}.", explains=("c",)) for n in range(6)
        )
        own = replace(offer, findings=many, reasons="My own words.", letter=False)
        text = pdf.proposal_html(own, proposal(offer))
        first = text[: text.index("to buy and install")]
        self.assertIn("My own words.", first)
        self.assertIn("Finding 3.", first)
        self.assertNotIn("Finding 4.", first)
        self.assertIn("2 more, on the page of readings", first)

    def test_a_typed_signature_is_said_and_a_drawn_one_drawn(self):
        visit = home_1(AT)
        offer = offered(visit, visit.options[1].id)
        drawn = Signature(name="Orla Fenbrook", at=AT, path="M1,1 L9,9 L3,4", digest="0" * 64)
        typed = replace(drawn, path="", typed=True)
        said = pdf.proposal_html(offer, proposal(offer, state="accepted", signature=typed))
        self.assertIn("Signed by typing the name.", said)
        shown = pdf.proposal_html(offer, proposal(offer, state="accepted", signature=drawn))
        self.assertIn('d="M1,1 L9,9 L3,4"', shown)


if __name__ == "__main__":
    unittest.main()
