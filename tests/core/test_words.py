"""Values as people read them, and the way value objects are made."""

import copy
import re
import unittest
from dataclasses import FrozenInstanceError, field
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core import words
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.ranges import Range
from zesty_glass.core.record import record
from zesty_glass.core.units import L_PER_GAL, MG_L_PER_GPG


class Numbers(unittest.TestCase):
    def test_separators_and_no_trailing_zeros(self):
        for value, decimals, text in (
            (1234.5, 0, "1,234"),
            (0.10, 2, "0.1"),
            (2.0, 1, "2"),
            (-0.001, 1, "-0.001"),
            (0.000008, 2, "0.000008"),
            (0.0, 2, "0"),
            (0.05, 1, "0.05"),
            (12000, 0, "12,000"),
            (0.05, 2, "0.05"),
        ):
            self.assertEqual(words.number(value, decimals), text)

    @given(st.floats(-1e6, 1e6), st.integers(0, 4))
    def test_what_is_shown_is_the_value_rounded(self, value, decimals):
        shown = float(words.number(value, decimals).replace(",", ""))
        if abs(value) >= 1:
            self.assertAlmostEqual(shown, round(value, decimals), 6)
        else:
            self.assertLessEqual(abs(shown - value), 0.051 * abs(value) + 1e-12)

    @given(
        st.sampled_from(sorted(ANALYTES)), st.floats(1e-9, 1e5), st.sampled_from(["us", "metric"])
    )
    def test_nothing_is_shown_as_0_that_is_not_0(self, analyte, value, units):
        for text in (
            words.value(analyte, Range.exact(value), None, units),
            words.value(analyte, Range.of(0.0, value / 2, value), value, units),
            words.span(analyte, Range.of(value, value, value * 2), units),
            words.span(analyte, Range.of(value, value, None), units),
        ):
            for number in re.findall(r"\d[\d,.]*", re.sub(r"CaCO3|100 mL", "", text)):
                self.assertGreater(float(number.replace(",", "")), 0, text)


class DigitsThatAreKnown(unittest.TestCase):
    def test_predicted_amounts(self):
        for value, said in (
            (0, "0"),
            (105, "105"),
            (1095, "1,100"),
            (5669, "5,700"),
            (37_807, "38,000"),
            (0.4, "0.4"),
        ):
            self.assertEqual(words.about(value), said)

    def test_sums_over_years(self):
        amount = Decimal("7505.05")
        self.assertEqual(words.sum_over(amount, 5), 7505)
        self.assertEqual(words.sum_over(amount, 10), 7510)
        self.assertEqual(words.sum_over(Decimal("0.40"), 20), Decimal("0.40"))


class NamesWithinASentence(unittest.TestCase):
    def test_first_letter_small_and_no_comma_of_its_own(self):
        said = {a: ANALYTES[a].said for a in ("hardness", "iron", "copper_flushed", "nitrate_n")}
        self.assertEqual(
            list(said.values()), ["hardness", "total iron", "flushed copper", "nitrate as N"]
        )

    def test_abbreviations_stay(self):
        said = [ANALYTES[a].said for a in ("ph", "pfoa", "e_coli", "uvt")]
        self.assertEqual(said, ["pH", "PFOA", "E. coli", "UV transmittance"])


class Values(unittest.TestCase):
    def test_hardness_in_both_units(self):
        r = Range.exact(20 * MG_L_PER_GPG)
        self.assertEqual(words.value("hardness", r), "20 gpg")
        self.assertEqual(words.value("hardness", r, units="metric"), "342 mg/L")

    def test_ph_has_its_name_before_it(self):
        self.assertEqual(words.value("ph", Range.exact(6.4)), "pH 6.4")
        self.assertEqual(words.span("ph", Range.of(6.2, 6.4, 6.6)), "pH 6.2 to 6.6")

    def test_open_below_and_unknown(self):
        self.assertEqual(
            words.value("iron", Range.of(0, 0.02, 0.05), below=0.05), "under 0.05 mg/L"
        )
        self.assertTrue(words.value("iron", Range.of(10, 10, None)).startswith("at least 10"))
        self.assertTrue(words.span("iron", Range.of(10, 10, None)).endswith("or more"))
        self.assertEqual(words.value("iron", None), "not tested")
        self.assertEqual(words.value("coliform", None, words="absent"), "absent")
        self.assertEqual(words.span("iron", None), "")

    def test_an_exact_range_is_one_number(self):
        self.assertEqual(words.span("iron", Range.exact(3.0)), "3 mg/L")

    @given(st.sampled_from(sorted(ANALYTES)), st.floats(0, 900), st.sampled_from(["us", "metric"]))
    def test_every_analyte_can_be_shown(self, analyte, value, units):
        text = words.value(analyte, Range.exact(value), units=units)
        self.assertTrue(text)
        self.assertNotIn("nan", text)

    def test_volumes(self):
        self.assertEqual(words.gallons(100), "100 gal")
        self.assertEqual(words.gallons(100, "metric"), f"{100 * L_PER_GAL:.0f} L")


@record
class Spoon:
    """For the tests below."""

    name: str
    size: float = 1.0
    holes: list[int] = field(default_factory=list)


class Records(unittest.TestCase):
    def test_frozen_and_slotted(self):
        s = Spoon(name="tea")
        with self.assertRaises(FrozenInstanceError):
            s.size = 2.0
        self.assertFalse(hasattr(s, "__dict__"))

    def test_keywords_only_and_all_of_them(self):
        for make in (
            lambda: Spoon("tea"),
            lambda: Spoon(),
            lambda: Spoon(name="tea", colour="red"),
        ):
            with self.assertRaises(TypeError):
                make()

    def test_defaults_are_made_anew(self):
        self.assertIsNot(Spoon(name="a").holes, Spoon(name="b").holes)

    def test_equal_by_value_and_copied(self):
        self.assertEqual(Spoon(name="tea", holes=[1]), copy.deepcopy(Spoon(name="tea", holes=[1])))
        self.assertNotEqual(Spoon(name="tea"), Spoon(name="soup"))
