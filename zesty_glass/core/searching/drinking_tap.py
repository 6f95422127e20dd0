"""The branch of the drinking tap: through single items, or through one system sold whole, with what
its own stages ask for beside them (a booster pump where the pressure is low).
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import product

from ..treating.items import Item, SystemFigures
from ..treating.order import ordered
from ..treating.technology import Company
from .candidates import Candidates
from .found import beside_systems, kinds_of
from .labels import Label
from .layers import Layers
from .states import Front, StageAt, State, forget, merge
from .stepping import Stepping, gone_on


class Chain:
    """Systems with the same parts, what stands beside them, and all stages in their order."""

    def __init__(
        self, sold: list[StageAt], beside: tuple[StageAt, ...], stages: tuple[StageAt, ...]
    ) -> None:
        self.codes, self.beside, self.stages = [s.item.code for s in sold], beside, stages
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
        for choice in product(*((None, *items) for items in kinds)):
            beside = tuple(i for i in choice if i is not None)
            stages = ordered((*parts, *beside), self._question.source)
            yield Chain(
                [stage(s.code) for s in sold],
                tuple(stage(i.code) for i in beside),
                tuple(stage(i.code) for i in stages),
            )

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
        for stage in chain.stages:
            told = answering.answer(stage.alike, state, {})
            going = gone_on(labels, stage.least_psi, pressure_known)
            if told.stop:
                refusals.stopped(chain.codes, told.stop, stage, state)
                return
            if not going:
                refusals.short_of_pressure(chain.codes, None)
                return
            cost, waste, minutes = answering.cost(stage, told), told.waste, told.minutes
            sets = told.sets_low or _as_it_is
            labels = [
                (c + cost, w + waste, m + minutes, -sets(-low), ch) for c, w, m, low, ch in going
            ]
            state = answering.behind(state, stage, told, state.used)
        refusals.let_stand((*chain.codes, *(s.item.code for s in chain.beside)))
        for system in chain.cheapest:
            yield state, _sold_with(system, chain.beside, labels)


def _as_it_is(low: int) -> int:
    return low


def _sold_with(system: StageAt, beside: tuple[StageAt, ...], labels: list[Label]) -> list[Label]:
    """Lines with a system and what stands beside it."""
    once = system.cost_once + sum(s.cost_once for s in beside)
    more = [*(s.index for s in beside), system.index]
    out = []
    for cost, waste, minutes, low, chain in labels:
        for n in more:
            chain = (chain, n)
        out.append((cost + once, waste, minutes, low, chain))
    return out


def _by_parts(systems: list[Item]) -> list[list[Item]]:
    by: dict[tuple[str, ...], list[Item]] = {}
    for system in systems:
        assert isinstance(system.figures, SystemFigures)
        by.setdefault(system.figures.parts, []).append(system)
    return list(by.values())
