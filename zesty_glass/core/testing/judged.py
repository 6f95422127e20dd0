"""A value held against the limits and bands of its analyte: what is said, how much it weighs."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from .. import words
from ..analytes import ANALYTES, Kind
from ..limits import Limit
from ..ranges import Range, Verdict
from ..rules import Rules
from .finding import Finding, Weight
from .value import Value


def bands_of(rules: Rules, name: str) -> bool:
    """Whether a band set is in force for an analyte."""
    return rules.band_set(name) is not None


def _verdict(limit: Limit, r: Range) -> Verdict:
    return r.at_most(limit.value) if limit.op == "at_most" else r.at_least(limit.value)


def _held(limit: Limit, r: Range) -> Verdict:
    """A value against a limit of what kits measure; right on one of health it may be over."""
    verdict = _verdict(limit, r)
    right_at = limit.about in _OF_HEALTH and _at(limit, r)
    return Verdict.UNCERTAIN if verdict is Verdict.MET and right_at else verdict


def limit_words(name: str, value: float) -> str:
    """A limit with its unit, with as many digits as it needs.

    >>> limit_words("manganese", 0.08), limit_words("tds", 500.0)
    ('0.08 mg/L', '500 mg/L')
    """
    factor, unit, _ = words.shown_in(name, "us" if name != "hardness" else "metric")
    shown = value * factor
    small = 1 if shown >= 2 else 2
    digits = 0 if shown >= 20 else small
    return words.number(shown, digits) + ("" if unit in ("pH", "") else f" {unit}")


def _titled(name: str, shown: str) -> str:
    return shown if name == "ph" else f"{ANALYTES[name].name} {shown}"


def _band(rules: Rules, name: str, r: Range) -> tuple[str, str, int | None]:
    bands = rules.band_set(name)
    if bands is None:
        return "", "", None
    hit = bands.of(r.low, r.high)
    return " or ".join(b.name for b in hit), bands.source, bands.year


def _health(name: str, value: Value, rules: Rules, units: str) -> Finding:
    """A finding on a health analyte: only a certified laboratory's result is judged, and only where
    a limit is set.
    """
    limits = [
        x
        for x in rules.limits
        if x.analyte == name and x.governs and x.about in ("health", "infants")
    ]
    worst, verdict = _worst(name, value, limits, rules)
    if not value.laboratory:
        return _not_certified(name, value, units, None, "Only a certified laboratory may.")
    if not value.certified:
        said = "Whether the laboratory is certified for it is not known."
        over = worst if verdict is Verdict.NOT_MET or value.words == "present" else None
        return _not_certified(name, value, units, over, said)
    if not limits and value.words != "present":
        return _of(name, value, units, "no_limit", Weight.NOT_JUDGED, _no_limit(name, value, units))
    if verdict is Verdict.MET:
        at = [x for x in limits if _at(x, value.range)]
        if at and value.below is None:
            return _at_limit(name, value, units, min(at, key=lambda x: x.value))
        first = limits[0] if limits else None
        text = f"{ANALYTES[name].name}: {_shown(name, value, units)} reported by the laboratory."
        return _of(name, value, units, "reported", Weight.FINE, text, first)
    if value.below is not None and worst is not None:
        text = (
            f"{ANALYTES[name].name} {_shown(name, value, units)}: the method is too coarse for"
            f" {limit_words(name, worst.value)}, {worst.name} ({worst.place}). Not known to be"
            " under it."
        )
        ask = f"ask the laboratory for a finer method: {ANALYTES[name].test}"
        return _of(name, value, units, "too_coarse", Weight.NOTICE, text, worst, ask)
    return _over(name, value, units, worst)


def _at(limit: Limit, r: Range | None) -> bool:
    """Whether a value of no known range stands right on an upper limit above zero: it meets it,
    with nothing to spare, and a second sample may not.
    """
    return (
        r is not None
        and limit.op == "at_most"
        and limit.value > 0
        and r.high is not None
        and math.isclose(r.best, limit.value, rel_tol=1e-6)
        and math.isclose(r.high, limit.value, rel_tol=1e-6)
    )


def _at_limit(name: str, value: Value, units: str, limit: Limit) -> Finding:
    """A certified result right on its limit: met, and measured again before anything is sold."""
    text = (
        f"{ANALYTES[name].name} {_shown(name, value, units)} is right at"
        f" {limit_words(name, limit.value)}, {limit.name} ({limit.place}). It complies, with"
        " nothing to spare."
    )
    found = _of(name, value, units, "at_limit", Weight.NOTICE, text, limit, "take a second sample")
    return replace(found, sure=False, settled=False, at_limit=True)


def _worst(
    name: str, value: Value, limits: list[Limit], rules: Rules
) -> tuple[Limit | None, Verdict]:
    """The limit that a value fails, or may fail, and how sure that is.

    A goal of zero is failed by any detection; what was not detected is held against the strictest
    number that any body gives for it.
    """
    if value.words:
        return (limits[0] if limits else None), (
            Verdict.NOT_MET if value.words == "present" else Verdict.MET
        )
    if value.range is None:
        return None, Verdict.UNKNOWN
    if value.below is not None:
        numbers = [x for x in limits if x.value > 0] or [
            x for x in rules.limits if x.analyte == name and x.value > 0
        ]
        strictest = min(numbers, key=lambda x: x.value, default=None)
        if strictest is None or value.below <= strictest.value:
            return strictest, Verdict.MET
        return strictest, Verdict.UNCERTAIN
    failed = [(x, v) for x in limits if (v := _verdict(x, value.range)) is not Verdict.MET]
    if not failed:
        return None, Verdict.MET
    return min(failed, key=lambda p: (p[1] is not Verdict.NOT_MET, p[0].value))


def _shown(name: str, value: Value, units: str) -> str:
    return words.value(name, value.range, value.below, units, value.words)


def _of(
    name: str,
    value: Value,
    units: str,
    id: str,
    weight: Weight,
    sentence: str,
    limit: Limit | None = None,
    next: str = "",
) -> Finding:
    """A finding on a health analyte with what it was judged by."""
    return Finding(
        id=f"{name}.{id}",
        analyte=name,
        kind=Kind.HEALTH,
        weight=weight,
        shown=_shown(name, value, units),
        span=words.span(name, value.range, units),
        sentence=sentence,
        limit=None if limit is None else limit.value,
        source="" if limit is None else limit.source,
        year=None if limit is None else limit.year,
        next=next,
    )


def _no_limit(name: str, value: Value, units: str) -> str:
    return (
        f"{ANALYTES[name].name} {_shown(name, value, units)}: not judged, no limit is set for it"
        " here. Ask the laboratory and the local health authority."
    )


def _not_certified(
    name: str, value: Value, units: str, over: Limit | None, because: str
) -> Finding:
    """A result that nobody certified vouches for: not judged, and never silent where it would be
    over.
    """
    a = ANALYTES[name]
    text = f"{a.name} {_shown(name, value, units)}: not judged here. {because}"
    if over is None and value.words != "present":
        weight = Weight.NOTICE if not value.laboratory else Weight.NOT_JUDGED
        return _of(name, value, units, "not_judged", weight, text, None, a.test)
    if over is not None and over.value > 0 and not value.words:
        text += f" If it is right it is over {limit_words(name, over.value)}, {over.name}."
    text += " Have it confirmed at once; until then act as if it were."
    return _of(name, value, units, "to_confirm", Weight.HEALTH, text, over, a.test)


def _over(name: str, value: Value, units: str, worst: Limit | None) -> Finding:
    a, shown = ANALYTES[name], _shown(name, value, units)
    if a.unit == "per 100 mL" or worst is None:
        sentence = (
            f"{a.name} {shown}: do not drink it untreated. Follow the local health authority’s"
            " advice."
        )
    else:
        against = (
            "any detection counts"
            if worst.value == 0
            else f"against {limit_words(name, worst.value)}, {worst.name} ({worst.place})"
        )
        sentence = f"{a.name} {shown}, {against}. The local health authority judges it."
    ask = "the laboratory and the local health authority"
    return _of(name, value, units, "over", Weight.HEALTH, sentence, worst, ask)


#: bands of hardness that ask for nothing, and that are worth knowing but ask for nothing while
#: nobody complains
_SOFT = frozenset({"soft", "slightly hard", "soft or slightly hard"})


_MODERATE = frozenset({"moderately hard", "slightly hard or moderately hard"})


#: what a limit is about when it is one of health
_OF_HEALTH = ("health", "infants")


#: combined chlorine from which chloramine is worth a word [mg/L]; ours
_CHLORAMINE_SEEN = 0.2


def _hardness_weight(band: str) -> Weight:
    if band in _SOFT:
        return Weight.FINE
    return Weight.NOTICE if band in _MODERATE else Weight.ACT


@dataclass(frozen=True)
class _Said:
    """What is said of a value of looks, taste or equipment: its sentence and how much it weighs."""

    text: str
    weight: Weight = Weight.FINE
    limit: float | None = None
    #: source and year of the limit, when one was held against the value
    of: tuple[str, int | None] | None = None
    certain: bool = True
    #: over a limit of health, surely or possibly
    health: bool = False
    #: whether no limit of health has the value's range astride it
    settled: bool = True


def _said_of_tds(shown: str, band: str, r: Range, limits: list[Limit]) -> _Said:
    return _Said(
        (
            f"{shown} of dissolved solids is {band} by taste. That says nothing about hardness,"
            " and nothing about health."
        ),
        Weight.NOTICE if any(x.value <= r.best for x in limits) else Weight.FINE,
    )


#: what a limit of health asks for, of a figure that no certified laboratory vouches for, and of
#: one that does
_CONFIRM = " A health question: confirm by a certified laboratory."
_AUTHORITY = " A health question: the local health authority judges it."
_UTILITY = " Repeat on site, then call the utility."


def _asks_of_health(name: str, value: Value) -> str:
    if name == "chlorine_total":
        return _UTILITY
    return _AUTHORITY if value.certified and value.laboratory else _CONFIRM


def _against(limit: Limit, name: str) -> str:
    place = f"{limit.place} {limit.year}"
    return f"{limit_words(name, limit.value)}, {limit.name} ({place})"


def _side(limit: Limit, verdict: Verdict, r: Range) -> str:
    """On which side of a limit a value is, in words: at it, possibly beyond, or beyond."""
    if _at(limit, r):
        return "right at"
    side = "above" if limit.op == "at_most" else "below"
    return side if verdict is Verdict.NOT_MET else f"possibly {side}"


def _said_of_failed(
    name: str, titled: str, failed: Sequence[tuple[Limit, Verdict]], value: Value, r: Range
) -> _Said:
    """The limit that is surely not met stands before one that may be, health before the rest; a
    limit of health that may be passed is said behind one of looks that surely is.
    """
    chosen, verdict = max(failed, key=lambda p: (p[1] is Verdict.NOT_MET, p[0].about in _OF_HEALTH))
    health = [p for p in failed if p[0].about in _OF_HEALTH]
    certain = verdict is Verdict.NOT_MET
    text = f"{titled}: {_side(chosen, verdict, r)} {_against(chosen, name)}"
    if health and chosen.about not in _OF_HEALTH:
        strictest, how = min(health, key=lambda p: p[0].value)
        text += f"; {_side(strictest, how, r)} {_against(strictest, name)}"
    text += "." + (_asks_of_health(name, value) if health else "")
    # a diet is for its physician
    weight = Weight.ACT if certain and chosen.about != "diet" else Weight.NOTICE
    of = (chosen.source, chosen.year)
    settled = not health or any(v is Verdict.NOT_MET for _, v in health)
    return _Said(text, weight, chosen.value, of, certain, bool(health), settled)


def _said_of_met(name: str, titled: str, limits: list[Limit]) -> _Said:
    first = limits[0]
    within = (
        f"between {first.value:g} and {limits[1].value:g}, {first.name}."
        if name == "ph" and len(limits) > 1
        else f"within {limit_words(name, first.value)}, {first.name}."
    )
    return _Said(f"{titled}: {within}", limit=first.value, of=(first.source, first.year))


def _said_of_chloramine(shown: str, value: Value, best: float) -> _Said:
    if any(f.id == "chloramine.not_shown" for f in value.flags):
        return _Said("Chloramine not shown: free and total overlap.")
    weight = Weight.NOTICE if best >= _CHLORAMINE_SEEN else Weight.FINE
    return _Said(f"Chloramine {shown} (total less free).", weight)


def _said(name: str, value: Value, r: Range, rules: Rules, units: str, band: str) -> _Said:
    """What is said of a value that is of looks, taste or equipment."""
    shown = words.value(name, r, value.below, units)
    titled = _titled(name, shown)
    limits = [x for x in rules.limits if x.analyte == name and x.governs]
    failed = [(x, v) for x in limits if (v := _held(x, r)) is not Verdict.MET]
    if name == "tds":
        return _said_of_tds(shown, band, r, limits)
    if name == "hardness":
        return _Said(f"Hardness {shown}: {band}.", _hardness_weight(band))
    if failed:
        return _said_of_failed(name, titled, failed, value, r)
    if limits:
        return _said_of_met(name, titled, limits)
    if name == "chlorine_combined":
        return _said_of_chloramine(shown, value, r.best)
    about = ANALYTES[name]
    if about.explains or about.decides or bands_of(rules, name):
        return _Said(f"{titled}.")
    return _Said(f"{titled}: not judged, no limit is set for it here.", Weight.NOT_JUDGED)


def _plain(name: str, value: Value, rules: Rules, units: str) -> Finding | None:
    """A finding on looks, taste or equipment; over a limit of health it is one of health."""
    a = ANALYTES[name]
    if value.range is None or a.kind is Kind.CONTEXT or name == "colour":
        return None
    r = value.range
    band, of_band, year_of_band = _band(rules, name, r)
    said = _said(name, value, r, rules, units, band)
    source, year = said.of or (of_band, year_of_band)
    return Finding(
        id=f"{name}.{said.weight.value}",
        analyte=name,
        kind=Kind.HEALTH if said.health else a.kind,
        weight=said.weight,
        sentence=said.text,
        shown=words.value(name, r, value.below, units),
        span=words.span(name, r, units),
        band=band,
        limit=said.limit,
        source=source,
        year=year,
        sure=said.certain,
        settled=said.settled,
        next="" if said.certain and said.settled else f"measure it finer: {a.test}",
    )


def judge(name: str, value: Value, rules: Rules, units: str) -> Finding | None:
    """The finding on one value; None where there is nothing to say of it alone.

    Args:
        units: ``us`` or ``metric``, in which figures are said.
    """
    if ANALYTES[name].kind is Kind.HEALTH:
        return _health(name, value, rules, units)
    return _plain(name, value, rules, units)
