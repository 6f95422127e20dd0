"""Waters and homes made at random, for what must hold for every technology and analyte."""

from __future__ import annotations

from dataclasses import replace

from hypothesis import strategies as st

from tests.making import home
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Water

ITEMS = {i.code: i for i in example_items()}
#: what is met with in homes: from nothing to bad [canonical unit]
MOST = {
    "hardness": 700.0,
    "iron": 12.0,
    "manganese": 1.5,
    "ph": 9.0,
    "alkalinity": 400.0,
    "tds": 2600.0,
    "temperature": 25.0,
    "uvt": 99.0,
    "calcium": 500.0,
    "radon": 12000.0,
    "e_coli": 60.0,
    "coliform": 200.0,
    "turbidity": 12.0,
    "sulfate": 900.0,
    "sodium": 400.0,
    "chloride": 600.0,
    "nitrate_n": 30.0,
    "fluoride": 6.0,
    "arsenic": 0.08,
    "uranium": 0.2,
    "lead": 0.05,
    "copper": 4.0,
}
LEAST = {"ph": 4.6, "temperature": 4.0, "uvt": 40.0}
NOT_WATER = {"flow", "pressure_static", "pressure_running", "noticed", "colour"}
IN_WATER = tuple(n for n in ANALYTES if n not in NOT_WATER)


@st.composite
def values(draw: st.DrawFn, name: str) -> Value:
    """A value of an analyte: exact, with a range, open at its upper end, or in words."""
    low, high = LEAST.get(name, 0.0), MOST.get(name, 3.0)
    best = draw(st.floats(low, high))
    if name in ("coliform", "e_coli") and draw(st.booleans()):
        said = draw(st.sampled_from(("absent", "present")))
        return Value(analyte=name, unit="", range=None, words=said, laboratory=True, certified=True)
    spread = draw(st.sampled_from((0.0, 0.02, 0.3)))
    top = None if name != "ph" and draw(st.integers(0, 9)) == 0 else best * (1 + spread)
    r = Range.of(best * (1 - spread), best, top)
    return Value(analyte=name, unit="", range=r, laboratory=True, certified=True)


@st.composite
def waters(draw: st.DrawFn, always: tuple[str, ...] = ()) -> Water:
    """A water in which most things were tested, and some were not."""
    names = [n for n in IN_WATER if n in always or draw(st.integers(0, 4)) > 0]
    return Water(sample="raw", values={n: draw(values(n)) for n in names})


@st.composite
def houses(draw: st.DrawFn):
    """A home that says most of what is asked of it, where much can stand and some cannot."""
    maybe = st.sampled_from((True, True, True, False, None))
    pressure = draw(st.none() | st.floats(20.0, 110.0))
    return replace(
        home(),
        source=draw(st.sampled_from(list(Source))),
        people=draw(st.floats(1, 9)),
        bathrooms=draw(st.sampled_from((1.0, 2.0, 3.5))),
        drain=draw(maybe),
        socket=draw(maybe),
        headroom_in=draw(st.sampled_from((None, 48.0, 96.0))),
        pump_gpm=draw(st.none() | st.floats(2.0, 20.0)),
        static_psi=pressure,
        running_psi=pressure,
        brine_forbidden=draw(st.sampled_from((None, False, False, True))),
    )
