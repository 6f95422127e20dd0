"""What comes before anything is bought, by kind of fault; boundaries from the sources."""

import unittest
from collections import Counter

from tests.core.proposing.test_more_homes import (
    CLEAN_WELL,
    GPG,
    ON_CHALK,
    SOFT_TOWN,
    TOWN,
    asked,
    ideas,
)
from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.home import Care, Source
from zesty_glass.core.in_place import InPlace
from zesty_glass.core.proposing.first import FIRST
from zesty_glass.core.proposing.priorities import SLIME_FIRST
from zesty_glass.core.proposing.ranking import FOULED, Grader
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.treating.option import Option, StageChoice

UNTESTED_WELL = {k: v for k, v in CLEAN_WELL.items() if k not in ("coliform", "nitrate_n")}
RULES = {r.id: r.sentence for r in FIRST}


class BeforeBuying(unittest.TestCase):
    def said(self, rule, values, signs=(), **about):
        _, s = asked(values, signs, **about)
        return RULES[rule] in s.first

    def test_no_two_rules_share_a_name_or_a_sentence(self):
        for what in ("id", "sentence"):
            again = [k for k, n in Counter(getattr(r, what) for r in FIRST).items() if n > 1]
            self.assertEqual(again, [])

    def test_a_turbid_well_is_tested_for_bacteria_first(self):
        # 1 NTU: where turbidity starts to shield microbes (US EPA, surface water treatment rules)
        self.assertTrue(self.said("turbid_well", {**UNTESTED_WELL, "turbidity": 1.0}))
        self.assertFalse(self.said("turbid_well", {**UNTESTED_WELL, "turbidity": 0.9}))
        self.assertFalse(self.said("turbid_well", {**CLEAN_WELL, "turbidity": 5.0}))
        found = {**UNTESTED_WELL, "turbidity": 5.0, "e_coli": 1.0}
        self.assertFalse(self.said("turbid_well", found))
        # beside nitrate boiling would make it worse: nothing here says to boil
        self.assertNotIn("boil", RULES["turbid_well"])
        self.assertFalse(self.said("turbid_well", {**ON_CHALK, "turbidity": 5.0}, **TOWN))

    def test_nitrate_from_half_its_limit_is_watched(self):
        # 40 CFR 141.23: from 5 mg/L as N every quarter; over 10 it is a finding of health itself
        for n, told in ((4.9, False), (5.0, True), (9.2, True), (12.0, False)):
            with self.subTest(n):
                values = {**CLEAN_WELL, "nitrate_n": n}
                self.assertEqual(self.said("nitrate_near", values), told)
        self.assertFalse(self.said("nitrate_near", {**SOFT_TOWN, "nitrate_n": 7.0}, **TOWN))

    def test_more_than_a_bed_takes_is_a_specialists(self):
        for analyte, most in (("iron", 10.0), ("hydrogen_sulfide", 5.0)):
            for value, told in ((most, True), (most - 0.1, False)):
                with self.subTest(f"{analyte} {value}"):
                    values = {**CLEAN_WELL, analyte: value}
                    self.assertEqual(self.said("beyond_a_bed", values), told)

    def test_bacteria_in_town_water_are_the_supplys_to_answer(self):
        found = {**SOFT_TOWN, "e_coli": 1.0}
        self.assertTrue(self.said("utility_microbes", found, **TOWN))
        self.assertFalse(self.said("utility_microbes", {**CLEAN_WELL, "e_coli": 1.0}))
        self.assertFalse(self.said("way_in", found, **TOWN))

    def test_chlorine_over_its_limit_is_the_supplys_before_a_jug_is_spoken_of(self):
        values = {**ON_CHALK, "chlorine_free": 5.0, "chlorine_total": 5.0}
        _, s = asked(values, ("bleach_smell",), **TOWN)
        both = [s.first.index(RULES[r]) for r in ("utility_chlorine", "jug")]
        self.assertEqual(both, sorted(both))

    def test_a_tenant_tells_the_owner_what_matters_to_health_or_pipes(self):
        for values, told in (
            ({**CLEAN_WELL, "coliform": 1.0}, True),
            ({**CLEAN_WELL, "ph": 6.2, "alkalinity": 30}, True),
            ({**CLEAN_WELL, "hardness": 20 * GPG}, False),
        ):
            self.assertEqual(self.said("owner", values, tenant=True), told)
            self.assertFalse(self.said("owner", values))
        bacteria = {**CLEAN_WELL, "coliform": 1.0}
        self.assertTrue(self.said("transmittance", bacteria))
        self.assertFalse(self.said("transmittance", bacteria, tenant=True))

    def test_water_too_dark_for_a_lamp_is_cleared_first(self):
        dark = {**CLEAN_WELL, "coliform": 1.0, "uvt": 62.0}
        self.assertTrue(self.said("clear_first", dark))
        self.assertFalse(self.said("clear_first", {**dark, "uvt": 75.0}))
        self.assertFalse(self.said("clear_first", {**CLEAN_WELL, "uvt": 62.0}))
        self.assertTrue(self.said("clear_first", {**CLEAN_WELL, "uvt": 62.0}, source=Source.LAKE))

    def test_lead_behind_a_line_of_lead_is_the_supplys_line(self):
        lead = {**SOFT_TOWN, "lead": 0.012}
        for line, told in (("lead", True), ("galvanised", True), ("copper", False)):
            about = {**TOWN, "service_line": line}
            self.assertEqual(self.said("service_line", lead, **about), told, line)
            # a line that holds lead is said before anything was measured; of copper it is not
            self.assertEqual(self.said("service_line", SOFT_TOWN, **about), told, line)
            self.assertEqual(self.said("first_draw", SOFT_TOWN, **about), told, line)
            self.assertFalse(self.said("first_draw", lead, **about))

    def test_a_line_that_nobody_asked_about_is_not_known(self):
        lead = {**SOFT_TOWN, "lead": 0.012}
        unasked = {**TOWN, "service_line": ""}
        self.assertTrue(self.said("service_line_unknown", lead, **unasked))
        self.assertFalse(self.said("service_line", lead, **unasked))
        self.assertFalse(self.said("service_line_unknown", SOFT_TOWN, **unasked))
        # a home of its own source has no line from a main
        for step in ("service_line", "service_line_unknown"):
            self.assertFalse(self.said(step, {**CLEAN_WELL, "lead": 0.012}), step)

    def test_a_first_draw_is_asked_for_its_flushed_sample_alone(self):
        lead = {**SOFT_TOWN, "lead": 0.012}
        self.assertTrue(self.said("flushed_draw", lead, **TOWN))
        self.assertFalse(self.said("flushed_draw", {**lead, "copper_flushed": 0.1}, **TOWN))

    def test_a_town_answers_for_what_it_brings(self):
        for analyte, value in (("arsenic", 0.02), ("nitrate_n", 14.0), ("uranium", 0.05)):
            self.assertTrue(self.said("utility_health", {**SOFT_TOWN, analyte: value}, **TOWN))
            self.assertFalse(self.said("utility_health", {**CLEAN_WELL, analyte: value}))
        self.assertFalse(self.said("utility_health", {**SOFT_TOWN, "lead": 0.02}, **TOWN))

    def test_salt_of_the_seas_pattern(self):
        # sea water has 1.8 of chloride to one of sodium
        sea = {**CLEAN_WELL, "sodium": 320, "chloride": 575, "tds": 1300}
        self.assertTrue(self.said("brackish", sea))
        self.assertFalse(self.said("brackish", {**sea, "chloride": 280}))
        self.assertFalse(self.said("brackish", {**sea, "tds": 600}))

    def test_right_at_its_limit_it_complies(self):
        at = {**CLEAN_WELL, "arsenic": 0.010}
        self.assertTrue(self.said("at_limit", at))
        self.assertFalse(self.said("astride", at))

    def test_half_the_limit_of_nitrate_with_an_infant_has_a_next_step(self):
        care = Care(consent=True, infant=True)
        near = {**CLEAN_WELL, "nitrate_n": 5.2}
        self.assertTrue(self.said("infant_nitrate", near, care=care))
        self.assertFalse(self.said("infant_nitrate", near))
        self.assertFalse(self.said("infant_nitrate", {**near, "nitrate_n": 2.0}, care=care))

    def test_a_taste_where_a_softener_stands_asks_for_its_service(self):
        softener = InPlace(id="s", kind="softener", name="Their softener")
        about = {**TOWN, "in_place": (softener,)}
        self.assertTrue(self.said("salty_softener", ON_CHALK, ("taste",), **about))
        self.assertFalse(self.said("salty_softener", ON_CHALK, ("white_crust",), **about))
        self.assertFalse(self.said("salty_softener", ON_CHALK, ("taste",), **TOWN))


class Slime(unittest.TestCase):
    """Iron bacteria: no resin is put in their way."""

    slimy = {**CLEAN_WELL, "hardness": 8 * GPG, "iron": 1.5, "ph": 7.2}

    def test_the_well_is_disinfected_and_an_iron_filter_stands_ahead_of_resin(self):
        _, s = asked(self.slimy, ("slime",), source=Source.WELL_DRILLED)
        self.assertIn(RULES["slime"], s.first)
        self.assertEqual((ideas(s)[0], s.lines[0].ahead), ("Do nothing", SLIME_FIRST))
        bought = s.lines[1]
        self.assertEqual(bought.option.name, "Iron filter + Softener")
        self.assertNotIn(FOULED, bought.watch)
        alone = [x for x in s.lines if x.option.name == "Softener"]
        self.assertTrue(all(FOULED in x.watch and x.answers["iron"] == 0 for x in alone))

    def test_fouled_resin_answers_no_iron_that_is_complained_of_or_not(self):
        items = {i.code: i for i in example_items()}
        for signs, kind in (((), "rest"), (("orange_streaks",), "complaints")):
            with self.subTest(kind):
                graded = [self.graded(items, s) for s in (signs, (*signs, "slime"))]
                plain, slimy = (getattr(g, kind) for g in graded)
                self.assertAlmostEqual(plain - slimy, graded[0].answers["iron"])

    def graded(self, items, signs):
        told = tuple(Complaint(id=s, sign=s, words=s) for s in signs)
        place, drawn = home(source=Source.WELL_DRILLED), water(**self.slimy)
        m = meaning(drawn, place, told, Rules())
        targets = {"iron": (0.3, "at_most"), "hardness": (GPG, "at_most")}
        grader = Grader(drawn, m, place, settings(), items, None, targets, told)
        code = next(c for c, i in items.items() if i.figures.kind == "softener")
        return grader.of(Option(id="o", name="o", stages=(StageChoice(item=code),)))

    def test_without_slime_little_iron_is_a_softeners(self):
        _, s = asked(self.slimy, source=Source.WELL_DRILLED)
        self.assertNotIn(RULES["slime"], s.first)
        self.assertEqual(s.lines[0].option.name, "Softener")

    def test_slime_with_less_iron_than_feeds_them(self):
        # 0.3 mg/L: the staining limit, under which iron bacteria find little
        _, s = asked({**self.slimy, "iron": 0.29}, ("slime",), source=Source.WELL_DRILLED)
        self.assertNotIn(RULES["slime"], s.first)
        self.assertFalse(any(FOULED in x.watch for x in s.lines))
