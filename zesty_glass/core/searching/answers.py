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
from ..treating.stages.common import windowed
from ..treating.stream import Quantity

NAMES = tuple(ANALYTES)
PLACE = {n: i for i, n in enumerate(NAMES)}
#: facts about the water and the line beside the analytes, by their place in a state
FACTS = {"@ferric": 1, "@coloured": 2, "@uvt_here": 4, "@fine": 5, "@disinfected": 6}

#: what a technology looks at beside its needs and claims; a stage that looks at more teaches the
#: search
READS: dict[str, frozenset[str]] = {
    k: frozenset(v.split())
    for k, v in {
        "salt_free": "chlorine_free iron manganese",
        "carbon": "radon chlorine_free chlorine_total",
        "softener": (
            "calcium chlorine_free hardness iron manganese sodium potassium tannin @ferric"
        ),
        "membrane": (
            "chlorine_free chlorine_total hardness iron manganese ph temperature tds @disinfected"
        ),
        "iron_filter": "hydrogen_sulfide iron iron_ferrous manganese ph tannin",
        "neutraliser": "alkalinity calcium hardness iron ph tds temperature carbon_dioxide",
        "mixed_bed": "alkalinity chlorine_free hardness iron nitrate_n ph sulfate tannin manganese",
        "tannin": "alkalinity chlorine_free hardness iron nitrate_n ph sulfate tannin manganese",
        "arsenic": "ph",
        "uv": (
            "coliform e_coli hardness hydrogen_sulfide iron manganese tannin turbidity uvt"
            " @coloured @uvt_here @fine"
        ),
        "cartridge": "ph",
        "distiller": "tds",
    }.items()
}

#: facts that a technology changes; all others pass it as they are
TOUCHES: dict[str, frozenset[str]] = {
    "sediment": frozenset({"@ferric"}),
    "iron_filter": frozenset({"@ferric"}),
    "tannin": frozenset({"@coloured", "@uvt_here"}),
    "mixed_bed": frozenset({"@coloured", "@uvt_here"}),
}
PSI = 3  # the place of the pressure in a state


def looks_at(item: Item) -> frozenset[str]:
    """Analytes and facts that decide what an item does, beside those it only passes on changed."""
    return (
        frozenset(n.analyte for n in item.needs)
        | READS.get(item.kind, frozenset())
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
        "ferric",
        "minutes",
        "options",
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
        self.ferric: bool | None = None
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
        self.touches = TOUCHES.get(sample.kind, frozenset())
        self.facts = (
            PSI,
            *(
                place
                for fact, place in FACTS.items()
                if fact in self.touches | READS.get(sample.kind, frozenset())
            ),
        )  # places of a state that an answer hangs on, beside the quantities
        self.looked: list[int] = []
        self.stopped = self.passed = (
            False  # whether it is on record that they were stopped, or let stand, somewhere
        )
        self.answers: dict[Any, Answer] = {}


__all__ = [
    "FACTS",
    "NAMES",
    "PLACE",
    "READS",
    "Alike",
    "Answer",
    "Claim",
    "Looked",
    "Reads",
    "looks_at",
]
