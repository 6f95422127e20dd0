"""What became of a piece of what was sold; rents reckoned by hand on a calendar."""

import unittest
from dataclasses import replace
from datetime import date
from decimal import Decimal

from zesty_glass.core.aftercare.equipment import (
    Bought,
    Move,
    check_move,
    rent_ends,
    rents,
    stages_gone,
    swapped_on,
)
from zesty_glass.core.errors import RuleError

FITTED, TODAY = date(2026, 1, 31), date(2026, 12, 1)
SOFTENER = Bought(label="Softener", terms="rental", fitter="firm", months=12, stages=(0,))
MEMBRANE = Bought(label="Membrane", terms="rent_to_own", fitter="firm", months=9, stages=(1, 2))
FILTER = Bought(label="Filter", terms="buy", fitter="firm", stages=(3,))
ALL = (SOFTENER, MEMBRANE, FILTER)


def move(piece, fate, on=date(2026, 6, 15), **more):
    made = {"id": f"{piece}{fate}", "because": "They moved out.", "by": "Tam", **more}
    return Move(piece=piece, fate=fate, on=on, **made)


class Rents(unittest.TestCase):
    def rents(self, *moves, fitted=FITTED, ended=None, today=TODAY):
        return {r.label: r for r in rents(ALL, moves, fitted, ended, today)}

    def test_from_the_day_it_is_in_use(self):
        of = self.rents()
        self.assertEqual(set(of), {"Softener", "Membrane"})
        softener, membrane = of["Softener"], of["Membrane"]
        self.assertEqual((softener.state, softener.start, softener.last), ("rented", FITTED, None))
        self.assertEqual(softener.until, date(2027, 1, 31))
        # nine payments from January 31: the last on September 30, theirs a month later
        self.assertEqual(membrane.last, date(2026, 9, 30))
        self.assertEqual((membrane.state, membrane.until), ("theirs", date(2026, 10, 31)))

    def test_until_then_it_is_the_firms(self):
        self.assertEqual(self.rents(today=date(2026, 10, 30))["Membrane"].state, "rented")

    def test_before_it_is_in_use_nothing_is_paid(self):
        self.assertEqual({r.state for r in self.rents(fitted=None).values()}, {"not begun"})

    def test_returned_it_ends_with_the_rent_paid_last(self):
        of = self.rents(move(0, "returned"))["Softener"]
        self.assertEqual((of.state, of.last), ("ended", date(2026, 5, 31)))
        on_the_day = self.rents(move(0, "returned", date(2026, 6, 30)))["Softener"]
        self.assertEqual(on_the_day.last, date(2026, 6, 30))

    def test_bought_out_it_is_theirs(self):
        of = self.rents(move(0, "bought_out", price=Decimal("900")))["Softener"]
        self.assertEqual((of.state, of.last), ("theirs", date(2026, 5, 31)))

    def test_the_end_of_the_job_ends_every_rent(self):
        of = self.rents(ended=date(2026, 3, 30))
        self.assertEqual({r.state for r in of.values()}, {"ended"})
        self.assertEqual(of["Softener"].last, date(2026, 2, 28))

    def test_the_first_that_ends_it_counts(self):
        both = (move(0, "bought_out"), move(0, "returned", date(2026, 8, 1)))
        self.assertEqual(rent_ends(0, both, None), date(2026, 6, 15))
        self.assertIsNone(rent_ends(1, both, None))


class Stages(unittest.TestCase):
    def test_what_is_gone_and_what_is_new(self):
        moves = (
            move(1, "taken_out"),
            move(0, "swapped"),
            move(0, "swapped", date(2026, 9, 1)),
            move(0, "bought_out"),
        )
        self.assertEqual(stages_gone(ALL, moves), {1, 2})
        self.assertEqual(swapped_on(ALL, moves), {0: date(2026, 9, 1)})


class Refused(unittest.TestCase):
    def refused(self, code, made, *before, fitted=FITTED):
        with self.assertRaises(RuleError) as e:
            check_move(made, ALL, before, fitted, TODAY)
        self.assertEqual(e.exception.code, f"move.{code}")

    def test_each_that_cannot_be(self):
        self.refused("piece", move(3, "swapped"))
        self.refused("not_fitted", move(0, "swapped"), fitted=None)
        self.refused("day", move(0, "swapped", date(2026, 1, 30)))
        self.refused("day", move(0, "swapped", date(2026, 12, 2)))
        self.refused("because", move(0, "swapped", because=" "))
        self.refused("gone", move(0, "swapped"), move(0, "returned"))
        self.refused("own", move(2, "bought_out"))
        self.refused("own", move(0, "bought_out"), move(0, "bought_out"))
        self.refused("price", move(0, "bought_out", price=Decimal("NaN")))

    def test_the_first_and_the_last_day_are_right(self):
        for day in (FITTED, TODAY):
            check_move(move(0, "swapped", day), ALL, (replace(move(1, "returned")),), FITTED, TODAY)
