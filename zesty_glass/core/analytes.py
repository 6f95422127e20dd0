"""What can be in water, and the canonical unit of each."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType
from typing import Literal

from .errors import RuleError
from .record import record


class Kind(StrEnum):
    """What a finding about this analyte is about."""

    HEALTH = "health"
    LOOKS_TASTE = "looks_taste"
    EQUIPMENT = "equipment"
    CONTEXT = "context"


#: what to do with water over a health limit until the laboratory and the authority have answered:
#: boil it, never boil it (boiling makes it stronger), flush the tap, use bottled water or a filter
#: certified for PFAS, ventilate, or bottled water alone; the sentences stand in
#: ``testing/tonight.py``
UntilThen = Literal["", "boil", "never_boil", "flush", "pfas", "ventilate", "bottled"]


@record
class Analyte:
    """One measurable thing.

    Args:
        id: identifier used in files and code.
        name: name on screen.
        unit: canonical unit.
        kind: what a finding about it is about.
        laboratory_only: only a certified laboratory may judge it.
        visible: it changes how the drawn glass looks.
        test: the test to make when it is unknown.
        until_then: what is done until it is answered; every analyte of health says it.
    """

    id: str
    name: str
    unit: str
    kind: Kind
    laboratory_only: bool = False
    visible: bool = False
    test: str = ""
    decimals: int = 2
    until_then: UntilThen = ""

    @property
    def said(self) -> str:
        """The name within a sentence: "total iron", "pH", "nitrate as N"."""
        return mid_sentence(self.name)


def mid_sentence(name: str) -> str:
    """A name as it stands within a sentence: "Iron, total" is total iron, and pH, PFOA or E. coli
    stay as they are.
    """
    thing, _, how = name.partition(", ")
    words = f"{how} {thing.lower()}" if how and " " not in how else name
    return words[0].lower() + words[1:] if words.split(" ")[0][1:].islower() else words


#: what can be at all, by canonical unit; anything else is a slip of the finger. A million mg/L is
#: the whole of it.
POSSIBLE: dict[str, tuple[float, float]] = {
    "pH": (0.0, 14.0),
    "°C": (-5.0, 110.0),
    "%": (0.0, 100.0),
    "mg/L": (0.0, 1e6),
    "mg/L as CaCO3": (0.0, 1e6),
}


def _a(id: str, name: str, unit: str, kind: Kind, test: str, **more: object) -> Analyte:
    told = {"id": id, "name": name, "unit": unit, "kind": kind, "test": test, **more}
    return Analyte(**told)  # type: ignore[arg-type]


_LAB = {"laboratory_only": True}


def _health(until_then: UntilThen) -> dict[str, object]:
    return {**_LAB, "until_then": until_then}


_ALL = (
    _a("tds", "Dissolved matter (TDS)", "mg/L", Kind.LOOKS_TASTE, "TDS by meter", decimals=0),
    _a(
        "hardness",
        "Hardness",
        "mg/L as CaCO3",
        Kind.EQUIPMENT,
        "hardness by drops",
        visible=True,
        decimals=0,
    ),
    _a(
        "calcium",
        "Calcium hardness",
        "mg/L as CaCO3",
        Kind.EQUIPMENT,
        "calcium hardness by drops or laboratory",
        decimals=0,
    ),
    _a(
        "magnesium",
        "Magnesium hardness",
        "mg/L as CaCO3",
        Kind.EQUIPMENT,
        "magnesium by laboratory",
        decimals=0,
    ),
    _a(
        "alkalinity",
        "Alkalinity",
        "mg/L as CaCO3",
        Kind.EQUIPMENT,
        "alkalinity by drops",
        decimals=0,
    ),
    _a("ph", "pH", "pH", Kind.EQUIPMENT, "pH by meter on site", decimals=1),
    _a("temperature", "Temperature", "°C", Kind.CONTEXT, "temperature at the tap", decimals=1),
    _a("iron", "Iron, total", "mg/L", Kind.LOOKS_TASTE, "iron kit", visible=True),
    _a(
        "iron_ferrous", "Iron, dissolved", "mg/L", Kind.LOOKS_TASTE, "iron kit on a filtered sample"
    ),
    _a("manganese", "Manganese", "mg/L", Kind.LOOKS_TASTE, "manganese kit or laboratory"),
    _a("tannin", "Tannin", "mg/L", Kind.LOOKS_TASTE, "tannin kit", visible=True, decimals=1),
    _a(
        "chlorine_free",
        "Free chlorine",
        "mg/L",
        Kind.LOOKS_TASTE,
        "free chlorine within a minute",
        visible=True,
        decimals=1,
    ),
    _a(
        "chlorine_total",
        "Total chlorine",
        "mg/L",
        Kind.LOOKS_TASTE,
        "total chlorine after three minutes",
        decimals=1,
    ),
    _a(
        "chlorine_combined",
        "Chloramine",
        "mg/L",
        Kind.LOOKS_TASTE,
        "free and total chlorine",
        visible=True,
        decimals=1,
    ),
    _a(
        "turbidity",
        "Turbidity",
        "NTU",
        Kind.LOOKS_TASTE,
        "turbidity by meter or laboratory",
        visible=True,
        decimals=1,
    ),
    _a(
        "hydrogen_sulfide",
        "Hydrogen sulfide",
        "mg/L",
        Kind.LOOKS_TASTE,
        "hydrogen sulfide on site, at once",
    ),
    _a("sulfate", "Sulfate", "mg/L", Kind.LOOKS_TASTE, "laboratory: sulfate", decimals=0),
    _a("chloride", "Chloride", "mg/L", Kind.LOOKS_TASTE, "laboratory: chloride", decimals=0),
    _a("sodium", "Sodium", "mg/L", Kind.LOOKS_TASTE, "laboratory: sodium", decimals=0),
    _a("potassium", "Potassium", "mg/L", Kind.LOOKS_TASTE, "laboratory: potassium", decimals=0),
    _a(
        "carbon_dioxide",
        "Carbon dioxide",
        "mg/L",
        Kind.EQUIPMENT,
        "carbon dioxide by drops",
        decimals=0,
    ),
    _a(
        "copper",
        "Copper, first draw",
        "mg/L",
        Kind.HEALTH,
        "laboratory: copper, first draw",
        **_health("flush"),
    ),
    _a(
        "copper_flushed",
        "Copper, flushed",
        "mg/L",
        Kind.HEALTH,
        "laboratory: copper, flushed",
        **_health("bottled"),
    ),
    _a(
        "lead",
        "Lead, first draw",
        "mg/L",
        Kind.HEALTH,
        "laboratory: lead, first draw",
        decimals=4,
        **_health("flush"),
    ),
    _a(
        "nitrate_n",
        "Nitrate as N",
        "mg/L",
        Kind.HEALTH,
        "laboratory: nitrate",
        **_health("never_boil"),
    ),
    _a(
        "nitrite_n",
        "Nitrite as N",
        "mg/L",
        Kind.HEALTH,
        "laboratory: nitrite",
        **_health("never_boil"),
    ),
    _a(
        "arsenic",
        "Arsenic",
        "mg/L",
        Kind.HEALTH,
        "laboratory: arsenic, with species",
        decimals=4,
        **_health("never_boil"),
    ),
    _a(
        "uranium",
        "Uranium",
        "mg/L",
        Kind.HEALTH,
        "laboratory: uranium",
        decimals=4,
        **_health("never_boil"),
    ),
    _a(
        "barium",
        "Barium",
        "mg/L",
        Kind.HEALTH,
        "laboratory: barium",
        decimals=2,
        **_health("never_boil"),
    ),
    _a(
        "radium",
        "Radium 226 and 228",
        "pCi/L",
        Kind.HEALTH,
        "laboratory: radium 226 and 228",
        decimals=1,
        **_health("never_boil"),
    ),
    _a("silica", "Silica", "mg/L", Kind.EQUIPMENT, "laboratory: silica", decimals=0),
    _a(
        "fluoride", "Fluoride", "mg/L", Kind.HEALTH, "laboratory: fluoride", **_health("never_boil")
    ),
    _a(
        "radon",
        "Radon in water",
        "pCi/L",
        Kind.HEALTH,
        "laboratory: radon in water",
        decimals=0,
        **_health("ventilate"),
    ),
    _a(
        "coliform",
        "Coliform bacteria",
        "per 100 mL",
        Kind.HEALTH,
        "laboratory: coliform",
        decimals=0,
        **_health("boil"),
    ),
    _a(
        "e_coli",
        "E. coli",
        "per 100 mL",
        Kind.HEALTH,
        "laboratory: E. coli",
        decimals=0,
        **_health("boil"),
    ),
    _a(
        "uvt",
        "UV transmittance",
        "%",
        Kind.EQUIPMENT,
        "laboratory: UV transmittance",
        decimals=0,
        laboratory_only=True,
    ),
    _a("pfoa", "PFOA", "mg/L", Kind.HEALTH, "laboratory: PFAS", decimals=7, **_health("pfas")),
    _a("pfos", "PFOS", "mg/L", Kind.HEALTH, "laboratory: PFAS", decimals=7, **_health("pfas")),
    _a("flow", "Flow", "gpm", Kind.CONTEXT, "flow by bucket and stopwatch", decimals=1),
    _a(
        "pressure_static",
        "Static pressure",
        "psi",
        Kind.CONTEXT,
        "pressure gauge, no tap open",
        decimals=0,
    ),
    _a(
        "pressure_running",
        "Running pressure",
        "psi",
        Kind.CONTEXT,
        "pressure gauge, a tap open",
        decimals=0,
    ),
    _a("colour", "Colour", "", Kind.LOOKS_TASTE, "the three cups", decimals=0),
    _a(
        "noticed",
        "Smell, stains and slime",
        "",
        Kind.CONTEXT,
        "eyes and nose at the tap",
        decimals=0,
    ),
)
ANALYTES = MappingProxyType({a.id: a for a in _ALL})

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
    return frozenset(a.id for a in _ALL if a.until_then in what)


#: judged at the drinking tap; everything else is judged at the house's taps
AT_THE_TAP = frozenset({"tds", "sodium", "potassium", "chloride", "sulfate"})


def judged_at(analyte: str) -> Literal["house", "tap"]:
    """Where an analyte is judged: health, TDS and the like at the drinking tap, the rest at the
    house's taps.

    >>> judged_at("arsenic"), judged_at("iron")
    ('tap', 'house')
    """
    return "tap" if analyte in AT_THE_TAP or ANALYTES[analyte].kind is Kind.HEALTH else "house"
