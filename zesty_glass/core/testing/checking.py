"""Checks of an instrument in a standard of known value: how far it is off, whether that is within
its own accuracy, and how it drifts.
"""

from __future__ import annotations

import math
from datetime import date

from ..analytes import ANALYTES
from ..errors import RuleError
from ..record import record
from .instruments import Instrument

LEAST_CHECKS = 3  # fewer say nothing of a drift
LEAST_SPAN_DAYS = 60  # [days] from the first to the last; sooner it is noise: trade practice (2024)
DAYS_PER_YEAR = 365.25
MOST_SHOWN = 1e7  # [unit]


@record
class InstrumentCheck:
    """What an instrument showed in a standard [its own unit]."""

    id: str
    on: date
    standard: float
    shown: float
    by: str


@record
class InstrumentDrift:
    """How an instrument did in its standards, the oldest check first.

    Args:
        off: by how much the last check was off [unit]; allowed: its own accuracy there [unit], None
            where it is not stated; within: whether it held, None without an accuracy.
        per_year: the drift through all checks, as a share of the standard [1/year]; None where they
            are too few, too close together, or in a standard of 0.
    """

    key: str
    name: str
    unit: str
    checks: tuple[InstrumentCheck, ...]
    off: float
    allowed: float | None
    within: bool | None
    per_year: float | None
    few: bool
    sentence: str


def unit_of(instrument: Instrument) -> str:
    """The unit an instrument shows in; empty for pH, which is its own name."""
    unit = instrument.unit or ANALYTES[instrument.analyte].unit
    return "" if unit == ANALYTES[instrument.analyte].name else unit


def allowed(instrument: Instrument, standard: float) -> float | None:
    """How far off an instrument may be in a standard and still be within its accuracy [unit]; None
    where its accuracy is not stated.

    Args:
        standard: the value of the standard [the instrument's own unit].

    Source: the accuracy as its maker states it, a share of the reading or of full scale and a
    plain part, and half of its smallest step.
    """
    share, plus = instrument.accuracy_share, instrument.accuracy_plus
    if share is None and not plus:
        return None
    of = standard
    if instrument.accuracy_of != "reading" and instrument.full_scale is not None:
        of = instrument.full_scale
    return (share or 0.0) * abs(of) + plus + instrument.resolution / 2


def check_made(check: InstrumentCheck, today: date) -> None:
    """RuleError for a check that cannot be: a day to come, a figure that is none."""
    if check.on > today:
        raise RuleError("check.day", "This day is still to come.", "on", "Use the day it was made.")
    for name, value in (("standard", check.standard), ("shown", check.shown)):
        if not math.isfinite(value) or abs(value) > MOST_SHOWN:
            raise RuleError(
                "check.value", "This is no figure of a standard.", name, "Type what stands there."
            )


def per_year(checks: tuple[InstrumentCheck, ...]) -> float | None:
    """The drift through some checks: the slope of the least squares of the relative error
    (shown − standard) / standard over time [1/year].

    Source: ordinary least squares.

    >>> def made(on, shown):
    ...     return InstrumentCheck(id="", on=on, standard=100.0, shown=shown, by="")
    >>> days = date(2025, 1, 1), date(2025, 7, 2), date(2026, 1, 1)
    >>> round(per_year(tuple(made(d, x) for d, x in zip(days, (100.0, 101.0, 102.0)))), 3)
    0.02
    """
    if len(checks) < LEAST_CHECKS or any(c.standard == 0 for c in checks):
        return None
    days = [float((c.on - checks[0].on).days) for c in checks]
    if max(days) - min(days) < LEAST_SPAN_DAYS:
        return None
    errors = [(c.shown - c.standard) / abs(c.standard) for c in checks]
    middle, mean = sum(days) / len(days), sum(errors) / len(errors)
    over = sum((d - middle) ** 2 for d in days)
    slope = sum((d - middle) * (e - mean) for d, e in zip(days, errors, strict=True)) / over
    return slope * DAYS_PER_YEAR


def drift(instrument: Instrument, checks: tuple[InstrumentCheck, ...]) -> InstrumentDrift:
    """How an instrument did in its standards; ``checks``: at least one, the oldest first."""
    last = checks[-1]
    off, may = last.shown - last.standard, allowed(instrument, last.standard)
    within = None if may is None else abs(off) <= may + 1e-9
    slope = per_year(checks)
    return InstrumentDrift(
        key=instrument.id,
        name=instrument.name,
        unit=unit_of(instrument),
        checks=checks,
        off=off,
        allowed=may,
        within=within,
        per_year=slope,
        few=len(checks) < LEAST_CHECKS,
        sentence=_sentence(instrument, last, may, within, slope),
    )


def _sentence(
    instrument: Instrument,
    last: InstrumentCheck,
    may: float | None,
    within: bool | None,
    slope: float | None,
) -> str:
    unit = unit_of(instrument)
    behind = f" {unit}" if unit else ""
    off = last.shown - last.standard
    if off == 0:
        said = f"Shows the {last.standard:g}{behind} of its standard."
    else:
        way = "too much" if off > 0 else "too little"
        said = f"Shows {abs(off):.3g}{behind} {way} in a standard of {last.standard:g}{behind}"
        said += "." if may is None else f"; its accuracy allows {may:.3g}{behind}."
    if may is None:
        said += " Its accuracy is not stated: look at its sheet."
    elif not within:
        said += " Clean it, adjust it, check it again; until then do not count on it."
    if slope is not None and abs(slope) >= 0.005:
        said += f" It drifts by about {abs(slope):.1%} a year {'upwards' if slope > 0 else 'down'}."
    return said
