"""Proposals over the wire: a snapshot that keeps, its states, its PDF."""

from io import BytesIO
from uuid import UUID, uuid4

from pypdf import PdfReader
from sqlalchemy import select

from tests.api.client import HOME_1, HOME_7, ApiCase
from zesty_glass.demo.homes import uid
from zesty_glass.records.models import Firm, ItemRow, VisitRow

B = uid("home-1-option-b")
PATH = "M10,10 L20,20 L30,15 L60,40"


class ProposalCase(ApiCase):
    def make(self, visit=HOME_1, recommended=B, **more):
        return self.send(
            "POST",
            f"/api/visits/{visit}/proposals",
            {"id": str(uuid4()), "recommended": recommended, **more},
            201,
        )

    def move(self, p, to, status=200, **more):
        return self.send(
            "POST", f"/api/proposals/{p['id']}/{to}", {"version": p["version"], **more}, status
        )


class Snapshots(ProposalCase):
    def test_old_figures_stay_to_the_cent(self):
        p = self.make()
        before = self.get(f"/api/proposals/{p['id']}")["offer"]
        with self.app.state.sessions.begin() as db:
            for row in db.scalars(select(ItemRow)):
                row.data = {**row.data, "price": "1.00", "installation": "2.00"}
            for firm in db.scalars(select(Firm)):
                firm.settings = {**firm.settings, "price_growth": "0.2", "salt_bag": "99"}
        self.assertEqual(self.get(f"/api/proposals/{p['id']}")["offer"], before)
        again = self.make()
        self.assertEqual(again["offer"]["revision"], p["offer"]["revision"])
        self.assertNotEqual(again["offer"]["options"][2]["price"], before["options"][2]["price"])


class Proposals(ProposalCase):
    def test_the_tool_writes_the_first_draft(self):
        text = self.get(f"/api/visits/{HOME_1}/draft?recommended={B}")["reasons"]
        self.assertIn("“White crust on the kettle”", text)
        self.assertIn("under 1 gpg", text)

    def test_from_draft_to_signed(self):
        p = self.make()
        self.move(p, "accepted", 422, name="Ottoline Marrash", path=PATH)
        p = self.move(p, "presented")
        self.assertEqual(
            self.move(p, "accepted", 422, name="O", path=PATH)["code"], "signature.name"
        )
        self.assertEqual(
            self.move(p, "accepted", 422, name="Ottoline", path="<script>")["code"],
            "signature.path",
        )
        known = [k["sentence"] for k in p["offer"]["before_signing"]]
        self.assertTrue(known)
        unread = self.move(p, "accepted", 422, name="Ottoline Marrash", path=PATH, read=known[1:])
        self.assertEqual((unread["code"], unread["where"]), ("signature.unread", "read"))
        signed = self.move(p, "accepted", name="Ottoline Marrash", path=PATH, read=known)
        self.assertEqual(signed["signature"]["read"], known)
        self.assertEqual(
            (signed["state"], signed["signature"]["digest"]), ("accepted", p["digest"])
        )
        self.assertEqual(
            self.move(signed, "accepted", 422, name="Ottoline Marrash", path=PATH)["code"],
            "proposal.signed",
        )
        self.move(signed, "declined", 422)

    def test_revising_makes_the_next_version(self):
        p = self.move(self.make(), "presented")
        q = self.make(reasons="My own words.")
        self.assertEqual(
            (q["offer"]["number"], q["offer"]["revision"]),
            (p["offer"]["number"], p["offer"]["revision"] + 1),
        )
        self.assertEqual(q["offer"]["reasons"], "My own words.")

    def test_pdf_says_what_was_proposed(self):
        p = self.make(plan={"down": "740", "monthly": "190", "months": 24})
        r = self.client.get(f"/api/proposals/{p['id']}/pdf")
        self.assertEqual(r.headers["content-type"], "application/pdf")
        reader = PdfReader(BytesIO(r.content))
        text = " ".join(page.extract_text() for page in reader.pages)
        total = next(c["total"] for c in p["offer"]["options"][2]["costs"] if c["years"] == 10)
        for wanted in (
            "Softener and drinking tap",
            "Ottoline Marrash",
            f"{float(total):,.2f}",
            "APR",
            "right to cancel",
            p["digest"],
        ):
            self.assertIn(wanted, text)
        self.assertTrue(4 <= len(reader.pages) <= 6)
        self.assertLess(len(r.content), 1_000_000)

    def test_tax_discount_and_deposit_are_lines_of_their_own(self):
        with self.app.state.sessions.begin() as db:
            visit = db.get(VisitRow, UUID(HOME_1))
            visit.settings = {**visit.settings, "tax_equipment": "0.06"}
        terms = {"discount": "40", "deposit": "500", "tax_exempt": False}
        p = self.make(terms=terms, plan={"down": "740", "monthly": "190", "months": 24})
        lines = {x["kind"]: x["amount"] for x in p["offer"]["price"]}
        o = next(x for x in p["offer"]["options"] if x["id"] == B)
        off = float(o["price"]) / (float(o["price"]) + float(o["installation"])) * 40
        tax = round(0.06 * (float(o["price"]) - off), 2)
        total = float(o["price"]) + float(o["installation"]) - 40 + tax
        self.assertAlmostEqual(float(lines["tax"]), tax, 2)
        self.assertAlmostEqual(float(lines["total"]), total, 2)
        self.assertAlmostEqual(float(lines["rest"]), total - 500, 2)
        plan = p["offer"]["plan"]
        self.assertGreater(float(plan["apr_effective"]), float(plan["apr"]))
        data = self.client.get(f"/api/proposals/{p['id']}/pdf").content
        text = " ".join(page.extract_text() for page in PdfReader(BytesIO(data)).pages)
        for wanted in ("Sales tax on equipment, 6 %", "Deposit, now", "effective"):
            self.assertIn(wanted, text)

    def test_a_stop_is_answered_in_writing(self):
        home_4 = uid("home-4-visit")
        options = self.get(f"/api/visits/{home_4}")["assessment"]["options"]
        stopped = next(
            o
            for o in options
            if o["line"]
            and any(c["status"] == "stop" for s in o["line"]["stages"] for c in s["checks"])
        )
        body = {"id": str(uuid4()), "recommended": stopped["id"]}
        path = f"/api/visits/{home_4}/proposals"
        told = self.send("POST", path, body, 422)
        self.assertEqual((told["code"], told["where"]), ("offer.stopped", "answers"))
        stops = {
            c["sentence"]: "Measured again behind the bed before a lamp is sold."
            for s in stopped["line"]["stages"]
            for c in (*s["checks"], *stopped["line"]["checks"])
            if c["status"] == "stop"
        }
        p = self.send("POST", path, {**body, "answers": stops}, 201)
        known = [k for k in p["offer"]["before_signing"] if k["status"] == "stop"]
        self.assertEqual({k["sentence"] for k in known}, set(stops))
        self.assertTrue(all(k["answer"] for k in known))

    def test_nothing_needed_can_be_proposed(self):
        p = self.make(HOME_7, "today")
        self.assertTrue(p["offer"]["nothing_needed"])
        self.assertIn("We recommend that you buy nothing.", p["offer"]["reasons"])

    def test_bad_proposals(self):
        for body, code in (
            ({"recommended": "nope"}, "offer.recommended"),
            ({"recommended": B, "plan": {"monthly": "1", "months": 12}}, "plan.impossible"),
            ({"recommended": B, "plan": {"monthly": "9000", "months": 2}}, "plan.apr"),
            ({"recommended": B, "terms": {"discount": "999999"}}, "terms.discount"),
            ({"recommended": B, "terms": {"deposit": "999999"}}, "terms.deposit"),
        ):
            with self.subTest(code):
                self.assertEqual(
                    self.send(
                        "POST", f"/api/visits/{HOME_1}/proposals", {"id": str(uuid4()), **body}, 422
                    )["code"],
                    code,
                )
