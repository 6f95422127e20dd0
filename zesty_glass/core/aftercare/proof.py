"""Whether a fitted line keeps its promise: each predicted range held against what was measured."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from .. import words
from ..analytes import MICROBES, judged_at
from ..ranges import Range
from ..record import record
from ..rules import Rules
from ..testing.reading import Reading
from ..testing.value import Value
from ..treating.line import LineReport
from ..treating.report import StageReport
from ..treating.stages import TECHNOLOGIES, service_of

Where = Literal["house", "tap"]
Verdict = Literal["as promised", "better", "short", "laboratory only", "not promised"]
#: more than promised is no gain
HIGHEST_PH = Rules().at("ph.high")


@record
class Promise:
    """What a line is expected to leave of one analyte [canonical unit], and where it is measured;
    no range: it was not predicted. ``kind`` and ``item`` are the technology and the item that
    change it most.
    """

    analyte: str
    where: Where
    predicted: Range | None
    before: Range | None
    said: str
    kind: str = ""
    item: str = ""


@record
class Proof:
    """A reading behind the fitted line: ``phase`` is after the flush, or days later."""

    where: Where
    phase: Literal["flushed", "later"]
    reading: Reading


@record
class Cause:
    """A likely cause of a short result, and what to try first."""

    id: str
    cause: str
    first: str


@record
class Proved:
    """One promise with what was measured of it last."""

    promise: Promise
    measured: Range | None
    said: str
    verdict: Verdict
    causes: tuple[Cause, ...]


#: likely causes in their order, with the technologies that can have them; none named: any
CAUSES: tuple[Cause, ...] = (
    Cause(
        id="not_flushed",
        cause="Not flushed long enough.",
        first="Flush its gallons again, then measure.",
    ),
    Cause(
        id="bypass",
        cause="A bypass is open.",
        first="Close it, run two minutes, measure.",
    ),
    Cause(
        id="setting",
        cause="A valve is set wrong.",
        first="Hold its dial against the settings of this job.",
    ),
    Cause(
        id="feed",
        cause="The water that comes in has changed.",
        first="Test the raw water again, the same day.",
    ),
    Cause(
        id="channelled",
        cause="The bed is channelled.",
        first="Backwash it by hand, then measure.",
    ),
    Cause(
        id="seal",
        cause="The membrane’s seal leaks.",
        first="Open the housing, grease and seat the seal.",
    ),
    Cause(
        id="exhausted",
        cause="The media is used up.",
        first="Change it, and say after how many gallons.",
    ),
)


#: causes that not every line may have
_OF_SOME = frozenset(c for t in TECHNOLOGIES.values() for c in t.service.causes)


def causes_of(kinds: frozenset[str]) -> tuple[Cause, ...]:
    """Likely causes for a line of these technologies, in their order."""
    named = {c for kind in kinds for c in service_of(kind).causes}
    return tuple(c for c in CAUSES if c.id in named or c.id not in _OF_SOME)


def promises(line: LineReport, units: str) -> tuple[Promise, ...]:
    """What a line is expected to leave of everything that was found in the raw water."""
    out = []
    for name, before in line.source.quantities.items():
        where = judged_at(name)
        q = (line.tap if where == "tap" else line.house).quantities.get(name)
        if q is None or name in ("temperature", "uvt") or not _changed(name, where, line):
            continue
        stage = _stage_of(name, where, line)
        out.append(
            Promise(
                analyte=name,
                where=where,
                predicted=None if _open(name, where, line) else q.range,
                before=before.range,
                said=_said(name, where, line, units),
                kind=stage.kind,
                item=stage.name,
            )
        )
    return tuple(out)


NOT_ESTABLISHED = "not proven: the same test after it shows"


def _open(name: str, where: Where, line: LineReport) -> bool:
    """Whether what would take an analyte out stands idle, or its own tests are open, so that it
    stays as it was: nothing is promised of it, and it is tested all the same.
    """
    stages = [s for s in line.stages if where == "tap" or s.scope == "house"]
    before = line.source.quantities[name]
    q = (line.tap if where == "tap" else line.house).quantities[name]
    held = q.pending or any(name in s.held_back for s in stages)
    return held and (q.range, q.words) == (before.range, before.words)


def _said(name: str, where: Where, line: LineReport, units: str) -> str:
    """What is promised of an analyte, in words."""
    if _open(name, where, line):
        return NOT_ESTABLISHED
    q = (line.tap if where == "tap" else line.house).quantities[name]
    said = words.value(name, q.range, q.below, units, q.words)
    return f"{said}; {q.note}" if q.note and q.range is not None else said


def _stage_of(name: str, where: Where, line: LineReport) -> StageReport:
    """The stage that changes an analyte most on its way to where it is judged."""
    stages = [s for s in line.stages if where == "tap" or s.scope == "house"]
    made_for = [s for s in stages if name in MICROBES and _treats(s, name)]
    if made_for:
        return made_for[-1]

    def best(s: StageReport) -> float | None:
        return s.outlet.best(name)

    def moved(pair: tuple[int, StageReport]) -> float:
        n, s = pair
        before = line.source.best(name) if n == 0 else best(stages[n - 1])
        after = best(s)
        return abs((before or 0.0) - (after or 0.0))

    return max(enumerate(stages), key=moved)[1]


def _changed(name: str, where: Where, line: LineReport) -> bool:
    """Whether a line does something to an analyte where it is judged, by a claim or its nature."""
    was = line.source.quantities[name]
    if was.below is not None:
        return False  # there was nothing to be found of it
    stages = [s for s in line.stages if where == "tap" or s.scope == "house"]
    by_nature = any(_treats(s, name) for s in stages)
    now = (line.tap if where == "tap" else line.house).quantities.get(name)
    return by_nature or (now is not None and now.range != was.range)


def _treats(stage: StageReport, name: str) -> bool:
    """Whether a stage changes an analyte by its nature."""
    return stage.kind in TECHNOLOGIES and name in TECHNOLOGIES[stage.kind].changes


def verdict(analyte: str, predicted: Range | None, v: Value) -> Verdict:
    """How a measured value stands against what was promised: ranges that meet are as promised.

    Less than promised is better of everything but pH, where less is short, and more than 8.5 too.
    """
    if analyte in MICROBES:
        # only a laboratory's result after the disinfection closes these
        if not v.laboratory or v.microbe is None:
            return "laboratory only"
        return "short" if v.microbe else "as promised"
    if predicted is None or v.range is None:
        return "not promised"
    low, high = v.range.low, v.range.high
    above = predicted.high is not None and low > predicted.high
    below = high is not None and high < predicted.low
    if not above and not below:
        return "as promised"
    if analyte == "ph":
        return "better" if above and low <= HIGHEST_PH else "short"
    return "short" if above else "better"


def proved(
    promises_: tuple[Promise, ...],
    measured: tuple[tuple[Proof, Value], ...],
    kinds: Mapping[Where, frozenset[str]],
    units: str,
) -> tuple[Proved, ...]:
    """Every promise with the last reading that was made of it where it is judged; those without a
    reading are left out. ``kinds``: the technologies that the water of each place has come through.
    """
    out = []
    for p in promises_:
        made = [
            (x, v)
            for x, v in measured
            if x.reading.analyte == p.analyte and x.where == p.where and x.reading.struck_at is None
        ]
        if not made:
            continue
        _, v = max(made, key=lambda m: m[0].reading.made_at)
        how = verdict(p.analyte, p.predicted, v)
        out.append(
            Proved(
                promise=p,
                measured=v.range,
                said=words.value(p.analyte, v.range, v.below, units, v.words),
                verdict=how,
                causes=causes_of(kinds[p.where]) if how == "short" else (),
            )
        )
    return tuple(out)


def first_proved(
    promises_: tuple[Promise, ...],
    measured: tuple[tuple[Proof, Value], ...],
    kinds: Mapping[Where, frozenset[str]],
    units: str,
) -> tuple[Proved, ...]:
    """The same, with the first reading that was made of each promise: what was short and was mended
    was short all the same.
    """
    first: dict[tuple[str, Where], tuple[Proof, Value]] = {}
    for x, v in sorted(measured, key=lambda m: m[0].reading.made_at):
        if x.reading.struck_at is None:
            first.setdefault((x.reading.analyte, x.where), (x, v))
    return proved(promises_, tuple(first.values()), kinds, units)


def short_by(p: Proved) -> float | None:
    """By how much a short result misses what was promised, as a share of the water before [0 to 1
    and more]; None where it is not short, or nothing was before.

    Source: by definition.
    """
    promised, before = p.promise.predicted, p.promise.before
    if p.verdict != "short" or promised is None or p.measured is None or before is None:
        return None
    return None if before.best <= 0 else abs(p.measured.best - promised.best) / before.best


def open_promises(promises_: tuple[Promise, ...], shown: tuple[Proved, ...]) -> tuple[Promise, ...]:
    """Promises that no reading has closed yet: not measured, or by a kit where only a laboratory
    counts.
    """
    closed = {(x.promise.analyte, x.promise.where) for x in shown if x.verdict != "laboratory only"}
    return tuple(p for p in promises_ if (p.analyte, p.where) not in closed)
