"""The card that is left in the house: what was found first, settings, next steps, no promise."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.card import MOST_NEXT, water_card
from zesty_glass.demo.homes import home_1, home_3, home_4, home_7

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)


def card(visit):
    return water_card(visit, assess(visit))


class Cards(unittest.TestCase):
    def test_what_was_found_stands_first_and_is_marked(self):
        c = card(home_3(AT))
        self.assertEqual(
            [r.name for r in c.readings[:2] if r.asks], [r.name for r in c.readings[:2]]
        )
        self.assertIn("Iron, total", [r.name for r in c.readings])
        self.assertTrue(c.next[0].startswith("Clock softener of another seller: Set it to every 2"))
        self.assertLessEqual(len(c.next), MOST_NEXT)

    def test_what_is_set_by_it(self):
        settings = dict(card(home_1(AT)).settings)
        self.assertIn("19", settings["A softener valve’s hardness setting"])

    def test_tonight_is_said_where_something_of_health_was_found(self):
        self.assertTrue(card(home_4(AT)).tonight)
        self.assertEqual(card(home_7(AT)).tonight, ())

    def test_it_never_calls_water_safe(self):
        for home in (home_1, home_3, home_4, home_7):
            c = card(home(AT))
            said = " ".join((*(r.sentence for r in c.readings), *c.next, *c.tonight)).lower()
            self.assertNotIn("is safe", said)
            self.assertIn("never says that water is safe", c.honest)

    def test_without_a_raw_reading_there_is_no_card(self):
        with self.assertRaises(RuleError) as e:
            card(replace(home_1(AT), samples=(), options=(), demonstrations=()))
        self.assertEqual(e.exception.code, "card.no_raw")


if __name__ == "__main__":
    unittest.main()
