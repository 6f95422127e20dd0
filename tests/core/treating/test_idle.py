"""What cannot work does nothing: nothing that a stopped stage treats is better behind it."""

import unittest

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.any_water import IN_WATER, ITEMS, houses, values, waters
from tests.making import home
from tests.making import settings as firm_settings
from zesty_glass.core.testing.water import Water
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.walking import run_stage

KINDS = sorted({i.kind for i in ITEMS.values()} & TECHNOLOGIES.keys())
BY_KIND = {k: [i for i in ITEMS.values() if i.kind == k] for k in KINDS}


def stage_of(item, water, house):
    """A stage of an item on a water, and the stream that reaches it."""
    site = site_of(house, firm_settings(), water)
    stream = source_stream(water, None, site.running_psi)
    inp = StageInput(item=item, stream=stream, site=site, overrides={}, raw=stream)
    return stream, *run_stage(inp, stream, {})


def better(name, before, after):
    """Whether a quantity is better in any form: a number, a word, or no number any more."""
    if after is None:
        return True
    if before.words == "present":
        return after.words != "present"
    if after.range is None:
        return name != "ph" and before.range is not None
    if before.range is None:
        return False
    was, now = before.range, after.range
    if name in ("ph", "uvt"):
        return now != was
    return now.low < was.low or now.best < was.best or now.top < was.top


class WhatCannotWork(unittest.TestCase):
    def test_behind_a_stop_nothing_is_better(self):
        for kind in KINDS:
            with self.subTest(kind):
                self._nothing_better(kind)

    def _nothing_better(self, kind):
        @given(st.sampled_from(BY_KIND[kind]), waters(), houses())
        @settings(max_examples=20, deadline=None)
        def holds(item, water, house):
            stream, r, outlet = stage_of(item, water, house)
            stopped = r.status == "stop" or r.idle
            for name, before in stream.quantities.items() if stopped else ():
                self.assertFalse(better(name, before, outlet.get(name)), (item.code, name))

        holds()

    @given(st.sampled_from(BY_KIND["uv"]), waters(always=("coliform", "e_coli", "uvt")), houses())
    @settings(max_examples=80, deadline=None)
    def test_a_lamp_with_an_open_test_ends_no_bacteria(self, item, water, house):
        stream, r, outlet = stage_of(item, water, house)
        asked = [c for c in r.checks if c.status == "unknown" and c.id != "uv.lamp_space"]
        assume(any(c.id.startswith("uv.") for c in asked))
        for name in ("coliform", "e_coli"):
            self.assertFalse(better(name, stream.get(name), outlet.get(name)), name)

    @given(st.data(), st.sampled_from(sorted(ITEMS)))
    @settings(max_examples=120, deadline=None)
    def test_an_analyte_alone_is_no_better_behind_a_stop(self, data, code):
        # every analyte by itself in water of which nothing else is known
        name = data.draw(st.sampled_from(IN_WATER))
        assume(ITEMS[code].kind in TECHNOLOGIES)
        water = Water(sample="raw", values={name: data.draw(values(name))})
        stream, r, outlet = stage_of(ITEMS[code], water, home(socket=False, drain=False))
        assume(r.status == "stop")
        for n, before in stream.quantities.items():
            self.assertFalse(better(n, before, outlet.get(n)), (code, n))
