"""The server goes away in the middle of a test: what was typed is kept, said so, and sent when it answers again."""

import unittest

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Browser
from tests.browser.serving import Served
from tests.database import fresh
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, PASSWORD

#: all that waits in the browser's own store
WAITING = (
    "return Object.keys(localStorage).filter(k => k.startsWith('zesty.waiting:'))"
    ".map(k => localStorage[k]).join()"
)


class Offline(unittest.TestCase):
    def test_nothing_typed_is_lost(self):
        database = fresh()
        served = Served(database)
        b = Browser()
        self.addCleanup(b.close)
        b.sign_in(served.base, EMAIL, PASSWORD)
        b.go(f"{served.base}/visits/{uid('home-2-visit')}/test?kit=tds")
        b.click("button", "New reading")
        served.close()
        b.find("input[inputmode=none]").click()
        ActionChains(b.driver).send_keys("97", Keys.ENTER).perform()
        b.see("kept on this device")
        self.assertIn("97", b.driver.execute_script(WAITING))
        again = Served(database, port=served.port)
        self.addCleanup(again.close)
        b.see("every reading saved")
        b.see("97")
        self.assertEqual(b.driver.execute_script(WAITING), "")


if __name__ == "__main__":
    unittest.main()
