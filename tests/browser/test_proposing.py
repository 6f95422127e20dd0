"""The tool proposes a line and it is taken; a proposal is shared, read on a phone,
and taken back.
"""

import json
import unittest
from decimal import Decimal
from uuid import UUID

from tests.browser.case import BrowserCase
from tests.browser.driving import Browser
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.records.models import HomeRow, VisitRow

#: the keys that take a proposed line, in their order
TAKE = "//*[@role='dialog']//li//button[text()='Take it']"


class Proposing(BrowserCase):
    def test_a_proposed_line_is_taken(self):
        b = self.b
        self.go(f"/visits/{uid('home-2-visit')}/line")
        b.click("button", "Propose systems")
        b.see("combinations")
        b.click("summary", "What was left out")
        b.see("there is none within reach")
        self.assertEqual(b.axe(), [])
        b.click("[role=dialog] li button", "other choice")
        b.click_nth(TAKE, 1)
        b.find("button[aria-pressed=true]", "alcite bed")  # one stage tells by its own name
        b.click("button", "What if?")
        b.see("pH half a unit lower")
        b.see("Upflow calcite bed, 1.5 ft³ in place of")
        self.assertEqual(b.axe(), [])
        b.click("button", "Take this size")
        b.find(".line-column", "Upflow calcite bed, 1.5 ft³")

    def test_a_goal_puts_another_system_first_says_its_cost_and_is_kept(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/line")
        b.click("button", "Propose systems")
        b.see("What was left out")
        b.click("[role=dialog] button", "No salt")
        b.see("“No salt”: Carbon filter + Salt-free conditioner")
        b.see("less over 10 years and leaves hardness.")
        self.assertEqual(b.axe(), [])
        self.go(f"/visits/{uid('home-1-visit')}/before")
        b.find("button[aria-pressed=true]", "No salt")

    def test_what_could_put_another_system_first_stands_above_them(self):
        b = self.b
        self.go(f"/visits/{uid('home-5-visit')}/line")
        b.click("button", "Propose systems")
        b.see("What could put another system first")
        b.see("Not tested: manganese. At 0.3 mg/L")
        b.see("Lowest total cost of all")

    def test_nothing_needed_is_said_first(self):
        self.go(f"/visits/{uid('home-7-visit')}/line")
        self.b.click("button", "Propose systems")
        self.b.see("Nothing is needed. The systems below are for a preference")

    def test_a_wish_is_searched_for_and_called_one(self):
        b = self.b
        self.go(f"/visits/{uid('home-7-visit')}/before")
        b.click("button", "free chlorine")
        b.find("label", "Free chlorine: at most")
        self.go(f"/visits/{uid('home-7-visit')}/line")
        b.click("button", "Propose systems")
        b.see("free chlorine (their wish)")
        b.see("Nothing is needed. The systems below are for a preference")
        b.see("drinking tap only")
        self.go(f"/visits/{uid('home-7-visit')}/compare")
        b.see("wished: less of it")
        self.assertEqual(b.axe(), [])

    def test_a_stage_is_moved_with_its_reason(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/line?line={uid('home-1-option-b')}")
        b.click("[role=group][aria-label='After carbon filter'] button", "Carbon filter")
        b.type("[placeholder='why it stands there']", "the drain is nearer there")
        b.click("button", "Later")
        b.see("the drain is nearer there")

    def test_quick_touches_on_one_line_neither_refuse_nor_undo_each_other(self):
        b = self.b
        self.go(f"/visits/{uid('home-5-visit')}/line")
        b.find("button", "Propose systems")
        b.click("button[aria-label='New system']")
        b.find("[role=dialog]", "Add to")
        b.click("[role=dialog] [aria-label=Close]")
        b.driver.execute_cdp_cmd("Network.enable", {})
        b.driver.execute_cdp_cmd(
            "Network.emulateNetworkConditions",
            {"offline": False, "latency": 900, "downloadThroughput": -1, "uploadThroughput": -1},
        )
        names = (
            "Spin-down screen, 50 µm",
            "Softener, 2 ft³, metered",
            "Carbon bed, 1 ft³ standard",
        )
        try:
            for name in names:
                b.click("button", "Add a stage")
                b.click("[role=dialog] li li button", name)
                b.until(lambda d: not d.find_elements("css selector", "[role=dialog]"))
        finally:
            b.driver.execute_cdp_cmd(
                "Network.emulateNetworkConditions",
                {"offline": False, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1},
            )
        for kind in ("sediment filter", "softener", "carbon filter"):
            b.find(f"[role=group][aria-label='After {kind}']")
        for name in names:
            self.assertIn(name, b.text())
        self.assertEqual([e for e in b.errors() if "409" in e], [])

    def test_shared_read_on_a_phone_and_taken_back(self):
        b = self.b
        self.go(f"/proposals/{uid('home-1-proposal')}")
        b.click("button", "Share")
        b.click("button", "Make a link")
        address = b.find("[data-testid=link]").text
        b.type("input[type=email]", "ottoline@marrash.example")
        b.click("button", "Mail a link")
        b.see("It is in the outbox")
        self.assertEqual(b.axe(), [])
        phone = Browser((390, 844), touch=True)
        self.addCleanup(phone.close)
        phone.go(address)
        phone.see("If you were not there")
        self.assertLessEqual(
            phone.driver.execute_script("return document.documentElement.scrollWidth"), 390
        )
        self.assertEqual(phone.axe(), [])
        self.assertEqual(
            phone.driver.find_elements("css selector", "a[href^='/visits'], a[href='/']"), []
        )
        phone.go(address.split("/p/")[0] + f"/visits/{uid('home-1-visit')}")
        phone.find("input[type=password]")
        revoke = "//button[text()='Revoke']"
        b.until(lambda d: not [key.click() for key in d.find_elements("xpath", revoke)])
        phone.go(address)
        phone.see("This link does not open anything")

    def test_fitted_by_themselves_taxed_less_a_discount_and_with_a_deposit(self):
        b, visit = self.b, uid("home-5-visit")
        with self.served.app.state.sessions.begin() as db:
            row = db.get(VisitRow, UUID(visit))
            row.settings = {**row.settings, "tax_equipment": "0.06"}
            row.version += 1
        self.go(f"/visits/{visit}/line?line={uid('home-5-option-c')}")
        before = self.to_buy(visit)
        b.click("button.stage-name", "Carbon")
        b.click("[role=dialog] [role=radio]", "They")
        after = b.until(lambda d: (x := self.to_buy(visit)) != before and x)
        self.assertEqual((after[0], after[1] < before[1]), (before[0], True))
        self.go(f"/visits/{visit}/offer")
        b.click("label, button, [role=radio]", "Carbon for the house")
        for name, amount in (("Discount", "40"), ("Deposit", "100")):
            field = f"//label[contains(., '{name}')]//input"
            b.until(lambda d, f=field: d.find_element("xpath", f)).send_keys(amount)
        b.click("button.go")
        b.see("What you pay")
        paid = dict(row.text.rsplit(" ", 1) for row in self.rows("What you pay"))
        price, work = (Decimal(x) for x in after)
        off = 40 * price / (price + work)
        tax = round((price - off) * Decimal("0.06"), 2)
        self.assertEqual(paid["Sales tax on equipment, 6 %"], f"${tax:,.2f}")
        self.assertEqual(paid["To pay"], f"${price + work - 40 + tax:,.2f}")
        self.assertEqual(paid["Deposit, now"], "$100.00")
        self.assertEqual(b.axe(), [])

    def test_a_softener_is_rented_and_the_proposal_says_for_how_much_a_month(self):
        b, visit = self.b, uid("home-1-visit")
        self.go(f"/visits/{visit}/compare")
        b.see("Bought or rented")
        b.click("[role=radiogroup][aria-label^='Softener'] [role=radio]", "Rented")
        b.see("$44.00 a month")
        self.assertEqual(b.axe(), [])
        self.go(f"/visits/{visit}/offer")
        b.click("label, button, [role=radio]", "Softener and drinking tap")
        b.click("button.go")
        b.see("What you pay")
        paid = " ".join(row.text for row in self.rows("What you pay"))
        self.assertIn("Rent of Softener, 2 ft³, metered, every month, at least 12 months", paid)

    def test_what_a_stage_wants_to_know_of_the_place_is_asked_there(self):
        b, visit = self.b, uid("home-1-visit")
        with self.served.app.state.sessions.begin() as db:
            home = db.get(HomeRow, db.get(VisitRow, UUID(visit)).home_id)
            home.home = {**home.home, "drain": None}
            home.version += 1
        self.go(f"/visits/{visit}/line?line={uid('home-1-option-b')}")
        b.see("Is a drain within reach?")
        b.click("[data-check='space.drain'] button", "Yes")
        b.until(
            lambda d: (
                not d.find_elements(
                    "css selector", "[data-check='space.drain'][data-status='unknown']"
                )
            )
        )
        view = json.loads(self.fetch(f"/api/visits/{visit}"))
        self.assertIs(view["visit"]["home"]["drain"], True)

    def to_buy(self, visit):
        """Price and work of the third line, as the server has them."""
        view = json.loads(self.fetch(f"/api/visits/{visit}"))
        line = view["assessment"]["options"][3]["line"]
        bought = line["purchases"]
        total = [sum(Decimal(p[k]) for p in bought) for k in ("price", "installation")]
        return tuple(total)

    def rows(self, title):
        table = f"//h3[text()='{title}']/following-sibling::table//tr"
        return self.b.driver.find_elements("xpath", table)

    def test_accepted_on_a_phone_by_who_was_not_there(self):
        b = self.b
        self.go(f"/proposals/{uid('home-1-proposal')}")
        b.click("button", "Share")
        b.click("button", "Make a link")
        address = b.find("[data-testid=link]").text
        phone = Browser((390, 844), touch=True)
        self.addCleanup(phone.close)
        phone.go(address)
        phone.see("If you were not there")
        phone.click("button", "Español")
        phone.see("Si usted no estuvo")
        phone.click("button", "Aceptar y firmar")
        phone.see("Falta:")
        self.assertEqual(phone.axe(), [])
        phone.click_each("fieldset input[type=checkbox]")
        phone.type("input[autocomplete=name]", "Orla Fenbrook")
        phone.click("label", "Firmar escribiendo el nombre")
        phone.click("button", "Firmar")
        phone.see("Aceptada por Orla Fenbrook")
        phone.click("button", "English")
        phone.see("Accepted by Orla Fenbrook")
        self.assertEqual(phone.axe(), [])
        b.driver.refresh()
        b.see("Accepted and signed; it cannot be changed")
        b.see("signed by typing the name")

    def test_a_phone_compares_one_option_with_today(self):
        phone = Browser((390, 844), touch=True)
        self.addCleanup(phone.close)
        phone.sign_in(self.served.base, EMAIL, PASSWORD)
        phone.go(self.served.base + f"/visits/{uid('home-1-visit')}/compare")
        phone.see("Beside today")
        heads = (
            "return [...document.querySelectorAll('.board b.line-clamp-2')].map(b => b.innerText)"
        )
        first = phone.driver.execute_script(heads)
        self.assertEqual(len(first), 2)
        self.assertEqual(first[0], "Today")
        phone.click(".board .seg label, .board .seg button", "C")
        phone.until(lambda d: d.execute_script(heads)[1] != first[1])
        self.assertEqual(phone.driver.execute_script(heads), ["Today", "Without salt"])
        wide = phone.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
        self.assertEqual(phone.axe(), [])

    def test_the_outbox_holds_what_was_mailed(self):
        self.go("/outbox")
        self.b.find("h1", "Outbox")
        self.assertEqual(self.b.axe(), [])

    def test_a_manager_brings_a_catalogue_in(self):
        m = Browser()
        self.addCleanup(m.close)
        m.sign_in(self.served.base, MANAGER_EMAIL, PASSWORD)
        m.go(self.served.base + "/firm")
        m.find("h2", "Catalog, 72 items")
        import tempfile
        from pathlib import Path

        with tempfile.TemporaryDirectory() as d:
            bad, good = Path(d, "bad.csv"), Path(d, "good.csv")
            head = "code,name,maker,kind,scope,price,figures\n"
            bad.write_text(head + "SD-9,A new screen,Quorrel,sediment,house,-1,micron=50\n")
            good.write_text(head + "SD-9,A new screen,Quorrel,sediment,house,88,micron=50\n")
            chooser = m.driver.find_element("css selector", "input[aria-label='Catalog file']")
            chooser.send_keys(str(bad))
            m.see("1 of 1 rows cannot be used: nothing is stored")
            m.click("button", "Leave it")
            chooser.send_keys(str(good))
            m.see("1 new, 0 changed, 0 the same")
            m.click("button", "Store all 1")
            m.find("h2", "Catalog, 72 items")
        self.assertEqual(m.axe(), [])


if __name__ == "__main__":
    unittest.main()
