"""Quantities of the search, each known by a number: what is the same goes on together."""

from __future__ import annotations

from ..ranges import Range, Verdict
from ..treating.checks import verdict_on
from ..treating.items import Effect, Need
from ..treating.stages.common import after, claimed, total_chlorine, windowed
from ..treating.stream import UNKNOWN, Quantity, Stream
from .stage_answers import PLACE

_PARTS = ("chlorine_free", "chlorine_combined")
FREE, COMBINED, TOTAL = (PLACE[n] for n in (*_PARTS, "chlorine_total"))

_Same = tuple[Range | None, float | None, str, bool, bool]


class Quantities:
    """Quantities by their numbers, from 1; 0 is what is not tested. What hangs on numbers alone is
    worked out once for each.
    """

    def __init__(self, arsenic_as5: bool | None) -> None:
        self._arsenic_as5 = arsenic_as5
        self._numbers: dict[_Same, int] = {}
        self._all: list[Quantity] = []
        self._verdicts: dict[tuple[int, str, float], Verdict] = {}
        self._totals: dict[tuple[int, int], int] = {}
        self._claims: dict[tuple[int, int, int], int] = {}

    def number(self, q: Quantity) -> int:
        """The number of a quantity. Its evidence and note decide nothing behind it: what is
        otherwise the same has the same.
        """
        key = (q.range, q.below, q.words, q.established, q.pending)
        found = self._numbers.get(key)
        if found is None:
            self._all.append(
                Quantity(
                    range=q.range,
                    state="unknown" if q.range is None else "predicted",
                    below=q.below,
                    words=q.words,
                    established=q.established,
                    pending=q.pending,
                )
            )
            found = self._numbers[key] = len(self._all)
        return found

    def of(self, number: int) -> Quantity | None:
        """The quantity with a number; None for what is not tested."""
        return self._all[number - 1] if number else None

    def verdict(self, need: Need, number: int) -> Verdict:
        """Whether a quantity meets a need."""
        at = (number, need.op, need.limit)
        known = self._verdicts.get(at)
        if known is None:
            known = self._verdicts[at] = verdict_on(need, self.of(number))
        return known

    def claimed(self, effect: Effect, before: int, ph: int) -> int:
        """What a claim makes of a quantity; of the rest of the water it knows the pH at most."""
        key = (id(effect), before, ph if windowed(effect) else 0)
        known = self._claims.get(key)
        if known is None:
            level = claimed(effect, self._all[ph - 1].range if key[2] else None)
            q = after(effect, self._all[before - 1], level, self._arsenic_as5)
            known = self._claims[key] = 0 if q is None else self.number(q)
        return known

    def total_chlorine(self, free: int, combined: int) -> int:
        """Total chlorine of what is left of free and combined, each by its number."""
        found = self._totals.get((free, combined))
        if found is None:
            parts = {n: self._all[i - 1] for n, i in zip(_PARTS, (free, combined), strict=True)}
            whole = Stream(quantities={**parts, "chlorine_total": UNKNOWN})
            found = self.number(total_chlorine(whole, parts)["chlorine_total"])
            self._totals[free, combined] = found
        return found
