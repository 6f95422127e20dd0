"""More to do never costs less: salt, media, water to the drain and money, over waters and homes
made at random; and one more stage never makes a line cheaper unless another has less to do behind
it. Prices stand still here: what is bought sooner is bought before they rise.
"""

import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.any_water import ITEMS, houses, waters
from tests.making import settings as firm_settings
from zesty_glass.core.costing.money import lifetime
from zesty_glass.core.costing.waste import waste
from zesty_glass.core.errors import RuleError
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Water
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages import TECHNOLOGIES

SINGLE = sorted(c for c, i in ITEMS.items() if i.kind in TECHNOLOGIES)
FIRM = firm_settings()


def line_of(codes, water, house):
    """A line of some items; None where it cannot be placed."""
    option = Option(id="o", name="o", stages=tuple(StageChoice(item=c) for c in codes))
    try:
        return walk(option, ITEMS, water, None, house, FIRM)
    except RuleError:
        return None


def cost(line):
    """What a line comes to over ten years, above all of them where something is not priced."""
    got = lifetime(line.purchases, line.dues, line.running, 10, Decimal(0), Decimal(0))
    return (bool(got.missing), Decimal(0) if got.missing else got.total)


def drained(line):
    """Gallons a year, above all of them where they are not known."""
    got = waste(line)
    unknown = got.unknown or line.status == "stop"
    return (unknown, 0.0 if unknown else round(got.total_gal_year, 6))


def with_more(water, analyte, times):
    """A water with more of one thing, at every end of its range."""
    v = water.values[analyte]
    r = v.range if v.range is not None else Range.exact(1.0)
    high = None if r.high is None else r.high * times
    more = Range.of(r.low * times, r.best * times, high)
    return Water(
        sample=water.sample,
        values={**water.values, analyte: Value(analyte=analyte, unit="", range=more)},
    )


class More(unittest.TestCase):
    def rises(self, before, after, said):
        if before is None or after is None:
            return
        self.assertGreaterEqual(cost(after), cost(before), said)
        self.assertGreaterEqual(drained(after), drained(before), said)

    @given(
        st.sampled_from(SINGLE),
        waters(always=("hardness",)),
        houses(),
        st.floats(1.01, 4.0),
    )
    @settings(max_examples=120, deadline=None)
    def test_hardness(self, code, water, house, times):
        before = line_of((code,), water, house)
        self.rises(before, line_of((code,), with_more(water, "hardness", times), house), code)

    @given(st.sampled_from(SINGLE), waters(always=("iron",)), houses(), st.floats(1.01, 4.0))
    @settings(max_examples=120, deadline=None)
    def test_iron(self, code, water, house, times):
        before = line_of((code,), water, house)
        self.rises(before, line_of((code,), with_more(water, "iron", times), house), code)

    @given(st.sampled_from(SINGLE), waters(), houses(), st.floats(0.5, 3.0))
    @settings(max_examples=120, deadline=None)
    def test_people(self, code, water, house, more):
        many = replace(house, people=house.people + more)
        self.rises(line_of((code,), water, house), line_of((code,), water, many), code)


#: what a stage has less of to do where a stage ahead took some of it out
_LOAD = ("hardness", "iron", "manganese", "tds", "ph")


def eased(line, codes):
    """Whether a stage of a line gets a water that eases its work."""
    inlet, found = line.source, False
    for s in line.stages:
        changed = any(inlet.range(a) != line.source.range(a) for a in _LOAD)
        found |= s.code in codes and (changed or inlet.psi != line.source.psi)
        inlet = s.outlet
    return found


class OneMoreStage(unittest.TestCase):
    @given(
        st.lists(st.sampled_from(SINGLE), min_size=2, max_size=3, unique=True), waters(), houses()
    )
    @settings(max_examples=160, deadline=None)
    def test_it_is_never_cheaper_with_nothing_to_show_for_it(self, codes, water, house):
        short, long = line_of(codes[:-1], water, house), line_of(codes, water, house)
        if short is None or long is None or eased(long, codes[:-1]):
            return
        self.assertGreaterEqual(cost(long), cost(short), codes)
