"""The glass on paper has the colors of the glass on the page: both are held against one table."""

import json
import unittest
from pathlib import Path

from zesty_glass.documents.pictures import tint

GOLDEN = json.loads(Path(__file__).with_name("glass_golden.json").read_text())


class Glass(unittest.TestCase):
    def test_colours(self):
        for c in GOLDEN:
            self.assertEqual(list(tint(c["tannin"], c["rust"])), c["rgb"], c)
