"""How good a water is in one thing found: two figures, higher is better, unknown never wins."""

import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.evidence import ESTABLISHES_HEALTH, LEVEL_WORDS, STRENGTH, Evidence, Level
from zesty_glass.core.proposing.standing import padded_last
from zesty_glass.core.proposing.suggest import suggest, things_found
from zesty_glass.core.proposing.suggested import Suggested
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.searching.scores import OPEN, UNKNOWN, Score, score
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stream import Quantity


def q(low, best, high, **more):
    return Quantity(range=Range.of(low, best, high), state="predicted", **more)


RAW = q(10, 12, 14)


class Scores(unittest.TestCase):
    def test_less_is_better_where_less_is_wanted(self):
        a, b = (
            score("iron", q(0, 0.1, 0.2), RAW, 0.3, "at_most"),
            score("iron", q(0, 0.2, 0.3), RAW, 0.3, "at_most"),
        )
        self.assertGreater(a.best, b.best)
        self.assertGreater(a.worst, b.worst)

    def test_not_tested_is_worst(self):
        self.assertEqual(
            score("iron", None, None, 0.3, "at_most"), Score(best=UNKNOWN, worst=UNKNOWN)
        )

    def test_an_open_end_is_worse_than_any_number(self):
        self.assertEqual(
            score(
                "hardness",
                Quantity(range=Range.of(400, 425, None), state="measured"),
                RAW,
                60,
                "at_most",
            ).worst,
            OPEN,
        )

    def test_a_health_claim_that_is_not_established_counts_as_not_taken_out(self):
        weak = score(
            "lead", q(0, 0.0, 0.001, established=False), q(0.01, 0.012, 0.014), 0.0, "at_most"
        )
        untouched = score("lead", q(0.01, 0.012, 0.014), q(0.01, 0.012, 0.014), 0.0, "at_most")
        self.assertEqual((weak.best, weak.worst), (0.0, untouched.worst))
        sure = score("lead", q(0, 0.0, 0.001), q(0.01, 0.012, 0.014), 0.0, "at_most")
        self.assertGreater(sure.worst, weak.worst)

    def test_bacteria_in_words(self):
        by_words = {
            w: (
                score(
                    "coliform",
                    Quantity(range=None, state="measured", words=w),
                    None,
                    0.0,
                    "at_most",
                ).best
            )
            for w in ("absent", "present", "inactivated at the lamp", "")
        }
        self.assertTrue(
            by_words["absent"]
            >= by_words["inactivated at the lamp"]
            > by_words["present"]
            > by_words[""]
        )

    def test_ph_is_good_between_its_ends(self):
        good, low, high = (
            score("ph", q(v, v, v), RAW, 7.0, "at_least").best for v in (7.4, 6.2, 9.4)
        )
        self.assertEqual(good, 0)
        self.assertAlmostEqual(low, -0.8)
        self.assertAlmostEqual(high, -0.9)

    @given(st.floats(0, 1000), st.floats(0, 1000), st.floats(0, 1000))
    def test_the_worst_end_is_never_better_than_the_best_value(self, a, b, c):
        low, best, high = sorted((a, b, c))
        for name, op in (("iron", "at_most"), ("uvt", "at_least")):
            s = score(name, q(low, best, high), RAW, 50, op)
            self.assertLessEqual(s.worst, s.best)

    @given(st.floats(0, 14), st.floats(0, 3))
    def test_ph_too(self, best, width):
        s = score("ph", q(best - width, best, best + width), RAW, 7.0, "at_least")
        self.assertLessEqual(s.worst, s.best)


class EvidenceLevels(unittest.TestCase):
    def test_strongest_first(self):
        self.assertEqual(sorted(Level, key=STRENGTH.__getitem__)[0], Level.MEASURED_HERE)
        self.assertEqual(ESTABLISHES_HEALTH, {Level.MEASURED_HERE, Level.CERTIFIED})

    def test_no_claim_and_does_not_remove_are_two_answers(self):
        self.assertNotEqual(LEVEL_WORDS[Level.NO_CLAIM], LEVEL_WORDS[Level.DOES_NOT_REMOVE])

    def test_the_sentence_names_certifier_and_certificate(self):
        e = Evidence(
            level=Level.CERTIFIED, certifier="An office", standard="NSF/ANSI 58", certificate="X-1"
        )
        self.assertEqual(e.sentence(), "certified to NSF/ANSI 58 by An office, certificate X-1")


class ThingsFound(unittest.TestCase):
    def found(self, *complaints, **values):
        said = tuple(Complaint(id=s, sign=s, words=s) for s in complaints)
        return things_found(meaning(water(**values), home(), said, Rules()))

    def test_what_asks_for_something(self):
        self.assertEqual(set(self.found(iron=3.0, hardness=300, tds=400)), {"iron", "hardness"})

    def test_dissolved_matter_and_sodium_alone_ask_for_nothing(self):
        self.assertEqual(self.found(tds=700, sodium=30.0, hardness=10), ())

    def test_nothing_found(self):
        self.assertEqual(self.found(tds=58, hardness=10, iron=0.0, ph=7.3), ())

    def test_the_heaters_smell_is_no_reason_to_sell(self):
        self.assertNotIn("hydrogen_sulfide", self.found("egg_smell_hot", tds=58, hardness=10))


class PaddedLines(unittest.TestCase):
    """A line that only adds stages to one before it stands after all others."""

    def line(self, codes, cost, answers, watch=()):
        stages = tuple(StageChoice(item=c) for c in codes)
        return Suggested(
            option=Option(id="-".join(codes), name=" + ".join(codes), stages=stages),
            names=codes,
            meets=1,
            wanted=1,
            not_met=(),
            unknown=(),
            cost=cost,
            counted_cost=cost,
            waste_gal_year=0.0,
            own_minutes=0.0,
            tap_only=False,
            answers=answers,
            watch=watch,
        )

    def ordered(self, *lines):
        items = {i.code: i for i in example_items()}
        return [x.option.id for x in padded_last(list(lines), items)]

    def setUp(self):
        of = {i.kind: i.code for i in reversed(example_items())}
        self.softener, self.sediment = of["softener"], of["sediment"]
        self.short = self.line((self.softener,), 3000, {"hardness": 1.0})
        self.other = self.line((self.sediment,), 500, {"hardness": 0.0})

    def longer(self, cost=3500.0, answers=None, watch=()):
        codes = (self.sediment, self.softener)
        return self.line(codes, cost, answers or {"hardness": 1.0}, watch)

    def at_the_end(self, longer):
        return self.ordered(self.short, longer, self.other)[-1] == longer.option.id

    def test_more_of_the_same_goes_last(self):
        self.assertTrue(self.at_the_end(self.longer()))

    def test_one_that_answers_more_keeps_its_place(self):
        short = self.line((self.softener,), 3000, {"hardness": 1.0, "iron": 0.4})
        more = self.longer(answers={"hardness": 1.0, "iron": 0.9})
        self.assertEqual(self.ordered(short, more, self.other)[1], more.option.id)

    def test_a_cheaper_one_keeps_its_place(self):
        self.assertFalse(self.at_the_end(self.longer(cost=2900)))

    def test_one_with_less_to_watch_keeps_its_place(self):
        fouled = self.line((self.softener,), 3000, {"hardness": 1.0}, watch=("sediment fouls it",))
        short, more = replace(fouled, burden=1.0), self.longer()
        self.assertEqual(self.ordered(short, more, self.other)[1], more.option.id)

    def test_nothing_is_lost(self):
        self.assertEqual(len(self.ordered(self.short, self.longer(), self.other)), 3)


class Suggestions(unittest.TestCase):
    def answer(self, **values):
        w = water(**values)
        h = home(pump_gpm=10.0)
        return suggest(w, meaning(w, h, (), Rules()), h, settings(), Rules(), example_items())

    def test_best_first(self):
        s = self.answer(
            hardness=300,
            iron=0.0,
            manganese=0.0,
            ph=7.4,
            tds=400,
            chlorine_free=0.0,
            temperature=12,
        )
        meets = [x.meets for x in s.lines]
        self.assertEqual(meets, sorted(meets, reverse=True))
        self.assertEqual(s.lines[0].meets, s.lines[0].wanted)

    def test_what_is_not_met_is_named_with_its_place(self):
        s = self.answer(
            hardness=300,
            iron=0.0,
            manganese=0.0,
            ph=7.4,
            tds=400,
            chlorine_free=0.0,
            temperature=12,
        )
        nothing = next(x for x in s.lines if not x.option.stages)
        self.assertEqual(nothing.not_met, ("hardness: at the house’s taps",))

    def test_counts_belong_together(self):
        s = self.answer(hardness=300, iron=0.0, ph=7.4, tds=400, chlorine_free=0.0, temperature=12)
        self.assertEqual(s.never + s.walked, s.combinations)
        self.assertTrue(s.why)

    def test_nothing_needed(self):
        s = self.answer(hardness=30, iron=0.0, ph=7.4, tds=60, coliform=0.0, nitrate_n=1.0)
        self.assertTrue(s.nothing_needed)
        self.assertEqual([x.option.name for x in s.lines], ["Do nothing"])
