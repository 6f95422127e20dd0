"""What is said first and what is proposed first agree: homes worked out by hand, with what a
consultant of many years would put first, written before they were run.
"""

import unittest

from tests.core.proposing.test_more_homes import (
    CLEAN_WELL,
    GPG,
    ON_CHALK,
    SOFT_TOWN,
    TOWN,
    asked,
    ideas,
)
from zesty_glass.core.home import Source
from zesty_glass.core.proposing.first import FIRST
from zesty_glass.core.proposing.priorities import (
    ANODE_FIRST,
    MINERALS_FIRST,
    PRIORITIES,
    SLIME_FIRST,
    SURFACE_FIRST,
    TOWN_ACID_FIRST,
    TURBID_FIRST,
    WAY_IN_FIRST,
)
from zesty_glass.core.proposing.ranking import WAIT

ACID = {"ph": 6.2, "alkalinity": 30.0, "carbon_dioxide": 40.0}
SLIMY = {**CLEAN_WELL, "iron": 1.5}
#: first steps that say "before" and hold back one thing only, or nothing that is sold here
OF_ONE_THING = {
    "indoor_air": "the line that buys nothing tests the air already",
    "regulator": "a regulator is fitted with whatever is fitted",
    "transmittance": "a lamp alone waits for it",
    "pressure": "a pump alone waits for it",
    "manganese": "the line says that it is open",
    "rusted_haze": "the cups are at hand: no sale waits for them",
    "good_at_the_tap": "taste_there",
    "confirm_kit": "second_sample",
    "utility_microbes": "supply",
    "utility_health": "supply",
    "brackish": "minerals",
    "panel": "minerals",
    "utility_ph": "town_acid",
    "surface": "surface water is never sold untreated: its lines begin with disinfection",
}


def first(values, signs=(), **about) -> tuple[str, str]:
    _, s = asked(values, signs, **about)
    return ideas(s)[0], s.lines[0].ahead


class Agrees(unittest.TestCase):
    def test_acid_town_water_is_the_supplys_to_answer_for(self):
        acid = {**SOFT_TOWN, **ACID}
        for signs in ((), ("metal_taste",), ("blue_green",)):
            with self.subTest(signs):
                self.assertEqual(first(acid, signs, **TOWN), ("Do nothing", TOWN_ACID_FIRST))

    def test_but_crust_beside_it_is_answered(self):
        hard = {**ON_CHALK, **ACID, "hardness": 14 * GPG}
        self.assertNotEqual(first(hard, ("white_crust",), **TOWN)[1], TOWN_ACID_FIRST)

    def test_an_acid_well_is_neutralized_for_all_its_pipes_though_it_is_only_tasted(self):
        acid = {**CLEAN_WELL, **ACID, "hardness": 2 * GPG, "temperature": 12}
        for signs in ((), ("metal_taste",), ("blue_green",)):
            with self.subTest(signs):
                self.assertIn("neutraliser", first(acid, signs)[0])

    def test_slime_with_iron_is_disinfected_before_a_bed_is_sold(self):
        self.assertEqual(first(SLIMY, ("slime", "orange_streaks")), ("Do nothing", SLIME_FIRST))
        self.assertNotEqual(first(SLIMY, ("orange_streaks",))[1], SLIME_FIRST)
        found = {**SLIMY, "coliform": 5.0}
        self.assertEqual(first(found, ("slime",)), (WAIT, WAY_IN_FIRST))

    def test_a_hot_tap_that_smells_has_its_anode_looked_at(self):
        self.assertEqual(first(ON_CHALK, ("egg_smell_hot",), **TOWN), ("Do nothing", ANODE_FIRST))
        both = first(ON_CHALK, ("egg_smell_hot", "white_crust"), **TOWN)
        self.assertEqual(both[0], "Softener")

    def test_so_much_that_is_tasted_is_told_apart_by_a_laboratory(self):
        salty = {**SOFT_TOWN, "tds": 950.0}
        self.assertEqual(first(salty, ("taste",), **TOWN), ("Do nothing", MINERALS_FIRST))
        known = {**salty, "sulfate": 320.0, "chloride": 100.0, "sodium": 60.0}
        self.assertNotEqual(first(known, ("taste",), **TOWN)[1], MINERALS_FIRST)

    def test_a_turbid_well_is_tested_for_bacteria_before_it_is_cleared(self):
        haze = {k: v for k, v in CLEAN_WELL.items() if k != "coliform"} | {"turbidity": 6.0}
        idea, why = first(haze, ("haze",), source=Source.WELL_DRILLED)
        self.assertEqual((idea, why), (WAIT, TURBID_FIRST))
        self.assertNotEqual(first({**haze, "coliform": 0.0}, ("haze",))[1], TURBID_FIRST)

    def test_a_lake_is_tested_for_bacteria_and_light_before_anything_is_sold(self):
        lake = {"iron": 1.0, "hardness": 2 * GPG, "tds": 90, "ph": 7.2}
        for signs in ((), ("orange_streaks",)):
            with self.subTest(signs):
                idea, why = first(lake, signs, source=Source.LAKE, pump_gpm=None)
                self.assertEqual((idea, why), (WAIT, SURFACE_FIRST))

    def test_every_first_step_that_comes_before_buying_has_its_priority(self):
        named = {p.id for p in PRIORITIES} | set(OF_ONE_THING)
        said = {f.id for f in FIRST if " before " in f.sentence and f.id not in named}
        before = {
            f.id
            for f in FIRST
            if f.id in said
            and any(w in f.sentence for w in ("bought", "chosen", "sold", "fitted", "clears"))
        }
        self.assertEqual(before, set())


class Table(unittest.TestCase):
    def test_each_has_its_sentence_source_and_year(self):
        self.assertEqual(len({p.id for p in PRIORITIES}), len(PRIORITIES))
        for p in PRIORITIES:
            with self.subTest(p.id):
                self.assertTrue(p.why.endswith(".") and p.source and p.year >= 1974)
                self.assertIn(p.moves, ("nothing", "service"))


if __name__ == "__main__":
    unittest.main()
