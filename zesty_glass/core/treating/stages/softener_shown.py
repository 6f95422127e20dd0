"""What a softener shows: its figures, each with its working, and what is dialled on it."""

from __future__ import annotations

import math
from dataclasses import replace

from ... import words
from ...ranges import Range
from ...record import record
from ...units import MG_L_PER_GPG
from ..demand import Demand
from ..report import Figure
from .common import StageInput, working
from .salt import SALT_BAG_LB
from .softener_size import (
    IRON_RULE_MG_L,
    LONGEST_DAYS,
    Load,
    Sizing,
    SoftenerFigures,
    lower_dose,
    size,
)

SODIUM_PER_CACO3 = 0.4594  # 2 · 22.9898 / 100.0869 [mg/mg]


POTASSIUM_PER_CACO3 = 0.7813  # 2 · 39.0983 / 100.0869 [mg/mg]


def every(s: Sizing) -> str:
    """How often it regenerates, in words where it is not by days."""
    if s.interval is None:
        return "cannot" if s.cannot else "no demand"
    return f"{s.interval:.3g}"


def about_days(interval: float) -> str:
    """Days as a valve counts them: whole ones, with "about" where the working has a part of one."""
    whole = max(1, round(interval))
    return f"{whole}" if abs(interval - whole) < 1e-9 else f"about {whole}"


def _days(n: float) -> str:
    return "a day" if n == 1 else f"{n:g} days"


Triple = tuple[str, str, str] | tuple[str, str, str, bool]


def _load_rows(w: Worked, f: SoftenerFigures, inp: StageInput) -> list[Triple]:
    """Use, compensated hardness, load and capacity."""
    site, load = inp.site, w.load
    people = (
        f"{site.home.people:g} people × {site.settings.gal_per_person:g} gal"
        if not site.demand.from_bill
        else "use, from the bill"
    )
    k, mn = load.iron_factor, load.manganese_best
    terms = f"{load.hardness.best / MG_L_PER_GPG:.3g} + {k:g} × {load.iron_best:.2g} iron" + (
        f" + 2 × {mn:.2g} manganese" if mn else ""
    )
    return [
        (people, f"{load.use.best:,.0f}", "gal/day"),
        (terms, f"{load.gpg:.1f}", "gpg"),
        ("load a day", f"{w.sizing.load_grains:,.0f}", "grains"),
        (f"{f.resin_ft3:g} ft³ at {w.dose:g} lb/ft³", f"{w.sizing.capacity:,.0f}", "grains"),
    ]


def _cap_rows(w: Worked, f: SoftenerFigures) -> list[Triple]:
    """What shortens the days between regenerations, or lets hard water through."""
    s = w.sizing
    if f.control == "clock":
        return [
            (
                "load between regenerations",
                f"{s.load_grains * (s.interval or 0):,.0f}",
                "grains",
                True,
            ),
            ("hard share of the water", f"{100 * s.leakage:.0f}", "%"),
        ]
    kept = f"less {_days(w.reserve)} kept back"
    rows: list[Triple] = [(kept, f"{s.by_capacity:.2f}", "days", True)]
    if w.load.iron_best >= IRON_RULE_MG_L:
        iron = f"iron of {IRON_RULE_MG_L:g} mg/L or more"
        rows.append((iron, f"at most {f.iron_interval_days:g}", "days"))
    rows.append(("at most, for the resin’s sake", f"{LONGEST_DAYS:g}", "days"))
    return rows


def _lower_note(w: Worked, f: SoftenerFigures, inp: StageInput) -> str:
    """What a lower dose would do where a rule has shortened the interval; empty where none fits."""
    s = w.sizing
    if not (s.interval and f.control == "metered" and s.load_grains):
        return ""
    lower = lower_dose(f, s.load_grains, s.interval, w.dose, w.reserve)
    if lower is None:
        return ""
    days = inp.site.demand.occupied_days  # a lower dose is looked for on a meter only
    use, iron = w.load.use.best, w.load.iron_best
    alt = size(f, w.load.gpg, use, iron, lower, days, reserve_days=w.reserve)
    return (
        f"At {lower:g} lb/ft³ it still lasts {alt.by_capacity:.1f} days, with"
        f" {alt.salt_lb_year:,.0f} lb of salt a year, not {s.salt_lb_year:,.0f}."
    )


def _working(w: Worked, f: SoftenerFigures, inp: StageInput) -> Figure:
    s = w.sizing
    rows = [
        *_load_rows(w, f, inp),
        *_cap_rows(w, f),
        ("so it regenerates every", every(s), "days", True),
    ]
    return Figure(
        id="interval",
        label="regenerates every",
        value=every(s) if s.interval is None else about_days(s.interval),
        unit="" if s.interval is None else "days",
        number=s.interval,
        working=working(
            f"Why {'no regeneration' if s.interval is None else f'{s.interval:.3g} days'}?",
            f"capacity ÷ (use × compensated hardness) − {_days(w.reserve)}",
            "resin capacity by salt dose, trade tables, 2024",
            *rows,
            note=_lower_note(w, f, inp),
        ),
    )


@record
class Worked:
    """A softener on a load: sized at the best values and at the worst end, with the hardness it
    leaves and the salt it adds [mg/L].
    """

    load: Load
    dose: float
    reserve: float
    sizing: Sizing
    worst: Sizing
    out: Range
    ion: Range


def figures_of(w: Worked, f: SoftenerFigures, inp: StageInput) -> tuple[Figure, ...]:
    """How often it regenerates, its salt, its rinse water, and the salt it adds."""
    return (
        _interval_figure(w, f, inp),
        _salt_figure(w, f),
        _rinse_figure(w, f),
        _added_figure(w, f),
    )


def _interval_figure(w: Worked, f: SoftenerFigures, inp: StageInput) -> Figure:
    interval = _working(w, f, inp)
    if w.worst.cannot:
        return replace(interval, worst="cannot at the worst end")
    if w.worst.interval is None:
        return interval
    return replace(interval, worst=f"{w.worst.interval:.3g} days at the worst end")


def _salt_figure(w: Worked, f: SoftenerFigures) -> Figure:
    s, dose = w.sizing, w.dose
    return Figure(
        id="salt",
        label="salt a year",
        value=words.about(s.salt_lb_year),
        unit="lb",
        number=s.salt_lb_year,
        working=working(
            "How much salt?",
            "regenerations a year × dose × ft³",
            "365 ÷ days, trade practice",
            ("regenerations a year", f"{s.regens_year:.4g}", ""),
            (f"{dose:g} lb/ft³ × {f.resin_ft3:g} ft³", f"{dose * f.resin_ft3:g}", "lb"),
            ("a year", f"{s.salt_lb_year:,.0f}", "lb", True),
            ("in 40-lb bags", f"{s.salt_lb_year / SALT_BAG_LB:.1f}", "bags"),
            ("grains taken out a pound", f"{s.operating_gr_lb:,.0f}", "gr/lb"),
            ("rated", f"{s.rated_gr_lb:,.0f}", "gr/lb"),
        ),
    )


def _rinse_figure(w: Worked, f: SoftenerFigures) -> Figure:
    s = w.sizing
    return Figure(
        id="rinse",
        label="to the drain a year",
        value=words.about(s.rinse_gal_year),
        unit="gal",
        number=s.rinse_gal_year,
        working=working(
            "How much to the drain?",
            "regenerations a year × gal/ft³ × ft³",
            "the item’s rinse water, 60 gal/ft³ unless it says",
            ("regenerations a year", f"{s.regens_year:.4g}", ""),
            ("a regeneration", f"{f.rinse_gal_ft3 * f.resin_ft3:g}", "gal"),
            ("a year", f"{s.rinse_gal_year:,.0f}", "gal", True),
        ),
    )


def _added_figure(w: Worked, f: SoftenerFigures) -> Figure:
    name, ion = f.salt, w.ion
    per = SODIUM_PER_CACO3 if name == "sodium" else POTASSIUM_PER_CACO3
    return Figure(
        id=name,
        label=f"{name} added",
        value=f"{ion.best:.0f}",
        unit="mg/L",
        number=ion.best,
        worst=f"{ion.low:.0f} to {ion.top:.0f} mg/L",
        working=working(
            f"How much {name}?",
            f"{per:.4g} × hardness removed",
            "charge balance, IUPAC 2021 molar masses",
            ("hardness removed", f"{w.load.hardness.best:.1f}", "mg/L as CaCO3"),
            (f"{name} a mg of it", f"{per:.4g}", "mg"),
            ("added", f"{ion.best:.0f}", "mg/L", True),
        ),
    )


def _whole_days(interval: float | None) -> str:
    """The longest interval as a valve takes it, in whole days: the meter regenerates before it."""
    if interval is None:
        return "–"
    days = math.ceil(interval - 1e-9)
    return "every day" if days == 1 else f"{days} days"


def _dialled(load: Load) -> str:
    """The hardness that its valve is set to: the upper end of what was read."""
    gpg = load.worst_gpg
    return f"{gpg:.0f} gpg" if math.isfinite(gpg) else "first an iron test with an upper end"


def settings_of(w: Worked, f: SoftenerFigures, d: Demand) -> tuple[tuple[str, str], ...]:
    """What is dialled; a valve asks for people, or for gallons a day."""
    return (
        ("Hardness setting", _dialled(w.load)),
        ("People", f"{d.people:g} ({d.house_gal_day.best:.0f} gal a day)"),
        ("Salt a regeneration", f"{w.dose * f.resin_ft3 * f.salt_per_sodium:.3g} lb"),
        ("Kept back", "1 day" if w.reserve == 1 else f"{w.reserve:g} days"),
        ("Longest interval", _whole_days(w.sizing.interval)),
    )
