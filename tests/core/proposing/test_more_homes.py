"""What a seasoned consultant proposes first in homes outside the demo, what is refused and what is
asked; written down by hand from the trade's rules, not from what the tool said.
"""

import unittest
from dataclasses import replace

from tests.making import home, settings, water
from zesty_glass.core.analytes import Kind
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source, Wish
from zesty_glass.core.proposing.ranking import FOR_IRON_ALONE, WAIT, WAIT_FOR_AIR
from zesty_glass.core.proposing.rows import AS_WISHED, wanted_of
from zesty_glass.core.proposing.standing import (
    BEYOND_FIRST,
    CAUSE_FIRST,
    SUPPLY_FIRST,
    WISH_FIRST,
    with_reasons,
)
from zesty_glass.core.proposing.suggest import suggest
from zesty_glass.core.proposing.suggested import Suggestion
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import Meaning, meaning
from zesty_glass.core.testing.value import Value
from zesty_glass.demo.catalogue import demo_items

GPG = 17.118
TOWN = {"source": Source.CITY, "pump_gpm": None, "service_line": "copper"}
ON_CHALK = {
    "hardness": 14 * GPG,
    "tds": 420,
    "chlorine_free": 0.2,
    "chlorine_total": 0.3,
    "iron": 0.02,
    "ph": 7.6,
    "alkalinity": 230,
}
SOFT_TOWN = {"hardness": 3 * GPG, "tds": 110, "iron": 0.02, "ph": 7.4}
CLEAN_WELL = {
    "hardness": 5 * GPG,
    "tds": 180,
    "iron": 0.02,
    "manganese": 0.01,
    "ph": 7.5,
    "alkalinity": 150,
    "tannin": 0.0,
    "temperature": 12,
    "coliform": 0.0,
    "nitrate_n": 1.0,
    "hydrogen_sulfide": 0.0,
}


def asked(
    values: dict, signs: tuple[str, ...] = (), care: Care | None = None, **about
) -> tuple[Meaning, Suggestion]:
    place = home(**about) if care is None else home(care=care, **about)
    told = tuple(Complaint(id=s, sign=s, words=s.replace("_", " ")) for s in signs)
    drawn = water(**values)
    m = meaning(drawn, place, told, Rules())
    return m, suggest(drawn, m, place, settings(), Rules(), demo_items(), complaints=told)


def ideas(s: Suggestion) -> list[str]:
    return list(dict.fromkeys(x.option.name for x in s.lines))


class NotExplained(unittest.TestCase):
    """A complaint that nothing found explains is looked into; nothing else is sold for it."""

    def test_its_cause_is_looked_for_before_hardness_nobody_complains_of_is_sold_for(self):
        for sign in ("bleach_smell", "earth_smell", "low_pressure", "taste", "egg_smell"):
            with self.subTest(sign):
                values = {**ON_CHALK, "chlorine_free": 0.1, "chlorine_total": 0.1}
                m, s = asked(values, (sign,), **TOWN)
                self.assertEqual(len(m.unexplained), 1)
                self.assertEqual(ideas(s)[:2], ["Do nothing", "Softener"])
                self.assertEqual(s.lines[0].ahead, CAUSE_FIRST)

    def test_beside_a_complaint_that_is_explained_the_order_stays(self):
        _, s = asked(ON_CHALK, ("white_crust", "earth_smell"), **TOWN)
        self.assertEqual(ideas(s)[0], "Softener")

    def test_with_no_complaint_and_with_iron_that_stains_the_order_stays(self):
        _, calm = asked(ON_CHALK, **TOWN)
        self.assertEqual(ideas(calm)[0], "Softener")
        _, iron = asked({**CLEAN_WELL, "iron": 2.0}, ("low_pressure",))
        self.assertEqual(ideas(iron)[0], "Iron filter")

    def test_health_and_a_wish_keep_the_order(self):
        _, s = asked({**ON_CHALK, "nitrate_n": 14.0}, ("earth_smell",), **TOWN)
        self.assertNotEqual(s.lines[0].ahead, CAUSE_FIRST)
        wish = (Wish(analyte="hardness"),)
        _, wished = asked(ON_CHALK, ("earth_smell",), wishes=wish, **TOWN)
        self.assertNotEqual(wished.lines[0].ahead, CAUSE_FIRST)


class Lamps(unittest.TestCase):
    """Bacteria in words, as laboratories report them, and a lamp whose other tests are open."""

    def found(self, *drop, **more):
        values = {k: v for k, v in CLEAN_WELL.items() if k not in ("coliform", *drop)}
        values |= {"uvt": 90.0, "turbidity": 0.3, **more}
        drawn = water(**{k: v for k, v in values.items() if v is not None})
        drawn.values["coliform"] = Value(
            analyte="coliform",
            unit="",
            range=None,
            words="present",
            laboratory=True,
            certified=True,
        )
        place = home()
        m = meaning(drawn, place, (), Rules())
        return suggest(drawn, m, place, settings(), Rules(), demo_items())

    def test_a_lamp_is_proposed_with_the_test_that_is_open(self):
        s = self.found("hydrogen_sulfide")
        first = s.lines[0]
        self.assertEqual((first.option.name, s.unanswered), ("Sediment filter + UV", ""))
        self.assertIn("Hydrogen sulfide not tested: at most 0.05 mg/L here.", first.open)
        self.assertEqual((first.health, first.leaves), (0.95, ()))
        self.assertEqual(self.found().lines[0].health, 1.0)

    def test_what_changes_the_water_ahead_is_open_and_not_against_it(self):
        s = self.found("hydrogen_sulfide", iron=1.2)
        self.assertEqual(s.lines[0].option.name, "Iron filter + Sediment filter + UV")

    def test_without_its_transmittance_or_in_dark_water_none_is(self):
        for more in ({"uvt": None}, {"uvt": 60.0}):
            with self.subTest(more):
                s = self.found(**more)
                self.assertFalse([x for x in s.lines if "UV" in x.option.name])

    def test_clean_lake_water_ends_in_a_lamp_all_the_same(self):
        values = {**SOFT_TOWN, "coliform": 0.0, "uvt": 93.0, "turbidity": 0.3, "tannin": 0.0}
        values |= {"manganese": 0.0, "hydrogen_sulfide": 0.0}
        _, lake = asked(values, source=Source.LAKE)
        self.assertEqual((ideas(lake)[0], lake.wanted), ("Sediment filter + UV", ("coliform",)))
        _, well = asked(values, source=Source.WELL_DRILLED)
        self.assertEqual(ideas(well)[0], "Do nothing")
        _, open_still = asked({k: v for k, v in values.items() if k != "uvt"}, source=Source.LAKE)
        self.assertNotIn("coliform", open_still.wanted)


class OwnWork(unittest.TestCase):
    def test_what_asks_for_hours_every_week_is_warned_of_and_stands_behind(self):
        care = Care(consent=True, low_sodium=True, low_potassium=True)
        values = {**ON_CHALK, "hardness": 20 * GPG, "sodium": 10}
        _, s = asked(values, ("white_crust",), care, **TOWN)
        self.assertEqual(ideas(s)[0], "Softener + Membrane at the drinking tap")
        stills = [x for x in s.lines if "Distiller" in x.option.name]
        work = "Asks about 92 hours of the household’s own work a year."  # 5,522 min
        self.assertTrue(stills and all(work in x.watch for x in stills))
        warned = [x for x in s.lines if any(t.startswith("Asks about") for t in x.watch)]
        self.assertEqual(warned, [x for x in s.lines if x.own_minutes >= 1200])


class SaidAndDone(unittest.TestCase):
    """What is said before buying, and what stands first, say the same."""

    def test_bacteria_in_town_water_are_the_supplys_and_nothing_is_sold_first(self):
        values = {**ON_CHALK, "e_coli": 1.0, "coliform": 1.0}
        _, s = asked(values, ("white_crust",), **TOWN)
        self.assertEqual((ideas(s)[0], s.lines[0].ahead), (WAIT, SUPPLY_FIRST))
        _, well = asked({**CLEAN_WELL, "e_coli": 1.0, "uvt": 90.0, "turbidity": 0.2})
        self.assertEqual(ideas(well)[0], "Sediment filter + UV")
        _, more = asked({**values, "nitrate_n": 14.0}, **TOWN)  # which a line does answer
        self.assertNotEqual(more.lines[0].ahead, SUPPLY_FIRST)

    def test_more_than_a_bed_takes_is_a_specialists_before_a_bed_is_sold(self):
        _, s = asked({**CLEAN_WELL, "hydrogen_sulfide": 7.0}, ("egg_smell",))
        self.assertEqual((ideas(s)[0], s.lines[0].ahead), ("Do nothing", BEYOND_FIRST))
        _, health = asked({**CLEAN_WELL, "hydrogen_sulfide": 7.0, "nitrate_n": 14.0})
        self.assertNotEqual(health.lines[0].ahead, BEYOND_FIRST)
        self.assertIn("nitrate_n", health.lines[0].answers)
        _, less = asked({**CLEAN_WELL, "hydrogen_sulfide": 1.5}, ("egg_smell",))
        self.assertEqual(ideas(less)[0], "Iron filter")

    def test_what_is_wished_less_of_is_tested_before_something_else_is_sold(self):
        wish = (Wish(analyte="sodium"),)
        _, s = asked(ON_CHALK, wishes=wish, **TOWN)
        self.assertEqual((ideas(s)[0], s.lines[0].ahead), ("Do nothing", WISH_FIRST))
        self.assertIn("They wish less sodium: it is not tested; laboratory: sodium.", s.first)
        _, crust = asked(ON_CHALK, ("white_crust",), wishes=wish, **TOWN)
        self.assertEqual(ideas(crust)[0], "Softener")

    def test_a_wish_without_a_figure_is_not_met_by_doing_nothing(self):
        wish = (Wish(analyte="fluoride"),)
        _, s = asked({**SOFT_TOWN, "fluoride": 0.7}, wishes=wish, **TOWN)
        met = {x.option.name: (x.meets, x.not_met) for x in reversed(s.lines)}
        self.assertEqual(met["Membrane at the drinking tap"], (1, ()))
        self.assertEqual(met["Do nothing"], (0, ("fluoride: at the drinking tap",)))

    def test_radon_is_breathed_and_no_bottle_answers_it(self):
        _, s = asked({**CLEAN_WELL, "radon": 12000.0})
        self.assertIn(WAIT_FOR_AIR, ideas(s))
        _, both = asked({**CLEAN_WELL, "radon": 12000.0, "nitrate_n": 14.0})
        self.assertIn(WAIT, ideas(both))

    def test_soft_water_is_not_softened_for_its_iron_alone(self):
        values = {**CLEAN_WELL, "hardness": 3 * GPG, "iron": 0.5}
        _, s = asked(values, ("orange_streaks",))
        self.assertEqual(ideas(s)[0], "Iron filter")
        softened = [x for x in s.lines if x.option.name == "Softener"]
        self.assertTrue(softened and all(FOR_IRON_ALONE in x.watch for x in softened))
        both = [x for x in s.lines if x.option.name == "Iron filter + Softener"]
        self.assertTrue(both and not any(FOR_IRON_ALONE in x.watch for x in both))
        _, hard = asked({**values, "hardness": 12 * GPG}, ("orange_streaks", "white_crust"))
        self.assertFalse(any(FOR_IRON_ALONE in x.watch for x in hard.lines))


class WithNoUpperEnd(unittest.TestCase):
    """A test that ended above its last step, or a gauge above what pipe may stand under."""

    def test_hardness_past_the_last_step_is_diluted_before_it_is_sized(self):
        _, s = asked({**ON_CHALK, "hardness": Range.of(425, 425, None)}, ("white_crust",), **TOWN)
        self.assertEqual(ideas(s)[0], "Do nothing")
        self.assertEqual(len(s.finer), 1)
        self.assertIn("dilute the sample and repeat", s.finer[0])
        self.assertIn("Hardness at least 24.8 gpg", s.finer[0])

    def test_a_closed_range_up_there_is_sized(self):
        _, s = asked({**ON_CHALK, "hardness": Range.of(425, 430, 440)}, ("white_crust",), **TOWN)
        self.assertEqual(ideas(s)[0], "Softener")
        self.assertEqual(s.finer, ())

    def test_bacteria_without_a_count_are_answered_all_the_same(self):
        many = {**CLEAN_WELL, "coliform": Range.of(200, 200, None)}
        _, s = asked(many)
        self.assertTrue(any("Bacteria: look for the way in" in t for t in s.first))
        self.assertFalse(any("dilute" in t for t in s.finer))

    def test_iron_astride_says_once_that_nothing_is_proposed(self):
        _, s = asked({**CLEAN_WELL, "iron": Range.of(0.2, 0.35, 0.5)}, ("orange_streaks",))
        self.assertTrue(
            s.finer[0].endswith("Measure it finer: iron kit. Nothing is proposed for it.")
        )

    def test_a_regulator_comes_first_above_80_psi(self):
        for psi, told in ((95.0, True), (80.0, False), (None, False)):
            with self.subTest(psi=psi):
                _, s = asked(ON_CHALK, ("white_crust",), static_psi=psi, **TOWN)
                self.assertEqual(any("pressure regulator ahead" in t for t in s.first), told)

    def test_the_gauge_speaks_where_the_home_says_nothing(self):
        _, s = asked({**ON_CHALK, "pressure_static": 92.0}, (), **TOWN)
        self.assertTrue(any("pressure regulator ahead" in t for t in s.first))
        _, s = asked({**ON_CHALK, "pressure_static": 92.0}, (), static_psi=70.0, **TOWN)
        self.assertFalse(any("pressure regulator ahead" in t for t in s.first))


class TownHomes(unittest.TestCase):
    def test_crust_where_brine_is_forbidden(self):
        _, s = asked(ON_CHALK, ("white_crust",), **TOWN, brine_forbidden=True)
        self.assertEqual(ideas(s), ["Salt-free conditioner", "Do nothing"])
        self.assertEqual(s.lines[0].leaves, ("hardness",))
        self.assertIn("The nearest is “Salt-free conditioner”", s.unanswered)

    def test_a_softener_comes_before_less_scale(self):
        _, s = asked(ON_CHALK, ("white_crust",), **TOWN)
        self.assertEqual(ideas(s)[:2], ["Softener", "Salt-free conditioner"])
        self.assertTrue(any("vinegar" in t for t in s.first))

    def test_dry_skin_is_nothing_for_a_conditioner(self):
        _, s = asked(ON_CHALK, ("dry_skin",), **TOWN)
        conditioner = next(x for x in s.lines if x.option.name == "Salt-free conditioner")
        self.assertEqual(conditioner.answers["hardness"], 0.0)

    def test_a_diet_low_in_sodium(self):
        _, s = asked(ON_CHALK, ("white_crust",), Care(consent=True, low_sodium=True), **TOWN)
        self.assertIn("for potassium", s.lines[0].names[0])
        tap = next(x for x in s.lines if x.option.name == "Softener + Membrane at the drinking tap")
        plain = [x for x in s.lines if x.option.name == "Softener" and x.against_diet]
        self.assertEqual(tap.against_diet, 0)
        self.assertTrue(all(s.lines.index(x) > 0 for x in plain))

    def test_taste_of_chlorine_asks_for_a_jug_then_for_one_tap(self):
        values = {**SOFT_TOWN, "chlorine_free": 1.2, "chlorine_total": 1.3}
        _, s = asked(values, ("taste",), **TOWN)
        self.assertTrue(s.lines[0].tap_only)
        self.assertTrue(any("jug" in t for t in s.first))

    def test_lead_from_the_pipes(self):
        m, s = asked({**SOFT_TOWN, "lead": 0.02}, (), Care(consent=True, infant=True), **TOWN)
        self.assertTrue(s.lines[0].tap_only)
        self.assertTrue(any("flushed" in t for t in m.tonight))
        self.assertIn("Buy nothing yet, bring drinking water", ideas(s))

    def test_dialysis_changes_nothing_before_the_clinic_has_answered(self):
        values = {**SOFT_TOWN, "chlorine_free": 0.1, "chlorine_total": 1.8}
        m, s = asked(values, (), Care(consent=True, dialysis=True), **TOWN)
        self.assertFalse(s.nothing_needed)
        self.assertTrue(any("clinic" in t for t in m.tonight))
        self.assertEqual(ideas(s)[0], "Do nothing")

    def test_an_aquarium_needs_no_equipment(self):
        values = {**SOFT_TOWN, "chlorine_free": 0.1, "chlorine_total": 0.4}
        _, s = asked(values, (), Care(consent=True, aquarium=True), **TOWN)
        self.assertEqual(ideas(s)[0], "Do nothing")
        self.assertTrue(any("aquarium" in t.lower() for t in s.first))

    def test_a_bed_made_for_tannin_is_no_softener_where_there_is_none(self):
        about = {**TOWN, "bathrooms": 9, "people": 20}  # where few softeners are large enough
        _, s = asked(ON_CHALK, ("white_crust",), **about)
        self.assertNotIn("TM-20", {c.item for line in s.lines for c in line.option.stages})
        (why,) = (x.sentence for x in s.left_out if x.code == "TM-20")
        self.assertIn("tannin, which was not found", why)
        _, brown = asked({**CLEAN_WELL, "tannin": 2.0, "hardness": 150.0}, ("brown_water",))
        self.assertNotIn("not found", "".join(x.sentence for x in brown.left_out))

    def test_an_infant_behind_an_unknown_service_line_asks_for_lead(self):
        for line, wants in (("", True), ("lead", True), ("galvanised", True), ("copper", False)):
            about = {**TOWN, "service_line": line}
            m, _ = asked(SOFT_TOWN, (), Care(consent=True, infant=True), **about)
            self.assertEqual("lead" in {u.analyte for u in m.missing}, wants, line)


class Wishes(unittest.TestCase):
    """What they wish less of is searched for, said to be a wish, and never a reason of health."""

    FLUORIDE = {**SOFT_TOWN, "chlorine_free": 0.3, "chlorine_total": 0.4, "fluoride": 0.7}

    def test_less_fluoride(self):
        m, s = asked(self.FLUORIDE, (), wishes=(Wish(analyte="fluoride"),), **TOWN)
        self.assertEqual(s.wished, ("fluoride",))
        self.assertTrue(s.nothing_needed)  # a wish is no need
        self.assertFalse(m.tonight)
        best = s.lines[0]
        self.assertTrue(best.tap_only)
        self.assertGreater(best.answers["fluoride"], 0.8)
        self.assertNotIn("fluoride", asked(self.FLUORIDE, (), **TOWN)[1].wanted)

    def test_a_wish_that_is_met_already_asks_for_nothing(self):
        _, s = asked(self.FLUORIDE, (), wishes=(Wish(analyte="fluoride", target=1.0),), **TOWN)
        self.assertEqual(s.wished, ())
        self.assertEqual(ideas(s)[0], "Do nothing")

    def test_a_wish_for_what_was_not_tested_asks_for_the_test(self):
        _, s = asked(SOFT_TOWN, (), wishes=(Wish(analyte="fluoride"),), **TOWN)
        self.assertTrue(any("wish less fluoride: it is not tested" in t for t in s.first))

    def test_a_wish_beyond_a_limit_is_the_target(self):
        rules = Rules()
        wish = Wish(analyte="fluoride", target=0.3)
        self.assertEqual(wanted_of("fluoride", rules, wish)[:2], (0.3, AS_WISHED))
        lax = wanted_of("fluoride", rules, Wish(analyte="fluoride", target=3.0))
        self.assertEqual(lax, wanted_of("fluoride", rules, None))
        self.assertEqual(wanted_of("fluoride", rules, Wish(analyte="fluoride"))[0], None)

    def test_what_cannot_be_wished(self):
        for bad in ({"analyte": "ph"}, {"analyte": "fluoride", "target": -1}):
            with self.assertRaises(RuleError) as e:
                Wish(**bad)
            self.assertEqual(e.exception.where, "home.wishes")


class Wells(unittest.TestCase):
    def test_bacteria_first_the_way_in_then_a_lamp(self):
        values = {**CLEAN_WELL, "coliform": Range.exact(1), "uvt": 92, "turbidity": 0.3}
        m, s = asked(values)
        self.assertEqual(ideas(s)[0], "Sediment filter + UV")
        self.assertIn("rolling boil", s.first[0])
        self.assertIn("look for the way in", s.first[1])
        self.assertTrue(any("rolling boil" in t for t in m.tonight))

    def test_nitrate_for_an_infant(self):
        m, s = asked({**CLEAN_WELL, "nitrate_n": 14.0}, (), Care(consent=True, infant=True))
        self.assertEqual(ideas(s)[0], "Membrane at the drinking tap")
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
        self.assertFalse(any("astride" in t for t in over.first))

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
        self.assertEqual(ideas(s)[0], "Membrane at the drinking tap")

    def test_a_salty_taste_asks_for_a_panel_and_for_one_tap(self):
        values = {**CLEAN_WELL, "tds": 1500}
        m, s = asked(values, ("taste",))
        self.assertFalse(m.unexplained)
        self.assertEqual(s.wanted[0], "tds")
        self.assertTrue(s.lines[0].tap_only)
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
        self.assertIn("Acid neutraliser", ideas(s)[0])
        self.assertTrue(any("first draw" in t for t in s.first))

    def test_acid_water_with_iron_bound_to_tannin(self):
        values = {**CLEAN_WELL, "ph": 6.4, "iron": 2.0, "tannin": 0.9, "alkalinity": 60}
        _, s = asked(values, ("orange_streaks",))
        self.assertEqual(ideas(s)[0], "Acid neutraliser + Softener")
        self.assertTrue(any("Tannin binds iron" in t for t in s.lines[0].watch))
        self.assertLess(s.lines[0].answers["iron"], 0.7)

    def test_radon(self):
        _, s = asked({**CLEAN_WELL, "radon": 12000.0})
        self.assertEqual(ideas(s)[0], "Aeration")
        self.assertTrue(any("indoor air" in t for t in s.first))
        self.assertFalse([x for x in s.lines for n in x.names if "arbon bed" in n])

    def test_a_little_radon_beside_arsenic_goes_to_the_indoor_air_first(self):
        values = {**CLEAN_WELL, "arsenic": 0.014, "fluoride": 2.6}
        for radon, first in ((3434.0, "Membrane at the drinking tap"), (12000.0, "Aeration + ")):
            _, s = asked({**values, "radon": radon})
            self.assertTrue(ideas(s)[0].startswith(first), (radon, ideas(s)[:2]))
            self.assertTrue(any("indoor air" in t for t in s.first))
        _, s = asked({**values, "radon": 3434.0})
        self.assertIn("radon", s.lines[0].leaves)

    def test_copper_from_acid_water_is_answered_at_its_cause(self):
        acid = {**CLEAN_WELL, "ph": 6.3, "alkalinity": 40, "copper": 1.6, "copper_flushed": 0.1}
        _, s = asked(acid, ("blue_green",))
        self.assertEqual(ideas(s)[0], "Acid neutraliser")
        self.assertFalse(any("one tap is enough" in t for t in s.first))
        # where it comes in with the water, no pH corrects it
        _, s = asked({**acid, "copper_flushed": 1.5}, ("blue_green",))
        self.assertIn("Membrane", ideas(s)[0])

    def test_what_nobody_asked_for_comes_behind_the_line_without_it(self):
        for values in ({"pfoa": 8e-6}, {"uranium": 0.05}, {"nitrate_n": 14.0}):
            _, s = asked({**ON_CHALK, **values}, **TOWN)
            self.assertEqual(ideas(s)[0], "Membrane at the drinking tap", values)
        _, s = asked({**ON_CHALK, "pfoa": 8e-6}, **TOWN)
        self.assertTrue(any("ask the supply" in t for t in s.first))
        _, s = asked({**ON_CHALK, "pfoa": 8e-6}, ("white_crust",), **TOWN)
        self.assertIn("Softener", ideas(s)[0])  # asked for, it belongs to the line

    def test_much_manganese_asks_like_a_complaint(self):
        care = Care(consent=True, infant=True)
        _, s = asked({**CLEAN_WELL, "manganese": 0.4}, care=care)
        self.assertEqual(ideas(s)[0], "Iron filter")
        self.assertIn("An infant and manganese", s.first[0])
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
        wants = "ends every line here"
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
        self.assertTrue(any("before a line is chosen" in t for t in said))

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
        self.assertEqual(ideas(s)[0], "Membrane at the drinking tap")

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
            "Dialysis at home: nothing is changed on this water before the clinic has answered.",
        )

    def test_a_health_finding_keeps_its_order_beside_dialysis(self):
        care = Care(consent=True, dialysis=True)
        _, s = asked({**CLEAN_WELL, "nitrate_n": 14.0}, (), care)
        self.assertEqual(ideas(s)[0], "Membrane at the drinking tap")

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
        self.assertIn("“slime” is not explained yet: next, laboratory: iron bacteria.", s.first)

    def test_water_above_neutral_is_not_taken_for_acid(self):
        _, s = asked({**CLEAN_WELL, "ph": 8.9})
        self.assertFalse([t for t in s.first if "Acid" in t])
        self.assertFalse([x for x in ideas(s) if "neutraliser" in x])

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
        self.assertEqual(s.lines[0].ahead, "1 fewer to watch than the next.")  # a still is work
        alike = replace(s.lines[0], watch=s.lines[1].watch)
        dearer = replace(s.lines[1], cost=alike.cost + 500, option=self.other(s))
        told = with_reasons((alike, dearer), settings(), 10)
        self.assertRegex(told[0].ahead, r"^Costs \$[\d,]+ less over 10 years than the next\.$")
        _, s = asked(ON_CHALK, ("white_crust",), **TOWN)
        self.assertEqual(s.lines[0].ahead, "Answers hardness, which the next does not.")
        most = replace(s.lines[0], not_met=("hardness: at the house’s taps",))
        other = next(x for x in s.lines if x.option.name != most.option.name)
        told = with_reasons((most, other), settings(), 10)
        self.assertEqual(
            told[0].ahead, "Goes most of the way for hardness, which the next does not."
        )

    @staticmethod
    def other(s):
        """An option of another name than the first line's."""
        return next(x.option for x in s.lines if x.option.name != s.lines[0].option.name)


def by_kit(values: dict, signs: tuple[str, ...], **about) -> Suggestion:
    """What is proposed where no laboratory vouches for any figure."""
    drawn = water(**values)
    seen = {k: replace(v, laboratory=False, certified=False) for k, v in drawn.values.items()}
    drawn, place = replace(drawn, values=seen), home(**about)
    told = tuple(Complaint(id=s, sign=s, words=s.replace("_", " ")) for s in signs)
    m = meaning(drawn, place, told, Rules())
    return suggest(drawn, m, place, settings(), Rules(), demo_items(), complaints=told)


class Diets(unittest.TestCase):
    """Sodium in the water itself, for who keeps a strict diet and for who does not."""

    SALTY = {**CLEAN_WELL, "sodium": 60.0, "hardness": 15.0}

    def test_a_diet_is_told_and_one_tap_is_proposed(self):
        m, s = asked(self.SALTY, (), Care(consent=True, low_sodium=True))
        self.assertTrue(any("diet low in sodium" in t for t in m.tonight))
        self.assertEqual(ideas(s)[0], "Membrane at the drinking tap")
        self.assertEqual(s.wished, ())

    def test_without_the_diet_it_asks_for_nothing(self):
        m, s = asked(self.SALTY)
        self.assertEqual(m.tonight, ())
        self.assertEqual(ideas(s)[0], "Do nothing")

    def test_under_twenty_nobody_is_told(self):
        m, s = asked({**self.SALTY, "sodium": 19.0}, (), Care(consent=True, low_sodium=True))
        self.assertFalse(any("sodium" in t for t in m.tonight))
        self.assertEqual(ideas(s)[0], "Do nothing")

    def test_a_well_that_was_not_tested_for_it_is(self):
        values = {k: v for k, v in self.SALTY.items() if k != "sodium"}
        m, _ = asked(values, (), Care(consent=True, low_sodium=True))
        self.assertIn("sodium", {u.analyte for u in m.missing})

    def test_from_two_hundred_it_is_tasted(self):
        for sodium, tasted in ((199.0, False), (201.0, True)):
            m, _ = asked({**self.SALTY, "sodium": sodium}, ("taste",))
            self.assertEqual(not m.unexplained, tasted, sodium)


class CopperStains(unittest.TestCase):
    def test_copper_itself_explains_them_at_any_ph(self):
        m, _ = asked({**SOFT_TOWN, "copper": 2.0}, ("blue_green",), **TOWN)
        self.assertEqual(m.unexplained, ())


class SurfaceWater(unittest.TestCase):
    """Lake, cistern, spring and dug well: what the source alone asks, tested or not."""

    def card(self, source, **more):
        m, s = asked({**SOFT_TOWN, **more}, source=source, pump_gpm=None)
        return " ".join(m.tonight), s

    def test_a_lake_that_nobody_tested_is_not_drunk_untreated(self):
        said, s = self.card(Source.LAKE)
        self.assertIn("not drunk untreated", said)
        self.assertTrue(any("bacteria and UV transmittance" in t for t in s.first))

    def test_one_clean_sample_of_a_cistern_changes_nothing(self):
        said, s = self.card(Source.CISTERN, coliform=0.0, e_coli=0.0, uvt=85.0)
        self.assertIn("One clean sample does not change that", said)
        self.assertFalse(any("before a line is chosen" in t for t in s.first))

    def test_what_was_found_is_said_once(self):
        said, _ = self.card(Source.LAKE, e_coli=2.0)
        self.assertIn("Microbes: bring drinking water", said)
        self.assertNotIn("not drunk untreated", said)

    def test_beside_nitrate_it_is_not_boiled(self):
        said, _ = self.card(Source.LAKE, nitrate_n=14.0)
        self.assertIn("bottled water only, to drink and to cook", said)
        self.assertNotIn("rolling boil", said)

    def test_a_spring_is_boiled_until_it_was_tested(self):
        for source in (Source.SPRING, Source.WELL_DUG):
            self.assertIn("until a laboratory has found none", self.card(source)[0])
            self.assertEqual(self.card(source, coliform=0.0)[0], "")
        self.assertEqual(self.card(Source.WELL_DRILLED)[0], "")
        self.assertEqual(self.card(Source.CITY)[0], "")

    def test_a_line_that_disinfects_nothing_says_so(self):
        _, s = self.card(Source.CISTERN, ph=5.8, alkalinity=10.0)
        first = next(x for x in s.lines if x.option.stages)
        self.assertTrue(any("Nothing in this line disinfects" in w for w in first.watch))
        _, well = self.card(Source.WELL_DRILLED, ph=5.8, alkalinity=10.0)
        first = next(x for x in well.lines if x.option.stages)
        self.assertFalse(any("disinfects" in w for w in first.watch))

    def test_sand_is_no_work_for_fibres(self):
        _, s = self.card(Source.WELL_DRILLED, turbidity=6.0, coliform=0.0)
        self.assertEqual(ideas(s)[0], "Sediment filter")


class NearALimit(unittest.TestCase):
    """A stain is answered; whether it is of health is settled by a laboratory, and first."""

    def test_a_kit_right_at_the_guideline_asks_a_laboratory_first(self):
        s = by_kit({**CLEAN_WELL, "manganese": 0.08}, ("black_stains",))
        self.assertIn("certified laboratory’s sample settles it", s.first[0])
        self.assertEqual(ideas(s)[0], "Iron filter")

    def test_a_kit_astride_it_and_one_over_it_ask_too(self):
        for value in (Range.of(0.06, 0.075, 0.09), 0.2):
            s = by_kit({**CLEAN_WELL, "manganese": value}, ("black_stains",))
            self.assertTrue(any("certified laboratory’s sample" in t for t in s.first), value)

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
