"""Why a proposed system stands before the next one."""

import unittest
from dataclasses import replace

from zesty_glass.core.proposing.standing import with_reasons
from zesty_glass.core.proposing.suggested import Suggested
from zesty_glass.core.rules import Settings
from zesty_glass.core.treating.option import Option, StageChoice

A = Suggested(
    option=Option(id="a", name="A", stages=(StageChoice(item="SO-20"),)),
    names=("A",),
    meets=1,
    wanted=1,
    not_met=(),
    unknown=(),
    cost=1_000.0,
    waste_gal_year=0.0,
    own_minutes=0.0,
    tap_only=False,
    watch=(),
    open=(),
    health=1.0,
    answers={"hardness": 1.0},
    leaves=(),
)


def ahead(first, second):
    second = replace(second, option=replace(second.option, id="b", name="B"))
    return with_reasons((first, second), Settings(), 10)[0].ahead


class Ahead(unittest.TestCase):
    def test_money(self):
        dearer = replace(A, cost=1_500.0)
        self.assertEqual(ahead(A, dearer), "It costs $500 less over 10 years than the next.")
        self.assertEqual(ahead(dearer, A), "")

    def test_what_has_no_price_is_not_called_cheaper(self):
        self.assertEqual(ahead(replace(A, missing=("a price",)), replace(A, cost=1_500.0)), "")

    def test_what_the_next_leaves(self):
        worse = replace(A, leaves=("hardness",))
        self.assertIn("which the next system does not", ahead(A, worse))
        self.assertEqual(ahead(worse, A), "")

    def test_what_answering_more_costs(self):
        less = replace(A, leaves=("hardness",), cost=400.0)
        self.assertEqual(
            ahead(A, less),
            "It treats hardness, which the next system does not, for $600 more over 10 years.",
        )
        self.assertIn(
            ", and it costs $600 less over",
            ahead(replace(less, leaves=()), replace(A, leaves=("hardness",))),
        )

    def test_what_the_next_leaves_to_watch_the_gravest_first(self):
        short = replace(A, watch=("Its contact time is short.", "Salt."))
        self.assertEqual(
            ahead(A, short), "The next system has this to watch: Its contact time is short."
        )
        self.assertEqual(
            ahead(replace(A, cost=2_860.0), short),
            "The next system costs $1,860 less over 10 years, and has this to watch: Its contact"
            " time is short.",
        )

    def test_what_cannot_be_priced_is_given_no_difference_in_money(self):
        open_ones = ((("salt",), ()), ((), ("salt",)))
        for mine, other in open_ones:
            a = replace(A, missing=mine)
            left = replace(A, leaves=("hardness",), cost=400.0, missing=other)
            self.assertEqual(ahead(a, left), "It treats hardness, which the next system does not.")
            short = replace(A, cost=400.0, watch=("Short.",), missing=other)
            self.assertEqual(ahead(a, short), "The next system has this to watch: Short.")

    def test_a_dollar_is_a_difference_and_less_is_none(self):
        self.assertIn("It costs $1 less", ahead(A, replace(A, cost=1_001.0)))
        self.assertEqual(ahead(A, replace(A, cost=1_000.5)), "")
        left = replace(A, leaves=("hardness",), cost=999.0)
        self.assertIn("for $1 more", ahead(A, left))
        short = replace(A, watch=("Short.",), cost=999.0)
        self.assertIn("The next system costs $1 less", ahead(A, short))

    def test_as_many_warnings_are_no_reason(self):
        a, b = replace(A, watch=("Salt.",)), replace(A, watch=("Short.",))
        self.assertEqual(ahead(a, b), "")

    def test_a_little_less_wastewater_is_not_said(self):
        for gallons, told in ((99.0, False), (100.0, True)):
            other = replace(A, cost=1_500.0, waste_gal_year=gallons)
            self.assertEqual("gal a year less" in ahead(A, other), told)

    def test_less_wastewater_is_said_with_the_money(self):
        drains = replace(A, cost=1_500.0, waste_gal_year=2_400.0)
        self.assertEqual(
            ahead(A, drains),
            "It costs $500 less over 10 years than the next and sends 2,400 gal a year less to the"
            " drain.",
        )

    def test_what_leaves_bacteria_is_praised_for_nothing(self):
        self.assertEqual(ahead(replace(A, leaves=("e_coli",)), replace(A, cost=9_000.0)), "")
