"""What a membrane shows: what it makes, what it sends to the drain, how long it fills."""

from __future__ import annotations

from ... import words
from ...units import L_PER_GAL
from ...working import Triple
from ..report import Figure
from .common import working
from .membrane_flow import (
    OSMOTIC_PSI_MG_L,
    Here,
    MembraneFigures,
    concentrate_mg_l,
    concentration_factor,
    fill_minutes,
    ndp,
    tcf,
)


def rated_waste(f: MembraneFigures, ratio: float | None, gallons: float) -> tuple[Figure, ...]:
    """Waste by the ratings alone, while what it makes here is not known."""
    if ratio is None or f.rated_ratio == 0:
        return ()
    over = ("over a year", f"{ratio:.1f}", "to 1", True)
    lost = ("gallons a year", f"{ratio * gallons:,.0f}", "gal")
    why = f"Why {ratio:.1f} to 1?"
    if f.efficiency is None or not f.shut_off:
        rated = ("drain as rated", f"{f.rated_gpd * f.rated_ratio:.0f}", "gal/day")
        shown = working(
            why,
            "drain of the whole day ÷ use",
            "the item’s ratings; no shut-off",
            rated,
            over,
            lost,
        )
    else:
        shown = working(
            why,
            "(1 − efficiency) ÷ efficiency",
            "the item’s efficiency rating, with tank and shut-off in use",
            ("efficiency rating", f"{100 * f.efficiency:.0f}", "%"),
            over,
            lost,
        )
    return (
        Figure(
            id="waste",
            label="to the drain, for what is drunk",
            value=f"{ratio:.1f}",
            unit="to 1",
            number=ratio,
            working=shown,
        ),
    )


GLASS_GAL = 1 / 16  # [gal] a glass of 8 US fluid ounces


_SECONDS_A_DAY = 86_400


_MODEL = "net driving pressure model; osmotic pressure 0.01 psi a mg/L"


def _makes(f: MembraneFigures, here: Here, low: Here) -> Figure:
    """What it makes here, with the pressures that it comes from."""
    cf = concentration_factor(f.rated_ratio) if f.rated_ratio > 0 else 1.0
    never = here.gpd <= 0
    driving = ndp(here.psi, here.tds, f.rated_ratio, here.back_psi)
    return Figure(
        id="yield",
        label="makes",
        value="0" if never else words.about(here.gpd),
        unit="gal/day",
        number=here.gpd,
        worst=f"{low.gpd:.0f} gal/day at the worst end",
        working=working(
            f"Why {here.gpd:.0f} gal/day?",
            "rated × TCF × NDP ÷ NDP rated",
            _MODEL,
            ("rated", f"{f.rated_gpd:g}", "gal/day"),
            (f"water at {here.temperature_c:g} °C, TCF", f"{tcf(here.temperature_c):.3f}", ""),
            ("pressure at the membrane", f"{here.psi:.0f}", "psi"),
            ("less the tank’s back pressure", f"{here.back_psi:.0f}", "psi"),
            (
                f"less 0.01 × {here.tds:.0f} mg/L × {cf:.3f}",
                f"{OSMOTIC_PSI_MG_L * here.tds * cf:.1f}",
                "psi",
            ),
            ("net driving pressure", f"{driving:.1f}", "psi", True),
            ("the same as rated", f"{ndp(f.rated_psi, f.rated_tds, f.rated_ratio):.1f}", "psi"),
            ("so it makes", f"{here.gpd:.1f}", "gal/day", True),
            ("a gallon takes", "never" if never else f"{1440 / here.gpd:.1f}", "min"),
            ("a liter takes", "never" if never else f"{1440 / here.gpd / L_PER_GAL:.1f}", "min"),
        ),
    )


def _how_wasted(f: MembraneFigures) -> str:
    if not f.shut_off:
        return "no shut-off: drain all day ÷ use"
    return "drain ÷ permeate here" if f.efficiency is None else "efficiency rating"


def _wastes(f: MembraneFigures, here: Here, ratio: float, gallons: float) -> Figure:
    """What goes to the drain for each gallon drunk."""
    while_it_runs = "never" if here.ratio is None else f"{here.ratio:.1f}"
    rows: list[Triple] = [
        ("drain while it runs", f"{here.drain:.0f}", "gal/day"),
        ("permeate", f"{here.gpd:.1f}", "gal/day"),
        ("ratio while it runs", while_it_runs, "to 1"),
    ]
    if f.efficiency is not None and f.shut_off:
        rated = f"{100 * f.efficiency:.0f}"
        rows.append(("efficiency rating, tank and shut-off in use", rated, "%"))
    rows.append(("over a year", f"{ratio:.1f}", "to 1", True))
    rows.append(("gallons a year", f"{ratio * gallons:,.0f}", "gal"))
    if here.ratio:
        conc = concentrate_mg_l(here.tds, f.rejection, here.ratio)
        rows.append(("concentrate while it runs", f"{conc:.0f}", "mg/L"))
    return Figure(
        id="waste",
        label="to the drain, for what is drunk",
        value=f"{ratio:.1f}",
        unit="to 1",
        number=ratio,
        working=working(
            f"Why {ratio:.1f} to 1?",
            _how_wasted(f),
            "the item’s ratings; drain = rated × ratio × √(psi ÷ rated psi)",
            *rows,
        ),
    )


def settings_of(f: MembraneFigures) -> tuple[tuple[str, str], ...]:
    """What it stands on and what every change wants, as a fitter carries it."""
    tank = f"{f.tank_gal:g} gal" if f.tank_gal else "none: it fills while it runs"
    return (
        ("Tank", tank),
        ("Tells of a change", f.indicator or "nothing: the calendar and a meter do"),
        ("O-rings", "cleaned, greased and seated with every change"),
    )


def _fills(f: MembraneFigures, here: Here) -> Figure:
    """How long its empty tank takes to fill."""
    fill = fill_minutes(f, here.psi, here.tds, here.temperature_c)
    text = "never" if fill is None else f"{fill / 60:.1f}"
    charge = "–" if f.precharge_psi is None else f"{f.precharge_psi:g}"
    shut = "–" if f.shutoff_share is None else f"{f.shutoff_share * here.psi:.0f}"
    return Figure(
        id="fill",
        label=f"fills a {f.tank_gal:g}-gallon tank in",
        value=text,
        unit="" if fill is None else "h",
        number=fill,
        working=working(
            "How long to fill?",
            "sum of 20 equal steps from pre-charge to shut-off",
            _MODEL,
            ("pre-charge", charge, "psi"),
            ("shut-off", shut, "psi"),
            ("fills in", text, "h", True),
        ),
    )


def glass_seconds(gpd: float) -> float:
    """How long a glass takes of what is made [s].

    Args:
        gpd: made a day, above 0 [gal/day].

    Source: a glass of 8 US fluid ounces is a sixteenth of a gallon; 86,400 seconds a day.

    >>> glass_seconds(400.0)
    13.5
    """
    return GLASS_GAL * _SECONDS_A_DAY / gpd


def summary_of(f: MembraneFigures, here: Here) -> str:
    """What it comes to here: what it makes, and how soon a glass is full without a tank."""
    makes = f"{here.gpd:.0f} gal/day here"
    if f.tank_gal or here.gpd <= 0:
        return makes
    return f"{makes}, a glass in {words.about(glass_seconds(here.gpd))} s"


def _fills_a_glass(f: MembraneFigures, here: Here) -> Figure | None:
    """How long a glass takes without a tank: what it makes is what runs."""
    if f.tank_gal or here.gpd <= 0:
        return None
    seconds = glass_seconds(here.gpd)
    return Figure(
        id="glass",
        label="fills a glass in",
        value=words.about(seconds),
        unit="s",
        number=seconds,
        working=working(
            f"Why {seconds:.0f} seconds?",
            "glass ÷ what it makes a day",
            "no tank: what it makes is what runs",
            ("a glass", f"{GLASS_GAL * 1000 * L_PER_GAL:.0f}", "mL"),
            ("it makes", f"{here.gpd:.1f}", "gal/day"),
            ("so a glass takes", f"{seconds:.0f}", "s", True),
        ),
    )


def figures_of(
    f: MembraneFigures, here: Here, low: Here, ratio: float | None, gallons: float
) -> tuple[Figure, ...]:
    """What a membrane shows whose yield here is known: yield, waste, and how long it fills."""
    out: list[Figure | None] = [_makes(f, here, low)]
    if ratio is not None and f.rated_ratio > 0:
        out.append(_wastes(f, here, ratio, gallons))
    out.append(_fills(f, here) if f.tank_gal else _fills_a_glass(f, here))
    return tuple(x for x in out if x is not None)
