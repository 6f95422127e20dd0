"""The branch of the drinking tap: through single items, or through one system sold whole."""

from __future__ import annotations

from collections.abc import Iterator

from ..treating.items import Item, SystemFigures
from ..treating.order import ordered
from ..treating.technology import Company
from .candidates import Candidates
from .labels import Label
from .layers import Layers
from .states import Front, StageAt, State, forget, merge
from .stepping import Stepping, gone_on


class Chain:
    """Systems with the same parts, and the parts in their order."""

    def __init__(self, sold: list[StageAt], parts: tuple[StageAt, ...]) -> None:
        self.codes, self.parts = [s.item.code for s in sold], parts
        least = min(s.cost_once for s in sold)
        #: of those alike in their parts only the cheapest can be in a line that no other beats
        self.cheapest = [s for s in sold if s.cost_once == least]


class DrinkingTap:
    """Takes the states behind the house's branch to the drinking tap."""

    def __init__(self, candidates: Candidates, stepping: Stepping) -> None:
        self._candidates, self._stepping = candidates, stepping
        self._question = stepping.answering.question
        self._judged = self._question.judged_at("tap")
        self._chains = [self._chain(sold) for sold in _by_parts(candidates.systems)]

    def _chain(self, sold: list[Item]) -> Chain:
        figures = sold[0].figures
        assert isinstance(figures, SystemFigures)
        by_code = self._question.by_code
        parts = tuple(by_code[p] for p in figures.parts if p in by_code)
        stage = self._candidates.stage
        return Chain(
            [stage(s.code) for s in sold],
            tuple(stage(p.code) for p in ordered(parts, self._question.source)),
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
        for part in chain.parts:
            told = answering.answer(part.alike, state, {})
            going = gone_on(labels, part.least_psi, pressure_known)
            if told.stop:
                refusals.stopped(chain.codes, told.stop, part, state)
                return
            if not going:
                refusals.short_of_pressure(chain.codes, None)
                return
            cost, waste, minutes = answering.cost(part, told), told.waste, told.minutes
            labels = [(c + cost, w + waste, m + minutes, low, ch) for c, w, m, low, ch in going]
            state = answering.behind(state, part, told, state.used)
        refusals.let_stand(chain.codes)
        for system in chain.cheapest:
            once, n = system.cost_once, system.index
            yield state, [(c + once, w, m, low, (ch, n)) for c, w, m, low, ch in labels]


def _by_parts(systems: list[Item]) -> list[list[Item]]:
    by: dict[tuple[str, ...], list[Item]] = {}
    for system in systems:
        assert isinstance(system.figures, SystemFigures)
        by.setdefault(system.figures.parts, []).append(system)
    return list(by.values())
