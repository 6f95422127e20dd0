"""Values as people read them: number, unit and range in one place, US or metric."""

from __future__ import annotations

import math
from collections.abc import Sequence
from decimal import ROUND_HALF_EVEN, Decimal
from functools import lru_cache

from .analytes import ANALYTES
from .ranges import Range
from .units import BQ_L_PER_PCI_L, KG_PER_LB, KPA_PER_PSI, L_PER_GAL, MG_L_PER_GPG

_METRIC = {
    "gpm": (L_PER_GAL, "L/min", 0),
    "gal": (L_PER_GAL, "L", 0),
    "psi": (KPA_PER_PSI, "kPa", 0),
    "pCi/L": (BQ_L_PER_PCI_L, "Bq/L", 0),
}


@lru_cache(4096)
def number(value: float, decimals: int) -> str:
    """A number with thousands separators and no trailing zeros after the point; under 1 with two
    digits that say something at least, so that nothing is shown as 0 that is not 0.

    >>> number(1234.5, 1), number(0.004, 1), number(2.0, 2)
    ('1,234.5', '0.004', '2')
    """
    if value != 0 and abs(value) < 1:
        decimals = max(decimals, 1 - math.floor(math.log10(abs(value))))
    text = f"{value:,.{decimals}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def listed(names: Sequence[str]) -> str:
    """Names in a row.

    >>> listed(["iron"]), listed(["iron", "tannin", "sand"])
    ('iron', 'iron, tannin and sand')
    """
    *first, last = names
    return f"{', '.join(first)} and {last}" if first else last


def about(value: float) -> str:
    """A predicted amount with the digits it is known by: whole under 1,000, then two digits, so
    that 5,669 gallons a year are 5,700. The exact one is in its working.

    >>> about(5669.0), about(669.4)
    ('5,700', '669')
    """
    if abs(value) < 1000 or not math.isfinite(value):
        return number(value, 0)
    place = math.floor(math.log10(abs(value))) - 1
    return number(round(value, -place), 0)


TO_THE_TEN_BEYOND = 5  # [years] from which a sum of costs is said to the ten: trade practice (2024)


def sum_over(amount: Decimal, years: int) -> Decimal:
    """A sum of costs over years as it is said: whole, and to the ten beyond five years.

    >>> sum_over(Decimal("1234.40"), 10), sum_over(Decimal("1234.40"), 5)
    (Decimal('1230'), Decimal('1234'))
    """
    step = Decimal(10) if years > TO_THE_TEN_BEYOND else Decimal(1)
    said = (amount / step).quantize(Decimal(1), ROUND_HALF_EVEN) * step
    return said or amount  # what is not nothing is never said as nothing


@lru_cache(512)
def shown_in(analyte: str, units: str) -> tuple[float, str, int]:
    """Factor, unit and decimals in which an analyte is shown: hardness in gpg for US, mg/L for
    metric.

    >>> shown_in("hardness", "us")[1:], shown_in("hardness", "metric")[1]
    (('gpg', 1), 'mg/L')
    """
    a = ANALYTES[analyte]
    if analyte == "hardness" and units == "us":
        return 1 / MG_L_PER_GPG, "gpg", 1
    if a.shown is not None:
        return a.shown
    if a.unit in _METRIC and units == "metric":
        return _METRIC[a.unit]
    if analyte == "temperature" and units == "us":
        return 1.0, "°C", a.decimals
    return 1.0, a.unit.replace(" as CaCO3", ""), a.decimals


def value(
    analyte: str, r: Range | None, below: float | None = None, units: str = "us", words: str = ""
) -> str:
    """Best value with its unit, e.g. "14 gpg", "under 0.05 mg/L", "at least 425 mg/L", "absent".

    >>> value("iron", Range.of(0.0, 0.025, 0.05), 0.05), value("ph", Range.exact(7.6))
    ('under 0.05 mg/L', 'pH 7.6')
    """
    if r is None:
        return words or "not tested"
    factor, unit, decimals = shown_in(analyte, units)
    tail = "" if unit == "pH" else f" {unit}".rstrip()
    lead = "pH " if unit == "pH" else ""
    if below is not None:
        return f"{lead}under {number(below * factor, decimals + 1)}{tail}"
    if r.high is None:
        return f"{lead}at least {number(r.low * factor, decimals)}{tail}"
    also = f" ({number(r.best * BQ_L_PER_PCI_L, 0)} Bq/L)" if unit == "pCi/L" else ""
    return f"{lead}{number(r.best * factor, decimals)}{tail}{also}"


def span(analyte: str, r: Range | None, units: str = "us") -> str:
    """The range in words, e.g. "400 to 424 mg/L".

    >>> span("tds", Range.of(400.3, 412.0, 423.8))
    '400 to 424 mg/L'
    """
    if r is None:
        return ""
    factor, unit, decimals = shown_in(analyte, units)
    tail = "" if unit in ("pH", "") else f" {unit}"
    lead = "pH " if unit == "pH" else ""
    if r.high is None:
        return f"{lead}{number(r.low * factor, decimals)}{tail} or more"
    low, high = number(r.low * factor, decimals), number(r.high * factor, decimals)
    return f"{lead}{low}{tail}" if low == high else f"{lead}{low} to {high}{tail}"


def beside_name(text: str, name: str) -> str:
    """A value as it stands in a table beside its name, which it does not say again.

    >>> beside_name("pH 7.6", "pH"), beside_name("14 gpg", "Hardness")
    ('7.6', '14 gpg')
    """
    return text.removeprefix(f"{name} ")


def gallons(value: float, units: str = "us", decimals: int = 0) -> str:
    """A volume of water, US gallons or liters.

    >>> gallons(100.0), gallons(100.0, "metric")
    ('100 gal', '379 L')
    """
    return (
        f"{number(value, decimals)} gal"
        if units == "us"
        else f"{number(value * L_PER_GAL, decimals)} L"
    )


def about_gallons(value: float, units: str = "us") -> str:
    """A predicted volume with the digits it is known by.

    >>> about_gallons(5669.0), about_gallons(5669.0, "metric")
    ('5,700 gal', '21,000 L')
    """
    return f"{about(value)} gal" if units == "us" else f"{about(value * L_PER_GAL)} L"


def pounds(value: float, units: str = "us") -> str:
    """A weight.

    >>> pounds(40.0), pounds(40.0, "metric")
    ('40 lb', '18 kg')
    """
    return f"{number(value, 0)} lb" if units == "us" else f"{number(value * KG_PER_LB, 0)} kg"


def days(value: float) -> str:
    """Whole days in words: "day", "2 days".

    >>> days(1.2), days(3.0)
    ('day', '3 days')
    """
    return "day" if round(value) == 1 else f"{value:.0f} days"
