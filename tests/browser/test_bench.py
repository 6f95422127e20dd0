"""A whole set of tests on one sample by keyboard, its keys counted; and a server that is killed
while readings come in.
"""

import http.client
import json
import os
import signal
import subprocess
import sys
import time
import unittest
import urllib.request
from http.cookiejar import CookieJar
from uuid import uuid4

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.driving import ROOT, Browser
from tests.browser.serving import Served
from tests.database import fresh
from zesty_glass.cli.cluster import free_port
from zesty_glass.demo.kits import demo_instruments
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.documents.codec import plain

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
    """TDS with two repeats that agree, hardness, free and total chlorine, iron, tannin, colour, pH,
    alkalinity, temperature, flow.
    """
    b.find("h1", "Dissolved matter")
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
    b.find("h1", "Colour")
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


class Killed(unittest.TestCase):
    """SIGKILL at many moments: whatever the server said it had stored is there afterwards."""

    def start(self):
        env = os.environ | {
            "ZESTY_DATABASE": self.database,
            "ZESTY_SECRET": "the same secret for every start",
            "ZESTY_PORT": str(self.port),
            "ZESTY_INSECURE_COOKIE": "true",
        }
        self.process = subprocess.Popen(
            [sys.executable, "-m", "zesty_glass.cli.serve"],
            cwd=ROOT,
            env=env,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        end = time.monotonic() + 30
        while time.monotonic() < end:
            try:
                with urllib.request.urlopen(f"{self.base}/api/health", timeout=2) as r:
                    if r.status == 200:
                        return
            except (OSError, http.client.HTTPException):
                if self.process.poll() is not None:
                    break
        self.fail("the server did not start")

    def call(self, method, path, body=None):
        data = None if body is None else json.dumps(body, default=str).encode()
        request = urllib.request.Request(
            self.base + path,
            data=data,
            method=method,
            headers={"Content-Type": "application/json", "X-Zesty-Token": self.token},
        )
        with self.opener.open(request, timeout=5) as r:
            return json.loads(r.read() or b"null")

    def test_no_reading_shown_as_saved_is_lost(self):
        self.database, self.port, self.token = fresh(), free_port(), ""
        self.base = f"http://127.0.0.1:{self.port}"
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.start()
        self.addCleanup(lambda: self.process.kill())
        self.token = self.call("POST", "/api/session", {"email": EMAIL, "password": PASSWORD})[
            "token"
        ]
        visit, sample = str(uuid4()), str(uuid4())
        self.call(
            "POST",
            "/api/visits",
            {"id": visit, "customer": {"name": "Kay"}, "home": {"name": "A house"}},
        )
        self.call(
            "PUT",
            f"/api/visits/{visit}/samples/{sample}",
            {"id": sample, "name": "Raw", "raw": True, "drawn_at": "2026-11-20T10:00:00Z"},
        )
        kit = plain(
            next(
                k
                for k in demo_instruments(__import__("datetime").date(2026, 11, 20))
                if k.id == "hard-1"
            )
        )
        saved, sent = set(), 0
        for round_ in range(4):
            stop_after = 1 + 3 * round_ % 7
            killer = None
            try:
                for n in range(40):
                    id = str(uuid4())
                    if n == stop_after:
                        killer = subprocess.Popen(
                            [
                                sys.executable,
                                "-c",
                                f"import os; os.kill({self.process.pid}, {int(signal.SIGKILL)})",
                            ]
                        )
                    sent += 1
                    self.call(
                        "PUT",
                        f"/api/visits/{visit}/samples/{sample}/readings/{id}",
                        {
                            "id": id,
                            "analyte": "hardness",
                            "instrument": kit,
                            "observation": {"method": "drops", "drops": n},
                            "made_at": "2026-11-20T10:00:00Z",
                        },
                    )
                    saved.add(id)
            except (OSError, http.client.HTTPException, ValueError):
                # the answer was cut off: whether it was stored is not known, so it does not count
                pass
            self.assertIsNotNone(killer)
            killer.wait()
            self.process.wait()
            self.start()
            kept = {
                r["id"]
                for r in self.call("GET", f"/api/visits/{visit}")["visit"]["samples"][0]["readings"]
            }
            self.assertLessEqual(saved, kept)
        self.assertGreater(len(saved), 6)
        self.assertGreater(sent, len(saved))


if __name__ == "__main__":
    unittest.main()
