"""The lines that no other beats, of all that came to the drinking tap."""

from __future__ import annotations

from typing import NamedTuple

from ..treating.items import Item
from .answering import Answering
from .found import Combination
from .labels import Label, beats3, covers, unchain
from .scores import Score, score
from .stage_answers import PLACE
from .states import MICRO, Front


def scores_at(answering: Answering, q: tuple[int, ...], place: str) -> tuple[Score, ...]:
    """Figures of the things judged at a place."""
    question = answering.question
    return tuple(
        score(
            name,
            answering.quantities.of(q[PLACE[name]]),
            question.source.get(name),
            *question.targets.get(name, (None, "at_most")),
        )
        for name, where in question.places
        if where == place
    )


class _End(NamedTuple):
    """A line that came to its end; ``left``: best and worst of each thing found."""

    left: tuple[float, ...]
    label: Label
    scores: tuple[Score, ...]

    def beaten_by(self, other: _End) -> bool:
        """Whether another, of another water, is nowhere worse."""
        if other.left == self.left or not covers(other.left, self.left):
            return False
        a, b = other.label, self.label
        return a[0] <= b[0] and a[1] <= b[1] and a[2] <= b[2]


def best(finals: Front, answering: Answering, every: tuple[Item, ...]) -> tuple[Combination, ...]:
    """Lines that no other beats."""
    ends = _unbeaten_alike(finals, answering)
    ends.sort(key=lambda e: (-sum(e.left), e.label[:3]))
    front: list[_End] = []
    for end in ends:
        if not any(end.beaten_by(other) for other in front):
            front.append(end)
    lines = (_combination(e, every) for e in front)
    return tuple(sorted(lines, key=lambda c: (c.cost, c.waste_gal_year, c.own_minutes, c.items)))


def _unbeaten_alike(finals: Front, answering: Answering) -> list[_End]:
    """Of lines that leave the same water those that no other beats on cost, waste and minutes."""
    groups: dict[tuple[float, ...], list[_End]] = {}
    for state, labels in finals.items():
        scores = (*state.scores, *scores_at(answering, state.quantities, "tap"))
        left = tuple(x for s in scores for x in (s.best, s.worst))
        groups.setdefault(left, []).extend(_End(left, label, scores) for label in labels)
    return [
        end
        for group in groups.values()
        for end in group
        if not any(beats3(other.label, end.label) for other in group)
    ]


def _combination(end: _End, every: tuple[Item, ...]) -> Combination:
    cost, waste, minutes, _, chain = end.label
    return Combination(
        items=tuple(every[i].code for i in unchain(chain)),
        left=end.scores,
        waste_gal_year=waste / MICRO,
        cost=cost / MICRO,
        own_minutes=minutes / MICRO,
    )
