"""The server goes away in the middle of a test: what was typed is kept, said so, and sent when it
answers again.
"""

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

#: changes of a home go out when ``window.letGo`` is called, and not before
HELD = """
const real = window.fetch;
window.held = 0;
const gate = new Promise((go) => { window.letGo = go; });
window.fetch = async (what, how) => {
  const home = what.method === 'PUT' && new URL(what.url).pathname.endsWith('/home');
  if (home) { window.held += 1; await gate; }
  return real(what, how);
};
"""


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

    def test_losing_the_network_empties_nothing(self):
        served = Served()
        self.addCleanup(served.close)
        b = Browser()
        self.addCleanup(b.close)
        b.sign_in(served.base, EMAIL, PASSWORD)
        b.go(f"{served.base}/visits/{uid('home-1-visit')}/meaning")
        b.see("What bothers them")
        b.until(  # each step's part is fetched ahead, one after the other
            lambda d: d.execute_script(
                "const got = performance.getEntriesByType('resource').map((e) => e.name);"
                "return ['Line-', 'Compare-', 'OfferStep-'].every("
                "(part) => got.some((name) => name.includes('/assets/' + part)))"
            )
        )
        served.close()
        for step in ("System", "Compare", "Offer", "Before"):
            b.click("nav a, ol a, a", step)
            b.see("Ottoline Marrash")
            b.until(lambda d: len(d.find_element("css selector", "main").text) > 20)

    def test_fields_typed_faster_than_the_server_answers_are_all_kept(self):
        served = Served()
        self.addCleanup(served.close)
        b = Browser()
        self.addCleanup(b.close)
        b.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": HELD})
        b.sign_in(served.base, EMAIL, PASSWORD)
        b.go(f"{served.base}/visits/{uid('home-2-visit')}/before")
        field = "//label[.//span[text()='{}']]//input"
        for label, typed in (("House", "Withy End"), ("Place", "Marl End"), ("Phone", "555 01")):
            b.type_at(field.format(label), typed, Keys.TAB)
        b.until(lambda d: d.execute_script("return window.held"))
        b.driver.execute_script("window.letGo()")
        b.find("[role=status]", "every field is saved")
        b.driver.refresh()
        b.see("Withy End, Marl End")
        kept = b.driver.find_element("xpath", field.format("Phone")).get_attribute("value")
        self.assertEqual(kept, "555 01")

    def test_two_tabs_share_one_queue(self):
        served = Served()
        self.addCleanup(served.close)
        b = Browser()
        self.addCleanup(b.close)
        b.sign_in(served.base, EMAIL, PASSWORD)
        here = f"{served.base}/visits/{uid('home-2-visit')}/test?kit=tds"
        b.go(here)
        b.click("button", "New reading")
        first = b.driver.current_window_handle
        b.driver.switch_to.new_window("tab")
        b.go(here)
        b.find("button", "New reading")
        second = b.driver.current_window_handle
        b.driver.switch_to.window(first)
        b.find("input[inputmode=none]").click()
        ActionChains(b.driver).send_keys("93", Keys.ENTER).perform()
        b.see("every reading saved")
        b.driver.switch_to.window(second)
        b.see("every reading saved")
        b.see("93")
        self.assertEqual(b.driver.execute_script(WAITING), "")


if __name__ == "__main__":
    unittest.main()
