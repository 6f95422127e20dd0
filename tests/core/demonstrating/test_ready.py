"""Demonstrations stand in the order that this water calls for, and say what they lack."""

import unittest

from tests.making import hardness, home, sample, shown, tds
from zesty_glass.core.demonstrating.about import ABOUT
from zesty_glass.core.demonstrating.ready import SHOWS_WHAT, in_order
from zesty_glass.core.home import Source
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import water_of


def ready(*readings, glasses=2, lines=1, source=Source.CITY):
    water = water_of(sample(*readings))
    means = meaning(water, home(source=source), (), Rules())
    return in_order(means, set(water.values), glasses, lines)


class Order(unittest.TestCase):
    def test_every_demonstration_stands_once(self):
        ids = [r.id for r in in_order(None, (), 0, 0)]
        self.assertEqual(sorted(ids), sorted(ABOUT))

    def test_what_was_found_comes_first(self):
        out = ready(hardness(19), tds(448, 450))
        first = [r.id for r in out if r.called_for]
        self.assertIn("lather", first)
        self.assertEqual([r.id for r in out][: len(first)], first)

    def test_what_lacks_something_comes_last(self):
        out = ready(hardness(19), tds(448, 450))
        self.assertEqual(out[-1].id, "chlorine")
        self.assertEqual(
            (out[-1].lacks, out[-1].measure), ("measure chlorine first", "chlorine_free")
        )

    def test_soft_water_calls_for_no_lather(self):
        out = ready(hardness(1), shown("chlorine_free", 1.8, 0.05))
        by = {r.id: r for r in out}
        self.assertFalse(by["lather"].called_for)
        self.assertTrue(by["chlorine"].called_for)

    def test_each_names_what_it_shows_of_analytes_that_are(self):
        from zesty_glass.core.analytes import ANALYTES

        for id, analytes in SHOWS_WHAT.items():
            self.assertIn(id, ABOUT)
            self.assertLessEqual(set(analytes), set(ANALYTES) | {"chlorine_combined"})


class Lacking(unittest.TestCase):
    def by(self, *readings, **more):
        return {r.id: r for r in ready(*readings, **more)}

    def test_without_a_glass(self):
        out = {r.id: r.lacks for r in in_order(None, (), 0, 0)}
        self.assertEqual(out.pop("through"), "design a line first")
        self.assertEqual(set(out.values()), {"draw a glass first"})

    def test_a_tasting_wants_two_waters(self):
        self.assertEqual(self.by(tds(400), glasses=1)["tasting"].lacks, "draw a second water")
        self.assertEqual(self.by(tds(400), glasses=2)["tasting"].lacks, "")
        self.assertTrue(self.by(tds(400), glasses=1)["tasting"].draw)
        self.assertFalse(self.by(tds(400), glasses=2)["tasting"].draw)

    def test_waters_side_by_side_are_two_or_one_and_a_line(self):
        self.assertTrue(self.by(tds(400), glasses=1, lines=0)["side_by_side"].draw)
        self.assertEqual(self.by(tds(400), glasses=1, lines=1)["side_by_side"].lacks, "")
        self.assertEqual(self.by(tds(400), glasses=2, lines=0)["side_by_side"].lacks, "")

    def test_calcium_is_enough_for_the_kettle(self):
        self.assertEqual(self.by(shown("calcium", 200.0, 5.0))["kettle"].lacks, "")
        self.assertEqual(self.by(tds(400))["kettle"].measure, "hardness")

    def test_total_chlorine_is_enough(self):
        self.assertEqual(self.by(shown("chlorine_total", 1.0, 0.05))["chlorine"].lacks, "")


if __name__ == "__main__":
    unittest.main()
