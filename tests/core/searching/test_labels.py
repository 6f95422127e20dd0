"""Which ways to a state no other beats, against plain comparison of all with all."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.searching.labels import beats3, covers, floored, least, unchain

small = st.integers(0, 4)
labels = st.lists(st.tuples(small, small, small, st.integers(-4, 0)), min_size=1, max_size=30).map(
    lambda xs: [(*x, (None, n)) for n, x in enumerate(xs)]
)


def beats(a, b):
    return all(x <= y for x, y in zip(a[:4], b[:4], strict=True)) and a[:4] != b[:4]


class Least(unittest.TestCase):
    @given(labels)
    def test_keeps_exactly_those_that_no_other_beats(self, all_):
        wanted = {x for x in all_ if not any(beats(y, x) for y in all_)}
        self.assertEqual(set(least(list(all_))), wanted)

    @given(labels)
    def test_order_does_not_matter(self, all_):
        self.assertEqual(set(least(list(all_))), set(least(list(reversed(all_)))))

    def test_equals_are_all_kept(self):
        two = [(1, 1, 1, 0, (None, 1)), (1, 1, 1, 0, (None, 2))]
        self.assertEqual(len(least(two)), 2)


class Floored(unittest.TestCase):
    steps = st.lists(st.integers(1, 90), max_size=8).map(lambda xs: tuple(sorted({0, *xs})))

    @given(st.integers(0, 100), steps)
    def test_a_later_stage_decides_the_same(self, psi, steps):
        ((_, _, _, low, _),) = floored([(0, 0, 0, -psi, None)], steps)
        for wanted in steps:
            self.assertEqual(-low >= wanted, psi >= wanted)

    def test_without_steps_nothing_changes(self):
        all_ = [(0, 0, 0, -37, None)]
        self.assertIs(floored(all_, None), all_)


class Small(unittest.TestCase):
    def test_chains_come_out_first_to_last(self):
        self.assertEqual(unchain((((None, 3), 1), 2)), (3, 1, 2))
        self.assertEqual(unchain(None), ())

    @given(labels)
    def test_nothing_beats_itself(self, all_):
        for x in all_:
            self.assertFalse(beats3(x, x))

    @given(st.lists(st.tuples(small, small), min_size=1, max_size=6))
    def test_covering_both_ways_is_being_equal(self, pairs):
        a, b = tuple(x for x, _ in pairs), tuple(y for _, y in pairs)
        self.assertEqual(covers(a, b) and covers(b, a), a == b)
