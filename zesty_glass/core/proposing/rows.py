"""What each option does to what was found in this water, in values with ranges and evidence."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from .. import words
from ..analytes import ANALYTES, MICROBES, Kind, judged_at
from ..evidence import LEVEL_WORDS, Level
from ..home import Wish
from ..ranges import Range, Verdict
from ..record import Words, record
from ..rules import Rules
from ..testing.complaints import Complaint
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning
from ..treating.line import LineReport
from ..treating.stages import does
from ..treating.stream import INACTIVATED, Quantity
from ..treating.walking import FROM_PLUMBING
from ..units import MG_L_PER_GPG

#: where no limit governs: what the customer would want, with its reason [canonical unit]
WANTED = {
    "hardness": (3.5 * MG_L_PER_GPG, "under moderately hard"),
    "chlorine_combined": (0.5, "taste threshold"),
}


@record
class Cell:
    """One analyte under one option.

    ``change``: "today", "stays", "less", "more", "unknown", "no_claim", "not_tested" or
    "inactivated". ``meets``: against the row's target. ``at_least``: the removal is only a lower
    bound.
    """

    option: str
    where: Literal["house", "tap"]
    shown: str
    span: str
    range: Range | None
    change: str
    removal: float | None
    removal_low: float | None
    removal_high: float | None
    meets: Verdict
    evidence: str
    level: Level | None
    established: bool
    note: str = ""


@record
class Row:
    """One thing found (or looked for and not tested), today and under every option."""

    analyte: str
    name: str
    complaints: tuple[Words, ...]
    weight: Weight | None
    unit: str
    factor: float
    target: float | None
    target_words: str
    op: str
    cells: tuple[Cell, ...]


def target_of(analyte: str, rules: Rules, diet: bool = False) -> tuple[float | None, str, str]:
    """What is wanted of an analyte: limit [canonical unit], why, and "at_most" or "at_least";
    ``diet``: somebody of the house keeps one that minds it.
    """
    if analyte in WANTED:
        return WANTED[analyte][0], WANTED[analyte][1], "at_most"
    every = [x for x in rules.limits if x.analyte == analyte and x.governs]
    # what only a diet asks is no target of a home without it
    limits = [x for x in every if diet or x.about != "diet"] or every
    if not limits:
        return None, "", "at_most"
    if analyte == "ph":
        least = [x for x in limits if x.op == "at_least"] or limits
        low = max(least, key=lambda x: x.value)
        return low.value, low.name, low.op
    chosen = min(limits, key=lambda x: x.value)
    return chosen.value, f"{chosen.name} ({chosen.place} {chosen.year})", chosen.op


TODAY = "today"  # the id of the option that leaves things as they are
AS_WISHED = "as wished, no limit"


def wanted_of(
    analyte: str, rules: Rules, wish: Wish | None, diet: bool = False
) -> tuple[float | None, str, Literal["at_most", "at_least"] | str]:
    """What is wanted of an analyte, by its limit or by a wish that asks for less than it."""
    target, why, op = target_of(analyte, rules, diet)
    if wish is None or analyte == "ph":
        return target, why, op
    if wish.target is None:
        return None, AS_WISHED, "at_most"
    stricter = target is None or op != "at_most" or wish.target < target
    return (wish.target, AS_WISHED, "at_most") if stricter else (target, why, op)


def _verdict(r: Range | None, target: float | None, op: str) -> Verdict:
    if r is None or target is None:
        return Verdict.UNKNOWN
    return r.at_most(target) if op == "at_most" else r.at_least(target)


def _removal(
    today: Range | None, after: Range | None
) -> tuple[float | None, float | None, float | None]:
    """Predicted removal: best with its low and high, from the two ranges taken end by end (one
    water, one stage).
    """
    if (
        today is None
        or after is None
        or today.best <= 0
        or today.low <= 0
        or today.high is None
        or after.high is None
    ):
        return None, None, None
    ends = sorted((1 - after.low / today.low, 1 - after.high / today.high))
    best = 1 - after.best / today.best
    return best, min(ends[0], best), max(ends[1], best)


def cell(
    option: str, line: LineReport, analyte: str, target: float | None, op: str, units: str
) -> Cell:
    """The cell of an option; ``line`` without stages is today."""
    where = judged_at(analyte)
    before = line.source.get(analyte)
    q = (line.tap if where == "tap" else line.house).get(analyte)
    r = None if q is None else q.range
    change, shown, note, held = _shown_change(line, analyte, option == TODAY, units)
    today = None if before is None else before.range
    best, low, high = _removal(today, r) if change == "less" else (None, None, None)
    level = None if q is None else q.evidence
    untreated = change in ("today", "not_tested")
    return Cell(
        option=option,
        where=where,
        shown=shown,
        span=words.span(analyte, r, units),
        range=r,
        change=change,
        removal=best,
        removal_low=low,
        removal_high=high,
        meets=_meets(analyte, q, target, op),
        evidence="" if held or level is None or untreated else LEVEL_WORDS[level],
        level=None if held else level,
        established=not held and (True if q is None else q.established),
        note=note or _tap_only(line, analyte, where),
    )


def _shown_change(
    line: LineReport, analyte: str, today: bool, units: str
) -> tuple[str, str, str, bool]:
    """How a line changes an analyte, the value as it is shown, what is said of it, and whether
    what would take it out stands idle."""
    where = judged_at(analyte)
    before = line.source.get(analyte)
    q = (line.tap if where == "tap" else line.house).get(analyte)
    change, note = _change(before, q, bool(line.stages), today)
    if q is None:
        shown = "not tested"
    else:
        shown = words.value(analyte, q.range, q.below, units, q.words)
    if change == "unknown":
        shown, note = (q.note if q is not None else "") or "not known", ""
    if change == "stays" and analyte in FROM_PLUMBING and _corrects_ph(line):
        change, shown = "unknown", EXPECTED_TO_FALL
    held = _held_back(line, analyte, where)
    return ("stays", shown, held, True) if held else (change, shown, note, False)


def _meets(analyte: str, q: Quantity | None, target: float | None, op: str) -> Verdict:
    """Whether what is left is what is wanted."""
    if q is not None and q.range is None and q.words:
        return _words_verdict(q)
    r = None if q is None else q.range
    return _established_verdict(analyte, q, _verdict(r, target, op))


EXPECTED_TO_FALL = "expected to fall, not predicted: first draw after some weeks"


def _corrects_ph(line: LineReport) -> bool:
    return any("raises pH" in does(s.kind) for s in line.stages)


def _established_verdict(analyte: str, q: Quantity | None, verdict: Verdict) -> Verdict:
    """Of health nothing counts as met that is not established."""
    weak = q is not None and not q.established and ANALYTES[analyte].kind is Kind.HEALTH
    return Verdict.UNKNOWN if weak and verdict is Verdict.MET else verdict


def _words_verdict(q: Quantity) -> Verdict:
    if q.words == "absent" or (q.words == INACTIVATED and q.established):
        return Verdict.MET
    return Verdict.NOT_MET if q.words == "present" else Verdict.UNKNOWN


#: what is said of a thing that a stage would take out, and does not as it stands
SEE_THE_STOP = "not proven; see what stops it, and the answer to that"
OPEN_FIRST = "not proven; do its open tests first"


def _held_back(line: LineReport, analyte: str, where: str) -> str:
    """Why what a stage of this branch would take out counts as there; empty where none stands
    idle for it."""
    q = (line.tap if where == "tap" else line.house).get(analyte)
    idle = [
        s for s in line.stages if analyte in s.held_back and (where == "tap" or s.scope == "house")
    ]
    if q is not None and q.pending:
        return OPEN_FIRST
    before = line.source.get(analyte)
    if (
        not idle
        or q is None
        or before is None
        or q.range != before.range
        or q.words != before.words
    ):
        return ""
    return SEE_THE_STOP if any(s.status == "stop" for s in idle) else OPEN_FIRST


def _change(
    before: Quantity | None, q: Quantity | None, has_stages: bool, today: bool
) -> tuple[str, str]:
    """How a quantity differs from the raw water's, and what is said of it."""
    if q is None or (before is None and q.range is None and not q.note):
        return "not_tested", ""
    same = before is not None and q.range == before.range and q.words == before.words
    if not has_stages or (today and same and q.evidence is not Level.NO_CLAIM):
        return "today", q.note
    if q.range is None:
        return _change_in_words(before, q)
    if q.words == INACTIVATED:
        return "inactivated", q.note
    if q.evidence is Level.NO_CLAIM:
        return "no_claim", q.note or "no claim for it"
    return _change_in_figures(None if before is None else before.range, q, q.range)


def _change_in_words(before: Quantity | None, q: Quantity) -> tuple[str, str]:
    if q.words == INACTIVATED:
        return "inactivated", q.note
    if before is not None and before.range is None and q.words == before.words:
        return "stays", ""
    return "unknown", q.note


def _change_in_figures(before: Range | None, q: Quantity, now: Range) -> tuple[str, str]:
    if before is None:
        return "more", q.note
    if now == before:
        return "stays", "does not remove" if q.evidence is Level.DOES_NOT_REMOVE else ""
    return ("less" if now.best < before.best else "more"), q.note


def _tap_only(line: LineReport, analyte: str, where: str) -> str:
    """Said when the drinking tap differs from the house's taps."""
    house, tap = line.house.get(analyte), line.tap.get(analyte)
    if house is not None and house.range is not None and tap is not None and tap.range is None:
        return "not known at the drinking tap" if tap.state == "unknown" else ""
    if (
        house is None
        or tap is None
        or house.range == tap.range
        or house.range is None
        or tap.range is None
    ):
        return ""
    if where == "house" and tap.range.best < house.range.best:
        return "less at the drinking tap"
    return (
        "at the drinking tap only"
        if where == "tap" and house.range == line.source.range(analyte)
        else ""
    )


def _asks(f: Finding) -> bool:
    """Whether a finding gets a row: it asks for something, or it is of health and was
    not judged.
    """
    return f.weight is not Weight.FINE and (
        f.weight is not Weight.NOT_JUDGED or f.kind is Kind.HEALTH
    )


def _compared(f: Finding) -> bool:
    """Whether a finding has a row of its own."""
    if f.analyte not in ANALYTES or f.analyte == "colour" or f.id == "heater.anode":
        return False
    return bool(_asks(f) or f.explains or f.analyte == "tds")


def _added(lines: tuple[LineReport, ...], analyte: str) -> bool:
    """Whether a line changes what is drunk in an analyte that nothing asked about."""
    if analyte == "hardness" and all(line.source.get("hardness") is None for line in lines):
        return False
    return any(
        (q := line.tap.get(analyte)) is not None
        and bool(line.stages)
        and q != line.source.get(analyte)
        for line in lines
    )


def _in_order(
    lines: tuple[LineReport, ...], meaning: Meaning, wishes: tuple[Wish, ...]
) -> dict[str, Finding | None]:
    """What has a row, in order: what was found, what is wished less of, what an option adds, and
    what is not tested."""
    out: dict[str, Finding | None] = {}
    for f in meaning.findings:
        if _compared(f):
            out.setdefault(f.analyte, f)
    for w in wishes:
        out.setdefault(w.analyte, None)
    for extra in ("sodium", "potassium", "hardness", "ph"):
        if extra not in out and _added(lines, extra):
            out[extra] = None
    for u in meaning.unknown:
        out.setdefault(u.analyte, None)
    return out


WHOLE_FROM = 50.0  # from here on a target is said whole: 59.91 mg/L is 3.5 gpg, no exact limit


def _target_words(
    analyte: str, target: float | None, op: str, why: str, units: str, wished: bool
) -> str:
    """What is wanted of an analyte, in words and in the home's units."""
    if target is None:
        return "wished: less of it" if wished else ""
    if target <= 0:
        return "wanted: none"
    factor, unit, decimals = words.shown_in(analyte, units)
    side = "at most" if op == "at_most" else "at least"
    at, digits = target * factor, 0 if target * factor >= WHOLE_FROM else max(decimals, 2)
    shown = words.number(at, digits) + ("" if unit == "pH" else f" {unit}")
    return f"wanted {side} {shown}, {why}"


def rows(
    lines: tuple[LineReport, ...],
    meaning: Meaning,
    complaints: tuple[Complaint, ...],
    rules: Rules,
    units: str,
    wishes: tuple[Wish, ...] = (),
    diets: frozenset[str] = frozenset(),
) -> tuple[Row, ...]:
    """Rows of the comparison: complaints' causes first, then what else was found, what is wished
    less of, what an option adds, and what is not tested; ``diets``: analytes that a diet minds.
    """
    by_id = {c.id: c.words for c in complaints}
    wished = {w.analyte: w for w in wishes}

    def row(analyte: str, finding: Finding | None) -> Row:
        target, why, op = wanted_of(analyte, rules, wished.get(analyte), analyte in diets)
        if analyte == "tds" and not _asked_of_tds(finding, wished):
            target, why = None, ""  # it says nothing of the water that anybody wants
        factor, unit, _ = words.shown_in(analyte, units)
        explained = () if finding is None else finding.explains
        return Row(
            analyte=analyte,
            name=ANALYTES[analyte].name,
            complaints=tuple(by_id[c] for c in explained if c in by_id),
            weight=None if finding is None else finding.weight,
            unit=unit,
            factor=factor,
            target=target,
            target_words=_target_words(analyte, target, op, why, units, analyte in wished),
            op=op,
            cells=tuple(cell(line.option, line, analyte, target, op, units) for line in lines),
        )

    return tuple(row(a, f) for a, f in _in_order(lines, meaning, wishes).items())


def _presses(r: Row) -> bool:
    """Whether a row has something wanted that is more than worth knowing."""
    return r.weight is not Weight.NOTICE and r.target is not None


def _asked_of_tds(finding: Finding | None, wished: Mapping[str, Wish]) -> bool:
    """Whether dissolved solids are wanted to be less: tasted, over what is advised, or wished."""
    asks = finding is not None and (finding.weight is not Weight.FINE or bool(finding.explains))
    return asks or "tds" in wished


def met_at_the_tap(line: LineReport, r: Row) -> bool:
    """Whether what stays at the house's taps is answered at the drinking tap that a line is for."""
    at_tap = bool(line.stages) and all(s.scope == "tap" for s in line.stages)
    if not at_tap or ANALYTES[r.analyte].kind is not Kind.LOOKS_TASTE:
        return False
    now, was = line.tap.range(r.analyte), line.source.range(r.analyte)
    return now is not None and now != was and _verdict(now, r.target, r.op) is Verdict.MET


def _risen(line: LineReport, rows_: tuple[Row, ...]) -> list[str]:
    """What an option makes more of than is wanted at the tap where it is judged; of what was not
    tested before, what surely goes over it, as sodium does over a strict diet's guidance.
    """
    cells = ((r, c) for r in rows_ for c in r.cells if c.option == line.option)
    return [
        f"{r.name} rises from {r.cells[0].shown} to {c.shown}"
        if r.cells[0].range is not None
        else f"{r.name} {c.note}"
        for r, c in cells
        if c.change == "more" and r.target is not None and r.analyte != "ph" and _too_much(r, c)
    ]


def _too_much(r: Row, c: Cell) -> bool:
    """Whether what an option adds is not what was wanted, as far as is known."""
    if r.cells[0].range is None:
        return c.meets is Verdict.NOT_MET and bool(c.note)
    return c.range is not None and c.meets is not Verdict.MET


def not_addressed(line: LineReport, meaning: Meaning, rows_: tuple[Row, ...]) -> tuple[str, ...]:
    """What an option leaves as it is, of all that asks for something."""
    out = []
    for r in rows_:
        c = next((c for c in r.cells if c.option == line.option), None)
        asks = r.weight in (Weight.ACT, Weight.HEALTH, Weight.NOTICE)
        if asks and c is not None and c.meets is not Verdict.MET:
            met = met_at_the_tap(line, r)
            if not met or ANALYTES[r.analyte].stains:
                left = _left(r, c)
                out.append(f"{left} at the house’s taps" if left and met else left)
    out += _risen(line, rows_)
    if any(f.id == "heater.anode" for f in meaning.findings):
        out.append("Smell at the hot tap: the water heater’s anode")
    return tuple(x for x in out if x)


def _left(r: Row, c: Cell) -> str:
    """How an option leaves one thing found; empty where that asks for nothing."""
    if c.change in ("stays", "today", "no_claim"):
        if r.weight is Weight.NOTICE and r.analyte in ("tds", "sodium"):
            return ""
        tail = " (comes from the plumbing)" if r.analyte in FROM_PLUMBING else ""
        return f"{c.shown if c.shown.startswith(r.name) else f'{r.name} {c.shown}'}{tail}"
    if c.change == "unknown":
        return f"{r.name}, {r.cells[0].shown} today: {c.shown}"
    if c.change != "less":
        return ""
    if c.meets is Verdict.NOT_MET:
        none = r.target == 0 and r.analyte not in MICROBES
        if none and c.established:  # of lead none is wanted: what a claim takes out is addressed
            return ""
        return f"{r.name} {c.shown}, still over what is wanted"
    if not _presses(r):
        return ""
    held = "may still be over" if c.established else "not proven"
    return f"{r.name} {c.shown}: {held}"
