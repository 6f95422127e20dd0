"""What the search answers, and how large the space is that it answers for."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping

from ..analytes import ANALYTES, Kind, judged_at
from ..record import record
from ..treating.checks import CHECKS
from ..treating.items import Item, SystemFigures
from .scores import Score


@record
class Combination:
    """One line that no other beats.

    Args:
        items: codes in their order; left: for each thing found, how good it is (higher is better),
            best and worst end.
        waste_gal_year [gal/year], cost over the horizon [money], own_minutes of chores [min/year].
    """

    items: tuple[str, ...]
    left: tuple[Score, ...]
    waste_gal_year: float
    cost: float
    own_minutes: float


@record
class LeftOut:
    """An item in none of the proposed lines, with the rule that left it out."""

    code: str
    name: str
    rule: str
    sentence: str


@record
class Found:
    """What the search answers, and how much of the space it had to walk.

    Args:
        combinations: all there are; ended: those walked to their end; stages: stages worked out.
    """

    wanted: tuple[str, ...]
    lines: tuple[Combination, ...]
    left_out: tuple[LeftOut, ...]
    combinations: int
    ended: int
    stages: int


def places(analyte: str) -> tuple[str, ...]:
    """Where a thing found is judged: health, TDS and the like at the drinking tap, equipment at the
    house's taps, looks and taste at both.

    >>> places("iron"), places("arsenic")
    (('house', 'tap'), ('tap',))
    """
    if judged_at(analyte) == "tap":
        return ("tap",)
    return ("house", "tap") if ANALYTES[analyte].kind is Kind.LOOKS_TASTE else ("house",)


def kinds_of(items: Iterable[Item]) -> frozenset[str]:
    """The kinds of some items."""
    return frozenset(i.kind for i in items)


def beside_systems(tap: Iterable[Item]) -> list[list[Item]]:
    """What may stand beside a system at the drinking tap, by kind: what a check asks for."""
    by: dict[str, list[Item]] = {}
    for i in tap:
        if i.kind != "system" and any(f"@{i.kind}" in says.asks for says in CHECKS.values()):
            by.setdefault(i.kind, []).append(i)
    return list(by.values())


def count(items: Iterable[Item]) -> int:
    """How many ways there are to take at most one of each kind; at a drinking tap one of each that
    are told apart.
    """
    many: dict[tuple[str, str], int] = {}
    for i in items:
        key = i.kind, i.figures.apart if i.scope == "tap" else ""
        many[key] = many.get(key, 0) + 1
    total = 1
    for n in many.values():
        total *= 1 + n
    return total


def combinations(items: Iterable[Item], by_code: Mapping[str, Item]) -> int:
    """All combinations: at most one of each kind on each branch; beside a system at the drinking
    tap stands only what a check asks for.
    """
    listed = list(items)
    house = [i for i in listed if i.scope == "house" and i.kind != "system"]
    tap = [i for i in listed if i.scope == "tap" and i.kind != "system"]
    systems = [i for i in listed if i.kind == "system" and i.scope == "tap"]
    beside = {kinds[0].kind: len(kinds) for kinds in beside_systems(tap)}
    return count(house) * (count(tap) + sum(_beside(s, beside, by_code) for s in systems))


def _beside(system: Item, beside: Mapping[str, int], by_code: Mapping[str, Item]) -> int:
    """How many ways there are to put something beside a system, nothing among them; ``beside``: of
    each kind that may stand there, how many there are.
    """
    assert isinstance(system.figures, SystemFigures)
    inside = kinds_of(by_code[p] for p in system.figures.parts if p in by_code)
    return math.prod(1 + many for kind, many in beside.items() if kind not in inside)
