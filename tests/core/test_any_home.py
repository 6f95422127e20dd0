"""Whatever is accepted of a home can be worked out: empty houses, no bathrooms, prices of nothing,
pressures of nothing.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from zesty_glass.core.assess import assess
from zesty_glass.core.home import Home, Source
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.demo.homes import demo_visits

VISITS = demo_visits(datetime(2026, 11, 20, 9, 0, tzinfo=UTC))
maybe = st.none() | st.booleans()


def some(low, high):
    return st.none() | st.just(float(low)) | st.just(float(high)) | st.floats(low, high)


prices = st.decimals(0, 10000, places=2)
homes = st.builds(
    Home,
    name=st.just("A house"),
    source=st.sampled_from(list(Source)),
    people=st.floats(0, 500),
    bathrooms=st.floats(0, 100),
    occupied_days=st.floats(0, 366),
    bill_gal_day=some(0, 100000),
    flow_gpm=some(0, 500),
    flow_full_bore=st.booleans(),
    static_psi=some(0, 300),
    running_psi=some(0, 300),
    pump_gpm=some(0, 500),
    low_yield=maybe,
    drain=maybe,
    socket=maybe,
    septic=maybe,
    headroom_in=some(0, 1000),
    floor_ok=maybe,
    freezing=maybe,
    tenant=st.booleans(),
    brine_forbidden=maybe,
    water_price=prices,
    sewer_price=prices,
    bottled_month=prices,
    soap_month=prices,
)


class AnyHome(unittest.TestCase):
    @given(st.sampled_from(VISITS), homes)
    @settings(max_examples=120, deadline=None)
    def test_every_line_is_worked_out_and_its_money_adds_up(self, visit, home):
        changed = replace(visit, home=home)
        for o in assess(changed, use_bands=True).options:
            if "used up within hours" in o.error:  # a cartridge for a barracks
                self.assertGreater(changed.home.people, 50)
                continue
            self.assertEqual(o.error, "")
            self.assertEqual(sum(o.cost.by_kind.values(), Decimal(0)), o.cost.total)
            self.assertGreaterEqual(o.cost.total, 0)
            self.assertGreaterEqual(o.waste.total_gal_year, 0)
            if o.use_band is not None:
                self.assertTrue(o.use_band.low <= o.cost.total <= o.use_band.high)

    @given(st.sampled_from(VISITS), homes, st.sampled_from([50 / 60, 1.0, 75 / 60]))
    @settings(max_examples=60, deadline=None)
    def test_and_can_be_compared(self, visit, home, use):
        side = compare(replace(visit, home=home), (5, 20), use)
        for id, short in side.over[0].options.items():
            if short.cost is not None:
                self.assertLessEqual(short.cost.total, side.over[1].options[id].cost.total)
