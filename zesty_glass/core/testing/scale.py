"""Scale tendency: the saturation index of calcite, at the tap and in the water heater.

Standard Methods for the Examination of Water and Wastewater, 2330 B (23rd edition, 2017), with the
constants of L. N. Plummer and E. Busenberg, Geochimica et Cosmochimica Acta 46 (1982) 1011, and
activities by the Davies equation. Beside a full geochemical model it is within 0.05 at the tap for
95 of 100 waters of the kind met in homes (tests/core/testing/test_scale.py).
"""

from __future__ import annotations

import math
from functools import lru_cache

from ..ranges import Range
from ..record import record

MG_CACO3_PER_MOL = 100_087.0  # [mg/mol]
MG_CACO3_PER_EQ = 50_044.0  # [mg/eq]
KELVIN = 273.15


@lru_cache(512)
def constants(temperature_c: float) -> tuple[float, float, float, float]:
    """pK1, pK2 of carbonic acid, pKs of calcite and pKw of water at a temperature [°C], valid from
    0 to 90 °C.

    Source: Plummer and Busenberg 1982; Kw as in Standard Methods 2330 B.

    >>> [round(k, 2) for k in constants(25.0)[:3]]
    [6.35, 10.33, 8.48]
    """
    t = temperature_c + KELVIN
    lg = math.log10(t)
    k1 = -356.3094 - 0.06091964 * t + 21834.37 / t + 126.8339 * lg - 1_684_915 / t**2
    k2 = -107.8871 - 0.03252849 * t + 5151.79 / t + 38.92561 * lg - 563_713.9 / t**2
    ks = -171.9065 - 0.077993 * t + 2839.319 / t + 71.595 * lg
    kw = -(4471 / t + 0.01706 * t - 6.0875)
    return -k1, -k2, -ks, -kw


def pfm(tds: float, temperature_c: float) -> float:
    """−log10 of the activity coefficient of a monovalent ion, from TDS [mg/L] and temperature [°C]
    (SM 2330 B).

    >>> pfm(0.0, 25.0)  # pure water
    0.0
    """
    t = temperature_c + KELVIN
    dielectric = 60954 / (t + 116) - 68.937
    a = 1.82e6 * (dielectric * t) ** -1.5
    root = math.sqrt(tds / 40000)
    value: float = a * (root / (1 + root) - 0.3 * tds / 40000)
    return value


NO_CALCIUM = 1e-9  # [mg/L as CaCO3] less is none: such water dissolves calcite in any case


def _index(ph: float, tds: float, temperature_c: float, calcium: float, hco3: float) -> float:
    """The index from bicarbonate [mol/L] and calcium [mg/L as CaCO3]."""
    _, pk2, pks, _ = constants(temperature_c)
    p_ca = -math.log10(max(calcium, NO_CALCIUM) / MG_CACO3_PER_MOL)
    return ph - (pk2 - pks + p_ca - math.log10(hco3) + 5 * pfm(tds, temperature_c))


def _bicarbonate(ph: float, tds: float, temperature_c: float, alkalinity: float) -> float:
    """Bicarbonate [mol/L] of an alkalinity [mg/L as CaCO3] (SM 2330 B)."""
    _, pk2, _, _ = constants(temperature_c)
    return alkalinity / MG_CACO3_PER_EQ / (1 + 2 * 10 ** (ph - pk2 + 3 * pfm(tds, temperature_c)))


def saturation_index(
    ph: float, tds: float, temperature_c: float, calcium: float, alkalinity: float
) -> float:
    """Saturation index of calcite [-], above 0 where scale forms.

    Args:
        ph: at this temperature [-]; tds: [mg/L]; temperature_c: [°C], 0 to 90.
        calcium: [mg/L as CaCO3]; alkalinity: [mg/L as CaCO3]; all above 0.

    Source: Standard Methods 2330 B.

    >>> f"{saturation_index(7.6, 380, 15, 190, 160):+.2f}"
    '+0.17'
    """
    hco3 = _bicarbonate(ph, tds, temperature_c, alkalinity)
    return _index(ph, tds, temperature_c, calcium, hco3)


def _total_carbonate(ph: float, tds: float, temperature_c: float, alkalinity: float) -> float:
    """Carbon dioxide, bicarbonate and carbonate together [mol/L]; hydroxide’s part of the
    alkalinity is none of them, at the tap as in the heater.
    """
    pk1, pk2, _, pkw = constants(temperature_c)
    f = pfm(tds, temperature_c)
    ions = (10 ** (ph - pkw + f) - 10 ** (f - ph)) * MG_CACO3_PER_EQ
    hco3 = _bicarbonate(ph, tds, temperature_c, max(alkalinity - ions, 0.0))
    return hco3 * (1 + 10 ** (ph - pk2 + 3 * f) + 10 ** (pk1 - ph - f))


@lru_cache(2048)
def heated(
    ph: float,
    tds: float,
    temperature_c: float,
    calcium: float,
    alkalinity: float,
    heater_c: float = 60.0,
) -> tuple[float, float]:
    """pH and saturation index of the same water in a closed heater: alkalinity and total carbonate
    stay, the pH falls.

    Args:
        ph, tds, temperature_c, calcium, alkalinity: at the tap, as for ``saturation_index``;
            heater_c: [°C].

    Returns:
        pH [-] and index [-] at ``heater_c``. Source: Standard Methods 2330 B; charge balance by
            bisection.

    >>> ph, index = heated(7.6, 380, 15, 190, 160)
    >>> f"{ph:.2f} {index:+.2f}"
    '7.45 +0.61'
    """
    carbonate = _total_carbonate(ph, tds, temperature_c, alkalinity)
    pk1, pk2, _, pkw = constants(heater_c)
    f, wanted = pfm(tds, heater_c), alkalinity / MG_CACO3_PER_EQ

    def bicarbonate(p: float) -> float:
        return carbonate / (1 + 10 ** (p - pk2 + 3 * f) + 10 ** (pk1 - p - f))

    def short(p: float) -> bool:
        ions = 10 ** (p - pkw + f) - 10 ** (f - p)
        return bicarbonate(p) * (1 + 2 * 10 ** (p - pk2 + 3 * f)) + ions < wanted

    low, high = 1.0, 13.0
    for _ in range(60):
        mid = (low + high) / 2
        low, high = (mid, high) if short(mid) else (low, mid)
    hot = (low + high) / 2
    return hot, _index(hot, tds, heater_c, calcium, bicarbonate(hot))


def short_index(
    ph: float, tds: float, temperature_c: float, calcium: float, alkalinity: float
) -> float:
    """The trade's short saturation index [-]: pH − ((9.3 + A + B) − (C + D)); about 0.2 too low
    beside the full one.

    Args:
        ph: [-]. tds: [mg/L]. temperature_c: [°C]. calcium, alkalinity: [mg/L as CaCO3].

    Source: trade practice (2024), as it is printed in water treatment handbooks.

    >>> round(short_index(7.5, 320.0, 25.0, 150.0, 34.0), 2)  # 7.5 - (9.3 + 0.15 + 2.09 - 3.31)
    -0.73
    """
    a = (math.log10(tds) - 1) / 10
    b = -13.12 * math.log10(temperature_c + 273) + 34.55
    return ph - ((9.3 + a + b) - (math.log10(calcium) - 0.4 + math.log10(alkalinity)))


@record
class ScaleTendency:
    """Index at the tap and in the closed heater, and the pH there; ``at_most``: total hardness
    stood in for calcium.
    """

    at_tap: Range
    at_heater: Range
    tap_c: float
    heater_c: float
    at_most: bool
    heater_ph: float = 7.0


def _known(r: Range | None) -> bool:
    """A range that an index can be made of: with both ends, above 0."""
    return r is not None and r.high is not None and r.low > 0


def tendency(
    ph: Range | None,
    tds: Range | None,
    temperature: Range | None,
    calcium: Range | None,
    alkalinity: Range | None,
    hardness: Range | None = None,
    heater_c: float = 60.0,
) -> ScaleTendency | None:
    """The index with its range, or None when an input is unknown, open-ended or not above 0.

    Args:
        ph [-], tds [mg/L], temperature [°C], calcium, alkalinity, hardness [mg/L as CaCO3]: with
            their ranges.
        heater_c: [°C].
    """
    at_most = calcium is None and hardness is not None
    ca = calcium or hardness
    if temperature is None or temperature.high is None or not 0 <= temperature.low <= 90:
        return None
    if ph is None or tds is None or ca is None or alkalinity is None:
        return None
    if not all(_known(r) for r in (ph, tds, ca, alkalinity)):
        return None
    ends = (
        (ph.low, tds.top, temperature.low, ca.low, alkalinity.low),
        (ph.best, tds.best, temperature.best, ca.best, alkalinity.best),
        (ph.top, tds.low, temperature.top, ca.top, alkalinity.top),
    )
    if any(_total_carbonate(p, t, c, alk) <= 0 for p, t, c, _, alk in ends):
        return None  # all its alkalinity is of lye: there is no carbonate to fall out
    tap = sorted(saturation_index(*e) for e in ends)
    hot = [heated(*e, heater_c) for e in ends]
    inner = saturation_index(*ends[1])
    return ScaleTendency(
        at_tap=Range.of(tap[0], inner, tap[2]),
        at_heater=Range.of(min(i for _, i in hot), hot[1][1], max(i for _, i in hot)),
        tap_c=temperature.best,
        heater_c=heater_c,
        at_most=at_most,
        heater_ph=hot[1][0],
    )
