"""What could put another system first is said by what was found, not while goals decide."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from zesty_glass.catalogue.examples import example_items
from zesty_glass.demo.homes import home_5
from zesty_glass.work.catalogue import Question


class Turning(unittest.TestCase):
    def told(self, **about):
        visit = home_5(datetime(2026, 11, 20, 9, tzinfo=UTC))
        visit = replace(visit, home=replace(visit.home, **about))
        items = {i.code: i for i in example_items()}
        return [t.id for t in Question(visit=visit, items=items).suggest().turning]

    def test_a_test_that_was_not_made(self):
        self.assertIn("test.manganese", self.told())

    def test_nothing_while_goals_decide(self):
        self.assertEqual(self.told(goals=("price_today",)), [])


if __name__ == "__main__":
    unittest.main()
