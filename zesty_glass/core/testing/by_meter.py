"""Values read off a meter: its error, repeats, temperature and dilution."""

from __future__ import annotations

import math
from statistics import median

from ..analytes import analyte
from ..ranges import Range
from ..units import convert
from .instruments import Flag, Instrument
from .observations import (
    MeterDisplays,
)
from .value import Value, refused, unit_of


def meter_error(instrument: Instrument, display: float) -> float:
    """How far a display may be off, by the maker's accuracy [as displayed]."""
    share = instrument.accuracy_share or 0.0
    if instrument.accuracy_of == "reading":
        return share * display + instrument.accuracy_plus
    return share * (instrument.full_scale or display) + instrument.accuracy_plus


def spread_allowed(displays: tuple[float, ...]) -> float:
    """Largest spread of repeats [as displayed]: the larger of 3 and 3 % of their median.

    >>> spread_allowed((90.0, 100.0)), spread_allowed((300.0, 300.0))
    (3.0, 9.0)
    """
    return max(3.0, 0.03 * median(displays))


def repeats_needed(displays: tuple[float, ...]) -> int:
    """How many repeats the procedure asks for: two, and a third when two disagree.

    >>> repeats_needed((400.0, 405.0)), repeats_needed((400.0, 420.0))
    (2, 3)
    """
    if len(displays) < 2:
        return 2
    return 2 if max(displays[:2]) - min(displays[:2]) <= spread_allowed(displays[:2]) else 3


def tenfold(displays: tuple[float, ...]) -> bool:
    """Whether repeats differ about tenfold (8 to 12 times), which asks whether a x10 mark was
    missed.

    >>> tenfold((112.0, 1120.0)), tenfold((112.0, 115.0))
    (True, False)
    """
    shown = [d for d in displays if d > 0]
    return len(shown) >= 2 and 8.0 <= max(shown) / min(shown) <= 12.0


def _meter_repeats(displays: tuple[float, ...]) -> list[Flag]:
    """What the repeats themselves ask for."""
    flags, spread, allowed = [], max(displays) - min(displays), spread_allowed(displays)
    if len(displays) < repeats_needed(displays):
        words = "Two repeats at least, and a third when the two disagree."
        flags.append(Flag(id="meter.repeats", sentence=words))
    elif spread > allowed and len(displays) < 4:
        words = (
            f"The repeats spread over {spread:g}, {allowed:.3g} is allowed: rinse, stir and repeat."
        )
        flags.append(Flag(id="meter.spread", sentence=words))
    if tenfold(displays):
        words = "The repeats differ about tenfold: look for a x10 mark on the display."
        flags.append(Flag(id="meter.tenfold", sentence=words))
    return flags


def _meter_flags(seen: MeterDisplays) -> tuple[Flag, ...]:
    """Doubts about a reading of a meter: its repeats, and how it was made."""
    flags = _meter_repeats(seen.displays)
    if seen.zero is not None and seen.zero > 3:
        flags.append(
            Flag(
                id="meter.zero",
                sentence=(
                    f"In distilled water it read {seen.zero:g}, 3 is allowed: clean the probe."
                ),
            )
        )
    if seen.temperature_c is not None and not 5 <= seen.temperature_c <= 40:
        flags.append(
            Flag(
                id="meter.temperature",
                sentence=(
                    f"The sample had {seen.temperature_c:g} °C: let it stand until it is between 5"
                    " and 40 °C."
                ),
            )
        )
    if not seen.rinsed:
        flags.append(Flag(id="meter.not_rinsed", sentence="Cup and probe were not rinsed."))
    if not seen.steady:
        flags.append(Flag(id="meter.unsteady", sentence="The display was still moving."))
    return tuple(flags)


def meter(instrument: Instrument, seen: MeterDisplays) -> Value:
    """Repeats on a pocket meter: best = median, ends = extreme repeats ± (error there + half the
    resolution).

    Accuracy unknown or of full scale uses the full scale [instrument's unit]; the x10 mark
    multiplies displays, resolution and full scale by ten.
    """
    if not seen.displays:
        raise refused("meter.empty", "No display was typed.", "Type what the meter shows.")
    if any(d < 0 or not math.isfinite(d) for d in seen.displays):
        raise refused(
            "meter.negative", "A display cannot be below 0.", "Type what the meter shows."
        )
    if seen.multiplier not in (1, 10):
        raise refused(
            "meter.multiplier",
            f"A range mark of x{seen.multiplier:g} is not known.",
            "Use x1 or x10.",
        )
    m, unit, canonical = seen.multiplier, unit_of(instrument), analyte(instrument.analyte).unit
    res = instrument.resolution * m
    low_d, high_d, mid = min(seen.displays) * m, max(seen.displays) * m, median(seen.displays) * m
    below = None
    if high_d == 0:
        r, below = Range.of(0.0, res / 2, res), res
    else:

        def error(v: float) -> float:
            return meter_error(instrument, v / m) * m

        low = max(0.0, low_d - (error(low_d) + res / 2))
        best = mid if mid > 0 else res / 2
        r = Range.of(low, best, max(best, high_d + (error(high_d) + res / 2)))
    c = convert(1.0, unit, canonical)
    return Value(
        analyte=instrument.analyte,
        unit=canonical,
        range=r.scale(c),
        below=None if below is None else below * c,
        flags=_meter_flags(seen),
    )
