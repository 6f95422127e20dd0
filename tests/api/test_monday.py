"""Monday's page: every number is the lines behind it, and its file says the same."""

import csv
import io
from datetime import UTC, date, datetime
from decimal import Decimal
from uuid import uuid4

from tests.api.test_signed import SignedCase
from zesty_glass.core.presenting.paying import Payment, month_on, owed
from zesty_glass.core.testing.laboratory import KIND_BY_ID

TODAY = datetime.now(UTC).date()


class MondayCase(SignedCase):
    def part(self, what, **query):
        found = self.manager().get("/api/monday", params=query)
        self.assertEqual(found.status_code, 200, found.text[:300])
        return next(p for p in found.json()["parts"] if p["what"] == what)

    def of_mine(self, what, **query):
        return [r for r in self.part(what, **query)["rows"] if self.made in r["path"]]

    def pay(self, amount, status=200, on=None, id=None, **more):
        id = id or str(uuid4())
        body = {"on": on or TODAY.isoformat(), "amount": amount, "label": "Deposit", **more}
        return self.send("PUT", f"/api/proposals/{self.made}/payments/{id}", body, status), id


class Numbers(MondayCase):
    def test_all_of_them_are_counted_and_each_has_its_file(self):
        manager = self.manager()
        for part in manager.get("/api/monday").json()["parts"]:
            with self.subTest(part["what"]):
                text = manager.get(f"/api/monday/{part['what']}.csv").text.lstrip("\ufeff")
                lines = list(csv.DictReader(io.StringIO(text)))
                self.assertEqual([x["path"] for x in lines], [r["path"] for r in part["rows"]])
                self.assertEqual(part["many"], len(lines))

    def test_it_is_for_managers(self):
        self.assertEqual(self.client.get("/api/monday").status_code, 403)

    def test_what_is_signed_is_sold_and_owed_and_what_is_cancelled_is_not(self):
        self.accept(self.token()[1])
        total = self.state()["sold"]["total"]
        row = self.of_mine("sold")[0]
        self.assertEqual((row["amount"], row["person"]), (total, "Perrin Oakhalse"))
        self.assertEqual(self.of_mine("owed"), [])  # all of it, when it is installed
        job = self.get(f"/api/jobs/{self.state()['job']}")
        self.assertIn(job["id"], {r["path"][6:42] for r in self.part("no_day")["rows"]})
        body = {"version": job["version"], "on": TODAY.isoformat(), "left_out": "Seen to."}
        self.send("PUT", f"/api/jobs/{job['id']}/fitted", body)
        self.assertEqual([r["amount"] for r in self.of_mine("owed")], [total])
        self.decide(self.made, "cancelled", because="They moved.", terms="None.")
        self.assertEqual((self.of_mine("sold"), self.of_mine("owed")), ([], []))
        self.assertEqual(self.of_mine("decided")[0]["what"], "signed, and cancelled since")

    def test_payments_are_noted_once_and_struck(self):
        self.pay("10", 422)
        self.accept(self.token()[1])
        self.pay("0", 422)
        self.pay("10", 422, on="2020-01-01")
        self.pay("10", 422, on=(date(TODAY.year + 1, 1, 1)).isoformat())
        view, id = self.pay("400.50", note="check 1042")
        self.assertEqual([r["amount"] for r in view["received"]], ["400.50"])
        self.pay("400.50", id=id, note="check 1042")
        self.assertEqual(self.pay("401", 422, id=id)[0]["code"], "request.other")
        self.assertEqual([r["amount"] for r in self.of_mine("received")], ["400.50"])
        path = f"/api/proposals/{self.made}/payments/{id}/strike"
        self.send("POST", path, {"because": "Another customer's."})
        self.assertEqual(self.of_mine("received"), [])
        self.assertEqual(len(self.state()["received"]), 1)

    def test_why_it_was_declined(self):
        self.decide(self.made, "declined", because="The price.")
        self.assertEqual([r["what"] for r in self.of_mine("declined")], ["The price."])

    def test_a_question_waits_until_it_is_answered(self):
        _, token = self.token()
        id = str(uuid4())
        body = {"id": id, "about": "question", "text": "Does it hum at night?"}
        self.stranger().post(f"/api/offered/{token}/ask", json=body)
        asked = [r["what"] for r in self.part("questions")["rows"]]
        self.assertIn("Does it hum at night?", asked)
        self.send("POST", f"/api/outbox/{id}/answered")
        asked = [r["what"] for r in self.part("questions")["rows"]]
        self.assertNotIn("Does it hum at night?", asked)

    def test_homes_with_bacteria_and_reports_overdue(self):
        visit = self.new_visit(source="well_drilled")
        sample, bottle = self.new_sample(visit), str(uuid4())
        body = {
            "id": bottle,
            "kind": "bacteria",
            "sample": sample,
            "drawn_at": "2026-11-01T09:00:00Z",
            "handed_at": "2026-11-01T11:00:00Z",
            "received_at": "2026-11-01T12:00:00Z",
        }
        self.send("PUT", f"/api/visits/{visit}/lab-samples/{bottle}", body)
        overdue = [r for r in self.part("reports")["rows"] if visit in r["path"]]
        self.assertEqual([r["what"] for r in overdue], [KIND_BY_ID["bacteria"].name])
        report = b"analyte,result,unit,basis\ncoliform,present,per 100 mL,\n"
        r = self.client.post(f"/api/visits/{visit}/samples/{sample}/lab-results", content=report)
        self.assertEqual(r.status_code, 201)
        self.assertIn("Coliform bacteria", [r["what"] for r in self.part("bacteria")["rows"]])


class Owing(MondayCase):
    """By hand: what falls due in a month."""

    def days(self, p, signed, used, first, last, ended=None):
        return [o.on for o in owed((p,), signed, used, ended, (first, last))]

    def test_at_signing_at_use_and_every_month(self):
        signed, used = date(2026, 1, 10), date(2026, 1, 31)
        year = (date(2026, 1, 1), date(2026, 12, 31))
        down = Payment(label="D", amount=Decimal(5), when="", starts="signing")
        rest = Payment(label="R", amount=Decimal(5), when="", starts="use")
        part = Payment(label="I", amount=Decimal(5), when="", many=3, starts="month_after_use")
        rent = Payment(label="L", amount=Decimal(5), when="", many=0)
        self.assertEqual(self.days(down, signed, None, *year), [signed])
        self.assertEqual(self.days(rest, signed, None, *year), [])
        self.assertEqual(self.days(rest, signed, used, *year), [used])
        three = [date(2026, 2, 28), date(2026, 3, 31), date(2026, 4, 30)]
        self.assertEqual(self.days(part, signed, used, *year), three)
        self.assertEqual(len(self.days(rent, signed, used, *year)), 12)
        self.assertEqual(
            self.days(rent, signed, used, *year, ended=date(2026, 3, 1)),
            [used, date(2026, 2, 28)],
        )

    def test_months_on(self):
        self.assertEqual(month_on(date(2027, 12, 31), 2), date(2028, 2, 29))
