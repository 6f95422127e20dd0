"""Scale in the kettle: grams a year, at most."""

from __future__ import annotations

from ..ranges import Range
from ..record import record
from ..testing.water import Water
from ..treating.stream import Stream
from ..units import DAYS_PER_YEAR


@record
class Scale:
    """Scale a year [g]; ``from_hardness``: calcium or alkalinity is not known, so hardness stands
    in and "at most" is said twice.
    """

    grams: Range
    from_hardness: bool


def scale_mg_l(water: Water | Stream) -> tuple[Range, bool] | None:
    """What may fall out [mg/L as CaCO3]: the smaller of calcium hardness and alkalinity, end by
    end; else hardness. None: neither known.
    """
    calcium, alkalinity, hardness = (
        water.range("calcium"),
        water.range("alkalinity"),
        water.range("hardness"),
    )
    if calcium is not None and alkalinity is not None:
        highs = [r.high for r in (calcium, alkalinity) if r.high is not None]
        return (
            Range.of(
                min(calcium.low, alkalinity.low),
                min(calcium.best, alkalinity.best),
                min(highs) if highs else None,
            ),
            False,
        )
    if hardness is None:
        return None
    return hardness, True


def scale_year(water: Water, litres_day: float) -> Scale | None:
    """Grams a year = what may fall out × liters heated a day × 365.25."""
    found = scale_mg_l(water)
    return (
        None
        if found is None
        else Scale(grams=found[0].scale(litres_day * DAYS_PER_YEAR / 1000), from_hardness=found[1])
    )
