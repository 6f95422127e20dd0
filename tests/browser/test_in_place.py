"""What stands there already: written down, drawn behind, judged, held against buying; and what is
taken out is taken back.
"""

import json
import unittest

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.select import Select

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid


class InPlace(BrowserCase):
    def test_an_old_softener_is_set_right_beside_buying(self):
        b = self.b
        bungalow = f"/visits/{uid('home-3-visit')}"
        self.go(f"{bungalow}/meaning")
        b.see("Set it to every 2 days")
        b.click("button", "judged by")
        b.see("hard water comes for 62%")
        self.go(f"{bungalow}/meaning")
        b.click("button", "Compare: service")
        b.see("Service: in the comparison")
        self.assertEqual(b.axe(), [])
        self.go(f"{bungalow}/compare")
        b.see("Service: Clock softener of another seller")
        b.see("as it stands")
        self.go(f"{bungalow}/line?line=today")
        b.see("Iron 3.4 mg/L is more than its resin takes")
        self.assertEqual(b.axe(), [])
        self.assertEqual(b.out_of_reach(), [])

    def test_a_rented_dispenser_is_written_down_and_drawn_behind(self):
        b = self.b
        house = f"/visits/{uid('home-7-visit')}"
        self.go(f"{house}/before")
        b.click("button", "Water dispenser")
        b.find("section[aria-label='Water dispenser']")
        b.type("section[aria-label='Water dispenser'] .grid > .field:last-child input", "39")
        b.click("h1", "Before the test")
        self.go(f"{house}/meaning")
        b.see("$468 a year")
        b.click("button", "Draw a glass behind it")
        b.find("button", "Behind: Water dispenser")

    def test_what_others_fitted_is_taken_into_care(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/meaning")
        b.click("button", "Take it into care")
        b.click("a", "In our care")
        b.see("Refrigerator filter: cartridge")
        b.see("days over")
        self.assertNotIn("Proposal", b.text())
        self.clean()

    def test_a_glass_is_asked_what_it_is(self):
        b = self.b
        self.go(f"/visits/{uid('home-7-visit')}/test")
        for name in ("Dispenser", "Dispenser 2"):
            b.click("button", "Draw a glass")
            b.click("[role=dialog] button", "Dispenser")
            b.click("[role=dialog] button", "just changed")
            b.click("[role=dialog] button", "Draw it")
            b.find("button", name)
        glasses = self.glasses("home-7-visit")
        self.assertEqual(
            [(g["name"], g["after"], g["just_changed"]) for g in glasses if g["treated"]][-2:],
            [("Dispenser", "dispenser", True), ("Dispenser 2", "dispenser", True)],
        )

    def test_each_glass_is_held_against_what_its_device_claims(self):
        b = self.b
        flat = f"/visits/{uid('home-6-visit')}"
        self.go(f"{flat}/before")
        b.click("summary", "What it claims to take out")
        b.type("details[open] .field:nth-child(4) input", "97")
        b.click("h1", "Before the test")
        self.go(f"{flat}/meaning")
        b.click(".token", "Pitcher, flushed")
        card = b.find("section[aria-label='Each glass'] details[open]").text
        for words in ("73 % less (69 to 78 %)", "as claimed", "claimed: 60 % less, its label"):
            self.assertIn(words, card)
        b.click("summary", "Pitcher, new")
        b.see("not flushed yet: not judged")
        self.assertEqual(b.axe(), [])
        self.assertEqual(b.out_of_reach(), [])
        there = json.loads(self.fetch(f"/api{flat}"))["visit"]["home"]["in_place"][0]
        self.assertIn({"analyte": "turbidity", "share": 0.97}, there["claims"])

    def test_a_glass_behind_a_stage_of_a_line_says_which(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/test")
        b.click("button", "Draw a glass")
        b.click("[role=dialog] button", "Our demonstration unit")
        choose = Select(b.find("[role=dialog] select"))
        choose.select_by_visible_text("Drinking tap: carbon, membrane, tank")
        b.click("[role=dialog] button", "Draw it")
        b.find("button", "Our demonstration unit")
        last = self.glasses("home-1-visit")[-1]
        self.assertEqual(last["after"], "Drinking tap: carbon, membrane, tank")
        self.assertNotEqual(last["after_item"], None)

    def glasses(self, visit):
        view = json.loads(self.fetch(f"/api/visits/{uid(visit)}"))
        return view["visit"]["samples"]

    def test_a_setting_shows_at_once_on_the_card(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/line")
        b.click("button", "Softener and drinking tap")
        b.click("button.stage-name", "Softener")
        b.type_at("//label[contains(.,'Kept back')]/../input", "3", Keys.ENTER)
        b.find("button", "about 6")
        self.assertEqual(b.axe(), [])

    def test_a_stage_that_was_taken_out_is_taken_back(self):
        b = self.b
        self.go(f"/visits/{uid('home-1-visit')}/line?line={uid('home-1-option-b')}")
        b.click("[role=group][aria-label='After softener'] button", "Softener")
        b.click("button", "Take it out")
        gone = "[role=group][aria-label='After softener']"
        b.until(lambda d: not d.find_elements("css selector", gone))
        b.click("[data-take-back] button", "Take it back")
        b.find("[role=group][aria-label='After softener']")


if __name__ == "__main__":
    unittest.main()
