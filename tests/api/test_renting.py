"""An item that is rented, from the catalogue to what the customer pays, over the wire."""

from io import BytesIO

from pypdf import PdfReader

from tests.api.client import HOME_1
from tests.api.test_jobs import JobCase
from zesty_glass.demo.homes import uid

B = uid("home-1-option-b")


def text_of(pdf: bytes) -> str:
    return " ".join(p.extract_text() for p in PdfReader(BytesIO(pdf)).pages)


class Renting(JobCase):
    def had(self, terms, status=200, item="SO-20"):
        """The second line with its softener had in one way."""
        view = self.get(f"/api/visits/{HOME_1}")
        option = next(o for o in view["visit"]["options"] if o["id"] == B)
        stages = [{**s, "terms": terms if s["item"] == item else "buy"} for s in option["stages"]]
        return self.send(
            "PUT",
            f"/api/visits/{HOME_1}/options/{B}",
            {**option, "stages": stages},
            status,
            If_Match_Version=view["versions"][B],
        )

    def compared(self, years=10):
        got = self.get(f"/api/visits/{HOME_1}/comparison")
        over = next(x for x in got["over"] if x["years"] == years)
        option = next(o for o in got["options"] if o["id"] == B)
        return option, over["options"][B]

    def test_each_way_stands_beside_the_others(self):
        self.had("buy")
        bought, cost = self.compared()
        listed = self.get(f"/api/visits/{HOME_1}/renting?years=10")
        mine = next(r for r in listed if r["option"] == B)
        item = next(r for r in mine["items"] if r["code"] == "SO-20")
        self.assertEqual(item["chosen"], "buy")
        self.assertEqual([w["terms"] for w in item["ways"]], ["buy", "rental", "rent_to_own"])
        self.had("rental")
        rented, dearer = self.compared()
        # 1,520 + 420 are not paid, 120 to set up is
        self.assertEqual(float(bought["bought"]) - float(rented["bought"]), 1520 + 420 - 120)
        self.assertEqual(float(rented["per_month"]), 44)
        ways = {w["terms"]: float(w["total"]) for w in item["ways"]}
        apart = float(dearer["cost"]["total"]) - float(cost["cost"]["total"])
        self.assertAlmostEqual(apart, ways["rental"] - ways["buy"], 2)

    def test_the_proposal_and_the_job_say_what_is_paid_every_month(self):
        self.had("rent_to_own")
        job = self.sold()
        offer = self.get(f"/api/proposals/{job['job']['proposal']}")["offer"]
        rent = next(x for x in offer["price"] if x["kind"] == "rent")
        self.assertEqual((float(rent["amount"]), rent["times"]), (52, 48))
        option = next(o for o in offer["options"] if o["id"] == B)
        self.assertEqual(float(option["per_month"]), 52)
        pdf = self.client.get(f"/api/proposals/{job['job']['proposal']}/pdf")
        self.assertIn("52.00 rent every month", " ".join(text_of(pdf.content).split()))
        paid = job["payments"][-1]
        self.assertEqual((float(paid["amount"]), paid["many"]), (52, 48))

    def test_what_is_not_let_cannot_be_worked_out_and_says_so(self):
        self.had("rental", item="CC-45")
        view = self.get(f"/api/visits/{HOME_1}")
        option = next(o for o in view["assessment"]["options"] if o["id"] == B)
        self.assertIn("not rented by this firm", option["error"])
