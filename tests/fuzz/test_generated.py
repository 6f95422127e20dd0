"""The description of the interface is true: 450 generated requests find nothing that differs from
it.
"""

import os
import unittest

from tests.fuzz import generated

SEED = 20261125


class Generated(unittest.TestCase):
    def test_nothing_differs_from_the_description(self):
        many = int(os.environ.get("ZESTY_FUZZ", "450"))
        sent, seen, found = generated.run(many, int(os.environ.get("ZESTY_FUZZ_SEED", SEED)))
        self.assertGreater(sent, many * 0.8)
        self.assertGreater(seen[200], sent * 0.1)
        self.assertFalse({500, 502, 503} & set(seen), seen)
        self.assertEqual(found, [], "\n".join(found[:20]))
