"""What the page weighs at its first look, and how its files are handed out."""

import gzip
import re
import unittest

import brotli

from tests.application import Client, borrowed, given_back
from tests.database import fresh
from zesty_glass.cli.machine import WEB

DIST = WEB / "dist"
ASSETS = DIST / "assets"
MOST_SCRIPTS, MOST_FONTS = 150_000, 90_000  # [bytes], scripts as gzip


def first() -> list[str]:
    """Scripts that the page asks for before anybody has signed in."""
    return re.findall(r'(?:src|href)="/assets/([^"]+\.js)"', (DIST / "index.html").read_text())


class Weight(unittest.TestCase):
    def test_scripts_at_signing_in(self):
        names = first()
        self.assertTrue(names)
        weight = sum(len(gzip.compress((ASSETS / n).read_bytes(), 9)) for n in names)
        self.assertLessEqual(weight, MOST_SCRIPTS)

    def test_fonts(self):
        fonts = list(ASSETS.glob("*.woff2"))
        self.assertEqual(len(fonts), 2)
        self.assertLessEqual(sum(f.stat().st_size for f in fonts), MOST_FONTS)

    def test_nothing_is_fetched_from_elsewhere(self):
        for file in (DIST / "index.html", *ASSETS.glob("*.css")):
            self.assertNotRegex(file.read_text(), r"(?:src|href)=\"https?://|url\(https?://")


class Notices(unittest.TestCase):
    def test_licenses_of_packages_and_fonts_go_with_the_page(self):
        text = (DIST / "licenses.txt").read_text()
        for words in (
            "## react ",
            "## i18next ",
            "Permission is hereby granted",
            "Open Font License",
        ):
            self.assertIn(words, text)
        self.assertEqual(text.count("## A font of the page"), 2)


class HandedOut(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.app = borrowed(fresh())
        cls.addClassCleanup(given_back, cls.app)
        cls.client = Client(cls.app)
        cls.name = first()[0]
        cls.plain = (ASSETS / cls.name).read_bytes()

    def asked(self, takes: str, name: str | None = None):
        path = f"/assets/{name or self.name}"
        with self.client.stream("GET", path, headers={"Accept-Encoding": takes}) as r:
            return r, b"".join(r.iter_raw())

    def test_as_it_was_packed_when_it_was_built(self):
        r, raw = self.asked("gzip, deflate, br")
        self.assertEqual(r.headers["content-encoding"], "br")
        self.assertEqual(brotli.decompress(raw), self.plain)
        self.assertIn("javascript", r.headers["content-type"])
        self.assertEqual(r.headers["vary"], "Accept-Encoding")
        self.assertIn("immutable", r.headers["cache-control"])

    def test_by_gzip_where_no_more_is_taken(self):
        r, raw = self.asked("gzip;q=1.0, deflate")
        self.assertEqual(r.headers["content-encoding"], "gzip")
        self.assertEqual(gzip.decompress(raw), self.plain)

    def test_plain_where_nothing_is_taken(self):
        r, raw = self.asked("identity")
        self.assertNotIn("content-encoding", r.headers)
        self.assertEqual(raw, self.plain)

    def test_a_font_is_compressed_already(self):
        font = next(ASSETS.glob("*.woff2"))
        r, raw = self.asked("br, gzip", font.name)
        self.assertEqual((r.status_code, raw), (200, font.read_bytes()))
        self.assertNotIn("content-encoding", r.headers)

    def test_what_is_not_there_is_not_there(self):
        self.assertEqual(self.client.get("/assets/nothing.js").status_code, 404)
        self.assertEqual(self.client.get("/assets/..%2findex.html").status_code, 404)


if __name__ == "__main__":
    unittest.main()
