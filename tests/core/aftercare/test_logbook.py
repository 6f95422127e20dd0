"""The firm's own record, and a home over the years: counted by hand."""

import unittest
from datetime import UTC, date, datetime
from types import SimpleNamespace

from tests.making import water
from zesty_glass.core.aftercare.care import Change, Part
from zesty_glass.core.aftercare.equipment import Bought, Move
from zesty_glass.core.aftercare.job import served
from zesty_glass.core.aftercare.logbook import (
    Known,
    by_maker,
    events,
    kept,
    lasted,
    outcomes,
    pair_of,
    quarter_of,
    series,
)


class Record(unittest.TestCase):
    def test_counts_by_item_and_analyte(self):
        out = kept(
            (
                ("softener", "S1", "hardness", "as promised", 6, None, 1),
                ("softener", "S1", "hardness", "short", 2, 0.25, 2),
                ("membrane", "M1", "tds", "better", 1, None, 0),
                ("uv", "U1", "coliform", "laboratory only", 3, None, 0),
            ),
            {"S1": "Ulvenby"},
        )
        self.assertEqual(
            [(k.item, k.homes, k.few) for k in out], [("S1", 8, False), ("M1", 1, True)]
        )
        self.assertEqual((out[0].as_promised, out[0].better, out[0].short), (6, 0, 2))
        self.assertEqual(out[0].mended, 1)  # it is short no more, and was at first
        self.assertEqual(out[0].short_by, 0.25)
        self.assertEqual([(k.maker, k.items) for k in out], [("Ulvenby", ("S1",)), ("", ("M1",))])

    def test_items_of_one_maker_together(self):
        out = by_maker(
            kept(
                (
                    ("softener", "S1", "hardness", "as promised", 2, None, 2),
                    ("softener", "S1", "hardness", "short", 1, 0.1, 1),
                    ("softener", "S2", "hardness", "short", 2, 0.4, 2),
                    ("softener", "S3", "hardness", "better", 1, None, 0),
                    ("softener", "S4", "hardness", "short", 9, 0.9, 9),
                ),
                {"S1": "Ulvenby", "S2": "Ulvenby", "S3": "Tessaby"},
            )
        )
        ulvenby, tessaby = out  # nobody says who makes S4
        self.assertEqual((ulvenby.maker, ulvenby.items), ("Ulvenby", ("S1", "S2")))
        self.assertEqual((ulvenby.homes, ulvenby.as_promised, ulvenby.short), (5, 2, 3))
        self.assertEqual(ulvenby.short_by, 0.4)  # 0.1, 0.4, 0.4
        self.assertFalse(ulvenby.few)
        self.assertEqual((tessaby.homes, tessaby.better, tessaby.short_by), (1, 1, None))

    def test_five_homes_are_enough_and_four_are_not(self):
        for many, few in ((4, True), (5, False)):
            self.assertEqual(kept((("a", "b", "ph", "better", many, None, 0),), {})[0].few, few)


class Service(unittest.TestCase):
    """Days between two changes of a part, the first since the fitting."""

    def served(self, fitted, *days, swapped=()):
        part = Part(
            key="0:a:a", stage="S", label="A", kind="filter", months=12, own=True, minutes=1
        )
        changes = [Change(id=str(n), part="0:a:a", on=d, by="P") for n, d in enumerate(days)]
        other = Change(id="x", part="b", on=date(2026, 3, 1), by="P")
        moves = [Move(id="m", piece=0, fate="swapped", on=d, because="x", by="P") for d in swapped]
        sold = (Bought(label="S", terms="buy", fitter="firm", stages=(0,)),)
        job = SimpleNamespace(
            fitted_on=fitted,
            parts=(part,),
            changes=(*changes, other),
            bought=sold,
            moves=tuple(moves),
        )
        return [(s.time, s.days) for s in served(job)]

    def test_each_counts_from_the_one_before_whatever_their_order(self):
        days = date(2026, 7, 5), date(2026, 1, 5)
        # 1 January 2025 to 5 January 2026 is 369 days, on to 5 July 181
        self.assertEqual(self.served(date(2025, 1, 1), *days), [(1, 369), (2, 181)])

    def test_a_swapped_piece_begins_anew(self):
        days = date(2026, 1, 5), date(2026, 1, 15)
        swap = date(2026, 1, 11)
        self.assertEqual(self.served(date(2026, 1, 1), *days, swapped=(swap,)), [(1, 4), (2, 4)])

    def test_twice_on_one_day_served_nothing(self):
        day = date(2026, 1, 5)
        self.assertEqual(self.served(date(2025, 1, 1), day, day), [(1, 369)])

    def test_without_a_fitting_the_first_change_begins_it(self):
        days = date(2026, 1, 5), date(2026, 1, 15)
        self.assertEqual(self.served(None, *days), [(1, 10)])


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


class Parts(unittest.TestCase):
    def test_the_most_often_changed_first_and_few_said(self):
        out = lasted(
            (
                ("Sediment", "filter", 6.0, 4.1, 3, 2),
                ("Membrane", "membrane", 36.0, 30.2, 9, 5),
                ("Carbon", "filter", 12.0, 11.0, 3, 3),
            )
        )
        self.assertEqual([p.label for p in out], ["Membrane", "Carbon", "Sediment"])
        self.assertEqual([p.few for p in out], [False, True, True])
        self.assertEqual((out[0].predicted, out[0].lasted), (36.0, 30.2))


class Outcomes(unittest.TestCase):
    def test_quarters_the_newest_first(self):
        out = outcomes(
            (
                (2025, 4, "accepted", 3),
                (2026, 1, "declined", 1),
                (2026, 1, "accepted", 2),
                (2026, 1, "accepted", 1),
                (2025, 4, "expired", 4),
            )
        )
        self.assertEqual([o.quarter for o in out], ["2026, quarter 1", "2025, quarter 4"])
        self.assertEqual((out[0].accepted, out[0].declined, out[0].decided), (3, 1, 4))
        self.assertEqual((out[1].expired, out[1].presented), (4, 0))

    def test_of_every_month(self):
        said = [quarter_of(2026, m)[-1] for m in range(1, 13)]
        self.assertEqual("".join(said), "111222333444")
