"""Tannin filter (anion resin regenerated with salt) and the mixed tannin and softening bed."""

from __future__ import annotations

from typing import Literal

from ...evidence import Level
from ...ranges import Range, Verdict
from ...record import record
from ...units import MG_L_PER_GPG
from ..adjusting import CLOCK_OFF, HOUR, RENEWAL
from ..checks import Says, check_needs, met, told
from ..figures import Figures
from ..items import Item, Need
from ..place import drop_at, item_pressure, place_checks, septic_check
from ..report import Check, Figure, StageReport
from ..stream import Quantity, predicted
from ..technology import Service, Technology, at
from .by_clock import (
    Rinses,
    clock_days,
    cost_of,
    drain_of,
    empty_house,
    every_days,
    figure_of,
    rinses,
)
from .common import StageInput, dues, effects, report
from .salt import salt_chore, salt_costs

CHECKS = {
    "tannin.exchange": Says(
        (
            "Trades sulfate, nitrate and alkalinity for chloride; pH and alkalinity fall "
            "early in the cycle."
        ),
        "Say so; re-test chloride.",
    ),
    "tannin.nitrate": Says(
        "Nitrate is above half its limit: an exhausted bed can release it above the raw level.",
        "A specialist decides.",
    ),
    "tannin.nitrate_maybe": Says(
        (
            "Nitrate may be above half its limit: the test leaves it open, and an exhausted "
            "bed can release it."
        ),
        "A finer nitrate test by a certified laboratory, or a specialist.",
    ),
    "tannin.needs_tests": Says("Not tested: {what}.", "Laboratory: {what}."),
    "tannin.mixed": Says(
        (
            "One bed for tannin and hardness: its media lasts shorter, and neither part is "
            "at its best."
        ),
        "Two units are the other way; the lifetime cost shows both.",
    ),
}


@record
class TanninFigures(Figures):
    """Tannin filter (anion resin) or a mixed tannin and softening bed."""

    kind: Literal["tannin", "mixed_bed"]
    resin_ft3: float
    cation_ft3: float = 0.0
    regen_days: float = 3.0
    salt_lb: float
    regen_gal: float
    service_gpm: float | None = None
    tannin_max: float | None = None

    above_zero = ("regen_days",)

    @property
    def made_for(self) -> frozenset[str]:
        """Tannin, of a mixed bed: it softens too, and is no softener where there is none."""
        return frozenset({"tannin"} if self.cation_ft3 else ())


NITRATE_STOP = 5.0  # [mg/L as N], half of 10

NEEDS = (
    Need(
        analyte="iron",
        limit=0.3,
        severity="warn",
        why="Iron fouls anion resin: an iron filter first.",
    ),
    Need(
        analyte="hardness",
        limit=5 * MG_L_PER_GPG,
        severity="warn",
        why="Hardness removed first keeps it clean.",
    ),
    Need(analyte="chlorine_free", limit=0.1, severity="warn", why="Carbon ahead of it."),
)


def _exchange(inp: StageInput) -> list[Check]:
    out = [told("tannin.exchange", "say")]
    missing = [
        n
        for n, key in (
            ("nitrate", "nitrate_n"),
            ("sulfate", "sulfate"),
            ("alkalinity", "alkalinity"),
            ("pH", "ph"),
        )
        if key not in inp.stream.quantities
    ]
    if missing:
        out.append(
            told(
                "tannin.needs_tests",
                "unknown",
                test=f"laboratory: {missing[0]}",
                what=", ".join(missing),
            )
        )
    nitrate = inp.stream.range("nitrate_n")
    if nitrate is not None:
        verdict = nitrate.at_most(NITRATE_STOP)
        if verdict is Verdict.NOT_MET:
            out.append(told("tannin.nitrate", "stop"))
        elif verdict is not Verdict.MET:
            out.append(told("tannin.nitrate_maybe", "stop"))
        else:
            out.append(
                met(
                    "tannin.nitrate",
                    f"nitrate {nitrate.best:.1f} mg/L as N, at most {NITRATE_STOP:g}",
                )
            )
    return out


def _needs(f: TanninFigures) -> tuple[Need, ...]:
    """What the feed has to be; a mixed bed takes hardness, and asks nothing of it."""
    needs = NEEDS if f.kind == "tannin" else tuple(n for n in NEEDS if n.analyte != "hardness")
    if f.tannin_max is None:
        return needs
    more_than = "A larger bed, or the maker’s word on this much."
    return (*needs, Need(analyte="tannin", limit=f.tannin_max, severity="warn", why=more_than))


def _judges(item: Item) -> tuple[Need, ...]:
    assert isinstance(item.figures, TanninFigures)
    return _needs(item.figures)


def _may_stand(inp: StageInput, f: TanninFigures) -> list[Check]:
    item, site, stream = inp.item, inp.site, inp.stream
    checks = [
        *place_checks(item, site, f.service_gpm),
        *item_pressure(item, site, None if stream.psi is None else stream.psi.low),
        *check_needs(_needs(f), stream, f.kind, site.units, site.home.private),
        *_exchange(inp),
    ]
    if site.home.brine_forbidden:
        checks.append(told("brine.forbidden", "stop"))
    if f.kind == "mixed_bed":
        checks.append(told("tannin.mixed", "warn"))
    return checks


def _behind(inp: StageInput, f: TanninFigures) -> tuple[dict[str, Quantity], list[Check]]:
    """What it takes out by its claims, and the anions that it trades for chloride."""
    stream = inp.stream
    changes, checks = effects(inp.item, stream)
    changes["chloride"] = Quantity(
        range=None, state="unknown", evidence=Level.TYPICAL, note="rises"
    )
    for name in ("ph", "alkalinity", "nitrate_n", "sulfate"):
        if name in stream.quantities:
            changes[name] = Quantity(
                range=None, state="unknown", evidence=Level.TYPICAL, note="falls early in the cycle"
            )
    hard = stream.range("hardness")
    if f.kind == "mixed_bed" and hard is not None and hard.high is not None:
        left = Range.of(0.0, min(hard.best, MG_L_PER_GPG), min(hard.high, 2 * MG_L_PER_GPG))
        changes["hardness"] = predicted(left, Level.TYPICAL)
    return changes, checks


def _figure(year: Rinses, salt_lb: float) -> Figure:
    formula = "occupied days ÷ interval × gallons"
    salt = ("salt a year", f"{salt_lb:,.0f}", "lb")
    return figure_of(year, "regeneration", formula, "a regeneration", salt)


def run(inp: StageInput) -> StageReport:
    """Takes tannin out, trades other anions for chloride, and is regenerated every few days
    whatever the use.
    """
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, TanninFigures)
    checks = _may_stand(inp, f)
    changes, more = _behind(inp, f)
    every = inp.adjusted(RENEWAL, f.regen_days)
    year = rinses(every, f.regen_gal, clock_days(inp))
    salt_lb = year.times * f.salt_lb
    checks += more + septic_check(f.regen_gal, f.regen_gal * 7 / every, site) + empty_house(inp)
    outlet = stream.with_(
        changes,
        coloured=False if "tannin" in changes else stream.coloured,
        uvt_measured_here=False,
    )
    return report(
        inp,
        outlet,
        checks,
        figures=lambda: (_figure(year, salt_lb),),
        settings=(("Regeneration", every_days(every)),),
        drains=(drain_of(year, "regeneration", brine=True),),
        due=dues(item, site),
        running=(*salt_costs(salt_lb, site), *cost_of(year, site)),
        chores=(salt_chore(salt_lb, site),),
        drop=drop_at(item, site.demand.peak_gpm),
        summary=f"{f.resin_ft3 + f.cation_ft3:g} ft³",
    )


TANNIN = Technology(
    kind="tannin",
    name="Tannin filter",
    figures=TanninFigures,
    run=run,
    place=at(house=60, tap=125),
    needs=NEEDS,
    judges=_judges,
    reads=frozenset({"hardness", "nitrate_n"}),
    asks=frozenset({"alkalinity", "ph", "sulfate"}),
    touches=frozenset({"@coloured", "@uvt_here"}),
    changes=frozenset({"tannin"}),
    by_use=False,
    rinses=True,
    repeats=False,
    chlorine_max=0.1,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="resin_ft3",
    style=(),
    does=frozenset({"against tannin", "exchanges"}),
    service=Service(sheets=("valve", "rebed", "resin", "seals"), causes=("setting", "channelled")),
    caution="Drain with an air gap and brine discharge to local code.",
    drawing="tannin",
    settings=(RENEWAL, HOUR, CLOCK_OFF),
    checks=CHECKS,
)

MIXED_BED = Technology(
    kind="mixed_bed",
    name="Mixed tannin and softening bed",
    figures=TanninFigures,
    run=run,
    place=at(house=55, tap=125),
    needs=(),
    judges=_judges,
    reads=frozenset({"hardness", "nitrate_n"}),
    asks=frozenset({"alkalinity", "ph", "sulfate"}),
    touches=frozenset({"@coloured", "@uvt_here"}),
    changes=frozenset({"hardness", "tannin"}),
    by_use=False,
    rinses=True,
    repeats=False,
    chlorine_max=0.1,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="resin_ft3",
    style=(),
    does=frozenset({"against hardness", "against tannin", "exchanges"}),
    service=Service(sheets=("valve", "rebed", "resin", "seals"), causes=("setting", "channelled")),
    caution="Drain with an air gap and brine discharge to local code.",
    drawing="mixed_bed",
    settings=(RENEWAL, HOUR, CLOCK_OFF),
    checks={},
)
