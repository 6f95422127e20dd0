"""Goals of the household: what they put first, and what each is said to cost."""

import unittest
from dataclasses import replace

from tests.core.proposing.test_ahead import A
from tests.core.proposing.test_more_homes import CLEAN_WELL, GPG, ON_CHALK, TOWN, asked
from tests.making import settings
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.goals import GOALS
from zesty_glass.core.proposing.by_goals import LESS, MEETS, by_goals, said_of_goals
from zesty_glass.core.proposing.priorities import SLIME_FIRST
from zesty_glass.core.treating.option import Option, StageChoice

ITEMS = {i.code: i for i in example_items()}


def line(code, **more):
    stages = (StageChoice(item=code),)
    return replace(A, option=Option(id=code, name=ITEMS[code].name, stages=stages), **more)


SOFTENER = line("SO-20", price=2_000.0, cost=4_000.0, counted_cost=4_000.0, waste_gal_year=2_000.0)
SALT_FREE = line("SF-12", price=1_500.0, cost=2_000.0, counted_cost=2_000.0, leaves=("hardness",))
NOTHING = replace(A, option=Option(id="nothing", name="Do nothing"), leaves=("hardness",))


def codes(lines):
    return [x.option.id for x in lines]


class Order(unittest.TestCase):
    def test_without_a_goal_nothing_moves(self):
        self.assertEqual(by_goals((SOFTENER, SALT_FREE), (), ITEMS), (SOFTENER, SALT_FREE))

    def test_no_salt_comes_before_what_it_leaves(self):
        got = by_goals((SOFTENER, SALT_FREE), ("no_salt",), ITEMS)
        self.assertEqual(codes(got), ["SF-12", "SO-20"])

    def test_salt_inside_a_system_counts(self):
        figures = replace(ITEMS["DT-1"].figures, parts=("SO-20",))
        items = {**ITEMS, "WHOLE": replace(ITEMS["DT-1"], code="WHOLE", figures=figures)}
        option = Option(id="w", name="w", stages=(StageChoice(item="WHOLE"),))
        self.assertFalse(MEETS["no_salt"](replace(SOFTENER, option=option), items))

    def test_less_health_never_comes_before_more(self):
        sick = replace(SALT_FREE, health=0.0)
        self.assertEqual(codes(by_goals((SOFTENER, sick), ("no_salt",), ITEMS))[0], "SO-20")

    def test_what_waits_before_anything_is_bought_stays_first(self):
        got = by_goals((NOTHING, SOFTENER, SALT_FREE), ("no_salt",), ITEMS)
        self.assertEqual(codes(got), ["nothing", "SF-12", "SO-20"])

    def test_buying_nothing_meets_no_goal_of_what_is_bought(self):
        got = by_goals((SOFTENER, SALT_FREE, NOTHING), ("no_salt", "no_electricity"), ITEMS)
        self.assertEqual(codes(got)[-1], "nothing")

    def test_goals_of_less_go_by_the_sum_of_places(self):
        a = line("SO-10", price=1.0, own_minutes=30.0, waste_gal_year=9.0)
        b = line("SO-15", price=2.0, own_minutes=10.0, waste_gal_year=5.0)
        c = line("SO-20", price=3.0, own_minutes=20.0, waste_gal_year=7.0)
        for goals, best in (
            (("price_today",), ["SO-10", "SO-15", "SO-20"]),
            (("own_time",), ["SO-15", "SO-20", "SO-10"]),
            # a: 0 + 2 + 2, b: 1 + 0 + 0, c: 2 + 1 + 1; of equals the one that stood first
            (("price_today", "own_time", "less_waste"), ["SO-15", "SO-20", "SO-10"]),
        ):
            with self.subTest(goals):
                self.assertEqual(codes(by_goals((c, a, b), goals, ITEMS)), best)

    def test_each_goal_is_met_or_is_a_figure(self):
        self.assertEqual(set(GOALS), set(MEETS) | set(LESS))
        self.assertFalse(set(MEETS) & set(LESS))


class Said(unittest.TestCase):
    def said(self, goal, *lines):
        return said_of_goals(lines, (goal,), ITEMS, settings(), 10)[0]

    def test_what_it_saves_and_what_it_leaves(self):
        self.assertEqual(
            self.said("no_salt", SOFTENER, SALT_FREE),
            f"“No salt”: {ITEMS['SF-12'].name} (A) instead of {ITEMS['SO-20'].name} (A); it costs"
            " $2,000 less over 10 years and leaves hardness.",
        )

    def test_the_lowest_price_is_said_as_of_today_and_over_the_years(self):
        cheap = replace(SALT_FREE, cost=4_860.0, leaves=())
        said = self.said("price_today", SOFTENER, cheap)
        self.assertTrue(
            said.endswith("; it costs $500 less today and costs $860 more over 10 years.")
        )
        self.assertNotIn("today", self.said("no_salt", SOFTENER, cheap))

    def test_what_it_costs(self):
        dear = replace(SALT_FREE, cost=4_860.0, leaves=())
        self.assertIn("it costs $860 more over 10 years.", self.said("no_salt", SOFTENER, dear))

    def test_a_dollar_is_said_less_than_one_and_open_costs_are_not(self):
        for cost, missing, told in ((4_001.0, (), True), (4_000.5, (), False)):
            other = replace(SALT_FREE, cost=cost, missing=missing, leaves=())
            self.assertEqual("it costs" in self.said("no_salt", SOFTENER, other), told)
        open_one = replace(SALT_FREE, missing=("salt",), leaves=())
        self.assertNotIn("it costs", self.said("no_salt", SOFTENER, open_one))
        unpriced = replace(SOFTENER, missing=("salt",))
        self.assertNotIn("it costs", self.said("no_salt", unpriced, replace(SALT_FREE, leaves=())))

    def test_what_is_met_already_and_what_nothing_meets(self):
        self.assertIn("is that already", self.said("no_salt", SALT_FREE, SOFTENER))
        self.assertIn("no system listed", self.said("no_salt", SOFTENER))
        self.assertEqual(said_of_goals((NOTHING,), ("no_salt",), ITEMS, settings(), 10), ())


class Homes(unittest.TestCase):
    def test_crust_and_no_salt(self):
        _, plain = asked(ON_CHALK, ("white_crust",), **TOWN)
        self.assertIn("Softener", plain.lines[0].option.name)
        self.assertEqual(plain.goals, ())
        _, s = asked(ON_CHALK, ("white_crust",), goals=("no_salt",), **TOWN)
        self.assertEqual(s.lines[0].option.name, "Salt-free conditioner")
        self.assertIn("leaves hardness", s.goals[0])

    def test_what_waits_before_anything_is_bought_stays_first_whatever_is_asked(self):
        rusty = {**CLEAN_WELL, "iron": 1.5}
        for goals in ((), ("price_today", "no_electricity")):
            with self.subTest(goals):
                _, s = asked(rusty, ("slime", "orange_streaks"), goals=goals)
                self.assertEqual(s.lines[0].ahead, SLIME_FIRST)

    def test_why_it_stands_before_the_next_is_said_of_the_order_that_is_shown(self):
        _, s = asked(ON_CHALK, ("white_crust",), goals=("no_salt",), **TOWN)
        self.assertNotIn("which the next system does not", s.lines[0].ahead)

    def test_the_lowest_price_today_still_answers_for_health(self):
        values = {**CLEAN_WELL, "fluoride": 6.0, "hardness": 12 * GPG}
        _, s = asked(values, goals=("price_today",))
        most = max(x.health for x in s.lines)
        self.assertEqual(s.lines[0].health, most)
        answered = [x.price for x in s.lines if x.health == most and not x.leaves]
        self.assertEqual(s.lines[0].price, min(answered))
        self.assertLess(min(x.price for x in s.lines if x.option.stages), s.lines[0].price)


if __name__ == "__main__":
    unittest.main()


class Worries(unittest.TestCase):
    def test_a_worry_about_germs_that_were_not_found_sells_nothing(self):
        (said,) = said_of_goals((SOFTENER, SALT_FREE), ("germs",), ITEMS, settings(), 10)
        self.assertIn("“Worried about germs”: no test here has shown bacteria", said)
        self.assertIn("A certified laboratory tests for coliform bacteria", said)

    def test_germs_found_put_what_answers_them_before_what_does_not(self):
        lamp = line("UV-12H", answers={"coliform": 1.0}, cost=9_000.0, counted_cost=9_000.0)
        got = by_goals((SOFTENER, lamp), ("germs",), ITEMS)
        self.assertEqual(codes(got), ["UV-12H", "SO-20"])
        half = replace(lamp, leaves=("coliform",))
        self.assertFalse(MEETS["germs"](half, ITEMS))

    def test_no_drilling_puts_what_needs_no_pipe_first(self):
        pitcher = line("PT-1", cost=9_000.0, counted_cost=9_000.0)
        got = by_goals((SOFTENER, pitcher), ("no_drilling",), ITEMS)
        self.assertEqual(codes(got), ["PT-1", "SO-20"])
        self.assertFalse(MEETS["no_drilling"](line("DT-1"), ITEMS))
