"""What tells options apart beside what they take out."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from zesty_glass.core.home import Source
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.demo.homes import demo_visits

VISITS = demo_visits(datetime(2026, 11, 20, 9, 0, tzinfo=UTC))
TERRACE = VISITS[0]


def row(visit, id):
    return next((f for f in compare(visit, (10,)).facts if f.id == id), None)


def with_one(item):
    """The terrace with one option: one item of its own making."""
    option = Option(id="x", name="x", stages=(StageChoice(item=item.code),))
    return replace(TERRACE, options=(option,), catalogue=(item,))


def item(kind, **changes):
    found = next(i for v in VISITS for i in v.catalogue if i.kind == kind)
    return replace(found, **changes)


class Facts(unittest.TestCase):
    def test_only_what_something_can_be_said_of(self):
        pitcher = item("pitcher", warranty="", headroom_in=None, footprint_in="")
        ids = {f.id for f in compare(with_one(pitcher), (10,)).facts}
        self.assertEqual(ids, {"interval", "served", "certified"})

    def test_what_a_membrane_makes_here(self):
        self.assertTrue(all("gal/day here" in w for w in row(TERRACE, "makes").values.values()))
        self.assertIsNone(row(VISITS[1], "makes"))

    def test_upkeep_from_the_most_to_the_least_often(self):
        softener = item("softener")
        one, two = (replace(softener.consumables[0], months=m, capacity_gal=None) for m in (6, 1))
        visit = with_one(replace(softener, consumables=(one, replace(two, name="Brush"))))
        words = row(visit, "interval").values["x"]
        self.assertEqual(words.split("; ")[0], "Brush every month")
        self.assertTrue(words.endswith(f"{one.name} every 6 months"))

    def test_upkeep_from_much_use_to_little(self):
        cartridge = item("pitcher")
        part = replace(cartridge.consumables[0], months=None, capacity_gal=1000.0)
        visit = with_one(replace(cartridge, consumables=(part,)))
        # four people at 0.7 gal a day: 1,000 gal last 357 days, 11.7 months; at 50 of 60 gal a
        # person a sixth less is drawn (14.1), at 75 a quarter more (9.4)
        people = replace(visit.home, people=4)
        words = row(replace(visit, home=people), "interval").values["x"]
        self.assertEqual(words, f"{part.name} every 9–14 months")

    def test_a_well_against_a_town_supply(self):
        softener = item("softener")
        part = replace(softener.consumables[0], months=72.0, months_private=48.0, capacity_gal=None)
        visit = with_one(replace(softener, consumables=(part,)))
        self.assertEqual(
            row(visit, "supplies").values["x"],
            f"{part.name} every 48 months on a well, every 72 months on a town supply",
        )
        self.assertIn("every 72 months", row(visit, "interval").values["x"])
        own = replace(visit, home=replace(visit.home, source=Source.WELL_DRILLED))
        self.assertIn("every 48 months", row(own, "interval").values["x"])
        alike = replace(part, months_private=None)
        none = with_one(replace(softener, consumables=(alike,)))
        self.assertIsNone(row(none, "supplies"))

    def test_spare_parts_that_are_promised(self):
        pitcher = item("pitcher", spares_years=None)
        self.assertIsNone(row(with_one(pitcher), "spares"))
        words = row(with_one(replace(pitcher, spares_years=8.0)), "spares").values["x"]
        self.assertEqual(words, f"{pitcher.name}: 8 years")

    def test_who_looks_after_it(self):
        softener = item("softener")
        part = replace(softener.consumables[0], months=12.0)
        for own, words in ((True, "you, all of it"), (False, "the firm, all of it")):
            visit = with_one(replace(softener, consumables=(replace(part, own=own),)))
            self.assertEqual(row(visit, "served").values["x"], words)
        both = (replace(part, own=True, name="Salt lid"), replace(part, own=False, name="Valve"))
        visit = with_one(replace(softener, consumables=both))
        self.assertEqual(row(visit, "served").values["x"], "the firm: Valve; you: the rest")

    def test_a_certificate_counts_for_its_own_only(self):
        # the pitcher of the house in town: certified for free chlorine, maker states the rest
        self.assertEqual(set(row(VISITS[2], "certified").values.values()), {"Free chlorine"})
        bare = with_one(item("pitcher", effects=()))
        self.assertEqual(row(bare, "certified").values["x"], "none of what was found")

    def test_the_tallest_decides_the_height(self):
        visit = with_one(item("softener", headroom_in=62.0, footprint_in="10 × 20"))
        self.assertEqual(
            row(visit, "space").values["x"],
            f"62 in of height; {visit.catalogue[0].name}: 10 × 20 in",
        )

    def test_today_has_no_facts(self):
        for f in compare(TERRACE, (10,)).facts:
            self.assertNotIn("today", f.values)


if __name__ == "__main__":
    unittest.main()
