"""Units worked by hand from their definitions."""

import unittest

from zesty_glass.core import units
from zesty_glass.core.errors import RuleError
from zesty_glass.core.units import celsius, convert, hardness_in_every_unit

HARD = "mg/L as CaCO3"


class Constants(unittest.TestCase):
    def test_by_definition(self):
        # a grain is 64.79891 mg, a US gallon 231 cubic inches of 2.54 cm, a foot 12 inches
        gallon = 231 * 2.54**3 / 1000
        self.assertAlmostEqual(units.L_PER_GAL, gallon, 9)
        self.assertAlmostEqual(units.MG_L_PER_GPG, 64.79891 / gallon, 6)
        self.assertAlmostEqual(units.GAL_PER_FT3, 12**3 / 231, 5)
        self.assertAlmostEqual(units.KG_PER_LB, 7000 * 64.79891e-6, 9)
        self.assertAlmostEqual(units.MG_PER_LB, 7000 * 64.79891, 3)
        # a psi: a pound of force on a square inch
        force = units.KG_PER_LB * 9.80665
        self.assertAlmostEqual(units.KPA_PER_PSI, force / 0.0254**2 / 1000, 5)
        self.assertEqual(units.CM_PER_IN, 2.54)
        # a picocurie is 0.037 decays a second
        self.assertEqual(units.BQ_L_PER_PCI_L, 0.037)
        self.assertEqual(units.DAYS_PER_MONTH * 12, units.DAYS_PER_YEAR)
        self.assertEqual(units.DAYS_PER_YEAR, 365.25)
        self.assertEqual(units.HOURS_PER_YEAR, 365.25 * 24)

    def test_degrees_of_hardness(self):
        # a German degree is 10 mg of CaO a litre, a Clark degree a grain in an imperial gallon
        self.assertAlmostEqual(units.MG_L_PER_DH, 10 * 100.0869 / 56.0774, 3)
        self.assertAlmostEqual(units.MG_L_PER_CLARK, 64.79891 / 4.54609, 3)
        self.assertEqual(units.MG_L_PER_FH, 10)


class Converting(unittest.TestCase):
    def test_each_unit(self):
        for value, unit, canonical, got in (
            (3.0, "mg/L", "mg/L", 3.0),
            (3.0, "ppm", "mg/L", 3.0),
            (3.0, "µg/L", "mg/L", 0.003),
            (3.0, "ug/L", "mg/L", 0.003),
            (3.0, "ppb", "mg/L", 0.003),
            (3.0, "ng/L", "mg/L", 3e-6),
            (3.0, "ppt", "mg/L", 3e-6),
            (3.0, "g/L", "mg/L", 3000.0),
            (2.0, "mg/L", HARD, 2.0),
            (2.0, HARD, HARD, 2.0),
            (2.0, "mmol/L", HARD, 200.1738),
            (2.0, "gpg", HARD, 34.236122),
            (2.0, "°dH", HARD, 35.696),
            (2.0, "°fH", HARD, 20.0),
            (2.0, "ppm", HARD, 2.0),
            (2.0, "µg/L", HARD, 0.002),
            (2.0, "ug/L", HARD, 0.002),
            (2.0, "ppb", HARD, 0.002),
            (37.0, "Bq/L", "pCi/L", 1000.0),
            (5.0, "pCi/L", "pCi/L", 5.0),
            (3.785411784, "L/min", "gpm", 1.0),
            (4.0, "gpm", "gpm", 4.0),
            (7.570823568, "L", "gal", 2.0),
            (4.0, "gal", "gal", 4.0),
            (689.4757, "kPa", "psi", 100.0),
            (1.0, "bar", "psi", 14.50377439),
            (4.0, "psi", "psi", 4.0),
            (2.0, "mS/cm", "µS/cm", 2000.0),
            (2.0, "uS/cm", "µS/cm", 2.0),
            (2.0, "µS/cm", "µS/cm", 2.0),
            (2.0, "FNU", "NTU", 2.0),
            (2.0, "NTU", "NTU", 2.0),
            (2.0, "%", "%", 2.0),
            (7.2, "", "pH", 7.2),
            (7.2, "pH", "pH", 7.2),
            (2.0, "MPN/100 mL", "per 100 mL", 2.0),
            (2.0, "CFU/100 mL", "per 100 mL", 2.0),
            (2.0, "per 100 mL", "per 100 mL", 2.0),
            (2.0, "", "", 2.0),
            (2.0, "count", "count", 2.0),
        ):
            with self.subTest(unit=unit, canonical=canonical):
                self.assertAlmostEqual(convert(value, unit, canonical), got, 6)

    def test_small_units_keep_their_digits(self):
        self.assertAlmostEqual(convert(4.0, "ng/L", "mg/L") * 1e6, 4.0, 9)

    def test_temperature(self):
        self.assertAlmostEqual(celsius(54.0, "°F"), 12.2222, 4)
        self.assertAlmostEqual(convert(212.0, "F", "°C"), 100.0)
        self.assertEqual(celsius(12.0, "C"), 12.0)
        self.assertEqual(convert(12.0, "°C", "°C"), 12.0)
        with self.assertRaises(RuleError) as e:
            celsius(12.0, "K")
        self.assertEqual(e.exception.remedy, "Use °C or °F.")

    def test_what_does_not_fit_names_what_does(self):
        with self.assertRaises(RuleError) as e:
            convert(1.0, "gal", "psi")
        self.assertEqual(e.exception.code, "unit.unknown")
        self.assertEqual(e.exception.remedy, "Use one of: psi, kPa, bar.")
        with self.assertRaises(RuleError) as e:
            convert(1.0, "gal", "")
        self.assertEqual(e.exception.remedy, "Use one of: no unit.")

    def test_hardness_in_every_unit(self):
        got = hardness_in_every_unit(171.18061)
        for unit, value in (
            ("mg/L", 171.18061),
            ("gpg", 10.0),
            ("°dH", 9.5910),
            ("°fH", 17.118061),
            ("°e", 12.0093),
        ):
            self.assertAlmostEqual(got[unit], value, 3)


if __name__ == "__main__":
    unittest.main()
