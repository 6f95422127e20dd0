"""What a water sets in a house, worked by hand from the definitions of the degrees of hardness."""

import unittest

from tests.making import water
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.scale import ScaleTendency
from zesty_glass.core.testing.setting import descaled, sets, valve_gpg

GPG = 17.11806


def of(iron_factor: float = 4.0, **values) -> dict[str, str]:
    return dict(sets(water(**values), None, iron_factor))


def index(low: float, best: float, high: float | None, at_most: bool = False) -> ScaleTendency:
    r = Range.of(low, best, high)
    return ScaleTendency(at_tap=r, at_heater=r, tap_c=12.0, heater_c=60.0, at_most=at_most)


class Hardness(unittest.TestCase):
    def test_every_unit(self):
        # 200 mg/L: 200 / 17.118 = 11.7 gpg, / 17.848 = 11.2 °dH, / 10 = 20 °fH
        said = of(hardness=200.0)["Hardness in every unit"]
        for part in ("200 mg/L", "11.7 gpg", "11.2 °dH", "20 °fH"):
            self.assertIn(part, said)

    def test_a_dishwasher_is_set_in_degrees(self):
        # 250 / 17.848 = 14.0 °dH, 250 / 17.118 = 14.6 gpg
        self.assertIn("14 °dH (15 gpg)", of(hardness=250.0)["Dishwasher setting"])

    def test_how_often_a_heater_is_descaled(self):
        for hardness, said in (
            (0.0, "by its manual only"),
            (59.9, "by its manual only"),
            (60.0, "every three to four years"),
            (119.9, "every three to four years"),
            (120.0, "every two years"),
            (179.9, "every two years"),
            (180.0, "yearly"),
            (900.0, "yearly"),
        ):
            self.assertEqual(descaled(hardness), said, hardness)

    def test_nothing_is_set_by_a_hardness_without_an_upper_end(self):
        self.assertEqual(sets(water(hardness=Range.of(425, 425, None)), None, 4.0), ())
        self.assertEqual(sets(water(ph=7.0), None, 4.0), ())


class Valve(unittest.TestCase):
    def test_iron_by_the_firms_factor_and_manganese_by_two(self):
        # 10 gpg + 4 x 1.5 + 2 x 0.5 = 17; with a factor of 3: 15.5
        self.assertAlmostEqual(valve_gpg(10 * GPG, 1.5, 0.5, 4.0), 17.0, 3)
        self.assertAlmostEqual(valve_gpg(10 * GPG, 1.5, 0.5, 3.0), 15.5, 3)

    def test_what_was_not_tested_is_not_counted_and_said(self):
        self.assertAlmostEqual(valve_gpg(10 * GPG, None, None, 4.0), 10.0, 3)
        key = "A softener valve’s hardness setting"
        self.assertEqual(of(hardness=10 * GPG)[key], "10 gpg, iron not counted: not tested")
        self.assertEqual(of(hardness=10 * GPG, iron=1.0)[key], "14 gpg")
        self.assertEqual(of(hardness=10 * GPG, iron=1.0, manganese=0.5)[key], "15 gpg")
        self.assertEqual(of(3.0, hardness=10 * GPG, iron=1.0)[key], "13 gpg")


class Scale(unittest.TestCase):
    def said(self, scale: ScaleTendency) -> dict[str, str]:
        return dict(sets(water(ph=7.0), scale, 4.0))

    def test_surely_perhaps_or_not(self):
        for low, best, high, tends in (
            (0.1, 0.4, 0.7, "tends to scale"),
            (0.0, 0.4, 0.7, "may scale"),
            (-0.6, -0.2, 0.2, "may scale"),
            (-0.9, -0.5, 0.0, "does not tend to scale"),
            (-0.9, -0.5, -0.1, "does not tend to scale"),
        ):
            said = self.said(index(low, best, high))["Scale index at 60 °C"]
            self.assertTrue(said.endswith(tends), (low, said))

    def test_both_temperatures_with_their_sign(self):
        said = self.said(index(0.1, 0.4, 0.7))
        self.assertEqual(said["Scale index at 12 °C"], "+0.40")
        self.assertEqual(said["Scale index at 60 °C"], "+0.40: tends to scale")

    def test_an_upper_bound_says_so(self):
        said = self.said(index(0.1, 0.4, 0.7, at_most=True))
        self.assertEqual(said["Scale index at 12 °C"], "+0.40 at most")
        self.assertIn("at most: tends", said["Scale index at 60 °C"])


if __name__ == "__main__":
    unittest.main()
