"""The whole journey in the real interface: a new visit, two tests, meaning, lines, comparison, a
signed proposal, the file.
"""

import json
import subprocess
import sys
import tempfile
import unittest
from io import BytesIO
from pathlib import Path

from pypdf import PdfReader
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.api.client import compared, in_decimals
from tests.browser.case import BrowserCase
from tests.browser.driving import ROOT
from tests.core.test_all_texts import faults_of
from zesty_glass.demo.homes import uid


class Journey(BrowserCase):
    def start_a_visit(self):
        b = self.b
        b.click("a", "Start a visit")
        b.find("h1", "Who, where")
        for label, text in (
            ("Customer’s name", "Tamsin Roakwell"),
            ("House", "Mill house"),
            ("Running pressure", "58"),
            ("People", "4"),
            ("Bathrooms", "2"),
        ):
            b.type_at(
                f"//*[normalize-space(text())='{label}' or"
                f" starts-with(normalize-space(.),'{label}')]/ancestor-or-self::*[self::label or"
                " self::div][1]//input",
                text,
                Keys.TAB,
            )
        for place in ("Drain within reach", "Outlet within reach"):
            b.click_nth(f"//span[text()='{place}']/following-sibling::div//button[text()='Yes']")
        b.click("button", "White crust")
        b.type("form input[placeholder='White crust']", "Crust on the kettle")
        b.click("button", "Add it")
        self.clean()
        b.click("button", "Start the visit")
        b.find("h1,p", "Draw a glass first")

    def draw_and_test(self):
        b = self.b
        b.click("button", "Draw a glass")
        b.click("[role=dialog] button", "Kitchen cold")
        b.find("input[inputmode=none]").click()
        for display in ("412", "415", "409"):
            self.keys(*display, Keys.ENTER)
            b.see(f"Take back {display}")
        b.see("400 and 424 mg/L")
        b.see("every reading saved")
        b.click("button.opens")
        b.see("extreme repeats")
        self.keys(Keys.ESCAPE)
        self.clean()
        b.click("[role=tab]", "Hardness")
        b.find("button", "Add one drop")
        self.keys(*([Keys.SPACE] * 15), "z")
        b.see("between 13 and 14 gpg")
        b.click("button", "It is blue")
        b.see("Strike this reading")
        b.see("Hardness 14 gpg: very hard.")
        self.clean()

    def understand(self):
        b = self.b
        b.click("nav a", "Meaning")
        b.see("Crust on the kettle")
        b.see("That says nothing about hardness")
        b.see("Free chlorine")
        self.clean()

    def design(self):
        b = self.b
        b.click("nav a", "System")
        b.click("button", "Choose the first stage")
        b.click("[role=dialog] button", "Softener")
        b.click("[role=dialog] li button", "Softener, 2 ft³")
        b.see("regenerates every")
        b.see("free chlorine within a minute")
        b.click("button.opens", "days")
        b.see("resin capacity by salt dose")
        self.keys(Keys.ESCAPE)
        b.click("button", "New system")
        b.click("[role=dialog] button", "Drinking tap")
        b.click("[role=dialog] li button", "carbon, membrane, tank")
        b.see("to the drain, for what is drunk")
        self.clean()
        b.click("button", "Softener, 2 ft³")
        b.click("button", "copy it or take it away")
        b.click("a", "Steps to fit and keep it")
        b.see("Open the pipe and fit the line")
        b.click("nav button", "Clean the resin")
        b.see("Salt bridge broken")
        self.clean()
        b.click("a", "Back")
        b.click("button", "copy it or take it away")
        b.click("button", "Copy system")
        b.click("button", "Add a stage")
        b.click("[role=dialog] button", "Drinking tap")
        b.click("[role=dialog] li button", "carbon, membrane, tank")
        b.see("Drinking tap")

    def compare_and_offer(self):
        b = self.b
        b.click("nav a", "Compare")
        b.find("[data-testid=cost-chart]")
        b.see("stays 14 gpg")
        first = b.find("[data-testid=cost-chart]").get_attribute("aria-label")
        b.click("[role=radio]", "20")
        b.until(lambda d: b.find("[data-testid=cost-chart]").get_attribute("aria-label") != first)
        b.click("button[aria-label='Recommend A']")
        b.see("recommended")
        self.clean()
        b.click("a", "Make the offer")
        b.until(
            lambda d: "Crust on the kettle" in (b.find("textarea").get_attribute("value") or "")
        )
        self.clean()
        b.click("button", "Write the proposal")
        b.see("Draft: not presented yet")
        self.clean()

    def sign(self):
        b = self.b
        b.click("button", "Present it")
        b.click("button", "Accept and sign")
        b.type("form input.input", "Tamsin Roakwell")
        b.click_each("fieldset input[type=checkbox]")
        pad = b.find("svg[aria-label='Sign here']")
        ActionChains(b.driver).move_to_element_with_offset(
            pad, -90, 10
        ).click_and_hold().move_by_offset(60, -25).move_by_offset(50, 30).release().perform()
        b.click("form button", "Sign")
        b.see("it cannot be changed")
        proposal = b.driver.current_url.rsplit("/", 1)[1]
        pdf = PdfReader(BytesIO(self.fetch(f"/api/proposals/{proposal}/pdf")))
        text = " ".join(p.extract_text() for p in pdf.pages)
        self.assertIn("Accepted by Tamsin Roakwell", text)
        self.assertIn("Crust on the kettle", text)

    def same_figures_without_a_server(self):
        self.b.click("a", "Back to the visit")
        link = self.b.find("a[download]").get_attribute("href")
        data = self.fetch(link.removeprefix(self.served.base))
        visit = link.split("/visits/")[1].split("/")[0]
        with tempfile.TemporaryDirectory() as d:
            file = Path(d, "visit.json")
            file.write_bytes(data)
            out = subprocess.run(
                [sys.executable, "-m", "zesty_glass.cli.assess", str(file), "--years", "10"],
                cwd=ROOT,
                capture_output=True,
                text=True,
                check=True,
            ).stdout
        self.assertEqual(
            compared(json.loads(out)),
            in_decimals(json.loads(self.fetch(f"/api/visits/{visit}/comparison?years=10"))),
        )

    def test_from_the_first_word_to_the_signature(self):
        self.start_a_visit()
        self.draw_and_test()
        self.understand()
        self.design()
        self.compare_and_offer()
        self.sign()
        self.same_figures_without_a_server()


class Home7(BrowserCase):
    def test_is_told_that_it_needs_nothing(self):
        self.b.go(f"{self.served.base}/visits/{uid('home-7-visit')}/meaning")
        self.b.see("Nothing needed.")
        self.b.go(f"{self.served.base}/visits/{uid('home-7-visit')}/offer")
        self.b.see("Nothing needed: buy nothing")


class Views(BrowserCase):
    def test_main_views_pass_axe_at_both_sizes_and_in_both_themes(self):
        b = self.b
        self.addCleanup(b.size, 1280, 800)
        home = f"/visits/{uid('home-1-visit')}"
        for path in (
            "/",
            "/legend",
            f"{home}/before",
            f"{home}/test?kit=tds",
            f"{home}/test?kit=hardness",
            f"{home}/test?kit=flow",
            f"{home}/test?kit=colour",
            f"{home}/show",
            f"{home}/meaning",
            f"{home}/line",
            f"{home}/compare",
            f"{home}/offer",
            f"/proposals/{uid('home-1-proposal')}",
        ):
            b.go(self.served.base + path)
            for size in ((1280, 800), (820, 1180)):
                with self.subTest(f"{path} {size}"):
                    b.size(*size)
                    b.find("h1, h2, [aria-label='What each option does'], [aria-label='Lines']")
                    self.assertEqual(b.axe(), [])
                    self.assertEqual(b.out_of_reach(), [])
                    for said in b.text().splitlines():
                        self.assertEqual(faults_of(said), [], said)
        b.click("button[aria-label='Dim theme']")
        b.go(f"{self.served.base}{home}/meaning")
        b.find("h1", "What bothers them")
        self.assertEqual(b.axe(), [])
        b.click("button[aria-label='Dim theme']")


if __name__ == "__main__":
    unittest.main()
