"""Cation softener: compensated hardness, regenerations, salt, rinse water and what gets through."""

from __future__ import annotations

from ...analytes import ANALYTES
from ...evidence import Level
from ...ranges import Range, Verdict
from ...rules import Rules
from ...units import MG_L_PER_GPG
from ..adjusting import CLOCK_OFF, DOSE, HOUR, RENEW_CLOCK, RESERVE
from ..checks import check_needs, merged_needs, met, told
from ..items import Item, Need
from ..place import drop_at, item_pressure, place_checks, septic_check
from ..report import Check, Drain, Running, StageReport, Status
from ..stream import Quantity, Stream, predicted
from ..technology import Service, Technology, at
from .by_clock import clock_days, empty_house
from .common import StageInput, dues, effects, not_priced, report, tannin_binds_iron, water_cost
from .salt import salt_chore, salt_costs
from .softener_says import CHECKS
from .softener_shown import (
    POTASSIUM_PER_CACO3,
    SODIUM_PER_CACO3,
    Worked,
    about_days,
    figures_of,
    settings_of,
)
from .softener_size import (
    IRON_RULE_MG_L,
    KEPT_BACK_DAYS,
    LEAST_DAYS,
    LONGEST_DAYS,
    Load,
    Sizing,
    SoftenerFigures,
    load_of,
    size,
    softened,
    taken_out,
)

NSF44_GR_LB = 3350.0  # NSF/ANSI 44 rated efficiency [grains/lb]
SERVICE_GPM_FT3, PEAK_GPM_FT3 = 5.0, 10.0

NEEDS = (
    Need(analyte="iron", limit=2.0, why="Put an iron filter before it, or a cleaner in the salt."),
    Need(
        analyte="chlorine_free",
        limit=1.0,
        severity="warn",
        why="A carbon filter before it saves the resin.",
    ),
)


def _ferric(inp: StageInput) -> list[Check]:
    iron = inp.stream.range("iron")
    if inp.stream.particulate_iron is True:
        return [told("softener.particulate_iron", "stop")]
    if inp.stream.particulate_iron is None and iron is not None and iron.top > 0.1:
        return [
            Check(
                id="softener.particulate_iron",
                status="unknown",
                sentence="Rusted iron fouls resin: not looked at.",
                test="the three cups",
            )
        ]
    return (
        [met("softener.particulate_iron", "no rusted iron")]
        if inp.stream.particulate_iron is False
        else []
    )


def _bound(inp: StageInput, iron: Range | None) -> list[Check]:
    """What tannin does to the iron that the resin should take."""
    if iron is None or iron.best < IRON_RULE_MG_L:
        return []
    bound = tannin_binds_iron(inp.stream)
    if bound is Verdict.UNKNOWN and inp.site.home.private:
        return [
            Check(
                id="softener.tannin",
                status="unknown",
                sentence="Tannin binds iron, and what is bound passes the resin: not tested.",
                test="tannin kit",
            )
        ]
    if bound is Verdict.MET:
        return [told("softener.tannin", "warn")]
    return [told("softener.tannin_maybe", "warn")] if bound is Verdict.UNCERTAIN else []


def _iron_left(iron: Range, high: float, bound: bool) -> Quantity:
    """Ferrous iron behind the resin [mg/L]; where tannin binds it anything from none to all of it
    may pass.
    """
    if bound:
        return predicted(Range.of(0.0, 0.5 * iron.best, high), Level.TYPICAL)
    return predicted(Range.of(0.0, 0.1 * iron.best, 0.3 * high), Level.TYPICAL)


def _breaks_through(s: Sizing) -> Check:
    load, have = f"{s.load_grains:,.0f}", f"{s.capacity:,.0f}"
    return told("softener.breaks_through", "stop", load=load, have=have)


def _size_checks(s: Sizing, worst: Sizing, f: SoftenerFigures) -> list[Check]:
    if s.cannot:
        return [_breaks_through(s)]
    if s.interval is None:
        return [met("softener.too_small", "no demand")]
    out = []
    if s.days_held <= 1:
        out.append(_breaks_through(s))
    elif s.by_capacity < LEAST_DAYS:
        out.append(told("softener.too_small", "stop", have=f"{s.by_capacity:.1f}"))
    else:
        if worst.cannot or (worst.interval is not None and worst.by_capacity < LEAST_DAYS):
            out.append(
                told("softener.worst_end", "warn", have=f"{max(0.0, worst.by_capacity):.1f}")
            )
        else:
            out.append(
                met("softener.too_small", f"regenerates after {about_days(s.interval)} days")
            )
        if f.control == "metered" and s.by_capacity > LONGEST_DAYS:
            out.append(told("softener.wasteful", "warn", have=f"{s.by_capacity:.0f}"))
    if s.leakage > 0:
        out.append(
            told(
                "softener.clock",
                "warn",
                need=f"{s.interval:g}",
                have=f"{100 * s.leakage:.0f}",
                fit=f"{max(1, int(s.days_held))}",
            )
        )
    if s.rated_gr_lb < NSF44_GR_LB:
        out.append(told("softener.efficiency", "say", have=f"{s.rated_gr_lb:,.0f}"))
    return out


RULES = Rules()  # the published ones: a stage says them of any firm


def _diet(inp: StageInput, added: Range, salt: str) -> list[Check]:
    """What it adds, and what that comes to with the water's own, beside a strict diet and what is
    tasted.
    """
    care, own = inp.site.home.care, inp.stream.range(salt)
    touched = care.low_sodium or care.low_potassium or care.dialysis
    status: Status = "warn" if touched else "say"
    adds = told("softener.diet", status, have=f"{added.best:.0f}", salt=salt)
    if salt != "sodium":
        return [adds]
    if own is None:
        return [adds, told("softener.own_sodium", "say")]
    total = added.best + own.best
    return [
        adds,
        told(
            "softener.sodium_total",
            "say",
            total=f"{total:.0f}",
            strict=f"{RULES.at('sodium.diet'):.0f}",
            taste=f"{RULES.at('sodium.taste'):.0f}",
        ),
    ]


def _minerals(stream: Stream, left: Range) -> dict[str, Quantity]:
    """Calcium and magnesium behind the resin, as much of the hardness left as they were of it, so
    that the two add up to it; what was not tested is not told apart.

    Source: hardness is calcium and magnesium, Standard Methods 2340 B (2017).
    """
    hard = stream.best("hardness")
    out: dict[str, Quantity] = {}
    shares = _shares(stream, hard)
    for name, share in shares.items():
        out[name] = predicted(left.scale(share), Level.TYPICAL)
    return out


#: shares of other metals that resin takes while it softens
OTHER_CATIONS = {a.id: a.by_resin for a in ANALYTES.values() if a.by_resin}


def _other_cations(stream: Stream, w: Worked) -> dict[str, Quantity]:
    """Barium and radium behind the resin, which holds them as it holds hardness; nothing of it is
    established without a certificate, and hard water that passes brings them along.
    """
    out = {}
    for name, (low, best, high) in OTHER_CATIONS.items():
        r = stream.range(name)
        if r is None or r.best <= 0:
            continue
        left = r.removed(low if w.sizing.leakage == 0 else 0.0, best, high)
        out[name] = predicted(left, Level.TYPICAL, established=False)
    return out


def _shares(stream: Stream, hard: float | None) -> dict[str, float]:
    """What calcium and magnesium are of the hardness [0 to 1], of each that was tested."""
    calcium, magnesium = stream.best("calcium"), stream.best("magnesium")
    if calcium is not None and magnesium is not None and calcium + magnesium > 0:
        part = calcium / (calcium + magnesium)
        return {"calcium": part, "magnesium": 1 - part}
    tested = {"calcium": calcium, "magnesium": magnesium}
    return {n: min(1.0, x / hard) if hard else 0.0 for n, x in tested.items() if x is not None}


def _judges(item: Item) -> tuple[Need, ...]:
    """Typical needs, with the most iron that this resin takes."""
    f = item.figures
    assert isinstance(f, SoftenerFigures)
    iron = tuple(
        n if n.analyte != "iron" else Need(analyte="iron", limit=f.iron_max, why=n.why)
        for n in NEEDS
    )
    return merged_needs(item, iron)


def _checks_before(inp: StageInput, f: SoftenerFigures) -> list[Check]:
    """Place, pressure, needs of the water, and what the place forbids."""
    item, site, stream = inp.item, inp.site, inp.stream
    needs = _judges(item)
    checks = place_checks(item, site, PEAK_GPM_FT3 * f.resin_ft3) + item_pressure(
        item, site, None if stream.psi is None else stream.psi.low
    )
    checks += check_needs(needs, stream, "softener", site.units, site.home.private) + _ferric(inp)
    if site.home.brine_forbidden:
        checks.append(told("brine.forbidden", "stop"))
    elif site.home.brine_forbidden is None:
        checks.append(
            Check(
                id="brine.forbidden",
                status="say",
                sentence="Its brine goes to the drain, and some local codes forbid that.",
            )
        )
    return checks


def _cannot_size(hard: Range | None) -> Check:
    if hard is not None:
        return told("softener.open_ended", "stop")
    return Check(
        id="softener.hardness",
        status="unknown",
        sentence="Hardness not tested: nothing can be sized.",
        test="hardness by drops",
    )


def _regenerating_days(inp: StageInput, f: SoftenerFigures) -> float:
    """Days a year on which it regenerates [days/year]: a clock runs in the empty house too."""
    return clock_days(inp) if f.control == "clock" else inp.site.demand.occupied_days


def _worked(inp: StageInput, f: SoftenerFigures, load: Load) -> Worked:
    dose = inp.setting("dose_lb_ft3", f.dose_lb_ft3)
    clock = inp.adjusted(RENEW_CLOCK, f.clock_days or 7.0)
    reserve = inp.adjusted(RESERVE, KEPT_BACK_DAYS)
    days = _regenerating_days(inp, f)
    sizing = size(f, load.gpg, load.use.best, load.iron_best, dose, days, clock, reserve)
    use = load.use.top
    worst = size(f, load.worst_gpg, use, load.iron_worst, dose, days, clock, reserve)
    out = softened(load.hardness, sizing.leakage)
    per = SODIUM_PER_CACO3 if f.salt == "sodium" else POTASSIUM_PER_CACO3
    return Worked(
        load=load,
        dose=dose,
        reserve=reserve,
        sizing=sizing,
        worst=worst,
        out=out,
        ion=taken_out(load.hardness, out).scale(per),
    )


def _salt_behind(before: Quantity | None, ion: Range) -> Quantity:
    """Sodium or potassium behind the resin; where it was not known before, by how much it rises."""
    if before is not None and before.range is not None:
        return predicted(before.range.plus(ion), Level.TYPICAL)
    return Quantity(
        range=Range.of(ion.low, ion.best, None),
        state="predicted",
        evidence=Level.TYPICAL,
        note=f"rises by {ion.best:.0f} mg/L, and its own is not tested",
    )


def _runs_hard(s: Sizing) -> str:
    """What is said of hardness behind a clock that waits too long; empty where none does."""
    if s.leakage <= 0:
        return ""
    return f"hard for {100 * s.leakage:.0f} % of the water: the clock waits too long"


def _effect(stream: Stream, f: SoftenerFigures, w: Worked) -> dict[str, Quantity]:
    """Hardness, calcium and salt behind the resin."""
    out = {
        "hardness": Quantity(
            range=w.out,
            state="predicted",
            evidence=Level.TYPICAL,
            below=MG_L_PER_GPG if w.out.high == MG_L_PER_GPG else None,
            note=_runs_hard(w.sizing),
        )
    }
    out |= _minerals(stream, w.out) | _other_cations(stream, w)
    out[f.salt] = _salt_behind(stream.get(f.salt), w.ion)
    return out


def _takes_iron(stream: Stream, f: SoftenerFigures, iron: Range | None) -> bool:
    """Whether the resin takes dissolved iron as it is here."""
    return (
        f.iron_max > 0
        and iron is not None
        and iron.high is not None
        and stream.particulate_iron is not True
        and iron.best <= f.iron_max
    )


def _iron(inp: StageInput, f: SoftenerFigures) -> tuple[dict[str, Quantity], list[Check]]:
    """Iron behind the resin, and what tannin has to say to it."""
    iron = inp.stream.range("iron")
    if iron is None or iron.high is None or not _takes_iron(inp.stream, f, iron):
        return {}, []
    bound = tannin_binds_iron(inp.stream) is Verdict.MET
    return {"iron": _iron_left(iron, iron.high, bound)}, _bound(inp, iron)


def _drains(f: SoftenerFigures, s: Sizing) -> tuple[Drain, ...]:
    if not s.interval:
        return ()
    return (
        Drain(
            kind="regeneration",
            gal_year=s.rinse_gal_year,
            largest_gal=f.rinse_gal_ft3 * f.resin_ft3,
            times_year=s.regens_year,
            brine=True,
        ),
    )


def _running(inp: StageInput, s: Sizing) -> tuple[Running, ...]:
    """Salt, and water to the drain."""
    cost = water_cost(s.rinse_gal_year, inp.site, "house")
    water = (cost,) if cost else ()
    if not s.interval:
        return water
    f = inp.item.figures
    potassium = isinstance(f, SoftenerFigures) and f.salt == "potassium"
    return (*salt_costs(s.salt_lb_year, inp.site, potassium), *water)


IRON_WEARS, WORN_LIFE = 1.0, 0.7  # [mg/L], share of the resin’s life: trade practice (2024)


def run(inp: StageInput) -> StageReport:
    """A softener on the water that reaches it; with hardness untested nothing is sized."""
    item, site, f, stream = inp.item, inp.site, inp.item.figures, inp.stream
    assert isinstance(f, SoftenerFigures)
    checks = _checks_before(inp, f)
    changes, more = effects(item, stream)
    checks += more
    drop, summary = drop_at(item, site.demand.peak_gpm), f"{f.resin_ft3:g} ft³"
    load = load_of(stream, site)
    if load is None:
        checks.append(_cannot_size(stream.range("hardness")))
        changes["hardness"] = Quantity(range=None, state="unknown", evidence=Level.TYPICAL)
        running = (not_priced(item, "salt and water to the drain", "hardness"),)
        return report(
            inp,
            stream.with_(changes),
            checks,
            drop=drop,
            summary=summary,
            running=running,
            drain_unknown=True,
        )
    w = _worked(inp, f, load)
    s = w.sizing
    checks += [*_size_checks(s, w.worst, f), *_diet(inp, w.ion, f.salt)]
    iron, said_of_iron = _iron(inp, f)
    changes |= _effect(stream, f, w) | iron
    each = f.rinse_gal_ft3 * f.resin_ft3
    checks += said_of_iron + (empty_house(inp) if f.control == "clock" else [])
    checks += septic_check(each, each * 7 / s.interval if s.interval else 0.0, site)
    life = WORN_LIFE if load.iron_best >= IRON_WEARS else 1.0
    return report(
        inp,
        stream.with_(changes),
        checks,
        figures=lambda: figures_of(w, f, inp),
        settings=() if inp.brief else settings_of(w, f, site.demand),
        drains=_drains(f, s),
        due=dues(item, site, life, "iron of 1 mg/L or more shortens the resin’s life", ("resin",)),
        running=_running(inp, s),
        chores=(salt_chore(s.salt_lb_year, site),) if s.interval else (),
        drop=drop,
        drain_unknown=s.cannot,
        summary=summary,
    )


SOFTENER = Technology(
    kind="softener",
    name="Softener",
    figures=SoftenerFigures,
    run=run,
    place=at(house=50, tap=125),
    needs=NEEDS,
    judges=_judges,
    reads=frozenset(
        {
            "@particulate_iron",
            "calcium",
            "hardness",
            "iron",
            "magnesium",
            "manganese",
            *OTHER_CATIONS,
            "potassium",
            "sodium",
            "tannin",
        }
    ),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset({"hardness", "iron"}),
    by_use=True,
    rinses=True,
    repeats=False,
    chlorine_max=1.0,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size="resin_ft3",
    style=("control", "salt"),
    does=frozenset({"softens", "against hardness", "exchanges"}),
    service=Service(
        sheets=("valve", "rebed", "resin", "seals"),
        causes=("setting", "channelled"),
        drift="hardness",
    ),
    caution=(
        "Plumbing, the drain’s air gap and the brine follow local code. Where a metal pipe is"
        " cut, have a licensed electrician fit a bonding jumper."
    ),
    drawing="softener",
    settings=(DOSE, RESERVE, RENEW_CLOCK, HOUR, CLOCK_OFF),
    checks=CHECKS,
)
