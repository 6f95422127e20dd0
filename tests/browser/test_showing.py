"""Three demonstrations by touch alone, facing the customer, on a tablet-like laptop."""

import unittest

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid

HOME_6, HOME_7 = (f"/visits/{uid(f'home-{n}-visit')}" for n in (6, 7))


class ByTouch(BrowserCase):
    touch = True

    def show(self, home, kind):
        self.go(f"{home}/show")
        self.b.click("a.key", kind)
        self.b.see("What it does not show")

    def facing_is_private(self):
        """No prices, notes or ways elsewhere: one key alone leads out."""
        self.assertEqual(self.b.driver.find_elements("css selector", "a"), [])
        self.assertNotIn("$", self.b.text())
        self.assertEqual(self.b.axe(), [])

    def test_side_by_side(self):
        self.show(HOME_7, "Side by side")
        self.b.click("button", "Kitchen cold")
        self.b.see("58 mg/L")
        self.b.click("button", "Carbon pitcher")
        self.b.see("Expected: Carbon pitcher")
        self.b.see("Simulated")
        self.facing_is_private()
        self.b.click("button", "Turn back")
        self.b.find("h1", "Show them their own water")
        self.b.see("Show again")

    def test_lather(self):
        self.show(HOME_7, "Lather")
        self.b.click("button", "Start with two vials")
        for _ in range(6):
            self.b.click("[aria-label='Soap into Your tap'] button", "3 drops")
        self.b.find("button[aria-pressed]", "18")
        self.b.click("button", "It holds for 5 s")
        for _ in range(2):
            self.b.click("[aria-label='Soap into Softened'] button", "3 drops")
        self.b.click("button", "It holds for 5 s")
        self.b.see("3 times (2.5 to 6)")
        self.b.click("button", "It dies")
        self.b.see("killed the lather")
        self.facing_is_private()

    def test_tasting(self):
        self.show(HOME_6, "Blind tasting")
        self.b.click("button", "Another tasting")
        self.b.click("[aria-label=Waters] button", "Kitchen cold")
        self.b.click("[aria-label=Waters] button", "Their bottled")
        self.b.click("button", "Draw the letters")
        for n in (1, 2, 3):
            self.b.see(f"Taster {n}: touch the glasses")
            self.assertNotIn("Kitchen cold", self.b.text())
            for cup in self.b.driver.find_elements(
                "css selector", "button[aria-pressed=false] svg[viewBox='0 0 124 150']"
            ):
                cup.click()
            code = self.b.driver.find_element("css selector", "[aria-label='In words'] button")
            code.click()
            self.b.click("[aria-label=Smell] button", "earthy")
            self.b.click("button", "Lock my ranking")
        self.b.see("All rankings are locked")
        self.b.click("button", "Show the key")
        self.b.see("Kitchen cold")
        self.b.see("earthy")
        self.b.see("By guessing")
        self.facing_is_private()

    def test_one_key_turns_the_screen_and_back(self):
        self.b.go(f"{self.served.base}{HOME_7}/meaning")
        self.b.see("What bothers them")
        body = self.b.find("body")
        body.send_keys("t")
        self.b.see("What this shows")
        self.facing_is_private()
        self.b.find("body").send_keys("t")
        self.b.see("What bothers them")


if __name__ == "__main__":
    unittest.main()
