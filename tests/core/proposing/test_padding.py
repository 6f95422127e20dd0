"""What only adds stages to another line stands after the others."""

import unittest
from dataclasses import replace

from tests.core.proposing.test_by_goals import ITEMS, line
from zesty_glass.core.proposing.standing import padded_last
from zesty_glass.core.treating.option import Option, StageChoice

SHORT = line("SO-20", cost=2_000.0, counted_cost=2_000.0, burden=1.0)


def longer(**more):
    stages = (StageChoice(item="SD-20B"), StageChoice(item="SO-20"))
    option = Option(id="long", name="Sediment filter + Softener", stages=stages)
    return replace(SHORT, option=option, **more)


def order(*lines):
    return [x.option.id for x in padded_last(list(lines), ITEMS)]


class Padding(unittest.TestCase):
    def test_what_adds_nothing_stands_last(self):
        self.assertEqual(order(longer(counted_cost=2_400.0), SHORT), ["SO-20", "long"])

    def test_a_lighter_warning_is_a_reason_though_there_are_as_many(self):
        lighter = longer(counted_cost=2_400.0, burden=0.5, watch=("Salt.",))
        short = replace(SHORT, watch=("Contact.",))
        self.assertEqual(order(lighter, short), ["long", "SO-20"])

    def test_fewer_warnings_that_weigh_as_much_are_none(self):
        fewer = longer(counted_cost=2_400.0, burden=1.0, watch=("Contact.",))
        short = replace(SHORT, watch=("Wear.", "Upkeep."))
        self.assertEqual(order(fewer, short), ["SO-20", "long"])

    def test_half_as_much_money_again_asks_for_more_than_one_warning_that_it_may_not_work(self):
        for burden, kept in ((0.0, ["SO-20", "long"]), (-0.5, ["long", "SO-20"])):
            dear = longer(counted_cost=3_000.0, burden=burden)
            with self.subTest(burden):
                self.assertEqual(order(dear, SHORT), kept)

    def test_what_is_cheaper_is_an_idea_of_its_own(self):
        self.assertEqual(order(longer(counted_cost=1_900.0), SHORT), ["long", "SO-20"])


if __name__ == "__main__":
    unittest.main()
