"""Blind tasting: the worked figure, ties, the exact chance against plain enumeration, and who may
taste what.
"""

import random
import unittest
from collections import Counter
from dataclasses import replace
from datetime import timedelta
from itertools import permutations, product

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.making import NOON, from_lab, home, sample, tds
from zesty_glass.core.demonstrating.demonstrations import (
    Demonstration,
    TastedWater,
    Taster,
    Tasting,
)
from zesty_glass.core.demonstrating.tasting import (
    LETTERS,
    agreement,
    concordance,
    draw,
    how_little,
    places,
    refusals,
    words_of,
)
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Source
from zesty_glass.core.own_water import OwnWater, lacking
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import water_of

CODES = ("BDF", "GHJ", "KLM", "NPQ", "RST")


def panel(*ranks):
    codes = CODES[: len(ranks[0])]
    waters = tuple(TastedWater(sample=f"s{i}", code=c) for i, c in enumerate(codes))
    return Tasting(
        waters=waters,
        tasters=tuple(
            Taster(name=f"t{i}", order=codes, ranks=dict(zip(codes, r, strict=True)))
            for i, r in enumerate(ranks)
        ),
    )


def plainly(ranked):
    """Every panel of guessers, one by one: independent of the tool's way."""

    def spread(rows):
        sums = [sum(c) for c in zip(*rows, strict=True)]
        mean = sum(sums) / len(sums)
        return sum((s - mean) ** 2 for s in sums)

    seen = spread(ranked)
    every = [list(permutations(r)) for r in ranked]
    hits = [spread(rows) >= seen - 1e-9 for rows in product(*every)]
    return sum(hits) / len(hits)


class WorkedFigure(unittest.TestCase):
    def setUp(self):
        self.a = agreement(panel((1, 2, 3, 4), (1, 3, 2, 4), (2, 1, 3, 4)))

    def test_sums(self):
        self.assertEqual(self.a.sums, (4, 6, 8, 12))

    def test_w(self):
        self.assertEqual(round(self.a.w, 2), 0.78)

    def test_chance(self):
        self.assertEqual(
            (self.a.as_good, self.a.of, round(100 * self.a.chance, 1)), (744, 13824, 5.4)
        )

    def test_it_says_how_little(self):
        self.assertIn("proves nothing", how_little(self.a, 3))


class Ties(unittest.TestCase):
    def test_places_are_averaged(self):
        self.assertEqual(
            places({"BDF": 1, "GHJ": 2, "KLM": 2, "NPQ": 4}, CODES[:4]), (1.0, 2.5, 2.5, 4.0)
        )

    def test_two_ways_of_writing_a_tie_are_one(self):
        self.assertEqual(
            agreement(panel((1, 2, 2, 4), (1, 2, 3, 4))),
            agreement(panel((1, 3, 3, 4), (1, 2, 3, 4))),
        )

    def test_identical_rankings_with_ties_agree_wholly(self):
        self.assertAlmostEqual(concordance([(1, 2.5, 2.5, 4)] * 3), 1)

    def test_nobody_told_them_apart(self):
        a = agreement(panel((1, 1, 1), (2, 2, 2)))
        self.assertIsNone(a.w)
        self.assertEqual(a.chance, 1)
        self.assertIn("Nobody", how_little(a, 2))


class Chance(unittest.TestCase):
    @settings(max_examples=25)
    @given(
        st.integers(2, 4).flatmap(
            lambda n: st.lists(
                st.lists(st.integers(1, n), min_size=n, max_size=n), min_size=1, max_size=3
            )
        )
    )
    def test_against_plain_enumeration(self, ranks):
        t = panel(*ranks)
        ranked = [places(x.ranks, [w.code for w in t.waters]) for x in t.tasters]
        self.assertAlmostEqual(agreement(t).chance, plainly(ranked))

    @given(st.permutations(range(1, 6)), st.integers(2, 6))
    def test_identical_ranks_have_w_1(self, ranks, tasters):
        a = agreement(panel(*[tuple(ranks)] * tasters))
        self.assertAlmostEqual(a.w, 1)

    @given(
        st.lists(st.permutations(range(1, 5)), min_size=2, max_size=4), st.permutations(range(4))
    )
    def test_names_of_the_waters_do_not_matter(self, ranks, order):
        moved = [tuple(r[i] for i in order) for r in ranks]
        a, b = agreement(panel(*map(tuple, ranks))), agreement(panel(*moved))
        self.assertEqual((a.w, a.chance), (b.w, b.chance))

    def test_one_taster_agrees_with_himself_and_proves_nothing(self):
        a = agreement(panel((1, 2, 3)))
        self.assertEqual((a.w, a.chance), (1, 1))
        self.assertIn("One taster", how_little(a, 1))

    def test_a_taster_still_ranking_leaves_it_open(self):
        t = panel((1, 2), (2, 1))
        self.assertIsNone(
            agreement(replace(t, tasters=(t.tasters[0], replace(t.tasters[1], ranks=None))))
        )


class Drawn(unittest.TestCase):
    def test_the_same_chance_draws_the_same(self):
        self.assertEqual(
            draw(("a", "b"), ("x",), random.Random(4)), draw(("a", "b"), ("x",), random.Random(4))
        )

    @given(st.integers(0, 10_000), st.integers(2, 5), st.integers(1, 6))
    def test_codes_are_secret_and_orders_whole(self, seed, waters, tasters):
        t = draw(
            [f"s{i}" for i in range(waters)], [f"t{i}" for i in range(tasters)], random.Random(seed)
        )
        codes = [w.code for w in t.waters]
        self.assertEqual(len(set(codes)), waters)
        self.assertTrue(all(len(c) == 3 and set(c) <= set(LETTERS) for c in codes))
        self.assertTrue(
            all(sorted(x.order) == sorted(codes) and x.ranks is None for x in t.tasters)
        )

    def test_every_place_is_as_likely(self):
        first = Counter(
            next(i for i, w in enumerate(t.waters) if w.code == t.tasters[0].order[0])
            for t in (draw("abc", "x", random.Random(i)) for i in range(600))
        )
        self.assertTrue(all(140 < n < 260 for n in first.values()), first)


class Bad(unittest.TestCase):
    def test_what_cannot_be(self):
        good = panel((1, 2, 3))
        for make, code in (
            (lambda: replace(good, waters=good.waters[:1]), "tasting.waters"),
            (lambda: replace(good, tasters=()), "tasting.tasters"),
            (lambda: replace(good, tasters=(Taster(name="a", order=("BDF",)),)), "tasting.order"),
            (lambda: panel((1, 2, 9)), "tasting.ranks"),
            (
                lambda: replace(
                    good, tasters=(replace(good.tasters[0], ranks=None),), shown_at=NOON
                ),
                "tasting.early",
            ),
            (
                lambda: Demonstration(id="d", made_at=NOON, simulated=True, body=good),
                "tasting.simulated",
            ),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                make()
            self.assertEqual(e.exception.code, code)


class MayBeTasted(unittest.TestCase):
    """Bottled, a regulated supply, or a recent clean report; never the rest."""

    town, well = home(source=Source.CITY), home(source=Source.WELL_DRILLED)

    def why(self, s, home_, sanitised=False):
        means = meaning(water_of(s), home_, (), Rules())
        return " ".join(refusals(s, home_, means, sanitised, NOON))

    def test_town_water_and_bottles_may(self):
        self.assertEqual(self.why(sample(tds(400, 401)), self.town), "")
        self.assertEqual(self.why(sample(raw=False, kind="bottled"), self.well), "")

    def test_raw_private_surface_and_cistern_water_may_not(self):
        for source in (
            Source.WELL_DRILLED,
            Source.WELL_DUG,
            Source.SPRING,
            Source.LAKE,
            Source.CISTERN,
        ):
            self.assertIn("private supply", self.why(sample(tds(400, 401)), home(source=source)))

    def test_a_recent_clean_report_lets_a_well_be_tasted(self):
        clean = (from_lab("coliform", qualifier="absent"), from_lab("nitrate_n", 2.0, basis="N"))
        self.assertEqual(self.why(sample(*clean), self.well), "")
        self.assertNotEqual(self.why(sample(clean[0]), self.well), "")
        old = tuple(replace(r, made_at=NOON - timedelta(days=400)) for r in clean)
        self.assertNotEqual(self.why(sample(*old), self.well), "")

    def test_a_health_finding_refuses_even_town_water(self):
        self.assertIn("health finding", self.why(sample(from_lab("lead", 0.004)), self.town))

    def test_behind_a_unit_only_when_sanitised_and_flushed(self):
        s = sample(raw=False, kind="pitcher", treated=True)
        self.assertIn("sanitized", self.why(s, self.town))
        self.assertEqual(self.why(s, self.town, True), "")
        self.assertIn("not flushed", self.why(replace(s, just_changed=True), self.town, True))

    def test_all_reasons_are_said_at_once(self):
        s = sample(raw=False, kind="own", draw="hot", just_changed=True)
        means = meaning(water_of(s), self.town, (), Rules())
        said = refusals(s, self.town, means, False, NOON)
        for words in ("not flushed", "sanitized", "hot tap", "bacteria reported absent"):
            self.assertEqual(sum(words in t for t in said), 1, words)
        self.assertEqual(len(said), 4)

    def test_only_what_is_missing_in_a_report_is_named(self):
        clean = from_lab("coliform", qualifier="absent")
        self.assertIn("(nitrate)", self.why(sample(clean), self.well))

    def test_hot_water_and_our_own_without_a_report(self):
        self.assertIn("hot tap", self.why(sample(draw="hot"), self.town))
        self.assertIn("our own", self.why(sample(raw=False, kind="own"), self.town, True))

    def test_our_own_water_by_its_card_and_all_that_it_lacks_at_once(self):
        own = sample(raw=False, kind="own")
        today = NOON.date()
        card = OwnWater(
            filled_on=today - timedelta(days=7),
            checked_on=today - timedelta(days=31),
            reported_on=today - timedelta(days=365),
            report_number="R-1",
            bacteria_absent=True,
            nitrate_n=10.0,
        )
        self.assertEqual(refusals(own, self.town, None, True, NOON, card), ())
        for name, bad in (
            ("filled_on", today - timedelta(days=8)),
            ("filled_on", today + timedelta(days=1)),
            ("filled_on", None),
            ("checked_on", today - timedelta(days=32)),
            ("reported_on", today - timedelta(days=366)),
            ("report_number", " "),
            ("bacteria_absent", None),
            ("bacteria_absent", False),
            ("nitrate_n", 10.1),
            ("nitrate_n", -0.1),
            ("nitrate_n", None),
        ):
            with self.subTest(name, bad=bad):
                self.assertEqual(len(lacking(replace(card, **{name: bad}), today)), 1)
        (why,) = refusals(own, self.town, None, True, NOON)
        self.assertEqual(why.count(";"), 4)


class InWords(unittest.TestCase):
    def told(self, *said):
        t = panel((1, 2), (2, 1), (1, 2))
        tasters = zip(t.tasters, said, strict=True)
        return replace(t, tasters=tuple(replace(x, said=words) for x, words in tasters))

    def test_words_are_counted_by_water_the_most_often_said_first(self):
        a, b = CODES[:2]
        t = self.told({a: ("flat", "earthy")}, {a: ("earthy",)}, {b: ("sweet",)})
        self.assertEqual(words_of(t), {a: (("earthy", 2), ("flat", 1)), b: (("sweet", 1),)})

    def test_a_word_that_nobody_knows_or_another_s_code_is_refused(self):
        for said in (
            {CODES[0]: ("clean",)},
            {"XXX": ("flat",)},
            {CODES[0]: ("flat", "flat")},
        ):
            with self.assertRaises(RuleError) as e:
                self.told(said, {}, {})
            self.assertEqual(e.exception.code, "tasting.words")
