"""Ultraviolet: dose by transmittance and flow. It inactivates what passes the lamp; it removes
nothing and protects nothing behind it.
"""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Literal

from ...analytes import MICROBES
from ...errors import RuleError
from ...evidence import ESTABLISHES_HEALTH, Level
from ...ranges import Verdict
from ...record import record
from ...units import DAYS_PER_MONTH, DAYS_PER_YEAR, HOURS_PER_YEAR
from ..adjusting import LAY_UP, LIMITER
from ..checks import Says, check_needs, judged, merged_needs, met, told
from ..demand import interpolate
from ..figures import FINE_UM, Fault, Figures
from ..items import Need
from ..place import drop_at, item_pressure, place_checks
from ..report import Check, Due, Figure, StageReport
from ..stream import INACTIVATED, Quantity, found_in
from ..technology import Service, Technology, at
from .common import StageInput, dues, electricity, report, working

CHECKS = {
    "uv.flow": Says(
        "At {uvt} % transmittance it treats {have} gpm; the design flow is {need} gpm.",
        "Choose the next size up, or a fixed flow limiter.",
    ),
    "uv.limited": Says(
        "The flow limiter holds the house to {have} gpm, and the peak is {peak} gpm.",
        "Say so before it is sold, or choose the next size up.",
    ),
    "uv.uvt_low": Says(
        "A transmittance of {have} % is below its table ({need} %): it does not reach its dose.",
        "Clear the water first, then measure again.",
        asks=(
            "tannin",
            "iron",
            "turbidity",
            "manganese",
        ),
    ),
    "uv.uvt_unknown": Says(
        "The water has color and its transmittance is not measured.",
        (
            "Have a laboratory measure the UV transmittance of a sample drawn where the lamp will"
            " be."
        ),
        asks=(
            "tannin",
            "iron",
            "turbidity",
            "manganese",
        ),
    ),
    "uv.after_unmeasured": Says(
        (
            "A stage before it changes the water, but only the raw transmittance is known: that"
            " counts."
        ),
        "Measure it again after that stage.",
    ),
    "uv.class": Says(
        "This water is known or likely to be unsafe: an unmonitored or class B unit will not do.",
        "Choose class A, with a sensor and an alarm or shut-off.",
        by_place=True,
    ),
    "uv.prefilter": Says("It needs a 5 µm filter before it.", "Add one.", asks=("@sediment",)),
    "uv.lamp_space": Says(
        "The lamp needs {need} in free above it to be pulled out, and {have} in are free.",
        "Choose a chamber that lies flat.",
        by_place=True,
    ),
    "uv.first_use": Says(
        "Have the whole plumbing disinfected before first use.",
        "See the steps; bleach cautions apply.",
    ),
}


@record
class UvFigures(Figures):
    """UV chamber: rows of (UVT %, gpm) at its named dose and end of lamp life, rising."""

    kind: Literal["uv"] = "uv"
    device_class: Literal["A", "B", "none"]
    monitored: bool
    table: tuple[tuple[float, float], ...]
    uvt_min: float
    dose: float
    lamp_length_in: float
    flat: bool
    lamp_days: float = 365.0
    watts: float

    @property
    def disinfects(self) -> bool:
        """It does."""
        return True

    @property
    def largest_gpm(self) -> float:
        """The most that it treats [gpm]: the last row of its table."""
        return self.table[-1][1]

    def faults(self, code: str) -> tuple[Fault, ...]:
        """A table that does not rise, or has flows of nothing."""
        uvt = [row[0] for row in self.table]
        if self.table and uvt == sorted(set(uvt)) and all(gpm > 0 for _, gpm in self.table):
            return ()
        what = "the table of UVT and gpm must rise and hold flows above 0."
        return (("uv_table", what, "Enter its rows in order."),)


DESIGN_FACTOR = 1.25
TAP_GPM = 0.5  # [gpm] of a drinking tap: trade practice (2024)

NEEDS = (
    Need(analyte="iron", limit=0.3, strict=True),
    Need(analyte="manganese", limit=0.05, strict=True),
    Need(analyte="hardness", limit=119.83, strict=True, why="Scale covers the sleeve."),
    Need(analyte="tannin", limit=0.1, strict=True),
    Need(analyte="turbidity", limit=1.0, strict=True),
    Need(analyte="hydrogen_sulfide", limit=0.05, strict=True),
)


def flow_at(f: UvFigures, uvt: float) -> float | None:
    """Flow [gpm] treated at the named dose, straight lines between the rows of the item's table;
    None below its first row.

    Args:
        uvt: transmittance of 1 cm of the water [%].

    Source: a maker's validation table; US EPA, UV disinfection guidance manual (2006).
    """
    if uvt < f.table[0][0] or uvt < f.uvt_min:
        return None
    return interpolate(f.table, uvt)


def design_flow(inp: StageInput) -> float:
    """1.25 × the larger of the table's peak and the full-bore measured flow, less only with a fixed
    limiter [gpm].
    """
    site = inp.site
    flow = site.demand.table_peak_gpm
    if site.home.flow_gpm is not None and site.home.flow_full_bore:
        flow = max(flow, site.home.flow_gpm)
    limiter = _limiter(inp)
    if limiter is not None:
        return min(DESIGN_FACTOR * flow, limiter)
    return DESIGN_FACTOR * flow if inp.item.scope == "house" else DESIGN_FACTOR * TAP_GPM


def _limiter(inp: StageInput) -> float | None:
    """The fixed flow limiter set for this stage [gpm]; RuleError ``uv.limiter`` outside what is
    made.
    """
    if LIMITER.key not in inp.overrides:
        return None
    limiter = inp.setting(LIMITER.key, 0.0)
    if not LIMITER.least <= limiter <= LIMITER.most:
        raise RuleError(
            "uv.limiter",
            f"A flow limiter of {limiter:g} gpm is outside {LIMITER.least:g} to {LIMITER.most:g}.",
            "overrides.limiter_gpm",
            "Type the figure stamped on the limiter.",
        )
    return limiter


def _limited(inp: StageInput) -> list[Check]:
    """What a limiter takes from the house is said before it is sold."""
    limiter, peak = _limiter(inp), inp.site.demand.table_peak_gpm
    if limiter is None or inp.item.scope != "house" or limiter >= peak:
        return []
    return [told("uv.limited", "warn", have=f"{limiter:g}", peak=f"{peak:.1f}")]


def _need_checks(inp: StageInput) -> list[Check]:
    out = []
    needs = merged_needs(inp.item, NEEDS)
    for n, c in zip(
        needs,
        check_needs(needs, inp.stream, "uv", inp.site.units, inp.site.home.private),
        strict=True,
    ):
        q = (
            inp.stream.get("tannin")
            if n.analyte == "tannin" and judged(n, inp.stream) is Verdict.UNCERTAIN
            else None
        )
        if q is not None and q.below is not None and q.below > n.limit:
            c = Check(
                id=c.id,
                status="unknown",
                sentence=f"Tannin under {q.below:g} mg/L: this kit cannot read {n.limit:g}.",
                test="laboratory: UV transmittance",
            )
        out.append(c)
    return out


_BEHIND = "laboratory: UV transmittance, behind the stage ahead"
_LAB = "laboratory: UV transmittance"


def _uvt_unknown(coloured: bool | None) -> Check:
    if coloured is not False:
        return told("uv.uvt_unknown", "unknown", test=_LAB)
    sentence = "Transmittance not measured."
    return Check(id="uv.uvt_unknown", status="unknown", sentence=sentence, test=_LAB)


def _dose_check(f: UvFigures, uvt: float, have: float | None, need: float) -> Check:
    """Whether it treats the design flow [gpm] at a transmittance [%]."""
    if have is None:
        least = f"{max(f.table[0][0], f.uvt_min):g}"
        return told("uv.uvt_low", "stop", have=f"{uvt:.0f}", need=least)
    if have < need:
        said = {"uvt": f"{uvt:.0f}", "have": f"{have:.1f}", "need": f"{need:.1f}"}
        return told("uv.flow", "stop", **said)
    return met("uv.flow", f"{have:.1f} gpm at {uvt:.0f} %, design {need:.1f} gpm")


def _uvt_checks(inp: StageInput, f: UvFigures, need: float) -> list[Check]:
    """Its dose at the low end of the transmittance; what is not measured is asked."""
    uvt = inp.stream.range("uvt")
    if uvt is None:
        return [_uvt_unknown(inp.stream.coloured)]
    here = inp.stream.uvt_measured_here
    ahead = [] if here else [told("uv.after_unmeasured", "unknown", test=_BEHIND)]
    return [*ahead, _dose_check(f, uvt.low, flow_at(f, uvt.low), need)]


def _design_figure(inp: StageInput, need: float) -> Figure:
    """The flow that it must treat, as it comes about: "peak 7.5 × 1.25"."""
    site, limiter = inp.site, _limiter(inp)
    house = inp.item.scope == "house"
    peak = need / DESIGN_FACTOR if house else TAP_GPM
    how = f"peak {peak:.3g} gpm × {DESIGN_FACTOR:g}"
    if house and limiter is not None and need == limiter:
        how = "held by the flow limiter"
    by = {"told": "as its designer says", "pipe": "by the pipe", "bathrooms": "by bathrooms"}
    measured = site.home.flow_gpm == peak and site.home.flow_full_bore
    return Figure(
        id="uv_design",
        label="design flow",
        value=f"{need:.1f}",
        unit="gpm",
        number=need,
        worst=how,
        working=working(
            f"Why {need:.1f} gpm?",
            "1.25 × the larger of the table's peak and the full-bore measured flow",
            "trade practice (2024)",
            ("peak", f"{peak:.3g}", "gpm"),
            ("it is known", "as measured" if measured else by[site.demand.peak_by], ""),
            ("design flow", f"{need:.1f}", "gpm", True),
        ),
    )


def _flow_figure(inp: StageInput, f: UvFigures, need: float) -> tuple[Figure, ...]:
    """What it treats here, from its table; nothing while the transmittance is not known."""
    uvt = inp.stream.range("uvt")
    if uvt is None:
        return ()
    have = flow_at(f, uvt.low)
    text = "0" if have is None else f"{have:.1f}"
    held = _limiter(inp) is not None
    design = "design flow, held by the limiter" if held else "design flow, 1.25 × peak"
    return (
        Figure(
            id="uv_flow",
            label="treats",
            value=text,
            unit="gpm",
            number=have,
            working=working(
                f"Why {text} gpm?",
                "the item’s table, straight lines between rows, at the low end of UVT",
                f"the item’s table at {f.dose:g} mJ/cm², end of lamp life",
                *((f"at {u:g} %", f"{g:g}", "gpm") for u, g in f.table),
                ("transmittance, low end", f"{uvt.low:.0f}", "%"),
                ("so it treats", text, "gpm", True),
                (design, f"{need:.1f}", "gpm"),
            ),
        ),
    )


def _lamp_space(inp: StageInput, f: UvFigures) -> list[Check]:
    """Whether the lamp can be drawn out upwards [in]; one that lies flat needs no room above."""
    if f.flat:
        return []
    headroom = inp.site.home.headroom_in
    if headroom is None:
        sentence = f"The lamp needs {f.lamp_length_in:g} in free above: not measured."
        test = "measure the free height"
        return [Check(id="uv.lamp_space", status="unknown", sentence=sentence, test=test)]
    free = headroom - (inp.item.headroom_in or 0)
    if free >= f.lamp_length_in:
        return []
    need, have = f"{f.lamp_length_in:g}", f"{max(0.0, free):g}"
    return [told("uv.lamp_space", "stop", need=need, have=have)]


def _may_stand(inp: StageInput, f: UvFigures, need: float) -> list[Check]:
    """Place, pressure, the water's needs, dose, class, what stands ahead, and room for the
    lamp."""
    item, site, psi = inp.item, inp.site, inp.stream.psi
    checks = [
        *(c for c in place_checks(item, site) if not (c.id == "space.headroom" and f.flat)),
        *item_pressure(item, site, None if psi is None else psi.low),
        *_need_checks(inp),
        *_uvt_checks(inp, f, need),
    ]
    if site.unsafe_likely and (f.device_class != "A" or not f.monitored):
        checks.append(told("uv.class", "stop"))
    else:
        checks.append(met("uv.class", f"class {f.device_class}, {f.dose:g} mJ/cm²"))
    if not any((i.figures.holds_um or math.inf) <= FINE_UM for i in inp.ahead):
        checks.append(told("uv.prefilter", "stop"))
    return [*checks, *_lamp_space(inp, f), *_limited(inp), told("uv.first_use", "say")]


CLOSED_BY = "laboratory after disinfection closes it"
#: open questions that decide whether its dose reaches anything
DECIDES = frozenset({"uv.uvt_unknown", "uv.after_unmeasured", *(f"uv.{n.analyte}" for n in NEEDS)})


def _behind(inp: StageInput, checks: list[Check]) -> dict[str, Quantity]:
    """What becomes of the microbes that are there, counted or in words: inactivated at the lamp,
    or as they were while a test that decides it is open.
    """
    claims = {e.analyte: e.evidence.level for e in inp.item.effects}
    # E. coli is one of the coliforms: what is certified for these holds for it
    claims.setdefault("e_coli", claims.get("coliform", Level.MAKER_STATES))
    there = {n: q for n in MICROBES if (q := inp.stream.get(n)) is not None and found_in(q)}
    if _tests_open(inp, checks):
        return {n: replace(q, established=False, pending=True) for n, q in there.items()}
    return {
        n: Quantity(
            range=None,
            state="predicted",
            words=INACTIVATED,
            evidence=claims.get(n, Level.MAKER_STATES),
            established=claims.get(n) in ESTABLISHES_HEALTH,
            note=CLOSED_BY,
        )
        for n in there
    }


def _tests_open(inp: StageInput, checks: list[Check]) -> bool:
    """Whether only tests stand between a lamp of known dose and what it would do."""
    if inp.stream.range("uvt") is None or any(c.status == "stop" for c in checks):
        return False
    return any(c.status == "unknown" and c.id in DECIDES for c in checks)


def _powered_days(inp: StageInput, logged: bool) -> float:
    """Days in a year that the lamp burns [days]: all, unless its lay-up is logged."""
    return inp.site.demand.occupied_days if logged else DAYS_PER_YEAR


def run(inp: StageInput) -> StageReport:
    """Checks dose, class, space and the needs of the water; passes every analyte unchanged but
    living microbes.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, UvFigures)
    need = design_flow(inp)
    checks = _may_stand(inp, f, need)
    logged = LAY_UP.key in inp.overrides
    powered = _powered_days(inp, logged)
    stretched = DAYS_PER_YEAR / powered if powered else 1
    months = f.lamp_days / DAYS_PER_MONTH * stretched
    kwh = f.watts * HOURS_PER_YEAR / 1000 * powered / DAYS_PER_YEAR
    why = f"{f.watts:g} W, {kwh:.0f} kWh a year"
    return report(
        inp,
        inp.stream.with_(_behind(inp, checks)),
        checks,
        figures=lambda: (*_flow_figure(inp, f, need), _design_figure(inp, need)),
        settings=(("Lamp", f"{f.lamp_days:g} days powered"),),
        due=tuple(_lamp(d, months, f, logged) for d in dues(item, site)),
        running=(electricity(kwh, why, site, item.scope),),
        drop=drop_at(item, site.demand.peak_gpm) if item.scope == "house" else 0.0,
        summary=f"class {f.device_class}",
        decides=DECIDES,
    )


def _lamp(d: Due, months: float, f: UvFigures, logged: bool) -> Due:
    if d.kind != "lamp":
        return d
    return replace(
        d,
        months=months,
        capacity_gal=None,
        life_factor=1.0,
        lived_days=f.lamp_days if logged else None,
        why=f"every {f.lamp_days:g} days powered, whatever the use",
    )


UV = Technology(
    kind="uv",
    name="UV system",
    figures=UvFigures,
    run=run,
    place=at(house=90, tap=160),
    needs=NEEDS,
    judges=lambda item: merged_needs(item, NEEDS),
    reads=frozenset({"@coloured", "@fine", "@uvt_here", "coliform", "e_coli", "tannin", "uvt"}),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset(MICROBES),
    by_use=False,
    rinses=False,
    repeats=False,
    chlorine_max=None,
    fine_ahead=True,
    psi_min=0.0,
    sets_pressure="caps",
    size="largest_gpm",
    style=("flat", "device_class"),
    does=frozenset({"inactivates"}),
    service=Service(
        sheets=("uv_start", "lamp"), specialist=True, after_bleach=True, gauges=("lamp",)
    ),
    caution=(
        "Have the whole plumbing disinfected before first use. With bleach, air the room and"
        " never mix it with other cleaners. The lamp protects nothing after it."
    ),
    drawing="uv",
    settings=(LIMITER, LAY_UP),
    checks=CHECKS,
)
