"""Why a glass with few minerals turns acid when breathed into: carbon dioxide, and little to buffer
it.

Henry's law constant of CO2 0.034 mol/(L·atm) at 25 °C (R. Sander 2015); breath holds about 4 % CO2.
"""

from __future__ import annotations

import math

from ..working import Working, working

CO2_MOL_L = 0.034 * 0.04  # [mol/L] dissolved at equilibrium with breath, 25 °C
PK1_25 = 3404.71 / 298.15 + 0.032786 * 298.15 - 14.8435


def breathed_ph(alkalinity: float) -> float:
    """pH after breathing into a water of this alkalinity [mg/L as CaCO3]; 0: pure water.

    >>> round(breathed_ph(0.0), 1), round(breathed_ph(200.0), 1)
    (4.6, 6.8)
    """
    if alkalinity <= 0:
        return 0.5 * (PK1_25 - math.log10(CO2_MOL_L))
    return PK1_25 + math.log10(alkalinity / 50043.45 / CO2_MOL_L)


def breath_working(alkalinity: float | None) -> Working:
    """The slip that explains it, for this water and for one without minerals."""
    mine = (
        ()
        if alkalinity is None
        else (
            (
                f"this water, alkalinity {alkalinity:.0f} mg/L",
                f"{breathed_ph(alkalinity):.1f}",
                "pH",
            ),
        )
    )
    return working(
        "Why does it turn acid when breathed into?",
        "pH = pK1 + log10(alkalinity ÷ C); pure water ½ (pK1 − log10 C)",
        "Henry's law constant of CO2 at 25 °C (Sander 2015); breath about 4 % CO2",
        ("carbon dioxide from breath, C", f"{1000 * CO2_MOL_L:.2f}", "mmol/L"),
        *mine,
        ("alkalinity 160 mg/L", f"{breathed_ph(160):.1f}", "pH"),
        ("no minerals", f"{breathed_ph(0):.1f}", "pH"),
        note=(
            "Carbon dioxide makes any water a little acid; minerals buffer it. Neither says"
            " anything about health."
        ),
    )
