"""Devices in the pipe that pass the water as it is, and a line that leads it past what treats the
house.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Literal

from ...doing import NOTHING, Does
from ...ranges import Range
from ...record import record
from ..checks import Says, told
from ..figures import Figures
from ..place import drop_at, place_checks
from ..report import StageReport
from ..technology import Place, Service, Technology, at, judges_nothing
from .common import StageInput, dues, effects, report

RAW_LINE_CHECKS = {
    "raw_line.as_it_comes": Says(
        "The kitchen cold tap gets the water as it comes: nothing ahead treats it.",
        "Its kettle and coffee machine keep their crust.",
    ),
}


@record
class DeviceFigures(Figures):
    """Devices in the pipe: ``sets_psi`` what a regulator or booster is set to [psi]."""

    kind: Literal["regulator", "expansion", "bypass", "booster", "polish", "raw_line"]
    sets_psi: float | None = None


def run(inp: StageInput) -> StageReport:
    """Regulators, expansion and bypass pass the water as it is; a booster raises its pressure."""
    item, f = inp.item, inp.item.figures
    assert isinstance(f, DeviceFigures)
    checks = place_checks(item, inp.site)
    changes, more = effects(item, inp.stream)
    psi, to = inp.stream.psi, f.sets_psi
    if to is not None and psi is not None:
        psi = Range.exact(to) if f.kind == "booster" else psi.apply(lambda v: min(v, to))
    takes = item.scope == "house" and f.kind == "polish"
    return report(
        inp,
        inp.stream.with_(changes, psi=psi),
        checks + more,
        drop=drop_at(item, inp.site.demand.peak_gpm) if takes else 0.0,
        due=dues(item, inp.site),
    )


def run_raw_line(inp: StageInput) -> StageReport:
    """The water as it enters the house, at the pressure it has there."""
    checks = [*place_checks(inp.item, inp.site), told("raw_line.as_it_comes", "say")]
    return report(inp, inp.raw or inp.stream, checks, drop=0.0, due=dues(inp.item, inp.site))


def _device(
    kind: str,
    name: str,
    place: Place,
    *sheets: str,
    raises: bool = False,
    run: Callable[[StageInput], StageReport] = run,
    does: frozenset[Does] = NOTHING,
    checks: Mapping[str, Says] = MappingProxyType({}),
) -> Technology:
    """A device that needs, reads and changes nothing of the water but its pressure."""
    return Technology(
        kind=kind,
        name=name,
        figures=DeviceFigures,
        run=run,
        place=place,
        needs=(),
        judges=judges_nothing,
        reads=frozenset(),
        asks=frozenset(),
        touches=frozenset(),
        changes=frozenset(),
        by_use=False,
        rinses=False,
        repeats=False,
        chlorine_max=None,
        fine_ahead=False,
        psi_min=0.0,
        sets_pressure="raises" if raises else "caps",
        size=None,
        style=(),
        does=does,
        service=Service(sheets=sheets),
        caution="",
        drawing=kind,
        settings=(),
        checks=checks,
    )


BYPASS = _device("bypass", "Untreated outdoor bypass", at(house=1, tap=125))
REGULATOR = _device("regulator", "Pressure regulator", at(house=2, tap=125), "regulator_start")
EXPANSION = _device("expansion", "Expansion device", at(house=3, tap=125), "expansion_start")
BOOSTER = _device("booster", "Booster pump", at(house=4, tap=125), "booster_start", raises=True)
POLISH = _device(
    "polish", "Mineral and pH polish", at(house=150, tap=150), "housing_start", "cartridge"
)
RAW_LINE = _device(
    "raw_line",
    "Raw kitchen line",
    at(house=1, tap=1),
    "raw_line_start",
    run=run_raw_line,
    does=frozenset({"as it comes"}),
    checks=RAW_LINE_CHECKS,
)
