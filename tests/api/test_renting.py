"""An item that is rented, from the catalog to what the customer pays, over the wire."""

from io import BytesIO
from uuid import uuid4

from pypdf import PdfReader

from tests.api.client import HOME_1
from tests.api.test_jobs import SOLD, JobCase
from tests.api.test_signed import in_days
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import FITTER_EMAIL

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

    def moved(self, job, fate, on, status=200, **more):
        piece = next(n for n, b in enumerate(job["job"]["bought"]) if b["terms"] != "buy")
        body = {"piece": piece, "fate": fate, "on": on, "because": "They moved.", **more}
        path = f"/api/jobs/{job['id']}/moves/{uuid4()}"
        return self.send("PUT", path, body, status), path

    def owed(self, label):
        """What is owed of something, as (day, amount), by the month that today is in."""
        parts = self.manager().get("/api/monday").json()["parts"]
        rows = next(p for p in parts if p["what"] == "owed")["rows"]
        return [(r["on"], float(r["amount"])) for r in rows if label in r["what"]]

    def test_a_rented_piece_is_returned_and_that_is_taken_back(self):
        self.had("rental")
        job = self.sold()
        day = in_days(-SOLD)
        job = self.put(job, "fitted", {"on": day})
        [rent] = job["standing"]["rents"]
        self.assertEqual((rent["state"], rent["start"]), ("rented", day))
        of_it = {f["part"]["key"] for f in job["standing"]["due"]}
        after, path = self.moved(job, "returned", in_days(-1))
        self.assertEqual(after["standing"]["rents"][0]["state"], "ended")
        left = {f["part"]["key"] for f in after["standing"]["due"]}
        self.assertLess(left, of_it)
        self.assertEqual({k.split(":")[1] for k in of_it - left}, {"SO-20"})
        due = [d for d in self.get("/api/due")["lines"] if d["job"] == job["id"]]
        self.assertNotIn("SO-20", str(due))
        rented = self.manager().get("/api/monday/rented.csv").text
        self.assertNotIn("Softener", rented)
        self.moved(job, "swapped", in_days(0), 422)
        self.assertEqual(self.send("DELETE", path)["standing"]["rents"][0]["state"], "rented")

    def test_bought_out_its_rent_ends_and_the_price_is_owed(self):
        self.had("rental")
        job = self.sold()
        job = self.put(job, "fitted", {"on": in_days(-SOLD)})
        today = in_days(0)
        fitter = self.signed_in(FITTER_EMAIL)
        body = {"piece": 0, "fate": "bought_out", "on": today, "because": "x", "price": "900.50"}
        refused = fitter.put(f"/api/jobs/{job['id']}/moves/{uuid4()}", json=body)
        self.assertEqual(refused.status_code, 403)
        after, path = self.moved(job, "bought_out", today, price="900.50")
        self.assertEqual(after["standing"]["rents"][0]["state"], "theirs")
        self.assertEqual(self.owed("bought out"), [(today, 900.5)])
        again = {**body, "piece": after["job"]["moves"][0]["piece"], "because": "They moved."}
        self.send("PUT", path, again)  # a repeat changes nothing
        self.send("PUT", path, {**again, "price": "1"}, 422)
        self.assertEqual(len(self.get(f"/api/jobs/{job['id']}")["job"]["moves"]), 1)

    def test_what_is_not_let_cannot_be_worked_out_and_says_so(self):
        self.had("rental", item="CC-45")
        view = self.get(f"/api/visits/{HOME_1}")
        option = next(o for o in view["assessment"]["options"] if o["id"] == B)
        self.assertIn("not rented by this firm", option["error"])
