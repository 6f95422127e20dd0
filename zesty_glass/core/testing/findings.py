"""What the readings mean: bands and limits with their source, the complaints they explain, and what
stays unknown.
"""

from __future__ import annotations

from dataclasses import replace

from ..analytes import ANALYTES, LOOKED_FOR, Kind
from ..home import SURFACE, Home
from ..record import Words, record
from ..rules import Rules
from ..working import Working
from .breath import breath_working
from .colour import ColourFinding, find
from .complaints import TESTS, Complaint, next_test
from .finding import Finding, Weight
from .judged import judge
from .scale import ScaleTendency, tendency
from .setting import sets
from .tonight import tonight
from .value import Value
from .water import Water


@record
class Unexplained:
    """A complaint that nothing explains yet, with the next test."""

    complaint: Words
    next: str


@record
class Unknown:
    """A thing looked for and not tested."""

    analyte: str
    name: str
    test: str
    why: str


@record
class Meaning:
    """All that the raw water's readings mean.

    ``missing``: of the ``asked`` tests that the source and the complaints ask for, those not done:
    until they are, nobody says that nothing is needed.
    """

    findings: tuple[Finding, ...]
    unexplained: tuple[Unexplained, ...]
    unknown: tuple[Unknown, ...]
    missing: tuple[Unknown, ...]
    asked: int
    scale: ScaleTendency | None
    colour: ColourFinding | None
    tonight: tuple[str, ...]
    sets: tuple[tuple[str, str], ...]
    breath: Working


def _explained(
    finding: Finding, complaints: tuple[Complaint, ...], values: dict[str, Value]
) -> tuple[str, ...]:
    signs = set(ANALYTES[finding.analyte].explains)
    if finding.weight is Weight.FINE and finding.analyte != "tds":
        return ()
    if finding.analyte == "tds":
        signs = {"solids", "taste"} if _tasted_solids(values) else {"solids"}
    if finding.analyte == "sodium" and finding.weight is not Weight.ACT:
        return ()  # what only a diet minds is not tasted
    if finding.analyte == "ph":
        signs = set(_DISSOLVES_COPPER) if _dissolves_copper(finding, values) else set()
    return tuple(c.id for c in complaints if c.sign in signs)


TASTED_MG_L = 900.0  # [mg/L] from which the taste panel of the WHO guidelines (2017) says poor


def _tasted_solids(values: dict[str, Value]) -> bool:
    """Whether so much is dissolved that it is surely tasted itself."""
    tds = values.get("tds")
    return tds is not None and tds.range is not None and tds.range.low >= TASTED_MG_L


_PANEL = frozenset({"sulfate", "chloride", "sodium"})


def _mineral_taste(
    f: Finding, complaints: tuple[Complaint, ...], values: dict[str, Value]
) -> Finding:
    """Dissolved solids that explains a taste says which test tells what it is."""
    tasted = any(c.id in f.explains and c.sign == "taste" for c in complaints)
    if f.analyte != "tds" or not tasted:
        return f
    if values.keys() >= _PANEL:
        text = f"{f.sentence} So much is tasted by itself."
        return replace(f, id="tds.taste", sentence=text, weight=Weight.ACT)
    text = f"{f.sentence} So much is tasted by itself: which minerals, only a laboratory can tell."
    ask = "laboratory: sulfate, chloride, sodium, nitrate, hardness and alkalinity"
    return replace(f, id="tds.taste", sentence=text, next=ask, weight=Weight.ACT)


_DISSOLVES_COPPER = ("blue_green", "metal_taste")


def _dissolves_copper(finding: Finding, values: dict[str, Value]) -> bool:
    """Whether a pH is surely low, and copper was found or not looked for."""
    copper = values.get("copper")
    found = copper is None or copper.range is None or copper.range.best >= 0.3
    return finding.id != "ph.fine" and finding.sure and found


def _likely(f: Finding, values: dict[str, Value]) -> Finding:
    """A low pH that explains a stain before copper was measured says so."""
    if f.analyte != "ph" or not f.explains or "copper" in values:
        return f
    text = (
        f"{f.sentence} It dissolves copper: likely the cause; a first-draw sample would confirm it."
    )
    return replace(f, sentence=text, next=ANALYTES["copper"].test)


#: what the cups found -> the sentence that answers a colour
_COLOURED = frozenset(
    {"ferrous", "both_tannin", "manganese", "ferric", "iron_tannin", "tannin", "sediment"}
    | {"faint_ferric", "faint_iron_tannin", "faint_tannin"}
)
_COLOUR_SIGNS = frozenset({"tea_colour", "orange_streaks", "haze"})


def _from_cups(colour: ColourFinding | None, complaints: tuple[Complaint, ...]) -> Finding | None:
    """What the three cups say of a color that is complained of; they come before any kit."""
    asked = tuple(c.id for c in complaints if c.sign in _COLOUR_SIGNS)
    if colour is None or colour.id not in _COLOURED or not asked:
        return None
    return Finding(
        id=f"cups.{colour.id}",
        analyte="colour",
        kind=Kind.LOOKS_TASTE,
        weight=Weight.NOTICE,
        sentence=f"The three cups: {colour.sentence}",
        shown="the three cups",
        span="",
        source="the three-cup procedure",
        year=2024,
        explains=asked,
        next=colour.next,
    )


#: what a source asks for before anybody may say that nothing is needed
ASKED_BY_SOURCE: dict[str, tuple[str, ...]] = {
    "town": ("tds", "hardness", "iron", "ph", "chlorine_free"),
    "own": ("tds", "hardness", "iron", "ph", "coliform", "nitrate_n"),
    "surface": ("tds", "hardness", "iron", "ph", "turbidity", "tannin", "coliform", "nitrate_n"),
}
_TESTS = {a.id: a.test for a in ANALYTES.values()}


def asked_for(home: Home, complaints: tuple[Complaint, ...]) -> tuple[str, ...]:
    """Tests that a source and its complaints ask for: analytes, and "cups" for the three cups."""
    own = "own" if home.private else "town"
    kind = "surface" if home.source in SURFACE else own
    wanted = dict.fromkeys(ASKED_BY_SOURCE[kind])
    for c in complaints:
        wanted |= dict.fromkeys(TESTS.get(c.sign, ())[:2])
    if home.care.infant and home.private:
        wanted |= dict.fromkeys(("nitrate_n", "manganese"))
    if home.care.low_sodium and home.private:
        wanted |= dict.fromkeys(("sodium",))
    if (home.care.infant or home.care.pregnancy) and home.lead_line is not False:
        wanted |= dict.fromkeys(("lead",))
    return tuple(wanted)


def _unknown(name: str) -> Unknown:
    if name == "cups":
        return Unknown(analyte="colour", name="The three cups", test="the three cups", why="")
    a = ANALYTES[name]
    return Unknown(analyte=name, name=a.name, test=a.test, why=a.why)


def _anode(water: Water, complaints: tuple[Complaint, ...]) -> Finding | None:
    """Eggs at the hot tap only, and none measured in the cold: the water heater is the cause."""
    heater = next((c for c in complaints if c.sign == "egg_smell_hot"), None)
    sulfide = water.range("hydrogen_sulfide")
    if heater is None or (sulfide is not None and sulfide.low > 0):
        return None
    return Finding(
        id="heater.anode",
        analyte="hydrogen_sulfide",
        kind=Kind.EQUIPMENT,
        weight=Weight.NOTICE,
        shown="hot tap only",
        span="",
        sentence=(
            "Only the hot tap smells. Have the water heater’s anode checked before you buy"
            " anything for it."
        ),
        explains=(heater.id,),
        source="trade practice",
        year=2024,
        next="compare hot and cold side by side",
    )


def meaning(
    water: Water,
    home: Home,
    complaints: tuple[Complaint, ...],
    rules: Rules,
    units: str = "us",
    heater_c: float = 60.0,
    treated: bool = False,
    iron_factor: float = 4.0,
) -> Meaning:
    """Everything the readings of a water mean for this home and these complaints."""
    found: list[Finding] = []
    for name, value in water.values.items():
        f = judge(name, value, rules, units)
        if f is not None:
            why = _explained(f, complaints, water.values)
            if why:
                f = _likely(replace(f, explains=why), water.values)
                f = _mineral_taste(f, complaints, water.values)
            found.append(f)
    r = water.range
    scale = tendency(
        r("ph"), r("tds"), r("temperature"), r("calcium"), r("alkalinity"), r("hardness"), heater_c
    )
    ph = r("ph")
    colour = (
        None if water.cups is None else find(water.cups, None if ph is None else ph.low, home.well)
    )
    cups = _from_cups(colour, complaints)
    if cups is not None:
        found.append(cups)
    anode = _anode(water, complaints)
    if anode is not None:
        found.append(anode)
    explained = {c for f in found for c in f.explains}
    done = frozenset(water.values) | ({"cups"} if water.cups is not None else set())
    # a worry that has no sign of its own is answered by what was found of health
    answered = any(f.weight is Weight.HEALTH for f in found)
    unexplained = tuple(
        Unexplained(complaint=c.id, next=next_test(c.sign, done, _TESTS))
        for c in complaints
        if c.id not in explained and not (answered and c.sign in ("other", "flood", "bloom"))
    )
    wanted = [n for n in (*LOOKED_FOR, "chlorine_total") if n not in water.values]
    unknown = tuple(
        _unknown(n) for n in wanted if home.private or n not in ("coliform", "nitrate_n")
    )
    asked = asked_for(home, complaints)
    order = {w: n for n, w in enumerate(reversed(Weight))}
    ranked = tuple(
        sorted(
            found, key=lambda f: (f.weight is not Weight.HEALTH, not f.explains, order[f.weight])
        )
    )
    return Meaning(
        findings=ranked,
        unexplained=unexplained,
        unknown=unknown,
        missing=tuple(_unknown(n) for n in asked if n not in done),
        asked=len(asked),
        scale=scale,
        colour=colour,
        tonight=tonight(
            frozenset(f.analyte for f in ranked if f.weight is Weight.HEALTH), home, water, rules
        ),
        sets=sets(water, scale, iron_factor),
        breath=breath_working(None if (alk := r("alkalinity")) is None else alk.best),
    )
