"""Readings held against each other: each check has an identifier, a sentence and a remedy."""

from __future__ import annotations

from itertools import combinations

from ..analytes import ANALYTES
from ..home import Home
from ..record import record
from ..units import MG_L_PER_GPG
from .by_meter import tenfold
from .colour import find
from .observations import CupsSeen, LaboratoryResult, MeterDisplays, Noticed
from .pairs import factor_of
from .reading import Reading, work_out
from .removal import Removal, removal
from .value import Value
from .water import Sample, Water, water_of

HARDNESS_SHARE = (
    0.65  # hardness_low [mg/L] above 0.65 × conductivity_high [µS/cm]: one of the two is wrong
)


MOST_HOUSE_GPM = (
    60.0  # [gpm] more than a 1 ½ in service line gives at ordinary pressure: trade practice (2024)
)
# one reading this many times the other, with ranges apart: trade practice, not a standard (2024)
FAR = 1.5
#: a laboratory's result is held against nothing on site here; what is seen or noticed is no figure
_APART = (LaboratoryResult, CupsSeen, Noticed)


@record
class CrossCheck:
    """A contradiction, or a doubt, between readings."""

    id: str
    sample: str
    sentence: str
    remedy: str


#: id -> (sentence, remedy); the table in docs/rules.md is generated from it
CHECKS: dict[str, tuple[str, str]] = {
    "hardness_above_conductivity": (
        "Hardness and TDS do not fit each other: so much hardness would conduct more.",
        "Repeat both. (A comparison, not a conversion.)",
    ),
    "soft_with_tds": (
        "Almost no hardness, with much dissolved solids: was this drawn after a softener?",
        "Draw ahead of all treatment and repeat.",
    ),
    "free_above_total": (
        "Free chlorine reads above total: an error in the test.",
        "Repeat both, free within one minute, total after three.",
    ),
    "city_no_chlorine": (
        "A town main without chlorine: carbon ahead of the tap, or an old sample?",
        "Draw fresh and flushed, test within fifteen minutes.",
    ),
    "well_chlorine": (
        "Chlorine in a private well: a feeder, a recent disinfection, or an interference?",
        "Ask; repeat with a blank.",
    ),
    "labels_swapped": (
        "The treated glass reads higher than the raw one: are the labels swapped?",
        "Check which glass is which and repeat.",
    ),
    "not_flushed": (
        "The filter was just changed and not flushed enough: its reading is not valid yet.",
        "Flush as its manual says, then read again.",
    ),
    "past_life": (
        "The filter is overdue for replacement.",
        "Read it as what an old filter does, not a new one.",
    ),
    "no_difference": (
        "TDS: no difference shown, for the two ranges overlap.",
        "Carbon is not meant to lower TDS: chlorine before and after shows what it does. Of what is"
        " meant to, a finer meter or more repeats may tell.",
    ),
    "factor_mismatch": (
        "Two meters with different factors must not be compared.",
        "Use one meter for both glasses.",
    ),
    "tenfold": ("Repeats differ about tenfold.", "Look for a x10 mark on the display."),
    "counts_differ": (
        "Two tests of this glass do not agree.",
        "Test once more, and strike the one that went wrong. Until then the later one counts.",
    ),
    "iron_no_colour": (
        "The kit finds iron, the cup stays clear: bound iron, or it stood too short.",
        "Hold the cup 24 hours, send a sample.",
    ),
    "tannin_iron": (
        "Iron above 0.3 mg/L may interfere with the tannin kit.",
        "The three cups decide; confirm by laboratory.",
    ),
    "flow_above_pump": (
        (
            "The bucket shows more than the pump is said to give: was the pressure tank emptying,"
            " and was the pump running?"
        ),
        "Let the tank run down until the pump has started, then time three buckets.",
    ),
    "flow_too_high": ("More water than a house’s pipe gives.", "Time a whole bucket again."),
    "far_from_before": (
        "Far from this home’s earlier reading.",
        "Season, a change of source, or a mistake? Repeat.",
    ),
}


def _hit(id: str, sample: str, of: tuple[str, ...] = ()) -> CrossCheck:
    """A check that strikes; ``of``: the analytes it names."""
    sentence, remedy = CHECKS[id]
    named = f"{sentence} ({', '.join(ANALYTES[name].name for name in of)})" if of else sentence
    return CrossCheck(id=id, sample=sample, sentence=named, remedy=remedy)


def _hardness_above_conductivity(sample: Sample, water: Water) -> bool:
    tds, hard, factor = water.range("tds"), water.range("hardness"), factor_of(sample)
    return bool(
        tds is not None
        and hard is not None
        and factor
        and tds.high is not None
        and hard.low > HARDNESS_SHARE * tds.high / factor
    )


def _soft_with_tds(sample: Sample, water: Water) -> bool:
    tds, hard = water.range("tds"), water.range("hardness")
    return bool(
        hard is not None
        and tds is not None
        and hard.high is not None
        and hard.high <= MG_L_PER_GPG
        and tds.low > 150
        and not sample.treated
        and sample.kind != "bottled"
    )


def _iron_no_colour(water: Water) -> bool:
    iron, ph = water.range("iron"), water.range("ph")
    return bool(
        water.cups is not None
        and iron is not None
        and iron.low > 0.3
        and find(water.cups, None if ph is None else ph.low).id in ("clear", "not_yet")
    )


def _tannin_iron(water: Water) -> bool:
    iron, tannin = water.range("iron"), water.values.get("tannin")
    return bool(
        tannin is not None
        and tannin.range is not None
        and tannin.below is None
        and tannin.range.low > 0
        and iron is not None
        and iron.best > 0.3
    )


def _tenfold(sample: Sample) -> int:
    """How many readings of a meter look as if a x10 mark had been missed."""
    return sum(
        r.struck_at is None
        and isinstance(r.observation, MeterDisplays)
        and tenfold(r.observation.displays)
        for r in sample.readings
    )


def counts_differ(sample: Sample) -> tuple[str, ...]:
    """Analytes that were tested twice on site in one glass, whoever did it, with ranges that do not
    touch. Chlorine fades in the glass, and what runs or warms changes by itself.
    """
    tests: dict[str, list[Reading]] = {}
    for r in sample.readings:
        by_itself = ANALYTES[r.analyte].changes_daily or r.analyte.startswith("chlorine")
        if r.struck_at is None and not by_itself and not isinstance(r.observation, _APART):
            tests.setdefault(r.analyte, []).append(r)
    return tuple(name for name, of in tests.items() if len(of) > 1 and _differ(of))


def _differ(tests: list[Reading]) -> bool:
    ranges = [found for found in (work_out(r).range for r in tests) if found is not None]
    return any(not a.overlaps(b) for a, b in combinations(ranges, 2))


def _by_chlorine(water: Water, home: Home) -> list[str]:
    total = water.values.get("chlorine_total") or water.values.get("chlorine_free")
    if total is None or total.range is None:
        return []
    if home.source.value == "city" and total.range.best < 0.1:
        return ["city_no_chlorine"]
    if home.private and total.below is None and total.range.low > 0:
        return ["well_chlorine"]
    return []


def _by_flow(water: Water, home: Home) -> list[str]:
    flow = water.range("flow")
    if flow is None:
        return []
    if flow.low > MOST_HOUSE_GPM:
        return ["flow_too_high"]
    return ["flow_above_pump"] if home.well and home.pump_gpm and flow.low > home.pump_gpm else []


def _one(sample: Sample, water: Water, home: Home, untreated: bool) -> list[CrossCheck]:
    chloramine = water.chloramine
    ids = [
        *["hardness_above_conductivity"] * _hardness_above_conductivity(sample, water),
        *["soft_with_tds"] * _soft_with_tds(sample, water),
        *["free_above_total"] * bool(chloramine is not None and chloramine.error),
        *(_by_chlorine(water, home) if untreated else []),
        *["iron_no_colour"] * _iron_no_colour(water),
        *["tannin_iron"] * _tannin_iron(water),
        *["tenfold"] * _tenfold(sample),
        *_by_flow(water, home),
        *["not_flushed"] * bool(sample.unflushed),
        *["past_life"] * bool(sample.past_life),
    ]
    differ = counts_differ(sample)
    repeated = [_hit("counts_differ", sample.id, differ)] if differ else []
    return [*(_hit(id, sample.id) for id in ids), *repeated]


SOFTENED_TDS = (
    0.15  # sodium for calcium raises what a meter reads by less than this: practice (2024)
)


def _softened(raw: Water, behind: Water, held: Removal) -> bool:
    """Whether a glass reads higher as softened water does: a little, or with less hardness."""
    tds, was, now = raw.range("tds"), raw.range("hardness"), behind.range("hardness")
    if was is not None and now is not None and now.top < was.low:
        return True
    return tds is not None and (held.rose_by or 0.0) <= SOFTENED_TDS * tds.best


def _pairs(sample: Sample, water: Water, raw: Sample, raw_water: Water) -> list[CrossCheck]:
    if not sample.treated:
        return []
    out = []
    a, b = raw_water.values.get("tds"), water.values.get("tds")
    if a is not None and b is not None:
        fa, fb = factor_of(raw), factor_of(sample)
        if fa and fb and fa != fb:
            out.append(_hit("factor_mismatch", sample.id))
        else:
            held = removal(a, b)
            if held.shown == "rose" and not _softened(raw_water, water, held):
                out.append(_hit("labels_swapped", sample.id))
            if held.shown == "no_difference":
                out.append(_hit("no_difference", sample.id))
    return out


def crosschecks(
    samples: tuple[Sample, ...],
    home: Home,
    earlier: dict[str, Value] | None = None,
    waters: dict[str, Water] | None = None,
) -> tuple[CrossCheck, ...]:
    """All cross-checks over a visit's samples; ``earlier`` holds this home's last raw values, by
    analyte.
    """
    waters = waters or {s.id: water_of(s) for s in samples}
    raw = next((s for s in samples if s.raw), None)
    out: list[CrossCheck] = []
    for s in samples:
        out += _one(
            s,
            waters[s.id],
            home,
            untreated=not s.treated and s.kind in ("tap", "source") and s.draw != "hot",
        )
        if raw is not None and s is not raw:
            out += _pairs(s, waters[s.id], raw, waters[raw.id])
    if raw is not None and earlier:
        values = waters[raw.id].values
        far = tuple(name for name, old in earlier.items() if _far(name, values.get(name), old))
        if far:
            out.append(_hit("far_from_before", raw.id, far))
    return tuple(out)


def _far(name: str, new: Value | None, old: Value) -> bool:
    """Whether two readings of one home are far apart: ranges that do not touch, and half as much
    again (one unit of pH).
    """
    if (
        new is None
        or new.range is None
        or old.range is None
        or new.range.overlaps(old.range)
        or ANALYTES[name].changes_daily
    ):
        return False
    low, high = sorted((new.range.best, old.range.best))
    return high - low > 1 if name == "ph" else high > FAR * max(low, 1e-9)
