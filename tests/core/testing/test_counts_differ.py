"""Two tests of one glass that do not agree are told, whoever made them."""

import unittest
from dataclasses import replace

from tests.making import NOON, drop_kit, home, lab, number_kit, reading, sample
from zesty_glass.core.testing.crosschecks import counts_differ, crosschecks
from zesty_glass.core.testing.observations import DropCount, LaboratoryResult, OneDisplay


def drops(many, id):
    """A count [gpg]: a drop is a grain, so that the range is a drop to either side."""
    return reading("hardness", drop_kit(), DropCount(drops=many), id)


class CountsDiffer(unittest.TestCase):
    def differ(self, *readings):
        return counts_differ(replace(sample(), readings=readings))

    def test_ranges_that_touch_agree(self):
        self.assertEqual(self.differ(drops(9, "a"), drops(10, "b")), ())

    def test_ranges_that_do_not_touch_are_named(self):
        self.assertEqual(self.differ(drops(9, "a"), drops(14, "b")), ("hardness",))
        glass = replace(sample(), readings=(drops(9, "a"), drops(14, "b")))
        [told] = [c for c in crosschecks((glass,), home()) if c.id == "counts_differ"]
        self.assertEqual(told.sentence, "Two tests of this glass do not agree. (Hardness)")

    def test_a_struck_one_is_held_against_nothing(self):
        struck = replace(drops(14, "b"), struck_at=NOON, struck_because="a bubble")
        self.assertEqual(self.differ(drops(9, "a"), struck), ())

    def test_what_fades_or_changes_by_itself_is_left_out(self):
        for name in ("chlorine_free", "temperature", "flow"):
            kit = number_kit(name)
            two = (
                reading(name, kit, OneDisplay(value=v), id) for v, id in ((1.0, "a"), (9.0, "b"))
            )
            self.assertEqual(self.differ(*two), (), name)

    def test_a_laboratory_is_no_repeat(self):
        result = LaboratoryResult(value=400.0, unit="mg/L", basis="CaCO3")
        self.assertEqual(
            self.differ(drops(9, "a"), reading("hardness", lab("hardness"), result)), ()
        )
