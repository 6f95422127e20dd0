"""The firm's own record, and a home over the years: counted by hand."""

import unittest
from datetime import UTC, date, datetime
from types import SimpleNamespace

from tests.making import water
from zesty_glass.core.aftercare.care import Change, Part
from zesty_glass.core.aftercare.logbook import Known, events, kept, pair_of, series


class Record(unittest.TestCase):
    def test_counts_by_item_and_analyte(self):
        out = kept(
            (
                ("softener", "S1", "hardness", "as promised", 6, None),
                ("softener", "S1", "hardness", "short", 2, 0.25),
                ("membrane", "M1", "tds", "better", 1, None),
                ("uv", "U1", "coliform", "laboratory only", 3, None),
            )
        )
        self.assertEqual(
            [(k.item, k.homes, k.few) for k in out], [("S1", 8, False), ("M1", 1, True)]
        )
        self.assertEqual((out[0].as_promised, out[0].better, out[0].short), (6, 0, 2))
        self.assertEqual(out[0].short_by, 0.25)

    def test_five_homes_are_enough_and_four_are_not(self):
        for many, few in ((4, True), (5, False)):
            self.assertEqual(kept((("a", "b", "ph", "better", many, None),))[0].few, few)


class Years(unittest.TestCase):
    def test_readings_in_their_order_the_most_read_first(self):
        old = Known(at=datetime(2024, 5, 1, tzinfo=UTC), visit="a", water=water(tds=400))
        new = Known(at=datetime(2026, 5, 1, tzinfo=UTC), visit="b", water=water(tds=420, ph=7))
        out = series((new, old), ())
        self.assertEqual([s.analyte for s in out], ["tds", "ph"])
        self.assertEqual([p.range.best for p in out[0].points], [400, 420])

    def test_parts_changed_on_one_day_are_one_event(self):
        def part(key, label):
            return Part(
                key=key, stage="S", label=label, kind="filter", months=6, own=True, minutes=1
            )

        def change(part, on):
            return Change(id=f"{part}{on}", part=part, on=on, by="P")

        day, later = date(2026, 1, 5), date(2026, 7, 5)
        job = SimpleNamespace(
            id="j",
            line="The line",
            fitted_on=date(2025, 1, 1),
            parts=(part("a", "Carbon"), part("b", "Sediment")),
            changes=(change("a", later), change("a", day), change("b", day)),
            follow_ups=(),
        )
        said = [(e.at, e.what) for e in events((job,))]
        self.assertEqual(
            said,
            [
                ("2025-01-01", "Fitted: The line"),
                ("2026-01-05", "Changed: Carbon, Sediment"),
                ("2026-07-05", "Changed: Carbon"),
            ],
        )

    def test_a_pair_wants_both(self):
        self.assertEqual(pair_of("v", water(tds=400, hardness=200)).hardness, 200)
        self.assertIsNone(pair_of("v", water(tds=400)))
