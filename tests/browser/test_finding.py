"""Anything is found by one key: a home, a step of the visit at hand, an item with its claims."""

import unittest

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid


class Finding(BrowserCase):
    def test_by_keys_alone(self):
        visit = uid("home-3-visit")
        self.go(f"/visits/{visit}/meaning")
        self.b.see("What bothers them")
        self.keys("?")
        self.b.see("turn the screen to the customer, and back")
        self.clean()
        self.keys(Keys.ESCAPE)
        self.b.until(lambda d: not d.find_elements("css selector", "[role=dialog]"))
        self.keys("/")
        self.b.see("Find anything")
        self.keys("hardn", Keys.ENTER)
        self.b.find("[role=tablist][aria-label='The kit']")
        self.assertTrue(self.b.driver.current_url.endswith(f"{visit}/test?kit=hardness"))
        self.keys("/")
        self.b.see("Find anything")
        self.keys("zzzz")
        self.b.see("Nothing of this name")
        self.clean()

    def test_one_knows_where_one_is(self):
        b, home = self.b, f"/visits/{uid('home-1-visit')}"
        self.go(f"{home}/meaning")
        b.find("h1", "What bothers them")
        b.until(lambda d: d.title.startswith("What bothers them"))
        b.click("nav a", "Compare")
        b.until(lambda d: d.title == "Compare · Ottoline Marrash · Zesty Glass")
        focused = "return document.activeElement.tagName + document.activeElement.textContent"
        b.until(lambda d: d.execute_script(focused) == "H1Compare")
        self.go(f"{home}/compare")
        b.find("h1", "Compare")
        self.keys(Keys.TAB)
        b.until(lambda d: "Skip to the view" in d.execute_script(focused))
        self.keys(Keys.ENTER)
        b.until(lambda d: d.execute_script(focused) == "H1Compare")
        self.clean()

    def test_homes_and_items(self):
        self.go("/")
        self.b.see("Today")
        self.b.click("button[aria-label='Find anything']")
        self.keys("pellmarsh")
        self.b.until(lambda d: d.find_elements("css selector", "[id^='found-home-']"))
        self.b.click("[id^='found-home-']")
        self.b.see("Bungalow, Tinder Lane")
        self.assertIn("/homes/", self.b.driver.current_url)


if __name__ == "__main__":
    unittest.main()
