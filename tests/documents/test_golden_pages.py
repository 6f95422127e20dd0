"""The proposal on paper looks as it was looked at: each page against its golden picture."""

import unittest

from PIL import ImageDraw

from tests.documents.golden_pages import apart, golden, pages, proposals


class Pages(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.drawn = {name: pages(data) for name, data in proposals().items()}

    def test_each_page_looks_as_it_did(self):
        for name, drawn in self.drawn.items():
            kept = golden(name)
            self.assertEqual(len(drawn), len(kept), f"pages of {name}")
            for n, (a, b) in enumerate(zip(drawn, kept, strict=True), 1):
                with self.subTest(name, page=n):
                    self.assertTrue(apart(a, b).alike, apart(a, b))

    def test_another_page_is_told_apart(self):
        first, second, *_ = self.drawn["three-lines"]
        self.assertFalse(apart(first, second).alike)

    def test_a_line_of_text_more_is_told(self):
        page = self.drawn["three-lines"][0]
        more = page.copy()
        ImageDraw.Draw(more).text((60, 200), "one line of text too many", fill=0)
        self.assertFalse(apart(page, more).alike)

    def test_no_page_is_nearly_empty(self):
        for name, drawn in self.drawn.items():
            for n, page in enumerate(drawn, 1):
                inked = sum(page.histogram()[:160])
                self.assertGreater(inked / (page.width * page.height), 0.004, (name, n))
