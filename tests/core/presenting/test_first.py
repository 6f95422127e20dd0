"""What comes before anything is bought goes home with the proposal and with the card."""

import unittest
from dataclasses import replace

from tests.core.presenting.test_card import AT, card
from tests.core.presenting.test_offer import offer
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.assess import assess
from zesty_glass.core.presenting.first import DISINFECT_FIRST, before_fitting
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.demo.homes import home_1, home_3, home_4


def said(visit, code):
    """What is said first where one item is bought."""
    items = {i.code: i for i in (*visit.catalogue, *example_items())}
    option = Option(id="x", name="x", stages=(StageChoice(item=code),))
    visit = replace(visit, options=(option,), catalogue=tuple(items.values()))
    a = assess(visit)
    return before_fitting(visit, a, next(o.line for o in a.options if o.id == "x"))


class First(unittest.TestCase):
    def test_the_proposal_says_what_the_card_says(self):
        made = offer(home_1(AT))
        self.assertTrue(made.first)
        self.assertLessEqual(set(card(home_1(AT)).next), set(made.first))

    def test_a_lamp_on_a_well_wants_it_disinfected_first(self):
        self.assertEqual(said(home_3(AT), "UV-12H")[-1], DISINFECT_FIRST)
        self.assertNotIn(DISINFECT_FIRST, said(home_3(AT), "SO-20"))

    def test_a_town_has_no_well_to_disinfect(self):
        self.assertNotIn(DISINFECT_FIRST, said(home_1(AT), "UV-12H"))

    def test_where_bacteria_were_found_it_is_said_once(self):
        told = said(home_4(AT), "UV-12H")
        self.assertNotIn(DISINFECT_FIRST, told)
        self.assertEqual(sum("disinfected" in t for t in told), 1)


if __name__ == "__main__":
    unittest.main()
