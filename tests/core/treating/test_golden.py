"""One stage report a technology, held against what was looked over by eye."""

import json
import unittest

from tests.core.treating.golden import FILE, every


class Golden(unittest.TestCase):
    def test_every_technology_reports_what_was_looked_over(self):
        kept, now = json.loads(FILE.read_text()), every()
        self.assertEqual(set(kept), set(now))
        for kind, report in now.items():
            for part, value in report.items():
                with self.subTest(f"{kind}: {part}"):
                    self.assertEqual(kept[kind][part], value)
