"""What if: the same line under one change, and what changes."""

import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, settings, softener, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.searching.what_if import lower_ph, more_people, next_size, size_of, what_ifs
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice

ITEMS = {i.code: i for i in example_items()}
HARD = water(hardness=14 * 17.118061, iron=0.1, manganese=0.01, ph=7.2, chlorine_free=0.0)


def line(*codes):
    return Option(id="o", name="o", stages=tuple(StageChoice(item=c) for c in codes))


def ifs(option, water_=HARD, home_=None, items=ITEMS):
    return {w.id: w for w in what_ifs(option, items, water_, None, home_ or home(), settings())}


class Changes(unittest.TestCase):
    def test_more_people_cost_more_salt_and_water(self):
        w = ifs(line("SO-20"))["people"]
        self.assertGreater(w.cost, 0)
        self.assertGreater(w.waste_gal_year, 0)

    def test_a_softener_that_gets_too_small_says_so(self):
        w = ifs(
            line("SO-10"),
            water(hardness=22 * 17.118061, iron=0.1, manganese=0.01, ph=7.2, chlorine_free=0.0),
            home_=home(people=5),
        )["people"]
        self.assertEqual(w.status, "stop")
        self.assertIn("stop", {c.after for c in w.changes})

    def test_a_lower_ph_stops_what_it_stops(self):
        iron = water(
            iron=1.0,
            manganese=0.0,
            ph=7.0,
            hardness=100,
            tannin=0.0,
            hydrogen_sulfide=0.0,
            iron_ferrous=1.0,
        )
        w = ifs(line("FE-A10"), iron)["ph"]
        self.assertIn(("iron.ph", "stop"), {(c.id, c.after) for c in w.changes})

    def test_without_ph_nothing_is_pretended(self):
        w = ifs(line("SO-20"), water(hardness=200))["ph"]
        self.assertIn("not tested", w.impossible)

    def test_the_next_size_is_offered_as_a_line_of_its_own(self):
        w = ifs(line("SO-15"))["size:SO-15"]
        self.assertEqual([c.item for c in w.option.stages], ["SO-20"])
        self.assertIn("in place of", w.label)

    def test_the_largest_has_no_next(self):
        self.assertNotIn("size:SO-30", ifs(line("SO-30")))

    def test_the_line_itself_is_not_changed(self):
        option = line("SO-15")
        before = walk(option, ITEMS, HARD, None, home(), settings())
        ifs(option)
        self.assertEqual(walk(option, ITEMS, HARD, None, home(), settings()), before)


class Sizes(unittest.TestCase):
    def test_a_bill_grows_with_the_people(self):
        self.assertEqual(more_people(home(people=4, bill_gal_day=200.0)).bill_gal_day, 300)

    @given(st.floats(0.5, 13))
    def test_ph_half_a_unit_lower(self, ph):
        self.assertAlmostEqual(lower_ph(water(ph=ph)).range("ph").best, max(0.0, ph - 0.5))

    def test_next_size_keeps_the_style(self):
        for i in ITEMS.values():
            n = next_size(i, ITEMS)
            if n is not None:
                self.assertEqual(
                    (
                        n.kind,
                        n.scope,
                        getattr(n.figures, "media", None),
                        getattr(n.figures, "style", None),
                    ),
                    (
                        i.kind,
                        i.scope,
                        getattr(i.figures, "media", None),
                        getattr(i.figures, "style", None),
                    ),
                )
                self.assertGreater(size_of(n), size_of(i))

    @given(st.integers(1, 8), st.integers(0, 4))
    def test_more_people_never_lengthen_the_interval(self, people, more):
        def interval(n):
            r = walk(
                Option(id="o", name="o", stages=(StageChoice(item="soft-1.5"),)),
                {"soft-1.5": softener(1.5)},
                HARD,
                None,
                home(people=n),
                settings(),
            )
            return next(f.number for f in r.stages[0].figures if f.id == "interval")

        self.assertLessEqual(interval(people + more), interval(people) + 1e-9)

    def test_twice_the_change_is_worse_never_better_for_cost(self):
        small, large = (
            ifs(line("SO-20"), home_=home(people=2))["people"],
            ifs(line("SO-20"), home_=home(people=4))["people"],
        )
        self.assertGreaterEqual(large.cost + small.cost, small.cost)

    def test_an_unknown_item_is_no_size(self):
        self.assertIsNone(next_size(replace(ITEMS["PT-1"], flow_gpm=None), ITEMS))
