"""What can be in water, and the canonical unit of each."""

from __future__ import annotations

from types import MappingProxyType
from typing import Literal

from .analyte import Analyte, Kind, UntilThen, mid_sentence
from .analyte_table import TABLE
from .errors import RuleError

__all__ = ["ANALYTES", "Analyte", "Kind", "UntilThen", "analyte", "judged_at", "mid_sentence"]

#: what can be at all, by canonical unit; anything else is a slip of the finger. A million mg/L is
#: the whole of it.
POSSIBLE: dict[str, tuple[float, float]] = {
    "pH": (0.0, 14.0),
    "°C": (-5.0, 110.0),
    "%": (0.0, 100.0),
    "mg/L": (0.0, 1e6),
    "mg/L as CaCO3": (0.0, 1e6),
}
ANALYTES = MappingProxyType({a.id: a for a in TABLE})

#: what a full home visit looks for on the raw sample; the foot boxes of the drawn glass follow this
#: list
LOOKED_FOR = ("tds", "hardness", "iron", "tannin", "ph", "chlorine_free", "coliform", "nitrate_n")


def analyte(id: str) -> Analyte:
    """The analyte with this identifier; RuleError ``analyte.unknown`` otherwise."""
    if id not in ANALYTES:
        raise RuleError(
            "analyte.unknown",
            f"There is no analyte “{id}”.",
            "analyte",
            "See docs/rules.md for the list.",
        )
    return ANALYTES[id]


#: found by a laboratory, in a word or by count, and inactivated rather than taken out
MICROBES = ("coliform", "e_coli")


def until_then(*what: UntilThen) -> frozenset[str]:
    """Analytes of which this is done until they are answered."""
    return frozenset(a.id for a in TABLE if a.until_then in what)


def judged_at(analyte: str) -> Literal["house", "tap"]:
    """Where an analyte is judged: health, TDS and the like at the drinking tap, the rest at the
    house's taps.

    >>> judged_at("arsenic"), judged_at("iron")
    ('tap', 'house')
    """
    a = ANALYTES[analyte]
    return "tap" if a.at_the_tap or a.kind is Kind.HEALTH else "house"
