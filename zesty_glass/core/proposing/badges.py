"""What a line is the best at, of all that are listed: lowest price today, lowest total cost, least
wastewater, least of the household's time.

A badge is true over every line it names the number of. Where some lines leave what asks for
treatment, only those are set beside each other that leave nothing of it, and the badge says so.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace

from ..record import record
from .suggested import Suggested


@record
class Badge:
    """One thing to be the best at: its words, the figure that is least, and how far figures are
    alike [of their own unit].
    """

    words: str
    figure: Callable[[Suggested], float]
    alike: float
    priced: bool = False


BADGES = (
    Badge(words="Lowest price today", figure=lambda x: x.price, alike=0.5),
    Badge(words="Lowest total cost", figure=lambda x: x.cost, alike=0.5, priced=True),
    Badge(words="Least wastewater", figure=lambda x: x.waste_gal_year, alike=0.5),
    Badge(words="Least of your time", figure=lambda x: x.own_minutes, alike=0.5),
)


def _best(badge: Badge, lines: tuple[Suggested, ...]) -> frozenset[str]:
    """The lines, by id, that are best at one thing; none where all are alike in it, and none where
    a line whose cost is open could be cheaper.
    """
    figures = {x.option.id: badge.figure(x) for x in lines}
    least = min(figures.values())
    best = frozenset(i for i, v in figures.items() if v <= least + badge.alike)
    unpriced = {x.option.id for x in lines if x.missing} if badge.priced else set()
    return frozenset() if len(best) == len(lines) or best & unpriced else best


def _over(many: int, all_of_them: bool) -> str:
    """Over how many lines a badge is true, in words."""
    if not all_of_them:
        return f"of the {many} that fix it all"
    return "of both" if many == 2 else f"of all {many}"


def badged(lines: Iterable[Suggested]) -> tuple[Suggested, ...]:
    """Lines with what each is the best at."""
    listed = tuple(lines)
    buying = tuple(x for x in listed if x.option.stages)
    whole = tuple(x for x in buying if not x.leaves and x.meets == x.wanted)
    beside = whole or buying
    if len(beside) < 2:
        return listed
    over = _over(len(beside), beside == buying)
    best = [(badge.words, _best(badge, beside)) for badge in BADGES]
    return tuple(
        replace(x, badges=tuple(f"{words} {over}" for words, ids in best if x.option.id in ids))
        for x in listed
    )
