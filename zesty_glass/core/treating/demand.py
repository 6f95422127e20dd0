"""How much water a home uses, and how fast."""

from __future__ import annotations

import itertools
import math
from typing import Literal

from ..home import Home
from ..ranges import Range
from ..record import record
from ..rules import Settings
from ..units import CM_PER_IN, L_PER_GAL

#: bathrooms -> peak [gpm]; halves lie half-way; five and more: 18
PEAK_BY_BATHROOMS = ((1.0, 6.0), (2.0, 9.0), (3.0, 12.0), (4.0, 15.0), (5.0, 18.0))

PIPE_M_S = 2.0  # [m/s] the fastest that a pipe is laid out for: EN 806-3 (2006), 5.1

LEAST_GPM = 0.1  # less than this is no supply, and says nothing of the peak


def peak_gpm(bathrooms: float) -> float:
    """Peak flow [gpm] by number of bathrooms, straight lines between, ends held.

    Source: trade practice (2024), ``PEAK_BY_BATHROOMS``.

    >>> peak_gpm(2.5)  # half-way between 9 and 12
    10.5
    """
    return interpolate(PEAK_BY_BATHROOMS, bathrooms)


def pipe_gpm(inside_in: float) -> float:
    """What a pipe carries at the fastest it is laid out for [gpm].

    Args:
        inside_in: inside width [in].

    Source: flow = width² × π ÷ 4 × velocity; 2 m/s by EN 806-3 (2006).

    >>> round(pipe_gpm(1.0), 1)  # 2.54 cm: 5.067 cm² × 200 cm/s = 1.013 L/s = 60.8 L/min
    16.1
    """
    litres_s = math.pi / 4 * (inside_in * CM_PER_IN) ** 2 * PIPE_M_S / 10
    return litres_s * 60 / L_PER_GAL


#: by what the peak is known, before a measured flow caps it
PeakBy = Literal["told", "pipe", "bathrooms"]


def peak_of(home: Home) -> tuple[float, PeakBy]:
    """Peak flow of a home [gpm], and by what: as somebody told it, by bathrooms, and beyond their
    table by the pipe that enters, where that carries more.
    """
    table = peak_gpm(home.bathrooms)
    if home.told_peak_gpm is not None and home.told_peak_gpm >= LEAST_GPM:
        return home.told_peak_gpm, "told"
    if beyond_the_table(home) and home.pipe_in is not None:
        return max(table, pipe_gpm(home.pipe_in)), "pipe"
    return table, "bathrooms"


def beyond_the_table(home: Home) -> bool:
    """Whether it has more bathrooms than the table of peaks knows."""
    return home.bathrooms > PEAK_BY_BATHROOMS[-1][0]


def interpolate(table: tuple[tuple[float, float], ...], x: float) -> float:
    """Straight lines through a rising table, in its own units [y at x]; its ends are held outside.

    >>> interpolate(((0.0, 0.0), (2.0, 10.0)), 0.5)
    2.5
    """
    if x <= table[0][0]:
        return table[0][1]
    for (x0, y0), (x1, y1) in itertools.pairwise(table):
        if x <= x1:
            return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return table[-1][1]


@record
class Demand:
    """Use [gal/day when occupied], days occupied, yearly use [gal], and flows [gpm].

    ``table_peak_gpm`` is the peak before a measured flow caps it, and ``peak_by`` says by what.
    ``house_gal_day`` carries the schools' range of 50 to 75 gal a person when no bill is known.
    """

    house_gal_day: Range
    drinking_gal_day: float
    occupied_days: float
    house_gal_year: float
    drinking_gal_year: float
    table_peak_gpm: float
    peak_gpm: float
    capped: bool
    from_bill: bool
    peak_by: PeakBy = "bathrooms"
    people: float = 0.0


def demand(home: Home, settings: Settings, use_factor: float = 1.0) -> Demand:
    """Demand of a home; ``use_factor`` scales use for low and high cases."""
    days = home.days_lived
    if home.bill_gal_day is not None:
        use = Range.exact(home.bill_gal_day)
    else:
        each = settings.gal_per_person
        use = Range.of(
            home.people * min(50.0, each), home.people * each, home.people * max(75.0, each)
        )
    use = use.scale(use_factor)
    drinking = home.people * settings.drinking_gal_per_person * use_factor
    table, by = peak_of(home)
    capped = (
        home.flow_gpm is not None and home.flow_full_bore and LEAST_GPM <= home.flow_gpm < table
    )
    peak = home.flow_gpm if capped and home.flow_gpm is not None else table
    return Demand(
        house_gal_day=use,
        drinking_gal_day=drinking,
        occupied_days=days,
        house_gal_year=use.best * days,
        drinking_gal_year=drinking * days,
        table_peak_gpm=table,
        peak_gpm=peak,
        capped=capped,
        from_bill=home.bill_gal_day is not None,
        peak_by=by,
        people=home.people,
    )
