"""Meaning: scale index, removal, bands, findings, cross-checks and the three cups."""

import itertools
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.making import from_lab, hardness, home, reading, sample, shown, tds, tds_meter, water
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import BAND_SETS, Rules
from zesty_glass.core.testing.breath import breathed_ph
from zesty_glass.core.testing.chlorine import combined
from zesty_glass.core.testing.colour import find
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.crosschecks import CHECKS, crosschecks
from zesty_glass.core.testing.finding import Weight
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.observations import CupsSeen, MeterDisplays
from zesty_glass.core.testing.pairs import pairs
from zesty_glass.core.testing.reading import work_out
from zesty_glass.core.testing.removal import removal
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import design_water, water_of


class Removal(unittest.TestCase):
    def test_worked_figures(self):
        r = removal(work_out(tds(412, 415, 409)), work_out(tds(30, 31, 31)))
        self.assertEqual(
            (f"{100 * r.best:.1f}", f"{100 * r.worst:.1f}", f"{100 * r.most:.1f}"),
            ("92.5", "92.0", "93.2"),
        )
        r = removal(
            work_out(tds(412, 415, 409, of="full_scale")),
            work_out(tds(30, 31, 31, of="full_scale")),
        )
        self.assertEqual((f"{100 * r.worst:.1f}", f"{100 * r.most:.1f}"), ("86.7", "97.8"))

    def test_edges(self):
        feed = work_out(tds(412, 415))
        self.assertEqual(removal(feed, work_out(tds(410, 411))).shown, "no_difference")
        self.assertEqual(removal(feed, work_out(tds(600, 601))).shown, "rose")
        least = removal(feed, work_out(tds(0, 0)))
        self.assertEqual((least.shown, least.best), ("at_least", None))
        self.assertAlmostEqual(least.worst, 1 - 1 / feed.range.low)
        self.assertEqual(removal(work_out(tds(0, 0)), feed).shown, "not_computed")

    @given(st.floats(1, 1e4), st.floats(0.01, 0.4), st.floats(0, 1), st.floats(0.01, 0.4))
    def test_worst_best_most_in_order(self, a, wide, share, wide2):
        def v(x, w):
            return Value(analyte="tds", unit="mg/L", range=Range.of(x * (1 - w), x, x * (1 + w)))

        r = removal(v(a, wide), v(a * share, wide2))
        if r.shown == "removed":
            self.assertTrue(r.worst <= r.best <= r.most <= 1)


class Chlorine(unittest.TestCase):
    def test_combined(self):
        c = combined(Range.of(0.25, 0.3, 0.35), Range.of(1.5, 1.6, 1.7))
        self.assertTrue(c.shown)
        self.assertAlmostEqual(c.range.low, 1.15)
        self.assertAlmostEqual(c.range.high, 1.45)
        self.assertFalse(combined(Range.of(0.4, 0.5, 0.6), Range.of(0.6, 0.7, 0.8)).shown)
        self.assertTrue(combined(Range.of(2, 2.1, 2.2), Range.of(1, 1.1, 1.2)).error)


class Cups(unittest.TestCase):
    def test_table(self):
        rows = [
            (("clear", "clear", None), "clear"),
            (("clear", "coloured", None), "ferrous"),
            (("coloured", "darkens", "partly"), "both_tannin"),
            (("clear", "brown_black", None), "manganese"),
            (("faint", "brown_black", None), "manganese"),
            (("coloured", None, "wholly"), "ferric"),
            (("coloured", None, "partly"), "iron_tannin"),
            (("coloured", None, "no_change"), "tannin"),
            (("clears_top_down", "settles", None), "sediment"),
            (("milky_clears_bottom_up", "clear", None), "gas"),
            (("faint", "clear", None), "unknown"),
            (("coloured", "darkens", "wholly"), "unknown"),
        ]
        for (drawn, stood, powder), wanted in rows:
            with self.subTest(wanted):
                self.assertEqual(
                    find(
                        CupsSeen(drawn=drawn, stood=stood, stood_minutes=25, reducer=powder),
                        ph_low=7.6,
                    ).id,
                    wanted,
                )

    def test_clear_is_not_final_below_ph_7_5(self):
        self.assertEqual(
            find(CupsSeen(drawn="clear", stood="clear", stood_minutes=30), ph_low=6.5).id, "not_yet"
        )
        self.assertEqual(
            find(CupsSeen(drawn="clear", stood="clear", stood_minutes=5), ph_low=7.9).id, "stand"
        )
        self.assertEqual(
            find(CupsSeen(drawn="milky_clears_bottom_up", stood="clear"), well=True).id, "gas_well"
        )

    def test_every_combination_answers(self):
        for d, s, p in itertools.product(
            ("clear", "faint", "coloured", "clears_top_down", "milky_clears_bottom_up"),
            (None, "clear", "coloured", "darkens", "brown_black", "same", "settles"),
            (None, "wholly", "partly", "no_change"),
        ):
            self.assertTrue(find(CupsSeen(drawn=d, stood=s, stood_minutes=25, reducer=p)).sentence)


class Findings(unittest.TestCase):
    def find(self, w, complaints=(), **at):
        return meaning(
            w,
            home(**at),
            tuple(Complaint(id=str(i), sign=s, words=s) for i, s in enumerate(complaints)),
            Rules(),
        )

    def test_band_with_its_source(self):
        f = self.find(water(hardness=Range.of(222.5, 239.7, 239.7))).findings[0]
        self.assertEqual((f.band, f.year), ("very hard", 2019))
        self.assertTrue(f.source)

    def test_a_range_over_two_bands_names_both(self):
        bands = BAND_SETS["hardness.mg"]
        self.assertEqual([b.name for b in bands.of(110, 130)], ["moderately hard", "hard"])
        self.assertEqual([b.name for b in bands.of(120, 130)], ["hard"])
        self.assertEqual([b.name for b in bands.of(500, None)], ["very hard"])

    def test_complaints_lead_and_the_rest_stays_unexplained(self):
        m = self.find(water(hardness=240, tds=410), ("white_crust", "orange_streaks"))
        self.assertEqual(m.findings[0].explains, ("0",))
        self.assertEqual([(u.complaint, u.next) for u in m.unexplained], [("1", "iron kit")])

    def test_health_is_judged_on_a_laboratory_only(self):
        kit = water_of(sample(shown("lead", 0.02)))
        self.assertEqual(self.find(kit).findings[0].id, "lead.not_judged")
        lab = water_of(sample(from_lab("lead", 2, unit="µg/L")))
        f = self.find(lab).findings[0]
        self.assertEqual((f.weight, f.id), (Weight.HEALTH, "lead.over"))
        self.assertIn("any detection", f.sentence)

    def test_coliform_present_gives_the_tonight_card(self):
        m = self.find(water_of(sample(from_lab("coliform", qualifier="present"))))
        self.assertTrue(any("rolling boil" in t for t in m.tonight))
        self.assertTrue(any("do not drink" in f.sentence for f in m.findings))

    def test_nothing_ever_calls_water_safe_or_converts_tds(self):
        m = self.find(water(tds=58, hardness=30, iron=0.02, ph=7.3))
        text = " ".join(f.sentence for f in m.findings).lower()
        self.assertNotIn("safe", text)
        self.assertIn("nothing about hardness", text)

    def test_sodium_that_is_tasted_explains_a_taste_and_a_diet_s_does_not(self):
        tasted = self.find(water(sodium=300), ("taste",))
        self.assertIn("0", [e for f in tasted.findings for e in f.explains])
        diet = self.find(water(sodium=60), ("taste",))
        self.assertEqual([u.complaint for u in diet.unexplained], ["0"])

    def test_the_cups_stay_clear_for_good_only_where_the_ph_is_known(self):
        stood = CupsSeen(drawn="clear", stood="clear", stood_minutes=25)
        with_ph = replace(water(ph=7.9), cups=stood)
        self.assertEqual(self.find(with_ph).colour.id, "clear")
        self.assertEqual(self.find(replace(water(iron=0.1), cups=stood)).colour.id, "not_yet")

    def test_cups_that_were_done_are_not_asked_for_again(self):
        stood = CupsSeen(drawn="clear", stood="clear", stood_minutes=25)
        (before,) = self.find(water(tannin=0.0), ("tea_colour",)).unexplained
        done = replace(water(tannin=0.0), cups=stood)
        (after,) = self.find(done, ("tea_colour",)).unexplained
        self.assertEqual(before.next, "the three cups")
        self.assertNotEqual(after.next, "the three cups")

    def test_hot_tap_smell_is_the_heater(self):
        m = self.find(water(tds=58), ("egg_smell_hot",))
        self.assertIn("heater.anode", [f.id for f in m.findings])
        self.assertFalse(m.unexplained)


class CrossChecks(unittest.TestCase):
    def ids(self, *samples, **at):
        return [c.id for c in crosschecks(samples, home(**at))]

    def test_hardness_above_what_conducts(self):
        self.assertIn("hardness_above_conductivity", self.ids(sample(tds(60, 61), hardness(14))))
        self.assertNotIn(
            "hardness_above_conductivity", self.ids(sample(tds(412, 415), hardness(14)))
        )

    def test_soft_with_tds(self):
        self.assertIn("soft_with_tds", self.ids(sample(tds(412, 415), hardness(1))))

    def test_chlorine_questions(self):
        self.assertIn(
            "city_no_chlorine", self.ids(sample(shown("chlorine_total", 0.0)), source=Source.CITY)
        )
        self.assertIn("well_chlorine", self.ids(sample(shown("chlorine_total", 0.6))))
        self.assertIn(
            "free_above_total",
            self.ids(sample(shown("chlorine_free", 2.0), shown("chlorine_total", 1.0))),
        )

    def test_pairs(self):
        raw = sample(tds(412, 415))
        after = {
            "id": "b",
            "name": "Filter",
            "raw": False,
            "treated": True,
            "after": "an old filter",
        }
        self.assertIn("no_difference", self.ids(raw, sample(tds(410, 411), **after)))
        self.assertIn("labels_swapped", self.ids(raw, sample(tds(500, 501), **after)))
        other = sample(
            reading("tds", tds_meter(factor=0.7), MeterDisplays(displays=(300, 301))), **after
        )
        self.assertIn("factor_mismatch", self.ids(raw, other))
        self.assertIn("not_flushed", self.ids(raw, sample(tds(30, 31), **after, just_changed=True)))
        self.assertIn("past_life", self.ids(raw, sample(tds(30, 31), **after, past_life=True)))

    def test_more_water_than_a_pipe_gives(self):
        self.assertIn("flow_too_high", self.ids(sample(shown("flow", 3000.0))))
        self.assertNotIn("flow_too_high", self.ids(sample(shown("flow", 11.0))))

    def test_earlier_readings(self):
        raw = sample(tds(412, 415))
        self.assertEqual(
            [c.id for c in crosschecks((raw,), home(), {"tds": work_out(tds(180, 181))})],
            ["far_from_before"],
        )

    def test_every_check_has_a_remedy(self):
        for sentence, remedy in CHECKS.values():
            self.assertTrue(sentence.endswith(("?", ".")) and remedy.endswith((".", ".)")))


class Samples(unittest.TestCase):
    def test_struck_readings_never_count_and_the_latest_wins(self):
        from dataclasses import replace

        from tests.making import NOON

        first, second = hardness(14), replace(hardness(15), id="r2")
        self.assertAlmostEqual(
            water_of(sample(first, second)).range("hardness").best, 15 * 17.118061, 3
        )
        self.assertAlmostEqual(
            water_of(sample(first, replace(second, struck_at=NOON))).range("hardness").best,
            14 * 17.118061,
            3,
        )

    def test_laboratory_wins_but_chlorine_is_judged_on_site(self):
        w = water_of(
            sample(
                from_lab("iron", 0.4),
                shown("iron", 0.9),
                from_lab("chlorine_free", 0.1),
                shown("chlorine_free", 0.8),
            )
        )
        self.assertEqual(w.range("iron").best, 0.4)
        self.assertEqual(w.range("chlorine_free").best, 0.8)

    def test_design_water_is_filled_up_from_untreated_samples(self):
        first = sample(from_lab("copper", 1.6), id="first", raw=False, draw="first")
        soft = sample(shown("iron", 0.1), id="soft", raw=False, treated=True)
        w = design_water((sample(tds(90, 91)), first, soft))
        self.assertEqual(sorted(w.values), ["copper", "tds"])


class Pairs(unittest.TestCase):
    def find(self, a, b):
        return {p.analyte: p.sentence for p in pairs(a, water_of(a), b, water_of(b))}

    def test_what_a_difference_shows(self):
        raw, after = (
            sample(tds(412, 415, 409), hardness(14), shown("ph", 7.6)),
            sample(tds(30, 31, 31), shown("ph", 7.6), id="b", raw=False),
        )
        self.assertEqual(
            self.find(raw, after),
            {
                "tds": "92 % less (92 to 93 %)",
                "hardness": "tested in one only",
                "ph": "no difference shown",
            },
        )
        self.assertEqual(
            self.find(raw, sample(tds(410, 411), id="b", raw=False))["tds"], "no difference shown"
        )
        other = sample(
            reading("tds", tds_meter(factor=0.7), MeterDisplays(displays=(300, 301))),
            id="b",
            raw=False,
        )
        self.assertIn("not compared", self.find(raw, other)["tds"])


class Breath(unittest.TestCase):
    def test_worked_figures(self):
        self.assertEqual((f"{breathed_ph(160):.1f}", f"{breathed_ph(0):.1f}"), ("6.7", "4.6"))

    @given(st.floats(1, 500), st.floats(1, 500))
    def test_more_minerals_buffer_more(self, a, b):
        low, high = sorted((a, b))
        self.assertLessEqual(breathed_ph(low), breathed_ph(high))
