"""Options side by side: the same figures as the whole assessment, with less around them."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal

from zesty_glass.core.assess import assess, assess_over
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.worked import HIGH_USE, LOW_USE
from zesty_glass.demo.homes import demo_visits

VISITS = demo_visits(datetime(2026, 11, 20, 9, 0, tzinfo=UTC))
HOME_1 = VISITS[0]


class SameAsTheAssessment(unittest.TestCase):
    def test_rows_water_waste_and_chores(self):
        for v in VISITS:
            whole, side = assess(v), compare(v, (10,))
            self.assertEqual(side.rows, whole.rows, v.home.name)
            for a, b in zip(whole.options, side.options, strict=True):
                self.assertEqual(
                    (a.id, a.waste, a.chores, a.left, a.error),
                    (b.id, b.waste, b.chores, b.left, b.error),
                )
                if b.house is not None:
                    self.assertEqual(b.house, a.line.house)
                if b.tap is not None:
                    self.assertEqual(b.tap, a.line.tap)

    def test_costs_over_every_horizon(self):
        for v in VISITS:
            side = compare(v, (5, 20))
            for over, whole in zip(side.over, assess_over(v, (5, 20), use_bands=True), strict=True):
                self.assertEqual(over.years, whole.horizon)
                for o in whole.options:
                    c = over.options[o.id]
                    self.assertEqual(
                        (c.cost, c.use_band, c.cheaper_than), (o.cost, o.use_band, o.cheaper_than)
                    )

    def test_without_the_edges_of_use_the_rest_is_the_same(self):
        side, plain = compare(HOME_1, (10,)), compare(HOME_1, (10,), bands=False)
        self.assertEqual((side.options, side.rows), (plain.options, plain.rows))
        for id, c in plain.over[0].options.items():
            self.assertEqual(c, replace(side.over[0].options[id], use_band=None))

    def test_what_stops_is_said(self):
        for v in VISITS:
            for a, b in zip(assess(v).options, compare(v, (10,)).options, strict=True):
                self.assertEqual(b.stops, a.line is None or a.line.status == "stop", a.name)


class NeedsAndParts(unittest.TestCase):
    def test_every_need_that_is_not_met_stands_with_its_sentence_the_gravest_first(self):
        for v in VISITS:
            for a, b in zip(assess(v).options, compare(v, (10,)).options, strict=True):
                wanted = {
                    (s.name, c.status, c.sentence)
                    for s in a.line.stages
                    for c in s.checks
                    if c.status in ("stop", "unknown", "warn")
                }
                self.assertLessEqual(
                    wanted, {(n.stage, n.status, n.sentence) for n in b.needs}, a.name
                )
                order = [("stop", "unknown", "warn").index(n.status) for n in b.needs]
                self.assertEqual(order, sorted(order))

    def test_parts_of_one_maker_are_named(self):
        lonely = replace(
            HOME_1,
            catalogue=tuple(
                replace(i, consumables=tuple(replace(c, common=False) for c in i.consumables))
                for i in HOME_1.catalogue
            ),
        )
        common = replace(
            HOME_1,
            catalogue=tuple(
                replace(i, consumables=tuple(replace(c, common=True) for c in i.consumables))
                for i in HOME_1.catalogue
            ),
        )
        self.assertTrue(all(o.single_source for o in compare(lonely, (10,)).options[1:]))
        self.assertFalse(any(o.single_source for o in compare(common, (10,)).options))


class HowItComes(unittest.TestCase):
    def test_steps_begin_with_the_water_as_it_comes_and_end_with_what_the_cell_shows(self):
        seen = 0
        for v in VISITS:
            side = compare(v, (10,))
            for o, whole in zip(side.options, assess(v).options, strict=True):
                for r in side.rows:
                    steps, cell = (
                        o.steps.get(r.analyte),
                        next(c for c in r.cells if c.option == o.id),
                    )
                    if steps is None:
                        self.assertFalse(
                            any(
                                s.outlet.get(r.analyte) is not None
                                and s.outlet.range(r.analyte) != whole.line.source.range(r.analyte)
                                for s in whole.line.stages
                            )
                        )
                        continue
                    self.assertEqual(steps[0].stage, "as it comes")
                    self.assertLessEqual(
                        {s.stage for s in steps[1:]}, {s.name for s in whole.line.stages}
                    )
                    if cell.where == "tap" and cell.range is not None:
                        self.assertTrue(steps[-1].shown.startswith(cell.shown), (steps, cell.shown))
                        seen += 1
        self.assertGreater(seen, 10)

    def test_water_to_the_drain_costs_what_is_paid_for_it(self):
        for o in assess(HOME_1).options:
            paid = sum(
                (
                    r.per_year
                    for s in o.line.stages
                    for r in s.running
                    if r.label == "Water to the drain"
                ),
                Decimal(0),
            )
            self.assertEqual(o.waste.cost_year, paid)
            self.assertEqual(paid > 0, o.waste.total_gal_year > 0, o.name)


class Edges(unittest.TestCase):
    def test_nothing_to_compare_before_the_raw_water(self):
        side = compare(replace(HOME_1, samples=()), (10,))
        self.assertEqual((side.options, side.rows, side.over), ((), (), ()))

    def test_an_option_that_cannot_be_worked_out_stands_with_its_reason(self):
        bad = Option(id="bad", name="Bad", stages=(StageChoice(item="NOPE"),))
        side = compare(replace(HOME_1, options=(bad,)), (10,))
        self.assertIn("NOPE", side.options[1].error)
        self.assertTrue(side.options[1].stops)
        self.assertIsNone(side.over[0].options["bad"].cost)

    def test_bought_is_prices_and_installation(self):
        for o, c in zip(assess(HOME_1).options, compare(HOME_1, (10,)).options, strict=True):
            self.assertEqual(
                c.bought, sum((p.price + p.installation for p in o.line.purchases), Decimal(0))
            )

    def test_use_moves_the_cost_inside_its_band(self):
        low, expected, high = (
            compare(HOME_1, (10,), u).over[0].options for u in (LOW_USE, 1.0, HIGH_USE)
        )
        for id, c in expected.items():
            self.assertLessEqual(low[id].cost.total, c.cost.total)
            self.assertLessEqual(c.cost.total, high[id].cost.total)
            if c.use_band is not None:
                self.assertEqual(
                    (c.use_band.low, c.use_band.high), (low[id].cost.total, high[id].cost.total)
                )
