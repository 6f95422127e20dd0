"""What the search answers, and how large the space is that it answers for."""

from __future__ import annotations

from collections.abc import Iterable

from ..analytes import ANALYTES, Kind, judged_at
from ..record import record
from ..treating.items import Item
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


def count(items: Iterable[Item]) -> int:
    """How many ways there are to take at most one of each kind."""
    many: dict[str, int] = {}
    for i in items:
        many[i.kind] = many.get(i.kind, 0) + 1
    total = 1
    for n in many.values():
        total *= 1 + n
    return total


def combinations(items: Iterable[Item]) -> int:
    """All combinations: at most one of each kind on each branch; a system stands alone at the
    drinking tap.
    """
    listed = list(items)
    house = [i for i in listed if i.scope == "house" and i.kind != "system"]
    tap = [i for i in listed if i.scope == "tap" and i.kind != "system"]
    return count(house) * (
        count(tap) + sum(i.kind == "system" and i.scope == "tap" for i in listed)
    )
