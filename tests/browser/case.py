"""A test case signed in on the real interface: one server and one browser a class."""

import unittest
import urllib.request

from selenium.webdriver.common.action_chains import ActionChains

from tests.browser.driving import LAPTOP, Browser
from tests.browser.serving import Served
from zesty_glass.demo.load import EMAIL, PASSWORD


class BrowserCase(unittest.TestCase):
    """``served`` is the application, ``b`` the browser; ``touch`` makes every click a touch."""

    touch = False

    @classmethod
    def setUpClass(cls):
        cls.served = Served()
        cls.addClassCleanup(cls.served.close)
        cls.b = Browser(LAPTOP, touch=cls.touch)
        cls.addClassCleanup(cls.b.close)
        cls.b.sign_in(cls.served.base, EMAIL, PASSWORD)

    def go(self, path):
        self.b.go(self.served.base + path)

    def fetch(self, path):
        cookie = "; ".join(f"{c['name']}={c['value']}" for c in self.b.driver.get_cookies())
        with urllib.request.urlopen(
            urllib.request.Request(self.served.base + path, headers={"Cookie": cookie})
        ) as r:
            return r.read()

    def keys(self, *keys):
        ActionChains(self.b.driver).send_keys(*keys).perform()

    def clean(self):
        self.assertEqual(self.b.axe(), [])
        self.assertEqual([e for e in self.b.errors() if "401" not in e], [])
