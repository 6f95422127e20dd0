"""A line to the kitchen's cold tap past all that treats the house."""

import unittest

from tests.core.proposing.test_more_homes import CLEAN_WELL, GPG, asked, ideas
from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.home import Care
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice

ITEMS = {i.code: i for i in example_items()}
DIET = Care(low_sodium=True, consent=True)


def walked(*codes, h=None, **values):
    option = Option(id="x", name="x", stages=tuple(StageChoice(item=c) for c in codes))
    return walk(option, ITEMS, water(**values), None, h or home(), settings())


class RawLine(unittest.TestCase):
    WATER = {**CLEAN_WELL, "hardness": 14 * GPG, "sodium": 12.0}

    def test_the_house_is_soft_and_the_tap_is_as_the_water_comes(self):
        line = walked("SO-15", "RL-1", **self.WATER)
        self.assertLess(line.house.range("hardness").best, 20)
        self.assertEqual(line.tap.quantities, line.source.quantities)
        self.assertEqual(line.tap.range("sodium").best, 12.0)
        self.assertGreater(line.house.range("sodium").best, 100)  # 14 gpg x 7.9 mg/L

    def test_wherever_it_is_chosen_it_is_the_first_of_the_tap(self):
        line = walked("DT-1", "RL-1", **self.WATER)
        self.assertEqual(line.stages[0].code, "RL-1")

    def test_a_lamp_of_the_house_does_nothing_for_that_tap(self):
        values = {**self.WATER, "coliform": 3.0, "uvt": 95.0, "turbidity": 0.2, "hardness": 20.0}
        plain = walked("SD-20B", "UV-15V", **values)
        past = walked("SD-20B", "UV-15V", "RL-1", **values)
        ids = [{c.id for c in x.checks} for x in (plain, past)]
        self.assertNotIn("line.undisinfected", ids[0])
        self.assertIn("line.undisinfected", ids[1])

    def test_it_answers_a_diet_and_no_potassium_is_wanted(self):
        _, s = asked(self.WATER, ("white_crust",), DIET)
        self.assertEqual(ideas(s)[0], "Softener + Raw kitchen line")

    def test_iron_at_the_tap_keeps_it_from_standing_first(self):
        _, s = asked({**self.WATER, "iron": 1.5}, ("white_crust", "orange_streaks"), DIET)
        self.assertNotIn("Raw kitchen line", ideas(s)[0])

    def test_nobody_on_a_diet_is_offered_one(self):
        _, s = asked(self.WATER, ("white_crust",))
        self.assertFalse([x for x in s.lines if "Raw kitchen line" in x.option.name])
