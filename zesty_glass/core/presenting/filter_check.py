"""What stands in a home already, on one page to leave: what its label says, what it does today,
when its part is to be changed, what a year of it costs, and what to do.
"""

from __future__ import annotations

from datetime import datetime
from decimal import Decimal

from ..assess import Assessment
from ..errors import RuleError
from ..record import record
from ..treating.glasses import GlassRow
from ..treating.in_place import VERDICT_WORDS
from ..visit import Visit


@record
class FilterCheck:
    """One piece of equipment in place, as its household reads of it.

    Args:
        verdict: what follows, in two or three words; advice: what to do; facts: its age, what ran
            through it and how the glass was drawn; rows: its glass against the raw water, none
            where none was drawn; over: what of that glass is over a limit.
        cost_year: what it goes on costing [money a year]; None where its parts are not priced.
    """

    firm: str
    consultant: str
    home: str
    place: str
    day: datetime
    currency: str
    name: str
    verdict: str
    advice: str
    facts: tuple[str, ...]
    rows: tuple[GlassRow, ...]
    over: tuple[str, ...]
    cost_year: Decimal | None


def filter_check(visit: Visit, assessment: Assessment, device: str) -> FilterCheck:
    """The page of a device of a visit, by its id.

    Raises:
        RuleError: ``filter_check.device``, where it is none of those that stand there.
    """
    judged = next((j for j in assessment.in_place if j.id == device), None)
    if judged is None:
        raise RuleError(
            "filter_check.device",
            "This does not stand in the home.",
            "device",
            "Write it down under “What stands there already” first.",
        )
    glass = next((g for g in assessment.glasses if g.sample == judged.sample), None)
    seen = glass.facts if glass is not None else ()
    return FilterCheck(
        firm=visit.firm,
        consultant=visit.consultant,
        home=visit.home.name,
        place=visit.home.place,
        day=visit.started_at,
        currency=visit.settings.currency,
        name=judged.name,
        verdict=VERDICT_WORDS[judged.verdict],
        advice=judged.advice,
        facts=tuple(dict.fromkeys((*judged.facts, *seen))),
        rows=glass.rows if glass is not None else (),
        over=glass.over if glass is not None else (),
        cost_year=judged.cost_year,
    )
