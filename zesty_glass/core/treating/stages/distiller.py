"""Distiller: boils and condenses."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from ... import words
from ...analytes import ANALYTES
from ...evidence import Level
from ...ranges import Range
from ...record import record
from ..checks import Says, met, told
from ..figures import Figures
from ..items import Item
from ..place import place_checks
from ..report import Check, Chore, Drain, Figure, StageReport
from ..stream import Quantity, Stream, predicted
from ..technology import Service, Technology, at, judges_nothing
from .common import StageInput, effects, electricity, report, working

LEAST_KWH_GAL = (
    2.7  # [kWh/gal] heat of evaporation of water and warming it, less a little recovered
)


CHECKS = {
    "distiller.energy": Says(
        "Below 2.7 kWh a gallon cannot be: boiling alone takes that.",
        "Ask for the measured figure.",
    ),
    "distiller.volatiles": Says(
        "Volatiles may come over: it wants carbon behind it.",
        "Add a post-carbon.",
        asks=("@carbon",),
    ),
}


@record
class DistillerFigures(Figures):
    """Distiller [kWh/gal, gal/day]."""

    kind: Literal["distiller"] = "distiller"
    kwh_gal: float
    gal_day: float
    residue_share: float
    automatic: bool = False
    rejection: float = 0.98


#: how far its rejection may lie under and over what is stated, as shares: trade practice (2024)
REJECTION_UNDER, REJECTION_OVER = 0.02, 0.015
BATCH_GAL = 1.0  # [gal] filled and started by hand: trade practice (2024)
LARGEST_RESIDUE_GAL = 0.5  # [gal] of one batch, emptied by hand


def _may_stand(inp: StageInput, f: DistillerFigures) -> list[Check]:
    site, need = inp.site, inp.site.demand.drinking_gal_day
    checks = place_checks(inp.item, site)
    if f.kwh_gal < LEAST_KWH_GAL:
        checks.append(told("distiller.energy", "warn"))
    checks.append(told("distiller.volatiles", "say"))
    checks.append(
        met("membrane.yield", f"makes {f.gal_day:g} gal a day; {need:.1f} gal are drunk")
        if f.gal_day >= need
        else told("membrane.yield", "stop", have=f"{f.gal_day:g}", need=f"{need:.1f}")
    )
    return checks


def _behind(inp: StageInput, f: DistillerFigures) -> tuple[dict[str, Quantity], list[Check]]:
    """Little of anything; a pH that nobody can say."""
    changes, checks = effects(inp.item, inp.stream)
    changes["ph"] = Quantity(
        range=None, state="unknown", evidence=Level.TYPICAL, note="unknown behind a distiller"
    )
    tds = inp.stream.range("tds")
    if tds is not None and "tds" not in changes:
        low, high = f.rejection - REJECTION_UNDER, f.rejection + REJECTION_OVER
        left = tds.removed(max(0.0, low), f.rejection, min(1.0, high))
        changes["tds"] = predicted(left, Level.TYPICAL)
    return changes | _at_least_its_ions(inp.item, inp.stream, changes), checks


IONS = {a.id: a.of_tds for a in ANALYTES.values() if a.of_tds}


def _unclaimed(item: Item) -> frozenset[str]:
    """Ions of which an item claims nothing, so that they pass."""
    claimed = {e.analyte for e in item.effects if e.high > 0}
    return frozenset(IONS) - claimed


def _at_least_its_ions(
    item: Item, stream: Stream, changes: dict[str, Quantity]
) -> dict[str, Quantity]:
    """TDS behind it no less than the ions that pass, of which nothing is claimed; what is left of
    the others is within what is left of TDS.

    Source: balance of mass.
    """
    tds = changes.get("tds")
    passing = ((n, stream.range(n)) for n in sorted(_unclaimed(item)))
    ions = sum(IONS[n] * r.best for n, r in passing if r is not None)
    if tds is None or tds.range is None or tds.range.best >= ions:
        return {}
    r = tds.range
    high = None if r.high is None else max(r.high, ions)
    return {"tds": replace(tds, range=Range.of(max(r.low, min(ions, r.best)), ions, high))}


def residue_gal(gallons: float, share: float) -> float:
    """Water thrown away with what stays behind: gallons × share ÷ (1 − share) [gal].

    Args:
        gallons: distilled [gal]. share: of a batch that is left in it, 0 up to but not 1.

    Source: by mass balance.

    >>> residue_gal(90.0, 0.1)
    10.0
    """
    return gallons * share / (1 - share)


def _power_figure(gallons: float, kwh: float, f: DistillerFigures) -> Figure:
    return Figure(
        id="power",
        label="electricity a year",
        value=words.about(kwh),
        unit="kWh",
        number=kwh,
        working=working(
            "How much power?",
            "gallons drunk × kWh a gallon",
            "heat of evaporation: at least 2.7 kWh a gallon",
            ("drunk a year", f"{gallons:,.0f}", "gal"),
            ("a gallon", f"{f.kwh_gal:g}", "kWh"),
            ("a year", f"{kwh:,.0f}", "kWh", True),
        ),
    )


def _drain(gallons: float, f: DistillerFigures) -> Drain:
    residue = residue_gal(gallons, f.residue_share)
    return Drain(
        kind="distiller",
        gal_year=residue,
        largest_gal=LARGEST_RESIDUE_GAL,
        times_year=gallons / max(f.gal_day, 0.1),
        per_gallon=residue / gallons if gallons else 0.0,
        scope="tap",
    )


def _batches(gallons: float, f: DistillerFigures) -> tuple[Chore, ...]:
    """Batches that somebody fills and starts; an automatic one fills itself."""
    if f.automatic:
        return ()
    times = gallons / BATCH_GAL
    return (Chore(label="Fill and start a batch", times_year=times, minutes=5),)


def run(inp: StageInput) -> StageReport:
    """Boils and condenses: little left in, no ratio to the drain, a power cost and heat in the
    room.
    """
    f, gallons = inp.item.figures, inp.site.demand.drinking_gal_year
    assert isinstance(f, DistillerFigures)
    changes, more = _behind(inp, f)
    kwh = gallons * f.kwh_gal
    why = f"{kwh:,.0f} kWh a year at {f.kwh_gal:g} a gallon"
    return report(
        inp,
        inp.stream.with_(changes),
        _may_stand(inp, f) + more,
        figures=lambda: (_power_figure(gallons, kwh, f),),
        drains=(_drain(gallons, f),),
        running=(electricity(kwh, why, inp.site, "tap"),),
        chores=_batches(gallons, f),
        summary=f"{f.gal_day:g} gal/day",
    )


DISTILLER = Technology(
    kind="distiller",
    name="Distiller",
    figures=DistillerFigures,
    run=run,
    place=at(house=130, tap=130),
    needs=(),
    judges=judges_nothing,
    reads=frozenset({"tds"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"tds"}),
    by_use=True,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=(),
    does=frozenset({"makes slowly"}),
    service=Service(sheets=("still_start", "still")),
    caution="Hot surfaces and steam: keep it out of children’s reach.",
    drawing="distiller",
    settings=(),
    checks=CHECKS,
    also_reads=_unclaimed,
)
