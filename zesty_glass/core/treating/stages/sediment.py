"""Sediment filter: spin-down, cartridge or backwashing bed."""

from __future__ import annotations

from typing import Literal

from ...record import record
from ..checks import met
from ..figures import Figures
from ..items import Item
from ..place import backwash_checks, drop_at, item_pressure, place_checks
from ..report import Drain, Running, StageReport
from ..stream import Stream
from ..technology import Company, Technology
from .common import StageInput, effects, report, water_cost


@record
class SedimentFigures(Figures):
    """Sediment filter: rating [µm]."""

    kind: Literal["sediment"] = "sediment"
    micron: float
    absolute: bool = False
    style: Literal["spin_down", "cartridge", "backwashing"] = "cartridge"
    backwash_gpm: float | None = None
    backwash_gal: float | None = None
    backwash_days: float | None = None

    @property
    def holds_um(self) -> float:
        """Its rating [µm]."""
        return self.micron


def run(inp: StageInput) -> StageReport:
    """A sediment filter holds back solids by its rating; what is dissolved passes."""
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, SedimentFigures)
    checks = place_checks(item, site) + item_pressure(
        item, site, None if inp.stream.psi is None else inp.stream.psi.low
    )
    changes, more = effects(item, inp.stream)
    checks += more
    drains: tuple[Drain, ...] = ()
    running: tuple[Running, ...] = ()
    if f.style == "backwashing" and f.backwash_gal and f.backwash_days:
        times = site.demand.occupied_days / f.backwash_days
        checks += backwash_checks(f.backwash_gpm, f.backwash_gal, 7 / f.backwash_days, site)
        drains = (
            Drain(
                kind="backwash",
                gal_year=times * f.backwash_gal,
                largest_gal=f.backwash_gal,
                times_year=times,
                scope=item.scope,
            ),
        )
        cost = water_cost(drains[0].gal_year, site, item.scope)
        running = (cost,) if cost else ()
    checks.append(
        met("sediment.rating", f"{f.micron:g} µm, {'absolute' if f.absolute else 'nominal'}")
    )
    particulate_iron = (
        False if inp.stream.particulate_iron and f.micron <= 5 else inp.stream.particulate_iron
    )
    drop = drop_at(item, site.demand.peak_gpm) if item.scope == "house" else 0.0
    return report(
        inp,
        inp.stream.with_(changes, particulate_iron=particulate_iron),
        checks,
        drains=drains,
        running=running,
        drop=drop,
        summary=f"{f.micron:g} µm",
    )


def _place(item: Item, beside: Company, stream: Stream) -> int:
    """A fine cartridge stands right ahead of a UV chamber; all else comes first."""
    f = item.figures
    assert isinstance(f, SedimentFigures)
    if item.scope == "tap":
        return 110
    if f.style == "cartridge" and f.micron <= 5 and beside.fine_ahead:
        return 80
    return 10 if f.micron > 5 else 11


SEDIMENT = Technology(
    kind="sediment",
    name="Sediment filter",
    figures=SedimentFigures,
    run=run,
    place=_place,
    needs=(),
    reads=frozenset(),
    touches=frozenset({"@particulate_iron"}),
    changes=frozenset({"turbidity"}),
    by_use=False,
    rinses=False,
    repeats=True,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("style",),
    caution="",
    drawing="sediment",
    checks={},
)
