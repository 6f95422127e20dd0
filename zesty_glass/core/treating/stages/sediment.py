"""Sediment filter: spin-down, cartridge or backwashing bed."""

from __future__ import annotations

from typing import Literal

from ...doing import NOTHING
from ...record import record
from ..adjusting import BACKWASH, HOUR
from ..checks import met
from ..figures import FINE_UM, Figures
from ..items import Item
from ..place import drop_at, item_pressure, place_checks
from ..report import StageReport
from ..stream import Stream
from ..technology import Company, Service, Technology, judges_nothing
from .by_clock import backwash_of
from .common import StageInput, effects, report


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
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, SedimentFigures)
    changes, more = effects(item, stream)
    gal = f.backwash_gal if f.style == "backwashing" else None
    washed = backwash_of(f.backwash_gpm, gal, f.backwash_days, inp)
    rating = f"{f.micron:g} µm, {'absolute' if f.absolute else 'nominal'}"
    checks = [
        *place_checks(item, site),
        *item_pressure(item, site, None if stream.psi is None else stream.psi.low),
        *more,
        *washed.checks,
        met("sediment.rating", rating),
    ]
    holds = stream.particulate_iron and f.micron <= FINE_UM
    return report(
        inp,
        stream.with_(changes, particulate_iron=False if holds else stream.particulate_iron),
        checks,
        drains=washed.drains,
        running=washed.running,
        settings=washed.settings,
        drop=drop_at(item, site.demand.peak_gpm) if item.scope == "house" else 0.0,
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
    judges=judges_nothing,
    reads=frozenset(),
    asks=frozenset(),
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
    does=NOTHING,
    service=Service(sheets=("valve", "housing_start", "cartridge", "rebed")),
    caution="",
    drawing="sediment",
    settings=(BACKWASH, HOUR),
    checks={},
)
