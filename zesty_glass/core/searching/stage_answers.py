"""What a technology does to a water, remembered by what it looked at: an answer holds for every
water that looks the same to it.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from decimal import Decimal
from typing import NamedTuple

from ..analytes import ANALYTES
from ..treating.items import Effect, Item, Need
from ..treating.site import Disinfected
from ..treating.stages import TECHNOLOGIES
from ..treating.stages.common import ARSENIC_LITTLE, windowed

NAMES = tuple(ANALYTES)
PLACE = {n: i for i, n in enumerate(NAMES)}
#: facts about the water and the line beside the analytes, by their place in a state
FACTS = {"@particulate_iron": 1, "@coloured": 2, "@uvt_here": 4, "@fine": 5, "@disinfected": 6}

PSI = 3  # the place of the pressure in a state


class Looks(NamedTuple):
    """What an answer hangs on beside facts: places of analytes whose value decides; needs, by
    place, of which the verdict does; places of which only matters whether they are there.
    """

    values: tuple[int, ...]
    judged: tuple[tuple[int, Need], ...]
    there: tuple[int, ...]


def looks(item: Item, measured: Iterable[str] = ()) -> Looks:
    """What decides what an item does, as its technology declares it; ``measured``: analytes of
    which was measured here what it does, a share of what reaches it.
    """
    technology = TECHNOLOGIES[item.kind]
    values = {n for n in technology.reads if n in PLACE}.union(
        measured, technology.also_reads(item)
    )
    if any(windowed(e) for e in item.effects):
        values.add("ph")
    by_form = any(e.analyte == "arsenic" and not e.any_form for e in item.effects)
    asked = (*technology.judges(item), *((ARSENIC_LITTLE,) if by_form else ()))
    needs = dict.fromkeys((PLACE[n.analyte], n) for n in asked)
    judged = tuple(p for p in needs if NAMES[p[0]] not in values)
    there = {e.analyte for e in item.effects} | technology.asks | {NAMES[p] for p, _ in judged}
    return Looks(
        values=tuple(sorted(PLACE[n] for n in values)),
        judged=judged,
        there=tuple(sorted(PLACE[n] for n in there - values)),
    )


def looks_at(item: Item) -> frozenset[str]:
    """Analytes and facts that decide what an item does, beside those it only passes on changed."""
    technology = TECHNOLOGIES[item.kind]
    return (
        frozenset(n.analyte for n in (*item.needs, *technology.judges(item)))
        | technology.reads
        | technology.also_reads(item)
        | technology.asks
        | ({"ph"} if any(windowed(e) for e in item.effects) else frozenset())
    )


class Answer:
    """What a technology does to a state: claims and other changes by place, the facts beside them,
    what falls due, and what it adds otherwise.
    """

    __slots__ = (
        "changes",
        "claims",
        "coloured",
        "disinfects",
        "drops",
        "dues",
        "minutes",
        "options",
        "particulate_iron",
        "psi",
        "running",
        "sets_low",
        "stop",
        "totals",
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
        self.disinfects = Disinfected.NO
        self.totals = False  # whether total chlorine is what is left of free and combined
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

    __slots__ = ("answers", "facts", "looks", "number", "passed", "sample", "stopped", "touches")

    def __init__(self, sample: Item, measured: Iterable[str] = ()) -> None:
        self.sample = sample
        self.number = 0  # the same for all that look at the same; the search gives it
        technology = TECHNOLOGIES.get(sample.kind)  # a system has none: its parts have
        self.touches = technology.touches if technology else frozenset()
        reads = technology.reads if technology else frozenset()
        #: places of a state that an answer hangs on, beside the quantities
        self.facts = (PSI, *(at for fact, at in FACTS.items() if fact in self.touches | reads))
        self.looks = looks(sample, measured) if technology else Looks((), (), ())
        self.stopped = self.passed = (
            False  # whether it is on record that they were stopped, or let stand, somewhere
        )
        self.answers: dict[Hashable, Answer] = {}


__all__ = ["FACTS", "NAMES", "PLACE", "Alike", "Answer", "Looks", "looks", "looks_at"]
