"""States that lines under search are in, and the items at their places."""

from __future__ import annotations

import math
from functools import lru_cache
from operator import mul
from typing import NamedTuple

from ..treating.figures import FINE_UM
from ..treating.items import Item
from ..treating.site import Disinfected
from ..treating.stages import TECHNOLOGIES
from .labels import Label, least
from .scores import Score
from .stage_answers import FACTS, NAMES, Alike

MICRO = 1_000_000  # figures are compared as whole millionths, so that sums are exact in any order


class State(NamedTuple):
    """Where lines under search have come to.

    Args:
        quantities: the number of each analyte's quantity, by its place; 0: not tested.
        particulate_iron, coloured, uvt_here: facts of the water.
        psi: running pressure, best and high [psi].
        fine, disinfected: what stands ahead.
        used: kinds used that could stand at several places.
        scores: figures at the house's taps.
    """

    quantities: tuple[int, ...]
    particulate_iron: bool | None
    coloured: bool | None
    psi: tuple[float, float | None] | None
    uvt_here: bool
    fine: bool
    disinfected: Disinfected
    used: frozenset[str]
    scores: tuple[Score, ...]


#: facts and their names in a stream
PASSES = {
    "@particulate_iron": "particulate_iron",
    "@coloured": "coloured",
    "@uvt_here": "uvt_measured_here",
}


class StageAt:
    """An item at its place."""

    __slots__ = (
        "alike",
        "cost_once",
        "drop",
        "fine",
        "index",
        "item",
        "least_psi",
    )

    def __init__(self, item: Item, index: int, cost_once: int, drop: int, group: Alike) -> None:
        self.item, self.index, self.cost_once, self.drop, self.alike = (
            item,
            index,
            cost_once,
            drop,
            group,
        )
        technology = TECHNOLOGIES.get(item.kind)  # a system has none: its parts have
        self.fine = is_fine(item)
        least = technology.psi_min if item.psi_min is None and technology else item.psi_min
        self.least_psi = round((least or 0.0) * MICRO)


def is_fine(item: Item) -> bool:
    """Whether an item holds back particles fine enough for what wants a prefilter."""
    return (item.figures.holds_um or math.inf) <= FINE_UM


@lru_cache(64)
def _masks(keep: frozenset[str]) -> tuple[tuple[int, ...], tuple[bool, ...]]:
    return tuple(int(n in keep) for n in NAMES), tuple(f in keep for f in FACTS)


def forget(state: State, keep: frozenset[str]) -> State:
    """A state without the quantities and facts that no longer matter."""
    quantities, (particulate_iron, coloured, uvt_here, fine, disinfected) = _masks(keep)
    return State(
        tuple(map(mul, state.quantities, quantities)),
        state.particulate_iron if particulate_iron else None,
        state.coloured if coloured else None,
        state.psi,
        state.uvt_here if uvt_here else True,
        state.fine if fine else False,
        state.disinfected if disinfected else Disinfected.NO,
        state.used,
        state.scores,
    )


#: the states that lines have come to, each with the figures of the ways that lead there
Front = dict[State, list[Label]]


def merge(into: Front, state: State, labels: list[Label]) -> None:
    """Add labels to a state, keeping those that no other beats."""
    have = into.get(state)
    into[state] = least([*have, *labels]) if have else list(labels)
