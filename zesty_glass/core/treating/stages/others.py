"""Conditioners, distiller, adsorptive cartridges, pitchers, and stages for specialists."""

from __future__ import annotations

from ... import words
from ...evidence import LEVEL_WORDS, Level
from ..checks import check_needs, met, told
from ..items import (
    CartridgeFigures,
    ConditionerFigures,
    DistillerFigures,
    Need,
    OtherFigures,
    PitcherFigures,
)
from ..place import drop_at, item_pressure, place_checks
from ..report import Check, Chore, Drain, Figure, Running, StageReport
from ..stream import Quantity, predicted
from .common import StageInput, dues, effects, money, report, working

LEAST_KWH_GAL = (
    2.7  # [kWh/gal] heat of evaporation of water and warming it, less a little recovered
)

SALT_FREE_NEEDS = (
    Need(analyte="iron", limit=0.3, why="Iron coats the media."),
    Need(analyte="manganese", limit=0.05, severity="warn"),
    Need(analyte="chlorine_free", limit=3.0, why="Carbon ahead of it."),
)


def conditioner(inp: StageInput) -> StageReport:
    """Crystal-forming media or a physical device: hardness out is hardness in, with the evidence
    for scale said.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, ConditionerFigures)
    checks = place_checks(item, site) + item_pressure(
        item, site, None if inp.stream.psi is None else inp.stream.psi.low
    )
    peak = site.demand.peak_gpm
    if f.covers == "house":
        ok = f.flow_min_gpm <= peak <= f.flow_max_gpm
        wants = (
            f"{f.flow_min_gpm:g} to {f.flow_max_gpm:g}"
            if f.flow_min_gpm
            else f"up to {f.flow_max_gpm:g}"
        )
        checks.append(
            met("conditioner.flow", f"peak {peak:g} gpm, made for {wants}")
            if ok
            else told("conditioner.flow", "warn", need=wants, have=f"{peak:g}")
        )
    if f.kind == "salt_free":
        checks += check_needs(
            SALT_FREE_NEEDS, inp.stream, "salt_free", site.units, site.home.private
        )
        checks.append(
            told(
                "conditioner.evidence",
                "say",
                have=f"tested to {f.protocol}" if f.protocol else LEVEL_WORDS[Level.MAKER_STATES],
            )
        )
        checks.append(told("conditioner.phosphate", "say"))
    else:
        checks.append(told("physical.disputed", "warn"))
    checks.append(told("conditioner.minerals", "say"))
    hard = inp.stream.get("hardness")
    changes, more = effects(item, inp.stream)
    checks += more
    if hard is not None:
        changes["hardness"] = Quantity(
            range=hard.range,
            state="predicted" if hard.range else "unknown",
            evidence=Level.DOES_NOT_REMOVE,
            below=hard.below,
        )
    return report(
        inp,
        inp.stream.with_(changes),
        checks,
        drop=drop_at(item, peak) if f.covers == "house" else 0.0,
        summary="minerals stay",
    )


def distiller(inp: StageInput) -> StageReport:
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


def cartridge(inp: StageInput) -> StageReport:
    """Adsorptive media: its claims hold inside its own pH window, and its life is shown in days at
    this use.
    """
    item, site, f = inp.item, inp.site, inp.item.figures
    assert isinstance(f, CartridgeFigures)
    checks = place_checks(item, site)
    ph = inp.stream.range("ph")
    stopped = False
    if f.ph_min is None and f.ph_max is None:
        checks.append(told("cartridge.no_window", "stop" if f.media != "tannin_resin" else "warn"))
        stopped = f.media != "tannin_resin"
    elif ph is None or ph.high is None:
        checks.append(_unknown_ph())
        stopped = True
    else:
        outside = (f.ph_max is not None and ph.high > f.ph_max) or (
            f.ph_min is not None and ph.low < f.ph_min
        )
        window = f"pH {f.ph_min or 0:g} to {f.ph_max or 14:g}"
        if f.media == "alumina" and ph.best > 7.5:
            checks.append(told("cartridge.fluoride", "stop"))
            stopped = True
        if outside:
            checks.append(told("cartridge.ph", "stop", have=f"{ph.best:.1f}", need=window))
            stopped = True
        else:
            checks.append(met("cartridge.ph", f"pH {ph.best:.1f}, window {window}"))
    changes, more = effects(item, inp.stream)
    if stopped:
        changes = {
            k: Quantity(
                range=q.range,
                state="predicted" if q.range else q.state,
                evidence=Level.NO_CLAIM,
                below=q.below,
                words=q.words,
            )
            for k in changes
            if (q := inp.stream.get(k)) is not None
        }
    checks += more
    figures = _days(inp)
    if figures and figures[0].number is not None and figures[0].number < 60:
        checks.append(told("cartridge.days", "warn", have=f"{figures[0].number:.0f}"))
    return report(
        inp,
        inp.stream.with_(changes),
        checks,
        figures=lambda: figures,
        summary=f.media.replace("_", " "),
    )


def _unknown_ph() -> Check:
    return Check(
        id="cartridge.ph",
        status="unknown",
        sentence="pH not known here: its claim holds in its pH window only.",
        test="pH by meter on site",
    )


def _days(inp: StageInput) -> tuple[Figure, ...]:
    c = next((c for c in inp.item.consumables if c.capacity_gal), None)
    if c is None or c.capacity_gal is None:
        return ()
    use = inp.site.gallons_year(inp.item.scope) / max(inp.site.demand.occupied_days, 1)
    if use <= 0:
        return ()
    days = c.capacity_gal / use
    return (
        Figure(
            id="days",
            label="one cartridge lasts",
            value=f"{days:.0f}",
            unit="days",
            number=days,
            working=working(
                f"Why {days:.0f} days?",
                "capacity ÷ gallons a day",
                "the item’s own capacity",
                ("capacity", f"{c.capacity_gal:g}", "gal"),
                ("use when at home", f"{use:.1f}", "gal/day"),
                ("lasts", f"{days:.0f}", "days", True),
            ),
        ),
    )


def pitcher(inp: StageInput) -> StageReport:
    """Pitcher, refrigerator or counter filter: only its claimed contaminants, changed by capacity
    or reading.
    """
    item, f = inp.item, inp.item.figures
    assert isinstance(f, PitcherFigures)
    changes, more = effects(item, inp.stream)
    checks = place_checks(item, inp.site) + more
    if f.change_at_tds is not None:
        checks.append(
            met("pitcher.change", f"change when its water reads {f.change_at_tds:g} mg/L")
        )
    return report(
        inp, inp.stream.with_(changes), checks, figures=lambda: _days(inp), summary=f.style
    )


def other(inp: StageInput) -> StageReport:
    """Aeration, nitrate and arsenic units and chlorinators want a specialist; regulators, expansion
    and bypass pass the water.
    """
    item, f = inp.item, inp.item.figures
    assert isinstance(f, OtherFigures)
    checks = place_checks(item, inp.site)
    if f.kind in ("aeration", "nitrate", "arsenic", "chlorinator"):
        checks.append(told("specialist", "warn"))
    changes, more = effects(item, inp.stream)
    checks += more
    psi = inp.stream.psi
    if f.sets_psi is not None and psi is not None:
        r = psi.__class__
        psi = (
            r.of(f.sets_psi, f.sets_psi, f.sets_psi)
            if f.kind == "booster"
            else psi.apply(lambda v: min(v, f.sets_psi or v))
        )
    drop = (
        0.0
        if item.scope == "tap" or f.kind in ("booster", "expansion", "bypass", "regulator")
        else drop_at(item, inp.site.demand.peak_gpm)
    )
    return report(
        inp, inp.stream.with_(changes, psi=psi), checks, drop=drop, due=dues(item, inp.site)
    )
