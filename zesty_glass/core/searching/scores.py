"""How good a water is in one thing found, as two figures that a search can compare: higher is
better.
"""

from __future__ import annotations

from dataclasses import replace

from ..analytes import ANALYTES, Kind
from ..ranges import Range
from ..record import record
from ..rules import Rules
from ..treating.stream import INACTIVATED, Quantity

UNKNOWN = -1e12  # nobody can say: worse than anything that is known
OPEN = -1e11  # a range without an upper end
PH_HIGH, PH_LOW = Rules().at("ph.high"), Rules().at("ph.corrosive")


@record
class Score:
    """Best value and worst end of what is left, turned so that higher is better
    [canonical unit].
    """

    best: float
    worst: float


def _ph(r: Range, low: float) -> Score:
    def off(v: float) -> float:
        return -max(0.0, low - v, v - PH_HIGH)

    return Score(
        best=off(r.best),
        worst=min(off(r.low), off(r.best), OPEN if r.high is None else off(r.high)),
    )


def score(
    analyte: str, q: Quantity | None, source: Quantity | None, target: float | None, op: str
) -> Score:
    """The score of one thing found.

    A health contaminant counts as taken out only where that is established (certified, or measured
    here by a certified laboratory); otherwise its worst end is as the source has it: the line is
    kept, marked, and never takes the place of one that is established. What nobody can say counts
    as worst.
    """
    health = ANALYTES[analyte].kind is Kind.HEALTH
    if q is not None and health and not q.established and not q.pending:
        now = score(analyte, source, source, target, op) if q is not source else None
        if now is None or source is None or not source.established:
            q = source
        else:
            said = score(analyte, replace(q, established=True), source, target, op)
            return Score(best=said.best, worst=now.worst)
    if q is None:
        return Score(best=UNKNOWN, worst=UNKNOWN)
    if q.pending:  # it may do all, or nothing
        return Score(best=0.0, worst=score(analyte, source, None, target, op).worst)
    if q.range is None:
        known = {"absent": 0.0, "present": -1.0, INACTIVATED: 0.0}.get(q.words, UNKNOWN)
        return Score(best=known, worst=known)
    r = q.range
    if analyte == "ph":
        return _ph(r, PH_LOW if target is None else target)
    if op == "at_least":
        return Score(
            best=r.best if target is None else min(r.best, target),
            worst=r.low if target is None else min(r.low, target),
        )
    return Score(best=-r.best, worst=OPEN if r.high is None else -r.high)
