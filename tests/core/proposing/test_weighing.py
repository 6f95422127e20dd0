"""Warnings are weighed by what they mean, and the household's own work counts."""

import unittest

from zesty_glass.core.proposing.ordering import OWN_HOUR, order
from zesty_glass.core.proposing.ranking import Grade
from zesty_glass.core.proposing.weighing import MEANS, WEIGHTS, burden, weight
from zesty_glass.core.treating.checks import CHECKS
from zesty_glass.core.treating.report import Check
from zesty_glass.core.treating.stages import TECHNOLOGIES


def graded(**more) -> Grade:
    told = {"health": 0.0, "complaints": 1.0, "rest": 0.0, "leaves": (), "against_diet": 0}
    return Grade(**told, watch=(), open=(), answers={}, **more)


def key(cost: float = 2000.0, hours: float = 0.0, **more):
    return order(False, True, 1, graded(**more), cost, 0.0, hours)


def warned(*ids: str) -> list[Check]:
    return [Check(id=i, status="warn", sentence=i) for i in ids]


class Weighed(unittest.TestCase):
    def test_what_may_not_work_weighs_more_than_wear_and_upkeep(self):
        self.assertEqual(weight("evidence.health"), 2.0)
        self.assertEqual(weight("carbon.ebct"), 1.0)
        self.assertEqual(weight("membrane.iron"), 0.5)
        self.assertEqual(weight("membrane.no_shutoff"), 1.0)  # it wastes water all day

    def test_one_sentence_counts_once_and_only_warnings_do(self):
        checks = warned("membrane.iron", "membrane.iron", "carbon.ebct")
        said = Check(id="evidence.health", status="say", sentence="x")
        self.assertEqual(burden([*checks, said]), 1.5)

    def test_two_warnings_of_wear_stand_before_one_that_it_may_not_work_and_costs_more(self):
        self.assertLess(key(2000.0, burden=1.0), key(2100.0, burden=1.0))
        self.assertLess(key(burden=burden(warned("membrane.iron"))), key(burden=1.0))

    def test_own_work_counts_as_money(self):
        self.assertLess(key(2000.0), key(2000.0, hours=50.0))
        self.assertLess(key(2000.0, hours=50.0), key(2000.0 + 51 * OWN_HOUR))

    def test_a_line_that_is_worse_in_nothing_never_stands_behind(self):
        better, worse = key(2000.0, 10.0, burden=0.5), key(2500.0, 20.0, burden=1.5)
        self.assertLess(better, worse)

    def test_every_weight_is_used_and_every_id_says_something(self):
        self.assertEqual(set(MEANS.values()) | {"works"}, set(WEIGHTS))
        own = {i for t in TECHNOLOGIES.values() for i in t.checks}
        needs = {f"{t.kind}.{n.analyte}" for t in TECHNOLOGIES.values() for n in t.needs}
        self.assertEqual(set(MEANS) - set(CHECKS) - own - needs, set())


if __name__ == "__main__":
    unittest.main()
