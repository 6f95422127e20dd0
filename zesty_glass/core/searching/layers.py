"""The places of a branch, in their order, with the items that may stand there and what still
matters behind each.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from ..treating.items import Item
from ..treating.order import rank
from ..treating.technology import Company
from .candidates import Candidates
from .question import Question
from .states import MICRO, StageAt

MOST_STEPS = 4000  # pressures told apart behind one place; more are not worth it

#: pressures that part what a later stage accepts from what it does not; None: every one may
Steps = tuple[int, ...] | None


class Layer(NamedTuple):
    """One place: its items, all of one kind; what quantities and facts still matter behind it, and
    which pressures.
    """

    stages: list[StageAt]
    keep: frozenset[str]
    steps: Steps

    @property
    def kind(self) -> str:
        return self.stages[0].item.kind


class Layers:
    """The places of one branch; ``several``: kinds that can stand at more than one of them, and
    only once in a line.
    """

    def __init__(
        self,
        candidates: Candidates,
        question: Question,
        items: Iterable[Item],
        beside: Company,
        then: frozenset[str],
        then_psi: tuple[int, ...],
    ) -> None:
        items = tuple(items)
        by: dict[tuple[int, str], list[StageAt]] = {}
        for i in items:
            place = rank(i, question.source, beside)
            by.setdefault((place, i.kind), []).append(candidates.stage(i.code))
        kinds = [kind for _, kind in by]
        again = {i.kind for i in items if i.scope == "tap" and i.figures.apart}
        self.several = frozenset(k for k in kinds if kinds.count(k) > 1) - again
        placed = [by[k] for k in sorted(by)]
        keeps, steps = _keeps(placed, question, then), _steps(placed, question, then_psi)
        self.places = [Layer(*x) for x in zip(placed, keeps, steps, strict=True)]


def _keeps(
    placed: list[list[StageAt]], question: Question, then: frozenset[str]
) -> list[frozenset[str]]:
    """For the place behind each layer: which quantities and facts still matter."""
    out: list[frozenset[str]] = []
    needed = then
    for stages in reversed(placed):
        out.append(needed)
        needed = needed.union(*(question.looks_at(s.item) for s in stages))
    return list(reversed(out))


def _steps(placed: list[list[StageAt]], question: Question, then: tuple[int, ...]) -> list[Steps]:
    """For the place behind each layer: which pressures decide, whatever is in between."""
    out: list[Steps] = []
    top = _highest(question)
    steps = {0, *then}
    for stages in reversed(placed):
        out.append(tuple(sorted(steps)) if len(steps) <= MOST_STEPS else None)
        if out[-1] is not None:
            drops = {s.drop for s in stages}
            taken = {c + d for c in steps if c for d in drops if c + d <= top}
            steps |= {s.least_psi for s in stages} | taken
    return list(reversed(out))


def _highest(question: Question) -> int:
    """The highest of the lowest pressures that a line can come to [millionths of a psi]."""
    sets: list[float | None] = [getattr(i.figures, "sets_psi", None) for i in question.items]
    return max(question.low_psi, 0, *(round(s * MICRO) for s in sets if s is not None))
