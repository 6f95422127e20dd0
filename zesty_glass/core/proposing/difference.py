"""One sentence of difference between a line and the next idea: what it answers more, or what the
next one's lower price leaves to watch, or what it saves.
"""

from __future__ import annotations

from decimal import Decimal

from ..analytes import ANALYTES, MICROBES
from ..rules import Settings
from ..words import sum_over
from .suggested import Suggested

LEAST_SAID = 1.0  # [money] a difference under it is none
LEAST_WASTE = 100.0  # [gal/year] less wastewater than this is nobody's reason


def difference(a: Suggested, b: Suggested, settings: Settings, years: int) -> str:
    """Why ``a`` stands before ``b``, in money and effect; empty where nothing is to be said."""
    if not a.option.stages or set(a.leaves) & set(MICROBES):
        return ""  # a line that leaves bacteria is praised for nothing
    more = [n for n in b.leaves if n not in a.leaves]
    if more:
        other = "the next system" if b.option.stages else "buying nothing"
        return f"{_answers_more(a, more)}, which {other} does not{_money(a, b, settings, years)}."
    if len(a.leaves) > len(b.leaves):
        return ""
    return _steadier(a, b, settings, years) or _saves(a, b, settings, years)


def _answers_more(a: Suggested, more: list[str]) -> str:
    """What a line answers that the next does not; said apart where it goes most of the way only."""
    partly = {x.partition(": ")[0] for x in a.not_met}
    names = ", ".join(ANALYTES[n].said for n in more)
    if partly & set(more):
        return f"It goes most of the way for {names}"
    return f"It treats {names}"


def _sum(amount: float, settings: Settings, years: int) -> str:
    return f"{settings.currency}{sum_over(Decimal(str(round(amount, 2))), years):,.0f}"


def _money(a: Suggested, b: Suggested, settings: Settings, years: int) -> str:
    """What answering more costs, or saves, beside the next."""
    if not b.option.stages or a.missing or b.missing or abs(a.cost - b.cost) < LEAST_SAID:
        return ""
    said = _sum(abs(a.cost - b.cost), settings, years)
    if a.cost > b.cost:
        return f", for {said} more over {years} years"
    return f", and it costs {said} less over {years} years"


def _steadier(a: Suggested, b: Suggested, settings: Settings, years: int) -> str:
    """What the next one leaves to watch and this one does not, the gravest of it."""
    left = [w for w in b.watch if w not in a.watch]
    if len(b.watch) <= len(a.watch) or not left:
        return ""
    less = a.cost - b.cost
    if less < LEAST_SAID or a.missing or b.missing:
        return f"The next system has this to watch: {left[0]}"
    saved = _sum(less, settings, years)
    return (
        f"The next system costs {saved} less over {years} years, and has this to watch: {left[0]}"
    )


def _saves(a: Suggested, b: Suggested, settings: Settings, years: int) -> str:
    """What it saves beside the next: money, and wastewater with it."""
    saved = b.cost - a.cost
    if saved < LEAST_SAID or a.missing:
        return ""
    drains = b.waste_gal_year - a.waste_gal_year
    less = f" and sends {drains:,.0f} gal a year less to the drain" if drains >= LEAST_WASTE else ""
    return f"It costs {_sum(saved, settings, years)} less over {years} years than the next{less}."
