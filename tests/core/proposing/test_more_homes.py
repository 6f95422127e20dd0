"""What a seasoned consultant proposes first in homes outside the demo, what is refused and what is
asked; written down by hand from the trade's rules, not from what the tool said.
"""

import unittest
from dataclasses import replace
from datetime import timedelta

from tests.making import NOON, from_lab, home, sample, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source, Wish
from zesty_glass.core.proposing.priorities import (
    BEYOND_FIRST,
    BLOOM_FIRST,
    CAUSE_FIRST,
    FLOOD_FIRST,
    SUPPLY_FIRST,
    WAY_IN_FIRST,
    WISH_FIRST,
)
from zesty_glass.core.proposing.ranking import FOR_IRON_ALONE, WAIT, WAIT_FOR_AIR
from zesty_glass.core.proposing.rows import AS_WISHED, wanted_of
from zesty_glass.core.proposing.suggest import suggest
from zesty_glass.core.proposing.suggested import Suggestion
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import Meaning, meaning
from zesty_glass.core.testing.value import Value

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
    return m, suggest(drawn, m, place, settings(), Rules(), example_items(), complaints=told)


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
        return suggest(drawn, m, place, settings(), Rules(), example_items())

    def test_a_lamp_is_proposed_with_the_test_that_is_open(self):
        s = self.found("hydrogen_sulfide")
        first = next(x for x in s.lines if x.option.stages)
        self.assertEqual(s.lines[0].ahead, WAY_IN_FIRST)
        self.assertEqual((first.option.name, s.unanswered), ("Sediment filter + UV system", ""))
        self.assertIn("Hydrogen sulfide not tested: at most 0.05 mg/L here.", first.open)
        self.assertEqual((first.health, first.leaves), (0.95, ()))
        self.assertEqual(max(x.health for x in self.found().lines), 1.0)

    def test_what_changes_the_water_ahead_is_open_and_not_against_it(self):
        s = self.found("hydrogen_sulfide", iron=1.2)
        self.assertEqual(ideas(s)[1], "Iron filter + Sediment filter + UV system")

    def test_without_its_transmittance_or_in_dark_water_none_is(self):
        for more in ({"uvt": None}, {"uvt": 60.0}):
            with self.subTest(more):
                s = self.found(**more)
                self.assertFalse([x for x in s.lines if "UV" in x.option.name])

    def test_clean_lake_water_ends_in_a_lamp_all_the_same(self):
        values = {**SOFT_TOWN, "coliform": 0.0, "uvt": 93.0, "turbidity": 0.3, "tannin": 0.0}
        values |= {"manganese": 0.0, "hydrogen_sulfide": 0.0}
        _, lake = asked(values, source=Source.LAKE)
        self.assertEqual(
            (ideas(lake)[0], lake.wanted), ("Sediment filter + UV system", ("coliform",))
        )
        _, well = asked(values, source=Source.WELL_DRILLED)
        self.assertEqual(ideas(well)[0], "Do nothing")
        _, open_still = asked({k: v for k, v in values.items() if k != "uvt"}, source=Source.LAKE)
        self.assertNotIn("coliform", open_still.wanted)


class OwnWork(unittest.TestCase):
    def test_what_asks_for_hours_every_week_is_warned_of_and_stands_behind(self):
        care = Care(consent=True, low_sodium=True, low_potassium=True)
        values = {**ON_CHALK, "hardness": 20 * GPG, "sodium": 10}
        _, s = asked(values, ("white_crust",), care, **TOWN)
        cheapest = ["Softener + Raw kitchen line", "Softener + RO system at the drinking tap"]
        self.assertEqual(ideas(s)[:2], cheapest)
        stills = [x for x in s.lines if "Distiller" in x.option.name]
        work = "It takes about 92 hours of your time a year."  # 5,522 min
        self.assertTrue(stills and all(work in x.watch for x in stills))
        warned = [x for x in s.lines if any(t.startswith("It takes about") for t in x.watch)]
        self.assertEqual(warned, [x for x in s.lines if x.own_minutes >= 1200])


class SaidAndDone(unittest.TestCase):
    """What is said before buying, and what stands first, say the same."""

    def test_bacteria_in_town_water_are_the_supplys_and_nothing_is_sold_first(self):
        values = {**ON_CHALK, "e_coli": 1.0, "coliform": 1.0}
        _, s = asked(values, ("white_crust",), **TOWN)
        self.assertEqual((ideas(s)[0], s.lines[0].ahead), (WAIT, SUPPLY_FIRST))
        _, well = asked({**CLEAN_WELL, "e_coli": 1.0, "uvt": 90.0, "turbidity": 0.2})
        self.assertEqual((ideas(well)[0], well.lines[0].ahead), (WAIT, WAY_IN_FIRST))
        self.assertEqual(ideas(well)[1], "Sediment filter + UV system")
        for town in ({"arsenic": 0.02}, {"nitrate_n": 14.0}, {"fluoride": 4.4}, {"pfoa": 8e-6}):
            _, other = asked({**ON_CHALK, **town}, **TOWN)
            self.assertEqual(other.lines[0].ahead, SUPPLY_FIRST, town)
        _, pipes = asked({**ON_CHALK, "lead": 0.02}, **TOWN)  # which the supply does not bring
        self.assertNotEqual(pipes.lines[0].ahead, SUPPLY_FIRST)

    def test_a_flood_and_a_bloom_come_before_any_sale(self):
        _, well = asked({**CLEAN_WELL, "iron": 1.5}, ("flood", "orange_streaks"))
        self.assertEqual(well.lines[0].ahead, FLOOD_FIRST)
        self.assertTrue(any("stood under water" in t for t in well.first))
        lake = {**SOFT_TOWN, "coliform": 0.0, "uvt": 93.0, "turbidity": 0.3, "tannin": 0.0}
        _, green = asked(lake, ("bloom",), source=Source.LAKE)
        self.assertEqual(green.lines[0].ahead, BLOOM_FIRST)
        self.assertTrue(any("cyanotoxins" in t for t in green.first))

    def test_bacteria_found_again_are_what_treatment_is_for(self):
        twice = [
            sample(from_lab("e_coli", qualifier="present"), drawn_at=NOON + timedelta(days=d))
            for d in (0, 21)
        ]
        again = replace(twice[1].readings[0], id="again", made_at=NOON + timedelta(days=21))
        both = (replace(twice[0], readings=(*twice[0].readings, again)),)
        values = water(**{**CLEAN_WELL, "e_coli": 1.0, "uvt": 90.0, "turbidity": 0.2})
        m = meaning(values, home(), (), Rules())

        def first(samples):
            s = suggest(values, m, home(), settings(), Rules(), example_items(), samples=samples)
            return s.lines[0].option.name

        self.assertEqual(first(twice[:1]), WAIT)
        self.assertEqual(first(both), "Sediment filter + UV system")

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
        self.assertIn(
            "Less sodium is wanted, but it is not tested yet: laboratory: sodium.", s.first
        )
        _, crust = asked(ON_CHALK, ("white_crust",), wishes=wish, **TOWN)
        self.assertEqual(ideas(crust)[0], "Softener")

    def test_a_wish_without_a_figure_is_not_met_by_doing_nothing(self):
        wish = (Wish(analyte="fluoride"),)
        _, s = asked({**SOFT_TOWN, "fluoride": 0.7}, wishes=wish, **TOWN)
        met = {x.option.name: (x.meets, x.not_met) for x in reversed(s.lines)}
        self.assertEqual(met["RO system at the drinking tap"], (1, ()))
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
        self.assertTrue(any("look for the way in" in t for t in s.first))
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
                self.assertEqual(any("pressure regulator before" in t for t in s.first), told)

    def test_the_gauge_speaks_where_the_home_says_nothing(self):
        _, s = asked({**ON_CHALK, "pressure_static": 92.0}, (), **TOWN)
        self.assertTrue(any("pressure regulator before" in t for t in s.first))
        _, s = asked({**ON_CHALK, "pressure_static": 92.0}, (), static_psi=70.0, **TOWN)
        self.assertFalse(any("pressure regulator before" in t for t in s.first))


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
        self.assertEqual(ideas(s)[:2], ["Softener + Raw kitchen line", "Softener"])
        self.assertEqual(s.lines[0].against_diet, 0)
        self.assertIn("for potassium", s.lines[1].names[0])
        tap = next(
            x for x in s.lines if x.option.name == "Softener + RO system at the drinking tap"
        )
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
        self.assertTrue(any("Less fluoride is wanted, but it is not tested" in t for t in s.first))

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


def by_kit(values: dict, signs: tuple[str, ...], **about) -> Suggestion:
    """What is proposed where no laboratory vouches for any figure."""
    drawn = water(**values)
    seen = {k: replace(v, laboratory=False, certified=False) for k, v in drawn.values.items()}
    drawn, place = replace(drawn, values=seen), home(**about)
    told = tuple(Complaint(id=s, sign=s, words=s.replace("_", " ")) for s in signs)
    m = meaning(drawn, place, told, Rules())
    return suggest(drawn, m, place, settings(), Rules(), example_items(), complaints=told)


class Diets(unittest.TestCase):
    """Sodium in the water itself, for who keeps a strict diet and for who does not."""

    SALTY = {**CLEAN_WELL, "sodium": 60.0, "hardness": 15.0}

    def test_a_diet_is_told_and_one_tap_is_proposed(self):
        m, s = asked(self.SALTY, (), Care(consent=True, low_sodium=True))
        self.assertTrue(any("diet low in sodium" in t for t in m.tonight))
        self.assertEqual(ideas(s)[0], "RO system at the drinking tap")
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
        self.assertIn("Do not drink lake or cistern water untreated", said)
        self.assertTrue(any("bacteria and UV transmittance" in t for t in s.first))

    def test_one_clean_sample_of_a_cistern_changes_nothing(self):
        said, s = self.card(Source.CISTERN, coliform=0.0, e_coli=0.0, uvt=85.0)
        self.assertIn("One clean sample does not change that", said)
        self.assertFalse(any("before a system is chosen" in t for t in s.first))

    def test_what_was_found_is_said_once(self):
        said, _ = self.card(Source.LAKE, e_coli=2.0)
        self.assertIn("Microbes were found. Bring drinking water", said)
        self.assertNotIn("Do not drink lake or cistern water untreated", said)

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
        self.assertTrue(any("Nothing in this system disinfects" in w for w in first.watch))
        _, well = self.card(Source.WELL_DRILLED, ph=5.8, alkalinity=10.0)
        first = next(x for x in well.lines if x.option.stages)
        self.assertFalse(any("disinfects" in w for w in first.watch))

    def test_sand_is_no_work_for_fibres(self):
        _, s = self.card(Source.WELL_DRILLED, turbidity=6.0, coliform=0.0)
        self.assertEqual(ideas(s)[0], "Sediment filter")


if __name__ == "__main__":
    unittest.main()
