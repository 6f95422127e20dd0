"""The branch of the whole house: the ways its order can be, and the states behind it."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import product

from ..treating.items import Item
from ..treating.order import carbon_first, company, wants_ph
from ..treating.stages import TECHNOLOGIES, does
from ..treating.technology import Company, chlorine_is_too_much
from .candidates import Candidates
from .front import scores_at
from .labels import Label, unchain
from .layers import Layer, Layers
from .states import Front, State, forget, merge
from .stepping import Stepping


def _has_carbon(items: Iterable[Item]) -> bool:
    return any("takes chlorine" in does(i.kind) for i in items)


def _raises_ph(items: Iterable[Item]) -> bool:
    return any("ph" in TECHNOLOGIES[i.kind].changes for i in items)


class WholeHouse:
    """Walks the whole-house branch, once for each way that the facts its order hangs on can be."""

    def __init__(self, candidates: Candidates, stepping: Stepping) -> None:
        self._candidates, self._stepping = candidates, stepping
        self._question = stepping.answering.question
        self._items, self._source = candidates.house, self._question.source
        self._carbon = _has_carbon(self._items)
        raises = _raises_ph(self._items)
        self._iron_matters = raises and any(wants_ph(i, self._source) for i in self._items)
        self._tap_looks = self._looked_at_the_tap()

    def _looked_at_the_tap(self) -> frozenset[str]:
        """What still matters behind the branch: what the drinking tap's stages look at."""
        looks = (
            self._question.looks_at(i) for i in (*self._candidates.tap, *self._candidates.parts)
        )
        return self._question.judged_at("tap").union(*looks)

    def ways(self) -> list[Company]:
        """The ways that the facts on which the order hangs can be."""
        every = company(tuple(self._items), self._source)
        early = self._carbon and carbon_first(every, self._source)
        wants = every.iron_wants_ph and _raises_ph(self._items)
        either, no = (False, True), (False,)
        return [
            Company(
                fine_ahead=fine,
                iron_wants_ph=iron,
                chlorine_max=every.chlorine_max if first else None,
            )
            for fine, iron, first in product(
                either if every.fine_ahead else no,
                either if wants else no,
                either if early else no,
            )
        ]

    def behind(self, way: Company) -> Front:
        """States behind the branch, with the figures at the house's taps."""
        early, asks = carbon_first(way, self._source), self._want_carbon_ahead()
        allowed = [i for i in self._items if self._fits(i, way) and (early or i.kind not in asks)]
        question = self._question
        layers = Layers(
            self._candidates,
            question,
            allowed,
            way,
            self._tap_looks | question.judged_at("house"),
            self._candidates.tap_least_psi(),
        )
        answering = self._stepping.answering
        start: list[Label] = [(0, 0, 0, -question.low_psi, None)]
        front = self._stepping.through({answering.start(): start}, layers, _must(layers, way))
        if early:
            front = self._with_any(front, asks)
        return self._ended(front)

    def _fits(self, item: Item, way: Company) -> bool:
        """Whether an item may be in a line of this way."""
        if TECHNOLOGIES[item.kind].fine_ahead and not way.fine_ahead:
            return False
        if item.figures.wants_ph is None or not self._iron_matters:
            return True
        return wants_ph(item, self._source) == way.iron_wants_ph

    def _want_carbon_ahead(self) -> frozenset[str]:
        """Kinds that this water's chlorine harms, where carbon can stand ahead of them."""
        if not self._carbon:
            return frozenset()
        return frozenset(
            k for k, t in TECHNOLOGIES.items() if chlorine_is_too_much(t.chlorine_max, self._source)
        )

    def _with_any(self, front: Front, kinds: frozenset[str]) -> Front:
        """Lines that have a stage of one of some kinds."""
        at = self._candidates.at
        kept: Front = {}
        for state, labels in front.items():
            have = [x for x in labels if any(at(i).item.kind in kinds for i in unchain(x[4]))]
            if have:
                kept[state] = have
        return kept

    def _ended(self, front: Front) -> Front:
        ended: Front = {}
        for s, labels in front.items():
            scores = scores_at(self._stepping.answering, s.quantities, "house")
            end: State = forget(s, self._tap_looks)._replace(used=frozenset(), scores=scores)
            merge(ended, end, labels)
        return ended


def _must(layers: Layers, way: Company) -> frozenset[str]:
    """Kinds that make a line one of this way."""
    return frozenset(layer.kind for layer in layers.places if _makes(layer, way))


def _makes(layer: Layer, way: Company) -> bool:
    if way.fine_ahead and TECHNOLOGIES[layer.kind].fine_ahead:
        return True
    return way.iron_wants_ph and layer.stages[0].item.figures.wants_ph is not None
