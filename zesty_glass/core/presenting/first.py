"""What comes before anything is bought, as a customer takes it away: card and proposal."""

from __future__ import annotations

from ..analytes import MICROBES
from ..assess import Assessment
from ..proposing.first import first_steps
from ..proposing.looked_at import At
from ..treating.in_place import said_first
from ..treating.line import LineReport
from ..treating.stages import does
from ..visit import Visit

DISINFECT_FIRST = (
    "Before the UV system runs, have the well and the pipes disinfected by a licensed person. Have"
    " the water tested again after that."
)


def before_buying(visit: Visit, a: Assessment) -> tuple[str, ...]:
    """What to do first, what costs nothing before what costs little; empty before there is a raw
    sample.
    """
    at = _at(visit, a)
    return () if at is None else (*said_first(a.in_place), *first_steps(at))


def before_fitting(visit: Visit, a: Assessment, line: LineReport) -> tuple[str, ...]:
    """What to do first where a line is bought: with a UV system the well is disinfected, which a
    finding of microbes says already.
    """
    at, steps = _at(visit, a), before_buying(visit, a)
    lamp = any("inactivates" in does(s.kind) for s in line.stages)
    if at is None or not lamp or not visit.home.private or at.health(*MICROBES):
        return steps
    return (*steps, DISINFECT_FIRST)


def _at(visit: Visit, a: Assessment) -> At | None:
    if a.raw is None or a.meaning is None:
        return None
    return At(
        water=a.raw,
        meaning=a.meaning,
        home=visit.home,
        complaints=(*visit.complaints, *a.noticed),
        samples=visit.samples,
        rules=visit.rules,
    )
