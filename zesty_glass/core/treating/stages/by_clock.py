"""Rinses by a clock: so many a year whatever the use, and what they send to the drain."""

from __future__ import annotations

from typing import Literal

from ... import words
from ...record import record
from ...units import DAYS_PER_YEAR
from ..adjusting import BACKWASH, CLOCK_OFF
from ..checks import told
from ..place import backwash_checks
from ..report import Check, Drain, Figure, Running
from ..site import Site
from .common import StageInput, water_cost, working


@record
class Rinses:
    """Rinses of a bed or membrane: days between two, gallons of one [gal], times a year, and
    gallons a year [gal/year]."""

    every_days: float
    each_gal: float
    times: float
    gal_year: float


def clock_days(inp: StageInput) -> float:
    """Days in a year that a stage's clock runs [days/year]: in the empty house too, unless it is
    switched off there and each day is logged.
    """
    off = CLOCK_OFF.key in inp.overrides
    return inp.site.demand.occupied_days if off else DAYS_PER_YEAR


#: empty for more days than this a year, a clock in the empty house is worth a word [days]
EMPTY_DAYS = 30.0


def empty_house(inp: StageInput) -> list[Check]:
    """What a clock does while nobody is there."""
    empty = DAYS_PER_YEAR - inp.site.demand.occupied_days
    if empty < EMPTY_DAYS or CLOCK_OFF.key in inp.overrides:
        return []
    return [told("clock.empty_house", "say", have=f"{empty:.0f}")]


def rinses(every_days: float, each_gal: float, days_year: float) -> Rinses:
    """Rinses in a year: days that its clock runs ÷ days between two.

    Args:
        every_days: days between two, above 0 [days].
        each_gal: water of one [gal].
        days_year: days in a year that its clock runs [days].

    Source: by definition; the days and gallons are the item's own.

    >>> rinses(3, 60, 365.25).gal_year
    7305.0
    """
    times = days_year / every_days
    return Rinses(every_days=every_days, each_gal=each_gal, times=times, gal_year=times * each_gal)


def drain_of(
    r: Rinses,
    kind: Literal["backwash", "regeneration"],
    scope: Literal["house", "tap"] = "house",
    brine: bool = False,
) -> Drain:
    """What the rinses send to the drain; ``brine``: with salt in it."""
    return Drain(
        kind=kind,
        gal_year=r.gal_year,
        largest_gal=r.each_gal,
        times_year=r.times,
        scope=scope,
        brine=brine,
    )


def cost_of(r: Rinses, site: Site, scope: Literal["house", "tap"] = "house") -> tuple[Running, ...]:
    """What their water costs; empty where it costs nothing."""
    cost = water_cost(r.gal_year, site, scope)
    return () if cost is None else (cost,)


def figure_of(r: Rinses, id: str, formula: str, called: str, *more: tuple[str, str, str]) -> Figure:
    """Gallons a year with how they come about.

    Args:
        formula: in words. called: one of them, e.g. "a backwash". more: further rows.
    """
    return Figure(
        id=id,
        label="to the drain a year",
        value=words.about(r.gal_year),
        unit="gal",
        number=r.gal_year,
        working=working(
            "How much to the drain?",
            formula,
            "the item’s own figures",
            (
                "regenerated every" if id == "regeneration" else "every",
                f"{r.every_days:g}",
                "days, whatever the use" if id == "regeneration" else "days",
            ),
            ("times a year", words.number(r.times, 1), ""),
            (called, f"{r.each_gal:g}", "gal"),
            ("a year", f"{r.gal_year:,.0f}", "gal", True),
            *more,
        ),
    )


@record
class Backwash:
    """A bed's backwash by its clock: what the pump and the septic tank say of it, its drain, what
    its water costs and what is dialled; all empty where the item states none."""

    checks: tuple[Check, ...] = ()
    drains: tuple[Drain, ...] = ()
    running: tuple[Running, ...] = ()
    settings: tuple[tuple[str, str], ...] = ()


def every_days(days: float) -> str:
    """How often, as it is dialled.

    >>> every_days(1), every_days(3)
    ('every day', 'every 3 days')
    """
    return "every day" if days == 1 else f"every {days:g} days"


def backwash_of(
    gpm: float | None, gal: float | None, days: float | None, inp: StageInput
) -> Backwash:
    """A backwash of ``gal`` [gal] at ``gpm`` [gpm] every ``days`` [days], or as it is set."""
    if not gal or not days:
        return Backwash()
    days = inp.adjusted(BACKWASH, days)
    site, scope = inp.site, inp.item.scope
    year = rinses(days, gal, clock_days(inp))
    return Backwash(
        checks=(*backwash_checks(gpm, gal, 7 / days, site), *empty_house(inp)),
        drains=(drain_of(year, "backwash", scope),),
        running=cost_of(year, site, scope),
        settings=(("Backwash", every_days(days)),),
    )
