"""Sediment filter: spin-down, cartridge or backwashing bed."""

from __future__ import annotations

from ..checks import met
from ..items import SedimentFigures
from ..place import backwash_checks, drop_at, item_pressure, place_checks
from ..report import Drain, Running, StageReport
from .common import StageInput, effects, report, water_cost


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
    ferric = False if inp.stream.ferric and f.micron <= 5 else inp.stream.ferric
    drop = drop_at(item, site.demand.peak_gpm) if item.scope == "house" else 0.0
    return report(
        inp,
        inp.stream.with_(changes, ferric=ferric),
        checks,
        drains=drains,
        running=running,
        drop=drop,
        summary=f"{f.micron:g} µm",
    )
