"""States that lines under search are in, and the items at their places."""

from __future__ import annotations

import math
from functools import lru_cache
from operator import mul

from ..treating.figures import FINE_UM
from ..treating.items import Item
from ..treating.stages import TECHNOLOGIES
from .answers import FACTS, NAMES, Alike
from .labels import Label, least
from .scores import Score

MICRO = 1_000_000  # figures are compared as whole millionths, so that sums are exact in any order

# a state: (quantities by place, particulate iron, coloured, psi best and high, uvt here, fine
# filter ahead, disinfected ahead, kinds used, figures at the house's taps)
State = tuple[
    tuple[int, ...],
    bool | None,
    bool | None,
    tuple[float, float | None] | None,
    bool,
    bool,
    bool,
    frozenset[str],
    tuple[Score, ...],
]
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
        "disinfects",
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
        self.fine, self.disinfects = is_fine(item), item.figures.disinfects
        least = technology.psi_min if item.psi_min is None and technology else item.psi_min
        self.least_psi = round((least or 0.0) * MICRO)


def is_fine(item: Item) -> bool:
    """Whether an item holds back particles fine enough for what wants a prefilter."""
    return (item.figures.holds_um or math.inf) <= FINE_UM


class LearnedError(Exception):
    """A stage read an analyte that nobody expected it to: the search begins again, knowing it."""


@lru_cache(64)
def _masks(keep: frozenset[str]) -> tuple[tuple[int, ...], tuple[bool, ...]]:
    return tuple(int(n in keep) for n in NAMES), tuple(f in keep for f in FACTS)


def forget(state: State, keep: frozenset[str]) -> State:
    """A state without the quantities and facts that no longer matter."""
    quantities, (particulate_iron, coloured, uvt_here, fine, disinfected) = _masks(keep)
    return (
        tuple(map(mul, state[0], quantities)),
        state[1] if particulate_iron else None,
        state[2] if coloured else None,
        state[3],
        state[4] if uvt_here else True,
        state[5] if fine else False,
        state[6] if disinfected else False,
        state[7],
        state[8],
    )


def merge(into: dict[State, list[Label]], state: State, labels: list[Label]) -> None:
    """Add labels to a state, keeping those that no other beats."""
    have = into.get(state)
    into[state] = least([*have, *labels]) if have else list(labels)
