"""Which items a search tries, by the branch they stand on, each with what is known of it ahead."""

from __future__ import annotations

from collections.abc import Hashable, Iterable

from ..treating.items import Item, SystemFigures, alike
from ..treating.report import Check
from .play import Play, in_play
from .question import Question
from .stage_answers import Alike, Looks
from .states import StageAt


class Candidates:
    """Items that have a part in an answer and that the place does not stop.

    ``house``, ``tap``: those that stand by themselves on each branch; ``systems``: sold whole for
    the drinking tap; ``every``: all of them and the parts of systems, by the index that labels
    name them by.
    """

    def __init__(self, question: Question) -> None:
        self.play: Play = in_play(
            question.items, question.by_code, question.source, question.site, question.wanted
        )
        playing = tuple(i for i in self.play.items if i.code not in self.play.stopped)
        single = [i for i in playing if i.kind != "system"]
        self.house = [i for i in single if i.scope == "house"]
        self.tap = [i for i in single if i.scope == "tap"]
        self.systems = [i for i in playing if i.kind == "system" and i.scope == "tap"]
        self.parts = _parts(playing, question)
        self.every = tuple(dict.fromkeys((*playing, *self.parts)))
        self._stages = _stages(self.every, question)
        self._by_code = {s.item.code: s for s in self._stages}

    @property
    def stopped(self) -> dict[str, Check]:
        """Items that the place alone stops, with the check that does."""
        return self.play.stopped

    def stage(self, code: str) -> StageAt:
        """An item at its place, by its code."""
        return self._by_code[code]

    def at(self, index: int) -> StageAt:
        """An item at its place, by its index."""
        return self._stages[index]

    def tap_least_psi(self) -> tuple[int, ...]:
        """The pressures that what stands at the drinking tap wants [millionths of a psi]."""
        return tuple(s.least_psi for s in self._stages if s.item.scope == "tap")


def _parts(playing: Iterable[Item], question: Question) -> tuple[Item, ...]:
    codes = {p for i in playing if isinstance(i.figures, SystemFigures) for p in i.figures.parts}
    return tuple(question.by_code[p] for p in sorted(codes) if p in question.by_code)


def _stages(every: Iterable[Item], question: Question) -> list[StageAt]:
    """Items with their costs and drops, those that do the same to every water in one group."""
    groups: dict[Hashable, Alike] = {}
    numbers: dict[Looks, int] = {}
    out = []
    for n, i in enumerate(every):
        measured = question.measured.get(i.code, ())
        key = (alike(i, plumbing=False), i.code if measured else "")
        group = groups.setdefault(key, Alike(i, measured))
        group.number = numbers.setdefault(group.looks, len(numbers))
        out.append(StageAt(i, n, question.once(i), question.drop(i), group))
    return out
