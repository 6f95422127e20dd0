"""The branch of the drinking tap: through single items, or through one system sold whole, with what
its own stages ask for beside them (a booster pump where the pressure is low).
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import product
from typing import NamedTuple

from ..treating.items import Item, SystemFigures
from ..treating.order import ordered
from ..treating.technology import Company
from .answering import Answering
from .candidates import Candidates
from .found import beside_systems, kinds_of
from .labels import Label
from .layers import Layers
from .stage_answers import Answer
from .states import Front, StageAt, State, forget, merge
from .stepping import Stepping, gone_on


class Place(NamedTuple):
    """Items of which one stands at a place of a chain: alike to the search but for their prices;
    ``bought``: beside the system, at a price of its own.
    """

    stages: tuple[StageAt, ...]
    bought: bool

    def cheapest(self, answering: Answering, told: Answer) -> tuple[int, list[StageAt]]:
        """What the cheapest of them add to the cost [millionths], and which they are."""
        added = [
            (answering.cost(s, told) + (s.cost_once if self.bought else 0), s) for s in self.stages
        ]
        least = min(cost for cost, _ in added)
        return least, [s for cost, s in added if cost == least]


class Chain:
    """Systems with the same parts, and the places of these parts and of what stands beside them, in
    their order.
    """

    def __init__(self, sold: list[StageAt], places: tuple[Place, ...]) -> None:
        beside = (s.item.code for p in places if p.bought for s in p.stages)
        self.codes, self.places = [s.item.code for s in sold], places
        self.every = (*self.codes, *beside)
        least = min(s.cost_once for s in sold)
        #: of those alike in their parts only the cheapest can be in a line that no other beats
        self.cheapest = [s for s in sold if s.cost_once == least]


class DrinkingTap:
    """Takes the states behind the house's branch to the drinking tap."""

    def __init__(self, candidates: Candidates, stepping: Stepping) -> None:
        self._candidates, self._stepping = candidates, stepping
        self._question = stepping.answering.question
        self._judged = self._question.judged_at("tap")
        self._chains = [
            chain for sold in _by_parts(candidates.systems) for chain in self._with_beside(sold)
        ]

    def _with_beside(self, sold: list[Item]) -> Iterator[Chain]:
        """Systems of the same parts alone, and with each choice of what may stand beside them."""
        figures = sold[0].figures
        assert isinstance(figures, SystemFigures)
        by_code = self._question.by_code
        parts = tuple(by_code[p] for p in figures.parts if p in by_code)
        kinds = beside_systems(i for i in self._candidates.tap if i.kind not in kinds_of(parts))
        stage = self._candidates.stage
        grouped = (_alike(map(stage, (i.code for i in items))) for items in kinds)
        for choice in product(*((None, *groups) for groups in grouped)):
            beside = {p.stages[0].item.code: p for p in choice if p is not None}
            stages = ordered((*parts, *(by_code[c] for c in beside)), self._question.source)
            places = (beside.get(i.code) or Place((stage(i.code),), False) for i in stages)
            yield Chain([stage(s.code) for s in sold], tuple(places))

    def ends(self, front: Front) -> Front:
        """States at the drinking tap."""
        ends: Front = {}
        layers = Layers(
            self._candidates, self._question, self._candidates.tap, Company(), self._judged, ()
        )
        for state, labels in self._stepping.through(front, layers).items():
            merge(ends, self._end(state), labels)
        for chain in self._chains:
            for state, labels in front.items():
                for end, more in self._through(chain, state, labels):
                    merge(ends, self._end(end), more)
        return ends

    def _end(self, state: State) -> State:
        return forget(state, self._judged)._replace(psi=None, used=frozenset())

    def _through(
        self, chain: Chain, state: State, labels: list[Label]
    ) -> Iterator[tuple[State, list[Label]]]:
        """Lines that end in a system."""
        answering, refusals = self._stepping.answering, self._stepping.refusals
        pressure_known = self._question.source.psi is not None
        beside: list[list[StageAt]] = []
        for place in chain.places:
            stage = place.stages[0]
            told = answering.answer(stage.alike, state, {})
            going = gone_on(labels, stage.least_psi, pressure_known)
            if told.stop:
                refusals.stopped(chain.codes, told.stop, stage, state)
                return
            if not going:
                refusals.short_of_pressure(chain.codes, None)
                return
            cost, cheapest = place.cheapest(answering, told)
            if place.bought:
                beside.append(cheapest)
            labels = _gone_through(going, cost, told)
            state = answering.behind(state, stage, told, state.used)
        refusals.let_stand(chain.every)
        for *others, system in product(*beside, chain.cheapest):
            yield state, _sold_with(system, others, labels)


def _gone_through(labels: list[Label], cost: int, told: Answer) -> list[Label]:
    """Figures behind a stage that adds ``cost`` [millionths]."""
    waste, minutes, sets = told.waste, told.minutes, told.sets_low or _as_it_is
    return [(c + cost, w + waste, m + minutes, -sets(-low), ch) for c, w, m, low, ch in labels]


def _alike(stages: Iterable[StageAt]) -> list[Place]:
    """Items to stand beside a system, those together that the search tells apart by price alone."""
    by: dict[tuple[int, int], list[StageAt]] = {}
    for s in stages:
        by.setdefault((s.alike.number, s.least_psi), []).append(s)
    return [Place(tuple(group), True) for group in by.values()]


def _as_it_is(low: int) -> int:
    return low


def _sold_with(system: StageAt, beside: list[StageAt], labels: list[Label]) -> list[Label]:
    """Lines with a system and what stands beside it, which is paid for already."""
    more = [*(s.index for s in beside), system.index]
    out = []
    for cost, waste, minutes, low, chain in labels:
        for n in more:
            chain = (chain, n)
        out.append((cost + system.cost_once, waste, minutes, low, chain))
    return out


def _by_parts(systems: list[Item]) -> list[list[Item]]:
    by: dict[tuple[str, ...], list[Item]] = {}
    for system in systems:
        assert isinstance(system.figures, SystemFigures)
        by.setdefault(system.figures.parts, []).append(system)
    return list(by.values())
