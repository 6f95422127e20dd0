"""Systems in the order of a household's goals, and what each goal costs.

Health stays first, and so does what is to be done before anything is bought. Then come those that
meet the most goals of yes or no (no salt, no electricity, no drilling, the drinking water alone,
something against germs); then what leaves least; then the goals of more or less (price, cost, time,
wastewater), by the sum of places.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from decimal import Decimal
from types import MappingProxyType

from ..analytes import ANALYTES, MICROBES
from ..goals import GOALS, GoalId
from ..rules import Settings
from ..treating.items import Item, SystemFigures
from ..treating.stages import does
from ..words import listed, sum_over
from .suggested import Suggested

Items = Mapping[str, Item]

TEST_FOR_GERMS = (
    "no test here has shown bacteria, so nothing is sold against them. A certified laboratory tests"
    " for coliform bacteria in about a week."
)


def _stages(line: Suggested, items: Items) -> list[Item]:
    """All items of a line, those inside systems too."""
    bought = [items[s.item] for s in line.option.stages if s.item in items]
    inside = [
        items[p]
        for i in bought
        if isinstance(i.figures, SystemFigures)
        for p in i.figures.parts
        if p in items
    ]
    return bought + inside


def _no_salt(line: Suggested, items: Items) -> bool:
    return not any({"softens", "exchanges"} & does(i.kind) for i in _stages(line, items))


def _no_electricity(line: Suggested, items: Items) -> bool:
    return not any(i.socket for i in _stages(line, items))


def _no_drilling(line: Suggested, items: Items) -> bool:
    return not any(i.plumbed for i in _stages(line, items))


def _against_germs(line: Suggested, items: Items) -> bool:
    return any(m in line.answers and m not in line.leaves for m in MICROBES)


#: goals that a line meets or does not
MEETS: Mapping[GoalId, Callable[[Suggested, Items], bool]] = MappingProxyType(
    {
        "no_salt": _no_salt,
        "drinking_only": lambda line, _: line.tap_only,
        "no_electricity": _no_electricity,
        "no_drilling": _no_drilling,
        "germs": _against_germs,
    }
)
#: goals of less: the figure that is to be small; what has no price counts as it does in the order
LESS: Mapping[GoalId, Callable[[Suggested], float]] = MappingProxyType(
    {
        "price_today": lambda x: x.price,
        "cost_over_years": lambda x: x.counted_cost,
        "own_time": lambda x: x.own_minutes,
        "less_waste": lambda x: x.waste_gal_year,
    }
)


def _places(lines: tuple[Suggested, ...], goals: Iterable[GoalId]) -> dict[str, int]:
    """The sum of each line's places in what is to be small, by its id."""
    total = dict.fromkeys((x.option.id for x in lines), 0)
    for goal in goals:
        figure = LESS.get(goal)
        if figure is not None:
            figures = sorted({round(figure(x), 2) for x in lines})
            for x in lines:
                total[x.option.id] += figures.index(round(figure(x), 2))
    return total


def _split(lines: tuple[Suggested, ...]) -> tuple[tuple[Suggested, ...], tuple[Suggested, ...]]:
    """What stands before anything is bought, and what is in the order of goals."""
    first = 0
    if lines and not lines[0].option.stages:
        first = 1
    return lines[:first], lines[first:]


def by_goals(
    lines: tuple[Suggested, ...], goals: tuple[GoalId, ...], items: Items
) -> tuple[Suggested, ...]:
    """Lines in the order of some goals; as they are where there is none."""
    if not goals:
        return lines
    first, rest = _split(lines)
    places = _places(rest, goals)

    def key(line: Suggested) -> tuple[float, ...]:
        unmet = sum(not MEETS[g](line, items) for g in goals if g in MEETS)
        return (
            0.0 if line.option.stages else 1.0,
            -round(line.health, 2),
            float(line.against_diet),
            float(unmet),
            float(len(line.leaves)),
            float(places[line.option.id]),
        )

    return (*first, *sorted(rest, key=key))


def _bought(lines: tuple[Suggested, ...]) -> Suggested | None:
    return next((x for x in lines if x.option.stages), None)


def said_of_goals(
    lines: tuple[Suggested, ...],
    goals: tuple[GoalId, ...],
    items: Items,
    settings: Settings,
    years: int,
) -> tuple[str, ...]:
    """What each goal alone does to the order, and what it costs.

    Args:
        lines: in the order without goals.
    """
    now = _bought(lines)
    if now is None:
        return ()
    return tuple(_said(g, now, lines, items, settings, years) for g in goals)


def _said(
    goal: GoalId,
    now: Suggested,
    lines: tuple[Suggested, ...],
    items: Items,
    settings: Settings,
    years: int,
) -> str:
    then = _bought(by_goals(lines, (goal,), items)) or now
    name = f"“{GOALS[goal]}”"
    if goal == "germs" and not any(m in x.answers for x in lines for m in MICROBES):
        return f"{name}: {TEST_FOR_GERMS}"
    if goal in MEETS and not MEETS[goal](then, items):
        return f"{name}: no system listed does that and still does as much for health."
    if then.option.id == now.option.id:
        return f"{name}: the first system is that already."
    today = _today(then, now, settings) if goal == "price_today" else ()
    says = (*today, *_price(then, now, settings, years))
    return f"{name}: {_named(then)} instead of {_named(now)}{_joined(says)}."


def _named(line: Suggested) -> str:
    return f"{line.option.name} ({', then '.join(line.names)})"


def _joined(says: tuple[str, ...]) -> str:
    return f"; it {listed(says)}" if says else ""


def _today(then: Suggested, now: Suggested, settings: Settings) -> tuple[str, ...]:
    """What the lowest price saves today."""
    saved = now.price - then.price
    return (f"costs {settings.currency}{saved:,.0f} less today",) if saved >= 1 else ()


def _price(then: Suggested, now: Suggested, settings: Settings, years: int) -> tuple[str, ...]:
    """What a goal costs or saves, and what it leaves."""
    more = then.cost - now.cost
    said = f"{settings.currency}{sum_over(Decimal(str(round(abs(more), 2))), years):,.0f}"
    parts = []
    if not then.missing and not now.missing and abs(more) >= 1:
        parts.append(f"costs {said} {'more' if more > 0 else 'less'} over {years} years")
    leaves = [ANALYTES[a].said for a in then.leaves if a not in now.leaves]
    if leaves:
        parts.append(f"leaves {listed(leaves)}")
    return tuple(parts)
