"""Scale tendency: the Langelier saturation index.

LSI = pH − pHs, pHs = (9.3 + A + B) − (C + D); W. F. Langelier 1936 in the common working form.
"""

from __future__ import annotations

import math

from ..ranges import Range
from ..record import record


def lsi(ph: float, tds: float, temperature_c: float, calcium: float, alkalinity: float) -> float:
    """Index from pH, TDS [mg/L], temperature [°C], calcium and alkalinity [mg/L as CaCO3], all above 0."""
    a = (math.log10(tds) - 1) / 10
    b = -13.12 * math.log10(temperature_c + 273) + 34.55
    c = math.log10(calcium) - 0.4
    d = math.log10(alkalinity)
    return ph - ((9.3 + a + b) - (c + d))


@record
class ScaleTendency:
    """Index at the tap and at the heater; ``at_most``: total hardness stood in for calcium."""

    at_tap: Range
    at_heater: Range
    tap_c: float
    heater_c: float
    at_most: bool


def tendency(
    ph: Range | None,
    tds: Range | None,
    temperature: Range | None,
    calcium: Range | None,
    alkalinity: Range | None,
    hardness: Range | None = None,
    heater_c: float = 60.0,
) -> ScaleTendency | None:
    """The index with its range, or None when an input is unknown, open-ended or not above 0."""
    at_most = calcium is None and hardness is not None
    ca = calcium or hardness
    if ph is None or tds is None or temperature is None or ca is None or alkalinity is None:
        return None
    parts = (tds, ca, alkalinity)
    if (
        any(p.high is None or p.low <= 0 for p in parts)
        or ph.high is None
        or temperature.high is None
    ):
        return None
    t_high, c_high, a_high = tds.high or 0.0, ca.high or 0.0, alkalinity.high or 0.0

    def at(low_t: float, best_t: float, high_t: float) -> Range:
        low = lsi(ph.low, t_high, low_t, ca.low, alkalinity.low)
        high = lsi(ph.high or 0.0, tds.low, high_t, c_high, a_high)
        return Range.of(low, lsi(ph.best, tds.best, best_t, ca.best, alkalinity.best), high)

    tap = at(temperature.low, temperature.best, temperature.high)
    return ScaleTendency(
        at_tap=tap,
        at_heater=at(heater_c, heater_c, heater_c),
        tap_c=temperature.best,
        heater_c=heater_c,
        at_most=at_most,
    )
