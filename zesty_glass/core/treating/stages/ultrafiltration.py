"""Ultrafiltration: hollow fibers that hold back what is larger than their pores, and nothing that
is dissolved. They are rinsed backwards by a timer, and wash what they hold into a drain.

Pores of 0.01 to 0.1 µm hold back bacteria and parasites by size (WHO, Water treatment and pathogen
control, 2004); a broken fibre lets them pass unseen, so no claim is made here beyond an item's own.
"""

from __future__ import annotations

from typing import Literal

from ...doing import NOTHING
from ...record import record
from ..adjusting import CLOCK_OFF
from ..checks import Says, check_needs, merged_needs, met, told
from ..figures import Fault, Figures
from ..items import Need
from ..place import backwash_checks, drop_at, item_pressure, place_checks
from ..report import Check, StageReport
from ..technology import Service, Technology, at
from .by_clock import clock_days, cost_of, drain_of, empty_house, figure_of, rinses
from .common import StageInput, effects, report

CHECKS = {
    "ultrafiltration.dissolved": Says(
        "What is dissolved passes: hardness, dissolved iron, nitrate, arsenic, tannin’s color.",
        "Say so to the customer.",
    ),
    "ultrafiltration.fibres": Says(
        "It holds bacteria back by size while its fibers are whole, and disinfects nothing.",
        "UV behind it where bacteria were found; test its fibers as the manual says.",
    ),
    "ultrafiltration.grit": Says(
        "Grit and rust flakes cut fibers.", "A screen of about 100 µm ahead of it."
    ),
}
FEED_NTU = 5.0  # [NTU] more clogs fibres that are fed directly: trade practice (2024)
NEEDS = (
    Need(
        analyte="iron",
        limit=0.3,
        severity="warn",
        why="Dissolved iron rusts on the fibers: an iron filter ahead of it.",
    ),
    Need(
        analyte="tannin",
        limit=0.5,
        severity="warn",
        why="It clogs the pores: a tannin bed ahead, and cleaning more often.",
    ),
    Need(
        analyte="turbidity",
        limit=FEED_NTU,
        severity="warn",
        why="Its fibers clog: a sediment filter ahead of it.",
    ),
)
WIDEST_UM = 0.1  # [µm] wider pores are no ultrafiltration: WHO, as above (2004)


@record
class UltrafiltrationFigures(Figures):
    """Hollow fibers: pore [µm]; a rinse backwards of so many gallons [gal] at a flow [gpm] every so
    many days; largest static pressure [psi].
    """

    kind: Literal["ultrafiltration"] = "ultrafiltration"
    pore_um: float
    rinse_gal: float
    rinse_gpm: float
    rinse_days: float = 1.0
    psi_max: float | None = None

    @property
    def holds_um(self) -> float:
        """Its pores [µm]."""
        return self.pore_um

    def faults(self, code: str) -> tuple[Fault, ...]:
        """Pores that are none, or rinses that never come."""
        if not 0 < self.pore_um <= WIDEST_UM:
            what = f"pores of {self.pore_um:g} µm are no ultrafiltration."
            return (("pore", what, f"Above 0, at most {WIDEST_UM:g} µm."),)
        if self.rinse_gal < 0 or self.rinse_gpm <= 0 or self.rinse_days <= 0:
            return (
                ("rinse", "a rinse needs gallons, a flow and days.", "Read them off the data."),
            )
        return ()


def run(inp: StageInput) -> StageReport:
    """Holds back haze and rusted iron; what is dissolved passes; its rinses go to the drain."""
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, UltrafiltrationFigures)
    psi = None if inp.stream.psi is None else inp.stream.psi.low
    changes, weak = effects(item, inp.stream)
    year = rinses(f.rinse_days, f.rinse_gal, clock_days(inp))
    needs = merged_needs(item, NEEDS)
    checks = (
        place_checks(item, site)
        + item_pressure(item, site, psi, f.psi_max)
        + check_needs(needs, inp.stream, "ultrafiltration", site.units, site.home.private)
        + backwash_checks(f.rinse_gpm, f.rinse_gal, 7 / f.rinse_days, site)
        + empty_house(inp)
        + _says(f)
        + weak
    )
    formula = "days at home ÷ interval × gallons a rinse"
    return report(
        inp,
        inp.stream.with_(
            changes,
            particulate_iron=False if inp.stream.particulate_iron else inp.stream.particulate_iron,
        ),
        checks,
        figures=lambda: (figure_of(year, "rinse", formula, "a rinse"),),
        settings=(("Rinse", "every day" if f.rinse_days == 1 else f"every {f.rinse_days:g} days"),),
        drains=(drain_of(year, "backwash", item.scope),),
        running=cost_of(year, site, item.scope),
        drop=drop_at(item, site.demand.peak_gpm) if item.scope == "house" else 0.0,
        summary=f"{f.pore_um:g} µm",
    )


def _says(f: UltrafiltrationFigures) -> list[Check]:
    return [
        met("ultrafiltration.pore", f"pores of {f.pore_um:g} µm"),
        *(told(f"ultrafiltration.{x}", "say") for x in ("dissolved", "fibres", "grit")),
    ]


ULTRAFILTRATION = Technology(
    kind="ultrafiltration",
    name="Ultrafiltration",
    figures=UltrafiltrationFigures,
    run=run,
    place=at(house=68, tap=128),
    needs=NEEDS,
    judges=lambda item: merged_needs(item, NEEDS),
    reads=frozenset({"@particulate_iron"}),
    asks=frozenset(),
    touches=frozenset({"@particulate_iron"}),
    changes=frozenset({"turbidity"}),
    by_use=False,
    rinses=True,
    repeats=False,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=("pore_um",),
    does=NOTHING,
    service=Service(sheets=("fibre_start", "fibres")),
    caution=(
        "Its rinse goes to a drain with an air gap, to local code. Fibers break when they freeze or"
        " dry out."
    ),
    drawing="ultrafiltration",
    settings=(CLOCK_OFF,),
    checks=CHECKS,
)
