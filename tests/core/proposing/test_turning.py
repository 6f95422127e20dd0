"""What would put another system first: tests not made, and changes of the place. Written by what a
consultant would say of the home, before it was run.
"""

import unittest

from tests.core.proposing.test_more_homes import CLEAN_WELL, GPG, TOWN, asked
from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.proposing.suggest import suggest
from zesty_glass.core.proposing.turning import (
    DOORS,
    PLAUSIBLE,
    _opened,
    thinned,
    turning_points,
)
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.treating.checks import CHECKS
from zesty_glass.core.treating.stages import TECHNOLOGIES

ITEMS = example_items()


class Asking:
    """A home of a few values, and what would turn its proposal."""

    def __init__(self, values, signs=(), without=(), **about):
        self.home = home(**about)
        self.water = water(**{k: v for k, v in values.items() if k not in without})
        self.told = tuple(Complaint(id=s, sign=s, words=s) for s in signs)
        self.runs = 0

    def meant(self, drawn):
        return meaning(drawn, self.home, self.told, Rules())

    def searched(self, drawn, place, items):
        self.runs += 1
        return suggest(
            drawn, self.meant(drawn), place, settings(), Rules(), items, complaints=self.told
        )

    def turning(self):
        self.now = self.searched(self.water, self.home, ITEMS)
        found = turning_points(
            self.now, self.water, self.home, ITEMS, self.meant, self.searched, settings()
        )
        return {t.id: t for t in found}


RUSTY = {**CLEAN_WELL, "iron": 1.5, "hardness": 12 * GPG}
FLUORIDE = {**CLEAN_WELL, "fluoride": 6.0}


class Tests(unittest.TestCase):
    def test_tannin_that_was_not_looked_for_turns_what_is_sold_for_iron(self):
        told = Asking(RUSTY, ("orange_streaks", "tea_colour"), without=("tannin",)).turning()
        self.assertIn("test.tannin", told)
        said = told["test.tannin"].sentence
        self.assertTrue(said.startswith("Not tested: tannin. At 1.5 mg/L, “"), said)
        self.assertIn("It turns between", said)
        self.assertRegex(said, r"would stand first, for about \$[\d,]+ (more|less) over 10 years\.")
        self.assertTrue(said.endswith("Test it here: it takes a few minutes with a kit."), said)

    def test_bacteria_nobody_looked_for_turn_a_well_from_comfort_to_waiting(self):
        told = Asking(RUSTY, ("orange_streaks",), without=("coliform",)).turning()
        self.assertIn("bring drinking water", told["test.coliform"].first)
        self.assertNotIn("turns between", told["test.coliform"].sentence)

    def test_what_was_tested_turns_nothing(self):
        asking = Asking(RUSTY, ("orange_streaks",))
        tested = {t.removeprefix("test.") for t in asking.turning() if t.startswith("test.")}
        self.assertFalse(tested & set(RUSTY))

    def test_a_town_has_no_tests_of_wells(self):
        values = {"hardness": 14 * GPG, "tds": 300, "chlorine_free": 0.6, "chlorine_total": 0.7}
        told = Asking({**values, "ph": 7.5}, ("white_crust",), **TOWN).turning()
        private = {f"test.{p.analyte}" for p in PLAUSIBLE if p.private}
        self.assertFalse(private & set(told))

    def test_where_nothing_is_on_sale_nothing_turns(self):
        asking = Asking(RUSTY)
        now = asking.searched(asking.water, asking.home, ())
        args = (asking.water, asking.home, (), asking.meant, asking.searched, settings())
        self.assertEqual(turning_points(now, *args), ())

    def test_no_more_searches_than_a_person_waits_for(self):
        bare = {"hardness": 12 * GPG, "tds": 220}
        asking = Asking(bare, ("orange_streaks", "metal_taste"), drain=False, socket=False)
        asking.turning()
        # the answer itself, four tests each narrowed down by at most three, both
        # ends of two readings, three doors
        self.assertLessEqual(asking.runs, 1 + 4 * 4 + 2 * 2 + 3)


class Doors(unittest.TestCase):
    def test_a_drain_lets_a_membrane_stand_for_fluoride(self):
        asking = Asking(FLUORIDE, drain=False)
        told = asking.turning()
        self.assertNotIn("RO system", asking.now.lines[0].option.name)
        door = told["place.drain"]
        self.assertIn("RO system", door.first)
        self.assertIn("a plumber adds one with an air gap, to local code", door.sentence)
        self.assertIn("less over 10 years", door.sentence)

    def test_each_door_gives_what_it_says(self):
        asking = Asking(CLEAN_WELL, drain=False, socket=False, headroom_in=40.0, pump_gpm=2.0)
        given = {d.id: _opened(d, asking.water, asking.home)[1] for d in DOORS}
        self.assertTrue(given["drain"].drain and not given["drain"].socket)
        self.assertTrue(given["socket"].socket and not given["socket"].drain)
        self.assertTrue(given["drain_socket"].drain and given["drain_socket"].socket)
        self.assertEqual(given["headroom"].headroom_in, 84.0)
        self.assertEqual(given["pump"].pump_gpm, 15.0)
        self.assertEqual((given["pressure"].running_psi, given["drain"].headroom_in), (60.0, 40.0))

    def test_what_saves_nothing_is_no_door(self):
        # a drain would let a membrane stand; nothing here asks for one
        told = Asking({**CLEAN_WELL, "hardness": 12 * GPG}, drain=False).turning()
        self.assertTrue(
            all(
                "less over" in t.sentence or "also treats" in t.sentence
                for k, t in told.items()
                if k.startswith("place.")
            )
        )

    def test_an_open_place_has_no_doors(self):
        told = Asking(FLUORIDE).turning()
        self.assertFalse([t for t in told if t.startswith("place.")])

    def test_a_drain_alone_is_no_door_where_a_socket_is_missing_too(self):
        rusty = Asking({**RUSTY, "iron": 3.0}, ("orange_streaks",), drain=False, socket=False)
        told = rusty.turning()
        self.assertIn("place.drain_socket", told)

    def test_each_door_opens_checks_that_there_are(self):
        stops = set(CHECKS) | {f"{k}.{w}" for k in TECHNOLOGIES for w in ("feed",)}
        for door in DOORS:
            self.assertLessEqual(door.opens, stops, door.id)


class AtLowPressure(unittest.TestCase):
    def test_a_booster_pump_lets_a_membrane_stand_where_the_pressure_is_low(self):
        for analyte, much in (("pfoa", 80.0), ("fluoride", 6.0)):
            with self.subTest(analyte):
                _, s = asked({**CLEAN_WELL, analyte: much}, running_psi=28.0)
                self.assertEqual([c.item for c in s.lines[0].option.stages], ["BP-1", "DT-1"])
                # the pump at 165 and 60 to fit, the system at 480 and 220
                self.assertEqual(s.lines[0].price, 925.0)
                _, enough = asked({**CLEAN_WELL, analyte: much}, running_psi=52.0)
                self.assertEqual([c.item for c in enough.lines[0].option.stages], ["DT-1"])


class SmallerCatalogue(unittest.TestCase):
    def test_parts_are_not_sold_by_themselves(self):
        asking = Asking(FLUORIDE)
        now = asking.searched(asking.water, asking.home, ITEMS)
        few = thinned(ITEMS, now)
        self.assertLess(len(few), len(ITEMS))
        parts = {p for i in few if i.kind == "system" for p in i.figures.parts}
        free = {i.code for i in few if i.price == 0 and i.scope == "tap"}
        self.assertLessEqual(free - {"RF-1"}, parts)

    def test_what_stands_first_stands_first_in_it_too(self):
        for values, signs in ((FLUORIDE, ()), (RUSTY, ("orange_streaks",))):
            asking = Asking(values, signs)
            now = asking.searched(asking.water, asking.home, ITEMS)
            few = asking.searched(asking.water, asking.home, thinned(ITEMS, now))
            self.assertEqual(few.lines[0].option.name, now.lines[0].option.name)

    def test_each_figure_has_its_source_and_year(self):
        for p in PLAUSIBLE:
            self.assertTrue(p.source and p.year and p.how, p.analyte)


if __name__ == "__main__":
    unittest.main()
