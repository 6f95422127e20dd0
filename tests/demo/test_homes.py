"""The seven homes: what a good consultant would conclude comes out of the tool."""

import unittest
from datetime import UTC, datetime

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.assess import assess
from zesty_glass.demo.homes import demo_visits

VISITS = {v.home.name: v for v in demo_visits(datetime(2026, 11, 20, tzinfo=UTC))}
NAMES = (
    "Terrace, 4 Flintlock Row",
    "Withy Bank farmhouse",
    "Bungalow, Tinder Lane",
    "Old schoolhouse",
    "The Scar house",
    "Flat above the bakery",
    "House 22",
)


class Case(unittest.TestCase):
    def assessed(self, n):
        return assess(VISITS[NAMES[n - 1]])

    def option(self, a, name):
        return next(o for o in a.options if o.name == name)

    def checks(self, o, status):
        return {c.id for s in o.line.stages for c in s.checks if c.status == status}


class Conclusions(Case):
    def test_1_terrace(self):
        a = self.assessed(1)
        self.assertIn("chlorine_combined.notice", {f.id for f in a.meaning.findings})
        self.assertFalse(a.meaning.unexplained)
        self.assertEqual({c.id for c in a.crosschecks}, {"no_difference", "past_life"})
        b = self.option(a, "Softener and drinking tap")
        self.assertNotIn("carbon.ebct", self.checks(b, "warn"))
        self.assertIn("softener.diet", self.checks(b, "warn"))
        c = self.option(a, "Without salt")
        self.assertIn("conditioner.minerals", self.checks(c, "say"))
        self.assertEqual(c.line.house.range("hardness"), c.line.source.range("hardness"))

    def test_2_farmhouse(self):
        a = self.assessed(2)
        up, back = self.option(a, "Upflow calcite"), self.option(a, "Backwashing calcite")
        self.assertNotEqual(up.line.status, "stop")
        self.assertEqual(
            self.checks(back, "stop"), {"space.drain", "space.socket", "well.backwash"}
        )
        rise = up.line.house.best("hardness") - up.line.source.best("hardness")
        self.assertEqual(
            (f"{rise / 17.118061:.1f}", f"{up.line.house.best('hardness') / 17.118061:.0f}"),
            ("4.7", "7"),
        )
        self.assertEqual(up.line.house.best("copper"), 1.6)
        self.assertIn("copper.over", {f.id for f in a.meaning.findings})
        self.assertFalse(a.meaning.unexplained)

    def test_3_bungalow(self):
        a = self.assessed(3)
        good, dense, alone = (
            self.option(a, n)
            for n in ("Acid, iron, then softener", "Dense iron filter", "A softener alone")
        )
        self.assertEqual(
            [s.kind for s in good.line.stages], ["neutraliser", "iron_filter", "softener"]
        )
        self.assertNotEqual(good.line.status, "stop")
        self.assertEqual(self.checks(dense, "stop"), {"well.backwash", "softener.iron"})
        self.assertLessEqual({"softener.iron", "softener.too_small"}, self.checks(alone, "stop"))
        self.assertIn("softener.clock", self.checks(alone, "warn"))
        self.assertIn("heater.anode", {f.id for f in a.meaning.findings})

    def test_4_schoolhouse(self):
        a = self.assessed(4)
        today = self.option(a, "UV on today’s water")
        self.assertIn("uv.uvt_low", self.checks(today, "stop"))
        self.assertEqual(
            [s.kind for s in self.option(a, "Whole house").line.stages],
            ["sediment", "iron_filter", "tannin", "sediment", "uv"],
        )
        self.assertIn("membrane.feed", self.checks(self.option(a, "Drinking tap only"), "stop"))
        self.assertIn("cartridge.days", self.checks(self.option(a, "Tannin cartridge"), "warn"))
        self.assertTrue(a.meaning.tonight)
        self.assertEqual(a.meaning.colour.id, "both_tannin")

    def test_5_granite(self):
        a = self.assessed(5)
        self.assertIn(
            "cartridge.fluoride", self.checks(self.option(a, "Alumina at the tap"), "stop")
        )
        tap = self.option(a, "Drinking tap, membrane")
        self.assertIn("arsenic.species", self.checks(tap, "unknown"))
        self.assertTrue(tap.line.tap.quantities["fluoride"].established)
        self.assertIn("radon.over", {f.id for f in a.meaning.findings})
        self.assertTrue(any("infant" in t for t in a.meaning.tonight))

    def test_6_flat(self):
        a = self.assessed(6)
        self.assertIn("space.tenant", self.checks(self.option(a, "Softener"), "stop"))
        self.assertEqual(self.option(a, "Pitcher").line.status, "met")
        self.assertIn("not_flushed", {c.id for c in a.crosschecks})

    def test_7_new_estate(self):
        a = self.assessed(7)
        self.assertTrue(a.nothing_needed)
        self.assertIn("Nothing needed", a.options[0].reasons.summary)
        self.assertFalse(a.meaning.unexplained)


class Catalogue(unittest.TestCase):
    def test_about_sixty_items_of_every_kind(self):
        items = example_items()
        self.assertTrue(55 <= len(items) <= 80)
        self.assertEqual(len({i.code for i in items}), len(items))
        kinds = {i.kind for i in items}
        for kind in (
            "sediment",
            "carbon",
            "softener",
            "salt_free",
            "physical",
            "iron_filter",
            "neutraliser",
            "tannin",
            "mixed_bed",
            "uv",
            "membrane",
            "distiller",
            "cartridge",
            "pitcher",
            "aeration",
            "nitrate",
            "arsenic",
            "chlorinator",
            "regulator",
            "expansion",
            "bypass",
        ):
            self.assertIn(kind, kinds)
