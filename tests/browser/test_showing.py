"""Three demonstrations by touch alone, facing the customer, on a tablet-like laptop."""

import json
import unittest

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid

#: texts under 20 px as they are seen, drawings scaled
SMALL = """
const out = [], w = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (w.nextNode()) {
  const t = w.currentNode, e = t.parentElement, r = document.createRange();
  if (!t.textContent.trim() || e.closest(".sr-only, script")) continue;
  r.selectNodeContents(t);
  const box = r.getBoundingClientRect();
  if (box.width < 2 || box.height < 2) continue;
  const svg = e.closest("svg");
  const scale = svg && svg.viewBox.baseVal.width ? e.getScreenCTM().a : 1;
  const px = parseFloat(getComputedStyle(e).fontSize) * scale;
  if (px < 19.5) out.push([px, t.textContent]);
}
return out;
"""
#: while ``window.deaf`` stands, visits read anew are refused, as by a server under load
DEAF = """
const real = window.fetch;
window.refused = 0;
window.fetch = (what, how) => {
  const url = new URL(what.url ?? what, location.href);
  const read = (what.method ?? how?.method ?? 'GET') === 'GET';
  if (!window.deaf || !read || !/^.api.visits.[-0-9a-f]+$/.test(url.pathname))
    return real(what, how);
  window.refused += 1;
  return Promise.resolve(new Response('{}', {status: 503}));
};
"""
SHOWN = (
    "breath",
    "chlorine",
    "colour",
    "distilling",
    "glass",
    "kettle",
    "lather",
    "side_by_side",
    "tasting",
    "through",
)
HOME_2, HOME_6, HOME_7 = (f"/visits/{uid(f'home-{n}-visit')}" for n in (2, 6, 7))


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

    def test_each_view_is_read_at_two_metres_and_steps_with_one_key(self):
        b = self.b
        view = json.loads(self.fetch(f"/api{HOME_6}"))
        ready = view["assessment"]["ready"]
        self.go(f"{HOME_6}/facing/{ready[0]['id']}?from=show")
        seen = []
        while True:
            b.see("What it does not show")
            what = b.driver.current_url.partition("/facing/")[2].partition("?")[0]
            self.assertEqual(b.driver.execute_script(SMALL), [], what)
            seen.append(what)
            self.keys(Keys.PAGE_DOWN)
            if len(seen) == len(SHOWN):
                break
            b.until(lambda d, at=what: f"/facing/{at}" not in d.current_url)
        self.assertEqual(sorted(seen), sorted(SHOWN))
        self.keys(Keys.PAGE_UP)
        b.until(lambda d: f"/facing/{seen[-2]}" in d.current_url)

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

    def test_drops_stand_while_the_server_cannot_tell_them(self):
        b = self.b
        script = {"source": DEAF}
        added = b.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", script)
        self.addCleanup(b.driver.execute_cdp_cmd, "Page.removeScriptToEvaluateOnNewDocument", added)
        self.show(HOME_6, "Lather")
        b.click("button", "Start with two vials")
        b.click("[aria-label='Soap into Your tap'] button", "3 drops")
        b.find("button[aria-pressed] .num", "3")
        for n in (6, 9, 12):
            b.driver.execute_script("window.deaf = true; window.refused = 0")
            b.click("[aria-label='Soap into Your tap'] button", "3 drops")
            b.until(lambda d: d.execute_script("return window.refused"))
            b.find("button[aria-pressed] .num", str(n))
        b.driver.execute_script("window.deaf = false")
        b.click("[aria-label='Soap into Your tap'] button", "3 drops")

        def kept(_):
            made = json.loads(self.fetch(f"/api{HOME_6}"))["visit"]["demonstrations"]
            return sum(made[-1]["body"]["vials"][0]["steps"]) == 15

        b.until(kept)

    def test_what_is_made_in_spanish_is_kept_as_it_is_written(self):
        self.go(f"{HOME_2}/facing/lather?from=show")
        self.b.click("button", "Español")
        self.b.click("button", "Empezar con dos frascos")
        self.b.see("Su llave")

        def kept():
            made = json.loads(self.fetch(f"/api{HOME_2}"))["visit"]["demonstrations"]
            vials = (d["body"]["vials"] for d in made if d["body"]["kind"] == "lather")
            return [v["name"] for pair in vials for v in pair]

        self.b.until(lambda _: kept())
        self.assertEqual(kept(), ["Your tap", "Softened"])
        self.b.click("button", "English")

    def test_tasting(self):
        self.show(HOME_6, "Blind tasting")
        self.b.click("button", "Another tasting")
        self.b.click("[aria-label=Waters] button", "Kitchen cold")
        self.b.click("[aria-label=Waters] button", "Their bottled")
        self.b.click("button", "Draw the letters")
        for n in (1, 2, 3):
            self.b.see(f"Taster {n}: touch the glasses")
            self.assertNotIn("Kitchen cold", self.b.text())
            self.b.click_each("button[aria-pressed] svg[viewBox='0 0 124 150']")
            self.b.click("[aria-label='In words'] button")
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
