"""Units: one canonical unit a quantity, and the exact factors between them.

Constants: 1 grain = 64.79891 mg and 1 US gallon = 3.785411784 L are exact by definition
(NIST Handbook 44, appendix C, 2023); the hardness degrees follow from their definitions.
"""

from __future__ import annotations

from .errors import RuleError

MG_PER_GRAIN = 64.79891
L_PER_GAL = 3.785411784
MG_L_PER_GPG = MG_PER_GRAIN / L_PER_GAL  # 17.1181 mg/L as CaCO3
MG_L_PER_DH = 17.848
MG_L_PER_FH = 10.0
MG_L_PER_CLARK = 14.254
MG_L_PER_MMOL = 100.0869  # of calcium or magnesium, as CaCO3; molar mass, IUPAC 2021
GAL_PER_FT3 = 7.48052
KG_PER_LB = 0.45359237
MG_PER_LB = 1e6 * KG_PER_LB
BQ_L_PER_PCI_L = 0.037
KPA_PER_PSI = 6.894757
CM_PER_IN = 2.54
DAYS_PER_YEAR = 365.25
DAYS_PER_MONTH = 30.4375
HOURS_PER_YEAR = 8766.0

#: canonical unit -> {unit: factor}; value[canonical] = value[unit] * factor
_FACTORS: dict[str, dict[str, float]] = {
    "mg/L": {
        "mg/L": 1.0,
        "ppm": 1.0,
        "µg/L": 1e-3,
        "ug/L": 1e-3,
        "ppb": 1e-3,
        "ng/L": 1e-6,
        "ppt": 1e-6,
        "g/L": 1e3,
    },
    "mg/L as CaCO3": {
        "mg/L as CaCO3": 1.0,
        "mg/L": 1.0,
        "ppm": 1.0,
        "gpg": MG_L_PER_GPG,
        "°dH": MG_L_PER_DH,
        "dH": MG_L_PER_DH,
        "°fH": MG_L_PER_FH,
        "fH": MG_L_PER_FH,
        "°e": MG_L_PER_CLARK,
        "Clark": MG_L_PER_CLARK,
        "mmol/L": MG_L_PER_MMOL,
        "µg/L": 1e-3,
        "ug/L": 1e-3,
        "ppb": 1e-3,
    },
    "pCi/L": {"pCi/L": 1.0, "Bq/L": 1 / BQ_L_PER_PCI_L},
    "gpm": {"gpm": 1.0, "L/min": 1 / L_PER_GAL},
    "gal": {"gal": 1.0, "L": 1 / L_PER_GAL},
    "psi": {"psi": 1.0, "kPa": 1 / KPA_PER_PSI, "bar": 100 / KPA_PER_PSI},
    "pH": {"pH": 1.0, "": 1.0},
    "NTU": {"NTU": 1.0, "FNU": 1.0},
    "%": {"%": 1.0},
    "µS/cm": {"µS/cm": 1.0, "uS/cm": 1.0, "mS/cm": 1000.0},
    "per 100 mL": {"per 100 mL": 1.0, "MPN/100 mL": 1.0, "CFU/100 mL": 1.0},
    "": {"": 1.0},
}


def convert(value: float, unit: str, canonical: str) -> float:
    """Convert ``value`` [unit] to the canonical unit.

    Args:
        value: the number as given [unit].
        unit: unit as written, e.g. ``gpg``.
        canonical: canonical unit of the quantity, e.g. ``mg/L as CaCO3``.

    Raises:
        RuleError: ``unit.unknown`` when the two do not belong together.

    >>> round(convert(1.0, "gpg", "mg/L as CaCO3"), 4)
    17.1181
    """
    if canonical == "°C":
        return celsius(value, unit)
    table = _FACTORS.get(canonical, {canonical: 1.0})
    if unit not in table:
        known = ", ".join(u for u in table if u) or "no unit"
        raise RuleError(
            "unit.unknown", f"The unit “{unit}” does not fit here.", "unit", f"Use one of: {known}."
        )
    return value * table[unit]


def celsius(value: float, unit: str) -> float:
    """Temperature [°C] from °C or °F.

    Raises:
        RuleError: ``unit.unknown``, for any other unit.

    >>> round(celsius(212.0, "°F"), 9)
    100.0
    """
    if unit in ("°C", "C"):
        return value
    if unit in ("°F", "F"):
        return (value - 32.0) / 1.8
    raise RuleError(
        "unit.unknown", f"The unit “{unit}” is not a temperature.", "unit", "Use °C or °F."
    )


def hardness_in_every_unit(mg_l: float) -> dict[str, float]:
    """Hardness in each unit in use [mg/L as CaCO3, gpg, °dH, °fH, °e], from ``mg_l`` [mg/L as
    CaCO3].

    Source: definitions of the degrees; grain and gallon of NIST Handbook 44 (2023).

    >>> round(hardness_in_every_unit(100.0)["gpg"], 3)  # 100 / 17.118
    5.842
    """
    return {
        "mg/L": mg_l,
        "gpg": mg_l / MG_L_PER_GPG,
        "°dH": mg_l / MG_L_PER_DH,
        "°fH": mg_l / MG_L_PER_FH,
        "°e": mg_l / MG_L_PER_CLARK,
    }
