"""What the three white cups say is in the water, by the table of the procedure: dissolved iron,
particles of iron, tannin; None where the cups cannot tell.
"""

import unittest

from zesty_glass.core.testing.colour import find
from zesty_glass.core.testing.observations import CupsSeen


def said(drawn, stood=None, minutes=30.0, reducer=None, ph_low=None):
    """Finding, then ferrous, particulate iron and tannin."""
    seen = CupsSeen(drawn=drawn, stood=stood, stood_minutes=minutes, reducer=reducer)
    f = find(seen, ph_low=ph_low)
    return f.id, f.ferrous, f.particulate_iron, f.tannin


class Cups(unittest.TestCase):
    def test_clear_and_stays_clear_has_none_of_them(self):
        self.assertEqual(said("clear", "clear", ph_low=7.5), ("clear", False, False, False))

    def test_clear_below_ph_seven_and_a_half_is_not_shown_yet(self):
        for ph in (None, 7.49):
            self.assertEqual(said("clear", "clear", ph_low=ph), ("not_yet", None, None, None))

    def test_twenty_minutes_are_enough_and_less_is_not(self):
        self.assertEqual(said("clear", "clear", minutes=20.0, ph_low=8.0)[0], "clear")
        for minutes in (19.9, 0.0, None):
            self.assertEqual(said("clear", "clear", minutes=minutes, ph_low=8.0)[0], "stand")

    def test_a_day_settles_it_at_any_ph(self):
        self.assertEqual(said("clear", "clear", minutes=1440.0, ph_low=6.2)[0], "clear")
        self.assertEqual(said("clear", "clear", minutes=1439.0, ph_low=6.2)[0], "not_yet")

    def test_a_faint_colour_gives_a_hint_and_asks_for_a_kit(self):
        for powder, id in (
            ("wholly", "faint_ferric"),
            ("partly", "faint_iron_tannin"),
            ("no_change", "faint_tannin"),
        ):
            seen = CupsSeen(drawn="faint", stood="same", stood_minutes=30.0, reducer=powder)
            f = find(seen)
            self.assertEqual(f.id, id)
            self.assertTrue(f.sentence.startswith("Perhaps: "))
            self.assertIn("confirm", f.next)
            self.assertIsNone(f.particulate_iron)
        self.assertEqual(said("faint", "darkens", reducer="wholly")[0], "unknown")
        self.assertEqual(said("faint", "same")[0], "unknown")

    def test_clear_then_coloured_is_dissolved_iron_whatever_the_tannin(self):
        for stood in ("coloured", "darkens"):
            self.assertEqual(said("clear", stood), ("ferrous", True, False, None))

    def test_brown_black_is_manganese_and_says_nothing_of_iron(self):
        for drawn in ("clear", "faint"):
            self.assertEqual(said(drawn, "brown_black"), ("manganese", None, None, None))

    def test_the_powder_tells_iron_from_tannin(self):
        for powder, expected in (
            ("wholly", ("ferric", False, True, False)),
            ("partly", ("iron_tannin", None, True, True)),
            ("no_change", ("tannin", None, False, True)),
            (None, ("open", None, None, None)),
        ):
            with self.subTest(powder=powder):
                self.assertEqual(said("coloured", "same", reducer=powder), expected)

    def test_darker_after_standing_and_partly_cleared_has_all_three(self):
        self.assertEqual(
            said("coloured", "darkens", reducer="partly"), ("both_tannin", True, True, True)
        )
        self.assertEqual(said("coloured", "darkens", reducer="wholly")[0], "unknown")

    def test_what_settles_and_what_rises(self):
        self.assertEqual(said("clears_top_down", "settles")[0], "sediment")
        self.assertEqual(said("clears_top_down", "clear")[0], "unknown")
        self.assertEqual(said("milky_clears_bottom_up", "clear")[0], "gas")
        self.assertEqual(said("milky_clears_bottom_up", "coloured")[0], "unknown")


if __name__ == "__main__":
    unittest.main()
