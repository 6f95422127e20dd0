"""What a glass behind something says, worked by hand from both ranges and the claim."""

import unittest
from dataclasses import replace
from datetime import date

from tests.making import from_lab, hardness, home, sample, settings, shown, softener
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import Evidence, Level
from zesty_glass.core.in_place import Claimed, InPlace
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.water import water_of
from zesty_glass.core.treating.glasses import Promise, glasses, verdict_of
from zesty_glass.core.treating.items import Effect

ON = date(2026, 11, 20)
JUG = InPlace(
    id="jug",
    kind="jug",
    fitted_on=date(2026, 11, 1),
    months=2,
    gallons=40,
    change_at_tds=30,
    claims=(Claimed(analyte="chlorine_total", share=0.6),),
)


class Measured:
    """A value of a range alone."""

    def __init__(self, low, best, high):
        self.range = Range.of(low, best, high)


def said(*drawn, house=None, items=(), on=ON, firm=None):
    waters = {s.id: water_of(s) for s in drawn}
    return glasses(
        drawn,
        waters,
        waters[drawn[0].id],
        house or home(in_place=(JUG,)),
        firm or settings(),
        {i.code: i for i in items},
        on,
        Rules(),
    )


def raw(*readings):
    return sample(*readings)


def behind(*readings, **more):
    base = {"id": "out", "name": "Out", "raw": False, "treated": True, "device": "jug"}
    return replace(sample(*readings), **{**base, **more})


class AgainstTheClaim(unittest.TestCase):
    def test_the_ends_of_both_ranges_decide(self):
        feed = Measured(0.9, 1.0, 1.1)
        for product, share, wanted in (
            ((0.05, 0.1, 0.15), 0.8, "as_claimed"),  # least 1 - 0.15 / 0.9 = 0.833
            ((0.05, 0.1, 0.15), 0.84, "not_told"),  # most 1 - 0.05 / 1.1 = 0.955
            ((0.05, 0.1, 0.15), 0.96, "below"),
            ((0.4, 0.5, 0.6), 0.7, "below"),  # most 0.636
        ):
            with self.subTest(product=product, share=share):
                claim = Promise(said="", share=share)
                self.assertEqual(verdict_of(claim, feed, Measured(*product), False), wanted)

    def test_what_is_left_decides_where_that_is_claimed(self):
        one_gpg = Promise(said="", left=17.118)
        feed = Measured(180, 190, 200)
        for product, wanted in (
            ((0, 8, 17), "as_claimed"),
            ((10, 17, 25), "not_told"),
            ((60, 85, 90), "below"),
        ):
            self.assertEqual(verdict_of(one_gpg, feed, Measured(*product), False), wanted)

    def test_an_old_one_is_said_to_be_old(self):
        feed, product = Measured(0.9, 1.0, 1.1), Measured(0.4, 0.5, 0.6)
        self.assertEqual(verdict_of(Promise(said="", share=0.9), feed, product, True), "too_old")
        self.assertEqual(verdict_of(None, feed, product, True), "past_life")
        self.assertEqual(verdict_of(None, feed, product, False), "no_claim")

    def test_nothing_in_the_feed_says_nothing(self):
        feed, product = Measured(0, 0.02, 0.05), Measured(0, 0.02, 0.05)
        self.assertEqual(verdict_of(Promise(said="", share=0.9), feed, product, False), "")


class EachGlass(unittest.TestCase):
    def test_in_out_and_what_is_claimed(self):
        feed = raw(shown("chlorine_total", 2.0, 0.05), shown("tds", 400, 8))
        (g,) = said(feed, behind(shown("chlorine_total", 0.2, 0.05), shown("tds", 118, 8)))
        chlorine, tds = g.rows
        self.assertEqual(
            (chlorine.into, chlorine.out, chlorine.claim, chlorine.words),
            ("2 mg/L", "0.2 mg/L", "60 % less, its label", "as claimed"),
        )
        # used up: 40 gal against the 53 that four drink in 19 days
        self.assertEqual((tds.claim, tds.verdict), ("", "past_life"))
        self.assertIn("To be changed at 30 mg/L TDS: reached (110 to 126 mg/L).", g.facts)
        self.assertIn("Its 40 gal are used up.", g.facts)

    def test_what_nobody_knows_the_age_of_is_not_called_old(self):
        unknown = home(in_place=(replace(JUG, fitted_on=None, claims=()),))
        (g,) = said(raw(shown("tds", 400, 8)), behind(shown("tds", 390, 8)), house=unknown)
        self.assertEqual(g.rows[0].verdict, "no_claim")
        self.assertIn(
            "When its cartridge was last changed is not known: it counts as due.", g.facts
        )

    def test_what_was_not_flushed_is_not_judged(self):
        feed = raw(shown("chlorine_total", 2.0, 0.05))
        (g,) = said(feed, behind(shown("chlorine_total", 0.2, 0.05), just_changed=True))
        self.assertEqual(g.rows[0].verdict, "not_flushed")
        self.assertIn("less than 2 gal ran through it: nothing of it counts yet", g.facts[0])

    def test_a_softener_leaves_less_than_a_grain_whoever_sold_it(self):
        there = home(in_place=(InPlace(id="s", kind="softener", name="Old softener"),))
        (g,) = said(raw(hardness(11)), behind(hardness(5), device="s"), house=there)
        self.assertEqual(
            (g.what, g.rows[0].claim, g.rows[0].verdict),
            ("behind Old softener", "at most 1 gpg left", "below"),
        )
        metric = settings(units="metric")
        (g,) = said(raw(hardness(11)), behind(hardness(5), device="s"), house=there, firm=metric)
        self.assertEqual(g.rows[0].claim, "at most 17 mg/L left")

    def test_one_of_ours_is_held_against_its_evidence(self):
        effect = Effect(
            analyte="iron",
            low=0.8,
            best=0.9,
            high=0.95,
            evidence=Evidence(level=Level.TESTED),
        )
        item = replace(softener(1.0), effects=(effect,))
        feed, out = raw(shown("iron", 2.0, 0.05)), shown("iron", 1.0, 0.05)
        (g,) = said(feed, behind(out, device="", after_item=item.code), items=(item,))
        self.assertEqual((g.rows[0].claim, g.rows[0].verdict), ("80 % less, tested", "below"))
        self.assertEqual(g.what, f"behind {item.name}")

    def test_a_bottle_over_a_limit_is_said(self):
        bottle = behind(
            from_lab("nitrate_n", 14.0, basis="N"),
            treated=False,
            device="",
            kind="bottled",
            name="Rillmere",
        )
        (g,) = said(raw(hardness(11)), bottle)
        self.assertEqual((g.what, len(g.over)), ("bottled", 1))
        self.assertIn("Nitrate as N 14 mg/L", g.over[0])
        self.assertEqual(g.rows[0].change, "tested in one only")

    def test_our_own_water_names_all_that_its_card_lacks(self):
        own = behind(shown("tds", 20, 1), treated=False, device="", kind="own")
        (g,) = said(raw(shown("tds", 400, 8)), own)
        self.assertTrue(g.facts[0].startswith("Its card lacks: filled within 7 days, checked"))

    def test_a_device_that_nothing_runs_through_lasts_no_days(self):
        unused = home(in_place=(replace(JUG, gal_day=0.0),))
        feed, out = raw(shown("tds", 400, 8)), shown("tds", 118, 8)
        (g,) = said(feed, behind(out), house=unused)
        self.assertFalse([t for t in g.facts if "at this use" in t])
        (used,) = said(feed, behind(out), house=home(in_place=(replace(JUG, gal_day=2.0),)))
        self.assertIn("Its 40 gal last 20 days at this use.", used.facts)

    def test_a_glass_is_behind_something_only_where_it_is_treated(self):
        loose = behind(shown("tds", 118, 8), device="", treated=False, after="a tap", place="bath")
        (g,) = said(raw(shown("tds", 400, 8)), loose)
        self.assertEqual((g.what, g.rows[0].verdict), ("bath", ""))
        (named,) = said(raw(shown("tds", 400, 8)), replace(loose, treated=True, after="a still"))
        self.assertEqual(named.what, "behind a still")

    def test_the_raw_glass_and_an_empty_one_say_nothing(self):
        self.assertEqual(said(raw(hardness(11)), behind()), ())


class Claims(unittest.TestCase):
    def test_an_impossible_claim_is_refused(self):
        for share in (0.0, 1.01, -0.2):
            with self.subTest(share), self.assertRaises(RuleError):
                Claimed(analyte="lead", share=share)
        with self.assertRaises(RuleError):
            Claimed(analyte="gold", share=0.5)

    def test_one_analyte_has_one_claim(self):
        with self.assertRaisesRegex(RuleError, "two claims"):
            replace(
                JUG,
                claims=(Claimed(analyte="lead", share=0.9), Claimed(analyte="lead", share=0.99)),
            )


if __name__ == "__main__":
    unittest.main()
