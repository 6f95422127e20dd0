"""A headless Chromium on the real interface: one driver a module, waits instead of sleeps."""

from __future__ import annotations

import os
import shutil
import tempfile
from pathlib import Path

from selenium import webdriver
from selenium.common.exceptions import WebDriverException
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

ROOT = Path(__file__).resolve().parents[2]
AXE = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
LAPTOP, TABLET = (1280, 800), (820, 1180)
#: how long what must come may take on a busy machine [s]; what never comes costs this once
PATIENCE = 45
#: what a page says while it gives way to the next, or grows
PASSING = (WebDriverException, IndexError)


#: the first shown element that matches, in one call: asking for each element alone takes seconds on
#: a page of many keys
_FIND = """const [css, text] = arguments;
for (const e of document.querySelectorAll(css)) {
  const box = e.getClientRects();
  if (!box.length || getComputedStyle(e).visibility === 'hidden') continue;
  if (text === null || (e.innerText ?? e.textContent ?? '').includes(text)
      || (e.getAttribute('aria-label') ?? '').includes(text)) return e;
}
return null;"""


#: whether an element stands still for two frames: a press on what moves can end beside it
_STILL = """const [e, done] = arguments;
const at = () => JSON.stringify(e.getBoundingClientRect());
requestAnimationFrame(() => {
  const was = at();
  requestAnimationFrame(() => done(e.isConnected && at() === was));
});"""


_OUT_OF_REACH = """
const out = [];
const name = e => (e.getAttribute('aria-label') || e.innerText || e.tagName).trim().slice(0, 40);
const clips = s => ['auto', 'scroll', 'hidden', 'clip'].includes(s.overflowX)
  || ['auto', 'scroll', 'hidden', 'clip'].includes(s.overflowY);
for (const e of document.querySelectorAll('a[href], button, input, select, textarea')) {
  const r = e.getBoundingClientRect(), st = getComputedStyle(e);
  if (!r.width || !r.height || st.visibility === 'hidden' || e.disabled) continue;
  if (st.position === 'absolute' && r.width <= 1) continue;
  let box = e.parentElement, waits = false;
  for (; box && box !== document.body; box = box.parentElement) {
    if (!clips(getComputedStyle(box))) continue;
    const b = box.getBoundingClientRect();
    const inside = r.left >= b.left - 2 && r.right <= b.right + 2
      && r.top >= b.top - 2 && r.bottom <= b.bottom + 2;
    if (inside) continue;
    // a box that scrolls and shows its edge, or a row that is cut in the middle of an entry
    const cue = box.classList.contains('scroll') || box.classList.contains('row');
    const more = box.scrollHeight > box.clientHeight + 1 || box.scrollWidth > box.clientWidth + 1;
    if (cue && more) { waits = true; break; }
    out.push(`${name(e)}: cut by ${box.className.slice(0, 60)}`);
    waits = true;
    break;
  }
  if (waits) continue;
  if (r.bottom > innerHeight + 2 || r.right > innerWidth + 2 || r.top < -2 || r.left < -2) {
    out.push(`${name(e)}: outside the window`);
    continue;
  }
  const top = document.elementFromPoint(r.left + r.width / 2, r.top + r.height / 2);
  if (top && top !== e && !e.contains(top) && !top.contains(e)
      && !(e.labels && [...e.labels].some(l => l.contains(top))))
    out.push(`${name(e)}: under ${name(top)}`);
}
return out;
"""


class Browser:
    """Chromium at one size; ``close`` takes its profile away."""

    def __init__(self, size: tuple[int, int] = LAPTOP, touch: bool = False) -> None:
        self.profile = tempfile.mkdtemp(prefix="zg-chromium-")
        o = Options()
        for flag in (
            "--headless=new",
            "--disable-dev-shm-usage",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--hide-scrollbars",
            "--force-color-profile=srgb",
            "--force-prefers-reduced-motion",
            f"--user-data-dir={self.profile}",
        ):
            o.add_argument(flag)
        if os.geteuid() == 0:
            o.add_argument("--no-sandbox")
        if touch:
            o.add_experimental_option(
                "mobileEmulation",
                {
                    "deviceMetrics": {
                        "width": size[0],
                        "height": size[1],
                        "pixelRatio": 1,
                        "touch": True,
                    }
                },
            )
        o.binary_location = shutil.which("chromium") or "/usr/bin/chromium"
        self.driver = webdriver.Chrome(
            options=o, service=Service(shutil.which("chromedriver") or "/usr/bin/chromedriver")
        )
        self.driver.set_script_timeout(120)
        if not touch:
            self.size(*size)

    def size(self, width: int, height: int) -> None:
        """Set the inside of the window [px]."""
        self.driver.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
        )

    def until(self, what, seconds: float = PATIENCE):
        """Wait for a condition of the driver; while a page gives way to the next, look again."""
        return WebDriverWait(
            self.driver, seconds, poll_frequency=0.05, ignored_exceptions=PASSING
        ).until(what)

    def find(self, css: str, text: str | None = None, seconds: float = PATIENCE):
        """The first shown element that matches, holding ``text`` when given."""
        try:
            return self.until(lambda d: d.execute_script(_FIND, css, text), seconds)
        except Exception as e:
            raise AssertionError(
                f"no {css} with “{text}”; the page says: {self.text()[:1500]}"
            ) from e

    def text(self) -> str:
        """All text on the page."""
        return str(self.driver.find_element(By.TAG_NAME, "body").text)

    def see(self, text: str, seconds: float = PATIENCE) -> None:
        """Wait until the page says ``text``."""
        try:
            self.until(lambda d: text in self.text(), seconds)
        except Exception as e:
            raise AssertionError(f"never said “{text}”; the page says: {self.text()[:2500]}") from e

    def click(self, css: str, text: str | None = None) -> None:
        """Click what is found, once it can be pressed and nothing covers it."""
        last: list[Exception] = []

        def press(d):
            try:
                found = self.find(css, text)
                if not found.is_enabled():
                    return False  # a press on it would be lost in silence
                if not d.execute_async_script(_STILL, found):
                    return False
                found.click()
                return True
            except AssertionError:
                raise
            except Exception as e:
                last.append(e)
                return False

        try:
            self.until(press)
        except AssertionError:
            raise
        except Exception as e:
            raise AssertionError(
                f"could not click {css} “{text}”: {last[-1] if last else 'it stays dim'}"
            ) from e

    def click_nth(self, path: str, n: int = 0) -> None:
        """Click the nth that an XPath finds, once it is there."""
        self.until(lambda d: d.find_elements(By.XPATH, path)[n].click() is None)

    def click_each(self, css: str) -> int:
        """Click each that matches now, one after the other, and tell how many."""
        many = len(self.driver.find_elements(By.CSS_SELECTOR, css))
        for n in range(many):
            self.until(lambda d, n=n: d.find_elements(By.CSS_SELECTOR, css)[n].click() is None)
        return many

    def type(self, css: str, text: str) -> None:
        """Type into a field after clearing it."""
        self.until(lambda _: self.find(css).clear() is None)
        self.find(css).send_keys(text)

    def type_at(self, path: str, *keys: str) -> None:
        """Type into the field that an XPath finds, after clearing it."""
        self.until(lambda d: d.find_element(By.XPATH, path).clear() is None)
        self.driver.find_element(By.XPATH, path).send_keys(*keys)

    def go(self, url: str) -> None:
        """Open an address."""
        self.driver.get(url)

    def sign_in(self, base: str, email: str, password: str) -> None:
        """Sign in as a person."""
        self.go(base + "/sign-in")
        self.type("input[type=email]", email)
        self.type("input[type=password]", password)
        self.click("button", "Sign in")
        self.find("h1", "Today")

    def shot(self, path: Path | str) -> None:
        """Save a picture once fonts are there, with nothing moving."""
        still = [{"name": "prefers-reduced-motion", "value": "reduce"}]
        self.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": still})
        self.driver.execute_async_script(
            "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() =>"
            " requestAnimationFrame(done)))"
        )
        self.driver.save_screenshot(str(path))

    def axe(self) -> list[str]:
        """Findings of axe-core, moderate ones too."""
        if not self.driver.execute_script("return 'axe' in window"):
            self.driver.execute_script(AXE.read_text())
        result = self.driver.execute_async_script(
            "const done = arguments[0]; axe.run(document, {resultTypes: ['violations']}).then(done)"
        )
        return [
            f"{v['id']}: {v['help']} – {v['nodes'][0]['html'][:160]}"
            f" {v['nodes'][0].get('failureSummary', '')[:200]}"
            for v in result["violations"]
            if v["impact"] != "minor"
        ]

    def out_of_reach(self) -> list[str]:
        """What cannot be pressed at rest and gives no sign of it: cut by a box that shows no edge,
        outside the window, or under something else.
        """
        return list(self.driver.execute_script(_OUT_OF_REACH))

    def errors(self) -> list[str]:
        """Errors in the browser's own log."""
        return [str(e["message"]) for e in self.driver.get_log("browser") if e["level"] == "SEVERE"]

    def close(self) -> None:
        """Quit and clean up."""
        self.driver.quit()
        shutil.rmtree(self.profile, ignore_errors=True)
