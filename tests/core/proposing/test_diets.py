"""What a diet of the house minds, in water that is salty itself."""

import unittest

from tests.core.proposing.test_more_homes import CLEAN_WELL, GPG, asked, ideas
from zesty_glass.core.home import Care


class ADiet(unittest.TestCase):
    """What a diet of the house minds, and is over a limit of its own, asks like a complaint."""

    SALTY = {**CLEAN_WELL, "sodium": 250, "chloride": 400, "hardness": 20 * GPG, "tds": 1100}

    def test_the_tap_gets_a_membrane_where_the_water_itself_is_salty(self):
        care = Care(low_sodium=True, consent=True)
        _, s = asked(self.SALTY, ("white_crust",), care)
        self.assertEqual(ideas(s)[0], "Softener + RO system at the drinking tap")

    def test_without_the_diet_the_crust_alone_is_answered_first(self):
        _, s = asked(self.SALTY, ("white_crust",))
        self.assertEqual(ideas(s)[0], "Softener")

    def test_a_water_with_little_sodium_asks_for_none(self):
        care = Care(low_sodium=True, consent=True)
        _, s = asked(
            {**self.SALTY, "sodium": 12, "chloride": 30, "tds": 300}, ("white_crust",), care
        )
        # the kitchen's cold tap left as the water comes is the cheapest way out; potassium has its
        # own price, so that salt with a glass behind it comes before it
        self.assertEqual(
            ideas(s)[:3],
            [
                "Softener + Raw kitchen line",
                "Softener + RO system at the drinking tap",
                "Softener",
            ],
        )
