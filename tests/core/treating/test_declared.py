"""What each technology declares of itself, written down from the trade's rules."""

import unittest
from dataclasses import fields

from tests.making import water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.treating.stages import TECHNOLOGIES, registry
from zesty_glass.core.treating.stages.sediment import SEDIMENT
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.technology import Company

ALONE, RAW = Company(), source_stream(water(ph=7.4), None, None)
BY_KIND = {k: [i for i in example_items() if i.kind == k] for k in TECHNOLOGIES}


def those(fact: str) -> set[str]:
    return {k for k, t in TECHNOLOGIES.items() if getattr(t, fact)}


def place(kind: str, scope: str) -> int | None:
    item = next((i for i in BY_KIND[kind] if i.scope == scope), None)
    return None if item is None else TECHNOLOGIES[kind].place(item, ALONE, RAW)


class Declared(unittest.TestCase):
    def test_what_hangs_on_use(self):
        by_use = {"softener", "neutraliser", "membrane", "distiller", "pitcher", "cartridge"}
        self.assertEqual(those("by_use"), by_use)

    def test_what_rinses_by_a_clock(self):
        self.assertEqual(
            those("rinses"),
            {"softener", "iron_filter", "neutraliser", "tannin", "mixed_bed", "ultrafiltration"},
        )

    def test_what_a_line_may_hold_twice(self):
        self.assertEqual(those("repeats"), {"sediment", "carbon", "cartridge"})

    def test_what_wants_a_fine_filter_right_ahead(self):
        self.assertEqual(those("fine_ahead"), {"uv"})

    def test_least_pressure_where_an_item_states_none(self):
        self.assertEqual(
            {k: t.psi_min for k, t in TECHNOLOGIES.items() if t.psi_min}, {"membrane": 40.0}
        )

    def test_a_booster_raises_and_a_regulator_caps(self):
        raises = {k for k, t in TECHNOLOGIES.items() if t.sets_pressure == "raises"}
        self.assertEqual(raises, {"booster"})

    def test_chlorine_that_resins_do_not_take(self):
        most = {k: t.chlorine_max for k, t in TECHNOLOGIES.items() if t.chlorine_max is not None}
        self.assertEqual(most, {"softener": 1.0, "tannin": 0.1, "mixed_bed": 0.1})

    def test_by_which_figure_one_is_larger(self):
        for kind, size in (
            ("softener", "resin_ft3"),
            ("tannin", "resin_ft3"),
            ("carbon", "volume_ft3"),
            ("neutraliser", "volume_ft3"),
            ("membrane", "rated_gpd"),
            ("uv", "largest_gpm"),
            ("salt_free", "flow_max_gpm"),
        ):
            self.assertEqual(TECHNOLOGIES[kind].size, size, kind)


class Order(unittest.TestCase):
    """In which order stages stand: each behind what it needs ahead of it."""

    def rising(self, scope: str, *kinds: str) -> None:
        at = [(k, p) for k in kinds if (p := place(k, scope)) is not None]
        self.assertGreater(len(at), 2)
        self.assertEqual([k for k, _ in at], [k for k, _ in sorted(at, key=lambda x: x[1])])
        self.assertEqual(len({p for _, p in at}), len(at), at)

    def test_of_the_house(self):
        self.rising(
            "house",
            "bypass",
            "regulator",
            "expansion",
            "booster",
            "aeration",
            "chlorinator",
            "iron_filter",
            "neutraliser",
            "softener",
            "tannin",
            "nitrate",
            "arsenic",
            "ultrafiltration",
            "carbon",
            "uv",
        )

    def test_of_the_tap(self):
        self.rising("tap", "carbon", "membrane", "polish")

    def test_a_pitcher_is_filled_behind_everything(self):
        tap = [p for k in TECHNOLOGIES if k != "pitcher" and (p := place(k, "tap")) is not None]
        self.assertGreater(place("pitcher", "tap"), max(tap))


class Registry(unittest.TestCase):
    def test_nothing_is_left_out_of_a_technology(self):
        for kind, t in TECHNOLOGIES.items():
            self.assertEqual(kind, t.kind)
            self.assertTrue(t.name and t.drawing, kind)
            for f in fields(t):
                self.assertIsNotNone(getattr(t, f.name, "missing") or "left empty", f.name)

    def test_one_kind_is_not_declared_twice(self):
        with self.assertRaises(ValueError):
            registry(SEDIMENT, SEDIMENT)

    def test_every_kind_is_sold_or_a_part_of_the_demo(self):
        sold = {k for k, items in BY_KIND.items() if items}
        self.assertGreaterEqual(len(sold), len(TECHNOLOGIES) - 3)


if __name__ == "__main__":
    unittest.main()
