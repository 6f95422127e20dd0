"""Every analyte of health answers every question that is asked of one: a new one that forgets an
answer is told here.
"""

import unittest

from zesty_glass.core.analytes import ANALYTES, Kind, until_then
from zesty_glass.core.rules import LIMITS
from zesty_glass.core.testing.by_laboratory import report_bases
from zesty_glass.core.testing.laboratory import KINDS
from zesty_glass.core.testing.tonight import TONIGHT
from zesty_glass.messages import catalogue

#: what a question is answered with "none" by, and why
NONE = {
    (
        "by_membrane",
        "copper",
    ): "from the pipes behind everything",
    ("by_membrane", "copper_flushed"): "from the pipes, likewise",
    ("by_membrane", "radon"): "a gas passes a membrane",
    ("by_membrane", "coliform"): "a membrane of a kitchen is no barrier to microbes",
    ("by_membrane", "e_coli"): "a membrane of a kitchen is no barrier to microbes",
}
HEALTH = [a for a in ANALYTES.values() if a.kind is Kind.HEALTH]


class Health(unittest.TestCase):
    def test_each_says_what_is_done_until_then(self):
        self.assertEqual([a.id for a in HEALTH if not a.until_then], [])
        self.assertEqual([a.id for a in ANALYTES.values() if a.until_then and a not in HEALTH], [])

    def test_each_but_those_of_bottled_water_alone_has_its_sentence(self):
        said = {a for t in TONIGHT for a in t.analytes}
        left = {a.id for a in HEALTH} - said
        self.assertEqual(left, set(until_then("bottled")))

    def test_each_has_a_limit_that_judges_it(self):
        judged = {x.analyte for x in LIMITS if x.governs}
        self.assertEqual([a.id for a in HEALTH if a.id not in judged], [])

    def test_each_has_a_bottle_of_the_laboratory_and_a_test_by_its_name(self):
        drawn = {a for kind in KINDS for a in kind.analytes}
        self.assertEqual([a.id for a in HEALTH if a.laboratory_only and a.id not in drawn], [])
        self.assertEqual([a.id for a in HEALTH if not a.test], [])

    def test_each_says_whether_a_membrane_holds_it_or_why_not(self):
        for a in HEALTH:
            with self.subTest(a.id):
                self.assertNotEqual(a.by_membrane, ("by_membrane", a.id) in NONE)

    def test_what_is_reported_in_two_ways_says_which_is_meant(self):
        for a in ANALYTES.values():
            if a.bases:
                self.assertIn(1.0, [factor for _, factor in a.bases], a.id)
        self.assertEqual(report_bases("nitrate_n"), ("N", "NO3"))
        self.assertEqual(report_bases("radon"), ("collection", "counting"))
        self.assertEqual(report_bases("arsenic"), ("As(V)", "As(III)"))
        self.assertEqual(report_bases("lead"), ())

    def test_every_limit_is_of_the_row_it_stands_in(self):
        for a in ANALYTES.values():
            self.assertEqual({x.analyte for x in a.limits} - {a.id}, set())
        self.assertEqual(len({x.id for x in LIMITS}), len(LIMITS))

    def test_every_bottle_that_is_named_is_one(self):
        named = {b for a in ANALYTES.values() for b in a.bottles}
        self.assertLessEqual(named, {k.id for k in KINDS})

    def test_each_has_a_name_in_every_language(self):
        for language in catalogue.languages()[1:]:
            say = catalogue.say_in(language)
            for a in HEALTH:
                with self.subTest(language, analyte=a.id):
                    self.assertTrue(say(a.name) != a.name or a.name in ("PFOA", "PFOS", "E. coli"))
