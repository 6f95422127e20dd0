"""The order of stages, by rule, and moves with a reason."""

import unittest
from itertools import permutations

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.order import ordered
from zesty_glass.core.treating.stream import source_stream

ITEMS = {i.code: i for i in example_items()}


def order(*codes, **values):
    w = water(**values)
    return [
        i.code
        for i in ordered(
            tuple(ITEMS[c] for c in codes),
            source_stream(w, None, site_of(home(), settings(), w).running_psi),
        )
    ]


class ByRule(unittest.TestCase):
    def test_a_whole_line(self):
        self.assertEqual(
            order(
                "UV-12H",
                "CC-15",
                "SO-20",
                "FE-A10",
                "SD-50",
                "RO-75M",
                "CP-T",
                "CB-T",
                "SD-T10",
                ph=7.4,
            ),
            ["SD-50", "FE-A10", "SO-20", "CC-15", "UV-12H", "SD-T10", "CB-T", "RO-75M", "CP-T"],
        )

    def test_ph_correction_ahead_of_an_iron_filter_that_wants_it(self):
        self.assertEqual(order("FE-A10", "AC-B15", "SO-20", ph=6.2), ["AC-B15", "FE-A10", "SO-20"])

    def test_and_behind_one_that_does_not(self):
        self.assertEqual(order("FE-A10", "AC-B15", "SO-20", ph=8.2), ["FE-A10", "AC-B15", "SO-20"])

    def test_calcite_is_always_ahead_of_softening(self):
        for ph in (5.5, 6.5, 7.5):
            out = order("SO-20", "AC-U15", "FE-A10", ph=ph)
            self.assertLess(out.index("AC-U15"), out.index("SO-20"))

    def test_carbon_ahead_of_resin_only_where_chlorine_would_harm_it(self):
        self.assertEqual(order("SO-20", "CC-15", chlorine_free=1.5), ["CC-15", "SO-20"])
        self.assertEqual(order("SO-20", "CC-15", chlorine_free=0.5), ["SO-20", "CC-15"])
        self.assertEqual(order("TN-20", "CC-15", chlorine_free=0.5), ["CC-15", "TN-20"])
        self.assertEqual(order("TN-20", "CC-15", chlorine_free=0.05), ["TN-20", "CC-15"])

    def test_the_fine_filter_stands_right_ahead_of_the_lamp(self):
        self.assertEqual(order("SD-20B", "UV-12H", "CC-15"), ["CC-15", "SD-20B", "UV-12H"])
        self.assertEqual(order("SD-20B", "CC-15"), ["SD-20B", "CC-15"])

    def test_the_house_comes_before_the_tap(self):
        out = order("RO-75M", "UV-T", "UV-12H", "SD-T10", "SD-20B")
        self.assertEqual(out, ["SD-20B", "UV-12H", "SD-T10", "RO-75M", "UV-T"])

    def test_the_order_things_were_chosen_in_does_not_matter(self):
        codes = ("SO-20", "CC-15", "FE-A10", "AC-B15", "UV-12H")
        self.assertEqual(
            {tuple(order(*p, ph=6.2, chlorine_free=0.0)) for p in permutations(codes)},
            {("AC-B15", "FE-A10", "SO-20", "CC-15", "UV-12H")},
        )

    @given(
        st.sets(
            st.sampled_from(sorted(c for c, i in ITEMS.items() if i.kind != "system")), max_size=8
        ),
        st.floats(5, 9),
        st.floats(0, 3),
    )
    def test_nothing_is_lost_and_the_tap_is_last(self, codes, ph, chlorine):
        out = order(*codes, ph=ph, chlorine_free=chlorine)
        self.assertEqual(sorted(out), sorted(codes))
        scopes = [ITEMS[c].scope for c in out]
        self.assertEqual(scopes, sorted(scopes))


class Moved(unittest.TestCase):
    def walk(self, *choices):
        return walk(
            Option(id="o", name="o", stages=choices),
            ITEMS,
            water(hardness=200, iron=0.1, ph=7.4, chlorine_free=0.2, chlorine_total=0.2),
            None,
            home(),
            settings(),
        )

    def test_a_move_with_a_reason_stands_and_is_said(self):
        line = self.walk(
            StageChoice(item="SO-20"),
            StageChoice(item="CC-15", position=0, reason="the pipe run is short there"),
        )
        self.assertEqual([s.code for s in line.stages], ["CC-15", "SO-20"])
        self.assertIn(
            "the pipe run is short there",
            next(c.sentence for c in line.checks if c.id == "line.moved"),
        )

    def test_without_one_it_is_refused(self):
        with self.assertRaises(RuleError) as e:
            self.walk(StageChoice(item="SO-20"), StageChoice(item="CC-15", position=0, reason="  "))
        self.assertEqual(e.exception.code, "line.reason")

    def test_the_checks_stay_on(self):
        line = self.walk(
            StageChoice(item="SO-10"), StageChoice(item="CC-15", position=1, reason="space")
        )
        self.assertTrue(any(c.id.startswith("softener.") for s in line.stages for c in s.checks))

    def test_a_place_past_the_end_is_the_end(self):
        line = self.walk(
            StageChoice(item="SO-20", position=99, reason="space"), StageChoice(item="CC-15")
        )
        self.assertEqual([s.code for s in line.stages], ["CC-15", "SO-20"])
