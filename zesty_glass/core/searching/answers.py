"""What a technology does to a water, remembered by what it looked at: an answer holds for every
water that looks the same to it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import Any, cast

from ..analytes import ANALYTES
from ..ranges import Verdict
from ..treating.checks import verdict_on
from ..treating.items import Effect, Item, Need
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import windowed
from ..treating.stream import Quantity

NAMES = tuple(ANALYTES)
PLACE = {n: i for i, n in enumerate(NAMES)}
#: facts about the water and the line beside the analytes, by their place in a state
FACTS = {"@particulate_iron": 1, "@coloured": 2, "@uvt_here": 4, "@fine": 5, "@disinfected": 6}

PSI = 3  # the place of the pressure in a state


def looks_at(item: Item) -> frozenset[str]:
    """Analytes and facts that decide what an item does, beside those it only passes on changed."""
    return (
        frozenset(n.analyte for n in item.needs)
        | TECHNOLOGIES[item.kind].reads
        | ({"ph"} if any(windowed(e) for e in item.effects) else frozenset())
    )


class Claim:
    """The place holder of a claim that is put off: whoever looks at its value fails loudly."""

    __slots__ = ("effect",)

    def __init__(self, effect: Effect) -> None:
        self.effect = effect


class Reads(dict[str, Quantity]):
    """Quantities that remember which of them were asked for, which were only judged against a need,
    and which were only asked to be there.
    """

    def __init__(self, values: Mapping[str, Quantity]) -> None:
        super().__init__(values)
        self.asked: set[str] = set()
        self.there: set[str] = set()
        self.judged: dict[tuple[str, str, float], Need] = {}

    def judge(self, need: Need) -> Verdict:
        """How a quantity stands against a need: all that a check of needs may know of it."""
        self.judged[need.analyte, need.op, need.limit] = need
        return verdict_on(need, dict.get(self, need.analyte))

    def put_off(self, effect: Effect) -> Quantity | None:
        """A claim's place holder, where the water has what it claims to change."""
        return cast(Quantity, Claim(effect)) if effect.analyte in self else None

    def get(self, key: str, default: Any = None) -> Any:
        self.asked.add(key)
        return dict.get(self, key, default)

    def __getitem__(self, key: str) -> Quantity:
        self.asked.add(key)
        return dict.__getitem__(self, key)

    def __contains__(self, key: object) -> bool:
        self.there.add(str(key))
        return dict.__contains__(self, key)

    def looked(self) -> Looked:
        """What was looked at, so far."""
        return (
            tuple(sorted(PLACE[n] for n in self.asked if n in PLACE)),
            tuple(
                (PLACE[k[0]], self.judged[k]) for k in sorted(self.judged) if k[0] not in self.asked
            ),
            tuple(sorted(PLACE[n] for n in self.there - self.asked if n in PLACE)),
        )


#: places of the values asked for; needs judged, by place; places asked to be there
Looked = tuple[tuple[int, ...], tuple[tuple[int, Need], ...], tuple[int, ...]]


class Answer:
    """What a technology does to a state: claims and other changes by place, the facts beside them,
    what falls due, and what it adds otherwise.
    """

    __slots__ = (
        "changes",
        "claims",
        "coloured",
        "drops",
        "dues",
        "minutes",
        "options",
        "particulate_iron",
        "psi",
        "running",
        "sets_low",
        "stop",
        "uvt_here",
        "waste",
    )

    def __init__(self) -> None:
        self.stop = ""
        self.changes: tuple[tuple[int, int], ...] = ()
        self.claims: tuple[tuple[int, Effect], ...] = ()
        self.particulate_iron: bool | None = None
        self.coloured: bool | None = None
        self.psi: tuple[float, float | None] | None = None
        self.uvt_here = True
        self.drops = False  # whether it takes the pressure that its item states
        self.sets_low: Callable[[int], int] | None = None
        self.options: list[tuple[int, int, int]] | None = (
            None  # which of the items that are alike are worth taking; the search fills it in
        )
        self.dues: tuple[tuple[int | None, Decimal, float], ...] = ()
        self.running = self.waste = self.minutes = 0


class Alike:
    """Items that do the same to every water and differ in price, flow and pressure drop alone, with
    their answers so far by what was looked at.
    """

    __slots__ = ("answers", "facts", "looked", "passed", "sample", "stopped", "touches")

    def __init__(self, sample: Item) -> None:
        self.sample = sample
        technology = TECHNOLOGIES.get(sample.kind)  # a system has none: its parts have
        self.touches = technology.touches if technology else frozenset()
        reads = technology.reads if technology else frozenset()
        #: places of a state that an answer hangs on, beside the quantities
        self.facts = (PSI, *(at for fact, at in FACTS.items() if fact in self.touches | reads))
        self.looked: list[int] = []
        self.stopped = self.passed = (
            False  # whether it is on record that they were stopped, or let stand, somewhere
        )
        self.answers: dict[Any, Answer] = {}


__all__ = [
    "FACTS",
    "NAMES",
    "PLACE",
    "Alike",
    "Answer",
    "Claim",
    "Looked",
    "Reads",
    "looks_at",
]
