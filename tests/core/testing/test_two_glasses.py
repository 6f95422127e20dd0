"""Two glasses held against each other, scale tendency, combined chlorine, breath, and the table of
the three cups.
"""

import math
import unittest
from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from tests.making import from_lab, sample, shown, tds, tds_meter
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.breath import breath_working, breathed_ph
from zesty_glass.core.testing.chlorine import combined
from zesty_glass.core.testing.colour import find
from zesty_glass.core.testing.observations import CupsSeen, MeterDisplays
from zesty_glass.core.testing.pairs import factor_of, pairs
from zesty_glass.core.testing.reading import Reading
from zesty_glass.core.testing.removal import removal, removal_sentence
from zesty_glass.core.testing.scale import short_index, tendency
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import water_of

positive = st.floats(0.05, 2000)


@st.composite
def ranges(draw, low=0.05, high=2000.0):
    a, b, c = sorted(draw(st.tuples(*(st.floats(low, high) for _ in range(3)))))
    return Range.of(a, b, c)


def value(r, **more):
    return Value(analyte="iron", unit="mg/L", range=r, **more)


class Removal(unittest.TestCase):
    @given(ranges(), ranges())
    def test_the_best_lies_between_the_worst_and_the_most(self, a, b):
        r = removal(value(a), value(b))
        if r.shown == "removed":
            self.assertTrue(r.worst - 1e-9 <= r.best <= r.most + 1e-9)
            self.assertGreater(r.worst, 0)

    @given(ranges())
    def test_a_glass_shows_no_difference_from_itself(self, a):
        self.assertEqual(removal(value(a), value(a)).shown, "no_difference")

    @given(ranges(), ranges())
    def test_turned_round_a_removal_is_a_rise(self, a, b):
        if removal(value(a), value(b)).shown == "removed":
            self.assertEqual(removal(value(b), value(a)).shown, "rose")

    def test_sentences(self):
        self.assertEqual(
            removal_sentence(removal(value(Range.of(390, 400, 410)), value(Range.of(19, 20, 21)))),
            "95 % less (95 to 95 %)",
        )
        self.assertEqual(
            removal_sentence(
                removal(value(Range.of(390, 400, 410)), value(Range.of(0, 1, 2), below=2.0))
            ),
            "at least 99 % less",
        )
        self.assertEqual(
            removal_sentence(removal(value(Range.exact(20.0)), value(Range.exact(40.0)))),
            "higher in the second",
        )
        self.assertEqual(
            removal_sentence(removal(value(Range.exact(0.0)), value(Range.exact(1.0)))),
            "not worked out: nothing to begin with",
        )


class Pairs(unittest.TestCase):
    def said(self, a, b):
        first, second = sample(*a), sample(*b, id="other", raw=False)
        return {
            p.analyte: p.sentence for p in pairs(first, water_of(first), second, water_of(second))
        }

    def test_one_test_in_one_glass_only(self):
        self.assertEqual(
            self.said((shown("iron", 1.0),), (shown("manganese", 0.1),)),
            {"iron": "tested in one only", "manganese": "tested in one only"},
        )

    def test_two_meters_with_different_factors_are_not_compared(self):
        other = Reading(
            id="r",
            analyte="tds",
            instrument=tds_meter(factor=0.7),
            observation=MeterDisplays(displays=(30, 31, 30)),
            made_at=tds(1).made_at,
        )
        self.assertIn("not compared", self.said((tds(400, 401, 402),), (other,))["tds"])

    def test_ph_is_never_a_share(self):
        self.assertEqual(
            self.said((shown("ph", 6.2, 0.1),), (shown("ph", 7.4, 0.1),))["ph"],
            "higher in the second",
        )
        self.assertEqual(
            self.said((shown("ph", 7.2, 0.1),), (shown("ph", 7.3, 0.1),))["ph"],
            "no difference shown",
        )

    def test_ph_that_fell_is_said_to_be_lower(self):
        self.assertEqual(
            self.said((shown("ph", 7.8, 0.1),), (shown("ph", 6.9, 0.1),))["ph"],
            "lower in the second",
        )

    def test_the_raw_glass_comes_first_whichever_was_picked_first(self):
        raw = sample(shown("iron", 2.0, 0.1))
        behind = sample(shown("iron", 0.1, 0.1), id="other", raw=False)
        (as_picked,) = pairs(behind, water_of(behind), raw, water_of(raw))
        (other_way,) = pairs(raw, water_of(raw), behind, water_of(behind))
        self.assertEqual(as_picked, other_way)
        self.assertEqual(as_picked.removal.shown, "removed")

    def test_two_raw_glasses_stay_as_they_were_picked(self):
        first = sample(shown("iron", 2.0, 0.1))
        second = sample(shown("iron", 0.3, 0.1), id="well")
        (pair,) = pairs(first, water_of(first), second, water_of(second))
        self.assertEqual(pair.removal.shown, "removed")
        (pair,) = pairs(second, water_of(second), first, water_of(first))
        self.assertEqual(pair.removal.shown, "rose")

    def test_words_are_the_same_or_not(self):
        yes, no = (
            from_lab("coliform", qualifier="present"),
            from_lab("coliform", qualifier="absent"),
        )
        self.assertEqual(self.said((yes,), (yes,))["coliform"], "the same")
        self.assertEqual(self.said((yes,), (no,))["coliform"], "not the same")
        count = from_lab("coliform", 4.0)
        self.assertEqual(
            self.said((yes,), (count,))["coliform"], "a number in one only: not compared"
        )

    def test_a_struck_reading_gives_no_factor(self):
        self.assertEqual(factor_of(sample(tds(100, 101))), 0.5)
        self.assertIsNone(factor_of(sample(shown("iron", 1.0))))


class Scale(unittest.TestCase):
    def plainly(self, ph, solids, celsius, ca, alk):
        """The same index from its other common form: pHs = pK2 − pKs + p(Ca) + p(Alk) in its usual
        fit.
        """
        a = 0.1 * (math.log10(solids) - 1)
        b = 34.55 - 13.12 * math.log10(273 + celsius)
        return ph - (9.3 + a + b - math.log10(ca) + 0.4 - math.log10(alk))

    @given(
        st.floats(5.5, 9),
        st.floats(20, 2000),
        st.floats(2, 70),
        st.floats(5, 800),
        st.floats(5, 600),
    )
    def test_against_an_independent_calculation(self, ph, solids, celsius, ca, alk):
        self.assertAlmostEqual(
            short_index(ph, solids, celsius, ca, alk), self.plainly(ph, solids, celsius, ca, alk), 9
        )

    @given(ranges(6, 9), ranges(50, 900), ranges(5, 25), ranges(20, 400), ranges(20, 400))
    def test_its_range_holds_its_best(self, ph, solids, celsius, ca, alk):
        t = tendency(ph, solids, celsius, ca, alk)
        for r in (t.at_tap, t.at_heater):
            self.assertTrue(r.low - 1e-9 <= r.best <= r.high + 1e-9)
        if ph.best <= 8:  # above it, warming a thin water costs more pH than it gains
            self.assertGreaterEqual(t.at_heater.best, t.at_tap.best)

    def test_total_hardness_in_place_of_calcium_is_said(self):
        exact = [Range.exact(x) for x in (7.5, 300.0, 12.0)]
        t = tendency(*exact, None, Range.exact(150.0), Range.exact(200.0))
        self.assertTrue(t.at_most)

    def test_unknown_open_or_zero_is_no_index(self):
        full = [Range.exact(x) for x in (7.5, 300.0, 12.0, 100.0, 150.0)]
        self.assertIsNotNone(tendency(*full))
        for n in range(5):
            self.assertIsNone(tendency(*(None if i == n else r for i, r in enumerate(full))))
        self.assertIsNone(tendency(full[0], Range.of(100, 300, None), *full[2:]))
        self.assertIsNone(tendency(*full[:3], Range.exact(0.0), full[4]))


class Chlorine(unittest.TestCase):
    def test_total_less_free(self):
        c = combined(Range.of(0.1, 0.2, 0.3), Range.of(1.4, 1.5, 1.6))
        self.assertAlmostEqual(c.range.best, 1.3)
        self.assertTrue(c.shown)

    def test_overlap_shows_none_and_free_above_total_is_an_error(self):
        self.assertFalse(combined(Range.of(0.9, 1.0, 1.1), Range.of(1.0, 1.1, 1.2)).shown)
        self.assertTrue(combined(Range.of(1.9, 2.0, 2.1), Range.of(0.4, 0.5, 0.6)).error)

    @given(ranges(0.01, 5), ranges(0.01, 5))
    def test_never_below_nothing(self, free, total):
        c = combined(free, total)
        if c.range is not None:
            self.assertGreaterEqual(c.range.low, 0)
            self.assertTrue(c.range.low <= c.range.best <= c.range.high)


class Breath(unittest.TestCase):
    def test_minerals_buffer_it(self):
        self.assertLess(breathed_ph(0), breathed_ph(20))
        self.assertLess(breathed_ph(20), breathed_ph(160))
        self.assertTrue(3.5 < breathed_ph(0) < 5.0)

    def test_the_slip_says_nothing_about_health(self):
        self.assertIn("Neither says anything about health", breath_working(160.0).note)
        self.assertEqual(len(breath_working(None).rows) + 1, len(breath_working(160.0).rows))


class Cups(unittest.TestCase):
    DRAWN = ("clear", "faint", "coloured", "milky_clears_bottom_up", "clears_top_down")
    STOOD = (None, "clear", "coloured", "darkens", "brown_black", "same", "settles")
    POWDER = (None, "wholly", "partly", "no_change")

    def test_every_combination_has_a_finding_and_a_next_step_when_it_is_open(self):
        for drawn, stood, powder in product(self.DRAWN, self.STOOD, self.POWDER):
            found = find(CupsSeen(drawn=drawn, stood=stood, reducer=powder, stood_minutes=30))
            self.assertTrue(found.sentence)
            if found.id in ("open", "unknown", "stand", "not_yet", "tannin"):
                self.assertTrue(found.next, (drawn, stood, powder))

    def test_the_table(self):
        for seen, id in (
            ({"drawn": "clear", "stood": "coloured"}, "ferrous"),
            ({"drawn": "coloured", "reducer": "wholly"}, "ferric"),
            ({"drawn": "coloured", "reducer": "no_change"}, "tannin"),
            ({"drawn": "coloured", "reducer": "partly"}, "iron_tannin"),
            ({"drawn": "coloured"}, "open"),
            ({"drawn": "clears_top_down"}, "sediment"),
            ({"drawn": "clear", "stood": "brown_black"}, "manganese"),
            ({"drawn": "coloured", "stood": "darkens", "reducer": "partly"}, "both_tannin"),
            ({"drawn": "clear", "stood": "clear", "stood_minutes": 5}, "stand"),
        ):
            self.assertEqual(find(CupsSeen(**seen)).id, id, seen)

    def test_stays_clear_is_final_only_where_iron_rusts_quickly(self):
        clear = CupsSeen(drawn="clear", stood="clear", stood_minutes=25)
        self.assertEqual(
            (find(clear, 7.8).id, find(clear, 6.5).id, find(clear).id),
            ("clear", "not_yet", "not_yet"),
        )

    def test_gas_on_a_well_warns_of_flames(self):
        self.assertIn("No flame", find(CupsSeen(drawn="milky_clears_bottom_up"), well=True).next)
