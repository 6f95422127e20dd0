"""For eyes that see otherwise: twice the size, colors of one's own, a device set to dark."""

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid

VISIT = f"/visits/{uid('home-1-visit')}"
VIEWS = (
    "/",
    "/due",
    f"{VISIT}/before",
    f"{VISIT}/test?kit=hardness",
    f"{VISIT}/meaning",
    f"{VISIT}/line",
    f"{VISIT}/compare",
    f"{VISIT}/offer",
    f"/proposals/{uid('home-1-proposal')}",
)
#: whether the comparison goes on behind the key of the counter
OVER_THE_COUNTER = """
const board = document.querySelector('.board'), key = document.querySelector('.ledge-end > .key');
return board && key && board.getBoundingClientRect().bottom > key.getBoundingClientRect().top;
"""
STANDS = "h1, h2, [aria-label='What each option does'], [aria-label='Lines']"


class Eyes(BrowserCase):
    def media(self, **features):
        told = [{"name": k.replace("_", "-"), "value": v} for k, v in features.items()]
        self.b.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": told})
        self.addCleanup(
            self.b.driver.execute_cdp_cmd, "Emulation.setEmulatedMedia", {"features": []}
        )

    def colour(self, css, what):
        """What a browser paints, as three numbers from 0 to 255."""
        return self.b.driver.execute_script(
            "const c = getComputedStyle(document.querySelector(arguments[0]))[arguments[1]];"
            "return c.match(/\\d+/g).slice(0, 3).map(Number)",
            css,
            what,
        )

    def test_twice_the_size_everything_is_in_reach(self):
        self.addCleanup(self.b.size, 1280, 800)
        self.b.size(640, 400)
        for path in VIEWS:
            with self.subTest(path):
                self.go(path)
                self.b.find(STANDS)
                self.assertEqual(self.b.out_of_reach(), [])
                self.assertFalse(self.b.driver.execute_script(OVER_THE_COUNTER))
                wide = "return document.documentElement.scrollWidth"
                self.assertEqual(self.b.driver.execute_script(wide), 640)

    def test_a_device_set_to_dark_is_followed_until_somebody_chooses(self):
        theme = "return document.documentElement.dataset.theme"
        self.media(prefers_color_scheme="dark")
        self.go(f"{VISIT}/meaning")
        self.b.find(STANDS)
        self.assertEqual(self.b.driver.execute_script(theme), "dim")
        self.assertEqual(self.b.axe(), [])
        self.b.click("button[aria-label='Dim theme']")
        self.go(f"{VISIT}/meaning")
        self.b.find(STANDS)
        self.assertEqual(self.b.driver.execute_script(theme), "light")
        self.b.driver.execute_script("localStorage.removeItem('zesty.theme')")

    def test_own_colours_hold_and_what_is_chosen_is_framed(self):
        self.media(forced_colors="active", prefers_color_scheme="dark")
        self.go(f"{VISIT}/test?kit=hardness")
        self.b.find(STANDS)
        ground = self.colour("body", "backgroundColor")
        line = self.colour("svg path[stroke='var(--ink)']", "stroke")
        self.assertLess(sum(ground), 100)
        self.assertGreater(sum(line), 600)
        chosen = self.colour(".tokens [aria-pressed=true]", "color")
        self.assertGreater(sum(chosen), 600)
        for css in ("[aria-current]", ".tokens [aria-pressed=true]"):
            frame = "return getComputedStyle(document.querySelector(arguments[0])).outlineStyle"
            self.assertEqual(self.b.driver.execute_script(frame, css), "solid", css)
