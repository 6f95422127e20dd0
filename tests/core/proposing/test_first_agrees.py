"""What is said first and what is proposed first agree: homes worked out by hand, with what a
consultant of many years would put first, written before they were run.
"""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime

from tests.core.proposing.test_more_homes import (
    CLEAN_WELL,
    GPG,
    ON_CHALK,
    SOFT_TOWN,
    TOWN,
    asked,
    ideas,
)
from tests.making import from_lab, home, sample, shown
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.home import Source
from zesty_glass.core.in_place import InPlace
from zesty_glass.core.proposing.first import FIRST
from zesty_glass.core.proposing.priorities import (
    ANODE_FIRST,
    BLOOM_FIRST,
    FLOOD_FIRST,
    JUDGE_FIRST,
    MINERALS_FIRST,
    PRIORITIES,
    SECOND_FIRST,
    SERVICE_FIRST,
    SLIME_FIRST,
    SPECIES_FIRST,
    SURFACE_FIRST,
    TOWN_ACID_FIRST,
    TURBID_FIRST,
    WAY_IN_FIRST,
)
from zesty_glass.core.proposing.ranking import WAIT
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.demo.homes import home_1
from zesty_glass.work.catalogue import Question

BASIS = {"nitrate_n": "N", "alkalinity": "CaCO3"}
LAB_WELL = {
    "tds": 180.0,
    "ph": 7.4,
    "iron": 0.02,
    "manganese": 0.01,
    "hardness": 4 * GPG,
    "turbidity": 0.3,
    "nitrate_n": 1.0,
    "alkalinity": 120.0,
}
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
                self.assertIn("neutralizer", first(acid, signs)[0])

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

    def test_arsenics_form_is_told_before_what_hangs_on_it_is_sold(self):
        self.assertEqual(first({**CLEAN_WELL, "arsenic": 0.03}), (WAIT, SPECIES_FIRST))

    def test_a_mineral_that_is_known_to_be_tasted_asks_for_no_panel(self):
        salty = {**CLEAN_WELL, "sulfate": 600.0, "tds": 1300.0}
        self.assertNotEqual(first(salty, ("taste",))[1], MINERALS_FIRST)

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


class WhatStandsThere(unittest.TestCase):
    def first(self, values, device=None, signs=(), more=(), **about):
        base = home_1(datetime(2026, 11, 20, 9, tzinfo=UTC))
        readings = tuple(
            from_lab(a, None, v) if isinstance(v, str) else from_lab(a, v, basis=BASIS.get(a))
            for a, v in values.items()
        )
        readings = (*readings, *more)
        told = tuple(Complaint(id=s, sign=s, words=s) for s in signs)
        visit = replace(
            base,
            home=home(in_place=(device,) if device else (), **about),
            samples=(sample(*readings),),
            complaints=told,
            options=(),
            recommended=None,
            demonstrations=(),
            lab_samples=(),
        )
        items = {i.code: i for i in example_items()}
        line = Question(visit=visit, items=items).suggest().lines[0]
        return line.option.name, [k.how for k in line.option.keeps], line.ahead

    def test_a_worn_lamp_is_changed_whether_bacteria_were_found_or_not(self):
        lamp = InPlace(id="u", kind="uv", fitted_on=date(2019, 5, 1))
        for found in ("present", "absent"):
            with self.subTest(found):
                values = {**LAB_WELL, "coliform": found, "uvt": 92.0}
                _, how, why = self.first(values, lamp)
                self.assertEqual((how, why), (["service"], SERVICE_FIRST))

    def test_a_tap_filter_is_no_answer_to_microbes_nobody_looked_for(self):
        fridge = InPlace(
            id="f", kind="fridge", fitted_on=date(2024, 3, 1), changed_on=date(2024, 9, 1), months=6
        )
        lamp = InPlace(id="u", kind="uv", fitted_on=date(2019, 5, 1))
        cistern = {"source": Source.CISTERN, "pump_gpm": None}
        self.assertEqual(self.first(LAB_WELL, fridge, **cistern)[2], SURFACE_FIRST)
        self.assertEqual(self.first(LAB_WELL, fridge, source=Source.SPRING)[1], [])
        self.assertEqual(self.first(LAB_WELL, lamp, **cistern)[2], SERVICE_FIRST)
        clean = {**LAB_WELL, "coliform": "absent"}
        self.assertEqual(self.first(clean, fridge)[2], SERVICE_FIRST)

    def test_a_flood_and_a_bloom_come_before_service(self):
        lamp = InPlace(id="u", kind="uv", fitted_on=date(2019, 5, 1))
        found = {**LAB_WELL, "coliform": "present", "uvt": 92.0}
        self.assertEqual(self.first(found, lamp, ("flood",))[2], FLOOD_FIRST)
        lake = {"source": Source.LAKE, "pump_gpm": None}
        self.assertEqual(self.first(found, lamp, ("bloom",), **lake)[2], BLOOM_FIRST)

    def test_an_old_membrane_is_serviced_for_nitrate(self):
        old = InPlace(
            id="m",
            kind="membrane",
            fitted_on=date(2016, 5, 1),
            changed_on=date(2020, 1, 1),
            months=36,
        )
        values = {**LAB_WELL, "coliform": "absent", "nitrate_n": 15.0}
        self.assertEqual(self.first(values, old)[1:], (["service"], SERVICE_FIRST))

    def test_no_second_filter_is_sold_before_a_glass_behind_the_first(self):
        there = InPlace(id="f", kind="iron_filter", fitted_on=date(2012, 5, 1))
        values = {**LAB_WELL, "coliform": "absent", "iron": 2.0}
        self.assertEqual(
            self.first(values, there, ("orange_streaks",)), ("Do nothing", [], JUDGE_FIRST)
        )
        acid = {**values, "ph": 6.0, "alkalinity": 25.0}  # the filter is not made for that
        self.assertNotEqual(self.first(acid, there, ("orange_streaks",))[2], JUDGE_FIRST)

    def test_what_a_kit_finds_of_health_is_settled_by_a_laboratory(self):
        calm = {**LAB_WELL, "coliform": "absent"}
        del calm["manganese"]
        kit = shown("manganese", 0.4, 0.02)
        name, _, why = self.first(calm, more=(kit,))
        self.assertEqual((name, why), (WAIT, SECOND_FIRST))
        lab = from_lab("manganese", 0.4)
        self.assertNotEqual(self.first(calm, more=(lab,))[2], SECOND_FIRST)
        settled = {**calm, "nitrate_n": 15.0}  # something of health is sure: it is answered
        self.assertNotEqual(self.first(settled, more=(kit,))[2], SECOND_FIRST)
        stained = self.first(calm, None, ("black_stains",), (kit,))  # they see what it does
        self.assertNotEqual(stained[2], SECOND_FIRST)

    def test_a_value_of_health_astride_its_limit_is_sampled_again(self):
        calm = {**LAB_WELL, "coliform": "absent"}
        astride = from_lab("uranium", 0.029, uncertainty=0.004)
        self.assertEqual(self.first(calm, more=(astride,))[2], SECOND_FIRST)
        over = from_lab("uranium", 0.06, uncertainty=0.004)
        self.assertNotEqual(self.first(calm, more=(over,))[2], SECOND_FIRST)

    def test_what_is_made_for_something_else_holds_nothing_up(self):
        there = InPlace(id="s", kind="uv", fitted_on=date(2026, 5, 1))
        values = {**LAB_WELL, "coliform": "absent", "iron": 2.0}
        self.assertNotEqual(self.first(values, there, ("orange_streaks",))[2], JUDGE_FIRST)

    def test_a_pitcher_nobody_tested_holds_nothing_up(self):
        jug = InPlace(id="j", kind="jug", fitted_on=date(2026, 9, 1))
        values = {**LAB_WELL, "coliform": "absent", "lead": 0.02}
        self.assertNotEqual(self.first(values, jug)[2], JUDGE_FIRST)


class Table(unittest.TestCase):
    def test_each_has_its_sentence_source_and_year(self):
        self.assertEqual(len({p.id for p in PRIORITIES}), len(PRIORITIES))
        for p in PRIORITIES:
            with self.subTest(p.id):
                self.assertTrue(p.why.endswith(".") and p.source and p.year >= 1974)
                self.assertIn(p.moves, ("nothing", "service"))


if __name__ == "__main__":
    unittest.main()
