"""What a laboratory's result says of microbes, in words, by count, and below a limit; and that all
who ask are told the same.
"""

import unittest

from zesty_glass.core.aftercare.proof import verdict
from zesty_glass.core.home import Home, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.bottles import panel
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Water
from zesty_glass.core.treating.line import _bacteria
from zesty_glass.core.treating.stream import Quantity, found_in


def water(**values):
    return Water(sample="s", values=values)


def result(r=None, below=None, words=""):
    return Value(
        analyte="e_coli",
        unit="per 100 mL",
        range=r,
        below=below,
        words=words,
        laboratory=True,
        certified=True,
    )


COUNTED = result(Range.of(3.0, 4.0, 5.0))
TOO_MANY = result(Range(low=200.0, best=200.0, high=None))
PRESENT = result(words="present")
ABSENT = result(words="absent")
NONE_COUNTED = result(Range.exact(0.0))
BELOW_ONE = result(Range.of(0.0, 0.5, 1.0), 1.0)
DILUTED = result(Range.of(0.0, 5.0, 10.0), 10.0)

FOUND = (COUNTED, TOO_MANY, PRESENT)
NOT_FOUND = (ABSENT, NONE_COUNTED, BELOW_ONE)


class Microbes(unittest.TestCase):
    def test_found_not_found_and_cannot_tell(self):
        self.assertEqual([v.microbe for v in FOUND], [True] * 3)
        self.assertEqual([v.microbe for v in NOT_FOUND], [False] * 3)
        self.assertIsNone(DILUTED.microbe)
        self.assertIsNone(result().microbe)

    def test_a_house_has_bacteria_when_either_was_found(self):
        for v in FOUND:
            self.assertEqual(_bacteria(water(e_coli=v, coliform=ABSENT)), "present")
        for v in NOT_FOUND:
            self.assertEqual(_bacteria(water(coliform=v)), "absent")

    def test_none_in_a_diluted_sample_is_not_absent(self):
        self.assertIsNone(_bacteria(water(coliform=DILUTED)))
        self.assertIsNone(_bacteria(water()))

    def test_bacteria_by_count_ask_for_the_transmittance_as_in_words(self):
        well = Home(name="x", source=Source.WELL_DRILLED)
        for v, asked in ((COUNTED, True), (PRESENT, True), (BELOW_ONE, False)):
            every = panel(well, frozenset({"bacteria"}), water(e_coli=v))
            self.assertEqual("uvt" in {s.kind for s in every}, asked)

    def test_behind_a_lamp_below_one_is_as_promised(self):
        self.assertEqual([verdict("e_coli", None, v) for v in NOT_FOUND], ["as promised"] * 3)
        self.assertEqual([verdict("e_coli", None, v) for v in FOUND], ["short"] * 3)
        self.assertEqual(verdict("e_coli", None, DILUTED), "laboratory only")

    def test_in_the_stream_alike(self):
        for v in (*FOUND, *NOT_FOUND, DILUTED):
            q = Quantity(range=v.range, state="measured", below=v.below, words=v.words)
            self.assertEqual(found_in(q), v in FOUND)
