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
        self.assertEqual(ahead(A, dearer), "Costs $500 less over 10 years than the next.")
        self.assertEqual(ahead(dearer, A), "")

    def test_what_has_no_price_is_not_called_cheaper(self):
        self.assertEqual(ahead(replace(A, missing=("a price",)), replace(A, cost=1_500.0)), "")

    def test_what_the_next_leaves(self):
        worse = replace(A, leaves=("hardness",))
        self.assertIn("which the next does not", ahead(A, worse))
        self.assertEqual(ahead(worse, A), "")

    def test_fewer_to_watch(self):
        self.assertEqual(
            ahead(A, replace(A, watch=("salt", "bleach"))), "2 fewer to watch than the next."
        )

    def test_what_leaves_bacteria_is_praised_for_nothing(self):
        self.assertEqual(ahead(replace(A, leaves=("e_coli",)), replace(A, cost=9_000.0)), "")
