"""What a seasoned consultant proposes first on wells, and next to a limit."""

import unittest
from dataclasses import replace

from tests.core.proposing.test_more_homes import (
    CLEAN_WELL,
    GPG,
    ON_CHALK,
    SOFT_TOWN,
    TOWN,
    asked,
    by_kit,
    ideas,
)
from tests.making import settings
from zesty_glass.core.analytes import Kind
from zesty_glass.core.home import Care, Source
from zesty_glass.core.proposing.priorities import SUPPLY_FIRST, WAY_IN_FIRST
from zesty_glass.core.proposing.standing import with_reasons
from zesty_glass.core.ranges import Range


class Wells(unittest.TestCase):
    def test_bacteria_first_the_way_in_then_a_lamp(self):
        values = {**CLEAN_WELL, "coliform": Range.exact(1), "uvt": 92, "turbidity": 0.3}
        m, s = asked(values)
        self.assertEqual(ideas(s)[1], "Sediment filter + UV system")
        self.assertEqual(s.lines[0].ahead, WAY_IN_FIRST)
        self.assertIn("rolling boil", s.first[0])
        self.assertIn("look for the way in", s.first[1])
        self.assertTrue(any("rolling boil" in t for t in m.tonight))

    def test_nitrate_for_an_infant(self):
        m, s = asked({**CLEAN_WELL, "nitrate_n": 14.0}, (), Care(consent=True, infant=True))
        self.assertEqual(ideas(s)[0], "RO system at the drinking tap")
        self.assertTrue(any("Never boil" in t for t in m.tonight))
        self.assertTrue(any("one tap is enough" in t for t in s.first))

    def test_arsenic_astride_its_limit_is_settled_by_a_second_sample(self):
        values = {**CLEAN_WELL, "arsenic": Range.of(0.009, 0.010, 0.011)}
        _, s = asked(values)
        self.assertTrue(any("a second sample" in t for t in s.first))
        empty = next(x for x in s.lines if not x.option.stages)
        self.assertEqual(empty.answers["arsenic"], 0.0)
        self.assertEqual(empty.leaves, ("arsenic",))
        _, over = asked({**CLEAN_WELL, "arsenic": 0.02})
        self.assertFalse(any("too close to its limit" in t for t in over.first))

    def test_a_high_ph_is_no_need_that_sets_the_rest_aside(self):
        _, s = asked({**CLEAN_WELL, "ph": 8.9, "hardness": 12 * GPG})
        self.assertEqual(ideas(s)[0], "Softener")

    def test_a_conditioner_that_iron_stops_is_not_proposed(self):
        values = {**CLEAN_WELL, "hardness": 12 * GPG, "iron": 0.5}
        _, s = asked(values, ("white_crust",))
        self.assertEqual(ideas(s)[0], "Softener")
        self.assertNotIn("Salt-free conditioner", ideas(s))

    def test_what_is_not_tested_weighs_less_than_six_thousand(self):
        values = {k: v for k, v in CLEAN_WELL.items() if k != "temperature"}
        _, s = asked({**values, "nitrate_n": 14.0})
        self.assertTrue(s.lines[0].open)
        self.assertEqual(ideas(s)[0], "RO system at the drinking tap")

    def test_a_salty_taste_asks_for_a_panel_and_for_one_tap(self):
        values = {**CLEAN_WELL, "tds": 1500}
        m, s = asked(values, ("taste",))
        self.assertFalse(m.unexplained)
        self.assertEqual(s.wanted[0], "tds")
        self.assertEqual(s.lines[0].option.stages, ())
        self.assertTrue(s.lines[1].tap_only)
        self.assertTrue(any("panel" in t for t in s.first))

    def test_dissolved_matter_below_what_is_tasted_explains_no_taste(self):
        m, s = asked({**CLEAN_WELL, "tds": 700}, ("taste",))
        self.assertTrue(m.unexplained)
        self.assertNotIn("tds", s.wanted)

    def test_orange_streaks(self):
        _, s = asked({**CLEAN_WELL, "iron": 4.0}, ("orange_streaks",))
        self.assertIn("Iron filter", ideas(s)[0])

    def test_eggs_at_the_cold_tap(self):
        _, s = asked({**CLEAN_WELL, "hydrogen_sulfide": 1.5}, ("egg_smell",))
        self.assertEqual(ideas(s)[0], "Iron filter")
        self.assertTrue(any("disinfected" in t for t in s.first))

    def test_eggs_at_the_hot_tap_with_a_clean_cold_one(self):
        m, s = asked(CLEAN_WELL, ("egg_smell_hot",))
        self.assertIn("heater.anode", {f.id for f in m.findings})
        self.assertEqual(ideas(s)[0], "Do nothing")
        self.assertTrue(any("anode" in t for t in s.first))

    def test_acid_water_that_nobody_complains_of(self):
        values = {**CLEAN_WELL, "ph": 5.8, "alkalinity": 20, "calcium": 10, "hardness": GPG}
        _, s = asked({**values, "iron": 0.5}, ("orange_streaks",))
        self.assertIn("Acid neutralizer", ideas(s)[0])
        self.assertTrue(any("first draw" in t for t in s.first))

    def test_acid_water_with_iron_bound_to_tannin(self):
        values = {**CLEAN_WELL, "ph": 6.4, "iron": 2.0, "tannin": 0.9, "alkalinity": 60}
        _, s = asked(values, ("orange_streaks",))
        self.assertEqual(ideas(s)[0], "Acid neutralizer + Softener")
        self.assertTrue(any("Tannin binds iron" in t for t in s.lines[0].watch))
        self.assertLess(s.lines[0].answers["iron"], 0.7)

    def test_radon(self):
        _, s = asked({**CLEAN_WELL, "radon": 12000.0})
        self.assertEqual(ideas(s)[0], "Aeration")
        self.assertTrue(any("indoor air" in t for t in s.first))
        self.assertFalse([x for x in s.lines for n in x.names if "arbon bed" in n])

    def test_a_little_radon_beside_arsenic_goes_to_the_indoor_air_first(self):
        values = {**CLEAN_WELL, "arsenic": 0.014, "fluoride": 2.6}
        for radon, first in ((3434.0, "RO system at the drinking tap"), (12000.0, "Aeration + ")):
            _, s = asked({**values, "radon": radon})
            self.assertTrue(ideas(s)[0].startswith(first), (radon, ideas(s)[:2]))
            self.assertTrue(any("indoor air" in t for t in s.first))
            waits = any("indoor air before anything is bought" in t for t in s.first)
            self.assertEqual(waits, radon < 4000)  # what is proposed first is not forbidden
        _, s = asked({**values, "radon": 3434.0})
        self.assertIn("radon", s.lines[0].leaves)

    def test_copper_from_acid_water_is_answered_at_its_cause(self):
        acid = {**CLEAN_WELL, "ph": 6.3, "alkalinity": 40, "copper": 1.6, "copper_flushed": 0.1}
        _, s = asked(acid, ("blue_green",))
        self.assertEqual(ideas(s)[0], "Acid neutralizer")
        self.assertFalse(any("one tap is enough" in t for t in s.first))
        # where it comes in with the water, no pH corrects it
        _, s = asked({**acid, "copper_flushed": 1.5}, ("blue_green",))
        self.assertIn("RO system", ideas(s)[0])

    def test_what_nobody_asked_for_comes_behind_the_line_without_it(self):
        for values in ({"pfoa": 8e-6}, {"uranium": 0.05}, {"nitrate_n": 14.0}):
            _, s = asked({**ON_CHALK, **values}, **TOWN)
            self.assertEqual(s.lines[0].ahead, SUPPLY_FIRST)
            self.assertEqual(ideas(s)[1], "RO system at the drinking tap", values)
        _, s = asked({**ON_CHALK, "pfoa": 8e-6}, **TOWN)
        self.assertTrue(any("ask the supply" in t for t in s.first))
        _, s = asked({**ON_CHALK, "pfoa": 8e-6}, ("white_crust",), **TOWN)
        self.assertIn("Softener", ideas(s)[1])  # asked for, it belongs to the line

    def test_much_manganese_asks_like_a_complaint(self):
        care = Care(consent=True, infant=True)
        _, s = asked({**CLEAN_WELL, "manganese": 0.4}, care=care)
        self.assertEqual(ideas(s)[0], "Iron filter")
        self.assertIn("this water has manganese", s.first[0])
        self.assertIn("manganese", next(x for x in s.lines if not x.option.stages).leaves)

    def test_where_water_is_brought_tonight_waiting_says_so(self):
        wait, none = "Buy nothing yet, bring drinking water", "Do nothing"
        infant, clinic = Care(consent=True, infant=True), Care(consent=True, dialysis=True)
        for values, care, called in (
            ({**CLEAN_WELL, "manganese": 0.4}, infant, wait),
            ({**CLEAN_WELL, "manganese": 0.4}, Care(), none),
            ({**CLEAN_WELL, "manganese": 0.07}, infant, none),
            ({**CLEAN_WELL, "sulfate": 510.0}, infant, wait),
            (ON_CHALK, clinic, none),
        ):
            _, s = asked(values, care=care)
            bare = next(x for x in s.lines if not x.option.stages)
            self.assertEqual(bare.option.name, called, (values, care))

    def test_a_clean_lake_still_wants_a_lamp_at_its_end(self):
        clean = {**CLEAN_WELL, "coliform": 0.0, "uvt": 92.0}
        wants = "Every system here ends with a UV lamp"
        told = {
            source: any(wants in t for t in asked(clean, source=source)[1].first)
            for source in (Source.LAKE, Source.CISTERN, Source.WELL_DRILLED)
        }
        self.assertEqual(
            told, {Source.LAKE: True, Source.CISTERN: True, Source.WELL_DRILLED: False}
        )
        without = {k: v for k, v in clean.items() if k != "uvt"}
        said = asked(without, source=Source.LAKE)[1].first
        self.assertFalse(any(wants in t for t in said))
        self.assertTrue(any("before a system is chosen" in t for t in said))

    def test_nothing_is_sold_for_comfort_while_water_is_brought(self):
        wait = "Buy nothing yet, bring drinking water"
        hard, mother = {**CLEAN_WELL, "hardness": 8 * GPG}, Care(consent=True, pregnancy=True)
        _, s = asked(hard, care=mother)
        self.assertEqual(ideas(s)[0], wait)
        self.assertIn("comfort", s.lines[0].ahead)
        self.assertEqual(ideas(asked(hard)[1])[0], "Softener")  # nobody brings water here
        _, s = asked(hard, ("white_crust",), care=mother)
        self.assertEqual(ideas(s)[0], "Softener")  # asked for, and the card stands above it

    def test_a_line_that_answers_health_does_not_wait_behind_nothing(self):
        _, s = asked({**CLEAN_WELL, "nitrate_n": 14.0}, care=Care(consent=True, infant=True))
        self.assertEqual(ideas(s)[0], "RO system at the drinking tap")

    def test_bacteria_that_no_line_answers_yet_are_waited_for(self):
        values = {**CLEAN_WELL, "coliform": 1.0, "ph": 6.4}
        _, s = asked(values)
        first = s.lines[0]
        self.assertTrue(first.health > 0 or not first.option.stages, first.option.name)

    def test_dialysis_waits_for_the_clinic_whatever_the_crust(self):
        care = Care(consent=True, dialysis=True)
        _, s = asked(ON_CHALK, ("white_crust",), care, **TOWN)
        self.assertEqual(ideas(s)[:2], ["Do nothing", "Softener"])
        self.assertEqual(
            s.lines[0].ahead,
            "Somebody here has dialysis at home. Change nothing on this water before the clinic has"
            " answered.",
        )

    def test_a_health_finding_keeps_its_order_beside_dialysis(self):
        care = Care(consent=True, dialysis=True)
        _, s = asked({**CLEAN_WELL, "nitrate_n": 14.0}, (), care)
        self.assertEqual(ideas(s)[0], "RO system at the drinking tap")

    def test_dialysis_is_said_first(self):
        values = {**ON_CHALK, "chlorine_total": 2.0, "chlorine_combined": 1.8}
        _, s = asked(values, care=Care(consent=True, dialysis=True), **TOWN)
        self.assertIn("The clinic decides", s.first[0])

    def test_haze_with_iron_asks_for_the_three_cups(self):
        _, s = asked({**CLEAN_WELL, "iron": 2.0, "turbidity": 4.0}, ("haze",))
        self.assertTrue(any("three cups" in t for t in s.first))
        _, s = asked({**CLEAN_WELL, "turbidity": 4.0}, ("haze",))
        self.assertFalse(any("three cups" in t for t in s.first))

    def test_moderately_hard_water_without_complaint_asks_for_nothing(self):
        _, s = asked({**CLEAN_WELL, "hardness": 5 * GPG})
        self.assertTrue(s.nothing_needed)
        self.assertEqual(ideas(s)[0], "Do nothing")

    def test_weak_immunity_and_no_test_for_bacteria(self):
        values = {k: v for k, v in CLEAN_WELL.items() if k != "coliform"}
        m, s = asked(values, (), Care(consent=True, weak_immunity=True))
        self.assertTrue(any("physician" in t for t in m.tonight))
        self.assertIn("coliform", s.still_to_test)

    def test_slime_asks_for_a_laboratory_before_anything(self):
        _, s = asked(CLEAN_WELL, ("slime",))
        self.assertEqual(ideas(s)[0], "Do nothing")
        self.assertIn(
            "“slime” is not explained yet. The next test: laboratory: iron bacteria.", s.first
        )

    def test_water_above_neutral_is_not_taken_for_acid(self):
        _, s = asked({**CLEAN_WELL, "ph": 8.9})
        self.assertFalse([t for t in s.first if "Acid" in t])
        self.assertFalse([x for x in ideas(s) if "neutralizer" in x])

    def test_acid_that_nobody_sees_comes_after_the_colour_they_see(self):
        lake = {**CLEAN_WELL, "hardness": 2 * GPG, "ph": 6.9, "tannin": 2.0, "iron": 0.1}
        _, s = asked({**lake, "sulfate": 5}, ("tea_colour",))
        self.assertIn("Tannin filter", ideas(s)[0])

    def test_two_stages_for_one_thing_are_never_among_the_first(self):
        values = {**CLEAN_WELL, "hardness": 12 * GPG, "tannin": 1.5, "iron": 0.1, "sulfate": 5}
        _, s = asked(values, ("tea_colour", "white_crust"))
        for idea in ideas(s)[:5]:
            self.assertFalse("Mixed" in idea and ("Softener" in idea or "Tannin" in idea), idea)

    def test_the_next_size_up_where_it_leaves_less_to_watch(self):
        values = {**CLEAN_WELL, "hardness": 12 * GPG, "tannin": 1.5, "iron": 0.1, "sulfate": 5}
        _, s = asked(values, ("tea_colour", "white_crust"))
        self.assertEqual(ideas(s)[0], "Softener + Tannin filter")
        self.assertFalse([t for t in s.lines[0].watch if "this passes" in t])

    def test_an_infant_and_manganese(self):
        for infant, mn, told in ((True, 0.25, True), (False, 0.25, False), (True, 0.02, False)):
            m, _ = asked({**CLEAN_WELL, "manganese": mn}, (), Care(consent=True, infant=infant))
            self.assertEqual(any("manganese" in t for t in m.tonight), told)

    def test_over_a_limit_of_health_a_finding_is_one_of_health(self):
        # 0.06 is over the staining limit (0.05) alone, 0.12 over the guideline for infants (0.08)
        for mn, kind in ((0.06, Kind.LOOKS_TASTE), (0.12, Kind.HEALTH)):
            m, _ = asked({**CLEAN_WELL, "manganese": mn})
            (found,) = (f for f in m.findings if f.analyte == "manganese")
            self.assertIs(found.kind, kind)

    def test_a_town_answers_for_its_own_water(self):
        acid = {**SOFT_TOWN, "ph": 6.7, "chlorine_free": 0.3, "chlorine_total": 0.4}
        _, s = asked(acid, ("blue_green",), **TOWN)
        self.assertTrue(any("the supply answers for its pH" in t for t in s.first))
        strong = {**SOFT_TOWN, "chlorine_free": 4.8, "chlorine_total": 5.2}
        _, s = asked(strong, ("bleach_smell",), **TOWN)
        self.assertTrue(any("call the utility" in t for t in s.first))

    def test_what_the_next_idea_does_worse_is_said(self):
        _, s = asked({**CLEAN_WELL, "nitrate_n": 14.0})
        self.assertIn("hours of your time a year", s.lines[0].ahead)  # a still is work
        alike = replace(s.lines[0], watch=s.lines[1].watch)
        dearer = replace(s.lines[1], cost=alike.cost + 500, option=self.other(s))
        told = with_reasons((alike, dearer), settings(), 10)
        self.assertRegex(told[0].ahead, r"^It costs \$[\d,]+ less over 10 years than the next\.$")
        _, s = asked(ON_CHALK, ("white_crust",), **TOWN)
        self.assertEqual(s.lines[0].ahead, "It treats hardness, which the next system does not.")
        most = replace(s.lines[0], not_met=("hardness: at the house’s taps",))
        other = next(x for x in s.lines if x.option.name != most.option.name)
        told = with_reasons((most, other), settings(), 10)
        self.assertEqual(
            told[0].ahead, "It goes most of the way for hardness, which the next system does not."
        )

    @staticmethod
    def other(s):
        """An option of another name than the first line's."""
        return next(x.option for x in s.lines if x.option.name != s.lines[0].option.name)


class NearALimit(unittest.TestCase):
    """A stain is answered; whether it is of health is settled by a laboratory, and first."""

    def test_a_kit_right_at_the_guideline_asks_a_laboratory_first(self):
        s = by_kit({**CLEAN_WELL, "manganese": 0.08}, ("black_stains",))
        self.assertIn("Have a certified laboratory confirm it", s.first[0])
        self.assertEqual(ideas(s)[0], "Iron filter")

    def test_a_kit_astride_it_and_one_over_it_ask_too(self):
        for value in (Range.of(0.06, 0.075, 0.09), 0.2):
            s = by_kit({**CLEAN_WELL, "manganese": value}, ("black_stains",))
            self.assertTrue(
                any("Have a certified laboratory confirm it" in t for t in s.first), value
            )

    def test_under_it_nobody_is_sent_to_a_laboratory(self):
        s = by_kit({**CLEAN_WELL, "manganese": 0.06}, ("black_stains",))
        self.assertFalse(any("laboratory" in t for t in s.first))

    def test_a_certified_result_astride_it_asks_for_a_second_sample(self):
        _, s = asked({**CLEAN_WELL, "manganese": Range.of(0.06, 0.08, 0.1)}, ("black_stains",))
        self.assertIn("a second sample to a certified laboratory", s.first[0])

    def test_arsenic_right_at_its_limit_is_sampled_again_and_sells_nothing(self):
        _, s = asked({**CLEAN_WELL, "arsenic": 0.01})
        self.assertNotIn("arsenic", s.wanted)
        self.assertTrue(any("Take a second sample" in t for t in s.finer), s.finer)


class NearlyMet(unittest.TestCase):
    """What comes within its limit by its best value and may not by its range is one thing to
    watch, not a reason for another stage."""

    s = by_kit(
        {**CLEAN_WELL, "iron": Range.of(2.85, 3.0, 3.15), "manganese": 0.01}, ("orange_streaks",)
    )

    def test_no_softener_to_polish_what_an_iron_filter_leaves(self):
        self.assertEqual(ideas(self.s)[0], "Iron filter")

    def test_it_is_said_with_its_range_and_the_test_that_settles_it(self):
        watch = " ".join(self.s.lines[0].watch)
        self.assertIn("may stay above 0.3 mg/L; the same test behind it says", watch)

    def test_for_health_nearly_is_not_wholly(self):
        _, s = asked({**CLEAN_WELL, "nitrate_n": Range.of(38.0, 40.0, 42.0)})
        for line in s.lines:
            tap = line.answers["nitrate_n"]
            self.assertTrue(tap <= 0.95 or "nitrate_n" not in " ".join(line.not_met), line)


class OnlyWorthKnowing(unittest.TestCase):
    """Where one thing asks to act and nobody complains, what is only worth knowing sells nothing
    beside it."""

    def test_no_softener_for_moderate_hardness_beside_manganese(self):
        _, s = asked({**CLEAN_WELL, "manganese": 0.07})
        self.assertEqual(ideas(s)[0], "Iron filter")

    def test_hard_water_asks_to_act_by_itself(self):
        _, s = asked({**CLEAN_WELL, "manganese": 0.07, "hardness": 15 * GPG})
        self.assertIn("Softener", ideas(s)[0])


if __name__ == "__main__":
    unittest.main()
