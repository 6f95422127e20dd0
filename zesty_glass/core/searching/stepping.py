"""One step of the search: from the states ahead of a place to those behind it."""

from __future__ import annotations

from .answering import Answering, Keys
from .labels import Label, floored, least
from .layers import Layer, Layers, Steps
from .refusals import Refusals
from .stage_answers import Alike, Answer
from .states import Front, StageAt, State, forget


def gone_on(labels: list[Label], least_psi: int, known: bool) -> list[Label]:
    """Of some lines those with the pressure that a stage wants; all where nobody knows it."""
    if not known or not least_psi:
        return labels
    return [x for x in labels if -x[3] >= least_psi]


class Stepping:
    """Takes lines through the places of a branch, one after the other."""

    def __init__(self, answering: Answering, refusals: Refusals) -> None:
        self.answering, self.refusals = answering, refusals
        self._pressure_known = answering.question.source.psi is not None

    def through(self, front: Front, layers: Layers, must: frozenset[str] = frozenset()) -> Front:
        """All states behind a branch; ``must``: kinds that every line has to take."""
        for layer in layers.places:
            front = self._advance(front, layer, layer.kind in must, layers.several)
        return front

    def _advance(self, front: Front, layer: Layer, must: bool, several: frozenset[str]) -> Front:
        """All states behind a layer: passed by (unless it must be used), or through each of its
        items.
        """
        behind: Front = {} if must else {s: list(labels) for s, labels in front.items()}
        groups: dict[Alike, list[StageAt]] = {}
        for stage in layer.stages:
            groups.setdefault(stage.alike, []).append(stage)
        for state, labels in front.items():
            if layer.kind in state.used:
                continue
            used = state.used | {layer.kind} if layer.kind in several else state.used
            keys: Keys = {}
            for group, stages in groups.items():
                told = self.answering.answer(group, state, keys)
                if told.stop:
                    self._refuse(group, stages, told, state)
                else:
                    self._use(behind, state, labels, stages, told, used)
        return _narrow(behind, layer.keep, layer.steps)

    def _refuse(self, group: Alike, stages: list[StageAt], told: Answer, state: State) -> None:
        if group.stopped:  # it is on record already
            return
        group.stopped = True
        for stage in stages:
            self.refusals.stopped((stage.item.code,), told.stop, stage, state)

    def _use(
        self,
        behind: Front,
        state: State,
        labels: list[Label],
        stages: list[StageAt],
        told: Answer,
        used: frozenset[str],
    ) -> None:
        """Lines that take one of some items that are alike."""
        first = stages[0]
        going = gone_on(labels, first.least_psi, self._pressure_known)
        if not going:
            self.refusals.short_of_pressure((s.item.code for s in stages), first.least_psi)
            return
        if not first.alike.passed:
            first.alike.passed = True
            self.refusals.let_stand(s.item.code for s in stages)
        grown = behind.setdefault(self.answering.behind(state, first, told, used), [])
        waste, minutes, sets = told.waste, told.minutes, told.sets_low
        for cost, drop, index in self._options(stages, told):
            grown += [
                (
                    c + cost,
                    w + waste,
                    m + minutes,
                    -max(0, (sets(-low) if sets else -low) - drop),
                    (chain, index),
                )
                for c, w, m, low, chain in going
            ]

    def _options(self, stages: list[StageAt], told: Answer) -> list[tuple[int, int, int]]:
        """Of items that are alike, those that can be part of a line that no other beats here, as
        (cost, pressure taken, index): none that costs more and takes no less.
        """
        if told.options is None:
            cost = self.answering.cost
            every = [
                (cost(s, told) + s.cost_once, s.drop if told.drops else 0, s.index) for s in stages
            ]
            told.options = [
                o for o in every if not any(c < o[0] and d <= o[1] for c, d, _ in every)
            ]
        return told.options


def _narrow(front: Front, keep: frozenset[str], steps: Steps) -> Front:
    """Forget quantities and facts that nothing further on looks at and nobody judges, and pressure
    between two steps that decide: lines that differ in these alone go on together.
    """
    together: Front = {}
    for s, labels in front.items():
        together.setdefault(forget(s, keep), []).extend(floored(labels, steps))
    return {s: least(labels) for s, labels in together.items()}
