"""A whole set of tests on one sample by keyboard, its keys counted."""

import json
import unittest
from uuid import uuid4

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import Browser
from tests.browser.serving import Served
from zesty_glass.demo.load import EMAIL, PASSWORD

MOST = 60


class Counting(Browser):
    """Counts every key and touch."""

    count = 0

    def press(self, *keys):
        for k in keys:
            ActionChains(self.driver).send_keys(k).perform()
            self.count += 1

    def touch(self, css, text=None):
        self.click(css, text)
        self.count += 1

    def onward(self):
        """Enter, once the key that leads on has the focus."""
        self.until(
            lambda d: d.execute_script(
                "return document.activeElement && document.activeElement.id === 'next-test'"
            )
        )
        self.press(Keys.ENTER)

    def title(self, words):
        self.find("h1", words)
        self.until(
            lambda d: d.execute_script(
                "return document.activeElement &&"
                " ['INPUT','BODY','BUTTON'].includes(document.activeElement.tagName)"
            )
        )


def prepare(served: Served, b: Browser) -> str:
    """A visit with one raw glass, through the API."""
    visit, sample = str(uuid4()), str(uuid4())
    b.driver.execute_async_script(
        """const [visit, sample, done] = arguments;
        const go = async () => {
          const me = await (await fetch('/api/session')).json();
          const h = {'Content-Type': 'application/json', 'X-Zesty-Token': me.token};
          await fetch('/api/visits', {method: 'POST', headers: h, body: JSON.stringify({id: visit,
            customer: {name: 'Key Counter'}, home: {name: 'A house', source: 'city'}})});
          await fetch(`/api/visits/${visit}/samples/${sample}`, {method: 'PUT', headers: h,
            body: JSON.stringify({id: sample, name: 'Kitchen cold', raw: true,
              drawn_at: new Date().toISOString()})});
        };
        go().then(done, done);""",
        visit,
        sample,
    )
    b.go(f"{served.base}/visits/{visit}/test?kit=tds")
    return visit


def whole_set(b: "Counting") -> None:
    """TDS with two repeats that agree, hardness, free and total chlorine, iron, tannin, color, pH,
    alkalinity, temperature, flow.
    """
    b.find("h1", "Dissolved solids")
    b.touch("label", "Cup and probe rinsed")
    for display in ("98", "99"):
        b.press(*display, Keys.ENTER)
        b.see(f"Take back {display}")
    b.touch("#next-test")
    b.title("Hardness, by drops")
    b.press(*[" "] * 6)
    b.see("between 5 and 6 gpg")
    b.touch("button", "It is blue")
    b.onward()
    for title, text in (
        ("Free chlorine", ".3"),
        ("Total chlorine", "1.6"),
        ("Iron, total", ".1"),
        ("Tannin", "0"),
    ):
        b.title(title)
        b.press(*text, Keys.ENTER)
        b.onward()
    b.find("h1", "Color")
    b.touch("[role=radio]", "Clear")
    b.touch("[aria-label^='After standing'] [role=radio]", "Clear")
    b.touch("button", "Keep the cups")
    b.onward()
    b.title("pH")
    b.press(*"7.6", Keys.ENTER)
    b.onward()
    b.title("Alkalinity, by drops")
    b.press(*[" "] * 6)
    b.touch("button", "It is pink")
    b.onward()
    b.title("Temperature")
    b.press(*"12", Keys.ENTER)
    b.onward()
    b.find("h1", "Flow")
    for run in range(3):
        b.touch("button.key.go")
        b.find("button.key.go", "stop")
        b.touch("button.key.go")
        b.see(f"Keep {run + 1} run")
    b.touch("button", "Keep 3 runs")
    b.find("#next-test")


def opened(driver, visit: str) -> dict:
    """The visit as the server has it, asked for by the page itself."""
    return json.loads(
        driver.execute_async_script(
            "const done = arguments[1]; fetch(`/api/visits/${arguments[0]}`).then(r =>"
            " r.text()).then(done)",
            visit,
        )
    )


SET = {
    "tds",
    "hardness",
    "chlorine_free",
    "chlorine_total",
    "chlorine_combined",
    "iron",
    "tannin",
    "ph",
    "alkalinity",
    "temperature",
    "flow",
}


def whole(view: dict) -> dict | None:
    """The visit once every test of the set has reached the server, the last one too."""
    return view if view["assessment"]["raw"]["values"].keys() >= SET else None


class Keys60(unittest.TestCase):
    def test_a_whole_set_in_sixty_touches(self):
        served = Served()
        self.addCleanup(served.close)
        b = Counting()
        self.addCleanup(b.close)
        b.sign_in(served.base, EMAIL, PASSWORD)
        visit = prepare(served, b)
        whole_set(b)
        b.until(
            lambda d: d.execute_script(
                "return !Object.keys(localStorage).some((k) => k.startsWith('zesty.waiting:'))"
            )
        )
        view = b.until(lambda d: whole(opened(d, visit)))
        self.assertEqual(view["assessment"]["raw"]["cups"]["drawn"], "clear")
        self.assertLessEqual(b.count, MOST)


if __name__ == "__main__":
    unittest.main()
