"""Distiller: boils and condenses."""

from __future__ import annotations

from typing import Literal

from ... import words
from ...evidence import Level
from ...record import record
from ..checks import Says, met, told
from ..figures import Figures
from ..place import place_checks
from ..report import Chore, Drain, Figure, Running, StageReport
from ..stream import Quantity, predicted
from ..technology import Technology, at
from .common import StageInput, effects, money, report, working

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


def run(inp: StageInput) -> StageReport:
    """Boils and condenses: little left in, no ratio to the drain, a power cost and heat in the
    room.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, DistillerFigures)
    checks = place_checks(item, site)
    if f.kwh_gal < LEAST_KWH_GAL:
        checks.append(told("distiller.energy", "warn"))
    checks.append(told("distiller.volatiles", "say"))
    need = site.demand.drinking_gal_day
    checks.append(
        met("membrane.yield", f"makes {f.gal_day:g} gal a day, {need:.1f} drunk")
        if f.gal_day >= need
        else told("membrane.yield", "stop", have=f"{f.gal_day:g}", need=f"{need:.1f}")
    )
    changes, more = effects(item, inp.stream)
    checks += more
    changes["ph"] = Quantity(
        range=None, state="unknown", evidence=Level.TYPICAL, note="unknown behind a distiller"
    )
    tds = inp.stream.range("tds")
    if tds is not None and "tds" not in changes:
        changes["tds"] = predicted(
            tds.removed(max(0.0, f.rejection - 0.02), f.rejection, min(1.0, f.rejection + 0.015)),
            Level.TYPICAL,
        )
    gallons = site.demand.drinking_gal_year
    kwh = gallons * f.kwh_gal
    residue = gallons * f.residue_share / (1 - f.residue_share)
    running = (
        Running(
            label="Electricity",
            kind="power",
            per_year=money(kwh) * site.settings.electricity,
            why=f"{kwh:,.0f} kWh a year at {f.kwh_gal:g} a gallon",
            scope="tap",
        ),
    )
    figure = Figure(
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
    drain = Drain(
        kind="distiller",
        gal_year=residue,
        largest_gal=0.5,
        times_year=gallons / max(f.gal_day, 0.1),
        per_gallon=residue / gallons if gallons else 0.0,
        scope="tap",
    )
    chores = (
        ()
        if f.automatic
        else (
            Chore(
                label="Fill and start a batch",
                times_year=gallons / max(1.0, min(f.gal_day, 1.0)),
                minutes=5,
            ),
        )
    )
    return report(
        inp,
        inp.stream.with_(changes),
        checks,
        figures=lambda: (figure,),
        drains=(drain,),
        running=running,
        chores=chores,
        summary=f"{f.gal_day:g} gal/day",
    )


DISTILLER = Technology(
    kind="distiller",
    name="Distiller",
    figures=DistillerFigures,
    run=run,
    place=at(house=130, tap=130),
    needs=(),
    reads=frozenset({"tds"}),
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
    caution="Hot surfaces and steam: keep it out of children’s reach.",
    drawing="distiller",
    checks=CHECKS,
)
